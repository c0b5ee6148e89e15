// One field of the plan, declared once: what it is called in the file, what it may be, what is taken for it
// when it is open, and how a form shows it. plan_fields.h lists the fields of each part; JSON, the schema,
// the check of ranges, the rows of forms, the table of the plan format and random plans are made from that
// list.
#pragma once

#include <limits>

#include "units/quantity.h"

namespace yr {

struct Field {
    const char* key;
    Dimension dimension = Dimension::number;
    double least = -std::numeric_limits<double>::infinity();
    double most = std::numeric_limits<double>::infinity();
    bool above = false;           // more than `least`, not least itself
    bool required = false;        // stands in every file
    bool quiet = false;           // left out of the file where it says what is usual
    bool usually = false;         // a yes-or-no that is usually yes
    bool volts_of_rail = false;   // 12, 24 or 48
    const char* label = "";       // of its row in a form, a literal for the catalogue
    const char* open = "";        // what the row says while it is open
    const char* assumption = "";  // key of data/catalog/assumptions.json that is taken then

    // What is declared is known when it is compiled: a part's fields are a table and no code (a third of the
    // time that this room takes to compile). NOLINTNEXTLINE(google-explicit-constructor): a field without
    // more to say is its key
    consteval Field(const char* k) : key(k) {}
    constexpr Field(const char* k, bool needed) : key(k), required(needed) {}  // one of the plan's lists

    [[nodiscard]] consteval Field of(Dimension d) const {
        Field f = *this;
        f.dimension = d;
        return f;
    }
    [[nodiscard]] consteval Field range(double low, double high) const {
        Field f = *this;
        f.least = low, f.most = high;
        return f;
    }
    [[nodiscard]] consteval Field more_than(double low, double high) const {
        Field f = range(low, high);
        f.above = true;
        return f;
    }
    // xgettext takes the texts from here
    [[nodiscard]] consteval Field row(const char* text) const {
        Field f = *this;
        f.label = text;
        return f;
    }
    [[nodiscard]] consteval Field when_open(const char* text) const {
        Field f = *this;
        f.open = text;
        return f;
    }
    [[nodiscard]] consteval Field assumed(const char* assumption_key) const {
        Field f = *this;
        f.assumption = assumption_key;
        return f;
    }
    [[nodiscard]] consteval Field needed() const {
        Field f = *this;
        f.required = true;
        return f;
    }
    [[nodiscard]] consteval Field left_out_as_usual() const {
        Field f = *this;
        f.quiet = true;
        return f;
    }
    [[nodiscard]] consteval Field usually_yes() const {
        Field f = *this;
        f.usually = true;
        return f;
    }
    [[nodiscard]] consteval Field rail_volts() const {
        Field f = *this;
        f.volts_of_rail = true;
        return f;
    }
    [[nodiscard]] constexpr bool takes(double value) const {
        if (volts_of_rail) return value == 12 || value == 24 || value == 48;
        return (above ? value > least : value >= least) && value <= most;
    }
};

}  // namespace yr
