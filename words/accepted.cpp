#include "words/accepted.h"

#include <algorithm>
#include <map>

namespace yr::words {
namespace {

constexpr double kWorse = 1.02;  // of its number: noise of a changed plan brings nothing back

bool same(const Accepted& a, const Finding& f) {
    return a.about == f.id && a.other == f.other && a.state == f.state && a.kind == row_of(f.kind).name;
}

// Volts too low get worse by falling, amps too high by rising: which it is shows in how it stood to its
// limit.
bool worse(const Finding& f, const Accepted& a) {
    if (a.limit > 0 && a.value < a.limit) return f.value < a.value / kWorse;
    return f.value > a.value * kWorse;
}

double excess(const Finding& f) {
    if (f.limit <= 0) return f.value;
    return f.value < f.limit ? f.limit / std::max(f.value, 1e-9) : f.value / f.limit;
}

}  // namespace

const Accepted* accepted(const Finding& f, const Plan& plan) {
    for (const Accepted& a : plan.accepted)
        if (same(a, f) && !worse(f, a)) return &a;
    return nullptr;
}

Accepted acceptance_of(const Finding& f, const Plan& plan, const std::string& reason, const std::string& who,
                       const std::string& when) {
    Accepted a;
    a.id = new_id(plan, "accepted");
    for (const Accepted& old : plan.accepted)
        if (same(old, f)) a.id = old.id;
    a.name = sentence(f, plan);
    a.kind = row_of(f.kind).name;
    a.about = f.id, a.other = f.other, a.state = f.state;
    a.value = f.value, a.limit = f.limit;
    a.reason = reason, a.who = who, a.when = when;
    return a;
}

std::vector<FindingBunch> bunches(const std::vector<Finding>& findings, const Plan& plan, std::size_t least) {
    std::vector<FindingBunch> out;
    FindingBunch taken;
    taken.accepted = true;
    std::map<std::pair<FindingKind, Severity>, std::vector<std::size_t>> alike;
    const auto key = [&](std::size_t k) { return std::pair(findings[k].kind, findings[k].severity); };
    for (std::size_t k = 0; k < findings.size(); ++k) {
        if (accepted(findings[k], plan))
            taken.which.push_back(k);
        else
            alike[key(k)].push_back(k);
    }
    std::vector<char> told(findings.size(), 0);
    for (const std::size_t k : taken.which) told[k] = 1;
    for (std::size_t k = 0; k < findings.size(); ++k) {
        if (told[k]) continue;
        FindingBunch b;
        b.which = alike[key(k)];
        if (b.which.size() < least) b.which = {k};
        std::stable_sort(b.which.begin(), b.which.end(), [&](std::size_t x, std::size_t y) {
            return excess(findings[x]) > excess(findings[y]);
        });
        for (const std::size_t n : b.which) told[n] = 1;
        out.push_back(std::move(b));
    }
    if (!taken.which.empty()) out.push_back(std::move(taken));
    return out;
}

std::string sentence(const FindingBunch& bunch, const std::vector<Finding>& findings, const Plan& plan,
                     const Style& style) {
    if (bunch.accepted)
        return say_n("{0} finding is accepted as it is.", "{0} findings are accepted as they are.",
                     static_cast<long>(bunch.which.size()));
    std::string worst = sentence(findings[bunch.which.front()], plan, style);
    if (bunch.which.size() < 2) return worst;
    return worst + say_n(" And {0} more of the kind.", " And {0} more of the kind.",
                         static_cast<long>(bunch.which.size()) - 1);
}

std::size_t count_of(Severity severity, const std::vector<Finding>& findings, const Plan& plan) {
    return static_cast<std::size_t>(std::count_if(findings.begin(), findings.end(), [&](const Finding& f) {
        return f.severity == severity && !accepted(f, plan);
    }));
}

}  // namespace yr::words
