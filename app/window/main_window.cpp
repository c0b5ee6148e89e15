#include "window/main_window.h"
#include "notes/piece.h"
#include "notes/plan_text.h"
#include "window/find_box.h"
#include "window/notes_dialog.h"

#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QRegularExpression>
#include <QSettings>
#include <QSplitter>

#include "document/own_library.h"
#include "plan/variant.h"
#include "widgets/spoken_parts.h"
#include "widgets/tokens.h"
#include "widgets/whole_text.h"
#include "window/dialogs.h"

namespace yr::app {
namespace {

const QString kAllStates = QStringLiteral("all_states");  // the view behind the state bar's word

}  // namespace

MainWindow::MainWindow(const QString& autosave_folder, const std::vector<WorkspaceKind>& kinds,
                       QWidget* parent)
    : QMainWindow(parent) {
    const StyledWhenMade at_the_end;
    resize(1280, 800);
    setMinimumSize(960, 600);
    tell_whole_texts();
    tell_screen_readers();
    setWindowIcon(QIcon(QStringLiteral(":/icons/your-rail.svg")));
    messages_ = new MessageBar;
    top_ = new TopLine(&document_);
    states_ = new StateBar(&document_);
    type_line_ = new TypeLine(&document_);
    list_ = new PlanList(&document_);
    findings_ = new FindingsStrip(&document_);
    details_ = new DetailsPanel(&document_);
    why_ = new WhyPopup(this);

    // Whatever is moved into another part is styled anew with all that is inside: each part stands where it
    // belongs before it is filled.
    auto* central = new QWidget(this);
    central->setObjectName(QStringLiteral("paper"));
    setCentralWidget(central);
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(top_);
    auto* body = new QHBoxLayout;
    body->setSpacing(0);
    column->addLayout(body, 1);
    body->addWidget(make_left(central));
    auto* middle = new QWidget(central);
    body->addWidget(middle, 1);
    fill_middle(middle, kinds);
    fill_menus();
    make_actions();
    connect_parts();
    if (Workspace* first = with_view(kAllStates)) go_to(first->key());
    if (!library_problem().isEmpty()) messages_->say(library_problem());
    if (!autosave_folder.isEmpty()) recovery_ = std::make_unique<Recovery>(&document_, autosave_folder);
    refresh_title();
}

// A field that loses its focus while the window goes would still hand in what stands in it, to members that
// are gone.
MainWindow::~MainWindow() {
    for (QLineEdit* edit : findChildren<QLineEdit*>()) edit->blockSignals(true);
}

void MainWindow::make_workspaces(const std::vector<WorkspaceKind>& kinds) {
    for (const WorkspaceKind& kind : kinds) {
        Workspace* w = kind.make(&document_);
        workspaces_.push_back(w);
        pages_->addWidget(w);
        top_->add_workspace(w->key(), w->name());
        if (QWidget* corner = w->corner()) top_->add_corner(corner);
        connect(w, &Workspace::said, this, [this](const QString& text) { messages_->say(text); });
        connect(w, &Workspace::go_to, this, &MainWindow::go_to);
        connect(w, &Workspace::why, this, &MainWindow::ask_why);
        connect(w, &Workspace::remove_asked, this, &MainWindow::remove_thing);
    }
}

QWidget* MainWindow::make_left(QWidget* parent) {
    left_ = new QWidget(parent);
    left_->setObjectName(QStringLiteral("panel"));
    left_->setAttribute(Qt::WA_StyledBackground);
    auto* column = new QVBoxLayout(left_);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    unfold_list_ = new QToolButton;
    unfold_list_->setObjectName(QStringLiteral("quiet"));
    unfold_list_->setMinimumHeight(32);
    connect(unfold_list_, &QToolButton::clicked, this, [this] {
        fold_list(!list_->isHidden());
        QSettings().setValue(folded_key(*open_, "list"), list_->isHidden());
    });
    column->addWidget(type_line_);
    column->addWidget(list_, 1);
    column->addWidget(unfold_list_, 0, Qt::AlignRight);
    return left_;
}

void MainWindow::fill_middle(QWidget* middle, const std::vector<WorkspaceKind>& kinds) {
    auto* column = new QVBoxLayout(middle);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(states_);
    split_ = new QSplitter(Qt::Vertical, middle);
    column->addWidget(split_, 1);
    picture_ = new QWidget(split_);
    auto* picture_row = new QHBoxLayout(picture_);
    picture_row->setContentsMargins(0, 0, 0, 0);
    picture_row->setSpacing(0);
    pages_ = new QStackedWidget(picture_);
    picture_row->addWidget(pages_, 1);
    make_workspaces(kinds);
    details_side_ = new QWidget(picture_);
    auto* details_row = new QHBoxLayout(details_side_);
    details_row->setContentsMargins(0, 0, 0, 0);
    details_row->addWidget(details_);
    picture_row->addWidget(details_side_);
    details_over_ = new Afloat(details_, picture_, Afloat::Edge::right);
    messages_->setParent(picture_);
    new Afloat(messages_, picture_, Afloat::Edge::top);
    split_->addWidget(findings_);
    split_->setStretchFactor(0, 1);
    split_->setChildrenCollapsible(false);
    split_->setHandleWidth(3);
    split_->setSizes({548, 158});
}

void MainWindow::show_around(const Workspace::Surroundings& around) {
    states_->setVisible(around.states);
    findings_->setVisible(around.findings);
    QWidget* home = around.details_over ? picture_ : details_side_;
    if (details_->parentWidget() != home) {
        details_->setObjectName(around.details_over ? QStringLiteral("floating") : QStringLiteral("panel"));
        if (around.details_over)
            details_side_->layout()->removeWidget(details_), details_->setParent(picture_);
        else
            details_side_->layout()->addWidget(details_);
        details_->look_again();
    }
    details_side_->setVisible(around.details && !around.details_over);
    if (!around.details) details_->hide();
    fold_findings(QSettings().value(folded_key(*open_, "findings"), around.findings_folded).toBool());
    fold_list(QSettings().value(folded_key(*open_, "list"), false).toBool());
}

QString MainWindow::folded_key(const Workspace& w, const char* part) {
    return QStringLiteral("folded/%1 %2 %3").arg(w.key(), w.open_view(), QLatin1String(part));
}

void MainWindow::fold_findings(bool folded) {
    if (folded == findings_->folded()) return;
    if (folded) open_sizes_ = split_->sizes();
    findings_->fold(folded);
    // what the one leaves, the other takes
    constexpr int everything = 100000;
    split_->setSizes(folded ? QList<int>{everything, findings_->maximumHeight()} : open_sizes_);
}

// To an edge; the type line goes with it and comes back by Ctrl+L.
void MainWindow::fold_list(bool folded) {
    type_line_->setVisible(!folded);
    list_->setVisible(!folded);
    left_->setFixedWidth(folded ? 36 : 272);
    unfold_list_->setText(folded ? QStringLiteral("»") : say("Fold away  F9"));
    unfold_list_->setToolTip(folded ? say("Show the list (F9)") : QString());
    unfold_list_->setAccessibleName(folded ? say("Show the list") : say("Fold the list away"));
}

// Over that half of the picture in which the chosen thing is not.
void MainWindow::place_details() {
    const QRect where = open_ ? open_->where_is(document_.selection().id()) : QRect();
    const bool covered = where.isValid() && where.center().x() > picture_->width() - details_->width();
    details_over_->move_to(covered ? Afloat::Edge::left : Afloat::Edge::right);
}

void MainWindow::connect_parts() {
    connect(&document_.store(), &PlanStore::refused, this,
            [this](const QString& text) { messages_->say(text); });
    connect(&document_.store(), &PlanStore::edited, this, &MainWindow::refresh_title);
    connect(&document_.store(), &PlanStore::renamed, this, &MainWindow::refresh_title);
    connect(document_.store().undo_stack(), &QUndoStack::cleanChanged, this, &MainWindow::refresh_title);
    connect(top_, &TopLine::workspace_asked, this, [this](const QString& key) { go_to(key); });
    connect(list_, &PlanList::why, this, &MainWindow::ask_why);
    connect(&document_.selection(), &Selection::chosen, this, &MainWindow::place_details);
    connect(findings_, &FindingsStrip::fold_asked, this, [this] {
        fold_findings(!findings_->folded());
        QSettings().setValue(folded_key(*open_, "findings"), findings_->folded());
    });
    connect(details_, &DetailsPanel::why, this, &MainWindow::ask_why);
    connect(list_, &PlanList::remove_asked, this, &MainWindow::remove_chosen);
    connect(type_line_, &TypeLine::page_pasted, this, &MainWindow::paste_lines);
    connect(details_, &DetailsPanel::remove_asked, this, &MainWindow::remove_thing);
    connect(states_, &StateBar::all_states_changed, this, [this](bool on) {
        Workspace* w = with_view(kAllStates);
        const bool shown = open_ == w && w && w->open_view() == kAllStates;
        if (w && on != shown) go_to(w->key(), on ? kAllStates : QString());
    });
    connect(findings_, &FindingsStrip::workspace_asked, this, &MainWindow::go_to);
    connect(findings_, &FindingsStrip::why_finding, this, [this](const Finding& f, const QPoint& where) {
        why_->show_answers({words::explain(f, document_.plan(), document_.inspector().inspection().solutions,
                                           document_.style())},
                           where);
    });
}

void MainWindow::shortcut(const QString& keys, const std::function<void()>& what) {
    auto* a = new QAction(this);
    a->setShortcut(QKeySequence(keys));
    addAction(a);
    connect(a, &QAction::triggered, this, what);
}

void MainWindow::make_actions() {
    QUndoStack* stack = document_.store().undo_stack();
    shortcut(QStringLiteral("Ctrl+Z"), [stack] { stack->undo(); });
    shortcut(QStringLiteral("Ctrl+Shift+Z"), [stack] { stack->redo(); });
    shortcut(QStringLiteral("Ctrl+Y"), [stack] { stack->redo(); });
    shortcut(QStringLiteral("Ctrl+N"), [this] { new_plan(); });
    shortcut(QStringLiteral("Ctrl+Shift+N"), [this] { from_notes(); });
    shortcut(QStringLiteral("Ctrl+C"), [this] { copy_selected(); });
    shortcut(QStringLiteral("Ctrl+X"), [this] { cut_selected(); });
    shortcut(QStringLiteral("Ctrl+V"), [this] { paste_lines(QApplication::clipboard()->text()); });
    shortcut(QStringLiteral("Ctrl+Shift+D"), [this] { duplicate_selected(); });
    shortcut(QStringLiteral("Ctrl+F"), [this] {
        auto* box = new FindBox(&document_, this);
        box->setAttribute(Qt::WA_DeleteOnClose);
        box->open();
    });
    shortcut(QStringLiteral("Ctrl+O"), [this] { open_dialog(); });
    shortcut(QStringLiteral("Ctrl+S"), [this] { save(); });
    shortcut(QStringLiteral("Ctrl+Shift+S"), [this] { save_as(); });
    shortcut(QStringLiteral("Ctrl+L"), [this] {
        fold_list(false);
        type_line_->edit()->setFocus();
    });
    shortcut(QStringLiteral("Shift+F1"), [this] { show_help(open_->key()); });
    shortcut(QStringLiteral("Ctrl+Shift+C"), [this] { QApplication::clipboard()->setPixmap(open_->grab()); });
    shortcut(QStringLiteral("F8"), [this] {
        fold_findings(!findings_->folded());
        QSettings().setValue(folded_key(*open_, "findings"), findings_->folded());
    });
    shortcut(QStringLiteral("F9"), [this] {
        fold_list(!list_->isHidden());
        QSettings().setValue(folded_key(*open_, "list"), list_->isHidden());
    });
    shortcut(QStringLiteral("Ctrl+U"), [this] { top_->switch_units(); });
    shortcut(QStringLiteral("Ctrl+D"), [this] { switch_look(); });
    shortcut(QStringLiteral("Ctrl+Q"), [this] { close(); });
    shortcut(QStringLiteral("?"), [this] { show_shortcuts(this); });
    // workspaces first, then those of their views that have keys of their own
    int number = 0;
    // Alt+1 to 9, then 0; what comes after that has none
    const auto numbered = [&number, this](const std::function<void()>& go) {
        if (++number <= 10) shortcut(QStringLiteral("Alt+%1").arg(number % 10), go);
    };
    for (Workspace* w : workspaces_) numbered([this, w] { go_to(w->key()); });
    for (Workspace* w : workspaces_)
        for (const WorkspaceView& v : w->views())
            if (v.own_keys) numbered([this, w, view = v.key] { go_to(w->key(), view); });
}

Workspace* MainWindow::with_view(const QString& view) const {
    for (Workspace* w : workspaces_)
        if (w->has_view(view)) return w;
    return workspaces_.empty() ? nullptr : workspaces_.front();
}

void MainWindow::go_to(const QString& key, const QString& view) {
    for (Workspace* w : workspaces_) {
        if (w->key() != key || !w->open_view(view)) continue;
        if (open_ && open_ != w && open_->corner()) open_->corner()->hide();
        open_ = w;
        top_->show_workspace(key);  // before the page, whose first opening may take its time
        pages_->setCurrentWidget(w);
        const auto around = w->surroundings();
        show_around(around);
        states_->set_all_states(view == kAllStates);
        w->entered();
    }
}

void MainWindow::new_option(const QString& name) {
    const Plan& stored = document_.store().stored();
    const Id id = new_id(stored, "variant");
    const Plan shown = with_variant(stored, stored.active);
    Variant v = difference(with_variant(stored, {}), shown, id, name.toStdString());
    document_.apply(Batch{{Put<Variant>{v, {}}, SetActive{id}}}, say("new option %1").arg(name));
}

void MainWindow::ask_why(const std::vector<words::ValueRef>& refs, const QPoint& global) {
    std::vector<words::Explanation> answers;
    answers.reserve(refs.size());
    for (const auto& ref : refs) answers.push_back(document_.shown().why(ref));
    why_->show_answers(answers, global);
}

void MainWindow::remove_thing(const Id& id) {
    const QString name = q(yr::name_of(document_.plan(), id));
    if (document_.apply(remove_with_runs(document_.plan(), id), say("take out %1").arg(name)))
        document_.selection().choose({});
}

// What is chosen as lines: loads as they are typed, where nothing else is chosen; else each thing as it
// stands in notes, with the cables that belong to it.
QString MainWindow::selected_lines() const {
    const Plan& plan = document_.plan();
    const std::vector<Id> chosen = list_->chosen();
    QStringList typed;
    for (const Id& id : chosen)
        if (const Load* load = yr::find(plan.loads, id)) typed << q(typed_text(plan, *load));
    if (typed.size() == static_cast<qsizetype>(chosen.size())) return typed.join(QLatin1Char('\n'));
    return q(piece_text(plan, chosen)).trimmed();
}

void MainWindow::copy_selected() {
    if (const QString lines = selected_lines(); !lines.isEmpty()) QApplication::clipboard()->setText(lines);
}

void MainWindow::cut_selected() {
    copy_selected();
    remove_chosen();
}

// One step, whatever hangs on it gone with it.
void MainWindow::remove_chosen() {
    Plan without = document_.plan();
    const std::vector<Id> chosen = list_->chosen();
    for (const Id& id : chosen)
        if (const auto done = yr::apply(without, remove_with_runs(without, id)); !done)
            return document_.store().refuse(q(words::sentence(done.error())));
    if (chosen.empty()) return;
    const QString name = chosen.size() == 1
                             ? q(yr::name_of(document_.plan(), chosen.front()))
                             : q(words::say_n("{0} thing", "{0} things", static_cast<long>(chosen.size())));
    if (document_.apply(edit_between(document_.plan(), without), say("take out %1").arg(name)))
        document_.selection().choose({});
}

// Lines that are all understood are added as one step; others are shown as a page of notes, ready to be put
// right.
void MainWindow::paste_lines(const QString& text) {
    if (text.trimmed().isEmpty()) return;
    const Notes notes = read_notes(document_.plan(), text.toStdString(), &library());
    const bool whole = std::any_of(notes.lines.begin(), notes.lines.end(), [](const NoteLine& l) {
        return l.thing && l.text.starts_with("vehicle ");
    });
    if (notes.bad() == 0 && !whole) {
        document_.apply(edit_between(document_.plan(), notes.plan), say("paste"));
        return;
    }
    auto* dialog = new NotesDialog(&document_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->on_top()->setChecked(!whole);
    dialog->page()->setPlainText(text);
    connect(dialog, &NotesDialog::plan_taken, this, [this](const Plan& plan) {
        if (may_leave()) take_plan(plan);
    });
    dialog->open();
}

// One more of what is chosen, under a name of its own. A load's channel holds one: its feed is chosen anew.
void MainWindow::duplicate_selected() {
    const Load* load = yr::find(document_.plan().loads, document_.selection().id());
    if (!load || list_->chosen().size() > 1)
        return paste_lines(q(piece_text(document_.plan(), list_->chosen())));
    std::string name;
    for (int n = 2; name.empty(); ++n) {
        name = load->name + " " + std::to_string(n);
        for (const Load& l : document_.plan().loads)
            if (l.name == name) name.clear();
    }
    QString line = selected_lines();
    line.remove(QRegularExpression(QStringLiteral(",? (from|channel) [^,]*")));
    const QString head = q(load->name);
    line.replace(line.startsWith(QLatin1Char('"')) ? 1 : 0, head.size(), q(name));
    if (!line.startsWith(QLatin1Char('"')))
        line.replace(0, static_cast<int>(name.size()), q("\"" + name + "\""));
    paste_lines(line);
}

void MainWindow::switch_look() {
    use_look(!tokens().night);
    QSettings().setValue(QStringLiteral("night"), tokens().night);
    emit document_.inspector().inspected();  // rows hold their colours
    update();
}

}  // namespace yr::app

#include "moc_main_window.cpp"
