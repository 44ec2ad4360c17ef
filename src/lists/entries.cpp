#include "lists/entries.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <set>

#include "core/coil/own_core.h"
#include "core/coil/wire.h"
#include "core/text/letters.h"
#include "core/text/says.h"
#include "formats/encoding.h"
#include "lists/amount.h"
#include "lists/coil_words.h"
#include "lists/designators.h"
#include "lists/kind_evidence.h"
#include "lists/limit_words.h"
#include "lists/token.h"
#include "lists/voltage_table.h"
#include "station/board/plan_from_parts.h"

namespace ombrek {
namespace {

constexpr const char* kProveVolts = "prove-volts";  ///< the plan's own hold before chips

void eachLine(const std::string& bytes, const std::function<void(std::size_t, const std::string&)>& use) {
    const std::string text = withoutLongLines(toUtf8(bytes));
    std::size_t number = 0;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        const std::string line(trimmed(text.substr(from, end - from)));
        ++number;
        if (!line.empty()) use(number, line);
        from = end + 1;
    }
}

/// Every amount of a unit in a text, in SI, in its order; "7.0 to 7.2 MHz" gives both.
std::vector<double> amountsOf(const std::string& text, Unit unit) {
    std::vector<double> out;
    std::vector<std::pair<double, bool>> bare;  // numbers that may share the unit of the next
    auto tokens = tokensOf(text);
    Manner manner;
    manner.comma = Manner::Comma::decimal;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        std::string word = tokens[i].text;
        // "7.0-7.2MHz" and "7.0..7.2"
        for (const std::string_view sign : {"...", "..", "-"}) {
            const auto at = word.find(sign);
            if (at == std::string::npos || at == 0) continue;
            const auto first = readAmount(word.substr(0, at), unit, manner);
            if (first) bare.emplace_back(first->value, first->said == Amount::Said::unit);
            word = word.substr(at + sign.size());
            break;
        }
        const auto alone = readAmount(word, unit, manner);
        if (!alone) {
            if (word != "to" && word != "bis" && word != "and" && word != "und" && word != "-") bare.clear();
            continue;
        }
        std::optional<Amount> found;
        double scale = 1;
        if (alone->said == Amount::Said::unit) {
            found = alone;
        } else if (i + 1 < tokens.size()) {
            const auto both = readAmount(word + tokens[i + 1].text, unit, manner);
            if (both && both->said == Amount::Said::unit) found = both;
        }
        if (!found) {
            bare.emplace_back(alone->value, false);
            continue;
        }
        const auto digits = readAmount(word.substr(0, word.find_first_not_of("0123456789.,")), unit, manner);
        if (digits && digits->value != 0) scale = found->value / digits->value;
        for (const auto& [value, said] : bare) out.push_back(said ? value : value * scale);
        bare.clear();
        out.push_back(found->value);
    }
    return out;
}

/// Where numbers stand with what is written behind them, "120 mA".
std::vector<std::pair<std::size_t, std::size_t>> numbersIn(const std::string& text) {
    std::vector<std::pair<std::size_t, std::size_t>> out;
    for (std::size_t at = 0; at < text.size();) {
        const bool starts = isDigit(text[at]) && (at == 0 || !isLetter(text[at - 1]));
        std::size_t end = at + 1;
        if (starts) {
            while (end < text.size() && (isDigit(text[end]) || text[end] == '.' || text[end] == ',')) ++end;
            if (end + 1 < text.size() && text[end] == ' ' && isLetter(text[end + 1])) ++end;
            while (end < text.size() && isLetter(text[end])) ++end;
            out.emplace_back(at, end);
        } else if (isDigit(text[at])) {
            while (end < text.size() && isDigit(text[end])) ++end;
        }
        at = end;
    }
    return out;
}

/// What the words around the first number of a unit make of it: "no more than 120 mA" is a limit.
LimitSaid limitOf(const std::string& line, Unit unit) {
    const auto numbers = numbersIn(line);
    for (std::size_t i = 0; i < numbers.size(); ++i) {
        const auto [from, to] = numbers[i];
        if (!amountsOf(line.substr(from, to - from), unit).empty()) return limitSaid(line, numbers, i);
    }
    return {};
}

