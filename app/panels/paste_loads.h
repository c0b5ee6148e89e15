// Loads from a spreadsheet: the pasted table with the meaning of each column, what is understood of each row,
// and one button that adds them all as one step.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

#include "document/document.h"
#include "io/loads_csv.h"

namespace yr::app {

class PasteLoads : public QDialog {
    Q_OBJECT

  public:
    PasteLoads(Document* document, const QString& text, QWidget* parent = nullptr);

    [[nodiscard]] QTableWidget* table() { return table_; }
    // Gives a column another meaning, as its choice does.
    void set_meaning(int column, LoadColumn meaning);
    [[nodiscard]] int ready() const;  // rows that make a load
    [[nodiscard]] QString summary() const { return summary_->text(); }

  public slots:
    void accept() override;

  private:
    void read();

    Document* document_;
    LoadsTable loads_;
    std::vector<TableLoad> rows_;
    QTableWidget* table_;
    QLabel* summary_;
    QPushButton* add_;
    std::vector<QComboBox*> meanings_;
};

}  // namespace yr::app
