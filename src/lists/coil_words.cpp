#include "lists/coil_words.h"

#include <algorithm>
#include <array>
#include <cctype>

#include "core/text/letters.h"
#include "lists/list_line.h"

namespace ombrek {
namespace {

template <typename List>
bool among(const List& list, std::string_view word) {
    return std::find(std::begin(list), std::end(list), word) != std::end(list);
}

constexpr std::string_view kTurnWords[] = {
    "turns", "turn",  "t",       "ts",     "tns",     "wdg",    "wdgn",  "windungen", "windung",    "spires",
    "spire", "tours", "espiras", "espira", "vueltas", "vuelta", "spira", "windingen", "wikkelingen"};
constexpr std::string_view kTapWords[] = {"tap",         "taps",      "tapped",    "tapping", "anzapfung",
                                          "anzapfungen", "abgriff",   "prise",     "prises",  "toma",
                                          "presa",       "aftakking", "centertap", "ct"};

struct WindingName {
    std::string_view word, name;
};
constexpr WindingName kNames[] = {{"primary", "primary"},
                                  {"pri", "primary"},
                                  {"prim", "primary"},
                                  {"prim\u00e4r", "primary"},
                                  {"primaire", "primary"},
                                  {"primario", "primary"},
                                  {"primair", "primary"},
                                  {"secondary", "secondary"},
                                  {"sec", "secondary"},
                                  {"sek", "secondary"},
                                  {"sekund\u00e4r", "secondary"},
                                  {"secondaire", "secondary"},
                                  {"secundario", "secondary"},
                                  {"secondario", "secondary"},
                                  {"tertiary", "tertiary"},
                                  {"main", "main"},
                                  {"link", "link"},
                                  {"koppelwicklung", "link"},
                                  {"coupling", "link"},
                                  {"tickler", "tickler"},
                                  {"feedback", "feedback"},
                                  {"antenna", "antenna"},
                                  {"output", "output"},
                                  {"input", "input"},
                                  {"base", "base"},
                                  {"collector", "collector"},
                                  {"drain", "drain"},
                                  {"gate", "gate"}};

std::string windingName(std::string_view word) {
    const std::string low = lowerText(word);
    for (const WindingName& row : kNames) {
        if (row.word == low ||
            row.word == std::string(low).substr(0, low.size() - (low.ends_with(':') ? 1 : 0)))
            return std::string(row.name);
    }
    return "";
}

/// "28", "28T", "23Wdg": the number, and whether turns were said in the word itself.
struct Count {
    int turns = 0;
    bool said = false;
};
std::optional<Count> countOf(std::string_view word) {
    std::size_t end = 0;
    while (end < word.size() && isDigit(word[end])) ++end;
    if (end == 0 || end > 3) return std::nullopt;
    Count out;
    for (const char c : word.substr(0, end)) out.turns = out.turns * 10 + (c - '0');
    if (end == word.size()) return out;
    std::string tail = lowerText(word.substr(end));
    while (!tail.empty() && (tail.back() == '.' || tail.back() == ',')) tail.pop_back();
    if (!among(kTurnWords, tail)) return std::nullopt;
    out.said = true;
    return out;
}

/// "10T:3T", "10:3:2".
std::vector<int> ratioOf(std::string_view word) {
    std::vector<int> out;
    if (word.find(':') == std::string_view::npos) return out;
    while (!word.empty()) {
        const auto end = std::min(word.find(':'), word.size());
        const auto count = countOf(word.substr(0, end));
        if (!count || count->turns == 0) return {};
        out.push_back(count->turns);
        word.remove_prefix(std::min(end + 1, word.size()));
    }
    return out.size() > 1 ? out : std::vector<int>();
}

int bundleOf(std::string_view word) {
    const std::string low = lowerText(word);
    if (low.starts_with("bifil") || low.starts_with("zweifädig")) return 2;
    if (low.starts_with("trifil")) return 3;
    if (low.starts_with("quadrifil") || low.starts_with("quadfil")) return 4;
    return 0;
}

class CoilReader {
 public:
    explicit CoilReader(std::string_view text) : tokens_(tokensOf(text)) {}

