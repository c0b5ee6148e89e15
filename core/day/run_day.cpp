#include "day/run_day.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kClimate_s = 1800, kCoarseClimate_s = 7200;  // air and sun are renewed so often
constexpr double kLeast_s = 1, kLocated_s = 0.5;
constexpr double kFirst_s = 30;
constexpr double kError_share = 4e-5;  // of a battery's capacity a step may be wrong by
constexpr double kPointEvery_s = 900;
// An engine bay warms in a quarter of an hour and cools in an hour: what an alternator gives falls meanwhile.
constexpr double kBayWarms_s = 900, kBayCools_s = 3600;  // common practice, no source
constexpr double kBayNear_K = 3;                         // of what its state says: as good as there
constexpr double kBayRenewed_s = 300, kBayCoarse_s = 900;
constexpr double kTail_h = 50;     // full: the tail current at absorption, C/50 (common practice)
constexpr double kToBulk_V = 0.3;  // below float a charger begins anew; common practice
constexpr int kMostMoves = 60;     // of one device an hour: beyond it hunts
constexpr int kMostAtOnce = 24;    // devices that move in one moment

// What a thermostat holds cold runs longer in the heat: its share of the time in that air.
double share_of_time(const Load& load, double air_C) {
    constexpr double kStated_C = 25;
    return std::clamp(load.duty.value_or(1) + load.duty_per_K.value_or(0) * (air_C - kStated_C), 0.02, 1.0);
}

class Runner {
  public:
    Runner(const Plan& plan, const Day& day, const DayOptions& options)
        : plan_(averaged(plan)), day_(day), options_(options) {
        // chargers begin in bulk; what they fall back to is this run's matter
        for (const Battery& b : plan_.batteries) begin_charge_.push_back(b.charge);
        for (std::size_t k = 0; k < plan.loads.size(); ++k)
            if (plan.loads[k].duty_per_K && plan.loads[k].duty) thermostats_.emplace_back(k, plan.loads[k]);
        for (std::size_t k = 0; k < plan_.loads.size(); ++k)
            if (plan_.loads[k].store_Wh) {
                out_.stores.push_back({plan_.loads[k].id, *plan_.loads[k].store_Wh, 0, 0, -1});
                store_loads_.push_back(k);
            }
        in_bulk_ = plan_;
        for (Battery& b : in_bulk_.batteries) b.charge = 0.5;  // no charger is told that it may rest
        solver_.follow(true);
        climate_s_ = options.tolerance > 5 ? kCoarseClimate_s : kClimate_s;
    }

    DayRun run(double until_s = -1) {
        const std::vector<Stretch> line = timeline(plan_, day_);
        const double length = length_s(day_);
        out_.length_s = length;
        const auto days = static_cast<int>(std::ceil(options_.days));
        floats_.assign(plan_.sources.size(), 0);
        for (int d = 0; d < days; ++d)
            for (const Stretch& stretch : line) {
                const double offset = d * length;
                if (until_s >= 0 && offset + stretch.from_s >= until_s) break;
                if (!walk(stretch, offset, until_s)) return finish();
            }
        out_.whole = true;
        return finish();
    }

    DayMoment moment() {
        DayMoment m;
        m.state = state_;
        m.cells = cells_;
        for (const auto& [id, closed] : positions_) (closed ? m.closed : m.opened).push_back(id);
        return m;
    }

  private:
    DayRun finish() {
        out_.end = cells_;
        if (solution_.point.settled && (out_.points.empty() || out_.points.back().t_s < t_)) keep_point();
        for (std::size_t k = 0; k < cells_.size(); ++k) {
            const double wells = out_.begin[k].available_Ah + out_.begin[k].bound_Ah -
                                 cells_[k].available_Ah - cells_[k].bound_Ah;
            out_.balance.worst_Ah =
                std::max(out_.balance.worst_Ah,
                         std::abs(given_Ah_[k] - (wells - (cells_[k].lost_Ah - out_.begin[k].lost_Ah))));
            out_.balance.scale_Ah = std::max(out_.balance.scale_Ah, out_.models[k].wells.most_Ah);
        }
        return std::move(out_);
    }

    // ---- one stretch

