#include <algorithm>
#include <cmath>

#include "cli/commands.h"
#include "cli/print.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/files.h"
#include "formats/number_table.h"
#include "report/dial_sheet.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::uintmax_t kLargestDial = 4000000;

/// "60mm", "6 cm", "60" [mm].
Result<double> millimetres(const std::string& option, const std::string& text) {
    std::string plain = lowered(trimmed(text));
    double scale = 1;
    for (const auto& [unit, factor] : {std::pair{"mm", 1.0}, {"cm", 10.0}}) {
        if (!plain.ends_with(unit)) continue;
        plain.resize(plain.size() - 2);
        scale = factor;
    }
    const auto value = parseQuantity(trimmed(plain));
    if (!value || !(value->value > 0)) return problem(option, "A size is a number of millimetres, 60mm.");
    return value->value * scale;
}

Result<DialShape> shapeOf(const DialQuestion& q, const NumberTable& table) {
    DialShape out;
    out.round = q.straight.empty();
    out.mirrored = q.mirrored;
    const auto size = millimetres(out.round ? "--round" : "--straight", out.round ? q.round : q.straight);
    if (!size) return tl::make_unexpected(size.error());
    out.size = *size;
    double low = INFINITY, high = -INFINITY;
    for (const auto& row : table.rows) low = std::min(low, row[0]), high = std::max(high, row[0]);
    // Positions of more than one are the knob's own degrees; else shares of its travel.
    const bool degrees = high - low > 1.0001 || lowered(table.heads[0]).find("deg") != std::string::npos ||
                         lowered(table.heads[0]).find("angle") != std::string::npos;
    const bool percent = table.heads[0].find('%') != std::string::npos ||
                         lowered(table.heads[0]).find("percent") != std::string::npos;
    out.sweep = degrees && !percent ? 0 : 180;
    if (percent || (!degrees && low >= 0)) out.travel = percent ? 100 : 1;
    if (!q.sweep.empty()) {
        const auto sweep = parseQuantity(q.sweep);
        if (!sweep || !(sweep->value > 0 && sweep->value <= 360))
            return problem("--sweep", "A sweep is a number of degrees, to 360.");
        out.sweep = sweep->value;
    }
    return out;
}

int write(const std::string& file, const QByteArray& bytes, bool json) {
    const auto done = writeFile(file, bytes.toStdString());
    return done ? 0 : refuse(done.error(), json);
}

}  // namespace

int dialCommand(const DialQuestion& q, bool json) {
    const auto bytes = readFile(q.file, kLargestDial);
    if (!bytes) return refuse(bytes.error(), json);
    const auto table = readNumbers(
        *bytes, {{{"position", "angle", "angle_deg", "degrees", "deg", "pos", "turns", "mm", "x",
                   "position %", "position_percent", "percent", "%"}},
                 {{"frequency", "frequency_hz", "f", "hz", "freq", "freq_hz", "f_hz"}, Unit::hertz}});
    if (!table) return refuse(table.error(), json);
    const auto shape = shapeOf(q, *table);
    if (!shape) return refuse(shape.error(), json);
    std::vector<DialPoint> points;
    for (std::size_t i = 0; i < table->rows.size(); ++i) {
        const auto& row = table->rows[i];
        // "7,000" is 7 by itself, and no rig has a dial there.
        if (!(row[1] >= 1000))
            return refuse(
                {"line " + std::to_string(table->lines[i]),
                 "\"" + table->texts[i][1].substr(0, 30) + "\" is " + formatQuantity(row[1], Unit::hertz, 4) +
                     ": write its unit, 7,000 MHz or 7000 kHz."},
                json);
        points.push_back({row[0], row[1]});
    }
    const auto dial = dialOf(points, *shape);
    if (!dial) return refuse(dial.error(), json);
    const QString title = QStringLiteral("Dial, %1 to %2 MHz").arg(dial->low / 1e6).arg(dial->high / 1e6);
    if (!q.pdf.empty()) {
        if (const int failed = write(q.pdf, pdfOf(dialSheet(*dial, title)), json)) return failed;
    }
    if (!q.svg.empty()) {
        if (const int failed = write(q.svg, dialSvg(*dial, title), json)) return failed;
    }
    Json marks = Json::array();
    const char* place = shape->round ? "angle_deg" : "mm";
    for (const DialMark& mark : dial->marks) {
        Json row{{"hz", mark.frequency}, {place, mark.place}, {"major", mark.major}};
        if (mark.major) row["label"] = mark.label;
        marks.push_back(row);
        if (!json && mark.major)
            std::printf("%s MHz at %.2f %s\n", mark.label.c_str(), mark.place,
                        shape->round ? "degrees" : "mm");
    }
    if (json)
        printJson({{"marks", marks},
                   {"low_hz", dial->low},
                   {"high_hz", dial->high},
                   {"major_hz", dial->major},
                   {"minor_hz", dial->minor},
                   {shape->round ? "diameter_mm" : "length_mm", shape->size}});
    return 0;
}

}  // namespace ombrek
