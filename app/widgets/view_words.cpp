#include "widgets/view_words.h"

#include "text/say.h"

namespace yr::app {

void ViewWords::add_to(QHBoxLayout* row, const std::function<void(const QString&)>& open) {
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
        row->addWidget(word);
        words_.push_back(word);
    }
}

void ViewWords::show(const QString& key, QStackedWidget* pages) const {
    for (std::size_t k = 0; k < words_.size(); ++k) {
        const bool open = key == QLatin1String(views_[k].key);
        words_[k]->setChecked(open);
        if (open) pages->setCurrentIndex(static_cast<int>(k));
    }
}

QString ViewWords::key_of(int page) const {
    return QString::fromLatin1(views_[static_cast<std::size_t>(page)].key);
}

}  // namespace yr::app
