#include <algorithm>
#include <cmath>

#include "cli/commands.h"
#include "cli/print.h"
#include "core/proof/budget.h"
#include "core/proof/close_in.h"
#include "core/proof/spectrum.h"
#include "formats/files.h"
#include "formats/tables.h"
#include "formats/trace_csv.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::uintmax_t kLargestTrace = 200000000;


/// "VFO=5.06M" or "5.06M".
Result<std::vector<Oscillator>> oscillatorsIn(const std::vector<std::string>& words) {
    std::vector<Oscillator> out;
    for (const std::string& word : words) {
        const auto equals = word.find('=');
        const std::string value = equals == std::string::npos ? word : word.substr(equals + 1);
        const auto hertz = parseQuantity(value, Unit::hertz);
        if (!hertz || !(hertz->value > 0))
            return problem("--oscillator", "An oscillator is a name and a frequency: VFO=5.06M.");
        out.push_back({equals == std::string::npos ? formatQuantity(hertz->value, Unit::hertz, 6)
                                                   : word.substr(0, equals),
                       hertz->value});
    }
    return out;
}

const char* verdictWord(VerdictState state) {
    switch (state) {
        case VerdictState::pass:
            return "pass";
        case VerdictState::fail:
            return "fail";
        default:
            return "cannot tell";
    }
}

Json peakJson(const TracePeak& p) {
    return {{"name", p.name},
            {"frequency_hz", p.hertz},
            {"level_db", p.level},
            {"below_db", p.below},
            {"seen", p.seen},
            {"required_db", orNull(p.required)},
            {"verdict", verdictWord(p.state)}};
}

/// A quantity of an option; the first that cannot be read is refused.
class Options {
 public:
    void read(const char* option, const std::string& text, Unit unit, double& into) {
        if (text.empty() || problem_) return;
        const auto value = parseQuantity(text, unit);
        if (!value)
            problem_ = Problem{option, value.error().sentence};
        else
            into = value->value;
    }
    const std::optional<Problem>& problem() const { return problem_; }

 private:
    std::optional<Problem> problem_;
};

Result<std::vector<TracePoint>> traceOf(const std::string& file, double carrier) {
    const auto bytes = readFile(file, kLargestTrace);
    if (!bytes) return tl::make_unexpected(bytes.error());
    auto trace = readTrace(*bytes, carrier);
    if (!trace) return tl::make_unexpected(Problem{file, trace.error().sentence});
    return trace;
}

/// The first that speaks of a carrier; the first of all where none does, or none is said.
const LimitProfile& profileFor(const Tables& tables, double carrier) {
    for (const LimitProfile& p : tables.profiles) {
        if (carrier > 0 && p.speaksOf(carrier)) return p;
    }
    return tables.profile("");
}

int closeIn(std::vector<TracePoint> trace, double carrier, const std::string& mode, bool json) {
    const std::pair<const char*, Emission> modes[] = {{"cw", Emission::carrier},
                                                      {"usb", Emission::upperSideband},
                                                      {"lsb", Emission::lowerSideband},
                                                      {"dsb", Emission::bothSidebands}};
    const auto hit =
        std::find_if(std::begin(modes), std::end(modes), [&](const auto& m) { return mode == m.first; });
    if (hit == std::end(modes)) return refuse({"--close-in", "This is cw, usb, lsb or dsb."}, json);
    if (hit->second != Emission::carrier && !(carrier > 0))
        return refuse({"--carrier", "Where the carrier should be is wanted, 7.03M: it is not sent."}, json);
    const CloseIn out = judgeCloseIn(std::move(trace), carrier, hit->second);
    if (!json) {
        for (const CloseLine& line : out.lines)
            std::printf("%+.1f Hz  %.1f dB below  %s\n", line.offset, line.below, line.name.c_str());
        std::printf("%s\n", out.sentence.c_str());
        return 0;
    }
    Json lines = Json::array();
    for (const CloseLine& line : out.lines)
        lines.push_back({{"name", line.name}, {"offset_hz", line.offset}, {"below_db", line.below}});
    printJson({{"carrier_hz", out.carrier},
               {"bandwidth_hz", orNull(out.bandwidth)},
               {"lines", lines},
               {"hum_below_db", orNull(out.hum)},
               {"other_sideband_below_db", orNull(out.unwanted)},
               {"carrier_below_db", orNull(out.carrierBelow)},
               {"verdict", out.state == VerdictState::doubtful ? "doubtful" : verdictWord(out.state)},
               {"sentence", out.sentence}});
    return 0;
}

}  // namespace

