#include "apsidon/geometry/error.hpp"

namespace apsidon {

Error::~Error() = default;

}  // namespace apsidon
