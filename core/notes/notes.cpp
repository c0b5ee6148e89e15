#include "notes/notes.h"

#include <algorithm>

#include "catalog/shipped.h"
#include "notes/habits.h"
#include "notes/implied.h"
#include "notes/last_look.h"
#include "notes/listed_states.h"
#include "notes/piece.h"
#include "notes/plan_text.h"
#include "notes/several.h"
#include "notes/tables.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {

int Notes::bad() const {
    return static_cast<int>(
               std::count_if(lines.begin(), lines.end(), [](const NoteLine& l) { return l.bad(); })) +
           things.has_value();
}

Plan blank_vehicle() {
    Plan plan = empty_plan("vehicle");
    plan.points.clear();
    plan.runs.clear();
    plan.points.push_back({"body", "body", PointKind::chassis, "place-cab", {}, {}, {}, false});
    Run strap;
    strap.id = "body-strap", strap.name = "body strap", strap.from = "body", strap.to = neg_of("battery-1");
    strap.length_m = 0.5, strap.size = WireSize::awg(0), strap.places = {"place-bay"};
    plan.runs = {strap};
    return plan;
}

// Lines of plan_text.h: with the vehicle's own they are a whole plan, else a piece that is laid into this
// one.
static std::optional<Error> take_things(Plan& plan, const std::vector<std::string>& lines) {
    const auto whole = std::any_of(lines.begin(), lines.end(),
                                   [](const std::string& l) { return trim(l).starts_with("vehicle "); });
    if (std::all_of(lines.begin(), lines.end(), [](const std::string& l) { return l.empty(); }))
        return std::nullopt;
    if (whole) {
        auto read = plan_from_text(lines);
        if (!read) return read.error();
        plan = std::move(*read);
        return std::nullopt;
    }
    const auto piece = read_piece(plan, lines);
    if (!piece) return piece.error();
    const auto done = yr::apply(plan, piece->edit);
    return done ? std::nullopt : std::optional<Error>(done.error());
}

// With what the heading above gives to loads, where that is understood.
static Statement read_given(const Plan& plan, const std::string& text, const std::string& given,
                            const Library* library) {
    Statement s = read_statement(plan, text, library);
    if (given.empty() || s.kind != StatementKind::load || s.doubt || !s.not_understood.empty()) return s;
    const bool no_rail = s.load && s.load->other_rail_V;
    if (s.error && !no_rail) return s;
    static const Pattern volts(R"(\b\d+(?:\.\d+)?\s*V\b)");
    if (volts.is_in(given) && volts.is_in(text)) return s;  // it says its own
    Statement there = read_statement(plan, text + given, library);
    return there.whole() && there.not_understood.empty() ? there : s;
}

static bool is_bullet(const std::string& line) {
    static const Pattern bullet(R"(^\s*(?:[-*]|\xE2\x80\xA2)\s+\S)");
    return bullet.is_in(line);
}

// How far a line is set in; a dash before it counts as one letter more.
static std::size_t depth_of(const std::string& line) {
    constexpr std::size_t kTab = 4;
    std::size_t depth = 0;
    for (const char c : line) {
        if (c != ' ' && c != '\t') break;
        depth += c == '\t' ? kTab : 1;
    }
    return depth + (is_bullet(line) ? 1 : 0);
}

// What the thing above gives to lines that are set in below it.
class SetIn {
  public:
    // Of the line that comes now; a blank line ends the list.
    std::string given_to(const Plan& plan, const std::string& line) {
        if (trim(line).empty()) above_.clear();
        if (above_.empty() || depth_of(line) <= depth_) return {};
        // a dash alone sets in what is of mains below an inverter: what says watts
        static const Pattern watts(R"(\d\s*k?W\b)");
        const bool by_dash =
            depth_of(line) == depth_ + 1 && is_bullet(line) && trim(line).size() == line.size();
        if (by_dash && !(find(plan.inverters, std::string_view(above_)) && watts.is_in(line))) return {};
        return given_by_thing(plan, above_);
    }
    void below(const std::string& line, const Statement& s) {
        if (!above_.empty() && depth_of(line) > depth_) return;
        above_ = s.kind == StatementKind::load ? Id() : s.about, depth_ = depth_of(line);
    }

