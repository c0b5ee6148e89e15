// Twenty rows of a spreadsheet become twenty loads, in the real dialog.
#include "app/window_fixture.h"
#include "panels/paste_loads.h"

namespace yr::test {
namespace {

TEST_F(WindowTest, TwentyRowsBecomeTwentyLoadsInOneStep) {
    QString text = QStringLiteral("item;watts;length\n");
    for (int k = 0; k < 20; ++k) text += QStringLiteral("deck lamp %1;12;3,5\n").arg(k + 1);
    const std::size_t before = plan().loads.size();
    const Plan begun = doc().store().stored();
    app::PasteLoads dialog(&doc(), text);
    EXPECT_EQ(dialog.ready(), 20);
    EXPECT_TRUE(dialog.table()->item(1, 0)->text().contains(QStringLiteral("12")))
        << "what is understood is shown";
    EXPECT_EQ(dialog.table()->item(1, 2)->text(), QStringLiteral("deck lamp 1"))
        << "beside the row as it was pasted";
    EXPECT_EQ(dialog.table()->item(1, 4)->text(), QStringLiteral("3,5"));
    dialog.accept();
    EXPECT_EQ(plan().loads.size(), before + 20);
    EXPECT_DOUBLE_EQ(*find(plan().runs, run_named("deck lamp 7 feed"))->length_m, 3.5);
    EXPECT_EQ(doc().store().undo_stack()->count(), 1);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored(), begun);
}

TEST_F(WindowTest, AColumnIsGivenItsMeaning) {
    app::PasteLoads dialog(&doc(), QStringLiteral("thing,drawing\nwinch light,3\nhatch lamp,2\n"));
    EXPECT_EQ(dialog.ready(), 0) << "nothing says what the numbers are";
    dialog.set_meaning(0, LoadColumn::name);
    dialog.set_meaning(1, LoadColumn::amps);
    EXPECT_EQ(dialog.ready(), 2);
    EXPECT_TRUE(dialog.summary().contains(QStringLiteral("2 of 3")));
    dialog.accept();
    EXPECT_DOUBLE_EQ(find(plan().loads, load_named("hatch lamp"))->draw.value, 2);
}

TEST_F(WindowTest, AnEmptyClipboardIsSaid) {
    app::PasteLoads dialog(&doc(), {});
    EXPECT_TRUE(dialog.summary().contains(QStringLiteral("no table")));
    const Plan before = plan();
    dialog.accept();
    EXPECT_EQ(plan(), before);
}

}  // namespace
}  // namespace yr::test
