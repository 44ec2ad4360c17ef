#include "formats/kit_json.h"

#include <algorithm>
#include <array>
#include <functional>
#include <set>

#include "formats/files.h"
#include "formats/json_fields.h"
#include "kit/package.h"

namespace ombrek {
namespace {

constexpr double kMillimetre = 1e-3;

struct Measured {
    PartKind kind;
    Unit unit;
    double low, high;
};
/// Kinds whose value is a quantity; all others carry a description.
constexpr std::array<Measured, 3> kMeasured{{{PartKind::resistor, Unit::ohm, 0.001, 1e12},
                                             {PartKind::capacitor, Unit::farad, 1e-14, 10},
                                             {PartKind::inductor, Unit::henry, 1e-10, 100}}};

Place readPlace(JsonFields fields) {
    Place out;
    out.x = fields.number("x", 0, 1000);
    out.y = fields.number("y", 0, 1000);
    out.width = fields.number("w", 0.1, 500, 0);
    out.height = fields.number("h", 0.1, 500, 0);
    out.underside = fields.flag("underside", false);
    out.turn = fields.number("turn", -360, 360, 0);
    fields.finish();
    return out;
}

void readValue(JsonFields& fields, Part& part) {
    const auto row = std::find_if(kMeasured.begin(), kMeasured.end(),
                                  [&](const Measured& m) { return m.kind == part.kind; });
    if (row == kMeasured.end()) {
        part.value = fields.text("value");
        return;
    }
    part.unit = row->unit;
    part.nominal = fields.quantity("value", row->unit, row->low, row->high);
    part.tolerance = fields.number("tolerance", 0.001, 100);
    part.value = formatQuantity(part.nominal, part.unit, 4);
}

Part readPart(JsonFields& fields) {
    Part part;
    part.ref = fields.text("ref");
    if (part.ref.empty() || part.ref.size() > 16) fields.fault("ref", "A designator has 1 to 16 characters.");
    const auto kind = partKind(fields.text("kind"));
    if (!kind) {
        fields.fault(
            "kind",
            "One of resistor, capacitor, inductor, diode, transistor, ic, crystal, coil, trimmer, other.");
    }
    part.kind = *kind;
    readValue(fields, part);
    if (part.kind == PartKind::trimmer && fields.has("low")) {
        part.unit = Unit::farad;
        part.low = fields.quantity("low", Unit::farad, 0, 1e-6);
        part.high = fields.quantity("high", Unit::farad, part.low, 1e-6);
    }
    part.what = fields.text("what", "");
    part.mark = fields.text("mark", "");
    part.orientation = fields.text("orientation", "");
    part.bag = fields.text("bag", "");
    part.code = fields.text("code", "");
    part.volts = fields.number("volts", 0, 100000, 0);
    part.watts = fields.number("watts", 0, 10000, 0);
    if (fields.has("place")) part.place = readPlace(fields.object("place"));
    if (part.place && !(part.place->width > 0 && part.place->height > 0)) {
        const Package package = packageOf(part);
        part.place->width = package.width;
        part.place->height = package.height;
    }
    fields.finish();
    return part;
}

MagneticCore readOwnCore(JsonFields fields) {
    MagneticCore core;
    core.shape = MagneticCore::Shape::twoHole;
    core.designation = fields.text("name");
    if (fields.text("shape") != "two-hole")
        fields.fault("shape", "A kit's own core is \"two-hole\"; rings come from the table.");
    core.material = fields.text("material", "ferrite");
    core.mix = fields.text("mix", "");
    core.al = fields.quantity("al", Unit::henry, 1e-12, 1e-3);
    core.alTolerancePercent = fields.number("al_tolerance", 0, 100, 25);
    core.outerDiameter = fields.number("width_mm", 0.5, 200) * kMillimetre;
    core.height = fields.number("height_mm", 0.5, 200) * kMillimetre;
    core.turnLength = fields.number("turn_mm", 1, 1000) * kMillimetre;
    fields.finish();
    return core;
}

CoilTune readTune(JsonFields fields) {
    CoilTune tune;
    tune.trimmer = fields.text("trimmer");
    tune.fixed = fields.texts("fixed");
    tune.stray = fields.quantity("stray", Unit::farad, 0, 1e-9, 0);
    tune.low = fields.quantity("low", Unit::hertz, 1, 1e11);
    tune.high = fields.quantity("high", Unit::hertz, tune.low, 1e11);
    fields.finish();
    return tune;
}

Pad readPad(JsonFields fields) {
    const Pad pad{fields.number("x", -50, 2000), fields.number("y", -50, 2000)};
    fields.finish();
    return pad;
}

Winding readWinding(JsonFields& row) {
    Winding winding;
    winding.name = row.text("name");
    winding.turns = row.whole("turns", 1, 500);
    int last = 0;
    for (JsonFields& tap : row.objects("taps")) {
        winding.taps.push_back({tap.whole("at", 1, 500), tap.text("name")});
        const int at = winding.taps.back().at;
        if (at <= last || at >= winding.turns)
            tap.fault("at", "Taps come in order, before the last turn of the winding.");
        last = at;
        tap.finish();
    }
    if (row.has("start") != row.has("finish"))
        row.fault("start", "Give the holes of both tails, start and finish.");
    if (row.has("start")) {
        winding.start = readPad(row.object("start"));
        winding.finish = readPad(row.object("finish"));
    }
    row.finish();
    return winding;
}

Coil readCoil(JsonFields& fields, const std::vector<MagneticCore>& cores) {
    Coil coil;
    coil.ref = fields.text("ref");
    coil.what = fields.text("what", "");
    if (fields.has("own_core")) {
        coil.core = readOwnCore(fields.object("own_core"));
    } else {
        const std::string name = fields.text("core");
        const auto hit =
            std::find_if(cores.begin(), cores.end(), [&](const auto& c) { return c.designation == name; });
        if (hit == cores.end())
            fields.fault("core", "\"" + name + "\" is not in the core table; give it as own_core.");
        coil.core = *hit;
    }
    coil.wireText = fields.text("wire");
    const auto wire = parseWire(coil.wireText);
    if (!wire) fields.fault("wire", wire.error().sentence);
    coil.wire = *wire;
    coil.target = fields.quantity("target", Unit::henry, 1e-9, 1);
    coil.tolerance = fields.number("tolerance", 0.1, 100, coil.core.ferrite() ? 30 : 5);
    coil.tail = fields.number("tail_mm", 0, 500, 30) * kMillimetre;
    std::set<std::string> names;
    for (JsonFields& row : fields.objects("windings")) {
        Winding winding = readWinding(row);
        if (!names.insert(winding.name).second)
            row.fault("name", "Two windings of this coil have this name.");
        coil.windings.push_back(winding);
    }
    if (coil.windings.empty()) fields.fault("windings", "A coil has at least one winding.");
    coil.twisted = fields.texts("twisted");
    for (const std::string& name : coil.twisted) {
        if (!names.contains(name)) fields.fault("twisted", "\"" + name + "\" is no winding of this coil.");
    }
    if (coil.twisted.size() == 1 || coil.twisted.size() > 12)
        fields.fault("twisted", "Two to twelve windings may be twisted together.");
    const std::string sense = fields.text("sense", "clockwise");
    if (sense != "clockwise" && sense != "counter-clockwise")
        fields.fault("sense", "One of clockwise, counter-clockwise.");
    coil.clockwise = sense == "clockwise";
    if (fields.has("impedance")) coil.impedance = fields.quantity("impedance", Unit::ohm, 0.01, 1e6);
    if (fields.has("lowest")) coil.lowest = fields.quantity("lowest", Unit::hertz, 1, 1e11);
    if (fields.has("tune")) coil.tune = readTune(fields.object("tune"));
    coil.note = fields.text("note", "");
    fields.finish();
    return coil;
}

Step readStep(JsonFields& fields) {
    Step step;
    step.id = fields.text("id");
    step.title = fields.text("do");
    step.fits = fields.texts("fits");
    step.after = fields.texts("after");
    step.minutes = fields.number("minutes", 0.1, 1000, 5);
    step.height = fields.number("height_mm", 0, 200, 0);
    if (fields.has("hold")) {
        JsonFields hold = fields.object("hold");
        step.hold = HoldPoint{hold.texts("needs"), hold.text("say")};
        hold.finish();
    }
    step.caution = fields.text("caution", "");
    step.note = fields.text("note", "");
    step.before = fields.texts("before");
    step.tools = fields.texts("tools");
    for (JsonFields& keep : fields.objects("keep")) {
        step.keeps.push_back(
            {keep.text("what"), keep.has("count") ? keep.whole("count", 1, 1000) : 1, keep.text("until")});
        keep.finish();
    }
    step.stage = fields.text("stage", "");
    step.hardness = fields.number("hard", 1, 5, 0);
    step.erratum = fields.text("erratum", "");
    fields.finish();
    return step;
}

struct CheckUnit {
    std::string_view quantity;
    Unit unit;
};
constexpr std::array<CheckUnit, 5> kCheckUnits{{{"voltage", Unit::volt},
                                                {"resistance", Unit::ohm},
                                                {"current", Unit::ampere},
                                                {"frequency", Unit::hertz},
                                                {"power", Unit::watt}}};

Unit readUnit(JsonFields& fields, const std::string& name) {
    const std::string text = fields.text(name);
    const auto hit = std::find_if(kCheckUnits.begin(), kCheckUnits.end(),
                                  [&](const auto& u) { return u.quantity == text; });
    if (hit == kCheckUnits.end())
        fields.fault(name, "One of voltage, resistance, current, frequency, power.");
    return hit->unit;
}

Check readCheck(JsonFields& fields) {
    Check check;
    check.id = fields.text("id");
    check.title = fields.text("do");
    check.at = fields.text("at", "");
    check.unit = readUnit(fields, "quantity");
    if (fields.has("low")) check.limits.low = fields.quantity("low", check.unit, -1e12, 1e12);
    if (fields.has("high")) check.limits.high = fields.quantity("high", check.unit, -1e12, 1e12);
    if (!fields.has("low") && !fields.has("high")) fields.fault("low", "A check needs low, high or both.");
    if (check.limits.low > check.limits.high) fields.fault("low", "The low limit is above the high one.");
    check.gate = fields.flag("gate", false);
    check.caution = fields.text("caution", "");
    check.suspects = fields.text("suspects", "");
    fields.finish();
    return check;
}

Adjustment readAdjustment(JsonFields& fields) {
    Adjustment a;
    a.id = fields.text("id");
    a.title = fields.text("do");
    a.adjuster = fields.text("adjuster");
    a.unit = readUnit(fields, "quantity");
    a.reads = fields.text("reads", "");
    a.coil = fields.text("coil", "");
    const std::string kind = fields.text("kind");
    if (kind == "set") {
        a.kind = Adjustment::Kind::set;
        a.target = fields.quantity("target", a.unit, -1e12, 1e12);
        a.tolerance = fields.quantity("tolerance", a.unit, 0, 1e12);
    } else if (kind != "peak") {
        fields.fault("kind", "An adjustment is a \"peak\" or a \"set\".");
    }
    a.caution = fields.text("caution", "");
    fields.finish();
    return a;
}

Ratings readRatings(JsonFields fields) {
    Ratings r;
    r.power = fields.quantity("power", Unit::watt, 0, 1e4, 0);
    r.powerLow = fields.quantity("power_low", Unit::watt, 0, 1e4, r.power * 0.8);
    r.powerHigh = fields.quantity("power_high", Unit::watt, r.powerLow, 1e4, r.power * 1.25);
    r.supply = fields.quantity("supply", Unit::volt, 0.1, 1000, 12);
    r.frequency = fields.quantity("frequency", Unit::hertz, 0, 1e12, 0);
    r.frequencyTolerance = fields.number("frequency_ppm", 0, 1e6, 100);
    r.ohms = fields.quantity("load", Unit::ohm, 0.1, 1e4, 50);
    r.harmonics = fields.has("harmonics") ? fields.whole("harmonics", 2, 20) : 3;
    if (r.power > 0 && r.frequency <= 0)
        fields.fault("frequency", "A kit that transmits is rated at a frequency.");
    fields.finish();
    return r;
}

/// Everything that one record says of another must exist.
class References {
 public:
    explicit References(const Kit& kit) : kit_(kit) {}

