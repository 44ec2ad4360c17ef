#include "book/book.h"

#include <SQLiteCpp/Backup.h>
#include <sqlite3.h>
#include <unistd.h>

#include <cctype>
#include <cerrno>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <stdexcept>

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

/// A folder of our own for a while.
fs::path temporaryFolder() {
    std::string name = (fs::temp_directory_path() / "ombrek-XXXXXX").string();
    if (::mkdtemp(name.data()) == nullptr) throw std::runtime_error("no temporary folder");
    return name;
}

/// Read-only, as it lies, without a write to its folder: SQLite's URI, with everything but plain letters
/// escaped.
std::string immutableUri(const fs::path& path) {
    std::string out = "file:";
    for (const unsigned char c : fs::absolute(path).string()) {
        if (std::isalnum(c) || c == '/' || c == '.' || c == '-' || c == '_') {
            out += char(c);
        } else {
            static constexpr char digits[] = "0123456789ABCDEF";
            out += {'%', digits[c >> 4], digits[c & 15]};
        }
    }
    return out + "?immutable=1";
}

std::unique_ptr<SQLite::Database> openAsItLies(const fs::path& path) {
    return std::make_unique<SQLite::Database>(immutableUri(path), SQLite::OPEN_READONLY | SQLite::OPEN_URI,
                                              2000);
}

fs::path walOf(const fs::path& path) { return path.string() + "-wal"; }

/// Read-only. SQLite cannot read a write-ahead log in a folder it cannot write, so what a crash left there is
/// looked at in a copy. @param folder  set to where the copy lies, if one was made
std::unique_ptr<SQLite::Database> openToLook(const fs::path& path, fs::path& folder) {
    if (::access(fs::absolute(path).parent_path().c_str(), W_OK) == 0)
        return std::make_unique<SQLite::Database>(path.string(), SQLite::OPEN_READONLY, 2000);
    std::error_code none;
    if (fs::file_size(walOf(path), none) == 0 || none) return openAsItLies(path);
    folder = temporaryFolder();
    const fs::path copy = folder / "look.ombrek";
    fs::copy_file(path, copy);
    fs::copy_file(walOf(path), walOf(copy));
    return std::make_unique<SQLite::Database>(copy.string(), SQLite::OPEN_READWRITE, 2000);
}

