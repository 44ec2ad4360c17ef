#include "desk/paper/paper_model.h"

#include <algorithm>
#include <array>
#include <set>

#include "core/text/enumerators.h"
#include "desk/session.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "lists/entries.h"
#include "lists/instructions.h"
#include "lists/voltage_table.h"
#include "station/board/plan_from_parts.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

const std::array<PaperRow, kPapers> kRows{
    {{Paper::coils, "coils", "winding", "Paste or write the coils, a line each.",
      "L1   T50-2, 28 turns #28\nT1   FT37-43, 10 turns bifilar, 0.3 mm\nT2   FT37-43, primary 10 turns, "
      "secondary 3 turns\n"
      "L2   T37-6, 22 turns #28, tap at 5, tunes 7.0 to 7.2 MHz with C10 and C11\n"
      "L3   AL4.9n 12.7x7.7x4.8, 20 turns 0.5 mm",
      "coils from the paper"},
     {Paper::steps, "steps", "board", "Paste the manual's numbered instructions.",
      "1. Solder R1 to R4. Keep the cut leads for later.\n2. Fit D1, the band towards the edge. Do not fit "
      "U1 yet.\n"
      "3. Measure 5 V at pin 8 before you go on.",
      "steps from the paper"},
     {Paper::checks, "checks", "first-light", "Paste the manual's table of voltages.",
      "Key up\nIC3 pin 8   5.0 V  from U1\nThe lamp lights\n+12 V to ground   no beep\nSupply current   < 50 "
      "mA\n\nPoint       Receive "
      "  Key down\nQ1 base     0.7 V     0.7 V",
      "checks from the paper"},
     {Paper::adjustments, "adjustments", "tune", "Write what is turned and what is read, a line each.",
      "C10: peak the audio at the phones\nR40: null the carrier in a second receiver\nC22: 7.030 MHz "
      "\u00b1100 Hz\nR62 bias: 50 mA",
      "adjustments from the paper"},
     {Paper::promises, "promises", "proof", "Write what the first page promises.",
      "5 W at 13.8 V\n7.03 MHz\nat least 4 W\nat most 0.9 A\nharmonics 45 dB down\n\nor: does not transmit",
      "promises from the paper"}}};

std::string joined(const std::vector<std::string>& sentences) {
    std::string out;
    for (const auto& sentence : sentences) out += (out.empty() ? "" : " ") + sentence;
    return out;
}

std::vector<std::string> linesOf(const std::string& text) {
    std::vector<std::string> out;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        out.push_back(text.substr(from, end - from));
        from = end + 1;
    }
    return out;
}

std::string textOf(const std::vector<std::string>& lines) {
    std::string out;
    for (const auto& line : lines) out += line + "\n";
    return out;
}

template <class T>
PaperModel::Row rowOf(const Entry<T>& entry) {
    PaperModel::Row row{entry.line, 1, entry.text, entry.says, joined(entry.doubts), VerdictState::pass};
    if (!entry.kept) {
        row.says = entry.text.substr(0, 120);
        row.state = VerdictState::fail;
    } else if (!entry.doubts.empty()) {
        row.state = VerdictState::doubtful;
    }
    return row;
}

PaperModel::Row rowOf(const PastedCheck& check) {
    PaperModel::Row row{check.line, 1, check.text, check.at, joined(check.doubts), VerdictState::pass};
    if (check.to != "ground" && !check.to.empty()) row.says += " to " + check.to;
    if (!check.condition.empty()) row.says += ", " + check.condition;
    if (!check.measured()) {
        row.says = check.seen + ": yes or no";
        if (!check.condition.empty()) row.says += ", " + check.condition;
        if (!check.doubts.empty()) row.state = VerdictState::doubtful;
        return row;
    }
    Limits limits;
    if (check.low) limits.low = *check.low;
    if (check.high) limits.high = *check.high;
    row.says += ": " + limitsText(limits, check.unit);
    if (!check.from.empty()) row.says += ", fed from " + check.from;
    if (check.quantity == "diode") row.says += ", diode range";
    if (!check.rule.empty())
        row.doubts += (row.doubts.empty() ? "" : " ") + ("Limits by rule, " + check.rule + ".");
    if (!check.doubts.empty()) row.state = VerdictState::doubtful;
    return row;
}

