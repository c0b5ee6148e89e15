#include "day/timeline.h"

#include <algorithm>
#include <cmath>

#include "day/sky.h"
#include "plan/roles.h"

namespace yr {
namespace {

std::size_t index_of(const Plan& plan, const Id& state) {
    const State* s = find(plan.states, state);
    return s ? static_cast<std::size_t>(s - plan.states.data()) : 0;
}

class Line {
  public:
    explicit Line(const Plan& plan) : plan_(plan) {}
    void add(const Day& day, std::size_t part, double length_s) {
        stretches_.push_back({at_, at_ + length_s, part, index_of(plan_, day.parts[part].state)});
        at_ += length_s;
    }
    std::vector<Stretch> take() { return std::move(stretches_); }

  private:
    const Plan& plan_;
    std::vector<Stretch> stretches_;
    double at_ = 0;
};

}  // namespace

std::vector<Stretch> timeline(const Plan& plan, const Day& day) {
    if (day.parts.empty()) {
        const State* parked = state_of_role(plan, StateRole::parked);
        return {{0, 86400, 0, parked ? static_cast<std::size_t>(parked - plan.states.data()) : 0}};
    }
    Line line(plan);
    for (std::size_t k = 0; k < day.parts.size(); ++k) {
        const DayPart& part = day.parts[k];
        std::vector<std::size_t> pieces;  // of parts that interrupt this one, each as often as it says
        std::size_t next = k + 1;
        for (; next < day.parts.size() && day.parts[next].within; ++next)
            pieces.insert(pieces.end(), static_cast<std::size_t>(std::max(1, day.parts[next].times)), next);
        if (pieces.empty()) {
            for (int n = 0; n < std::max(1, part.times); ++n) line.add(day, k, part.length_s);
            continue;
        }
        const double between =
            part.length_s * std::max(1, part.times) / static_cast<double>(pieces.size() + 1);
        line.add(day, k, between);
        for (const std::size_t piece : pieces) {
            line.add(day, piece, day.parts[piece].length_s);
            line.add(day, k, between);
        }
        k = next - 1;
    }
    return line.take();
}

double length_s(const Day& day) {
    if (day.parts.empty()) return 86400;
    double sum = 0;
    for (const DayPart& p : day.parts) sum += p.length_s * std::max(1, p.times);
    return sum;
}

State state_at(const Plan& plan, const Day& day, const Stretch& stretch, double t_s) {
    State state = plan.states[stretch.state];
    state.charge.reset();  // a day carries its own
    const double hour = day.begins_h + t_s / 3600;
    if (const auto air = air_at(day, hour)) {
        state.engine_bay_C += *air - state.ambient_C;
        state.ambient_C = *air;
    }
    if (const auto sun = sun_at(day, hour)) state.sun = *sun;
    if (stretch.part < day.parts.size()) {
        const DayPart& part = day.parts[stretch.part];
        if (part.rpm) state.rpm = *part.rpm;
        if (part.line_load) state.line_load = part.line_load;
    }
    return state;
}

std::string clock_text(const Day& day, double t_s) {
    const auto minutes = static_cast<long>(std::lround((day.begins_h * 3600 + t_s) / 60));
    constexpr long day_min = 24L * 60;
    const long days = minutes / day_min, left = minutes % day_min;
    const auto two = [](long v) { return (v < 10 ? "0" : "") + std::to_string(v); };
    return (days > 0 ? "+" + std::to_string(days) + " " : std::string()) + two(left / 60) + ":" +
           two(left % 60);
}

}  // namespace yr