/// A book of an older version that may not be written is brought up to date in memory.
std::unique_ptr<SQLite::Database> openToLookAtOld(const fs::path& path, fs::path& folder) {
    auto file = openToLook(path, folder);
    if (file->execAndGet("PRAGMA user_version").getInt() >= kSchemaVersion) return file;
    auto memory =
        std::make_unique<SQLite::Database>(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    SQLite::Backup backup(*memory, *file);
    backup.executeStep();
    migrate(*memory);
    return memory;
}

/// Rows of an import that was cut off never became an action: they are taken out again.
void dropUnfinishedImports(SQLite::Database& db) {
    SQLite::Transaction transaction(db);
    db.exec("UPDATE action_in_hand SET id=0");
    db.exec(
        "DELETE FROM stock WHERE EXISTS (SELECT 1 FROM pending_import WHERE stock.id BETWEEN first AND "
        "last)");
    db.exec("DELETE FROM pending_import");
    transaction.commit();
}

std::unique_ptr<SQLite::Database> openToWrite(const fs::path& path) {
    auto db = std::make_unique<SQLite::Database>(path.string(), SQLite::OPEN_READWRITE, 2000);
    db->exec("PRAGMA journal_mode=WAL");
    db->exec("PRAGMA synchronous=FULL");
    db->exec("PRAGMA foreign_keys=ON");
    migrate(*db);
    if (db->execAndGet("SELECT count(*) FROM pending_import").getInt() > 0) dropUnfinishedImports(*db);
    return db;
}

/// Make an empty book under a name of its own and move it into place whole: a crash leaves either no book or
/// a good one, and of two starts at once the second finds the first one's.
void makeBookFile(const fs::path& path) {
    const fs::path beside = path.string() + ".new-" + std::to_string(::getpid());
    std::error_code ignored;
    fs::remove(beside, ignored);
    {
        SQLite::Database db(beside.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 2000);
        SQLite::Transaction transaction(db);
        makeSchema(db);
        transaction.commit();
    }
    // A hard link fails where a file already is; then that one is the book.
    const bool linked = ::link(beside.c_str(), path.c_str()) == 0;
    const int why = errno;
    if (!linked && why != EEXIST && !fs::exists(path)) {
        fs::rename(beside, path);  // a file system without links
    } else {
        fs::remove(beside, ignored);
    }
}

constexpr const char* kRestore =
    "Restore it from a copy (the file and, where there is one, its \"-wal\" beside it), begin another, or "
    "take a "
    "rescue copy of what can still be read.";

Problem damaged(const fs::path& path, const std::string& what) {
    return {path.filename().string(), "This book is damaged" +
                                          (what.empty() ? std::string() : " (" + what + ")") +
                                          "; it was left as it is. " + kRestore};
}

/// A read-only look that finds damage before anything is written. A disk that is full or a folder that cannot
/// be written is no damage.
Result<void> checkSound(const fs::path& path) {
    fs::path folder;
    Result<void> out;
    const auto look = [&](SQLite::Database& db) -> Result<void> {
        SQLite::Statement check(db, "PRAGMA quick_check(1)");
        const bool sound = check.executeStep() && check.getColumn(0).getString() == "ok";
        if (!sound || !db.tableExists("reading") || !db.tableExists("undo_step"))
            return tl::make_unexpected(damaged(path, ""));
        const bool current = db.execAndGet("PRAGMA user_version").getInt() == kSchemaVersion;
        const std::string what = current ? damageIn(db) : "";
        if (!what.empty()) return tl::make_unexpected(damaged(path, what));
        return {};
    };
    try {
        const auto db = openToLook(path, folder);
        out = look(*db);
    } catch (const SQLite::Exception& error) {
        const int code = error.getErrorCode();
        const bool bad = code == SQLITE_CORRUPT || code == SQLITE_NOTADB || code == SQLITE_ERROR;
        try {  // where no log can be written the file itself still tells
            const auto db = bad ? nullptr : openAsItLies(path);
            out = bad ? tl::make_unexpected(damaged(path, "")) : look(*db);
        } catch (const SQLite::Exception&) {
            out = tl::make_unexpected(damaged(path, ""));
        }
    } catch (const std::exception& error) {
        out = problem(path.filename().string(),
                      std::string("This book cannot be looked at (") + error.what() + ").");
    }
    std::error_code ignored;
    if (!folder.empty()) fs::remove_all(folder, ignored);
    return out;
}

/// A name beside the book that is free: "shack.rescued.ombrek", "shack.rescued-2.ombrek".
fs::path freeRescueName(const fs::path& book, const fs::path& folder) {
    std::error_code error;
    for (int i = 1;; ++i) {
        const fs::path out = folder / (book.stem().string() + ".rescued" +
                                       (i > 1 ? "-" + std::to_string(i) : "") + book.extension().string());
        if (!fs::exists(out, error)) return out;
    }
}

/// Where a rescue copy may go: beside the book, else the person's data folder, else the temporary one.
std::vector<fs::path> rescueFolders(const fs::path& book) {
    std::vector<fs::path> out{fs::absolute(book).parent_path()};
    if (const char* data = std::getenv("XDG_DATA_HOME"); data != nullptr && *data) out.push_back(data);
    if (const char* home = std::getenv("HOME"); home != nullptr && *home) out.push_back(home);
    std::error_code error;
    out.push_back(fs::temp_directory_path(error));
    return out;
}

}  // namespace

Book::Inside::~Inside() {
    db.reset();
    std::error_code ignored;
    if (!lookFolder.empty()) fs::remove_all(lookFolder, ignored);
}

bool Book::Inside::rescueIfLost() {
    if (!identity || !readOnlyReason.empty()) return true;
    const auto now = identityOf(path);
    if (now == identity) return true;
    const bool over = now && now->inode == identity->inode;  // the same file, with other bytes in it
    const std::string what = !now   ? "The book was deleted or moved while it was open"
                             : over ? "The book was written over while it was open"
                                    : "Another file was put in the book's place while it was open";
    for (const fs::path& folder : rescueFolders(path)) {
        if (over) break;  // what was there is gone
        try {
            const fs::path copy = freeRescueName(path, folder);
            {
                SQLite::Database file(copy.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 2000);
                SQLite::Backup backup(file, *db);
                backup.executeStep();
            }
            auto taken = WriterLock::take(copy);
            if (!taken) continue;
            db = openToWrite(copy);
            lock.emplace(std::move(*taken));
            path = copy;
            identity = identityOf(copy);
            rescued = what + ". All that was done is in " + copy.string() + ", and work goes on there.";
            return true;
        } catch (const std::exception&) {
            // the next folder
        }
    }
    readOnlyReason = what + ", and no rescue copy could be made: nothing more is kept.";
    return false;
}

