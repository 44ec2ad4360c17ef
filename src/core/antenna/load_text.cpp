#include "core/antenna/load_text.h"

#include <cmath>
#include <string>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

void replaceAll(std::string& text, std::string_view what, std::string_view with) {
    for (std::size_t at = 0; (at = text.find(what, at)) != std::string::npos; at += with.size())
        text.replace(at, what.size(), with);
}

/// Where the reactance begins: the last sign that is no exponent's, or the blank between two numbers.
std::size_t cutOf(const std::string& text) {
    for (std::size_t i = text.size(); i-- > 1;) {
        if ((text[i] == '+' || text[i] == '-') && text[i - 1] != 'e' && text[i - 1] != 'E') return i;
    }
    return text.find(' ');
}

std::string without(std::string text, std::string_view letters) {
    std::erase_if(text, [&](char c) { return letters.find(c) != std::string_view::npos; });
    return text;
}

}  // namespace

Result<std::complex<double>> parseLoad(std::string_view given) {
    std::string text(given);
    replaceAll(text, "\u2212", "-");
    replaceAll(text, "\u03a9", "");
    replaceAll(text, "\u2126", "");
    replaceAll(text, "\u202f", "");
    replaceAll(text, "ohms", "");
    replaceAll(text, "ohm", "");
    while (!text.empty() && text.front() == ' ') text.erase(0, 1);
    while (!text.empty() && text.back() == ' ') text.pop_back();
    const auto refused = [&] {
        return problem("", "A load is a resistance and a reactance, 35-120j, not \"" +
                               std::string(given.substr(0, 40)) + "\".");
    };
    std::size_t cut = cutOf(text);
    const bool imaginary = text.find_first_of("jJi") != std::string::npos;
    if (cut == std::string::npos && imaginary) cut = 0;  // a reactance alone
    const std::string real = without(cut == std::string::npos ? text : text.substr(0, cut), " ");
    std::string rest = cut == std::string::npos ? "" : without(text.substr(cut), " jJi");
    if (imaginary && rest.size() == 1 && (rest[0] == '+' || rest[0] == '-')) rest += '1';
    if (real.empty() && rest.empty()) return refused();
    std::complex<double> out;
    double* const into = reinterpret_cast<double*>(&out);
    int part = 0;
    for (const std::string& word : {real, rest}) {
        double& value = into[part++];
        if (word.empty()) continue;
        const bool minus = word[0] == '-';
        const auto number = parseQuantity(word.substr(minus || word[0] == '+' ? 1 : 0), Unit::ohm);
        if (!number || number->unit != Unit::ohm) return refused();
        value = minus ? -number->value : number->value;
    }
    return out;
}

std::string loadText(std::complex<double> load) {
    const int places = std::abs(load) < 10 ? 1 : 0;
    std::string out = decimals(load.real(), places);
    out += load.imag() < 0 ? " \u2212 j" : " + j";
    return out + decimals(std::abs(load.imag()), places) + "\u202f\u03a9";
}

}  // namespace ombrek
