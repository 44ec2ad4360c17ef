#include "circuit/expression.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <numbers>
#include <vector>

#include "circuit/netlist.h"
#include "core/quantity/quantity.h"
#include "core/text/counted.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr std::size_t kLongest = 4000;
constexpr int kDeepest = 60;

struct Function {
    const char* name;
    std::size_t arguments;
    double (*of)(const double*);
};
/// What both the simulator and we can reckon. "log" is natural, as the simulator has it.
constexpr Function kFunctions[] = {
    {"abs", 1, [](const double* x) { return std::abs(x[0]); }},
    {"sqrt", 1, [](const double* x) { return std::sqrt(x[0]); }},
    {"exp", 1, [](const double* x) { return std::exp(x[0]); }},
    {"ln", 1, [](const double* x) { return std::log(x[0]); }},
    {"log", 1, [](const double* x) { return std::log(x[0]); }},
    {"log10", 1, [](const double* x) { return std::log10(x[0]); }},
    {"sin", 1, [](const double* x) { return std::sin(x[0]); }},
    {"cos", 1, [](const double* x) { return std::cos(x[0]); }},
    {"tan", 1, [](const double* x) { return std::tan(x[0]); }},
    {"asin", 1, [](const double* x) { return std::asin(x[0]); }},
    {"acos", 1, [](const double* x) { return std::acos(x[0]); }},
    {"atan", 1, [](const double* x) { return std::atan(x[0]); }},
    {"sinh", 1, [](const double* x) { return std::sinh(x[0]); }},
    {"cosh", 1, [](const double* x) { return std::cosh(x[0]); }},
    {"tanh", 1, [](const double* x) { return std::tanh(x[0]); }},
    {"floor", 1, [](const double* x) { return std::floor(x[0]); }},
    {"ceil", 1, [](const double* x) { return std::ceil(x[0]); }},
    {"sgn", 1, [](const double* x) { return double((x[0] > 0) - (x[0] < 0)); }},
    {"u", 1, [](const double* x) { return x[0] > 0 ? 1.0 : 0.0; }},
    {"uramp", 1, [](const double* x) { return std::max(x[0], 0.0); }},
    {"min", 2, [](const double* x) { return std::min(x[0], x[1]); }},
    {"max", 2, [](const double* x) { return std::max(x[0], x[1]); }},
    {"pow", 2, [](const double* x) { return std::pow(x[0], x[1]); }},
    {"pwr", 2, [](const double* x) { return std::copysign(std::pow(std::abs(x[0]), x[1]), x[0]); }},
};

struct Operator {
    const char* sign;
    int level;  ///< the higher binds the tighter
    double (*of)(double, double);
    const char* written;
};
constexpr int kPowerLevel = 7;
/// Longer signs first.
constexpr Operator kOperators[] = {
    {"||", 1, [](double a, double b) { return double(a != 0 || b != 0); }, "||"},
    {"&&", 2, [](double a, double b) { return double(a != 0 && b != 0); }, "&&"},
    {"==", 3, [](double a, double b) { return double(a == b); }, "=="},
    {"!=", 3, [](double a, double b) { return double(a != b); }, "!="},
    {"<=", 4, [](double a, double b) { return double(a <= b); }, "<="},
    {">=", 4, [](double a, double b) { return double(a >= b); }, ">="},
    {"**", kPowerLevel, [](double a, double b) { return std::pow(a, b); }, "^"},
    {"<", 4, [](double a, double b) { return double(a < b); }, "<"},
    {">", 4, [](double a, double b) { return double(a > b); }, ">"},
    {"+", 5, [](double a, double b) { return a + b; }, "+"},
    {"-", 5, [](double a, double b) { return a - b; }, "-"},
    {"*", 6, [](double a, double b) { return a * b; }, "*"},
    {"/", 6, [](double a, double b) { return a / b; }, "/"},
    {"^", kPowerLevel, [](double a, double b) { return std::pow(a, b); }, "^"},
};

