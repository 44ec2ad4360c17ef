#pragma once

#include <QString>
#include <vector>

#include "desk/pieces/lines.h"
#include "formats/kit_compare.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What lies on the bench before a kit is begun, the same for every kit until it is said anew.
struct BenchWord {
    const char* key;  ///< preference of the book
    const char* name;
    const char* asks;
};
/// Solder, iron, flux, rules.
const std::vector<BenchWord>& benchWords();

/// What the page of the kit itself shows: where it is otherwise than its paper, or, when another file was
/// opened, where the two differ.
struct KitView {
    QString now, why;
    QString title;  ///< of the list
    struct Row {
        StateLine line;
        Subject at;     ///< what it is of; unknown: the kit
        QString whole;  ///< the sentences of it
    };
    std::vector<Row> rows;
};
/// What the kit's page shows of the kit in hand.
KitView kitView(const Kit& kit, const Build& build);
/// What it shows beside another file of the same kit.
KitView compareView(const std::vector<KitDifference>& differences, const QString& file);

/// What the paper gave so far, one line a station's material; what is not there can not be judged.
std::vector<Fact> materialFacts(const Kit& kit);

/// What should lie ready before the first joint, as sentences: documents, tools of all steps.
QString readyText(const Kit& kit);

/// The refs of these subjects that are soldered in already, by the steps that are done.
std::vector<std::string> solderedIn(const Kit& kit, const Build& build, const std::vector<Subject>& replaced);

/// What is another thing when one kit text takes the place of another: parts and coils whose rows differ.
std::vector<Subject> replacedBetween(const std::string& before, const std::string& after);

}  // namespace ombrek
