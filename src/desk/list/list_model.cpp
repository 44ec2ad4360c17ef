#include "desk/list/list_model.h"

#include <algorithm>
#include <map>

#include "core/text/counted.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

std::string joined(const std::vector<std::string>& texts, const char* between) {
    std::string out;
    for (const auto& text : texts) out += (out.empty() ? "" : between) + text;
    return out;
}

std::string textOf(const ListLine& line) {
    std::string out = listed(line.refs, 5) + ": " + valueText(line);
    if (line.volts > 0) out += ", " + formatQuantity(line.volts, Unit::volt, 3);
    if (line.watts > 0) out += ", " + formatQuantity(line.watts, Unit::watt, 3);
    if (!line.mark.empty()) out += ", marked " + line.mark;
    if (!line.fitted) out += "  (not fitted)";
    return out;
}

/// What the builder says of a row, understood, with the variants it names; a Problem when it is no parts-list
/// line.
struct SaidAgain {
    ListLine line;
    std::vector<std::string> variants;
};
Result<SaidAgain> saidAgain(const std::string& text, const std::string& variant) {
    PartsList said = readListText(text, {}, variant);
    if (said.lines.size() == 1 && said.refused.empty())
        return SaidAgain{std::move(said.lines.front()), std::move(said.variants)};
    return problem("", said.refused.empty()
                           ? "This is no parts-list line: write designators and a value, as C1, C2  100nF."
                           : said.refused.front().reason);
}

}  // namespace

void ListModel::take(ListSource source, const std::vector<ListDraft::Edit>& edits, std::string variant) {
    source_ = std::move(source);
    variant_ = std::move(variant);
    items_.clear();
    std::map<std::size_t, std::int64_t> seen;  // rows of one line, in the order of reading
    const auto keyOf = [&](std::size_t line) { return std::int64_t(line) * 1000 + seen[line]++; };
    for (ListLine& line : source_.list.lines)
        items_.push_back({keyOf(line.line), line.line, line.text, "", line, false, {}, {}});
    for (const RefusedLine& line : source_.list.refused)
        items_.push_back({keyOf(line.line), line.line, line.text, line.reason, std::nullopt, false, {}, {}});
    for (const Hardware& line : source_.list.hardware)
        items_.push_back({keyOf(line.line), line.line, line.text, "", std::nullopt, false, {}, line});
    for (const ListDraft::Edit& edit : edits) apply(edit);
    settle();
    // Refused rows first, then doubtful ones; after this a row keeps its place.
    const auto rank = [](const Item& item) {
        return item.hardware ? 3 : !item.said ? 0 : item.said->sure() ? 2 : 1;
    };
    std::stable_sort(items_.begin(), items_.end(),
                     [&](const Item& a, const Item& b) { return rank(a) < rank(b); });
    showRows();
}

ListModel::Item* ListModel::find(std::int64_t key) {
    const auto hit = std::find_if(items_.begin(), items_.end(), [&](const Item& i) { return i.key == key; });
    return hit == items_.end() ? nullptr : &*hit;
}

bool ListModel::apply(const ListDraft::Edit& edit) {
    Item* item = find(edit.line);
    if (item == nullptr) return false;
    if (edit.how == "out") {
        items_.erase(items_.begin() + (item - items_.data()));
    } else if (edit.how == "right" && item->said) {
        item->confirmed = true;
        item->accepted = item->said->doubts;
    } else if (edit.how == "again") {
        auto said = saidAgain(edit.text, variant_);
        if (!said) return false;
        said->line.line = item->line;
        said->line.text = item->source;
        item->said = std::move(said->line);
        for (std::string& name : said->variants) {
            auto& known = source_.list.variants;
            if (std::find(known.begin(), known.end(), name) == known.end()) known.push_back(std::move(name));
        }
        item->hardware.reset();
        item->confirmed = false;
    }
    return true;
}

