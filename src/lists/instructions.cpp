#include "lists/instructions.h"

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <set>

#include "core/text/letters.h"
#include "formats/encoding.h"
#include "lists/amount.h"
#include "lists/designators.h"
#include "lists/kind_evidence.h"
#include "lists/phrase_file.h"
#include "lists/token.h"
#include "station/board/cautions.h"
#include "station/board/plan_from_parts.h"
#include "station/parts_in/hardware.h"

namespace ombrek {
namespace {

constexpr std::size_t kLongestTitle = 90;

bool inner(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || static_cast<unsigned char>(c) >= 0x80;
}

template <typename List>
bool says(std::string_view low, const List& phrases) {
    if constexpr (std::is_same_v<List, PhraseSet>) {
        return phrases.in(low);
    } else {
        return std::any_of(std::begin(phrases), std::end(phrases), [&](std::string_view phrase) {
            return findWord(low, phrase) != std::string_view::npos;
        });
    }
}

/// Words of data/words/steps.txt, by their sense.
struct StepWords {
    PhraseSet fit, wind, last, forbid, test, keep;
    std::vector<std::string> near;
};
const StepWords& stepWords() {
    static const StepWords all = [] {
        StepWords out;
        const std::pair<const char*, PhraseSet*> lists[] = {{"fit", &out.fit},   {"wind", &out.wind},
                                                            {"last", &out.last}, {"forbid", &out.forbid},
                                                            {"test", &out.test}, {"keep", &out.keep}};
        for (const PhraseRow& row : readPhrases("steps.txt")) {
            for (const auto& [sense, list] : lists) {
                if (row.sense == sense) list->add(row.text);
            }
            if (row.sense == "near") out.near.push_back(row.text);
        }
        return out;
    }();
    return all;
}

struct Tool {
    std::string_view word, name;
};
constexpr Tool kTools[] = {{"soldering iron", "soldering iron"},
                           {"l\u00f6tkolben", "soldering iron"},
                           {"fer \u00e0 souder", "soldering iron"},
                           {"soldador", "soldering iron"},
                           {"iron", "soldering iron"},
                           {"solder wick", "solder wick"},
                           {"desoldering braid", "solder wick"},
                           {"entl\u00f6tlitze", "solder wick"},
                           {"flux remover", "flux remover"},
                           {"long-nose pliers", "fine pliers"},
                           {"long nose pliers", "fine pliers"},
                           {"round-nose pliers", "round-nose pliers"},
                           {"pliers", "pliers"},
                           {"zange", "pliers"},
                           {"pince", "pliers"},
                           {"alicates", "pliers"},
                           {"side cutters", "flush cutters"},
                           {"flush cutters", "flush cutters"},
                           {"wire cutters", "flush cutters"},
                           {"seitenschneider", "flush cutters"},
                           {"cutters", "flush cutters"},
                           {"tweezers", "tweezers"},
                           {"pinzette", "tweezers"},
                           {"screwdriver", "screwdriver"},
                           {"schraubendreher", "screwdriver"},
                           {"tournevis", "screwdriver"},
                           {"destornillador", "screwdriver"},
                           {"nut driver", "nut driver"},
                           {"nut-driver", "nut driver"},
                           {"wrench", "wrench"},
                           {"spanner", "wrench"},
                           {"drill press", "drill press"},
                           {"drill", "drill"},
                           {"bohrer", "drill"},
                           {"perceuse", "drill"},
                           {"taladro", "drill"},
                           {"file", "file"},
                           {"knife", "knife"},
                           {"messer", "knife"},
                           {"sandpaper", "sandpaper"},
                           {"emery", "emery paper"},
                           {"heat gun", "heat gun"},
                           {"hot glue", "hot glue"},
                           {"glue", "glue"},
                           {"epoxy", "epoxy"},
                           {"tape", "tape"},
                           {"magnifier", "magnifier"},
                           {"loupe", "loupe"},
                           {"lupe", "loupe"},
                           {"multimeter", "multimeter"},
                           {"ohmmeter", "multimeter"},
                           {"voltmeter", "multimeter"},
                           {"dvm", "multimeter"},
                           {"dmm", "multimeter"},
                           {"multim\u00e8tre", "multimeter"},
                           {"mult\u00edmetro", "multimeter"},
                           {"l/c meter", "L/C meter"},
                           {"lc meter", "L/C meter"},
                           {"lcr meter", "LCR meter"},
                           {"oscilloscope", "oscilloscope"},
                           {"oszilloskop", "oscilloscope"},
                           {"scope", "oscilloscope"},
                           {"frequency counter", "frequency counter"},
                           {"counter", "frequency counter"},
                           {"signal generator", "signal generator"},
                           {"dummy load", "dummy load"},
                           {"wattmeter", "wattmeter"},
                           {"power meter", "power meter"},
                           {"power supply", "power supply"},
                           {"bench supply", "power supply"},
                           {"netzteil", "power supply"},
                           {"wrist strap", "wrist strap"},
                           {"calliper", "calliper"},
                           {"caliper", "calliper"},
                           {"toothpick", "toothpick"},
                           {"heatsink compound", "heatsink compound"},
                           {"thermal paste", "heatsink compound"}};

/// What a line begins with when it begins an instruction: "12.", "3.4", "Step 5:", "[ ]", "-".
struct Lead {
    std::string number;
    std::size_t size = 0;
    bool boxed = false;
};
/// "a) Fit R1", "A1. Fit R1", "5.1 Fit R1", "A1 Fit R1": a number with a letter or a point, before a word
/// that is no unit.
void takeLettered(std::string_view line, std::size_t at, Lead& out) {
    std::size_t end = at;
    const bool letter = end < line.size() &&
                        ((line[end] >= 'a' && line[end] <= 'z') || (line[end] >= 'A' && line[end] <= 'Z'));
    if (letter) ++end;
    const std::size_t figures = end;
    while (end < line.size() && (isDigit(line[end]) || (line[end] == '.' && end > figures &&
                                                        end + 1 < line.size() && isDigit(line[end + 1]))))
        ++end;
    if (end == at || end - at > 6 || end >= line.size()) return;
    const char mark = line[end];
    const bool marked =
        (mark == ')' || mark == '.' || mark == ':') && end + 1 < line.size() && line[end + 1] == ' ';
    const std::string_view rest = trimmed(line.substr(std::min(end + (marked ? 1 : 0), line.size())));
    const std::string word = lowerText(rest.substr(0, rest.find(' ')));
    const bool verb = stepWords().fit.holds(word) || stepWords().test.holds(word);
    // "3.1 The resistors are mounted": a number with a point before a sentence; "3.3 V" and "3.3 Volts" are
    // none.
    const bool part =
        readDesignator(rest.substr(0, rest.find(' '))).has_value() &&
        rest.find(' ') != std::string_view::npos &&
        std::count_if(rest.begin(), rest.end(), [](char c) { return c >= 'a' && c <= 'z'; }) > 8;
    static constexpr std::string_view units[] = {"volt", "volts", "ohm",    "ohms",
                                                 "watt", "watts", "ampere", "amps"};
    const bool dotted =
        !letter && line.substr(at, end - at).find('.') != std::string_view::npos && mark == ' ';
    const bool capital =
        rest.size() > 2 && rest[0] >= 'A' && rest[0] <= 'Z' && rest[1] >= 'a' && rest[1] <= 'z';
    const bool sentence =
        dotted &&
        (part || (capital && std::find(std::begin(units), std::end(units), word) == std::end(units)));
    // "R1 10k" is a part, "5.1 V" a voltage; "a" alone an article.
    if (!sentence && !(verb && mark == ' ' && end > figures) &&
        !(marked && !rest.empty() && (end > figures || letter)))
        return;
    if (marked && !verb && end > figures && letter) return;
    out.number = std::string(line.substr(at, end - at));
    out.size = end + (marked ? 1 : 0);
}

std::optional<Lead> leadOf(std::string_view line) {
    std::size_t i = 0;
    Lead out;
    for (const std::string_view box :
         {"[ ]", "[x]", "[]", "( )", "\u25a1", "\u2610", "\u25a2", "\u2022", "* ", "- ", "___ ", "__ "}) {
        if (line.starts_with(box)) {
            i = box.size();
            out.size = i;
            break;
        }
    }
    while (i < line.size() && line[i] == ' ') ++i;
    const std::string low = lowerText(line.substr(i, 12));
    std::size_t word = 0;
    for (const std::string_view name : {"step ", "schritt ", "\u00e9tape ", "paso ", "nr. ", "no. "}) {
        if (low.starts_with(name)) word = name.size();
    }
    std::size_t at = i + word, end = at;
    // "3.4", "1-1"
    const bool boxed = out.size > 0;
    while (end < line.size() && (isDigit(line[end]) || ((line[end] == '.' || line[end] == '-') && end > at &&
                                                        end + 1 < line.size() && isDigit(line[end + 1]))))
        ++end;
    const bool outline = line.substr(at, end - at).find('-') != std::string_view::npos || boxed;
    const bool words = end + 1 < line.size() && line[end] == ' ' &&
                       line.find_first_not_of(' ', end) != std::string_view::npos &&
                       !isDigit(line[line.find_first_not_of(' ', end)]);
    const bool mark =
        end < line.size() && (line[end] == '.' || line[end] == ')' || line[end] == ':' || line[end] == '-');
    // "7-" and "3.3 V …" are no numbers of steps.
    const bool spaced = mark && (end + 1 == line.size() || line[end + 1] == ' ');
    if (end > at && end - at <= 6 && (spaced || word > 0 || (outline && words))) {
        out.number = std::string(line.substr(at, end - at));
        out.size = end + (mark ? 1 : 0);
    }
    out.boxed = boxed;
    if (out.number.empty()) takeLettered(line, i, out);
    if (out.size == 0) return std::nullopt;
    return out;
}

/// The sentences of a text; a point inside a number or an abbreviation ends none.
std::vector<std::string> sentencesOf(const std::string& text) {
    std::vector<std::string> out;
    std::string sentence;
    for (std::size_t i = 0; i < text.size(); ++i) {
        sentence += text[i];
        const bool mark = text[i] == '.' || text[i] == '!' || text[i] == '?' || text[i] == ';';
        const bool last = i + 1 >= text.size();
        const bool next =
            !last && text[i + 1] == ' ' && i + 2 < text.size() && !(text[i + 2] >= 'a' && text[i + 2] <= 'z');
        if (mark && (last || next || text[i] == ';' || text[i] == '!')) {
            if (!trimmed(sentence).empty()) out.emplace_back(trimmed(sentence));
            sentence.clear();
        }
    }
    if (!trimmed(sentence).empty()) out.emplace_back(trimmed(sentence));
    return out;
}

std::string shortened(const std::string& text) {
    if (text.size() <= kLongestTitle) return text;
    std::size_t end = text.find_last_of(' ', kLongestTitle);
    if (end == std::string::npos || end < kLongestTitle / 2) end = kLongestTitle;
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
    return text.substr(0, end) + " \u2026";
}

/// "Install the 10 nF capacitors at C1", "the 2N3904s go in at Q1": what goes there is the part itself, not a
/// neighbour; "the socket at U3" is one.
bool itselfAt(const std::string& before, char letter) {
    static constexpr std::pair<std::string_view, char> things[] = {
        {"capacitor", 'C'}, {"electrolytic", 'C'}, {"resistor", 'R'}, {"diode", 'D'}, {"transistor", 'Q'},
        {"crystal", 'X'},   {"inductor", 'L'},     {"choke", 'L'},    {"toroid", 'L'}};
    if (!before.ends_with(" at") && !before.ends_with(" as")) return false;
    if (before.ends_with("go in at") || before.ends_with("goes in at")) return true;
    return std::any_of(std::begin(things), std::end(things), [&](const auto& thing) {
        return thing.second == letter && before.find(thing.first) != std::string::npos;
    });
}

bool nearWordBefore(const std::string& low, std::size_t begin) {
    const std::string before(trimmed(std::string_view(low).substr(0, begin)));
    if (itselfAt(before, char(std::toupper(static_cast<unsigned char>(low[begin]))))) return false;
    for (const std::string_view all : {"all of", "both of", "each of", "alle von", "tous les"}) {
        if (before.ends_with(all)) return false;
    }
    const auto& near = stepWords().near;
    return std::any_of(near.begin(), near.end(), [&](std::string_view word) {
        return before.size() >= word.size() && before.ends_with(word) &&
               (before.size() == word.size() || !inner(before[before.size() - word.size() - 1]));
    });
}

/// Without what a thing is for: "so the cans do not short the tracks" forbids nothing. As long as it was.
std::string withoutPurpose(std::string low) {
    static constexpr std::string_view words[] = {" so that ",  " so the ",   " so they ",  " so it ",
                                                 " so you ",   " in order ", " to avoid ", " damit ",
                                                 " pour que ", " afin ",     " para que "};
    for (const std::string_view word : words) {
        for (auto at = low.find(word); at != std::string::npos; at = low.find(word, at + 1)) {
            const std::size_t end = std::min(low.find_first_of(",;", at), low.size());
            std::fill(low.begin() + std::ptrdiff_t(at), low.begin() + std::ptrdiff_t(end), ' ');
        }
    }
    return low;
}

/// A part of a sentence with a verb of its own: "C1 und C2 bestücken, IC1 noch nicht einsetzen".
struct Clause {
    std::size_t begin = 0, end = 0;
    bool fits = false, forbids = false;
    bool exception = false;  ///< it begins with "but", "without" …
    bool inherited = false;  ///< its verb is that of the clause before
    std::size_t verb = std::string::npos;
};

/// The clauses of a sentence: parted at commas, colons and "but", not inside a run of designators. A clause
/// without a verb goes with the one before, or, at the beginning, with the one behind.
std::vector<Clause> clausesOf(const std::string& low, const std::vector<DesignatorRun>& runs) {
    static constexpr std::string_view buts[] = {" but ",
                                                " aber ",
                                                " mais ",
                                                " pero ",
                                                " ma ",
                                                " mas ",
                                                " maar ",
                                                " men ",
                                                " ale ",
                                                " except",
                                                " leaving ",
                                                " excluding ",
                                                " other than ",
                                                " apart from ",
                                                " omitting ",
                                                " skipping ",
                                                " save for ",
                                                " without ",
                                                " au\u00dfer ",
                                                " ausser ",
                                                " bis auf ",
                                                " ohne ",
                                                " sauf ",
                                                " except\u00e9 ",
                                                " excepto ",
                                                " salvo ",
                                                " tranne ",
                                                " eccetto ",
                                                " exceto ",
                                                " behalve ",
                                                " utom ",
                                                " opr\u00f3cz ",
                                                " and not ",
                                                " und nicht ",
                                                " et pas ",
                                                " y no ",
                                                " with the exception of ",
                                                " but leave ",
                                                " but omit ",
                                                " but skip ",
                                                " but save "};
    std::vector<std::size_t> cuts{0};
    auto run = runs.begin();  // the first that does not end before here
    for (std::size_t i = low.find_first_of(" ,:()"); i != std::string::npos;
         i = low.find_first_of(" ,:()", i + 1)) {
        while (run != runs.end() && run->end <= i) ++run;
        if (run != runs.end() && i > run->begin) continue;
        const bool but =
            low[i] == ' ' && std::any_of(std::begin(buts), std::end(buts), [&](std::string_view word) {
                return std::string_view(low).substr(i).starts_with(word);
            });
        if (low[i] != ' ' || but) cuts.push_back(i);
    }
    cuts.push_back(low.size());
    std::vector<Clause> out;
    for (std::size_t k = 0; k + 1 < cuts.size(); ++k) {
        Clause clause{cuts[k], cuts[k + 1]};
        const std::string_view text = std::string_view(low).substr(clause.begin, clause.end - clause.begin);
        clause.fits =
            says(text, stepWords().fit) || (says(text, stepWords().last) && !says(low, stepWords().test));
        clause.forbids = says(text, stepWords().forbid);
        clause.exception = std::any_of(std::begin(buts), std::end(buts), [&](std::string_view word) {
            // "leaving L3 until later" names a part, "leaving a gap" none.
            return text.starts_with(word) &&
                   std::any_of(runs.begin(), runs.end(), [&](const DesignatorRun& run) {
                       return run.begin >= clause.begin && run.begin <= clause.begin + word.size() + 4;
                   });
        });
        clause.forbids = clause.forbids || (clause.exception && !clause.fits) ||
                         (clause.exception && !text.starts_with(" but ") && !text.starts_with(" aber ") &&
                          !text.starts_with(" mais ") && !text.starts_with(" pero "));
        for (const PhraseSet* list : {&stepWords().fit, &stepWords().last}) {
            const std::size_t at = list->first(text);
            if (at != std::string::npos) clause.verb = std::min(clause.verb, clause.begin + at);
        }
        out.push_back(clause);
    }
    for (std::size_t k = 1; k < out.size(); ++k) {
        if (out[k].fits || out[k].forbids) continue;
        out[k].fits = out[k - 1].fits;
        out[k].forbids = out[k - 1].forbids;
        out[k].verb = out[k - 1].verb;
        out[k].inherited = out[k].fits;
    }
    if (out.size() > 1 && !out[0].fits && !out[0].forbids && out[1].fits &&
        (!out[1].forbids || out[1].exception)) {
        out[0].fits = true;
        out[0].verb = out[1].verb;
    }
    return out;
}

/// "Fit the shield over L1, then L2": before the clause the verb's parts only say where, so whether those of
/// the clause do too cannot be told.
bool mayBePlaces(const Clause& clause, const std::string& low, const std::vector<DesignatorRun>& runs) {
    bool places = false;
    for (const DesignatorRun& run : runs) {
        if (!clause.inherited || run.begin < clause.verb || run.begin >= clause.begin) continue;
        if (!nearWordBefore(low, run.begin)) return false;
        places = true;
    }
    return places;
}

void readSentence(const std::string& sentence, PastedStep& step) {
    const std::string low = withoutPurpose(lowerText(sentence));
    const bool forbids = says(low, stepWords().forbid), tests = says(low, stepWords().test);
    if (forbids || tests) step.holds.push_back(sentence);
    if (says(low, stepWords().keep)) step.keeps.push_back(sentence);
    // "Before fitting U1, check …" fits nothing.
    const bool beforeFirst = low.starts_with("before") || low.starts_with("bevor") ||
                             low.starts_with("avant") || low.starts_with("antes");
    const auto runs = designatorRuns(sentence);
    const auto clauses = clausesOf(low, runs);
    // In these tongues the verb stands behind its parts.
    static constexpr std::string_view behind[] = {
        "l\u00f6ten", "einl\u00f6ten", "best\u00fccken", "einsetzen", "montieren", "wickeln", "einstecken",
        "einpressen", "eingesetzt", "eingel\u00f6tet", "best\u00fcckt", "montiert", "plaatsen", "solderen",
        "monteren",
        // What is done to a part, after it: "U1 and U2 are pushed into their sockets".
        "fitted", "installed", "soldered", "inserted", "mounted", "placed", "attached", "pushed", "pressed",
        "plugged", "seated", "fastened", "goes in", "go in", "goes into", "go into", "wound", "mont\u00e9s",
        "soud\u00e9s", "plac\u00e9s"};
    for (const DesignatorRun& run : runs) {
        const auto clause = std::find_if(clauses.begin(), clauses.end(), [&](const Clause& c) {
            return run.begin >= c.begin && run.begin < c.end;
        });
        if (clause == clauses.end()) continue;
        if (clause->forbids) {
            step.doubts.push_back(run.refs.front() + " is named, and it says not to: it is not fitted here.");
            step.excepted.insert(step.excepted.end(), run.refs.begin(), run.refs.end());
            continue;
        }
        const bool after = run.begin > clause->verb || says(low, behind);
        const bool where = nearWordBefore(low, run.begin);
        if (!clause->fits && !where && !tests && !beforeFirst)
            step.doubts.push_back(run.refs.front() + " is named, and no word says what is done with it.");
        if (!clause->fits || !after || beforeFirst || where) continue;
        if (mayBePlaces(*clause, low, runs)) {
            step.doubts.push_back(run.refs.front() +
                                  " may go in here, or only say where: the sentence leaves it open.");
            continue;
        }
        // "Wind T1": where a later step puts it in, this one does not.
        const auto piece = std::string_view(low).substr(clause->begin, clause->end - clause->begin);
        auto& into = says(piece, stepWords().wind) ? step.winds : step.fits;
        for (const std::string& ref : run.refs) {
            if (std::find(into.begin(), into.end(), ref) == into.end()) into.push_back(ref);
        }
        if (!run.doubt.empty()) step.doubts.push_back(run.doubt);
    }
}

void readTools(const std::string& text, PastedStep& step) {
    static const PhraseSet any = [] {
        PhraseSet out;
        for (const Tool& tool : kTools) {
            out.add(std::string(tool.word));
            out.add(std::string(tool.word) + "s");
        }
        return out;
    }();
    std::string low = lowerText(text);
    if (!any.in(low)) return;
    for (const Tool& tool : kTools) {
        for (const std::string& word : {std::string(tool.word), std::string(tool.word) + "s"}) {
            const std::size_t at = findWord(low, word);
            if (at == std::string::npos) continue;
            low.replace(at, word.size(), word.size(), '#');
            if (std::find(step.tools.begin(), step.tools.end(), tool.name) == step.tools.end())
                step.tools.emplace_back(tool.name);
        }
    }
}

/// "( ) R1, 4.7K (yel-vio-red)": a box before a part is to fit it; so are parts with nothing behind them but
/// a value or a bracket, "3. D1, D2", "5. R5: 22k".
bool listedPart(const PastedStep& step, const std::string& sentence) {
    const auto runs = designatorRuns(sentence);
    if (runs.empty() || runs.front().begin != 0) return false;
    const std::string low = lowerText(sentence);
    if (says(low, stepWords().test) || says(low, stepWords().forbid)) return false;
    const std::string_view rest = trimmed(std::string_view(sentence).substr(runs.front().end));
    return step.boxed || rest.empty() || rest == "." || rest.starts_with(':') || rest.starts_with('(');
}

void finish(PastedStep& step) {
    std::string text;
    for (const char c : step.text) {
        if (!((c == ' ' || c == '\t') && text.ends_with(' '))) text += c == '\t' ? ' ' : c;
    }
    step.text = std::string(trimmed(text));
    const auto sentences = sentencesOf(step.text);
    if (sentences.empty()) return;
    std::string title = sentences.front();
    while (!title.empty() && (title.back() == '.' || title.back() == ';')) title.pop_back();
    step.title = shortened(title);
    if (listedPart(step, sentences.front()))
        step.fits = designatorRuns(sentences.front()).front().refs;
    else
        readSentence(sentences.front(), step);
    for (std::size_t i = 1; i < sentences.size(); ++i) readSentence(sentences[i], step);
    // "R1 through R9, but not R5": the exception goes before the run.
    std::erase_if(step.fits, [&](const std::string& ref) {
        return std::find(step.excepted.begin(), step.excepted.end(), ref) != step.excepted.end();
    });
    readTools(step.text, step);
    const std::string low = withoutPurpose(lowerText(step.text));
    const bool banned = says(low, stepWords().forbid);
    if (step.fits.empty() && says(low, stepWords().fit) && !banned)
        step.doubts.push_back("It fits something and names no part by its designator.");
}

/// Coils that a step winds and no other fits are fitted there.
void fitWound(std::vector<PastedStep>& steps) {
    std::set<std::string> fitted;
    for (const PastedStep& step : steps) fitted.insert(step.fits.begin(), step.fits.end());
    for (PastedStep& step : steps) {
        for (const std::string& ref : step.winds) {
            if (fitted.insert(ref).second) step.fits.push_back(ref);
        }
    }
}

/// "CHECK", "DIODES": a line in capitals alone.
bool inCapitals(std::string_view body) {
    int capitals = 0;
    for (const char c : body) {
        capitals += c >= 'A' && c <= 'Z';
        if (isDigit(c) || (c >= 'a' && c <= 'z') || c == '.' || c == ',') return false;
    }
    return capitals >= 4;
}

/// A text of nothing but parts, a line a step: "R1 R2 R3" and below it "U1 (last!)".
bool linesOfParts(const std::vector<std::pair<std::size_t, std::string>>& lines) {
    std::size_t all = 0, parts = 0;
    for (const auto& [number, body] : lines) {
        const auto runs = designatorRuns(body);
        all += !body.empty();
        parts += !runs.empty() && runs.front().begin == 0;
    }
    return all >= 2 && parts == all;
}

/// A short line without a full stop above instructions: a stage of the work.
bool isStage(std::string_view body) {
    const auto words = tokensOf(body);
    if (words.size() > 8 || body.ends_with('.') || body.ends_with(',')) return false;
    const std::string low = lowerText(body);
    return !says(low, stepWords().fit) || body.ends_with(':') || low.starts_with("stage") ||
           low.starts_with("section");
}

}  // namespace

std::vector<PastedStep> readInstructions(const std::string& bytes) {
    const std::string text = withoutLongLines(toUtf8(bytes));
    std::vector<std::pair<std::size_t, std::string>> lines;
    std::size_t number = 0, led = 0;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        lines.emplace_back(++number, std::string(trimmed(text.substr(from, end - from))));
        led += leadOf(lines.back().second).has_value();
        from = end + 1;
    }
    std::vector<PastedStep> out;
    std::string stage;
    bool open = false, blank = true;
    const bool each = led == 0 && linesOfParts(lines);
    for (const auto& [at, body] : lines) {
        if (body.empty()) {
            blank = true;
            if (led == 0) open = false;
            continue;
        }
        const auto lead = leadOf(body);
        // No instruction is that long: what is no text of steps at all comes in pieces.
        constexpr std::size_t kLongest = 20000;
        const bool full = !out.empty() && out.back().text.size() > kLongest;
        const bool begins = lead.has_value() || (led == 0 && !open) || full || each;
        if (!lead && led > 0 && (blank || !open || inCapitals(body)) && isStage(body)) {
            stage = body;
            while (!stage.empty() && stage.back() == ':') stage.pop_back();
            open = false;
            continue;
        }
        // A page's head or foot between two lines of one instruction.
        const std::string low = lowerText(body);
        if (low.starts_with("page ") || low.starts_with("seite ")) continue;
        if (begins || out.empty()) {
            PastedStep step;
            step.line = at;
            step.number = lead ? lead->number : "";
            step.boxed = lead && lead->boxed;
            step.text = body.substr(lead ? lead->size : 0);
            step.stage = stage;
            out.push_back(std::move(step));
        } else {
            out.back().text += " " + body;
        }
        open = true;
        blank = false;
    }
    for (PastedStep& step : out) finish(step);
    fitWound(out);
    std::erase_if(out, [](const PastedStep& step) { return step.title.empty(); });
    return out;
}

