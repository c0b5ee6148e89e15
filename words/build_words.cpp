#include "words/build_words.h"

#include <algorithm>
#include <cmath>

#include "plan/names.h"
#include "words/say.h"
#include "words/sentences.h"

namespace yr::words {
namespace {

// Two decimals of a metre are a centimetre: what a tape says.
double cm(double metres) {
    return std::round(metres * 100) / 100;
}

std::string names(const Plan& plan, const std::vector<Id>& ids) {
    std::string text;
    for (std::size_t k = 0; k < ids.size(); ++k) {
        if (k == 8) return text + say(" and {0} more", ids.size() - k);
        text += (text.empty() ? "" : ", ") + yr::name_of(plan, ids[k]);
    }
    return text;
}

}  // namespace

std::string colour_text(const std::string& colour) {
    if (colour == "red") return translated("red");
    if (colour == "blue") return translated("blue");
    if (colour == "black") return translated("black");
    return colour;
}

std::string covering_text(const std::vector<CoveringLayer>& layers) {
    std::string text;
    for (const CoveringLayer& l : layers) {
        const std::string kind = l.kind == "tape"         ? translated("tape")
                                 : l.kind == "split loom" ? translated("split loom")
                                 : l.kind == "braid"      ? translated("braid")
                                 : l.kind == "shrink"     ? translated("shrink")
                                                          : translated("conduit");
        const std::string one = say("{0} {1} mm", kind, number(l.sold_mm));
        text += text.empty() ? one : say(", {0} over it", one);
    }
    return text;
}

std::string end_text(const CableEnd& e) {
    std::string text;
    switch (e.kind) {
        case EndKind::ring:
            text = say("ring, M{0}", number(e.bolt_mm));
            break;
        case EndKind::blade:
            text = say("blade, {0} mm", number(e.blade_mm));
            break;
        case EndKind::ferrule:
            text = translated("ferrule");
            break;
        case EndKind::bare:
            text = translated("bare under a screw");
            break;
        case EndKind::pin:
            text = translated("pin");
            break;
        case EndKind::splice:
            text = translated("splice");
            break;
        case EndKind::by_choice:
            break;
    }
    if (e.angle_deg > 0) text += say(", {0}°", number(e.angle_deg));
    if (e.boot) text += translated(", cap");
    if (e.shrink_mm > 0)
        text += say(", shrink {0} mm", number(e.shrink_mm)) + (e.doubled ? translated(" twice") : "");
    if (e.chosen) text += translated(" (chosen)");
    return text;
}

std::string step_text(EndStep step, const CableEnd& e, double mm2) {
    switch (step) {
        case EndStep::cut:
            return translated("Cut it square.");
        case EndStep::slide_boot:
            return translated("Slide the cap on, its wide end first.");
        case EndStep::slide_shrink:
            return e.doubled ? say("Slide two shrinks of {0} mm on, {1} mm each.", number(e.shrink_mm),
                                   number(e.shrink_length_mm / 2))
                             : say("Slide the shrink on: {0} mm, {1} mm long.", number(e.shrink_mm),
                                   number(e.shrink_length_mm));
        case EndStep::strip:
            return say("Strip {0} mm, no strand cut.", number(e.strip_mm));
        case EndStep::twist:
            return translated("Twist the strands; no solder under a screw.");
        case EndStep::crimp_front: {
            const std::string tool = tool_for(e, mm2);
            if (e.kind == EndKind::ring && mm2 >= 10)
                return say("Crimp with the hexagonal die of {0}, the first at the front edge.",
                           quantity(mm2, Dimension::area));
            if (tool == "ferrule crimper") return translated("Crimp with the ferrule crimper.");
            return tool == "roll crimper" ? translated("Crimp with the roll crimper: wire, then insulation.")
                                          : translated("Crimp with the indent crimper.");
        }
        case EndStep::crimp_back:
            return translated("A second crimp behind it.");
        case EndStep::pull:
            return translated("Pull hard: it holds or it is made again.");
        case EndStep::warm:
            return translated("Pull the shrink over the barrel and warm it until its glue shows.");
        case EndStep::label:
            return translated("Label it.");
    }
    return {};
}

const char* name_of(BuyKind kind) {
    switch (kind) {
        case BuyKind::cable:
            return translated("cable");
        case BuyKind::lug:
            return translated("lugs");
        case BuyKind::blade:
            return translated("blades");
        case BuyKind::ferrule:
            return translated("ferrules");
        case BuyKind::pin:
            return translated("pins");
        case BuyKind::splice:
            return translated("splices");
        case BuyKind::boot:
            return translated("caps");
        case BuyKind::shrink:
            return translated("heat shrink");
        case BuyKind::fuse:
            return translated("fuses");
        case BuyKind::spare:
            return translated("spare fuses");
        case BuyKind::holder:
            return translated("fuse holders");
        case BuyKind::breaker:
            return translated("breakers");
        case BuyKind::relay:
            return translated("relays and switches");
        case BuyKind::box:
            return translated("boxes");
        case BuyKind::bus:
            return translated("buses and studs");
        case BuyKind::battery:
            return translated("batteries");
        case BuyKind::source:
            return translated("sources");
        case BuyKind::inverter:
            return translated("inverters");
        case BuyKind::load:
            return translated("loads");
        case BuyKind::loom:
            return translated("loom");
        case BuyKind::grommet:
            return translated("grommets and glands");
        case BuyKind::clip:
            return translated("clips");
        case BuyKind::label:
            return translated("labels");
    }
    return "";
}

std::string label_text(const Plan& plan, const WireRow& w, bool at_from) {
    const Run& run = plan.runs[w.run];
    return w.number + "  " + run.name + "\n\xE2\x86\x92 " + terminal(plan, at_from ? run.to : run.from);
}

std::string sentence(const SizeCutting& c, const Style& style) {
    const std::string what = say("{0}, {1}", yr::name_of(c.size), colour_text(c.colour));
    const auto m = [&](double v) { return quantity(v, Dimension::length, style); };
    std::string text;
    if (c.sold_m <= 0)
        text = c.by_the_metre > 0 ? say("{0}: {1} by the metre.", what, m(c.by_the_metre))
                                  : say("{0}: all from what is at hand.", what);
    else if (c.cutting.bought == 0)
        text = say("{0}: all from what is at hand.", what);
    else
        text = say_n("{1}: {0} roll of {2}; longest rest {3}.", "{1}: {0} rolls of {2}; longest rest {3}.",
                     c.cutting.bought, what, m(c.sold_m), m(c.cutting.longest_rest_m)) +
               (c.cutting.proved
                    ? std::string(translated(" Fewer do not do."))
                    : say(" At least {0} are needed; fewer than these were not found.", c.cutting.at_least));
    if (!c.cutting.too_long.empty())
        text += " " + say_n("{0} piece is longer than any roll.", "{0} pieces are longer than any roll.",
                            static_cast<int>(c.cutting.too_long.size()));
    return text;
}

Sheet parts_sheet(const Plan& plan, const std::vector<Part>& parts) {
    Sheet s{translated("Parts"),
            {translated("kind"), translated("what"), translated("how much"), translated("unit"),
             translated("price"), translated("used at"), translated("known")},
            {}};
    for (const Part& p : parts)
        s.rows.push_back({std::string(name_of(p.kind)), p.what, p.metres ? cm(p.quantity) : p.quantity,
                          std::string(p.metres ? translated("m") : translated("pieces")),
                          p.price ? SheetCell(*p.price) : SheetCell(std::string()), names(plan, p.used_at),
                          std::string(p.chosen ? translated("chosen") : translated("as planned"))});
    return s;
}

Sheet wires_sheet(const Plan& plan, const std::vector<WireRow>& wires) {
    Sheet s{translated("Wires"),
            {translated("number"), translated("cable"), translated("from"), translated("to"),
             translated("size"), translated("colour"), translated("length, m"), translated("pieces"),
             translated("end"), translated("other end"), translated("loom"), translated("fuse")},
            {}};
    for (const WireRow& w : wires) {
        const Run& run = plan.runs[w.run];
        std::string ways;
        for (const Id& id : w.ways) ways += (ways.empty() ? "" : ", ") + yr::name_of(plan, id);
        s.rows.push_back({w.number, run.name, terminal(plan, run.from), terminal(plan, run.to),
                          run.size ? yr::name_of(*run.size) : std::string(translated("not chosen yet")),
                          colour_text(w.colour), cm(w.length_m), static_cast<double>(w.pieces),
                          end_text(w.from), end_text(w.to), ways, w.fuse});
    }
    return s;
}

Sheet cuts_sheet(const Plan& plan, const std::vector<SizeCutting>& cuts) {
    Sheet s{translated("Cuts"),
            {translated("cable"), translated("roll"), translated("of, m"), translated("piece"),
             translated("length, m"), translated("vehicle"), translated("rest, m")},
            {}};
    for (const SizeCutting& c : cuts) {
        const std::string what = yr::name_of(c.size) + ", " + colour_text(c.colour);
        int roll = 0;
        for (const CutRoll& r : c.cutting.rolls) {
            ++roll;
            double rest = r.roll.length_m;
            for (const std::size_t k : r.pieces) {
                rest -= c.pieces[k].length_m;
                s.rows.push_back(
                    {what, std::to_string(roll) + (r.roll.at_hand ? translated(" at hand") : std::string()),
                     cm(r.roll.length_m), yr::name_of(plan, c.pieces[k].name), cm(c.pieces[k].length_m),
                     static_cast<double>(c.pieces[k].vehicle + 1), cm(std::max(0.0, rest))});
            }
        }
        if (c.sold_m <= 0 && c.cutting.rolls.empty())
            for (const CutPiece& p : c.pieces)
                s.rows.push_back({what, std::string(translated("by the metre")), std::string(),
                                  yr::name_of(plan, p.name), cm(p.length_m),
                                  static_cast<double>(p.vehicle + 1), std::string()});
    }
    return s;
}

Sheet kits_sheet(const Plan& plan, const std::vector<SizeCutting>& cuts) {
    Sheet s{translated("Kits"),
            {translated("vehicle"), translated("number"), translated("cable"), translated("size"),
             translated("colour"), translated("length, m"), translated("roll")},
            {}};
    const std::vector<WireRow> wires = wire_table(plan);
    const auto number_of = [&](const std::string& run) {
        for (const WireRow& w : wires)
            if (plan.runs[w.run].id == run) return w.number;
        return std::string();
    };
    std::vector<std::pair<int, std::vector<SheetCell>>> rows;
    for (const SizeCutting& c : cuts) {
        std::vector<std::string> roll_of(c.pieces.size(), translated("by the metre"));
        int roll = 0;
        for (const CutRoll& r : c.cutting.rolls) {
            ++roll;
            for (const std::size_t k : r.pieces)
                roll_of[k] = std::to_string(roll) + (r.roll.at_hand ? translated(" at hand") : std::string());
        }
        for (std::size_t k = 0; k < c.pieces.size(); ++k) {
            const CutPiece& p = c.pieces[k];
            rows.push_back({p.vehicle,
                            {static_cast<double>(p.vehicle + 1), number_of(p.name), yr::name_of(plan, p.name),
                             yr::name_of(c.size), colour_text(c.colour), cm(p.length_m), roll_of[k]}});
        }
    }
    std::stable_sort(rows.begin(), rows.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    for (auto& [vehicle, row] : rows) s.rows.push_back(std::move(row));
    return s;
}

}  // namespace yr::words
