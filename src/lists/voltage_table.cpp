#include "lists/voltage_table.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "core/text/letters.h"
#include "formats/kit_json.h"
#include "lists/amount.h"
#include "lists/designators.h"
#include "lists/kind_evidence.h"
#include "lists/limit_words.h"
#include "lists/token.h"
#include "lists/voltage_words.h"

namespace ombrek {
namespace {

constexpr double kBeep = 50;       ///< a meter's beeper sounds below some tens of ohms [Ω] (common practice)
constexpr double kOpen = 1e6;      ///< what is called open reads at least this [Ω] (common practice)
constexpr double kShare = 0.10;    ///< of a bare voltage or resistance
constexpr double kCurrent = 0.25;  ///< of a bare current
constexpr double kFrequency = 0.001;  ///< of a bare frequency: what a crystal in a circuit keeps
constexpr double kLeast = 0.1;        ///< of a bare voltage [V]

class VoltageReader {
 public:
    VoltageTable read(const std::string& bytes) {
        const std::string text = foldDots(withoutLongLines(toUtf8(bytes)));
        std::size_t number = 0;
        for (std::size_t from = 0; from < text.size();) {
            const std::size_t end = std::min(text.find('\n', from), text.size());
            take(++number, text.substr(from, end - from));
            from = end + 1;
        }
        leaveChip();
        std::stable_sort(out_.refused.begin(), out_.refused.end(),
                         [](const RefusedLine& a, const RefusedLine& b) { return a.line < b.line; });
        return std::move(out_);
    }

 private:
    /// Leader dots are blanks, the ellipsis too; "1..5" stays.
    static std::string foldDots(const std::string& text) {
        std::string out;
        for (std::size_t i = 0; i < text.size(); ++i) {
            if (text[i] != '.' && text[i] != '\xe2') {
                out += text[i];
            } else if (text.compare(i, 3, "\u2026") == 0) {
                out += "  ";
                i += 2;
            } else if (text.compare(i, 4, "....") == 0 || text.compare(i, 4, ". . ") == 0) {
                while (i < text.size() && (text[i] == '.' || text[i] == ' ')) ++i;
                --i;
                out += "  ";
            } else {
                out += text[i];
            }
        }
        return out;
    }

    static std::vector<std::string> cellsOf(const std::string& line) {
        std::vector<std::string> out;
        std::string cell;
        const bool bars = line.find('|') != std::string::npos, tabs = line.find('\t') != std::string::npos;
        const bool semicolons = line.find(';') != std::string::npos;
        const bool commas = !bars && !tabs && !semicolons && line.find(',') != std::string::npos &&
                            line.find(", ") == std::string::npos && line.find("  ") == std::string::npos;
        const auto flush = [&] {
            out.push_back(std::string(trimmed(cell)));
            cell.clear();
        };
        for (std::size_t i = 0; i < line.size(); ++i) {
            const char c = line[i];
            const bool gap = !bars && !tabs && !semicolons && line.compare(i, 2, "  ") == 0;
            if ((bars && c == '|') || (tabs && c == '\t') || (semicolons && !bars && !tabs && c == ';') ||
                (commas && c == ',')) {
                flush();
            } else if (gap) {
                if (!trimmed(cell).empty()) flush();
                while (i + 1 < line.size() && line[i + 1] == ' ') ++i;
            } else if (c != '"') {
                cell += c;
            }
        }
        flush();
        while (!out.empty() && out.back().empty()) out.pop_back();
        if (bars && !out.empty() && out.front().empty()) out.erase(out.begin());
        return out;
    }

    void take(std::size_t number, const std::string& raw) {
        line_ = number;
        const std::string line = oneSentence(withoutNumbering(trimmed(foldSigns(raw))));
        const auto body = trimmed(line);
        if (body.empty() || body.find_first_not_of("-=_+| :") == std::string_view::npos) return;
        if (takePinsAcross(number, std::string(body)) || takePinsInLine(number, std::string(body))) return;
        const auto cells = cellsOf(line);
        if (takeHeader(cells)) return;
        const auto row = columnsOf(cells, std::string(body));
        // Cells below a heading first: "TP1,4.75,5.25" is no heading of a chip.
        if (row.size() >= 3 && takeColumns(number, row, std::string(trimmed(raw)))) return;
        if (takeForAll(std::string(body)) || takeSection(std::string(body))) return;
        if (!columns_.empty() && takeColumns(number, row, std::string(trimmed(raw)))) return;
        if (takeElectrodes(number, std::string(body))) return;
        if (takeApply(std::string(body)) ||
            takeByConditions(number, std::string(body), std::string(trimmed(raw))))
            return;
        PastedCheck check;
        if (readRow(std::string(body), check))
            return keep(std::move(check), number, std::string(trimmed(raw)));
        if (mayChangeCondition(body)) unsure_ = body;
        out_.refused.push_back(
            {number, std::string(trimmed(raw)), "No point with a value stands in this line."});
    }

    /// "Apply 12 V": what follows is read with that power on.
    bool takeApply(const std::string& body) {
        const auto numbers = numbersOf(body);
        const bool volts =
            std::any_of(numbers.begin(), numbers.end(), [](const Number& n) { return n.unit == Unit::volt; });
        if (!volts || !saysApply(body) || numbers.size() > 2 || limitSense(body, numbers, numbers.size() - 1))
            return false;
        // "Connect the meter to TP1: 5 V" is a row.
        if (!designatorRuns(body).empty() || body.find(':') != std::string::npos) return false;
        const std::string said = conditionIn(body);
        condition_ = said.empty() ? "power on" : said;
        unsure_.clear();
        leaveChip();
        return true;
    }

    static bool limitSense(const std::string& body, const std::vector<Number>& numbers, std::size_t which) {
        const auto said = limitSaid(body, spansOf(numbers), which);
        return said.sense == LimitSaid::Sense::less || said.sense == LimitSaid::Sense::more || said.negated;
    }

