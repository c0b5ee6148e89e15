// Build in the window: pieces on rolls, a card, an end that is changed, ticks, labels and tables read back.
#include "workspaces/build/build_page.h"

#include "app/window_fixture.h"
#include "plan/plan_json.h"
#include "support/run_program.h"
#include "workspaces/build/dossier.h"
#include "workspaces/build/labels.h"

namespace yr::test {
namespace {

class BuildPageTest : public WindowTest {
  protected:
    BuildPageTest() {
        window.go_to(QStringLiteral("build"));
        page().finish();
    }
    app::BuildPage& page() { return *window.workspace<app::BuildPage>(); }
    const app::BenchPiece* piece(const Id& run) {
        for (const auto& g : page().bench()->groups())
            for (const auto& r : g.rolls)
                for (const auto& p : r.pieces)
                    if (p.run == run) return &p;
        return nullptr;
    }
    bool tells(const QString& words) {
        const QStringList said = page().sentences();
        return std::any_of(said.begin(), said.end(), [&](const QString& s) { return s.contains(words); });
    }
};

TEST_F(BuildPageTest, EveryCableLiesOnTheBenchAndOpensToItsCard) {
    ASSERT_NE(page().cuts(), nullptr);
    std::size_t pieces = 0;
    for (const auto& g : page().bench()->groups())
        for (const auto& r : g.rolls) {
            double x = r.rect.left() - 1;
            for (const auto& p : r.pieces) {
                EXPECT_GE(p.rect.left(), x - 1e-6) << "beside each other";
                EXPECT_LE(p.rect.right(), r.rect.right() + 0.5) << "within the roll";
                x = p.rect.right();
                ++pieces;
            }
        }
    std::size_t cables = 0;
    for (const auto& r : plan().runs) cables += is_cut(r) ? static_cast<std::size_t>(r.parallel) : 0;
    EXPECT_EQ(pieces, cables);
    const Id feed = run_named("rear box feed");
    ASSERT_NE(piece(feed), nullptr);
    QTest::mouseClick(page().bench(), Qt::LeftButton, {}, piece(feed)->rect.center().toPoint());
    EXPECT_EQ(doc().selection().id(), feed);
    EXPECT_TRUE(tells(QStringLiteral("front edge")))
        << page().sentences().join(QLatin1Char('\n')).toStdString();
    QTest::keyClick(page().bench(), Qt::Key_Right);
    EXPECT_NE(doc().selection().id(), feed);
}

TEST_F(BuildPageTest, AnEndIsChangedAndTheShoppingListFollows) {
    const Id feed = run_named("rear box feed");
    doc().selection().choose(feed);
    const Plan before = plan();
    auto* angle = page().form()->findChild<QComboBox*>(QStringLiteral("Angle"));
    ASSERT_NE(angle, nullptr);
    angle->setCurrentIndex(2);
    emit angle->activated(2);
    EXPECT_EQ(yr::find(plan().runs, feed)->end_from.angle_deg, 90);
    page().finish();
    window.go_to(QStringLiteral("build"), QStringLiteral("parts"));
    bool bent = false;
    for (int k = 0; k < page().parts()->topLevelItemCount(); ++k)
        bent = bent || page().parts()->topLevelItem(k)->text(2).contains(QStringLiteral("90°"));
    EXPECT_TRUE(bent);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(BuildPageTest, TicksStayInThePlanAndAreOneStepBack) {
    const Id feed = run_named("rear box feed");
    const Plan before = plan();
    page().mark(QStringLiteral("made"), feed, true);
    page().finish();
    EXPECT_TRUE(piece(feed)->made);
    // by the box in the list, as with a thumb
    window.go_to(QStringLiteral("build"), QStringLiteral("parts"));
    auto* item = page().parts()->topLevelItem(0);
    const std::string key = item->data(0, Qt::UserRole).toString().toStdString();
    item->setCheckState(0, Qt::Checked);
    QTest::qWait(20);
    EXPECT_TRUE(page().is_marked(QStringLiteral("bought"), key));
    EXPECT_EQ(plan().marks.size(), 2u);
    doc().store().undo_stack()->undo();
    EXPECT_FALSE(page().is_marked(QStringLiteral("bought"), key));
    page().mark(QStringLiteral("made"), feed, false);
    EXPECT_TRUE(plan().marks.empty());
    while (doc().store().undo_stack()->canUndo()) doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(BuildPageTest, SeveralVehiclesAreCutTogether) {
    std::size_t one = 0, three = 0;
    for (const SizeCutting& c : *page().cuts()) one += c.pieces.size();
    page().vehicles()->setValue(3);
    page().finish();
    for (const SizeCutting& c : *page().cuts()) three += c.pieces.size();
    EXPECT_EQ(three, 3 * one);
}

TEST_F(BuildPageTest, LabelsAndTablesLeaveTheProgram) {
    const QString pdf = QString::fromStdString(folder.file("labels.pdf"));
    page().save_labels(pdf);
    const std::string bytes = read_text(pdf.toStdString());
    EXPECT_EQ(bytes.substr(0, 5), "%PDF-");
    EXPECT_GT(bytes.size(), 20000u);
    ASSERT_FALSE(page().looms()->looms().empty());
    const QString sheets = QString::fromStdString(folder.file("loom.pdf"));
    page().save_loom(page().looms()->looms().front().name.c_str(), sheets);
    EXPECT_EQ(read_text(sheets.toStdString()).substr(0, 5), "%PDF-");
    const auto pages = app::write_loom(plan(), {}, sheets, QPageSize::A4, true);
    ASSERT_TRUE(pages);
    const FlatLoom& loom = page().looms()->looms().front();
    EXPECT_GE(*pages, static_cast<int>((loom.high.x_m - loom.low.x_m) / 0.19))
        << "at 1:1 a sheet holds 19 cm";
    EXPECT_FALSE(app::write_loom(plan(), QStringLiteral("no such loom"), sheets, QPageSize::A4, true));
    // the same as one drawing each: well-formed, true to scale, every cable of the loom named
    const std::string drawn = folder.file("loom.svg"), stuck = folder.file("labels.svg");
    page().save_loom(page().looms()->looms().front().name.c_str(), QString::fromStdString(drawn));
    page().save_labels(QString::fromStdString(stuck));
    for (const std::string& file : {drawn, stuck}) EXPECT_EQ(run("xmllint --noout " + file).code, 0) << file;
    const std::string svg = read_text(drawn), all_labels = read_text(stuck);
    const auto at = svg.find("<svg width=\"");
    ASSERT_NE(at, std::string::npos);
    EXPECT_NEAR(std::stod(svg.substr(at + 12)), (loom.high.x_m - loom.low.x_m + 0.1) * 1000 + 24, 2)
        << "millimetres: the loom, a hand of room round it and the edges";
    for (const WireRow& w : wire_table(plan()))
        if (std::find(loom.runs.begin(), loom.runs.end(), w.run) != loom.runs.end())
            EXPECT_NE(svg.find(w.number), std::string::npos) << w.number;
    for (const Point& p : plan().points)
        if (!p.channels.empty()) EXPECT_NE(all_labels.find(words::capital(p.name)), std::string::npos);
    const QString book = QString::fromStdString(folder.file("build.xlsx"));
    page().save_tables(book);
    EXPECT_EQ(read_text(book.toStdString()).substr(0, 2), "PK");
    // what the code on a lid says holds every circuit and fuse of the box
    const Point* box = nullptr;
    for (const Point& p : plan().points)
        if (!p.channels.empty()) box = &p;
    const std::string text = app::box_text(plan(), *box);
    for (const auto& r : plan().runs)
        if (r.from.owner == box->id && r.channel > 0)
            EXPECT_NE(text.find(yr::name_of(plan(), r.to.owner)), std::string::npos) << text;
}

TEST_F(BuildPageTest, TheWiresAreATableThatChooses) {
    window.go_to(QStringLiteral("build"), QStringLiteral("wires"));
    ASSERT_GT(page().wires()->topLevelItemCount(), 50);
    auto* item = page().wires()->topLevelItem(3);
    emit page().wires()->itemClicked(item, 0);
    EXPECT_EQ(doc().selection().id(), item->data(0, Qt::UserRole).toString().toStdString());
    EXPECT_TRUE(page().numbers().contains(QLatin1Char('\t')));
}

TEST_F(BuildPageTest, TheDiagramIsLiveAndHasEverySheet) {
    ASSERT_TRUE(page().open_view(QStringLiteral("diagram")));
    page().finish();
    auto* view = page().diagram();
    ASSERT_NE(view->diagram(), nullptr);
    EXPECT_GE(view->diagram()->sheets.size(), 4U);
    view->show_sheet(1);
    const Id feed = run_named("headlamps feed");
    const QPointF at = view->where_is(feed);
    ASSERT_FALSE(at.isNull());
    QTest::mouseClick(view, Qt::LeftButton, {}, at.toPoint());
    EXPECT_EQ(doc().selection().id(), feed) << "a click chooses everywhere";
    QTest::keyClick(view, Qt::Key_PageDown);
    EXPECT_EQ(view->sheet(), 2U);
}

TEST_F(BuildPageTest, AStepIsPutBeforeItsNeighbourAndBack) {
    ASSERT_TRUE(page().open_view(QStringLiteral("work")));
    page().finish();
    auto* work = page().work();
    const auto place = [&](const std::string& key) {
        return std::find_if(work->order().steps.begin(), work->order().steps.end(),
                            [&](const WorkStep& s) { return s.key == key; }) -
               work->order().steps.begin();
    };
    const auto act = [&](const QString& begins) {  // the link that begins so
        for (QLabel* l : work->findChildren<QLabel*>())
            if (l->text().contains(QStringLiteral(">") + begins)) {
                emit l->linkActivated({});
                QTest::qWait(20);
                page().finish();
                return true;
            }
        return false;
    };
    const Plan before = plan();
    const std::string second = work->order().steps[1].key, first = work->order().steps[0].key;
    work->open_step(second);
    ASSERT_TRUE(act(QStringLiteral("Earlier: before")));
    EXPECT_LT(place(second), place(first));
    EXPECT_EQ(plan().marks.size(), before.marks.size() + 1);
    ASSERT_TRUE(act(QStringLiteral("Later: behind")));
    EXPECT_LT(place(first), place(second)) << "the other way round, not both at once";
    EXPECT_EQ(plan().marks.size(), before.marks.size() + 1);
    ASSERT_TRUE(act(QStringLiteral("In its usual order again")));
    EXPECT_TRUE(plan().marks == before.marks);
    for (int k = 0; k < 3; ++k) doc().store().undo_stack()->undo();
    EXPECT_TRUE(plan() == before);
}

TEST_F(BuildPageTest, AConnectorIsFilledFromTheSideOfItsWires) {
    const Id feed = run_named("rear box feed");
    Connector c;
    c.id = "plug", c.name = "bulkhead plug", c.pins = 4, c.mates_with = "its other half";
    yr::Run through = *yr::find(plan().runs, feed);
    through.pins.push_back({"plug", 2, {}});
    doc().apply(Batch{{Put<Connector>{c, {}}, Put<yr::Run>{through, {}}}}, QStringLiteral("plug"));
    ASSERT_TRUE(page().open_view(QStringLiteral("looms")));
    page().finish();
    auto* looms = page().looms();
    ASSERT_EQ(looms->faces().size(), 1u);
    const QRectF here = looms->pin_on_screen(0, 1, false), there = looms->pin_on_screen(0, 1, true);
    EXPECT_LT(here.right(), there.left());
    // second from the left in one half is second from the right in the other
    EXPECT_LT(looms->pin_on_screen(0, 0, false).left(), here.left());
    EXPECT_GT(looms->pin_on_screen(0, 0, true).left(), there.left());
    doc().selection().choose({});
    QTest::mouseClick(looms, Qt::LeftButton, {}, there.center().toPoint());
    EXPECT_EQ(doc().selection().id(), feed);
    const auto parts = looms->spoken_parts();
    EXPECT_TRUE(std::any_of(parts.begin(), parts.end(),
                            [](const auto& p) { return p.name == QStringLiteral("bulkhead plug, pin 2"); }));
    const QString sheets = QString::fromStdString(folder.file("loom.pdf"));
    std::string with;
    for (const FlatLoom& l : looms->looms()) {
        ASSERT_TRUE(app::write_loom(plan(), app::q(l.name), sheets, QPageSize::A4, true));
        with += run("pdftotext " + sheets.toStdString() + " -").out;
    }
    EXPECT_NE(with.find("wires towards you"), std::string::npos);
    EXPECT_NE(with.find("blind plug"), std::string::npos);
}

TEST_F(BuildPageTest, TheWorkIsTickedPutOffNotedAndUndone) {
    ASSERT_TRUE(page().open_view(QStringLiteral("work")));
    page().finish();
    auto* work = page().work();
    const auto done = [&] {
        return std::count_if(work->order().steps.begin(), work->order().steps.end(),
                             [](const WorkStep& s) { return s.done(); });
    };
    ASSERT_NE(work->next(), nullptr);
    const std::string first = work->next()->key;
    const Plan before = plan();
    for (QToolButton* tick : work->findChildren<QToolButton*>(QStringLiteral("tick"))) {
        QTest::mouseClick(tick, Qt::LeftButton);
        break;
    }
    QTest::qWait(50);
    EXPECT_EQ(done(), 1) << "the first of the column";
    EXPECT_NE(work->next()->key, first);
    doc().store().undo_stack()->undo();
    EXPECT_TRUE(plan() == before) << "one step";
    work->put_off("mount rear-box", true);
    page().finish();
    EXPECT_TRUE(std::any_of(work->order().steps.begin(), work->order().steps.end(),
                            [](const WorkStep& s) { return s.waits; }));
    work->note("mount rear-box", QStringLiteral("13 mm nut"));
    page().finish();
    work->open_step("mount rear-box");
    bool noted = false;
    for (QLabel* l : work->findChildren<QLabel*>())
        noted = noted || l->text().contains(QStringLiteral("13 mm nut"));
    EXPECT_TRUE(noted);
    // closed in the middle and opened again, one goes on where one was
    const std::string file = folder.file("truck.yourrail.json");
    std::vector<std::string> cables;
    for (const WorkStep& s : work->order().steps)
        if (s.task == Task::make) cables.push_back(s.key);
    for (const std::string& key : cables) work->tick(key, true);
    page().finish();
    const auto count = done();
    EXPECT_GT(count, 5);
    ASSERT_TRUE(save_plan(doc().store().stored(), file));
    const auto again = load_plan(file);
    ASSERT_TRUE(again);
    const WorkOrder order = work_order(*again);
    EXPECT_EQ(
        std::count_if(order.steps.begin(), order.steps.end(), [](const WorkStep& s) { return s.done(); }),
        count);
}

TEST_F(BuildPageTest, PricesAreTypedAndAddUp) {
    ASSERT_TRUE(page().open_view(QStringLiteral("quote")));
    page().finish();
    auto* quote = page().quote();
    const double before = quote->quote().parts;
    const QuoteLine line = quote->quote().lines.front();
    quote->say_of(line.key, app::QuoteView::each, QStringLiteral("7.5"));
    quote->say_of(line.key, app::QuoteView::packs, QStringLiteral("10"));
    page().finish();
    const double packs = std::ceil(line.quantity / 10 - 1e-9);
    EXPECT_NEAR(quote->quote().parts, before - line.price.value_or(0) + packs * 75, 1e-6);
    quote->say_of(line.key, app::QuoteView::each, QStringLiteral("cheap"));
    EXPECT_EQ(plan().policy.prices.front().each, 7.5) << "what is no number is not taken";
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    EXPECT_TRUE(plan().policy.prices.empty());
}

TEST_F(BuildPageTest, OwnTimesAndTorquesAreTypedAndAStepHasItsPhoto) {
    ASSERT_TRUE(page().open_view(QStringLiteral("times")));
    auto* times = page().times();
    ASSERT_GT(times->times()->topLevelItemCount(), 15);
    const double before = work_order(plan()).minutes;
    times->say_minutes("make_thick", QStringLiteral("45"));
    EXPECT_GT(work_order(plan()).minutes, before);
    EXPECT_TRUE(tells(QStringLiteral("1 of your own times")));
    times->say_torque(8, QStringLiteral("11.5"));
    ASSERT_EQ(plan().policy.torques.size(), 1U);
    QSignalSpy refused(&doc().store(), &app::PlanStore::refused);
    times->say_minutes("make_thick", QStringLiteral("long"));
    times->say_torque(8, QStringLiteral("0"));
    EXPECT_EQ(refused.size(), 2);
    EXPECT_EQ(plan().policy.tasks.front().minutes, 45) << "what is no number is not taken";
    times->say_minutes("make_thick", QString());
    EXPECT_TRUE(plan().policy.tasks.empty()) << "emptied: the typical one again";
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().policy.tasks.size(), 1U);
    // a cell is typed into as a person does
    QTreeWidgetItem* row = times->torques()->topLevelItem(4);
    row->setText(app::TimesView::own, QStringLiteral("38"));
    QTest::qWait(20);
    EXPECT_EQ(plan().policy.torques.size(), 2U);

    const QString file = QString::fromStdString(folder.file("truck.yourrail.json"));
    doc().store().saved_as(file);
    QImage picture(640, 480, QImage::Format_RGB32);
    picture.fill(Qt::darkCyan);
    ASSERT_TRUE(picture.save(QString::fromStdString(folder.file("box.png"))));
    ASSERT_TRUE(page().open_view(QStringLiteral("work")));
    page().finish();
    auto* work = page().work();
    work->open_step("mount rear-box");
    work->photo("mount rear-box", QString::fromStdString(folder.file("box.png")));
    page().finish();
    EXPECT_EQ(plan().marks.back().photo, "box.png") << "told from the plan's folder";
    const auto shown = [&] {
        for (QLabel* l : work->findChildren<QLabel*>())
            if (!l->pixmap().isNull()) return true;
        return false;
    };
    EXPECT_TRUE(shown());
    write_text(folder.file("no.png"), "not a picture");
    work->photo("mount rear-box", QString::fromStdString(folder.file("no.png")));
    EXPECT_EQ(refused.size(), 3);
    // gone: said, not hidden
    std::remove(folder.file("box.png").c_str());
    work->open_step({});
    work->open_step("mount rear-box");
    bool told = false;
    for (QLabel* l : work->findChildren<QLabel*>())
        told = told || l->text().contains(QStringLiteral("not there any more"));
    EXPECT_TRUE(told);
}

// Every cable, load, fuse and torque of the plan is found in the text of the PDF.
TEST_F(BuildPageTest, TheDossierHoldsAllOfThePlan) {
    const std::string pdf = folder.file("dossier.pdf");
    const auto pages = app::write_dossier(plan(), QString::fromStdString(pdf), QPageSize::A4);
    ASSERT_TRUE(pages);
    EXPECT_GE(*pages, 15);
    const Ran checked = run("qpdf --check " + pdf);
    EXPECT_EQ(checked.code, 0) << checked.err;
    std::string text = run("pdftotext -layout " + pdf + " -").out;
    const auto flat = [](std::string t) {  // a cell may be broken over lines
        std::erase_if(t, [](char c) { return c == ' ' || c == '\n' || c == '\f'; });
        return t;
    };
    const std::string all = flat(run("pdftotext " + pdf + " -").out) + flat(text);
    EXPECT_NE(all.find(flat(app::fingerprint(plan()).toStdString())), std::string::npos);
    for (const WireRow& w : wire_table(plan())) EXPECT_NE(text.find(w.number), std::string::npos) << w.number;
    for (const Load& l : plan().loads) EXPECT_NE(all.find(flat(l.name)), std::string::npos) << l.name;
    for (const Point& p : plan().points)
        if (p.kind == PointKind::ground) {
            EXPECT_NE(all.find(flat(p.name)), std::string::npos) << p.name;
        }
    for (const char* words :
         {"Firstpower", "Forthedriver", "Whensomethingisdead", "Hand-over", "20to22Nm", "Orderofwork"})
        EXPECT_NE(all.find(words), std::string::npos) << words;
}

// The code on a box's lid is read back by a reader of codes.
TEST_F(BuildPageTest, TheCodeOnTheLidIsReadBack) {
    const std::string pdf = folder.file("labels.pdf");
    ASSERT_TRUE(app::write_labels(plan(), QString::fromStdString(pdf), QPageSize::A4, true));
    ASSERT_EQ(run("pdftoppm -r 150 -png " + pdf + " " + folder.file("page")).code, 0);
    const Ran codes = run("zbarimg -q --raw " + folder.path() + "/page*.png");
    EXPECT_NE(codes.out.find("Rear box"), std::string::npos) << codes.out << codes.err;
    EXPECT_NE(codes.out.find("scene lights"), std::string::npos);
}

}  // namespace
}  // namespace yr::test
