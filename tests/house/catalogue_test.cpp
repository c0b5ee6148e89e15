// The catalogue of texts: po/your-rail.pot is what xgettext finds in the sources, and nothing that a person
// reads goes past it.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <regex>

#include "support/folders.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

TEST(Catalogue, HoldsEveryTextOfTheSources) {
    if (std::system("command -v xgettext >/dev/null 2>&1") != 0) GTEST_SKIP() << "no xgettext here";
    TempFolder folder;
    const std::string fresh = folder.file("fresh.pot");
    const std::string command =
        "cd " + test::source_dir() + " && ./po/extract '" + fresh + "' >/dev/null 2>&1";
    ASSERT_EQ(std::system(command.c_str()), 0);
    EXPECT_EQ(read_text(fresh), read_text(test::source_dir() + "/po/your-rail.pot"))
        << "po/extract makes it anew";
}

// A key of the plan, an option, a path or a shortcut that were translated would no longer be found.
TEST(Catalogue, HoldsNothingThatTheProgramItselfReads) {
    const std::string pot = read_text(test::source_dir() + "/po/your-rail.pot");
    const std::regex key(
        "msgid "
        "\"(--[a-z-]+|/"
        "[a-z]+|(Ctrl|Alt|Shift)\\+[^\"]*|your-rail-[a-z]+|[A-Za-z0-9]+(_[A-Za-z0-9]+)+|[a-z]?ohm)\"");
    for (std::sregex_iterator it(pot.begin(), pot.end(), key), end; it != end; ++it)
        ADD_FAILURE() << (*it)[1] << " is for the program, not for people";
    EXPECT_GT(std::count(pot.begin(), pot.end(), '\n'), 1000);
}

// Text in Qt's own literals is for names, keys and style sheets; what has two words in it is for people.
TEST(Catalogue, NoSentenceOfTheWindowGoesPastIt) {
    const std::regex sentence("QStringLiteral\\(\\s*\"([^\"]*[a-z] [a-z][^\"]*)\"");
    int files = 0;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(test::source_dir() + "/app")) {
        if (entry.path().extension() != ".cpp" && entry.path().extension() != ".h") continue;
        ++files;
        const std::string text = read_text(entry.path().string());
        for (std::sregex_iterator it(text.begin(), text.end(), sentence), end; it != end; ++it) {
            const std::string found = (*it)[1];
            const bool style = found.find('{') != std::string::npos || found.find('<') != std::string::npos;
            const bool example = found.starts_with("bank light 2x");  // typed for a picture
            EXPECT_TRUE(style || example) << entry.path() << ": " << found;
        }
    }
    EXPECT_GT(files, 40);
}

TEST(Catalogue, NoSentenceOfTheWordsGoesPastIt) {
    const std::regex bare("(fmt::format|return|\\?|:)\\s*\\(?\\s*\"([^\"\n]*[a-z] [a-z][^\"\n]*)\"");
    for (const char* folder : {"/words", "/cli"})
        for (const auto& entry : std::filesystem::directory_iterator(test::source_dir() + folder)) {
            if (entry.path().extension() != ".cpp") continue;
            const std::string text = read_text(entry.path().string());
            for (std::sregex_iterator it(text.begin(), text.end(), bare), end; it != end; ++it)
                ADD_FAILURE() << entry.path() << ": " << (*it)[2];
        }
}

}  // namespace
}  // namespace yr::test