  private:
    Id above_;
    std::size_t depth_ = 0;
};

// The battery that starts the engine comes first, wherever the page has it: what charges and starts goes by
// that one, and what is lived with hangs on the other.
static std::vector<NoteLine*> reading_order(std::vector<NoteLine>& lines) {
    static const Pattern lived_with(
        R"(^\s*(?:leisure|house|aux(?:iliary)?|service|domestic|living)\b[^\n]*\b\d+(?:\.\d+)?\s*Ah\b)");
    static const Pattern of_engine(
        R"(^\s*(?:engine|start(?:er|ing)?|crank(?:ing)?)\s*(?:batter(?:y|ies)|batt|:)[^\n]*\b\d+(?:\.\d+)?\s*(?:Ah|CCA)\b)");
    std::vector<NoteLine*> order;
    order.reserve(lines.size());
    for (NoteLine& n : lines) order.push_back(&n);
    const auto first = std::find_if(order.begin(), order.end(),
                                    [](const NoteLine* n) { return !n->thing && lived_with.is_in(n->text); });
    const auto engine = std::find_if(first, order.end(),
                                     [](const NoteLine* n) { return !n->thing && of_engine.is_in(n->text); });
    const bool sooner =
        std::any_of(order.begin(), first, [](const NoteLine* n) { return of_engine.is_in(n->text); });
    if (engine != order.end() && !sooner) std::rotate(first, engine, engine + 1);
    return order;
}

// "1 LED strips 8x 12 W", "2 lamps 6x 5 W", "3 fans …": the circuits of a box by their numbers, not how many
// there are. Three lines or more below a box, panel or circuits that begin with 1, 2, 3 and so on lose them,
// five or more wherever they stand (no one counts what he has like that), unless one says what each takes.
static void without_circuit_numbers(std::vector<NoteLine>& lines) {
    static const Pattern numbered(R"(^(\s*)(\d{1,2})\s+(?=[a-z])(?!x\b))");
    static const Pattern counts(R"(^(?!.*\d\s*x\b).*\beach\b)");
    static const Pattern head(R"(\b(?:circuits?|ways?|channels?|positions?|fuses|box|panel|block)\b)");
    constexpr std::size_t kBelowHead = 3, kAnywhere = 5;
    for (std::size_t begin = 0; begin < lines.size(); ++begin) {
        const bool below = begin > 0 && head.is_in(lines[begin - 1].text);
        Found m;
        std::size_t end = begin;
        while (end < lines.size() && !lines[end].thing && numbered.is_in(lines[end].text, m) &&
               m[2] == std::to_string(end - begin + 1))
            ++end;
        const bool how_many = std::any_of(lines.data() + begin, lines.data() + end,
                                          [](const NoteLine& n) { return counts.is_in(n.text); });
        if (end - begin < (below ? kBelowHead : kAnywhere) || how_many) continue;
        for (; begin < end; ++begin) lines[begin].text = numbered.replaced(lines[begin].text, "$1");
    }
}

// What says the plan's first battery comes before all that hangs on it, though a word of it is left over:
// read again at the end it would be a further one.
static bool says_first_battery(const Plan& plan, const Statement& s) {
    if (!s.whole() || s.error || s.doubt || !battery_is_free(plan)) return false;
    Plan after = plan;
    return yr::apply(after, *s.edit) && !battery_is_free(after);
}

