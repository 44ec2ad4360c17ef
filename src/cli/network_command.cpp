#include <algorithm>
#include <cmath>

#include "circuit/netlist.h"
#include "circuit/network_of.h"
#include "cli/commands.h"
#include "cli/print.h"
#include "core/antenna/coupler.h"
#include "core/antenna/load_text.h"
#include "core/antenna/wire_antenna.h"
#include "core/text/letters.h"
#include "formats/encoding.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/tables.h"
#include "formats/touchstone.h"
#include "station/proof/filter.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;
using Complex = std::complex<double>;

constexpr std::uintmax_t kLargestNetwork = 50000000;
constexpr double kMostPoints = 1000000;

Json pair(Complex value) { return Json::array({value.real(), value.imag()}); }

/// A quantity of an option: above nothing, within a range.
Result<double> positive(const char* option, const std::string& text, Unit unit) {
    const auto value = parseQuantity(text, unit);
    if (!value) return problem(option, value.error().sentence);
    if (!(value->value > 0)) return problem(option, "This must be above nothing.");
    return value->value;
}

struct Swept {
    std::vector<double> frequencies;
    std::vector<Scattering> points;
    bool twoPort = true;
    std::string in, out;
    double z1 = 50, z2 = 50;
    std::vector<std::string> notes;
};

Result<Network> kitNetwork(const std::string& bytes, const std::string& file) {
    const auto tables = readTables(dataFolder());
    if (!tables) return tl::make_unexpected(tables.error());
    const auto kit = readKit(bytes, tables->cores);
    if (!kit) return tl::make_unexpected(Problem{file, kit.error().text()});
    return filterNetwork(*kit);
}

Result<Swept> swept(const NetworkWish& wish) {
    const auto low = positive("--from", wish.from, Unit::hertz),
               high = positive("--to", wish.to, Unit::hertz);
    if (!low) return tl::make_unexpected(low.error());
    if (!high) return tl::make_unexpected(high.error());
    const auto count = parseQuantity(wish.points);
    if (!count || count->value != std::floor(count->value) || count->value < 1 || count->value > kMostPoints)
        return problem("--points", "This is a whole number from 1 to 1,000,000.");
    if (*high < *low || (*high == *low && count->value > 1))
        return problem("--to", "The highest frequency is above the lowest.");
    const auto bytes = readFile(wish.file, kLargestNetwork);
    if (!bytes) return tl::make_unexpected(bytes.error());
    Swept out;
    Network network;
    const std::string text = toUtf8(*bytes);
    if (trimmed(text).starts_with('{')) {
        const auto kit = kitNetwork(*bytes, wish.file);
        if (!kit) return tl::make_unexpected(kit.error());
        network = *kit;
        out.in = "rig";
        out.out = "antenna";
    } else {
        const auto netlist = readNetlist(text);
        if (!netlist) return tl::make_unexpected(Problem{wish.file, netlist.error().text()});
        const auto read = networkOf(*netlist, wish.in, wish.out);
        if (!read) return tl::make_unexpected(Problem{wish.file, read.error().text()});
        network = read->network;
        out.in = read->in;
        out.out = read->out;
        out.notes = read->notes;
        if (read->source > 0) out.z1 = read->source;
        if (read->load > 0) out.z2 = read->load;
    }
    for (const auto& [option, given, into] :
         {std::tuple{"--z1", &wish.z1, &out.z1}, std::tuple{"--z2", &wish.z2, &out.z2}}) {
        if (given->empty()) continue;
        const auto ohms = positive(option, *given, Unit::ohm);
        if (!ohms) return tl::make_unexpected(ohms.error());
        *into = *ohms;
    }
    out.twoPort = network.twoPort();
    out.frequencies = frequenciesFrom(*low, *high, int(count->value), wish.byRatio);
    auto points = scatteringOf(network, out.frequencies, out.z1, out.z2);
    if (!points) return tl::make_unexpected(Problem{wish.file, points.error().sentence});
    out.points = std::move(*points);
    if (wish.touchstone.empty()) return out;
    // The format knows one resistance for all ports.
    const bool alike = !out.twoPort || out.z1 == out.z2;
    const double ohms = alike ? out.z1 : 50;
    auto written = alike ? Result<std::vector<Scattering>>(out.points)
                         : scatteringOf(network, out.frequencies, ohms, ohms);
    if (!alike)
        out.notes.push_back(
            "The Touchstone file holds S-parameters in 50 ohms: it knows one for both ports.");
    const Touchstone data{out.twoPort, ohms, out.frequencies, std::move(*written), 0};
    const auto done = writeFile(wish.touchstone, writeTouchstone(data));
    if (!done) return tl::make_unexpected(done.error());
    return out;
}