/// "45 dB", "-45dBc": how much, whatever its sign.
std::optional<double> decibelsOf(const std::string& line) {
    const std::string low = lowerText(line);
    const auto at = low.find("db");
    if (at == std::string::npos) return std::nullopt;
    const auto end = low.find_last_not_of(" \u202f", at == 0 ? 0 : at - 1);
    if (end == std::string::npos || low[end] < '0' || low[end] > '9') return std::nullopt;
    const auto begin = low.find_last_not_of("0123456789.,", end);
    const auto value = parseQuantity(low.substr(begin == std::string::npos ? 0 : begin + 1,
                                                end + 1 - (begin == std::string::npos ? 0 : begin + 1)));
    return value && value->value > 0 && value->value <= 200 ? std::optional(value->value) : std::nullopt;
}

/// The parts a coil resonates with, of what stands behind "with".
std::optional<CoilTune> tuneOf(const std::string& line, const Kit& kit, std::vector<std::string>& doubts) {
    const auto band = amountsOf(line, Unit::hertz);
    const std::string low = lowerText(line);
    std::size_t with = std::string::npos;
    for (const char* word : {" with ", " mit ", " avec ", " con "}) with = std::min(with, low.find(word));
    if (band.empty() || with == std::string::npos) return std::nullopt;
    CoilTune out;
    out.low = *std::min_element(band.begin(), band.end());
    out.high = *std::max_element(band.begin(), band.end());
    for (const DesignatorRun& run : designatorRuns(line.substr(with))) {
        for (const std::string& ref : run.refs) {
            const Part* part = kit.part(ref);
            if (part == nullptr) {
                doubts.push_back(ref + " is not in the parts list.");
            } else if (part->kind == PartKind::trimmer) {
                out.trimmer = ref;
            } else if (part->kind == PartKind::capacitor) {
                out.fixed.push_back(ref);
            }
        }
    }
    if (out.trimmer.empty()) {
        doubts.push_back("No trimmer of the parts list is named: what it tunes to is not reckoned.");
        return std::nullopt;
    }
    return out;
}

std::string coilSays(const Coil& coil) {
    std::string turns;
    for (const Winding& w : coil.windings)
        turns += (turns.empty() ? "" : ", ") + w.name + " " + std::to_string(w.turns);
    std::string out = coil.ref + ": " + coil.core.designation + ", " + turns + " turns of " + coil.wireText +
                      ", " + formatQuantity(coil.target, Unit::henry, 3);
    for (const Winding& w : coil.windings) {
        for (const Winding::Tap& tap : w.taps) out += ", " + tap.name;
    }
    if (coil.tune)
        out += ", tuned by " + coil.tune->trimmer + " to " + formatQuantity(coil.tune->high, Unit::hertz, 4);
    return out;
}

/// The core that a line names, of the table, or one of the builder's own with AL and size.
std::optional<MagneticCore> coreOfLine(const ListCoil& said, const std::string& words,
                                       const std::vector<MagneticCore>& cores) {
    const auto hit =
        std::find_if(cores.begin(), cores.end(), [&](const auto& c) { return c.designation == said.core; });
    if (hit != cores.end()) return *hit;
    MagneticCore own;
    for (const Token& token : tokensOf(words)) {
        std::string_view word = token.text;
        while (!word.empty() && (word.back() == ',' || word.back() == ';')) word.remove_suffix(1);
        takeOwnCore(own, word);
    }
    if (!whole(own)) return std::nullopt;
    own.own = true;
    own.designation = said.core.empty() ? "own ring" : said.core;
    if (own.material.empty()) own.material = "unknown";
    return own;
}

