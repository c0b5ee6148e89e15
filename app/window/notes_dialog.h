// A page of typed lines and the vehicle that they make: each line shows what it became or why not, the
// picture beside it lives. Taken, it is the open plan, or is added to it.
#pragma once

#include <QCheckBox>
#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QTimer>

#include "document/job.h"
#include "notes/notes.h"
#include "railchart/rail_chart.h"

namespace yr::app {

class NotesDialog : public QDialog {
    Q_OBJECT

  public:
    explicit NotesDialog(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] QPlainTextEdit* page() { return page_; }
    [[nodiscard]] QListWidget* outcomes() { return outcomes_; }
    [[nodiscard]] QCheckBox* on_top() { return on_top_; }
    void finish();  // reads now, for tests and pictures

  signals:
    // The plan that was typed is to be the open one.
    void plan_taken(const Plan& plan);

  public slots:
    void accept() override;

  private:
    void read();
    void show_notes();
    void open_file();
    void write_plan();

    Document* document_;
    QPlainTextEdit* page_;
    QListWidget* outcomes_;
    QLabel* summary_;
    QCheckBox* on_top_;
    ShownCircuit circuit_;
    RailChart* chart_;
    QTimer wait_;
    Job<Notes> reading_;
};

}  // namespace yr::app
