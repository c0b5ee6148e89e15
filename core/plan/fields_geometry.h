// The fields of where things stand and cables lie (geometry.h). For plan_fields.h.
#pragma once

#include "plan/part_names.h"

namespace yr {

// Where it stands (geometry.h).
template <class V, PartOf<Stand> T>
void stand_fields(V&& v, T& at) {
    v(F("x_m").range(-20, 40).row("Behind the front axle, m").when_open("not placed"), at.x_m);
    v(F("y_m").range(-10, 10).row("To the right, m").when_open("not placed"), at.y_m);
    v(F("z_m").range(-5, 10).row("Above the axle, m").when_open("not placed"), at.z_m);
}

template <class V, PartOf<Waypoint> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("kind").left_out_as_usual(), x.kind);
    stand_fields(v, x.at);
    v(F("bore_mm").more_than(0, 500).row("Free bore, mm").when_open("not said"), x.bore_mm);
    v("guarded", x.guarded);
    v("sealed", x.sealed);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Way> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("from").needed(), x.from);
    v(F("to").needed(), x.to);
    v("place", x.place);
    v("flexes", x.flexes);
    v(F("clip_m").of(Dimension::length).more_than(0, 5).row("Clips every").when_open("by policy"), x.clip_m);
    v(F("covering").row("Covered with").when_open("split loom"), x.covering);
    v("typical", x.typical);
    remark_fields(v, x.remarks);
}

}  // namespace yr