namespace {

/// "Keep six of the legs until step 14" as something to lay aside: how many, and for which step; the last
/// where the paper does not say.
void keepFor(const PastedStep& from, const std::map<std::string, std::string>& numbered,
             std::vector<Step>& all, std::size_t at) {
    static constexpr std::string_view counts[] = {
        "",     "one", "two",    "three",  "four",     "five",     "six",     "seven",  "eight",
        "nine", "ten", "eleven", "twelve", "thirteen", "fourteen", "fifteen", "sixteen"};
    for (const std::string& sentence : from.keeps) {
        Step::Keep keep;
        const std::string low = lowerText(sentence);
        const bool legs = low.find("lead") != std::string::npos || low.find("leg") != std::string::npos ||
                          low.find("pattes") != std::string::npos || low.find("patas") != std::string::npos ||
                          low.find("beinchen") != std::string::npos || low.find("draht") != std::string::npos;
        keep.what = legs ? "cut leads" : shortened(sentence);
        const auto words = tokensOf(sentence);
        bool behindStep = false;
        for (const Token& token : words) {
            const std::string word = lowerText(token.text);
            const auto named = std::find(std::begin(counts) + 1, std::end(counts), word);
            if (behindStep && numbered.contains(token.text)) keep.until = numbered.at(token.text);
            if (!behindStep && wholeNumber(word, 2)) keep.count = std::max(1, std::stoi(word));
            if (named != std::end(counts)) keep.count = int(named - std::begin(counts));
            behindStep = word == "step" || word == "schritt" || word == "\u00e9tape" || word == "paso";
        }
        if (keep.until.empty()) keep.until = all.back().id;
        if (keep.until != all[at].id) all[at].keeps.push_back(std::move(keep));
    }
}

}  // namespace