Book::Book(std::unique_ptr<Inside> inside) : inside_(std::move(inside)) {}
Book::~Book() = default;

Result<std::unique_ptr<Book>> Book::open(const fs::path& named, Clock clock) {
    const fs::path path = followLink(named);
    const auto file = inspectBookFile(path);
    if (!file) return tl::make_unexpected(file.error());
    const bool create = *file == BookFile::absent;
    auto inside = std::make_unique<Inside>();
    inside->path = path;
    inside->clock = std::move(clock);
    try {
        if (create) makeBookFile(path);
    } catch (const std::exception&) {
        return problem(path.filename().string(),
                       "No book can be made here; is the folder there, writable and not full?");
    }
    if (const auto sound = checkSound(path); !sound) return tl::make_unexpected(sound.error());
    const bool folder = ::access(fs::absolute(path).parent_path().c_str(), W_OK) == 0;
    if (!folder) {
        inside->readOnlyReason = "This book's folder cannot be written: you can look, not write.";
    } else if (::access(path.c_str(), W_OK) != 0) {
        inside->readOnlyReason = "This book's file is write-protected: you can look, not write.";
    } else if (auto lock = WriterLock::take(path)) {
        inside->lock.emplace(std::move(*lock));
    } else {
        inside->readOnlyReason = lock.error().sentence;
    }
    try {
        inside->db =
            inside->readOnlyReason.empty() ? openToWrite(path) : openToLookAtOld(path, inside->lookFolder);
        if (inside->readOnlyReason.empty()) inside->identity = identityOf(path);
        if (const std::string what = damageIn(*inside->db); !what.empty())
            return tl::make_unexpected(damaged(path, what));
    } catch (const SQLite::Exception& error) {
        if (error.getErrorCode() == SQLITE_FULL || error.getErrorCode() == SQLITE_IOERR ||
            error.getErrorCode() == SQLITE_CANTOPEN) {
            try {  // no room for a log: it can still be looked at
                inside->db = openAsItLies(path);
                inside->lock.reset();
                inside->readOnlyReason = "The disk is full or refuses to write: you can look, not write.";
                return std::unique_ptr<Book>(new Book(std::move(inside)));
            } catch (const std::exception&) {
                return problem(path.filename().string(),
                               "The disk is full or refuses to write: make room first.");
            }
        }
        return tl::make_unexpected(damaged(path, error.what()));
    } catch (const std::exception&) {
        return problem(path.filename().string(),
                       "This book cannot be opened; check its folder's permissions.");
    }
    return std::unique_ptr<Book>(new Book(std::move(inside)));
}

Result<std::size_t> Book::rescue(const fs::path& damaged, const fs::path& copy) {
    std::error_code error;
    if (fs::exists(copy, error))
        return problem(copy.filename().string(), "There is a file of this name already.");
    fs::path folder;
    try {
        // The copy is read, never the book: SQLite may want to roll its log.
        folder = temporaryFolder();
        const fs::path look = folder / "damaged.ombrek";
        fs::copy_file(damaged, look);
        if (fs::exists(walOf(damaged), error)) fs::copy_file(walOf(damaged), walOf(look));
        makeBookFile(copy);
        SQLite::Database from(look.string(), SQLite::OPEN_READWRITE, 2000);
        SQLite::Database into(copy.string(), SQLite::OPEN_READWRITE, 2000);
        SQLite::Transaction transaction(into);
        const std::size_t rows = copyReadable(from, into);
        transaction.commit();
        fs::remove_all(folder, error);
        if (rows > 0) return rows;
        fs::remove(copy, error);
        return problem(damaged.filename().string(), "Nothing in this file can be read as a book.");
    } catch (const std::exception&) {
        if (!folder.empty()) fs::remove_all(folder, error);
        fs::remove(copy, error);
        return problem(damaged.filename().string(), "Nothing in this file can be read as a book.");
    }
}