Notes read_page(const Plan& base, std::string_view text, const Library* library) {
    Notes notes;
    notes.plan = base;
    std::vector<std::string> things;
    std::vector<std::string> texts;
    for (const std::string_view line : split(text, '\n')) {
        texts.emplace_back(line);
        while (!texts.back().empty() && texts.back().back() == '\r') texts.back().pop_back();
    }
    for (std::string& line : with_rows_as_lines(std::move(texts))) {
        NoteLine n;
        n.text = std::move(line);
        n.thing = is_thing_line(trim(n.text));
        things.push_back(n.thing ? n.text : std::string());
        notes.lines.push_back(std::move(n));
    }
    without_circuit_numbers(notes.lines);
    if (auto error = take_things(notes.plan, things)) notes.things = *error;
    std::string heading;     // what it gives, up to the next one or a blank line
    std::size_t listed = 0;  // how far its list stands in
    bool begun = false;
    SetIn set_in;
    std::vector<std::pair<NoteLine*, std::string>> again;
    for (NoteLine* line : reading_order(notes.lines)) {
        NoteLine& n = *line;
        if (n.thing) continue;
        if (trim(n.text).empty() || heads_a_list(n.text))
            heading = given_by_heading(notes.plan, n.text), begun = false;
        else if (begun && depth_of(n.text) < listed)
            heading.clear();  // what stands further out than its list is no part of it
        else if (!begun)
            listed = depth_of(n.text), begun = true;
        const std::string above = set_in.given_to(notes.plan, n.text),
                          given = above.empty() ? heading : above;
        n.statement = read_given(notes.plan, n.text, given, library);
        if (n.bad() && !says_first_battery(notes.plan, n.statement))
            again.emplace_back(&n, given);
        else if (n.statement.whole())
            (void)yr::apply(notes.plan, *n.statement.edit);
        set_in.below(n.text, n.statement);
    }
    // what a line speaks of may stand further down: "radio 8 A 12 V" above the converter, which itself waits
    // for its battery; so all that is understood goes first
    for (bool more = true; more;) {
        more = false;
        std::erase_if(again, [&](const auto& waits) {
            Statement now = read_given(notes.plan, waits.first->text, waits.second, library);
            if (!now.whole() || now.error || now.doubt || !now.not_understood.empty()) return false;
            waits.first->statement = std::move(now);
            (void)yr::apply(notes.plan, *waits.first->statement.edit);
            return more = true;
        });
    }
    for (auto& [line, by_heading] : again) {
        Statement now = read_given(notes.plan, line->text, by_heading, library);
        if (!now.whole() && !line->statement.whole()) continue;  // what it first said of itself holds
        line->statement = std::move(now);
        if (line->statement.whole()) (void)yr::apply(notes.plan, *line->statement.edit);
    }
    return notes;
}

// Who asks for a size gets it: of a line of several things that names one, none of the page's is touched but
// those that stand on a line of their own.
static std::vector<Id> without_asked_sizes(const Notes& notes, std::vector<Id> loads) {
    static const Pattern size(R"(\bAWG\b|\bmm2\b|\bmm\xC2\xB2|\d/0\b)");
    std::vector<Id> alone;
    bool among_others = false;
    for (const NoteLine& n : notes.lines) {
        if (n.statement.load && n.statement.load->size) std::erase(loads, n.statement.about);
        if (n.statement.load && !n.statement.load->size) alone.push_back(n.statement.about);
        among_others = among_others || (n.statement.kind == StatementKind::block && size.is_in(n.text));
    }
    return among_others ? alone : loads;
}

