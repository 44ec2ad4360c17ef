#include "lists/list_table.h"

#include <algorithm>
#include <array>
#include <map>

#include "core/text/letters.h"
#include "lists/designators.h"
#include "lists/token.h"

namespace ombrek {
namespace {

std::string rowText(const CsvRow& row) {
    std::string out;
    for (const auto& cell : row) {
        if (!trimmed(cell).empty()) out += (out.empty() ? "" : "  ") + std::string(trimmed(cell));
    }
    return out.size() > 300 ? out.substr(0, 300) : out;
}

bool isRuledLine(const CsvRow& row) {
    return std::all_of(row.begin(), row.end(), [](const std::string& cell) {
        return trimmed(cell).find_first_not_of("-=+:_ ") == std::string_view::npos;
    });
}

bool nothing(std::string_view cell) {
    const std::string low = lowerText(trimmed(cell));
    static constexpr std::array<std::string_view, 8> none{"",       "-",   "--",   "\u2013",
                                                          "\u2014", "n/a", "none", "x"};
    return std::find(none.begin(), none.end(), low) != none.end();
}

class TableReader {
 public:
    TableReader(const CsvTable& table, const ListShape& shape, std::string variant)
        : table_(table), shape_(shape), variant_(std::move(variant)), taker_(manner()) {}

    PartsList read(const Progress& progress) {
        noteVariants();
        for (std::size_t r = shape_.headerRows; r < table_.rows.size(); ++r) {
            if (progress && r % 512 == 0 && !progress(double(r) / double(table_.rows.size()))) return {};
            const CsvRow& row = table_.rows[r];
            if (isRuledLine(row)) continue;
            if (r > 0 && isHeader(row)) {
                flush();
                section(r);
                continue;
            }
            takeRow(r);
        }
        flush();
        PartsList out = taker_.finish();
        out.variants = variants_;
        mergeVariantRows(out);
        return out;
    }

 private:
    Manner manner() const {
        std::string text;
        for (const CsvRow& row : table_.rows) {
            // A cell is a cell: the separator is no decimal mark.
            for (std::size_t c = 0; c < row.size() && text.size() < 200000; ++c) {
                if (c < shape_.columns.size() && shape_.columns[c] == Column::refs) continue;
                text += row[c] + " \n";
            }
        }
        return mannerOf(foldSigns(text));
    }

    void noteVariants() {
        for (const std::string& name : variantsOf(shape_)) {
            if (std::find(variants_.begin(), variants_.end(), name) == variants_.end())
                variants_.push_back(name);
        }
    }

    /// A second header: its columns hold from here.
    void section(std::size_t row) {
        CsvTable rest;
        rest.rows.assign(table_.rows.begin() + std::ptrdiff_t(row), table_.rows.end());
        rest.lines.assign(table_.lines.begin() + std::ptrdiff_t(row), table_.lines.end());
        const ListShape found = guessShape(rest);
        if (found.headings == shape_.headings) return;
        shape_ = found;
        noteVariants();
    }

    /// What stands in a column, in one line.
    std::string cell(const CsvRow& row, Column column) const {
        std::string out;
        for (std::size_t c = 0; c < row.size() && c < shape_.columns.size(); ++c) {
            if (shape_.columns[c] != column || trimmed(row[c]).empty()) continue;
            out += (out.empty() ? "" : "  ") + std::string(trimmed(row[c]));
        }
        std::replace(out.begin(), out.end(), '\n', ' ');
        return out;
    }

    std::string headingOf(Column column) const {
        for (std::size_t c = 0; c < shape_.columns.size() && c < shape_.headings.size(); ++c) {
            if (shape_.columns[c] == column) return shape_.headings[c];
        }
        return "";
    }

