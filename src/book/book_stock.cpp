#include <algorithm>
#include <cmath>

#include "book/import_rows.h"
#include "book/inside.h"
#include "book/trust.h"

// The drawers, the meters and the remembered list shapes: the builder's own, the same for every build.

namespace ombrek {
namespace {

std::vector<StockLine> allStock(SQLite::Database& db) {
    std::vector<StockLine> out;
    record::stock.each(
        db, 0,
        [&](std::int64_t id, StockLine line) {
            line.id = id;
            out.push_back(std::move(line));
        },
        -1, " AND NOT (" + hiddenRows("stock") + ")");
    return out;
}

void insertStock(SQLite::Database& db, const std::vector<StockLine>& lines) {
    SQLite::Statement insert(db, record::stock.writing());
    for (const StockLine& line : lines) {
        record::stock.bind(insert, 0, line);
        insert.exec();
        insert.reset();
    }
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
            inside_->db->execAndGet("SELECT count(*) FROM stock WHERE NOT (" + hiddenRows("stock") + ")")
                .getInt64());
    });
}

int Book::stockRevision() const { return inside_->stockRevision; }

Result<std::vector<StockLine>> Book::readStock(const std::filesystem::path& book) {
    try {
        const auto opened = openBook(book.string(), SQLite::OPEN_READONLY);
        SQLite::Database& db = *opened;
        return db.tableExists("stock") ? allStock(db) : std::vector<StockLine>();
    } catch (const SQLite::Exception&) {
        return problem(book.filename().string(), "The drawers cannot be read from this book.");
    }
}

std::vector<Promise> Book::promises() const {
    return inside_->read(std::vector<Promise>(), [&] {
        std::vector<Promise> out;
        record::promise.each(*inside_->db, 0, [&](std::int64_t, Promise p) { out.push_back(std::move(p)); });
        return out;
    });
}

Result<void> Book::addStock(const std::vector<StockLine>& lines) {
    return act(linesWord(lines.size()), [&] {
        ++inside_->stockRevision;
        insertStock(*inside_->db, lines);
    });
}

Result<void> Book::importStock(const std::vector<StockLine>& lines, const std::function<bool(double)>& goOn) {
    return importRows(*this, *inside_, record::stock, lines, linesWord(lines.size()), goOn);
}

void Book::announce() {
    ++inside_->stockRevision;
    ++inside_->logRevision;
    for (const char* imported : {"stock", "contact", "heard"}) inside_->notice.changed.insert(imported);
    inside_->notify();
}

Result<void> Book::changeStock(const StockLine& line) {
    return act("change of stock", [&] {
        ++inside_->stockRevision;
        record::stock.change(*inside_->db, line.id, line);
    });
}

Result<void> Book::removeStock(std::int64_t id) {
    return act("removal of stock", [&] {
        ++inside_->stockRevision;
        inside_->run("DELETE FROM promise WHERE stock=?", id);
        inside_->run("DELETE FROM stock WHERE id=?", id);
    });
}

Result<void> Book::promise(const std::vector<Kept>& kept) {
    if (kept.empty()) return {};
    const std::string more = kept.size() > 1 ? " and " + std::to_string(kept.size() - 1) + " more" : "";
    return act("promise for " + kept.front().ref + more, [&] {
        for (const auto& [ref, stock, note] : kept) {
            inside_->run("DELETE FROM promise WHERE build=? AND ref=?", inside_->chosen(), ref);
            for (const std::int64_t id : stock)
                record::promise.put(*inside_->db, 0, {id, inside_->chosen(), ref, 1});
            inside_->put(record::remedy, {ref, {Remedy::How::drawer, note}});
        }
    });
}

