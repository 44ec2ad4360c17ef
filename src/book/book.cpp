#include "book/book.h"

#include <SQLiteCpp/Backup.h>
#include <sqlite3.h>
#include <unistd.h>

#include <chrono>
#include <cmath>

#include "book/inside.h"
#include "book/schema.h"

namespace ombrek {
namespace fs = std::filesystem;

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
        case SQLITE_IOERR:
            return {"", "The disk refuses to write: this was not kept. Check its space and its health."};
        default:
            return {"",
                    std::string("The book could not be written (") + error.what() + "): this was not kept."};
    }
}

namespace {

/// Read-only. In a folder that cannot be written SQLite cannot make its shared-memory file; the file is then
/// taken as it lies.
std::unique_ptr<SQLite::Database> openToLook(const fs::path& path) {
    if (::access(fs::absolute(path).parent_path().c_str(), W_OK) == 0) {
        return std::make_unique<SQLite::Database>(path.string(), SQLite::OPEN_READONLY, 2000);
    }
    return std::make_unique<SQLite::Database>("file:" + path.string() + "?immutable=1",
                                              SQLite::OPEN_READONLY | SQLite::OPEN_URI, 2000);
}

/// A book of an older version that may not be written is brought up to date in memory.
std::unique_ptr<SQLite::Database> openToLookAtOld(const fs::path& path) {
    auto file = openToLook(path);
    if (file->execAndGet("PRAGMA user_version").getInt() >= kSchemaVersion) return file;
    auto memory =
        std::make_unique<SQLite::Database>(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    SQLite::Backup backup(*memory, *file);
    backup.executeStep();
    migrate(*memory);
    return memory;
}

std::unique_ptr<SQLite::Database> openToWrite(const fs::path& path) {
    auto db = std::make_unique<SQLite::Database>(path.string(), SQLite::OPEN_READWRITE, 2000);
    db->exec("PRAGMA journal_mode=WAL");
    db->exec("PRAGMA synchronous=FULL");
    db->exec("PRAGMA foreign_keys=ON");
    migrate(*db);
    return db;
}

/// Make an empty book under another name and move it into place whole: a crash leaves either no book or a
/// good one.
void makeBookFile(const fs::path& path) {
    fs::path beside = path;
    beside += ".new";
    std::error_code ignored;
    fs::remove(beside, ignored);
    {
        SQLite::Database db(beside.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 2000);
        SQLite::Transaction transaction(db);
        makeSchema(db);
        transaction.commit();
    }
    fs::rename(beside, path);
}

/// A read-only look that finds damage before anything is written.
Result<void> checkSound(const fs::path& path) {
    try {
        const auto db = openToLook(path);
        SQLite::Statement check(*db, "PRAGMA quick_check(1)");
        const bool sound = check.executeStep() && check.getColumn(0).getString() == "ok";
        if (sound && db->tableExists("reading") && db->tableExists("undo_step")) return {};
    } catch (const SQLite::Exception&) {
        // falls through to the same sentence: the file cannot be read as a book
    }
    return problem(
        path.filename().string(),
        "This book is damaged; it was left as it is. Restore it from a copy, or keep it and begin another.");
}

}  // namespace

Book::Book(std::unique_ptr<Inside> inside) : inside_(std::move(inside)) {}
Book::~Book() = default;

Result<std::unique_ptr<Book>> Book::open(const fs::path& path, Clock clock) {
    const auto file = inspectBookFile(path);
    if (!file) return tl::make_unexpected(file.error());
    const bool create = *file == BookFile::absent;
    if (!create) {
        if (const auto sound = checkSound(path); !sound) return tl::make_unexpected(sound.error());
    }
    auto inside = std::make_unique<Inside>();
    inside->path = path;
    inside->clock = std::move(clock);
    if (auto lock = WriterLock::take(path)) inside->lock.emplace(std::move(*lock));
    const bool writable = create || ::access(path.c_str(), W_OK) == 0;
    if (!inside->lock)
        inside->readOnlyReason = "Another program has this book open: you can look, not write.";
    if (!writable) inside->readOnlyReason = "This book's file is write-protected: you can look, not write.";
    try {
        if (create) makeBookFile(path);
        inside->db = inside->readOnlyReason.empty() ? openToWrite(path) : openToLookAtOld(path);
    } catch (const std::exception&) {
        return problem(path.filename().string(),
                       create ? "No book can be made here; is the folder there, writable and not full?"
                              : "This book cannot be opened; check its folder's permissions.");
    }
    return std::unique_ptr<Book>(new Book(std::move(inside)));
}

const fs::path& Book::path() const { return inside_->path; }
bool Book::readOnly() const { return !inside_->readOnlyReason.empty(); }
const std::string& Book::readOnlyReason() const { return inside_->readOnlyReason; }
void Book::onChange(std::function<void()> listener) { inside_->listener = std::move(listener); }

std::vector<Book::BuildLine> Book::builds() const {
    std::vector<BuildLine> out;
    SQLite::Statement query(*inside_->db, "SELECT id, kit_name, started FROM build ORDER BY id");
    while (query.executeStep()) {
        out.push_back(
            {query.getColumn(0).getInt64(), query.getColumn(1).getString(), query.getColumn(2).getInt64()});
    }
    return out;
}

namespace {

void readRecords(SQLite::Database& db, Build& out) {
    const auto each = [&](const char* sql, auto use) {
        SQLite::Statement query(db, sql);
        query.bind(1, out.id);
        while (query.executeStep()) use(query);
    };
    each(
        "SELECT id, subject, value, unit, uncertainty, setting, method, at FROM reading WHERE build=? ORDER "
        "BY id",
        [&](auto& q) {
            // An infinite or missing number is stored as NULL and comes back as "no number".
            const double value = q.getColumn(2).isNull() ? NAN : q.getColumn(2).getDouble();
            out.readings.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getString(), value,
                                    static_cast<Unit>(q.getColumn(3).getInt()), q.getColumn(4).getDouble(),
                                    q.getColumn(5).getDouble(), q.getColumn(6).getString(),
                                    q.getColumn(7).getInt64()});
        });
    each("SELECT ref, mark FROM part WHERE build=?", [&](auto& q) {
        out.parts[q.getColumn(0).getString()] = static_cast<PartMark>(q.getColumn(1).getInt());
    });
    each("SELECT name, turns, done FROM winding WHERE build=?", [&](auto& q) {
        out.windings[q.getColumn(0).getString()] = {q.getColumn(1).getInt(), q.getColumn(2).getInt() != 0};
    });
    each("SELECT step, knowingly, at FROM step WHERE build=?", [&](auto& q) {
        out.steps[q.getColumn(0).getString()] = {q.getColumn(1).getInt() != 0, q.getColumn(2).getInt64()};
    });
    each("SELECT step, text FROM remark WHERE build=?",
         [&](auto& q) { out.remarks[q.getColumn(0).getString()] = q.getColumn(1).getString(); });
    each("SELECT gate, reason, at FROM gate WHERE build=?", [&](auto& q) {
        out.gates[q.getColumn(0).getString()] = {q.getColumn(1).getString(), q.getColumn(2).getInt64()};
    });
    each("SELECT name, how FROM coil_check WHERE build=?",
         [&](auto& q) { out.coilChecks[q.getColumn(0).getString()] = q.getColumn(1).getString(); });
    each("SELECT ref, text FROM printed WHERE build=?",
         [&](auto& q) { out.printed[q.getColumn(0).getString()] = q.getColumn(1).getString(); });
    each("SELECT id, kind, printed, value, uncertainty FROM loose_part WHERE build=? ORDER BY id",
         [&](auto& q) {
             const double value = q.getColumn(3).isNull() ? NAN : q.getColumn(3).getDouble();
             out.loose.push_back({q.getColumn(0).getInt64(), static_cast<PartKind>(q.getColumn(1).getInt()),
                                  q.getColumn(2).getString(), value, q.getColumn(4).getDouble()});
         });
    each("SELECT ref, how, note FROM remedy WHERE build=?", [&](auto& q) {
        out.remedies[q.getColumn(0).getString()] = {static_cast<Remedy::How>(q.getColumn(1).getInt()),
                                                    q.getColumn(2).getString()};
    });
    each("SELECT start, end FROM away WHERE build=? ORDER BY start", [&](auto& q) {
        out.away.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64()});
    });
    each("SELECT what, count FROM kept WHERE build=?",
         [&](auto& q) { out.kept[q.getColumn(0).getString()] = q.getColumn(1).getInt(); });
    each("SELECT id, ref, what, found, closed FROM finding WHERE build=? ORDER BY id", [&](auto& q) {
        out.findings.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getString(),
                                static_cast<Finding::What>(q.getColumn(2).getInt()),
                                q.getColumn(3).getInt64(), q.getColumn(4).getInt64()});
    });
    each("SELECT ref, how, at FROM looked WHERE build=?", [&](auto& q) {
        auto& looked = q.getColumn(1).getInt() == 0 ? out.joints : out.senses;
        looked[q.getColumn(0).getString()] = q.getColumn(2).getInt64();
    });
    each("SELECT id, step, after, at FROM photo WHERE build=? ORDER BY id", [&](auto& q) {
        out.photos.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getString(),
                              q.getColumn(2).getInt() != 0, q.getColumn(3).getInt64()});
    });
    each("SELECT start, end FROM sitting WHERE build=? ORDER BY id", [&](auto& q) {
        out.sittings.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64()});
    });
}

}  // namespace

