#include "panels/box_dialog.h"

#include <QVBoxLayout>

#include "control/boxes.h"
#include "control/hang_on.h"
#include "control/place_on.h"
#include "document/own_library.h"
#include "widgets/dialog_parts.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

BoxDialog::BoxDialog(Document* document, QWidget* parent) : QDialog(parent), document_(document) {
    setWindowTitle(say("Control box"));
    setMinimumWidth(460);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 20, 24, 16);
    column->setSpacing(8);
    kind_ = new QComboBox;
    for (const BoxEntry& e : library().boxes)
        kind_->addItem(q(e.box.name) + (e.own ? say(", my own") : QString()));
    trigger_ = new QComboBox;
    const std::pair<const char*, const char*> triggers[] = {{"always live", ""},
                                                            {"key at accessory", "accessory"},
                                                            {"key at ignition", "ignition"},
                                                            {"engine running", "running"}};
    for (const auto& [text, value] : triggers)
        trigger_->addItem(QString::fromUtf8(text), QString::fromUtf8(value));
    from_ = new QComboBox;
    for (const Terminal& t : supplies_for(document_->plan(), {}))
        from_->addItem(q(words::terminal(document_->plan(), t)), q(t.text()));
    place_ = new QComboBox;
    place_->addItem(say("not said"), QString());
    for (const Place& p : document_->plan().places) place_->addItem(q(p.name), q(p.id));
    name_ = new QLineEdit;
    name_->setPlaceholderText(say("as its kind"));
    length_ = new QLineEdit;
    length_->setPlaceholderText(say("assumed 3 m"));
    cutoff_ = new QLineEdit;
    cutoff_->setPlaceholderText(say("none"));
    what_ = new QLabel;
    what_->setObjectName(QStringLiteral("soft"));
    what_->setWordWrap(true);
    problem_ = problem_label();
    const auto row = [column](const QString& label, QWidget* field) { field_row(column, label, field, 150); };
    row(say("Kind"), kind_);
    column->addWidget(what_);
    row(say("Name"), name_);
    row(say("Fed from"), from_);
    row(say("Its feed is"), trigger_);
    row(say("Cuts off below"), cutoff_);
    row(say("Place"), place_);
    row(say("Length of its feed"), length_);
    column->addWidget(problem_);
    add_buttons(column, this, say("Add the box"));
    connect(kind_, &QComboBox::currentIndexChanged, this, &BoxDialog::describe);
    describe();
}

void BoxDialog::describe() {
    const auto& boxes = library().boxes;
    const auto k = static_cast<std::size_t>(std::max(0, kind_->currentIndex()));
    if (k >= boxes.size()) return;
    const Point& box = boxes[k].box;
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, document_->style())); };
    QStringList channels;
    for (const Channel& c : box.channels) channels << q(words::number(channel_rating_A(c)));
    QString text =
        say("%1 channels of %2 A").arg(box.channels.size()).arg(channels.join(QStringLiteral(", ")));
    if (box.main_A) text += say("; main ") + A(*box.main_A);
    for (const ChannelGroup& g : box.groups) text += say("; group %1 shares %2").arg(q(g.name), A(g.limit_A));
    text += box.remembers ? say("; comes back by itself after a power loss")
                          : say("; stays off after a power loss");
    what_->setText(text + say(". Typical, check the plate."));
}

void BoxDialog::accept() {
    const auto refuse = [this](Error e, const char* place) {
        e.place = place;
        problem_->setText(q(words::sentence(e)));
    };
    const auto& boxes = library().boxes;
    const auto k = static_cast<std::size_t>(std::max(0, kind_->currentIndex()));
    if (k >= boxes.size()) return;
    NewBox ask;
    ask.box = boxes[k].box;
    if (!name_->text().trimmed().isEmpty()) ask.box.name = name_->text().trimmed().toStdString();
    if (from_->currentIndex() >= 0) ask.from = Terminal(from_->currentData().toString().toStdString());
    ask.place = place_->currentData().toString().toStdString();
    const QString when = trigger_->currentData().toString();
    if (when == QStringLiteral("accessory")) ask.trigger.key = Key::accessory;
    if (when == QStringLiteral("ignition") || when == QStringLiteral("running"))
        ask.trigger.key = Key::ignition;
    if (when == QStringLiteral("running")) ask.trigger.engine = Engine::running;
    if (!length_->text().trimmed().isEmpty()) {
        const auto v = parse_value(length_->text().toStdString(), Dimension::length);
        if (!v) return refuse(v.error(), "length of its feed");
        if (!(*v > 0 && *v <= 200))
            return refuse(
                {ErrorCode::out_of_range, {}, length_->text().toStdString(), Want::a_length_up_to_200_m},
                "length of its feed");
        ask.length_m = *v;
    }
    if (!cutoff_->text().trimmed().isEmpty()) {
        const auto v = parse_value(cutoff_->text().toStdString(), Dimension::voltage);
        if (!v) return refuse(v.error(), "cuts off below");
        if (!(*v > 0 && *v <= 60))
            return refuse(
                {ErrorCode::out_of_range, {}, cutoff_->text().toStdString(), Want::volts_up_to_60_v},
                "cuts off below");
        ask.cutoff_V = *v;
    }
    const auto added = add_box(document_->plan(), ask);
    if (!added) {
        problem_->setText(q(words::sentence(added.error())));
        return;
    }
    if (!document_->apply(added->edit, say("add ") + q(ask.box.name))) {
        problem_->setText(say("The plan does not take this box; the line above the picture says why."));
        return;
    }
    document_->selection().choose(added->id);
    QDialog::accept();
}

}  // namespace yr::app

#include "moc_box_dialog.cpp"