    static std::vector<std::pair<std::size_t, std::size_t>> spansOf(const std::vector<Number>& numbers) {
        std::vector<std::pair<std::size_t, std::size_t>> out;
        for (const Number& n : numbers) out.emplace_back(n.begin, n.end);
        return out;
    }

    /// "12 V (11.5 V when transmitting)", "12 V on receive, 11.5 V on transmit": each value by its own words.
    bool takeByConditions(std::size_t number, const std::string& body, const std::string& raw) {
        const auto said = conditionsSaid(body);
        const auto all = numbersOf(body);
        std::vector<Number> values;
        for (const Number& n : all) {
            if (n.unit && !n.percent) values.push_back(n);
        }
        if (said.empty() || values.size() < 2 || said.size() > values.size() ||
            values.front().unit != values.back().unit)
            return false;
        const std::size_t open = body.find('(', values.front().end);
        const bool bracket =
            said.size() == 1 && values.size() == 2 && open < values.back().begin && said.front().begin > open;
        if (!bracket && (said.size() != values.size() || said.front().means == said.back().means))
            return false;
        // The words behind each value, or before each, up to the next.
        const bool before = !bracket && said.front().begin < values.front().begin;
        const std::size_t head = before ? said.front().begin : values.front().begin;
        const std::string point = body.substr(0, head);
        for (std::size_t i = 0; i < values.size(); ++i) {
            const std::size_t from = before    ? said[i].begin
                                     : i == 0  ? head
                                     : bracket ? open + 1
                                               : values[i].begin;
            const std::size_t to = i + 1 < values.size() ? (before    ? said[i + 1].begin
                                                            : bracket ? open
                                                                      : values[i + 1].begin)
                                                         : body.size();
            PastedCheck check;
            if (!readRow(point + " " + tidy(std::string_view(body).substr(from, to - from)), check))
                return false;
            keep(std::move(check), number, raw);
        }
        return true;
    }

    struct ColumnOf {
        enum class What { point, pin, value, low, high, unit, tolerance, condition, remark, from } what;
        std::string condition, electrode;
        std::optional<Unit> unit;
    };

    /// "Point | Receive | Key down", "Pin  Voltage", "Transistor  E  B  C".
    bool takeHeader(const std::vector<std::string>& cells) {
        if (cells.size() < 2) return false;
        std::vector<ColumnOf> columns;
        int known = 0, values = 0;
        for (const std::string& cell : cells) {
            if (!numbersOf(cell).empty() && cell.find('(') == std::string::npos) return false;
            const std::string low = lowerText(cell);
            const auto is = [&](std::initializer_list<const char*> words) {
                return std::any_of(words.begin(), words.end(),
                                   [&](const char* w) { return findWord(low, w) != std::string::npos; });
            };
            ColumnOf column{ColumnOf::What::remark, conditionIn(cell), "", unitIn(cell)};
            if (cell.size() == 1 && std::string("EBCGSDAK").find(cell[0]) != std::string::npos) {
                column.what = ColumnOf::What::value;
                column.electrode = cell;
                ++values, ++known;
            } else if (is({"emitter", "base", "collector", "gate", "source", "drain", "basis",
                           "kollektor"}) &&
                       cell.size() < 14) {
                column.what = ColumnOf::What::value;
                column.electrode = low;
                ++values, ++known;
            } else if (is({"min", "minimum", "min."})) {
                column.what = ColumnOf::What::low;
                ++values, ++known;
            } else if (is({"max", "maximum", "max."})) {
                column.what = ColumnOf::What::high;
                ++values, ++known;
            } else if (is({"unit", "units", "einheit", "unit\u00e9", "unidad"})) {
                column.what = ColumnOf::What::unit;
                ++known;
            } else if (is({"tol", "tol.", "tolerance", "toleranz", "tol\u00e9rance", "tolerancia"})) {
                column.what = ColumnOf::What::tolerance;
                ++known;
            } else if (is({"mode", "state", "condition", "zustand", "betriebsart", "\u00e9tat", "modo",
                           "estado"})) {
                column.what = ColumnOf::What::condition;
                ++known;
            } else if (!column.condition.empty() || is({"typ", "typ.", "typical"}) ||
                       is({"voltage",  "volts", "volt",     "v",       "reading",      "value",
                           "spannung", "wert",  "tension",  "valeur",  "tensi\u00f3n", "valor",
                           "expected", "soll",  "sollwert", "current", "resistance",   "nominal",
                           "measure",  "dc",    "limits",   "range"})) {
                column.what = ColumnOf::What::value;
                ++values, ++known;
            } else if (is({"pin", "pins", "stift", "broche", "pata"}) && cell.size() < 10) {
                column.what = ColumnOf::What::pin;
                ++known;
            } else if (is({"point",
                           "test point",
                           "testpoint",
                           "where",
                           "at",
                           "location",
                           "ic",
                           "device",
                           "part",
                           "messpunkt",
                           "bauteil",
                           "punkt",
                           "point de mesure",
                           "composant",
                           "punto",
                           "transistor",
                           "component",
                           "node",
                           "ref",
                           "chip",
                           "net",
                           "rail",
                           "tp"})) {
                column.what = ColumnOf::What::point;
                ++known;
            } else if (is({"from", "fed from", "fed", "von", "quelle", "source"})) {
                column.what = ColumnOf::What::from;
                ++known;
            }
            columns.push_back(column);
        }
        if (known < 2 || values == 0) return false;
        const auto names = [](const ColumnOf& c) {
            return c.what == ColumnOf::What::point || c.what == ColumnOf::What::pin;
        };
        if (std::none_of(columns.begin(), columns.end(), names)) {
            // The first heading is often blank: below it stand the points.
            ColumnOf point{ColumnOf::What::point, "", "", std::nullopt};
            if (columns.front().what == ColumnOf::What::remark) {
                columns.front() = point;
            } else {
                columns.insert(columns.begin(), point);
            }
        }
        columns_ = std::move(columns);
        return true;
    }

