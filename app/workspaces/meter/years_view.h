// A battery over the years: what was read at rest and while cranking, what that would be on the coldest
// morning, and where it leads. New readings go into the record.
#pragma once

#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "meter/health.h"

class QCustomPlot;

namespace yr::app {

class RecordView;

class YearsView : public QWidget {
    Q_OBJECT

  public:
    YearsView(Document* document, RecordView* record, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] Id battery() const;
    [[nodiscard]] double cold_C() const { return cold_C_; }
    [[nodiscard]] const std::vector<HealthDay>& days() const { return days_; }
    [[nodiscard]] const std::optional<Outlook>& ahead() const { return ahead_; }
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QComboBox* choice() { return battery_; }
    [[nodiscard]] QLineEdit* rested() { return rested_; }
    [[nodiscard]] QLineEdit* cranked() { return cranked_; }
    [[nodiscard]] QLineEdit* warmth() { return warmth_; }
    [[nodiscard]] QLineEdit* loads() { return loads_; }
    [[nodiscard]] QLineEdit* cold() { return cold_; }
    [[nodiscard]] QPushButton* keep_button() { return keep_; }

  signals:
    void changed();

  private:
    QWidget* make_entry();
    void keep();
    void set_cold();
    void draw();

    Document* document_;
    RecordView* record_;
    QComboBox* battery_;
    QLineEdit *rested_, *cranked_, *warmth_, *loads_, *cold_;
    QPushButton* keep_;
    QTreeWidget* table_;
    QCustomPlot* chart_;
    std::vector<HealthDay> days_;
    std::optional<Outlook> ahead_;
    double cold_C_ = -10;
};

}  // namespace yr::app
