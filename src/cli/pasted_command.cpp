#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "lists/instructions.h"
#include "lists/parts_list.h"
#include "lists/voltage_table.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Json numberOrNull(const std::optional<double>& value) { return value ? Json(*value) : Json(nullptr); }

Json checkJson(const PastedCheck& check) {
    Json out{{"line", check.line},
             {"at", check.at},
             {"to", check.to},
             {"condition", check.condition},
             {"quantity", check.quantity},
             {"unit", symbol(check.unit)},
             {"low", numberOrNull(check.low)},
             {"high", numberOrNull(check.high)},
             {"nominal", numberOrNull(check.nominal)}};
    if (!check.rule.empty()) out["rule"] = check.rule;
    if (!check.from.empty()) out["from"] = check.from;
    if (!check.seen.empty()) out["seen"] = check.seen;
    out["doubts"] = check.doubts;
    return out;
}

}  // namespace

int checksCommand(const std::string& file, bool json) {
    const auto bytes = readFile(file, kLargestPaste);
    if (!bytes) return refuse(bytes.error(), json);
    const VoltageTable table = readVoltageTable(*bytes);
    if (table.checks.empty())
        return refuse({file, "No line of this names a point and a value, such as \"IC3 pin 8  5.0 V\"."},
                      json);
    if (json) {
        Json checks = Json::array(), refused = Json::array();
        for (const PastedCheck& check : table.checks) checks.push_back(checkJson(check));
        for (const RefusedLine& r : table.refused)
            refused.push_back({{"line", r.line}, {"text", r.text}, {"reason", r.reason}});
        printJson({{"checks", checks}, {"refused", refused}});
        return 0;
    }
    for (const PastedCheck& check : table.checks) {
        std::printf("%4zu  %s%s%s\n", check.line, check.at.c_str(),
                    check.condition.empty() ? "" : (", " + check.condition).c_str(),
                    check.measured() && (check.low || check.high)
                        ? (": " + limitsText({check.low.value_or(-HUGE_VAL), check.high.value_or(HUGE_VAL)},
                                             check.unit))
                              .c_str()
                        : "");
        for (const auto& doubt : check.doubts) std::printf("      ? %s\n", doubt.c_str());
    }
    for (const RefusedLine& r : table.refused) std::printf("%4zu  left out: %s\n", r.line, r.reason.c_str());
    return 0;
}

int stepsCommand(const std::string& file, bool json) {
    const auto bytes = readFile(file, kLargestPaste);
    if (!bytes) return refuse(bytes.error(), json);
    const auto steps = readInstructions(*bytes);
    if (steps.empty()) return refuse({file, "There is no instruction in this."}, json);
    Json list = Json::array();
    for (const PastedStep& step : steps) {
        if (!json) {
            std::printf("%4zu  %s\n", step.line, step.title.c_str());
            for (const auto& hold : step.holds) std::printf("      hold: %s\n", hold.c_str());
            for (const auto& keep : step.keeps) std::printf("      keep: %s\n", keep.c_str());
            for (const auto& doubt : step.doubts) std::printf("      ? %s\n", doubt.c_str());
        }
        Json row{{"line", step.line},   {"number", step.number}, {"title", step.title}, {"fits", step.fits},
                 {"holds", step.holds}, {"keeps", step.keeps},   {"tools", step.tools}};
        if (!step.stage.empty()) row["stage"] = step.stage;
        row["doubts"] = step.doubts;
        list.push_back(std::move(row));
    }
    if (json) printJson({{"steps", list}});
    return 0;
}

}  // namespace ombrek