int spectrumCommand(const SpectrumWish& wish, bool json) {
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    SpectrumQuestion q;
    Options options;
    options.read("--carrier", wish.carrier, Unit::hertz, q.carrier);
    options.read("--power", wish.power, Unit::watt, q.watts);
    if (options.problem()) return refuse(*options.problem(), json);
    const auto known = std::find_if(tables->profiles.begin(), tables->profiles.end(),
                                    [&](const LimitProfile& p) { return p.id == wish.profile; });
    if (!wish.profile.empty() && known == tables->profiles.end()) {
        std::string all;
        for (const LimitProfile& p : tables->profiles) all += (all.empty() ? "" : ", ") + p.id;
        return refuse({"--profile",
                       "No profile is called \"" + wish.profile.substr(0, 60) + "\"; there are " + all + "."},
                      json);
    }
    q.profile = wish.profile.empty() ? profileFor(*tables, q.carrier) : *known;
    const auto oscillators = oscillatorsIn(wish.oscillators);
    if (!oscillators) return refuse(oscillators.error(), json);
    q.oscillators = *oscillators;
    auto trace = traceOf(wish.file, q.carrier);
    if (!trace) return refuse(trace.error(), json);
    if (!wish.mode.empty()) return closeIn(std::move(*trace), q.carrier, wish.mode, json);
    const Spectrum out = judgeSpectrum(std::move(*trace), q);
    std::vector<TracePeak> own;
    if (!wish.again.empty()) {
        auto more = traceOf(wish.again, q.carrier);
        if (!more) return refuse(more.error(), json);
        own = ownProducts(out, judgeSpectrum(std::move(*more), q));
    }
    if (!json) {
        for (const TracePeak& p : out.peaks)
            std::printf("%s  %s%.1f dB  %s  %s\n", formatQuantity(p.hertz, Unit::hertz, 6).c_str(),
                        p.seen ? "" : "at least ", p.below, p.name.c_str(), verdictWord(p.state));
        std::printf("%s\n", out.sentence.c_str());
        for (const TracePeak& p : own)
            std::printf("%s is the analyser's own: it fell against the carrier.\n", p.name.c_str());
        return 0;
    }
    Json peaks = Json::array(), mine = Json::array();
    for (const TracePeak& p : own) mine.push_back({{"name", p.name}, {"frequency_hz", p.hertz}});
    for (const TracePeak& p : out.peaks) peaks.push_back(peakJson(p));
    const bool carrier = out.carrier.hertz > 0;
    printJson(
        {{"carrier", carrier ? Json{{"frequency_hz", out.carrier.hertz}, {"level_db", out.carrier.level}}
                             : Json(nullptr)},
         {"noise_floor_db", orNull(out.floor)},
         {"profile", q.profile.id},
         {"peaks", peaks},
         {"analyser_own", mine},
         {"verdict", verdictWord(out.state)},
         {"sentence", out.sentence}});
    return 0;
}

int powerCommand(const PowerWish& wish, bool json) {
    PowerWay way;
    const std::pair<const char*, const char*> aliases[] = {
        {"vpp", "peak-to-peak"},    {"scope", "peak-to-peak"},   {"diode", "diode-probe"},
        {"attenuator", "analyser"}, {"power-meter", "analyser"}, {"rf-current", "current"},
        {"calorimetric", "heat"}};
    way.method = wish.method;
    for (const auto& [alias, id] : aliases)
        if (wish.method == alias) way.method = id;
    Options options;
    const auto given = [&](const char* name) {
        const auto hit = wish.figures.find(name);
        return hit == wish.figures.end() ? std::string() : hit->second;
    };
    const struct {
        const char* name;
        Unit unit;
        double PowerWay::*into;
    } figures[] = {{"volts", Unit::volt, &PowerWay::volts},
                   {"volts-error", Unit::percent, &PowerWay::voltsError},
                   {"load", Unit::ohm, &PowerWay::load},
                   {"load-error", Unit::percent, &PowerWay::loadError},
                   {"probe-error", Unit::percent, &PowerWay::probeError},
                   {"bandwidth", Unit::hertz, &PowerWay::bandwidth},
                   {"frequency", Unit::hertz, &PowerWay::frequency},
                   {"drop", Unit::volt, &PowerWay::drop},
                   {"drop-error", Unit::volt, &PowerWay::dropError},
                   {"watts", Unit::watt, &PowerWay::watts},
                   {"watts-error", Unit::percent, &PowerWay::wattsError},
                   {"full-scale", Unit::watt, &PowerWay::fullScale},
                   {"correction", Unit::none, &PowerWay::correction},
                   {"correction-error", Unit::percent, &PowerWay::correctionError},
                   {"dbm", Unit::dbm, &PowerWay::dbm},
                   {"dbm-error", Unit::decibel, &PowerWay::dbmError},
                   {"attenuation", Unit::decibel, &PowerWay::attenuation},
                   {"attenuation-error", Unit::decibel, &PowerWay::attenuationError},
                   {"source-return-loss", Unit::decibel, &PowerWay::sourceLoss},
                   {"load-return-loss", Unit::decibel, &PowerWay::loadLoss},
                   {"amps", Unit::ampere, &PowerWay::amps},
                   {"amps-error", Unit::percent, &PowerWay::ampsError},
                   {"kilograms", Unit::none, &PowerWay::kilograms},
                   {"kelvins", Unit::none, &PowerWay::kelvins},
                   {"seconds", Unit::none, &PowerWay::seconds},
                   {"heat-error", Unit::percent, &PowerWay::heatError}};
    for (const auto& f : figures) options.read(f.name, given(f.name), f.unit, way.*f.into);
    if (options.problem()) return refuse(*options.problem(), json);
    const auto power = powerBy(way);
    if (!power) return refuse(power.error(), json);
    if (!json) {
        std::printf("%s%s, ±%s (19 of 20)\n", power->atLeast ? "at least " : "",
                    formatQuantity(power->watts, Unit::watt, 4).c_str(),
                    formatQuantity(2 * power->deviation, Unit::watt, 2).c_str());
        for (const BudgetLine& line : power->lines)
            std::printf("  %s: %s\n", line.input.what.c_str(),
                        formatQuantity(line.watts, Unit::watt, 2).c_str());
        return 0;
    }
    Json lines = Json::array();
    for (const BudgetLine& line : power->lines)
        lines.push_back({{"what", line.input.what},
                         {"value", line.input.value},
                         {"unit", line.input.unit},
                         {"u", line.deviation},
                         {"u_watts", line.watts}});
    printJson({{"method", way.method},
               {"watts", power->watts},
               {"u", power->deviation},
               {"expanded", 2 * power->deviation},
               {"at_least", power->atLeast},
               {"budget", lines}});
    return 0;
}

}  // namespace ombrek
