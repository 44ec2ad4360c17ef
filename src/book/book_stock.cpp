#include <algorithm>
#include <cmath>

#include "book/inside.h"

// The drawers, the meters and the remembered list shapes: the builder's own, the same for every build.

namespace ombrek {
namespace {

constexpr const char* kSelectStock =
    "SELECT id, drawer, kind, value, unit, tolerance, volts, watts, what, count FROM stock ORDER BY id";
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

/// @return false when `goOn` says stop
bool insertStock(SQLite::Database& db, const std::vector<StockLine>& lines,
                 const std::function<bool(double)>& goOn = {}) {
    SQLite::Statement insert(db, kInsertStock);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (goOn && i % 1000 == 0 && !goOn(double(i) / double(lines.size()))) return false;
        bindStock(insert, lines[i]);
        insert.exec();
        insert.reset();
    }
    return true;
}

std::string linesWord(std::size_t count) {
    return count == 1 ? "line of stock" : std::to_string(count) + " lines of stock";
}

}  // namespace

std::vector<StockLine> Book::stock() const { return allStock(*inside_->db); }

std::size_t Book::stockSize() const {
    return std::size_t(inside_->db->execAndGet("SELECT count(*) FROM stock").getInt64());
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
    std::vector<Promise> out;
    SQLite::Statement q(*inside_->db, "SELECT stock, build, ref, count FROM promise");
    while (q.executeStep())
        out.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64(), q.getColumn(2).getString(),
                       q.getColumn(3).getInt()});
    return out;
}

Result<void> Book::addStock(const std::vector<StockLine>& lines) {
    return act(linesWord(lines.size()), [&] {
        ++inside_->stockRevision;
        insertStock(*inside_->db, lines);
    });
}

Result<void> Book::importStock(const std::vector<StockLine>& lines, const std::function<bool(double)>& goOn) {
    if (readOnly()) return problem("", inside_->readOnlyReason);
    try {
        Inside aside;
        aside.db = std::make_unique<SQLite::Database>(inside_->path.string(), SQLite::OPEN_READWRITE, 5000);
        SQLite::Transaction transaction(*aside.db);
        aside.forgetRedo();
        const std::int64_t action = aside.beginAction(linesWord(lines.size()), false);
        const std::int64_t before = aside.db->execAndGet("SELECT coalesce(max(id), 0) FROM stock").getInt64();
        if (!insertStock(*aside.db, lines, goOn)) return problem("", "Stopped; nothing was taken in.");
        // One step takes the whole import back, in place of one a line.
        const std::int64_t last = aside.db->execAndGet("SELECT coalesce(max(id), 0) FROM stock").getInt64();
        aside.run("DELETE FROM undo_step WHERE action=?", action);
        aside.run("INSERT INTO undo_step(action, sql) VALUES(?, ?)", action,
                  "DELETE FROM stock WHERE id BETWEEN " + std::to_string(before + 1) + " AND " +
                      std::to_string(last));
        transaction.commit();
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

Result<void> Book::takePromised(const std::string& ref) {
    return act("taking " + ref + " from the drawer", [&] {
        ++inside_->stockRevision;
        const std::int64_t build = inside_->chosen();
        inside_->run(
            "UPDATE stock SET count=max(0, count-(SELECT sum(count) FROM promise WHERE stock=stock.id AND "
            "build=? AND ref=?)) WHERE id IN (SELECT stock FROM promise WHERE build=? AND ref=?)",
            build, ref, build, ref);
        inside_->run("DELETE FROM promise WHERE build=? AND ref=?", build, ref);
        inside_->run("DELETE FROM part WHERE build=? AND ref=?", build, ref);
        inside_->run("DELETE FROM printed WHERE build=? AND ref=?", build, ref);
        // What was measured before was another part; its readings stay under a name of their own.
        inside_->run("UPDATE reading SET subject=? WHERE build=? AND subject=?", "replaced:" + ref, build,
                     "part:" + ref);
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
    std::vector<MeterLine> out;
    SQLite::Statement q(*inside_->db,
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
        line.counts = q.getColumn(7).getDouble();
        line.floor = q.getColumn(8).getDouble();
        line.zero = q.getColumn(9).getDouble();
        line.calibrated = q.getColumn(10).getInt64();
        out.push_back(std::move(line));
    }
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
    SQLite::Statement q(*inside_->db, "SELECT shape FROM list_shape WHERE key=?");
    q.bind(1, key);
    return q.executeStep() ? q.getColumn(0).getString() : std::string();
}

Result<void> Book::rememberShape(const std::string& key, const std::string& shape) {
    return act("columns of a list", [&] {
        inside_->run("DELETE FROM list_shape WHERE key=?", key);
        inside_->run("INSERT INTO list_shape(key, shape) VALUES(?,?)", key, shape);
    });
}

}  // namespace ombrek
