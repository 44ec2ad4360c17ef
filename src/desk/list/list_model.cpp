#include "desk/list/list_model.h"

#include <algorithm>

#include "desk/parts_in/parts_in_model.h"

namespace ombrek {
namespace {

std::string joined(const std::vector<std::string>& texts, const char* between) {
    std::string out;
    for (const auto& text : texts) out += (out.empty() ? "" : between) + text;
    return out;
}

ListModel::Row rowOf(const ListLine& line, std::size_t index) {
    ListModel::Row out{line.line, listed(line.refs, 5) + ": " + valueText(line),
                       "",        VerdictState::pass,
                       line.text, joined(line.doubts, " "),
                       index};
    if (line.volts > 0) out.text += ", " + formatQuantity(line.volts, Unit::volt, 3);
    if (line.watts > 0) out.text += ", " + formatQuantity(line.watts, Unit::watt, 3);
    if (!line.mark.empty()) out.text += ", marked " + line.mark;
    if (!line.sure()) out.state = VerdictState::doubtful;
    out.right = std::to_string(line.refs.size()) + (line.refs.size() == 1 ? " part" : " parts");
    return out;
}

}  // namespace

void ListModel::take(ListSource source) {
    source_ = std::move(source);
    sortRows();
}

void ListModel::sortRows() {
    rows_.clear();
    for (std::size_t i = 0; i < source_.list.refused.size(); ++i) {
        const RefusedLine& r = source_.list.refused[i];
        rows_.push_back({r.line, r.text, "not taken", VerdictState::fail, r.text, r.reason, i});
    }
    for (const bool sure : {false, true}) {
        for (std::size_t i = 0; i < source_.list.lines.size(); ++i) {
            if (source_.list.lines[i].sure() == sure) rows_.push_back(rowOf(source_.list.lines[i], i));
        }
    }
}

int ListModel::doubtful() const { return source_.list.doubtful(); }

std::string ListModel::rowText(std::size_t row) const {
    const Row& r = rows_.at(row);
    if (r.state == VerdictState::fail) return r.source;
    const ListLine& line = source_.list.lines[r.index];
    std::string out = joined(line.refs, ", ") + "  ";
    out += line.nominal > 0
               ? formatQuantity(line.nominal, line.unit, 6) + " " + plainNumber(line.tolerance) + "%"
               : line.value;
    if (line.volts > 0) out += " " + formatQuantity(line.volts, Unit::volt, 3);
    if (line.watts > 0) out += " " + formatQuantity(line.watts, Unit::watt, 3);
    if (!line.description.empty() && line.nominal > 0) out += " " + line.description;
    if (!line.mark.empty()) out += " (marked " + line.mark + ")";
    return out;
}

Result<void> ListModel::correct(std::size_t row, const std::string& text) {
    const Row r = rows_.at(row);
    PartsList said = readListText(text);
    if (said.lines.size() != 1 || !said.refused.empty())
        return problem("",
                       said.refused.empty()
                           ? "This is no parts-list line: write designators and a value, as C1, C2  100nF."
                           : said.refused.front().reason);
    ListLine line = std::move(said.lines.front());
    line.line = r.line;
    line.text = r.source;
    PartsList& list = source_.list;
    if (r.state == VerdictState::fail) {
        list.refused.erase(list.refused.begin() + std::ptrdiff_t(r.index));
        list.lines.push_back(std::move(line));
    } else {
        list.lines[r.index] = std::move(line);
    }
    checkTwice(list);
    sortRows();
    return {};
}

void ListModel::confirm(std::size_t row) {
    const Row& r = rows_.at(row);
    if (r.state == VerdictState::fail) return;
    source_.list.lines[r.index].doubts.clear();
    sortRows();
}

void ListModel::drop(std::size_t row) {
    const Row r = rows_.at(row);
    const auto at = std::ptrdiff_t(r.index);
    if (r.state == VerdictState::fail) {
        source_.list.refused.erase(source_.list.refused.begin() + at);
    } else {
        source_.list.lines.erase(source_.list.lines.begin() + at);
    }
    sortRows();
}

void ListModel::turnColumn(std::size_t column, int by) {
    if (!source_.table || column >= source_.shape.columns.size()) return;
    Column& held = source_.shape.columns[column];
    held = static_cast<Column>((static_cast<int>(held) + by + kColumns) % kColumns);
    source_.list = readListTable(source_.cells, source_.shape);
    sortRows();
}

std::string ListModel::columnName(std::size_t column) const {
    const std::size_t header = source_.shape.headerRows;
    if (header > 0 && column < source_.cells.rows[header - 1].size()) {
        const std::string& name = source_.cells.rows[header - 1][column];
        if (!name.empty()) return name;
    }
    return "column " + std::to_string(column + 1);
}

}  // namespace ombrek
