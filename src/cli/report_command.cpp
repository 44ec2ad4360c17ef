#include "book/book.h"
#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/tables.h"
#include "report/report.h"

namespace ombrek {

int reportCommand(const std::string& bookFile, const std::string& html, const std::string& pdf) {
    if (html.empty() && pdf.empty())
        return refuse({"", "Say where to write: --html FILE, --pdf FILE or both."}, false);
    if (!std::filesystem::exists(bookFile)) return refuse({bookFile, "There is no such book."}, false);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), false);
    const auto book = Book::open(bookFile);
    if (!book) return refuse(book.error(), false);
    const auto build = (*book)->build();
    if (!build) return refuse({bookFile, "No kit has been begun in this book."}, false);
    const auto kit = readKit(build->kitText, tables->cores);
    if (!kit) return refuse(kit.error(), false);
    const Report report = makeReport({*kit, *build, tables->profile(build->profile)}, wallClock());
    const auto write = [](const std::string& file, const QByteArray& bytes) -> Result<void> {
        return file.empty() ? Result<void>{} : writeFile(file, bytes.toStdString());
    };
    if (const auto done = write(html, html.empty() ? QByteArray() : reportAsHtml(report)); !done)
        return refuse(done.error(), false);
    if (const auto done = write(pdf, pdf.empty() ? QByteArray() : pdfOf(reportSheet(report))); !done)
        return refuse(done.error(), false);
    return 0;
}

}  // namespace ombrek
