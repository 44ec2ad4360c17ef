#include "circuit/deck.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <optional>
#include <set>

#include "circuit/device_words.h"
#include "circuit/expression.h"
#include "core/quantity/quantity.h"
#include "core/text/counted.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr std::size_t kMost = 20000;  ///< elements, subcircuits put in their places
constexpr int kDeepest = 12;          ///< subcircuits in each other

std::string lineText(std::size_t line) { return line == 0 ? "" : "line " + std::to_string(line); }

tl::unexpected<Problem> refused(std::size_t line, const std::string& name, const std::string& sentence) {
    return problem(lineText(line), (name.empty() ? "" : name.substr(0, 40) + ": ") + sentence);
}

/// "name = value" or a value alone, of what stands behind an element's nodes or in a card.
struct Field {
    std::string name, value;
};

/// Parted at blanks, commas and "=" that stand in no brackets; a list in brackets "D(IS=1f N=2)" is opened.
std::vector<Field> fieldsOf(const std::string& text) {
    std::vector<std::string> words;
    std::string word;
    int depth = 0;
    const auto end = [&] {
        if (!word.empty()) words.push_back(std::move(word));
        word.clear();
    };
    for (const char c : text) {
        if (c == '{') ++depth;
        if (c == '}') --depth;
        if (depth <= 0 && c != '}' && std::string_view(" \t,()").find(c) != std::string_view::npos) {
            end();
        } else if (depth <= 0 && c == '=') {
            end();
            words.emplace_back("=");
        } else {
            word += c;
        }
    }
    end();
    std::vector<Field> out;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (i + 2 < words.size() && words[i + 1] == "=") {
            out.push_back({lowered(words[i]), words[i + 2]});
            i += 2;
        } else {
            out.push_back({"", words[i]});
        }
    }
    return out;
}

struct Card {
    std::size_t line;
    std::string text;
};

/// A parameter with its line.
struct Given {
    Field field;
    std::size_t line;
};

struct Subcircuit {
    std::size_t line;
    std::vector<std::string> pins;
    std::vector<Field> defaults;
    std::vector<Card> body;
};

/// What is known inside one subcircuit, or at the top.
struct Scope {
    Scope* outer = nullptr;
    std::map<std::string, double> parameters;
    std::map<std::string, std::string> nodes;     ///< as written → "n4"
    std::map<std::string, std::string> elements;  ///< with a branch, in small letters → "v2"
    std::map<std::string, Card> models;
    std::map<std::string, Subcircuit> inner;
    std::map<std::string, std::string> written;  ///< models that the deck has already → "m1"

    std::optional<double> parameter(const std::string& name) const {
        for (const Scope* s = this; s != nullptr; s = s->outer) {
            if (const auto hit = s->parameters.find(name); hit != s->parameters.end()) return hit->second;
        }
        return std::nullopt;
    }
};

class Writer {
 public:
    explicit Writer(const Netlist& netlist) : netlist_(netlist) {}

    Result<Deck> write() {
        out_.lines.emplace_back("ombrek");
        std::vector<Card> cards;
        for (std::size_t i = 0; i < netlist_.cards.size(); ++i)
            cards.push_back({i < netlist_.cardLines.size() ? netlist_.cardLines[i] : 0, netlist_.cards[i]});
        std::vector<CircuitElement> elements;
        if (const auto read = define(cards, top_, elements); !read) return tl::make_unexpected(read.error());
        if (const auto done = place(netlist_.elements, top_, 0); !done)
            return tl::make_unexpected(done.error());
        // What hangs in the air reads nothing, as on a meter.
        out_.lines.emplace_back(".options rshunt=1e9 itl1=500 itl2=300");
        out_.lines.emplace_back(".end");
        for (const auto& [name, alias] : top_.nodes) {
            if (alias != "0") out_.nodes[alias] = name;
        }
        for (const auto& [name, alias] : top_.elements) out_.branches[alias] = name;
        return std::move(out_);
    }

