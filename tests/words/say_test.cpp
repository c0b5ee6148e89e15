// Texts through the catalogue: plural, context, and another language than English.
#include "words/say.h"

#include <gtest/gtest.h>

#include <clocale>
#include <cstdlib>
#include <fstream>

#include "support/run_program.h"
#include "words/format.h"

namespace yr::test {
namespace {

TEST(Say, FillsInByPlaceAndCounts) {
    EXPECT_EQ(words::say("{1} before {0}", "one", 2), "2 before one");
    EXPECT_EQ(words::say_n("{0} rail", "{0} rails", 1), "1 rail");
    EXPECT_EQ(words::say_n("{0} rail", "{0} rails", 3), "3 rails");
    EXPECT_EQ(words::say_in("length of cable", "left {0}", 3), "left 3");
    EXPECT_EQ(words::say(""), "") << "the empty text is not the catalogue's own head";
}

TEST(Say, AnotherLanguageIsAFileAndNothingElse) {
    if (std::system("command -v msgfmt >/dev/null 2>&1") != 0) GTEST_SKIP() << "no msgfmt here";
    const char* before = std::getenv("LANGUAGE");
    const std::string kept = before ? before : "";
    TempFolder folder;
    ASSERT_EQ(std::system(("mkdir -p '" + folder.file("xx/LC_MESSAGES") + "'").c_str()), 0);
    std::ofstream(folder.file("xx.po")) << "msgid \"\"\nmsgstr \"Content-Type: text/plain; charset=UTF-8\\n"
                                           "Plural-Forms: nplurals=2; plural=n!=1;\\n\"\n"
                                           "msgid \"{0} rail\"\nmsgid_plural \"{0} rails\"\n"
                                           "msgstr[0] \"{0} Schiene\"\nmsgstr[1] \"{0} Schienen\"\n"
                                           "msgctxt \"length of cable\"\nmsgid \"left\"\nmsgstr \"übrig\"\n";
    ASSERT_EQ(std::system(("msgfmt -o '" + folder.file("xx/LC_MESSAGES/your-rail.mo") + "' '" +
                           folder.file("xx.po") + "'")
                              .c_str()),
              0);
    setenv("LANGUAGE", "xx", 1);
    setenv("LC_ALL", "C.UTF-8", 1);
    words::use_language(folder.file("").c_str());
    // the C locale never translates; any other one does, and C.UTF-8 counts as C in some libraries
    if (words::say_n("{0} rail", "{0} rails", 2) == "2 Schienen") {
        EXPECT_EQ(words::say_n("{0} rail", "{0} rails", 1), "1 Schiene");
        EXPECT_EQ(words::say_in("length of cable", "left"), "übrig");
        EXPECT_EQ(words::say("left"), "left") << "without its context it is another word";
    }
    setenv("LANGUAGE", kept.c_str(), 1);
    words::use_language("");
    EXPECT_STREQ(std::setlocale(LC_NUMERIC, nullptr), "C");
}

TEST(Say, ADecimalCommaWhereverANumberIsShown) {
    words::use_decimal_comma(true);
    EXPECT_EQ(words::number(4.5), "4,5");
    EXPECT_EQ(words::quantity(12.13, Dimension::voltage), "12,13\xE2\x80\x89V");
    words::use_decimal_comma(false);
    EXPECT_EQ(words::number(4.5), "4.5");
}

}  // namespace
}  // namespace yr::test
