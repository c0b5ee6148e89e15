#include "workspaces/control/control_page.h"

#include <QLineEdit>
#include <QScrollArea>

#include "control/boxes.h"
#include "control/rails.h"
#include "widgets/split_page.h"
#include "widgets/tokens.h"
#include "words/control_words.h"
#include "words/sentences.h"

namespace yr::app {

ControlPage::ControlPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("control"), say("Control"), parent) {
    boxes_ = new BoxView(document_);
    live_ = new LiveStrip(document_);
    pages_ = new QStackedWidget;
    pages_->addWidget(scrolled(live_));
    for (QVBoxLayout** rows : {&sneak_rows_, &rail_rows_, &channel_rows_, &panel_rows_})
        pages_->addWidget(list_page(*rows));
    progress_ = new QProgressBar;
    progress_->setTextVisible(false);
    progress_->setFixedHeight(6);
    progress_->hide();

    auto* lower = new QWidget;
    auto* column = new QVBoxLayout(lower);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(progress_);
    column->addWidget(pages_, 1);
    words_ = fill_split_page(
        this, scrolled(boxes_),
        {{words::later("Alive or dead"),
          words::later("For each load and key position: should it be alive, and is it?")},
         {words::later("Sneak paths"),
          words::later("Every combination of key, switches and pulled fuses, searched")},
         {words::later("Rails"),
          words::later("Loads grouped by when they are live: the fewest rails and relays")},
         {words::later("Channels"),
          words::later("Loads given to channels and feeds: within every limit, least copper")},
         {words::later("Panel"), words::later("What the labels beside the switches say")}},
        lower, {300, 260}, [this](int k) { show_view(static_cast<View>(k)); });

    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&sneaks_, &JobBase::progressed, this,
            [this](double share) { progress_->setValue(static_cast<int>(100 * share)); });
    connect(&sneaks_, &JobBase::done, this, [this] {
        progress_->hide();
        refresh_sneaks();
    });
    connect(&assigning_, &JobBase::done, this, &ControlPage::refresh);
    show_view(View::live);
}

QWidget* ControlPage::scrolled(QWidget* inside) {
    auto* scroll = new QScrollArea;
    scroll->setWidget(inside);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return scroll;
}

QWidget* ControlPage::list_page(QVBoxLayout*& rows) {
    auto* inside = new QWidget;
    inside->setObjectName(QStringLiteral("paper"));
    rows = new QVBoxLayout(inside);
    rows->setContentsMargins(16, 2, 12, 8);
    rows->setSpacing(3);
    return scrolled(inside);
}

void ControlPage::clear(QVBoxLayout* rows) {
    while (QLayoutItem* item = rows->takeAt(0)) {
        if (QWidget* w = item->widget()) w->hide(), w->setParent(nullptr), w->deleteLater();
        delete item;
    }
}

QLabel* ControlPage::line(QVBoxLayout* rows, const QString& text, const char* kind) {
    auto* l = new QLabel(text);
    l->setObjectName(QLatin1String(kind));
    l->setWordWrap(true);
    l->setTextInteractionFlags(Qt::TextSelectableByMouse);
    rows->addWidget(l);
    return l;
}

QToolButton* ControlPage::action(const QString& text, const std::function<void()>& run) {
    auto* b = new QToolButton;
    b->setObjectName(QStringLiteral("mend"));
    b->setText(text);
    b->setAccessibleName(text);
    b->setMinimumHeight(26);
    connect(b, &QToolButton::clicked, this, run);
    return b;
}

void ControlPage::add_row(QVBoxLayout* rows, const QString& text, const char* kind,
                          const std::vector<QToolButton*>& buttons) {
    auto* w = new QWidget;
    auto* row = new QHBoxLayout(w);
    row->setContentsMargins(0, 0, 0, 0);
    auto* l = new QLabel(text);
    l->setObjectName(QLatin1String(kind));
    l->setWordWrap(true);
    row->addWidget(l, 1);
    for (QToolButton* b : buttons) row->addWidget(b, 0, Qt::AlignTop);
    rows->addWidget(w);
}

