// Build in the window: pieces on rolls, a card, an end that is changed, ticks, labels and tables read back.
#include "workspaces/build/build_page.h"

#include "app/window_fixture.h"
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

}  // namespace
}  // namespace yr::test
