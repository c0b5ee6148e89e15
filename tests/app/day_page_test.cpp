// Day in the window: a strip that is dragged, parts, the moment on the rail and back, a remedy and its undo.
#include "workspaces/day/day_page.h"
#include "app/window_fixture.h"
#include "sim/battery_monitor.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

class DayPageTest : public WindowTest {
  protected:
    DayPageTest() {
        window.go_to(QStringLiteral("day"));
        page().finish();
    }
    app::DayPage& page() { return *window.workspace<app::DayPage>(); }
    const Day& day() { return plan().days.front(); }
};

TEST_F(DayPageTest, ItTellsWhetherItLasts) {
    ASSERT_NE(page().result(), nullptr);
    EXPECT_TRUE(page().result()->run.whole);
    const QStringList said = page().sentences();
    EXPECT_TRUE(std::any_of(said.begin(), said.end(), [](const QString& s) {
        return s.contains(QStringLiteral("the engine does not start"));
    })) << said.join(QLatin1Char('\n')).toStdString();
    EXPECT_TRUE(page().numbers().contains(QLatin1Char('\t')));
    EXPECT_GE(page().chart()->spoken_parts().size(), day().parts.size());
}

TEST_F(DayPageTest, AnEdgeIsDraggedAndTheDayKeepsItsLength) {
    auto* chart = page().chart();
    const double before = day().parts[2].length_s, next = day().parts[3].length_s, all = length_s(day());
    // the part behind the cranking, up to where the next interrupts nothing yet: its last edge against "key
    // off"
    const auto line = timeline(plan(), day());
    std::size_t at = 0;
    for (std::size_t k = 0; k + 1 < line.size(); ++k)
        if (line[k].part == 5 && line[k + 1].part == 6) at = k;
    ASSERT_GT(at, 0U);
    const double off = day().parts[5].length_s, drive = day().parts[6].length_s;
    const QRectF r = chart->stretch_rect(at);
    const QPoint edge(static_cast<int>(r.right()), static_cast<int>(r.center().y()));
    const double px_per_s = r.width() / (line[at].to_s - line[at].from_s);
    const QPoint to = edge - QPoint(static_cast<int>(1800 * px_per_s), 0);
    QTest::mousePress(chart, Qt::LeftButton, {}, edge);
    QMouseEvent move(QEvent::MouseMove, to, chart->mapToGlobal(to), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QCoreApplication::sendEvent(chart, &move);
    QTest::mouseRelease(chart, Qt::LeftButton, {}, to);
    EXPECT_LT(day().parts[5].length_s, off - 900);
    EXPECT_NEAR(day().parts[5].length_s + day().parts[6].length_s, off + drive, 1e-6);
    EXPECT_NEAR(length_s(day()), all, 1e-6);
    EXPECT_NEAR(day().parts[2].length_s, before, 1e-9);
    EXPECT_NEAR(day().parts[3].length_s, next, 1e-9);
    page().finish();
    EXPECT_TRUE(page().result()->run.whole);
    doc().store().undo_stack()->undo();
    EXPECT_NEAR(day().parts[5].length_s, off, 1e-9);
}

TEST_F(DayPageTest, AMomentOpensOnTheRailWithItsChargeAndComesBack) {
    auto* chart = page().chart();
    chart->setFocus();
    chart->set_cursor(6 * 3600);
    QTest::keyClick(chart, Qt::Key_Right);
    EXPECT_NEAR(chart->cursor_s(), 6 * 3600 + 300, 1e-9);
    const DayPoint* then = nullptr;
    for (const DayPoint& p : page().result()->run.points)
        if (p.t_s <= chart->cursor_s()) then = &p;
    ASSERT_NE(then, nullptr);
    QTest::keyClick(chart, Qt::Key_Return);
    EXPECT_EQ(window.open_workspace(), window.workspace<app::RailPage>());
    ASSERT_TRUE(doc().shown().shows_situation());
    EXPECT_NEAR(doc().shown().solution().point.batteries[0].voltage_V, then->battery_V[0], 0.02)
        << "the day's own volts";
    doc().shown().set_state(0);
    EXPECT_FALSE(doc().shown().shows_situation());
    // an edit leaves the moment, which was of the plan before
    window.go_to(QStringLiteral("day"));
    QTest::keyClick(chart, Qt::Key_Return);
    ASSERT_TRUE(doc().shown().shows_situation());
    type("lamp 5 W, 2 m");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    EXPECT_FALSE(doc().shown().shows_situation());
}

TEST_F(DayPageTest, ARemedyIsOneStepAndMakesItLast) {
    const Plan before = plan();
    page().look_for_remedies();
    page().finish();
    ASSERT_FALSE(page().remedies().empty());
    std::size_t good = page().remedies().size();
    for (std::size_t k = page().remedies().size(); k-- > 0;)
        if (page().remedies()[k].does_it) good = k;
    ASSERT_LT(good, page().remedies().size());
    page().apply_remedy(good);
    EXPECT_NE(plan(), before);
    EXPECT_TRUE(lasts(plan(), day()));
    page().finish();
    const QStringList said = page().sentences();
    EXPECT_FALSE(std::any_of(said.begin(), said.end(), [](const QString& s) {
        return s.contains(QStringLiteral("the engine does not start"));
    })) << said.join(QLatin1Char('\n')).toStdString();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(DayPageTest, PartsAreAddedChangedAndTakenOut) {
    const std::size_t parts = day().parts.size();
    page().chart()->choose_part(0);
    page().add_part(plan().states[3].id);
    ASSERT_EQ(day().parts.size(), parts + 1);
    EXPECT_EQ(day().parts[1].state, plan().states[3].id);
    auto* lasts_field = page().form()->findChild<QLineEdit*>(QStringLiteral("Lasts"));
    ASSERT_NE(lasts_field, nullptr);
    const auto enter = [&](const char* text) {
        lasts_field->setText(QString::fromUtf8(text));
        lasts_field->setModified(true);
        emit lasts_field->editingFinished();
    };
    enter("1 h 30 min");
    EXPECT_NEAR(day().parts[1].length_s, 5400, 1e-9);
    enter("soon");
    EXPECT_NEAR(day().parts[1].length_s, 5400, 1e-9) << "refused with a sentence";
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(day().parts.size(), parts);
}

TEST_F(DayPageTest, ANewDayAndATypedOne) {
    const std::size_t days = plan().days.size();
    page().new_day();
    ASSERT_EQ(plan().days.size(), days + 1);
    EXPECT_NEAR(length_s(plan().days.back()), 86400, 1);
    type(
        "day market day: overnight 8 h, driving 1 h, 2x hoisting 5 min within, key off 15 h, coldest -4 C, "
        "sun 2 h");
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("2 × Hoisting 5")))
        << window.type_line()->understood().toStdString();
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    ASSERT_EQ(plan().days.size(), days + 2);
    EXPECT_EQ(plan().days.back().parts.size(), 4U);
    EXPECT_NEAR(*plan().days.back().sun_h, 2, 1e-9);
    page().finish();
    // a plan without days says what a day is
    doc().store().open(empty_plan("Bare"), {});
    page().finish();
    EXPECT_TRUE(page().sentences().isEmpty());
}

