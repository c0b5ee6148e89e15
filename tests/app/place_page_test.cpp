// Place in the window: a vehicle laid out, things dragged, ways clicked, cables held, the best spot taken, a
// picture underneath; each one step back.
#include "workspaces/place/place_page.h"

#include <QInputDialog>
#include <QMenu>

#include "app/window_fixture.h"
#include "notes/notes.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

class PlacePageTest : public WindowTest {
  protected:
    app::PlacePage& page() { return *window.workspace<app::PlacePage>(); }
    app::PlaceView* view() { return page().view(); }
    // A bare van with a few things, standing, its cables along their ways.
    void van() {
        Plan plan;
        for (const BareVehicle& b : bare_vehicles())
            if (b.key == "van")
                plan = read_notes(b.text +
                                  "bus \"rear block\" for 60 A, 5 m, cargo room\n"
                                  "fridge 45 W, 4 m, cargo room, from \"rear block\"\n"
                                  "lamp 3 A, 3 m, cargo room, from \"rear block\"\n")
                           .plan;
        doc().store().open(plan, {});
        window.go_to(QStringLiteral("place"));
        page().finish();
    }
    void laid_out() {
        van();
        page().lay_out(Outline::van);
        page().set_all();
        page().follow_ways();
        page().finish();
    }
    Id point(const char* name) {
        for (const Point& p : plan().points)
            if (p.name == name) return p.id;
        ADD_FAILURE() << name;
        return {};
    }
    void drag(const QPoint& from, const QPoint& to) {
        QTest::mousePress(view(), Qt::LeftButton, {}, from);
        for (const QPoint& at : {from + QPoint(4, 3), from + QPoint(9, 7), to}) {
            QMouseEvent move(QEvent::MouseMove, at, view()->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QCoreApplication::sendEvent(view(), &move);
        }
        QTest::mouseRelease(view(), Qt::LeftButton, {}, to);
        page().finish();
    }
    const app::PlateShape* plate(const Id& id) {
        for (const auto& p : view()->scene().plates)
            if (p.thing == id) return &p;
        return nullptr;
    }
    bool tells(const QString& words) {
        const QStringList said = page().sentences();
        return std::any_of(said.begin(), said.end(), [&](const QString& s) { return s.contains(words); });
    }
};

TEST_F(PlacePageTest, ABareVanIsLaidOutSetAndFollowsItsWays) {
    van();
    const Plan before = plan();
    EXPECT_TRUE(tells(QStringLiteral("Van"))) << "the likely kind is offered first";
    page().lay_out(Outline::van);
    EXPECT_GT(plan().ways.size(), 15u);
    EXPECT_TRUE(tells(QStringLiteral("where their places are")));
    page().set_all();
    EXPECT_TRUE(could_stand(plan()).empty());
    page().follow_ways();
    for (const auto& r : plan().runs)
        if (ends_of(plan(), r) && !r.resistance_ohm) EXPECT_TRUE(r.laid.length_m) << r.name;
    doc().inspector().finish();
    for (const Solution& s : doc().inspector().inspection().solutions)
        for (const AssumptionUse& use : s.network.assumptions)
            if (use.key == "run_length_m") {
                const yr::Run* r = yr::find(plan().runs, use.id);
                EXPECT_FALSE(r && ends_of(plan(), *r))
                    << "no length is assumed where it is known: " << use.id;
            }
    for (int k = 0; k < 3; ++k) doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(PlacePageTest, AThingIsDraggedItsCablesFollowAndOneUndoTakesItBack) {
    laid_out();
    const Id bus = point("rear block");
    const Plan before = plan();
    ASSERT_NE(plate(bus), nullptr);
    const QPoint from = plate(bus)->rect.center().toPoint(), to = from - QPoint(90, 0);
    const double length = *supply_run(plan(), plan().loads.back().id)->laid.length_m;
    // while it is dragged its cables tell their lengths
    QTest::mousePress(view(), Qt::LeftButton, {}, from);
    for (const QPoint& at : {from - QPoint(9, 0), to}) {
        QMouseEvent move(QEvent::MouseMove, at, view()->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                         Qt::NoModifier);
        QCoreApplication::sendEvent(view(), &move);
    }
    EXPECT_GE(view()->telling().size(), 3);
    const QString told = view()->telling().join(QLatin1Char(' '));
    EXPECT_TRUE(told.contains(QString::fromUtf8("\u2009m")));
    QTest::mouseRelease(view(), Qt::LeftButton, {}, to);
    EXPECT_LT(*yr::find(plan().points, bus)->at.x_m, *yr::find(before.points, bus)->at.x_m - 0.3);
    EXPECT_NE(*supply_run(plan(), plan().loads.back().id)->laid.length_m, length);
    EXPECT_EQ(doc().selection().id(), bus);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
    EXPECT_NEAR(*supply_run(plan(), plan().loads.back().id)->laid.length_m, length, 1e-12)
        << "its length came back too";
}

TEST_F(PlacePageTest, NamesStandBesideEachOtherInEverySizeOfWindow) {
    for (const auto& file : kDemos)
        for (const QSize& size : {QSize(1280, 800), QSize(1024, 640)}) {
            ASSERT_TRUE(window.open_file(QString::fromStdString(demo_path(file))));
            window.resize(size);
            window.go_to(QStringLiteral("place"));
            page().finish();
            const app::PlaceScene& scene = view()->scene();
            std::vector<QRectF> taken;
            for (const app::PassageShape& p : scene.passages) {
                if (p.passage) taken.emplace_back(p.at - QPointF(7, 7), QSizeF(14, 14));
                if (p.told) taken.push_back(p.words);
            }
            const auto passages = taken.size();
            for (const app::PlateShape& p : scene.plates) {
                if (!p.named) continue;
                for (const QRectF& other : taken)
                    EXPECT_FALSE(other.intersects(p.rect)) << file << ' ' << p.name.toStdString();
                EXPECT_TRUE(QRectF(view()->rect()).contains(p.rect)) << p.name.toStdString();
                EXPECT_LT(p.rect.bottom(), scene.between_px()) << p.name.toStdString();
                EXPECT_EQ(p.led, !p.rect.contains(p.at)) << p.name.toStdString();
                taken.push_back(p.rect);
            }
            EXPECT_GE(taken.size(), passages + 5) << file;
        }
}

TEST_F(PlacePageTest, AThingTakenByANameBesideItMovesAsFarAsTheMouse) {
    ASSERT_TRUE(window.open_file(QString::fromStdString(demo_path(kDemos[0]))));
    window.go_to(QStringLiteral("place"));
    page().finish();
    const auto& plates = view()->scene().plates;
    // one that hides no waypoint under its middle, with way to go
    const auto led = std::find_if(plates.begin(), plates.end(), [&](const app::PlateShape& p) {
        return p.led && find(plan().points, p.thing) && std::abs(p.rect.center().y() - p.at.y()) > 15;
    });
    ASSERT_NE(led, plates.end());
    const Id thing = led->thing;
    const auto before = *spot_of(plan(), thing);
    const QPoint from = led->rect.center().toPoint();
    const double px_per_m = view()->scene().px_per_m;
    drag(from, from + QPoint(static_cast<int>(std::lround(0.3 * px_per_m)), 0));
    const auto after = *spot_of(plan(), thing);
    EXPECT_NEAR(after.x_m - before.x_m, 0.3, 0.06);
    EXPECT_NEAR(after.y_m - before.y_m, 0, 0.06) << "its name stands beside it, it does not jump there";
    EXPECT_DOUBLE_EQ(after.z_m, before.z_m);
}

TEST_F(PlacePageTest, ArrowsMoveWhatIsChosen) {
    laid_out();
    const Id bus = point("rear block");
    doc().selection().choose(bus);
    view()->setFocus();
    const Stand at = yr::find(plan().points, bus)->at;
    QTest::keyClick(view(), Qt::Key_Right);
    QTest::keyClick(view(), Qt::Key_Up, Qt::AltModifier);
    QTest::keyClick(view(), Qt::Key_PageUp);
    const Stand then = yr::find(plan().points, bus)->at;
    EXPECT_NEAR(*then.x_m, *at.x_m + 0.05, 1e-9);
    EXPECT_NEAR(*then.y_m, *at.y_m + 0.005, 1e-9);
    EXPECT_NEAR(*then.z_m, *at.z_m + 0.05, 1e-9);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(yr::find(plan().points, bus)->at, at) << "moves in a row are one step";
    QTest::keyClick(view(), Qt::Key_N);
    EXPECT_FALSE(doc().selection().id().empty());
    QTest::keyClick(view(), Qt::Key_Escape);
    EXPECT_TRUE(doc().selection().id().empty());
}

TEST_F(PlacePageTest, AWayShowsItsCablesCutAcross) {
    laid_out();
    const app::RibbonShape* thick = nullptr;
    for (const auto& r : view()->scene().ribbons)
        if (!thick ||
            view()->routes().ways[r.way].runs.size() > view()->routes().ways[thick->way].runs.size())
            thick = &r;
    ASSERT_NE(thick, nullptr);
    const std::size_t way = thick->way;
    // a point of it at which nothing else lies
    QPoint at;
    for (double t = 0.1; t < 0.95; t += 0.05) {
        const QPointF p = thick->from + (thick->to - thick->from) * t;
        const auto* there = view()->scene().ribbon_at(p);
        if (!view()->scene().plate_at(p) && !view()->scene().passage_at(p) && there && there->way == way)
            at = p.toPoint();
    }
    ASSERT_FALSE(at.isNull());
    QTest::mouseClick(view(), Qt::LeftButton, {}, at);
    ASSERT_EQ(view()->chosen_way(), way);
    EXPECT_TRUE(page().section()->isVisible());
    const auto& runs = view()->routes().ways[way].runs;
    EXPECT_EQ(page().section()->packing().discs.size(), diameters_mm(plan(), runs).size());
    EXPECT_TRUE(tells(QStringLiteral("loom of")));
    // a circle chosen is that cable chosen
    const auto parts = page().section()->spoken_parts();
    QTest::mouseClick(page().section(), Qt::LeftButton, {}, parts.front().rect.center());
    EXPECT_EQ(doc().selection().id(), plan().runs[runs.front()].id);
}

TEST_F(PlacePageTest, AChosenCableIsHeldWhereItIsPulledToAndLetGoAgain) {
    laid_out();
    const yr::Run& feed = *yr::find(plan().runs, run_named("rear block feed"));
    const Id id = feed.id;
    doc().selection().choose(id);
    page().finish();
    const auto index = static_cast<std::size_t>(&feed - plan().runs.data());
    const auto& route = *view()->routes().by_run[index];
    const double before_m = route.way_m;
    // from a stretch of its own to a waypoint on the other side
    const app::RibbonShape* own = nullptr;
    QPoint from;
    for (const auto& r : view()->scene().ribbons) {
        const auto& runs = view()->routes().ways[r.way].runs;
        if (std::find(runs.begin(), runs.end(), index) == runs.end()) continue;
        for (double t = 0.1; t < 0.95 && !own; t += 0.05) {
            const QPointF p = r.from + (r.to - r.from) * t;
            if (!view()->scene().plate_at(p) && !view()->scene().passage_at(p)) own = &r, from = p.toPoint();
        }
    }
    ASSERT_NE(own, nullptr);
    const app::PassageShape* target = nullptr;
    for (const auto& p : view()->scene().passages)
        if (plan().waypoints[p.waypoint].name == "roof, front") target = &p;
    ASSERT_NE(target, nullptr);
    drag(from, target->at.toPoint());
    ASSERT_EQ(yr::find(plan().runs, id)->via.size(), 1u);
    EXPECT_EQ(yr::name_of(plan(), yr::find(plan().runs, id)->via[0]), "roof, front");
    EXPECT_GT(view()->routes().by_run[index]->way_m, before_m);
    EXPECT_TRUE(view()->routes().by_run[index]->held);
    doc().store().undo_stack()->undo();
    EXPECT_TRUE(yr::find(plan().runs, id)->via.empty());
}

TEST_F(PlacePageTest, WaypointsAreDraggedAndTheirFieldsWorked) {
    laid_out();
    Id id;
    for (std::size_t n = 0; n < plan().waypoints.size(); ++n)
        if (plan().waypoints[n].kind != PassageKind::bend && !view()->routes().passages[n].runs.empty())
            id = plan().waypoints[n].id;
    ASSERT_FALSE(id.empty()) << "no hole is passed";
    window.go_to(QStringLiteral("place"), QString::fromStdString(id));  // as a finding leads there
    EXPECT_EQ(view()->chosen_waypoint(), id);
    ASSERT_NE(page().form(), nullptr);
    auto* bore = page().form()->findChild<QLineEdit*>(QStringLiteral("Free bore, mm"));
    ASSERT_NE(bore, nullptr);
    bore->setText(QStringLiteral("60"));
    bore->setModified(true);
    emit bore->editingFinished();
    EXPECT_EQ(*yr::find(plan().waypoints, id)->bore_mm, 60);
    page().finish();
    EXPECT_TRUE(tells(QStringLiteral("are allowed")))
        << page().sentences().join(QLatin1Char('\n')).toStdString();
    // one that no plate covers is dragged
    const app::PassageShape* bare = nullptr;
    for (const auto& p : view()->scene().passages)
        if (!view()->scene().plate_at(p.at) && view()->scene().passage_at(p.at) == &p) bare = &p;
    ASSERT_NE(bare, nullptr);
    const Id bend = plan().waypoints[bare->waypoint].id;
    const QPoint at = bare->at.toPoint();
    QTest::mouseClick(view(), Qt::LeftButton, {}, at);
    EXPECT_EQ(view()->chosen_waypoint(), bend);
    const Stand before = yr::find(plan().waypoints, bend)->at;
    drag(at, at + QPoint(0, 40));
    EXPECT_LT(*yr::find(plan().waypoints, bend)->at.y_m, *before.y_m - 0.1)
        << "down on the screen is to the left";
    doc().store().undo_stack()->undo();
    EXPECT_EQ(yr::find(plan().waypoints, bend)->at, before);
}

TEST_F(PlacePageTest, TheBestSpotIsTakenInOneStep) {
    laid_out();
    const Id bus = point("rear block");
    doc().selection().choose(bus);
    page().ask_where();
    page().finish();
    ASSERT_NE(page().advice(), nullptr);
    ASSERT_FALSE(page().advice()->best.empty());
    const StandChoice best = page().advice()->best.front();
    const Plan before = plan();
    EXPECT_TRUE(tells(QStringLiteral("copper")));
    page().take_spot(0);
    EXPECT_NEAR(*yr::find(plan().points, bus)->at.x_m, best.spot.spot.x_m, 2e-3);
    EXPECT_LE(best.kg, page().view()->routes().fits ? 1e9 : 1e9);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(PlacePageTest, APictureLiesUnderneathAndIsScaled) {
    laid_out();
    QPixmap drawn(400, 160);
    drawn.fill(Qt::lightGray);
    const QString file = QString::fromStdString(folder.file("from-above.png"));
    ASSERT_TRUE(drawn.save(file));
    page().put_picture(QStringLiteral("/no/such/picture.png"));
    EXPECT_TRUE(plan().vehicle.picture.empty()) << "refused with a sentence";
    page().put_picture(file);
    EXPECT_EQ(plan().vehicle.picture, file.toStdString());
    ASSERT_TRUE(view()->measuring());
    const QPointF a = view()->scene().top.center(), b = a + QPointF(100, 0);
    const double now_m = 100 / view()->scene().px_per_m;
    QTimer::singleShot(200, [] {
        for (QWidget* w : QApplication::topLevelWidgets())
            if (auto* dialog = qobject_cast<QInputDialog*>(w)) {
                dialog->setDoubleValue(2.0);
                return dialog->accept();
            }
        ADD_FAILURE() << "no length was asked for";
    });
    const double before = view()->scene().top.width() / view()->scene().px_per_m / 400;
    QTest::mouseClick(view(), Qt::LeftButton, {}, a.toPoint());
    QTest::mouseClick(view(), Qt::LeftButton, {}, b.toPoint());
    ASSERT_TRUE(plan().vehicle.picture_m);
    EXPECT_NEAR(*plan().vehicle.picture_m, before * 2.0 / now_m, 0.03 * before * 2.0 / now_m);
    EXPECT_FALSE(view()->measuring());
}

TEST_F(PlacePageTest, TheWholeSpeaksAndIsATable) {
    laid_out();
    EXPECT_GE(view()->spoken_parts().size(), view()->scene().plates.size() + view()->scene().ribbons.size());
    const QString table = page().numbers();
    EXPECT_GT(table.count(QLatin1Char('\n')), 5);
    EXPECT_TRUE(table.contains(QLatin1Char('\t')));
}

// Story: two boxes or one, laid, priced, kept as an option and compared.
TEST_F(PlacePageTest, OneBoxOrTwo) {
    ASSERT_TRUE(window.open_file(QString::fromStdString(demo_path(kDemos[0]))));
    window.go_to(QStringLiteral("place"));
    for (const Point& p : plan().points)
        if (p.name == "rear box") doc().selection().choose(p.id);
    page().finish();
    EXPECT_TRUE(page().sentences().contains(QStringLiteral("One box or two?")));
    page().ask_layouts();
    page().finish();
    ASSERT_NE(page().layouts(), nullptr);
    ASSERT_EQ(page().layouts()->options.size(), 3U);
    const QString said = page().sentences().join(QLatin1Char('\n'));
    EXPECT_TRUE(said.contains(QStringLiteral("Two boxes: "))) << said.toStdString();
    const std::size_t variants = doc().store().stored().variants.size();
    page().keep_layout(1);
    ASSERT_EQ(doc().store().stored().variants.size(), variants + 1);
    EXPECT_EQ(doc().store().stored().variants.back().name, "Two boxes");
    doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored().variants.size(), variants);
}

// Covered with: chosen in the side of a way, one step.
TEST_F(PlacePageTest, AWayIsCovered) {
    ASSERT_TRUE(window.open_file(QString::fromStdString(demo_path(kDemos[0]))));
    window.go_to(QStringLiteral("place"));
    page().finish();
    std::size_t way = 0;
    for (std::size_t k = 0; k < plan().ways.size(); ++k)
        if (view()->routes().ways[k].runs.size() > view()->routes().ways[way].runs.size()) way = k;
    view()->choose_way(way);
    page().finish();
    QComboBox* covered = nullptr;
    for (QComboBox* c : page().findChildren<QComboBox*>())
        if (c->accessibleName() == QStringLiteral("Covered with")) covered = c;
    ASSERT_NE(covered, nullptr);
    covered->setCurrentIndex(covered->findData(QStringLiteral("tape, split loom")));
    emit covered->activated(covered->currentIndex());
    EXPECT_EQ(plan().ways[way].covering, "tape, split loom");
    doc().store().undo_stack()->undo();
    EXPECT_TRUE(plan().ways[way].covering.empty());
}

}  // namespace
}  // namespace yr::test
