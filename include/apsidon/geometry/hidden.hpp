#pragma once
#include <memory>

namespace apsidon {

/// What a class keeps behind its header: owned, and destroyed by who made it, so that the class moves by
/// itself and is never copied.
template <class Inside>
using Hidden = std::unique_ptr<Inside, void (*)(Inside*)>;

}  // namespace apsidon
