// The colours and type of the application: the one file that names a colour. "Bench" is the light look,
// "night" the dark one. Text on any ground is at least 4.5:1.
#pragma once

#include <QColor>
#include <QFont>

namespace yr::app {

struct Tokens {
    bool night = false;
    QColor paper, panel, ink, soft, line;
    QColor supply[3], ret[2], source, stop, fix, good;
    QColor card, card_ink, card_soft;  // the hover card: ink on light, raised panel on dark

    // Text that reads on this ground.
    [[nodiscard]] QColor on(const QColor& ground) const;

  private:
    [[nodiscard]] QColor readable_on(const QColor& ground) const;
};

[[nodiscard]] const Tokens& tokens();
// Chooses the look, sets palette and style sheet of the running application.
void use_look(bool night);

// While one lives, widgets are made without the style sheet; when it goes, all get it at once. Each widget
// that moves into another would be styled anew with all that is inside, once for every level above it.
class StyledWhenMade {
  public:
    StyledWhenMade();
    ~StyledWhenMade();
    StyledWhenMade(const StyledWhenMade&) = delete;
    StyledWhenMade& operator=(const StyledWhenMade&) = delete;
};

// Registers the shipped typeface and makes it the application's.
void use_typeface();

enum class Type { small, body, bold, title };
[[nodiscard]] QFont type_font(Type type);

}  // namespace yr::app
