#include "survey/infer.h"

#include <algorithm>
#include <cmath>

namespace yr {
namespace {

// A link of cable, fuse and contact drops this much at most while it joins two posts (common practice): 100 A
// of equalising current over 5 mohm at rest, more while charging.
constexpr double kMostLinkRest_V = 0.50, kMostLinkRunning_V = 0.70;
constexpr double kDrawn_V = 0.10;          // a draw must pull its own post down this far to tell anything
constexpr double kStill_V = 0.20;          // and this far before standing still means something
constexpr double kAlongRest = 0.20;        // share of that sag which a joined post shows at rest
constexpr double kAlongRunning = 0.30;     // and with the engine running, both ways
constexpr double kSharedRunning_V = 0.40;  // joined posts stand this near while running
constexpr double kForward_V = 0.45;        // an isolator keeps at least this
constexpr double kRise_V = 0.06;    // volts rise this much from rest: it is charged; lithium rises little
constexpr double kOutlet_V = 0.10;  // an outlet without load stands this near its battery
constexpr double kLive_V = 6;
constexpr SurveyKey kKeys[] = {SurveyKey::off, SurveyKey::accessory, SurveyKey::running, SurveyKey::after};

class Inference {
  public:
    explicit Inference(const Survey& survey) : survey_(survey) {}

    SurveyProof run() {
        std::vector<const SurveyPoint*> posts;
        for (const SurveyPoint& p : survey_.points)
            if (p.kind != SurveyKind::outlet) posts.push_back(&p);
        for (std::size_t a = 0; a < posts.size(); ++a)
            for (std::size_t b = a + 1; b < posts.size(); ++b)
                for (SurveyKey k : kKeys) proof_.joins.push_back(join(*posts[a], *posts[b], k));
        settle_by_third();
        for (std::size_t a = 0; a < posts.size(); ++a)
            for (std::size_t b = a + 1; b < posts.size(); ++b)
                if (posts[a]->kind == SurveyKind::battery && posts[b]->kind == SurveyKind::battery)
                    proof_.batteries.push_back(battery(posts[a]->id, posts[b]->id));
        for (const SurveyPoint& p : survey_.points)
            if (p.kind == SurveyKind::outlet) proof_.outlets.push_back(outlet(p));
        return std::move(proof_);
    }

  private:
    std::optional<double> volts(const Id& point, SurveyKey key, const Id& drawn_at = {}) const {
        std::optional<double> latest;
        for (const SurveyReading& r : survey_.readings)
            if (r.point == point && r.key == key && r.drawn_at == drawn_at) latest = r.volts_V;
        return latest;
    }

    void ask(const Id& point, SurveyKey key, const Id& drawn_at = {}) {
        if (volts(point, key, drawn_at)) return;
        const SurveyAsk wanted{point, key, drawn_at};
        if (std::find(proof_.asks.begin(), proof_.asks.end(), wanted) == proof_.asks.end())
            proof_.asks.push_back(wanted);
    }

    struct Sag {
        double own_V, along_V;  // of the drawn post, of the other
        double gap_V;  // the drawn post below the other, drawn: an isolator conducts across its forward drop
    };

    // Draw at `drawn`; how does `other` follow? Empty where it was not read or the draw was too small to
    // tell.
    std::optional<Sag> sag(const Id& drawn, const Id& other, SurveyKey key) const {
        const auto d0 = volts(drawn, key), d1 = volts(drawn, key, drawn), o0 = volts(other, key),
                   o1 = volts(other, key, drawn);
        if (!d0 || !d1 || !o0 || !o1 || *d0 - *d1 < kDrawn_V) return std::nullopt;
        return Sag{*d0 - *d1, *o0 - *o1, *o1 - *d1};
    }

    static bool follows(const Sag& s, double share) { return s.along_V > share * s.own_V + kMeterDoubt_V; }
    static bool stands_still(const Sag& s) {
        return s.own_V > kStill_V && s.along_V < kMeterDoubt_V + 0.02 * s.own_V && s.along_V > -kMeterDoubt_V;
    }

    JoinFact join(const SurveyPoint& a, const SurveyPoint& b, SurveyKey key) {
        JoinFact f{a.id, b.id, key, JoinVerdict::open, 0, 0, 0, 0};
        const auto va = volts(a.id, key), vb = volts(b.id, key);
        if (!va || !vb) {
            ask(a.id, key);
            ask(b.id, key);
            return f;
        }
        f.a_V = *va, f.b_V = *vb;
        const double apart_V = std::abs(*va - *vb);
        if (key == SurveyKey::running)
            settle_running(f, a, b, apart_V);
        else
            settle_at_rest(f, a, b, apart_V);
        if (f.verdict == JoinVerdict::open) ask_for_draws(a, b, key);
        return f;
    }