    bool walk(const Stretch& stretch, double offset, double until_s) {
        const double end = until_s >= 0 ? std::min(offset + stretch.to_s, until_s) : offset + stretch.to_s;
        t_ = offset + stretch.from_s;
        state_index_ = stretch.state;
        enter(stretch, offset);
        note(DayEventKind::part, plan_.states[stretch.state].id);
        if (!settle_now()) return false;
        keep_point();
        double step = kFirst_s, renewed = t_;
        while (t_ < end - 1e-9) {
            if ((options_.stop && *options_.stop)) return false;
            if (t_ - renewed >= renew_s_ - 1e-9) {
                enter(stretch, offset);
                renewed = t_;
                if (!solve_here()) return false;
            }
            double h = std::min({step, end - t_, renewed + renew_s_ - t_});
            if (const double due = next_due(); due > t_) h = std::min(h, std::max(due - t_, 1e-3));
            if (!take_step(h, step)) return false;
            if (out_.points.empty() || t_ - out_.points.back().t_s >= kPointEvery_s) keep_point();
        }
        return true;
    }

    // The network of this state at this air and sun; batteries and devices as they stand.
    void enter(const Stretch& stretch, double offset) {
        state_ = state_at(plan_, day_, stretch, t_ - offset);
        follow_bay();
        set_thermostats();
        net_ = compile(in_bulk_, state_);
        bulk_V_.clear();
        for (const SourceElement& s : net_.sources) bulk_V_.push_back(s.set_V);
        air_C_.clear();
        for (const BatteryElement& b : net_.batteries) air_C_.push_back(b.temperature_C);
        if (cells_.empty()) begin();
        for (MemoryElement& m : net_.memories)
            if (const auto known = positions_.find(m.id); known != positions_.end()) m.closed = known->second;
        apply_floats();
        full_stores_rest();
    }

    // The bay goes from where it was to what this state says; it counts as it will be halfway to the next
    // time.
    void follow_bay() {
        const double now = state_.engine_bay_C;
        if (!bay_C_) bay_C_ = now;
        bay_C_ = bay_towards_ + (*bay_C_ - bay_towards_) * std::exp(-(t_ - bay_at_s_) / bay_in_s_);
        bay_towards_ = now, bay_at_s_ = t_, bay_in_s_ = state_.rpm > 0 ? kBayWarms_s : kBayCools_s;
        const bool near = std::abs(*bay_C_ - now) < kBayNear_K;
        renew_s_ = near ? climate_s_ : climate_s_ > kClimate_s ? kBayCoarse_s : kBayRenewed_s;
        if (!near) state_.engine_bay_C = now + (*bay_C_ - now) * std::exp(-renew_s_ / 2 / bay_in_s_);
    }

    // averaged() took the share that was stated; in this air it is another, behind an inverter too.
    void set_thermostats() {
        for (const auto& [k, load] : thermostats_) {
            const double times = share_of_time(load, air_at(plan_, load.place, state_)) / *load.duty;
            const double stated = plan_.loads[k].draw.value;
            in_bulk_.loads[k].draw.value =
                load.draw.kind == DrawKind::resistance ? stated / times : stated * times;
        }
    }

    void full_stores_rest() {
        for (std::size_t k = 0; k < store_loads_.size(); ++k)
            if (out_.stores[k].full_s >= 0) net_.loads[store_loads_[k]].wanted = false;
    }

    // What a store takes at this moment keeps of its watts, W.
    double keeps_W(std::size_t k, const Solution& s) const {
        const LoadResult& r = s.point.loads[store_loads_[k]];
        if (r.status != LoadStatus::on) return 0;
        const Load& load = plan_.loads[store_loads_[k]];
        return r.voltage_V * r.current_A *
               load.store_efficiency.value_or(assumption("store_efficiency").value);
    }

    void begin() {
        for (std::size_t k = 0; k < net_.batteries.size(); ++k) {
            out_.models.push_back(cell_model(plan_.batteries[k], net_.batteries[k]));
            constexpr double usual = 0.8;  // as compile() assumes it
            cells_.push_back(k < options_.from.size()
                                 ? options_.from[k]
                                 : rested(out_.models[k], begin_charge_[k].value_or(usual), air_C_[k]));
        }
        out_.begin = cells_;
        given_Ah_.assign(cells_.size(), 0);
        last_A_.assign(cells_.size(), 0);
        was_empty_.assign(cells_.size(), 0);
    }

