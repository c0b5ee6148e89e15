#include "workspaces/survey/survey_page.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <QScrollArea>
#include <QTemporaryDir>

#include "catalog/shelf.h"
#include "io/readings_csv.h"
#include "plan/additions.h"
#include "plan/plan_json.h"
#include "widgets/field_form.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "words/survey_words.h"

namespace yr::app {
namespace {

constexpr SurveyKey kKeys[] = {SurveyKey::off, SurveyKey::accessory, SurveyKey::running, SurveyKey::after};

QToolButton* tool(const QString& text, const QString& tip) {
    auto* b = new QToolButton;
    b->setText(text);
    b->setToolTip(tip);
    b->setAccessibleName(tip.isEmpty() ? text : tip);
    b->setMinimumHeight(32);
    return b;
}

QString readings_of_meter(const std::vector<SurveyReading>& readings) {
    return say_n("%n reading from the meter", "%n readings from the meter",
                 static_cast<long>(readings.size()));
}

QLabel* line_label(const QString& text, const char* kind) {
    auto* l = new QLabel(text);
    l->setObjectName(QLatin1String(kind));
    l->setWordWrap(true);
    return l;
}

}  // namespace

SurveyPage::SurveyPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("survey"), say("Survey"), parent) {
    auto* left = new QVBoxLayout;
    left->setContentsMargins(12, 8, 0, 0);
    left->setSpacing(4);
    auto* head = new QHBoxLayout;
    auto* title = new QLabel(say("Vehicle card"));
    title->setFont(type_font(Type::title));
    auto* shelf = tool(say("From the shelf"), say("Typical items without a brand"));
    auto* menu = new QMenu(this);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] { fill_shelf_menu(menu); });
    shelf->setMenu(menu);
    shelf->setPopupMode(QToolButton::InstantPopup);
    head->addWidget(title);
    head->addStretch();
    head->addWidget(shelf);
    card_ = new VehicleCard(document_);
    left->addLayout(head);
    card_->setMinimumWidth(300);
    left->addWidget(card_, 1);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(16);
    row->addLayout(left, 5);
    row->addWidget(make_readings(), 6);
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible()) refresh();  // else when it is shown
    });
    connect(&meter_, &MeterClient::failed, this,
            [this](const QString& sentence, const std::vector<SurveyReading>& before) {
                hidden_asked_ = false;
                put_readings(before, readings_of_meter(before));
                emit said(before.empty() ? sentence
                                         : sentence + say_n(" %n reading before it is kept.",
                                                            " %n readings before it are kept.",
                                                            static_cast<long>(before.size())));
            });
    connect(&meter_, &MeterClient::ready, this, [this] {
        if (hidden_asked_) {
            Survey s;
            for (const auto& [terminal, name] : meter_.points()) {
                const SurveyKind kind = owner_of(terminal).starts_with("battery") ? SurveyKind::battery
                                        : owner_of(terminal).starts_with("alternator")
                                            ? SurveyKind::alternator
                                            : SurveyKind::outlet;
                s.points.push_back(
                    {"hidden-" + std::to_string(s.points.size() + 1), name.toStdString(), kind, terminal});
            }
            hidden_asked_ = false;
            document_->apply(SetSurvey{s}, say("survey of a hidden vehicle"));
        }
        emit said(say("The bench meter answers: Meter, Read all that the table lacks."));
    });
    connect(&meter_, &MeterClient::done, this,
            [this](const std::vector<SurveyReading>& read) { put_readings(read, readings_of_meter(read)); });
    refresh();
}

void SurveyPage::showEvent(QShowEvent*) {
    refresh();
}