Result<void> Book::takePromised(const std::vector<std::string>& refs, PartKind kind) {
    if (refs.empty()) return {};
    const std::string more = refs.size() > 1 ? " and " + std::to_string(refs.size() - 1) + " more" : "";
    return act("taking " + refs.front() + more + " from the drawer", [&] {
        for (const std::string& ref : refs) {
            inside_->usePromised(ref);
            // A line that was missing had nothing there.
            const auto mark = inside_->markOf(ref);
            const bool lay =
                mark ? *mark != PartMark::missing : inside_->lastReading(Subject::part(ref)).has_value();
            if (lay) inside_->layOver(ref, kind);
            inside_->clearPlace(ref);
            inside_->changed(Subject::part(ref), "replaced");
        }
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
    std::vector<MeterLine> out = inside_->read(std::vector<MeterLine>(), [&] {
        std::vector<MeterLine> lines;
        record::meter.each(*inside_->db, 0, [&](std::int64_t id, MeterLine line) {
            line.id = id;
            line.counts = std::max(line.counts, 1.0);
            lines.push_back(std::move(line));
        });
        std::sort(lines.begin(), lines.end(), [](const MeterLine& a, const MeterLine& b) {
            return std::pair(a.unit, a.low) < std::pair(b.unit, b.low);
        });
        return lines;
    });
    const std::vector<MeterLine> own = out;
    for (const MeterLine& usual : usualMeters()) {
        const bool known = std::any_of(own.begin(), own.end(), [&](auto& m) { return m.unit == usual.unit; });
        if (!known) out.push_back(usual);
    }
    return out;
}

Result<void> Book::setMeter(const MeterLine& m) {
    const auto set = [&] {
        if (m.id != 0) inside_->run("DELETE FROM meter WHERE id=?", m.id);
        record::meter.put(*inside_->db, 0, m);
    };
    return act("data sheet of the " + std::string(m.name.empty() ? word(instrumentFor(m.unit)) : m.name),
               set);
}

std::vector<Instrument> Book::instruments() const {
    auto out = inside_->read(std::vector<Instrument>(), [&] {
        std::vector<Instrument> all;
        record::instrument.each(*inside_->db, 0, [&](std::int64_t id, Instrument one) {
            one.id = id;
            one.average = std::clamp(one.average, 1, 100);
            all.push_back(std::move(one));
        });
        return all;
    });
    const auto practice = [](const Instrument& i) { return i.way == Way::practice; };
    if (std::none_of(out.begin(), out.end(), practice)) out.push_back(practiceInstrument());
    std::stable_sort(out.begin(), out.end(), [&](const Instrument& a, const Instrument& b) {
        return std::pair(practice(a), a.place) < std::pair(practice(b), b.place);
    });
    return out;
}

Result<std::int64_t> Book::setInstrument(const Instrument& instrument) {
    const std::vector<Instrument> all = instruments();
    const bool taken = std::any_of(all.begin(), all.end(), [&](const Instrument& other) {
        return other.name == instrument.name && (other.id != instrument.id || other.way != instrument.way);
    });
    if (instrument.name.empty()) return problem("", "An instrument wants a name.");
    if (taken)
        return problem("", "There is a \"" + instrument.name + "\" already; give this one another name.");
    std::int64_t id = instrument.id;
    const auto done = act(instrument.name, [&] {
        SQLite::Database& db = *inside_->db;
        if (id == 0) {
            id = record::instrument.put(db, 0, instrument);
            return;
        }
        const auto before = record::instrument.row(db, id);
        record::instrument.change(db, id, instrument);
        if (!before || before->name == instrument.name) return;
        inside_->run(
            "DELETE FROM meter WHERE name=?1 AND (unit, low) IN (SELECT unit, low FROM meter WHERE name=?2)",
            instrument.name, before->name);
        inside_->run("UPDATE meter SET name=? WHERE name=?", instrument.name, before->name);
    });
    if (!done) return tl::make_unexpected(done.error());
    return id;
}

Result<void> Book::removeInstrument(const std::string& name) {
    return act(name + " off the list", [&] { inside_->run("DELETE FROM instrument WHERE name=?", name); });
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
        std::optional<ListDraft> out;
        record::draft.each(*inside_->db, 0, [&](std::int64_t, record::DraftRow row) {
            out = ListDraft{row.name, row.origin, std::move(row.source), {}};
        });
        if (!out) return out;
        record::draftEdit.each(*inside_->db, 0,
                               [&](std::int64_t, ListDraft::Edit e) { out->edits.push_back(std::move(e)); });
        return out;
    });
}

Result<void> Book::keepListDraft(const ListDraft& draft) {
    return act("parts list " + draft.name, [&] {
        inside_->run("DELETE FROM list_draft");
        inside_->run("DELETE FROM list_edit");
        record::draft.put(*inside_->db, 0, {draft.name, draft.origin, draft.source});
    });
}

Result<void> Book::editListDraft(const ListDraft::Edit& edit) {
    return act("correction of line " + std::to_string(edit.line / 1000), [&] {
        inside_->run("DELETE FROM list_edit WHERE line=?", edit.line);
        if (!edit.how.empty()) record::draftEdit.put(*inside_->db, 0, edit);
    });
}

Result<void> Book::rememberShape(const std::string& key, const std::string& shape) {
    return act("columns of a list", [&] { record::listShape.put(*inside_->db, 0, {key, shape}); });
}

}  // namespace ombrek
