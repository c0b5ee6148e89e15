// The window's files: open, save, leave, and what is brought back after a crash.
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>

#include "document/plan_files.h"
#include "notes/notes.h"
#include "window/main_window.h"
#include "window/notes_dialog.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

QString plan_filter() {
    return say("Your Rail plans (*.yourrail.json);;All files (*)");
}

}  // namespace

void MainWindow::refresh_title() {
    const PlanStore& store = document_.store();
    const QString file = store.path().isEmpty() ? say("not saved yet") : QFileInfo(store.path()).fileName();
    setWindowTitle(q(store.plan().vehicle.name) +
                   (store.modified() ? QStringLiteral(" • ") : QStringLiteral(" – ")) + file +
                   say(" – Your Rail"));
}

void MainWindow::new_plan() {
    if (may_leave()) document_.store().open(empty_plan("New vehicle"), {});
}

void MainWindow::take_plan(const Plan& plan) {
    document_.store().open(plan, {});
    for (Workspace* w : workspaces_) w->plan_opened();
}

void MainWindow::start_with(const QString& key) {
    if (!may_leave()) return;
    for (const BareVehicle& b : bare_vehicles())
        if (q(b.key) == key) take_plan(read_notes(b.text).plan);
}

void MainWindow::from_notes() {
    auto* dialog = new NotesDialog(&document_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, &NotesDialog::plan_taken, this, [this](const Plan& plan) {
        if (may_leave()) take_plan(plan);
    });
    dialog->open();
}

bool MainWindow::open_file(const QString& path) {
    auto plan = read_plan_file(path);
    if (!plan) {
        messages_->say(q(words::sentence(plan.error())) + say(" The open plan is as it was."));
        return false;
    }
    on_disk_ = fingerprint(path);
    document_.store().open(std::move(*plan), path);
    for (Workspace* w : workspaces_) w->plan_opened();
    remember_recent(path);
    return true;
}

void MainWindow::open_demo(const QString& resource) {
    document_.store().open(read_demo(resource), {});
    for (Workspace* w : workspaces_) w->plan_opened();
}

bool MainWindow::save_to(const QString& path, bool over_another) {
    const QByteArray now = path == document_.store().path() ? fingerprint(path) : QByteArray();
    if (!over_another && !now.isEmpty() && now != on_disk_) {
        messages_->say(say("%1 was changed by another window or program since it was opened here. Nothing "
                           "was saved yet.")
                           .arg(QFileInfo(path).fileName()),
                       {{say("Save over it"), [this, path] { save_to(path, true); }},
                        {say("Save under another name"), [this] { save_as(); }}});
        return false;
    }
    const auto saved = write_plan_file(document_.store().stored(), path);
    if (!saved) {
        messages_->say(q(words::sentence(saved.error())) + say(" The plan is still open and unsaved."));
        return false;
    }
    on_disk_ = fingerprint(path);
    document_.store().saved_as(path);
    if (recovery_) recovery_->write_now();
    remember_recent(path);
    return true;
}

bool MainWindow::save() {
    return document_.store().path().isEmpty() ? save_as() : save_to(document_.store().path());
}

bool MainWindow::save_as() {
    QString name = document_.store().path();
    if (name.isEmpty())
        name = q(document_.plan().vehicle.name).toLower().replace(QLatin1Char(' '), QLatin1Char('-')) +
               QStringLiteral(".yourrail.json");
    QString path = QFileDialog::getSaveFileName(this, say("Save the plan"), name, plan_filter());
    if (path.isEmpty()) return false;
    if (QFileInfo(path).suffix().isEmpty()) path += QStringLiteral(".yourrail.json");
    return save_to(path);
}

void MainWindow::open_dialog() {
    if (!may_leave()) return;
    const QString path = QFileDialog::getOpenFileName(
        this, say("Open a plan"), QFileInfo(document_.store().path()).path(), plan_filter());
    if (!path.isEmpty()) open_file(path);
}

bool MainWindow::may_leave() {
    if (!document_.store().modified()) return true;
    QMessageBox box(this);
    box.setWindowTitle(say("Your Rail"));
    box.setText(say("The plan \u201C") +
                q(document_.plan().vehicle.name + "\u201D has changes that are not saved."));
    auto* save_it = box.addButton(say("Save"), QMessageBox::AcceptRole);
    auto* drop = box.addButton(say("Leave without saving"), QMessageBox::DestructiveRole);
    box.addButton(say("Stay here"), QMessageBox::RejectRole);
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

// Not gone: a slip can still be taken back.
void MainWindow::put_aside(const Recoverable& lost) {
    const QString aside = recovery_->put_aside(lost);
    if (aside.isEmpty()) return messages_->say(say("It could not be put aside; it will be offered again."));
    messages_->say(say("“%1” is put aside for 30 days.").arg(lost.vehicle),
                   {{say("Bring it back all the same"), [this, lost, aside] {
                         Recoverable again = lost;
                         again.file = aside;
                         recovery_->bring_back(again);
                         refresh_title();
                     }}});
}

void MainWindow::offer_recovery() {
    if (!recovery_) return;
    const auto lost = recovery_->found();
    if (lost.empty()) return;
    const Recoverable& last = lost.front();
    messages_->say(say("“%1” was not saved when the program ended on %2.")
                       .arg(last.vehicle, last.written.toString(QStringLiteral("d MMM, HH:mm"))),
                   {{say("Bring it back"),
                     [this, last] {
                         recovery_->bring_back(last);
                         refresh_title();
                     }},
                    {say("Not now, and do not ask again"), [this, last] { put_aside(last); }}});
}

}  // namespace yr::app
