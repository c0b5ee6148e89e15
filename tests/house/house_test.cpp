// The house's own rules that a compiler does not see.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <regex>
#include <sstream>

#include "support/folders.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

template <class F>
void each_source(const std::string& folder, F&& use) {
    for (const auto& entry : std::filesystem::recursive_directory_iterator(test::source_dir() + "/" + folder))
        if (entry.path().extension() == ".cpp" || entry.path().extension() == ".h")
            use(entry.path().string(), read_text(entry.path().string()));
}

TEST(House, TheCoreKnowsNoInterface) {
    for (const char* folder : {"core", "words", "cli"})
        each_source(folder, [](const std::string& path, const std::string& text) {
            EXPECT_EQ(text.find("#include <Q"), std::string::npos) << path;
            EXPECT_EQ(text.find("std::cout"), std::string::npos) << path;
        });
}

TEST(House, NoFileIsADrawer) {
    for (const char* folder : {"core", "words", "cli", "app", "sim", "tests"})
        each_source(folder, [](const std::string& path, const std::string& text) {
            EXPECT_LE(std::count(text.begin(), text.end(), '\n'), 700) << path;
        });
}

TEST(House, ColoursAreNamedInOneFile) {
    each_source("app", [](const std::string& path, const std::string& text) {
        if (path.find("tokens.cpp") == std::string::npos)
            EXPECT_EQ(text.find("\"#"), std::string::npos) << path;
        if (path.find("tokens") == std::string::npos)
            EXPECT_EQ(text.find("Qt::red"), std::string::npos) << path;
    });
}

// Two types of one name would share what copies and destroys them: the linker takes the first that it sees of
// both, and one of them is destroyed as the other. No compiler tells, for no file includes both headers.
TEST(House, ATypeIsDeclaredInOneHeader) {
    const std::regex opens_namespace(R"(namespace ([\w:]+) \{)"),
        type(R"((?:struct|class|enum class) (\w+)[^;]*\{)");
    std::map<std::string, std::string> header_of;
    for (const char* folder : {"core", "words", "cli", "app", "sim"})
        each_source(folder, [&](const std::string& path, const std::string& text) {
            if (!path.ends_with(".h")) return;
            std::istringstream lines(text);
            std::string room;
            std::smatch m;
            for (std::string line; std::getline(lines, line);) {
                if (std::regex_match(line, m, opens_namespace)) room = m[1];
                if (!std::regex_search(line, m, type, std::regex_constants::match_continuous)) continue;
                const auto [first, is_new] = header_of.emplace(room + "::" + m[1].str(), path);
                EXPECT_TRUE(is_new) << first->first << ": " << first->second << " and " << path;
            }
        });
    EXPECT_GT(header_of.size(), 300u);
}

}  // namespace
}  // namespace yr::test
