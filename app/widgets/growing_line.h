// A line to type on that wraps and grows to four rows, so that all of it is seen. Enter ends it; no line
// breaks.
#pragma once

#include <QPlainTextEdit>

namespace yr::app {

class GrowingLine : public QPlainTextEdit {
    Q_OBJECT

  public:
    explicit GrowingLine(QWidget* parent = nullptr);
    [[nodiscard]] QString text() const { return toPlainText(); }
    void setText(const QString& text);
    void select_part(int at, int length);
    [[nodiscard]] bool on_first_row() const;
    [[nodiscard]] bool on_last_row() const;

  signals:
    void entered();                            // Enter
    void page_pasted(const QString& several);  // several lines at once: not for one line

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void insertFromMimeData(const QMimeData* source) override;

  private:
    void fit();
};

}  // namespace yr::app
