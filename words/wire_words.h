// An unknown wire, a battery over the years and coded end plugs, in words.
#pragma once

#include "fabricate/harness.h"
#include "io/table_xlsx.h"
#include "meter/coded_plug.h"
#include "meter/health.h"
#include "meter/unknown_wire.h"
#include "words/format.h"

namespace yr::words {

// What is done before the wire is read: "Key off, main disconnect opened".
[[nodiscard]] std::string sentence(const Plan& plan, const WireTry& what);
// "Constant; the main disconnect takes its volts."
[[nodiscard]] std::string sentence(const Plan& plan, const WireVerdict& verdict);
// What to do next and what it leaves; empty where nothing tells more.
[[nodiscard]] std::string next_sentence(const Plan& plan, const WireBook& book, const WireVerdict& verdict);
// One cable by what it joins: "main feed, from battery + to main bus".
[[nodiscard]] std::string wire_text(const Plan& plan, const Id& run);

// What a day's readings say: "Cranked at 10.1 V at 5 °C: at −10 °C it would at 9.2 V, 8.8 V are needed."
[[nodiscard]] std::string sentence(const HealthDay& day, double cold_C, const Style& style = {});
[[nodiscard]] std::string sentence(const Outlook& outlook, double cold_C, const Style& style = {});

// Pin, cable, colour, where it goes, resistor; what was read and what that is, where it was. `first`: of the
// plug's cables on this code; `read_ohm` by its pins.
[[nodiscard]] Sheet plug_sheet(const Plan& plan, const EndPlug& plug, const CodedPlug& code,
                               std::size_t first = 0,
                               const std::vector<std::optional<double>>& read_ohm = {});

}  // namespace yr::words
