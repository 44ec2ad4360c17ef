#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>

#include "core/quantity/problem.h"

namespace ombrek {

/// What the names of an expression stand for. Each is asked with a name in small letters.
struct ExpressionNames {
    std::function<std::optional<double>(const std::string&)> parameter;  ///< of a .param or a subcircuit
    std::function<std::string(const std::string&)> node;                 ///< v(node), as it is to be written
    std::function<std::optional<std::string>(const std::string&)> branch;  ///< i(element), likewise
};

/// An expression read through: its number where nothing of the circuit's state stands in it, and how it is
/// written for the simulator, with numbers for every parameter.
struct Expression {
    std::optional<double> number;
    std::string text;
};

/// Read "min({vout}, uramp(v(in,gnd) - 1.7)) - 0.05*i(Vgive)": numbers with SPICE's letters, + - * / ^ **,
/// comparisons, && || !, a ? b : c, brackets and braces, functions of a fixed list.
/// @param names  v() and i() are refused where `node` and `branch` are not given
/// @return a Problem with a sentence and no place for anything else, for more than 4,000 letters, and for
/// brackets more than 60 deep
Result<Expression> readExpression(std::string_view text, const ExpressionNames& names);

}  // namespace ombrek
