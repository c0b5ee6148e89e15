#include "window/export.h"

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QFileDialog>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>

#include "files/text_file.h"
#include "io/loads_csv.h"
#include "io/spice.h"
#include "notes/plan_text.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

using Said = std::function<void(const QString&)>;

// The dialog has asked already whether a file that is there may go.
void write_file(QWidget* window, const QString& title, const QString& name, const std::string& text,
                const Said& said) {
    const QString path = QFileDialog::getSaveFileName(window, title, name);
    if (path.isEmpty()) return;
    const auto done = write_text_file(path.toStdString(), text, Overwrite::yes);
    said(done ? say("%1 is written.").arg(path) : q(words::sentence(done.error())));
}

QString file_name(const Document& document, const char* ending) {
    return q(document.plan().vehicle.name).toLower().replace(QLatin1Char(' '), QLatin1Char('-')) +
           QLatin1String(ending);
}

std::string png_of(QWidget* view) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    view->grab().save(&buffer, "PNG");
    return bytes.toStdString();
}

void print(QWidget* window, QWidget* view, const QString& title) {
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageOrientation(QPageLayout::Landscape);
    printer.setDocName(title);
    QPrintDialog dialog(&printer, window);
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter painter(&printer);
    const QRect page = painter.viewport();
    painter.setFont(type_font(Type::body));
    QRect head;
    painter.drawText(page, Qt::AlignTop | Qt::AlignLeft, title, &head);
    const QImage image = printed(view);
    QSize size = image.size();
    size.scale(page.width(), page.height() - 2 * head.height(), Qt::KeepAspectRatio);
    painter.drawImage(QRect(QPoint(page.left(), page.top() + 2 * head.height()), size), image);
}

}  // namespace

QImage printed(QWidget* view) {
    const bool night = tokens().night;
    if (night) use_look(false);
    QImage image(view->size() * 2, QImage::Format_RGB32);
    image.setDevicePixelRatio(2);
    image.fill(Qt::white);
    view->render(&image);
    if (night) use_look(true);
    return image.convertToFormat(QImage::Format_Grayscale8);
}

void fill_export_menu(QMenu* menu, QWidget* window, Document* document, Workspace* open, const Said& said) {
    menu->clear();
    if (!open) return;
    menu->addAction(say("Copy this view as a picture\tCtrl+Shift+C"), window,
                    [open] { QApplication::clipboard()->setPixmap(open->grab()); });
    menu->addAction(say("Copy this view as numbers"), window,
                    [open] { QApplication::clipboard()->setText(open->numbers()); });
    menu->addSeparator();
    menu->addAction(say("This view as a picture …"), window, [=] {
        write_file(window, say("Picture of this view"), open->key() + QStringLiteral(".png"), png_of(open),
                   said);
    });
    menu->addAction(say("The loads as a table …"), window, [=] {
        write_file(window, say("Loads as a table"), file_name(*document, "-loads.csv"),
                   loads_csv(document->plan()), said);
    });
    menu->addAction(say("The plan as notes …"), window, [=] {
        write_file(window, say("Plan as notes"), file_name(*document, ".notes"),
                   plan_text(document->store().stored()), said);
    });
    menu->addAction(say("The state that is shown as a netlist …"), window, [=] {
        write_file(
            window, say("Netlist for a circuit simulator"), file_name(*document, ".cir"),
            spice_netlist(document->plan(), document->shown().solution(), document->shown().state().name),
            said);
    });
    menu->addSeparator();
    menu->addAction(say("Print this view …\tCtrl+P"), window, [=] {
        print(window, open, q(document->plan().vehicle.name) + QStringLiteral(" · ") + open->name());
    });
}

}  // namespace yr::app