    void takeRow(std::size_t r) {
        const CsvRow& row = table_.rows[r];
        const std::string refs = cell(row, Column::refs);
        const std::size_t filled = std::size_t(
            std::count_if(row.begin(), row.end(), [](const std::string& c) { return !trimmed(c).empty(); }));
        const bool names = !refs.empty() && !designatorRuns(refs, {Letters::any}).empty();
        if (filled == 1 && !(names && readDesignator(trimmed(refs)))) {
            const auto section = readSection(rowText(row));
            if (section && !(names && pending_ && pendingOpen())) {
                flush();
                taker_.head(*section);
                return;
            }
        }
        if (rowText(row).starts_with('#')) return;
        if (names) {
            // Designators that go on from a row that ended in a comma.
            if (pending_ && filled == 1 && pendingOpen()) {
                pending_->refs += " " + refs;
                pending_->text += "  " + refs;
                return;
            }
            // The value may stand in the row where the designators end.
            const bool counted = std::find(shape_.columns.begin(), shape_.columns.end(), Column::quantity) !=
                                 shape_.columns.end();
            if (pending_ && counted && pendingOpen() && cell(row, Column::quantity).empty() &&
                pending_->value.empty()) {
                const Pending more = fieldsOf(row);
                pending_->refs += " " + more.refs;
                for (const auto field : {&ListFields::value, &ListFields::description, &ListFields::remark,
                                         &ListFields::mpn, &ListFields::package})
                    (*pending_).*field += ((*pending_).*field).empty() ? more.*field : " " + more.*field;
                pending_->text += "  " + rowText(row);
                return;
            }
            flush();
            pending_ = fieldsOf(row);
            pending_->line = table_.lines[r];
            pending_->text = rowText(row);
            return;
        }
        takeWithout(r, refs);
    }

    bool pendingOpen() const {
        const auto text = trimmed(pending_->refs);
        if (text.ends_with(',') || text.ends_with('-') || text.ends_with(';')) return true;
        // The quantity says that more must come.
        std::size_t count = 0;
        for (const auto& run : designatorRuns(text, {Letters::any})) count += run.refs.size();
        return std::size_t(readQuantity(pending_->quantity)) > count;
    }

    void takeWithout(std::size_t r, const std::string& refs) {
        const CsvRow& row = table_.rows[r];
        const std::string text = rowText(row);
        if (refs.empty() && pending_ && goesOn(row)) {
            const Pending more = fieldsOf(row);
            for (const auto field : {&ListFields::value, &ListFields::description, &ListFields::remark,
                                     &ListFields::mpn, &ListFields::package})
                (*pending_).*field += (more.*field).empty() ? "" : " " + more.*field;
            pending_->text += "  " + text;
            return;
        }
        flush();
        const std::string quantity = cell(row, Column::quantity);
        Hardware hardware;
        std::string what;
        for (const Column column : {Column::description, Column::value, Column::kind, Column::mpn}) {
            const std::string words = cell(row, column);
            if (!words.empty() && what.find(words) == std::string::npos)
                what += (what.empty() ? "" : ", ") + words;
        }
        if (!refs.empty() && !nothing(refs)) what = refs + (what.empty() ? "" : ", " + what);
        const std::string counted = quantity.empty() ? what : quantity + " " + what;
        const auto found = readHardware(counted, !quantity.empty() || taker_.hardwareExpected());
        if (found && !what.empty()) {
            hardware = *found;
            hardware.text = text;
            taker_.take(std::move(hardware), table_.lines[r]);
            return;
        }
        if (const auto section = readSection(text); section && refs.empty()) {
            taker_.head(*section);
            return;
        }
        taker_.refuse(table_.lines[r], text,
                      refs.empty() ? "No designator stands in this row."
                                   : "\"" + refs.substr(0, 40) + "\" is no designator.");
    }

    /// The rest of the row above: words without a count of their own.
    bool goesOn(const CsvRow& row) const {
        return cell(row, Column::quantity).empty() && cell(row, Column::value).empty() &&
               !(cell(row, Column::description) + cell(row, Column::remark)).empty() &&
               !readSection(rowText(row)) && !taker_.hardwareExpected();
    }

    /// Core, turns, wire and length of a row, a bare number with what its heading counts: "T37-2  12 turns".
    std::string windingOf(const CsvRow& row) const {
        std::string out;
        for (std::size_t c = 0; c < row.size() && c < shape_.columns.size(); ++c) {
            if (shape_.columns[c] != Column::winding || nothing(row[c])) continue;
            const std::string text(trimmed(row[c]));
            const bool bare = text.find_first_not_of("0123456789.,") == std::string::npos;
            const std::string unit = bare && c < shape_.headings.size() ? countedBy(shape_.headings[c]) : "";
            out += (out.empty() ? "" : "  ") + text + (unit.empty() ? "" : " " + unit);
        }
        return out;
    }