 private:
    using Done = Result<void>;

    /// Sort cards into models, subcircuits and parameters; what is an element goes to `elements`.
    Done define(const std::vector<Card>& cards, Scope& scope, std::vector<CircuitElement>& elements) {
        std::vector<Given> given;
        for (std::size_t i = 0; i < cards.size(); ++i) {
            const auto words = circuitWords(cards[i].text, true);
            if (words.empty()) continue;
            Done done;
            if (words[0] == ".subckt") {
                done = subcircuit(cards, i, scope);
            } else if (words[0] == ".model") {
                if (words.size() < 3) return refused(cards[i].line, "", "A model wants a name and a kind.");
                scope.models.insert_or_assign(words[1].substr(0, words[1].find('(')), cards[i]);
            } else if (words[0] == ".param") {
                const auto fields = fieldsOf(cards[i].text);
                for (std::size_t f = 1; f < fields.size(); ++f) given.push_back({fields[f], cards[i].line});
            } else if (words[0] == ".global") {
                for (std::size_t w = 1; w < words.size(); ++w) globals_.insert(circuitNode(words[w]));
            } else if (words[0][0] == '.') {
                return refused(cards[i].line, words[0],
                               "is not read here. Models, subcircuits and .param are.");
            } else {
                auto element = readElement(cards[i].text, cards[i].line);
                if (!element) return tl::make_unexpected(element.error());
                elements.push_back(std::move(*element));
            }
            if (!done) return done;
        }
        return parameters(std::move(given), scope);
    }

    Done subcircuit(const std::vector<Card>& cards, std::size_t& i, Scope& scope) {
        const auto words = circuitWords(cards[i].text, true);
        if (words.size() < 3) return refused(cards[i].line, "", "A subcircuit wants a name and its pins.");
        Subcircuit out;
        out.line = cards[i].line;
        const auto fields = fieldsOf(cards[i].text);
        for (std::size_t f = 2; f < fields.size(); ++f) {
            if (lowered(fields[f].value) == "params:") continue;
            if (fields[f].name.empty()) {
                out.pins.push_back(circuitNode(fields[f].value));
            } else {
                out.defaults.push_back(fields[f]);
            }
        }
        int depth = 1;
        for (++i; i < cards.size(); ++i) {
            const auto inside = circuitWords(cards[i].text, true);
            if (!inside.empty() && inside[0] == ".subckt") ++depth;
            if (!inside.empty() && inside[0] == ".ends" && --depth == 0) break;
            out.body.push_back(cards[i]);
        }
        scope.inner.insert_or_assign(words[1], std::move(out));
        return {};
    }

    /// A parameter may rest on one that stands behind it.
    Done parameters(std::vector<Given> given, Scope& scope) {
        while (!given.empty()) {
            std::vector<Given> left;
            Done failed;
            for (const Given& g : given) {
                if (g.field.name.empty())
                    return refused(g.line, g.field.value, "is no parameter; write name=value.");
                const auto value = number(g.field.value, scope, g.line, g.field.name);
                if (value) {
                    scope.parameters[g.field.name] = *value;
                } else {
                    failed = tl::make_unexpected(value.error());
                    left.push_back(g);
                }
            }
            if (left.size() == given.size()) return failed;
            given = std::move(left);
        }
        return {};
    }

    /// A number, a parameter or an expression, reckoned.
    Result<double> number(const std::string& text, const Scope& scope, std::size_t line,
                          const std::string& name) {
        const double plain = spiceNumber(text);
        if (!std::isnan(plain)) return plain;
        std::string inside = text;
        if (inside.size() > 1 && (inside[0] == '\'' || inside[0] == '"') && inside.back() == inside[0])
            inside = inside.substr(1, inside.size() - 2);
        const ExpressionNames names{[&](const std::string& n) { return scope.parameter(n); }, {}, {}};
        const auto read = readExpression(inside, names);
        if (!read) return refused(line, name, read.error().sentence);
        if (!read->number) return refused(line, name, "\"" + text.substr(0, 30) + "\" is no number.");
        return *read->number;
    }

