#include "formats/kit_coil_json.h"

#include <algorithm>
#include <set>

#include "core/coil/own_core.h"

namespace ombrek {
namespace {

constexpr double kMillimetre = 1e-3;

MagneticCore readOwnCore(JsonFields fields) {
    MagneticCore core;
    core.own = true;
    core.designation = fields.text("name");
    const std::string shape = fields.text("shape");
    if (shape != "two-hole" && shape != "ring")
        fields.fault("shape", "A kit's own core is a \"ring\" or \"two-hole\".");
    core.shape = shape == "ring" ? MagneticCore::Shape::ring : MagneticCore::Shape::twoHole;
    core.material = fields.text("material", "ferrite");
    core.mix = fields.text("mix", "");
    core.al = fields.quantity("al", Unit::henry, 1e-12, 1e-3);
    core.alTolerancePercent = fields.number("al_tolerance", 0, 100, 25);
    core.height = fields.number("height_mm", 0.5, 200) * kMillimetre;
    if (core.shape == MagneticCore::Shape::ring) {
        core.outerDiameter = fields.number("outer_mm", 1, 500) * kMillimetre;
        core.innerDiameter = fields.number("inner_mm", 0.5, core.outerDiameter / kMillimetre) * kMillimetre;
        if (!whole(core)) fields.fault("inner_mm", "The hole of this ring is as wide as the ring.");
    } else {
        core.outerDiameter = fields.number("width_mm", 0.5, 200) * kMillimetre;
        core.turnLength = fields.number("turn_mm", 1, 1000) * kMillimetre;
    }
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

}  // namespace

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
    coil.erratum = fields.text("erratum", "");
    fields.finish();
    return coil;
}

}  // namespace ombrek
