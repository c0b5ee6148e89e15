// A line over the picture for what must be said without stopping the work: a refused file, work to bring
// back.
#pragma once

#include <QHBoxLayout>
#include <QLabel>
#include <QTimer>
#include <QToolButton>
#include <functional>
#include "text/say.h"

namespace yr::app {

class MessageBar : public QWidget {
  public:
    explicit MessageBar(QWidget* parent = nullptr) : QWidget(parent) {
        setObjectName(QStringLiteral("message"));
        setAttribute(Qt::WA_StyledBackground);
        row_ = new QHBoxLayout(this);
        row_->setContentsMargins(16, 4, 8, 4);
        text_ = new QLabel;
        text_->setWordWrap(true);
        text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
        row_->addWidget(text_, 1);
        timer_.setSingleShot(true);
        connect(&timer_, &QTimer::timeout, this, &QWidget::hide);
        hide();
    }

    struct Offer {
        QString text;
        std::function<void()> action;
    };

    // Without offers the line goes by itself after a while; with offers it stays until one is taken.
    void say(const QString& sentence, const std::vector<Offer>& offers = {}) {
        for (QToolButton* b : buttons_) b->deleteLater();
        buttons_.clear();
        text_->setText(sentence);
        text_->setAccessibleName(sentence);
        for (const Offer& offer : offers) add(offer);
        add({QStringLiteral("✕"), [] {}});
        show();
        if (offers.empty())
            timer_.start(15000);
        else
            timer_.stop();
    }
    [[nodiscard]] QString text() const { return isHidden() ? QString() : text_->text(); }

  private:
    void add(const Offer& offer) {
        auto* b = new QToolButton;
        b->setText(offer.text);
        b->setObjectName(QStringLiteral("mend"));
        connect(b, &QToolButton::clicked, this, [this, action = offer.action] {
            hide();
            action();
        });
        row_->addWidget(b);
        buttons_.push_back(b);
    }

    QHBoxLayout* row_;
    QLabel* text_;
    QTimer timer_;
    std::vector<QToolButton*> buttons_;
};

}  // namespace yr::app
