// Meter's views for an unlabelled wire, a loom with its coded end plug, and a battery over the years.
#include "app/window_fixture.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "workspaces/meter/meter_page.h"

namespace yr::test {
namespace {

class MeterViewsTest : public WindowTest {
  protected:
    MeterViewsTest() { window.go_to(QStringLiteral("meter")); }
    app::MeterPage& page() { return *window.workspace<app::MeterPage>(); }
    bool tells(const QString& words) {
        const QStringList said = page().sentences();
        return std::any_of(said.begin(), said.end(), [&](const QString& s) { return s.contains(words); });
    }
    // A line at the side that does something.
    void click(const QString& words) {
        QCoreApplication::processEvents();  // lines of before go
        for (QLabel* l : page().findChildren<QLabel*>())
            if (l->isVisibleTo(&page()) && l->text().contains(words)) return emit l->linkActivated({});
        ADD_FAILURE() << "nothing to click on: " << words.toStdString();
    }
    // Types into a cell of a table as a person does: double click, keys, Enter.
    static void type_cell(QTreeWidget* table, int row, int column, const QString& text) {
        QTreeWidgetItem* item = table->topLevelItem(row);
        table->scrollToItem(item);
        table->setCurrentItem(item, column);
        table->editItem(item, column);
        QLineEdit* editor = nullptr;  // the newest: one that was closed goes later
        for (QLineEdit* e : table->viewport()->findChildren<QLineEdit*>()) editor = e;
        ASSERT_NE(editor, nullptr);
        editor->setText(text);  // Ω is no key
        QSignalSpy filled(table->model(), &QAbstractItemModel::modelReset);
        QTest::keyClick(editor, Qt::Key_Return);
        ASSERT_TRUE(!filled.isEmpty() || filled.wait(5000));
    }
};

TEST_F(MeterViewsTest, AnUnlabelledWireIsToldByItsVolts) {
    ASSERT_TRUE(page().open_view(QStringLiteral("wire")));
    auto* view = page().wire();
    ASSERT_GT(view->table()->topLevelItemCount(), 6);
    EXPECT_TRUE(tells(QStringLiteral("Not yet known")));
    type_cell(view->table(), 0, app::WireView::volts, QStringLiteral("0"));
    type_cell(view->table(), 1, app::WireView::volts, QStringLiteral("12.3"));
    EXPECT_EQ(view->verdict().kind, WireKind::accessory);
    EXPECT_TRUE(tells(QStringLiteral("from accessory on")))
        << page().sentences().join(QLatin1Char('\n')).toStdString();
    EXPECT_TRUE(tells(QStringLiteral("may be timed")));
    EXPECT_TRUE(tells(QStringLiteral("Cab box feed")));
    EXPECT_EQ(view->table()->topLevelItem(1)->text(app::WireView::leaves), QStringLiteral("7 of 7"));
    // a click on a cable shows it in the list
    click(QStringLiteral("Cab box feed"));
    EXPECT_EQ(yr::name_of(plan(), doc().selection().id()), "cab box feed");
    if (const char* to = std::getenv("YR_SHOTS"))
        window.grab().save(QString::fromLatin1(to) + QStringLiteral("/wire.png"));
    // what is no number is refused and nothing is lost
    QSignalSpy refused(&doc().store(), &app::PlanStore::refused);
    type_cell(view->table(), 2, app::WireView::volts, QStringLiteral("bright"));
    EXPECT_EQ(refused.size(), 1);
    EXPECT_EQ(view->verdict().kind, WireKind::accessory);
    // emptied: not read
    type_cell(view->table(), 1, app::WireView::volts, QStringLiteral(" "));
    EXPECT_EQ(view->verdict().kind, WireKind::not_known);
    view->begin_anew();
    EXPECT_FALSE(view->any_read());
}

TEST_F(MeterViewsTest, ALoomIsProvedPinByPinAndThatGoesIntoTheRecord) {
    const QString file = QString::fromStdString(folder.file("truck.yourrail.json"));
    write_text(file.toStdString(), read_text(demo_path(kDemos[0])));
    ASSERT_TRUE(window.open_file(file));
    window.go_to(QStringLiteral("meter"));
    ASSERT_TRUE(page().open_view(QStringLiteral("loom")));
    auto* view = page().plug();
    ASSERT_NE(view->plug(), nullptr);
    const int rows = view->table()->topLevelItemCount();
    ASSERT_EQ(static_cast<std::size_t>(rows), view->plug()->runs.size());
    // what a meter shows at a right loom: what stands in the column of resistors
    std::vector<QString> right;
    for (int k = 0; k < rows; ++k)
        right.push_back(view->table()->topLevelItem(k)->text(app::PlugView::resistor));
    // two exchanged
    type_cell(view->table(), 0, app::PlugView::ohms, right[1]);
    type_cell(view->table(), 1, app::PlugView::ohms, right[0]);
    EXPECT_EQ(view->wrong(), 2U);
    EXPECT_TRUE(view->table()
                    ->topLevelItem(0)
                    ->text(app::PlugView::is)
                    .contains(QStringLiteral("has the wire of pin")));
    EXPECT_TRUE(tells(QStringLiteral("2 are wrong")));
    for (int k = 0; k < rows; ++k)
        view->read(static_cast<std::size_t>(k), right[static_cast<std::size_t>(k)]);
    EXPECT_EQ(view->wrong(), 0U);
    EXPECT_TRUE(tells(QStringLiteral("Every cable ends where it should")));
    click(QStringLiteral("Keep that in the record"));
    const auto book = read_records(records_path(file.toStdString()));
    ASSERT_TRUE(book);
    ASSERT_EQ(book->records.size(), 1U);
    EXPECT_EQ(book->records[0].kind, RecordKind::proved);
    EXPECT_NE(book->records[0].note.find("end plug"), std::string::npos);
    // less than nothing is no resistance
    QSignalSpy refused(&doc().store(), &app::PlanStore::refused);
    view->read(0, QStringLiteral("-5"));
    EXPECT_EQ(refused.size(), 1);
    EXPECT_EQ(view->done(), static_cast<std::size_t>(rows));
    if (const char* to = std::getenv("YR_SHOTS"))
        window.grab().save(QString::fromLatin1(to) + QStringLiteral("/loom.png"));
}

TEST_F(MeterViewsTest, ABatteryOverTheYears) {
    const QString file = QString::fromStdString(folder.file("truck.yourrail.json"));
    write_text(file.toStdString(), read_text(demo_path(kDemos[0])));
    const Plan truck_plan = *load_plan(file.toStdString());
    const std::string records = records_path(file.toStdString());
    const auto past = [&](double volts, const char* when) {
        Record r = *health_record(truck_plan, "battery-1", HealthReading::crank_V, volts, 10.0);
        r.when = when;
        ASSERT_TRUE(append_record(records, r));
    };
    past(11.4, "2024-10-02T09:00:00"), past(11.15, "2025-10-02T09:00:00");
    ASSERT_TRUE(window.open_file(file));
    window.go_to(QStringLiteral("meter"));
    ASSERT_TRUE(page().open_view(QStringLiteral("years")));
    auto* view = page().years();
    EXPECT_EQ(view->battery(), "battery-1");
    ASSERT_EQ(view->days().size(), 2U);
    EXPECT_FALSE(view->ahead());
    QTest::keyClicks(view->rested(), QStringLiteral("12.6"));
    QTest::keyClicks(view->cranked(), QStringLiteral("10.85"));
    QTest::keyClicks(view->warmth(), QStringLiteral("10"));
    QTest::keyClicks(view->loads(), QStringLiteral("12.6 V 5 A, 12.1 V 60 A"));
    QTest::mouseClick(view->keep_button(), Qt::LeftButton);
    ASSERT_EQ(view->days().size(), 3U);
    EXPECT_NEAR(*view->days()[2].ohm, 0.5 / 55, 1e-6);
    EXPECT_EQ(view->days()[2].rested_V, 12.6);
    EXPECT_TRUE(view->rested()->text().isEmpty()) << "what was kept leaves its field";
    ASSERT_TRUE(view->ahead());
    EXPECT_TRUE(tells(QStringLiteral("a year"))) << page().sentences().join(QLatin1Char('\n')).toStdString();
    EXPECT_EQ(read_records(records)->records.size(), 5U);
    const double mild = view->days()[2].cold->post_V;
    view->cold()->setText(QStringLiteral("-25"));
    emit view->cold()->editingFinished();
    EXPECT_LT(view->days()[2].cold->post_V, mild);
    view->cold()->setText(QStringLiteral("90"));
    QSignalSpy refused(&doc().store(), &app::PlanStore::refused);
    emit view->cold()->editingFinished();
    EXPECT_EQ(refused.size(), 1);
    EXPECT_EQ(view->cold_C(), -25);
    // half of two loads is said so and stays in its field
    QTest::keyClicks(view->loads(), QStringLiteral("12.6 V 5 A"));
    QTest::mouseClick(view->keep_button(), Qt::LeftButton);
    EXPECT_EQ(refused.size(), 2);
    EXPECT_FALSE(view->loads()->text().isEmpty());
    EXPECT_EQ(view->days().size(), 3U);
    if (const char* to = std::getenv("YR_SHOTS"))
        window.grab().save(QString::fromLatin1(to) + QStringLiteral("/years.png"));
}

// In a narrow window views go into a menu at the end of their line; none is cut, the open one always stands.
TEST_F(MeterViewsTest, ViewWordsThatFindNoRoomAreInAMenu) {
    window.resize(1024, 640);
    QCoreApplication::processEvents();
    ASSERT_TRUE(page().open_view(QStringLiteral("practise")));
    QCoreApplication::processEvents();
    QToolButton* more = nullptr;
    int whole = 0;
    bool open = false;
    for (QToolButton* b : page().findChildren<QToolButton*>(QStringLiteral("state"))) {
        if (b->menu()) more = b;
        if (!b->isVisible() || b->menu()) continue;
        EXPECT_GE(b->width(), b->sizeHint().width()) << b->text().toStdString();
        ++whole;
        open = open || (b->isChecked() && b->text() == QStringLiteral("Practise"));
    }
    EXPECT_TRUE(open);
    ASSERT_NE(more, nullptr);
    EXPECT_TRUE(more->isVisible());
    ASSERT_FALSE(more->menu()->actions().isEmpty());
    EXPECT_EQ(whole + more->menu()->actions().size(), static_cast<int>(page().views().size()) + 1)
        << "every view is in the line or in the menu";
    for (QAction* a : more->menu()->actions())
        if (a->text() == QStringLiteral("Record")) {
            a->trigger();
            break;
        }
    EXPECT_EQ(page().open_view(), QStringLiteral("record"));
    window.resize(1600, 800);
    QCoreApplication::processEvents();
    EXPECT_FALSE(more->isVisible());
}

}  // namespace
}  // namespace yr::test
