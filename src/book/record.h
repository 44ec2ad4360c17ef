#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <charconv>
#include <cmath>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/quantity/shown.h"
#include "kit/build.h"

namespace ombrek {

/// The words under which the values of an enumeration are stored, in the order of its values. A word once in
/// a released book is never changed.
using Words = std::vector<std::string>;

/// What the database needs to know of a column.
struct ColumnLine {
    std::string name;
    const Words* words = nullptr;  ///< of an enumeration
};

/// What the database needs to know of a record: its table, made and guarded by schema.h.
struct RecordLine {
    std::string name;
    bool ofBuild = true;  ///< its first column, after the id, is `build`
    std::vector<ColumnLine> columns;
    std::string unique{};  ///< columns that identify a row; empty if only the id does
};

/// One column: its name, and how its value goes into a statement and out of a row.
template <class Row>
struct RecordColumn {
    ColumnLine line;
    /// Puts the field of a row into a statement's place.
    std::function<void(SQLite::Statement&, int, const Row&)> bind;
    /// Puts a column's value into the field of a row.
    std::function<void(const SQLite::Column&, Row&)> read;
};

/// "position=0.42;turns=18".
std::string settingsText(const Settings& settings);
/// What is no number is left out.
Settings readSettings(const std::string& text);

/// A column whose value `of`, a member or a function to it, finds in a row. Infinity has no text in SQL: it
/// is kept as instruments send an overload. What is no number is NULL. @param ifNull  of a number
template <class Row, class Of>
RecordColumn<Row> column(const std::string& name, Of of, double ifNull = 0) {
    using T = std::remove_cvref_t<decltype(std::invoke(of, std::declval<Row&>()))>;
    RecordColumn<Row> out;
    out.line.name = name;
    out.bind = [of](SQLite::Statement& q, int at, const Row& row) {
        const T& value = std::invoke(of, const_cast<Row&>(row));  // `of` only finds it
        if constexpr (std::is_same_v<T, Subject>) {
            q.bind(at, value.text());
        } else if constexpr (std::is_same_v<T, Settings>) {
            q.bind(at, settingsText(value));
        } else if constexpr (std::is_same_v<T, bool>) {
            q.bind(at, int(value));
        } else if constexpr (std::is_floating_point_v<T>) {
            q.bind(at, std::isinf(value) ? std::copysign(kOverload, value) : value);
        } else {
            q.bind(at, value);
        }
    };
    out.read = [of, ifNull](const SQLite::Column& from, Row& row) {
        T& value = std::invoke(of, row);
        if constexpr (std::is_same_v<T, Subject>) {
            value = readSubject(from.getString());
        } else if constexpr (std::is_same_v<T, Settings>) {
            value = readSettings(from.getString());
        } else if constexpr (std::is_same_v<T, bool>) {
            value = from.getInt() != 0;
        } else if constexpr (std::is_floating_point_v<T>) {
            // A word where a number belongs is damage, and no nought.
            value = from.isNull() ? ifNull : from.isText() || from.isBlob() ? NAN : from.getDouble();
            if (std::fabs(value) >= kOverload) value = std::copysign(INFINITY, value);
        } else if constexpr (std::is_integral_v<T>) {
            value = static_cast<T>(from.getInt64());
        } else {
            value = from.getString();
        }
    };
    return out;
}

/// A column of an enumeration. A word that nobody knows is the first; `damageIn` finds it before.
template <class Row, class Of>
RecordColumn<Row> column(const std::string& name, Of of, const Words& words) {
    using T = std::remove_cvref_t<decltype(std::invoke(of, std::declval<Row&>()))>;
    RecordColumn<Row> out;
    out.line = {name, &words};
    out.bind = [of, &words](SQLite::Statement& q, int at, const Row& row) {
        q.bind(at, words.at(std::size_t(std::invoke(of, const_cast<Row&>(row)))));
    };
    out.read = [of, &words](const SQLite::Column& from, Row& row) {
        const std::string word = from.getString();
        for (std::size_t i = 0; i < words.size(); ++i) {
            if (words[i] == word) std::invoke(of, row) = static_cast<T>(i);
        }
    };
    return out;
}

/// A record described once: from this come its table, its undo triggers, and how a row is written and read.
/// Example:
///
///     const Record<Finding> findings("finding", {column<Finding>("ref", &Finding::ref), …});
///     findings.put(db, build, finding);
///     findings.each(db, build, [&](std::int64_t id, Finding f) { … });
template <class Row>
class Record {
 public:
    Record(std::string name, std::vector<RecordColumn<Row>> columns, std::string unique = "",
           bool ofBuild = true)
        : columns_(std::move(columns)) {
        line_.name = std::move(name);
        line_.ofBuild = ofBuild;
        line_.unique = std::move(unique);
        for (const auto& c : columns_) line_.columns.push_back(c.line);
    }

