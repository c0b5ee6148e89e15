#include "panels/state_bar.h"

#include <QShortcut>
#include <QToolButton>

#include "document/state_edits.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

StateBar::StateBar(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("States and conditions"));
    group_ = new QButtonGroup(this);
    outer_ = new QBoxLayout(QBoxLayout::LeftToRight, this);
    outer_->setContentsMargins(8, 6, 10, 2);
    outer_->setSpacing(4);
    auto* row = new QHBoxLayout;
    row->setSpacing(0);
    buttons_ = new QHBoxLayout;
    buttons_->setSpacing(0);
    conditions_ = new QHBoxLayout;
    conditions_->setSpacing(3);
    row->addLayout(buttons_);
    rest_ = new QToolButton;
    rest_->setMinimumHeight(32);
    rest_->setObjectName(QStringLiteral("state"));
    rest_->setPopupMode(QToolButton::InstantPopup);
    rest_->setMenu(new QMenu(rest_));
    rest_->setAccessibleName(say("More states"));
    rest_->hide();
    row->addWidget(rest_);
    all_ = new QToolButton;
    all_->setText(say("All states"));
    all_->setCheckable(true);
    all_->setMinimumHeight(32);
    all_->setObjectName(QStringLiteral("state"));
    all_->setSizePolicy(QSizePolicy::Minimum, QSizePolicy::Fixed);
    all_->setToolTip(say("Every load and run in its worst state (Ctrl+0)"));
    connect(all_, &QToolButton::clicked, this, &StateBar::set_all_states);
    connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+0")), this), &QShortcut::activated, this,
            [this] { set_all_states(!all_states()); });
    row->addWidget(all_);
    more_ = new QToolButton;
    QToolButton* more = more_;
    more->setText(QStringLiteral("…"));
    more->setMinimumHeight(32);
    more->setObjectName(QStringLiteral("state"));
    more->setToolTip(say("Key and switches of this state; new states"));
    more->setAccessibleName(say("Edit this state"));
    connect(more, &QToolButton::clicked, this, [this] {
        document_->selection().choose(
            document_->plan().states[static_cast<std::size_t>(document_->shown().state_index())].id);
    });
    row->addWidget(more);
    found_ = new QToolButton;
    found_->setText(say("as found  ✕"));
    found_->setAccessibleName(say("Leave what was found"));
    found_->setCheckable(true);
    found_->setChecked(true);
    found_->setMinimumHeight(32);
    found_->setObjectName(QStringLiteral("state"));
    found_->hide();
    connect(found_, &QToolButton::clicked, this, [this] {
        found_->setChecked(true);
        document_->shown().set_state(document_->shown().state_index());
    });
    row->addWidget(found_);
    row->addStretch();
    outer_->addLayout(row, 1);
    outer_->addLayout(conditions_);
    conditions_->setAlignment(Qt::AlignRight);
    add_condition(
        QStringLiteral("rpm"), say("Engine speed; 0 is stopped"), Dimension::speed, 0, 20000,
        [](const State& s) { return std::optional(s.rpm); }, [](State& s, double v) { s.rpm = v; });
    add_condition(
        QStringLiteral("ambient"), say("Air around the vehicle"), Dimension::temperature, -60, 150,
        [](const State& s) { return std::optional(s.ambient_C); },
        [](State& s, double v) { s.ambient_C = v; });
    add_condition(
        QStringLiteral("bay"), say("Air in the engine bay"), Dimension::temperature, -60, 150,
        [](const State& s) { return std::optional(s.engine_bay_C); },
        [](State& s, double v) { s.engine_bay_C = v; });
    add_condition(
        QStringLiteral("charge"), say("Charge of every battery in this state; empty: each battery's own"),
        Dimension::fraction, 0, 1, [](const State& s) { return s.charge; },
        [](State& s, double v) { s.charge = v < 0 ? std::nullopt : std::optional(v); });
    for (int k = 0; k < 9; ++k)
        connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+%1").arg(k + 1)), this),
                &QShortcut::activated, this, [this, k] { document_->shown().set_state(k); });
    connect(&document_->shown(), &ShownCircuit::shown, this, &StateBar::refresh);
    connect(group_, &QButtonGroup::idClicked, this, [this](int id) {
        set_all_states(false);
        document_->shown().set_state(id);
    });
    refresh();
}