    void apply_floats() {
        for (std::size_t k = 0; k < net_.sources.size(); ++k)
            net_.sources[k].set_V =
                floats_[k] && plan_.sources[k].float_V ? *plan_.sources[k].float_V : bulk_V_[k];
    }

    Positions positions() const {
        Positions p;
        for (const MemoryElement& m : net_.memories) p.push_back(m.closed);
        return p;
    }

    // ---- solving

    Solution solved(const std::vector<CellState>& cells, double ahead_s) {
        Network n = net_;
        for (std::size_t k = 0; k < n.batteries.size(); ++k)
            set_element(n.batteries[k], out_.models[k], cells[k], last_A_[k], ahead_s, was_empty_[k]);
        ++out_.solves;
        Solution s = solve_at(std::move(n), positions(), solver_);
        if (s.point.settled) {
            out_.balance.energy_W = std::max(out_.balance.energy_W, s.point.residuals.energy_W);
            out_.balance.energy_scale_W =
                std::max(out_.balance.energy_scale_W, s.point.residuals.energy_scale_W);
        }
        return s;
    }

    bool solve_here() {
        solution_ = solved(cells_, 0);
        // volts hang on the current by more than is linear: once more where it jumped
        for (std::size_t k = 0; k < cells_.size(); ++k)
            last_A_[k] = solution_.point.settled ? solution_.point.batteries[k].current_A : 0;
        return solution_.point.settled;
    }

    // Devices move until none wants to, those without a delay first; what hunts is told and left where it is.
    bool settle_now() {
        if (!solve_here()) return false;
        for (int round = 0; round < kMostAtOnce; ++round) {
            bool moved = false;
            for (std::size_t k = 0; k < solution_.memories.size() && !moved; ++k) {
                MemoryElement& m = net_.memories[k];
                if (!wants_to_move(solution_, k)) {
                    since_.erase(key_of(k));
                    continue;
                }
                const double since = since_.try_emplace(key_of(k), t_).first->second;
                if (t_ < since + m.delay_s - 1e-6 || hunts(m.id)) continue;
                since_.erase(key_of(k));
                m.closed = !m.closed;
                positions_[m.id] = m.closed;
                note(m.closed ? DayEventKind::closes : DayEventKind::opens, m.id);
                moved = true;
            }
            if (!moved) return true;
            if (!solve_here()) return false;
        }
        return true;
    }

    std::string key_of(std::size_t k) const {
        return net_.memories[k].id + "#" + std::to_string(static_cast<int>(net_.memories[k].kind));
    }

    // So many moves within an hour: it would hunt for ever.
    bool hunts(const Id& id) {
        auto& times = moves_[id];
        std::erase_if(times, [&](double at) { return at < t_ - 3600; });
        if (times.size() >= static_cast<std::size_t>(kMostMoves)) {
            if (told_hunting_.insert({id, true}).second) note(DayEventKind::hunts, id);
            return true;
        }
        times.push_back(t_);
        return false;
    }

    // When a device that waits has waited long enough.
    double next_due() const {
        double due = 1e18;
        for (std::size_t k = 0; k < net_.memories.size(); ++k)
            if (const auto s = since_.find(key_of(k)); s != since_.end())
                due = std::min(due, s->second + net_.memories[k].delay_s);
        return due;
    }

    // ---- steps

    struct Trial {
        std::vector<CellState> cells;
        std::vector<double> amps;
        Solution end;
        double seconds = 0;
    };

    std::optional<Trial> trial(double h) {
        const Solution middle = solved(cells_, h / 2);
        if (!middle.point.settled) return std::nullopt;
        Trial t;
        t.seconds = h;
        for (std::size_t k = 0; k < cells_.size(); ++k) {
            t.amps.push_back(middle.point.batteries[k].current_A);
            t.cells.push_back(after(out_.models[k], net_.batteries[k], cells_[k], t.amps[k], h, air_C_[k]));
        }
        std::swap(last_A_, t.amps);
        t.end = solved(t.cells, 0);
        std::swap(last_A_, t.amps);
        if (!t.end.point.settled) return std::nullopt;
        return t;
    }

