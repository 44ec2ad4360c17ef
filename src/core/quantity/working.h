#pragma once

#include <string>
#include <vector>

namespace ombrek {

/// How a result was found: shown on demand, printed in the report, emitted by the CLI.
struct Working {
    struct Line {
        std::string formula;  ///< "L = AL·N²"
        std::string put;      ///< "4.9 nH × 18²"
        std::string result;   ///< "1.588 µH"
    };
    std::vector<Line> lines;
    std::string source;  ///< standard, text or "common practice"

    /// One line per step: "L = AL·N² = 4.9 nH × 18² = 1.588 µH".
    std::string text() const {
        std::string out;
        for (const Line& line : lines) {
            if (!out.empty()) out += '\n';
            out += line.formula;
            if (!line.put.empty()) out += " = " + line.put;
            if (!line.result.empty()) out += " = " + line.result;
        }
        if (!source.empty()) out += (out.empty() ? "Source: " : "\nSource: ") + source;
        return out;
    }
};

}  // namespace ombrek
