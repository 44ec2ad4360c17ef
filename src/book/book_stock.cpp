#include <algorithm>
#include <chrono>
#include <cmath>
#include <thread>

#include "book/inside.h"

// The drawers, the meters and the remembered list shapes: the builder's own, the same for every build.

namespace ombrek {
namespace {

constexpr const char* kNotPending =
    " WHERE NOT EXISTS (SELECT 1 FROM pending_import WHERE stock.id BETWEEN first AND last)";
const std::string kSelectStock =
    std::string("SELECT id, drawer, kind, value, unit, tolerance, volts, watts, what, count FROM stock") +
    kNotPending + " ORDER BY id";
constexpr const char* kInsertStockAt =
    "INSERT INTO stock(drawer, kind, value, unit, tolerance, volts, watts, what, count, id) "
    "VALUES(?,?,?,?,?,?,?,?,?,?)";
constexpr const char* kInsertStock =
    "INSERT INTO stock(drawer, kind, value, unit, tolerance, volts, watts, what, count) "
    "VALUES(?,?,?,?,?,?,?,?,?)";

std::vector<StockLine> allStock(SQLite::Database& db) {
    std::vector<StockLine> out;
    SQLite::Statement q(db, kSelectStock);
    while (q.executeStep()) {
        out.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getString(),
                       static_cast<PartKind>(q.getColumn(2).getInt()), q.getColumn(3).getDouble(),
                       static_cast<Unit>(q.getColumn(4).getInt()), q.getColumn(5).getDouble(),
                       q.getColumn(6).getDouble(), q.getColumn(7).getDouble(), q.getColumn(8).getString(),
                       q.getColumn(9).getInt()});
    }
    return out;
}

void bindStock(SQLite::Statement& q, const StockLine& line) {
    q.bind(1, line.drawer);
    q.bind(2, static_cast<int>(line.kind));
    q.bind(3, line.value);
    q.bind(4, static_cast<int>(line.unit));
    q.bind(5, line.tolerance);
    q.bind(6, line.volts);
    q.bind(7, line.watts);
    q.bind(8, line.what);
    q.bind(9, line.count);
}

void insertStock(SQLite::Database& db, const std::vector<StockLine>& lines) {
    SQLite::Statement insert(db, kInsertStock);
    for (const StockLine& line : lines) {
        bindStock(insert, line);
        insert.exec();
        insert.reset();
    }
}

std::vector<MeterLine> ownMeters(SQLite::Database& db) {
    std::vector<MeterLine> out;
    SQLite::Statement q(db,
                        "SELECT id, name, unit, low, high, percent, digits, counts, floor, zero, calibrated "
                        "FROM meter ORDER BY unit, low");
    while (q.executeStep()) {
        MeterLine line;
        line.id = q.getColumn(0).getInt64();
        line.name = q.getColumn(1).getString();
        line.unit = static_cast<Unit>(q.getColumn(2).getInt());
        line.low = q.getColumn(3).getDouble();
        if (!q.getColumn(4).isNull()) line.high = q.getColumn(4).getDouble();
        line.percent = q.getColumn(5).getDouble();
        line.digits = q.getColumn(6).getDouble();
        line.counts = std::max(q.getColumn(7).getDouble(), 1.0);
        line.floor = q.getColumn(8).getDouble();
        line.zero = q.getColumn(9).getDouble();
        line.calibrated = q.getColumn(10).getInt64();
        out.push_back(std::move(line));
    }
    return out;
}

std::string linesWord(std::size_t count) {
    return count == 1 ? "line of stock" : std::to_string(count) + " lines of stock";
}

}  // namespace

std::vector<StockLine> Book::stock() const {
    return inside_->read(std::vector<StockLine>(), [&] { return allStock(*inside_->db); });
}

std::size_t Book::stockSize() const {
    return inside_->read(std::size_t(0), [&] {
        return std::size_t(
            inside_->db->execAndGet(std::string("SELECT count(*) FROM stock") + kNotPending).getInt64());
    });
}

int Book::stockRevision() const { return inside_->stockRevision; }

Result<std::vector<StockLine>> Book::readStock(const std::filesystem::path& book) {
    try {
        SQLite::Database db(book.string(), SQLite::OPEN_READONLY, 2000);
        return db.tableExists("stock") ? allStock(db) : std::vector<StockLine>();
    } catch (const SQLite::Exception&) {
        return problem(book.filename().string(), "The drawers cannot be read from this book.");
    }
}

std::vector<Promise> Book::promises() const {
    return inside_->read(std::vector<Promise>(), [&] {
        std::vector<Promise> out;
        SQLite::Statement q(*inside_->db, "SELECT stock, build, ref, count FROM promise");
        while (q.executeStep())
            out.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64(), q.getColumn(2).getString(),
                           q.getColumn(3).getInt()});
        return out;
    });
}

Result<void> Book::addStock(const std::vector<StockLine>& lines) {
    return act(linesWord(lines.size()), [&] {
        ++inside_->stockRevision;
        insertStock(*inside_->db, lines);
    });
}