// The findings name day and hour, lead there, and a mend of the table is one click; undo takes it back.
TEST_F(DayPageTest, FindingsOfTheDayLeadThereAndAreMended) {
    doc().inspector().finish_days();
    const Finding* found = nullptr;
    for (const Finding& f : doc().inspector().findings())
        if (f.kind == FindingKind::day_no_start && f.day == day().id) found = &f;
    ASSERT_NE(found, nullptr);
    EXPECT_EQ(found->day, day().id);
    EXPECT_GT(found->at_s, 0);
    const std::string said = words::sentence(*found, plan());
    EXPECT_NE(said.find("does not start at"), std::string::npos) << said;
    window.go_to(QStringLiteral("rail"));
    window.go_to(QStringLiteral("day"), QStringLiteral("%1@%2").arg(app::q(found->day)).arg(found->at_s));
    EXPECT_NEAR(page().chart()->cursor_s(), std::fmod(found->at_s, length_s(day())), 1);
    ASSERT_TRUE(found->mend) << "one click repairs it";
    const Plan before = plan();
    doc().inspector().mend(*found);
    EXPECT_FALSE(plan() == before);
    doc().inspector().finish_days();
    for (const Finding& f : doc().inspector().findings())
        EXPECT_FALSE(f.kind == FindingKind::day_no_start && f.day == day().id);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(DayPageTest, AnotherOptionLiesOverItAndALogUnderIt) {
    ASSERT_FALSE(doc().store().stored().variants.empty());
    const Id option = doc().store().stored().variants.front().id;
    page().compare_with(option);
    page().finish();
    ASSERT_NE(page().other(), nullptr);
    EXPECT_FALSE(page().other()->run.points.empty());
    const auto tells = [&](const QString& words) {
        const QStringList said = page().sentences();
        return std::any_of(said.begin(), said.end(), [&](const QString& s) { return s.contains(words); });
    };
    EXPECT_TRUE(tells(QStringLiteral("over it"))) << page().sentences().join(QLatin1Char('\n')).toStdString();
    page().compare_with({});
    EXPECT_FALSE(tells(QStringLiteral("over it")));
    // what the battery monitor of a vehicle as planned wrote lies on what was run; a worn one with a
    // forgotten load not
    double off[2] = {0, 0};
    for (const unsigned seed : {0U, 5U}) {
        const auto log = monitor_log(plan(), day(), hidden_of(seed), 300, seed);
        ASSERT_TRUE(log);
        const std::string file = folder.file("log" + std::to_string(seed) + ".csv");
        write_text(file, *log);
        page().lay_log(QString::fromStdString(file));
        EXPECT_GT(page().chart()->log().points.size(), 200u);
        EXPECT_TRUE(tells(QStringLiteral("differ by")));
        double sum = 0;
        int n = 0;
        for (const LogPoint& p : page().chart()->log().points) {
            const DayPoint* then = nullptr;
            for (const DayPoint& d : page().result()->run.points)
                if (d.t_s <= page().chart()->log_s(p)) then = &d;
            if (then) sum += std::abs(*p.charge - then->charge[0]), ++n;
        }
        off[seed > 0] = sum / n;
    }
    EXPECT_LT(off[0], 0.01);
    EXPECT_GT(off[1], 2 * off[0]);
    page().lay_log(QString::fromStdString(folder.file("no-such.csv")));
    EXPECT_GT(page().chart()->log().points.size(), 200u) << "what cannot be read leaves what is there";
}

TEST_F(DayPageTest, APartIsCarriedAndTheLabelWritten) {
    auto* chart = page().chart();
    const Day before = day();
    const auto line = timeline(plan(), day());
    std::size_t from = 0;
    for (std::size_t k = 0; k < line.size(); ++k)
        if (line[k].part + 1 == day().parts.size()) from = k;  // the last part to the front
    const QPoint a = chart->stretch_rect(from).center().toPoint(),
                 b(static_cast<int>(chart->stretch_rect(0).left()) + 2, a.y());
    QTest::mousePress(chart, Qt::LeftButton, {}, a);
    QMouseEvent move(QEvent::MouseMove, b, chart->mapToGlobal(b), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QCoreApplication::sendEvent(chart, &move);
    QTest::mouseRelease(chart, Qt::LeftButton, {}, b);
    EXPECT_EQ(day().parts.front(), before.parts.back());
    EXPECT_EQ(day().parts.size(), before.parts.size());
    doc().store().undo_stack()->undo();
    EXPECT_EQ(day(), before);
    page().finish();
    ASSERT_TRUE(page().result()->stop);
    page().label_volts();
    const Battery* b1 = yr::find(plan().batteries, page().result()->stop->battery);
    EXPECT_NE(b1->remarks.caution.find("Stop at"), std::string::npos) << b1->remarks.caution;
}

TEST_F(DayPageTest, AStateIsDroppedOntoTheStrip) {
    auto* chart = page().chart();
    const Day before = day();
    const double all = length_s(before);
    ASSERT_EQ(page().shelf()->words().size(), plan().states.size());
    EXPECT_TRUE(page().shelf()->words().front()->isVisible());
    const auto let_fall = [&](const Id& state, const QPointF& at) {
        QMimeData data;
        data.setData(QString::fromLatin1(app::kStateMime), QByteArray::fromStdString(state));
        QDragEnterEvent enter(at.toPoint(), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(chart, &enter);
        EXPECT_TRUE(enter.isAccepted());
        QDragMoveEvent over(at.toPoint(), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(chart, &over);
        QDropEvent drop(at, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(chart, &drop);
    };
    // into the middle of the longest stretch that is a part by itself: cut in two, an hour between
    const auto line = timeline(plan(), before);
    std::size_t wide = 0;
    for (std::size_t k = 0; k < line.size(); ++k) {
        const DayPart& part = before.parts[line[k].part];
        const auto length = [&](std::size_t n) { return line[n].to_s - line[n].from_s; };
        if (part.times == 1 && !part.within && length(k) == part.length_s && length(k) > length(wide))
            wide = k;
    }
    const Id idle = "state-idle";
    let_fall(idle, chart->stretch_rect(wide).center());
    ASSERT_EQ(day().parts.size(), before.parts.size() + 2);
    EXPECT_NEAR(length_s(day()), all, 1e-6) << "the day keeps its length";
    const std::size_t part = line[wide].part;
    EXPECT_EQ(day().parts[part + 1].state, idle);
    EXPECT_EQ(day().parts[part + 1].length_s, 3600);
    EXPECT_EQ(day().parts[part].state, day().parts[part + 2].state);
    EXPECT_EQ(chart->chosen_part(), part + 1);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(day(), before) << "one step";
    // at its very beginning: before it, nothing is cut
    let_fall(idle,
             chart->stretch_rect(wide).center() - QPointF(chart->stretch_rect(wide).width() / 2 - 1, 0));
    ASSERT_EQ(day().parts.size(), before.parts.size() + 1);
    EXPECT_EQ(day().parts[part].state, idle);
    EXPECT_NEAR(length_s(day()), all, 1e-6);
    doc().store().undo_stack()->undo();
    // what is no state of the plan changes nothing; a click puts one at the end
    let_fall("nobody", chart->stretch_rect(wide).center());
    EXPECT_EQ(day(), before);
    QTest::mouseClick(page().shelf()->words().front(), Qt::LeftButton);
    EXPECT_EQ(day().parts.size(), before.parts.size() + 1);
    EXPECT_EQ(day().parts.back().state, plan().states.front().id);
}

}  // namespace
}  // namespace yr::test