    const RecordLine& line() const { return line_; }

    /// One that identifies a row that is there already takes its place; where they identify none, one more.
    /// @return its id
    std::int64_t put(SQLite::Database& db, std::int64_t build, const Row& row) const {
        SQLite::Statement q(db, writing());
        bind(q, build, row);
        q.exec();
        return db.getLastInsertRowid();
    }

    /// Every row of a build (of the book, for a record that is of no build), in the order of the writing.
    /// @param beyond  only ids above it
    /// @param where   " AND …", what else must hold
    template <class Use>
    void each(SQLite::Database& db, std::int64_t build, Use use, std::int64_t beyond = -1,
              const std::string& where = "") const {
        SQLite::Statement q(db, "SELECT id" + names(",") + " FROM " + line_.name + " WHERE id>?" +
                                    (line_.ofBuild ? " AND build=?" : "") + where + " ORDER BY id");
        q.bind(1, beyond);
        if (line_.ofBuild) q.bind(2, build);
        while (q.executeStep()) use(q.getColumn(0).getInt64(), rowOf(q));
    }

    /// The row of an id, or nothing.
    std::optional<Row> row(SQLite::Database& db, std::int64_t id) const {
        SQLite::Statement q(db, "SELECT id" + names(",") + " FROM " + line_.name + " WHERE id=?");
        q.bind(1, id);
        return q.executeStep() ? std::optional<Row>(rowOf(q)) : std::nullopt;
    }

    /// The row of an id, changed to this.
    void change(SQLite::Database& db, std::int64_t id, const Row& row) const {
        std::string sets;
        for (const auto& c : columns_) sets += (sets.empty() ? "" : ", ") + c.line.name + "=?";
        SQLite::Statement q(db, "UPDATE " + line_.name + " SET " + sets + " WHERE id=?");
        const int last = bindColumns(q, 0, row);
        q.bind(last + 1, id);
        q.exec();
    }

    /// The statement of `put`, for many rows in turn. @param id  whether the row's id comes last
    std::string writing(bool id = false) const {
        std::string into = line_.ofBuild ? "build" : "", marks = line_.ofBuild ? "?" : "", sets;
        for (const auto& c : columns_) {
            into += (into.empty() ? "" : ",") + c.line.name;
            marks += marks.empty() ? "?" : ",?";
            sets += (sets.empty() ? "" : ",") + c.line.name + "=excluded." + c.line.name;
        }
        if (id) into += ",id", marks += ",?";
        return "INSERT INTO " + line_.name + "(" + into + ") VALUES(" + marks + ")" +
               (line_.unique.empty() ? "" : " ON CONFLICT(" + line_.unique + ") DO UPDATE SET " + sets);
    }
    /// @return the place of the last value
    int bind(SQLite::Statement& q, std::int64_t build, const Row& row) const {
        if (line_.ofBuild) q.bind(1, build);
        return bindColumns(q, line_.ofBuild ? 1 : 0, row);
    }

 private:
    int bindColumns(SQLite::Statement& q, int at, const Row& row) const {
        for (const auto& c : columns_) c.bind(q, ++at, row);
        return at;
    }
    std::string names(const char* before) const {
        std::string out;
        for (const auto& c : columns_) out += before + c.line.name;
        return out;
    }
    Row rowOf(SQLite::Statement& q) const {
        Row row{};
        for (std::size_t i = 0; i < columns_.size(); ++i) columns_[i].read(q.getColumn(int(i) + 1), row);
        return row;
    }

    std::vector<RecordColumn<Row>> columns_;
    RecordLine line_;
};

}  // namespace ombrek
