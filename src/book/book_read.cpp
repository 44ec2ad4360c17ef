#include <algorithm>
#include <cmath>

#include "book/inside.h"

// The build in hand, read from the book: as a whole, or what was written since.

namespace ombrek {
namespace {

/// How one record of a build is read into it. @param beyond  only rows with a larger id, where rows are only
/// ever added
struct Reader {
    const RecordLine& record;
    void (*read)(SQLite::Database& db, Build& out, std::int64_t beyond);
};

/// A value as it was kept; one that no meter can show, from a slip that was kept once, is no number any more
/// and cannot be told.
void addReading(Build& out, std::int64_t id, Reading r) {
    r.id = id;
    if (impossible(r.value, r.unit)) r.value = NAN;
    // An error that no meter has is none that is known: what rests on it cannot be told.
    r.uncertainty = std::fabs(r.uncertainty) < 1e100 ? std::fabs(r.uncertainty) : NAN;
    out.readings.push_back(std::move(r));
}

/// Rows with a name, into the map of that name.
template <class Key, class Value, class Map>
void readNamed(const Record<std::pair<Key, Value>>& record, SQLite::Database& db, const Build& build,
               Map& out) {
    out.clear();
    record.each(db, build.id, [&](std::int64_t, std::pair<Key, Value> row) { out.insert(std::move(row)); });
}

/// Rows in the order of the writing.
template <class Row>
void readRows(const Record<Row>& record, SQLite::Database& db, const Build& build, std::vector<Row>& out) {
    out.clear();
    record.each(db, build.id, [&](std::int64_t id, Row row) {
        if constexpr (requires { row.id; }) row.id = id;
        out.push_back(std::move(row));
    });
}

void readLooks(SQLite::Database& db, Build& out, std::int64_t) {
    out.joints.clear();
    out.senses.clear();
    record::looked.each(db, out.id, [&](std::int64_t, const record::LookRow& row) {
        (row.how == int(Book::Look::joints) ? out.joints : out.senses)[row.ref] = row.at;
    });
}

void readPhotos(SQLite::Database& db, Build& out, std::int64_t) {
    out.photos.clear();
    record::photo.each(db, out.id, [&](std::int64_t id, record::PhotoRow row) {
        row.line.id = id;
        out.photos.push_back(std::move(row.line));
    });
}

/// The builder's limits are of the book, but every rig is held against them.
void readLicence(SQLite::Database& db, Build& out, std::int64_t) {
    SQLite::Statement q(db, "SELECT value FROM preference WHERE key=?");
    q.bind(1, std::string(kLicence));
    out.licence = q.executeStep() ? q.getColumn(0).getString() : std::string();
}

void readSittings(SQLite::Database& db, Build& out) {
    out.sittings.clear();
    SQLite::Statement q(db, "SELECT start, end FROM sitting WHERE build=? ORDER BY id");
    q.bind(1, out.id);
    while (q.executeStep()) out.sittings.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64()});
}

const std::vector<Reader>& readers() {
    using Db = SQLite::Database;
    using Beyond = std::int64_t;
    static const std::vector<Reader> all{
        {record::reading.line(),
         [](Db& db, Build& b, Beyond beyond) {
             if (beyond < 0) b.readings.clear();
             record::reading.each(
                 db, b.id, [&](Beyond id, Reading r) { addReading(b, id, std::move(r)); }, beyond);
         }},
        {record::part.line(), [](Db& db, Build& b, Beyond) { readNamed(record::part, db, b, b.parts); }},
        {record::winding.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::winding, db, b, b.windings); }},
        {record::step.line(), [](Db& db, Build& b, Beyond) { readNamed(record::step, db, b, b.steps); }},
        {record::remark.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::remark, db, b, b.remarks); }},
        {record::gate.line(), [](Db& db, Build& b, Beyond) { readNamed(record::gate, db, b, b.gates); }},
        {record::choice.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::choice, db, b, b.choices); }},
        {record::coilCheck.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::coilCheck, db, b, b.coilChecks); }},
        {record::printed.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::printed, db, b, b.printed); }},
        {record::remedy.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::remedy, db, b, b.remedies); }},
        {record::kept.line(), [](Db& db, Build& b, Beyond) { readNamed(record::kept, db, b, b.kept); }},
        {record::practice.line(),
         [](Db& db, Build& b, Beyond) { readNamed(record::practice, db, b, b.practice); }},
        {record::loose.line(), [](Db& db, Build& b, Beyond) { readRows(record::loose, db, b, b.loose); }},
        {record::away.line(),
         [](Db& db, Build& b, Beyond) {
             readRows(record::away, db, b, b.away);
             std::sort(b.away.begin(), b.away.end(), [](auto& x, auto& y) { return x.start < y.start; });
         }},
        {record::finding.line(),
         [](Db& db, Build& b, Beyond) { readRows(record::finding, db, b, b.findings); }},
        {record::change.line(), [](Db& db, Build& b, Beyond) { readRows(record::change, db, b, b.changes); }},
        {record::repair.line(), [](Db& db, Build& b, Beyond) { readRows(record::repair, db, b, b.repairs); }},
        {record::sighting.line(),
         [](Db& db, Build& b, Beyond) { readRows(record::sighting, db, b, b.sightings); }},
        {record::air.line(), [](Db& db, Build& b, Beyond) { readRows(record::air, db, b, b.air); }},
        {record::preference.line(), readLicence},
        {record::looked.line(), readLooks},
        {record::photo.line(), readPhotos},
    };
    return all;
}

/// What a build says of itself. @return false when there is no such build
bool readHead(SQLite::Database& db, Build& out) {
    const auto row = record::build.row(db, out.id);
    if (!row) return false;
    out.order = row->order;
    out.rule = row->rule;
    out.profile = row->profile;
    out.started = row->started;
    out.way = row->way;
    out.depth = row->depth;
    SQLite::Statement q(db, "SELECT text FROM kit_text WHERE id=?");
    q.bind(1, row->kit);
    out.kitText = q.executeStep() ? q.getColumn(0).getString() : std::string();
    return true;
}

}  // namespace

std::vector<Book::BuildLine> Book::builds() const {
    return inside_->read(std::vector<BuildLine>(), [&] {
        std::vector<BuildLine> out;
        record::build.each(*inside_->db, 0, [&](std::int64_t id, const record::BuildRow& row) {
            out.push_back({id, row.kitName, row.started});
        });
        return out;
    });
}

std::optional<Build> Book::build() const {
    return inside_->read(std::optional<Build>(), [&]() -> std::optional<Build> {
        Build out;
        out.id = inside_->chosen();
        if (!readHead(*inside_->db, out)) return std::nullopt;
        for (const Reader& reader : readers()) reader.read(*inside_->db, out, -1);
        readSittings(*inside_->db, out);
        return out;
    });
}

bool Book::reread(Build& build, const Notice& notice) const {
    return inside_->read(false, [&] {
        if (notice.all || build.id == 0 || inside_->chosen() != build.id) return false;
        SQLite::Database& db = *inside_->db;
        if (notice.touches(record::build.line().name) && !readHead(db, build)) return false;
        for (const Reader& reader : readers()) {
            const std::string& name = reader.record.name;
            if (!notice.touches(name)) continue;
            const bool onlyAdded = !notice.changed.contains(name) && !build.readings.empty();
            reader.read(db, build, onlyAdded ? build.readings.back().id : -1);
        }
        if (notice.touches("sitting")) readSittings(db, build);
        return true;
    });
}

}  // namespace ombrek