    std::optional<ListCoil> read() {
        takeCore();
        takeWire();
        takeLength();
        int bundle = 0;
        for (const Token& token : tokens_) bundle = std::max(bundle, bundleOf(token.text));
        takeWindings();
        twist(bundle);
        const bool can = takeCan();
        if (out_.core.empty() && out_.windings.empty() && !can) return std::nullopt;
        if (out_.core.empty()) out_.doubts.push_back("The list does not name the core.");
        if (out_.windings.empty() && !can) out_.doubts.push_back("The list does not say how many turns.");
        if (!out_.windings.empty() && out_.wire.empty())
            out_.doubts.push_back("The list does not say which wire.");
        return out_;
    }

 private:
    void takeCore() {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            auto core = coreOf(tokens_[i].text);
            // "FT 37-43", "T 50-2"
            const std::string low = lowerText(tokens_[i].text);
            const bool family = low == "t" || low == "ft" || low == "bn";
            bool two = false;
            if (!core && family && i + 1 < tokens_.size()) {
                core = coreOf(tokens_[i].text + tokens_[i + 1].text);
                two = core.has_value();
            }
            if (!core) continue;
            out_.core = *core;
            tokens_[i].taken = true;
            if (two) tokens_[i + 1].taken = true;
            return;
        }
    }

    void setWire(std::size_t i, std::size_t words, std::string wire) {
        for (std::size_t k = 0; k < words; ++k) tokens_[i + k].taken = true;
        if (out_.wire.empty()) out_.wire = std::move(wire);
    }

    /// A gauge: "#28", "28AWG", "AWG 28", "26 SWG"; a diameter: "0.5 mm", "0,315mm", at most 2.5 mm.
    void takeWire() {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            if (tokens_[i].taken) continue;
            std::string low = lowerText(tokens_[i].text);
            const std::string next = i + 1 < tokens_.size() ? lowerText(tokens_[i + 1].text) : "";
            std::erase(low, '#');
            const bool hash = tokens_[i].text.size() > low.size();
            for (const std::string gauge : {"awg", "swg"}) {
                const std::string capital = gauge == "awg" ? "AWG" : "SWG";
                const auto number = [&](const std::string& text) {
                    std::string digits = text;
                    std::erase(digits, '#');
                    return wholeNumber(digits, 2) ? digits : std::string();
                };
                if (low == gauge && !number(next).empty()) return setWire(i, 2, number(next) + capital);
                if (next == gauge && !number(low).empty()) return setWire(i, 2, number(low) + capital);
                if (low.starts_with(gauge) && !number(low.substr(3)).empty())
                    return setWire(i, 1, number(low.substr(3)) + capital);
                if (low.size() > 3 && low.ends_with(gauge) && !number(low.substr(0, low.size() - 3)).empty())
                    return setWire(i, 1, number(low.substr(0, low.size() - 3)) + capital);
            }
            if (hash && wholeNumber(low, 2)) return setWire(i, 1, low + "AWG");
            if (takeDiameter(i, low, next)) return;
        }
    }

    bool takeDiameter(std::size_t i, std::string low, const std::string& next) {
        if (low.starts_with("\u00f8")) low.erase(0, 2);
        const bool inside = low.size() > 2 && low.ends_with("mm");
        if (inside) low.resize(low.size() - 2);
        const bool copper = next == "cul" || next == "cu" || next.starts_with("enamel");
        if (!inside && !copper && next != "mm" && !next.starts_with("mm")) return false;
        Manner manner;
        manner.comma = Manner::Comma::decimal;
        const auto value = readAmount(low, Unit::none, manner);
        if (!value || value->value < 0.05 || value->value > 2.5) return false;
        setWire(i, inside ? 1 : 2, plainNumber(value->value) + "mm");
        return true;
    }