bool Book::lookForFile() {
    if (inside_->identity == identityOf(inside_->path) || !inside_->identity || readOnly()) return true;
    const std::lock_guard guard(inside_->writing);
    inside_->rescueIfLost();
    inside_->notify();
    return false;
}

const std::string& Book::rescuedTo() const { return inside_->rescued; }

const fs::path& Book::path() const { return inside_->path; }
bool Book::readOnly() const { return !inside_->readOnlyReason.empty(); }
const std::string& Book::readOnlyReason() const { return inside_->readOnlyReason; }
void Book::onChange(std::function<void()> listener) { inside_->listener = std::move(listener); }

std::vector<Book::BuildLine> Book::builds() const {
    return inside_->read(std::vector<BuildLine>(), [&] {
        std::vector<BuildLine> out;
        SQLite::Statement query(*inside_->db, "SELECT id, kit_name, started FROM build ORDER BY id");
        while (query.executeStep()) {
            out.push_back({query.getColumn(0).getInt64(), query.getColumn(1).getString(),
                           query.getColumn(2).getInt64()});
        }
        return out;
    });
}

namespace {

/// A value as it was kept; one that no meter can show, from a slip that was kept once, is no number any more
/// and cannot be told.
double storedValue(const SQLite::Column& column, Unit unit) {
    if (column.isNull()) return NAN;
    double value = column.getDouble();
    if (std::fabs(value) >= kOverload) value = std::copysign(INFINITY, value);
    return impossible(value, unit) ? NAN : value;
}

void readRecords(SQLite::Database& db, Build& out) {
    const auto each = [&](const char* sql, auto use) {
        SQLite::Statement query(db, sql);
        query.bind(1, out.id);
        while (query.executeStep()) use(query);
    };
    each(
        "SELECT id, subject, value, unit, uncertainty, setting, method, at, beyond FROM reading WHERE "
        "build=? ORDER "
        "BY id",
        [&](auto& q) {
            const Unit unit = static_cast<Unit>(q.getColumn(3).getInt());
            const double setting = q.getColumn(5).getDouble(), uncertainty = q.getColumn(4).getDouble();
            out.readings.push_back({q.getColumn(0).getInt64(), readSubject(q.getColumn(1).getString()),
                                    storedValue(q.getColumn(2), unit), unit,
                                    std::isfinite(uncertainty) ? std::fabs(uncertainty) : 0,
                                    std::isfinite(setting) ? setting : 0, q.getColumn(6).getString(),
                                    q.getColumn(7).getInt64(), q.getColumn(8).getInt() != 0});
        });
    each("SELECT ref, mark FROM part WHERE build=?", [&](auto& q) {
        out.parts[q.getColumn(0).getString()] = static_cast<PartMark>(q.getColumn(1).getInt());
    });
    each("SELECT name, turns, done FROM winding WHERE build=?", [&](auto& q) {
        out.windings[q.getColumn(0).getString()] = {q.getColumn(1).getInt(), q.getColumn(2).getInt() != 0};
    });
    each("SELECT step, knowingly, at, reason FROM step WHERE build=?", [&](auto& q) {
        out.steps[q.getColumn(0).getString()] = {q.getColumn(1).getInt() != 0, q.getColumn(2).getInt64(),
                                                 q.getColumn(3).getString()};
    });
    each("SELECT step, text FROM remark WHERE build=?",
         [&](auto& q) { out.remarks[q.getColumn(0).getString()] = q.getColumn(1).getString(); });
    each("SELECT gate, reason, at, basis FROM gate WHERE build=?", [&](auto& q) {
        out.gates[q.getColumn(0).getString()] = {q.getColumn(1).getString(), q.getColumn(2).getInt64(),
                                                 q.getColumn(3).getString()};
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
    each("SELECT subject, after FROM epoch WHERE build=?",
         [&](auto& q) { out.epochs[readSubject(q.getColumn(0).getString())] = q.getColumn(1).getInt64(); });
    each("SELECT subject, value FROM practice WHERE build=?",
         [&](auto& q) { out.practice[q.getColumn(0).getString()] = q.getColumn(1).getDouble(); });
    each("SELECT start, end FROM sitting WHERE build=? ORDER BY id", [&](auto& q) {
        out.sittings.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64()});
    });
}

}  // namespace

std::optional<Build> Book::build() const {
    return inside_->read(std::optional<Build>(), [&]() -> std::optional<Build> {
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
    });
}

