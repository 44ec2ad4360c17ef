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
        chosen_ = qs(readiness_.gates[std::size_t(row)].id);
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

const Gate* SignOffPage::gate() const {
    for (const Gate& g : readiness_.gates) {
        if (qs(g.id) == chosen_) return &g;
    }
    if (const Gate* next = readiness_.next()) return next;
    return readiness_.gates.empty() ? nullptr : &readiness_.gates.back();
}

void SignOffPage::go() {
    const Gate* g = gate();
    if (g == nullptr || g->state() == VerdictState::pass) {
        chosen_.clear();
        refresh();
    } else if (g->id == "licence") {
        session_.keep(session_.book().passGate("licence", "confirmed"));
    } else {
        emit wants(qs(g->station).toLower().replace(QChar(' '), QChar('-')), QString());
    }
}

void SignOffPage::passKnowingly() {
    const Gate* g = gate();
    if (g == nullptr || g->state() == VerdictState::pass || g->id == "licence") return;
    const std::string id = g->id;
    askText(QStringLiteral("Why go on?"), qs(g->reason), [this, id](const QString& reason) {
        chosen_.clear();
        // The reason is given for the evidence as it is now.
        const auto& gates = session_.judged().readiness().gates;
        const auto now = std::find_if(gates.begin(), gates.end(), [&](const Gate& g) { return g.id == id; });
        if (now != gates.end())
            session_.keep(session_.book().passGate(id, reason.toStdString(), basisOf(now->evidence)));
    });
}

void SignOffPage::choose(int by) {
    const Gate* g = gate();
    if (g == nullptr) return;
    const int count = int(readiness_.gates.size());
    chosen_ = qs(readiness_.gates[std::size_t((int(g - readiness_.gates.data()) + by + count) % count)].id);
    refresh();
}

void SignOffPage::askReport(bool pdf) {
    const QString name = qs(session_.kit().id) + (pdf ? QStringLiteral(".pdf") : QStringLiteral(".html"));
    askFile(QStringLiteral("Write the report to"), name, [this, pdf](const QString& file) {
        const Report report = makeReport(session_.judged(), wallClock());
        writeOut(file, [report, pdf] { return pdf ? reportAsPdf(report) : reportAsHtml(report); });
    });
}

void SignOffPage::refresh() {
    if (!session_.hasBuild()) return;
    readiness_ = session_.judged().readiness();
    const Gate* g = gate();
    if (g == nullptr) return;
    if (readiness_.fit()) {
        const bool all = readiness_.earned() == int(readiness_.gates.size());
        const bool air = session_.kit().ratings.transmits();
        setNow(
            all ? (air ? QStringLiteral("Fit to go on the air: every gate is earned.")
                       : QStringLiteral("Every gate is earned; this kit does not transmit."))
                : QStringLiteral("Every gate is open, %1 of them knowingly.")
                      .arg(readiness_.open() - readiness_.earned()),
            air ? QStringLiteral("H or P writes the report. Dummy load, then antenna, then the first call.")
                : QStringLiteral("H or P writes the report."));
    } else if (const Gate* next = readiness_.next()) {
        setNow(next->id == "licence"
                   ? QStringLiteral("Is it within your licence: band, mode, power? Enter confirms.")
                   : QStringLiteral("Next gate: %1.").arg(qs(next->name)),
               next->id == "licence" ? QStringLiteral("Follow your local rules; Ombrek cannot know them.")
               : !next->lapsed.empty()
                   ? QStringLiteral("Passed knowingly before, but worse since: %1. Enter goes to %2.")
                         .arg(qs(next->lapsed).left(80), qs(next->station))
                   : QStringLiteral("%1. Enter goes to %2; K passes it knowingly.")
                         .arg(qs(next->summary()), qs(next->station)));
    }
    gates_->show(readiness_, int(g - readiness_.gates.data()));
    delete evidenceBody_;
    evidenceBody_ = new QWidget;
    auto* layout = new QVBoxLayout(evidenceBody_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(7);
    std::vector<Evidence> shown = g->evidence;  // what is wrong first, then what is open, then the rest
    const auto rank = [](const Evidence& e) {
        return e.state == VerdictState::pass ? 2 : e.state == VerdictState::notDone ? 1 : 0;
    };
    std::stable_sort(shown.begin(), shown.end(),
                     [&](const Evidence& a, const Evidence& b) { return rank(a) < rank(b); });
    constexpr std::size_t most = 6;
    for (std::size_t i = 0; i < std::min(most, shown.size()); ++i) {
        layout->addWidget(new TroubleLine(shown[i].state, qs(shown[i].what), qs(shown[i].sentence)));
    }
    if (shown.size() > most) {
        auto* more = textLabel(13, false, "soft");
        more->setText(QStringLiteral("and %1 more").arg(shown.size() - most));
        layout->addWidget(more);
    }
    evidence_->setTitle(qs(g->name));
    evidence_->addBody(evidenceBody_);
    report_->setTitle(QStringLiteral("The report"));
    report_->setFacts(
        {{QStringLiteral("Gates earned"),
          QStringLiteral("%1 of %2").arg(readiness_.earned()).arg(readiness_.gates.size())},
         {QStringLiteral("Knowingly"), QString::number(readiness_.open() - readiness_.earned())}});
    report_->setText(QStringLiteral("H for HTML, P for PDF."));
}

}  // namespace ombrek