Entry<Coil> readCoilLine(std::size_t number, const std::string& line, const Kit& kit,
                         const std::vector<MagneticCore>& cores) {
    Entry<Coil> out{number, line, {}, "", {}};
    const auto runs = designatorRuns(line, {Letters::any});
    if (runs.empty() || runs.front().begin != 0) {
        out.doubts.push_back("A line begins with the coil's designator: L1  T50-2, 28 turns #28.");
        return out;
    }
    const std::string words = line.substr(runs.front().end);
    const auto said = readCoilWords(words.substr(0, lowerText(words).find(" with ")));
    if (!said || said->windings.empty()) {
        out.doubts.push_back("It does not say how many turns.");
        return out;
    }
    Coil coil;
    coil.ref = runs.front().refs.front();
    if (const auto core = coreOfLine(*said, words, cores)) {
        coil.core = *core;
    } else {
        out.doubts.push_back(
            (said->core.empty() ? "It does not name the core, as T50-2 or FT37-43."
                                : said->core + " is not in the core table.") +
            std::string(" A ring of your own: its AL and size, as AL4.9n 12.7x7.7x4.8 (mm)."));
        return out;
    }
    coil.wireText = said->wire.empty() ? kWireAssumed : said->wire;
    const auto wire = parseWire(coil.wireText);
    if (!wire) {
        out.doubts.push_back(wire.error().sentence);
        return out;
    }
    coil.wire = *wire;
    if (said->wire.empty())
        out.doubts.push_back(std::string("It does not say which wire: ") + kWireAssumed + " is taken.");
    for (const ListCoil::Winding& w : said->windings) {
        Winding winding;
        winding.name = w.name;
        winding.turns = w.turns;
        for (const int at : w.taps) {
            if (at < w.turns) winding.taps.push_back({at, "tap at " + std::to_string(at)});
        }
        coil.windings.push_back(std::move(winding));
    }
    coil.twisted = said->twisted;
    const auto henries = amountsOf(words, Unit::henry);
    const double turns = coil.windings.front().turns;
    coil.target = henries.empty() ? coil.core.al * turns * turns : henries.front();
    coil.tune = tuneOf(line, kit, out.doubts);
    out.says = coilSays(coil);
    if (runs.front().refs.size() > 1)
        out.doubts.push_back("One line is one coil: only " + coil.ref + " is taken.");
    out.kept = std::move(coil);
    return out;
}

bool peaks(const std::string& line) {
    return holdsStem(line, {"peak", "max", "loudest", "strongest", "lautest", "m\u00e1ximo", "*spitze"});
}

/// A bias without a value: up until the current just rises.
bool justRises(const std::string& text) {
    const bool value = text.find_first_of("0123456789") != std::string::npos;
    return !value &&
           holdsStem(text, {"bias", "quiescent", "*ruhestrom", "until the current rises", "just rises"});
}

/// What an adjustment is brought to, as it was understood.
std::string aimOf(const Adjustment& a) {
    switch (a.kind) {
        case Adjustment::Kind::contrast:
            return "until it is seen";
        case Adjustment::Kind::bias:
            return "fully down, then up until the current just rises";
        case Adjustment::Kind::peak:
        case Adjustment::Kind::null:
            return std::string(a.kind == Adjustment::Kind::null ? "to the null of " : "to the peak of ") +
                   (a.reads.empty() ? std::string(plural(a.unit)) : a.reads);
        default:
            return "to " + formatQuantity(a.target, a.unit, 4) + " \u00b1" +
                   formatQuantity(a.tolerance, a.unit, 2);
    }
}

