#include "book/book.h"

#include <sqlite3.h>

#include <chrono>

#include "book/inside.h"
#include "book/trust.h"
#include "book/undo_log.h"

namespace ombrek {

std::int64_t wallClock() {
    return std::chrono::duration_cast<std::chrono::seconds>(
               std::chrono::system_clock::now().time_since_epoch())
        .count();
}

Problem writeProblem(const SQLite::Exception& error) {
    switch (error.getErrorCode()) {
        case SQLITE_FULL:
            return {"", "The disk is full: this was not written. Make room, then do it again."};
        case SQLITE_READONLY:
            return {"", "The book cannot be written: this was not kept."};
        case SQLITE_AUTH:
            return {"", "What this book says of taking it back is no step of Ombrek's: nothing was changed."};
        case SQLITE_IOERR:
            return {"", "The disk refuses to write: this was not kept. Check its space and its health."};
        default:
            return {"",
                    std::string("The book could not be written (") + error.what() + "): this was not kept."};
    }
}

namespace {

/// Statements of the undo log, which may have been written by anybody.
void takeBack(SQLite::Database& db, const std::vector<std::string>& statements) {
    const UndoOnly guard(db);
    try {
        for (const auto& sql : statements) db.exec(sql);
    } catch (const SQLite::Exception& error) {
        // What is not allowed and what is no statement is the same to the builder.
        if (error.getErrorCode() == SQLITE_ERROR || error.getErrorCode() == SQLITE_AUTH)
            throw SQLite::Exception(error.what(), SQLITE_AUTH);
        throw;
    }
}

}  // namespace

Result<void> Book::act(const std::string& name, const std::function<void()>& change) {
    ++inside_->waiting;
    std::unique_lock guard(inside_->writing);
    --inside_->waiting;
    inside_->rescueIfLost();
    if (readOnly()) return problem("", inside_->readOnlyReason);
    try {
        SQLite::Transaction transaction(*inside_->db);
        inside_->notice = {.all = inside_->notice.all, .changed = {}, .added = {}};
        inside_->forgetRedo();
        inside_->beginAction(name, false);
        change();
        inside_->touchSitting();
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        return tl::make_unexpected(writeProblem(error));
    }
    guard.unlock();
    inside_->notify();
    return {};
}

Result<std::string> Book::step(bool undo) {
    ++inside_->waiting;
    std::unique_lock guard(inside_->writing);
    --inside_->waiting;
    inside_->rescueIfLost();
    if (readOnly()) return problem("", inside_->readOnlyReason);
    std::string name;
    try {
        SQLite::Transaction transaction(*inside_->db);
        SQLite::Statement last(*inside_->db,
                               "SELECT id, name FROM action WHERE undone=? ORDER BY id DESC LIMIT 1");
        last.bind(1, undo ? 0 : 1);
        if (!last.executeStep())
            return problem("", undo ? "There is nothing to take back." : "There is nothing to do again.");
        const std::int64_t id = last.getColumn(0).getInt64();
        name = last.getColumn(1).getString();
        std::vector<std::string> statements;
        SQLite::Statement steps(*inside_->db, "SELECT sql FROM undo_step WHERE action=? ORDER BY id DESC");
        steps.bind(1, id);
        while (steps.executeStep()) statements.push_back(steps.getColumn(0).getString());
        steps.reset();
        last.reset();
        inside_->beginAction(name, undo);
        ++inside_->stockRevision;
        ++inside_->logRevision;
        takeBack(*inside_->db, statements);
        inside_->run("DELETE FROM undo_step WHERE action=?", id);
        inside_->run("DELETE FROM action WHERE id=?", id);
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        return tl::make_unexpected(writeProblem(error));
    }
    guard.unlock();
    inside_->notify();
    return name;
}

Result<std::string> Book::undo() { return step(true); }
Result<std::string> Book::redo() { return step(false); }

std::optional<Book::Undoable> Book::oldestUndo() const {
    return inside_->read(std::optional<Undoable>(), [&]() -> std::optional<Undoable> {
        SQLite::Statement query(*inside_->db,
                                "SELECT name, at FROM action WHERE undone=0 ORDER BY id LIMIT 1");
        if (!query.executeStep()) return std::nullopt;
        return Undoable{query.getColumn(0).getString(), query.getColumn(1).getInt64()};
    });
}

std::string Book::undoName() const { return lastName(false); }
std::string Book::redoName() const { return lastName(true); }

std::string Book::lastName(bool undone) const {
    return inside_->read(std::string(), [&] {
        SQLite::Statement query(*inside_->db,
                                "SELECT name FROM action WHERE undone=? ORDER BY id DESC LIMIT 1");
        query.bind(1, undone ? 1 : 0);
        return query.executeStep() ? query.getColumn(0).getString() : std::string();
    });
}

Result<void> Book::startBuild(const std::string& kitName, const std::string& kitText) {
    return act("start of " + kitName, [&] {
        const std::int64_t kit = inside_->keepKitText(kitText);
        const std::int64_t build =
            record::build.put(*inside_->db, 0, {.kitName = kitName, .kit = kit, .started = inside_->clock()});
        inside_->run(
            "INSERT INTO chosen(id, build) VALUES(1, ?) ON CONFLICT(id) DO UPDATE SET build=excluded.build",
            build);
        inside_->run("DELETE FROM list_draft");
        inside_->run("DELETE FROM list_edit");
    });
}

Result<void> Book::chooseBuild(std::int64_t id) {
    return act("choice of a build", [&] { inside_->run("UPDATE chosen SET build=? WHERE id=1", id); });
}

Result<void> Book::chooseOrder(Order order) {
    return act("choice of order", [&] { inside_->changeBuild([&](auto& build) { build.order = order; }); });
}

Result<void> Book::chooseRule(VerdictRule rule) {
    return act("choice of rule", [&] { inside_->changeBuild([&](auto& build) { build.rule = rule; }); });
}

Result<void> Book::chooseProfile(const std::string& profile) {
    return act("choice of limits",
               [&] { inside_->changeBuild([&](auto& build) { build.profile = profile; }); });
}

Result<void> Book::takeReadings(const std::vector<Reading>& readings) {
    if (readings.empty()) return {};
    const std::string more =
        readings.size() > 1 ? " and " + std::to_string(readings.size() - 1) + " more" : std::string();
    return act("reading of " + nameOf(readings.front().subject) + more, [&] {
        for (Reading now : readings) {
            now.at = inside_->clock();
            inside_->addReading(now);
        }
    });
}

Result<void> Book::repaired(const Repair& repair) {
    return act("repair of " + repair.ref, [&] {
        Repair now = repair;
        now.at = inside_->clock();
        if (now.seen == 0) now.seen = now.at;
        if (now.id != 0)
            record::repair.change(*inside_->db, now.id, now);
        else
            inside_->put(record::repair, now);
        if (!now.parts.empty()) inside_->usePromised(now.ref);
        for (const Subject& subject : {Subject::part(repair.ref), Subject::coil(repair.ref)})
            inside_->changed(subject, "repaired");
    });
}

std::string Book::preference(const std::string& key) const {
    return inside_->read(std::string(), [&] {
        SQLite::Statement q(*inside_->db, "SELECT value FROM preference WHERE key=?");
        q.bind(1, key);
        return q.executeStep() ? q.getColumn(0).getString() : std::string();
    });
}

Result<void> Book::prefer(const std::string& key, const std::string& value) {
    return act("choice of " + key, [&] { inside_->put(record::preference, {key, value}); });
}

Result<void> Book::doStep(const std::string& step, bool knowingly, const std::string& reason) {
    return act((knowingly ? "passing of " : "step ") + step, [&] {
        inside_->run(
            "INSERT INTO step(build, step, knowingly, at, reason) VALUES(?,?,?,?,?) "
            "ON CONFLICT(build, step) DO UPDATE SET knowingly=excluded.knowingly, reason=excluded.reason",
            inside_->chosen(), step, knowingly ? 1 : 0, inside_->clock(), reason);
    });
}

Result<void> Book::remark(const std::string& step, const std::string& text) {
    return act("remark on " + step, [&] { inside_->put(record::remark, {step, text}); });
}

Result<void> Book::beginAgain(const Subject& subject) {
    return act("new beginning of " + nameOf(subject), [&] { inside_->changed(subject, "begun again"); });
}

Result<void> Book::passGate(const std::string& gate, const std::string& reason, const std::string& basis,
                            const std::string& forbids) {
    return act("passing of gate " + gate, [&] {
        inside_->put(record::gate, {gate, {reason, inside_->clock(), basis, forbids}});
    });
}

Result<void> Book::choose(Choice choice, const std::string& said) {
    return act("choice of " + word(choice), [&] {
        inside_->put(record::choice, {choice, {said, inside_->clock()}});
    });
}

std::string Book::paper(const std::string& holds) const {
    return inside_->read(std::string(), [&] {
        SQLite::Statement q(*inside_->db, "SELECT text FROM paper WHERE build=? AND holds=?");
        q.bind(1, inside_->chosen());
        q.bind(2, holds);
        return q.executeStep() ? q.getColumn(0).getString() : std::string();
    });
}

Result<void> Book::keepPaper(const std::string& holds, const std::string& text) {
    return act("text of the " + holds, [&] { inside_->put(record::paper, {holds, text}); });
}

Result<void> Book::closeGate(const std::string& gate) {
    return act("closing of gate " + gate,
               [&] { inside_->run("DELETE FROM gate WHERE build=? AND gate=?", inside_->chosen(), gate); });
}

}  // namespace ombrek