Json networkJson(const Swept& s) {
    Json points = Json::array();
    for (std::size_t i = 0; i < s.points.size(); ++i) {
        const Scattering& p = s.points[i];
        Json row{{"frequency_hz", s.frequencies[i]},
                 {"s11", pair(p.s11)},
                 {"return_loss_db", orNull(-20 * std::log10(std::abs(p.s11)))},
                 {"swr", orNull(swrOf(p.s11))}};
        if (s.twoPort) {
            row["s21"] = pair(p.s21);
            row["s12"] = pair(p.s12);
            row["s22"] = pair(p.s22);
            row["loss_db"] = orNull(lossOf(p.s21));
        } else {
            const Complex z = s.z1 * (1.0 + p.s11) / (1.0 - p.s11);
            row["ohms"] = std::isfinite(std::abs(z)) ? pair(z) : Json(nullptr);
        }
        points.push_back(row);
    }
    return {{"ports", s.twoPort ? 2 : 1},
            {"in", s.in},
            {"out", s.twoPort ? Json(s.out) : Json(nullptr)},
            {"z1", s.z1},
            {"z2", s.twoPort ? Json(s.z2) : Json(nullptr)},
            {"notes", s.notes},
            {"points", points}};
}

Result<PartRange> rangeIn(const char* option, const std::string& text, Unit unit) {
    PartRange out;
    if (text.empty()) return out;
    const auto dots = text.find("..");
    const auto low = parseQuantity(text.substr(0, dots), unit);
    const auto high = dots == std::string::npos ? low : parseQuantity(text.substr(dots + 2), unit);
    if (!low || !high || !(low->value >= 0) || !(high->value >= low->value) || !(high->value > 0))
        return problem(option, "A range goes from the least to the most, 10p..240p.");
    return PartRange{low->value, high->value};
}

Result<Coupler> couplerOf(const CouplerWish& wish) {
    Coupler out;
    const std::string kind = lowered(wish.kind);
    if (kind == "l")
        out.kind = Coupler::Kind::l;
    else if (kind == "t")
        out.kind = Coupler::Kind::t;
    else if (kind == "pi" || kind == "\u03c0")
        out.kind = Coupler::Kind::pi;
    else
        return problem("--kind", "A coupler is L, T or pi.");
    const struct {
        const char* option;
        const std::string& text;
        Unit unit;
        PartRange& into;
    } ranges[] = {{"--l", wish.l, Unit::henry, out.l},
                  {"--c1", wish.c1, Unit::farad, out.c1},
                  {"--c2", wish.c2, Unit::farad, out.c2}};
    for (const auto& r : ranges) {
        const auto range = rangeIn(r.option, r.text, r.unit);
        if (!range) return tl::make_unexpected(range.error());
        r.into = *range;
    }
    if (!out.c2.there() && out.kind != Coupler::Kind::l)
        return problem("--c2", "A T or a pi has a second capacitor.");
    const struct {
        const char* option;
        const std::string& text;
        Unit unit;
        double& into;
    } figures[] = {{"--source", wish.source, Unit::ohm, out.source},
                   {"--q-l", wish.coilQ, Unit::none, out.coilQ},
                   {"--q-c", wish.capacitorQ, Unit::none, out.capacitorQ},
                   {"--volts", wish.volts, Unit::volt, out.volts},
                   {"--swr", wish.swr, Unit::none, out.swr}};
    for (const auto& f : figures) {
        if (f.text.empty()) continue;
        const auto value = positive(f.option, f.text, f.unit);
        if (!value) return tl::make_unexpected(value.error());
        f.into = *value;
    }
    if (out.swr < 1) return problem("--swr", "A standing wave ratio is 1 or more.");
    return out;
}

struct NamedLoad {
    std::string name;
    Complex ohms;
};

/// The reflection of a measured antenna between the two points around a frequency.
Result<Complex> measuredAt(const std::string& file, double frequency) {
    const auto bytes = readFile(file, kLargestNetwork);
    if (!bytes) return tl::make_unexpected(bytes.error());
    const auto data = readTouchstone(*bytes, file);
    if (!data) return tl::make_unexpected(Problem{file, data.error().text()});
    const auto& f = data->frequencies;
    if (frequency < f.front() || frequency > f.back())
        return problem(file, "It was not measured at this frequency.");
    const auto above = std::size_t(std::lower_bound(f.begin(), f.end(), frequency) - f.begin());
    Complex s = data->points[above].s11;
    if (above > 0 && f[above] > frequency) {
        const double part = (frequency - f[above - 1]) / (f[above] - f[above - 1]);
        s = (1 - part) * data->points[above - 1].s11 + part * s;
    }
    return data->ohms * (1.0 + s) / (1.0 - s);
}