void ControlPage::show_view(View view) {
    view_ = view;
    for (std::size_t k = 0; k < words_.size(); ++k)
        words_[k]->setChecked(k == static_cast<std::size_t>(view));
    pages_->setCurrentIndex(static_cast<int>(view));
    refresh();
}

void ControlPage::showEvent(QShowEvent*) {
    refresh();
}

void ControlPage::refresh() {
    switch (view_) {
        case View::live:
            break;  // it follows the plan by itself
        case View::sneak:
            refresh_sneaks();
            break;
        case View::rails:
            refresh_rails();
            break;
        case View::channels:
            refresh_channels();
            break;
        case View::panel:
            refresh_panel();
            break;
    }
}

QStringList ControlPage::lines() const {
    QStringList text;
    const QWidget* page = pages_->currentWidget();
    for (const QLabel* l : page->findChildren<QLabel*>())
        if (!l->isHidden() && !l->text().isEmpty()) text << l->text();
    return text;
}

// ---- sneak paths

void ControlPage::search_sneaks_now() {
    show_view(View::sneak);
    progress_->setRange(0, 100);
    progress_->setValue(0);
    progress_->show();
    if (!sneaks_.running())
        sneaks_.start(document_->store().generation(), [plan = document_->plan()](const Task& task) {
            SneakAsk ask;
            ask.cancel = task.cancel();
            ask.progress = [&task](double share) { task.progress(share); };
            return search_sneaks(plan, ask);
        });
    refresh_sneaks();
}

void ControlPage::refresh_sneaks() {
    clear(sneak_rows_);
    if (sneaks_.running()) {
        add_row(sneak_rows_, say("Searching every combination of key, switches and pulled fuses …"), "soft",
                {action(say("Stop"), [this] { sneaks_.cancel(); })});
        sneak_rows_->addStretch();
        return;
    }
    const auto search =
        action(sneaks_.answer() ? say("Search again") : say("Search now"), [this] { search_sneaks_now(); });
    if (!sneaks_.answer()) {
        add_row(sneak_rows_,
                say("A load that is alive when it should be dead, dead when it should be alive, or fed past "
                    "its own fuse: searched over every key position, switch and pulled fuse."),
                "soft", {search});
        sneak_rows_->addStretch();
        return;
    }
    const SneakSearch& found = *sneaks_.answer();
    QString head = q(words::search_text(found));
    if (!sneaks_.current(document_->store().generation())) head = say("The plan has changed since. ") + head;
    if (found.found.empty() && found.complete) head += say(" No load is alive or dead against the plan.");
    add_row(sneak_rows_, head, found.found.empty() && found.complete ? "good" : "soft", {search});
    for (const auto& cause : by_cause(found.found)) {
        add_path(found.found[cause.front()]);
        if (const std::string same = words::same_for(cause, found, document_->plan()); !same.empty())
            line(sneak_rows_, q(same), "soft");
    }
    sneak_rows_->addStretch();
}

void ControlPage::add_path(const SneakPath& path) {
    std::vector<QToolButton*> buttons;
    if (sneaks_.current(document_->store().generation())) {
        buttons.push_back(action(say("Show on the rail"), [this, path] {
            document_->shown().show_situation(path.state, path.path);
            document_->selection().choose(path.load);
            emit said(q(words::sentence(path, document_->plan(), document_->style())) +
                      say(" Loads are drawn as resistances here; choose a state to leave."));
            emit go_to(QStringLiteral("rail"), {});
        }));
        for (const SneakMend& m : path.mends)
            buttons.push_back(action(q(words::mend_label(m, document_->plan())), [this, path, m] {
                document_->apply(m.edit, q(yr::name_of(document_->plan(), path.load)) + QStringLiteral(": ") +
                                             q(words::mend_label(m, document_->plan())));
            }));
    }
    add_row(sneak_rows_,
            QStringLiteral("▲ ") + q(words::sentence(path, document_->plan(), document_->style())), "fix",
            buttons);
    if (!path.path.empty())
        line(sneak_rows_, q(words::path_text(path, document_->plan())), "soft")
            ->setFont(type_font(Type::small));
}

