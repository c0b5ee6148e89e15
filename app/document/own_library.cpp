#include "document/own_library.h"

#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <algorithm>
#include <optional>

#include "files/text_file.h"
#include "text/say.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

struct Known {
    Library own, all;
    QString problem;
};

std::optional<Known>& cache() {
    static std::optional<Known> known;
    return known;
}

const Known& known() {
    if (cache()) return *cache();
    Known k;
    if (QFileInfo::exists(own_library_path())) {
        const auto text = read_text_file(own_library_path().toStdString());
        auto own = text ? read_library(*text) : Result<Library>(tl::unexpected(text.error()));
        if (own)
            k.own = std::move(*own);
        else
            k.problem = QString::fromStdString(words::sentence(own.error())) +
                        say(" Your own library is left as it is.");
    }
    k.all = with_own(k.own);
    cache() = std::move(k);
    return *cache();
}

QString write(const Library& own) {
    if (!known().problem.isEmpty()) return known().problem;  // never over a file that could not be read
    QDir().mkpath(QFileInfo(own_library_path()).path());
    const auto done = write_text_file(own_library_path().toStdString(), library_text(own), Overwrite::yes);
    if (!done) return QString::fromStdString(words::sentence(done.error()));
    cache().reset();
    return {};
}

template <class Entry, class Name>
void put(std::vector<Entry>& list, Entry entry, const Name& name) {
    const auto same =
        std::find_if(list.begin(), list.end(), [&](const Entry& e) { return name(e) == name(entry); });
    if (same == list.end())
        list.push_back(std::move(entry));
    else
        *same = std::move(entry);
}

}  // namespace

const Library& library() {
    return known().all;
}

QString library_problem() {
    return known().problem;
}

QString own_library_path() {
    return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) +
           QStringLiteral("/library.json");
}

QString keep_load(const Load& load) {
    LoadEntry entry;
    entry.trade = "my own";
    entry.mains = !load.inverter.empty();
    entry.load = load;
    entry.load.id.clear();  // what belongs to this plan alone is left out
    entry.load.place.clear();
    entry.load.inverter.clear();
    entry.load.pinned = false;
    entry.load.own_switch = true;
    entry.load.live_when.circuits.clear();
    Library own = known().own;
    put(own.loads, entry, [](const LoadEntry& e) { return e.load.name; });
    return write(own);
}

QString keep_box(const Point& box) {
    BoxEntry entry;
    entry.box = box;
    entry.box.id.clear();
    entry.box.place.clear();
    entry.box.return_at = {};
    Library own = known().own;
    put(own.boxes, entry, [](const BoxEntry& e) { return e.box.name; });
    return write(own);
}

QString keep_set(const SetEntry& set) {
    Library own = known().own;
    put(own.sets, set, [](const SetEntry& e) { return e.name; });
    return write(own);
}

QString forget_set(const std::string& name) {
    Library own = known().own;
    std::erase_if(own.sets, [&](const SetEntry& e) { return e.name == name; });
    return write(own);
}

}  // namespace yr::app
