#include "meter/coded_plug.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace yr {
namespace {

constexpr std::array<double, 24> kE24{1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0,
                                      3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1};
constexpr double kResistor = 0.01;  // they are within 1 %
constexpr std::size_t kMostPins = 40;
constexpr double kOpen_ohm = 1e7;

double doubt(double ohm, const Instrument& meter) {
    return ohm * (kResistor + meter.gain) + meter.digits_of(ReadKind::ohms, ohm) + meter.lead_ohm;
}

bool apart(double a, double b, const Instrument& meter) {
    return std::abs(a - b) > doubt(a, meter) + doubt(b, meter);
}

}  // namespace

double joined_ohm(const CodedPlug& plug, std::size_t a, std::size_t b, std::size_t k) {
    if (k != a && k != b) return plug.ohm[k];
    return 1 / (1 / plug.ohm[a] + 1 / plug.ohm[b]);
}

CodedPlug coded_plug(std::size_t pins, const Instrument& meter) {
    CodedPlug plug;
    if (pins == 0 || pins > kMostPins) return plug;
    // one after another the next value of the series that no mistake so far is taken for
    std::vector<double> series;
    for (const double decade : {1e2, 1e3, 1e4, 1e5})
        for (const double v : kE24) series.push_back(v * decade);
    const auto clear = [&](double value) {
        return std::all_of(plug.ohm.begin(), plug.ohm.end(), [&](double other) {
            const double together = 1 / (1 / other + 1 / value);
            return apart(other, value, meter) && apart(together, value, meter) &&
                   apart(together, other, meter);
        });
    };
    for (const double v : series) {
        if (plug.ohm.size() == pins) break;
        if (clear(v)) plug.ohm.push_back(v);
    }
    if (plug.ohm.size() < pins) return {};
    plug.proved = true;
    plug.least_apart = 1e9;
    for (std::size_t a = 0; a < pins; ++a)
        for (std::size_t b = 0; b < pins; ++b) {
            if (a == b) continue;
            const double swapped = plug.ohm[b], joined = joined_ohm(plug, a, b, a);
            for (const double wrong : {swapped, joined}) {
                plug.proved = plug.proved && apart(plug.ohm[a], wrong, meter);
                plug.least_apart =
                    std::min(plug.least_apart, std::max(wrong, plug.ohm[a]) / std::min(wrong, plug.ohm[a]));
            }
        }
    return plug;
}

std::size_t most_pins(const Instrument& meter) {
    std::size_t most = 0;
    while (most < kMostPins && !coded_plug(most + 1, meter).ohm.empty()) ++most;
    return most;
}

std::vector<PlugVerdict> read_plug(const CodedPlug& plug, const std::vector<double>& read,
                                   const Instrument& meter) {
    std::vector<PlugVerdict> out;
    const std::size_t pins = std::min(read.size(), plug.ohm.size());
    const auto wrong = [&](std::size_t k) { return apart(read[k], plug.ohm[k], meter); };
    for (std::size_t k = 0; k < pins; ++k) {
        if (!wrong(k)) continue;
        PlugVerdict v;
        v.pin = k;
        v.kind = read[k] > kOpen_ohm ? PlugVerdict::Kind::open : PlugVerdict::Kind::unknown;
        // both pins of a mistake read wrong: joined ones the same, exchanged ones each other's
        for (std::size_t o = 0; o < pins && v.kind == PlugVerdict::Kind::unknown; ++o) {
            if (o == k || !wrong(o)) continue;
            if (!apart(read[k], joined_ohm(plug, k, o, k), meter) && !apart(read[k], read[o], meter))
                v.kind = PlugVerdict::Kind::joined, v.with = o;
            else if (!apart(read[k], plug.ohm[o], meter) && !apart(read[o], plug.ohm[k], meter))
                v.kind = PlugVerdict::Kind::swapped, v.with = o;
        }
        out.push_back(v);
    }
    return out;
}

std::vector<std::optional<PlugVerdict>> judge_plug(const CodedPlug& plug,
                                                   const std::vector<std::optional<double>>& read_ohm,
                                                   const Instrument& meter) {
    std::vector<double> all;
    std::vector<std::optional<PlugVerdict>> by_pin(plug.ohm.size());
    for (std::size_t k = 0; k < plug.ohm.size(); ++k) {
        const bool has = k < read_ohm.size() && read_ohm[k];
        all.push_back(has ? *read_ohm[k] : plug.ohm[k]);
        if (has) by_pin[k] = PlugVerdict{PlugVerdict::Kind::good, k, 0};
    }
    for (const PlugVerdict& v : read_plug(plug, all, meter)) by_pin[v.pin] = v;
    return by_pin;
}

}  // namespace yr
