#include "document/recovery.h"

#include <QDir>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStandardPaths>
#include <QUuid>
#include <algorithm>

#include "plan/plan_json.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kDelay_ms = 300;
const QString kEnding = QStringLiteral(".autosave");
const QString kAside = QStringLiteral(".aside");  // thrown away, and kept for so many days all the same
constexpr int kKept_days = 30;

QJsonObject read_object(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return {};
    return QJsonDocument::fromJson(file.readAll()).object();
}

}  // namespace

QString Recovery::default_folder() {
    return QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/autosave");
}

Recovery::Recovery(Document* document, const QString& folder, QObject* parent)
    : QObject(parent), document_(document), folder_(folder) {
    QDir().mkpath(folder_);
    file_ = folder_ + QStringLiteral("/") + QUuid::createUuid().toString(QUuid::WithoutBraces) + kEnding;
    lock_ = std::make_unique<QLockFile>(file_ + QStringLiteral(".lock"));
    lock_->setStaleLockTime(0);  // held for the whole session; stale only when its process is gone
    lock_->tryLock(0);
    for (const QFileInfo& info : QDir(folder_).entryInfoList({QStringLiteral("*") + kAside}, QDir::Files))
        if (info.lastModified().daysTo(QDateTime::currentDateTime()) > kKept_days)
            QFile::remove(info.absoluteFilePath());
    timer_.setSingleShot(true);
    timer_.setInterval(kDelay_ms);
    connect(&timer_, &QTimer::timeout, this, &Recovery::write_now);
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (document_->store().generation() != written_ && !timer_.isActive()) timer_.start();
    });
}

Recovery::~Recovery() {
    QFile::remove(file_);
    lock_->unlock();
}

void Recovery::write_now() {
    written_ = document_->store().generation();
    if (!document_->store().modified()) {
        QFile::remove(file_);
        return;
    }
    QJsonObject o;
    o[QStringLiteral("plan_path")] = document_->store().path();
    o[QStringLiteral("vehicle")] = q(document_->plan().vehicle.name);
    o[QStringLiteral("plan")] = q(to_json_text(document_->store().stored()));
    // a full disk loses the autosave, not the work: the old one stays whole
    static_cast<void>(write_text_file(
        file_.toStdString(), QJsonDocument(o).toJson(QJsonDocument::Compact).toStdString(), Overwrite::yes));
}

std::vector<Recoverable> Recovery::found() const {
    std::vector<Recoverable> list;
    for (const QFileInfo& info :
         QDir(folder_).entryInfoList({QStringLiteral("*") + kEnding}, QDir::Files, QDir::Time)) {
        if (info.absoluteFilePath() == QFileInfo(file_).absoluteFilePath()) continue;
        QLockFile lock(info.absoluteFilePath() + QStringLiteral(".lock"));
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0)) continue;  // another session lives
        const QJsonObject o = read_object(info.absoluteFilePath());
        list.push_back({info.absoluteFilePath(), o[QStringLiteral("plan_path")].toString(),
                        o[QStringLiteral("vehicle")].toString(), info.lastModified()});
    }
    return list;
}

bool Recovery::bring_back(const Recoverable& lost) {
    const std::string text = read_object(lost.file)[QStringLiteral("plan")].toString().toStdString();
    auto plan = plan_from_json_text(text);
    if (!plan) {
        document_->store().refuse(q(words::sentence(plan.error())));
        return false;
    }
    document_->store().open(std::move(*plan), lost.plan_path);
    document_->store().mark_recovered();
    write_now();  // first our own copy, then the old one goes
    throw_away(lost);
    return true;
}

QString Recovery::put_aside(const Recoverable& lost) {
    const QString aside = lost.file + kAside;
    QFile::remove(aside);
    return QFile::rename(lost.file, aside) ? aside : QString();
}

void Recovery::throw_away(const Recoverable& lost) {
    QFile::remove(lost.file);
}

}  // namespace yr::app

#include "moc_recovery.cpp"