    void takeLength() {
        struct Length {
            std::string_view unit;
            double metres;
        };
        static constexpr Length lengths[] = {{"cm", 0.01},   {"m", 1},         {"mm", 0.001},
                                             {"in", 0.0254}, {"inch", 0.0254}, {"inches", 0.0254},
                                             {"\"", 0.0254}, {"ft", 0.3048}};
        for (std::size_t i = 0; i < tokens_.size() && out_.wireLength == 0; ++i) {
            if (tokens_[i].taken) continue;
            for (const Length& l : lengths) {
                std::string low = lowerText(tokens_[i].text);
                const bool inside = low.size() > l.unit.size() && low.ends_with(l.unit) &&
                                    isDigit(low[low.size() - l.unit.size() - 1]);
                if (inside) low.resize(low.size() - l.unit.size());
                const bool apart =
                    !inside && i + 1 < tokens_.size() && lowerText(tokens_[i + 1].text) == l.unit;
                if (!inside && !apart) continue;
                const auto value = readAmount(low, Unit::none);
                if (!value || value->said != Amount::Said::number) continue;
                out_.wireLength = value->value * l.metres;
                tokens_[i].taken = true;
                if (apart) tokens_[i + 1].taken = true;
                break;
            }
        }
    }

    /// Whether one of the few words before says "tap".
    bool afterTap(std::size_t i) const {
        for (std::size_t back = 1; back <= 4 && back <= i; ++back) {
            const std::string low = lowerText(tokens_[i - back].text);
            if (among(kTapWords, low)) return true;
            const bool link = low == "at" || low == "bei" || low == "and" || low == "und" || low == "@" ||
                              low == "\u00e0" || low == "en" || low == "a" || low == "from" || countOf(low);
            if (!link) return false;
        }
        return false;
    }

    void addTap(int at) {
        if (out_.windings.empty()) {
            early_.push_back(at);
        } else {
            out_.windings.back().taps.push_back(at);
        }
    }

    bool namesBehind() const {
        for (const Token& token : tokens_) {
            if (!windingName(token.text).empty()) return false;
            if (!token.taken && countOf(token.text)) return true;
            if (const auto count = countOf(token.text); count && out_.windings.size() > 0) return true;
        }
        return false;
    }

    /// The name of a winding: a word of the same clause, before or after its count.
    std::string nameNear(std::size_t i, std::size_t after) const {
        // "10 turns prim. 2 turns sec.": where names stand behind their counts, the one behind is meant.
        const bool parted = after == 0 || after > tokens_.size() ||
                            tokens_[after - 1].own.find_first_of(",;") != std::string::npos;
        if (namesBehind() && !parted && after < tokens_.size()) {
            if (const std::string name = windingName(tokens_[after].text); !name.empty()) return name;
        }
        for (std::size_t back = 1; back <= 3 && back <= i; ++back) {
            if (tokens_[i - back].own.find_first_of(",;") != std::string::npos) break;
            if (const std::string name = windingName(tokens_[i - back].text); !name.empty()) return name;
            if (countOf(tokens_[i - back].text)) break;
        }
        for (std::size_t k = after; k < tokens_.size() && k < after + 3; ++k) {
            if (k > 0 && tokens_[k - 1].own.find_first_of(",;") != std::string::npos && k > after) break;
            if (const std::string name = windingName(tokens_[k].text); !name.empty()) return name;
            if (countOf(tokens_[k].text)) break;
        }
        return "";
    }