    static std::optional<Unit> unitIn(const std::string& cell) {
        for (const VoltageUnit& u : kUnits) {
            const auto at = cell.find(u.text);
            if (at == std::string::npos || u.text.size() > 3) continue;
            const bool alone = (at == 0 || !isWordLetter(cell[at - 1])) &&
                               (at + u.text.size() == cell.size() || !isWordLetter(cell[at + u.text.size()]));
            if (alone && u.text != "M" && u.text != "k" && u.text != "R" && u.text != "A") return u.unit;
        }
        const std::string low = lowerText(cell);
        for (const std::string_view word : {"volt", "spannung", "tension", "tensi"}) {
            if (low.find(word) != std::string::npos) return Unit::volt;
        }
        if (low.find("current") != std::string::npos || low.find("strom") != std::string::npos)
            return Unit::ampere;
        if (low.find("resistance") != std::string::npos || low.find("widerstand") != std::string::npos)
            return Unit::ohm;
        return std::nullopt;
    }

    /// "Voltage table, supply 12 V", "All voltages \u00b110 %": a heading with a number of its own.
    bool takeForAll(const std::string& body) {
        const std::string low = lowerText(body);
        static constexpr std::string_view heads[] = {"table",
                                                     "tabelle",
                                                     "tableau",
                                                     "tabla",
                                                     "all voltages",
                                                     "all readings",
                                                     "alle spannungen",
                                                     "measured with",
                                                     "measured at",
                                                     "toutes les tensions",
                                                     "todas las tensiones"};
        if (std::none_of(std::begin(heads), std::end(heads),
                         [&](std::string_view word) { return findWord(low, word) != std::string::npos; }))
            return false;
        for (const Number& number : numbersOf(body)) {
            if (number.percent && number.value > 0 && number.value <= 50) share_ = number.value / 100;
        }
        if (!conditionIn(body).empty()) setCondition(body);
        if (const auto unit = unitIn(body)) unit_ = unit;
        return true;
    }

    void setCondition(const std::string& text) {
        condition_ = conditionIn(text);
        unsure_ = conditionsDiffer(text) ? text : "";
    }

    const std::string& chip() {
        chipLine_.reset();
        return chip_;
    }

    /// A chip that headed nothing was a row without a value.
    void leaveChip() {
        if (chipLine_) out_.refused.push_back(*chipLine_);
        chipLine_.reset();
        chip_.clear();
    }

    /// A line that names a condition or a chip for the rows below: "Key down:", "IC3 (LM386)".
    bool takeSection(const std::string& body) {
        if (!numbersOf(body).empty()) return false;
        const std::string low = lowerText(body);
        // "Power off:" is a state of the rig, not what a lamp does.
        if (saysConditionAlone(body)) {
            setCondition(body);
            leaveChip();
            return true;
        }
        if (saysSeen(low) || findWord(low, "beep") != std::string::npos ||
            findWord(low, "open") != std::string::npos)
            return false;
        const auto words = tokensOf(body);
        const std::string condition = conditionIn(body);
        const auto run = designatorRuns(body);
        if (!run.empty() && run.front().begin == 0 && run.front().refs.size() == 1 && words.size() <= 6) {
            leaveChip();
            chip_ = run.front().refs.front();
            chipLine_ = {line_, body, "No value stands in this line, and no pins below it."};
            if (!condition.empty()) setCondition(body);
            return true;
        }
        if (const auto unit = unitIn(body); unit && words.size() <= 8) unit_ = unit;
        if (!condition.empty() && words.size() <= 10) {
            setCondition(body);
            // "Transmit, into the dummy load:" heads what follows; without a colon it may be anything.
            if (!body.ends_with(':') && tokensOf(body).size() > 4) unsure_ = body;
            leaveChip();
            return true;
        }
        if (mayChangeCondition(body)) unsure_ = body;
        return words.size() <= 10 && (unitIn(body).has_value() || body.ends_with(':'));
    }

    /// "Pin  1  2  3" and below it as many numbers: pins side by side.
    bool takePinsAcross(std::size_t number, const std::string& body) {
        const auto words = tokensOf(body);
        if (words.size() >= 3 && isPinWord(lowerText(words.front().text)) &&
            std::all_of(words.begin() + 1, words.end(),
                        [](const Token& t) { return wholeNumber(t.text, 3); })) {
            pins_.clear();
            for (std::size_t i = 1; i < words.size(); ++i) pins_.push_back(words[i].text);
            return true;
        }
        if (pins_.empty()) return false;
        const auto numbers = numbersOf(body);
        if (numbers.size() != pins_.size()) {
            pins_.clear();
            return false;
        }
        const std::string label(trimmed(std::string_view(body).substr(0, numbers.front().begin)));
        const std::string condition = conditionIn(label);
        for (std::size_t i = 0; i < numbers.size(); ++i) {
            PastedCheck check;
            check.at = (chip().empty() ? "" : chip() + " ") + "pin " + pins_[i];
            Number value = numbers[i];
            if (!value.unit) value.unit = unitIn(label);
            setBare(check, value, false);
            check.condition = condition;
            if (chip().empty())
                check.doubts.push_back("The table does not say of which chip these pins are.");
            keep(std::move(check), number, body);
        }
        return true;
    }

