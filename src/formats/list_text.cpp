#include "formats/list_text.h"

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <set>

#include "formats/designators.h"

namespace ombrek {
namespace {

struct Heading {
    std::string_view word;
    PartKind kind;
};
constexpr std::array<Heading, 17> kHeadings{{{"resistor", PartKind::resistor},
                                             {"capacitor", PartKind::capacitor},
                                             {"ceramic", PartKind::capacitor},
                                             {"electrolytic", PartKind::capacitor},
                                             {"inductor", PartKind::inductor},
                                             {"choke", PartKind::inductor},
                                             {"toroid", PartKind::coil},
                                             {"coil", PartKind::coil},
                                             {"transformer", PartKind::coil},
                                             {"diode", PartKind::diode},
                                             {"transistor", PartKind::transistor},
                                             {"semiconductor", PartKind::transistor},
                                             {"integrated", PartKind::ic},
                                             {"crystal", PartKind::crystal},
                                             {"hardware", PartKind::other},
                                             {"miscellaneous", PartKind::other},
                                             {"connector", PartKind::other}}};

/// A pasted line, joined with those it goes on in.
struct Logical {
    std::size_t line = 0;
    std::string text;
};

bool hasDigit(std::string_view text) {
    return std::any_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
}
bool hasLetter(std::string_view text) {
    return std::any_of(text.begin(), text.end(),
                       [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); });
}

/// "Page 3 of 12", "- 12 -", "Ref  Value  Qty", rules of dashes: nothing to take.
bool isPageMatter(std::string_view text) {
    const std::string low = lowered(text);
    if (!hasLetter(low)) return true;
    static constexpr std::array<std::string_view, 12> words{"page",       "qty",     "quantity", "designator",
                                                            "parts list", "rev",     "ref",      "issue",
                                                            "manual",     "bill of", "value",    "seite"};
    return std::any_of(words.begin(), words.end(), [&](std::string_view word) {
        const auto at = low.find(word);
        return at != std::string::npos && (at == 0 || !(low[at - 1] >= 'a' && low[at - 1] <= 'z'));
    });
}

std::optional<PartKind> headingKind(std::string_view text) {
    const std::string low = lowered(text);
    for (const Heading& h : kHeadings) {
        if (low.find(h.word) != std::string::npos) return h.kind;
    }
    return std::nullopt;
}

/// A heading's tolerance, "Resistors (1/4 W, 5 %)"; 0 if it says none.
double headingTolerance(std::string_view text) {
    const auto sign = text.find('%');
    if (sign == std::string_view::npos) return 0;
    std::size_t from = sign;
    while (from > 0 && (text[from - 1] == ' ' || (text[from - 1] >= '0' && text[from - 1] <= '9') ||
                        text[from - 1] == '.' || text[from - 1] == ','))
        --from;
    const auto value = parseQuantity(trimmed(text.substr(from, sign - from)));
    return value && value->value > 0 && value->value <= 100 ? value->value : 0;
}

/// Columns drawn with bars, leader dots and boxes become blanks.
std::string plainColumns(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '|' || text[i] == '\t') {
            out += "  ";
        } else if (text.substr(i).starts_with("\u2502") || text.substr(i).starts_with("\u25a1") ||
                   text.substr(i).starts_with("\u2610") || text.substr(i).starts_with("\u2022")) {
            out += "  ";
            i += 2;
        } else if (text.substr(i).starts_with("....")) {
            while (i < text.size() && text[i] == '.') ++i;
            --i;
            out += "  ";
        } else if (text.substr(i).starts_with("[ ]") || text.substr(i).starts_with("[x]") ||
                   text.substr(i).starts_with("( )")) {
            out += "  ";
            i += 2;
        } else if (text.substr(i).starts_with("\u00a0")) {
            out += ' ';
            ++i;
        } else {
            out += text[i];
        }
    }
    return out;
}

/// The run that names the line's parts: the one at its beginning (after a number or a tick box), else the
/// last.
std::optional<DesignatorRun> mainRun(std::string_view text) {
    const auto runs = designatorRuns(text);
    if (runs.empty()) return std::nullopt;
    const std::string_view before = text.substr(0, runs.front().begin);
    const bool first = !hasLetter(before) || trimmed(before).size() <= 3 ||
                       lowered(trimmed(before)).ends_with("pcs") || lowered(trimmed(before)).ends_with(" x");
    return first ? runs.front() : runs.back();
}

class Reader {
 public:
    PartsList read(const std::string& text, const Progress& progress) {
        std::size_t from = 0, number = 0;
        while (from < text.size()) {
            const std::size_t end = std::min(text.find('\n', from), text.size());
            ++number;
            if (progress && number % 512 == 0 && !progress(double(from) / double(text.size()))) return {};
            std::string_view raw(text.data() + from, end - from);
            if (raw.size() > kLongestLine) {
                list_.refused.push_back(
                    {number, std::string(raw.substr(0, 60)), "The line is too long for a list."});
            } else {
                take(number, plainColumns(raw));
            }
            from = end + 1;
        }
        flush();
        checkTwice(list_);
        return std::move(list_);
    }

 private:
    static constexpr std::size_t kLongestLine = 1000;

