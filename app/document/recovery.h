// Autosave: what is open and not saved is written aside shortly after each change, and is offered again after
// a crash.
#pragma once

#include <QDateTime>
#include <QLockFile>
#include <QObject>
#include <QTimer>
#include <memory>
#include <vector>

#include "document/document.h"

namespace yr::app {

struct Recoverable {
    QString file;       // the autosave
    QString plan_path;  // where the plan had come from; empty: never saved
    QString vehicle;
    QDateTime written;
};

class Recovery : public QObject {
    Q_OBJECT

  public:
    // Keeps its files in `folder`, which is made if it is missing.
    Recovery(Document* document, const QString& folder, QObject* parent = nullptr);
    ~Recovery() override;  // a session that ends in order leaves nothing behind

    // Sessions that ended without order, newest first.
    [[nodiscard]] std::vector<Recoverable> found() const;
    // Opens such a plan, unsaved, and takes its autosave away. False with refused() when it cannot be read.
    bool bring_back(const Recoverable& lost);
    // No longer offered; its file stays aside for 30 days. Returns that file, empty where it could not be.
    QString put_aside(const Recoverable& lost);
    void write_now();

    [[nodiscard]] static QString default_folder();

  private:
    static void throw_away(const Recoverable& lost);

    Document* document_;
    QString folder_, file_;
    std::unique_ptr<QLockFile> lock_;
    QTimer timer_;
    quint64 written_ = 0;
};

}  // namespace yr::app