Entry<Adjustment> readAdjustmentLine(std::size_t number, const std::string& line, const Kit& kit,
                                     std::set<std::string>& ids) {
    Entry<Adjustment> out{number, line, {}, "", {}};
    const auto runs = designatorRuns(line);
    if (runs.empty()) {
        out.doubts.push_back("It does not name what is turned: C10: peak the audio at the phones.");
        return out;
    }
    Adjustment a;
    a.adjuster = runs.front().refs.front();
    if (kit.part(a.adjuster) == nullptr && kit.coil(a.adjuster) == nullptr) {
        out.doubts.push_back(a.adjuster + " is not in the parts list.");
        return out;
    }
    const bool null = holdsWord(line, {"dip"}) || holdsStem(line, {"null", "minimum", "quietest", "weakest",
                                                                   "leisest", "schw\u00e4chst"});
    if (null && peaks(line)) {
        out.doubts.push_back("It names a peak and a null: a line each, please.");
        return out;
    }
    const std::string rest = line.substr(runs.front().end);
    a.title = line.substr(0, 80);
    if (peaks(line) || null) {
        a.kind = null ? Adjustment::Kind::null : Adjustment::Kind::peak;
        a.unit = holdsStem(line, {"power", "*watt", "*leistung", "puissance", "potencia"}) ? Unit::watt
                                                                                           : Unit::volt;
        const char* verb = null ? "null " : "peak ";
        const auto at = lowerText(rest).find(verb);
        a.reads = std::string(trimmed(at == std::string::npos ? rest : rest.substr(at + 5)));
        while (!a.reads.empty() && (a.reads.front() == ':' || a.reads.front() == ' ')) a.reads.erase(0, 1);
    } else if (holdsStem(line, {"contrast", "kontrast"})) {
        a.kind = Adjustment::Kind::contrast;
        a.unit = Unit::none;
        a.reads = "the display";
    } else if (justRises(rest)) {
        a.kind = Adjustment::Kind::bias;
        a.unit = Unit::ampere;
        a.safe = SafeEnd::low;
        a.reads = "supply current";
    } else {
        const VoltageTable table =
            readVoltageTable(rest.find_first_not_of(": ") == std::string::npos ? rest : "it " + rest);
        const bool one = table.checks.size() == 1 && table.checks[0].measured() && table.checks[0].nominal;
        if (!one) {
            out.doubts.push_back(
                "It says neither a peak nor a value to set, such as \"50 mA\" or \"5.000 MHz\".");
            return out;
        }
        const PastedCheck& read = table.checks[0];
        a.kind = Adjustment::Kind::set;
        a.unit = read.unit;
        a.target = *read.nominal;
        a.tolerance = read.high && read.low ? (*read.high - *read.low) / 2 : std::fabs(a.target) * 0.1;
        out.doubts = read.doubts;
        if (!read.rule.empty()) out.doubts.push_back("Tolerance by rule, " + read.rule + ".");
        if (a.unit == Unit::ampere || holdsStem(line, {"bias"})) a.safe = SafeEnd::low;
    }
    for (const Coil& coil : kit.coils) {
        if (coil.tune && coil.tune->trimmer == a.adjuster) a.coil = coil.ref;
    }
    static const std::map<Adjustment::Kind, const char*> kNames{{Adjustment::Kind::peak, "peak"},
                                                                {Adjustment::Kind::null, "null"},
                                                                {Adjustment::Kind::bias, "bias"},
                                                                {Adjustment::Kind::contrast, "contrast"}};
    const auto name = kNames.find(a.kind);
    a.id = plainId(a.adjuster + " " + (name == kNames.end() ? "set" : name->second), "own");
    for (int n = 2; !ids.insert(a.id).second; ++n)
        a.id = plainId(a.adjuster, "own") + "-" + std::to_string(n);
    out.says = a.adjuster + ": " + aimOf(a);
    out.kept = std::move(a);
    return out;
}

}  // namespace

std::vector<Entry<Coil>> readCoilEntries(const std::string& bytes, const Kit& kit,
                                         const std::vector<MagneticCore>& cores) {
    std::vector<Entry<Coil>> out;
    eachLine(bytes, [&](std::size_t number, const std::string& line) {
        out.push_back(readCoilLine(number, line, kit, cores));
    });
    return out;
}

std::vector<Entry<Adjustment>> readAdjustmentEntries(const std::string& bytes, const Kit& kit) {
    std::vector<Entry<Adjustment>> out;
    std::set<std::string> ids;
    for (const Adjustment& a : kit.adjustments) ids.insert(a.id);
    eachLine(bytes, [&](std::size_t number, const std::string& line) {
        out.push_back(readAdjustmentLine(number, line, kit, ids));
    });
    return out;
}

