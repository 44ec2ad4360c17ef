#pragma once

#include <chrono>
#include <thread>

#include "book/inside.h"
#include "book/trust.h"

namespace ombrek {

/// As a condition: rows of an import that goes on, or that was taken back, are not there for anybody.
inline std::string hiddenRows(const std::string& table) {
    const auto within = [&](const char* ranges) {
        return std::string("EXISTS (SELECT 1 FROM ") + ranges + " WHERE record='" + table + "' AND " + table +
               ".id BETWEEN first AND last)";
    };
    return within("pending_import") + " OR " + within("import_undone");
}

inline constexpr std::size_t kPiece = 250;  ///< rows that go in at once: a few milliseconds

/// One piece in a transaction of its own, while nobody in this program writes; whoever waits goes first.
template <class Inside, class Change>
void inTurn(Inside& inside, SQLite::Database& db, Change change) {
    while (inside.waiting > 0) std::this_thread::sleep_for(std::chrono::milliseconds(1));
    const std::lock_guard guard(inside.writing);
    SQLite::Transaction transaction(db);
    // Rows of a piece are not logged: the whole import is taken back by one statement.
    db.exec("UPDATE action_in_hand SET id=0");
    change();
    transaction.commit();
}

/// A long import of rows of one record, which is of no build: from any thread, on a connection of its own, in
/// pieces between which whoever waits goes first; one action, taken back at once however many.
/// @param name  of the action @param goOn  told how far it is, 0 … 1; false takes everything back
template <class Book, class Inside, class Row>
Result<void> importRows(const Book& book, Inside& inside, const Record<Row>& record,
                        const std::vector<Row>& rows, const std::string& name,
                        const std::function<bool(double)>& goOn) {
    if (book.readOnly()) return problem("", book.readOnlyReason());
    if (rows.empty()) return {};
    const std::string& table = record.line().name;
    try {
        Inside aside;
        aside.clock = inside.clock;
        aside.db = openBook(inside.path.string(), SQLite::OPEN_READWRITE, 5000);
        SQLite::Database& db = *aside.db;
        db.exec("PRAGMA synchronous=NORMAL");
        db.exec("PRAGMA wal_autocheckpoint=0");  // the book's own connection alone writes into its file
        std::int64_t first = 0;
        SQLite::Statement insert(db, record.writing(true));
        const auto put = [&](std::size_t i) {
            const int last = record.bind(insert, 0, rows[i]);
            insert.bind(last + 1, first + std::int64_t(i));
            insert.exec();
            insert.reset();
        };
        const auto lastId = [&] { return first + std::int64_t(rows.size()) - 1; };
        // The last row goes in first and so keeps the numbers below it; nobody sees a row that is pending.
        inTurn(inside, db, [&] {
            first = db.execAndGet("SELECT coalesce(max(id), 0) + 1 FROM " + table).getInt64();
            aside.run("INSERT INTO pending_import(first, last, record) VALUES(?, ?, ?)", first, lastId(),
                      table);
            put(rows.size() - 1);
        });
        const auto done = [&] {
            aside.run("DELETE FROM pending_import WHERE record=? AND first=?", table, first);
        };
        for (std::size_t at = 0; at + 1 < rows.size(); at += kPiece) {
            if (goOn && !goOn(double(at) / double(rows.size()))) {
                inTurn(inside, db, [&] {
                    aside.run("DELETE FROM " + table + " WHERE id BETWEEN ? AND ?", first, lastId());
                    done();
                });
                return problem("", "Stopped; nothing was taken in.");
            }
            inTurn(inside, db, [&] {
                for (std::size_t i = at; i < std::min(at + kPiece, rows.size() - 1); ++i) put(i);
            });
        }
        db.exec("PRAGMA synchronous=FULL");
        inTurn(inside, db, [&] {
            aside.forgetRedo();
            const std::int64_t action = aside.beginAction(name, false);
            // The rows are hidden when it is taken back, and go when the book is opened next.
            aside.run("INSERT INTO undo_step(action, sql) VALUES(?, ?)", action,
                      "INSERT INTO import_undone(first, last, record) VALUES(" + std::to_string(first) +
                          ", " + std::to_string(lastId()) + ", '" + table + "')");
            done();
        });
    } catch (const SQLite::Exception& error) {
        return tl::make_unexpected(writeProblem(error));
    }
    return {};
}

}  // namespace ombrek
