// The look: text that can be read on every ground, the caution where it must stand, marks that the typeface
// has.
#include <QFontDatabase>
#include <QFontMetricsF>
#include <QLabel>
#include <QPushButton>
#include <QRawFont>
#include <cmath>

#include "app/window_fixture.h"
#include "widgets/tokens.h"
#include "window/dialogs.h"

namespace yr::test {
namespace {

double contrast(const QColor& a, const QColor& b) {  // WCAG 2.1
    const auto luminance = [](const QColor& c) {
        const auto linear = [](double v) {
            return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
    };
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

TEST(Look, TextIsReadableOnEveryGround) {
    for (const bool night : {false, true}) {
        app::use_look(night);
        const app::Tokens& t = app::tokens();
        for (const QColor& ground : {t.paper, t.panel})
            for (const QColor& text : {t.ink, t.soft, t.stop, t.fix, t.good})
                EXPECT_GE(contrast(text, ground), 4.5)
                    << text.name().toStdString() << " on " << ground.name().toStdString();
        for (const QColor& ground :
             {t.supply[0], t.supply[1], t.supply[2], t.ret[0], t.ret[1], t.source, t.paper, t.panel})
            EXPECT_GE(contrast(t.on(ground), ground), 4.5) << ground.name().toStdString();
        EXPECT_GE(contrast(t.card_ink, t.card), 4.5);
        EXPECT_GE(contrast(t.card_soft, t.card), 4.5);
    }
    app::use_look(false);
}

TEST(Look, TheShippedTypefaceIsUsedAndItsFiguresAreTabular) {
    EXPECT_TRUE(QFontDatabase::families().contains(QStringLiteral("B612 Rail")));
    EXPECT_TRUE(QFontDatabase::families().contains(QStringLiteral("Rail Marks")));
    const QFontMetricsF m(app::type_font(app::Type::body));
    for (char c = '1'; c <= '9'; ++c)
        EXPECT_NEAR(m.horizontalAdvance(QLatin1Char(c)), m.horizontalAdvance(QLatin1Char('0')), 0.01);
}

TEST(Look, EveryMarkHasAGlyphInWhatShips) {
    QStringList files{QStringLiteral(":/fonts/B612-Regular.otf"), QStringLiteral(":/fonts/RailMarks.ttf")};
    std::vector<QRawFont> fonts;
    for (const QString& f : files) fonts.emplace_back(f, 13);
    for (const char* text :
         {"■", "▲", "○", "·", "→", "−", "×", "Ω", "²", "°", "…", "↶", "↷", "✕", "⏎", "▸", "\u2009"}) {
        const QChar c = QString::fromUtf8(text).at(0);
        EXPECT_TRUE(std::any_of(fonts.begin(), fonts.end(), [&](const QRawFont& f) {
            return f.supportsCharacter(c);
        })) << text;
    }
}

TEST(Look, FirstStartCautionsAndOffersStartingPoints) {
    app::FirstStart dialog(nullptr);
    QString all;
    for (QLabel* l : dialog.findChildren<QLabel*>()) all += l->text() + QLatin1Char('\n');
    for (const char* must :
         {"licensed practitioner", "negative off first", "hydrogen", "lethal mains", "Airbags"})
        EXPECT_TRUE(all.contains(QString::fromUtf8(must))) << must;
    const auto buttons = dialog.findChildren<QPushButton*>();
    ASSERT_EQ(buttons.size(), 4);
    for (QPushButton* b : buttons)
        if (b->text() == QStringLiteral("Empty plan")) b->click();
    EXPECT_TRUE(dialog.chosen().isEmpty());
    EXPECT_EQ(dialog.result(), QDialog::Accepted);
}

TEST_F(WindowTest, ItFitsAt1024AndAtFullHd) {
    for (const QSize& size : {QSize(1024, 640), QSize(1280, 800), QSize(1920, 1080)}) {
        window.resize(size);
        QCoreApplication::processEvents();
        EXPECT_EQ(window.size(), size);
        const QRectF plot = window.workspace<app::RailPage>()->chart()->scene().plot;
        EXPECT_GT(plot.width(), 400);
        for (const app::SceneItem& i : window.workspace<app::RailPage>()->chart()->scene().items) {
            EXPECT_GE(i.rect.left(), -0.5);
            EXPECT_LE(i.rect.right(), window.workspace<app::RailPage>()->chart()->width() + 0.5);
        }
        for (QWidget* w : window.findChildren<QToolButton*>()) {
            if (!w->isVisible() || w->parentWidget() == nullptr) continue;
            EXPECT_GE(w->height(), 24)
                << "a target is large enough to hit: " << w->accessibleName().toStdString();
        }
    }
}

TEST_F(WindowTest, EveryControlHasANameForScreenReaders) {
    doc().selection().choose(load_named("echo sounder"));
    for (QToolButton* b : window.findChildren<QToolButton*>())
        if (b->isVisible()) EXPECT_FALSE(b->accessibleName().isEmpty() && b->text().isEmpty());
    for (QLineEdit* e : window.findChildren<QLineEdit*>())
        if (e->isVisible()) EXPECT_FALSE(e->accessibleName().isEmpty()) << e->objectName().toStdString();
}

}  // namespace
}  // namespace yr::test
