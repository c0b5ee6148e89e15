#include "fabricate/quote.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "units/text.h"

namespace yr {
namespace {

// Copper goes without saying.
std::string plain_part(const std::string& text) {
    std::string plain = to_lower(trim(text));
    if (const auto at = plain.find(" copper"); at != std::string::npos) plain.erase(at, 7);
    return plain;
}

bool marked(const Plan& plan, const char* name, const std::string& about) {
    return std::any_of(plan.marks.begin(), plan.marks.end(),
                       [&](const Mark& m) { return m.name == name && m.about == about; });
}

QuoteLine line_of(const Plan& plan, const Part& part) {
    QuoteLine l;
    l.key = part.key, l.what = part.what, l.quantity = part.quantity, l.metres = part.metres;
    l.bought = marked(plan, "bought", part.key);
    l.packs = part.quantity;
    if (const Price* p = price_of(plan, part.key, part.what)) {
        l.pack = p->pack;
        l.packs = std::ceil(part.quantity / p->pack - 1e-9);
        l.supplier = p->supplier, l.dated = p->dated, l.brought = p->brought;
        if (p->each) l.price = l.packs * p->pack * *p->each;
    }
    if (!l.price) l.price = part.price;
    return l;
}

std::vector<std::string> marks_of(const Plan& plan, const Id& run) {
    std::vector<std::string> done;
    for (const Mark& m : plan.marks)
        if (m.about == run || m.about == run + ".from" || m.about == run + ".to")
            if (std::find(done.begin(), done.end(), m.name) == done.end()) done.push_back(m.name);
    return done;
}

// Whether the same piece of cable serves both.
bool same_piece(const Plan& a, const Run& x, const Plan& b, const Run& y) {
    const auto end = [](const CableEnd& p, const CableEnd& q) {
        return p.at == q.at && p.kind == q.kind && p.bolt_mm == q.bolt_mm && p.angle_deg == q.angle_deg;
    };
    return x.size == y.size && x.material == y.material && x.parallel == y.parallel &&
           std::abs(length_or_assumed_m(x) - length_or_assumed_m(y)) < 0.01 &&
           end(end_of(a, x, true), end_of(b, y, true)) && end(end_of(a, x, false), end_of(b, y, false));
}

struct Count {
    Part part;
    double before = 0, after = 0, lost = 0;  // lost: in cables that are made and wasted
};

// What the change wants beyond what the job wanted anyway; what is wasted is bought once more.
ChangeLine bought_more(const Plan& to, const Count& c) {
    Part part = c.part;
    part.quantity = c.after + c.lost;
    const QuoteLine all = line_of(to, part);
    part.quantity = c.before;
    const QuoteLine first = line_of(to, part);
    ChangeLine line{ChangeKind::buy, {}, part.what, c.after + c.lost - c.before, part.metres, {}, {}};
    // packs begun for the first lot serve the second
    if (const Price* p = price_of(to, part.key, part.what); p && p->each && all.price)
        line.price = *all.price - first.price.value_or(0);
    return line;
}

void what_is_bought(const Plan& from, const Plan& to, const std::set<Id>& wasted, ChangeOrder& out) {
    constexpr double kNone = 0.005;
    std::map<std::string, Count> counts;
    for (const Part& p : parts_of(from)) counts[p.key].before = p.quantity, counts[p.key].part = p;
    for (const Part& p : parts_of(to)) counts[p.key].after = p.quantity, counts[p.key].part = p;
    for (const Part& p : parts_of_cables(from, wasted)) counts[p.key].lost = p.quantity;
    for (const auto& [key, c] : counts) {
        const double more = c.after + c.lost - c.before;
        if (more > kNone) {
            out.lines.push_back(bought_more(to, c));
            out.price += out.lines.back().price.value_or(0);
        } else if (more < -kNone && marked(from, "bought", key)) {
            out.lines.push_back({ChangeKind::left_over, {}, c.part.what, -more, c.part.metres, {}, {}});
        }
    }
}

}  // namespace

const Price* price_of(const Plan& plan, const std::string& key, const std::string& what) {
    for (const Price& p : plan.policy.prices)
        if (p.part == key || plain_part(p.part) == plain_part(what)) return &p;
    return nullptr;
}

std::vector<OrderList> order_lists(const Quote& quote) {
    std::map<std::pair<bool, std::string>, OrderList> lists;
    for (const QuoteLine& l : quote.lines) {
        if (l.bought || l.brought || l.packs <= 0) continue;
        OrderList& list = lists[{l.supplier.empty(), to_lower(l.supplier)}];
        if (list.lines.empty()) list.supplier = l.supplier;
        list.lines.push_back(l);
        if (l.price)
            list.price += *l.price;
        else
            ++list.unpriced;
    }
    std::vector<OrderList> all;
    all.reserve(lists.size());
    for (auto& [name, list] : lists) all.push_back(std::move(list));
    return all;
}

Quote quote(const Plan& plan, const PartsAsk& ask) {
    Quote q;
    for (const Part& part : parts_of(plan, ask)) {
        QuoteLine l = line_of(plan, part);
        if (!l.brought) {
            if (l.price)
                q.parts += *l.price;
            else
                ++q.unpriced;
        }
        q.lines.push_back(std::move(l));
    }
    const Policy& shop = plan.policy;
    q.consumables = q.parts * shop.consumables.value_or(0);
    q.margin = (q.parts + q.consumables) * shop.margin.value_or(0);
    q.travel = shop.travel.value_or(0);
    const double hours = work_order(plan).minutes / 60 * ask.vehicles;
    q.least_h = hours * time_range().least_share, q.most_h = hours * time_range().most_share;
    q.rate_known = shop.rate_h.has_value();
    q.least_work = q.least_h * shop.rate_h.value_or(0), q.most_work = q.most_h * shop.rate_h.value_or(0);
    const double things = q.parts + q.consumables + q.margin + q.travel;
    q.least_tax = (things + q.least_work) * shop.tax.value_or(0);
    q.most_tax = (things + q.most_work) * shop.tax.value_or(0);
    q.least = things + q.least_work + q.least_tax, q.most = things + q.most_work + q.most_tax;
    return q;
}

ChangeOrder change_order(const Plan& from, const Plan& to) {
    ChangeOrder out;
    std::set<Id> wasted;
    const auto time = [&](const char* task) {
        for (const TaskTime& t : to.policy.tasks)
            if (t.task == task) return t.minutes;
        return typical_minutes(task);
    };
    const auto undo = [&](const Run& r) {
        const auto done = marks_of(from, r.id);
        const auto has = [&](const char* m) { return std::find(done.begin(), done.end(), m) != done.end(); };
        if (has("laid") || has("connected")) {
            out.lines.push_back({ChangeKind::undo, r.id, {}, 1, false, {}, done});
            out.minutes += 2 * time("connect_end") + time("lay_cable");
        }
        if (has("made") && wasted.insert(r.id).second)
            out.lines.push_back({ChangeKind::waste, r.id, {}, length_or_assumed_m(r), true, {}, done});
    };
    for (const Run& r : from.runs) {
        if (!is_cut(r)) continue;
        const Run* now = find(to.runs, std::string_view(r.id));
        if (now && is_cut(*now) && same_piece(from, r, to, *now)) continue;
        undo(r);
    }
    for (const Run& r : to.runs) {
        if (!is_cut(r)) continue;
        const Run* old = find(from.runs, std::string_view(r.id));
        if (old && is_cut(*old) && same_piece(from, *old, to, r)) continue;
        out.lines.push_back(
            {old ? ChangeKind::remake : ChangeKind::make, r.id, {}, length_or_assumed_m(r), true, {}, {}});
        out.minutes += time("make_thin") + 2 * time("connect_end") + time("lay_cable") +
                       length_or_assumed_m(r) * time("lay_metre");
    }
    what_is_bought(from, to, wasted, out);
    return out;
}

}  // namespace yr