    // Whether something happens in the trial: a device begins to want to move or no longer does, a battery is
    // empty.
    bool happens(const Trial& t) const {
        for (std::size_t k = 0; k < t.end.memories.size(); ++k) {
            const bool waited = since_.contains(key_of(k));
            if (wants_to_move(t.end, k) != waited && !told_hunting_.contains(net_.memories[k].id))
                return true;
        }
        for (std::size_t k = 0; k < cells_.size(); ++k) {
            const double head = t.cells[k].head(out_.models[k]);
            if (was_empty_[k] ? head > kAliveHead : head < kEmptyHead) return true;
        }
        for (std::size_t k = 0; k < store_loads_.size(); ++k)
            if (out_.stores[k].full_s < 0 &&
                out_.stores[k].end_Wh + keeps_W(k, t.end) * t.seconds / 3600 >= out_.stores[k].holds_Wh)
                return true;
        return false;
    }

    bool take_step(double h, double& next) {
        auto t = trial(h);
        if (!t) return false;
        double error = 0;  // midpoint against the mean of both ends, as a share of what is allowed
        for (std::size_t k = 0; k < cells_.size(); ++k) {
            const double mean =
                (solution_.point.batteries[k].current_A + t->end.point.batteries[k].current_A) / 2;
            error = std::max(error, std::abs(t->amps[k] - mean) * h / 3600 /
                                        (kError_share * options_.tolerance * out_.models[k].wells.most_Ah));
        }
        if (error > 3 && h > kLeast_s) {
            next = std::max(kLeast_s, h * std::clamp(0.9 * std::cbrt(1 / error), 0.2, 0.8));
            return true;  // again, shorter
        }
        if (happens(*t)) {
            double before = 0, at = h;
            while (at - before > kLocated_s) {
                const double between = (before + at) / 2;
                auto half = trial(between);
                if (!half) return false;
                if (happens(*half))
                    at = between, t = std::move(half);
                else
                    before = between;
            }
            h = at;
            accept(*t, h);
            tell_empty();
            next = kFirst_s;
            keep_point();  // just before and just after
            const bool settled = settle_now();
            if (settled) keep_point();
            return settled;
        }
        accept(*t, h);
        next = h * std::clamp(0.9 * std::cbrt(1 / std::max(error, 1e-6)), 0.5, 2.5);
        if (turn_chargers()) {
            next = kFirst_s;
            return settle_now();
        }
        // what waited long enough moves now
        return next_due() <= t_ + 1e-6 ? settle_now() : true;
    }

    void accept(const Trial& t, double h) {
        for (std::size_t k = 0; k < cells_.size(); ++k) given_Ah_[k] += t.amps[k] * h / 3600;
        for (std::size_t k = 0; k < store_loads_.size(); ++k) fill_store(k, t, h);
        cells_ = t.cells;
        solution_ = t.end;
        for (std::size_t k = 0; k < cells_.size(); ++k) last_A_[k] = solution_.point.batteries[k].current_A;
        t_ += h;
        ++out_.steps;
    }

    void fill_store(std::size_t k, const Trial& t, double h) {
        StoreDay& store = out_.stores[k];
        const double watts = keeps_W(k, t.end);
        if (store.full_s >= 0 || watts <= 0) return;
        store.takes_s += h;
        store.end_Wh = std::min(store.holds_Wh, store.end_Wh + watts * h / 3600);
        if (store.end_Wh < store.holds_Wh * (1 - 1e-9)) return;
        store.end_Wh = store.holds_Wh, store.full_s = t_ + h;
        note(DayEventKind::store_full, store.load);
        full_stores_rest();
    }

    void tell_empty() {
        for (std::size_t k = 0; k < cells_.size(); ++k) {
            const double head = cells_[k].head(out_.models[k]);
            if (head < kEmptyHead && !was_empty_[k]) note(DayEventKind::empty, plan_.batteries[k].id);
            was_empty_[k] = was_empty_[k] ? head <= kAliveHead : head < kEmptyHead;
        }
    }

