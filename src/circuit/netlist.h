#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// One element of a SPICE netlist: "R4 vcc base 47k". Its name is the designator.
struct CircuitElement {
    std::string name;                ///< as written, "R4"
    std::vector<std::string> nodes;  ///< small letters; ground is "0"
    std::string value;               ///< what stands behind the nodes: value, model, parameters
    std::size_t line = 0;            ///< of its file; 0: made by Ombrek
    char kind() const;               ///< its first letter, small: r, c, l, v, i, d, q, j, m, x …
    /// The first word behind the nodes: a value, a model or a subcircuit.
    std::string word() const;
};

/// A circuit as SPICE and its relatives write it.
struct Netlist {
    std::string title;
    std::vector<CircuitElement> elements;
    std::vector<std::string> cards;              ///< models and subcircuits, as they stand
    std::vector<std::size_t> cardLines;          ///< of the first of them, which stand in the file itself
    std::vector<std::string> remarks;            ///< lines of comment, without the star
    std::map<std::string, std::string> spelled;  ///< nodes as they were first written

    /// By its name in any case; null when there is none.
    const CircuitElement* element(std::string_view name) const;
    /// A node as its circuit writes it.
    std::string shown(const std::string& node) const;
    /// Every node but ground, in the order in which they come.
    std::vector<std::string> nodes() const;
};

/// Read a netlist: the first line is the title, "*" begins a comment, "+" goes on with the line before, case
/// does not matter, gnd is 0. Analyses, plots and options are left out: Ombrek asks its own questions.
/// @param models  models and subcircuits to take what the circuit itself does not define from
/// @return a Problem for .include and .lib (a circuit is one file), a model that is nowhere, an element
/// without its nodes, the same name twice, nothing at all, or more than 10,000 elements
Result<Netlist> readNetlist(const std::string& text, const std::string& models = "");

/// An element of one line. @return a Problem with the line for a name that is none ("R1`"), an unknown
/// letter, missing nodes
Result<CircuitElement> readElement(const std::string& text, std::size_t line);

/// Words of a line, in small letters on wish.
std::vector<std::string> circuitWords(const std::string& line, bool small = false);

/// A node as this program names it: small letters, ground is "0", and what a simulator would take for a
/// bracket or a comma ("Net-(Q1-B)") is "_".
std::string circuitNode(std::string_view word);

/// What a source gives at rest, of "12", "DC 12 AC 1", "5V". NaN when it is no plain number.
double sourceValue(const CircuitElement& source);

/// "4.7k", "10MEG", "100n", "2200" as SPICE reads them. @return NaN when it is no plain number
double spiceNumber(std::string_view text);

}  // namespace ombrek
