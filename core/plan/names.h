// The words that enums have in the file and on the command line; one table for each.
#pragma once

#include <optional>
#include <span>
#include <string_view>

#include "plan/plan.h"

namespace yr {

template <class E>
struct EnumName {
    E value;
    std::string_view name;
};

template <class E>
[[nodiscard]] std::span<const EnumName<E>> enum_names();

#define YR_ENUM_NAMES(E, ...)                                           \
    template <>                                                         \
    [[nodiscard]] inline std::span<const EnumName<E>> enum_names<E>() { \
        static constexpr EnumName<E> names[] = {__VA_ARGS__};           \
        return names;                                                   \
    }

YR_ENUM_NAMES(Key, {Key::off, "off"}, {Key::accessory, "accessory"}, {Key::ignition, "ignition"},
              {Key::crank, "crank"})
YR_ENUM_NAMES(StateRole, {StateRole::parked, "parked"}, {StateRole::towed, "towed"},
              {StateRole::cranking, "cranking"}, {StateRole::idling, "idling"},
              {StateRole::driving, "driving"}, {StateRole::working, "working"},
              {StateRole::passing, "passing"})
YR_ENUM_NAMES(Engine, {Engine::any, "any"}, {Engine::running, "running"}, {Engine::stopped, "stopped"})
YR_ENUM_NAMES(Chassis, {Chassis::steel, "steel"}, {Chassis::aluminium, "aluminium"}, {Chassis::none, "none"})
YR_ENUM_NAMES(PointKind, {PointKind::stud, "stud"}, {PointKind::bus, "bus"}, {PointKind::box, "box"},
              {PointKind::chassis, "chassis"}, {PointKind::ground, "ground"}, {PointKind::splice, "splice"})
YR_ENUM_NAMES(Hazard, {Hazard::none, "none"}, {Hazard::airbag, "airbag"}, {Hazard::moving, "moving"},
              {Hazard::steering, "steering"}, {Hazard::seat_slide, "seat_slide"},
              {Hazard::wheel_travel, "wheel_travel"}, {Hazard::exhaust, "exhaust"},
              {Hazard::fuel_line, "fuel_line"}, {Hazard::brake_line, "brake_line"},
              {Hazard::jack_point, "jack_point"}, {Hazard::high_voltage, "high_voltage"})
YR_ENUM_NAMES(Metal, {Metal::unknown, "unknown"}, {Metal::steel, "steel"}, {Metal::aluminium, "aluminium"},
              {Metal::stainless, "stainless"}, {Metal::copper, "copper"})
YR_ENUM_NAMES(EndKind, {EndKind::by_choice, "by_choice"}, {EndKind::ring, "ring"}, {EndKind::blade, "blade"},
              {EndKind::ferrule, "ferrule"}, {EndKind::bare, "bare"}, {EndKind::pin, "pin"},
              {EndKind::splice, "splice"})
YR_ENUM_NAMES(Outline, {Outline::none, "none"}, {Outline::car, "car"}, {Outline::pickup, "pickup"},
              {Outline::van, "van"}, {Outline::truck, "truck"}, {Outline::tractor, "tractor"},
              {Outline::all_terrain, "all_terrain"}, {Outline::buggy, "buggy"}, {Outline::trailer, "trailer"},
              {Outline::cart, "cart"})
YR_ENUM_NAMES(PassageKind, {PassageKind::bend, "bend"}, {PassageKind::grommet, "grommet"},
              {PassageKind::hole, "hole"}, {PassageKind::gland, "gland"}, {PassageKind::conduit, "conduit"},
              {PassageKind::channel, "channel"}, {PassageKind::hinge, "hinge"})
YR_ENUM_NAMES(Air, {Air::outside, "outside"}, {Air::engine_bay, "engine_bay"})
YR_ENUM_NAMES(Signal, {Signal::steady, "steady"}, {Signal::pulsed, "pulsed"},
              {Signal::monitored, "monitored"})
YR_ENUM_NAMES(SourceKind, {SourceKind::alternator, "alternator"}, {SourceKind::stator, "stator"},
              {SourceKind::converter, "converter"}, {SourceKind::shore, "shore"},
              {SourceKind::solar, "solar"})
YR_ENUM_NAMES(CrankingStandard, {CrankingStandard::sae, "sae"}, {CrankingStandard::en, "en"})
YR_ENUM_NAMES(Waveform, {Waveform::pure, "pure"}, {Waveform::modified, "modified"})
YR_ENUM_NAMES(SupplyCode, {SupplyCode::none, "none"}, {SupplyCode::a, "a"}, {SupplyCode::b, "b"},
              {SupplyCode::c, "c"}, {SupplyCode::d, "d"})
YR_ENUM_NAMES(OutputKind, {OutputKind::relay, "relay"}, {OutputKind::solid_state, "solid_state"})
YR_ENUM_NAMES(Suppression, {Suppression::unknown, "unknown"}, {Suppression::none, "none"},
              {Suppression::diode, "diode"}, {Suppression::resistor, "resistor"})
YR_ENUM_NAMES(Senses, {Senses::from, "from"}, {Senses::to, "to"}, {Senses::either, "either"})
YR_ENUM_NAMES(SurveyKind, {SurveyKind::battery, "battery"}, {SurveyKind::outlet, "outlet"},
              {SurveyKind::alternator, "alternator"})
YR_ENUM_NAMES(SurveyKey, {SurveyKey::off, "off"}, {SurveyKey::accessory, "accessory"},
              {SurveyKey::running, "running"}, {SurveyKey::after, "after"})
YR_ENUM_NAMES(Chemistry, {Chemistry::flooded, "flooded"}, {Chemistry::agm, "agm"}, {Chemistry::gel, "gel"},
              {Chemistry::lifepo4, "lifepo4"})
YR_ENUM_NAMES(DrawKind, {DrawKind::current, "current"}, {DrawKind::power, "power"},
              {DrawKind::resistance, "resistance"})
YR_ENUM_NAMES(DeviceKind, {DeviceKind::fuse, "fuse"}, {DeviceKind::switching, "switch"},
              {DeviceKind::sensing_relay, "sensing_relay"}, {DeviceKind::cutoff, "cutoff"},
              {DeviceKind::diode, "diode"}, {DeviceKind::shunt, "shunt"})
YR_ENUM_NAMES(FuseType, {FuseType::blade, "blade"}, {FuseType::blade_large, "blade_large"},
              {FuseType::bolt, "bolt"}, {FuseType::strip, "strip"}, {FuseType::stud, "stud"},
              {FuseType::high, "high"}, {FuseType::glass, "glass"}, {FuseType::breaker_1, "breaker_1"},
              {FuseType::breaker_2, "breaker_2"}, {FuseType::breaker_3, "breaker_3"})
YR_ENUM_NAMES(StartKind, {StartKind::step, "step"}, {StartKind::motor, "motor"}, {StartKind::lamp, "lamp"},
              {StartKind::capacitor, "capacitor"})
YR_ENUM_NAMES(Material, {Material::copper, "copper"}, {Material::tinned, "tinned"}, {Material::cca, "cca"})
YR_ENUM_NAMES(FuseSchool, {FuseSchool::load150, "load150"}, {FuseSchool::inrush, "inrush"},
              {FuseSchool::wire, "wire"})
YR_ENUM_NAMES(AmpacityTable, {AmpacityTable::abyc, "abyc"}, {AmpacityTable::iso, "iso"})
YR_ENUM_NAMES(SizeSystem, {SizeSystem::awg, "awg"}, {SizeSystem::sae, "sae"}, {SizeSystem::metric, "metric"})
YR_ENUM_NAMES(LeadUnits, {LeadUnits::metric, "metric"}, {LeadUnits::inch, "inch"})

#undef YR_ENUM_NAMES

template <class E>
[[nodiscard]] std::string_view enum_name(E value) {
    for (const auto& n : enum_names<E>())
        if (n.value == value) return n.name;
    return {};
}

template <class E>
[[nodiscard]] std::optional<E> enum_named(std::string_view name) {
    for (const auto& n : enum_names<E>())
        if (n.name == name) return n.value;
    return std::nullopt;
}

}  // namespace yr