    void check() const {
        unique("parts", kit_.parts, &Part::ref);
        unique("coils", kit_.coils, &Coil::ref);
        unique("steps", kit_.steps, &Step::id);
        unique("checks", kit_.checks, &Check::id);
        unique("adjustments", kit_.adjustments, &Adjustment::id);
        coils();
        steps();
        adjustments();
        for (std::size_t i = 0; i < kit_.lowPass.size(); ++i) {
            need(known(kit_.lowPass[i].ref), at("low_pass", i) + "/ref", kit_.lowPass[i].ref);
        }
    }

 private:
    const Kit& kit_;

    static std::string at(const std::string& list, std::size_t i) {
        return "/" + list + "/" + std::to_string(i);
    }

    static void need(bool ok, const std::string& path, const std::string& name) {
        if (!ok)
            throw JsonFault{{path, "\"" + name + "\" is named here, but the kit has nothing of that name."}};
    }

    template <class Records>
    static void unique(const std::string& list, const Records& records,
                       std::string Records::value_type::*key) {
        std::set<std::string> seen;
        for (std::size_t i = 0; i < records.size(); ++i) {
            if (!seen.insert(records[i].*key).second) {
                throw JsonFault{{at(list, i), "\"" + records[i].*key + "\" is there twice."}};
            }
        }
    }

