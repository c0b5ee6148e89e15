// The list on the left: supply first, then each feed with the loads that hang on it, amps at the right.
#pragma once

#include <QMenu>
#include <QTreeWidget>
#include <optional>
#include <vector>

#include "document/document.h"

namespace yr::app {

class PlanList : public QTreeWidget {
    Q_OBJECT

  public:
    explicit PlanList(Document* document, QWidget* parent = nullptr);
    // Text of the row of this thing, "name|amount"; empty when it has no row.
    [[nodiscard]] QString row_text(const Id& id) const;
    // All that is chosen: the rows, or what is selected elsewhere and has no row of its own.
    [[nodiscard]] std::vector<Id> chosen() const;

  signals:
    void why(const std::vector<words::ValueRef>& refs, const QPoint& global);
    void remove_asked();  // all that is chosen

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

  private:
    void fill_hang_menu(QMenu* menu, const Id& load, const Run& run);
    struct Row {
        Id id;
        QString name, amount, tip;
        bool heading = false;
        std::optional<Severity> severity{};
        friend bool operator==(const Row&, const Row&) = default;
    };
    void refresh();
    [[nodiscard]] std::vector<Row> rows() const;
    [[nodiscard]] Row load_row(std::size_t index, int channel = 0) const;
    [[nodiscard]] std::vector<words::ValueRef> questions(const Id& id) const;
    void show_selection();

    Document* document_;
    std::vector<Row> shown_;  // by item
    bool filling_ = false, choosing_ = false;
};

}  // namespace yr::app
