#include "support/schema.hpp"

#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include "support/process.hpp"

namespace apsidon::test {

struct Schema::Impl {
  valijson::Schema schema;
};

Schema::Schema(const std::string& name, const std::string& definition) : impl_(std::make_unique<Impl>()) {
  auto json = nlohmann::json::parse(contents(source("data/schemas/" + name + ".schema.json")));
  if (!definition.empty())
    json = {{"$ref", "#/definitions/" + definition}, {"definitions", json["definitions"]}};
  valijson::SchemaParser().populateSchema(valijson::adapters::NlohmannJsonAdapter(json), impl_->schema);
}

Schema::~Schema() = default;

bool Schema::accepts(const nlohmann::json& json) const {
  return valijson::Validator().validate(impl_->schema, valijson::adapters::NlohmannJsonAdapter(json),
                                        nullptr);
}

}  // namespace apsidon::test