void StateBar::add_condition(const QString& object_name, const QString& tip, Dimension dimension, double low,
                             double high, const std::function<std::optional<double>(const State&)>& get,
                             const std::function<void(State&, double)>& set) {
    auto* edit = new QLineEdit;
    edit->setObjectName(object_name);
    edit->setToolTip(tip);
    edit->setAccessibleName(tip);
    edit->setFixedWidth(object_name == QStringLiteral("charge")                                        ? 92
                        : object_name == QStringLiteral("bay") || object_name == QStringLiteral("rpm") ? 78
                                                                                                       : 70);
    edit->setAlignment(Qt::AlignRight);
    const QString suffix = object_name == QStringLiteral("bay")       ? say(" bay")
                           : object_name == QStringLiteral("charge")  ? say(" charge")
                           : object_name == QStringLiteral("ambient") ? say(" air")
                                                                      : QString();
    fields_.push_back({edit, [this, get, dimension, suffix](const State& s) {
                           auto v = get(s);
                           const auto& batteries = document_->shown().solution().network.batteries;
                           if (!v && !batteries.empty())
                               v = batteries.front().charge;  // each battery's own: the first is shown
                           return v ? q(words::quantity(*v, dimension, document_->style())) + suffix
                                    : QString();
                       }});
    conditions_->addWidget(edit);
    connect(edit, &QLineEdit::editingFinished, this,
            [this, edit, object_name, dimension, low, high, get, set, suffix] {
                if (!edit->isModified()) return;
                edit->setModified(false);
                QString text = edit->text().trimmed();
                if (!suffix.isEmpty() && text.endsWith(suffix.trimmed())) text.chop(suffix.trimmed().size());
                State s = document_->shown().state();
                const bool empty_allowed = object_name == QStringLiteral("charge") &&
                                           (text.isEmpty() || text.startsWith(QStringLiteral("own")));
                if (empty_allowed) {
                    set(s, -1);
                } else {
                    auto v = parse_value(text.toStdString(), dimension);
                    if (v && (*v < low || *v > high))
                        v = fail(ErrorCode::out_of_range, {}, text.toStdString(),
                                 {Want::as_said, words::quantity(low, dimension) + " to " +
                                                     words::quantity(high, dimension)});
                    if (!v) {
                        Error e = v.error();
                        e.place =
                            document_->shown().state().name + ", " + edit->accessibleName().toStdString();
                        document_->store().refuse(q(words::sentence(e)));
                        refresh();
                        return;
                    }
                    set(s, *v);
                }
                if (s == document_->shown().state())
                    refresh();
                else if (document_->shown().shows_situation())  // what was found is no state of the plan
                    document_->shown().show_situation(s, document_->shown().current_path());
                else
                    document_->apply(Put<State>{s, {}}, q(s.name) + say(" at ") + text);
            });
}

// Where the window is too narrow for both, the conditions take a line of their own.
void StateBar::resizeEvent(QResizeEvent*) {
    fit_buttons();
}

// As many states as there is room for, in order, the chosen one always and whole; the others in a menu.
// Nothing is ever cut on both sides.
void StateBar::fit_buttons() {
    for (QAbstractButton* b : group_->buttons()) b->ensurePolished();  // its padding counts
    for (QToolButton* b : {all_, more_, found_, rest_}) b->ensurePolished();
    const auto wide = [](const QWidget* w) { return w->isHidden() ? 0 : w->sizeHint().width(); };
    int wanted = 0;
    for (const QAbstractButton* b : group_->buttons()) wanted += b->sizeHint().width();
    const int tools = wide(all_) + wide(more_) + wide(found_) + 18;
    const int conditions = conditions_->sizeHint().width() + 4;
    const bool two_lines = wanted + tools + conditions > width();
    outer_->setDirection(two_lines ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight);
    const int room = width() - tools - (two_lines ? 0 : conditions);
    QMenu* menu = rest_->menu();
    menu->clear();
    rest_->setVisible(wanted > room);
    rest_->setText(say("%1 more ▾").arg(group_->buttons().size()));
    QAbstractButton* chosen = group_->button(document_->shown().state_index());
    int left =
        room - (wanted > room ? rest_->sizeHint().width() + (chosen ? chosen->sizeHint().width() : 0) : 0);
    int hidden = 0;
    for (int k = 0; k < group_->buttons().size(); ++k) {
        QAbstractButton* b = group_->button(k);
        const bool fits = wanted <= room || b == chosen || b->sizeHint().width() <= left;
        if (fits && b != chosen) left -= b->sizeHint().width();
        if (!fits) left = 0;  // those behind it too: the order stays
        b->setVisible(fits);
        if (fits) continue;
        ++hidden;
        menu->addAction(b->text().replace(QLatin1Char('&'), QLatin1String("&&")), this, [this, k] {
            set_all_states(false);
            document_->shown().set_state(k);
        });
    }
    rest_->setText(say("%1 more ▾").arg(hidden));
}