namespace {

constexpr std::size_t kPiece = 250;  ///< lines that go in at once: a few milliseconds

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

}  // namespace

Result<void> Book::importStock(const std::vector<StockLine>& lines, const std::function<bool(double)>& goOn) {
    if (readOnly()) return problem("", inside_->readOnlyReason);
    if (lines.empty()) return {};
    try {
        Inside aside;
        aside.db = std::make_unique<SQLite::Database>(inside_->path.string(), SQLite::OPEN_READWRITE, 5000);
        SQLite::Database& db = *aside.db;
        db.exec("PRAGMA synchronous=NORMAL");
        std::int64_t first = 0;
        SQLite::Statement insert(db, kInsertStockAt);
        const auto put = [&](std::size_t i) {
            bindStock(insert, lines[i]);
            insert.bind(10, first + std::int64_t(i));
            insert.exec();
            insert.reset();
        };
        // The last line goes in first and so keeps the numbers below it; nobody sees a row that is pending.
        inTurn(*inside_, db, [&] {
            first = db.execAndGet("SELECT coalesce(max(id), 0) + 1 FROM stock").getInt64();
            aside.run("INSERT INTO pending_import(first, last) VALUES(?, ?)", first,
                      first + std::int64_t(lines.size()) - 1);
            put(lines.size() - 1);
        });
        const auto between = [&] {
            return std::to_string(first) + " AND " + std::to_string(first + std::int64_t(lines.size()) - 1);
        };
        for (std::size_t at = 0; at + 1 < lines.size(); at += kPiece) {
            if (goOn && !goOn(double(at) / double(lines.size()))) {
                inTurn(*inside_, db, [&] {
                    db.exec("DELETE FROM stock WHERE id BETWEEN " + between());
                    db.exec("DELETE FROM pending_import WHERE first=" + std::to_string(first));
                });
                return problem("", "Stopped; nothing was taken in.");
            }
            inTurn(*inside_, db, [&] {
                for (std::size_t i = at; i < std::min(at + kPiece, lines.size() - 1); ++i) put(i);
            });
        }
        db.exec("PRAGMA synchronous=FULL");
        inTurn(*inside_, db, [&] {
            aside.forgetRedo();
            const std::int64_t action = aside.beginAction(linesWord(lines.size()), false);
            aside.run("INSERT INTO undo_step(action, sql) VALUES(?, ?)", action,
                      "DELETE FROM stock WHERE id BETWEEN " + between());
            db.exec("DELETE FROM pending_import WHERE first=" + std::to_string(first));
        });
    } catch (const SQLite::Exception& error) {
        return tl::make_unexpected(writeProblem(error));
    }
    return {};
}

void Book::announce() {
    ++inside_->stockRevision;
    inside_->notify();
}

Result<void> Book::changeStock(const StockLine& line) {
    return act("change of stock", [&] {
        ++inside_->stockRevision;
        SQLite::Statement q(*inside_->db,
                            "UPDATE stock SET drawer=?, kind=?, value=?, unit=?, tolerance=?, volts=?, "
                            "watts=?, what=?, count=? WHERE id=?");
        bindStock(q, line);
        q.bind(10, line.id);
        q.exec();
    });
}

Result<void> Book::removeStock(std::int64_t id) {
    return act("removal of stock", [&] {
        ++inside_->stockRevision;
        inside_->run("DELETE FROM promise WHERE stock=?", id);
        inside_->run("DELETE FROM stock WHERE id=?", id);
    });
}

Result<void> Book::promise(const std::string& ref, const std::vector<std::int64_t>& stock,
                           const std::string& note) {
    return act("promise for " + ref, [&] {
        inside_->run("DELETE FROM promise WHERE build=? AND ref=?", inside_->chosen(), ref);
        for (const std::int64_t id : stock)
            inside_->run("INSERT INTO promise(stock, build, ref, count) VALUES(?,?,?,1)", id,
                         inside_->chosen(), ref);
        inside_->setRemedy(ref, {Remedy::How::drawer, note});
    });
}

Result<void> Book::takePromised(const std::string& ref, PartKind kind) {
    return act("taking " + ref + " from the drawer", [&] {
        ++inside_->stockRevision;
        const std::int64_t build = inside_->chosen();
        inside_->run(
            "UPDATE stock SET count=max(0, count-(SELECT sum(count) FROM promise WHERE stock=stock.id AND "
            "build=? AND ref=?)) WHERE id IN (SELECT stock FROM promise WHERE build=? AND ref=?)",
            build, ref, build, ref);
        inside_->run("DELETE FROM promise WHERE build=? AND ref=?", build, ref);
        // What lay there till now is a part over, with what was read of it; a line that was missing had none.
        inside_->run(
            "INSERT INTO loose_part(build, kind, printed, value, uncertainty) "
            "SELECT ?1, ?2, coalesce((SELECT text FROM printed WHERE build=?1 AND ref=?3), ''), "
            "(SELECT value FROM reading WHERE build=?1 AND subject=?4 AND id>coalesce((SELECT after FROM "
            "epoch "
            "WHERE build=?1 AND subject=?4), -1) ORDER BY id DESC LIMIT 1), "
            "coalesce((SELECT uncertainty FROM reading WHERE build=?1 AND subject=?4 ORDER BY id DESC LIMIT "
            "1), 0) "
            "WHERE NOT EXISTS (SELECT 1 FROM part WHERE build=?1 AND ref=?3 AND mark=?5) AND "
            "(EXISTS (SELECT 1 FROM reading WHERE build=?1 AND subject=?4) OR "
            "EXISTS (SELECT 1 FROM part WHERE build=?1 AND ref=?3))",
            build, static_cast<int>(kind), ref, Subject::part(ref).text(),
            static_cast<int>(PartMark::missing));
        inside_->run("DELETE FROM part WHERE build=? AND ref=?", build, ref);
        inside_->run("DELETE FROM printed WHERE build=? AND ref=?", build, ref);
        inside_->changed(Subject::part(ref));
    });
}

