#include "workspaces/meter/meter_page.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QProgressBar>
#include <QVBoxLayout>
#include <algorithm>

#include "files/text_file.h"
#include "io/log_csv.h"
#include "text/say.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kSide_px = 320;
constexpr ViewWord kViews[] = {
    {"", words::later("Prove"), words::later("The readings that prove a finished vehicle, in order")},
    {"find", words::later("Find a fault"),
     words::later("From a complaint to the bad joint in a few readings")},
    {"rest", words::later("At rest"), words::later("What empties the battery while it stands")},
    {"wire", words::later("A wire"),
     words::later("What an unlabelled wire is: constant, switched or timed, and which cable of the plan")},
    {"loom", words::later("A loom"), words::later("A loom proved by a coded end plug before it goes in")},
    {"years", words::later("Over the years"),
     words::later("How a battery ages, and the winter it will not see")},
    {"record", words::later("Record"), words::later("What was read and proved, and what drifted since")},
    {"practise", words::later("Practise"), words::later("A hidden fault to be found")},
    {"likely", words::later("How likely"),
     words::later("How likely each kind of fault is before anything is read, and your own weights")}};

}  // namespace

MeterPage::MeterPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("meter"), say("Meter"), parent), words_(kViews) {
    prove_ = new ProveView(document_);
    find_ = new FindView(document_);
    rest_ = new RestView(document_);
    wire_ = new WireView(document_);
    plug_ = new PlugView(document_);
    record_ = new RecordView(document_);
    years_ = new YearsView(document_, record_);
    practise_ = new PractiseView(document_);
    likely_ = new LikelyView(document_);
    pages_ = new QStackedWidget;
    for (QWidget* page : std::initializer_list<QWidget*>{prove_, find_, rest_, wire_, plug_, years_, record_,
                                                         practise_, likely_})
        pages_->addWidget(page);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    left->addWidget(make_head());
    left->addWidget(pages_, 1);
    QVBoxLayout* column = nullptr;
    QScrollArea* side = side_panel(kSide_px, column);
    lines_ = new QVBoxLayout;
    lines_->setSpacing(5);
    column->addLayout(lines_);
    column->addStretch();
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addLayout(left, 1);
    row->addWidget(side);
    connect(&document_->store(), &PlanStore::edited, this, [this] {
        if (isVisible()) refresh();
    });
    connect(prove_, &ProveView::moved, this, &MeterPage::fill_side);
    connect(prove_, &ProveView::taken, this, &MeterPage::keep);
    connect(find_, &FindView::changed, this, &MeterPage::fill_side);
    connect(practise_, &PractiseView::changed, this, &MeterPage::fill_side);
    connect(rest_, &RestView::changed, this, &MeterPage::fill_side);
    connect(wire_, &WireView::changed, this, &MeterPage::fill_side);
    connect(plug_, &PlugView::changed, this, &MeterPage::fill_side);
    connect(record_, &RecordView::changed, this, &MeterPage::fill_side);
    connect(years_, &YearsView::changed, this, &MeterPage::fill_side);
    connect(prove_->entry()->meter(), &QToolButton::clicked, this, [this] {
        if (prove_->current()) read_by_meter(prove_->current()->where);
    });
    connect(find_->entry()->meter(), &QToolButton::clicked, this, [this] {
        const auto at = find_->asked() ? find_->asked()
                        : find_->answer() && find_->answer()->next
                            ? std::optional(find_->answer()->next->where)
                            : std::nullopt;
        if (at) read_by_meter(*at);
    });
    connect(&meter_, &MeterClient::ready, this, [this] {
        if (waiting_) read_by_meter(*waiting_);
    });
    connect(&meter_, &MeterClient::answered, this, [this](double value) {
        waiting_.reset();
        (pages_->currentIndex() == 0 ? prove_->entry() : find_->entry())->field()->clear();
        pages_->currentIndex() == 0 ? prove_->take(value) : find_->take(value);
    });
    connect(&meter_, &MeterClient::failed, this, [this](const QString& sentence) {
        waiting_.reset();
        document_->store().refuse(sentence);
    });
}

QWidget* MeterPage::make_head() {
    auto* head = new QWidget;
    auto* row = new QHBoxLayout(head);
    row->setContentsMargins(16, 6, 12, 4);
    row->setSpacing(4);
    words_.add_to(row, [this](const QString& key) { open_view(key); });
    row->addStretch();
    if (!EntryBar::speech_program().isEmpty()) {
        auto* aloud = new QCheckBox(say("Aloud"));
        aloud->setToolTip(say("Says where the probes go"));
        connect(aloud, &QCheckBox::toggled, this, [this](bool on) {
            prove_->entry()->set_aloud(on);
            find_->entry()->set_aloud(on);
        });
        row->addWidget(aloud);
    }
    return head;
}

