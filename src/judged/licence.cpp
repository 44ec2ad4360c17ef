#include "judged/licence.h"

#include <algorithm>
#include <cmath>

#include "core/air/band_name.h"
#include "core/proof/frequency.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "judged/judged.h"
#include "station/phrases.h"
#include "station/proof/frequencies.h"
#include "station/proof/power_method.h"
#include "station/rests_on.h"
#include "station/said.h"

namespace ombrek {
namespace {

std::string capitals(std::string text) {
    for (char& c : text) {
        if (c >= 'a' && c <= 'z') c = char(c - 'a' + 'A');
    }
    return text;
}

/// A frequency in a limit: bare numbers are MHz. 0 for what is none.
double frequencyOf(const std::string& text) {
    const auto read = parseQuantity(text, Unit::hertz);
    if (!read || !(read->value > 0)) return 0;
    const bool bare = text.find_first_not_of("0123456789.,") == std::string::npos;
    return bare && read->value < 1e5 ? read->value * 1e6 : read->value;
}

tl::unexpected<Problem> notUnderstood() {
    return problem("limit", "Say a band, its edges, then what you may use: 40m 7.0-7.2 MHz 100 W CW SSB.");
}

/// "7.0-7.2", "7.0..7.2M", "7.0 to 7.2 MHz" apart.
bool splitEdges(const std::string& text, std::string& low, std::string& high) {
    for (const char* mark : {"..", "–", "-", " to "}) {
        const std::size_t at = text.find(mark);
        if (at == std::string::npos || at == 0) continue;
        low = trimmed(std::string_view(text).substr(0, at));
        high = trimmed(std::string_view(text).substr(at + std::string(mark).size()));
        return true;
    }
    return false;
}

/// The worst that a rig may be off by: its counter's error and its reference, or what the kit promises while
/// nobody has read it, and what it ran in ten minutes.
double worstError(const Judged& judged, const std::string& band, double frequency) {
    const ProofState& proof = judged.proof(band);
    const double promised = judged.kit().ratings.frequencyTolerance * 1e-6 * frequency;
    if (!proof.frequency) return promised;
    const double ppm = worstPpm(counterOf(judged.build()));
    const double reference = std::isfinite(ppm) ? ppm * 1e-6 * frequency : 0;
    const double drift = std::isfinite(proof.drift) ? std::abs(proof.drift) : 0;
    const double read = proof.frequencyVerdict.uncertainty + reference + drift;
    return std::isfinite(read) ? std::max(promised, read) : NAN;
}

Verdict failed(std::string sentence) {
    Verdict out;
    out.state = VerdictState::fail;
    out.sentence = std::move(sentence);
    return out;
}

/// The limit a frequency lies in, else the one of its band.
std::optional<BandLimit> limitAt(const std::vector<BandLimit>& limits, double frequency) {
    for (const BandLimit& l : limits) {
        if (frequency >= l.low && frequency <= l.high) return l;
    }
    const std::string band = bandAt(frequency);
    for (const BandLimit& l : limits) {
        if (!band.empty() && l.band == band) return l;
    }
    return std::nullopt;
}

std::string megahertz(double f) { return formatQuantity(f, Unit::hertz, 8); }

Verdict judgeLine(const Judged& judged, const LicenceLine& line, double bandwidth) {
    if (!line.limit) return failed("Your limits have no band about " + megahertz(line.frequency) + ".");
    const BandLimit& limit = *line.limit;
    const std::string mode = rigMode(judged.build());
    if (!limit.modes.empty() && (" " + limit.modes + " ").find(" " + mode + " ") == std::string::npos)
        return failed(mode + " is not among the modes that you wrote for " + limit.band + ".");
    const ProofState& proof = judged.proof(line.band);
    if (limit.watts > 0) {
        if (!proof.power)
            return toldNot("The power was not read: it cannot be held against your " +
                           formatQuantity(limit.watts, Unit::watt, 3) + ".");
        double most = std::max(proof.power->watts, proof.powerAtRated) + proof.power->uncertainty;
        // A higher supply gave more: that counts as well.
        for (const Reading& r : standing(judged.kit(), judged.build(), Subject::power(line.band))) {
            const Power power = powerOf(r, judged.kit().ratings.ohms);
            most = std::max(
                most, power.watts + (std::isfinite(power.uncertainty) ? power.uncertainty : power.watts));
        }
        if (!std::isfinite(most))
            return toldNot("How far the power meter may be off is not known: read it again.");
        if (most > limit.watts)
            return failed("It may give " + formatQuantity(most, Unit::watt, 3) + ", over your limit of " +
                          formatQuantity(limit.watts, Unit::watt, 3) + ".");
    }
    if (!proof.frequency) return toldNot("The frequency was not read.");
    if (!std::isfinite(line.error))
        return toldNot("How far the frequency may be off is not known: read it again.");
    if (!(line.highest > line.lowest))
        return failed("With its error of " + formatQuantity(line.error, Unit::hertz, 2) +
                      " nothing of it is surely inside " + limit.band + ".");
    Verdict out = judgeInsideBand(line.frequency, line.error, bandwidth, limit.low, limit.high);
    if (out.state == VerdictState::pass)
        out.sentence = "Inside at its worst error; dial from " + megahertz(line.lowest) + " to " +
                       megahertz(line.highest) + "." +
                       (limit.watts > 0 ? "" : " No power stands in your limits: none was held against it.");
    return out;
}

}  // namespace

Result<BandLimit> readBandLimit(std::string_view text) {
    BandLimit out;
    std::string rest(trimmed(text));
    const std::size_t blank = rest.find(' ');
    if (blank == std::string::npos) return notUnderstood();
    out.band = lowered(rest.substr(0, blank));
    if (!out.band.ends_with("m")) return notUnderstood();
    rest = std::string(trimmed(std::string_view(rest).substr(blank)));
    // The edges end where a unit of frequency does, or with the second number.
    std::vector<std::string> words = wordsSaid(rest);
    std::string edges;
    std::size_t next = 0;
    const auto isUnit = [](const std::string& w) {
        const std::string low = lowered(w);
        return low == "mhz" || low == "khz" || low == "hz";
    };
    for (; next < words.size(); ++next) {
        const bool digit = std::isdigit(static_cast<unsigned char>(words[next][0])) != 0;
        const bool joint =
            words[next] == "to" || words[next] == "-" || words[next] == ".." || words[next] == "–";
        std::string low, high;
        if (splitEdges(edges, low, high) && !high.empty() && !isUnit(words[next])) break;
        if (!digit && !joint && !isUnit(words[next])) break;
        edges += (edges.empty() ? "" : " ") + words[next];
        if (isUnit(words[next])) {
            ++next;
            break;
        }
    }
    std::string low, high;
    if (!splitEdges(edges, low, high)) return notUnderstood();
    const std::size_t unit = high.find_first_not_of("0123456789.,");
    if (unit != std::string::npos && low.find_first_not_of("0123456789.,") == std::string::npos)
        low += high.substr(unit);
    out.low = frequencyOf(low);
    out.high = frequencyOf(high);
    if (!(out.low > 0) || !(out.high > out.low) || out.high > 300e9) return notUnderstood();
    for (; next < words.size(); ++next) {
        const bool digit = std::isdigit(static_cast<unsigned char>(words[next][0])) != 0;
        if (!digit) {
            const std::string mode = capitals(words[next]);
            if (std::find(std::begin(kModes), std::end(kModes), mode) == std::end(kModes))
                return problem("limit",
                               "\"" + words[next] + "\" is no mode here: CW, SSB, DIGITAL, AM or FM.");
            out.modes += (out.modes.empty() ? "" : " ") + mode;
            continue;
        }
        std::string figure = words[next];
        if (next + 1 < words.size() && (words[next + 1] == "W" || words[next + 1] == "w" ||
                                        words[next + 1] == "kW" || words[next + 1] == "mW"))
            figure += " " + words[++next];
        const auto power = parseQuantity(figure, Unit::watt);
        if (!power || !(power->value > 0)) return notUnderstood();
        out.watts = power->value;
    }
    return out;
}

std::string bandLimitText(const BandLimit& l) {
    std::string out = l.band + " " + plainNumber(l.low / 1e6) + "-" + plainNumber(l.high / 1e6) + " MHz";
    if (l.watts > 0) out += " " + plainNumber(l.watts) + " W";
    return l.modes.empty() ? out : out + " " + l.modes;
}

std::vector<BandLimit> bandLimits(const std::string& kept) {
    std::vector<BandLimit> out;
    for (std::size_t at = 0; at < kept.size();) {
        const std::size_t end = std::min(kept.find('\n', at), kept.size());
        if (auto limit = readBandLimit(std::string_view(kept).substr(at, end - at)))
            out.push_back(std::move(*limit));
        at = end + 1;
    }
    return out;
}

std::string keptLimits(const std::vector<BandLimit>& limits) {
    std::string out;
    for (const BandLimit& l : limits) out += bandLimitText(l) + "\n";
    return out;
}

double bandwidthOf(const std::string& mode) {
    constexpr double kWidths[] = {500, 3000, 3000, 6000, 16000};
    for (std::size_t i = 0; i < std::size(kModes); ++i) {
        if (mode == kModes[i]) return kWidths[i];
    }
    return kWidths[1];
}

std::string rigMode(const Build& build) {
    const std::string said = build.chosen(Choice::mode);
    return said.empty() ? "CW" : said;
}

std::vector<LicenceLine> licenceLines(const Judged& judged) {
    std::vector<LicenceLine> out;
    if (!judged.kit().ratings.transmits()) return out;
    const std::vector<BandLimit> limits = bandLimits(judged.build().licence);
    const double bandwidth = bandwidthOf(rigMode(judged.build()));
    for (const std::string& band : judged.kit().ratings.bandNames()) {
        LicenceLine line;
        line.band = band;
        line.frequency = judged.proof(band).frequency.value_or(judged.kit().ratings.on(band).frequency);
        line.error = worstError(judged, band, line.frequency);
        line.limit = limitAt(limits, line.frequency);
        if (line.limit) {
            constexpr double kStep = 100;  // [Hz], inwards: what is dialled is read no finer
            line.lowest = std::ceil((line.limit->low + line.error + bandwidth / 2) / kStep) * kStep;
            line.highest = std::floor((line.limit->high - line.error - bandwidth / 2) / kStep) * kStep;
        }
        line.verdict = judgeLine(judged, line, bandwidth);
        out.push_back(std::move(line));
    }
    return out;
}

std::vector<Evidence> licenceEvidence(const Judged& judged) {
    std::vector<Evidence> out;
    if (bandLimits(judged.build().licence).empty()) return out;
    for (const LicenceLine& line : licenceLines(judged)) {
        Evidence e{"Within my limits" + (line.band.empty() ? "" : ", " + line.band), line.verdict.state,
                   line.verdict.sentence};
        e.band = line.band;
        out.push_back(std::move(e));
    }
    return out;
}

}  // namespace ombrek
