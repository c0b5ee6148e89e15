#include "plan/schema_check.h"

#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

#include "plan/schema.h"

namespace yr {
namespace {

const valijson::Schema& compiled_schema() {
    static const auto schema = [] {
        auto s = std::make_unique<valijson::Schema>();
        const nlohmann::json text = nlohmann::json::parse(plan_schema_text());
        valijson::SchemaParser().populateSchema(valijson::adapters::NlohmannJsonAdapter(text), *s);
        return s;
    }();
    return *schema;
}

struct SchemaSpot {
    std::string words;
    std::string value;  // what stands there, where it is a word or a number
};

// "[loads]", "[3]", "[draw]" -> "loads, scene lights, draw": a list's entry is called by its own name
SchemaSpot place_in_words(const nlohmann::json& file, const std::vector<std::string>& context) {
    std::string words;
    const nlohmann::json* at = &file;
    for (const std::string& step : context) {
        if (step.size() < 3 || step.front() != '[') continue;  // "<root>"
        const std::string key = step.substr(1, step.size() - 2);
        std::string word = key;
        if (at->is_array()) {
            const std::size_t index = std::stoul(key);
            at = index < at->size() ? &(*at)[index] : at;
            word = "entry " + std::to_string(index + 1);
            if (at->is_object() && at->contains("name") && (*at)["name"].is_string()) word = (*at)["name"];
        } else if (at->is_object() && at->contains(key)) {
            at = &(*at)[key];
        }
        words += (words.empty() ? "" : ", ") + word;
    }
    std::string value;
    if (at->is_string()) value = at->get<std::string>();
    if (at->is_number() || at->is_boolean()) value = at->dump();
    return {words.empty() ? "the whole file" : words, value};
}

}  // namespace

std::optional<Error> check_schema(const nlohmann::json& file) {
    valijson::ValidationResults results;
    valijson::Validator validator(valijson::Validator::kStrongTypes);
    if (validator.validate(compiled_schema(), valijson::adapters::NlohmannJsonAdapter(file), &results))
        return std::nullopt;
    // The deepest message is the cause; those above it only say that something below is wrong.
    valijson::ValidationResults::Error error, deepest;
    while (results.popError(error))
        if (error.context.size() > deepest.context.size() || deepest.description.empty()) deepest = error;
    SchemaSpot place = place_in_words(file, deepest.context);
    return Error{ErrorCode::schema,
                 std::move(place.words),
                 std::move(place.value),
                 {Want::as_said, deepest.description}};
}

}  // namespace yr
