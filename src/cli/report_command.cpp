#include "cli/commands.h"
#include "cli/held.h"
#include "cli/print.h"
#include "formats/files.h"
#include "report/report_json.h"
#include "report/report_verify.h"
#include "report/rig_card_sheet.h"

namespace ombrek {
namespace {

constexpr std::uintmax_t kLargestReport = 200000000;  ///< [bytes]

int verify(const ReportWish& wish, const Judged& judged, ReportWords words) {
    const auto bytes = readFile(wish.verify, kLargestReport);
    if (!bytes) return refuse(bytes.error(), wish.asJson);
    const auto printed = readReport(*bytes);
    if (!printed) return refuse({wish.verify, printed.error().sentence}, wish.asJson);
    words.now = printed->made;
    const ReportVerdict verdict = verifyReport(*printed, words.state, makeReport(judged, words));
    const bool same = verdict.sameState && verdict.sameWords;
    if (wish.asJson) {
        printJson({{"verified", same},
                   {"same_state", verdict.sameState},
                   {"same_words", verdict.sameState ? nlohmann::ordered_json(verdict.sameWords) : nullptr},
                   {"printed_sha256", printed->state.toStdString()},
                   {"book_sha256", words.state.toStdString()},
                   {"sentence", verdict.sentence.toStdString()}});
    } else {
        std::printf("%s\n", verdict.sentence.toUtf8().constData());
    }
    return same ? 0 : 1;
}

}  // namespace

int reportCommand(const ReportWish& wish) {
    const bool asked = !wish.html.empty() || !wish.pdf.empty() || !wish.json.empty() || !wish.card.empty() ||
                       !wish.verify.empty();
    if (!asked)
        return refuse(
            {"", "Say where to write: --html FILE, --pdf FILE, --json FILE, --card FILE; or --verify PDF."},
            wish.asJson);
    const auto held = heldIn(wish.book);
    if (!held) return refuse(held.error(), wish.asJson);
    const Judged judged(held->kit, held->build, held->tables.profile(held->build.profile));
    const ReportWords words = reportWordsOf(*held->book, held->build, wallClock());
    if (!wish.verify.empty()) return verify(wish, judged, words);
    const auto write = [](const std::string& file,
                          const std::function<std::string()>& bytes) -> Result<void> {
        return file.empty() ? Result<void>{} : writeFile(file, bytes());
    };
    const Report report = makeReport(judged, words);
    for (const auto& done :
         {write(wish.html, [&] { return reportAsHtml(report).toStdString(); }),
          write(wish.pdf, [&] { return pdfOf(reportSheet(report)).toStdString(); }),
          write(wish.json, [&] { return reportAsJson(judged, words); }), write(wish.card, [&] {
              return pdfOf(rigCardSheet(rigCard(judged), words.call, words.now)).toStdString();
          })}) {
        if (!done) return refuse(done.error(), wish.asJson);
    }
    return 0;
}

}  // namespace ombrek
