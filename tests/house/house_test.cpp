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

TEST(House, EveryLayerLinksOnlyWhatStandsBelow) {
    const std::string cmake = read_text(std::string(YR_SOURCE_DIR) + "/core/CMakeLists.txt");
    const std::pair<const char*, const char*> links[] = {
        {"yr_layer(units", "tl::expected"}, {"yr_layer(catalog", "yr_units"},
        {"yr_layer(plan", "yr_catalog"},    {"yr_layer(network", "yr_plan"},
        {"yr_layer(solve", "yr_network"},   {"yr_layer(chart", "yr_solve"},
        {"yr_layer(survey", "yr_solve"},    {"yr_layer(guard", "yr_solve"},
        {"yr_layer(size", "yr_guard"},      {"yr_layer(control", "yr_size"},
        {"yr_layer(inspect", "yr_control"}, {"yr_layer(io", "yr_size"}};
    for (const auto& [layer, below] : links) {
        const auto at = cmake.find(layer);
        ASSERT_NE(at, std::string::npos) << layer;
        const auto list = cmake.find("LINKS", at);
        EXPECT_EQ(cmake.compare(list + 6, std::string(below).size(), below), 0) << layer;
    }
}

}  // namespace
}  // namespace yr::test
