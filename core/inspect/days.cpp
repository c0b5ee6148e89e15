#include "inspect/days.h"

#include <algorithm>

#include "day/remedies.h"
#include "inspect/rules.h"

namespace yr {
namespace {

constexpr int kDays = 14;           // in a row
constexpr double kSoon = 10;        // days until it is empty: sooner is a fix
constexpr int kOften = 4;           // trips of a cut-off a day
constexpr double kLeast_s = 3600;   // a charger that works for less a day is no matter
constexpr double kFull = 0.95;      // charge above which bulk is over anyhow
constexpr double kSulphates = 0.8;  // lead that never gets above it sulphates; common practice, no source
constexpr double kHeldFull_s =
    43200;  // lithium on float for half of every day ages; common practice, no source
constexpr double kStoreFull = 0.98;

class OneDay {
  public:
    OneDay(const Plan& plan, const Day& day, const std::atomic<bool>* stop, std::vector<Finding>& out)
        : plan_(plan), day_(day), out_(out), all_(day_after_day(plan, day, kDays, stop)) {}

    void look() {
        if (all_.days == 0) return;
        const DayVerdicts v = verdicts(plan_, day_, all_.last, true);
        starts();
        dark(v);
        stores();
        if (all_.no_start_on || all_.dark_on) return;  // what else happens then comes of it
        sinks();
        trips(v);
        if (all_.returns) settled();
    }

  private:
    Finding& add(FindingKind kind, Severity severity, const Id& id, const std::string& other, double value,
                 double limit, double at_s) {
        out_.push_back(make_finding(kind, severity, id, other, {}, value, limit));
        out_.back().day = day_.id;
        out_.back().at_s = at_s;
        return out_.back();
    }
    double from_first(int n, double at_s) const { return (n - 1) * length_s(day_) + at_s; }

    void starts() {
        if (all_.no_start_on)
            add(FindingKind::day_no_start, Severity::fix, all_.no_start_battery, {}, *all_.no_start_on, 0,
                from_first(*all_.no_start_on, all_.no_start_s));
    }

    // What is critical on the first day on which it is; the rest on the last day run.
    void dark(const DayVerdicts& v) {
        for (const DarkLoad& d : v.dark)
            if (!d.critical && !all_.no_start_on && !all_.dark_on)
                add(FindingKind::day_dark, Severity::check, d.load, {}, d.seconds, all_.days,
                    from_first(all_.days, d.from_s));
        if (!all_.dark_on) return;
        double seconds = 0;
        for (const DarkLoad& d : v.dark)
            if (d.load == all_.dark_load) seconds = d.seconds;
        add(FindingKind::day_dark, Severity::fix, all_.dark_load, {}, seconds, *all_.dark_on,
            from_first(*all_.dark_on, all_.dark_s));
    }

    void sinks() {
        if (all_.returns) return;
        for (std::size_t k = 0; k < all_.last_loss.size(); ++k) {
            if (all_.last_loss[k] <= kSettles) continue;
            const double days = all_.days + all_.settled[k] / all_.last_loss[k];
            add(FindingKind::day_sinks, days < kSoon ? Severity::fix : Severity::check, plan_.batteries[k].id,
                {}, all_.last_loss[k], days, -1);
        }
    }

    void trips(const DayVerdicts& v) {
        for (const auto& [id, times] : v.trips) {
            double at = -1;
            for (const DayEvent& e : all_.last.events)
                if (at < 0 && e.id == id && e.kind == DayEventKind::opens) at = e.t_s;
            add(FindingKind::day_trips, times > kOften ? Severity::fix : Severity::check, id, {}, times,
                kOften, from_first(all_.days, at));
        }
    }

    double highest(std::size_t battery) const {
        double most = 0;
        for (const DayPoint& p : all_.last.points) most = std::max(most, p.charge[battery]);
        return most;
    }
    double works_s(std::size_t source) const {
        double s = 0;
        const auto& points = all_.last.points;
        for (std::size_t n = 0; n + 1 < points.size(); ++n)
            if (points[n].source_A[source] > 0.05) s += points[n + 1].t_s - points[n].t_s;
        return s;
    }
    double floats_s(const Id& source) const {
        double since = -1, sum = 0;
        for (const DayEvent& e : all_.last.events) {
            if (e.id != source) continue;
            if (e.kind == DayEventKind::to_float) since = e.t_s;
            if (e.kind == DayEventKind::to_bulk && since >= 0) sum += e.t_s - since, since = -1;
        }
        return since >= 0 ? sum + all_.last.length_s - since : sum;
    }

