#include "workspaces/build/work_view.h"

#include <QDateTime>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QMouseEvent>
#include <QScrollBar>
#include <QTimer>
#include <QToolButton>
#include <algorithm>
#include <iterator>

#include "text/say.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/work_words.h"

namespace yr::app {
namespace {

constexpr int kPhoto_px = 260;

// A row that is clicked anywhere to open it.
class StepRow : public QFrame {
  public:
    explicit StepRow(std::function<void()> clicked) : clicked_(std::move(clicked)) {}

  protected:
    void mousePressEvent(QMouseEvent*) override { QTimer::singleShot(0, this, clicked_); }

  private:
    std::function<void()> clicked_;
};

QLabel* text_of(const QString& text, const char* name = "") {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    l->setObjectName(QString::fromLatin1(name));
    return l;
}

}  // namespace

WorkView::WorkView(Document* document, QWidget* parent) : QScrollArea(parent), document_(document) {
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setAccessibleName(say("Order of work"));
    auto* page = new QWidget;
    column_ = new QVBoxLayout(page);
    column_->setContentsMargins(16, 4, 16, 12);
    column_->setSpacing(4);
    setWidget(page);
}

void WorkView::refresh() {
    order_ = work_order(document_->plan());
    if (const std::string now = shape(); now == shape_ && rows_.size() == order_.steps.size()) {
        for (std::size_t k = 0; k < rows_.size(); ++k) tell(rows_[k], order_.steps[k]);
        return;
    } else {
        shape_ = now;
    }
    const int kept = verticalScrollBar()->value();
    clear_lines(column_);
    rows_.clear();
    QString at;
    for (const WorkStep& s : order_.steps) {
        const QString where = q(words::where(document_->plan(), s));
        if (where != at) add_head(at = where);
        add_step(s);
    }
    column_->addStretch();
    QTimer::singleShot(0, this, [this, kept] { verticalScrollBar()->setValue(kept); });
}

void WorkView::add_head(const QString& where) {
    auto* l = text_of(where, "soft");
    l->setFont(type_font(Type::bold));
    l->setContentsMargins(0, 8, 0, 0);
    column_->addWidget(l);
}

void WorkView::add_step(const WorkStep& s) {
    auto* row = new StepRow([this, key = s.key] { open_step(open_ == key ? std::string() : key); });
    row->setObjectName(QStringLiteral("workstep"));
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(8, 5, 10, 5);
    line->setSpacing(10);
    auto* box = new QToolButton;  // large enough for a thumb
    box->setObjectName(QStringLiteral("tick"));
    box->setCheckable(true);
    box->setFixedSize(30, 30);
    box->setAccessibleName(q(words::sentence(document_->plan(), s)));
    connect(box, &QToolButton::clicked, this, [this, key = s.key](bool on) {
        QTimer::singleShot(0, this, [this, key, on] { tick(key, on); });
    });
    line->addWidget(box);
    auto* what = text_of({});
    rows_.push_back({box, what});
    tell(rows_.back(), s);
    line->addWidget(what, 1);
    auto* time = text_of(q(words::minutes_text(s.minutes)), "soft");
    time->setWordWrap(false);
    line->addWidget(time);
    column_->addWidget(row);
    if (open_ == s.key) add_details(s);
}

std::string WorkView::shape() const {
    std::string all = open_;
    for (const WorkStep& s : order_.steps) {
        all +=
            "\n" + words::where(document_->plan(), s) + s.key + (s.put_off ? "!" : "") + (s.waits ? "?" : "");
        for (const Mark& m : document_->plan().marks)
            if (s.key == open_ && m.about == s.key && !m.photo.empty()) all += m.photo;
        if (s.key == open_) all += words::remark(document_->plan(), s) + (s.done() ? "x" : "");
    }
    for (const Mark& m : document_->plan().marks)
        if (m.name == "first" || m.name == "before") all += m.about + m.note;
    return all;
}

void WorkView::tell(const Row& row, const WorkStep& s) const {
    row.box->setChecked(s.done());
    row.box->setText(s.done() ? QStringLiteral("✓") : s.made.empty() ? QString() : QStringLiteral("·"));
    row.box->setToolTip(s.made.empty() || s.done()
                            ? say("Done")
                            : say("%1 of %2 done").arg(s.made.size()).arg(s.members.size()));
    QString text = q(words::sentence(document_->plan(), s));
    if (!s.done() && !s.made.empty())
        text += say(" (%1 of %2 done)").arg(s.made.size()).arg(s.members.size());
    if (s.put_off) text += say(" (put off)");
    if (s.waits) text += say(" (waits for what is put off)");
    if (row.what->text() != text) row.what->setText(text);
    const WorkStep* now = next();
    const Type type = now && now->key == s.key ? Type::bold : Type::body;
    if (row.what->font() != type_font(type)) row.what->setFont(type_font(type));
}

void WorkView::add_details(const WorkStep& s) {
    auto* frame = new QFrame;
    auto* lines = new QVBoxLayout(frame);
    lines->setContentsMargins(50, 2, 12, 8);
    lines->setSpacing(3);
    for (const WorkCaution c : s.cautions) lines->addWidget(text_of(q(words::work_caution(c)), "fix"));
    for (const Fixing& f : s.fixings) lines->addWidget(text_of(q(words::fixing(document_->plan(), f))));
    if (const std::string remark = words::remark(document_->plan(), s); !remark.empty())
        lines->addWidget(text_of(q(remark)));
    lines->addWidget(text_of(
        s.own_minutes ? say("Minutes by your own table.") : say("Minutes are typical, no source."), "soft"));
    auto* note = new QLineEdit;
    note->setPlaceholderText(say("Worth knowing: 13 mm nut, one clip broke …"));
    note->setAccessibleName(say("Note on this step"));
    connect(note, &QLineEdit::returnPressed, this, [this, note, key = s.key] {
        const QString text = note->text().trimmed();
        QTimer::singleShot(0, this, [this, key, text] { this->note(key, text); });
    });
    lines->addWidget(note);
    add_photos(s, lines);
    add_act(lines, say("A photo of it …"), [this, key = s.key] {
        const QString path = QFileDialog::getOpenFileName(this, say("A photo of this step"), folder(),
                                                          say("Pictures (*.png *.jpg *.jpeg)"));
        if (!path.isEmpty()) photo(key, path);
    });
    if (!s.done()) add_moves(s, lines);
    column_->addWidget(frame);
}

void WorkView::add_act(QVBoxLayout* lines, const QString& text, const std::function<void()>& does) {
    auto* l = text_of(act_text(text));
    connect(l, &QLabel::linkActivated, this, [this, does] { QTimer::singleShot(0, this, does); });
    lines->addWidget(l);
}

// Put off, first, or before and behind its neighbours.
void WorkView::add_moves(const WorkStep& s, QVBoxLayout* lines) {
    const auto sentence = [this](const WorkStep& of) { return q(words::sentence(document_->plan(), of)); };
    const bool marked_first =
        std::any_of(document_->plan().marks.begin(), document_->plan().marks.end(),
                    [&](const Mark& m) { return m.name == "first" && m.about == s.key; });
    add_act(lines, s.put_off ? say("Not put off any more") : say("Put off: it cannot be done today"),
            [this, key = s.key, off = !s.put_off] { put_off(key, off); });
    add_act(lines,
            marked_first ? say("In its usual place again") : say("Do this first, with all that it needs"),
            [this, key = s.key, on = !marked_first] { first(key, on); });
    if (const WorkStep* earlier = neighbour(s, -1))
        add_act(lines, say("Earlier: before “%1”").arg(sentence(*earlier)),
                [this, key = s.key, other = earlier->key] { before(key, other); });
    if (const WorkStep* later = neighbour(s, 1))
        add_act(lines, say("Later: behind “%1”").arg(sentence(*later)),
                [this, key = s.key, other = later->key] { before(other, key); });
    if (moved_by_hand(s.key))
        add_act(lines, say("In its usual order again"), [this, key = s.key] { usual(key); });
}

const WorkStep* WorkView::neighbour(const WorkStep& s, int way) const {
    const auto here = std::find_if(order_.steps.begin(), order_.steps.end(),
                                   [&](const WorkStep& other) { return other.key == s.key; });
    const auto tied = [&](const WorkStep& first, const WorkStep& later) {
        return std::any_of(later.after.begin(), later.after.end(),
                           [&](std::size_t a) { return order_.steps[a].key == first.key; });
    };
    const auto goes = [&](const WorkStep& other) {
        const bool by_hand =
            std::any_of(document_->plan().marks.begin(), document_->plan().marks.end(), [&](const Mark& m) {
                return m.name == "before" && ((m.about == s.key && m.note == other.key) ||
                                              (m.about == other.key && m.note == s.key));
            });
        return !other.put_off && !other.waits && other.task < yr::Task::last_look &&
               (by_hand || !(way < 0 ? tied(other, s) : tied(s, other)));
    };
    if (s.put_off || s.waits || s.task >= yr::Task::last_look) return nullptr;
    for (auto at = here; way < 0 ? at != order_.steps.begin() : std::next(at) != order_.steps.end();) {
        at += way;
        if (at->done()) continue;
        return goes(*at) ? &*at : nullptr;
    }
    return nullptr;
}

bool WorkView::moved_by_hand(const std::string& key) const {
    const auto& marks = document_->plan().marks;
    return std::any_of(marks.begin(), marks.end(), [&](const Mark& m) {
        return m.name == "before" && (m.about == key || m.note == key);
    });
}

// Folder of the plan's file: paths of pictures are told from there.
QString WorkView::folder() const {
    const QString plan = document_->store().path();
    return plan.isEmpty() ? QString() : QFileInfo(plan).absolutePath();
}

void WorkView::add_photos(const WorkStep& s, QVBoxLayout* lines) {
    for (const Mark& m : document_->plan().marks) {
        if (m.about != s.key || m.photo.empty()) continue;
        const QString path = QDir(folder()).absoluteFilePath(q(m.photo));
        const QImage picture(path);
        if (picture.isNull()) {
            lines->addWidget(text_of(say("Its photo is not there any more: %1").arg(path), "fix"));
            continue;
        }
        auto* shown = new QLabel;
        shown->setPixmap(QPixmap::fromImage(
            picture.scaled(kPhoto_px, kPhoto_px, Qt::KeepAspectRatio, Qt::SmoothTransformation)));
        shown->setAccessibleName(say("Photo of this step: %1").arg(q(m.photo)));
        shown->setToolTip(path);
        lines->addWidget(shown);
    }
}

const WorkStep* WorkView::step(const std::string& key) const {
    for (const WorkStep& s : order_.steps)
        if (s.key == key) return &s;
    return nullptr;
}

const WorkStep* WorkView::next() const {
    for (const WorkStep& s : order_.steps) {
        if (s.done() || s.put_off || s.waits) continue;
        if (std::all_of(s.after.begin(), s.after.end(),
                        [&](std::size_t a) { return order_.steps[a].done(); }))
            return &s;
    }
    return nullptr;
}

void WorkView::open_step(const std::string& key) {
    open_ = key;
    refresh();
}

QString WorkView::by_whom() const {
    return qEnvironmentVariable("USER");
}

void WorkView::tick(const std::string& key, bool done) {
    const WorkStep* s = step(key);
    if (!s || s->done() == done) return;
    Batch all;
    Plan now = document_->plan();  // for ids alone
    const std::string name = mark_of(s->task);
    for (const std::string& member : s->members) {
        const Mark* there = nullptr;
        for (const Mark& m : now.marks)
            if (m.name == name && m.about == member) there = &m;
        if (done && !there) {
            Mark m;
            m.id = new_id(now, "mark"), m.name = name, m.about = member;
            m.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
            m.who = by_whom().toStdString();
            now.marks.push_back(m);
            all.edits.emplace_back(Put<Mark>{m, {}});
        } else if (!done && there) {
            all.edits.emplace_back(Remove<Mark>{there->id});
        }
    }
    document_->apply(all, done ? say("step done") : say("not yet after all"));
}

void WorkView::move_mark(const char* name, const std::string& key, bool on, const QString& done) {
    const Plan& plan = document_->plan();
    for (const Mark& m : plan.marks)
        if (m.name == name && m.about == key) {
            if (!on) document_->apply(Remove<Mark>{m.id}, done);
            return;
        }
    if (!on) return;
    Mark m;
    m.id = new_id(plan, "mark"), m.name = name, m.about = key;
    m.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document_->apply(Put<Mark>{m, {}}, done);
}

void WorkView::put_off(const std::string& key, bool off) {
    move_mark("put off", key, off, off ? say("step put off") : say("step not put off"));
}

void WorkView::first(const std::string& key, bool on) {
    move_mark("first", key, on, on ? say("step first") : say("step in its place"));
}

void WorkView::before(const std::string& key, const std::string& other) {
    Batch all;
    for (const Mark& m : document_->plan().marks)  // what was put the other way round
        if (m.name == "before" && m.about == other && m.note == key)
            all.edits.emplace_back(Remove<Mark>{m.id});
    Mark m;
    m.id = new_id(document_->plan(), "mark"), m.name = "before", m.about = key, m.note = other;
    m.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    all.edits.emplace_back(Put<Mark>{m, {}});
    document_->apply(all, say("step moved"));
}

void WorkView::usual(const std::string& key) {
    Batch all;
    for (const Mark& m : document_->plan().marks)
        if (m.name == "before" && (m.about == key || m.note == key))
            all.edits.emplace_back(Remove<Mark>{m.id});
    document_->apply(all, say("step in its usual order"));
}

void WorkView::note(const std::string& key, const QString& text) {
    if (text.isEmpty()) return;
    Mark m;
    m.id = new_id(document_->plan(), "mark"), m.name = "note", m.about = key, m.note = text.toStdString();
    m.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document_->apply(Put<Mark>{m, {}}, say("note on a step"));
}

void WorkView::photo(const std::string& key, const QString& path) {
    if (QImage(path).isNull()) {
        document_->store().refuse(
            say("“%1” is no picture that can be read.").arg(QFileInfo(path).fileName()));
        return;
    }
    Mark m;
    m.id = new_id(document_->plan(), "mark"), m.name = "photo", m.about = key;
    const QString beside = folder().isEmpty() ? QString() : QDir(folder()).relativeFilePath(path);
    m.photo = (beside.isEmpty() || beside.startsWith(QStringLiteral("..")) ? path : beside).toStdString();
    m.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document_->apply(Put<Mark>{m, {}}, say("photo of a step"));
}

}  // namespace yr::app

#include "moc_work_view.cpp"
