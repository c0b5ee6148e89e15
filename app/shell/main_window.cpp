#include "shell/main_window.h"

#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStyle>

#include "paint/tokens.h"
#include "plan/variant.h"
#include "shell/dialogs.h"
#include "shell/own_library.h"
#include "shell/plan_files.h"

namespace yr::app {
namespace {

const QString kFilter = QStringLiteral("Your Rail plans (*.yourrail.json);;All files (*)");

// A workspace's word; a bar stands under the open one.
class PlaceWord : public QToolButton {
  public:
    explicit PlaceWord(const QString& text) {
        setText(text);
        setCheckable(true);
        setFont(type_font(Type::bold));
        setFixedSize(QFontMetrics(font()).horizontalAdvance(text) + 16, 32);
        setAccessibleName(text);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setFont(font());
        p.setPen(isChecked() ? tokens().ink : tokens().soft);
        p.drawText(rect(), Qt::AlignCenter, text());
        if (isChecked()) p.fillRect(QRect(0, height() - 4, width(), 3), tokens().source);
        if (hasFocus())
            p.setPen(QPen(tokens().soft, 1, Qt::DotLine)), p.drawRect(rect().adjusted(1, 1, -2, -2));
    }
};

QToolButton* tool(const QString& text, const QString& tip, const QString& name) {
    auto* b = new QToolButton;
    b->setText(text);
    b->setToolTip(tip);
    b->setAccessibleName(name);
    b->setMinimumSize(32, 32);
    return b;
}

QToolButton* menu_button(const QString& text, QMenu* menu) {
    QToolButton* b = tool(text, {}, text);
    b->setMenu(menu);
    b->setPopupMode(QToolButton::InstantPopup);
    return b;
}

}  // namespace

MainWindow::MainWindow(const QString& autosave_folder, QWidget* parent) : QMainWindow(parent) {
    resize(1280, 800);
    setMinimumSize(1024, 640);
    setWindowIcon(QIcon(QStringLiteral(":/icons/your-rail.svg")));
    messages_ = new MessageBar;
    chart_ = new RailChart(&document_);
    survey_ = new SurveyPage(&document_);
    compare_ = new CompareView(&document_);
    worst_ = new WorstView(&document_);
    control_ = new ControlPage(&document_);
    runs_ = new RunsPage(&document_);
    guard_ = new GuardPage(&document_);
    states_ = new StateBar(&document_);
    pages_ = new QStackedWidget;
    for (QWidget* p :
         {static_cast<QWidget*>(chart_), static_cast<QWidget*>(worst_), static_cast<QWidget*>(compare_),
          static_cast<QWidget*>(survey_), static_cast<QWidget*>(control_), static_cast<QWidget*>(runs_),
          static_cast<QWidget*>(guard_)})
        pages_->addWidget(p);
    type_line_ = new TypeLine(&document_);
    list_ = new PlanList(&document_);
    findings_ = new FindingsStrip(&document_);
    findings_->setMinimumHeight(96);
    details_ = new DetailsPanel(&document_);
    why_ = new WhyPopup(this);

    auto* left = new QWidget;
    left->setObjectName(QStringLiteral("panel"));
    left->setAttribute(Qt::WA_StyledBackground);
    left->setFixedWidth(272);
    auto* left_column = new QVBoxLayout(left);
    left_column->setContentsMargins(0, 0, 0, 0);
    left_column->setSpacing(0);
    left_column->addWidget(type_line_);
    left_column->addWidget(list_, 1);

    auto* picture = new QWidget;
    auto* picture_row = new QHBoxLayout(picture);
    picture_row->setContentsMargins(0, 0, 0, 0);
    picture_row->setSpacing(0);
    picture_row->addWidget(pages_, 1);
    details_side_ = new QWidget;
    auto* details_row = new QHBoxLayout(details_side_);
    details_row->setContentsMargins(0, 0, 0, 0);
    details_row->addWidget(details_);
    picture_row->addWidget(details_side_);
    auto* split = new QSplitter(Qt::Vertical);
    split->addWidget(picture);
    split->addWidget(findings_);
    split->setStretchFactor(0, 1);
    split->setChildrenCollapsible(false);
    split->setHandleWidth(3);
    split->setSizes({548, 158});

    auto* middle = new QWidget;
    auto* middle_column = new QVBoxLayout(middle);
    middle_column->setContentsMargins(0, 0, 0, 0);
    middle_column->setSpacing(0);
    middle_column->addWidget(states_);
    middle_column->addWidget(messages_);
    middle_column->addWidget(split, 1);

    auto* central = new QWidget;
    central->setObjectName(QStringLiteral("paper"));
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(make_top());
    auto* body = new QHBoxLayout;
    body->setSpacing(0);
    body->addWidget(left);
    body->addWidget(middle, 1);
    column->addLayout(body, 1);
    setCentralWidget(central);
    make_actions();
    chart_->setFocus();

    connect(&document_, &PlanDocument::refused, this, [this](const QString& s) { messages_->say(s); });
    connect(&document_, &PlanDocument::changed, this, &MainWindow::refresh_title);
    connect(document_.undo_stack(), &QUndoStack::cleanChanged, this, &MainWindow::refresh_title);
    connect(document_.undo_stack(), &QUndoStack::indexChanged, this, &MainWindow::refresh_title);
    connect(chart_, &RailChart::why, this, &MainWindow::ask_why);
    connect(list_, &PlanList::why, this, &MainWindow::ask_why);
    connect(details_, &DetailsPanel::why, this, &MainWindow::ask_why);
    connect(chart_, &RailChart::remove_asked, this, &MainWindow::remove_load);
    connect(list_, &PlanList::remove_asked, this, &MainWindow::remove_load);
    connect(details_, &DetailsPanel::remove_asked, this, &MainWindow::remove_load);
    connect(states_, &StateBar::all_states_changed, this, [this](bool on) {
        if (on != (page_ == Page::all_states)) show_page(on ? Page::all_states : Page::rail);
    });
    connect(worst_, &WorstView::state_asked, this, [this](int index) {
        document_.set_state(index);
        show_page(Page::rail);
    });
    connect(survey_, &SurveyPage::said, this, [this](const QString& text) { messages_->say(text); });
    connect(control_, &ControlPage::said, this, [this](const QString& text) { messages_->say(text); });
    connect(runs_, &RunsPage::said, this, [this](const QString& text) { messages_->say(text); });
    connect(guard_, &GuardPage::said, this, [this](const QString& text) { messages_->say(text); });
    connect(control_, &ControlPage::rail_asked, this, [this] { show_page(Page::rail); });
    connect(compare_->left(), &RailChart::why, this, &MainWindow::ask_why);
    connect(compare_->right(), &RailChart::why, this, &MainWindow::ask_why);
    connect(chart_, &RailChart::window_changed, this,
            [this] { whole_->setVisible(page_ == Page::rail && !chart_->window_A().whole()); });
    connect(findings_, &FindingsStrip::why_finding, this, [this](const Finding& f, const QPoint& where) {
        why_->show_answers(
            {words::explain(f, document_.plan(), document_.inspection().solutions, document_.style())},
            where);
    });
    if (!library_problem().isEmpty()) messages_->say(library_problem());
    if (!autosave_folder.isEmpty()) recovery_ = std::make_unique<Recovery>(&document_, autosave_folder);
    refresh_title();
}

// A field that loses its focus while the window goes would still hand in what stands in it, to members that
// are gone.
MainWindow::~MainWindow() {
    for (QLineEdit* edit : findChildren<QLineEdit*>()) edit->blockSignals(true);
}

QWidget* MainWindow::make_top() {
    auto* top = new QWidget;
    auto* row = new QHBoxLayout(top);
    row->setContentsMargins(16, 8, 12, 8);
    row->setSpacing(4);
    title_ = new QLineEdit;
    title_->setFrame(false);
    title_->setFont(type_font(Type::title));
    title_->setStyleSheet(QStringLiteral("QLineEdit { border: none; background: transparent; padding: 0; }"));
    title_->setFixedWidth(256);
    title_->setAccessibleName(QStringLiteral("Name of the vehicle"));
    title_->setToolTip(QStringLiteral("The vehicle's name; click to change it"));
    connect(title_, &QLineEdit::editingFinished, this, [this] {
        if (!title_->isModified()) return;
        title_->setModified(false);
        Vehicle v = document_.plan().vehicle;
        v.name = title_->text().trimmed().toStdString();
        if (!v.name.empty()) document_.apply(SetVehicle{v}, QStringLiteral("vehicle named ") + q(v.name));
        refresh_title();
    });
    survey_word_ = new PlaceWord(QStringLiteral("Survey"));
    rail_word_ = new PlaceWord(QStringLiteral("Rail"));
    control_word_ = new PlaceWord(QStringLiteral("Control"));
    runs_word_ = new PlaceWord(QStringLiteral("Runs"));
    guard_word_ = new PlaceWord(QStringLiteral("Guard"));
    rail_word_->setChecked(true);
    connect(runs_word_, &QToolButton::clicked, this, [this] { show_page(Page::runs); });
    connect(guard_word_, &QToolButton::clicked, this, [this] { show_page(Page::guard); });
    connect(control_word_, &QToolButton::clicked, this, [this] { show_page(Page::control); });
    connect(survey_word_, &QToolButton::clicked, this, [this] { show_page(Page::survey); });
    connect(rail_word_, &QToolButton::clicked, this, [this] { show_page(Page::rail); });
    whole_ = tool(QStringLiteral("Whole rail"), QStringLiteral("Back from this feed (Escape)"),
                  QStringLiteral("Back to the whole rail"));
    whole_->setObjectName(QStringLiteral("mend"));
    whole_->hide();
    connect(whole_, &QToolButton::clicked, chart_, &RailChart::look_at_all);
    undo_ = tool(QStringLiteral("↶"), {}, QStringLiteral("Undo"));
    redo_ = tool(QStringLiteral("↷"), {}, QStringLiteral("Redo"));
    connect(undo_, &QToolButton::clicked, document_.undo_stack(), &QUndoStack::undo);
    connect(redo_, &QToolButton::clicked, document_.undo_stack(), &QUndoStack::redo);
    units_ = tool({}, QStringLiteral("Which units lead (Ctrl+U)"), QStringLiteral("Units"));
    connect(units_, &QToolButton::clicked, this, &MainWindow::switch_units);
    auto* plan_menu = new QMenu(this);
    connect(plan_menu, &QMenu::aboutToShow, this, [this, plan_menu] { fill_plan_menu(plan_menu); });
    auto* options_menu = new QMenu(this);
    connect(options_menu, &QMenu::aboutToShow, this,
            [this, options_menu] { fill_options_menu(options_menu); });
    options_ = menu_button(QStringLiteral("as planned"), options_menu);
    options_->setAccessibleName(QStringLiteral("Option that is shown"));
    auto* add_menu = new QMenu(this);
    fill_add_menu(add_menu);
    auto* help_menu = new QMenu(this);
    help_menu->addAction(QStringLiteral("Keys\t?"), this, [this] { show_shortcuts(this); });
    help_menu->addAction(QStringLiteral("Rules of this plan"), this, [this] { document_.select(kRulesId); });
    help_menu->addAction(QStringLiteral("Bench or night\tCtrl+D"), this, &MainWindow::switch_look);
    help_menu->addAction(QStringLiteral("About and cautions"), this, [this] { show_about(this); });
    row->addWidget(title_);
    row->addWidget(survey_word_);
    row->addWidget(rail_word_);
    row->addWidget(control_word_);
    row->addWidget(runs_word_);
    row->addWidget(guard_word_);
    row->addSpacing(8);
    row->addWidget(whole_);
    row->addStretch();
    row->addWidget(options_);
    row->addWidget(menu_button(QStringLiteral("Plan"), plan_menu));
    row->addWidget(menu_button(QStringLiteral("Add"), add_menu));
    row->addWidget(menu_button(QStringLiteral("More"), help_menu));
    row->addSpacing(8);
    row->addWidget(units_);
    row->addWidget(undo_);
    row->addWidget(redo_);
    return top;
}

void MainWindow::make_actions() {
    const auto act = [this](const QString& keys, auto&& what) {
        auto* a = new QAction(this);
        a->setShortcut(QKeySequence(keys));
        addAction(a);
        connect(a, &QAction::triggered, this, what);
    };
    act(QStringLiteral("Ctrl+Z"), [this] { document_.undo_stack()->undo(); });
    act(QStringLiteral("Ctrl+Shift+Z"), [this] { document_.undo_stack()->redo(); });
    act(QStringLiteral("Ctrl+Y"), [this] { document_.undo_stack()->redo(); });
    act(QStringLiteral("Ctrl+N"), [this] {
        if (may_leave()) document_.open(empty_plan("New vehicle"), {});
    });
    act(QStringLiteral("Ctrl+O"), [this] { open_dialog(); });
    act(QStringLiteral("Ctrl+S"), [this] { save(); });
    act(QStringLiteral("Ctrl+Shift+S"), [this] { save_as(); });
    act(QStringLiteral("Ctrl+L"), [this] { type_line_->edit()->setFocus(); });
    act(QStringLiteral("Ctrl+U"), [this] { switch_units(); });
    act(QStringLiteral("Ctrl+D"), [this] { switch_look(); });
    act(QStringLiteral("Ctrl+Q"), [this] { close(); });
    act(QStringLiteral("Alt+1"), [this] { show_page(Page::survey); });
    act(QStringLiteral("Alt+2"), [this] { show_page(Page::rail); });
    act(QStringLiteral("Alt+3"), [this] { show_page(Page::control); });
    act(QStringLiteral("Alt+4"), [this] { show_page(Page::runs); });
    act(QStringLiteral("Alt+5"), [this] { show_page(Page::guard); });
    act(QStringLiteral("Alt+6"), [this] { show_page(Page::compare); });
    act(QStringLiteral("?"), [this] { show_shortcuts(this); });
}

void MainWindow::show_page(Page page) {
    page_ = page;
    pages_->setCurrentIndex(page == Page::rail         ? 0
                            : page == Page::all_states ? 1
                            : page == Page::compare    ? 2
                            : page == Page::survey     ? 3
                            : page == Page::control    ? 4
                            : page == Page::runs       ? 5
                                                       : 6);
    survey_word_->setChecked(page == Page::survey);
    control_word_->setChecked(page == Page::control);
    runs_word_->setChecked(page == Page::runs);
    guard_word_->setChecked(page == Page::guard);
    rail_word_->setChecked(page == Page::rail || page == Page::all_states || page == Page::compare);
    states_->setVisible(page != Page::survey && page != Page::control);
    // these two show the chosen thing themselves, on the whole width
    details_side_->setVisible(page != Page::runs && page != Page::guard);
    states_->set_all_states(page == Page::all_states);
    whole_->setVisible(page == Page::rail && !chart_->window_A().whole());
    if (page == Page::rail) chart_->setFocus();
    if (page == Page::survey) survey_->table()->setFocus();
    if (page == Page::control) control_->boxes()->setFocus();
    if (page == Page::runs) runs_->ladder()->setFocus();
    if (page == Page::guard) guard_->chart()->setFocus();
}

void MainWindow::new_option(const QString& name) {
    const Id id = new_id(document_.stored(), "variant");
    const Plan shown = with_variant(document_.stored(), document_.stored().active);
    Variant v = difference(with_variant(document_.stored(), {}), shown, id, name.toStdString());
    document_.apply(Batch{{Put<Variant>{v, {}}, SetActive{id}}}, QStringLiteral("new option ") + name);
}

void MainWindow::refresh_options() {
    const Variant* v = yr::find(document_.stored().variants, document_.stored().active);
    const QString name = v ? q(v->name) : QStringLiteral("as planned");
    options_->setText(QFontMetrics(options_->font()).elidedText(name, Qt::ElideRight, 170) +
                      QStringLiteral(" ▾"));
    options_->setToolTip(
        v ? QStringLiteral("Shown: %1. Changes stay in this option.").arg(name)
          : QStringLiteral("Shown: the plan as it stands. Other ways to do it are kept here."));
    options_->setObjectName(v ? QStringLiteral("mend") : QString());
    options_->style()->unpolish(options_);
    options_->style()->polish(options_);
}

void MainWindow::refresh_title() {
    refresh_options();
    const Plan& plan = document_.plan();
    if (!title_->isModified()) title_->setText(q(plan.vehicle.name)), title_->setCursorPosition(0);
    const QString file =
        document_.path().isEmpty() ? QStringLiteral("not saved yet") : QFileInfo(document_.path()).fileName();
    setWindowTitle(q(plan.vehicle.name) +
                   (document_.modified() ? QStringLiteral(" • ") : QStringLiteral(" – ")) + file +
                   QStringLiteral(" – Your Rail"));
    const QUndoStack* stack = document_.undo_stack();
    undo_->setToolTip(stack->canUndo() ? QStringLiteral("Undo: ") + stack->undoText()
                                       : QStringLiteral("Nothing to undo"));
    redo_->setToolTip(stack->canRedo() ? QStringLiteral("Redo: ") + stack->redoText()
                                       : QStringLiteral("Nothing to redo"));
    units_->setText(plan.policy.units == LeadUnits::metric ? QStringLiteral("m, mm²")
                                                           : QStringLiteral("ft, AWG"));
}

bool MainWindow::open_file(const QString& path) {
    auto plan = read_plan_file(path);
    if (!plan) {
        messages_->say(q(words::sentence(plan.error())) + QStringLiteral(" The open plan is as it was."));
        return false;
    }
    document_.open(std::move(*plan), path);
    chart_->look_at_all();
    remember_recent(path);
    return true;
}

void MainWindow::open_demo(const QString& resource) {
    document_.open(read_demo(resource), {});
    chart_->look_at_all();
}

bool MainWindow::save_to(const QString& path) {
    const auto saved = write_plan_file(document_.stored(), path);
    if (!saved) {
        messages_->say(q(words::sentence(saved.error())));
        return false;
    }
    document_.saved_as(path);
    if (recovery_) recovery_->write_now();
    remember_recent(path);
    return true;
}

bool MainWindow::save() {
    return document_.path().isEmpty() ? save_as() : save_to(document_.path());
}

bool MainWindow::save_as() {
    QString name = document_.path();
    if (name.isEmpty())
        name = q(document_.plan().vehicle.name).toLower().replace(QLatin1Char(' '), QLatin1Char('-')) +
               QStringLiteral(".yourrail.json");
    QString path = QFileDialog::getSaveFileName(this, QStringLiteral("Save the plan"), name, kFilter);
    if (path.isEmpty()) return false;
    if (QFileInfo(path).suffix().isEmpty()) path += QStringLiteral(".yourrail.json");
    return save_to(path);
}

void MainWindow::open_dialog() {
    if (!may_leave()) return;
    const QString path = QFileDialog::getOpenFileName(this, QStringLiteral("Open a plan"),
                                                      QFileInfo(document_.path()).path(), kFilter);
    if (!path.isEmpty()) open_file(path);
}

bool MainWindow::may_leave() {
    if (!document_.modified()) return true;
    QMessageBox box(this);
    box.setWindowTitle(QStringLiteral("Your Rail"));
    box.setText(
        q("The plan \u201C" + document_.plan().vehicle.name + "\u201D has changes that are not saved."));
    auto* save_it = box.addButton(QStringLiteral("Save"), QMessageBox::AcceptRole);
    auto* drop = box.addButton(QStringLiteral("Leave without saving"), QMessageBox::DestructiveRole);
    box.addButton(QStringLiteral("Stay here"), QMessageBox::RejectRole);
    box.exec();
    if (box.clickedButton() == save_it) return save();
    return box.clickedButton() == drop;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!may_leave()) {
        event->ignore();
        return;
    }
    recovery_.reset();  // ended in order: nothing to bring back
    event->accept();
}

