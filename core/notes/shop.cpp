// What a shop asks and how it works, and how the ends of a cable are made, in short lines:
//
//     price 2 AWG copper red 6.40 a metre, roll of 10, from Harbour Cable, 2026-11-02
//     price fuse 30 A 1.20, customer's        rate 85 an hour
//     minutes make thick 9                    torque M8 12 Nm                likely ground 9
//     end main feed at main block: ring M8 45° boot
#include <algorithm>

#include "catalog/fault_kinds.h"
#include "catalog/work.h"
#include "notes/kinds.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

std::vector<std::string> words_of(std::string_view text) {
    std::vector<std::string> words;
    for (const std::string_view w : split(text, ' '))
        if (!trim(w).empty()) words.emplace_back(trim(w));
    return words;
}

std::optional<double> number_in(std::string_view word) {
    const auto v = parse_value(trim(word), Dimension::number);
    return v && *v >= 0 ? std::optional(*v) : std::nullopt;
}

bool is_date(std::string_view text) {
    return text.size() == 10 && text[4] == '-' && text[7] == '-' &&
           std::count_if(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; }) == 8;
}

// The amount is the last number; words such as "a metre" behind it say nothing more.
std::optional<double> take_amount(std::vector<std::string>& words) {
    const auto last_is = [&](std::initializer_list<const char*> any) {
        return !words.empty() && std::any_of(any.begin(), any.end(),
                                             [&](const char* w) { return to_lower(words.back()) == w; });
    };
    if (last_is({"each", "metre", "m", "piece", "hour", "h", "/h", "min", "minutes"})) {
        words.pop_back();
        if (last_is({"a", "an", "per"})) words.pop_back();
    }
    if (words.empty()) return std::nullopt;
    const auto amount = number_in(words.back());
    if (amount) words.pop_back();
    return amount;
}

std::string joined(const std::vector<std::string>& words, char with) {
    std::string text;
    for (const std::string& w : words) text += (text.empty() ? "" : std::string(1, with)) + w;
    return text;
}

// What follows the amount, piece by piece.
bool take_price_piece(std::string_view piece, Price& price) {
    const std::string low = to_lower(piece);
    if (is_date(piece)) {
        price.dated = std::string(piece);
    } else if (low.starts_with("from ")) {
        price.supplier = unquoted(piece.substr(5));
    } else if (low == "customer's" || low == "customer’s" || low == "brought" ||
               low == "customer brings it") {
        price.brought = true;
    } else {
        for (const std::string_view head : {"pack of ", "pack ", "roll of ", "roll ", "box of "})
            if (low.starts_with(head)) {
                auto words = words_of(piece.substr(head.size()));
                if (const auto n = take_amount(words); n && *n > 0 && words.empty())
                    return price.pack = *n, true;
                return false;
            }
        return false;
    }
    return true;
}

Made make_price(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    Price price;
    bool first = true;
    for (const std::string_view raw : split(text, ',')) {
        const std::string_view piece = trim(raw);
        if (piece.empty()) continue;
        if (!first) {
            if (!take_price_piece(piece, price)) not_understood.emplace_back(piece);
            continue;
        }
        first = false;
        auto words = words_of(piece);
        price.each = take_amount(words);
        price.part = unquoted(joined(words, ' '));
    }
    if (price.part.empty() || (!price.each && !price.brought))
        return missing("price", Want::a_part_and_its_price);
    Policy policy = b.plan().policy;
    const auto known = std::find_if(policy.prices.begin(), policy.prices.end(),
                                    [&](const Price& p) { return to_lower(p.part) == to_lower(price.part); });
    if (known != policy.prices.end())
        *known = price;
    else
        policy.prices.push_back(price);
    b.add(SetPolicy{policy});
    return Id();
}

Made make_rate(PlanBuilder& b, std::string_view text) {
    auto words = words_of(text);
    const auto amount = take_amount(words);
    if (!amount || !words.empty()) return missing("rate", Want::money_an_hour);
    Policy policy = b.plan().policy;
    policy.rate_h = *amount;
    b.add(SetPolicy{policy});
    return Id();
}

Made make_minutes(PlanBuilder& b, std::string_view text) {
    auto words = words_of(text);
    const auto amount = take_amount(words);
    const std::string task = to_lower(joined(words, '_'));
    const auto tasks = work_tasks();
    if (!amount || std::find(tasks.begin(), tasks.end(), task) == tasks.end()) {
        std::string all;
        for (const std::string& t : tasks) {
            std::string said = t;
            std::replace(said.begin(), said.end(), '_', ' ');
            all += (all.empty() ? "" : ", ") + said;
        }
        return fail(ErrorCode::unknown_name, "minutes", joined(words, ' '), Wanted(Want::as_said, all));
    }
    Policy policy = b.plan().policy;
    std::erase_if(policy.tasks, [&](const TaskTime& t) { return t.task == task; });
    policy.tasks.push_back({task, *amount});
    b.add(SetPolicy{policy});
    return Id();
}

