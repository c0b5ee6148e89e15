// Reading and writing files: whatever fails, the old file or the new one is there whole.
#include <gtest/gtest.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>

#include <filesystem>

#include "files/text_file.h"
#include "io/csv_table.h"
#include "plan/json_text.h"
#include "plan/plan_json.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

namespace fs = std::filesystem;

std::size_t entries(const std::string& folder) {
    return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder), fs::directory_iterator()));
}

TEST(TextFile, IsWrittenWholeAndReadBack) {
    const TempFolder folder;
    const std::string path = folder.file("plan");
    ASSERT_TRUE(write_text_file(path, "one\n", Overwrite::no));
    EXPECT_EQ(*read_text_file(path), "one\n");
    EXPECT_EQ(write_text_file(path, "two\n", Overwrite::no).error().code, ErrorCode::file_exists);
    EXPECT_EQ(read_text(path), "one\n");
    ASSERT_TRUE(write_text_file(path, "two\n", Overwrite::yes));
    EXPECT_EQ(read_text(path), "two\n");
    EXPECT_EQ(entries(folder.path()), 1U) << "nothing is left beside it";
}

TEST(TextFile, KeepsModeAndFollowsLinks) {
    const TempFolder folder;
    const std::string real = folder.file("real"), link = folder.file("link"), loose = folder.file("loose");
    write_text(real, "old");
    ASSERT_EQ(::chmod(real.c_str(), 0600), 0);
    fs::create_symlink("real", link);
    fs::create_symlink("not yet there", loose);
    ASSERT_TRUE(write_text_file(link, "new", Overwrite::yes));
    EXPECT_TRUE(fs::is_symlink(link));
    EXPECT_EQ(read_text(real), "new");
    struct stat about {};
    ASSERT_EQ(::stat(real.c_str(), &about), 0);
    EXPECT_EQ(about.st_mode & 07777, 0600U);
    ASSERT_TRUE(write_text_file(loose, "new", Overwrite::no));
    EXPECT_EQ(read_text(folder.file("not yet there")), "new");
}

TEST(TextFile, NeverReplacesWhatIsNoFile) {
    const TempFolder folder;
    const std::string inner = folder.file("folder"), pipe = folder.file("pipe");
    fs::create_directory(inner);
    ASSERT_EQ(::mkfifo(pipe.c_str(), 0600), 0);
    for (const std::string& path : {inner, pipe, std::string("/dev/null")})
        EXPECT_EQ(write_text_file(path, "x", Overwrite::yes).error().code, ErrorCode::not_a_file) << path;
    EXPECT_TRUE(fs::is_directory(inner) && fs::is_fifo(pipe));
    EXPECT_EQ(write_text_file(folder.file("none/x"), "x", Overwrite::no).error().code,
              ErrorCode::unwritable_file);
    EXPECT_EQ(read_text_file(inner).error().code, ErrorCode::not_a_file);
    EXPECT_EQ(read_text_file(folder.file("none")).error().code, ErrorCode::unreadable_file);
}

TEST(TextFile, RefusesWhatIsNoTextOrTooLarge) {
    const TempFolder folder;
    const std::string path = folder.file("text");
    write_text(path, std::string("\xFF\xFE{\0", 4));
    EXPECT_EQ(read_text_file(path).error().code, ErrorCode::not_utf8);
    write_text(path, std::string("a\0b", 3));
    EXPECT_EQ(read_text_file(path).error().code, ErrorCode::not_utf8);
    write_text(path, std::string(2000, 'x'));
    EXPECT_EQ(read_text_file(path, 1000).error().code, ErrorCode::too_large);
    write_text(path, "\xEF\xBB\xBFtext");
    EXPECT_EQ(*read_text_file(path), "text");
}

WriteStep g_fails;

// Every step of saving made to fail, one after the other, over an old file and where none is.
TEST(TextFile, AFailureAtAnyStepLosesNothing) {
    const TempFolder folder;
    const std::string path = folder.file("plan");
    for (const WriteStep step : {WriteStep::create, WriteStep::write, WriteStep::mode, WriteStep::flush,
                                 WriteStep::close, WriteStep::rename})
        for (const bool old : {false, true}) {
            fs::remove(path);
            if (old) write_text(path, "old");
            g_fails = step;
            fail_writes_for_test([](WriteStep s) { return s == g_fails; });
            const auto done = write_text_file(path, "new", Overwrite::yes);
            fail_writes_for_test(nullptr);
            ASSERT_FALSE(done) << static_cast<int>(step);
            EXPECT_EQ(done.error().code, ErrorCode::unwritable_file);
            EXPECT_FALSE(done.error().given.empty()) << "the system's reason";
            EXPECT_EQ(fs::exists(path) ? read_text(path) : "", old ? "old" : "");
            EXPECT_EQ(entries(folder.path()), old ? 1U : 0U);
        }
}

Error refusal(const std::string& text) {
    const auto parsed = parse_json(text);
    return parsed ? Error{} : parsed.error();
}

