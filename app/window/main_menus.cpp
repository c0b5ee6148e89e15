// What stands in the window's menus: plan, add, options.
#include <QApplication>
#include <QClipboard>
#include <QFileInfo>
#include <QInputDialog>
#include <QMenu>
#include <map>

#include "catalog/sockets.h"
#include "document/own_library.h"
#include "document/plan_files.h"
#include "io/loads_csv.h"
#include "notes/notes.h"
#include "notes/plan_text.h"
#include "notes/sets.h"
#include "panels/box_dialog.h"
#include "panels/paste_loads.h"
#include "panels/set_dialog.h"
#include "plan/additions.h"
#include "plan/additions_joining.h"
#include "plan/variant.h"
#include "window/dialogs.h"
#include "window/export.h"
#include "window/help_window.h"
#include "window/main_window.h"
#include "window/preferences.h"
#include "words/sentences.h"
#include "words/statement_words.h"

namespace yr::app {

void MainWindow::fill_plan_menu(QMenu* menu) {
    menu->clear();
    menu->addAction(say("New\tCtrl+N"), this, &MainWindow::new_plan);
    QMenu* bare = menu->addMenu(say("Start with a bare vehicle"));
    for (const BareVehicle& b : bare_vehicles())
        bare->addAction(q(b.title), this, [this, key = b.key] { start_with(q(key)); });
    menu->addAction(say("From notes …\tCtrl+Shift+N"), this, &MainWindow::from_notes);
    menu->addAction(say("Copy the plan as notes"), this,
                    [this] { QApplication::clipboard()->setText(q(plan_text(document_.store().stored()))); });
    menu->addAction(say("Open …\tCtrl+O"), this, &MainWindow::open_dialog);
    menu->addAction(say("Save\tCtrl+S"), this, &MainWindow::save);
    menu->addAction(say("Save as …\tCtrl+Shift+S"), this, &MainWindow::save_as);
    menu->addSeparator();
    for (const QString& path : recent_files())
        menu->addAction(QFileInfo(path).fileName(), this, [this, path] {
            if (may_leave()) open_file(path);
        });
    if (!recent_files().isEmpty()) menu->addSeparator();
    fill_export_menu(menu->addMenu(say("Export and print")), this, &document_, open_,
                     [this](const QString& text) { messages_->say(text); });
    menu->addAction(say("Copy the loads as a table"), this,
                    [this] { QApplication::clipboard()->setText(q(loads_csv(document_.plan()))); });
    menu->addSeparator();
    for (const DemoPlan& demo : demo_plans())
        menu->addAction(say("Demo: ") + demo.title, this, [this, demo] {
            if (may_leave()) open_demo(demo.resource);
        });
    menu->addSeparator();
    menu->addAction(say("Leave\tCtrl+Q"), this, &QWidget::close);
}

void MainWindow::fill_add_menu(QMenu* top) {
    QMenu* menu = top;
    const auto add = [this, &menu](const QString& text, const QString& name,
                                   const std::function<Result<Addition>()>& make) {
        menu->addAction(text, this, [this, name, make] {
            const auto addition = make();
            if (!addition)
                document_.store().refuse(q(words::sentence(addition.error())));
            else if (document_.apply(addition->edit, say("add ") + name))
                document_.selection().choose(addition->id);
        });
    };
    menu->addAction(say("A load, by typing\tCtrl+L"), this, [this] { type_line_->edit()->setFocus(); });
    QMenu* typed = menu->addMenu(say("By typing, any kind"));
    for (const StatementForm& form : statement_forms())  // a choice puts its line there, ready to be changed
        typed->addAction(
            q(words::capital(words::name_of(form.kind))) + QStringLiteral("\t") + q(form.example), this,
            [this, line = q(form.example)] { type_line_->take_entry(line); });
    menu->addAction(say("Loads from a table on the clipboard …"), this,
                    [this] { PasteLoads(&document_, QApplication::clipboard()->text(), this).exec(); });
    auto* typical = menu->addMenu(say("A typical load from the library"));
    connect(typical, &QMenu::aboutToShow, this, [this, typical] { fill_library_menu(typical); });
    QMenu* sets = menu->addMenu(say("Sets of lines"));
    connect(sets, &QMenu::aboutToShow, this, [this, sets] { fill_sets_menu(sets); });
    const auto group = [&](const QString& title) { menu = top->addMenu(title); };
    group(say("Supply"));
    add(say("Alternator with its fused cable"), say("alternator"),
        [this] { return add_alternator(document_.plan()); });
    add(say("Second battery with its own bus"), say("second battery"),
        [this] { return add_second_battery(document_.plan()); });
    add(say("One more battery in the bank"), say("battery of the bank"),
        [this] { return add_bank_battery(document_.plan()); });
    add(say("DC-DC charger to the second battery"), say("charger"),
        [this] { return add_charger(document_.plan()); });
    add(say("Shore charger"), say("shore charger"), [this] { return add_shore(document_.plan()); });
    add(say("Solar panel with its controller"), say("solar panel"),
        [this] { return add_solar(document_.plan()); });
    add(say("Inverter"), say("inverter"), [this] { return add_inverter(document_.plan()); });
    group(say("Between the batteries"));
    add(say("Sensing relay"), say("sensing relay"),
        [this] { return add_link(document_.plan(), Link::sensing_relay); });
    add(say("Ignition contactor"), say("contactor"),
        [this] { return add_link(document_.plan(), Link::contactor); });
    add(say("Isolator"), say("isolator"), [this] { return add_link(document_.plan(), Link::isolator); });
    group(say("Feeds and boxes"));
    menu->addAction(say("Control box …"), this, [this] { BoxDialog(&document_, this).exec(); });
    add(say("Feed, always live"), say("feed"), [this] { return add_feed(document_.plan(), {}); });
    add(say("Feed, with the key at accessory"), say("accessory feed"), [this] {
        return add_feed(document_.plan(), {Key::accessory, Engine::any, {}});
    });
    add(say("Feed, with the key at ignition"), say("ignition feed"), [this] {
        return add_feed(document_.plan(), {Key::ignition, Engine::any, {}});
    });
    add(say("Contactors that turn the selected motor both ways"), say("reversing pair"),
        [this] { return add_reversing_pair(document_.plan(), document_.selection().id()); });
    group(say("Cables, studs and connectors"));
    menu->addAction(say("Cable, strap or link between two ends …"), this,
                    [this] { CableDialog(&document_, this).exec(); });
    add(say("Stud to land cables on"), say("stud"),
        [this] { return add_point(document_.plan(), PointKind::stud, "stud"); });
    add(say("Splice of several ends"), say("splice"),
        [this] { return add_point(document_.plan(), PointKind::splice, "splice"); });
    add(say("Connector with pins"), say("connector"), [this] { return add_connector(document_.plan(), {}); });
    for (const Socket& socket : sockets())
        add(q(words::capital(socket.name)), q(socket.name),
            [this, key = socket.key] { return add_connector(document_.plan(), key); });
    add(say("Cable of several cores"), say("cable of several cores"),
        [this] { return add_jacket(document_.plan()); });
    group(say("Metal and grounds"));
    add(say("Ground point"), say("ground point"), [this] { return add_ground(document_.plan()); });
    add(say("Part of the chassis"), say("chassis part"),
        [this] { return add_point(document_.plan(), PointKind::chassis, "chassis part"); });
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

// A choice puts the set's typed form on the line, its marks ready to be changed.
void MainWindow::fill_sets_menu(QMenu* menu) {
    menu->clear();
    for (const SetEntry& set : library().sets)
        menu->addAction(q(set.name) + (set.own ? say(", my own") : QString()), this,
                        [this, line = q(typed_form(set))] { type_line_->take_entry(line); });
    menu->addSeparator();
    menu->addAction(say("Keep what is chosen as a set, or change one …"), this, [this] {
        auto* dialog = new SetDialog(&document_, selected_lines(), this);
        dialog->setAttribute(Qt::WA_DeleteOnClose);
        dialog->open();
    });
}

void MainWindow::fill_options_menu(QMenu* menu) {
    menu->clear();
    const auto show = [this, menu](const QString& name, const Id& id) {
        QAction* a = menu->addAction(name, this, [this, id, name] {
            if (document_.store().stored().active != id) document_.apply(SetActive{id}, say("show ") + name);
        });
        a->setCheckable(true);
        a->setChecked(document_.store().stored().active == id);
    };
    show(say("as planned"), {});
    for (const Variant& v : document_.store().stored().variants) show(q(v.name), v.id);
    menu->addSeparator();
    menu->addAction(say("New option from what is shown …"), this, &MainWindow::ask_new_option);
    if (const Variant* v = yr::find(document_.store().stored().variants, document_.store().stored().active)) {
        menu->addAction(say("Take “%1” out").arg(q(v->name)), this, [this, id = v->id, name = v->name] {
            document_.apply(Batch{{SetActive{{}}, Remove<Variant>{id}}}, say("take out option ") + q(name));
        });
        menu->addAction(say("Make “%1” the plan").arg(q(v->name)), this, [this, name = v->name] {
            const Plan chosen = with_variant(document_.store().stored(), document_.store().stored().active);
            document_.apply(plan_becomes(document_.store().stored(), chosen), q(name + " becomes the plan"));
        });
    }
    if (document_.store().stored().variants.empty()) return;
    for (Workspace* w : workspaces_)
        for (const WorkspaceView& v : w->views())
            if (!v.title.isEmpty())
                menu->addAction(v.title, this, [this, w, view = v.key] { go_to(w->key(), view); });
}

void MainWindow::ask_new_option() {
    bool given = false;
    const QString name = QInputDialog::getText(this, say("New option"),
                                               say("What is it called? What you change from here on stays "
                                                   "in it; the plan as it stands stays as it is."),
                                               QLineEdit::Normal, {}, &given);
    if (given && !name.trimmed().isEmpty()) new_option(name.trimmed());
}

void MainWindow::fill_menus() {
    connect(top_->plan_menu(), &QMenu::aboutToShow, this, [this] { fill_plan_menu(top_->plan_menu()); });
    connect(top_->options_menu(), &QMenu::aboutToShow, this,
            [this] { fill_options_menu(top_->options_menu()); });
    fill_add_menu(top_->add_menu());
    QMenu* more = top_->more_menu();
    more->addAction(say("Rules of this plan"), this, [this] { document_.selection().choose(kRulesId); });
    more->addAction(say("Bench or night\tCtrl+D"), this, &MainWindow::switch_look);
    more->addAction(say("Preferences …"), this, [this] {
        Preferences dialog(this);
        connect(&dialog, &Preferences::look_asked, this, &MainWindow::switch_look);
        dialog.exec();
    });
    QMenu* help = top_->help_menu();
    help->addAction(say("This workspace\tShift+F1"), this, [this] { show_help(open_->key()); });
    help->addSeparator();
    for (const HelpPage& page : help_pages())
        help->addAction(page.title, this, [this, key = page.key] { show_help(key); });
    help->addSeparator();
    help->addAction(say("Keys\t?"), this, [this] { show_shortcuts(this); });
    help->addAction(say("About and cautions"), this, [this] { show_about(this); });
}

void MainWindow::show_help(const QString& key) {
    if (!help_) help_ = new HelpWindow(key, this);
    help_->open_page(key);
    help_->show();
    help_->raise();
}

}  // namespace yr::app