std::optional<Build> Book::build() const {
    SQLite::Statement head(*inside_->db,
                           "SELECT id, kit_text, build_order, rule, profile, started, way, depth FROM "
                           "build WHERE id=?");
    head.bind(1, inside_->chosen());
    if (!head.executeStep()) return std::nullopt;
    Build out;
    out.id = head.getColumn(0).getInt64();
    out.kitText = head.getColumn(1).getString();
    out.order = static_cast<Order>(head.getColumn(2).getInt());
    out.rule = static_cast<VerdictRule>(head.getColumn(3).getInt());
    out.profile = head.getColumn(4).getString();
    out.started = head.getColumn(5).getInt64();
    out.way = static_cast<BagWay>(head.getColumn(6).getInt());
    out.depth = static_cast<BagDepth>(head.getColumn(7).getInt());
    readRecords(*inside_->db, out);
    return out;
}

Result<void> Book::act(const std::string& name, const std::function<void()>& change) {
    if (readOnly()) return problem("", inside_->readOnlyReason);
    try {
        SQLite::Transaction transaction(*inside_->db);
        inside_->forgetRedo();
        inside_->beginAction(name, false);
        change();
        inside_->touchSitting();
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        return tl::make_unexpected(writeProblem(error));
    }
    inside_->notify();
    return {};
}