    std::string node(const std::string& written, Scope& scope) {
        const std::string name = circuitNode(written);
        if (name == "0") return "0";
        Scope& home = globals_.contains(name) ? top_ : scope;
        auto& alias = home.nodes[name];
        if (alias.empty()) alias = "n" + std::to_string(++nodes_);
        return alias;
    }

    Done place(const std::vector<CircuitElement>& elements, Scope& scope, int depth) {
        std::vector<std::string> aliases;
        for (const CircuitElement& e : elements) {
            if (++elements_ > kMost)
                return refused(e.line, "", "More than 20,000 elements, subcircuits opened.");
            const bool source =
                e.kind() == 'b' || ((e.kind() == 'e' || e.kind() == 'g') && !behavioural(e).empty());
            const std::string kind = source ? "b" : std::string(1, e.kind());
            aliases.push_back(kind + std::to_string(elements_));
            if (std::string_view("vehlb").find(kind[0]) != std::string_view::npos)
                scope.elements[lowered(e.name)] = aliases.back();
            if (depth == 0 && kind == "r") out_.resistors[lowered(e.name)] = aliases.back();
        }
        for (std::size_t i = 0; i < elements.size(); ++i) {
            if (const auto done = one(elements[i], aliases[i], scope, depth); !done) return done;
        }
        return {};
    }

    /// What "V=", "I=" or "VALUE=" of a source of arbitrary voltage says; empty when it is none.
    static std::string behavioural(const CircuitElement& e) {
        const std::string value = lowered(e.value);
        for (const char* word : {"value", "vol", "cur", "v", "i"}) {
            const std::string_view name = word;
            if (!value.starts_with(name)) continue;
            const auto equals = value.find_first_not_of(" \t", name.size());
            if (equals != std::string::npos && value[equals] == '=') return e.value.substr(equals + 1);
        }
        return "";
    }

    Done one(const CircuitElement& e, const std::string& alias, Scope& scope, int depth) {
        const char kind = e.kind();
        if (kind == 'k') return coupling(e, scope);
        if (kind == 'x') return opened(e, scope, depth);
        std::string line = alias;
        for (const std::string& n : e.nodes) line += ' ' + node(n, scope);
        if (alias[0] == 'b') return arbitrary(e, line, scope);
        auto fields = fieldsOf(e.value);
        Result<std::string> rest = std::string();
        switch (kind) {
            case 'r':
            case 'c':
            case 'l':
                rest = passive(e, fields, scope);
                break;
            case 'v':
            case 'i':
                rest = atRest(e, fields, scope);
                break;
            case 'e':
            case 'g':
                rest = gain(e, fields, 0, scope);
                break;
            case 'f':
            case 'h':
                rest = controlled(e, fields, scope);
                break;
            case 't':
                rest = given(e, fields, 0, {"z0", "td", "f", "nl"}, scope);
                break;
            default:
                rest = modelled(e, fields, line, scope);
        }
        if (!rest) return tl::make_unexpected(rest.error());
        out_.lines.push_back(line + *rest);
        return {};
    }

    Done coupling(const CircuitElement& e, const Scope& scope) {
        auto words = circuitWords(e.value);
        if (words.size() < 3) return refused(e.line, e.name, "A coupling wants two coils and a factor.");
        const auto factor = number(words.back(), scope, e.line, e.name);
        if (!factor) return tl::make_unexpected(factor.error());
        words.pop_back();
        for (const std::string& coil : words) {
            const auto hit = scope.elements.find(lowered(coil));
            if (hit == scope.elements.end() || hit->second[0] != 'l')
                return refused(e.line, e.name, "couples " + coil.substr(0, 30) + ", which is no coil here.");
        }
        if (!(std::abs(*factor) <= 1))
            return refused(e.line, e.name, "A coupling's factor lies between -1 and 1.");
        return {};  // it does nothing at rest
    }

