#include "formats/touchstone.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>
#include <sstream>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

using Complex = std::complex<double>;

struct Options {
    double scale = 1e9;
    enum class Form { ri, ma, db } form = Form::ma;
    double ohms = 50;
};

/// One number; a decimal comma and a Fortran exponent (1.0D-3) are read too.
bool numberIn(std::string word, double& out) {
    for (char& c : word) {
        if (c == ',') c = '.';
        if (c == 'd' || c == 'D') c = 'e';
    }
    const char* first = word.data() + (word.starts_with('+') ? 1 : 0);
    const auto [end, error] = std::from_chars(first, word.data() + word.size(), out);
    return error == std::errc{} && end == word.data() + word.size() && std::isfinite(out);
}

std::string place(std::size_t line) { return "line " + std::to_string(line); }

Result<Options> optionsIn(const std::string& text, std::size_t line) {
    static const std::map<std::string, double> scales{{"hz", 1}, {"khz", 1e3}, {"mhz", 1e6}, {"ghz", 1e9}};
    static const std::map<std::string, Options::Form> forms{
        {"ri", Options::Form::ri}, {"ma", Options::Form::ma}, {"db", Options::Form::db}};
    Options out;
    std::istringstream in(lowered(text));
    for (std::string word; in >> word;) {
        if (const auto scale = scales.find(word); scale != scales.end()) {
            out.scale = scale->second;
        } else if (const auto form = forms.find(word); form != forms.end()) {
            out.form = form->second;
        } else if (word == "r") {
            if (!(in >> word) || !numberIn(word, out.ohms) || !(out.ohms > 0))
                return problem(place(line), "Behind R stands the resistance of the ports, R 50.");
        } else if (word == "y" || word == "z" || word == "h" || word == "g") {
            return problem(place(line), "Only S-parameters are read, not " + word + ".");
        }
    }
    return out;
}

Complex valueOf(double a, double b, Options::Form form) {
    if (form == Options::Form::ri) return {a, b};
    const double size = form == Options::Form::db ? std::pow(10.0, a / 20) : a;
    return std::polar(std::abs(size), b * std::numbers::pi / 180) * (size < 0 ? -1.0 : 1.0);
}

/// Lines with numbers: their numbers, and where each line began.
struct Table {
    std::vector<double> numbers;
    std::vector<std::size_t> starts, lines;
    Options options;
};

Result<Table> tableIn(const std::string& bytes) {
    Table out;
    bool optioned = false;
    std::string text = toUtf8(bytes);
    std::replace(text.begin(), text.end(), '\r', '\n');
    std::istringstream in(text);
    std::string raw;
    for (std::size_t number = 1; std::getline(in, raw); ++number) {
        raw = raw.substr(0, raw.find('!'));
        const std::size_t first = raw.find_first_not_of(" \t");
        if (first == std::string::npos) continue;
        if (raw[first] == '[')
            return problem(place(number),
                           "This is version 2 of the format: save it as version 1.1 (.s1p or .s2p).");
        if (raw[first] == '#') {
            if (optioned) continue;  // only the first counts
            const auto options = optionsIn(raw.substr(first + 1), number);
            if (!options) return tl::make_unexpected(options.error());
            out.options = *options;
            optioned = true;
            continue;
        }
        std::istringstream words(raw);
        out.starts.push_back(out.numbers.size());
        out.lines.push_back(number);
        for (std::string word; words >> word;) {
            double value = 0;
            if (!numberIn(word, value))
                return problem(place(number), "\"" + word.substr(0, 30) + "\" is no number.");
            out.numbers.push_back(value);
        }
    }
    return out;
}

/// One port or two: by the name, else by the numbers of the first line.
bool twoPorts(const Table& table, const std::string& name) {
    const std::string small = lowered(name);
    if (small.ends_with(".s1p")) return false;
    if (small.ends_with(".s2p")) return true;
    return table.starts.size() < 2 ? table.numbers.size() > 3 : table.starts[1] - table.starts[0] != 3;
}

}  // namespace

Result<Touchstone> readTouchstone(const std::string& bytes, const std::string& name) {
    const auto read = tableIn(bytes);
    if (!read) return tl::make_unexpected(read.error());
    const Table& table = *read;
    if (table.numbers.empty()) return problem("", "There is no point in this file.");
    Touchstone out;
    out.twoPort = twoPorts(table, name);
    out.ohms = table.options.ohms;
    const std::size_t each = out.twoPort ? 9 : 3;
    std::size_t line = 0;
    for (std::size_t at = 0; at < table.numbers.size(); at += each) {
        while (line + 1 < table.starts.size() && table.starts[line + 1] <= at) ++line;
        const double* n = &table.numbers[at];
        const double f = n[0] * table.options.scale;
        if (!out.frequencies.empty() && f <= out.frequencies.back()) {
            // Behind the points of two ports the noise data begins with a lower frequency.
            if (!out.twoPort) return problem(place(table.lines[line]), "The frequencies must rise.");
            out.skipped = table.lines.size() - line;
            break;
        }
        if (at + each > table.numbers.size())
            return problem(place(table.lines[line]), "This point is not whole: " + std::to_string(each) +
                                                         " numbers belong to it. The file ends too early.");
        if (!(f >= 0)) return problem(place(table.lines[line]), "A frequency is not below nothing.");
        const auto form = table.options.form;
        Scattering s;
        s.s11 = valueOf(n[1], n[2], form);
        if (out.twoPort) {
            s.s21 = valueOf(n[3], n[4], form);
            s.s12 = valueOf(n[5], n[6], form);
            s.s22 = valueOf(n[7], n[8], form);
        }
        out.frequencies.push_back(f);
        out.points.push_back(s);
    }
    return out;
}

std::string writeTouchstone(const Touchstone& data, const std::string& remark) {
    std::string out = "! " + (remark.empty() ? std::string("S-parameters") : remark) + "\n# Hz S RI R " +
                      plainNumber(data.ohms) + "\n";
    const auto put = [&](Complex value) {
        out += ' ' + plainNumber(value.real()) + ' ' + plainNumber(value.imag());
    };
    for (std::size_t i = 0; i < data.points.size(); ++i) {
        const Scattering& s = data.points[i];
        out += plainNumber(data.frequencies[i]);
        put(s.s11);
        if (data.twoPort) {
            put(s.s21);
            put(s.s12);
            put(s.s22);
        }
        out += '\n';
    }
    return out;
}

}  // namespace ombrek
