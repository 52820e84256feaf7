#pragma once
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"

namespace apsidon::play_detail {

/// What the groups of a playfield's calls share: each is a part of its playfield, there as long as that is,
/// and cannot be copied. A const playfield gives it as const, and can only be asked.
class APSIDON_CORE_EXPORT Group {
 public:
  Group(const Group&) = delete;
  Group& operator=(const Group&) = delete;

 protected:
  explicit Group(Impl& field) : field_(&field) {}
  ~Group() = default;
  [[nodiscard]] Impl* field() { return field_; }
  [[nodiscard]] const Impl* field() const { return field_; }

 private:
  Impl* field_;
};

}  // namespace apsidon::play_detail