    Result<std::string> passive(const CircuitElement& e, const std::vector<Field>& fields,
                                const Scope& scope) {
        std::optional<double> value;
        double many = 1;
        for (const Field& f : fields) {
            const bool own = f.name.empty() || f.name == std::string(1, e.kind());
            if (!own && f.name != "m") {
                if (nothingAtRest(f.name)) continue;
                return refused(e.line, e.name,
                               "\"" + f.name.substr(0, 30) + "=\" is not known of such a part.");
            }
            const auto read = number(f.value, scope, e.line, e.name);
            if (!read) return tl::make_unexpected(read.error());
            if (f.name == "m") {
                many = *read;
            } else if (value) {
                return refused(e.line, e.name, "\"" + f.value.substr(0, 30) + "\" is a second value.");
            } else {
                value = *read;
            }
        }
        if (!value) return refused(e.line, e.name, "has no value.");
        if (!(many > 0)) return refused(e.line, e.name, "m= wants a number above 0.");
        return ' ' + plainNumber(e.kind() == 'c' ? *value * many : *value / many);
    }

    /// "DC 12 AC 1", "12 SIN(0 1 1k)", "PULSE(0 5 …)": a source gives its direct value, else what it begins
    /// with.
    Result<std::string> atRest(const CircuitElement& e, const std::vector<Field>& fields,
                               const Scope& scope) {
        static const std::set<std::string> waves{"sin", "sine", "pulse", "pwl", "exp", "sffm", "am"};
        std::optional<double> direct, first;
        for (std::size_t i = 0; i < fields.size(); ++i) {
            const std::string word = lowered(fields[i].value);
            if (!fields[i].name.empty() && fields[i].name != "dc" && fields[i].name != "ac")
                return refused(e.line, e.name,
                               "\"" + fields[i].name.substr(0, 30) + "=\" is not known of a source.");
            if (fields[i].name.empty() && word == "dc") continue;
            if (fields[i].name == "ac") continue;
            if (fields[i].name.empty() && word == "ac") {
                while (i + 1 < fields.size() && !std::isnan(spiceNumber(fields[i + 1].value))) ++i;
                continue;
            }
            if (fields[i].name.empty() && waves.contains(word)) {
                const std::size_t at = word == "pwl" ? i + 2 : i + 1;
                if (at >= fields.size())
                    return refused(e.line, e.name, "\"" + word + "\" lacks its numbers.");
                const auto begin = number(fields[at].value, scope, e.line, e.name);
                if (!begin) return tl::make_unexpected(begin.error());
                first = *begin;
                break;
            }
            if (direct) return refused(e.line, e.name, "\"" + word.substr(0, 30) + "\" is not understood.");
            const auto read = number(fields[i].value, scope, e.line, e.name);
            if (!read) return tl::make_unexpected(read.error());
            direct = *read;
        }
        return ' ' + plainNumber(direct ? *direct : first.value_or(0));
    }

    Result<std::string> gain(const CircuitElement& e, const std::vector<Field>& fields, std::size_t at,
                             const Scope& scope) {
        if (fields.size() != at + 1 || !fields[at].name.empty())
            return refused(e.line, e.name,
                           "wants one number behind its nodes; POLY and tables are not read.");
        const auto read = number(fields[at].value, scope, e.line, e.name);
        if (!read) return tl::make_unexpected(read.error());
        return ' ' + plainNumber(*read);
    }

    Result<std::string> controlled(const CircuitElement& e, const std::vector<Field>& fields,
                                   const Scope& scope) {
        if (fields.empty()) return refused(e.line, e.name, "lacks the source that controls it.");
        const auto hit = scope.elements.find(lowered(fields[0].value));
        if (hit == scope.elements.end() || hit->second[0] != 'v')
            return refused(e.line, e.name, fields[0].value.substr(0, 30) + " is no voltage source here.");
        const auto times = gain(e, fields, 1, scope);
        if (!times) return times;
        return ' ' + hit->second + *times;
    }