// The machine goes down at any step of saving: what is there afterwards is the old file or the new one,
// whole.
TEST(TextFile, KilledAtAnyStepTheFileIsTheOldOneOrTheNewOne) {
    static int left;
    const std::string old_text(200000, 'o'), new_text(300000, 'n');
    int killed = 0, renamed = 0;
    for (int step = 0; step < 40; ++step) {
        const TempFolder folder;
        const std::string file = folder.file("plan.yourrail.json");
        write_text(file, old_text);
        const pid_t child = fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            left = step;
            fail_writes_for_test([](WriteStep) {
                if (left-- == 0) kill(getpid(), SIGKILL);
                return false;
            });
            (void)write_text_file(file, new_text, Overwrite::yes);
            _exit(0);
        }
        int status = 0;
        ASSERT_EQ(waitpid(child, &status, 0), child);
        killed += WIFSIGNALED(status);
        const std::string now = read_text(file);
        renamed += now == new_text;
        EXPECT_TRUE(now == old_text || now == new_text) << "killed at step " << step << ": " << now.size();
        if (!WIFSIGNALED(status)) break;
    }
    EXPECT_GE(killed, 6) << "every step was tried";
    EXPECT_GE(renamed, 1);
}

TEST(JsonText, IsReadWithinLimits) {
    EXPECT_TRUE(parse_json(R"({"a": [1, 2, {"b": "c"}], "note": "two\nlines"})"));
    EXPECT_EQ(refusal(std::string(100'000, '[')).code, ErrorCode::too_deep);
    EXPECT_EQ(refusal(R"({"id": ")" + std::string(100'000, 'a') + R"("})").code, ErrorCode::too_large);
    EXPECT_EQ(refusal(R"({"a": 1, "b": {"a": 2, "a": 3}})").code, ErrorCode::doubled_key);
    EXPECT_EQ(refusal("{\"name\": \"a\\nb\"}").code, ErrorCode::control_character);
    EXPECT_EQ(refusal("{\"name\": \"a\\u0000b\"}").code, ErrorCode::control_character);
    EXPECT_EQ(refusal(R"({"a": 1e400})").code, ErrorCode::out_of_range);
    EXPECT_EQ(refusal("{\"a\": 1,\n \"b\": }").code, ErrorCode::bad_json);
    EXPECT_EQ(refusal("{\"a\": 1,\n \"b\": }").place, "line 2, column 7");
}

TEST(JsonText, APlaceIsLineAndField) {
    const Error e =
        refusal("{\n \"loads\": [\n  {\"draw\": 1},\n  {\"draw\": {\"value\": 1,\n \"value\": 2}}]}");
    EXPECT_EQ(e.place, "line 5, loads, entry 2, draw, value");
    EXPECT_EQ(e.given, "value");
}

TEST(JsonText, WhatPlansHoldIsTheSameTree) {
    for (const char* name : kDemos) {
        const std::string text = read_text(demo_path(name));
        EXPECT_EQ(*parse_json(text), nlohmann::json::parse(text)) << name;
    }
}

TEST(WentWrongFiles, AreRefusedWithTheirPlace) {
    const auto load = [](const std::string& name) {
        return load_plan(test::source_dir() + "/tests/cases/" + name + ".yourrail.json");
    };
    EXPECT_EQ(load("num-1e400").error().code, ErrorCode::out_of_range);
    EXPECT_EQ(load("anyof-2000").error().code, ErrorCode::too_deep);
    EXPECT_EQ(load("dupkey").error().code, ErrorCode::doubled_key);
    EXPECT_EQ(load("version-wrap").error().code, ErrorCode::newer_version);
    EXPECT_EQ(load("state-both").error().code, ErrorCode::out_of_range);
    EXPECT_EQ(load("state-dangling").error().code, ErrorCode::out_of_range);
}

TEST(CsvOut, NoCellIsAFormula) {
    for (const char* name : {"=1+1", "+lamp", "-rail", "@home"}) {
        const std::string out = quoted_csv(name);
        EXPECT_EQ(out.substr(0, 2), "\"'") << out;
        EXPECT_EQ(split_csv(out + ",x\n")[0][0], name) << "and is itself again";
    }
    EXPECT_EQ(quoted_csv("lamp"), "\"lamp\"");
}

TEST(CsvIn, SeparatorAndLinesAsAPersonSeesThem) {
    EXPECT_EQ(split_csv("name; old,draw,note\na,b,c\n")[0].size(), 3U);
    EXPECT_EQ(split_csv("name;\"draw, peak\"\na;1,5\n")[1], (CsvRow{"a", "1,5"}));
    std::vector<std::size_t> lines;
    const auto rows = split_csv("a,b\n\n\"two\nlines\",c\nd,e\n", &lines);
    ASSERT_EQ(rows.size(), 3U);
    EXPECT_EQ(lines, (std::vector<std::size_t>{1, 3, 5}));
}

}  // namespace
}  // namespace yr::test
