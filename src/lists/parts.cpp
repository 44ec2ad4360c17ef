#include "lists/parts.h"

#include <algorithm>
#include <map>
#include <set>

#include "lists/designators.h"

namespace ombrek {
namespace {

bool saysSeeTable(const ListLine& line) {
    const std::string low = lowerText(line.text);
    static constexpr std::string_view words[] = {"see ",    "table", "tabelle",    "siehe", "voir",
                                                 "tableau", "tabla", "v\u00e9ase", "vedi",  "(*)",
                                                 "***",     "tbd",   "per band"};
    return std::any_of(std::begin(words), std::end(words),
                       [&](std::string_view word) { return low.find(word) != std::string::npos; }) ||
           line.value == "*";
}

bool hasValue(const ListLine& line) { return line.nominal > 0 || line.link || !line.variants.empty(); }

/// Take a line's designators away from another that only points at it.
void settleTables(PartsList& list) {
    std::map<std::string, std::size_t> valued;
    for (std::size_t i = 0; i < list.lines.size(); ++i) {
        const ListLine& line = list.lines[i];
        if (!hasValue(line) && saysSeeTable(line)) continue;
        for (const std::string& ref : line.refs) valued.try_emplace(ref, i);
    }
    for (std::size_t i = 0; i < list.lines.size(); ++i) {
        ListLine& line = list.lines[i];
        if (hasValue(line) || !saysSeeTable(line)) continue;
        std::erase_if(line.refs, [&](const std::string& ref) {
            const auto hit = valued.find(ref);
            if (hit == valued.end() || hit->second == i) return false;
            ListLine& target = list.lines[hit->second];
            if (target.package.empty()) target.package = line.package;
            return true;
        });
        if (!line.refs.empty() && line.fitted && line.doubts.empty())
            line.doubts.push_back("The list sends you to a table for this value.");
    }
    std::erase_if(list.lines, [](const ListLine& line) { return line.refs.empty(); });
}

}  // namespace

int PartsList::parts() const {
    std::set<std::string> refs;
    for (const ListLine& line : lines) refs.insert(line.refs.begin(), line.refs.end());
    return int(refs.size());
}

int PartsList::doubtful() const {
    return int(std::count_if(lines.begin(), lines.end(), [](const ListLine& l) { return !l.sure(); }));
}

std::vector<ListCoil> coilsOf(const PartsList& list) {
    std::vector<ListCoil> out;
    for (const ListLine& line : list.lines) {
        if (line.kind != PartKind::coil || !line.fitted) continue;
        std::string words = line.value;
        if (line.description != line.value) words += "  " + line.description;
        // A table may have the core in its column of packages.
        if (coreOf(line.package) && words.find(line.package) == std::string::npos)
            words += "  " + line.package;
        auto coil = readCoilWords(words);
        if (!line.variants.empty() &&
            line.value == line.variants) {  // not chosen yet: which turns, nobody says
            coil = ListCoil{};
            coil->doubts = line.doubts;
        }
        if (!coil) continue;
        for (const std::string& ref : line.refs) {
            coil->ref = ref;
            out.push_back(*coil);
        }
    }
    return out;
}

void checkTwice(PartsList& list) {
    std::map<std::string, std::size_t> first;
    for (ListLine& line : list.lines) {
        // What an earlier look found may have been corrected since.
        std::erase_if(line.doubts, [](const std::string& doubt) {
            return doubt.ends_with(" too.") && doubt.find(" stands in line ") != std::string::npos;
        });
        for (const std::string& ref : line.refs) {
            const auto [at, fresh] = first.try_emplace(ref, line.line);
            if (!fresh)
                line.doubts.push_back(ref + " stands in line " + std::to_string(at->second) + " too.");
        }
    }
}

void PartsTaker::head(const Section& section) {
    section_ = section;
    context_.kind = section.kind;
    context_.tolerance = section.tolerance;
    context_.watts = section.watts;
    context_.volts = section.volts;
    context_.fitted = section.fitted;
    context_.prefix = section.prefix;
}

ListLine PartsTaker::reading(const ListFields& fields) const {
    RowContext context = context_;
    // A heading's figures are for parts of its kind.
    const auto runs = designatorRuns(fields.refs, {Letters::any});
    const bool ofKind = !runs.empty() && (byLetters(lettersOf(runs.front().refs.front()))[context.kind] > 0 ||
                                          byLetters(lettersOf(runs.front().refs.front())).lead().by <= 0);
    if (!ofKind && context.kind != PartKind::other) {
        context.tolerance = context.volts = context.watts = 0;
        context.prefix.clear();
    }
    return understand(fields, context);
}

ListLine& PartsTaker::take(const ListFields& fields, std::size_t line, std::string text) {
    ListLine out = reading(fields);
    out.line = line;
    out.text = std::move(text);
    return keep(std::move(out));
}

ListLine& PartsTaker::keep(ListLine line) {
    list_.lines.push_back(std::move(line));
    return list_.lines.back();
}

void PartsTaker::take(Hardware hardware, std::size_t line) {
    hardware.line = line;
    list_.hardware.push_back(std::move(hardware));
}

void PartsTaker::title(const std::string& text) {
    list_.title = text;
    list_.notes.push_back("The first row names no part and is taken as the title: " + text.substr(0, 60) +
                          ".");
}

void PartsTaker::refuse(std::size_t line, std::string text, std::string reason) {
    list_.refused.push_back({line, std::move(text), std::move(reason)});
}

PartsList PartsTaker::finish() {
    settleTables(list_);
    checkTwice(list_);
    list_.coils = coilsOf(list_);
    return std::move(list_);
}

double meritOf(const ListLine& line) {
    double out = 0;
    if (!line.variants.empty()) return 3;  // its doubt is the builder's to settle
    if (unitOf(line.kind) != Unit::none) {
        out += line.nominal > 0 || line.link ? 3 : 0;
    } else {
        out += line.value.empty() ? 0 : 2;
        // A coil or a chip is told by more than one bare number.
        if (line.value.find_first_not_of("0123456789., ") == std::string::npos) out -= 1;
    }
    out += std::min<double>(double(line.refs.size()), 8) * 0.01;
    return out - 0.7 * double(line.doubts.size());
}

}  // namespace ombrek
