// Notes on the command line: typed lines to a plan and back, and findings again when a file changes.
#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "notes/plan_text.h"
#include "plan/plan_json.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

using testing::HasSubstr;

TEST(NotesCli, LinesBecomeAPlanAndThePlanLines) {
    const TempFolder folder;
    const std::string notes = folder.file("van.notes"), plan = folder.file("van.yourrail.json"),
                      lines = folder.file("lines.notes"), again = folder.file("again.yourrail.json");
    write_text(notes,
               "# ours\nbattery AGM 70 Ah 700 A\nalternator 120 A, idle 60 A\nbus main, fuse 80 A, 1 m\n"
               "lamp 2x 21 W on ignition, 3 m\n");
    const Ran typed = rail("plan type " + notes + " -o " + plan);
    EXPECT_EQ(typed.code, 0) << typed.err;
    EXPECT_THAT(typed.out, HasSubstr("1 loads"));
    EXPECT_EQ(rail("check " + plan).code, 0);
    EXPECT_EQ(rail("plan notes " + plan + " -o " + lines).code, 0);
    EXPECT_THAT(read_text(lines), HasSubstr("battery \"starter battery\": "));
    EXPECT_EQ(rail("plan type " + lines + " -o " + again).code, 0);
    EXPECT_EQ(text_without_ids(*load_plan(again)), text_without_ids(*load_plan(plan)));
    const Ran shown = rail("plan notes " + plan);
    EXPECT_EQ(shown.out, read_text(lines)) << "to standard output where no file is named";
}

TEST(NotesCli, WhatIsNotUnderstoodIsNamedByItsLineAndTheRestIsKept) {
    const TempFolder folder;
    const std::string notes = folder.file("bad.notes"), plan = folder.file("bad.yourrail.json");
    write_text(notes, "battery AGM 70 Ah\nalternator 120 A, purple relay\nelephant\ninverter 1,500 W\n");
    const Ran r = rail("plan type " + notes + " -o " + plan + " --json");
    EXPECT_EQ(r.code, 1);
    EXPECT_THAT(r.err, HasSubstr("line 2"));
    EXPECT_THAT(r.err, HasSubstr("purple"));
    EXPECT_THAT(r.err, HasSubstr("line 3"));
    EXPECT_THAT(r.err, HasSubstr("is it 1500"));
    const auto told = nlohmann::json::parse(r.out);
    EXPECT_EQ(told["not_understood"].size(), 3U);
    EXPECT_EQ(load_plan(plan)->sources.size(), 1U) << "the alternator is there all the same";
    EXPECT_EQ(rail("plan type " + folder.file("none") + " -o " + plan).code, 2);
    EXPECT_EQ(rail("plan type " + notes + " -o " + plan).code, 2) << "what is there is not written over";
}

TEST(NotesCli, FindingsComeAnewWhenTheFileChanges) {
    const TempFolder folder;
    const std::string plan = folder.file("w.yourrail.json"), out = folder.file("out");
    EXPECT_EQ(rail("plan convert " + demo_path(kDemos[1]) + " -o " + plan).code, 0);
    // one look; the file changes; another look, by however slow a machine
    const std::string looks = "$(grep -c \"Local codes\" " + out + " || true)";
    const Ran r = run("sh -c '" + test::bin_dir() + "/rail check " + plan + " --watch --seconds 200 > " +
                      out + " & watching=$!; k=0; until [ " + looks +
                      " -ge 1 ] || [ $k -gt 900 ]; do sleep 0.1; k=$((k + 1)); done; touch " + plan +
                      "; until [ " + looks +
                      " -ge 2 ] || [ $k -gt 1800 ]; do sleep 0.1; k=$((k + 1)); done; sleep 1; kill -INT "
                      "$watching; wait $watching'");
    const std::string text = read_text(out);
    const auto first = text.find("Local codes");
    ASSERT_NE(first, std::string::npos) << r.err;
    const auto again = text.find("Local codes", first + 1);
    ASSERT_NE(again, std::string::npos) << r.err;
    EXPECT_EQ(text.find("Local codes", again + 1), std::string::npos) << "once for one change";
}

}  // namespace
}  // namespace yr::test
