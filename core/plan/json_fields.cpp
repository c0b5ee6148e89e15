#include "plan/json_fields.h"

#include <algorithm>
#include <cmath>

namespace yr::json_fields {

// ---- writing

void put(Json& out, const Field& field, Json part) {
    out[field.key] = std::move(part);
}

Json number_written(double value) {
    return value == 0 ? 0.0 : value;
}

Json pair_written(const std::pair<double, double>& value) {
    return Json::array({value.first, value.second});
}

void Writer::operator()(const Field& field, const std::string& value) const {
    if (!value.empty() || field.required) put(out, field, value);
}

void Writer::operator()(const Field& field, const Terminal& value) const {
    (*this)(field, value.text());
}

void Writer::operator()(const Field& field, bool value) const {
    if (value != field.usually) put(out, field, value);
}

void Writer::put_part(const Field& field, Json part) const {
    if (part.is_object() && part.empty() && !field.required && !whole) return;
    put(out, field, std::move(part));
}

// ---- reading

bool fits(bool as_the_schema_says, bool* sure) {
    if (sure && !as_the_schema_says) *sure = false;
    return !sure || as_the_schema_says;
}

namespace {

bool is_id(const std::string& text) {
    return !text.empty() && std::all_of(text.begin(), text.end(), [](char c) {
        return (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '_' ||
               c == '-';
    });
}

bool is_text(const Field& field, const In& in) {
    return in.is_string() && (std::string_view(field.key) != "id" || is_id(in.get_ref<const std::string&>()));
}

bool is_number(const Field& field, const In& in, bool whole) {
    if (whole ? !in.is_number_integer() : !in.is_number()) return false;
    const auto value = in.get<double>();
    return field.takes(value) && (!whole || std::abs(value) < 1e9);
}

bool is_pair(const In& in) {
    return in.is_array() && in.size() == 2 && in[0].is_number() && in[1].is_number() &&
           in[0].get<double>() >= 0 && in[1].get<double>() >= 0;
}

}  // namespace

void read(const In& in, std::string& text, const Field& field, bool* sure) {
    if (fits(is_text(field, in), sure)) text = in.get_ref<const std::string&>();
}

void read(const In& in, double& number, const Field& field, bool* sure) {
    if (fits(is_number(field, in, false), sure)) in.get_to(number);
}

void read(const In& in, int& number, const Field& field, bool* sure) {
    if (fits(is_number(field, in, true), sure)) in.get_to(number);
}

void read(const In& in, bool& yes, const Field&, bool* sure) {
    if (fits(in.is_boolean(), sure)) in.get_to(yes);
}

void read(const In& in, std::pair<double, double>& pair, const Field&, bool* sure) {
    if (fits(is_pair(in), sure)) pair = {in[0].get<double>(), in[1].get<double>()};
}

void read(const In& in, Terminal& terminal, const Field&, bool* sure) {
    if (fits(in.is_string(), sure)) terminal = Terminal(in.get_ref<const std::string&>());
}

void read(const In& in, WireSize& size, const Field&, bool* sure) {
    if (!fits(in.is_string(), sure)) return;
    const auto said = parse_wire_size(in.get_ref<const std::string&>());
    if (fits(said.has_value(), sure) && said) size = *said;
}

void read(const In& in, std::optional<WireSize>& size, bool* sure) {
    if (in.is_string())
        if (auto said = parse_wire_size(in.get_ref<const std::string&>())) size = *said;
    if (sure && !size) *sure = false;
}

const std::string* word_in(const In& in, bool* sure) {
    return fits(in.is_string(), sure) ? &in.get_ref<const std::string&>() : nullptr;
}

const In* Reader::entry(const Field& field) const {
    // most fields are open in most files: once every entry is known, no other is sought
    const auto found = known && *known == in.size() ? in.end() : in.find(field.key);
    if (found != in.end()) {
        if (known) ++*known;
        return &*found;
    }
    if (sure && field.required) *sure = false;
    return nullptr;
}

const In* Reader::list_entry(const Field& field) const {
    const In* found = entry(field);
    if (found && sure && (!found->is_array() || (field.required && found->empty()))) {
        *sure = false;
        return nullptr;
    }
    return found;
}

}  // namespace yr::json_fields
