#include "fabricate/visits.h"

#include <algorithm>
#include <deque>
#include <map>
#include <optional>
#include <string>

namespace yr {
namespace {

class Search {
  public:
    explicit Search(const std::vector<VisitStep>& steps) : steps_(steps) {
        for (const VisitStep& s : steps) places_ = std::max(places_, s.place + 1);
    }

    // Does all that can be done at the place; says how much that was.
    std::size_t visit(std::string& done, std::size_t place, std::vector<std::size_t>* order = nullptr) const {
        std::size_t count = 0;
        for (bool more = true; more;) {
            more = false;
            for (std::size_t k = 0; k < steps_.size(); ++k)
                if (!done[k] && steps_[k].place == place && ready(done, k)) {
                    done[k] = 1, ++count, more = true;
                    if (order) order->push_back(k);
                    break;  // from the beginning: the list's own order holds where it can
                }
        }
        return count;
    }

    Visits run(std::size_t most_looked) const {
        std::string all(steps_.size(), '\0'), none = all;
        all_that_can(all);
        if (auto found = breadth_first(none, all, most_looked)) return replay(*found, true);
        return replay(greedy(none, all), false);
    }

  private:
    bool ready(const std::string& done, std::size_t k) const {
        return std::all_of(steps_[k].after.begin(), steps_[k].after.end(),
                           [&](std::size_t a) { return done[a]; });
    }

    // Everything that can be done at all.
    void all_that_can(std::string& done) const {
        for (std::size_t more = 1; more > 0;) {
            more = 0;
            for (std::size_t p = 0; p < places_; ++p) more += visit(done, p);
        }
    }

    std::optional<std::vector<std::size_t>> breadth_first(const std::string& none, const std::string& all,
                                                          std::size_t most_looked) const {
        struct From {
            std::string before;
            std::size_t place = 0;
        };
        std::map<std::string, From> seen{{none, {}}};
        std::deque<std::string> next{none};
        while (!next.empty()) {
            const std::string at = next.front();
            next.pop_front();
            if (at == all) {
                std::vector<std::size_t> places;
                for (std::string back = at; back != none;) {
                    const From& from = seen.at(back);
                    places.push_back(from.place);
                    back = from.before;
                }
                std::reverse(places.begin(), places.end());
                return places;
            }
            for (std::size_t p = 0; p < places_; ++p) {
                std::string then = at;
                if (visit(then, p) == 0 || seen.contains(then)) continue;
                if (seen.size() >= most_looked) return std::nullopt;
                seen.emplace(then, From{at, p});
                next.push_back(std::move(then));
            }
        }
        return std::nullopt;
    }

    std::vector<std::size_t> greedy(std::string done, const std::string& all) const {
        std::vector<std::size_t> places;
        while (done != all) {
            std::size_t best = places_, most = 0;
            for (std::size_t p = 0; p < places_; ++p) {
                std::string then = done;
                if (const std::size_t n = visit(then, p); n > most) most = n, best = p;
            }
            if (best == places_) break;
            visit(done, best);
            places.push_back(best);
        }
        return places;
    }

    Visits replay(const std::vector<std::size_t>& places, bool fewest) const {
        Visits v;
        std::string done(steps_.size(), '\0');
        for (const std::size_t p : places) visit(done, p, &v.order);
        v.visits = static_cast<int>(places.size());
        v.fewest = fewest;
        return v;
    }

    const std::vector<VisitStep>& steps_;
    std::size_t places_ = 0;
};

}  // namespace

Visits fewest_visits(const std::vector<VisitStep>& steps, std::size_t most_looked) {
    return Search(steps).run(most_looked);
}

}  // namespace yr
