#include "desk/files/print.h"

#include <QPrintPreviewDialog>
#include <QPrinter>
#include <memory>

namespace ombrek {

void showBeforePrinting(QWidget* over, const A4Sheet& sheet) {
    auto printer = std::make_shared<QPrinter>(QPrinter::HighResolution);
    prepare(*printer, sheet);
    auto* preview = new QPrintPreviewDialog(printer.get(), over->window());
    preview->setAttribute(Qt::WA_DeleteOnClose);
    preview->setWindowTitle(sheet.title);
    preview->resize(900, 760);
    QObject::connect(preview, &QPrintPreviewDialog::paintRequested, over,
                     [sheet, printer](QPrinter* paper) { sheet.draw(*paper); });
    preview->open();
}

}  // namespace ombrek
