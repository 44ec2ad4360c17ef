#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <atomic>
#include <cmath>
#include <mutex>

#include "book/book.h"
#include "book/file_guard.h"
#include "core/quantity/shown.h"

namespace ombrek {

/// What a Book holds inside; shared by the files that make its actions.
struct Book::Inside {
    std::filesystem::path path;
    Clock clock;
    std::optional<WriterLock> lock;
    std::string readOnlyReason;
    std::unique_ptr<SQLite::Database> db;
    std::function<void()> listener;
    int stockRevision = 0;
    std::optional<FileIdentity> identity;  ///< of the file when it was opened to write
    std::string rescued;                   ///< what happened to the file, and where the work went
    std::filesystem::path lookFolder;      ///< a copy to look at, removed at the end; may be empty

    /// One writer at a time in this program: an import gives way between its pieces whenever an action waits.
    std::mutex writing;
    std::atomic<int> waiting{0};

    ~Inside();

    /// The file is not where it was, or is not the same any more: what the open one holds goes into a rescue
    /// copy beside it, and work goes on there. @return false when that fails too
    bool rescueIfLost();

    /// Read; what cannot be read any more gives `otherwise`, and the book says why.
    template <class T, class Use>
    T read(T otherwise, Use use) {
        try {
            return use();
        } catch (const std::exception& error) {
            if (readOnlyReason.empty())
                readOnlyReason = std::string("The book cannot be read any more (") + error.what() +
                                 "); nothing more is written to it. Keep the file and ask for a rescue copy.";
            return otherwise;
        }
    }

    /// Readings of a subject, and of what rests on it, that were taken so far tell of what is no more.
    void changed(const Subject& subject) const {
        run("INSERT INTO epoch(build, subject, after) "
            "SELECT ?, ?, max(id) FROM reading WHERE build=? HAVING max(id) IS NOT NULL "
            "ON CONFLICT(build, subject) DO UPDATE SET after=excluded.after WHERE after<>excluded.after",
            chosen(), subject.text(), chosen());
    }

    std::int64_t chosen() const {
        SQLite::Statement query(*db, "SELECT build FROM chosen WHERE id=1");
        return query.executeStep() ? query.getColumn(0).getInt64() : 0;
    }

    /// Run a statement with its values bound in order.
    template <class... Values>
    void run(const std::string& sql, const Values&... values) const {
        SQLite::Statement statement(*db, sql);
        int at = 0;
        (statement.bind(++at, values), ...);
        statement.exec();
    }

    /// The builder is at the bench: lengthen this stretch, or begin one after a pause of twenty minutes. A
    /// clock that was set back begins one too.
    void touchSitting() const {
        const std::int64_t now = clock(), build = chosen();
        SQLite::Statement last(*db,
                               "SELECT id, start, end FROM sitting WHERE build=? ORDER BY id DESC LIMIT 1");
        last.bind(1, build);
        const bool goesOn = last.executeStep() && now >= last.getColumn(1).getInt64() &&
                            now - last.getColumn(2).getInt64() < kAway;
        if (goesOn) {
            run("UPDATE sitting SET end=max(end, ?) WHERE id=?", now, last.getColumn(0).getInt64());
        } else {
            run("INSERT INTO sitting(build, start, end) VALUES(?, ?, ?)", build, now, now);
        }
    }

    std::int64_t beginAction(const std::string& name, bool undone) const {
        run("INSERT INTO action(name, undone) VALUES(?, ?)", name, undone ? 1 : 0);
        const std::int64_t id = db->getLastInsertRowid();
        run("UPDATE action_in_hand SET id=?", id);
        return id;
    }

    void addReading(const Reading& r) const {
        // Infinity has no text in SQL: an overload is kept as instruments send it.
        const double value = std::isinf(r.value) ? std::copysign(kOverload, r.value) : r.value;
        run("INSERT INTO reading(build, subject, value, unit, uncertainty, setting, method, at, beyond) "
            "VALUES(?,?,?,?,?,?,?,?,?)",
            chosen(), r.subject.text(), value, static_cast<int>(r.unit), r.uncertainty, r.setting, r.method,
            clock(), r.beyond ? 1 : 0);
        // A reading answers "missing": the part has been found.
        if (r.subject.is(Subject::Kind::part))
            run("DELETE FROM part WHERE build=? AND ref=?", chosen(), r.subject.id);
    }

    void setMark(const std::string& ref, PartMark mark) const {
        run("INSERT INTO part(build, ref, mark) VALUES(?,?,?) "
            "ON CONFLICT(build, ref) DO UPDATE SET mark=excluded.mark",
            chosen(), ref, static_cast<int>(mark));
    }

    void setPrinted(const std::string& ref, const std::string& text) const {
        run("INSERT INTO printed(build, ref, text) VALUES(?,?,?) "
            "ON CONFLICT(build, ref) DO UPDATE SET text=excluded.text",
            chosen(), ref, text);
    }

    void setRemedy(const std::string& ref, const Remedy& remedy) const {
        run("INSERT INTO remedy(build, ref, how, note) VALUES(?,?,?,?) "
            "ON CONFLICT(build, ref) DO UPDATE SET how=excluded.how, note=excluded.note",
            chosen(), ref, static_cast<int>(remedy.how), remedy.note);
    }

    void forgetRedo() const {
        db->exec("DELETE FROM undo_step WHERE action IN (SELECT id FROM action WHERE undone=1)");
        db->exec("DELETE FROM action WHERE undone=1");
    }

    void notify() const {
        if (listener) listener();
    }
};

/// Why a write failed, as a sentence.
Problem writeProblem(const SQLite::Exception& error);

}  // namespace ombrek
