#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/sums/figures.h"
#include "core/sums/sums.h"

namespace ombrek::sums {

/// A figure that a relation takes: its letter in the formula, what it is of, and what it is when it is not
/// given (NaN: it must be).
struct Given {
    const char* letter;
    Kind kind;
    double otherwise;
};

/// One relation of the trade. To add one is to add a row in relations.cpp; its example is its test, and the
/// guide prints the table.
struct Relation {
    const char* meaning;
    /// Words that may stand in the sentence, by groups parted by a blank, alternatives by "|". A group is
    /// wanted; after "?" it may be missing; after "!" it may be missing where the sentence says what to
    /// answer in.
    const char* words;
    std::vector<Given> given;
    Kind result;
    const char* formula;
    double (*of)(const double*);  ///< of the given, in their order; not finite: it does not hold for these
    const char* source;
    const char* example;  ///< "5 W in dBm = 36.99 dBm"
};

/// Every relation of the sums line, in the order of the guide's table.
const std::vector<Relation>& relations();

/// The answers of every row that uses each figure and each word of the sentence; of several ways to take the
/// figures
/// ("10k" is ohms rather than hertz) the likeliest alone.
/// @param strained  whether a figure may be taken otherwise than by its likeliest meaning
std::vector<SumAnswer> answerByRelation(const Sentence& sentence, bool strained = true);

/// The first word of the sentence that no relation knows; empty: all are known.
std::string wordUnknown(const Sentence& sentence);

}  // namespace ombrek::sums