QWidget* SurveyPage::make_readings() {
    auto* side = new QWidget;
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 8, 12, 0);
    column->setSpacing(4);
    auto* title = new QLabel(say("Readings"));
    title->setFont(type_font(Type::title));
    draw_ = new QComboBox;
    draw_->setAccessibleName(say("Where a heavy draw was on while reading"));
    draw_->setToolTip(QString::fromUtf8(words::how_to_draw()));
    draw_->setMinimumWidth(96);
    draw_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    connect(draw_, &QComboBox::activated, this, [this] { fill_table(); });
    auto* meter = tool(say("Meter"), say("Start or connect a bench meter"));
    auto* meter_menu = new QMenu(this);
    fill_meter_menu(meter_menu);
    meter->setMenu(meter_menu);
    meter->setPopupMode(QToolButton::InstantPopup);
    auto* edit = tool(say("Table"), say("Points, paste and copy"));
    auto* edit_menu = new QMenu(this);
    edit_menu->addAction(say("Add a battery to read"), this, [this] { add_point(SurveyKind::battery); });
    edit_menu->addAction(say("Add an outlet or stud"), this, [this] { add_point(SurveyKind::outlet); });
    edit_menu->addAction(say("Add the alternator's stud"), this,
                         [this] { add_point(SurveyKind::alternator); });
    edit_menu->addSeparator();
    edit_menu->addAction(say("Paste a table (CSV)"), this,
                         [this] { paste(QApplication::clipboard()->text()); });
    edit_menu->addAction(say("Copy all readings (CSV)"), this, [this] {
        QApplication::clipboard()->setText(q(readings_csv(document_->plan().survey)));
    });
    edit_menu->addSeparator();
    edit_menu->addAction(say("Take the chosen point out"), this, [this] {
        Survey s = document_->plan().survey;
        const int at = table_->currentRow();
        if (at < 0 || at >= static_cast<int>(s.points.size())) return;
        const Id id = s.points[static_cast<std::size_t>(at)].id;
        std::erase_if(s.points, [&](const SurveyPoint& p) { return p.id == id; });
        std::erase_if(s.readings, [&](const SurveyReading& r) { return r.point == id || r.drawn_at == id; });
        document_->apply(SetSurvey{s}, say("take a point out of the survey"));
    });
    edit->setMenu(edit_menu);
    edit->setPopupMode(QToolButton::InstantPopup);
    auto* head = new QHBoxLayout;
    head->addWidget(title);
    head->addSpacing(8);
    head->addWidget(draw_);
    head->addStretch();
    head->addWidget(edit);
    head->addWidget(meter);
    column->addLayout(head);

    table_ = new QTableWidget;
    table_->setColumnCount(5);
    table_->setHorizontalHeaderLabels(
        {say("volts at"), say("key off"), say("accessory"), say("running"), say("after")});
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Fixed);
    table_->horizontalHeader()->resizeSection(0, 160);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(28);
    table_->setShowGrid(false);
    table_->setAlternatingRowColors(false);
    table_->setAccessibleName(say("Volts by place and key position"));
    connect(table_, &QTableWidget::cellChanged, this, &SurveyPage::take_cell);
    column->addWidget(table_, 4);

    auto* results = new QWidget;
    results->setObjectName(QStringLiteral("paper"));
    lines_ = new QVBoxLayout(results);
    lines_->setContentsMargins(0, 4, 8, 8);
    lines_->setSpacing(3);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(results);
    column->addWidget(scroll, 5);
    return side;
}

void SurveyPage::fill_meter_menu(QMenu* menu) {
    menu->addAction(say("Start the stand-in on this plan"), this, [this] { start_meter(false); });
    menu->addAction(say("Start the stand-in on a hidden vehicle (practice)"), this,
                    [this] { start_meter(true); });
    menu->addAction(say("Connect to a meter on port 5025"), this, [this] { meter_.connect_to(5025); });
    menu->addSeparator();
    menu->addAction(say("Read all that the table lacks"), this, &SurveyPage::read_missing);
    menu->addAction(say("Read what is asked for"), this, &SurveyPage::read_asked);
}