    // Chargers with a float stage: at the tail current they fall back, and begin anew when it sags.
    bool turn_chargers() {
        bool turned = false;
        for (std::size_t s = 0; s < net_.sources.size(); ++s) {
            const Source& source = plan_.sources[s];
            const Battery* b = find(plan_.batteries, source.charges);
            if (!source.float_V || !b || !net_.sources[s].works) continue;
            const auto k = static_cast<std::size_t>(b - plan_.batteries.data());
            const BatteryResult& r = solution_.point.batteries[k];
            const double tail = out_.models[k].wells.most_Ah / kTail_h, blocks = net_.batteries[k].blocks;
            const bool now = floats_[s];
            if (!now && -r.current_A <= tail && r.current_A <= 0 &&
                solution_.point.sources[s].mode == DeviceMode::regulating &&
                cells_[k].charge(out_.models[k]) > 0.9)
                floats_[s] = 1;
            else if (now && r.voltage_V < *source.float_V - kToBulk_V * blocks)
                floats_[s] = 0;
            if (floats_[s] != static_cast<char>(now)) {
                note(floats_[s] ? DayEventKind::to_float : DayEventKind::to_bulk, source.id);
                turned = true;
            }
        }
        if (turned) apply_floats();
        return turned;
    }

    // ---- keeping

    void note(DayEventKind kind, const Id& id) { out_.events.push_back({t_, kind, id}); }

    void keep_point() {
        DayPoint p;
        p.t_s = t_;
        p.state = state_index_;
        const OperatingPoint& o = solution_.point;
        for (std::size_t k = 0; k < cells_.size(); ++k) {
            p.charge.push_back(cells_[k].charge(out_.models[k]));
            p.battery_V.push_back(o.batteries[k].voltage_V);
            p.battery_A.push_back(o.batteries[k].current_A);
            p.battery_C.push_back(cells_[k].temperature_C);
        }
        for (const SourceResult& s : o.sources) p.source_A.push_back(s.current_A);
        for (std::size_t k = 0; k < net_.plan_loads; ++k) {
            p.load_V.push_back(o.loads[k].voltage_V);
            p.load.push_back(o.loads[k].status);
            if (o.loads[k].status == LoadStatus::on && plan_.loads[k].inverter.empty())
                p.taken_A += o.loads[k].current_A;
        }
        out_.points.push_back(std::move(p));
    }

    const Plan plan_;
    Plan in_bulk_;
    double climate_s_ = 0, renew_s_ = 0;
    std::optional<double> bay_C_;  // at bay_at_s_, on its way to bay_towards_
    double bay_towards_ = 0, bay_at_s_ = 0, bay_in_s_ = 1;
    const Day& day_;
    const DayOptions& options_;
    std::vector<std::pair<std::size_t, Load>> thermostats_;  // as they are stated
    std::vector<std::size_t> store_loads_;                   // of out_.stores
    std::vector<std::optional<double>> begin_charge_;
    DayRun out_;
    OperatingPointSolver solver_;
    State state_;
    std::size_t state_index_ = 0;
    Network net_;
    std::vector<double> bulk_V_, air_C_, last_A_, given_Ah_;
    std::vector<CellState> cells_;
    std::vector<char> floats_, was_empty_;
    std::map<Id, bool> positions_;  // devices with a memory carry theirs through the day
    std::map<std::string, double> since_;
    std::map<Id, std::vector<double>> moves_;
    std::map<Id, bool> told_hunting_;
    Solution solution_;
    double t_ = 0;
};

}  // namespace

Plan averaged(const Plan& plan) {
    Plan mean = plan;
    for (Load& l : mean.loads) {
        const double share = l.duty.value_or(1);
        if (share <= 0 || share >= 1 || l.starter) continue;
        l.draw.value = l.draw.kind == DrawKind::resistance ? l.draw.value / share : l.draw.value * share;
        l.duty.reset();
        l.on_s.reset();
    }
    return mean;
}

DayRun run_day(const Plan& plan, const Day& day, const DayOptions& options) {
    return Runner(plan, day, options).run();
}

DayMoment moment_at(const Plan& plan, const Day& day, double t_s, const DayOptions& options) {
    DayOptions until = options;
    until.days = std::max(1.0, std::ceil((t_s + 1) / std::max(1.0, length_s(day))));
    Runner runner(plan, day, until);
    (void)runner.run(t_s);
    return runner.moment();
}

Network network_at(const Plan& plan, const State& state, const std::vector<CellState>& cells,
                   const std::vector<Id>& closed, const std::vector<Id>& opened) {
    State at = state;
    at.closed = closed, at.opened = opened;
    Network n = compile(averaged(plan), at);
    for (std::size_t k = 0; k < n.batteries.size() && k < cells.size(); ++k)
        set_element(n.batteries[k], cell_model(plan.batteries[k], n.batteries[k]), cells[k], 0, 0);
    return n;
}

}  // namespace yr