    /// Numbers with names from a list, from a field on.
    Result<std::string> given(const CircuitElement& e, const std::vector<Field>& fields, std::size_t from,
                              const std::set<std::string>& known, const Scope& scope) {
        std::string out;
        for (std::size_t i = from; i < fields.size(); ++i) {
            const Field& f = fields[i];
            if (f.name.empty() && (lowered(f.value) == "off" || lowered(f.value) == "on")) {
                out += ' ' + lowered(f.value);
                continue;
            }
            if (!f.name.empty() && !known.contains(f.name)) {
                if (nothingAtRest(f.name)) continue;
                return refused(e.line, e.name,
                               "\"" + f.name.substr(0, 30) + "=\" is not known of such a part.");
            }
            const auto read = number(f.value, scope, e.line, e.name);
            if (!read) return tl::make_unexpected(read.error());
            out += ' ' + (f.name.empty() ? "" : f.name + "=") + plainNumber(*read);
        }
        return out;
    }

    Result<std::string> modelled(const CircuitElement& e, const std::vector<Field>& fields, std::string& line,
                                 Scope& scope) {
        std::size_t at = 0;
        // A bipolar transistor may have its substrate as a fourth node.
        if (e.kind() == 'q' && fields.size() > 1 && !has(fields[0].value, scope) &&
            has(fields[1].value, scope)) {
            line += ' ' + node(fields[0].value, scope);
            at = 1;
        }
        if (at >= fields.size()) return refused(e.line, e.name, "lacks its model.");
        const auto model = modelAlias(fields[at].value, e, scope);
        if (!model) return model;
        static const std::set<std::string> sizes{"area", "m", "w", "l", "ad", "as", "pd", "ps", "nrd", "nrs"};
        const auto rest = given(e, fields, at + 1, sizes, scope);
        if (!rest) return rest;
        return ' ' + *model + *rest;
    }

    static bool has(const std::string& model, const Scope& scope) {
        for (const Scope* s = &scope; s != nullptr; s = s->outer) {
            if (s->models.contains(lowered(model))) return true;
        }
        return false;
    }

    /// A model's name in the deck, written there when it is first wanted.
    Result<std::string> modelAlias(const std::string& name, const CircuitElement& e, Scope& scope) {
        const std::string wanted = lowered(name);
        Scope* home = &scope;
        while (home != nullptr && !home->models.contains(wanted)) home = home->outer;
        if (home == nullptr)
            return refused(e.line, e.name,
                           "wants the model \"" + name.substr(0, 30) + "\", which is not in this circuit.");
        const Card& card = home->models.at(wanted);
        const auto fields = fieldsOf(card.text);
        const DeviceKind* kind = fields.size() < 3 ? nullptr : deviceKind(lowered(fields[2].value));
        if (kind == nullptr) return refused(card.line, name, "is a model of a kind that is not known here.");
        if (kind->element != e.kind())
            return refused(e.line, e.name, name.substr(0, 30) + " is a model of another kind of part.");
        if (const auto hit = home->written.find(wanted); hit != home->written.end()) return hit->second;
        std::string line;
        for (std::size_t i = 3; i < fields.size(); ++i) {
            const Field& f = fields[i];
            if (f.name.empty())
                return refused(card.line, name,
                               "\"" + f.value.substr(0, 30) + "\" is no parameter of a model.");
            if (!kind->knows(f.name)) {
                if (noteOfMaker(f.name)) continue;
                return refused(
                    card.line, name,
                    "\"" + f.name.substr(0, 30) + "\" is no parameter of such a model that is known here.");
            }
            const auto read = number(f.value, *home, card.line, name);
            if (!read) return tl::make_unexpected(read.error());
            if (f.name == "level" && *read != 1)
                return refused(card.line, name, "Models of level 1 alone are reckoned here.");
            line += (line.empty() ? "" : " ") + f.name + "=" + plainNumber(*read);
        }
        const std::string alias = "m" + std::to_string(++models_);
        out_.lines.push_back(".model " + alias + ' ' + std::string(kind->name) + '(' + line + ')');
        home->written[wanted] = alias;
        return alias;
    }

