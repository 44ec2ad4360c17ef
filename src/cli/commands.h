#pragma once

#include <map>
#include <string>

namespace ombrek {

/// The subcommands of ombrek-cli. Each prints its result and returns the exit code: 0, or 2 when the input is
/// not understood. With `json` everything, also a problem, goes to standard output as JSON with SI values.

/// `sum`: what the sums line answers.
int sumCommand(const std::string& text, bool json);

struct CoilQuestion {
    std::string core, wire = "28AWG", inductance;
    int turns = 0;
    double tailMillimetres = 30;
    std::string frequency, power;  ///< for Q and flux; empty: not asked
    double ohms = 50;
};
/// `coil`: turns for an inductance, or the other way; flux and losses at a power.
int coilCommand(const CoilQuestion& question, bool json);

struct TrimmerQuestion {
    std::string inductance, fixed = "0", trim, target;
    int turns = 0;
};
/// `trimmer`: whether it reaches, and what to do about the coil when it does not.
int trimmerCommand(const TrimmerQuestion& question, bool json);

/// What a sound rig reads at its checks, of its circuit.
struct ExpectQuestion {
    std::string kit, supply, state;
};
/// `expect`: what a kit lets expect of a subject.
int expectCommand(const ExpectQuestion& question, bool json);

/// What may be wrong with a circuit (SPICE) from readings (CSV), and what to read next; with a kit or a book, as
/// the window's page says it.
struct SuspectsQuestion {
    std::string circuit, readings, kit, book;
};
/// `suspects`
int suspectsCommand(const SuspectsQuestion& question, bool json);

/// Where an adjuster peaks, of readings in the order in which they were taken.
struct PeakQuestion {
    std::string file;
    std::string ends;  ///< of its travel, "0..180"; empty: 0..1
    std::string as;    ///< "volt", "watt", "db"; empty: by the heading, in db when one is negative
};
/// `peak`: where a peak stands by its readings, and where to read next.
int peakCommand(const PeakQuestion& question, bool json);
/// A null of up to four adjusters together, lower being better.
int nullCommand(const std::string& file, bool json);
/// A counter's offset and reference error.
int referenceCommand(const std::string& file, bool json);

struct CrystalsQuestion {
    std::string file;
    int size = 4;
    bool together = false;  ///< the least sum of all sets' spreads
};
/// `crystals`: which of a batch go together into a filter.
int crystalsCommand(const CrystalsQuestion& question, bool json);

struct DialQuestion {
    std::string file, pdf, svg;
    std::string round = "60mm", straight, sweep;  ///< the straight one when it is said
    bool mirrored = false;
};
/// Needs a QApplication.
int dialCommand(const DialQuestion& question, bool json);

/// `turns`: the turns on a ring in a photograph.
int turnsCommand(const std::string& picture, bool json);

struct PlanQuestion {
    std::string kit, list;  ///< files, one of them
    std::string order = "manual";
};
/// `plan`: the steps of a kit in the order of a school.
int planCommand(const PlanQuestion& question, bool json);

/// `kit check`: what is wrong with a kit file, each fault at its place.
int kitCheckCommand(const std::string& file, bool json);
/// What two kit files say differently.
int kitCompareCommand(const std::string& mine, const std::string& theirs, bool json);

struct KitChangeQuestion {
    std::string kit, with;  ///< a kit file; an upgrade, another version, or a variant's name
    std::string out;        ///< where the kit that comes of it is written; empty: nowhere
};
/// `kit upgrade`: a kit with an upgrade's text put in.
int kitUpgradeCommand(const KitChangeQuestion& question, bool json);
/// `kit merge`: two texts of one kit as one, what differs told.
int kitMergeCommand(const KitChangeQuestion& question, bool json);
/// `kit variant`: a kit as one of its variants has it.
int kitVariantCommand(const KitChangeQuestion& question, bool json);

/// The station's log: written as ADIF, taken in from it, or shown.
struct LogWish {
    std::string book;
    std::string adif;    ///< written to this file, .adx when it is called so; empty: to none
    std::string import;  ///< taken in from this file
};
/// `log`: contacts in and out of a book as ADIF.
int logCommand(const LogWish& wish, bool json);

/// The way over the earth between two locators.
int distanceCommand(const std::string& from, const std::string& to, bool json);

/// The report of the build in hand: files to write it to, or a printed one to hold against the book.
struct ReportWish {
    std::string book, html, pdf, json, card;  ///< files; empty: not wanted
    std::string verify;                       ///< a PDF
    bool asJson = false;                      ///< the answer of --verify, and problems
};
/// Needs a QApplication. @return 1 when a report that is held against the book is not its own
int reportCommand(const ReportWish& wish);

/// What can still be read of a damaged book, into a new one.
int rescueCommand(const std::string& book, const std::string& copy, bool json);

/// An analyser's trace: peaks, named and held against a limit.
struct SpectrumWish {
    std::string file, carrier, power, profile;
    std::vector<std::string> oscillators;  ///< "VFO=5.06M"
    std::string again;                     ///< the same with more attenuation; empty: there is none
    std::string mode;                      ///< cw, usb, lsb, dsb: judge it close about the carrier
};
/// `spectrum`: the peaks of an analyser's trace against the limits.
int spectrumCommand(const SpectrumWish& wish, bool json);

/// A network of lossy parts, or a kit's low-pass, by S-parameters.
struct NetworkWish {
    std::string file, from = "1M", to = "100M", points = "2001";
    std::string z1, z2;      ///< of the ports; empty: as the circuit says, else 50
    std::string in, out;     ///< nodes; empty: to be found
    std::string touchstone;  ///< written to this file; empty: to none
    bool byRatio = false;
};
/// `network`: what a ladder does to each load, as Touchstone on wish.
int networkCommand(const NetworkWish& wish, bool json);

/// Which loads an antenna coupler matches, and what it costs.
struct CouplerWish {
    std::string kind = "T", l, c1, c2, frequency, power = "5", source = "50", coilQ, capacitorQ, volts, swr;
    std::vector<std::string> loads;  ///< "35-120j"
    std::vector<std::string> wires;  ///< lengths, "20.3"
    std::string touchstone;          ///< loads of a file
};
/// `coupler`: what a coupler matches, with which losses and voltages.
int couplerCommand(const CouplerWish& wish, bool json);

/// A power by one way of measuring, with its budget.
struct PowerWish {
    std::string method;
    std::map<std::string, std::string> figures;  ///< by the option's name without dashes
};
/// `power`: a power by one way of measuring, with its budget of uncertainty.
int powerCommand(const PowerWish& wish, bool json);

struct PracticeWish {
    std::string book, fault;
    bool finished = false;
    bool tuning = false;   ///< of the rig with every way of adjusting, instead of the practice kit
    bool proving = false;  ///< of the rig with three bands
    bool onAir = false;    ///< the same, mended, signed off and on the air
};
/// `practice`: a practice book as far as it is wished to be.
int practiceCommand(const PracticeWish& wish);

/// `mark`: what is printed or painted on a part. @param kind  empty: any
int markCommand(const std::string& text, const std::string& kind, bool json);

/// LIST has the columns ref, kind, value, tolerance_pct; BAG has id, kind, value, error_pct (the meter's
/// data-sheet error in per cent of the reading).
int matchCommand(const std::string& list, const std::string& bag, bool json);

struct SubstituteQuestion {
    std::string kind, want, stock;
    double tolerance = 5, volts = 0;
};
/// `substitute`: what of a stock may stand in for a part.
int substituteCommand(const SubstituteQuestion& question, bool json);

struct ListQuestion {
    std::string file;
    std::string variant;                   ///< which of its variants is built; empty: not chosen
    std::string kit;                       ///< where to write a kit made of the list; empty: nowhere
    std::string name = "Kit from a list";  ///< of that kit
};
/// `list`: a pasted parts list line by line, doubts with their reasons.
int listCommand(const ListQuestion& question, bool json);

struct RebuildQuestion {
    std::string kit, band;   ///< a kit file, "3.5M..3.8M"
    std::string out;         ///< where to write the kit for that band; empty: nowhere
    bool prototype = false;  ///< the low-pass from a standard prototype
};
/// `rebuild`: a kit for another band.
int rebuildCommand(const RebuildQuestion& question, bool json);

/// The largest text of checks or steps read.
inline constexpr std::uintmax_t kLargestPaste = 4000000;
int checksCommand(const std::string& file, bool json);
int stepsCommand(const std::string& file, bool json);

}  // namespace ombrek
