#include "report/report_verify.h"

#include <poppler/cpp/poppler-document.h>
#include <poppler/cpp/poppler-page.h>

#include <QDateTime>
#include <QRegularExpression>
#include <memory>

#include "report/report_summary.h"

namespace ombrek {
namespace {

QString textOf(const poppler::document& document) {
    QString out;
    for (int i = 0; i < document.pages(); ++i) {
        const std::unique_ptr<poppler::page> page(document.create_page(i));
        if (!page) continue;
        const auto bytes = page->text().to_utf8();
        out += QString::fromUtf8(bytes.data(), int(bytes.size())) + QChar('\n');
    }
    return out;
}

/// Words alone; where numbers are written with a comma they are the same numbers.
QStringList wordsOf(QString text) {
    text.replace(QRegularExpression(QStringLiteral("(\\d),(\\d)")), QStringLiteral("\\1.\\2"));
    return text.split(QRegularExpression(QStringLiteral("\\s+")), Qt::SkipEmptyParts);
}

}  // namespace

Result<PrintedReport> readReport(const std::string& pdf) {
    const std::unique_ptr<poppler::document> document(
        poppler::document::load_from_raw_data(pdf.data(), int(pdf.size())));
    if (!document || document->is_locked()) return problem("", "This is no PDF that can be read.");
    const QString text = textOf(*document);
    PrintedReport out;
    const QRegularExpression hash(QRegularExpression::escape(QString::fromUtf8(kHashWords)) +
                                  QStringLiteral("\\s*((?:[0-9a-f]{8}\\s*){8})"));
    if (const auto hit = hash.match(text); hit.hasMatch())
        out.state = hit.captured(1).remove(QRegularExpression(QStringLiteral("\\s")));
    const QRegularExpression made(QStringLiteral("report\\s+made\\s+(\\d{4}-\\d\\d-\\d\\d)\\s+(\\d\\d:\\d\\d)"));
    if (const auto hit = made.match(text); hit.hasMatch()) {
        QDateTime at = QDateTime::fromString(hit.captured(1) + QChar(' ') + hit.captured(2),
                                             QStringLiteral("yyyy-MM-dd HH:mm"));
        at.setTimeSpec(Qt::UTC);
        out.made = at.toSecsSinceEpoch();
    }
    if (out.state.size() != 64) return problem("", "No hash of a book's state is printed on it: it is no report of Ombrek's.");
    out.words = wordsOf(text);
    return out;
}

ReportVerdict verifyReport(const PrintedReport& printed, const QString& state, const Report& again) {
    ReportVerdict out;
    out.sameState = printed.state == state;
    if (!out.sameState) {
        out.sentence = QStringLiteral(
            "It was made of another state: the book has changed since, or it is another book.");
        return out;
    }
    const auto now = readReport(pdfOf(reportSheet(again)).toStdString());
    const QStringList words = now ? now->words : QStringList();
    for (qsizetype i = 0; i < std::max(words.size(), printed.words.size()); ++i) {
        const QString a = printed.words.value(i), b = words.value(i);
        if (a == b) continue;
        out.sentence = QStringLiteral("The hash is the book's, but the words are not: \"%1\" stands where the book "
                                      "gives \"%2\".")
                           .arg(printed.words.mid(std::max<qsizetype>(0, i - 3), 7).join(QChar(' ')),
                                words.mid(std::max<qsizetype>(0, i - 3), 7).join(QChar(' ')));
        return out;
    }
    out.sameWords = true;
    out.sentence = QStringLiteral("It is the report of this book as it stands: hash and every word agree.");
    return out;
}

}  // namespace ombrek