    void take(std::size_t number, const std::string& text) {
        const std::string_view body = trimmed(text);
        if (body.empty()) {
            blank_ = true;
            return;
        }
        const auto run = mainRun(body);
        const bool awaiting = pending_ && awaitsRefs_;
        if (!run) {
            takeWithout(number, text, body);
            return;
        }
        // Designators that go on from a line that ended in a comma, or from a line of nothing but
        // designators.
        const bool onlyRefs = pending_ && onlyDesignators(pending_->text);
        if (awaiting || (onlyRefs && !blank_ && startsLikeMore(*run, body))) {
            pending_->text += (awaitsRefs_ || !onlyRefs ? " " : ", ") + std::string(body);
            awaitsRefs_ = run->goesOn && run->begin == 0;
        } else {
            flush();
            pending_ = Logical{number, std::string(body)};
            awaitsRefs_ = run->goesOn;
        }
        blank_ = false;
    }

    /// A line of designators alone is followed by more of the same letter.
    bool startsLikeMore(const DesignatorRun& run, std::string_view) const {
        const auto pending = designatorRuns(pending_->text);
        const auto a = readDesignator(run.refs.front()), b = readDesignator(pending.front().refs.front());
        return run.begin == 0 && a && b && a->prefix == b->prefix;
    }

    /// No designator: the rest of a line, a heading, a page's head or foot, or something else.
    void takeWithout(std::size_t number, const std::string& text, std::string_view body) {
        const bool indented = !text.empty() && (text[0] == ' ' || text[0] == '\t');
        const bool onlyRefs = pending_ && onlyDesignators(pending_->text).has_value();
        const bool pageMatter =
            isPageMatter(body) && !(onlyRefs && !blank_ && hasDigit(body) && hasLetter(body));
        const auto kind = headingKind(body);
        const bool heading =
            kind && !indented &&
            !(hasDigit(body) && body.find('%') == std::string_view::npos && body.size() > 40) && !onlyRefs;
        if (pageMatter && !(kind && !awaitsRefs_)) return;
        if (awaitsRefs_) return;  // a running head between two halves of a line
        if (heading && !(pending_ && indented)) {
            flush();
            hint_ = *kind;
            hintTolerance_ = headingTolerance(body);
            return;
        }
        const bool open = pending_ && (pending_->text.ends_with(',') || pending_->text.ends_with('-'));
        if (pending_ && !blank_ && (indented || open || onlyRefs || body[0] == '(')) {
            pending_->text += "  " + std::string(body);
            return;
        }
        flush();
        list_.refused.push_back({number, std::string(body), "No designator stands in this line."});
    }

    void flush() {
        if (!pending_) return;
        const Logical line = std::move(*pending_);
        pending_.reset();
        awaitsRefs_ = false;
        const auto run = mainRun(line.text);
        if (!run) return;
        ListFields fields;
        fields.refs = line.text.substr(run->begin, run->end - run->begin);
        std::string before = line.text.substr(0, run->begin);
        const std::string after = line.text.substr(run->end);
        // An item number in front, "12." or with a quantity at the end, is neither a value nor a quantity.
        if (const auto item = trimmed(before); !item.empty() && !hasLetter(item)) {
            const auto rest = trimmed(after);
            const bool numberAtEnd = !rest.empty() && rest.back() >= '0' && rest.back() <= '9' &&
                                     rest.find_last_of(" \t") != std::string_view::npos &&
                                     !hasLetter(rest.substr(rest.find_last_of(" \t")));
            if (item.back() == '.' || item.back() == ')' || numberAtEnd) before.clear();
        }
        fields.description = before + "  " + after;
        ListLine out = understand(fields, hint_, kindFits(run->refs.front()) ? hintTolerance_ : 0);
        out.line = line.line;
        out.text = line.text;
        if (run->goesOn) out.doubts.push_back("The designators break off.");
        const auto runs = designatorRuns(line.text);
        if (runs.size() > 1) {
            for (const DesignatorRun& other : runs) {
                if (other.begin == run->begin) continue;
                const auto a = readDesignator(other.refs.front()), b = readDesignator(run->refs.front());
                if (a && b && a->prefix == b->prefix)
                    out.doubts.push_back(other.refs.front() + " also stands in this line.");
            }
        }
        list_.lines.push_back(std::move(out));
    }

    bool kindFits(const std::string& ref) const {
        const auto designator = readDesignator(ref);
        return designator && kindOf(*designator) == hint_;
    }

    PartsList list_;
    std::optional<Logical> pending_;
    bool awaitsRefs_ = false, blank_ = false;
    PartKind hint_ = PartKind::other;
    double hintTolerance_ = 0;
};

}  // namespace

int PartsList::parts() const {
    std::set<std::string> refs;
    for (const ListLine& line : lines) refs.insert(line.refs.begin(), line.refs.end());
    return int(refs.size());
}

int PartsList::doubtful() const {
    return int(std::count_if(lines.begin(), lines.end(), [](const ListLine& l) { return !l.sure(); }));
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

PartsList readListText(const std::string& bytes, const Progress& progress) {
    return Reader().read(toUtf8(bytes), progress);
}

}  // namespace ombrek
