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

// What is the same for every part stands in json_fields.cpp: the rest is compiled once for each of fifty
// parts.
void put(Json& out, const Field& field, Json part);
[[nodiscard]] Json number_written(double value);  // no "-0.0" in files
[[nodiscard]] Json pair_written(const std::pair<double, double>& value);

// What says nothing is left out of the file: what is open, empty lists and parts, what is as usual.
struct Writer {
    Json& out;
    bool whole = false;  // the plan itself shows its empty parts as well
    template <class T>
    void operator()(const Field& field, const std::optional<T>& value) const {
        if (value) put(out, field, written(*value));
    }
    template <class T>
    void operator()(const Field& field, const std::vector<T>& value) const {
        if (value.empty() && !whole) return;
        Json list = Json::array();
        for (const T& x : value) list.push_back(written(x));
        put(out, field, std::move(list));
    }
    void operator()(const Field& field, const std::string& value) const;
    void operator()(const Field& field, const Terminal& value) const;
    void operator()(const Field& field, bool value) const;
    template <class T>
    void operator()(const Field& field, const T& value) const {
        if constexpr (std::is_default_constructible_v<T>)
            if (field.quiet && value == T{}) return;
        put_part(field, written(value));
    }
    void put_part(const Field& field, Json part) const;
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
        return pair_written(value);
    } else if constexpr (std::is_same_v<T, double>) {
        return number_written(value);
    } else {
        return value;
    }
}

// ---- reading

// Each reads what the schema has made sure of. With `sure` it makes sure itself, and what is not as the
// schema says is not read and sets *sure to false. Never says yes where the schema says no; of numbers that
// are written in a way the schema might not take (5.0 for 5) it says no.
void read(const In& in, std::string& text, const Field& field, bool* sure);
void read(const In& in, double& number, const Field& field, bool* sure);
void read(const In& in, int& number, const Field& field, bool* sure);
void read(const In& in, bool& yes, const Field& field, bool* sure);
void read(const In& in, std::pair<double, double>& pair, const Field& field, bool* sure);
void read(const In& in, Terminal& terminal, const Field& field, bool* sure);
void read(const In& in, WireSize& size, const Field& field, bool* sure);
void read(const In& in, std::optional<WireSize>& size, bool* sure);
[[nodiscard]] const std::string* word_in(const In& in, bool* sure);
// Whether it holds what it should, else *sure is false.
bool fits(bool as_the_schema_says, bool* sure);

template <class T>
void read_value(const In& in, T& value, const Field& field, bool* sure);

// Reads what the schema has made sure of; with `sure` it makes sure itself as it goes, and what is not as the
// schema says is not read and sets *sure to false.
struct Reader {
    const In& in;
    bool* sure = nullptr;
    std::size_t* known = nullptr;  // how many of the object's entries are fields

    [[nodiscard]] const In* entry(const Field& field) const;
    [[nodiscard]] const In* list_entry(const Field& field) const;
    template <class T>
    void operator()(const Field& field, std::optional<T>& value) const {
        const In* found = entry(field);
        if (!found) return;
        if constexpr (std::is_same_v<T, WireSize>) {
            read(*found, value, sure);
        } else {
            read_value(*found, value.emplace(), field, sure);
        }
    }
    template <class T>
    void operator()(const Field& field, std::vector<T>& value) const {
        const In* found = list_entry(field);
        if (!found) return;
        std::vector<T> list(found->size());
        for (std::size_t k = 0; k < list.size(); ++k) read_value((*found)[k], list[k], "item", sure);
        value = std::move(list);
    }
    template <class T>
    void operator()(const Field& field, T& value) const {
        if (const In* found = entry(field)) read_value(*found, value, field, sure);
    }
};

template <class T>
void read_value(const In& in, T& value, const Field& field, bool* sure) {
    if constexpr (std::is_enum_v<T>) {
        if (const std::string* word = word_in(in, sure))
            if (const auto e = enum_named<T>(*word); fits(e.has_value(), sure) && e) value = *e;
    } else if constexpr (HasFields<T>) {
        if (!fits(in.is_object(), sure)) return;
        std::size_t known = 0;
        fields(Reader{in, sure, &known}, value);
        fits(known == in.size(), sure);
    } else {
        read(in, value, field, sure);
    }
}

}  // namespace yr::json_fields