Result<std::vector<NamedLoad>> loadsOf(const CouplerWish& wish, double frequency) {
    std::vector<NamedLoad> out;
    for (const std::string& text : wish.loads) {
        const auto load = parseLoad(text);
        if (!load) return tl::make_unexpected(Problem{"--load", load.error().sentence});
        out.push_back({text, *load});
    }
    for (const std::string& text : wish.wires) {
        const auto metres = positive("--wire", text, Unit::metre);
        if (!metres) return tl::make_unexpected(metres.error());
        if (*metres < 0.1 || *metres > 1000) return problem("--wire", "A wire is from 0.1 m to 1 km long.");
        out.push_back({"a wire of " + text, wireImpedance(*metres, 0.0005, frequency)});
    }
    if (!wish.touchstone.empty()) {
        const auto load = measuredAt(wish.touchstone, frequency);
        if (!load) return tl::make_unexpected(load.error());
        out.push_back({wish.touchstone, *load});
    }
    if (out.empty()) return problem("--load", "Say a load: 35-120j.");
    for (const NamedLoad& load : out) {
        if (!(load.ohms.real() > 0) || !std::isfinite(std::abs(load.ohms)))
            return problem("--load", "A load has a resistance above nothing; \"" + load.name.substr(0, 40) +
                                         "\" takes no power.");
    }
    return out;
}

Json stressJson(const CouplerMatch& m, double CouplerMatch::Stress::*part) {
    Json out;
    if (m.l > 0) out["l"] = m.coil.*part;
    if (m.c1 > 0) out["c1"] = m.first.*part;
    if (m.c2 > 0) out["c2"] = m.second.*part;
    return out;
}

Json matchJson(const Coupler& c, const NamedLoad& load, const CouplerMatch& m) {
    Json settings{{"l", m.l}, {"c1", m.c1}};
    if (c.kind == Coupler::Kind::l)
        settings["capacitor_at"] = m.atLoad ? "antenna" : "rig";
    else
        settings["c2"] = m.c2;
    return {{"load", load.name},
            {"load_ohms", pair(load.ohms)},
            {"reaches", m.reaches},
            {"swr", orNull(m.swr)},
            {"settings", settings},
            {"loss_db", m.lossDb},
            {"volts", stressJson(m, &CouplerMatch::Stress::volts)},
            {"amps", stressJson(m, &CouplerMatch::Stress::amps)},
            {"most_watts", orNull(m.flashOver)},
            {"sentence", m.sentence}};
}

}  // namespace

int networkCommand(const NetworkWish& wish, bool json) {
    const auto out = swept(wish);
    if (!out) return refuse(out.error(), json);
    if (json) {
        printJson(networkJson(*out));
        return 0;
    }
    for (const std::string& note : out->notes) std::printf("%s\n", note.c_str());
    if (!wish.touchstone.empty()) {
        std::printf("%zu points in %s\n", out->points.size(), wish.touchstone.c_str());
        return 0;
    }
    for (std::size_t i = 0; i < out->points.size(); ++i) {
        const Scattering& p = out->points[i];
        std::printf("%s  SWR %s", formatQuantity(out->frequencies[i], Unit::hertz, 6).c_str(),
                    decimals(swrOf(p.s11), 2).c_str());
        if (out->twoPort) std::printf("  %s dB lost", decimals(lossOf(p.s21), 3).c_str());
        std::printf("\n");
    }
    return 0;
}

int couplerCommand(const CouplerWish& wish, bool json) {
    const auto coupler = couplerOf(wish);
    if (!coupler) return refuse(coupler.error(), json);
    const auto frequency = positive("--frequency", wish.frequency, Unit::hertz);
    if (!frequency) return refuse(frequency.error(), json);
    const auto watts = positive("--power", wish.power, Unit::watt);
    if (!watts) return refuse(watts.error(), json);
    const auto loads = loadsOf(wish, *frequency);
    if (!loads) return refuse(loads.error(), json);
    Json all = Json::array();
    for (const NamedLoad& load : *loads) {
        const CouplerMatch m = match(*coupler, load.ohms, *frequency, *watts);
        if (!json) std::printf("%s: %s\n", loadText(load.ohms).c_str(), m.sentence.c_str());
        all.push_back(matchJson(*coupler, load, m));
    }
    if (!json) return 0;
    Json out = all.size() == 1 ? all[0] : Json{{"loads", all}};
    out["frequency_hz"] = *frequency;
    out["power_w"] = *watts;
    out["taken"] = {{"q_l", coupler->coilQ},
                    {"q_c", coupler->capacitorQ},
                    {"swr_wanted", coupler->swr},
                    {"volts", "peak"},
                    {"amps", "rms"}};
    printJson(out);
    return 0;
}

}  // namespace ombrek