    /// "U2: pin 1 1.3 V, pin 2 0 V, pin 3 5.0 V".
    bool takePinsInLine(std::size_t number, const std::string& body) {
        const auto run = designatorRuns(body);
        if (run.empty() || run.front().begin != 0 || run.front().refs.size() != 1) return false;
        std::vector<std::string> parts;
        const std::string rest = body.substr(run.front().end);
        for (std::size_t from = 0; from <= rest.size();) {
            std::size_t end = std::min(rest.find_first_of(",;", from), rest.size());
            while (end + 1 < rest.size() && rest[end] == ',' && isDigit(rest[end + 1]))
                end = std::min(rest.find_first_of(",;", end + 1), rest.size());
            parts.push_back(tidy(std::string_view(rest).substr(from, end - from)));
            from = end + 1;
        }
        const bool pins =
            parts.size() >= 2 && std::all_of(parts.begin(), parts.end(), [](const std::string& part) {
                const auto words = tokensOf(part);
                return words.size() >= 3 && isPinWord(lowerText(words[0].text)) &&
                       wholeNumber(words[1].text, 3);
            });
        if (!pins) return false;
        for (const std::string& part : parts) {
            PastedCheck check;
            if (readRow(run.front().refs.front() + " " + part, check)) {
                keep(std::move(check), number, body);
            } else {
                out_.refused.push_back({number, part, "No value stands at this pin."});
            }
        }
        return true;
    }

    /// "Q1  E 0.6  B 1.3  C 11.2", "Q1: 0.6/1.3/11.2 (E/B/C)" is not read.
    bool takeElectrodes(std::size_t number, const std::string& body) {
        const auto run = designatorRuns(body);
        if (run.empty() || run.front().begin != 0 || run.front().refs.size() != 1) return false;
        const auto numbers = numbersOf(body);
        if (numbers.size() < 2) return false;
        std::vector<std::pair<std::string, Number>> found;
        std::size_t from = run.front().end;
        // Its type may stand in brackets: "Q2 (BS170)".
        const auto open = body.find_first_not_of(" :", from);
        if (open != std::string::npos && body[open] == '(' && body.find(')', open) != std::string::npos)
            from = body.find(')', open) + 1;
        for (const Number& n : numbers) {
            if (n.end <= from) continue;
            std::string name = tidy(std::string_view(body).substr(from, n.begin - std::min(from, n.begin)));
            const bool electrode =
                name.size() <= 9 && !name.empty() && (name.size() == 1 || byElectrode(lowerText(name)));
            if (!electrode ||
                (name.size() == 1 && std::string("EBCGSDAKebcgsd").find(name[0]) == std::string::npos))
                return false;
            found.emplace_back(name, n);
            from = n.end;
        }
        for (const auto& [name, n] : found) {
            PastedCheck check;
            check.at = run.front().refs.front() + " " + name;
            setBare(check, n, false);
            keep(std::move(check), number, body);
        }
        return true;
    }
    static bool byElectrode(std::string_view low) {
        static constexpr std::string_view words[] = {"emitter", "base",  "collector", "gate",  "source",
                                                     "drain",   "anode", "cathode",   "basis", "kollektor"};
        return std::find(std::begin(words), std::end(words), low) != std::end(words);
    }

    /// The cells of a row under headings; where a long name has eaten a gap, as many numbers as there are
    /// columns of values are still theirs.
    std::vector<std::string> columnsOf(const std::vector<std::string>& cells, const std::string& body) const {
        const auto numbers = numbersOf(body);
        const auto values =
            std::size_t(std::count_if(columns_.begin(), columns_.end(),
                                      [](const ColumnOf& c) { return c.what == ColumnOf::What::value; }));
        if (values < 2 || cells.size() >= columns_.size() || numbers.size() != values ||
            columns_.size() != values + 1)
            return cells;
        std::vector<std::string> out{tidy(std::string_view(body).substr(0, numbers.front().begin))};
        for (const Number& n : numbers) out.push_back(body.substr(n.begin, n.end - n.begin));
        return out;
    }

    /// "4.75 | 5.25 | V" as a row of text; nothing without a column of limits.
    static std::optional<std::string> limitsRow(const std::string& point, const std::string& low,
                                                const std::string& high, const std::string& unit) {
        const auto said = [](const std::string& cell) { return !cell.empty() && cell != "-"; };
        if (said(low) && said(high)) return point + ": " + low + " to " + high + " " + unit;
        if (said(high)) return point + ": < " + high + " " + unit;
        if (said(low)) return point + ": > " + low + " " + unit;
        return std::nullopt;
    }

