#pragma once

#include <compare>
#include <functional>
#include <string>
#include <string_view>

namespace ombrek {

/// What a reading, an evidence or a change is of: a part, a coil, a check, an adjustment, the rig as a whole.
///
/// Its one text form is what books, kits and instruments hold: "part:R14", "coil:T1", "check:rail5",
/// "adjust:rx", "proof:power", "proof:harmonic:2", with band and condition behind it where they matter,
/// "proof:power@40m", "check:rail5#key-down". What station/subjects.h says of each kind is not repeated here.
struct Subject {
    enum class Kind {
        unknown,     ///< of a newer book; `id` is its whole text
        part,        ///< id: designator
        loose,       ///< a part without a line; id: its number
        coil,        ///< id: designator
        check,       ///< id: the kit's
        adjustment,  ///< id: the kit's
        step,        ///< id: the kit's
        supply,      ///< while transmitting
        power,
        frequency,
        harmonic,   ///< id: its order
        current,    ///< drawn with the key down
        node,       ///< a point of the kit's circuit; id: "q1_d in receive"
        openClips,  ///< of the L/C meter
        reference,  ///< what a counter reads of a frequency that is known; id: which, "16 MHz crystal"
        crystal,    ///< of a batch; id: its number on it
        dial        ///< the tuned frequency with the knob at a position; id: which, as it was typed
    };
    /// What the rig was doing.
    enum class Condition { any, powerOff, icsOut, receive, keyDown };

    Kind kind = Kind::unknown;
    std::string id;
    std::string band;  ///< empty: the kit's only one
    Condition condition = Condition::any;

    /// One of each kind, under any condition. @param band  empty: the kit's only one
    static Subject part(std::string ref) { return {Kind::part, std::move(ref), "", Condition::any}; }
    static Subject loose(int number) { return {Kind::loose, std::to_string(number), "", Condition::any}; }
    static Subject coil(std::string ref) { return {Kind::coil, std::move(ref), "", Condition::any}; }
    static Subject check(std::string id) { return {Kind::check, std::move(id), "", Condition::any}; }
    static Subject adjustment(std::string id) {
        return {Kind::adjustment, std::move(id), "", Condition::any};
    }
    static Subject step(std::string id) { return {Kind::step, std::move(id), "", Condition::any}; }
    static Subject supply() { return {Kind::supply, "", "", Condition::any}; }
    static Subject power(std::string band = "") { return {Kind::power, "", std::move(band), Condition::any}; }
    static Subject current(std::string band = "") {
        return {Kind::current, "", std::move(band), Condition::any};
    }
    static Subject frequency(std::string band = "") {
        return {Kind::frequency, "", std::move(band), Condition::any};
    }
    static Subject harmonic(int order, std::string band = "") {
        return {Kind::harmonic, std::to_string(order), std::move(band), Condition::any};
    }
    static Subject node(std::string id) { return {Kind::node, std::move(id), "", Condition::any}; }
    static Subject reference(std::string id) { return {Kind::reference, std::move(id), "", Condition::any}; }
    static Subject crystal(std::string id) { return {Kind::crystal, std::move(id), "", Condition::any}; }
    static Subject dial(std::string id, std::string band = "") {
        return {Kind::dial, std::move(id), std::move(band), Condition::any};
    }
    static Subject openClips() { return {Kind::openClips, "", "", Condition::any}; }

    bool is(Kind k) const { return kind == k; }
    /// As it is kept in books: "coil:T1", "proof:power@40m".
    std::string text() const;
    auto operator<=>(const Subject&) const = default;
};

/// As an act in the book is called: "R14", "power", "harmonic:2".
std::string nameOf(const Subject& subject);

/// Total: a text that is no subject is of unknown kind and keeps its text.
Subject readSubject(std::string_view text);

}  // namespace ombrek

template <>
struct std::hash<ombrek::Subject> {
    std::size_t operator()(const ombrek::Subject& s) const {
        return std::hash<std::string>()(s.id) * 31 + std::size_t(s.kind) +
               std::hash<std::string>()(s.band) * 7 + std::size_t(s.condition) * 101;
    }
};