void MainWindow::offer_recovery() {
    if (!recovery_) return;
    const auto lost = recovery_->found();
    if (lost.empty()) return;
    const Recoverable& last = lost.front();
    messages_->say(QStringLiteral("“%1” was not saved when the program ended on %2.")
                       .arg(last.vehicle, last.written.toString(QStringLiteral("d MMM, HH:mm"))),
                   {{QStringLiteral("Bring it back"), [this, last] { recovery_->bring_back(last); }},
                    {QStringLiteral("Throw it away"), [this, last] { recovery_->throw_away(last); }}});
}

void MainWindow::ask_why(const std::vector<words::ValueRef>& refs, const QPoint& global) {
    std::vector<words::Explanation> answers;
    answers.reserve(refs.size());
    for (const auto& ref : refs) answers.push_back(document_.why(ref));
    why_->show_answers(answers, global);
}

void MainWindow::remove_load(const Id& id) {
    const QString name = q(yr::name_of(document_.plan(), id));
    if (document_.apply(remove_with_runs(document_.plan(), id), QStringLiteral("take out ") + name))
        document_.select({});
}

void MainWindow::switch_units() {
    Policy p = document_.plan().policy;
    p.units = p.units == LeadUnits::metric ? LeadUnits::inch : LeadUnits::metric;
    document_.apply(SetPolicy{p}, p.units == LeadUnits::metric ? QStringLiteral("metric leads")
                                                               : QStringLiteral("inch leads"));
}

void MainWindow::switch_look() {
    use_look(!tokens().night);
    QSettings().setValue(QStringLiteral("night"), tokens().night);
    emit document_.findings_changed();  // rows hold their colours
    update();
}

}  // namespace yr::app