    /// A row under headings: a check a value's column.
    bool takeColumns(std::size_t number, const std::vector<std::string>& cells, const std::string& raw) {
        if (cells.size() < 2 || columns_.empty()) return false;
        using What = ColumnOf::What;
        const auto cellOf = [&](What what) {
            std::string out;
            for (std::size_t c = 0; c < cells.size() && c < columns_.size(); ++c) {
                if (columns_[c].what == what && !cells[c].empty()) out += (out.empty() ? "" : " ") + cells[c];
            }
            return out;
        };
        std::string point = cellOf(What::point);
        const std::string pin = cellOf(What::pin), from = cellOf(What::from);
        if (point.empty() && pin.empty()) return false;
        // A line of another kind below a table of pins is read by itself.
        const bool named = lowerText(pin).starts_with("pin ");
        if (!pin.empty() && !wholeNumber(pin, 3) && !named) return false;
        if (point.empty()) point = chip();
        if (!pin.empty()) point += (point.empty() || named ? " " : " pin ") + pin;
        if (const auto limited =
                limitsRow(point, cellOf(What::low), cellOf(What::high), cellOf(What::unit))) {
            PastedCheck check;
            if (!readRow(*limited, check)) return false;
            if (const auto numbers = numbersOf(cellOf(What::value) + " " + cellOf(What::unit));
                !numbers.empty())
                check.nominal = numbers.front().value;
            if (const std::string condition = conditionIn(cellOf(What::condition)); !condition.empty())
                check.condition = condition;
            check.from = check.from.empty() ? from : check.from;
            keep(std::move(check), number, raw);
            return true;
        }
        const std::string tolerance = cellOf(What::tolerance), unitCell = cellOf(What::unit),
                          said = conditionIn(cellOf(What::condition)),
                          mode = said.empty() ? conditionIn(cellOf(What::remark)) : said;
        bool any = false;
        const auto conditionColumns = std::count_if(columns_.begin(), columns_.end(), [](const ColumnOf& c) {
            return c.what == What::value && !c.condition.empty();
        });
        for (std::size_t c = 0; c < cells.size() && c < columns_.size(); ++c) {
            const ColumnOf& column = columns_[c];
            if (column.what == What::remark && !cells[c].empty() && !numbersOf(cells[c]).empty() &&
                numbersOf(cells[c]).front().unit)
                out_.refused.push_back(
                    {number, raw,
                     "\"" + cells[c].substr(0, 40) + "\" stands below a heading that is not understood."});
            if (column.what != ColumnOf::What::value || cells[c].empty() || cells[c] == "-") continue;
            PastedCheck check;
            const auto unit = column.unit ? column.unit : unit_;
            // The point's own words are read as in a row of text, for "X to Y".
            std::string row =
                point + (column.electrode.empty() ? "" : " " + column.electrode) + ": " + cells[c] +
                (unitCell.empty() ? "" : " " + unitCell) +
                (tolerance.empty()
                     ? ""
                     : (tolerance.find("\u00b1") == std::string::npos ? " \u00b1" : " ") + tolerance);
            const auto held = std::exchange(unit_, unit);
            const bool read = readRow(row, check);
            unit_ = held;
            if (!read) {
                out_.refused.push_back({number, raw, "\"" + cells[c].substr(0, 40) + "\" is no value."});
                any = true;
                continue;
            }
            if (!column.condition.empty()) check.condition = column.condition;
            if (!mode.empty()) check.condition = mode;
            if (column.condition.empty() && column.electrode.empty() && conditionColumns > 0)
                check.doubts.push_back("Its column's heading names no state of the rig, as the others do.");
            if (cells.size() > columns_.size())
                check.doubts.push_back("The row has more columns than the heading.");
            if (check.from.empty()) check.from = from;
            keep(std::move(check), number, raw);
            any = true;
        }
        return any;
    }

    void keep(PastedCheck check, std::size_t number, std::string raw) {
        check.line = number;
        check.text = std::move(raw);
        // Ohms are read without power, whatever the heading above says.
        if (check.quantity == "resistance" && check.condition.empty()) check.condition = "power off";
        const bool ownCondition = !check.condition.empty();
        if (check.condition.empty()) check.condition = condition_;
        if (check.measured() && !ownCondition && !unsure_.empty())
            check.doubts.push_back("Is this read as \"" + unsure_.substr(0, 60) + "\" above says?");
        if (check.condition == "power off" &&
            (check.unit == Unit::volt || check.unit == Unit::ampere || check.unit == Unit::watt ||
             check.unit == Unit::hertz) &&
            check.measured() && check.quantity != "diode")
            check.doubts.push_back("This needs power, and stands under \"power off\": when is it read?");
        if (check.to.empty()) check.to = "ground";
        if (check.quantity == "current" && check.to == "ground") check.to = "";
        if (check.at.empty()) check.doubts.push_back("The line does not say where to touch.");
        // What is left of the line is no place to touch: it was understood in part only.
        const auto left = numbersOf(check.at);
        const bool values = std::any_of(left.begin(), left.end(), [&](const Number& n) {
            return n.unit && (n.unit == check.unit || check.unit != Unit::ampere);
        });
        // "+12 V", "5 V rail" name a rail.
        const bool rail = left.size() == 1 && tokensOf(check.at).size() <= 4;
        if (check.measured() && ((values && !rail) || left.size() >= 2 || tokensOf(check.at).size() > 8))
            check.doubts.push_back("Where to touch is not sure: read the line.");
        out_.checks.push_back(std::move(check));
    }

    static bool saysSeen(std::string_view low) {
        static constexpr std::string_view words[] = {
            "lit",    "lights",   "light",    "glows",    "flashes", "blinks", "heard",
            "hear",   "tone",     "hum",      "hiss",     "noise",   "shows",  "appears",
            "seen",   "visible",  "display",  "leuchtet", "blinkt",  "zeigt",  "h\u00f6rbar",
            "brille", "s'allume", "enciende", "clicks",   "yes",     "no"};
        return low.ends_with(" on") || low.ends_with(" off") || low.ends_with(" aus") ||
               low.ends_with(" an") || low.ends_with(" ein") || low.ends_with("comes on.") ||
               std::any_of(std::begin(words), std::end(words),
                           [&](std::string_view w) { return findWord(low, w) != std::string_view::npos; });
    }

    /// The words of the condition, taken out of a row.
    static void takeCondition(std::string& row, PastedCheck& out) {
        out.condition = conditionIn(row);
        if (conditionsDiffer(row)) out.doubts.push_back("The line names two states of the rig.");
        for (const ConditionSaid& said : conditionsSaid(row)) {
            // "Idle current" is its name.
            const std::string behind = lowerText(trimmed(std::string_view(row).substr(said.end)));
            if ((behind.starts_with("current") || behind.starts_with("strom"))) continue;
            std::fill(row.begin() + std::ptrdiff_t(said.begin), row.begin() + std::ptrdiff_t(said.end), ' ');
        }
    }

