#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/quantity/verdict.h"
#include "kit/build.h"
#include "lists/parts_list.h"

namespace ombrek {

/// A parts list before it becomes a kit: what was understood of each row, doubtful ones first, to be
/// corrected. What the builder says of a row is an edit by its line in the source, so that it holds whatever
/// is read anew; a row keeps its place while it is worked on.
class ListModel {
 public:
    struct Row {
        std::int64_t key = 0;                     ///< as ListDraft::Edit::line
        std::size_t line = 0;                     ///< in the source
        std::string text, right;                  ///< "C1, C2: 100 nF ±10 %", "2 of 2"
        VerdictState state = VerdictState::pass;  ///< fail: refused; doubtful: has a doubt
        std::string source;                       ///< as it stood
        std::string doubts;                       ///< sentences
    };

    /// @param edits  what was said of its rows before; those of lines that are not there are left out
    /// @param variant  which of the kit's variants is built, for rows that say a value for each; empty: not
    /// chosen
    void take(ListSource source, const std::vector<ListDraft::Edit>& edits = {}, std::string variant = {});
    bool empty() const { return rows_.empty(); }
    const std::vector<Row>& rows() const { return rows_; }
    /// The list as it stands, with every edit in it.
    const ListSource& source() const { return source_; }
    int parts() const { return source_.list.parts(); }
    int doubtful() const { return source_.list.doubtful(); }
    int refused() const { return int(source_.list.refused.size()); }
    /// The row with a key, else the first. @param near  where it was, if it is gone
    std::size_t rowOf(std::int64_t key, std::size_t near) const;

    /// What to type to say a row again: "C1, C2 100 nF 10% …", or the source where nothing was understood.
    std::string rowText(std::size_t row) const;
    /// The row as the builder says it. @return the edit to be kept, or a Problem when it is no parts-list
    /// line; the row stays
    Result<ListDraft::Edit> correct(std::size_t row, const std::string& text);
    /// The row is right as it was understood; nothing for a row that was not.
    std::optional<ListDraft::Edit> confirm(std::size_t row);
    ListDraft::Edit drop(std::size_t row);
    /// The heading of a column, or its number.
    std::string columnName(std::size_t column) const;

 private:
    /// A row of the source with what is held of it.
    struct Item {
        std::int64_t key = 0;
        std::size_t line = 0;
        std::string source, reason;    ///< as it stood; why it was refused
        std::optional<ListLine> said;  ///< nothing: refused
        bool confirmed = false;        ///< the doubts there were then are none
        std::vector<std::string> accepted;
        std::optional<Hardware> hardware;  ///< a row without a designator
    };
    Item* find(std::int64_t key);
    bool apply(const ListDraft::Edit& edit);
    void settle();
    void showRows();

    ListSource source_;
    std::string variant_;
    std::vector<Item> items_;  ///< in the order they are shown
    std::vector<Row> rows_;
};

}  // namespace ombrek
