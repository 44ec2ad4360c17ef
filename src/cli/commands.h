#pragma once

#include <map>
#include <string>

namespace ombrek {

/// The subcommands of ombrek-cli. Each prints its result and returns the exit code: 0, or 2 when the input is
/// not understood. With `json` everything, also a problem, goes to standard output as JSON with SI values.

int sumCommand(const std::string& text, bool json);

struct CoilQuestion {
    std::string core, wire = "28AWG", inductance;
    int turns = 0;
    double tailMillimetres = 30;
    std::string frequency, power;  ///< for Q and flux; empty: not asked
    double ohms = 50;
};
int coilCommand(const CoilQuestion& question, bool json);

struct TrimmerQuestion {
    std::string inductance, fixed = "0", trim, target;
    int turns = 0;
};
int trimmerCommand(const TrimmerQuestion& question, bool json);

/// What a sound rig reads at its checks, of its circuit.
struct ExpectQuestion {
    std::string kit, supply, state;
};
int expectCommand(const ExpectQuestion& question, bool json);

/// What may be wrong with a circuit (SPICE) from readings (CSV), and what to read next.
int suspectsCommand(const std::string& circuit, const std::string& readings, bool json);

/// Where an adjuster peaks, of readings in the order in which they were taken.
struct PeakQuestion {
    std::string file;
    std::string ends;  ///< of its travel, "0..180"; empty: 0..1
    std::string as;    ///< "volt", "watt", "db"; empty: by the heading, in db when one is negative
};
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
int crystalsCommand(const CrystalsQuestion& question, bool json);

struct DialQuestion {
    std::string file, pdf, svg;
    std::string round = "60mm", straight, sweep;  ///< the straight one when it is said
    bool mirrored = false;
};
/// Needs a QApplication.
int dialCommand(const DialQuestion& question, bool json);

int turnsCommand(const std::string& picture, bool json);

struct PlanQuestion {
    std::string kit, list;  ///< files, one of them
    std::string order = "manual";
};
int planCommand(const PlanQuestion& question, bool json);

int kitCheckCommand(const std::string& file, bool json);
/// What two kit files say differently.
int kitCompareCommand(const std::string& mine, const std::string& theirs, bool json);

struct KitChangeQuestion {
    std::string kit, with;  ///< a kit file; an upgrade, another version, or a variant's name
    std::string out;        ///< where the kit that comes of it is written; empty: nowhere
};
int kitUpgradeCommand(const KitChangeQuestion& question, bool json);
int kitMergeCommand(const KitChangeQuestion& question, bool json);
int kitVariantCommand(const KitChangeQuestion& question, bool json);

/// The station's log: written as ADIF, taken in from it, or shown.
struct LogWish {
    std::string book;
    std::string adif;    ///< written to this file, .adx when it is called so; empty: to none
    std::string import;  ///< taken in from this file
};
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
int spectrumCommand(const SpectrumWish& wish, bool json);

/// A network of lossy parts, or a kit's low-pass, by S-parameters.
struct NetworkWish {
    std::string file, from = "1M", to = "100M", points = "2001";
    std::string z1, z2;      ///< of the ports; empty: as the circuit says, else 50
    std::string in, out;     ///< nodes; empty: to be found
    std::string touchstone;  ///< written to this file; empty: to none
    bool byRatio = false;
};
int networkCommand(const NetworkWish& wish, bool json);

/// Which loads an antenna coupler matches, and what it costs.
struct CouplerWish {
    std::string kind = "T", l, c1, c2, frequency, power = "5", source = "50", coilQ, capacitorQ, volts, swr;
    std::vector<std::string> loads;  ///< "35-120j"
    std::vector<std::string> wires;  ///< lengths, "20.3"
    std::string touchstone;          ///< loads of a file
};
int couplerCommand(const CouplerWish& wish, bool json);

/// A power by one way of measuring, with its budget.
struct PowerWish {
    std::string method;
    std::map<std::string, std::string> figures;  ///< by the option's name without dashes
};
int powerCommand(const PowerWish& wish, bool json);

struct PracticeWish {
    std::string book, fault;
    bool finished = false;
    bool tuning = false;   ///< of the rig with every way of adjusting, instead of the practice kit
    bool proving = false;  ///< of the rig with three bands
    bool onAir = false;    ///< the same, mended, signed off and on the air
};
int practiceCommand(const PracticeWish& wish);

int markCommand(const std::string& text, const std::string& kind, bool json);

/// LIST has the columns ref, kind, value, tolerance_pct; BAG has id, kind, value, error_pct (the meter's
/// data-sheet error in per cent of the reading).
int matchCommand(const std::string& list, const std::string& bag, bool json);

struct SubstituteQuestion {
    std::string kind, want, stock;
    double tolerance = 5, volts = 0;
};
int substituteCommand(const SubstituteQuestion& question, bool json);

struct ListQuestion {
    std::string file;
    std::string variant;                   ///< which of its variants is built; empty: not chosen
    std::string kit;                       ///< where to write a kit made of the list; empty: nowhere
    std::string name = "Kit from a list";  ///< of that kit
};
int listCommand(const ListQuestion& question, bool json);

struct RebuildQuestion {
    std::string kit, band;   ///< a kit file, "3.5M..3.8M"
    std::string out;         ///< where to write the kit for that band; empty: nowhere
    bool prototype = false;  ///< the low-pass from a standard prototype
};
int rebuildCommand(const RebuildQuestion& question, bool json);

/// The largest text of checks or steps read.
inline constexpr std::uintmax_t kLargestPaste = 4000000;
int checksCommand(const std::string& file, bool json);
int stepsCommand(const std::string& file, bool json);

}  // namespace ombrek
