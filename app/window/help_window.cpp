#include "window/help_window.h"

#include <QFile>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>

#include "text/say.h"
#include "widgets/tokens.h"

namespace yr::app {

const std::vector<HelpPage>& help_pages() {
    static const std::vector<HelpPage> pages = [] {
        std::vector<HelpPage> read;
        for (const char* key : {"first-plan", "window", "typing", "survey", "rail", "day", "control", "runs",
                                "guard", "place", "build", "meter"}) {
            QFile file(QStringLiteral(":/help/%1.md").arg(QLatin1String(key)));
            if (!file.open(QIODevice::ReadOnly)) continue;
            const QString text = QString::fromUtf8(file.readAll());
            read.push_back({QLatin1String(key), text.section(QLatin1Char('\n'), 0, 0).mid(2), text});
        }
        return read;
    }();
    return pages;
}

HelpWindow::HelpWindow(const QString& key, QWidget* parent) : QDialog(parent) {
    setWindowTitle(say("Help"));
    resize(860, 600);
    search_ = new QLineEdit;
    search_->setPlaceholderText(say("search all pages"));
    search_->setAccessibleName(search_->placeholderText());
    search_->setClearButtonEnabled(true);
    list_ = new QListWidget;
    list_->setAccessibleName(say("Pages"));
    list_->setWordWrap(true);
    page_ = new QTextBrowser;
    page_->setAccessibleName(say("Page"));
    page_->setFrameShape(QFrame::NoFrame);
    page_->document()->setDocumentMargin(20);
    for (const HelpPage& p : help_pages()) {
        auto* item = new QListWidgetItem(p.title, list_);
        item->setData(Qt::UserRole, p.key);
    }
    auto* left = new QVBoxLayout;
    left->addWidget(search_);
    left->addWidget(list_, 1);
    auto* row = new QHBoxLayout(this);
    row->addLayout(left, 1);
    row->addWidget(page_, 3);
    connect(search_, &QLineEdit::textChanged, this, &HelpWindow::find);
    connect(list_, &QListWidget::currentRowChanged, this, [this](int at) {
        if (at < 0) return;
        page_->setMarkdown(help_pages()[static_cast<std::size_t>(at)].text);
        page_->moveCursor(QTextCursor::Start);
        if (!search_->text().trimmed().isEmpty()) page_->find(search_->text().trimmed());
    });
    open_page(key);
}

void HelpWindow::open_page(const QString& key) {
    int at = 0;
    for (int k = 0; k < list_->count(); ++k)
        if (list_->item(k)->data(Qt::UserRole).toString() == key) at = k;
    list_->setCurrentRow(at);
}

// Pages that hold the words stay; the first of them opens where they stand.
void HelpWindow::find(const QString& words) {
    int first = -1;
    for (int k = 0; k < list_->count(); ++k) {
        const bool holds =
            help_pages()[static_cast<std::size_t>(k)].text.contains(words.trimmed(), Qt::CaseInsensitive);
        list_->item(k)->setHidden(!holds);
        if (holds && first < 0) first = k;
    }
    if (first < 0) return;
    if (list_->currentRow() < 0 || list_->currentItem()->isHidden()) list_->setCurrentRow(first);
    page_->moveCursor(QTextCursor::Start);
    page_->find(words.trimmed());
}

}  // namespace yr::app

#include "moc_help_window.cpp"