std::vector<WorkspaceView> MeterPage::views() const {
    std::vector<WorkspaceView> all;
    for (const ViewWord& view : kViews)
        if (*view.key) all.push_back({QString::fromLatin1(view.key), q(words::translated(view.name)), false});
    return all;
}

bool MeterPage::open_view(const QString& key) {
    if (!key.isEmpty() && !has_view(key)) return false;
    words_.show(key, pages_);
    if (isVisible()) refresh();
    return true;
}

QString MeterPage::open_view() const {
    return words_.key_of(pages_->currentIndex());
}

void MeterPage::entered() {
    if (pages_->currentIndex() == 0) prove_->entry()->field()->setFocus();
}

void MeterPage::plan_opened() {
    find_->begin_anew();
    wire_->begin_anew();
    prove_->go_by(std::nullopt);
    prove_->resume({});
}

void MeterPage::showEvent(QShowEvent* event) {
    Workspace::showEvent(event);
    refresh();
}

void MeterPage::refresh() {
    record_->refresh();
    const QWidget* page = pages_->currentWidget();
    if (page == prove_) prove_->refresh();
    if (page == find_) find_->refresh();
    if (page == rest_) rest_->refresh();
    if (page == wire_) wire_->refresh();
    if (page == plug_) plug_->refresh();
    if (page == years_) years_->refresh();
    if (page == practise_) practise_->refresh();
    if (page == likely_) likely_->refresh();
    fill_side();
}

void MeterPage::finish() {
    refresh();
    if (pages_->currentWidget() == prove_) prove_->finish();
    if (pages_->currentWidget() == find_) find_->finish();
    if (pages_->currentWidget() == practise_) practise_->finish();
    fill_side();
}

// ---- the meter

void MeterPage::read_by_meter(const Probing& where) {
    if (!meter_.connected()) {
        waiting_ = where;
        QStringList arguments{QStringLiteral("--noise"), QStringLiteral("0.001")};
        if (!document_->store().path().isEmpty())
            arguments = QStringList{QStringLiteral("--plan"), document_->store().path()} + arguments;
        meter_.start_stand_in(arguments);
        emit said(say("The stand-in answers: a simulated meter on the plan as it was saved."));
        return;
    }
    const auto quoted = [](const std::string& text) { return QStringLiteral("\"%1\"").arg(q(text)); };
    QStringList unplugged;
    for (const Id& id : where.unplugged) unplugged << q(id);
    const QStringList commands{
        QStringLiteral("SIM:STATE ") + quoted(where.state),
        QStringLiteral("SIM:UNPL \"%1\"").arg(unplugged.join(QLatin1Char(','))),
        QStringLiteral("ROUT:RED ") + quoted(where.kind == ReadKind::amps ? where.run : where.red.text()),
        QStringLiteral("ROUT:BLAC ") + quoted(where.black.empty() ? std::string() : where.black.text())};
    meter_.ask(commands, where.kind == ReadKind::volts  ? QStringLiteral("MEAS:VOLT:DC?")
                         : where.kind == ReadKind::amps ? QStringLiteral("MEAS:CURR:DC?")
                                                        : QStringLiteral("MEAS:RES?"));
}

void MeterPage::keep(const TestPoint& point, double value, Verdict verdict) {
    Record r;
    r.kind = RecordKind::reading;
    r.where = point.where, r.value = value;
    r.expected = point.expected.value, r.low = point.low, r.high = point.high;
    const char* words[] = {"good", "high", "low", "cannot tell"};
    r.verdict = words[static_cast<std::size_t>(verdict)];
    r.about = point.thing;
    record_->add(std::move(r));
    fill_side();
}

std::vector<WorkspacePicture> MeterPage::pictures() {
    return {{QStringLiteral("meter-prove.png"),
             [this] {
                 emit go_to(key(), {});
                 finish();
             }},
            {QStringLiteral("meter-find.png"), [this] {
                 emit go_to(key(), QStringLiteral("find"));
                 find_->begin_anew();
                 HiddenFault hidden(document_->plan(), 3, PracticeLevel::bad_ground);
                 for (const Complaint& c : hidden.complaints()) find_->complain(c);
                 find_->finish();
                 if (find_->answer() && find_->answer()->next)
                     find_->take(hidden.read(find_->answer()->next->where).value_or(0));
                 find_->finish();
                 finish();
             }}};
}

}  // namespace yr::app

#include "moc_meter_page.cpp"
