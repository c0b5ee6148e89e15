// One vehicle from the first page of notes to the hand-over, through all nine workspaces, as its builder
// would go.
#include "app/window_fixture.h"
#include "meter/records.h"
#include "notes/notes.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "support/run_program.h"
#include "window/notes_dialog.h"
#include "workspaces/build/build_page.h"
#include "workspaces/build/dossier.h"
#include "workspaces/day/day_page.h"
#include "workspaces/meter/meter_page.h"
#include "workspaces/place/place_page.h"

namespace yr::test {
namespace {

constexpr const char* kPage =
    "vehicle \"tree surgeon's van\" 12 V\n"
    "chassis \"engine block\", engine bay\n"
    "battery AGM 95 Ah 850 A, engine bay\n"
    "strap \"battery to block\" battery - to engine block 0.5 m\n"
    "starter 220 A, 1.5 m, engine bay\n"
    "alternator 180 A, idle 90 A, 1.5 m\n"
    "second battery LiFePO4 100 Ah, by dc-dc 30 A, 4 m, rear\n"
    "bus \"engine fuse block\" for 70 A, 0.5 m, engine bay\n"
    "bus \"rear block\" from second battery, fuse 80 A, 0.6 m, rear\n"
    "work lights 4x 35 W on ignition and work, 4 m, from rear block, rear\n"
    "saw charger 120 W always, duty 0.3, 2 m, from rear block, rear\n"
    "beacon 2x 2.5 A on ignition and beacon, 4 m, from engine fuse block\n"
    "two-way radio 8 A on accessory, 3 m, from engine fuse block, cab\n"
    "tipper pump 140 A on ignition and tipper, 4 m\n"
    "state parked, key off, 5 C\n"
    "state on site, engine running, key on, work on, beacon on, 10 C\n"
    "state tipping, engine running, key on, tipper on, beacon on, 10 C\n"
    "day \"a day out\": driving 1 h, on site 3 h, tipping 0.1 h, driving 1 h, parked 18.9 h, coldest 2 C, "
    "hottest 12 C\n"
    "reading battery 12.71 V key off\n";

class WholePath : public WindowTest {
  protected:
    template <class Page>
    Page& open(const char* key) {
        window.go_to(QString::fromUtf8(key));
        auto* page = window.workspace<Page>();
        page->finish();
        return *page;
    }
    int severe() {
        doc().inspector().finish();
        int n = 0;
        for (const Finding& f : doc().inspector().findings()) n += f.severity <= Severity::fix;
        return n;
    }
    // Every mend that is offered, one after another, as clicks on their rows.
    void mend_all() {
        for (int k = 0; k < 40; ++k) {
            doc().inspector().finish_proof();
            const auto& all = doc().inspector().findings();
            const auto offered = std::find_if(all.begin(), all.end(), [](const Finding& f) {
                return f.mend && f.severity <= Severity::check;
            });
            if (offered == all.end()) return;
            const int before = severe();
            const Finding f = *offered;
            doc().inspector().mend(f);
            EXPECT_LE(severe(), before) << words::sentence(f, plan());
        }
        ADD_FAILURE() << "mends without an end";
    }
};

TEST_F(WholePath, FromTheFirstPageToTheHandOver) {
    // typed
    app::NotesDialog notes(&doc());
    QObject::connect(&notes, &app::NotesDialog::plan_taken,
                     [&](const Plan& p) { doc().store().open(p, {}); });
    notes.page()->setPlainText(QString::fromUtf8(kPage));
    notes.finish();
    for (int k = 0; k < notes.outcomes()->count(); ++k)
        EXPECT_FALSE(notes.outcomes()->item(k)->text().contains(QStringLiteral("▲")))
            << notes.outcomes()->item(k)->text().toStdString();
    notes.accept();
    ASSERT_EQ(plan().vehicle.name, "tree surgeon's van");
    const QString file = QString::fromStdString(folder.file("van.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));

    // surveyed: a second reading beside the one that was noted
    auto& survey = open<app::SurveyPage>("survey");
    ASSERT_EQ(survey.table()->rowCount(), 1);
    survey.table()->item(0, 2)->setText(QStringLiteral("12.65"));
    EXPECT_EQ(plan().survey.readings.size(), 2U);

    // on the rail: every state has an answer, and the heaviest thing says why it loses what it loses
    auto& rail = open<app::RailPage>("rail");
    state("tipping");
    doc().selection().choose(load_named("tipper pump"));
    EXPECT_NE(rail.chart()->scene().of(load_named("tipper pump")), nullptr);
    EXPECT_TRUE(doc().shown().solution().point.settled);

    // sized and mended
    auto& runs = open<app::RunsPage>("runs");
    runs.show_view(app::RunsPage::View::together);
    runs.sizing()->start();
    runs.sizing()->finish();
    ASSERT_TRUE(runs.sizing()->result());
    const int before = severe();
    runs.sizing()->apply_result();
    EXPECT_LE(severe(), before);
    mend_all();
    for (const Finding& f : doc().inspector().findings())
        EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, plan());

    // what runs when, and what happens when it goes wrong
    auto& control = open<app::ControlPage>("control");
    control.search_sneaks_now();
    control.sneaks()->finish();
    EXPECT_TRUE(control.sneaks()->answer()->found.empty());
    open<app::GuardPage>("guard");

    // a day out
    auto& day = open<app::DayPage>("day");
    ASSERT_NE(day.result(), nullptr);
    EXPECT_TRUE(day.result()->run.whole);
    EXPECT_FALSE(day.sentences().isEmpty());

    // laid out: lengths that nobody said follow the ways
    auto& place = open<app::PlacePage>("place");
    place.lay_out(Outline::van);
    place.set_all();
    place.finish();
    EXPECT_FALSE(place.view()->scene().plates.empty());
    EXPECT_TRUE(validate(doc().store().stored()).empty());

    // made
    auto& build = open<app::BuildPage>("build");
    ASSERT_NE(build.cuts(), nullptr);
    build.mark(QStringLiteral("made"), run_named("work lights feed"), true);
    EXPECT_TRUE(build.is_marked(QStringLiteral("made"), run_named("work lights feed")));
    const QString dossier = QString::fromStdString(folder.file("dossier.pdf"));
    const auto pages = app::write_dossier(plan(), dossier, QPageSize::A4);
    ASSERT_TRUE(pages);
    EXPECT_GT(*pages, 5);
    const Ran text = run("pdftotext " + dossier.toStdString() + " -");
    for (const char* told : {"tree surgeon", "tipper pump", "work lights"})
        EXPECT_NE(text.out.find(told), std::string::npos) << told;

    // proved: the first readings as they should be, kept beside the plan
    ASSERT_TRUE(window.save_to(file));
    auto& meter = open<app::MeterPage>("meter");
    auto* prove = meter.prove();
    ASSERT_NE(prove->points(), nullptr);
    for (int k = 0; k < 5; ++k) {
        ASSERT_NE(prove->current(), nullptr);
        const TestPoint point = *prove->current();
        const double good = std::isfinite(point.high) ? (point.low + point.high) / 2 : point.low * 2;
        prove->entry()->field()->setFocus();
        prove->entry()->field()->setText(QString::number(good, 'f', 4));
        QTest::keyClick(prove->entry()->field(), Qt::Key_Return);
    }
    EXPECT_EQ(prove->done(), 5U);
    const auto book = read_records(records_path(file.toStdString()));
    ASSERT_TRUE(book);
    ASSERT_EQ(book->records.size(), 5U);
    for (const Record& r : book->records) EXPECT_EQ(r.verdict, "good");

    // handed over: what is opened again is what was made
    const Plan made = doc().store().stored();
    ASSERT_TRUE(window.open_file(file));
    EXPECT_EQ(doc().store().stored(), made);
    auto& again = open<app::MeterPage>("meter");
    EXPECT_EQ(again.prove()->done(), 0U) << "one plan may serve many vehicles: it is asked";
    bool offered = false;
    for (auto* link : again.findChildren<QLabel*>())
        if (!offered && link->text().contains(QStringLiteral("Go on where the record ends")))
            offered = true, emit link->linkActivated({});
    ASSERT_TRUE(offered);
    EXPECT_EQ(again.prove()->done(), 5U) << "and the proof goes on where it ended";
}

}  // namespace
}  // namespace yr::test