PaperModel::Row rowOf(const PastedStep& step, const Kit& kit) {
    PaperModel::Row row{step.line, 1, step.text, step.title, joined(step.doubts), VerdictState::pass};
    std::vector<std::string> unknown;
    for (const std::string& ref : step.fits) {
        if (kit.part(ref) == nullptr) unknown.push_back(ref);
    }
    if (!unknown.empty())
        row.doubts +=
            (row.doubts.empty() ? "" : " ") + ("Not in the parts list: " + listed(unknown, 6) + ".");
    if (!row.doubts.empty()) row.state = VerdictState::doubtful;
    if (!step.fits.empty()) row.says += "  [" + listed(step.fits, 6) + "]";
    if (!step.holds.empty()) row.says += "  \u00b7 hold";
    if (!step.keeps.empty()) row.says += "  \u00b7 keep";
    return row;
}

/// Parts of the kit that none of the steps fits; what is taken out again or has no place on a board is not
/// asked for.
std::vector<std::string> inNoStep(const std::vector<PastedStep>& pasted, const Kit& kit) {
    std::set<std::string> fitted;
    for (const Step& step : stepsOf(pasted, kit)) fitted.insert(step.fits.begin(), step.fits.end());
    std::vector<std::string> out;
    for (const Part& part : kit.parts) {
        if (!part.ref.starts_with("HW") && !fitted.contains(part.ref)) out.push_back(part.ref);
    }
    return out;
}

/// Checks in the order in which they are safe: without power, without chips, receiving, the key down last.
void inSafeOrder(std::vector<Check>& checks) {
    const auto rank = [](const Check& check) {
        static constexpr std::array<std::string_view, 2> first{"power off", "ICs out"};
        if (check.condition == "key down") return 4;
        const auto hit = std::find(first.begin(), first.end(), check.condition);
        return hit == first.end() ? 3 : int(hit - first.begin());
    };
    std::stable_sort(checks.begin(), checks.end(),
                     [&](const Check& a, const Check& b) { return rank(a) < rank(b); });
    // A short is found before power: nothing goes on until it is not there.
    for (Check& check : checks) {
        if (check.condition == "power off" && std::isfinite(check.limits.low)) check.gate = true;
    }
}

/// The promised supply current is read at First light, with the key down.
Check promisedCurrent(const Ratings& ratings) {
    Check out;
    out.id = "promised-current";
    out.title = "Supply current, key down";
    out.at = "in series with the supply of " + formatQuantity(ratings.supply, Unit::volt, 3);
    out.unit = Unit::ampere;
    out.condition = "key down";
    out.limits.high = ratings.currentHigh;
    if (ratings.currentLow > 0) out.limits.low = ratings.currentLow;
    out.caution = "Dummy load on, a few seconds at a time.";
    return out;
}

}  // namespace

static_assert(kPapers == enumerators<Paper>());
const PaperRow& paperRow(Paper paper) { return kRows[static_cast<std::size_t>(paper)]; }

Paper paperOf(const std::string& word) {
    const auto hit =
        std::find_if(kRows.begin(), kRows.end(), [&](const PaperRow& r) { return word == r.word; });
    return hit == kRows.end() ? Paper::coils : hit->paper;
}

void PaperModel::begin(Paper paper) {
    paper_ = paper;
    text_.clear();
    rows_.clear();
}

void PaperModel::read(std::string text, const Kit& kit, const std::vector<MagneticCore>& cores) {
    text_ = std::move(text);
    rows_.clear();
    switch (paper_) {
        case Paper::coils:
            for (const auto& entry : readCoilEntries(text_, kit, cores)) rows_.push_back(rowOf(entry));
            break;
        case Paper::adjustments:
            for (const auto& entry : readAdjustmentEntries(text_, kit)) rows_.push_back(rowOf(entry));
            break;
        case Paper::promises:
            if (text_.find_first_not_of(" \n\t") != std::string::npos) {
                rows_.push_back(rowOf(readPromises(text_, kit.ratings)));
                rows_.back().lines = linesOf(text_).size();
            }
            break;
        case Paper::checks: {
            const VoltageTable table = readVoltageTable(text_);
            for (const PastedCheck& check : table.checks) rows_.push_back(rowOf(check));
            for (const RefusedLine& r : table.refused)
                rows_.push_back({r.line, 1, r.text, r.text.substr(0, 120), r.reason, VerdictState::fail});
            break;
        }
        case Paper::steps: {
            const auto steps = readInstructions(text_);
            for (std::size_t i = 0; i < steps.size(); ++i) {
                rows_.push_back(rowOf(steps[i], kit));
                const std::size_t next = i + 1 < steps.size() ? steps[i + 1].line : linesOf(text_).size() + 1;
                rows_.back().lines = next - steps[i].line;
            }
            if (const auto left = inNoStep(steps, kit); !steps.empty() && !left.empty())
                rows_.push_back({linesOf(text_).size() + 1, 0, "", "In no step: " + listed(left, 12),
                                 "They get steps of their own at the end, chips behind the voltages. Enter "
                                 "writes the step "
                                 "that fits them.",
                                 VerdictState::doubtful});
            break;
        }
    }
    const auto rank = [](const Row& row) {
        return row.state == VerdictState::fail ? 0 : row.state == VerdictState::doubtful ? 1 : 2;
    };
    if (paper_ != Paper::steps)
        std::stable_sort(rows_.begin(), rows_.end(),
                         [&](const Row& a, const Row& b) { return rank(a) < rank(b); });
}

