// The reading that is asked for next, in large figures: where the probes go as a sentence, the value typed or
// taken from the meter, Enter to the next.
#pragma once

#include <QBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QWidget>

#include "meter/reading.h"

namespace yr::app {

class EntryBar : public QWidget {
    Q_OBJECT

  public:
    explicit EntryBar(QWidget* parent = nullptr);
    // What is asked; `sentence` and, under it, `hint`. Empty sentence: nothing is asked.
    void ask(ReadKind kind, const QString& sentence, const QString& hint);
    [[nodiscard]] QLineEdit* field() { return field_; }
    [[nodiscard]] QToolButton* meter() { return meter_; }
    [[nodiscard]] QString sentence() const { return sentence_->text(); }
    [[nodiscard]] QString hint() const { return hint_->text(); }
    void say_wrong(const QString& text);
    void set_aloud(bool on) { aloud_ = on; }
    // A program that speaks, where one is installed; empty: none.
    [[nodiscard]] static QString speech_program();

  signals:
    void entered(double value);

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    QBoxLayout* beside_ = nullptr;
    void take();
    QLabel *sentence_, *hint_;
    QLineEdit* field_;
    QToolButton* meter_;
    ReadKind kind_ = ReadKind::volts;
    bool aloud_ = false;
};

}  // namespace yr::app
