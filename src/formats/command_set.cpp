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

/// Whether a line could switch an output: a word of it that begins as SCPI-1999's OUTPut does, and asks not.
bool switchesOutput(std::string line) {
    std::transform(line.begin(), line.end(), line.begin(), [](unsigned char c) { return std::toupper(c); });
    bool begins = true;
    for (std::size_t i = 0; i < line.size(); ++i) {
        if (begins && line.compare(i, 3, "OUT") == 0) return line.find('?', i) == std::string::npos;
        begins = line[i] == ':' || line[i] == ';' || line[i] == ' ' || line[i] == '*';
    }
    return false;
}

std::string lineOf(JsonFields& fields, const std::string& name) {
    const std::string line = fields.text(name, "");
    if (line.size() > 200 || line.find_first_of("\r\n") != std::string::npos)
        fields.fault(name, "One line, of 200 characters at most.");
    if (switchesOutput(line)) fields.fault(name, "Ombrek switches no output.");
    return line;
}

std::vector<std::string> linesOf(JsonFields& fields, const std::string& name) {
    if (!fields.has(name)) return {};
    std::vector<std::string> out = fields.texts(name);
    for (const std::string& line : out) {
        if (switchesOutput(line)) fields.fault(name, "Ombrek switches no output.");
    }
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
    CommandSet::Supply out{lineOf(fields, "volts"), lineOf(fields, "amperes"), lineOf(fields, "volts asked"),
                           lineOf(fields, "amperes asked"), lineOf(fields, "output")};
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
