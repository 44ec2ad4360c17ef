#include "formats/command_set.h"

#include <algorithm>
#include <array>
#include <map>

#include "formats/files.h"
#include "formats/json_fields.h"

namespace ombrek {
namespace {

const std::map<std::string, Unit> kQuantities{{"voltage", Unit::volt},     {"current", Unit::ampere},
                                              {"resistance", Unit::ohm},   {"capacitance", Unit::farad},
                                              {"inductance", Unit::henry}, {"frequency", Unit::hertz},
                                              {"power", Unit::dbm}};
const std::map<std::string, Flow> kFlows{
    {"", Flow::either}, {"dc", Flow::dc}, {"ac", Flow::ac}, {"pp", Flow::peakToPeak}};

// Words of the headers of IEEE 488.2 and SCPI-1999 that a line may be made of, in their short forms. What is
// not among them is not sent: states and outputs are switched, memories recalled and relays closed by others.
constexpr std::string_view kCommon[] = {"*CLS", "*ESE", "*SRE", "*WAI", "*OPC"};
constexpr std::string_view kSetUp[] = {
    "SYST", "REM",  "RWL",  "LOC",  "BEEP", "HEAD",  "CONF",  "SENS", "FUNC", "UNIT", "FORM", "TRIG", "SAMP",
    "COUN", "SOUR", "DEL",  "ABOR", "DISP", "ROUT",  "TERM",  "CALC", "AVER", "TCON", "INP",  "COUP", "FREQ",
    "VOLT", "CURR", "RES",  "FRES", "CAP",  "IND",   "POW",   "DC",   "AC",   "PTP",  "RANG", "AUTO", "NPLC",
    "APER", "IMP",  "LEV",  "INST", "NSEL", "SEL",   "DATA",  "HOLD", "DIG",  "PER",  "CONT", "TEMP", "DIOD",
    "CHAN", "FILT", "BAND", "ATT",  "REF",  "FETC",  "MEAS",  "INIT", "IMM",  "RATE", "SPE",  "ZERO", "AZER",
    "UPP",  "STR",  "CORR", "LOSS", "INP1", "CHAN1", "SENS1", "MODE"};
/// Of these a set-up line may not be made up alone: "VOLT 30" sets an output's level, "VOLT:DC:RANG 10" a
/// range.
constexpr std::string_view kLevels[] = {"VOLT", "CURR", "POW", "SOUR", "LEV", "IMM"};
constexpr std::string_view kSupply[] = {"SOUR", "VOLT", "CURR", "LEV", "IMM", "AMPL", "INST", "NSEL", "SEL"};

template <class List>
bool isIn(const List& list, std::string_view word) {
    return std::find(std::begin(list), std::end(list), word) != std::end(list);
}

/// "voltage" is "VOLT": the first four letters, three where the fourth is a vowel (SCPI-1999, volume
/// 1, 6.2.1). Figures behind it are a channel's.
std::string shortForm(std::string word) {
    for (char& c : word) c = char(std::toupper(static_cast<unsigned char>(c)));
    while (word.size() > 1 && std::isdigit(static_cast<unsigned char>(word.back()))) word.pop_back();
    if (word.size() <= 4) return word;
    return std::string_view("AEIOU").find(word[3]) == std::string_view::npos ? word.substr(0, 4)
                                                                             : word.substr(0, 3);
}

/// Why a command is not sent; empty when it may be.
std::string whyNotSent(const std::string& command, bool supply) {
    const auto begin = command.find_first_not_of(" :");
    if (begin == std::string::npos) return "";
    const auto end = command.find_first_of(" \t", begin);
    const std::string header =
        command.substr(begin, end == std::string::npos ? std::string::npos : end - begin);
    if (header.ends_with('?')) return "";
    std::vector<std::string> nodes(1);
    for (const char c : header) {
        if (c == ':')
            nodes.emplace_back();
        else
            nodes.back() += c;
    }
    bool levels = true;
    for (const std::string& node : nodes) {
        const std::string word = shortForm(node);
        const bool known = node.starts_with('*') ? isIn(kCommon, word)
                           : supply              ? isIn(kSupply, word)
                                                 : isIn(kSetUp, word);
        if (!known)
            return "\"" + node.substr(0, 20) +
                   "\" is no word that Ombrek sends: it switches no output and recalls no state.";
        levels = levels && isIn(kLevels, word);
    }
    if (levels && !supply) return "\"" + header.substr(0, 30) + "\" would set what an instrument puts out.";
    return "";
}

void holdLine(JsonFields& fields, const std::string& name, const std::string& line, bool supply) {
    const bool control =
        std::any_of(line.begin(), line.end(), [](unsigned char c) { return c < 0x20 || c == 0x7f; });
    if (line.size() > 200 || control) fields.fault(name, "One line, of 200 characters at most.");
    for (std::size_t from = 0; from <= line.size();) {
        const std::size_t end = std::min(line.find(';', from), line.size());
        // "INST 1:OUTP ON": what stands behind a number is a command too.
        std::string command = line.substr(from, end - from);
        if (const std::string why = whyNotSent(command, supply); !why.empty()) fields.fault(name, why);
        const auto blank = command.find(' ', command.find_first_not_of(' '));
        const auto colon = blank == std::string::npos ? blank : command.find(':', blank);
        if (colon != std::string::npos) {
            if (const std::string why = whyNotSent(command.substr(colon), supply); !why.empty())
                fields.fault(name, why);
        }
        from = end + 1;
    }
}

std::string lineOf(JsonFields& fields, const std::string& name, bool supply = false) {
    const std::string line = fields.text(name, "");
    holdLine(fields, name, line, supply);
    return line;
}

std::vector<std::string> linesOf(JsonFields& fields, const std::string& name) {
    if (!fields.has(name)) return {};
    std::vector<std::string> out = fields.texts(name);
    for (const std::string& line : out) holdLine(fields, name, line, false);
    return out;
}

CommandSet::Query queryOf(JsonFields& fields) {
    CommandSet::Query out;
    const std::string quantity = fields.text("quantity"), flow = fields.text("flow", "");
    if (!kQuantities.contains(quantity)) fields.fault("quantity", "\"" + quantity + "\" is no quantity.");
    if (!kFlows.contains(flow)) fields.fault("flow", "\"dc\", \"ac\" or \"pp\".");
    out.unit = kQuantities.at(quantity);
    out.flow = kFlows.at(flow);
    out.before = linesOf(fields, "before");
    out.ask = lineOf(fields, "ask");
    if (out.ask.find('?') == std::string::npos) fields.fault("ask", "A question ends in \"?\".");
    out.range = lineOf(fields, "range");
    out.place = int(fields.number("place", 0, 20, 0));
    out.settle = int(fields.number("settle", 0, 60000, 0));
    fields.finish();
    return out;
}

CommandSet::Supply supplyOf(JsonFields fields) {
    CommandSet::Supply out{lineOf(fields, "volts", true), lineOf(fields, "amperes", true),
                           lineOf(fields, "volts asked"), lineOf(fields, "amperes asked"),
                           lineOf(fields, "output")};
    for (const char* name : {"volts", "amperes"}) {
        if (fields.text(name).find('#') == std::string::npos)
            fields.fault(name, "\"#\" stands for the number.");
    }
    for (const char* name : {"volts asked", "amperes asked", "output"}) {
        if (fields.text(name).find('?') == std::string::npos) fields.fault(name, "A question ends in \"?\".");
    }
    fields.finish();
    return out;
}

}  // namespace

const CommandSet::Query* CommandSet::query(Unit unit, Flow flow) const {
    const Query* best = nullptr;
    for (const Query& q : queries) {
        if (q.unit != unit) continue;
        const bool fits = q.flow == flow || q.flow == Flow::either || flow == Flow::either;
        if (fits && (best == nullptr || (q.flow == flow && best->flow != flow))) best = &q;
    }
    return best;
}

Result<CommandSet> readCommandSet(const std::string& text) {
    try {
        const nlohmann::json json = parseJson(text);
        JsonFields fields(json, "");
        CommandSet out;
        if (fields.text("format") != "ombrek-instrument") fields.fault("format", "This is no command set.");
        fields.whole("version", 1, 1);
        out.id = fields.text("id");
        out.name = fields.text("name");
        out.source = fields.text("source", "");
        out.setup = linesOf(fields, "setup");
        const std::string end = fields.text("end", "lf");
        static const std::map<std::string, std::string> ends{{"lf", "\n"}, {"cr", "\r"}, {"crlf", "\r\n"}};
        if (!ends.contains(end)) fields.fault("end", "\"lf\", \"cr\" or \"crlf\".");
        out.end = ends.at(end);
        out.errors = lineOf(fields, "errors");
        out.answers = int(fields.number("answers", 100, 60000, 2000));
        for (JsonFields& q : fields.objects("queries")) out.queries.push_back(queryOf(q));
        if (fields.has("supply")) out.supply = supplyOf(fields.object("supply"));
        fields.finish();
        if (out.queries.empty()) fields.fault("queries", "It asks for nothing.");
        return out;
    } catch (const JsonFault& fault) {
        return tl::make_unexpected(fault.problem);
    }
}

Result<std::vector<CommandSet>> readCommandSets(const std::filesystem::path& folder) {
    std::vector<CommandSet> out;
    std::error_code none;
    for (const auto& entry : std::filesystem::directory_iterator(folder, none)) {
        if (entry.path().extension() != ".json") continue;
        const auto text = readFile(entry.path(), 100000);
        if (!text) return tl::make_unexpected(text.error());
        auto set = readCommandSet(*text);
        if (!set)
            return problem(entry.path().filename().string() + " " + set.error().place, set.error().sentence);
        out.push_back(std::move(*set));
    }
    if (out.empty()) return problem(folder.string(), "The command sets of the instruments are not there.");
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.id < b.id; });
    return out;
}

}  // namespace ombrek
