#pragma once
// Whether a mistake is switched on: included before everything by the copy of the sources in which mistakes are planted.

namespace apsidon {
__attribute__((visibility("default"))) bool planted(unsigned number) noexcept;
}