    Done arbitrary(const CircuitElement& e, const std::string& line, Scope& scope) {
        const std::string text = behavioural(e);
        const char given = char(std::tolower(static_cast<unsigned char>(e.value.empty() ? ' ' : e.value[0])));
        const char kind = e.kind() == 'b' ? given : e.kind() == 'e' ? 'v' : 'i';
        if (text.empty() || (kind != 'v' && kind != 'i'))
            return refused(e.line, e.name, "wants V= or I= and an expression.");
        const ExpressionNames names{[&](const std::string& n) { return scope.parameter(n); },
                                    [&](const std::string& n) { return node(n, scope); },
                                    [&](const std::string& n) {
                                        const auto hit = scope.elements.find(n);
                                        return hit == scope.elements.end() ? std::nullopt
                                                                           : std::optional(hit->second);
                                    }};
        const auto read = readExpression(text, names);
        if (!read) return refused(e.line, e.name, read.error().sentence);
        out_.lines.push_back(line + ' ' + kind + '=' + read->text);
        return {};
    }

    /// A subcircuit in its place.
    Done opened(const CircuitElement& e, Scope& scope, int depth) {
        const std::string name = lowered(e.word());
        Scope* home = &scope;
        while (home != nullptr && !home->inner.contains(name)) home = home->outer;
        if (home == nullptr)
            return refused(
                e.line, e.name,
                "wants the subcircuit \"" + e.word().substr(0, 30) + "\", which is not in this circuit.");
        if (depth == kDeepest)
            return refused(e.line, e.name, "Subcircuits stand too deep in each other, or one calls itself.");
        const Subcircuit& inner = home->inner.at(name);
        if (inner.pins.size() != e.nodes.size())
            return refused(
                e.line, e.name,
                e.word().substr(0, 30) + " has " + counted(std::int64_t(inner.pins.size()), "pin") + ".");
        Scope inside;
        inside.outer = home;
        for (std::size_t i = 0; i < inner.pins.size(); ++i)
            inside.nodes[inner.pins[i]] = node(e.nodes[i], scope);
        auto given = fieldsOf(e.value.substr(e.word().size()));
        std::erase_if(given, [](const Field& f) { return lowered(f.value) == "params:"; });
        // A default may rest on what was given: "ra=1k rb={2*ra}".
        for (const Field& f : inner.defaults) {
            const auto own =
                std::find_if(given.begin(), given.end(), [&](const Field& g) { return g.name == f.name; });
            const auto read = own == given.end() ? number(f.value, inside, inner.line, f.name)
                                                 : number(own->value, scope, e.line, e.name);
            if (!read) return tl::make_unexpected(read.error());
            inside.parameters[f.name] = *read;
            if (own != given.end()) given.erase(own);
        }
        if (!given.empty())
            return refused(e.line, e.name,
                           "\"" + (given[0].name.empty() ? given[0].value : given[0].name).substr(0, 30) +
                               "\" is no parameter of " + e.word().substr(0, 30) + ".");
        std::vector<CircuitElement> elements;
        if (const auto read = define(inner.body, inside, elements); !read) return read;
        return place(elements, inside, depth + 1);
    }

    const Netlist& netlist_;
    Deck out_;
    Scope top_;
    std::set<std::string> globals_;
    std::size_t nodes_ = 0, elements_ = 0, models_ = 0;
};

}  // namespace

Result<Deck> deckOf(const Netlist& netlist) { return Writer(netlist).write(); }

}  // namespace ombrek
