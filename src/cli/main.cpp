#include <CLI/CLI.hpp>
#include <QApplication>
#include <algorithm>
#include <initializer_list>
#include <string_view>

#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "look/colours.h"

using namespace ombrek;

int main(int argc, char** argv) {
    CLI::App options{"Ombrek's computation for scripts."};
    options.require_subcommand(1);
    bool json = false;

    std::string text;
    auto* sum =
        options.add_subcommand("sum", "answer a value, a mark or a short sum: 104, 4k7, \"5 W in dBm\"");
    sum->add_option("TEXT", text)->required();
    sum->add_flag("--json", json, "print JSON with SI values");

    CoilQuestion question;
    auto* coil =
        options.add_subcommand("coil", "turns, inductance, wire and fit of a winding on a ring core");
    coil->add_option("--core", question.core,
                     "designation in the core table, T37-6, or a ring of your own, \"AL4.9n 12.7x7.7x4.8\"")
        ->required();
    auto* turns = coil->add_option("--turns", question.turns, "turns on the core");
    auto* wanted = coil->add_option("--inductance", question.inductance, "inductance wanted, 1.2u");
    turns->excludes(wanted);
    coil->add_option("--wire", question.wire, "26AWG, 28SWG or 0.4mm")->capture_default_str();
    coil->add_option("--frequency", question.frequency, "for the Q of the copper, 21M");
    coil->add_option("--power", question.power,
                     "for the flux density, 3 (watts, into --ohms, across the winding)");
    coil->add_option("--ohms", question.ohms, "impedance the power is in")->capture_default_str();
    coil->add_option("--tail", question.tailMillimetres, "length of each tail in mm")->capture_default_str();
    coil->add_flag("--json", json, "print JSON with SI values");

    TrimmerQuestion tuned;
    auto* trimmer =
        options.add_subcommand("trimmer", "what a trimmer reaches with a coil, and the turns to centre it");
    trimmer->add_option("--inductance", tuned.inductance, "measured, 1.1u")->required();
    trimmer->add_option("--fixed", tuned.fixed, "fixed capacitance with strays, 33p")->capture_default_str();
    trimmer->add_option("--trim", tuned.trim, "range, 5p..30p")->required();
    trimmer->add_option("--target", tuned.target, "frequency, 21.06M")->required();
    trimmer->add_option("--turns", tuned.turns, "turns on the core")->required();
    trimmer->add_flag("--json", json, "print JSON with SI values");

    std::string picture;
    auto* counted = options.add_subcommand("turns", "count the turns of a ring coil in a picture");
    counted->add_option("PICTURE", picture, "PNG or JPEG")->required();
    counted->add_flag("--json", json, "print JSON");

    std::string kind;
    auto* mark = options.add_subcommand(
        "mark", "every reading of a mark or of colour bands: 104K, 68X, \"red red red\"");
    mark->add_option("TEXT", text)->required();
    mark->add_option("--kind", kind, "resistor, capacitor or inductor");
    mark->add_flag("--json", json, "print JSON with SI values");

    std::string listFile, bagFile;
    auto* match = options.add_subcommand("match", "which part of a bag belongs to which line of a list");
    match->add_option("--list", listFile, "CSV with ref, kind, value, tolerance_pct")->required();
    match->add_option("--bag", bagFile, "CSV with id, kind, value, error_pct")->required();
    match->add_flag("--json", json, "print JSON");

    SubstituteQuestion wantedPart;
    auto* substitute = options.add_subcommand("substitute", "what of a stock can stand for a part");
    substitute->add_option("--kind", wantedPart.kind, "resistor, capacitor or inductor")->required();
    substitute->add_option("--want", wantedPart.want, "value, 22n")->required();
    substitute->add_option("--tolerance", wantedPart.tolerance, "in per cent")->capture_default_str();
    substitute->add_option("--volts", wantedPart.volts, "least rated voltage");
    substitute->add_option("--stock", wantedPart.stock, "CSV of the drawers")->required();
    substitute->add_flag("--json", json, "print JSON with SI values");

    ListQuestion asked;
    auto* list = options.add_subcommand(
        "list", "what is understood of a parts list, CSV or pasted text, and its doubts");
    list->add_option("FILE", asked.file)->required();
    list->add_option("--variant", asked.variant, "which variant of the kit is built, as its column says");
    list->add_option("--kit", asked.kit, "write a kit file made of the list");
    list->add_option("--name", asked.name, "the kit's name")->capture_default_str();
    list->add_flag("--json", json, "print JSON with SI values");

    std::string pasted;
    auto* checks = options.add_subcommand("checks", "the electrical checks of a manual's table of voltages");
    checks->add_option("FILE", pasted)->required();
    checks->add_flag("--json", json, "print JSON with SI values");
    auto* steps = options.add_subcommand("steps", "the steps of a manual's numbered instructions");
    steps->add_option("FILE", pasted)->required();
    steps->add_flag("--json", json, "print JSON");

    RebuildQuestion other;
    auto* rebuilt = options.add_subcommand("rebuild", "a kit's filters for a band that was not supplied");
    rebuilt->add_option("KIT", other.kit, "kit file")->required();
    rebuilt->add_option("--band", other.band, "3.5M..3.8M")->required();
    rebuilt->add_flag("--prototype", other.prototype, "the low-pass from a Chebyshev prototype of 0.1 dB");
    rebuilt->add_option("--kit", other.out, "write the kit for that band");
    rebuilt->add_flag("--json", json, "print JSON with SI values");

    SuspectsQuestion suspected;
    auto* suspects =
        options.add_subcommand("suspects", "what may be wrong with a circuit, from readings on it");
    suspects->add_option("--circuit", suspected.circuit, "SPICE netlist; element names are designators");
    suspects->add_option("--readings", suspected.readings, "CSV: node, node2, quantity, value, error, state");
    suspects->add_option("--kit", suspected.kit, "kit file: its circuit, tolerances, board and bench");
    suspects->add_option("--book", suspected.book, "a book: its kit, with what was read and seen of it")
        ->excludes("--kit");
    suspects->add_flag("--json", json, "print JSON with SI values");

    ExpectQuestion expected;
    auto* expect = options.add_subcommand("expect", "what a sound rig reads at each check of a kit");
    expect->add_option("KIT", expected.kit, "kit file with a circuit")->required();
    expect->add_option("--supply", expected.supply, "volts at the socket; as the circuit says when left out");
    expect->add_option("--state", expected.state, "only the checks of one state of the rig, \"receive\"");
    expect->add_flag("--json", json, "print JSON with SI values");

    PeakQuestion peaked;
    auto* peak = options.add_subcommand("peak", "where an adjuster peaks, from readings in the order taken");
    peak->add_option("FILE", peaked.file, "CSV: position, reading, u")->required();
    peak->add_option("--ends", peaked.ends, "of the travel, 0..180; 0..1 when left out");
    peak->add_option("--as", peaked.as, "volt, watt or db");
    peak->add_flag("--json", json, "print JSON");
    std::string rows;
    auto* null = options.add_subcommand("null", "the next turn towards a null of several adjusters");
    null->add_option("FILE", rows, "CSV: a, b, c, reading_db; lower is better")->required();
    null->add_flag("--json", json, "print JSON");
    auto* reference = options.add_subcommand("reference", "a counter's offset and reference error");
    reference->add_option("FILE", rows, "CSV: read, true, u")->required();
    reference->add_flag("--json", json, "print JSON");
    CrystalsQuestion matched;
    auto* crystals = options.add_subcommand("crystals", "crystals of a batch sorted into sets for a filter");
    crystals->add_option("FILE", matched.file, "CSV: id, frequency")->required();
    crystals->add_option("--set", matched.size, "crystals of a set")->capture_default_str();
    crystals->add_flag("--together", matched.together, "the least sum of all sets' spreads");
    crystals->add_flag("--json", json, "print JSON");
    DialQuestion drawn;
    auto* dial = options.add_subcommand("dial", "a dial to size from measured positions");
    dial->add_option("FILE", drawn.file, "CSV: position, frequency")->required();
    dial->add_option("--pdf", drawn.pdf, "write PDF to this file");
    dial->add_option("--svg", drawn.svg, "write SVG to this file");
    auto* round =
        dial->add_option("--round", drawn.round, "diameter of the ring of marks")->capture_default_str();
    dial->add_option("--straight", drawn.straight, "length of a straight scale, 120mm")->excludes(round);
    dial->add_option(
        "--sweep", drawn.sweep,
        "degrees that the knob turns: from the first to the last position, of shares over the whole travel");
    dial->add_flag("--mirrored", drawn.mirrored, "for the inside of a window");
    dial->add_flag("--json", json, "print JSON");

    PlanQuestion planned;
    auto* plan = options.add_subcommand("plan", "the steps of a kit in the order of a school");
    plan->add_option("KIT", planned.kit, "kit file");
    plan->add_option("--from-list", planned.list, "a parts list, from which a plan is made");
    plan->add_option("--order", planned.order, "manual, lowest, kind, stage or hardest")
        ->capture_default_str();
    plan->add_flag("--json", json, "print JSON");

    SpectrumWish trace;
    auto* spectrum = options.add_subcommand("spectrum", "peaks of an analyser's trace, named and judged");
    spectrum->add_option("TRACE", trace.file, "CSV of frequencies and levels, of any dialect")->required();
    spectrum->add_option("--carrier", trace.carrier,
                         "its frequency, 21.06M; the highest peak if none is given");
    spectrum->add_option("--power", trace.power, "of the carrier, 3; without it nothing is judged");
    spectrum->add_option("--profile", trace.profile, "id of a limit profile");
    spectrum->add_option("--oscillator", trace.oscillators,
                         "of the rig, VFO=5.06M; may be given several times");
    spectrum->add_option("--again", trace.again,
                         "the same rig with more attenuation: tells the analyser's own products");
    spectrum->add_option("--close-in", trace.mode, "a trace close about the carrier: cw, usb, lsb or dsb");
    spectrum->add_flag("--json", json, "print JSON");
    NetworkWish swept;
    auto* network = options.add_subcommand("network", "S-parameters of a network, or of a kit's low-pass");
    network->add_option("FILE", swept.file, "a SPICE netlist, or a kit file")->required();
    network->add_option("--from", swept.from, "lowest frequency")->capture_default_str();
    network->add_option("--to", swept.to, "highest frequency")->capture_default_str();
    network->add_option("--points", swept.points, "how many frequencies")->capture_default_str();
    network->add_option("--z1", swept.z1, "resistance of the first port; 50 if nothing says another");
    network->add_option("--z2", swept.z2, "resistance of the second port");
    network->add_option("--in", swept.in, "node of the first port");
    network->add_option("--out", swept.out, "node of the second port; none: there is but one");
    network->add_option("--touchstone", swept.touchstone, "write .s1p or .s2p to this file");
    network->add_flag("--by-ratio", swept.byRatio, "frequencies by equal ratios, not by equal steps");
    network->add_flag("--json", json, "print JSON");
    CouplerWish reached;
    auto* coupler = options.add_subcommand("coupler", "which loads an antenna coupler matches");
    coupler->add_option("--kind", reached.kind, "L, T or pi")->capture_default_str();
    coupler->add_option("--l", reached.l, "range of its coil, 0.1u..25u")->required();
    coupler->add_option("--c1", reached.c1, "range of the capacitor at the rig, 10p..240p")->required();
    coupler->add_option("--c2", reached.c2, "range of the capacitor at the antenna");
    coupler->add_option("--load", reached.loads, "35-120j; may be given several times");
    coupler->add_option("--wire", reached.wires, "length of a wire against ground [m], a model");
    coupler->add_option("--touchstone", reached.touchstone, "a measured antenna, .s1p");
    coupler->add_option("--frequency", reached.frequency, "7.03M")->required();
    coupler->add_option("--power", reached.power, "forward")->capture_default_str();
    coupler->add_option("--source", reached.source, "resistance of the rig")->capture_default_str();
    coupler->add_option("--q-l", reached.coilQ, "of the coil; 150 if none is given");
    coupler->add_option("--q-c", reached.capacitorQ, "of the capacitors; 1000 if none is given");
    coupler->add_option("--volts", reached.volts, "peak, that a capacitor holds");
    coupler->add_option("--swr", reached.swr, "that the rig is content with; 1.5 if none is given");
    coupler->add_flag("--json", json, "print JSON");
    PowerWish measured;
    auto* power =
        options.add_subcommand("power", "a power by one way of measuring, with its uncertainty budget");
    power
        ->add_option("--method", measured.method,
                     "peak-to-peak, diode-probe, wattmeter, analyser, current or heat")
        ->required();
    for (const char* figure : {"volts",
                               "volts-error",
                               "load",
                               "load-error",
                               "probe-error",
                               "bandwidth",
                               "frequency",
                               "drop",
                               "drop-error",
                               "watts",
                               "watts-error",
                               "full-scale",
                               "correction",
                               "correction-error",
                               "dbm",
                               "dbm-error",
                               "attenuation",
                               "attenuation-error",
                               "source-return-loss",
                               "load-return-loss",
                               "amps",
                               "amps-error",
                               "kilograms",
                               "kelvins",
                               "seconds",
                               "heat-error"})
        power->add_option(std::string("--") + figure, measured.figures[figure]);
    power->add_flag("--json", json, "print JSON");

    std::string file;
    auto* kit = options.add_subcommand("kit", "work with kit files");
    auto* check = kit->add_subcommand("check", "read a kit file and name its first fault");
    kit->require_subcommand(1);
    check->add_option("FILE", file)->required();
    check->add_flag("--json", json, "print JSON");
    std::string theirs;
    auto* compare = kit->add_subcommand("compare", "what two kit files say differently");
    compare->add_option("MINE", file)->required();
    compare->add_option("THEIRS", theirs)->required();
    compare->add_flag("--json", json, "print JSON");
    KitChangeQuestion change;
    const auto changes = [&](const char* name, const char* with, const char* does) {
        auto* command = kit->add_subcommand(name, does);
        command->add_option("KIT", change.kit, "kit file")->required();
        command->add_option(with, change.with)->required();
        command->add_option("--kit", change.out, "write the kit that comes of it");
        command->add_flag("--json", json, "print JSON");
        return command;
    };
    auto* upgrade = changes("upgrade", "UPGRADE", "put an upgrade or a modification on top of a kit");
    auto* merge = changes("merge", "THEIRS", "take another version of a kit over");
    auto* variant = changes("variant", "NAME", "the kit as it is for another of its variants");

    LogWish logged;
    auto* log = options.add_subcommand("log", "the station's log: show it, write it as ADIF, take ADIF in");
    log->add_option("BOOK", logged.book)->required();
    auto* written = log->add_option("--adif", logged.adif, "write ADIF to this file; .adx is written as XML");
    log->add_option("--import", logged.import, "take in an ADIF log, .adi or .adx")->excludes(written);
    log->add_flag("--json", json, "print JSON");
    std::string here, there;
    auto* distance = options.add_subcommand("distance", "the way over the earth between two locators");
    distance->add_option("LOC1", here, "AB12cd")->required();
    distance->add_option("LOC2", there)->required();
    distance->add_flag("--json", json, "print JSON");

    ReportWish reported;
    auto* report = options.add_subcommand("report", "write the report of the build in hand, or check one");
    report->add_option("BOOK", reported.book)->required();
    report->add_option("--html", reported.html, "write HTML to this file");
    report->add_option("--pdf", reported.pdf, "write PDF/A to this file");
    report->add_option("--json", reported.json, "write JSON to this file");
    report->add_option("--card", reported.card, "write the card for the rig's lid, PDF, to this file");
    report->add_option("--verify", reported.verify, "hold a report's PDF against the book");
    report->add_flag("--as-json", reported.asJson, "answer as JSON");

    PracticeWish bench;
    auto* practice =
        options.add_subcommand("practice", "make a book of the practice kit, part-way through or finished");
    practice->add_option("BOOK", bench.book)->required();
    practice->add_flag("--finished", bench.finished, "worked through to Proof");
    practice->add_flag("--proving", bench.proving, "of the rig with three bands, at its powers");
    practice->add_flag("--on-air", bench.onAir, "the same, mended, signed off and on the air");
    practice->add_flag("--tuning", bench.tuning, "of the rig with every way of adjusting, at its nulls");
    practice->add_option("--fault", bench.fault, "a fault of its circuit to seed, \"R25 open\"");

    std::string book, copy;
    auto* rescue = options.add_subcommand("rescue", "save what can be read of a damaged book");
    rescue->add_option("BOOK", book)->required();
    rescue->add_option("COPY", copy, "a new file")->required();
    rescue->add_flag("--json", json, "print JSON");

    readPipesToo();
    try {
        options.parse(argc, argv);
    } catch (const CLI::Success& asked) {  // --help
        return options.exit(asked);
    } catch (const CLI::ParseError& error) {
        const bool asJson = std::any_of(argv + 1, argv + argc, [](const char* word) {
            return std::string_view(word) == "--json" || std::string_view(word) == "--as-json";
        });
        return refuse({"", std::string(error.what()) + (asJson ? "" : "\nRun it with --help for more.")},
                      asJson);
    }
    // What is read is never what is written.
    for (const auto& [out, in] :
         std::initializer_list<std::pair<std::string, std::string>>{{asked.kit, asked.file},
                                                                    {other.out, other.kit},
                                                                    {change.out, change.kit},
                                                                    {change.out, change.with},
                                                                    {swept.touchstone, swept.file},
                                                                    {logged.adif, logged.book},
                                                                    {reported.html, reported.book},
                                                                    {reported.pdf, reported.book},
                                                                    {reported.json, reported.book},
                                                                    {reported.card, reported.book},
                                                                    {drawn.pdf, drawn.file},
                                                                    {drawn.svg, drawn.file}}) {
        if (!out.empty() && sameFile(out, in))
            return refuse({out, "This is the file that is read: choose another name to write to."},
                          json || reported.asJson);
    }
    const auto act = [&] {
        if (*sum) return sumCommand(text, json);
        if (*coil) return coilCommand(question, json);
        if (*trimmer) return trimmerCommand(tuned, json);
        if (*counted) return turnsCommand(picture, json);
        if (*mark) return markCommand(text, kind, json);
        if (*match) return matchCommand(listFile, bagFile, json);
        if (*substitute) return substituteCommand(wantedPart, json);
        if (*list) return listCommand(asked, json);
        if (*checks) return checksCommand(pasted, json);
        if (*steps) return stepsCommand(pasted, json);
        if (*expect) return expectCommand(expected, json);
        if (*suspects) return suspectsCommand(suspected, json);
        if (*peak) return peakCommand(peaked, json);
        if (*null) return nullCommand(rows, json);
        if (*reference) return referenceCommand(rows, json);
        if (*crystals) return crystalsCommand(matched, json);
        if (*rebuilt) return rebuildCommand(other, json);
        if (*plan) return planCommand(planned, json);
        if (*check) return kitCheckCommand(file, json);
        if (*compare) return kitCompareCommand(file, theirs, json);
        if (*upgrade) return kitUpgradeCommand(change, json);
        if (*merge) return kitMergeCommand(change, json);
        if (*variant) return kitVariantCommand(change, json);
        if (*rescue) return rescueCommand(book, copy, json);
        if (*spectrum) return spectrumCommand(trace, json);
        if (*power) return powerCommand(measured, json);
        if (*network) return networkCommand(swept, json);
        if (*coupler) return couplerCommand(reached, json);
        if (*practice) return practiceCommand(bench);
        if (*log) return logCommand(logged, json);
        if (*distance) return distanceCommand(here, there, json);
        qputenv("QT_QPA_PLATFORM", "offscreen");  // the report's plots need a window system, any will do
        QApplication application(argc, argv);
        installFonts();
        if (*dial) return dialCommand(drawn, json);
        return reportCommand(reported);
    };
    try {
        return act();
    } catch (const std::exception& error) {  // whatever was not foreseen is a sentence, too
        return refuse({"", std::string("This could not be done: ") + error.what() + "."}, json);
    }
}
