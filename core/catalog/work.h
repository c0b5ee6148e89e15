// Typical minutes of the hands' work, spanners by thread, torques by what the bolt sits in, and the lamp of a
// first power. data/catalog/work.json.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace yr {

// Minutes of one piece of that kind ("connect_end"); a kind that the file lacks throws std::logic_error.
[[nodiscard]] double typical_minutes(std::string_view task);
[[nodiscard]] std::vector<std::string> work_tasks();  // their names, by alphabet
// How far such times are apart: hours are told as a range.
struct TimeRange {
    double least_share = 1, most_share = 1;
};
[[nodiscard]] TimeRange time_range();

// Width across flats for a metric thread, mm; empty: no usual one.
[[nodiscard]] std::optional<double> spanner_mm(double thread_mm);

// post: a clamp or bolt of a battery; stud: brass or copper; ground: a steel bolt of 8.8
enum class Seat { post, stud, ground };
struct TorqueRange {
    double least_Nm = 0, most_Nm = 0;
};
[[nodiscard]] std::optional<TorqueRange> typical_torque(Seat seat, double thread_mm);

// A filament lamp of the vehicle's nominal volts. Its resistance follows its own volts.
struct TestLamp {
    double watts = 21, exponent = 0.46, cold_share = 0.08;
    [[nodiscard]] double ohm_at(double volts, double nominal_V) const;
};
[[nodiscard]] TestLamp test_lamp();

}  // namespace yr
