#include "words/finding_rows.h"

#include <array>
#include <stdexcept>

#include "words/agreement.h"

namespace yr::words {
namespace {

using Table = std::array<const FindingRow*, kFindingKinds>;

Table all_rows() {
    Table table{};
    for (const auto rows : {circuit_rows(), cables_rows(), fuses_rows(), supply_rows(), control_rows(),
                            joining_rows(), day_rows(), place_rows()})
        for (const FindingRow& r : rows) table[static_cast<std::size_t>(r.kind)] = &r;
    return table;
}

}  // namespace

const FindingRow* find_row(FindingKind kind) {
    static const Table table = all_rows();
    return table[static_cast<std::size_t>(kind)];
}

const FindingRow& row_of(FindingKind kind) {
    if (const FindingRow* row = find_row(kind)) return *row;
    throw std::logic_error("a kind of finding without a row");
}

const char* name_of(FindingGroup group) {
    switch (group) {
        case FindingGroup::volts:
            return translated("volts");
        case FindingGroup::liveness:
            return translated("what is live when");
        case FindingGroup::cables:
            return translated("cables");
        case FindingGroup::fuses:
            return translated("fuses");
        case FindingGroup::shorts:
            return translated("shorts");
        case FindingGroup::supply:
            return translated("supply");
        case FindingGroup::mains:
            return translated("mains");
        case FindingGroup::relays:
            return translated("relays");
        case FindingGroup::boxes:
            return translated("boxes");
        case FindingGroup::fitting:
            return translated("fitting");
        case FindingGroup::day:
            return translated("days");
        case FindingGroup::place:
            return translated("where things are");
        case FindingGroup::assumptions:
            return translated("assumptions");
    }
    return "";
}

std::string sentence(const Finding& f, const Plan& plan, const Style& style) {
    const Speech speech{f, plan, style};
    std::string said = row_of(f.kind).sentence(speech);
    return find(plan.loads, f.id) && names_several(speech.who()) ? said_of_several(said, speech.who()) : said;
}

Rule rule_of(const Finding& f, const Plan& plan) {
    return row_of(f.kind).rule({f, plan, Style{}});
}

}  // namespace yr::words