    /// Whether turns are said in words somewhere: "5:1" beside them is a ratio, no windings.
    bool turnsSaid() const {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            const auto count = countOf(tokens_[i].text);
            const bool word = i + 1 < tokens_.size() && among(kTurnWords, lowerText(tokens_[i + 1].text));
            if (count && count->turns > 0 && (count->said || word)) return true;
        }
        return false;
    }

    /// A number that is in no winding and no tap is shown, not dropped: "then 3 over the cold end".
    void doubtUnused() {
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            const Token& token = tokens_[i];
            const auto count = countOf(token.text);
            if (token.taken || token.bracketed || !count || count->turns == 0 || out_.windings.empty())
                continue;
            const std::string next = i + 1 < tokens_.size() ? lowerText(tokens_[i + 1].text) : "";
            static constexpr std::string_view others[] = {"x",   "mm",  "cm",    "m",     "in", "swg",
                                                          "awg", "pcs", "off",   "of",    "ga", "gauge",
                                                          "mhz", "khz", "layer", "layers"};
            if (among(others, next) || (next.empty() && i == 0)) continue;
            out_.doubts.push_back("\"" + token.own.substr(0, 20) + (next.empty() ? "" : " " + next) +
                                  "\" was not used: are they turns?");
            return;
        }
    }

    void takeWindings() {
        const bool said = turnsSaid();
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            if (tokens_[i].taken) continue;
            if (const auto ratio = ratioOf(tokens_[i].text); !ratio.empty()) {
                const bool turned = tokens_[i].text.find_first_of("tT") != std::string::npos;
                tokens_[i].taken = true;
                if (said && !turned) continue;
                for (const int turns : ratio) add("", turns);
                continue;
            }
            const auto count = countOf(tokens_[i].text);
            if (!count || count->turns == 0) continue;
            const std::string next = i + 1 < tokens_.size() ? lowerText(tokens_[i + 1].text) : "";
            const bool turnWord = !count->said && among(kTurnWords, next);
            if (afterTap(i)) {
                tokens_[i].taken = true;
                addTap(count->turns);
                i += turnWord;
                continue;
            }
            const std::size_t after = i + 1 + turnWord;
            std::string name = nameNear(i, after);
            // "2 x 10 turns": the first number is how many windings.
            if (next == "x" && i + 2 < tokens_.size() && countOf(tokens_[i + 2].text)) {
                times_ = count->turns;
                tokens_[i].taken = true;
                ++i;
                continue;
            }
            // A number without the word is a winding where it is named: "2 turns primary, 3 secondary".
            if (!count->said && !turnWord && (name.empty() || out_.windings.empty())) continue;
            add(std::move(name), count->turns);
            tokens_[i].taken = true;
            i += turnWord;
        }
        doubtUnused();
        for (const Token& token : tokens_) centre(lowerText(token.text));
        nameThem();
    }

    void add(std::string name, int turns) {
        if (turns > 500) return;
        out_.windings.push_back({std::move(name), turns, std::exchange(early_, {})});
    }

    /// "centre-tapped": a tap in the middle of the first winding.
    void centre(const std::string& word) {
        const bool centred = word.starts_with("center-tap") || word.starts_with("centre-tap") ||
                             word == "centertap" || word == "mittelanzapfung" || word == "ct";
        if (!centred || out_.windings.empty() || !out_.windings.front().taps.empty()) return;
        if (out_.windings.front().turns % 2 == 0)
            out_.windings.front().taps = {out_.windings.front().turns / 2};
    }

    void nameThem() {
        static constexpr std::array<const char*, 4> names{"primary", "secondary", "tertiary", "fourth"};
        auto& all = out_.windings;
        for (std::size_t i = 0; i < all.size(); ++i) {
            if (!all[i].name.empty()) continue;
            std::string name = all.size() == 1 ? "main" : names[std::min<std::size_t>(i, 3)];
            const bool used =
                std::any_of(all.begin(), all.end(), [&](const auto& w) { return w.name == name; });
            all[i].name = used ? "winding " + std::to_string(i + 1) : name;
        }
        for (std::size_t i = 0; i < all.size(); ++i) {
            for (std::size_t k = 0; k < i; ++k) {
                if (all[k].name == all[i].name) all[i].name += " " + std::to_string(i + 1);
            }
        }
        for (auto& winding : all) {
            for (const int at : winding.taps) {
                if (at >= winding.turns)
                    out_.doubts.push_back("A tap at " + std::to_string(at) + " of " +
                                          std::to_string(winding.turns) + " turns cannot be.");
            }
        }
    }

    void twist(int bundle) {
        auto& all = out_.windings;
        if (bundle == 0 && times_ > 1 && times_ <= 4 && all.size() == 1) bundle = -times_;
        if (bundle == 0 || all.empty()) return;
        const int count = std::abs(bundle);
        if (all.size() == 1) {
            const ListCoil::Winding one = all.front();
            all.clear();
            for (int i = 0; i < count; ++i)
                all.push_back({std::string(1, char('a' + i)), one.turns, one.taps});
        }
        if (bundle < 0) return;
        for (int i = 0; i < count && i < int(all.size()); ++i)
            out_.twisted.push_back(all[std::size_t(i)].name);
        if (out_.twisted.size() < 2) out_.twisted.clear();
    }

    /// "10.7 MHz IF can, pink core": wound already, told by its paint.
    bool takeCan() {
        bool can = false;
        for (std::size_t i = 0; i < tokens_.size(); ++i) {
            const std::string low = lowerText(tokens_[i].text);
            can = can || low == "can" || low == "ift" || low == "filterspule" || low == "bandfilter" ||
                  (low == "if" && i + 1 < tokens_.size() && byWord(tokens_[i + 1].text)[PartKind::coil] > 0);
        }
        if (!can || !out_.core.empty() || !out_.windings.empty()) return false;
        out_.core = untaken(tokens_);
        return true;
    }

    std::vector<Token> tokens_;
    ListCoil out_;
    std::vector<int> early_;  ///< taps said before their winding
    int times_ = 0;
};

}  // namespace