/// The list in the order of the source, designators that stand twice looked for anew; a doubt that was there
/// when a row was confirmed is none, a new one is.
void ListModel::settle() {
    std::vector<Item*> order;
    for (Item& item : items_) order.push_back(&item);
    std::sort(order.begin(), order.end(), [](const Item* a, const Item* b) { return a->key < b->key; });
    PartsList& list = source_.list;
    list.lines.clear();
    list.refused.clear();
    list.hardware.clear();
    for (const Item* item : order) {
        if (item->hardware) {
            list.hardware.push_back(*item->hardware);
        } else if (item->said) {
            list.lines.push_back(*item->said);
        } else {
            list.refused.push_back({item->line, item->source, item->reason});
        }
    }
    checkTwice(list);
    list.coils = coilsOf(list);
    std::size_t at = 0;
    for (Item* item : order) {
        if (!item->said) continue;
        ListLine& line = list.lines[at++];
        if (item->confirmed && item->accepted.empty()) item->accepted = line.doubts;
        if (item->confirmed) {
            std::erase_if(line.doubts, [&](const std::string& doubt) {
                return std::find(item->accepted.begin(), item->accepted.end(), doubt) != item->accepted.end();
            });
        }
        item->said->doubts = line.doubts;
    }
}

void ListModel::showRows() {
    rows_.clear();
    for (const Item& item : items_) {
        Row row{item.key, item.line, item.source, "not taken", VerdictState::fail, item.source, item.reason};
        if (item.hardware) {
            const Hardware& h = *item.hardware;
            row.text = personNumber(h.count) + " " + (h.unit == "pcs" ? "\u00d7" : h.unit) + " " + h.what;
            row.right = "hardware";
            row.state = VerdictState::pass;
        }
        if (item.said) {
            const std::size_t count = item.said->refs.size();
            row.text = textOf(*item.said);
            row.right = counted(std::int64_t(count), "part");
            row.state = item.said->sure() ? VerdictState::pass : VerdictState::doubtful;
            row.doubts = joined(item.said->doubts, " ");
        }
        rows_.push_back(std::move(row));
    }
}

std::size_t ListModel::rowOf(std::int64_t key, std::size_t near) const {
    const auto hit = std::find_if(rows_.begin(), rows_.end(), [&](const Row& r) { return r.key == key; });
    if (hit != rows_.end()) return std::size_t(hit - rows_.begin());
    return rows_.empty() ? 0 : std::min(near, rows_.size() - 1);
}

std::string ListModel::rowText(std::size_t row) const {
    const Item& item = items_.at(row);
    if (!item.said) return item.source;
    const ListLine& line = *item.said;
    std::string out = joined(line.refs, ", ") + "  ";
    out += line.nominal > 0
               ? formatQuantity(line.nominal, line.unit, 6) + " " + personNumber(line.tolerance) + "%"
               : line.value;
    if (line.volts > 0) out += " " + formatQuantity(line.volts, Unit::volt, 3);
    if (line.watts > 0) out += " " + formatQuantity(line.watts, Unit::watt, 3);
    if (!line.description.empty() && line.nominal > 0) out += " " + line.description;
    if (!line.mark.empty()) out += " (marked " + line.mark + ")";
    return out;
}

Result<ListDraft::Edit> ListModel::correct(std::size_t row, const std::string& text) {
    if (const auto line = saidAgain(text, variant_); !line) return tl::make_unexpected(line.error());
    const ListDraft::Edit edit{items_.at(row).key, "again", text};
    apply(edit);
    settle();
    showRows();
    return edit;
}

std::optional<ListDraft::Edit> ListModel::confirm(std::size_t row) {
    if (!items_.at(row).said) return std::nullopt;
    const ListDraft::Edit edit{items_[row].key, "right", ""};
    apply(edit);
    settle();
    showRows();
    return edit;
}

ListDraft::Edit ListModel::drop(std::size_t row) {
    ListDraft::Edit edit{items_.at(row).key, "out", ""};
    apply(edit);
    settle();
    showRows();
    return edit;
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