void StateBar::set_all_states(bool on) {
    const bool was = shown_all_;
    shown_all_ = on;
    all_->setChecked(on);
    refresh();
    if (was != on) emit all_states_changed(on);
}

void StateBar::rebuild_buttons() {
    for (QAbstractButton* b : group_->buttons()) {
        group_->removeButton(b);
        delete b;
    }
    for (std::size_t k = 0; k < document_->plan().states.size(); ++k) {
        auto* b = new QToolButton;
        b->setCheckable(true);
        b->setMinimumHeight(32);
        b->setObjectName(QStringLiteral("state"));
        b->setSizePolicy(QSizePolicy::Minimum, QSizePolicy::Fixed);
        const QString name = q(document_->plan().states[k].name);
        constexpr int most_px = 240;  // longer names end in "…", told whole by the tool tip
        b->setText(b->fontMetrics().elidedText(name, Qt::ElideRight, most_px));
        b->setAccessibleName(name);
        b->setToolTip(k < 9 ? name + QStringLiteral("  Ctrl+%1").arg(k + 1) : name);
        b->setContextMenuPolicy(Qt::CustomContextMenu);
        connect(b, &QWidget::customContextMenuRequested, this,
                [this, b, id = document_->plan().states[k].id](const QPoint& at) {
                    QMenu menu;
                    fill_state_menu(&menu, id);
                    menu.exec(b->mapToGlobal(at));
                });
        group_->addButton(b, static_cast<int>(k));
        buttons_->addWidget(b);
    }
}

void StateBar::fill_state_menu(QMenu* menu, const Id& id) {
    menu->addAction(say("Its key, switches and conditions"), this, [this, id] {
        document_->shown().set_state(id);
        document_->selection().choose(id);
    });
    menu->addAction(say("Copy as a new state"), this, [this, id] { copy_state(document_, id); });
    menu->addAction(say("Earlier in the line"), this, [this, id] { move_state(document_, id, -1); });
    menu->addAction(say("Later in the line"), this, [this, id] { move_state(document_, id, 1); });
    menu->addSeparator();
    menu->addAction(say("Take out"), this, [this, id] { take_out_state(document_, id); });
}

void StateBar::refresh() {
    const auto& states = document_->plan().states;
    bool same = group_->buttons().size() == static_cast<qsizetype>(states.size());
    for (std::size_t k = 0; same && k < states.size(); ++k)
        same = group_->button(static_cast<int>(k))->accessibleName() == q(states[k].name);
    if (!same) rebuild_buttons();
    group_->setExclusive(false);
    for (QAbstractButton* b : group_->buttons())
        b->setChecked(!all_states() && !document_->shown().shows_situation() &&
                      group_->id(b) == document_->shown().state_index());
    group_->setExclusive(!all_states() && !document_->shown().shows_situation());
    found_->setVisible(document_->shown().shows_situation());
    for (QToolButton* b : {all_, more_})
        b->setVisible(!document_->shown().shows_situation());  // room for what was found
    if (document_->shown().shows_situation()) {
        QStringList what{q(document_->shown().state().name)};
        for (const std::string& s : document_->shown().state().switches) what << q(s + " on");
        for (const Id& id : document_->shown().state().pulled)
            what << q(yr::name_of(document_->plan(), id) + " out");
        found_->setToolTip(say("As it was found: %1. Loads are drawn as resistances. Click to leave.")
                               .arg(what.join(QStringLiteral(", "))));
    }
    for (const Condition& c : fields_)
        if (!c.edit->isModified()) c.edit->setText(c.show(document_->shown().state()));
    fit_buttons();
}

}  // namespace yr::app

#include "moc_state_bar.cpp"
