// The record of the vehicle beside its plan: lines as they were added, and what drifted since.
#pragma once

#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "meter/as_built.h"

namespace yr::app {

class RecordView : public QWidget {
    Q_OBJECT

  public:
    explicit RecordView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QTreeWidget* lines() { return lines_; }
    [[nodiscard]] const RecordBook& book() const { return book_; }
    [[nodiscard]] QString problem() const { return problem_; }
    [[nodiscard]] std::vector<Drift> drifted() const;
    // Adds a line to the file, or says why it cannot. False: it is not kept.
    bool add(Record record);
    // What was built otherwise, a serial number, a date code, a warranty: of a thing, or of the whole
    // vehicle.
    bool add_built(const Id& thing, const QString& text);
    // A later line that puts the one of that number right. A number at its beginning corrects a reading's
    // value.
    bool correct(std::size_t number, const QString& text);
    // The vehicle as it stands in the plan now is how it was built: a copy beside the plan.
    bool keep_as_built();
    // The copy that counts for this vehicle; empty: none, or `problem` says why it cannot be read.
    [[nodiscard]] const std::optional<AsBuilt>& built() const { return built_; }
    [[nodiscard]] QComboBox* about() { return about_; }
    [[nodiscard]] QLineEdit* note() { return note_; }
    [[nodiscard]] QPushButton* keep_button() { return keep_; }
    [[nodiscard]] QPushButton* correct_button() { return correct_; }
    [[nodiscard]] QString path() const;  // empty: the plan was never saved

  signals:
    void changed();

  private:
    QWidget* make_entry();
    void fill_things();
    void signed_by_me(Record& record) const;
    [[nodiscard]] std::size_t chosen_number() const;

    Document* document_;
    QTreeWidget* lines_;
    QComboBox* about_;
    QLineEdit* note_;
    QPushButton *keep_, *correct_;
    std::optional<AsBuilt> built_;
    RecordBook book_;
    QString problem_;
};

}  // namespace yr::app