int PaperModel::doubtful() const {
    return int(std::count_if(rows_.begin(), rows_.end(),
                             [](const Row& r) { return r.state != VerdictState::pass; }));
}

int PaperModel::takable() const {
    return int(std::count_if(rows_.begin(), rows_.end(),
                             [](const Row& r) { return r.state != VerdictState::fail; }));
}

std::string PaperModel::withRow(std::size_t row, const std::string& text) const {
    auto lines = linesOf(text_);
    if (row >= rows_.size()) return withLine(text);
    const std::size_t from = std::min(rows_[row].line - 1, lines.size());
    const std::size_t to = std::min(from + rows_[row].lines, lines.size());
    lines.erase(lines.begin() + std::ptrdiff_t(from), lines.begin() + std::ptrdiff_t(to));
    // A row that is left out leaves its place, so that the headings stand where they stood.
    lines.insert(lines.begin() + std::ptrdiff_t(from), text);
    return textOf(lines);
}

std::string PaperModel::withLine(const std::string& text) const {
    auto lines = linesOf(text_);
    lines.push_back(text);
    return textOf(lines);
}

Result<std::string> PaperModel::into(const std::string& kitText, const Kit& kit, const Build& build,
                                     const std::vector<MagneticCore>& cores) const {
    std::string out = kitText;
    switch (paper_) {
        case Paper::coils:
            for (const auto& entry : readCoilEntries(text_, kit, cores)) {
                if (entry.kept) out = withCoil(out, *entry.kept);
            }
            break;
        case Paper::adjustments:
            for (const auto& entry : readAdjustmentEntries(text_, kit)) {
                if (entry.kept) out = withAdjustment(out, *entry.kept);
            }
            break;
        case Paper::promises:
            if (const auto entry = readPromises(text_, kit.ratings); entry.kept) {
                out = withRatings(out, *entry.kept);
                if (entry.kept->currentHigh > 0) out = withChecks(out, {promisedCurrent(*entry.kept)});
            }
            break;
        case Paper::checks: {
            auto checks = checksOf(readVoltageTable(text_), kit.checks);
            inSafeOrder(checks);
            out = withChecks(out, checks);
            break;
        }
        case Paper::steps: {
            std::vector<std::string> done;
            for (const Step& step : kit.steps) {
                if (build.done(step.id)) done.push_back(step.id);
            }
            out = withSteps(out, mergedSteps(kit, stepsOf(readInstructions(text_), kit), done));
            break;
        }
    }
    const auto read = readKit(out, cores);
    if (!read) return tl::make_unexpected(read.error());
    // A coil that the list did not have is a part that some step must fit.
    const auto steps = withEveryPart(*read);
    return steps.size() == read->steps.size() ? out : withSteps(out, steps);
}

QString PaperModel::now() const {
    if (rows_.empty()) return qs(std::string_view(paperRow(paper_).asks));
    if (doubtful() == 1) return QStringLiteral("Look at the doubtful row; it is marked.");
    if (doubtful() > 0) return QStringLiteral("Look at %1 doubtful rows; they are marked.").arg(doubtful());
    return QStringLiteral("Every row is understood: A takes them.");
}

QString PaperModel::why() const {
    if (rows_.empty()) return QStringLiteral("Ctrl+V pastes what you copied, Enter writes a line.");
    return QStringLiteral("%1 of %2 rows can be taken. Enter says a row again, Del leaves it out.")
        .arg(takable())
        .arg(rows_.size());
}

}  // namespace ombrek
