#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/meter/sample.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// What one instrument is told and asked over a cable: a small data file, docs/formats/instruments.md.
struct CommandSet {
    /// A question that measures.
    struct Query {
        Unit unit = Unit::none;
        Flow flow = Flow::either;
        std::vector<std::string> before;  ///< lines that set it up for this quantity
        std::string ask;                  ///< its answer is the reading
        int place = 0;                    ///< which of the numbers of the answer
        std::string range;                ///< asks for the full scale it is in; empty: it is not asked
        int settle = 0;                   ///< between two readings [ms]
    };
    /// How a power supply is set and read. No line switches its output on.
    struct Supply {
        std::string volts, amperes;            ///< lines with "#" for the number
        std::string voltsAsked, amperesAsked;  ///< what it is set to
        std::string output;                    ///< asks whether its output is on
    };
    std::string id, name, source;
    std::vector<std::string> setup;  ///< after it was connected
    std::string end = "\n";          ///< of a line
    std::string errors;              ///< asks for its oldest error; empty: it has no queue
    int answers = 2000;              ///< within [ms]
    std::vector<Query> queries;
    std::optional<Supply> supply;

    /// The question for a unit; a question of the wanted flow before one that says none. Null: it measures
    /// none.
    const Query* query(Unit unit, Flow flow = Flow::either) const;
};

/// A faulty file is a Problem that names the place; a line that would switch an output on is a fault.
Result<CommandSet> readCommandSet(const std::string& text);

/// All that ship, by id. @param folder  data/instruments
Result<std::vector<CommandSet>> readCommandSets(const std::filesystem::path& folder);

}  // namespace ombrek
