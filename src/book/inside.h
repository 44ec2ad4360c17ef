#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <atomic>
#include <cmath>
#include <mutex>
#include <utility>

#include "book/book.h"
#include "book/file_guard.h"
#include "book/records.h"

namespace ombrek {

/// What a Book holds inside; shared by the files that make its actions.
struct Book::Inside {
    std::filesystem::path path;
    Clock clock;
    std::optional<WriterLock> lock;
    std::string readOnlyReason;
    std::unique_ptr<SQLite::Database> db;
    std::function<void(const Notice&)> listener;
    Notice notice;  ///< of what was written since the last
    int stockRevision = 0, logRevision = 0;
    std::optional<FileIdentity> identity;  ///< of the file when this program wrote to it last
    std::uint64_t fingerprint = 0;         ///< of what was in it then
    std::string rescued;                   ///< what happened to the file, and where the work went
    std::filesystem::path lookFolder;      ///< a copy to look at, removed at the end; may be empty

    /// One writer at a time in this program: an import gives way between its pieces whenever an action waits.
    std::mutex writing;
    std::atomic<int> waiting{0};

    ~Inside();

    /// Remember the file as it is now, after a write of our own.
    void knowFile();
    /// Whether the file is still the one that was written last; touched alone it is.
    bool sameFile();
    /// Pages of the log go into the file, unless somebody else was at it. Called after each commit.
    void intoFile(int pages);

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
    /// @param how  what was done to it, "wound"
    void changed(const Subject& subject, const std::string& how) const {
        run("INSERT INTO epoch(build, subject, after, at, how) SELECT ?1, ?2, id, ?3, ?4 FROM (SELECT id "
            "FROM "
            "reading WHERE build=?1 ORDER BY id DESC LIMIT 1) WHERE id > coalesce((SELECT max(after) FROM "
            "epoch WHERE build=?1 AND subject=?2), -1)",
            chosen(), subject.text(), clock(), how);
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
        run("INSERT INTO action(name, undone, at) VALUES(?, ?, ?)", name, undone ? 1 : 0, clock());
        const std::int64_t id = db->getLastInsertRowid();
        run("UPDATE action_in_hand SET id=?", id);
        return id;
    }

    /// A kit's text lies apart, where no choice of an order writes it into the log. @return its id
    std::int64_t keepKitText(const std::string& text) const {
        run("INSERT INTO kit_text(text) VALUES(?)", text);
        return db->getLastInsertRowid();
    }

    /// A row of the build in hand, as Record::put.
    template <class Row>
    void put(const Record<Row>& record, const Row& row) const {
        record.put(*db, chosen(), row);
    }

    /// Change what the build in hand says of itself.
    template <class Change>
    void changeBuild(Change change) const {
        auto row = record::build.row(*db, chosen());
        if (!row) return;
        change(*row);
        record::build.change(*db, chosen(), *row);
    }

    /// Kept as it is, with the time at which it was taken.
    void addReading(const Reading& r) const {
        put(record::reading, r);
        // A reading answers "missing": the part has been found.
        if (r.subject.is(Subject::Kind::part))
            run("DELETE FROM part WHERE build=? AND ref=?", chosen(), r.subject.id);
    }

    /// The last reading of a subject that holds.
    std::optional<Reading> lastReading(const Subject& subject) const {
        SQLite::Statement q(*db,
                            "SELECT max(id) FROM reading WHERE build=?1 AND subject=?2 AND id > "
                            "coalesce((SELECT max(after) FROM epoch WHERE build=?1 AND subject=?2), -1)");
        q.bind(1, chosen());
        q.bind(2, subject.text());
        if (!q.executeStep() || q.getColumn(0).isNull()) return std::nullopt;
        return record::reading.row(*db, q.getColumn(0).getInt64());
    }

    std::string printedOn(const std::string& ref) const {
        SQLite::Statement q(*db, "SELECT text FROM printed WHERE build=? AND ref=?");
        q.bind(1, chosen());
        q.bind(2, ref);
        return q.executeStep() ? q.getColumn(0).getString() : std::string();
    }

    std::optional<PartMark> markOf(const std::string& ref) const {
        SQLite::Statement q(*db, "SELECT id FROM part WHERE build=? AND ref=?");
        q.bind(1, chosen());
        q.bind(2, ref);
        if (!q.executeStep()) return std::nullopt;
        return record::part.row(*db, q.getColumn(0).getInt64())->second;
    }

    /// What lay in a place till now is a part over, with what was read of it.
    void layOver(const std::string& ref, PartKind kind) const {
        const auto reading = lastReading(Subject::part(ref));
        put(record::loose, LoosePart{0, kind, printedOn(ref), reading ? reading->value : NAN,
                                     reading ? reading->uncertainty : 0});
    }

    /// What was promised to a place is taken out of its drawer.
    void usePromised(const std::string& ref) {
        ++stockRevision;
        const std::int64_t build = chosen();
        run("UPDATE stock SET count=max(0, count-(SELECT sum(count) FROM promise WHERE stock=stock.id AND "
            "build=? AND ref=?)) WHERE id IN (SELECT stock FROM promise WHERE build=? AND ref=?)",
            build, ref, build, ref);
        run("DELETE FROM promise WHERE build=? AND ref=?", build, ref);
    }

    /// What was marked of a place, and read off what lay there, holds no more.
    void clearPlace(const std::string& ref) const {
        for (const char* table : {"part", "printed"})
            run("DELETE FROM " + std::string(table) + " WHERE build=? AND ref=?", chosen(), ref);
    }

    void forgetRedo() const {
        db->exec("DELETE FROM undo_step WHERE action IN (SELECT id FROM action WHERE undone=1)");
        db->exec("DELETE FROM action WHERE undone=1");
    }

    /// From now on note what is written.
    void watch();

    void notify() {
        const Notice told = std::exchange(notice, {});
        if (listener) listener(told);
    }
};

/// Why a write failed, as a sentence.
Problem writeProblem(const SQLite::Exception& error);

}  // namespace ombrek
