#include "formats/kit_json.h"

#include <algorithm>
#include <array>
#include <cctype>

#include "formats/files.h"
#include "formats/json_fields.h"
#include "formats/kit_coil_json.h"
#include "formats/kit_edit.h"
#include "formats/kit_references.h"
#include "kit/package.h"

namespace ombrek {
namespace {

struct MeasuredKind {
    PartKind kind;
    Unit unit;
    double low, high;
};
/// Kinds whose value is a quantity; all others carry a description.
constexpr std::array<MeasuredKind, 3> kMeasured{{{PartKind::resistor, Unit::ohm, 0.001, 1e12},
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
                                  [&](const MeasuredKind& m) { return m.kind == part.kind; });
    if (row == kMeasured.end()) {
        part.value = fields.text("value");
        return;
    }
    part.unit = row->unit;
    if (fields.has("described")) {
        part.value = fields.text("described");
        return;
    }
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
    part.mpn = fields.text("mpn", "");
    part.package = fields.text("package", "");
    part.erratum = fields.text("erratum", "");
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

Step readStep(JsonFields& fields) {
    Step step;
    step.id = fields.text("id");
    step.title = fields.text("do");
    step.fits = fields.texts("fits");
    step.after = fields.texts("after");
    step.minutes = fields.number("minutes", 0.1, 1000, 5);
    step.taken = fields.number("taken_minutes", 0, 100000, 0);
    step.mended = fields.has("mended") ? fields.whole("mended", 0, 10000) : 0;
    step.height = fields.number("height_mm", 0, 200, 0);
    if (fields.has("hold")) {
        JsonFields hold = fields.object("hold");
        step.hold = HoldPoint{{}, hold.text("say")};
        for (const std::string& need : hold.texts("needs")) step.hold->needs.push_back(readSubject(need));
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
    step.number = fields.text("number", "");
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

/// A check may also be a yes or no, or of the diode range.
constexpr std::uintmax_t kLargestCircuit = 4000000;  ///< [bytes]
constexpr std::string_view kSeen = "seen", kDiode = "diode";

Unit readUnit(JsonFields& fields, const std::string& name) {
    const std::string text = fields.text(name);
    const auto hit = std::find_if(kCheckUnits.begin(), kCheckUnits.end(),
                                  [&](const auto& u) { return u.quantity == text; });
    if (hit == kCheckUnits.end())
        fields.fault(name,
                     "One of voltage, resistance, current, frequency, power; a check also diode, seen.");
    return hit->unit;
}

void readCheckLimits(JsonFields& fields, Check& check) {
    if (fields.has("low")) check.limits.low = fields.quantity("low", check.unit, -1e12, 1e12);
    if (fields.has("high")) check.limits.high = fields.quantity("high", check.unit, -1e12, 1e12);
    if (!fields.has("low") && !fields.has("high")) fields.fault("low", "A check needs low, high or both.");
    if (check.limits.low > check.limits.high) fields.fault("low", "The low limit is above the high one.");
}

Symptom readSymptom(JsonFields& row) {
    Symptom out{row.text("id"), row.text("title", ""), {}, {}};
    for (JsonFields& cause : row.objects("causes")) {
        out.causes.push_back({cause.text("suspect"), cause.texts("parts"), cause.text("test"),
                              cause.text("tells", ""), cause.number("weight", 0.01, 1000, 5), true});
        cause.finish();
    }
    row.finish();
    return out;
}

Check readCheck(JsonFields& fields) {
    Check check;
    check.id = fields.text("id");
    check.title = fields.text("do");
    check.at = fields.text("at", "");
    const std::string quantity = fields.text("quantity");
    if (quantity == kSeen) {
        check.unit = Unit::none;
        check.seen = fields.text("seen");
        if (check.seen.empty()) fields.fault("seen", "Say what must be seen or heard.");
        check.limits.low = 0.5;  // a yes is 1, a no is 0
    } else {
        check.diode = quantity == kDiode;
        check.unit = check.diode ? Unit::volt : readUnit(fields, "quantity");
        readCheckLimits(fields, check);
    }
    check.gate = fields.flag("gate", false);
    check.caution = fields.text("caution", "");
    check.suspects = fields.text("suspects", "");
    check.bridge = fields.text("bridge", "");
    check.to = fields.text("to", "");
    check.condition = fields.text("condition", "");
    check.rule = fields.text("rule", "");
    check.from = fields.text("from", "");
    check.erratum = fields.text("erratum", "");
    if (!check.bridge.empty() && check.unit != Unit::ampere)
        fields.fault("bridge", "Only a current is measured across a gap that is bridged afterwards.");
    fields.finish();
    return check;
}

/// The words of an adjustment that stand for something else.
template <class T>
struct Meaning {
    std::string_view word;
    T means;
};
constexpr std::array<Meaning<Adjustment::Kind>, 7> kAdjustmentKinds{
    {{"peak", Adjustment::Kind::peak},
     {"null", Adjustment::Kind::null},
     {"set", Adjustment::Kind::set},
     {"level", Adjustment::Kind::level},
     {"range", Adjustment::Kind::range},
     {"bias", Adjustment::Kind::bias},
     {"contrast", Adjustment::Kind::contrast}}};
constexpr std::array<Meaning<SafeEnd>, 3> kSafeEnds{
    {{"low", SafeEnd::low}, {"high", SafeEnd::high}, {"none", SafeEnd::none}}};
constexpr std::array<Meaning<Adjuster::Kind>, 6> kTurned{{{"trimmer", Adjuster::Kind::trimmer},
                                                          {"pot", Adjuster::Kind::pot},
                                                          {"slug", Adjuster::Kind::slug},
                                                          {"coil", Adjuster::Kind::coil},
                                                          {"jumper", Adjuster::Kind::jumper},
                                                          {"menu", Adjuster::Kind::menu}}};
constexpr std::array<Meaning<ReadingScale::Kind>, 4> kScales{{{"number", ReadingScale::Kind::number},
                                                              {"s-meter", ReadingScale::Kind::sMeter},
                                                              {"bar", ReadingScale::Kind::bar},
                                                              {"light", ReadingScale::Kind::light}}};

/// What a field's word means; without the field `otherwise`.
template <class T, std::size_t N>
T readWord(JsonFields& fields, const std::string& name, const std::array<Meaning<T>, N>& words, T otherwise) {
    if (!fields.has(name)) return otherwise;
    const std::string text = fields.text(name);
    std::string all;
    for (const Meaning<T>& w : words) {
        if (w.word == text) return w.means;
        all += (all.empty() ? "" : ", ") + std::string(w.word);
    }
    fields.fault(name, "One of " + all + ".");
    return otherwise;
}

template <class T, std::size_t N>
std::string_view wordFor(const std::array<Meaning<T>, N>& words, T means) {
    return std::find_if(words.begin(), words.end(), [&](const auto& w) { return w.means == means; })->word;
}

/// Where an adjuster that can do harm is begun: as the kit says, else fully down for a current and for
/// whatever is called a bias, since that opens a final stage.
SafeEnd readSafeEnd(JsonFields& fields, const Adjustment& a) {
    const bool bias = a.title.find("ias") != std::string::npos;
    const bool harms = a.kind == Adjustment::Kind::bias || (a.sets() && (a.unit == Unit::ampere || bias));
    const SafeEnd said = readWord(fields, "safe_end", kSafeEnds, harms ? SafeEnd::low : SafeEnd::none);
    if (a.kind == Adjustment::Kind::bias && said == SafeEnd::none)
        fields.fault("safe_end", "A bias has a safe end: low or high.");
    return said;
}

/// What it is brought to, by its kind.
void readAim(JsonFields& fields, Adjustment& a) {
    if (a.sets()) {
        a.target = fields.quantity("target", a.unit, -1e12, 1e12);
        a.tolerance = fields.quantity("tolerance", a.unit, 0, 1e12);
    } else if (a.kind == Adjustment::Kind::bias) {
        a.target = fields.quantity("target", a.unit, 0, 1e6, 0);
        a.tolerance = fields.quantity("tolerance", a.unit, 0, 1e6, a.target / 5);
    }
    a.never = fields.quantity("never", a.unit, 0, 1e12, 0);
    if (a.never > 0 && a.never <= a.target)
        fields.fault("never", "What must never be reached lies above what is wanted.");
}

void readTurned(JsonFields& fields, Adjustment& a) {
    a.turned.kind = readWord(fields, "turned", kTurned, Adjuster::Kind::trimmer);
    a.turned.turns = fields.number("turns", 0, 1000, 0);
    a.turned.low = fields.number("from", -1e9, 1e9, 0);
    a.turned.high = fields.number("to", -1e9, 1e9, 0);
    const bool counted = a.turned.kind == Adjuster::Kind::jumper || a.turned.kind == Adjuster::Kind::menu;
    if (counted && !(a.turned.high > a.turned.low))
        fields.fault("to", "A jumper and a menu's number go \"from\" the least \"to\" the most.");
}

void readScale(JsonFields& fields, Adjustment& a) {
    a.scale.kind = readWord(fields, "scale", kScales, ReadingScale::Kind::number);
    if (fields.has("blocks")) a.scale.blocks = fields.whole("blocks", 2, 200);
    if (fields.has("bar_ranges")) a.scale.ranges = fields.whole("bar_ranges", 1, 9);
    const bool found = a.kind == Adjustment::Kind::peak || a.kind == Adjustment::Kind::null;
    if (a.scale.kind != ReadingScale::Kind::number && !found)
        fields.fault("scale",
                     "Marks tell which is higher, and no value: only a peak or a null is read by them.");
}

/// A trimmer resistor turns as a pot, a coil by its slug.
Adjuster::Kind usuallyTurned(const Kit& kit, const Adjustment& a) {
    if (kit.coil(a.adjuster) != nullptr) return Adjuster::Kind::slug;
    const Part* part = kit.part(a.adjuster);
    const bool resistor = part != nullptr && !a.adjuster.empty() && a.adjuster[0] == 'R';
    return resistor ? Adjuster::Kind::pot : Adjuster::Kind::trimmer;
}

Adjustment readAdjustment(JsonFields& fields) {
    Adjustment a;
    a.id = fields.text("id");
    a.title = fields.text("do");
    a.adjuster = fields.text("adjuster");
    if (!fields.has("kind")) fields.text("kind");
    a.kind = readWord(fields, "kind", kAdjustmentKinds, Adjustment::Kind::peak);
    const bool seen = a.kind == Adjustment::Kind::contrast;
    a.unit = seen && !fields.has("quantity") ? Unit::none : readUnit(fields, "quantity");
    a.reads = fields.text("reads", "");
    a.coil = fields.text("coil", "");
    readAim(fields, a);
    readTurned(fields, a);
    readScale(fields, a);
    a.volts = fields.quantity("travel_volts", Unit::volt, 0, 1000, 0);
    a.band = fields.text("band", "");
    a.after = fields.texts("after");
    for (const std::string& need : fields.texts("needs")) a.needs.push_back(readSubject(need));
    a.ready = fields.text("ready", "");
    a.warmUp = fields.number("warm_up_minutes", 0, 1440, 0);
    a.keyDown = fields.number("key_down_seconds", 0, 3600, 0);
    a.rest = fields.number("rest_seconds", 0, 3600, 0);
    a.each = fields.texts("each");
    a.partners = fields.texts("partners");
    a.caution = fields.text("caution", "");
    a.erratum = fields.text("erratum", "");
    a.safe = readSafeEnd(fields, a);
    fields.finish();
    return a;
}

std::vector<FilterElement> readLowPass(JsonFields& fields) {
    std::vector<FilterElement> out;
    for (JsonFields& row : fields.objects("low_pass")) {
        const std::string arm = row.text("arm");
        if (arm != "series" && arm != "shunt") row.fault("arm", "An element is \"series\" or \"shunt\".");
        out.push_back({row.text("ref"), arm == "series"});
        row.finish();
    }
    return out;
}

BandRating readBand(JsonFields& fields) {
    BandRating b;
    b.name = fields.text("name");
    if (b.name.empty() || b.name.find_first_of("@#:") != std::string::npos)
        fields.fault("name", "A band has a name without @, # and :, as 40m.");
    b.power = fields.quantity("power", Unit::watt, 1e-9, 1e4);
    b.powerLow = fields.quantity("power_low", Unit::watt, 0, 1e4, b.power * 0.8);
    b.powerHigh = fields.quantity("power_high", Unit::watt, b.powerLow, 1e4, b.power * 1.25);
    b.frequency = fields.quantity("frequency", Unit::hertz, 1, 1e12);
    b.low = fields.quantity("low", Unit::hertz, 0, 1e12, 0);
    b.high = fields.quantity("high", Unit::hertz, b.low, 1e12, b.low);
    b.lowPass = readLowPass(fields);
    fields.finish();
    return b;
}

/// The first band's figures stand for those that the ratings leave out.
void readBands(JsonFields& fields, Ratings& r) {
    for (JsonFields& row : fields.objects("bands")) {
        r.bands.push_back(readBand(row));
        const auto alike = std::count_if(r.bands.begin(), r.bands.end(),
                                         [&](const BandRating& b) { return b.name == r.bands.back().name; });
        if (alike > 1) row.fault("name", "The band " + r.bands.back().name + " stands twice.");
    }
    if (r.bands.empty()) return;
    const bool said = r.power > 0;
    r.power = r.bands.front().power;
    r.powerLow = r.bands.front().powerLow;
    r.powerHigh = r.bands.front().powerHigh;
    r.frequency = r.bands.front().frequency;
    if (said) fields.fault("power", "With bands each has its own power: leave this one out.");
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
    r.currentLow = fields.quantity("current_low", Unit::ampere, 0, 1000, 0);
    r.currentHigh = fields.quantity("current_high", Unit::ampere, r.currentLow, 1000, 0);
    r.harmonicsBelow = fields.number("harmonics_below_db", 0, 200, 0);
    r.harmonics = fields.has("harmonics") ? fields.whole("harmonics", 2, 20) : 3;
    if (fields.has("finals")) r.finals = fields.whole("finals", 1, 32);
    r.pushPull = fields.flag("push_pull", false);
    readBands(fields, r);
    r.air = r.power > 0 ? Ratings::Air::yes : Ratings::Air::unknown;
    if (fields.has("transmits")) {
        r.air = fields.flag("transmits", false) ? Ratings::Air::yes : Ratings::Air::no;
        if (r.air == Ratings::Air::no && r.power > 0)
            fields.fault("transmits", "A kit with a rated power transmits.");
    }
    if (r.power > 0 && r.frequency <= 0)
        fields.fault("frequency", "A kit that transmits is rated at a frequency.");
    fields.finish();
    return r;
}

/// It becomes the name of files, so nothing in it may lead elsewhere.
bool plainId(const std::string& id) {
    const auto plain = [](unsigned char c) { return std::isalnum(c) || c == '-' || c == '_' || c == '.'; };
    return !id.empty() && id.size() <= 64 && id[0] != '.' && std::all_of(id.begin(), id.end(), plain);
}

/// Only their names: what each changes is its part of the text, and withVariant (kit_edit.h) puts it in.
void readVariants(JsonFields& top, Kit& kit) {
    kit.variant = top.text("variant", "");
    for (JsonFields& row : top.objects("variants")) {
        kit.variants.push_back(row.text("name"));
        for (const char* list : {"parts", "coils", "without", "ratings"}) row.has(list);
        row.finish();
    }
    const bool known = std::find(kit.variants.begin(), kit.variants.end(), kit.variant) != kit.variants.end();
    if (kit.variant.empty() ? !kit.variants.empty() : !known)
        top.fault("variant", "Name the variant that this is, one of those of the list \"variants\".");
}

/// The name of a netlist beside the kit file, or its lines.
void readCircuit(JsonFields& top, const nlohmann::json& document, Kit& kit) {
    if (!top.has("circuit")) return;
    if (document["circuit"].is_string()) {
        kit.circuitFile = top.text("circuit");
        if (kit.circuitFile.find_first_of("/\\") != std::string::npos)
            top.fault("circuit", "The circuit lies beside the kit file: give its name without a folder.");
        return;
    }
    for (const std::string& line : top.texts("circuit")) kit.circuit += line + '\n';
}

/// The netlist beside a kit file, taken into the kit's text; what is not there is left out.
void takeCircuit(const std::filesystem::path& file, KitFile& kit) {
    if (kit.kit.circuitFile.empty()) return;
    const auto netlist = readFile(file.parent_path() / kit.kit.circuitFile, kLargestCircuit);
    if (!netlist) return;
    kit.kit.circuit = *netlist;
    kit.text = withCircuit(kit.text, *netlist);
    kit.kit.circuitFile.clear();
}

Kit readAll(const nlohmann::json& document, const std::vector<MagneticCore>& cores) {
    JsonFields top(document, "");
    if (top.text("format") != "ombrek-kit")
        top.fault("format", "A kit file says \"format\": \"ombrek-kit\".");
    if (top.whole("version", 1, 1000) != 1)
        top.fault("version", "This kit file is of a newer version than 1; get a newer Ombrek.");
    Kit kit;
    kit.id = top.text("id");
    if (!plainId(kit.id))
        top.fault(
            "id",
            "An id has 1 to 64 letters, digits, points, dashes or underscores, and does not begin with a "
            "point: files are named by it.");
    kit.name = top.text("name");
    kit.summary = top.text("summary", "");
    kit.note = top.text("note", "");
    kit.documents = top.texts("documents");
    kit.upgrades = top.texts("upgrades");
    readVariants(top, kit);
    readCircuit(top, document, kit);
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
    for (JsonFields& row : top.objects("adjustments")) {
        kit.adjustments.push_back(readAdjustment(row));
        if (!row.has("turned"))
            kit.adjustments.back().turned.kind = usuallyTurned(kit, kit.adjustments.back());
    }
    kit.lowPass = readLowPass(top);
    for (JsonFields& row : top.objects("rests_on")) {
        RestsOn rests{readSubject(row.text("what")), {}};
        for (const std::string& on : row.texts("on")) rests.on.push_back(readSubject(on));
        kit.restsOn.push_back(std::move(rests));
        row.finish();
    }
    for (JsonFields& row : top.objects("symptoms")) kit.symptoms.push_back(readSymptom(row));
    if (top.has("ratings")) kit.ratings = readRatings(top.object("ratings"));
    top.finish();
    checkReferences(kit);
    return kit;
}

}  // namespace

std::string_view kindWord(Adjustment::Kind kind) { return wordFor(kAdjustmentKinds, kind); }
std::string_view turnedWord(Adjuster::Kind kind) { return wordFor(kTurned, kind); }
std::string_view scaleWord(ReadingScale::Kind kind) { return wordFor(kScales, kind); }

std::string_view quantityWord(Unit unit) {
    const auto hit =
        std::find_if(kCheckUnits.begin(), kCheckUnits.end(), [&](const auto& u) { return u.unit == unit; });
    return hit == kCheckUnits.end() ? kCheckUnits.front().quantity : hit->quantity;
}

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
    KitFile out{std::move(*kit), std::move(*text)};
    takeCircuit(path, out);
    return out;
}

}  // namespace ombrek
