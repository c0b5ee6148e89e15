// Symbols of circuit diagrams, drawn after IEC 60617 (numbers of its symbols beside each, from memory), and
// the terminal numbers of vehicles (DIN 72552, from memory).
#pragma once

#include "diagram/strokes.h"

namespace yr {

// What a thing is drawn as.
enum class Symbol {
    battery,    // S01341
    generator,  // S00833 within a circle, with its rectifier: "G 3~"
    converter,  // S00893: DC to DC
    rectifier,  // S00894: AC to DC
    inverter,   // S00895: DC to AC
    solar,      // S00908
    junction,   // S00016: a stud or splice
    bar,        // a bus bar
    unit,       // S00059: a box with its name
    lamp,       // S00965
    motor,      // S00822
    coil,       // S00305: of a relay
    load        // S00059
};

// In the middle of (x, y), about `size` mm high.
void draw(Strokes& out, Symbol symbol, double x, double y, double size, bool mirrored = false);

// In line from left to right, its middle at (x, y); 8 mm long with its ends.
void draw_device(Strokes& out, const Device& device, double x, double y);

// A ground below (x, y): to the frame (S00202) or to a ground bar, with its name.
void draw_ground(Strokes& out, double x, double y, const std::string& name, bool frame);

// A contact pair of a connector (S00031, S00032) at (x, y).
void draw_pin(Strokes& out, double x, double y, const std::string& text);

[[nodiscard]] Symbol symbol_of(const Plan& plan, const Id& thing);

// "30", "31", "15", "50", "B+" ...; empty where no number is usual.
[[nodiscard]] std::string terminal_number(const Plan& plan, const Terminal& at);

}  // namespace yr
