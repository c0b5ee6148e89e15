// Small things that are typed into one field, read and written back: a curve, a channel of a box, the limits
// that channels share, cable in stock. What is written is read back as the same thing. The grammar is English
// with a decimal point in every language, because commas part the entries; a decimal comma is understood
// where they do not.
#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

using Curve = std::vector<std::pair<double, double>>;

// "0 %: 20, 50 %: 58, 100 %: 96" where the first numbers are shares, else "1500: 90, 6000: 180".
[[nodiscard]] std::string typed_curve(const Curve& curve, bool shares);
// Failure: not_a_number with the entry as given. Nothing typed is an empty curve.
[[nodiscard]] Result<Curve> read_curve(std::string_view text, bool shares);

// "15 A; start 30 A; group A; label RADIO"
[[nodiscard]] std::string typed_channel(const Channel& channel);
// The channel of that number with what was typed. Failure: not_a_number with the part as given.
[[nodiscard]] Result<Channel> read_channel(std::string_view text, int number);

// "A: 35, B: 20"
[[nodiscard]] std::string typed_groups(const std::vector<ChannelGroup>& groups);
[[nodiscard]] Result<std::vector<ChannelGroup>> read_groups(std::string_view text);

// "10 m 25 mm², 6 m 8 AWG"
[[nodiscard]] std::string typed_stock(const std::vector<Stock>& stock);
// Failure: not_a_number or unknown_size, with the entry as given.
[[nodiscard]] Result<std::vector<Stock>> read_stock(std::string_view text);

}  // namespace yr