    bool readRow(std::string row, PastedCheck& out) {
        takeCondition(row, out);
        if (readBeep(row, out)) return true;
        const auto numbers = numbersOf(row);
        // "LED 2 lights": a number in a name, and words behind it.
        const bool valued = std::any_of(numbers.begin(), numbers.end(), [&](const Number& n) {
            return n.unit || n.percent || tidy(std::string_view(row).substr(n.end)).empty();
        });
        if (!numbers.empty() && !valued && readSeen(row, out)) return true;
        // What stands after the point: the last number with a unit, with what belongs to it.
        std::size_t last = numbers.size();
        for (std::size_t i = 0; i < numbers.size(); ++i) {
            if (numbers[i].percent) continue;
            if (last == numbers.size() || numbers[i].unit || !numbers[last].unit) last = i;
        }
        if (last == numbers.size()) return readSeen(row, out);
        // "4 to 5 watts into 50 ohms": what it is given into is no value.
        if (last > 0 && numbers[last].unit == Unit::ohm && numbers[last - 1].unit &&
            numbers[last - 1].unit != Unit::ohm &&
            limitSaid(row, spansOf(numbers), last).sense == LimitSaid::Sense::load)
            --last;
        // "not 5 V" names what must not be: no limits can be made of it.
        const std::string before = lowerText(trimmed(std::string_view(row).substr(0, numbers[last].begin)));
        for (const std::string_view word : {" not", " never", " nicht", " nie", " pas"}) {
            if (before.ends_with(word) &&
                limitSaid(row, spansOf(numbers), last).sense == LimitSaid::Sense::none)
                return false;
        }
        readValue(row, numbers, last, out);
        return true;
    }

    /// "no beep", "beep", "open", "short": the continuity range.
    bool readBeep(const std::string& row, PastedCheck& out) {
        struct Beep {
            std::string_view text;
            bool high;
            double value;
        };
        static constexpr Beep words[] = {
            {"must not beep", false, kBeep}, {"no beep", false, kBeep},     {"kein piepton", false, kBeep},
            {"no continuity", false, kBeep}, {"not shorted", false, kBeep}, {"no short", false, kBeep},
            {"pas de bip", false, kBeep},    {"sin pitido", false, kBeep},  {"beeps", true, kBeep},
            {"beep", true, kBeep},           {"continuity", true, kBeep},   {"open circuit", false, kOpen},
            {"infinite", false, kOpen},      {"open", false, kOpen},        {"offen", false, kOpen},
            {"\u221e", false, kOpen},        {"ol", false, kOpen}};
        const std::string low = lowerText(row);
        const auto numbers = numbersOf(row);
        for (const Beep& word : words) {
            const std::size_t at = findWord(low, word.text);
            // "(open gap): 1.5 to 2.5 mA" has a value of its own.
            const bool valued = std::any_of(numbers.begin(), numbers.end(),
                                            [&](const Number& n) { return n.unit && n.begin > at; });
            if (at == std::string::npos || at == 0 || valued) continue;
            // "open" behind a point is a reading; "key open" was taken as a condition before.
            out.quantity = "resistance";
            out.unit = Unit::ohm;
            (word.high ? out.high : out.low) = word.value;
            out.rule =
                word.value == kBeep ? "a beeper sounds below about 50 \u03a9" : "open is 1 M\u03a9 and more";
            setPoint(row.substr(0, at), row.substr(at + word.text.size()), out);
            return true;
        }
        return false;
    }

    bool readSeen(const std::string& row, PastedCheck& out) {
        if (!saysSeen(lowerText(row))) return false;
        out.quantity = "seen";
        out.unit = Unit::none;
        out.seen = tidy(row);
        out.at = out.seen;
        return true;
    }

    void readValue(std::string row, const std::vector<Number>& numbers, std::size_t last, PastedCheck& out) {
        const LimitSaid said = limitSaid(row, spansOf(numbers), last);
        const LimitSaid other = last > 0 ? limitSaid(row, spansOf(numbers), last - 1) : LimitSaid();
        using Sense = LimitSaid::Sense;
        // "more than 4 V, less than 6 V" is a range, too.
        const bool opposite = (said.sense == Sense::less && other.sense == Sense::more) ||
                              (said.sense == Sense::more && other.sense == Sense::less);
        for (const LimitSaid* one : {&said, &other}) {
            if (one == &other && !opposite) continue;
            for (const auto& [from, to] : one->words)
                std::fill(row.begin() + std::ptrdiff_t(from), row.begin() + std::ptrdiff_t(to), ' ');
        }
        if (said.unread) out.doubts.push_back("The words about limits (data/words) are not there.");
        Number value = numbers[last];
        std::size_t begin = value.begin, end = value.end;
        std::optional<Number> first, tolerance, bracket;
        const auto between = [&](const Number& a, const Number& b) {
            return tidyWord(row.substr(a.end, b.begin - std::min(a.end, b.begin)));
        };
        if (last > 0) {
            const Number& before = numbers[last - 1];
            const std::string word = between(before, value);
            const bool to = said.sense == Sense::range || opposite;
            const bool plusMinus = word == "±" || word == "+/-" || word == "+-";
            if (to && (!before.unit || before.unit == value.unit) && !before.percent) {
                first = before;
                begin = before.begin;
                if (!first->unit && value.unit) scaleLike(*first, value, row);
            } else if (plusMinus) {
                tolerance = value;
                value = before;
                if (!value.unit) value.unit = tolerance->unit;
                begin = before.begin;
            }
        }
        if (last + 1 < numbers.size() && numbers[last + 1].percent) {
            tolerance = numbers[last + 1];
            end = tolerance->end;
        }
        std::string head = row.substr(0, begin), tail = row.substr(std::min(end, row.size()));
        // "-" and brackets of a negative or bracketed value go with it.
        const bool about = said.sense == Sense::about, less = !first && said.sense == Sense::less,
                   more = !first && said.sense == Sense::more;
        bool another = last > 0 && numbers[last - 1].unit && numbers[last - 1].unit == value.unit;
        // "35 mA typ., 50 mA max.": what is usual, and the limit.
        if (another && !first && !tolerance && (less || more) &&
            findWord(between(numbers[last - 1], value), "typ") != std::string::npos) {
            out.nominal = numbers[last - 1].value;
            head = row.substr(0, numbers[last - 1].begin);
            another = false;
        }
        if (another && !first && !tolerance)
            out.doubts.push_back("Another number stands in the line: which of them is meant?");
        setUnit(value, out);
        if (first) {
            out.low = std::min(first->value, value.value);
            out.high = std::max(first->value, value.value);
            // "5.0 V (4.8 to 5.2 V)": the number before the range is what is wanted.
            if (last >= 2 && numbers[last - 2].unit == value.unit && begin > 0) {
                const Number& nominal = numbers[last - 2];
                const std::string gap = tidyWord(row.substr(nominal.end, first->begin - nominal.end));
                if (gap == "(" || gap.empty() || gap == "," || gap == ":") {
                    out.nominal = nominal.value;
                    head = row.substr(0, nominal.begin);
                }
            }
            if (!out.nominal) out.nominal = (*out.low + *out.high) / 2;
        } else if (less) {
            out.high = value.value;
        } else if (more) {
            out.low = value.value;
        } else if (tolerance) {
            const double by =
                tolerance->percent ? std::fabs(value.value) * tolerance->value / 100 : tolerance->value;
            out.nominal = value.value;
            out.low = rounded(value.value - by);
            out.high = rounded(value.value + by);
        } else {
            setBare(out, value, about);
        }
        if (said.negated) {
            out.doubts.push_back(
                "The sentence has a \"not\" that is not understood: which way is the limit?");
            out.low.reset();
            out.high.reset();
        }
        relative(head, tail, out);
        setPoint(head, tail, out);
    }