Entry<Ratings> readPromises(const std::string& bytes, const Ratings& before) {
    Entry<Ratings> out{1, bytes, {}, "", {}};
    Ratings r = before;
    if (holdsStem(bytes, {"not transmit", "receiver only", "no transmitter", "sendet nicht",
                          "nur empf\u00e4nger"})) {
        r = Ratings{};
        r.air = Ratings::Air::no;
        r.supply = 12;
        out.says = "It never goes on the air.";
        out.kept = r;
        return out;
    }
    bool any = false;
    std::string said;
    eachLine(bytes, [&](std::size_t, const std::string& line) {
        const auto watts = amountsOf(line, Unit::watt), volts = amountsOf(line, Unit::volt),
                   hertz = amountsOf(line, Unit::hertz);
        const LimitSaid power = limitOf(line, Unit::watt), draws = limitOf(line, Unit::ampere);
        if ((power.negated && !watts.empty()) || power.unread) {
            out.doubts.push_back(
                "The sentence has a \"not\" that is not understood: which way is the limit?");
        } else if (!watts.empty() && power.sense == LimitSaid::Sense::more) {
            r.powerLow = watts.front();
            r.power = std::max(r.power, r.powerLow);
            r.powerHigh = std::max(r.powerHigh, 2 * r.powerLow);
            out.doubts.push_back("Only the least is promised: at most twice that by rule.");
            any = true;
        } else if (watts.size() == 1 && power.sense == LimitSaid::Sense::less) {
            r.power = r.powerHigh = watts.front();
            r.powerLow = 0.8 * r.power;
            out.doubts.push_back("Only the most is promised: at least 0.8 of it by rule.");
            any = true;
        } else if (!watts.empty()) {
            const auto [low, high] = std::minmax_element(watts.begin(), watts.end());
            r.power = (*low + *high) / 2;
            r.powerLow = watts.size() > 1 ? *low : 0.8 * r.power;
            r.powerHigh = watts.size() > 1 ? *high : 1.25 * r.power;
            if (watts.size() == 1)
                out.doubts.push_back("Power by rule: from 0.8 to 1.25 times what is promised.");
            any = true;
        }
        if (!volts.empty()) r.supply = volts.back(), any = true;
        if (!hertz.empty()) {
            const auto [low, high] = std::minmax_element(hertz.begin(), hertz.end());
            r.frequency = std::round((*low + *high) / 2);
            any = true;
        }
        if (const auto amperes = amountsOf(line, Unit::ampere); !amperes.empty()) {
            const auto [low, high] = std::minmax_element(amperes.begin(), amperes.end());
            if (draws.negated || draws.sense == LimitSaid::Sense::more)
                return out.doubts.push_back(
                    "What it may draw at most is wanted, not at least: the current is not taken.");
            const bool limit = amperes.size() == 1 && draws.sense == LimitSaid::Sense::less;
            r.currentLow = limit ? 0 : amperes.size() > 1 ? *low : 0.75 * *low;
            r.currentHigh = amperes.size() > 1 || limit ? *high : 1.25 * *high;
            if (amperes.size() == 1 && !limit)
                out.doubts.push_back("Current by rule: \u00b125 % of what is promised.");
            any = true;
        }
        if (const auto below = decibelsOf(line);
            below && holdsStem(line, {"*harmon", "spur", "oberwell", "nebenwell"})) {
            r.harmonicsBelow = *below;
            any = true;
        }
    });
    if (!any) {
        out.doubts.push_back("It names no power, supply or frequency, such as \"5 W at 13.8 V, 7.03 MHz\".");
        return out;
    }
    if (!(r.supply > 0)) r.supply = 12, out.doubts.push_back("The supply is not said: 12 V is taken.");
    if (r.power > 0 && !(r.frequency > 0)) {
        out.doubts.push_back("A transmitter is rated at a frequency: add it, as 7.03 MHz.");
        return out;
    }
    if (!(r.power > 0)) {
        out.doubts.push_back("It names no power: nothing is proven without it.");
        return out;
    }
    r.powerHigh = std::max(r.powerHigh, r.powerLow);
    r.air = Ratings::Air::yes;
    out.says = formatQuantity(r.power, Unit::watt, 3) + " at " + formatQuantity(r.supply, Unit::volt, 3) +
               " on " + formatQuantity(r.frequency, Unit::hertz, 6);
    if (r.currentHigh > 0) out.says += ", " + limitsText({r.currentLow, r.currentHigh}, Unit::ampere);
    if (r.harmonicsBelow > 0)
        out.says += ", harmonics " + formatQuantity(r.harmonicsBelow, Unit::decibel, 3) + " below";
    out.kept = r;
    return out;
}

