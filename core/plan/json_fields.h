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

// ---- reading; the schema has already made sure of every type

template <class T>
void read_value(const In& in, T& value);

struct Reader {
    const In& in;
    template <class T>
    void operator()(const Field& field, std::optional<T>& value) const {
        const auto found = in.find(field.key);
        if (found == in.end()) return;
        if constexpr (std::is_same_v<T, WireSize>) {
            if (auto size = parse_wire_size(found->get_ref<const std::string&>())) value = *size;
        } else {
            T x{};
            read_value(*found, x);
            value = std::move(x);
        }
    }
    template <class T>
    void operator()(const Field& field, std::vector<T>& value) const {
        const auto found = in.find(field.key);
        if (found == in.end()) return;
        value.reserve(found->size());
        for (const In& item : *found) read_value(item, value.emplace_back());
    }
    template <class T>
    void operator()(const Field& field, T& value) const {
        if (const auto found = in.find(field.key); found != in.end()) read_value(*found, value);
    }
};

template <class T>
void read_value(const In& in, T& value) {
    if constexpr (std::is_enum_v<T>) {
        if (auto e = enum_named<T>(in.get<std::string>())) value = *e;
    } else if constexpr (std::is_same_v<T, Terminal>) {
        value = Terminal(in.get<std::string>());
    } else if constexpr (std::is_same_v<T, WireSize>) {
        if (auto size = parse_wire_size(in.get<std::string>())) value = *size;
    } else if constexpr (HasFields<T>) {
        fields(Reader{in}, value);
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        value = {in[0].get<double>(), in[1].get<double>()};
    } else {
        in.get_to(value);
    }
}

}  // namespace yr::json_fields
