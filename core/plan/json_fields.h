// Parts of the plan to JSON and back by their lists of fields (plan_fields.h). For plan_json.cpp and
// library.cpp.
#pragma once

#include <nlohmann/json.hpp>
#include <string_view>

#include "plan/names.h"
#include "plan/plan_fields.h"

namespace yr::json_fields {

using Json = nlohmann::ordered_json;

template <class T>
concept HasFields = requires(T& x) {
    fields([](const char*, auto&) {}, x);
};

// ---- writing

template <class T>
Json written(const T& value);
template <class T>
void leave_out_defaults(Json& object);

struct Writer {
    Json& out;
    template <class T>
    void operator()(const char* key, const std::optional<T>& value) const {
        if (value) out[key] = written(*value);
    }
    template <class T>
    void operator()(const char* key, const std::vector<T>& value) const {
        Json list = Json::array();
        for (const T& x : value) list.push_back(written(x));
        out[key] = std::move(list);
    }
    void operator()(const char* key, const std::string& value) const {
        if (!value.empty() || std::string_view(key) == "name") out[key] = value;
    }
    template <class T>
    void operator()(const char* key, const T& value) const {
        out[key] = written(value);
    }
};

// What says nothing is left out of the file: empty lists, a false that is usual, words for "as usual".
template <class T>
void leave_out_defaults(Json& object) {
    static const Json usual = [] {
        Json o = Json::object();
        const T plain{};
        fields(Writer{o}, plain);
        return o;
    }();
    for (auto at = object.begin(); at != object.end();) {
        const std::string& key = at.key();
        const bool quiet = at->is_boolean() || ((at->is_array() || at->is_object()) && at->empty()) ||
                           key == "supply_code" || key == "cranking_standard" || key == "senses" ||
                           key == "sun" || key == "output" || key == "suppression" || key == "channel";
        const auto found = usual.find(key);
        const bool nothing = found == usual.end()
                                 ? *at == Json(false) || *at == "from" || *at == "unknown" || at->empty()
                                 : *found == *at;
        if (quiet && nothing)
            at = object.erase(at);
        else
            ++at;
    }
}

template <class T>
Json written(const T& value) {
    if constexpr (std::is_enum_v<T>) {
        return enum_name(value);
    } else if constexpr (std::is_same_v<T, WireSize>) {
        return name_of(value);
    } else if constexpr (HasFields<const T>) {
        Json object = Json::object();
        fields(Writer{object}, value);
        leave_out_defaults<std::remove_const_t<T>>(object);
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
void read_value(const Json& in, T& value);

struct Reader {
    const Json& in;
    template <class T>
    void operator()(const char* key, std::optional<T>& value) const {
        if (!in.contains(key)) return;
        if constexpr (std::is_same_v<T, WireSize>) {
            if (auto size = parse_wire_size(in[key].get<std::string>())) value = *size;
        } else {
            T x{};
            read_value(in[key], x);
            value = std::move(x);
        }
    }
    template <class T>
    void operator()(const char* key, std::vector<T>& value) const {
        if (!in.contains(key)) return;
        for (const Json& item : in[key]) read_value(item, value.emplace_back());
    }
    template <class T>
    void operator()(const char* key, T& value) const {
        if (in.contains(key)) read_value(in[key], value);
    }
};

template <class T>
void read_value(const Json& in, T& value) {
    if constexpr (std::is_enum_v<T>) {
        if (auto e = enum_named<T>(in.get<std::string>())) value = *e;
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
