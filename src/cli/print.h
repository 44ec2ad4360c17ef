#pragma once

#include <cmath>
#include <cstdio>
#include <nlohmann/json.hpp>

#include "core/quantity/problem.h"

namespace ombrek {

/// Two blanks deep, with a line end; what is no UTF-8 is replaced.
inline void printJson(const nlohmann::ordered_json& value) {
    std::printf("%s\n", value.dump(2, ' ', false, nlohmann::json::error_handler_t::replace).c_str());
}

/// What is not known, or without end, is null.
inline nlohmann::ordered_json orNull(double value) {
    return std::isfinite(value) ? nlohmann::ordered_json(value) : nlohmann::ordered_json(nullptr);
}

/// The one way a command refuses: a sentence on standard error, or a problem object. @return exit code 2
inline int refuse(const Problem& problem, bool json) {
    if (json) {
        nlohmann::ordered_json inside{{"message", problem.sentence}};
        if (!problem.place.empty()) inside["place"] = problem.place;
        printJson({{"problem", inside}});
    } else {
        std::fprintf(stderr, "ombrek-cli: %s\n", problem.text().c_str());
    }
    return 2;
}

}  // namespace ombrek
