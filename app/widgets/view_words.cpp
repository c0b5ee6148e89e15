#include "widgets/view_words.h"

#include <QMenu>
#include <algorithm>

#include "text/say.h"

namespace yr::app {

// The words in a line, as many as there is room for, the open one always and whole; the others in a menu at
// the end. None is ever cut.
class WordRow : public QWidget {
  public:
    WordRow() {
        more_ = new QToolButton(this);
        more_->setObjectName(QStringLiteral("state"));
        more_->setPopupMode(QToolButton::InstantPopup);
        more_->setMenu(new QMenu(more_));
        more_->setAccessibleName(say("More views"));
        more_->hide();
        setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    }
    void add(QToolButton* word) {
        word->setParent(this);
        words_.push_back(word);
    }
    void fit() {
        int wanted = 0;
        for (QToolButton* w : words_) wanted += width_of(w) + kGap_px;
        const bool all = wanted <= width() + kGap_px;
        more_->setText(say("More ▾"));
        int left = width() - (all ? 0 : width_of(more_) + kGap_px), x = 0;
        for (QToolButton* w : words_)
            if (!all && w->isChecked()) left -= width_of(w) + kGap_px;
        more_->menu()->clear();
        for (QToolButton* w : words_) {
            const int wide = width_of(w);
            const bool fits = all || w->isChecked() || wide <= left;
            if (!all && !w->isChecked()) left = fits ? left - wide - kGap_px : 0;  // their order stays
            w->setVisible(fits);
            if (!fits) {
                more_->menu()->addAction(w->text(), w, [w] { w->click(); });
                continue;
            }
            w->setGeometry(x, 0, wide, height());
            x += wide + kGap_px;
        }
        more_->setVisible(!all);
        more_->setGeometry(x, 0, width_of(more_), height());
    }
    QSize sizeHint() const override {
        int wanted = 0, high = 30;
        for (QToolButton* w : words_)
            wanted += width_of(w) + kGap_px, high = std::max(high, w->sizeHint().height());
        return {wanted, high};
    }
    QSize minimumSizeHint() const override {
        int widest = 0;
        for (QToolButton* w : words_) widest = std::max(widest, width_of(w));
        return {widest + width_of(more_) + kGap_px, sizeHint().height()};
    }

  protected:
    void resizeEvent(QResizeEvent*) override { fit(); }
    void showEvent(QShowEvent*) override { fit(); }

  private:
    static constexpr int kGap_px = 4;
    static int width_of(QToolButton* w) {
        w->ensurePolished();  // its padding counts
        return w->sizeHint().width();
    }
    std::vector<QToolButton*> words_;
    QToolButton* more_;
};

void ViewWords::add_to(QHBoxLayout* row, const std::function<void(const QString&)>& open) {
    row_ = new WordRow;
    for (const ViewWord& view : views_) {
        auto* word = new QToolButton;
        word->setText(q(words::translated(view.name)));
        word->setToolTip(q(words::translated(view.tip)));
        word->setCheckable(true);
        word->setChecked(words_.empty());
        word->setObjectName(QStringLiteral("state"));
        word->setMinimumHeight(30);
        QObject::connect(word, &QToolButton::clicked, word,
                         [open, key = QString::fromLatin1(view.key)] { open(key); });
        row_->add(word);
        words_.push_back(word);
    }
    row->addWidget(row_);
}

void ViewWords::show(const QString& key, QStackedWidget* pages) const {
    for (std::size_t k = 0; k < words_.size(); ++k) {
        const bool open = key == QLatin1String(views_[k].key);
        words_[k]->setChecked(open);
        if (open) pages->setCurrentIndex(static_cast<int>(k));
    }
    if (row_) row_->fit();
}

QString ViewWords::key_of(int page) const {
    return QString::fromLatin1(views_[static_cast<std::size_t>(page)].key);
}

}  // namespace yr::app