    // Of a day that repeats.
    void settled() {
        for (std::size_t k = 0; k < plan_.batteries.size(); ++k)
            if (plan_.batteries[k].chemistry != Chemistry::lifepo4 && highest(k) < kSulphates)
                add(FindingKind::day_half, Severity::check, plan_.batteries[k].id, {}, highest(k), kSulphates,
                    -1);
        for (std::size_t s = 0; s < plan_.sources.size(); ++s) {
            const Source& source = plan_.sources[s];
            const Battery* b = find(plan_.batteries, source.charges);
            if (!source.float_V || !b) continue;
            const double works = works_s(s), floats = floats_s(source.id);
            const auto k = static_cast<std::size_t>(b - plan_.batteries.data());
            if (works >= kLeast_s && floats <= 0 && highest(k) < kFull)
                add(FindingKind::day_bulk, Severity::check, source.id, b->id, works, highest(k), -1);
            if (b->chemistry == Chemistry::lifepo4 && floats > kHeldFull_s)
                add(FindingKind::day_float, Severity::note, source.id, b->id, floats, 0, -1);
        }
    }

    void stores() {
        for (const StoreDay& s : all_.last.stores)
            if (s.takes_s > 0 && s.end_Wh < kStoreFull * s.holds_Wh)
                add(FindingKind::store_low, Severity::note, s.load, {}, s.end_Wh / s.holds_Wh, 0, -1);
    }

    const Plan& plan_;
    const Day& day_;
    std::vector<Finding>& out_;
    const DayAfterDay all_;
};

Mend mend_of(const DayRemedy& r) {
    Mend m;
    switch (r.kind) {
        case DayRemedyKind::capacity:
            m.kind = MendKind::more_capacity;
            break;
        case DayRemedyKind::panel:
            m.kind = MendKind::more_sun;
            break;
        case DayRemedyKind::engine_time:
            m.kind = MendKind::more_engine;
            break;
        case DayRemedyKind::less_draw:
            m.kind = MendKind::less_draw;
            break;
    }
    m.target = r.about, m.from_A = r.before, m.to_A = r.value;
    if (r.edit) m.edit = *r.edit;
    return m;
}

bool may_be_mended(const Finding& f) {
    return f.kind == FindingKind::day_no_start || f.kind == FindingKind::day_sinks ||
           (f.kind == FindingKind::day_dark && f.severity == Severity::fix);
}

}  // namespace

std::vector<Finding> day_findings(const Plan& plan, const std::atomic<bool>* stop) {
    std::vector<Finding> found;
    for (const Day& day : plan.days) {
        if (stop && *stop) break;
        OneDay(plan, day, stop, found).look();
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return found;
}

void mend_days(const Plan& plan, std::vector<Finding>& findings, const std::atomic<bool>* stop) {
    for (const Day& day : plan.days) {
        const bool asked = std::any_of(findings.begin(), findings.end(),
                                       [&](const Finding& f) { return f.day == day.id && may_be_mended(f); });
        if (!asked || (stop && *stop)) continue;
        // the first alone; where that makes something else worse, the whole table
        auto table = what_would_make_it_last(plan, day.id, stop, true);
        const bool first_is_good =
            !table.empty() && table.back().edit && made_worse(plan, *table.back().edit).empty();
        if (!first_is_good && !table.empty()) table = what_would_make_it_last(plan, day.id, stop);
        for (const DayRemedy& r : table) {
            if (stop && *stop) return;
            if (!r.does_it || !r.edit || !made_worse(plan, *r.edit).empty()) continue;
            for (Finding& f : findings)
                if (f.day == day.id && may_be_mended(f)) f.mend = mend_of(r);
            break;
        }
    }
}

void add_findings(Inspection& inspection, std::vector<Finding> more) {
    for (Finding& f : more) inspection.findings.push_back(std::move(f));
    std::stable_sort(inspection.findings.begin(), inspection.findings.end(),
                     [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
}

}  // namespace yr
