#include <SQLiteCpp/Backup.h>
#include <sqlite3.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cerrno>
#include <cstdlib>
#include <fstream>
#include <stdexcept>

#include "book/inside.h"
#include "book/migrations.h"
#include "book/schema.h"
#include "book/trust.h"
#include "book/undo_log.h"

// The book's file: made, opened, looked at when it may not be written, and rescued.

namespace ombrek {
namespace fs = std::filesystem;

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
    return openBook(immutableUri(path), SQLite::OPEN_READONLY | SQLite::OPEN_URI);
}

fs::path walOf(const fs::path& path) { return path.string() + "-wal"; }

/// Read-only. SQLite cannot read a write-ahead log in a folder it cannot write, so what a crash left there is
/// looked at in a copy. @param folder  set to where the copy lies, if one was made
std::unique_ptr<SQLite::Database> openToLook(const fs::path& path, fs::path& folder) {
    if (::access(fs::absolute(path).parent_path().c_str(), W_OK) == 0)
        return openBook(path.string(), SQLite::OPEN_READONLY);
    std::error_code none;
    if (fs::file_size(walOf(path), none) == 0 || none) return openAsItLies(path);
    folder = temporaryFolder();
    const fs::path copy = folder / "look.ombrek";
    fs::copy_file(path, copy);
    fs::copy_file(walOf(path), walOf(copy));
    return openBook(copy.string(), SQLite::OPEN_READWRITE);
}

/// Where there is no room for a log's index: SQLite keeps the index in memory for the one that has the file
/// alone, so that what was written last is seen, too. Nothing is written to the file, at its end neither.
std::unique_ptr<SQLite::Database> openWithoutRoom(const fs::path& path) {
    std::error_code none;
    if (fs::file_size(walOf(path), none) == 0 || none) return openAsItLies(path);
    auto db = openBook(path.string(), SQLite::OPEN_READWRITE);
    db->exec("PRAGMA locking_mode=EXCLUSIVE");
    db->exec("PRAGMA query_only=ON");
    sqlite3_db_config(db->getHandle(), SQLITE_DBCONFIG_NO_CKPT_ON_CLOSE, 1, nullptr);
    db->execAndGet("SELECT count(*) FROM sqlite_master");
    return db;
}