    struct Pending : ListFields {
        std::size_t line = 0;
        std::string text, forVariant;
        std::vector<std::string> perVariant;  ///< in the order of the columns
    };

    Pending fieldsOf(const CsvRow& row) const {
        Pending out;
        struct Field {
            std::string ListFields::*field;
            Column column;
        };
        static constexpr Field fields[] = {{&ListFields::refs, Column::refs},
                                           {&ListFields::quantity, Column::quantity},
                                           {&ListFields::kind, Column::kind},
                                           {&ListFields::value, Column::value},
                                           {&ListFields::description, Column::description},
                                           {&ListFields::tolerance, Column::tolerance},
                                           {&ListFields::package, Column::package},
                                           {&ListFields::volts, Column::volts},
                                           {&ListFields::mark, Column::mark},
                                           {&ListFields::code, Column::code},
                                           {&ListFields::mpn, Column::mpn},
                                           {&ListFields::remark, Column::remark},
                                           {&ListFields::fitted, Column::fitted},
                                           {&ListFields::notFitted, Column::notFitted}};
        for (const Field& f : fields) out.*f.field = cell(row, f.column);
        if (const std::string wound = windingOf(row); !wound.empty())
            out.description += (out.description.empty() ? "" : "  ") + wound;
        static constexpr std::array<std::string_view, 5> open{"unknown", "(unknown)", "~", "?", "tbd"};
        if (std::find(open.begin(), open.end(), lowerText(out.value)) != open.end()) out.value.clear();
        out.forVariant = cell(row, Column::forVariant);
        for (std::size_t c = 0; c < shape_.columns.size(); ++c) {
            if (shape_.columns[c] == Column::variant)
                out.perVariant.push_back(c < row.size() ? std::string(trimmed(row[c])) : std::string());
        }
        return out;
    }

    void flush() {
        if (!pending_) return;
        Pending row = std::move(*pending_);
        pending_.reset();
        std::string& prefix = taker_.context().prefix;
        const std::string held = prefix;
        if (const std::string own = prefixOf(headingOf(Column::value)); !own.empty()) prefix = own;
        if (row.value.empty() && row.description.empty() && row.perVariant.empty() && row.kind.empty() &&
            row.mpn.empty() && !row.remark.empty())
            std::swap(row.description, row.remark);
        if (row.perVariant.empty()) {
            ListLine& line = taker_.take(row, row.line, row.text);
            if (!row.forVariant.empty()) rowsFor_.push_back({line.line, row.forVariant});
        } else {
            takeVariants(row);
        }
        prefix = held;
    }

    /// The value of the variant that is built; where none is chosen, what differs is said and not guessed.
    void takeVariants(Pending& row) {
        const auto names = variantsOf(shape_);
        std::string differ;
        std::optional<std::string> chosen;
        bool same = true;
        for (std::size_t i = 0; i < row.perVariant.size() && i < names.size(); ++i) {
            const std::string& text = row.perVariant[i];
            same = same && text == row.perVariant.front();
            differ += (differ.empty() ? "" : ", ") + names[i] + ": " + (nothing(text) ? "none" : text);
            if (!variant_.empty() && plainVariant(names[i]) == plainVariant(variant_)) chosen = text;
        }
        if (same && !nothing(row.perVariant.front())) chosen = row.perVariant.front();
        const bool common = std::all_of(row.perVariant.begin(), row.perVariant.end(),
                                        [](const std::string& text) { return nothing(text); });
        if (common && !row.value.empty()) chosen = row.value;
        if (chosen) {
            if (!nothing(*chosen) || row.value.empty()) row.value = nothing(*chosen) ? "" : *chosen;
            const bool left = nothing(*chosen);
            if (left) row.notFitted = "yes";
            ListLine& line = taker_.take(row, row.line, row.text);
            if (!same) line.variants = differ;
            return;
        }
        const auto first = std::find_if(row.perVariant.begin(), row.perVariant.end(),
                                        [](const std::string& text) { return !nothing(text); });
        if (first != row.perVariant.end()) row.value = *first;
        ListLine& line = taker_.take(row, row.line, row.text);
        line.variants = differ;
        line.nominal = 0;
        line.value = differ;
        line.doubts = {"It differs by variant: " + differ + ". Choose the variant that you build."};
    }

