#pragma once

#include <string>

namespace ombrek {

/// The subcommands of ombrek-cli. Each prints its result and returns the exit code: 0, or 2 when the input is
/// not understood. With `json` everything, also a problem, goes to standard output as JSON with SI values.

int sumCommand(const std::string& text, bool json);

struct CoilQuestion {
    std::string core, wire = "28AWG", inductance;
    int turns = 0;
    double tailMillimetres = 30;
};
int coilCommand(const CoilQuestion& question, bool json);

int kitCheckCommand(const std::string& file, bool json);

/// Needs a QApplication.
int reportCommand(const std::string& book, const std::string& html, const std::string& pdf);

int practiceCommand(const std::string& book, bool finished);

}  // namespace ombrek