Result<std::string> Book::step(bool undo) {
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
        for (const auto& sql : statements) inside_->db->exec(sql);
        inside_->run("DELETE FROM undo_step WHERE action=?", id);
        inside_->run("DELETE FROM action WHERE id=?", id);
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        return tl::make_unexpected(writeProblem(error));
    }
    inside_->notify();
    return name;
}

Result<std::string> Book::undo() { return step(true); }
Result<std::string> Book::redo() { return step(false); }

std::string Book::undoName() const {
    SQLite::Statement query(*inside_->db, "SELECT name FROM action WHERE undone=0 ORDER BY id DESC LIMIT 1");
    return query.executeStep() ? query.getColumn(0).getString() : std::string();
}

Result<void> Book::startBuild(const std::string& kitName, const std::string& kitText) {
    return act("start of " + kitName, [&] {
        inside_->run(
            "INSERT INTO build(kit_name, kit_text, build_order, rule, profile, started, way, depth) "
            "VALUES(?, ?, 0, 0, '', ?, 0, 0)",
            kitName, kitText, inside_->clock());
        inside_->run(
            "INSERT INTO chosen(id, build) VALUES(1, ?) ON CONFLICT(id) DO UPDATE SET build=excluded.build",
            inside_->db->getLastInsertRowid());
    });
}

Result<void> Book::chooseBuild(std::int64_t id) {
    return act("choice of a build", [&] { inside_->run("UPDATE chosen SET build=? WHERE id=1", id); });
}

