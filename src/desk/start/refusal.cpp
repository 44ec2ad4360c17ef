#include "desk/start/refusal.h"

#include <QDir>
#include <QEventLoop>
#include <QFileDialog>
#include <QFileInfo>
#include <QPushButton>
#include <QVBoxLayout>

#include "book/book.h"
#include "desk/pieces/text.h"

namespace ombrek {
namespace {

QString fromPath(const std::filesystem::path& path) { return QString::fromStdString(path.string()); }

/// "shack.rescued.ombrek" beside the book, or the first of its like that is free.
QString freeName(const QString& book) {
    const QFileInfo info(book);
    for (int i = 1;; ++i) {
        QString out = info.dir().filePath(info.completeBaseName() + QStringLiteral(".rescued") +
                                          (i > 1 ? QStringLiteral("-%1").arg(i) : QString()) +
                                          QStringLiteral(".ombrek"));
        if (!QFileInfo::exists(out)) return out;
    }
}

}  // namespace

Refusal::Refusal(const Problem& problem, const std::filesystem::path& book)
    : book_(book), line_(textLabel(15, false, "soft")) {
    setWindowTitle(QStringLiteral("Ombrek cannot open this book"));
    setAccessibleName(windowTitle());
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(36, 30, 36, 26);
    all->setSpacing(14);
    auto* head = textLabel(24, true);
    head->setText(QStringLiteral("This book cannot be opened"));
    auto* sentence = textLabel(17);
    sentence->setText(QString::fromStdString(problem.sentence));
    auto* where = textLabel(15, false, "soft");
    where->setText(QFileInfo(fromPath(book)).absoluteFilePath());
    where->setTextInteractionFlags(Qt::TextSelectableByMouse);
    for (QLabel* label : {head, sentence, where, line_}) all->addWidget(label);
    all->addStretch(1);
    auto* row = new QHBoxLayout;
    row->setSpacing(12);
    const auto button = [&](const QString& text, auto act) {
        auto* out = new QPushButton(text);
        out->setFont(benchFont(15));
        connect(out, &QPushButton::clicked, this, act);
        row->addWidget(out);
        return out;
    };
    auto* first = button(QStringLiteral("Save a &rescue copy and open it"), [this] { rescue(); });
    first->setEnabled(QFileInfo(fromPath(book)).isReadable());
    button(QStringLiteral("&Open another book …"), [this] { openOther(); });
    button(QStringLiteral("&Close"), [this] { leave(QString()); });
    row->addStretch(1);
    all->addLayout(row);
    resize(760, 360);
}

void Refusal::rescue() {
    if (!rescuedTo_.isEmpty()) return leave(rescuedTo_);
    const QString copy = freeName(QFileInfo(fromPath(book_)).absoluteFilePath());
    const auto rescued = Book::rescue(book_, copy.toStdString());
    if (!rescued) return say(line_, QString::fromStdString(rescued.error().text()));
    if (rescued->complete()) return leave(copy);
    // What is missing is read before the copy is opened.
    rescuedTo_ = copy;
    say(line_, QString::fromStdString(rescued->sentence()) + QStringLiteral(" The same button opens it."));
}

void Refusal::openOther() {
    const QString file = QFileDialog::getOpenFileName(this, QStringLiteral("A book"), QDir::homePath(),
                                                      QStringLiteral("Ombrek books (*.ombrek)"));
    if (!file.isEmpty()) leave(file);
}

void Refusal::leave(const QString& chosen) {
    chosen_ = chosen;
    close();
    emit ended();
}

QString Refusal::ask() {
    setAttribute(Qt::WA_QuitOnClose, false);
    QEventLoop loop;
    connect(this, &Refusal::ended, &loop, &QEventLoop::quit);
    show();
    // Closing the window by its frame is leaving it, too.
    while (isVisible()) loop.processEvents(QEventLoop::WaitForMoreEvents);
    return chosen_;
}

}  // namespace ombrek