std::optional<std::string> coreOf(std::string_view word) {
    std::string text;
    for (const char c : word) {
        if (c != '#' && c != ' ') text += char(std::toupper(static_cast<unsigned char>(c)));
    }
    std::string family;
    for (const std::string_view known : {"FT", "BN", "T"}) {
        if (family.empty() && text.starts_with(known)) family = known;
    }
    if (family.empty()) return std::nullopt;
    text.erase(0, family.size());
    if (text.starts_with('-')) text.erase(0, 1);
    const auto dash = text.find_first_of("-/");
    if (dash == 0 || dash == std::string::npos || dash + 1 >= text.size()) return std::nullopt;
    std::string size = text.substr(0, dash), mix = text.substr(dash + 1);
    const auto numbered = [](const std::string& part, std::size_t least, std::size_t most) {
        std::size_t digits = 0;
        while (digits < part.size() && isDigit(part[digits])) ++digits;
        const bool letter =
            digits + 1 == part.size() && std::isalpha(static_cast<unsigned char>(part[digits]));
        return digits >= least && digits <= most && (digits == part.size() || letter);
    };
    const bool two = family == "BN";
    if (!numbered(size, 2, two ? 2 : 3) || !numbered(mix, two ? 3 : 1, two ? 4 : 3)) return std::nullopt;
    return family + size + "-" + mix;
}

KindEvidence coilEvidence(const std::vector<Token>& tokens) {
    KindEvidence out;
    double& coil = out[PartKind::coil];
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        if (coreOf(tokens[i].text)) coil = std::max(coil, 5.0);
        if (!ratioOf(tokens[i].text).empty() && tokens[i].text.find_first_of("tT") != std::string::npos)
            coil = std::max(coil, 5.0);
        const auto count = countOf(tokens[i].text);
        if (count && count->said) coil = std::max(coil, 3.0);
        const std::string low = lowerText(tokens[i].text);
        const std::string next = i + 1 < tokens.size() ? lowerText(tokens[i + 1].text) : "";
        if ((low == "if" && next == "can") || low == "ift") coil = std::max(coil, 4.0);
    }
    return out;
}

std::optional<ListCoil> readCoilWords(std::string_view text) { return CoilReader(text).read(); }

}  // namespace ombrek