void SurveyPage::fill_shelf_menu(QMenu* menu) {
    menu->clear();
    const Id chosen = document_->selection().id();
    const auto put_or_add = [this, chosen](auto Plan::*list, const auto& change, const auto& make,
                                           const QString& name) {
        const auto& things = document_->plan().*list;
        for (auto thing : things) {
            if (thing.id != chosen && things.size() != 1) continue;
            change(thing);
            using Thing = decltype(thing);
            document_->apply(Put<Thing>{thing, {}}, name);
            return;
        }
        const auto added = make(document_->plan());
        if (!added || !document_->apply(added->edit, name)) return;
        auto thing = *yr::find(document_->plan().*list, added->id);
        change(thing);
        using Thing = decltype(thing);
        document_->apply(Put<Thing>{thing, {}}, name);
    };
    auto* alternators = menu->addMenu(say("Alternator"));
    for (const ShelfAlternator& a : shelf().alternators)
        alternators->addAction(q(a.name), this, [a, put_or_add] {
            put_or_add(
                &Plan::sources,
                [&](Source& s) {
                    s.name = a.name;
                    s.rated_A = a.rated_A, s.idle_A = a.idle_A;
                    s.curve.clear();
                },
                add_alternator, q(a.name));
        });
    auto* batteries = menu->addMenu(say("Battery"));
    for (const ShelfBattery& b : shelf().batteries)
        batteries->addAction(q(b.name), this, [b, put_or_add] {
            put_or_add(
                &Plan::batteries,
                [&](Battery& x) {
                    x.chemistry = b.chemistry;
                    x.capacity_Ah = b.capacity_Ah, x.cranking_A = b.cranking_A, x.R0_ohm = b.R0_ohm;
                },
                add_second_battery, q(b.name));
        });
    auto* starters = menu->addMenu(say("Starter"));
    for (const ShelfStarter& s : shelf().starters)
        starters->addAction(q(s.name), this, [this, s] {
            if (const auto added = add_starter(document_->plan(), s.name, s.ohm))
                document_->apply(added->edit, q(s.name));
        });
    auto* straps = menu->addMenu(say("Strap, for the chosen one"));
    for (const ShelfStrap& s : shelf().straps)
        straps->addAction(q(s.name), this, [this, s, chosen] {
            const Run* r = yr::find(document_->plan().runs, chosen);
            if (!r) {
                emit said(say("Choose a strap or cable on the card first."));
                return;
            }
            Run changed = *r;
            changed.size = s.size, changed.length_m = s.length_m;
            changed.resistance_ohm.reset();
            document_->apply(Put<Run>{changed, {}}, q(changed.name + " as " + s.name));
        });
    menu->setToolTip(say("Typical values: check the plate"));
}

Id SurveyPage::drawn_at() const {
    return draw_->currentData().toString().toStdString();
}

std::optional<double> SurveyPage::volts(const Id& point, SurveyKey key, const Id& drawn) const {
    for (const SurveyReading& r : document_->plan().survey.readings)
        if (r.point == point && r.key == key && r.drawn_at == drawn) return r.volts_V;
    return std::nullopt;
}

void SurveyPage::refresh() {
    const QString kept = draw_->currentData().toString();
    draw_->clear();
    draw_->addItem(say("nothing drawn"), QString());
    for (const SurveyPoint& p : document_->plan().survey.points)
        if (p.kind == SurveyKind::battery) draw_->addItem(say("draw at ") + q(p.name), q(p.id));
    draw_->setCurrentIndex(std::max(0, draw_->findData(kept)));
    fill_table();
    fill_conclusions();
}

void SurveyPage::fill_table() {
    filling_ = true;
    const Survey& s = document_->plan().survey;
    table_->setRowCount(static_cast<int>(s.points.size()));
    for (int row = 0; row < table_->rowCount(); ++row) {
        const SurveyPoint& p = s.points[static_cast<std::size_t>(row)];
        table_->setItem(row, 0, new QTableWidgetItem(q(p.name)));
        for (int k = 0; k < 4; ++k) {
            const auto v = volts(p.id, kKeys[k], drawn_at());
            auto* cell = new QTableWidgetItem(v ? q(words::number(*v, 5, document_->style().decimal_comma))
                                                : QString());
            cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table_->setItem(row, k + 1, cell);
        }
    }
    filling_ = false;
}