// What the page gives by lists in its states.
static std::vector<ListedState> states_listed(const Notes& notes) {
    static const Pattern alone(
        R"(:[^\n]*\b(?:only|just|nothing (?:on )?(?:but|except|bar|apart))\b|\b(?:only|just)\b[^\n]*:)");
    // "parked", "overnight, engine off", "charging: charger on": no word of what is on
    static const Pattern bare(
        R"(^\s*(?:state\s+)?[a-z][a-z -]*[.:]?\s*(?:[,:]\s*(?:(?:key|engine|ignition)\s+(?:off|stopped)|(?:battery\s+|mains\s+|shore\s+)?charger\s+on|plugged\s+in|on\s+(?:charge|shore|mains|hook-?up))\s*)*$)");
    static const Pattern names_alone(
        R"(:(?![^\n]*\b(?:engine|motor|key|ignition|parked|driving|idling|towed|on|off|rpm)\b)[^\n]*$)");
    static const Pattern nothing(R"((?::|\s-)\s*(?:nothing(?:\s+on)?|(?:all|everything)\s+off)\s*\.?\s*$)");
    std::vector<ListedState> listed;
    bool any = false;
    for (const NoteLine& n : notes.lines) {
        if (n.statement.kind != StatementKind::state || !n.statement.whole()) continue;
        const bool names = !n.statement.switched_on.empty();
        const State* s = find(notes.plan.states, std::string_view(n.statement.about));
        const bool none = !names && nothing.is_in(n.text);
        if (!names && !none && !(bare.is_all_of(n.text) && s && s->rpm <= 0 && s->key == Key::off)) continue;
        any = any || names;
        listed.push_back({n.statement.about, n.statement.switched_on, none || (names && alone.is_in(n.text)),
                          names_alone.is_in(n.text)});
    }
    return any ? listed : std::vector<ListedState>{};
}

// What is said to be always on is off by no list.
static std::vector<Id> said_always(const Notes& notes) {
    std::vector<Id> always;
    for (const NoteLine& n : notes.lines)
        if (n.statement.load && n.statement.load->live_when == Condition{})
            always.push_back(n.statement.about);
    return always;
}

Notes read_notes(const Plan& base, std::string_view text, const Library* library) {
    Notes notes = read_page(with_what_is_implied(base, text), text, library);
    add_what_is_implied(base, text, notes.plan);
    std::vector<Id> loads;
    for (const Load& l : notes.plan.loads)
        if (!find(base.loads, std::string_view(l.id))) loads.push_back(l.id);
    const bool typed = std::any_of(notes.lines.begin(), notes.lines.end(),
                                   [](const NoteLine& n) { return !n.thing && n.statement.whole(); });
    const bool own_states = std::any_of(notes.lines.begin(), notes.lines.end(), [](const NoteLine& n) {
        return n.statement.kind == StatementKind::state;
    });
    std::vector<Id> usual;  // of a new vehicle, those that no line of the page gives
    if (base.loads.empty())
        for (const State& s : notes.plan.states)
            if (std::none_of(notes.lines.begin(), notes.lines.end(), [&](const NoteLine& n) {
                    return n.statement.kind == StatementKind::state && n.statement.about == s.id;
                }))
                usual.push_back(s.id);
    notes.given_switches =
        give_switches_to_listed(notes.plan, states_listed(notes), said_always(notes), usual);
    if (!typed || !base.loads.empty()) return notes;
    notes.added_states = add_working_states(notes.plan, loads, own_states);
    keep_drops(notes.plan, without_asked_sizes(notes, loads));
    static const Pattern ground(
        R"(\b(?:earth|ground|strap|negative|battery\s+cables?)\b[^\n]*(?:\bAWG\b|\bga\b|\bmm2\b|\bmm\xC2\xB2|\d/0\b))");
    if (!ground.is_in(text)) keep_grounds(notes.plan);
    return notes;
}

Notes read_notes(std::string_view text, const Library* library) {
    return read_notes(blank_vehicle(), text, library);
}

const std::vector<BareVehicle>& bare_vehicles() {
    static const std::vector<BareVehicle> all = [] {
        std::vector<BareVehicle> read;
        BareVehicle now;
        const auto keep = [&] {
            if (!now.key.empty()) read.push_back(now);
        };
        // "== key: title" begins a vehicle
        for (const std::string_view line : split(shipped_text("bare.notes"), '\n')) {
            if (line.starts_with("== ")) {
                keep();
                const auto colon = line.find(':');
                now = {std::string(trim(line.substr(3, colon - 3))),
                       std::string(trim(line.substr(colon + 1))),
                       {}};
            } else if (!now.key.empty()) {
                now.text += std::string(line) + "\n";
            }
        }
        keep();
        return read;
    }();
    return all;
}

}  // namespace yr
