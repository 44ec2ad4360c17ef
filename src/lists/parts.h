#pragma once

#include "lists/coil_words.h"
#include "lists/list_line.h"
#include "lists/section.h"

namespace ombrek {

/// What was made of a parts list, in the order of its source.
struct PartsList {
    std::string title;  ///< of a first row that names no part; empty: none
    std::vector<ListLine> lines;
    std::vector<RefusedLine> refused;
    std::vector<ListCoil> coils;        ///< of the lines that are coils, one a designator
    std::vector<Hardware> hardware;     ///< rows without a designator
    std::vector<std::string> variants;  ///< names, when the kit comes in several
    std::vector<std::string> notes;     ///< what was decided for the whole file, sentences
    int parts() const;                  ///< designators, each counted once
    int doubtful() const;               ///< lines with a doubt
};

/// The coils among a list's lines, one a designator.
std::vector<ListCoil> coilsOf(const PartsList& list);

/// Doubts that need the whole list: a designator on two lines.
void checkTwice(PartsList& list);

/// Takes a list's rows one by one, with the headings that hold for them.
class PartsTaker {
 public:
    explicit PartsTaker(const Manner& manner) { context_.manner = manner; }

    RowContext& context() { return context_; }
    bool hardwareExpected() const { return section_.hardware; }

    /// A heading: what it says holds until the next.
    void head(const Section& section);
    /// A row with designators.
    ListLine& take(const ListFields& fields, std::size_t line, std::string text);
    /// A row with designators, read by somebody else.
    ListLine& keep(ListLine line);
    void take(Hardware hardware, std::size_t line);
    void refuse(std::size_t line, std::string text, std::string reason);
    /// The first row, when it names no part.
    void title(const std::string& text);

    /// The row as `take` would understand it, without keeping it.
    ListLine reading(const ListFields& fields) const;

    /// The list, its coils read and its repetitions settled: a row that says "see table" takes its value from
    /// the row that has it.
    PartsList finish();

 private:
    RowContext context() const { return context_; }
    PartsList list_;
    Section section_;
    RowContext context_;
};

/// How well a row was understood, to compare readings: a value counts most, a doubt takes off.
double meritOf(const ListLine& line);

}  // namespace ombrek