// ---- rails

void ControlPage::refresh_rails() {
    clear(rail_rows_);
    const RailGrouping g = group_rails(document_->plan());
    line(rail_rows_,
         say("%1 rails, %2 of them behind a relay: no two of these could be one. What is switched by the "
             "driver besides has its own channel, relay or switch.")
             .arg(g.groups.size())
             .arg(g.relays),
         "soft");
    for (const RailGroup& r : g.groups) {
        std::vector<QToolButton*> buttons;
        if (!r.astray.empty()) {
            const QString text =
                r.feeds.empty()
                    ? say("Make this rail")
                    : say("Hang them on %1").arg(q(yr::name_of(document_->plan(), r.feeds.front())));
            buttons.push_back(action(text, [this, r] {
                const auto edit = make_rail(document_->plan(), r);
                if (!edit)
                    document_->store().refuse(q(words::sentence(edit.error())));
                else
                    document_->apply(*edit, say("rail: ") + q(words::condition(r.when, &document_->plan())));
            }));
        }
        add_row(rail_rows_, q(words::sentence(r, document_->plan(), document_->style())),
                r.feeds.empty() ? "fix" : "ink", buttons);
    }
    rail_rows_->addStretch();
}

// ---- channels

void ControlPage::give_out_channels() {
    assigning_.start(document_->store().generation(), [plan = document_->plan()](const Task& task) {
        AssignAsk ask;
        ask.cancel = task.cancel();
        return assign_checked(plan, ask);
    });
    show_view(View::channels);
}

void ControlPage::finish_channels() {
    assigning_.finish();
}

void ControlPage::apply_assignment() {
    if (!assigning_.current(document_->store().generation()) || !assigning_.answer()->assignment.feasible)
        return;
    const Edit edit = assigning_.answer()->assignment.edit;
    if (!document_->apply(edit, say("channels given out"))) return;
    give_out_channels();  // asked of the plan as it is now: nothing is left to move
}

void ControlPage::refresh_channels() {
    clear(channel_rows_);
    if (assigning_.running()) {
        line(channel_rows_, say("Trying every way within the limits …"), "soft");
        channel_rows_->addStretch();
        return;
    }
    const auto again = [this] { give_out_channels(); };
    if (!assigning_.current(document_->store().generation())) {
        add_row(channel_rows_,
                say("Every load given to a channel or feed: within every channel, group and main, its start "
                    "included, live when it must be, the most amps on the shortest way. What was put "
                    "somewhere by hand stays."),
                "soft", {action(say("Give out channels"), again)});
        channel_rows_->addStretch();
        return;
    }
    const Assignment& a = assigning_.answer()->assignment;
    const Plan& plan = document_->plan();
    if (!a.feasible) {
        add_row(
            channel_rows_,
            QStringLiteral("▲ ") + q(words::conflict_text(*assigning_.answer(), plan, document_->style())),
            "fix", {action(say("Try again"), again)});
        if (!a.remedies.empty()) line(channel_rows_, say("Any one of these would do:"), "ink");
        for (const Remedy& r : a.remedies)
            line(channel_rows_, QStringLiteral("· ") + q(words::sentence(r, plan, document_->style())),
                 "ink");
        channel_rows_->addStretch();
        return;
    }
    const bool moves =
        std::any_of(a.placed.begin(), a.placed.end(), [](const PlacedLoad& p) { return p.moved; });
    const auto Am = [](double v) { return q(words::number(v, 4)); };
    std::vector<QToolButton*> buttons;
    const auto& refused = assigning_.answer()->refused;
    const bool less = a.amp_metres < a.amp_metres_before * 0.995;
    if (moves) buttons.push_back(action(say("Move them"), [this] { apply_assignment(); }));
    const QString head =
        !moves ? say("Every load sits within every limit and takes the least copper: %1 A m.")
                     .arg(Am(a.amp_metres))
        : less ? (refused.empty()
                      ? say("%1 A m of copper instead of %2; no other way takes less.")
                      : say("%1 A m of copper instead of %2; what takes less makes something else worse."))
                     .arg(Am(a.amp_metres), Am(a.amp_metres_before))
               : say("%1 A m of copper; no way within every limit takes less. What moves does so for a "
                     "limit, or for when it must run.")
                     .arg(Am(a.amp_metres));
    add_row(channel_rows_, head, "good", buttons);
    for (const Finding& f : assigning_.answer()->mended)
        line(channel_rows_, say("With it: %1").arg(q(words::mend_label(f, plan))), "ink");
    for (const auto& [load, feed] : refused)
        line(channel_rows_,
             say("Refused, inspected whole: %1 to %2")
                 .arg(q(yr::name_of(plan, load)), q(yr::name_of(plan, feed))),
             "soft");
    std::vector<PlacedLoad> placed = a.placed;  // what moves stands first
    std::stable_sort(placed.begin(), placed.end(),
                     [](const PlacedLoad& x, const PlacedLoad& y) { return x.moved && !y.moved; });
    for (const PlacedLoad& p : placed) {
        const auto why = words::reasons(p, plan, document_->style());
        QString text = (p.moved ? QStringLiteral("→ ") : QString()) + q(yr::name_of(plan, p.load)) +
                       QStringLiteral(": ") + q(why.front());
        QLabel* l = line(channel_rows_, text, p.moved ? "ink" : "soft");
        QStringList others;
        for (std::size_t k = 1; k < why.size(); ++k) others << q(why[k]);
        l->setToolTip(others.join(QLatin1Char('\n')));
        if (p.moved && why.size() > 1)
            line(channel_rows_, QStringLiteral("    ") + others.join(QStringLiteral("  ")), "soft")
                ->setFont(type_font(Type::small));
    }
    channel_rows_->addStretch();
}