void SurveyPage::fill_conclusions() {
    while (QLayoutItem* old = lines_->takeAt(0)) {
        if (QWidget* w = old->widget()) w->hide(), w->deleteLater();
        delete old;
    }
    const Survey& s = document_->plan().survey;
    auto* proved = new QLabel(say("What they prove"));
    proved->setFont(type_font(Type::bold));
    lines_->addWidget(proved);
    if (s.points.empty())
        lines_->addWidget(line_label(
            say("Nothing is read yet. Add each battery and outlet as a row, or paste a table, and type the "
                "volts you read with the key off, at accessory, running, and just after switching off."),
            "soft"));
    const SurveyProof proof = infer(s);
    for (const words::SurveyLine& l : words::conclusions(proof, s, document_->style()))
        lines_->addWidget(line_label((l.settled ? QStringLiteral("✓  ") : QStringLiteral("?  ")) + q(l.text),
                                     l.settled ? "good" : "fix"));
    if (!proof.asks.empty()) {
        auto* next = new QLabel(say("To settle the rest"));
        next->setFont(type_font(Type::bold));
        next->setToolTip(QString::fromUtf8(words::how_to_draw()));
        lines_->addWidget(next);
        lines_->addWidget(line_label(QString::fromUtf8(words::how_to_draw()), "soft"));
    }
    // One line a draw and key position: what is read together is asked for together.
    std::vector<std::pair<SurveyAsk, QStringList>> groups;
    for (const SurveyAsk& ask : proof.asks) {
        const SurveyPoint* p = yr::find(s.points, ask.point);
        const auto same = std::find_if(groups.begin(), groups.end(), [&](const auto& g) {
            return g.first.key == ask.key && g.first.drawn_at == ask.drawn_at;
        });
        if (same != groups.end())
            same->second << q(p->name);
        else
            groups.emplace_back(ask, QStringList{q(p->name)});
    }
    for (const auto& [ask, names] : groups) {
        const SurveyPoint* drawn = yr::find(s.points, ask.drawn_at);
        const QString when = QString::fromUtf8(words::name_of(ask.key)) +
                             (drawn ? say(", draw at ") + q(drawn->name) : QString());
        auto* l =
            line_label(QStringLiteral("<a href='x' style='color:%1;text-decoration:none'><b>%2</b></a>: %3")
                           .arg(tokens().supply[0].name(), when.toHtmlEscaped(),
                                names.join(QStringLiteral(", ")).toHtmlEscaped()),
                       "soft");
        l->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
        connect(l, &QLabel::linkActivated, this, [this, first = ask] {
            show_draw(first.drawn_at);
            const auto& points = document_->plan().survey.points;
            for (std::size_t row = 0; row < points.size(); ++row)
                if (points[row].id == first.point)
                    table_->setCurrentCell(static_cast<int>(row), static_cast<int>(first.key) + 1);
            table_->setFocus();
        });
        lines_->addWidget(l);
    }
    lines_->addStretch();
}

QString SurveyPage::conclusions() const {
    QStringList out;
    for (int k = 0; k < lines_->count(); ++k)
        if (auto* l = qobject_cast<QLabel*>(lines_->itemAt(k)->widget())) out << l->text();
    return out.join(QLatin1Char('\n'));
}

void SurveyPage::show_draw(const Id& point) {
    draw_->setCurrentIndex(std::max(0, draw_->findData(q(point))));
    fill_table();
}

void SurveyPage::put_readings(const std::vector<SurveyReading>& readings, const QString& name) {
    if (readings.empty()) return;
    Survey s = document_->plan().survey;
    for (const SurveyReading& r : readings) {
        std::erase_if(s.readings, [&](const SurveyReading& old) {
            return old.point == r.point && old.key == r.key && old.drawn_at == r.drawn_at;
        });
        s.readings.push_back(r);
    }
    document_->apply(SetSurvey{s}, name);
}

void SurveyPage::take_cell(int row, int column) {
    if (filling_) return;
    Survey s = document_->plan().survey;
    SurveyPoint& p = s.points[static_cast<std::size_t>(row)];
    const QString typed = table_->item(row, column)->text().trimmed();
    if (column == 0) {
        if (!typed.isEmpty()) {
            p.name = typed.toStdString();
            document_->apply(SetSurvey{s}, say("point named ") + typed);
        }
        fill_table();
        return;
    }
    const SurveyKey key = kKeys[column - 1];
    if (typed.isEmpty()) {
        std::erase_if(s.readings, [&](const SurveyReading& r) {
            return r.point == p.id && r.key == key && r.drawn_at == drawn_at();
        });
        document_->apply(SetSurvey{s}, say("reading of %1 out").arg(q(p.name)));
        return;
    }
    auto v = parse_reading(typed.toStdString(), Dimension::voltage);
    if (v && std::abs(*v) > 100)
        v = fail(ErrorCode::out_of_range, {}, typed.toStdString(), Want::volts_from_100_to_100);
    if (!v) {
        Error e = v.error();
        e.place = p.name + ", " + words::name_of(key);
        emit said(q(words::sentence(e)));
        fill_table();
        return;
    }
    put_readings({{p.id, key, drawn_at(), *v}}, q(p.name + ", " + words::name_of(key) + ": ") + typed);
}

