// Parts of the plan to JSON and back by their lists of fields (plan_fields.h). For plan_json.cpp and
// library.cpp.
#pragma once

#include <nlohmann/json.hpp>
#include <string_view>

#include "plan/names.h"
#include "plan/plan_fields.h"

namespace yr::json_fields {

using Json = nlohmann::ordered_json;  // written: in the order of the fields
using In = nlohmann::json;            // read: in any

// ---- writing

template <class T>
Json written(const T& value);

// What says nothing is left out of the file: what is open, empty lists and parts, what is as usual.
struct Writer {
    Json& out;
    bool whole = false;  // the plan itself shows its empty parts as well
    template <class T>
    void operator()(const Field& field, const std::optional<T>& value) const {
        if (value) out[field.key] = written(*value);
    }
    template <class T>
    void operator()(const Field& field, const std::vector<T>& value) const {
        if (value.empty() && !whole) return;
        Json list = Json::array();
        for (const T& x : value) list.push_back(written(x));
        out[field.key] = std::move(list);
    }
    void operator()(const Field& field, const std::string& value) const {
        if (!value.empty() || field.required) out[field.key] = value;
    }
    void operator()(const Field& field, const Terminal& value) const { (*this)(field, value.text()); }
    void operator()(const Field& field, bool value) const {
        if (value != field.usually) out[field.key] = value;
    }
    template <class T>
    void operator()(const Field& field, const T& value) const {
        if constexpr (std::is_default_constructible_v<T>)
            if (field.quiet && value == T{}) return;
        Json part = written(value);
        if (part.is_object() && part.empty() && !field.required && !whole) return;
        out[field.key] = std::move(part);
    }
};

template <class T>
Json written(const T& value) {
    if constexpr (std::is_enum_v<T>) {
        return enum_name(value);
    } else if constexpr (std::is_same_v<T, WireSize>) {
        return name_of(value);
    } else if constexpr (HasFields<const T>) {
        Json object = Json::object();
        fields(Writer{object}, value);
        return object;
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        return Json::array({value.first, value.second});
    } else if constexpr (std::is_same_v<T, double>) {
        return value == 0 ? 0.0 : value;  // no "-0.0" in files
    } else {
        return value;
    }
}

// ---- reading

// Whether what stands there is as the schema says of such a field. Never says yes where the schema says no;
// of numbers that are written in a way the schema might not take (5.0 for 5) it says no.
[[nodiscard]] bool is_text(const Field& field, const In& in);
[[nodiscard]] bool is_number(const Field& field, const In& in, bool whole);
[[nodiscard]] bool is_pair(const In& in);

template <class T>
void read_value(const In& in, T& value, const Field& field, bool* sure);

// Reads what the schema has made sure of; with `sure` it makes sure itself as it goes, and what is not as the
// schema says is not read and sets *sure to false.
struct Reader {
    const In& in;
    bool* sure = nullptr;
    std::size_t* known = nullptr;  // how many of the object's entries are fields

    [[nodiscard]] const In* entry(const Field& field) const {
        // most fields are open in most files: once every entry is known, no other is sought
        const auto found = known && *known == in.size() ? in.end() : in.find(field.key);
        if (found != in.end()) {
            if (known) ++*known;
            return &*found;
        }
        if (sure && field.required) *sure = false;
        return nullptr;
    }
    template <class T>
    void operator()(const Field& field, std::optional<T>& value) const {
        const In* found = entry(field);
        if (!found) return;
        if constexpr (std::is_same_v<T, WireSize>) {
            if (found->is_string())
                if (auto size = parse_wire_size(found->get_ref<const std::string&>())) value = *size;
            if (sure && !value) *sure = false;
        } else {
            T x{};
            read_value(*found, x, field, sure);
            value = std::move(x);
        }
    }
    template <class T>
    void operator()(const Field& field, std::vector<T>& value) const {
        const In* found = entry(field);
        if (!found) return;
        if (sure && (!found->is_array() || (field.required && found->empty()))) {
            *sure = false;
            return;
        }
        static const Field item("item");
        value.reserve(found->size());
        for (const In& x : *found) read_value(x, value.emplace_back(), item, sure);
    }
    template <class T>
    void operator()(const Field& field, T& value) const {
        if (const In* found = entry(field)) read_value(*found, value, field, sure);
    }
};

template <class T>
void read_value(const In& in, T& value, const Field& field, bool* sure) {
    const auto fits = [&](bool as_the_schema_says) {
        if (sure && !as_the_schema_says) *sure = false;
        return !sure || as_the_schema_says;
    };
    if constexpr (std::is_enum_v<T>) {
        if (!fits(in.is_string())) return;
        const auto e = enum_named<T>(in.get_ref<const std::string&>());
        if (fits(e.has_value()) && e) value = *e;
    } else if constexpr (std::is_same_v<T, Terminal>) {
        if (fits(in.is_string())) value = Terminal(in.get_ref<const std::string&>());
    } else if constexpr (std::is_same_v<T, WireSize>) {
        if (!fits(in.is_string())) return;
        const auto size = parse_wire_size(in.get_ref<const std::string&>());
        if (fits(size.has_value()) && size) value = *size;
    } else if constexpr (HasFields<T>) {
        if (!fits(in.is_object())) return;
        std::size_t known = 0;
        fields(Reader{in, sure, &known}, value);
        fits(known == in.size());
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        if (fits(is_pair(in))) value = {in[0].get<double>(), in[1].get<double>()};
    } else if constexpr (std::is_same_v<T, std::string>) {
        if (fits(is_text(field, in))) value = in.get_ref<const std::string&>();
    } else if constexpr (std::is_same_v<T, bool>) {
        if (fits(in.is_boolean())) in.get_to(value);
    } else {
        if (fits(is_number(field, in, std::is_integral_v<T>))) in.get_to(value);
    }
}

}  // namespace yr::json_fields