    static std::string tidyWord(std::string text) {
        std::string out = lowerText(trimmed(text));
        return out;
    }

    /// "4.8 to 5.2 V", "10-15 mA": the first is in the unit of the second.
    static void scaleLike(Number& first, const Number& second, const std::string& row) {
        const std::string unit = row.substr(second.begin, second.end - second.begin);
        for (const VoltageUnit& u : kUnits) {
            if (unit.ends_with(u.text)) {
                first.value *= u.scale;
                first.unit = u.unit;
                return;
            }
        }
    }

    void setUnit(const Number& value, PastedCheck& out) {
        const auto unit = value.unit ? value.unit : unit_;
        out.unit = unit.value_or(Unit::volt);
        out.quantity = quantityWord(out.unit);
        if (!unit) out.doubts.push_back("No unit stands with the number: taken as volts.");
    }

    /// To six figures, so that 11.2 V + 10 % is 12.32 V.
    static double rounded(double value) {
        if (value == 0) return 0;
        const double scale = std::pow(10, 5 - std::floor(std::log10(std::fabs(value))));
        return std::round(value * scale) / scale;
    }

    void setBare(PastedCheck& out, const Number& value, bool about) {
        if (out.quantity.empty()) setUnit(value, out);
        const double share = share_ > 0 ? share_
                                        : (out.unit == Unit::ampere  ? kCurrent
                                           : out.unit == Unit::hertz ? kFrequency
                                                                     : kShare) *
                                              (about ? 2 : 1);
        double by = std::fabs(value.value) * share;
        const bool least = out.unit == Unit::volt && by < kLeast;
        if (least) by = kLeast;
        out.nominal = value.value;
        out.low = rounded(value.value - by);
        out.high = rounded(value.value + by);
        out.rule = std::string(share_ > 0 ? "as the table says: "
                               : about    ? "about: "
                                          : "a bare number: ") +
                   "\u00b1" + (least ? "0.1 V" : plainNumber(share * 100) + " %");
    }

    /// "0.6 to 0.8 V below it", "… less than IC1 pin 1": read between the two points.
    void relative(std::string& head, std::string& tail, PastedCheck& out) {
        const std::string low = lowerText(tail);
        for (const std::string_view word : {"below", "less than", "lower than", "under", "unter", "above",
                                            "higher than", "more than", "\u00fcber"}) {
            const std::size_t at = findWord(low, word);
            if (at == std::string::npos || at > 3) continue;
            std::string other = tidy(tail.substr(at + word.size()));
            for (const std::string_view that : {"that at ", "that of ", "that on ", "the voltage at "}) {
                if (lowerText(other).starts_with(that))
                    other = tidy(std::string_view(other).substr(that.size()));
            }
            if (other == "it" || other == "that" || other == "this" || other.empty())
                other = out_.checks.empty() ? "" : out_.checks.back().at;
            const bool above =
                word == "above" || word == "higher than" || word == "more than" || word == "\u00fcber";
            const std::string own = pointOf(tidy(head));
            if (lowerText(other).starts_with("its ")) {
                const auto runs = designatorRuns(own);
                other = tidy(std::string_view(other).substr(4)) +
                        (runs.empty() ? "" : " of " + runs.front().refs.front());
            }
            if (other.empty()) {
                out.doubts.push_back("It is relative to another point, and the line does not say which.");
                return;
            }
            out.at = above ? own : other;
            out.to = above ? other : own;
            if (own.empty()) out.doubts.push_back("The line does not say where to touch.");
            head.clear();
            tail.clear();
            return;
        }
    }

    /// The point in a sentence: "measure the resistance between TP1 and ground should be" is "TP1 and
    /// ground".
    static std::string pointOf(std::string point) {
        static constexpr std::string_view verbs[] = {"measure ", "check for ", "check that ", "check ",
                                                     "verify ",  "test ",      "confirm ",    "messe ",
                                                     "miss ",    "mesurer ",   "medir "};
        for (const std::string_view verb : verbs) {
            const std::size_t at = findWord(lowerText(point), trimmed(verb));
            if (at == std::string::npos) continue;
            const std::string rest =
                tidy(std::string_view(point).substr(std::min(at + verb.size(), point.size())));
            if (!rest.empty()) point = rest;
        }
        for (const std::string_view lead :
             {"the ", "dc ", "voltage at ", "voltage on ", "voltage ", "spannung an ", "at ", "from ",
              "across ", "resistance from ", "resistance between ", "between ", "zwischen ", "entre ",
              "resistance ", "the "}) {
            const std::string rest =
                lowerText(point).starts_with(lead) ? tidy(std::string_view(point).substr(lead.size())) : "";
            if (!rest.empty()) point = rest;
        }
        for (const std::string_view verb :
             {" should ", " must ", " reads", " read ", " is ", " soll ", " muss ", " doit ", " debe "}) {
            const std::size_t at = lowerText(point + " ").find(verb);
            if (at != std::string::npos && at > 0) point = tidy(std::string_view(point).substr(0, at));
        }
        for (const std::string_view last : {" with", " of", " at", " approx"}) {
            if (lowerText(point).ends_with(last))
                point = tidy(std::string_view(point).substr(0, point.size() - last.size()));
        }
        return point;
    }