Made make_likely(PlanBuilder& b, std::string_view text) {
    auto words = words_of(text);
    const auto amount = take_amount(words);
    const std::string kind = to_lower(joined(words, '_'));
    if (!amount || !fault_kind_named(kind)) {
        std::string all;
        for (std::size_t k = 0; k < kFaultKinds; ++k) {
            std::string said(name_of(static_cast<FaultKind>(k)));
            std::replace(said.begin(), said.end(), '_', ' ');
            all += (all.empty() ? "" : ", ") + said;
        }
        return fail(ErrorCode::unknown_name, "likely", joined(words, ' '), Wanted(Want::as_said, all));
    }
    if (*amount <= 0 || *amount > 1000)
        return fail(ErrorCode::out_of_range, "likely", std::to_string(*amount),
                    Wanted(Want::as_said, "1000"));
    Policy policy = b.plan().policy;
    std::erase_if(policy.faults, [&](const FaultWeight& w) { return w.fault == kind; });
    policy.faults.push_back({kind, *amount});
    b.add(SetPolicy{policy});
    return Id();
}

Made make_torque(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    std::optional<double> thread, newton;
    for (const std::string& w : words_of(text)) {
        std::string_view low = w;
        if (to_lower(w) == "nm") continue;
        if (to_lower(w).ends_with("nm")) low.remove_suffix(2);
        const bool is_thread = to_lower(w)[0] == 'm';
        if (is_thread) low.remove_prefix(1);
        if (const auto v = number_in(low))
            (is_thread ? thread : newton) = *v;
        else
            not_understood.push_back(w);
    }
    if (!thread || !newton || *newton <= 0) return missing("torque", Want::a_thread_and_newton_metres);
    Policy policy = b.plan().policy;
    std::erase_if(policy.torques, [&](const Torque& t) { return t.thread_mm == *thread; });
    policy.torques.push_back({*thread, *newton});
    b.add(SetPolicy{policy});
    return Id();
}

bool take_end_word(const std::string& word, RunEnd& end, std::optional<double>& lug_mm) {
    static const std::pair<const char*, EndKind> kinds[] = {
        {"ring", EndKind::ring},       {"lug", EndKind::ring},  {"blade", EndKind::blade},
        {"ferrule", EndKind::ferrule}, {"bare", EndKind::bare}, {"pin", EndKind::pin},
        {"splice", EndKind::splice}};
    for (const auto& [name, kind] : kinds)
        if (word == name) return end.kind = kind, true;
    if (word == "boot" || word == "cap") return end.boot = true;
    if (word == "doubled") return end.doubled = true;
    if (word == "straight") return end.angle_deg = 0, true;
    for (const std::string_view unit : {"°", "deg"})
        if (word.ends_with(unit))
            if (const auto v = number_in(std::string_view(word).substr(0, word.size() - unit.size()));
                v && (*v == 45 || *v == 90 || *v == 0))
                return end.angle_deg = *v, true;
    if (word.size() > 1 && word[0] == 'm')
        if (const auto v = number_in(std::string_view(word).substr(1)); v && *v >= 3 && *v <= 20) {
            lug_mm = *v;
            if (end.kind == EndKind::by_choice) end.kind = EndKind::ring;
            return true;
        }
    return false;
}

}  // namespace

Made make_shop(PlanBuilder& b, std::string_view word, std::string_view text,
               std::vector<std::string>& not_understood) {
    if (word == "price") return make_price(b, text, not_understood);
    if (word == "rate") return make_rate(b, text);
    if (word == "minutes") return make_minutes(b, text);
    if (word == "likely") return make_likely(b, text);
    return make_torque(b, text, not_understood);
}

Made make_end(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    const auto colon = text.find(':');
    std::string_view head = trim(text.substr(0, colon));
    const std::string low = to_lower(head);
    // "main feed at main block": the cable, then which end; without it both
    const Run* run = nullptr;
    std::string_view at;
    for (const Run& r : b.plan().runs) {
        for (const std::string& name : {to_lower(r.name), "\"" + to_lower(r.name) + "\""}) {
            if (!low.starts_with(name) || (run && run->name.size() > r.name.size())) continue;
            const std::string_view rest = trim(head.substr(name.size()));
            if (!rest.empty() && !to_lower(rest).starts_with("at ")) continue;
            run = &r, at = rest.empty() ? rest : trim(rest.substr(3));
        }
    }
    if (!run) return fail(ErrorCode::missing_reference, "end", std::string(head), Want::a_run_of_this_plan);
    const std::string where = to_lower(unquoted(at));
    const bool at_from = where.empty() || to_lower(name_of(b.plan(), run->from.owner)) == where;
    const bool at_to = where.empty() || to_lower(name_of(b.plan(), run->to.owner)) == where;
    if (!at_from && !at_to)
        return fail(
            ErrorCode::missing_reference, "end", std::string(at),
            Wanted(Want::either_of, name_of(b.plan(), run->from.owner), name_of(b.plan(), run->to.owner)));
    Run changed = *run;
    RunEnd end;
    std::optional<double> lug_mm;
    bool said = false;
    for (const std::string& word :
         words_of(colon == std::string_view::npos ? std::string_view() : text.substr(colon + 1))) {
        std::string plain = to_lower(word);
        while (!plain.empty() && plain.back() == ',') plain.pop_back();
        if (plain.empty()) continue;
        if (take_end_word(plain, end, lug_mm))
            said = true;
        else
            not_understood.push_back(word);
    }
    if (!said) return missing("end", Want::what_is_crimped_on_it);
    if (at_from) {
        changed.end_from = end;
        if (lug_mm) changed.lug_from_mm = lug_mm;
    }
    if (at_to) {
        changed.end_to = end;
        if (lug_mm) changed.lug_to_mm = lug_mm;
    }
    b.put(changed);
    return changed.id;
}

}  // namespace yr
