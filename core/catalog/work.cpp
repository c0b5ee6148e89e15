#include "catalog/work.h"

#include <cmath>
#include <map>
#include <stdexcept>
#include <string>
#include <vector>

#include "catalog/shipped.h"

namespace yr {
namespace {

struct SeatRow {
    double thread_mm = 0, least_Nm = 0, most_Nm = 0;
};
struct Work {
    std::map<std::string, double, std::less<>> minutes;
    TimeRange range;
    std::vector<std::pair<double, double>> spanners;
    std::vector<SeatRow> seats[3];
    TestLamp lamp;
};

const Work& work() {
    static const Work all = [] {
        Work w;
        const auto file = shipped_table("work.json");
        for (const auto& [task, minutes] : file.at("minutes").items()) w.minutes[task] = minutes;
        w.range = {file.at("least_share"), file.at("most_share")};
        for (const auto& row : file.at("spanners").at("by_thread_mm"))
            w.spanners.emplace_back(row[0], row[1]);
        const char* names[] = {"post", "stud", "ground"};
        for (std::size_t k = 0; k < 3; ++k)
            for (const auto& row : file.at("torques").at(names[k]))
                w.seats[k].push_back({row[0], row[1], row[2]});
        const auto& lamp = file.at("lamp");
        w.lamp = {lamp.at("watts"), lamp.at("exponent"), lamp.at("cold_share")};
        return w;
    }();
    return all;
}

}  // namespace

double typical_minutes(std::string_view task) {
    const auto found = work().minutes.find(task);
    if (found == work().minutes.end()) throw std::logic_error("work.json: " + std::string(task));
    return found->second;
}

std::vector<std::string> work_tasks() {
    std::vector<std::string> names;
    for (const auto& [name, minutes] : work().minutes) names.push_back(name);
    return names;
}

TimeRange time_range() {
    return work().range;
}

std::optional<double> spanner_mm(double thread_mm) {
    for (const auto& [thread, width] : work().spanners)
        if (std::abs(thread - thread_mm) < 0.01) return width;
    return std::nullopt;
}

std::optional<TorqueRange> typical_torque(Seat seat, double thread_mm) {
    for (const SeatRow& row : work().seats[static_cast<std::size_t>(seat)])
        if (std::abs(row.thread_mm - thread_mm) < 0.01) return TorqueRange{row.least_Nm, row.most_Nm};
    return std::nullopt;
}

double TestLamp::ohm_at(double volts, double nominal_V) const {
    const double hot = nominal_V * nominal_V / watts;
    const double share = std::pow(std::max(std::abs(volts), 1e-9) / nominal_V, exponent);
    return hot * std::max(share, cold_share);
}

TestLamp test_lamp() {
    return work().lamp;
}

}  // namespace yr