/// A book of an older version that may not be written is brought up to date in memory.
std::unique_ptr<SQLite::Database> openToLookAtOld(const fs::path& path, fs::path& folder) {
    auto file = openToLook(path, folder);
    if (file->execAndGet("PRAGMA user_version").getInt() >= kSchemaVersion) return file;
    auto memory = openBook(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    SQLite::Backup backup(*memory, *file);
    backup.executeStep();
    migrate(*memory);
    return memory;
}

/// Rows of an import that was cut off never became an action: they are taken out again.
void dropUnfinishedImports(SQLite::Database& db) {
    SQLite::Transaction transaction(db);
    db.exec("UPDATE action_in_hand SET id=0");
    for (const std::string table : {"stock", "contact", "heard"})
        db.exec("DELETE FROM " + table + " WHERE EXISTS (SELECT 1 FROM pending_import WHERE record='" +
                table + "' AND " + table + ".id BETWEEN first AND last)");
    db.exec("DELETE FROM pending_import");
    transaction.commit();
}

std::unique_ptr<SQLite::Database> openToWrite(const fs::path& path, std::int64_t now) {
    auto db = openBook(path.string(), SQLite::OPEN_READWRITE);
    db->exec("PRAGMA journal_mode=WAL");
    db->exec("PRAGMA synchronous=FULL");
    db->exec("PRAGMA foreign_keys=ON");
    migrate(*db);
    if (db->execAndGet("SELECT count(*) FROM pending_import").getInt() > 0) dropUnfinishedImports(*db);
    pruneUndoLog(*db, now);
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
    "Close every window that has it; then restore it from a copy (the file and, where there is one, its "
    "\"-wal\" beside it), begin another, or "
    "take a "
    "rescue copy of what can still be read.";

Problem damaged(const fs::path& path, const std::string& what) {
    return {path.filename().string(), "This book is damaged" +
                                          (what.empty() ? std::string() : " (" + what + ")") +
                                          "; it was left as it is. " + kRestore};
}

/// Every table's pages, but for the pictures: they are most of the file, and a spoilt one spoils itself
/// alone.
bool isSound(SQLite::Database& db) {
    std::vector<std::string> names;
    SQLite::Statement tables(db, "SELECT name FROM sqlite_master WHERE type='table' AND name<>'photo_data'");
    while (tables.executeStep()) names.push_back(tables.getColumn(0).getString());
    return std::all_of(names.begin(), names.end(), [&](const std::string& name) {
        SQLite::Statement check(db, "PRAGMA quick_check(" + quoted(name) + ")");
        return check.executeStep() && check.getColumn(0).getString() == "ok";
    });
}

/// A read-only look that finds damage before anything is written. A disk that is full or a folder that cannot
/// be written is no damage.
Result<void> checkSound(const fs::path& path) {
    fs::path folder;
    Result<void> out;
    const auto look = [&](SQLite::Database& db) -> Result<void> {
        const bool current = db.execAndGet("PRAGMA user_version").getInt() == kSchemaVersion;
        if (const std::string missing = current ? missingIn(db) : ""; !missing.empty())
            return tl::make_unexpected(damaged(path, missing));
        if (const std::string foreign = foreignIn(db); !foreign.empty())
            return problem(path.filename().string(), "This book was not opened: " + foreign +
                                                         ". Somebody put it there; nothing of it was run. "
                                                         "Take a rescue copy, which leaves it out.");
        if (!isSound(db) || !db.tableExists("reading") || !db.tableExists("undo_step"))
            return tl::make_unexpected(damaged(path, ""));
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
            const auto db = bad ? nullptr : openWithoutRoom(path);
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
        fs::path out = folder / (book.stem().string() + ".rescued" + (i > 1 ? "-" + std::to_string(i) : "") +
                                 book.extension().string());
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

void Book::Inside::watch() {
    const auto written = [](void* to, int how, const char*, const char* table, sqlite3_int64) {
        Notice& notice = *static_cast<Notice*>(to);
        (how == SQLITE_INSERT ? notice.added : notice.changed).insert(table);
    };
    sqlite3_update_hook(db->getHandle(), written, &notice);
    if (!readOnlyReason.empty()) return;
    const auto committed = [](void* inside, sqlite3*, const char*, int pages) {
        static_cast<Inside*>(inside)->intoFile(pages);
        return SQLITE_OK;
    };
    sqlite3_wal_hook(db->getHandle(), committed, this);
}

void Book::Inside::knowFile() {
    identity = identityOf(path);
    fingerprint = fingerprintOf(path);
}

bool Book::Inside::sameFile() {
    const auto now = identityOf(path);
    if (!now || !identity) return !now && !identity;
    // The log comes with the first write; one that was there must stay.
    if (identity->log == 0) identity->log = now->log;
    if (now == identity) return true;
    FileIdentity touched = *now;
    touched.changed = identity->changed;
    if (touched != *identity || fingerprintOf(path) != fingerprint) return false;
    identity = now;
    return true;
}

void Book::Inside::intoFile(int pages) {
    // A little at a time, so that no key waits for a long one.
    constexpr int kPages = 100;
    if (pages < kPages || !identity || !sameFile()) return;
    sqlite3_wal_checkpoint_v2(db->getHandle(), nullptr, SQLITE_CHECKPOINT_PASSIVE, nullptr, nullptr);
    knowFile();
}

bool Book::Inside::rescueIfLost() {
    if (!identity || !readOnlyReason.empty()) return true;
    if (sameFile()) return true;
    const auto now = identityOf(path);
    const bool over = now && now->inode == identity->inode;  // the same file, with other bytes in it
    const std::string what = !now   ? "The book was deleted or moved while it was open"
                             : over ? "The book was written over while it was open"
                                    : "Another file was put in the book's place while it was open";
    for (const fs::path& folder : rescueFolders(path)) {
        if (over) break;  // what was there is gone, and the open one is of both
        try {
            const fs::path copy = freeRescueName(path, folder);
            {
                SQLite::Database file(copy.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 2000);
                SQLite::Backup backup(file, *db);
                backup.executeStep();
            }
            auto taken = WriterLock::take(copy);
            if (!taken) continue;
            db = openToWrite(copy, clock());
            watch();
            notice.all = true;  // another file
            lock.emplace(std::move(*taken));
            path = copy;
            knowFile();
            rescued = what + ". All that was done is in " + copy.string() + ", and work goes on there.";
            return true;
        } catch (const std::exception&) {
            // the next folder
        }
    }
    readOnlyReason =
        what +
        (over ? ": what was in it is gone, and nothing more is kept. Close this window before you put a "
                "copy in its place."
              : ", and no rescue copy could be made: nothing more is kept.");
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
    if (openUnderAnotherName(path))
        return problem(
            path.filename().string(),
            "This book is open under another name of the same file; its newest turns lie beside that "
            "name. Open it there.");
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
        inside->db = inside->readOnlyReason.empty() ? openToWrite(path, inside->clock())
                                                    : openToLookAtOld(path, inside->lookFolder);
        inside->watch();
        if (inside->readOnlyReason.empty()) inside->knowFile();
        if (const std::string what = damageIn(*inside->db); !what.empty())
            return tl::make_unexpected(damaged(path, what));
    } catch (const SQLite::Exception& error) {
        if (error.getErrorCode() == SQLITE_FULL || error.getErrorCode() == SQLITE_IOERR ||
            error.getErrorCode() == SQLITE_CANTOPEN) {
            try {  // no room for a log: it can still be looked at
                inside->db.reset();
                inside->db = openWithoutRoom(path);
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

namespace {

/// A file cut short gets its missing end back as zeros: the header says how many pages there were.
void padded(const fs::path& file) {
    std::array<unsigned char, 32> head{};
    std::ifstream in(file, std::ios::binary);
    if (!in.read(reinterpret_cast<char*>(head.data()), head.size())) return;
    const std::size_t said = std::size_t(head[16]) << 8 | head[17], page = said == 1 ? 65536 : said;
    const std::size_t pages =
        std::size_t(head[28]) << 24 | std::size_t(head[29]) << 16 | std::size_t(head[30]) << 8 | head[31];
    constexpr std::size_t kMostPages = 1 << 20;
    std::error_code error;
    const auto size = fs::file_size(file, error);
    if (error || page < 512 || pages == 0 || pages > kMostPages || size >= page * pages) return;
    fs::resize_file(file, page * pages, error);
}

bool readsItsTables(const fs::path& file) {
    try {
        const auto db = openBook(file.string(), SQLite::OPEN_READWRITE);
        return db->execAndGet("SELECT count(*) FROM sqlite_master").getInt() > 0;
    } catch (const SQLite::Exception&) {
        return false;
    }
}

/// The pages in which a book's own description lies, by number from 1.
std::vector<std::size_t> schemaPages(const fs::path& book) {
    std::vector<std::size_t> out;
    SQLite::Database db(book.string(), SQLite::OPEN_READONLY);
    SQLite::Statement pages(db, "SELECT pageno FROM dbstat WHERE name='sqlite_schema'");
    while (pages.executeStep()) out.push_back(std::size_t(pages.getColumn(0).getInt64()));
    return out;
}

/// A book of this version describes its tables in the same bytes at the same places as a new one. Where they
/// cannot be read they are taken from a new one, if most of them still are what they were made as.
/// @return whether that was done
bool mendSchema(const fs::path& file, const fs::path& fresh) {
    constexpr std::size_t kPage = 4096, kHeader = 100;
    if (readsItsTables(file)) return false;
    std::ifstream made(fresh, std::ios::binary);
    std::fstream hurt(file, std::ios::binary | std::ios::in | std::ios::out);
    struct Piece {
        std::size_t at;
        std::string bytes;
    };
    std::vector<Piece> pieces;
    std::size_t same = 0;
    for (const std::size_t page : schemaPages(fresh)) {
        const std::size_t at = (page - 1) * kPage + (page == 1 ? kHeader : 0);
        Piece piece{at, std::string(page * kPage - at, '\0')};
        std::string there = piece.bytes;
        made.seekg(std::streamoff(at)).read(piece.bytes.data(), std::streamsize(piece.bytes.size()));
        hurt.seekg(std::streamoff(at)).read(there.data(), std::streamsize(there.size()));
        if (!made || !hurt) return false;
        same += there == piece.bytes;
        pieces.push_back(std::move(piece));
    }
    if (same * 2 < pieces.size()) return false;
    for (const Piece& piece : pieces)
        hurt.seekp(std::streamoff(piece.at)).write(piece.bytes.data(), std::streamsize(piece.bytes.size()));
    hurt.close();
    return hurt && readsItsTables(file);
}

/// The rows that were left out, as text beside the copy.
std::string leftOutBeside(const fs::path& copy, const std::vector<RescuedRecord>& records) {
    std::string text;
    for (const RescuedRecord& record : records) {
        for (const std::string& row : record.leftOut) text += record.name + ": " + row + "\n";
    }
    if (text.empty()) return "";
    const fs::path file = copy.string() + ".left-out.txt";
    std::ofstream out(file, std::ios::binary);
    out << text;
    return out ? file.string() : "";
}

}  // namespace

Result<Rescued> Book::rescue(const fs::path& damaged, const fs::path& copy) {
    std::error_code error;
    if (fs::exists(copy, error))
        return problem(copy.filename().string(), "There is a file of this name already.");
    fs::path folder;
    const auto nothing = [&] {
        if (!folder.empty()) fs::remove_all(folder, error);
        fs::remove(copy, error);
        return problem(damaged.filename().string(),
                       "Nothing in this file can be read as a book. If it was one, its daily copies are in "
                       "the folder .copies beside it.");
    };
    try {
        // The copy is read, never the book: SQLite may want to roll its log.
        folder = temporaryFolder();
        const fs::path look = folder / "damaged.ombrek";
        fs::copy_file(damaged, look);
        if (fs::exists(walOf(damaged), error)) fs::copy_file(walOf(damaged), walOf(look));
        padded(look);
        makeBookFile(copy);
        const bool mended = mendSchema(look, copy);
        const auto copied = openBook(look.string(), SQLite::OPEN_READWRITE);
        SQLite::Database& from = *copied;
        SQLite::Database into(copy.string(), SQLite::OPEN_READWRITE, 2000);
        try {
            migrate(from, Damage::taken);
        } catch (const SQLite::Exception&) {
            // What can be read of an older book is copied by the names that are still the same.
        }
        SQLite::Transaction transaction(into);
        Rescued out{copyReadable(from, into), "", mended};
        transaction.commit();
        if (out.rows() == 0) return nothing();
        out.leftOutFile = leftOutBeside(copy, out.records);
        fs::remove_all(folder, error);
        return out;
    } catch (const std::exception&) {
        return nothing();
    }
}

bool Book::lookForFile() {
    if (!inside_->identity || readOnly()) return true;
    const std::lock_guard guard(inside_->writing);
    if (inside_->sameFile()) return true;
    inside_->rescueIfLost();
    inside_->notify();
    return false;
}

const std::string& Book::rescuedTo() const { return inside_->rescued; }

const fs::path& Book::path() const { return inside_->path; }
bool Book::readOnly() const { return !inside_->readOnlyReason.empty(); }
const std::string& Book::readOnlyReason() const { return inside_->readOnlyReason; }
void Book::onChange(std::function<void(const Notice&)> listener) { inside_->listener = std::move(listener); }

}  // namespace ombrek
