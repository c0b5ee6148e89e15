// The parts of a painted view for a screen reader: what each is called and says, and where it is. A view that
// paints implements SpokenParts; QAccessible hears of them as its children.
#pragma once

#include <QRect>
#include <QString>
#include <vector>

namespace yr::app {

struct SpokenPart {
    QRect rect;  // in the view
    QString name, value;
};

class SpokenParts {
  public:
    virtual ~SpokenParts() = default;
    [[nodiscard]] virtual std::vector<SpokenPart> spoken_parts() const = 0;
};

// Once for the program.
void tell_screen_readers();

}  // namespace yr::app