bool nameLetter(char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_' || c == '.'; }

Expression ofNumber(double value) {
    return {value, value < 0 ? "(" + plainNumber(value) + ")" : plainNumber(value)};
}

class Parser {
 public:
    Parser(std::string_view text, const ExpressionNames& names) : text_(lowered(text)), names_(names) {}

    Result<Expression> whole() {
        if (text_.size() > kLongest) return problem("", "An expression of more than 4,000 letters.");
        auto out = choice();
        if (out && !atEnd())
            return problem("", "\"" + text_.substr(at_, 30) + "\" is not understood in an expression.");
        if (out && out->number && !std::isfinite(*out->number))
            return problem("", "\"" + text_.substr(0, 40) + "\" comes to no number.");
        return out;
    }

 private:
    /// a ? b : c, the loosest.
    Result<Expression> choice() {
        if (++depth_ > kDeepest) return problem("", "Brackets stand too deep in an expression.");
        auto out = binary(1);
        if (out && take("?")) {
            auto yes = choice();
            if (!yes) return yes;
            if (!take(":")) return wants(":");
            auto no = choice();
            if (!no) return no;
            if (out->number) {
                out = *out->number != 0 ? yes : no;
            } else {
                out = Expression{std::nullopt, "(" + out->text + " ? " + yes->text + " : " + no->text + ")"};
            }
        }
        --depth_;
        return out;
    }

    Result<Expression> binary(int level) {
        if (level > kPowerLevel - 1) return signedTerm();
        auto left = binary(level + 1);
        while (left) {
            const Operator* op = operatorAt(level);
            if (op == nullptr) break;
            auto right = binary(level + 1);
            if (!right) return right;
            left = joined(*op, *left, *right);
        }
        return left;
    }

    Result<Expression> signedTerm() {
        if (++depth_ > kDeepest) return problem("", "Signs stand too deep in an expression.");
        Result<Expression> out;
        if (take("-")) {
            out = signedTerm();
            if (out)
                out =
                    out->number ? ofNumber(-*out->number) : Expression{std::nullopt, "(0-" + out->text + ")"};
        } else if (take("+")) {
            out = signedTerm();
        } else if (peek() == '!' && text_.substr(at_, 2) != "!=" && take("!")) {
            out = signedTerm();
            if (out)
                out = out->number ? ofNumber(*out->number == 0 ? 1 : 0)
                                  : Expression{std::nullopt, "(" + out->text + "==0)"};
        } else {
            out = power();
        }
        --depth_;
        return out;
    }

    Result<Expression> power() {
        auto base = primary();
        if (!base) return base;
        const Operator* op = operatorAt(kPowerLevel);
        if (op == nullptr) return base;
        auto exponent = signedTerm();
        return exponent ? Result<Expression>(joined(*op, *base, *exponent)) : exponent;
    }

    Result<Expression> primary() {
        const char c = peek();
        if (c == '(' || c == '{') {
            ++at_;
            auto inside = choice();
            const char* const close = c == '(' ? ")" : "}";
            if (inside && !take(close)) return wants(close);
            return inside;
        }
        if (std::isdigit(static_cast<unsigned char>(c)) || c == '.') return number();
        if (std::isalpha(static_cast<unsigned char>(c)) || c == '_') return named();
        if (atEnd()) return problem("", "An expression ends too early.");
        return problem("", "\"" + text_.substr(at_, 30) + "\" is not understood in an expression.");
    }

    Result<Expression> number() {
        std::size_t end = at_;
        while (end < text_.size() &&
               (nameLetter(text_[end]) ||
                ((text_[end] == '+' || text_[end] == '-') && text_[end - 1] == 'e' && end > at_ + 1 &&
                 end + 1 < text_.size() && std::isdigit(static_cast<unsigned char>(text_[end + 1])))))
            ++end;
        const std::string word = text_.substr(at_, end - at_);
        const double value = spiceNumber(word);
        if (std::isnan(value)) return problem("", "\"" + word.substr(0, 30) + "\" is no number.");
        at_ = end;
        return ofNumber(value);
    }

    Result<Expression> named() {
        std::size_t end = at_;
        while (end < text_.size() && nameLetter(text_[end])) ++end;
        const std::string word = text_.substr(at_, end - at_);
        at_ = end;
        if (peek() != '(') return parameter(word);
        ++at_;
        if (word == "v" || word == "i") return state(word);
        return call(word);
    }

    Result<Expression> parameter(const std::string& word) {
        if (const auto value = names_.parameter ? names_.parameter(word) : std::nullopt)
            return ofNumber(*value);
        if (word == "pi") return ofNumber(std::numbers::pi);
        if (word == "time") return ofNumber(0);  // the circuit is looked at as it rests
        return problem("", "\"" + word.substr(0, 30) + "\" has no value in this circuit.");
    }

    /// v(node), v(node,node), i(element); a node's name may have brackets of its own.
    Result<Expression> state(const std::string& what) {
        std::vector<std::string> inside{""};
        int depth = 1;
        for (; at_ < text_.size(); ++at_) {
            const char c = text_[at_];
            depth += c == '(' ? 1 : c == ')' ? -1 : 0;
            if (depth == 0) break;
            if (c == ',' && depth == 1) {
                inside.emplace_back();
            } else if (c != ' ') {
                inside.back() += c;
            }
        }
        if (!take(")")) return wants(")");
        if (inside[0].empty() || inside.size() > (what == "v" ? 2u : 1u))
            return problem("", "v() wants a node or two, i() an element.");
        if (what == "v" && names_.node) {
            std::string text = "v(" + names_.node(inside[0]);
            if (inside.size() == 2) text += "," + names_.node(inside[1]);
            return Expression{std::nullopt, text + ")"};
        }
        const auto branch = what == "i" && names_.branch ? names_.branch(inside[0]) : std::nullopt;
        if (branch) return Expression{std::nullopt, "i(" + *branch + ")"};
        return problem("", what + "(" + inside[0].substr(0, 30) + ") cannot be read here.");
    }

    Result<Expression> call(const std::string& word) {
        const auto hit = std::find_if(std::begin(kFunctions), std::end(kFunctions),
                                      [&](const Function& f) { return word == f.name; });
        if (hit == std::end(kFunctions))
            return problem("", "\"" + word.substr(0, 30) + "\" is no function that is known here.");
        std::vector<Expression> given;
        do {
            auto one = choice();
            if (!one) return one;
            given.push_back(std::move(*one));
        } while (given.size() < 3 && take(","));
        if (!take(")") || given.size() != hit->arguments)
            return problem("", word + "() wants " + counted(std::int64_t(hit->arguments), "number") + ".");
        std::array<double, 2> numbers{};
        bool plain = true;
        std::string text = word + "(";
        for (std::size_t i = 0; i < given.size(); ++i) {
            plain = plain && given[i].number.has_value();
            if (plain) numbers[i] = *given[i].number;
            text += (i > 0 ? "," : "") + given[i].text;
        }
        return plain ? ofNumber(hit->of(numbers.data())) : Expression{std::nullopt, text + ")"};
    }

    static Expression joined(const Operator& op, const Expression& a, const Expression& b) {
        if (a.number && b.number) return ofNumber(op.of(*a.number, *b.number));
        return {std::nullopt, "(" + a.text + op.written + b.text + ")"};
    }

    const Operator* operatorAt(int level) {
        peek();
        for (const Operator& op : kOperators) {
            const std::string_view sign = op.sign;
            if (std::string_view(text_).substr(at_, sign.size()) != sign) continue;
            if (op.level != level) return nullptr;
            at_ += sign.size();
            return &op;
        }
        return nullptr;
    }

    char peek() {
        while (at_ < text_.size() && std::isspace(static_cast<unsigned char>(text_[at_]))) ++at_;
        return at_ < text_.size() ? text_[at_] : '\0';
    }
    bool atEnd() { return peek() == '\0' && at_ >= text_.size(); }
    bool take(std::string_view sign) {
        peek();
        if (std::string_view(text_).substr(at_, sign.size()) != sign) return false;
        at_ += sign.size();
        return true;
    }
    static tl::unexpected<Problem> wants(const char* sign) {
        return problem("", std::string("An expression lacks its \"") + sign + "\".");
    }

    const std::string text_;
    const ExpressionNames& names_;
    std::size_t at_ = 0;
    int depth_ = 0;
};

}  // namespace

Result<Expression> readExpression(std::string_view text, const ExpressionNames& names) {
    return Parser(text, names).whole();
}

}  // namespace ombrek