    bool known(const std::string& ref) const {
        return kit_.part(ref) != nullptr || kit_.coil(ref) != nullptr;
    }

    void coils() const {
        for (std::size_t i = 0; i < kit_.coils.size(); ++i) {
            const auto& tune = kit_.coils[i].tune;
            if (!tune) continue;
            const Part* trimmer = kit_.part(tune->trimmer);
            const std::string path = at("coils", i) + "/tune";
            need(trimmer != nullptr, path + "/trimmer", tune->trimmer);
            if (!(trimmer->high > trimmer->low))
                throw JsonFault{{path + "/trimmer", "This part has no low and high."}};
            for (const std::string& ref : tune->fixed) {
                const Part* part = kit_.part(ref);
                need(part != nullptr && part->kind == PartKind::capacitor, path + "/fixed", ref);
            }
            if (tankOf(kit_, *tune).at(0.0) <= 0)
                throw JsonFault{{path, "There is no capacitance across this coil."}};
        }
    }

    bool subjectKnown(const std::string& subject) const {
        const auto colon = subject.find(':');
        if (colon == std::string::npos) return false;
        const std::string kind = subject.substr(0, colon), id = subject.substr(colon + 1);
        if (kind == "part") return kit_.part(id) != nullptr;
        if (kind == "coil") return kit_.coil(id) != nullptr;
        if (kind == "check") return kit_.check(id) != nullptr;
        if (kind == "adjust") return kit_.adjustment(id) != nullptr;
        return kind == "step" && kit_.step(id) != nullptr;
    }

