#include "desk/sign_off/sign_off_page.h"

#include <algorithm>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/sign_off/gate_list.h"
#include "formats/next_builder.h"
#include "judged/sign_off.h"
#include "report/report.h"
#include "report/report_json.h"
#include "report/rig_card_sheet.h"

namespace ombrek {

SignOffPage::SignOffPage(Session& session)
    : Page(session, qs(word(Station::signOff))),
      gates_(new GateList),
      list_(new StateList),
      evidenceCard_(new Card),
      detail_(new Card),
      fit_(new Card) {
    big()->addWidget(gates_, 1);
    fit_->setTitle(QStringLiteral("Fit for"));
    side()->addWidget(fit_, 0);
    evidenceCard_->addBody(list_, 1);
    evidenceCard_->fillWithBody();
    side()->addWidget(evidenceCard_, 2);
    side()->addWidget(detail_, 0);
    addKeys();
    addReportKeys();
    connect(gates_, &GateList::picked, this, [this](int row) {
        chosen_ = qs(session_.judged().readiness().gates[std::size_t(row)].id);
        evidence_ = -1;
        refresh();
    });
    connect(list_, &StateList::picked, this, [this](int row) {
        evidence_ = row;
        refresh();
    });
}

void SignOffPage::addKeys() {
    setEnter("go-and-earn-it-or", "go and earn it, or confirm", [this] { go(); });
    addKey("gate", "Down", "Up Down", "gate", [this] { choose(1); });
    addKey(
        "the-gate-before", "Up", "Up", "the gate before", [this] { choose(-1); }, false);
    addKey("evidence", "Right", "Right Left", "what it rests on", [this] { chooseEvidence(1); });
    addRare("the-evidence-before", "Left", "the evidence before", [this] { chooseEvidence(-1); });
    addKey("pass-knowingly", "K", "K", "pass knowingly", [this] { passKnowingly(); });
    addKey("known-defect", "D", "D", "known defect", [this] { acceptDefect(); });
    addRare("take-the-word-back", "Delete", "take the builder's word on it back", [this] { takeWordBack(); });
    const auto opens = [this](const char* id, const char* key, const char* does, const char* page,
                              bool common = true) {
        addKey(
            id, key, key, does, [this, page] { emit wants(QString::fromUtf8(page), QString()); }, common);
    };
    opens("on-the-air", "A", "on the air", "air");
    opens("the-licence", "N", "licence", "licence");
    opens("the-log", "L", "log", "log", false);  // Ctrl+L opens it anywhere
    opens("repairs", "R", "repairs", "repairs");
}

void SignOffPage::addReportKeys() {
    addKey("report-as-pdf", "P", "P", "report as PDF", [this] { askReport(true); });
    addKey("card-for-the-lid", "C", "C", "card for the lid", [this] { askCard(); });
    addRare("report-as-html", "H", "report as HTML", [this] { askReport(false); });
    addRare("report-as-json", "J", "report as JSON", [this] { askJson(); });
    addRare("kit-for-the-next-builder", "X", "the kit for its next builder, without anything of you",
            [this] { askNextBuilder(); });
}

SignOffView SignOffPage::view() const { return signOffView(session_.judged(), chosen_.toStdString()); }

const Evidence* SignOffPage::evidenceInHand(const SignOffView& v) const {
    return evidence_ >= 0 && evidence_ < int(v.evidence.size()) ? &v.evidence[std::size_t(evidence_)]
                                                                : nullptr;
}

void SignOffPage::go() {
    const SignOffView v = view();
    const Gate* g = v.gate;
    if (g == nullptr || g->state() == VerdictState::pass) {
        chosen_.clear();
        evidence_ = -1;
        refresh();
    } else if (g->id == "licence") {
        const bool said = session_.build().gates.contains("licence");
        if (said) return emit wants(QStringLiteral("licence"), QString());
        session_.kept(session_.book().passGate("licence", "confirmed"));
    } else {
        emit wants(qs(idOf(g->station)), QString());
    }
}

void SignOffPage::passKnowingly() {
    const SignOffView v = view();
    const Gate* g = v.gate;
    if (g == nullptr || g->state() == VerdictState::pass) return;
    if (g->id == "licence")
        return session_.say(
            QStringLiteral("No reason makes up for a licence: change the rig, or your limits (N)."),
            VerdictState::fail);
    const Evidence* e = evidenceInHand(v);
    if (e != nullptr && e->state == VerdictState::pass)
        return session_.say(QStringLiteral("It passes by itself."));
    const std::string id = e != nullptr ? evidenceGate(g->id, *e) : g->id;
    const std::string basis = basisOf(e != nullptr ? std::vector<Evidence>{*e} : g->evidence);
    askText(e != nullptr ? QStringLiteral("%1: why go on?").arg(qs(e->what)) : QStringLiteral("Why go on?"),
            qs(e != nullptr ? e->reason : g->reason), [this, id, basis](const QString& reason) {
                session_.kept(session_.book().passGate(id, reason.simplified().toStdString(), basis));
            });
}

/// A known defect is accepted one by one: why, and what it forbids.
void SignOffPage::acceptDefect() {
    const SignOffView v = view();
    if (v.gate == nullptr || v.gate->id == "licence") return;
    const Evidence* e = evidenceInHand(v);
    if (e == nullptr)
        return session_.say(
            QStringLiteral("Take one thing in hand first, Right: a defect is accepted one by one."),
            VerdictState::cannotTell);
    if (e->state == VerdictState::pass) return session_.say(QStringLiteral("It passes: there is no defect."));
    const std::string id = evidenceGate(v.gate->id, *e), basis = basisOf({*e});
    askText(QStringLiteral("%1: what is known of the defect?").arg(qs(e->what)), qs(e->reason),
            [this, id, basis](const QString& reason) {
                askText(
                    QStringLiteral("What does it forbid?"), QString(),
                    [this, id, basis, reason](const QString& forbids) {
                        session_.kept(session_.book().passGate(id, reason.simplified().toStdString(), basis,
                                                               forbids.simplified().toStdString()));
                    });
            });
}

void SignOffPage::takeWordBack() {
    const SignOffView v = view();
    if (v.gate == nullptr) return;
    const Evidence* e = evidenceInHand(v);
    const auto& gates = session_.build().gates;
    const auto whole = gates.find(v.gate->id);
    const auto* said = e != nullptr           ? wordOn(session_.build(), v.gate->id, *e)
                       : whole == gates.end() ? nullptr
                                              : &*whole;
    if (said == nullptr) return session_.say(QStringLiteral("You have said nothing of it."));
    session_.kept(session_.book().closeGate(std::string(said->first)));
}

void SignOffPage::begin(const QString& about) {
    chosen_ = about;
    evidence_ = -1;
    refresh();
}

std::optional<A4Sheet> SignOffPage::sheet() {
    if (!session_.hasBuild()) return std::nullopt;
    return reportSheet(makeReport(session_.judged(), words()));
}

void SignOffPage::choose(int by) {
    const Gate* g = view().gate;
    if (g == nullptr) return;
    const auto& gates = session_.judged().readiness().gates;
    const int count = int(gates.size());
    chosen_ = qs(gates[std::size_t((int(g - gates.data()) + by + count) % count)].id);
    evidence_ = -1;
    refresh();
}

void SignOffPage::chooseEvidence(int by) {
    const SignOffView v = view();
    const int count = int(v.evidence.size());
    if (count == 0) return;
    chosen_ = qs(v.gate->id);
    evidence_ = (evidence_ + 1 + by + count + 1) % (count + 1) - 1;
    refresh();
}

void SignOffPage::askReport(bool pdf) {
    const QString name = qs(session_.kit().id) + (pdf ? QStringLiteral(".pdf") : QStringLiteral(".html"));
    const Report report = makeReport(session_.judged(), words());
    writeOut(pdf ? kPdfFile : kHtmlFile, name,
             [report, pdf] { return pdf ? pdfOf(reportSheet(report)) : reportAsHtml(report); });
}

void SignOffPage::askCard() {
    const ReportWords w = words();
    writeOut(kPdfFile, qs(session_.kit().id) + QStringLiteral("-card.pdf"),
             [card = rigCard(session_.judged()), w] { return pdfOf(rigCardSheet(card, w.call, w.now)); });
}

void SignOffPage::askJson() {
    writeOut(kJsonFile, qs(session_.kit().id) + QStringLiteral(".report.json"),
             [json = reportAsJson(session_.judged(), words())] { return QByteArray::fromStdString(json); });
}

void SignOffPage::askNextBuilder() {
    if (!session_.hasBuild()) return;
    std::vector<std::string> mine;
    for (const char* word : {"who", "callsign", "locator"}) mine.push_back(session_.book().preference(word));
    const auto next = forNextBuilder(session_.build().kitText, session_.kit(), session_.build(), mine);
    if (!next) return session_.say(qs(next.error().text()), VerdictState::fail);
    writeOut(
        kNextKitFile, qs(session_.kit().id) + QStringLiteral(".kit.json"),
        [text = next->kitText] { return QByteArray::fromStdString(text); },
        [this, next = *next] {
            QString line =
                QStringLiteral("Written, with the time of %1 steps and nothing of you.").arg(next.times);
            if (!next.leftOut.empty())
                line += QStringLiteral(" %1 texts that name you or a path were left out, the first at %2.")
                            .arg(next.leftOut.size())
                            .arg(qs(next.leftOut.front()));
            session_.say(line, next.leftOut.empty() ? VerdictState::pass : VerdictState::doubtful);
        });
}

void SignOffPage::showEvidence(const SignOffView& v) {
    list_->setLines(
        int(v.evidence.size()),
        [all = v.evidence, at = evidence_](int row) {
            return evidenceLine(all[std::size_t(row)], row == at);
        },
        evidence_);
    evidenceCard_->setTitle(qs(v.gate->name));
    const Evidence* e = evidenceInHand(v);
    const Evidence* shown = e != nullptr ? e : v.evidence.empty() ? nullptr : &v.evidence.front();
    detail_->setVisible(shown != nullptr);
    if (shown == nullptr) return;
    detail_->setTitle(qs(shown->what));
    detail_->setFacts(evidenceFacts(*shown));
    detail_->setText(qs(shown->sentence));
}

void SignOffPage::refresh() {
    if (!session_.hasBuild()) return;
    const SignOffView v = view();
    if (v.gate == nullptr) return;
    evidence_ = std::min(evidence_, int(v.evidence.size()) - 1);
    setNow(v.now, v.why);
    gates_->show(session_.judged().readiness(), v.row);
    showEvidence(v);
    fit_->setFacts(v.fit);
}

}  // namespace ombrek