Result<void> Book::putSpares(const std::vector<std::int64_t>& loose, const std::vector<StockLine>& lines) {
    return act("spares into stock", [&] {
        ++inside_->stockRevision;
        insertStock(*inside_->db, lines);
        for (const std::int64_t id : loose) inside_->run("DELETE FROM loose_part WHERE id=?", id);
    });
}

std::vector<MeterLine> Book::meters() const {
    std::vector<MeterLine> out =
        inside_->read(std::vector<MeterLine>(), [&] { return ownMeters(*inside_->db); });
    const std::vector<MeterLine> own = out;
    for (const MeterLine& usual : usualMeters()) {
        const bool known = std::any_of(own.begin(), own.end(), [&](auto& m) { return m.unit == usual.unit; });
        if (!known) out.push_back(usual);
    }
    return out;
}

Result<void> Book::setMeter(const MeterLine& m) {
    const auto set = [&] {
        const double high = std::isfinite(m.high) ? m.high : NAN;  // stored as NULL
        if (m.id != 0) inside_->run("DELETE FROM meter WHERE id=?", m.id);
        inside_->run("DELETE FROM meter WHERE unit=? AND low=?", static_cast<int>(m.unit), m.low);
        inside_->run(
            "INSERT INTO meter(name, unit, low, high, percent, digits, counts, floor, zero, calibrated) "
            "VALUES(?,?,?,?,?,?,?,?,?,?)",
            m.name, static_cast<int>(m.unit), m.low, high, m.percent, m.digits, m.counts, m.floor, m.zero,
            m.calibrated);
    };
    return act("data sheet of the " + std::string(m.name.empty() ? name(instrumentFor(m.unit)) : m.name),
               set);
}

std::string Book::listShape(const std::string& key) const {
    return inside_->read(std::string(), [&] {
        SQLite::Statement q(*inside_->db, "SELECT shape FROM list_shape WHERE key=?");
        q.bind(1, key);
        return q.executeStep() ? q.getColumn(0).getString() : std::string();
    });
}

std::optional<ListDraft> Book::listDraft() const {
    return inside_->read(std::optional<ListDraft>(), [&]() -> std::optional<ListDraft> {
        SQLite::Statement head(*inside_->db,
                               "SELECT name, origin, source FROM list_draft ORDER BY id DESC LIMIT 1");
        if (!head.executeStep()) return std::nullopt;
        ListDraft out{
            head.getColumn(0).getString(), head.getColumn(1).getString(), head.getColumn(2).getString(), {}};
        SQLite::Statement edits(*inside_->db, "SELECT line, how, text FROM list_edit ORDER BY id");
        while (edits.executeStep())
            out.edits.push_back({edits.getColumn(0).getInt64(), edits.getColumn(1).getString(),
                                 edits.getColumn(2).getString()});
        return out;
    });
}

Result<void> Book::keepListDraft(const ListDraft& draft) {
    return act("parts list " + draft.name, [&] {
        inside_->run("DELETE FROM list_draft");
        inside_->run("DELETE FROM list_edit");
        SQLite::Statement insert(*inside_->db, "INSERT INTO list_draft(name, origin, source) VALUES(?,?,?)");
        insert.bind(1, draft.name);
        insert.bind(2, draft.origin);
        insert.bind(3, draft.source.data(), int(draft.source.size()));
        insert.exec();
    });
}

Result<void> Book::editListDraft(const ListDraft::Edit& edit) {
    return act("correction of line " + std::to_string(edit.line / 1000), [&] {
        inside_->run("DELETE FROM list_edit WHERE line=?", edit.line);
        if (!edit.how.empty())
            inside_->run("INSERT INTO list_edit(line, how, text) VALUES(?,?,?)", edit.line, edit.how,
                         edit.text);
    });
}

Result<void> Book::rememberShape(const std::string& key, const std::string& shape) {
    return act("columns of a list", [&] {
        inside_->run("DELETE FROM list_shape WHERE key=?", key);
        inside_->run("INSERT INTO list_shape(key, shape) VALUES(?,?)", key, shape);
    });
}

}  // namespace ombrek