Result<void> Book::act(const std::string& name, const std::function<void()>& change) {
    ++inside_->waiting;
    std::unique_lock guard(inside_->writing);
    --inside_->waiting;
    inside_->rescueIfLost();
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
        for (const auto& sql : statements) inside_->db->exec(sql);
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

std::string Book::undoName() const {
    return inside_->read(std::string(), [&] {
        SQLite::Statement query(*inside_->db,
                                "SELECT name FROM action WHERE undone=0 ORDER BY id DESC LIMIT 1");
        return query.executeStep() ? query.getColumn(0).getString() : std::string();
    });
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
        inside_->run("DELETE FROM list_draft");
        inside_->run("DELETE FROM list_edit");
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
    return act("reading of " + nameOf(r.subject), [&] { inside_->addReading(r); });
}

Result<void> Book::countTurn(const std::string& coil, const std::vector<std::string>& windings, int by) {
    return act(by > 0 ? "turn on " + coil : "turn off " + coil, [&] {
        for (const std::string& winding : windings)
            inside_->run(
                "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, max(0, ?), 0) "
                "ON CONFLICT(build, name) DO UPDATE SET turns=max(0, turns+?)",
                inside_->chosen(), coil + "/" + winding, by, by);
        inside_->changed(Subject::coil(coil));
    });
}

Result<void> Book::finishWinding(const std::string& coil, const std::vector<std::string>& windings,
                                 bool done) {
    return act((done ? "end of " : "return to ") + coil + " " + windings.front(), [&] {
        for (const std::string& winding : windings)
            inside_->run(
                "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, 0, ?) "
                "ON CONFLICT(build, name) DO UPDATE SET done=excluded.done",
                inside_->chosen(), coil + "/" + winding, done ? 1 : 0);
        if (done) return;
        // Opened again: what was proved of its tails and read of it holds no more.
        inside_->changed(Subject::coil(coil));
        inside_->run("DELETE FROM coil_check WHERE build=? AND name LIKE ? AND name<>?", inside_->chosen(),
                     coil + "/%", coil + "/cut");
    });
}

Result<void> Book::setTurns(const std::string& coil, const std::vector<std::string>& windings, int turns) {
    return act("count of " + coil, [&] {
        for (const std::string& winding : windings)
            inside_->run(
                "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, max(0, ?), 0) "
                "ON CONFLICT(build, name) DO UPDATE SET turns=excluded.turns",
                inside_->chosen(), coil + "/" + winding, turns);
        inside_->changed(Subject::coil(coil));
    });
}

Result<void> Book::bent(const std::string& coil, double factor) {
    return act("squeeze or spread of " + coil, [&] {
        inside_->changed(Subject::coil(coil));
        inside_->run(
            "INSERT INTO practice(build, subject, value) VALUES(?,?,?) "
            "ON CONFLICT(build, subject) DO UPDATE SET value=value*excluded.value",
            inside_->chosen(), Subject::coil(coil).text(), factor);
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
    return inside_->read(std::string(), [&] {
        SQLite::Statement q(*inside_->db, "SELECT value FROM preference WHERE key=?");
        q.bind(1, key);
        return q.executeStep() ? q.getColumn(0).getString() : std::string();
    });
}

Result<void> Book::prefer(const std::string& key, const std::string& value) {
    return act("choice of " + key, [&] {
        inside_->run(
            "INSERT INTO preference(key, value) VALUES(?,?) ON CONFLICT(key) DO UPDATE SET "
            "value=excluded.value",
            key, value);
    });
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
    return act("remark on " + step, [&] {
        inside_->run(
            "INSERT INTO remark(build, step, text) VALUES(?,?,?) "
            "ON CONFLICT(build, step) DO UPDATE SET text=excluded.text",
            inside_->chosen(), step, text);
    });
}

Result<void> Book::passGate(const std::string& gate, const std::string& reason, const std::string& basis) {
    return act("passing of gate " + gate, [&] {
        inside_->run(
            "INSERT INTO gate(build, gate, reason, at, basis) VALUES(?,?,?,?,?) "
            "ON CONFLICT(build, gate) DO UPDATE SET reason=excluded.reason, at=excluded.at, "
            "basis=excluded.basis",
            inside_->chosen(), gate, reason, inside_->clock(), basis);
    });
}

}  // namespace ombrek