    /// The point, the other probe and what feeds it, of what stands before and after the value.
    void setPoint(std::string head, std::string tail, PastedCheck& out) {
        if (!out.at.empty()) return;
        takeFrom(tail, out);
        takeFrom(head, out);
        std::string point = tidy(head);
        const std::string after = tidy(tail);
        const std::string low = lowerText(after);
        for (const std::string_view lead : {"at ", "on ", "am ", "an ", "sur ", "en ", "across "}) {
            if (low.starts_with(lead) && (point.empty() || designatorRuns(point).empty())) {
                point = tidy(std::string_view(after).substr(lead.size()));
                break;
            }
        }
        bool between = false;
        for (const std::string_view word : {"between ", "across ", "zwischen ", "entre "})
            between = between || lowerText(point).find(word) != std::string::npos;
        point = pointOf(std::move(point));
        for (const std::string_view sign : {" to ", " and ", " und ", " gegen ", " -> ", " bis ", " et "}) {
            const std::size_t at = lowerText(point).find(sign);
            // "Junction of R1 and R2" is one point.
            const bool joins = sign == " and " || sign == " und " || sign == " et ";
            if (at == std::string::npos || (joins && !between)) continue;
            out.to = tidy(std::string_view(point).substr(at + sign.size()));
            point = tidy(std::string_view(point).substr(0, at));
            break;
        }
        static constexpr std::string_view grounds[] = {"ground",  "gnd",  "masse", "earth",
                                                       "chassis", "masa", "0 v",   "0v"};
        if (std::find(std::begin(grounds), std::end(grounds), lowerText(out.to)) != std::end(grounds))
            out.to = "ground";
        // A pin alone belongs to the chip above.
        const std::string lowPoint = lowerText(point);
        const bool pin = !point.empty() && (wholeNumber(point, 3) || lowPoint.starts_with("pin ") ||
                                            lowPoint.starts_with("stift "));
        if (pin && !chip_.empty() && designatorRuns(point).empty())
            point = chip() + (wholeNumber(point, 3) ? " pin " : " ") + point;
        if (out.to.size() > 0 && wholeNumber(out.to, 3) && !chip_.empty()) out.to = chip() + " pin " + out.to;
        out.at = point;
        if (findWord(lowerText(head + tail), "diode") != std::string::npos &&
            findWord(lowerText(head + tail), "range") != std::string::npos)
            out.quantity = "diode";
    }

    /// "from U1", "fed from U1": upstream.
    static void takeFrom(std::string& text, PastedCheck& out) {
        const std::string low = lowerText(text);
        for (const std::string_view lead : {"fed from ", "fed by ", "supplied by ", "from ", "von "}) {
            const std::size_t at = low.find(lead);
            if (at == std::string::npos || (at > 0 && isWordLetter(low[at - 1]))) continue;
            const std::string rest = text.substr(at + lead.size());
            const auto runs = designatorRuns(rest);
            const bool other = lowerText(rest).find(" to ") != std::string::npos;
            if (runs.empty() || runs.front().begin > 4 || (at == 0 && other)) continue;
            out.from = runs.front().refs.front();
            text = text.substr(0, at) + rest.substr(runs.front().end);
            return;
        }
    }

    VoltageTable out_;
    std::vector<ColumnOf> columns_;
    std::string condition_, chip_;
    std::vector<std::string> pins_;        ///< that head the numbers below them
    std::optional<RefusedLine> chipLine_;  ///< of the chip that heads the rows, while no row has used it
    std::size_t line_ = 0;
    std::string unsure_;  ///< a line above that may have changed the condition, and was not understood
    std::optional<Unit> unit_;
    double share_ = 0;  ///< that the table itself allows; 0: it does not say
};

}  // namespace

VoltageTable readVoltageTable(const std::string& bytes) { return VoltageReader().read(bytes); }

std::vector<Check> checksOf(const VoltageTable& table, const std::vector<Check>& taken) {
    std::set<std::string> ids;
    for (const Check& check : taken) ids.insert(check.id);
    std::vector<Check> out;
    for (const PastedCheck& pasted : table.checks) {
        if (pasted.measured() && !pasted.low && !pasted.high) continue;
        Check check;
        const std::string name = pasted.at + (pasted.condition.empty() ? "" : " " + pasted.condition);
        const std::string base = plainId(name, "check");
        check.id = base;
        for (int n = 2; !ids.insert(check.id).second; ++n) check.id = base + "-" + std::to_string(n);
        check.at = pasted.at;
        check.to = pasted.to == "ground" ? "" : pasted.to;
        check.condition = pasted.condition;
        check.title = pasted.at.empty() ? pasted.text.substr(0, 60) : pasted.at;
        if (!check.to.empty()) check.title += " to " + check.to;
        if (!check.condition.empty()) check.title += ", " + check.condition;
        check.unit = pasted.unit;
        if (!pasted.measured()) {
            check.seen = pasted.seen;
            check.title = pasted.seen.substr(0, 60);
            check.at.clear();
            check.unit = Unit::none;
            check.limits.low = 0.5;  // a yes is 1, a no is 0
        }
        check.diode = pasted.quantity == "diode";
        if (pasted.low) check.limits.low = *pasted.low;
        if (pasted.high) check.limits.high = *pasted.high;
        check.rule = pasted.rule;
        check.from = pasted.from;
        out.push_back(std::move(check));
    }
    return out;
}

}  // namespace ombrek