Result<void> Book::chooseOrder(Order order) {
    return act("choice of order", [&] {
        inside_->run("UPDATE build SET build_order=? WHERE id=?", static_cast<int>(order), inside_->chosen());
    });
}

Result<void> Book::chooseRule(VerdictRule rule) {
    return act("choice of rule", [&] {
        inside_->run("UPDATE build SET rule=? WHERE id=?", static_cast<int>(rule), inside_->chosen());
    });
}

Result<void> Book::chooseProfile(const std::string& profile) {
    return act("choice of limits",
               [&] { inside_->run("UPDATE build SET profile=? WHERE id=?", profile, inside_->chosen()); });
}

Result<void> Book::takeReading(const Reading& r) {
    return act("reading of " + r.subject.substr(r.subject.find(':') + 1), [&] { inside_->addReading(r); });
}

Result<void> Book::countTurn(const std::string& coil, const std::string& winding, int by) {
    return act(by > 0 ? "turn on " + coil : "turn off " + coil, [&] {
        inside_->run(
            "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, max(0, ?), 0) "
            "ON CONFLICT(build, name) DO UPDATE SET turns=max(0, turns+?)",
            inside_->chosen(), coil + "/" + winding, by, by);
    });
}

Result<void> Book::finishWinding(const std::string& coil, const std::string& winding, bool done) {
    return act((done ? "end of " : "return to ") + coil + " " + winding, [&] {
        inside_->run(
            "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, 0, ?) "
            "ON CONFLICT(build, name) DO UPDATE SET done=excluded.done",
            inside_->chosen(), coil + "/" + winding, done ? 1 : 0);
    });
}

Result<void> Book::setTurns(const std::string& coil, const std::string& winding, int turns) {
    return act("count of " + coil, [&] {
        inside_->run(
            "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, max(0, ?), 0) "
            "ON CONFLICT(build, name) DO UPDATE SET turns=excluded.turns",
            inside_->chosen(), coil + "/" + winding, turns);
    });
}

Result<void> Book::checkCoil(const std::string& name, const std::string& how) {
    return act("check of " + name.substr(0, name.find('/')), [&] {
        inside_->run("DELETE FROM coil_check WHERE build=? AND name=?", inside_->chosen(), name);
        if (!how.empty())
            inside_->run("INSERT INTO coil_check(build, name, how) VALUES(?,?,?)", inside_->chosen(), name,
                         how);
    });
}

std::string Book::preference(const std::string& key) const {
    SQLite::Statement q(*inside_->db, "SELECT value FROM preference WHERE key=?");
    q.bind(1, key);
    return q.executeStep() ? q.getColumn(0).getString() : std::string();
}

Result<void> Book::prefer(const std::string& key, const std::string& value) {
    return act("choice of " + key, [&] {
        inside_->run(
            "INSERT INTO preference(key, value) VALUES(?,?) ON CONFLICT(key) DO UPDATE SET "
            "value=excluded.value",
            key, value);
    });
}

Result<void> Book::doStep(const std::string& step, bool knowingly) {
    return act((knowingly ? "passing of " : "step ") + step, [&] {
        inside_->run(
            "INSERT INTO step(build, step, knowingly, at) VALUES(?,?,?,?) "
            "ON CONFLICT(build, step) DO UPDATE SET knowingly=excluded.knowingly",
            inside_->chosen(), step, knowingly ? 1 : 0, inside_->clock());
    });
}

Result<void> Book::remark(const std::string& step, const std::string& text) {
    return act("remark on " + step, [&] {
        inside_->run(
            "INSERT INTO remark(build, step, text) VALUES(?,?,?) "
            "ON CONFLICT(build, step) DO UPDATE SET text=excluded.text",
            inside_->chosen(), step, text);
    });
}

Result<void> Book::passGate(const std::string& gate, const std::string& reason) {
    return act("passing of gate " + gate, [&] {
        inside_->run(
            "INSERT INTO gate(build, gate, reason, at) VALUES(?,?,?,?) "
            "ON CONFLICT(build, gate) DO UPDATE SET reason=excluded.reason",
            inside_->chosen(), gate, reason, inside_->clock());
    });
}

}  // namespace ombrek
