#include "widgets/spoken_parts.h"

#include <QAccessible>
#include <QAccessibleWidget>
#include <QWidget>

namespace yr::app {
namespace {

const SpokenParts* parts_of(const QWidget* widget) {
    return dynamic_cast<const SpokenParts*>(widget);
}

// One part; it asks its view anew each time, since views are painted anew all the time.
class PartInterface : public QAccessibleInterface {
  public:
    PartInterface(QWidget* view, int index) : view_(view), index_(index) {}

    bool isValid() const override { return index_ < static_cast<int>(all().size()); }
    QObject* object() const override { return nullptr; }
    QAccessibleInterface* childAt(int, int) const override { return nullptr; }
    QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(view_); }
    QAccessibleInterface* child(int) const override { return nullptr; }
    int childCount() const override { return 0; }
    int indexOfChild(const QAccessibleInterface*) const override { return -1; }
    QString text(QAccessible::Text kind) const override {
        if (!isValid()) return {};
        const SpokenPart part = all()[static_cast<std::size_t>(index_)];
        return kind == QAccessible::Name ? part.name : kind == QAccessible::Value ? part.value : QString();
    }
    void setText(QAccessible::Text, const QString&) override {}
    QRect rect() const override {
        if (!isValid()) return {};
        return all()[static_cast<std::size_t>(index_)].rect.translated(view_->mapToGlobal(QPoint()));
    }
    QAccessible::Role role() const override { return QAccessible::ListItem; }
    QAccessible::State state() const override {
        QAccessible::State s;
        s.readOnly = true;
        return s;
    }

  private:
    [[nodiscard]] std::vector<SpokenPart> all() const {
        const SpokenParts* parts = parts_of(view_);
        return parts ? parts->spoken_parts() : std::vector<SpokenPart>();
    }
    QWidget* view_;
    int index_;
};

class ViewInterface : public QAccessibleWidget {
  public:
    explicit ViewInterface(QWidget* view) : QAccessibleWidget(view, QAccessible::List) {}
    ~ViewInterface() override {
        for (const QAccessible::Id id : ids_) QAccessible::deleteAccessibleInterface(id);
    }
    int childCount() const override { return static_cast<int>(parts_of(widget())->spoken_parts().size()); }
    QAccessibleInterface* child(int index) const override {
        if (index < 0 || index >= childCount()) return nullptr;
        while (static_cast<int>(ids_.size()) <= index)
            ids_.push_back(QAccessible::registerAccessibleInterface(
                new PartInterface(widget(), static_cast<int>(ids_.size()))));
        return QAccessible::accessibleInterface(ids_[static_cast<std::size_t>(index)]);
    }
    QAccessibleInterface* childAt(int x, int y) const override {
        for (int k = childCount() - 1; k >= 0; --k)
            if (child(k)->rect().contains(x, y)) return child(k);
        return nullptr;
    }
    int indexOfChild(const QAccessibleInterface* wanted) const override {
        for (int k = 0; k < childCount(); ++k)
            if (child(k) == wanted) return k;
        return -1;
    }

  private:
    mutable std::vector<QAccessible::Id> ids_;
};

QAccessibleInterface* make(const QString&, QObject* object) {
    auto* widget = qobject_cast<QWidget*>(object);
    return widget && parts_of(widget) ? new ViewInterface(widget) : nullptr;
}

}  // namespace

void tell_screen_readers() {
    static const bool once = [] {
        QAccessible::installFactory(make);
        return true;
    }();
    (void)once;
}

}  // namespace yr::app