// ---- panel labels

void ControlPage::refresh_panel() {
    clear(panel_rows_);
    const auto switches = plan_switches(document_->plan());
    line(panel_rows_,
         switches.empty()
             ? say("No switch yet: a load that is “on switch pump” brings one.")
             : say("What stands beside each switch. Left empty, it names what the switch works."),
         "soft");
    for (const std::string& name : switches) {
        auto* w = new QWidget;
        auto* row = new QHBoxLayout(w);
        row->setContentsMargins(0, 0, 0, 0);
        auto* l = new QLabel(q(name));
        l->setFixedWidth(140);
        auto* edit = new QLineEdit;
        edit->setObjectName(QStringLiteral("label ") + q(name));
        edit->setAccessibleName(say("Label of switch ") + q(name));
        edit->setPlaceholderText(q(panel_label(document_->plan(), name)));
        for (const PanelSwitch& s : document_->plan().panel)
            if (s.name == name) edit->setText(q(s.label));
        row->addWidget(l);
        row->addWidget(edit, 1);
        panel_rows_->addWidget(w);
        connect(edit, &QLineEdit::editingFinished, this, [this, edit, name] {
            if (!edit->isModified()) return;
            edit->setModified(false);
            PanelSwitch s{new_id(document_->plan(), "panel"), name, edit->text().trimmed().toStdString()};
            for (const PanelSwitch& old : document_->plan().panel)
                if (old.name == name) s.id = old.id;
            document_->apply(Put<PanelSwitch>{s, {}}, say("label of ") + q(name));
        });
    }
    panel_rows_->addStretch();
}

void ControlPage::finish() {
    sneaks_.finish();
    assigning_.finish();
}

std::vector<WorkspacePicture> ControlPage::pictures() {
    return {
        {QStringLiteral("control.png"),
         [this] {
             emit go_to(key(), {});
             document_->selection().choose({});
         }},
        {QStringLiteral("control-sneak.png"),
         [this] {
             document_->apply(SetActive{"variant-wake"}, say("show"));
             emit go_to(key(), {});
             search_sneaks_now();
             finish();
         }},
    };
}

}  // namespace yr::app

#include "moc_control_page.cpp"