    /// Rows that each stand for one variant ("Version" column): those of the chosen one, or all as one.
    void mergeVariantRows(PartsList& list) {
        if (rowsFor_.empty()) return;
        const auto nameOf = [&](std::size_t line) {
            const auto hit = std::find_if(rowsFor_.begin(), rowsFor_.end(),
                                          [&](const auto& r) { return r.first == line; });
            return hit == rowsFor_.end() ? std::string() : hit->second;
        };
        std::vector<std::string> names;
        for (const auto& [line, text] : rowsFor_) {
            if (!forAll(text) && std::find(names.begin(), names.end(), text) == names.end())
                names.push_back(text);
        }
        if (names.size() < 2) return;
        list.variants.insert(list.variants.end(), names.begin(), names.end());
        if (!variant_.empty()) {
            std::erase_if(list.lines, [&](const ListLine& line) {
                const std::string text = nameOf(line.line);
                return !text.empty() && !forAll(text) && plainVariant(text) != plainVariant(variant_);
            });
        } else {
            for (ListLine& line : list.lines) {
                const std::string text = nameOf(line.line);
                if (!text.empty() && !forAll(text))
                    line.doubts.push_back("This row is for " + text +
                                          " only: choose the variant that you build.");
            }
        }
        checkTwice(list);
    }
    static bool forAll(const std::string& text) {
        const std::string low = lowerText(trimmed(text));
        return low == "all" || low == "alle" || low == "any" || low == "tous" || low == "todas" ||
               low == "both" || nothing(text);
    }

    const CsvTable& table_;
    ListShape shape_;
    std::string variant_;
    PartsTaker taker_;
    std::optional<Pending> pending_;
    std::vector<std::string> variants_;
    std::vector<std::pair<std::size_t, std::string>> rowsFor_;
};

std::size_t columnAt(const std::vector<Piece>& header, const Piece& piece) {
    std::size_t best = 0;
    double bestScore = -1e9;
    for (std::size_t c = 0; c < header.size(); ++c) {
        const auto overlap =
            double(std::min(piece.end, header[c].end)) - double(std::max(piece.begin, header[c].begin));
        const std::size_t next = c + 1 < header.size() ? header[c + 1].begin : static_cast<std::size_t>(-1);
        const bool inside = piece.begin >= header[c].begin && piece.begin < next;
        const double score = overlap > 0 ? 100 + overlap + (inside ? 50 : 0) : inside ? 40 : overlap;
        if (score > bestScore) {
            bestScore = score;
            best = c;
        }
    }
    return best;
}

}  // namespace

std::string plainVariant(std::string_view name) {
    std::string out;
    for (const char c : lowerText(name)) {
        if (c != ' ' && c != '-' && c != '_') out += c;
    }
    return out;
}

CsvTable unfolded(CsvTable table) {
    const auto named = [](const CsvRow& row) {
        std::vector<std::string> out;
        for (const std::string& cell : row) out.push_back(lowerText(trimmed(cell)));
        while (!out.empty() && out.back().empty()) out.pop_back();
        return out;
    };
    std::size_t width = 0, header = 0;
    for (; header < std::min<std::size_t>(table.rows.size(), 10) && width == 0; ++header) {
        const auto names = named(table.rows[header]);
        if (!isHeader(table.rows[header])) continue;
        for (std::size_t w = 2; w * 2 <= names.size() && width == 0; ++w) {
            bool repeats = names.size() % w == 0;
            for (std::size_t c = w; c < names.size() && repeats; ++c)
                repeats = !names[c].empty() && names[c] == names[c % w];
            if (repeats) width = w;
        }
    }
    if (width == 0) return table;
    CsvTable out;
    out.dialect = table.dialect;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const CsvRow& row = table.rows[r];
        for (std::size_t c = 0; c == 0 || c < row.size(); c += width) {
            const auto from = row.begin() + std::ptrdiff_t(std::min(c, row.size())),
                       to = row.begin() + std::ptrdiff_t(std::min(c + width, row.size()));
            const bool filled =
                std::any_of(from, to, [](const auto& cell) { return !trimmed(cell).empty(); });
            if (!filled || (r + 1 == header && c > 0)) continue;
            out.rows.emplace_back(from, to);
            out.lines.push_back(table.lines[r]);
        }
    }
    return out;
}

