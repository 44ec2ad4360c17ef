#pragma once

#include <cstdint>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

#include "core/quantity/problem.h"
#include "kit/kit.h"
#include "practice/practice_circuit.h"

namespace ombrek {

/// The troubles seeded in a practice bag, and the seed of the scatter. See docs/formats/bench.md.
struct PracticeBag {
    std::string kitFile;  ///< empty: no troubles, for a kit of one's own
    std::uint64_t seed = 1;
    std::map<std::string, double> parts;  ///< true nominal value of a wrong part [SI]
    std::set<std::string> missing;
    std::map<std::string, double> coils;  ///< true deviation of a coil's core [%]
    std::map<std::string, std::string>
        marks;  ///< what is printed on a part, where it is not what the kit says
    struct Over {
        PartKind kind = PartKind::other;
        double value = 0;  ///< SI
        std::string mark;
    };
    std::vector<std::string> faults;  ///< of the rig's circuit, "R62 open"
    std::set<std::string> dead;       ///< finals that do nothing
    std::vector<Over> over;           ///< parts that no line wants: subjects "loose:1", "loose:2", …
};

/// Read a practice bag from JSON; a fault has its line or path.
Result<PracticeBag> readPracticeBag(const std::string& json);

/// What a kit on the practice bench really is: every value scattered within tolerance, the troubles seeded,
/// trimmers that tune true resonances. The same seed gives the same bench on every machine.
class PracticeTruth {
 public:
    PracticeTruth(Kit kit, PracticeBag bag);

    /// The true value [SI] at a subject; NaN when there is nothing to measure.
    ///
    /// `setting` is what the builder did: turns on a coil, position 0 … 1 of an adjuster; it is remembered.
    /// Negative: as it was. Powers are in watts, harmonics in dB below the fundamental.
    double at(const Subject& subject, double setting = -1);

    /// What is printed or painted on the part at a subject; empty when there is none.
    std::string mark(const Subject& subject);
    /// What the eyes or ears find at an adjustment as it stands: "seen", "nothing", marks as its scale has
    /// them ("2 5"), or, against another position, "louder", "the same", "softer".
    /// @param before  the other position; NaN: none
    std::string shown(const Subject& subject, double before);
    /// For how long it has been switched on [s]; a cold oscillator is off its place. Negative: warm.
    void onFor(double seconds) { onFor_ = seconds; }
    /// What a subject of the bag is measured in; Unit::none for anything else.
    Unit unitOfPart(const Subject& subject) const;

    /// Squeeze (positive) or spread a coil: its inductance moves by this many per cent.
    void bend(const std::string& coil, double percent);
    /// The same, told as the factor by which it has been moved in all.
    void setBent(const std::string& coil, double factor);
    /// A part was replaced by a good one: whatever the bag or a seeded fault had wrong of it is gone.
    void mend(const std::string& ref);
    /// As it was at the beginning: nothing turned, wound, bent or mended.
    void reset();

    const Kit& kit() const { return kit_; }

 private:
    double scatter(const std::string& name) const;  ///< −1 … 1, always the same for a name
    double part(const std::string& ref) const;
    const PracticeBag::Over* overPart(const std::string& id) const;
    double inductance(const std::string& coil) const;
    double tuned(const CoilTune& tune, const std::string& coil, double position) const;
    PracticeCircuit& circuit();
    double check(const std::string& id);
    double off(const Adjustment& a) const;
    double nulled(const Adjustment& a) const;
    double biased(const Adjustment& a);
    double ranged(const Adjustment& a) const;
    double drifted(double hertz) const;
    double counted(const Subject& subject) const;
    double dialled(const Subject& subject) const;
    double crystal(const std::string& id) const;
    double warmed(const std::string& id, double reads);
    double adjustment(const std::string& id);
    double peakResponse(const Adjustment& a);
    double setResponse(const Adjustment& a);
    double alive() const;
    double drive(const std::string& band) const;
    double supply() const;
    double power(const std::string& band);
    double current(const std::string& band);
    double frequency(const std::string& band);
    double harmonic(int order, const std::string& band) const;
    std::vector<LadderElement> lowPass(const std::string& band) const;
    double position(const std::string& adjustment) const;

    Kit kit_;
    PracticeBag bag_;
    std::map<Subject, double> settings_;
    std::map<std::string, double> bends_;
    std::set<std::string> mended_;
    int hot_ = 0;  ///< readings in a row with far too much current through the finals
    bool dead_ = false;
    double onFor_ = -1;                         ///< [s]; negative: warm
    std::unique_ptr<PracticeCircuit> circuit_;  ///< made when it is first asked
};

}  // namespace ombrek