std::vector<Step> mergedSteps(const Kit& kit, const std::vector<Step>& pasted,
                              const std::vector<std::string>& done) {
    const std::set<std::string> doneIds(done.begin(), done.end());
    std::set<std::string> settled, taken;
    for (const Step& step : kit.steps) {
        if (doneIds.contains(step.id)) settled.insert(step.fits.begin(), step.fits.end());
    }
    std::vector<Step> own = pasted;
    for (Step& step : own) {
        std::erase_if(step.fits, [&](const std::string& ref) { return settled.contains(ref); });
        taken.insert(step.fits.begin(), step.fits.end());
    }
    std::set<std::string> guarded;  // parts that the plan keeps out until the voltages are proven
    for (const Step& step : kit.steps) {
        if (std::find(step.after.begin(), step.after.end(), kProveVolts) != step.after.end())
            guarded.insert(step.fits.begin(), step.fits.end());
    }
    std::vector<Step> out;
    std::set<std::string> gone;
    for (Step step : kit.steps) {
        const bool fitted = !step.fits.empty();
        if (!doneIds.contains(step.id))
            std::erase_if(step.fits, [&](const std::string& ref) { return taken.contains(ref); });
        if (fitted && step.fits.empty()) {
            gone.insert(step.id);
        } else {
            if (fitted && step.fits.size() < kit.step(step.id)->fits.size()) {
                std::string refs;
                for (const std::string& ref : step.fits) refs += (refs.empty() ? "" : ", ") + ref;
                const auto colon = step.title.find(':');
                step.title = "Fit " + refs + (colon == std::string::npos ? "" : step.title.substr(colon));
            }
            out.push_back(std::move(step));
        }
    }
    const auto drop = [&](std::vector<std::string>& ids) {
        std::erase_if(ids, [&](const std::string& id) { return gone.contains(id); });
    };
    for (Step& step : out) {
        drop(step.after);
        drop(step.before);
        std::erase_if(step.keeps, [&](const Step::Keep& keep) { return gone.contains(keep.until); });
    }
    if (own.empty()) return out;
    // The paper's steps come after the look at the bare board and before the look at every joint.
    const auto look =
        std::find_if(out.begin(), out.end(), [](const Step& s) { return s.id == "look-board"; });
    if (look != out.end()) own.front().after.push_back("look-board");
    const auto joints =
        std::find_if(out.begin(), out.end(), [](const Step& s) { return s.id == "look-joints"; });
    if (joints != out.end()) joints->after.push_back(own.back().id);
    // A chip of the paper's waits for the voltages all the same: they are proven before its step.
    const auto volts =
        std::find_if(out.begin(), out.end(), [](const Step& s) { return s.id == kProveVolts; });
    const auto chip = std::find_if(own.begin(), own.end(), [&](const Step& step) {
        return std::any_of(step.fits.begin(), step.fits.end(),
                           [&](const auto& ref) { return guarded.contains(ref); });
    });
    if (volts != out.end() && chip != own.end() && !doneIds.contains(kProveVolts)) {
        volts->after = chip->after;
        volts->before.push_back(chip->id);
        chip->after = {kProveVolts};
    }
    out.insert(look == out.end() ? out.end() : look + 1, own.begin(), own.end());
    return out;
}

}  // namespace ombrek
