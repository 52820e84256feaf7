#pragma once
// JSON Schemas of the project, for tests.
#include <memory>
#include <nlohmann/json.hpp>
#include <string>

namespace apsidon::test {

/// Whether a text is valid by one of the schemas in data/schemas.
class Schema {
 public:
  /// Of one of its definitions alone, if that is named: "zone".
  explicit Schema(const std::string& name, const std::string& definition = "");
  ~Schema();
  [[nodiscard]] bool accepts(const nlohmann::json& json) const;

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon::test