std::vector<Step> stepsOf(const std::vector<PastedStep>& pasted, const Kit& kit) {
    std::set<std::string> ids, fitted;
    for (const Step& step : kit.steps) ids.insert(step.id);
    std::vector<Step> out;
    std::map<std::string, std::string> numbered;  ///< ids by the paper's numbers
    int count = 0;
    for (const PastedStep& p : pasted) {
        Step step;
        do {
            step.id = "own-" + std::to_string(++count);
        } while (!ids.insert(step.id).second);
        step.title = p.title;
        for (const std::string& ref : p.fits) {
            if (kit.part(ref) != nullptr && fitted.insert(ref).second) step.fits.push_back(ref);
        }
        for (const Part& part : kit.parts) {  // "the heat sink" has no designator
            if (part.kind == PartKind::other && part.ref.starts_with("HW") && namesThing(p.text, part) &&
                fitted.insert(part.ref).second)
                step.fits.push_back(part.ref);
        }
        if (!out.empty()) step.after = {out.back().id};
        step.minutes = std::max(3.0, 2.0 * double(step.fits.size()));
        if (!p.holds.empty()) {
            step.hold = HoldPoint{};
            for (const std::string& sentence : p.holds)
                step.hold->say += (step.hold->say.empty() ? "" : " ") + sentence;
        }
        const Craft craft = craftOf(kit, step.fits);
        step.note = withMore(p.text == p.title ? "" : p.text, craft.note);
        step.tools = p.tools;
        for (std::string& driver : nutDrivers(p.text)) {
            if (std::find(step.tools.begin(), step.tools.end(), driver) == step.tools.end())
                step.tools.push_back(std::move(driver));
        }
        step.stage = p.stage;
        step.caution = withMore(withMore(cautionsOf(p.text), craft.caution), cautionsOf(craft.note));
        step.number = p.number;
        if (!p.number.empty()) numbered[p.number] = step.id;
        out.push_back(std::move(step));
    }
    for (std::size_t i = 0; i < out.size(); ++i) keepFor(pasted[i], numbered, out, i);
    return out;
}

}  // namespace ombrek