    void settle_at_rest(JoinFact& f, const SurveyPoint& a, const SurveyPoint& b, double apart_V) {
        if (apart_V > kMostLinkRest_V + kMeterDoubt_V) {
            f.verdict = JoinVerdict::apart;
            return;
        }
        for (const auto& [drawn, other] : {std::pair{a.id, b.id}, std::pair{b.id, a.id}}) {
            const auto s = sag(drawn, other, f.key);
            if (!s) continue;
            f.sag_V = s->own_V, f.along_V = s->along_V;
            if (stands_still(*s)) f.verdict = JoinVerdict::apart;
            if (follows(*s, kAlongRest) && s->gap_V < kForward_V) f.verdict = JoinVerdict::joined;
            if (f.verdict != JoinVerdict::open) return;
        }
    }

    // Running, a converter may drop out under a sag and look like a follower: both ways must agree.
    void settle_running(JoinFact& f, const SurveyPoint& a, const SurveyPoint& b, double apart_V) {
        const auto ab = sag(a.id, b.id, f.key), ba = sag(b.id, a.id, f.key);
        const bool only_one = a.kind != b.kind;  // no draw at the alternator's own stud
        if (ab) f.sag_V = ab->own_V, f.along_V = ab->along_V;
        const bool still_ab = ab && stands_still(*ab) && (only_one || (ba && !follows(*ba, kAlongRunning)));
        const bool still_ba = ba && stands_still(*ba);
        if (!still_ab && still_ba) f.sag_V = ba->own_V, f.along_V = ba->along_V;
        const bool along_ab = ab && follows(*ab, kAlongRunning), along_ba = ba && follows(*ba, kAlongRunning);
        const bool shares =
            apart_V < kSharedRunning_V && ((along_ab && along_ba) || (only_one && (along_ab || along_ba)));
        const bool isolated = f.a_V - f.b_V > kForward_V && f.a_V - f.b_V < 1.2 && along_ab;
        // no isolator stands so far below, or above, what feeds it
        const bool too_far =
            apart_V > kMostLinkRunning_V + kMeterDoubt_V && (f.b_V > f.a_V || f.a_V - f.b_V > 1.2);
        if (still_ab || still_ba || (!shares && !isolated && too_far))
            f.verdict = JoinVerdict::apart;
        else if (shares)
            f.verdict = JoinVerdict::joined;
        else if (isolated)
            f.verdict = JoinVerdict::one_way;
    }

    void ask_for_draws(const SurveyPoint& a, const SurveyPoint& b, SurveyKey key) {
        for (const SurveyPoint* drawn : {&a, &b}) {
            if (drawn->kind != SurveyKind::battery) continue;
            ask(drawn->id, key, drawn->id);
            ask(drawn == &a ? b.id : a.id, key, drawn->id);
            const auto s = sag(a.id, b.id, key);
            if (key != SurveyKey::running && !s) break;  // at rest one way is enough, if it tells
        }
    }

    JoinFact* fact(const Id& a, const Id& b, SurveyKey key) {
        for (JoinFact& f : proof_.joins)
            if (f.key == key && ((f.a == a && f.b == b) || (f.a == b && f.b == a))) return &f;
        return nullptr;
    }

    // What two posts are to a third says what they are to each other.
    void settle_by_third() {
        // Two batteries behind isolators of one source follow each other without being joined.
        for (JoinFact& f : proof_.joins) {
            if (f.key != SurveyKey::running || f.verdict != JoinVerdict::joined) continue;
            for (const SurveyPoint& c : survey_.points) {
                const JoinFact *ca = fact(c.id, f.a, f.key), *cb = fact(c.id, f.b, f.key);
                const auto may_be_isolated = [&c](const JoinFact* g) {  // from c, which then stands above
                    const double above_V = g->a == c.id ? g->a_V - g->b_V : g->b_V - g->a_V;
                    return above_V > 0 &&
                           (g->verdict == JoinVerdict::one_way || g->verdict == JoinVerdict::open);
                };
                if (c.id != f.a && c.id != f.b && ca && cb && may_be_isolated(ca) && may_be_isolated(cb))
                    f.verdict = JoinVerdict::open;
            }
        }
        for (int round = 0; round < 2; ++round)
            for (JoinFact& f : proof_.joins)
                for (const SurveyPoint& c : survey_.points) {
                    if (f.verdict != JoinVerdict::open || c.id == f.a || c.id == f.b) continue;
                    const JoinFact *ca = fact(c.id, f.a, f.key), *cb = fact(c.id, f.b, f.key);
                    if (!ca || !cb) continue;
                    const bool a = ca->verdict == JoinVerdict::joined, b = cb->verdict == JoinVerdict::joined;
                    if (a && b) f.verdict = JoinVerdict::joined;
                    if ((a && cb->verdict == JoinVerdict::apart) || (b && ca->verdict == JoinVerdict::apart))
                        f.verdict = JoinVerdict::apart;
                }
    }

