// What stands in the window's menus: plan, add, options.
#include <QApplication>
#include <QClipboard>
#include <QFileInfo>
#include <QInputDialog>
#include <QMenu>
#include <map>

#include "control/box_dialog.h"
#include "io/loads_csv.h"
#include "plan/variant.h"
#include "shell/dialogs.h"
#include "shell/main_window.h"
#include "shell/own_library.h"
#include "shell/paste_loads.h"
#include "shell/plan_files.h"
#include "size/additions.h"

namespace yr::app {

void MainWindow::fill_plan_menu(QMenu* menu) {
    menu->clear();
    menu->addAction(QStringLiteral("New\tCtrl+N"), this, [this] {
        if (may_leave()) document_.open(empty_plan("New vehicle"), {});
    });
    menu->addAction(QStringLiteral("Open …\tCtrl+O"), this, &MainWindow::open_dialog);
    menu->addAction(QStringLiteral("Save\tCtrl+S"), this, &MainWindow::save);
    menu->addAction(QStringLiteral("Save as …\tCtrl+Shift+S"), this, &MainWindow::save_as);
    menu->addSeparator();
    for (const QString& path : recent_files())
        menu->addAction(QFileInfo(path).fileName(), this, [this, path] {
            if (may_leave()) open_file(path);
        });
    if (!recent_files().isEmpty()) menu->addSeparator();
    menu->addAction(QStringLiteral("Copy the loads as a table"), this,
                    [this] { QApplication::clipboard()->setText(q(loads_csv(document_.plan()))); });
    menu->addSeparator();
    for (const DemoPlan& demo : demo_plans())
        menu->addAction(QStringLiteral("Demo: ") + demo.title, this, [this, demo] {
            if (may_leave()) open_demo(demo.resource);
        });
    menu->addSeparator();
    menu->addAction(QStringLiteral("Leave\tCtrl+Q"), this, &QWidget::close);
}

void MainWindow::fill_add_menu(QMenu* menu) {
    const auto add = [this, menu](const QString& text, const QString& name,
                                  const std::function<Result<Addition>()>& make) {
        menu->addAction(text, this, [this, name, make] {
            const auto addition = make();
            if (!addition)
                emit document_.refused(q(words::sentence(addition.error())));
            else if (document_.apply(addition->edit, QStringLiteral("add ") + name))
                document_.select(addition->id);
        });
    };
    menu->addAction(QStringLiteral("A load, by typing\tCtrl+L"), this,
                    [this] { type_line_->edit()->setFocus(); });
    menu->addAction(QStringLiteral("Loads from a table on the clipboard …"), this,
                    [this] { PasteLoads(&document_, QApplication::clipboard()->text(), this).exec(); });
    auto* typical = menu->addMenu(QStringLiteral("A typical load from the library"));
    connect(typical, &QMenu::aboutToShow, this, [this, typical] { fill_library_menu(typical); });
    menu->addAction(QStringLiteral("Control box …"), this, [this] { BoxDialog(&document_, this).exec(); });
    add(QStringLiteral("Alternator with its fused cable"), QStringLiteral("alternator"),
        [this] { return add_alternator(document_.plan()); });
    add(QStringLiteral("Feed, always live"), QStringLiteral("feed"),
        [this] { return add_feed(document_.plan(), {}); });
    add(QStringLiteral("Feed, with the key at accessory"), QStringLiteral("accessory feed"), [this] {
        return add_feed(document_.plan(), {Key::accessory, Engine::any, {}});
    });
    add(QStringLiteral("Feed, with the key at ignition"), QStringLiteral("ignition feed"), [this] {
        return add_feed(document_.plan(), {Key::ignition, Engine::any, {}});
    });
    menu->addAction(QStringLiteral("Cable, strap or link between two ends …"), this,
                    [this] { CableDialog(&document_, this).exec(); });
    add(QStringLiteral("Stud to land cables on"), QStringLiteral("stud"),
        [this] { return add_point(document_.plan(), PointKind::stud, "stud"); });
    add(QStringLiteral("Part of the chassis"), QStringLiteral("chassis part"),
        [this] { return add_point(document_.plan(), PointKind::chassis, "chassis part"); });
    add(QStringLiteral("One more battery in the bank"), QStringLiteral("battery of the bank"),
        [this] { return add_bank_battery(document_.plan()); });
    add(QStringLiteral("Ground point"), QStringLiteral("ground point"),
        [this] { return add_ground(document_.plan()); });
    add(QStringLiteral("Second battery with its own bus"), QStringLiteral("second battery"),
        [this] { return add_second_battery(document_.plan()); });
    add(QStringLiteral("Sensing relay between the batteries"), QStringLiteral("sensing relay"),
        [this] { return add_link(document_.plan(), Link::sensing_relay); });
    add(QStringLiteral("Ignition contactor between the batteries"), QStringLiteral("contactor"),
        [this] { return add_link(document_.plan(), Link::contactor); });
    add(QStringLiteral("Isolator between the batteries"), QStringLiteral("isolator"),
        [this] { return add_link(document_.plan(), Link::isolator); });
    add(QStringLiteral("Inverter"), QStringLiteral("inverter"),
        [this] { return add_inverter(document_.plan()); });
    add(QStringLiteral("Shore charger"), QStringLiteral("shore charger"),
        [this] { return add_shore(document_.plan()); });
    add(QStringLiteral("Solar panel with its controller"), QStringLiteral("solar panel"),
        [this] { return add_solar(document_.plan()); });
    add(QStringLiteral("DC-DC charger to the second battery"), QStringLiteral("charger"),
        [this] { return add_charger(document_.plan()); });
}

// By trade; a choice puts its name on the type line, where more can be said before Enter.
void MainWindow::fill_library_menu(QMenu* menu) {
    menu->clear();
    std::map<std::string, QMenu*> trades;
    for (const LoadEntry& e : library().loads) {
        QMenu*& trade = trades[e.trade];
        if (!trade) trade = menu->addMenu(q(e.trade));
        trade->addAction(q(e.load.name), this,
                         [this, name = q(e.load.name)] { type_line_->take_entry(name); });
    }
}

void MainWindow::fill_options_menu(QMenu* menu) {
    menu->clear();
    const auto show = [this, menu](const QString& name, const Id& id) {
        QAction* a = menu->addAction(name, this, [this, id, name] {
            if (document_.stored().active != id)
                document_.apply(SetActive{id}, QStringLiteral("show ") + name);
        });
        a->setCheckable(true);
        a->setChecked(document_.stored().active == id);
    };
    show(QStringLiteral("as planned"), {});
    for (const Variant& v : document_.stored().variants) show(q(v.name), v.id);
    menu->addSeparator();
    menu->addAction(QStringLiteral("New option from what is shown …"), this, [this] {
        bool given = false;
        const QString name =
            QInputDialog::getText(this, QStringLiteral("New option"),
                                  QStringLiteral("What is it called? What you change from here on stays "
                                                 "in it; the plan as it stands stays as it is."),
                                  QLineEdit::Normal, {}, &given);
        if (given && !name.trimmed().isEmpty()) new_option(name.trimmed());
    });
    if (const Variant* v = yr::find(document_.stored().variants, document_.stored().active)) {
        menu->addAction(
            QStringLiteral("Take “%1” out").arg(q(v->name)), this, [this, id = v->id, name = v->name] {
                document_.apply(Batch{{SetActive{{}}, Remove<Variant>{id}}}, q("take out option " + name));
            });
        menu->addAction(QStringLiteral("Make “%1” the plan").arg(q(v->name)), this, [this, name = v->name] {
            const Plan chosen = with_variant(document_.stored(), document_.stored().active);
            document_.apply(plan_becomes(document_.stored(), chosen), q(name + " becomes the plan"));
        });
    }
    if (!document_.stored().variants.empty())
        menu->addAction(QStringLiteral("Compare side by side"), this, [this] { show_page(Page::compare); });
}

}  // namespace yr::app
