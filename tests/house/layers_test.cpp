// The arrows of the house: every link of every target points to a room below.
#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <regex>
#include <set>

#include "support/folders.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

// How high each room stands. Rooms of one height do not see each other.
const std::map<std::string, int> kHeight{
    {"units", 0},   {"choice", 2},     {"files", 1},     {"catalog", 1}, {"plan", 2},       {"typing", 3},
    {"network", 3}, {"routes", 3},     {"solve", 4},     {"day", 5},     {"demand", 5},     {"guard", 5},
    {"survey", 5},  {"chart", 5},      {"size", 6},      {"sizing", 7},  {"control", 7},    {"fabricate", 8},
    {"inspect", 8}, {"notes", 8},      {"diagram", 9},   {"meter", 9},   {"io", 10},        {"words", 11},
    {"text", 12},   {"widgets", 13},   {"document", 13}, {"bench", 13},  {"railchart", 14}, {"details", 14},
    {"panels", 14}, {"workspace", 14}, {"window", 16}};

int height(const std::string& room) {
    if (room.starts_with("workspace_")) return 15;
    const auto found = kHeight.find(room);
    return found == kHeight.end() ? -1 : found->second;
}

// Room -> the rooms that its target links, from the calls in a CMakeLists.txt.
std::map<std::string, std::set<std::string>> links_in(const std::string& file) {
    std::map<std::string, std::set<std::string>> links;
    const std::string text =
        std::regex_replace(read_text(test::source_dir() + file), std::regex("#[^\n]*"), "");
    const std::regex call("(yr_layer|yr_room|yr_workspace)\\(([a-z_]+)([^)]*)\\)");
    for (std::sregex_iterator it(text.begin(), text.end(), call), end; it != end; ++it) {
        std::string room = (*it)[2];
        if (room == "name") continue;  // the functions themselves
        if ((*it)[1] == "yr_workspace") room = "workspace_" + room;
        std::set<std::string>& to = links[room];
        const std::string arguments = (*it)[3];
        const std::regex target("\\byr_([a-z_]+)");
        const auto from = arguments.find("LINKS");
        if (from == std::string::npos) continue;
        for (std::sregex_iterator t(arguments.begin() + static_cast<long>(from), arguments.end(), target);
             t != end; ++t)
            to.insert((*t)[1]);
    }
    return links;
}

void expect_downward(const std::string& file, std::size_t least_rooms) {
    const auto links = links_in(file);
    EXPECT_GE(links.size(), least_rooms) << "the calls in " << file << " are not read any more";
    for (const auto& [room, to] : links) {
        EXPECT_GE(height(room), 0) << room << " has no height: where does it stand?";
        for (const std::string& below : to) {
            if (below == "light" || below == "options") continue;
            EXPECT_GE(height(below), 0) << room << " links " << below;
            EXPECT_LT(height(below), height(room)) << file << ": " << room << " links " << below;
        }
    }
}

TEST(Layers, EveryLinkOfTheCorePointsDown) {
    expect_downward("/core/CMakeLists.txt", 14);
    const auto links = links_in("/core/CMakeLists.txt");
    EXPECT_TRUE(links.at("control").contains("typing")) << "not only the first link is read";
}

TEST(Layers, EveryLinkOfTheApplicationPointsDown) {
    expect_downward("/app/CMakeLists.txt", 12);
}

TEST(Layers, EveryFolderOfCoreAndAppIsARoom) {
    std::set<std::string> rooms;
    for (const char* file : {"/core/CMakeLists.txt", "/app/CMakeLists.txt"})
        for (const auto& [room, to] : links_in(file)) rooms.insert(room);
    for (const char* holder : {"/core", "/app", "/app/workspaces"})
        for (const auto& entry : std::filesystem::directory_iterator(test::source_dir() + holder)) {
            if (!entry.is_directory() || entry.path().filename() == "workspaces") continue;
            const std::string name = entry.path().filename();
            const std::string room = std::string(holder) == "/app/workspaces" ? "workspace_" + name : name;
            EXPECT_TRUE(rooms.contains(room)) << entry.path() << " belongs to no target";
        }
}

TEST(Layers, TheWindowKnowsNoWorkspaceByType) {
    int looked = 0;
    for (const auto& entry : std::filesystem::directory_iterator(test::source_dir() + "/app/window")) {
        if (entry.path().filename() == "workspaces.cpp") continue;  // the list
        ++looked;
        const std::string text = read_text(entry.path().string());
        EXPECT_FALSE(std::regex_search(text, std::regex("workspaces/[a-z]+/"))) << entry.path();
    }
    EXPECT_GT(looked, 8);
}

}  // namespace
}  // namespace yr::test
