#include "formats/contact_text.h"

#include <algorithm>
#include <vector>

#include "core/air/band_name.h"
#include "core/air/locator.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/adif.h"
#include "formats/contact_adif.h"

namespace ombrek {
namespace {

constexpr const char* kModeWords[] = {"CW",  "SSB",   "USB",  "LSB", "AM",   "FM",      "FT8", "FT4",
                                      "PSK", "PSK31", "RTTY", "JS8", "WSPR", "DIGITAL", "HELL"};
constexpr std::int64_t kDay = 86400;

bool allDigits(std::string_view word) {
    return !word.empty() &&
           std::all_of(word.begin(), word.end(), [](char c) { return c >= '0' && c <= '9'; });
}

std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> out;
    std::string word;
    for (const char c : text) {
        if (c == ' ' || c == '\t') {
            if (!word.empty()) out.push_back(std::exchange(word, {}));
        } else {
            word += c;
        }
    }
    if (!word.empty()) out.push_back(word);
    return out;
}

/// Parts between commas; one between two digits is a decimal mark.
std::vector<std::string> partsOf(std::string_view text) {
    std::vector<std::string> out{""};
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto digit = [&](std::size_t at) {
            return at < text.size() && text[at] >= '0' && text[at] <= '9';
        };
        if (text[i] == ',' && !(i > 0 && digit(i - 1) && digit(i + 1)) && out.size() < 3)
            out.emplace_back();
        else
            out.back() += text[i];
    }
    for (std::string& part : out) part = std::string(trimmed(part));
    return out;
}

/// "18:30", of the day that is nearest before now.
bool takeTime(const std::string& word, Contact& out, std::int64_t now) {
    const std::size_t colon = word.find(':');
    if (colon == std::string::npos || colon == 0 || colon > 2) return false;
    const std::string hour = word.substr(0, colon), minute = word.substr(colon + 1, 2);
    if (!allDigits(hour) || !allDigits(minute) || minute.size() != 2) return false;
    const int h = std::stoi(hour), m = std::stoi(minute);
    if (h > 23 || m > 59) return false;
    const std::int64_t base = out.at > 0 ? out.at : now;
    out.at = base - base % kDay + h * 3600 + m * 60;
    if (out.at > now + 900) out.at -= kDay;
    return true;
}

bool takeFrequency(const std::string& word, Contact& out) {
    if (middleOfBand(word) > 0) {
        out.band = lowered(word);
        if (bandAt(out.frequency) != out.band) out.frequency = 0;
        return true;
    }
    const std::string low = lowered(word);
    const bool named = low.ends_with("mhz") || low.ends_with("khz");
    if (!named && word.find_first_of(".,") == std::string::npos) return false;
    const auto read = parseQuantity(word, Unit::hertz);
    if (!read || !(read->value > 0)) return false;
    const double hertz = read->value < 1e5 ? read->value * 1e6 : read->value;
    if (bandAt(hertz).empty()) return false;
    out.frequency = hertz;
    out.band = bandAt(hertz);
    return true;
}

bool takePower(const std::string& word, Contact& out) {
    if (!lowered(word).ends_with("w")) return false;
    const auto read = parseQuantity(word, Unit::watt);
    if (!read || !(read->value > 0) || read->value > 1e5) return false;
    out.watts = read->value;
    return true;
}

bool takeMode(const std::string& word, Contact& out) {
    const std::string mode = uppered(word);
    if (std::find(std::begin(kModeWords), std::end(kModeWords), mode) == std::end(kModeWords)) return false;
    out.mode = mode;
    return true;
}

bool takeLocator(const std::string& word, Contact& out) {
    if (!placeOfLocator(word)) return false;
    out.locator = tidyLocator(word);
    return true;
}

/// Two or three digits, "59", "599", or a level, "-12".
bool isReport(const std::string& word) {
    const bool level = (word[0] == '-' || word[0] == '+') && word.size() <= 3 && allDigits(word.substr(1));
    return level ||
           ((word.size() == 2 || word.size() == 3) && allDigits(word) && word[0] >= '1' && word[0] <= '5');
}

}  // namespace

std::string usualReport(const std::string& mode) {
    return mode == "SSB" || mode == "USB" || mode == "LSB" || mode == "AM" || mode == "FM" ? "59" : "599";
}

Result<Contact> readContactLine(std::string_view text, const Contact& known, std::int64_t now) {
    const auto parts = partsOf(text);
    auto words = wordsOf(parts.front());
    if (words.empty()) return problem("", "Type a callsign, then the reports: QX1ABC 599 579.");
    Contact out = known;
    out.call = uppered(words.front());
    if (const std::string why = callTrouble(out.call); !why.empty()) return problem("call", why);
    words.erase(words.begin());
    std::vector<std::string> reports, names;
    for (const std::string& word : words) {
        if (takeTime(word, out, now) || takeMode(word, out)) continue;
        if (isReport(word)) {
            reports.push_back(word);
        } else if (!takeFrequency(word, out) && !takePower(word, out) && !takeLocator(word, out)) {
            names.push_back(word);
        }
    }
    if (reports.size() > 2)
        return problem("report", "There are two reports: the one sent, then the one received.");
    if (!reports.empty()) out.sent = reports[0];
    if (reports.size() > 1) out.received = reports[1];
    if (out.sent.empty()) out.sent = usualReport(out.mode);
    if (!names.empty()) {
        out.name.clear();
        for (const std::string& n : names) out.name += (out.name.empty() ? "" : " ") + n;
    }
    if (parts.size() > 1) out.place = parts[1];
    if (parts.size() > 2) out.note = parts[2];
    if (const std::string why = timeTrouble(out.at, now); !why.empty()) return problem("time", why);
    return out;
}

std::string contactLine(const Contact& c) {
    std::string out = c.call;
    const auto add = [&](const std::string& word) {
        if (!word.empty()) out += " " + word;
    };
    add(c.sent);
    add(c.received);
    add(adifTime(c.at).substr(0, 2) + ":" + adifTime(c.at).substr(2, 2));
    add(c.frequency > 0 ? plainNumber(c.frequency / 1e6) + "MHz" : c.band);
    add(c.mode);
    if (c.watts > 0) add(plainNumber(c.watts) + "W");
    add(c.locator);
    add(c.name);
    if (!c.place.empty() || !c.note.empty()) out += ", " + c.place;
    if (!c.note.empty()) out += ", " + c.note;
    return out;
}

}  // namespace ombrek
