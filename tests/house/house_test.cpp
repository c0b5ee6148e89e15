// The house's own rules that a compiler does not see.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>

#include "support/run_program.h"

namespace yr::test {
namespace {

template <class F>
void each_source(const std::string& folder, F&& use) {
    for (const auto& entry :
         std::filesystem::recursive_directory_iterator(std::string(YR_SOURCE_DIR) + "/" + folder))
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

}  // namespace
}  // namespace yr::test