bool SurveyPage::paste(const QString& text) {
    const auto s = read_readings_csv(text.toStdString(), document_->plan().survey, document_->plan());
    if (!s) {
        emit said(q(words::sentence(s.error())) + say(" Nothing was taken."));
        return false;
    }
    return document_->apply(SetSurvey{*s}, say("paste readings"));
}

void SurveyPage::add_point(SurveyKind kind) {
    Survey s = document_->plan().survey;
    const auto count =
        std::count_if(s.points.begin(), s.points.end(), [&](const auto& p) { return p.kind == kind; });
    SurveyPoint p;
    p.id = new_id(document_->plan(), "measured");
    p.kind = kind;
    p.name = (kind == SurveyKind::battery      ? "battery "
              : kind == SurveyKind::alternator ? "alternator stud "
                                               : "outlet ") +
             std::to_string(count + 1);
    s.points.push_back(p);
    document_->apply(SetSurvey{s}, say("point ") + q(p.name));
}

// The points of a hidden vehicle stand in place of this plan's: never unasked.
bool SurveyPage::may_replace_survey() {
    QMessageBox box(this);
    box.setObjectName(QStringLiteral("replace_survey"));
    box.setWindowTitle(say("Practice on a hidden vehicle"));
    box.setText(say("Its points take the place of this plan's points and readings. Undo brings them back."));
    auto* go = box.addButton(say("Practise"), QMessageBox::AcceptRole);
    box.addButton(say("Leave it"), QMessageBox::RejectRole);
    box.exec();
    return box.clickedButton() == go;
}

void SurveyPage::start_meter(bool hidden) {
    if (hidden && !document_->plan().survey.points.empty() && !may_replace_survey()) return;
    hidden_asked_ = hidden;
    if (hidden) {
        meter_.start_stand_in({QStringLiteral("--vehicle"), QString::number(++hidden_)});
        return;
    }
    static QTemporaryDir folder;  // the stand-in reads the plan once, at its start
    const QString file = folder.filePath(QStringLiteral("held.yourrail.json"));
    if (const auto saved = save_plan(document_->store().stored(), file.toStdString()); !saved) {
        emit said(q(words::sentence(saved.error())));
        return;
    }
    meter_.start_stand_in({QStringLiteral("--plan"), file});
}

std::optional<MeterClient::Task> SurveyPage::task(const SurveyReading& wanted) const {
    const Survey& s = document_->plan().survey;
    const SurveyPoint* p = yr::find(s.points, wanted.point);
    const SurveyPoint* d = yr::find(s.points, wanted.drawn_at);
    if (!p || p->terminal.empty() || (d && d->terminal.empty())) return std::nullopt;
    return MeterClient::Task{wanted, p->terminal, d ? d->terminal : Terminal()};
}

void SurveyPage::read_missing() {
    std::vector<MeterClient::Task> tasks;
    bool unplaced = false;
    for (const SurveyPoint& p : document_->plan().survey.points)
        for (SurveyKey k : kKeys) {
            if (volts(p.id, k, drawn_at())) continue;
            if (auto t = task({p.id, k, drawn_at(), 0}))
                tasks.push_back(*t);
            else
                unplaced = true;
        }
    if (tasks.empty() && unplaced)
        emit said(say("These points have no place on the meter's vehicle; type their volts."));
    else
        meter_.take(std::move(tasks));
}

void SurveyPage::read_asked() {
    std::vector<MeterClient::Task> tasks;
    for (const SurveyAsk& ask : infer(document_->plan().survey).asks)
        if (auto t = task({ask.point, ask.key, ask.drawn_at, 0})) tasks.push_back(*t);
    meter_.take(std::move(tasks));
}

std::vector<WorkspacePicture> SurveyPage::pictures() {
    return {{QStringLiteral("survey.png"), [this] { emit go_to(key(), {}); }}};
}

}  // namespace yr::app

#include "moc_survey_page.cpp"
