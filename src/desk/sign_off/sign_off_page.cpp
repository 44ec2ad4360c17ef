#include "desk/sign_off/sign_off_page.h"

#include <algorithm>

#include "desk/pieces/card.h"
#include "desk/pieces/text.h"
#include "desk/pieces/trouble_line.h"
#include "desk/sign_off/gate_list.h"
#include "report/report.h"
#include "station/sign_off.h"

namespace ombrek {

SignOffPage::SignOffPage(Session& session)
    : Page(session, QStringLiteral("Sign-off")),
      gates_(new GateList),
      evidence_(new Card),
      report_(new Card) {
    big()->addWidget(gates_, 1);
    side()->addWidget(evidence_, 1);
    side()->addWidget(report_, 0);
    addKeys();
    connect(gates_, &GateList::picked, this, [this](int row) {
        chosen_ = qs(session_.judged().readiness().gates[std::size_t(row)].id);
        refresh();
    });
}

void SignOffPage::addKeys() {
    setEnter("go-and-earn-it-or", "go and earn it, or confirm", [this] { go(); });
    addKey("pass-knowingly", "K", "K", "pass knowingly", [this] { passKnowingly(); });
    addKey("report-as-html", "H", "H", "report as HTML", [this] { askReport(false); });
    addKey("report-as-pdf", "P", "P", "report as PDF", [this] { askReport(true); });
    addKey("gate", "Down", "Up Down", "gate", [this] { choose(1); });
    addKey(
        "the-gate-before", "Up", "Up", "the gate before", [this] { choose(-1); }, false);
}

SignOffView SignOffPage::view() const { return signOffView(session_.judged(), chosen_.toStdString()); }

void SignOffPage::go() {
    const Gate* g = view().gate;
    if (g == nullptr || g->state() == VerdictState::pass) {
        chosen_.clear();
        refresh();
    } else if (g->id == "licence") {
        session_.kept(session_.book().passGate("licence", "confirmed"));
    } else {
        emit wants(qs(g->station).toLower().replace(QChar(' '), QChar('-')), QString());
    }
}

void SignOffPage::passKnowingly() {
    const Gate* g = view().gate;
    if (g == nullptr || g->state() == VerdictState::pass || g->id == "licence") return;
    const std::string id = g->id;
    askText(QStringLiteral("Why go on?"), qs(g->reason), [this, id](const QString& reason) {
        chosen_.clear();
        // The reason is given for the evidence as it is now.
        const auto& gates = session_.judged().readiness().gates;
        const auto now = std::find_if(gates.begin(), gates.end(), [&](const Gate& g) { return g.id == id; });
        if (now != gates.end())
            session_.kept(session_.book().passGate(id, reason.toStdString(), basisOf(now->evidence)));
    });
}

void SignOffPage::begin(const QString& about) {
    chosen_ = about;
    refresh();
}

std::optional<A4Sheet> SignOffPage::sheet() {
    if (!session_.hasBuild()) return std::nullopt;
    return reportSheet(makeReport(session_.judged(), wallClock(), session_.builder()));
}

void SignOffPage::choose(int by) {
    const Gate* g = view().gate;
    if (g == nullptr) return;
    const auto& gates = session_.judged().readiness().gates;
    const int count = int(gates.size());
    chosen_ = qs(gates[std::size_t((int(g - gates.data()) + by + count) % count)].id);
    refresh();
}

void SignOffPage::askReport(bool pdf) {
    const QString name = qs(session_.kit().id) + (pdf ? QStringLiteral(".pdf") : QStringLiteral(".html"));
    const Report report = makeReport(session_.judged(), wallClock(), session_.builder());
    writeOut(pdf ? kPdfFile : kHtmlFile, name,
             [report, pdf] { return pdf ? pdfOf(reportSheet(report)) : reportAsHtml(report); });
}

void SignOffPage::refresh() {
    if (!session_.hasBuild()) return;
    const SignOffView v = view();
    if (v.gate == nullptr) return;
    setNow(v.now, v.why);
    gates_->show(session_.judged().readiness(), v.row);
    delete evidenceBody_;
    evidenceBody_ = new QWidget;
    auto* layout = new QVBoxLayout(evidenceBody_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(7);
    for (const Evidence& e : v.evidence)
        layout->addWidget(new TroubleLine(e.state, qs(e.what), qs(e.sentence)));
    if (v.more > 0) {
        auto* more = textLabel(13, false, "soft");
        more->setText(QStringLiteral("and %1 more").arg(v.more));
        layout->addWidget(more);
    }
    evidence_->setTitle(qs(v.gate->name));
    evidence_->addBody(evidenceBody_);
    report_->setTitle(QStringLiteral("The report"));
    report_->setFacts(v.report);
    report_->setText(QStringLiteral("H for HTML, P for PDF."));
}

}  // namespace ombrek
