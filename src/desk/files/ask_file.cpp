#include "desk/files/ask_file.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>

#include "desk/person.h"

namespace ombrek {
namespace {

void ask(QWidget* over, const FileWish& wish, QFileDialog::AcceptMode mode, const QString& name,
         std::function<void(const QString&)> use) {
    const QString purpose = QString::fromUtf8(wish.purpose);
    auto* dialog = new QFileDialog(over->window(), QString::fromUtf8(wish.title), person::folder(purpose),
                                   QString::fromUtf8(wish.filter));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setAcceptMode(mode);
    dialog->setFileMode(mode == QFileDialog::AcceptOpen ? QFileDialog::ExistingFile : QFileDialog::AnyFile);
    if (mode == QFileDialog::AcceptSave) {
        dialog->setDefaultSuffix(QFileInfo(name).suffix());
        dialog->selectFile(name);
    }
    QObject::connect(dialog, &QFileDialog::fileSelected, over,
                     [purpose, use = std::move(use)](const QString& file) {
                         if (file.isEmpty()) return;
                         person::useFolder(purpose, file);
                         use(file);
                     });
    dialog->open();
}

}  // namespace

void askToOpen(QWidget* over, const FileWish& wish, std::function<void(const QString&)> use) {
    ask(over, wish, QFileDialog::AcceptOpen, QString(), std::move(use));
}

void askToSave(QWidget* over, const FileWish& wish, const QString& name,
               std::function<void(const QString&)> use) {
    ask(over, wish, QFileDialog::AcceptSave, name, std::move(use));
}

}  // namespace ombrek