    JoinVerdict verdict(const Id& a, const Id& b, SurveyKey key) const {
        for (const JoinFact& f : proof_.joins)
            if (f.a == a && f.b == b && f.key == key) return f.verdict;
        return JoinVerdict::open;
    }

    BatteryFact battery(const Id& a, const Id& b) {
        BatteryFact f{b, a, Joiner::open, std::nullopt};
        const auto rest = volts(b, SurveyKey::off), run = volts(b, SurveyKey::running);
        if (rest && run && *run - *rest > kRise_V) f.charges = true;
        if (rest && run && *run - *rest < kMeterDoubt_V) f.charges = false;
        using V = JoinVerdict;
        const V off = verdict(a, b, SurveyKey::off), key = verdict(a, b, SurveyKey::accessory),
                running = verdict(a, b, SurveyKey::running), after = verdict(a, b, SurveyKey::after);
        if (off == V::joined && running == V::joined) f.joiner = Joiner::permanent;
        if (off == V::apart && running == V::one_way) f.joiner = Joiner::isolator;
        if (off == V::apart && running == V::joined) {
            if (key == V::joined) f.joiner = Joiner::key_contactor;
            if (key == V::apart && after == V::joined) f.joiner = Joiner::sensing_relay;
            if (key == V::apart && after == V::apart) f.joiner = Joiner::contactor;
        }
        if (off == V::apart && running == V::apart && f.charges)
            f.joiner = *f.charges ? Joiner::converter : Joiner::none;
        return f;
    }

    OutletFact outlet(const SurveyPoint& p) {
        OutletFact f{p.id, std::nullopt, OutletLive::open};
        find_liveness(f);
        std::vector<Id> batteries;
        for (const SurveyPoint& x : survey_.points)
            if (x.kind == SurveyKind::battery) batteries.push_back(x.id);
        bool dead_everywhere = f.live == OutletLive::never;
        for (SurveyKey k : kKeys) {
            if (f.battery || dead_everywhere) break;
            f.battery = feeding_battery(p.id, batteries, k);
        }
        if (!f.battery && !dead_everywhere) ask_for_outlet(p.id, batteries);
        return f;
    }

    void find_liveness(OutletFact& f) {
        std::optional<bool> live[3];
        for (int k = 0; k < 3; ++k) {
            const auto v = volts(f.outlet, kKeys[k]);
            if (!v) ask(f.outlet, kKeys[k]);
            if (v) live[k] = *v > kLive_V;
        }
        if (!live[0] || !live[1] || !live[2]) return;
        f.live = *live[0]   ? OutletLive::always
                 : *live[1] ? OutletLive::accessory
                 : *live[2] ? OutletLive::running
                            : OutletLive::never;
    }

    // The one battery that the outlet stands with in this key position, if all others are ruled out.
    std::optional<Id> feeding_battery(const Id& outlet, const std::vector<Id>& batteries, SurveyKey k) const {
        const auto v = volts(outlet, k);
        if (!v || *v < kLive_V) return std::nullopt;
        std::optional<Id> only;
        for (const Id& b : batteries) {
            const auto vb = volts(b, k);
            if (!vb) return std::nullopt;
            if (ruled_out(outlet, b, *v, *vb, k)) continue;
            if (only) return std::nullopt;
            only = b;
        }
        return only;
    }

    bool ruled_out(const Id& outlet, const Id& battery, double v, double vb, SurveyKey k) const {
        if (std::abs(v - vb) > kOutlet_V + kMeterDoubt_V) return true;
        const auto s = sag(battery, outlet, k);
        return s && stands_still(*s);
    }

    void ask_for_outlet(const Id& outlet, const std::vector<Id>& batteries) {
        for (SurveyKey k : kKeys) {
            const auto v = volts(outlet, k);
            if (!v) {
                ask(outlet, k);
                continue;
            }
            if (*v < kLive_V) continue;
            for (const Id& b : batteries) {
                if (!volts(b, k)) ask(b, k);
                ask(b, k, b);
                ask(outlet, k, b);
            }
            return;  // one position is tried at a time
        }
    }

    const Survey& survey_;
    SurveyProof proof_;
};

}  // namespace

SurveyProof infer(const Survey& survey) {
    return Inference(survey).run();
}

}  // namespace yr