PartsList readListTable(const CsvTable& table, const ListShape& shape, const Progress& progress,
                        const std::string& variant) {
    return TableReader(table, shape, variant).read(progress);
}

std::optional<CsvTable> tableByPlace(const std::string& text) {
    CsvTable out;
    std::vector<Piece> header;
    std::size_t number = 0, rows = 0, kept = 0, refs = 0;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        std::string line;
        // Places count letters, not bytes; tabs go to the next eighth place.
        for (std::size_t i = from; i < end; ++i) {
            if (text[i] == '\t') {
                line.append(8 - line.size() % 8, ' ');
            } else {
                line += text[i];
            }
        }
        from = end + 1;
        ++number;
        if (trimmed(line).empty()) continue;
        std::vector<Piece> pieces = piecesOf(line);
        CsvRow cells;
        for (const Piece& p : pieces) cells.push_back(line.substr(p.begin, p.end - p.begin));
        if (!cells.empty() && cells.front().starts_with('#')) cells.front().erase(0, 1);
        if (isHeader(cells) && cells.size() >= 2) {
            header = pieces;
            out.rows.push_back(cells);
            out.lines.push_back(number);
            continue;
        }
        if (header.empty()) {
            // Words above the table are a title; parts above it are not in it.
            const auto runs = designatorRuns(trimmed(line));
            if (!runs.empty() && runs.front().begin == 0) return std::nullopt;
            continue;
        }
        CsvRow row(header.size());
        bool clean = true;
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            const std::size_t c = pieces.size() == header.size() ? i : columnAt(header, pieces[i]);
            clean = clean && row[c].empty();
            row[c] += (row[c].empty() ? "" : "  ") + cells[i];
        }
        ++rows;
        kept += clean;
        const bool names = std::any_of(row.begin(), row.end(), [](const std::string& cell) {
            return onlyDesignators(cell, {Letters::any}).has_value() && designatorRuns(cell).size() == 1;
        });
        refs += names;
        out.rows.push_back(std::move(row));
        out.lines.push_back(number);
    }
    if (header.size() < 2 || rows < 2 || kept * 10 < rows * 9 || refs * 2 < rows) return std::nullopt;
    return out;
}

bool looksLikeTable(const CsvTable& table) {
    if (table.rows.empty()) return false;
    // As wide as most rows are: one broken row makes no other table of it.
    std::map<std::size_t, std::size_t> widths;
    for (const auto& row : table.rows) ++widths[row.size()];
    std::size_t wide = 0, whole = 0, width = 0, most = 0;
    for (const auto& [cells, rows] : widths) {
        if (cells > 1 && rows >= most) most = rows, width = cells;
    }
    for (const auto& row : table.rows) {
        wide += row.size() + 1 >= width && row.size() > 1;
        whole += row.size() == width;
    }
    const double rows = double(table.rows.size());
    const ListShape shape = guessShape(table);
    const bool refs =
        std::find(shape.columns.begin(), shape.columns.end(), Column::refs) != shape.columns.end();
    const bool strong = table.dialect.separator != ',';
    const bool even = shape.headerRows > 0 ? double(wide) >= 0.6 * rows
                                           : width >= (strong ? 2 : 3) && double(whole) >= 0.9 * rows;
    return refs && even;
}

bool looksLikeTable(const std::string& bytes) {
    const auto table = readTable(bytes.substr(0, 20000));
    return table && looksLikeTable(*table);
}

}  // namespace ombrek
