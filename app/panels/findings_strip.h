// Under the picture: what is wrong, one line each, most severe first: mark, sentence, rule, the mend.
#pragma once

#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>

#include "document/document.h"

namespace yr::app {

class FindingsStrip : public QWidget {
    Q_OBJECT

  public:
    explicit FindingsStrip(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] QStringList sentences() const { return sentences_; }

  signals:
    void why_finding(const Finding& finding, const QPoint& global);

  private:
    void refresh();
    QWidget* row_of(const Finding& finding);
    void go_to(const Finding& finding);

    Document* document_;
    QLabel* counts_;
    QVBoxLayout* rows_;
    QStringList sentences_;
};

}  // namespace yr::app