    void steps() const {
        for (std::size_t i = 0; i < kit_.steps.size(); ++i) {
            const Step& step = kit_.steps[i];
            for (const auto& ref : step.fits) need(known(ref), at("steps", i) + "/fits", ref);
            for (const Step::Keep& keep : step.keeps)
                need(kit_.step(keep.until) != nullptr, at("steps", i) + "/keep/until", keep.until);
            if (!step.hold) continue;
            for (const auto& subject : step.hold->needs) {
                need(subjectKnown(subject), at("steps", i) + "/hold/needs", subject);
            }
        }
        for (std::size_t i = 0; i < kit_.lookAheads.size(); ++i) {
            need(kit_.step(kit_.lookAheads[i].from) != nullptr, at("look_aheads", i) + "/from",
                 kit_.lookAheads[i].from);
            need(kit_.step(kit_.lookAheads[i].until) != nullptr, at("look_aheads", i) + "/until",
                 kit_.lookAheads[i].until);
        }
        const auto order = stepOrder(kit_, Order::manual);
        if (!order) throw JsonFault{{"/steps, " + order.error().place, order.error().sentence}};
    }

    void adjustments() const {
        for (std::size_t i = 0; i < kit_.adjustments.size(); ++i) {
            const Adjustment& a = kit_.adjustments[i];
            need(kit_.part(a.adjuster) != nullptr, at("adjustments", i) + "/adjuster", a.adjuster);
            need(a.coil.empty() || kit_.coil(a.coil) != nullptr, at("adjustments", i) + "/coil", a.coil);
        }
    }
};

Kit readAll(const nlohmann::json& document, const std::vector<MagneticCore>& cores) {
    JsonFields top(document, "");
    if (top.text("format") != "ombrek-kit")
        top.fault("format", "A kit file says \"format\": \"ombrek-kit\".");
    if (top.whole("version", 1, 1000) != 1)
        top.fault("version", "This kit file is of a newer version than 1; get a newer Ombrek.");
    Kit kit;
    kit.id = top.text("id");
    kit.name = top.text("name");
    kit.summary = top.text("summary", "");
    kit.note = top.text("note", "");
    if (top.has("board")) {
        JsonFields board = top.object("board");
        kit.board = {board.number("width_mm", 5, 1000), board.number("height_mm", 5, 1000)};
        board.finish();
    }
    for (JsonFields& row : top.objects("parts")) kit.parts.push_back(readPart(row));
    if (kit.parts.empty()) top.fault("parts", "A kit has at least one part.");
    for (JsonFields& row : top.objects("coils")) kit.coils.push_back(readCoil(row, cores));
    for (JsonFields& row : top.objects("steps")) kit.steps.push_back(readStep(row));
    for (JsonFields& row : top.objects("look_aheads")) {
        kit.lookAheads.push_back({row.text("from"), row.text("until"), row.text("say")});
        row.finish();
    }
    for (JsonFields& row : top.objects("checks")) kit.checks.push_back(readCheck(row));
    for (JsonFields& row : top.objects("adjustments")) kit.adjustments.push_back(readAdjustment(row));
    for (JsonFields& row : top.objects("low_pass")) {
        const std::string arm = row.text("arm");
        if (arm != "series" && arm != "shunt") row.fault("arm", "An element is \"series\" or \"shunt\".");
        kit.lowPass.push_back({row.text("ref"), arm == "series"});
        row.finish();
    }
    if (top.has("ratings")) kit.ratings = readRatings(top.object("ratings"));
    top.finish();
    References(kit).check();
    return kit;
}

}  // namespace

Result<Kit> readKit(const std::string& json, const std::vector<MagneticCore>& cores) {
    try {
        return readAll(parseJson(json), cores);
    } catch (const JsonFault& fault) {
        return tl::make_unexpected(fault.problem);
    } catch (const nlohmann::json::exception&) {
        return problem("", "This kit file holds a value that cannot be read.");
    }
}

Result<KitFile> readKitFile(const std::filesystem::path& path, const std::vector<MagneticCore>& cores) {
    auto text = readFile(path, 16000000);
    if (!text) return tl::make_unexpected(text.error());
    auto kit = readKit(*text, cores);
    if (!kit)
        return problem(path.filename().string() + (kit.error().place.empty() ? "" : ", " + kit.error().place),
                       kit.error().sentence);
    return KitFile{std::move(*kit), std::move(*text)};
}

}  // namespace ombrek
