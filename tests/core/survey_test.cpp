// The survey against hidden vehicles: what it says is joined is never wrong, and with the readings it asks
// for it settles nearly everything.
#include <gtest/gtest.h>

#include <random>

#include "plan/validate.h"
#include "survey/infer.h"
#include "survey/simulate.h"

namespace yr::test {
namespace {

// A hand with a meter: one gain error for all, a little noise on each reading.
class Hand {
  public:
    Hand(const Plan& plan, std::uint32_t seed) : plan_(plan), random_(seed) {
        gain_ = 1 + std::uniform_real_distribution<double>(-0.005, 0.005)(random_);
    }
    SurveyReading read(const SurveyAsk& ask) {
        const auto terminal = [&](const Id& point) {
            return point.empty() ? Terminal() : find(plan_.survey.points, point)->terminal;
        };
        const auto volts = read_volts(plan_, {terminal(ask.point), {}, ask.key, terminal(ask.drawn_at), 100});
        EXPECT_TRUE(volts.has_value());
        const double noise = std::clamp(std::normal_distribution<double>(0, 0.003)(random_), -0.008, 0.008);
        return {ask.point, ask.key, ask.drawn_at, *volts * gain_ + noise};
    }

  private:
    const Plan& plan_;
    std::mt19937 random_;
    double gain_;
};

struct Tally {
    int questions = 0, settled = 0, wrong = 0, readings = 0, joiners = 0, joiners_told = 0;
};

void judge(const HiddenVehicle& hidden, const SurveyProof& proof, std::uint32_t seed, Tally& tally) {
    const auto terminal = [&](const Id& point) { return find(hidden.plan.survey.points, point)->terminal; };
    for (const JoinFact& f : proof.joins) {
        ++tally.questions;
        if (f.verdict == JoinVerdict::open) continue;
        ++tally.settled;
        const bool joined = truly_joined(hidden.plan, terminal(f.a), terminal(f.b), f.key);
        const bool right = joined == (f.verdict == JoinVerdict::joined);
        EXPECT_TRUE(right) << "vehicle " << seed << ": " << f.a << " and " << f.b << ", key "
                           << static_cast<int>(f.key) << ": " << f.a_V << " V, " << f.b_V << " V, sag "
                           << f.sag_V << ", along " << f.along_V;
        tally.wrong += !right;
    }
    for (const auto& [battery, joiner] : hidden.joiners)
        for (const BatteryFact& f : proof.batteries) {
            if (f.battery != battery || f.other != "front") continue;
            ++tally.joiners;
            if (f.joiner != yr::Joiner::open) ++tally.joiners_told;
            // an isolator below a battery that stands higher passes nothing: not joined and not charged is
            // true of it
            const bool passes_nothing = f.joiner == yr::Joiner::none && joiner == yr::Joiner::isolator;
            EXPECT_TRUE(f.joiner == yr::Joiner::open || f.joiner == joiner || passes_nothing)
                << "vehicle " << seed << ": " << battery << " told " << static_cast<int>(f.joiner) << ", is "
                << static_cast<int>(joiner);
        }
    for (const auto& [outlet, battery] : hidden.outlet_feeds) {
        ++tally.questions;
        for (const OutletFact& f : proof.outlets) {
            if (f.outlet != outlet || !f.battery) continue;
            ++tally.settled;
            EXPECT_EQ(*f.battery, battery) << "vehicle " << seed << ": " << outlet;
            tally.wrong += *f.battery != battery;
        }
    }
}

TEST(Survey, TwoHundredHiddenVehiclesNeverWrongAndMostlySettled) {
    Tally tally;
    for (std::uint32_t seed = 1; seed <= 200; ++seed) {
        const HiddenVehicle hidden = hidden_vehicle(seed);
        ASSERT_TRUE(validate(hidden.plan).empty()) << validate(hidden.plan).front().place;
        Hand hand(hidden.plan, seed);
        Survey survey{hidden.plan.survey.points, {}};
        SurveyProof proof = infer(survey);
        for (int round = 0; round < 8 && !proof.asks.empty(); ++round) {
            for (const SurveyAsk& ask : proof.asks)
                survey.readings.push_back(hand.read(ask)), ++tally.readings;
            proof = infer(survey);
        }
        judge(hidden, proof, seed, tally);
    }
    EXPECT_EQ(tally.wrong, 0);
    EXPECT_GE(tally.settled, 0.9 * tally.questions) << tally.settled << " of " << tally.questions;
    EXPECT_GE(tally.joiners_told, 0.8 * tally.joiners) << tally.joiners_told << " of " << tally.joiners;
    RecordProperty("told", tally.joiners_told);
    RecordProperty("joiners", tally.joiners);
    RecordProperty("settled", tally.settled);
    RecordProperty("questions", tally.questions);
    RecordProperty("readings", tally.readings);
}

TEST(Survey, EqualVoltsAloneProveNothing) {
    Survey s;
    s.points = {{"a", "front", SurveyKind::battery, {}}, {"b", "rear", SurveyKind::battery, {}}};
    s.readings = {{"a", SurveyKey::off, {}, 12.60}, {"b", SurveyKey::off, {}, 12.60}};
    const SurveyProof p = infer(s);
    EXPECT_EQ(p.joins[0].verdict, JoinVerdict::open);
    const SurveyAsk wanted{"b", SurveyKey::off, "a"};
    EXPECT_NE(std::find(p.asks.begin(), p.asks.end(), wanted), p.asks.end())
        << "a draw at the front is asked for";
}

TEST(Survey, SagTellsAndFarApartIsApart) {
    Survey s;
    s.points = {{"a", "front", SurveyKind::battery, {}}, {"b", "rear", SurveyKind::battery, {}}};
    s.readings = {{"a", SurveyKey::off, {}, 12.60},      {"b", SurveyKey::off, {}, 12.58},
                  {"a", SurveyKey::off, "a", 12.25},     {"b", SurveyKey::off, "a", 12.38},
                  {"a", SurveyKey::accessory, {}, 12.4}, {"b", SurveyKey::accessory, {}, 13.3}};
    const SurveyProof p = infer(s);
    EXPECT_EQ(p.joins[0].verdict, JoinVerdict::joined);
    EXPECT_EQ(p.joins[1].verdict, JoinVerdict::apart);
}

TEST(Survey, AnOutletHangsWhereItsVoltsAre) {
    Survey s;
    s.points = {{"a", "front", SurveyKind::battery, {}},
                {"b", "rear", SurveyKind::battery, {}},
                {"o", "socket", SurveyKind::outlet, {}}};
    s.readings = {{"a", SurveyKey::off, {}, 12.60},       {"b", SurveyKey::off, {}, 13.25},
                  {"o", SurveyKey::off, {}, 0.02},        {"a", SurveyKey::accessory, {}, 12.45},
                  {"b", SurveyKey::accessory, {}, 13.24}, {"o", SurveyKey::accessory, {}, 13.22},
                  {"o", SurveyKey::running, {}, 13.9}};
    const SurveyProof p = infer(s);
    EXPECT_EQ(p.outlets[0].battery, Id("b"));
    EXPECT_EQ(p.outlets[0].live, OutletLive::accessory);
}

}  // namespace
}  // namespace yr::test
