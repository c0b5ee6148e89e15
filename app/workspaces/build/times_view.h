// One's own minutes and torques beside the typical ones: what is typed there wins wherever they are used.
#pragma once

#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"

namespace yr::app {

class TimesView : public QWidget {
    Q_OBJECT

  public:
    explicit TimesView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QTreeWidget* times() { return times_; }
    [[nodiscard]] QTreeWidget* torques() { return torques_; }
    // Typed into the row of that task or thread; empty: the typical one again. One step that undo takes back.
    void say_minutes(const std::string& task, const QString& text);
    void say_torque(double thread_mm, const QString& text);

    enum Column { what, typical, own };

  private:
    Document* document_;
    QTreeWidget *times_, *torques_;
    bool filling_ = false;
};

}  // namespace yr::app
