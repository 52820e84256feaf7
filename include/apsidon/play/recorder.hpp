#pragma once
#include <functional>

#include "apsidon/fwd.hpp"

namespace apsidon {

/// Hears every input. May not call back into the playfield; it may set another recorder.
using Recorder = std::function<void(const Input&)>;

}  // namespace apsidon
