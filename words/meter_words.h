// Meter in words: where the probes go, what a reading should be and what another would mean, suspects, the
// next reading, records.
#pragma once

#include <string>
#include <vector>

#include "io/table_xlsx.h"
#include "meter/coded_plug.h"
#include "meter/next_reading.h"
#include "meter/parasitic.h"
#include "meter/practice.h"
#include "meter/records.h"
#include "meter/test_points.h"
#include "words/format.h"

namespace yr::words {

// "Red on the hoist's +, black on the battery's −, hoisting."
[[nodiscard]] std::string sentence(const Plan& plan, const Probing& where);
// Short, for a table: "hoist + to starter battery −".
[[nodiscard]] Dimension dimension_of(ReadKind kind);
// The step that a reading belongs to, with its state where that differs: "Under load: Night work".
[[nodiscard]] std::string phase_text(const Plan& plan, const TestPoint& point);
[[nodiscard]] std::string where_text(const Plan& plan, const Probing& where);
[[nodiscard]] std::string value_text(ReadKind kind, double value, const Style& style = {});
// "12.4 to 12.8 V"
[[nodiscard]] std::string band_text(const TestPoint& point, const Style& style = {});
[[nodiscard]] const char* name_of(ProvePhase phase);
[[nodiscard]] const char* name_of(Verdict verdict);
// What a value above or below its band would mean.
[[nodiscard]] std::string outside_means(const Plan& plan, const TestPoint& point, Verdict verdict);

// "Bed ground: its bond loose or rusted", "second battery: weak".
[[nodiscard]] std::string fault_kind_text(FaultKind kind);
[[nodiscard]] std::string sentence(const Plan& plan, const Fault& fault);
// "6 to 9 mΩ more", "2.4 times its resistance"; empty where it is there or not.
[[nodiscard]] std::string strength_text(const Suspect& suspect, const Style& style = {});
[[nodiscard]] std::string mend_text(const Fault& fault);
// "Black on …, red on …: 40 mV if it is sound; about 0.44 V: the return cable; about 1.5 V: the bed mounts."
[[nodiscard]] std::string sentence(const Plan& plan, const NextReading& next, const Style& style = {});
// The part of that behind the probes: what it would be.
[[nodiscard]] std::string outcomes(const Plan& plan, const NextReading& next, const Style& style = {});
// A customer's words: "The hoist is slow while hoisting."
[[nodiscard]] std::string sentence(const Plan& plan, const Complaint& complaint);
[[nodiscard]] std::string sentence(const Plan& plan, const Drift& drift, const Style& style = {});
// `pins`: their numbers where they are not counted off from 1.
[[nodiscard]] std::string sentence(const PlugVerdict& verdict, const std::vector<int>& pins = {});
[[nodiscard]] const char* name_of(PracticeLevel level);

// A terminal by what people or files call it: "hoist +", "battery-1.pos", "bed ground". Failure:
// missing_reference with `place`.
[[nodiscard]] Result<Terminal> terminal_named(const Plan& plan, const std::string& text,
                                              const std::string& place);
// Readings as a table: columns red, black, run, state, volts or amps or ohms, in any order, by their
// headings. Failure: with line and column as its place.
[[nodiscard]] Result<std::vector<Reading>> read_readings(const Plan& plan, const std::string& csv);
// "hoist weak Hoisting": load, dead or weak or works, state. Failure: missing_reference, unknown_name.
[[nodiscard]] Result<Complaint> read_complaint(const Plan& plan, const std::string& text);

[[nodiscard]] Sheet test_sheet(const Plan& plan, const ProvePlan& points);
[[nodiscard]] Sheet record_sheet(const Plan& plan, const std::vector<Record>& records);

}  // namespace yr::words
