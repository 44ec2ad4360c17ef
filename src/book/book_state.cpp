#include "book/import_rows.h"
#include "book/inside.h"

// What a book says of a build, as one text: what a report is signed by.

namespace ombrek {
namespace {

/// What was chosen stood among the gates until version 7, and stands so in what is signed; by id, which a
/// choice that was brought over has kept.
void addGates(SQLite::Database& db, std::int64_t build, std::string& out) {
    SQLite::Statement q(db,
                        "SELECT id, quote(gate)||','||quote(reason)||','||quote(at)||','||quote(basis)||','||"
                        "quote(forbids) FROM gate WHERE build=?1 UNION ALL SELECT id, quote(what)||','||"
                        "quote(said)||','||quote(at)||','''',''''' FROM choice WHERE build=?1 ORDER BY 1, 2");
    q.bind(1, build);
    while (q.executeStep()) out += "gate " + q.getColumn(1).getString() + "\n";
}

/// Whether rows of a record stand in what is signed as its table has them.
bool signedAsItIs(const RecordLine& record) {
    for (const RecordLine* other : {&record::practice.line(), &record::choice.line(), &record::paper.line()})
        if (record.name == other->name) return false;
    return record.ofBuild;
}

/// Rows of a table as SQL would write them, in the order of the writing, without their ids.
/// @param where  " WHERE …", which rows
void addRows(SQLite::Database& db, const RecordLine& record, const std::string& where, std::int64_t build,
             std::string& out) {
    std::string columns;
    for (const ColumnLine& c : record.columns) {
        // Ids of pictures are the file's own; the pictures follow by their bytes.
        if (record.name == "photo" && c.name == "data") continue;
        // What a newer version asks of a meter changes nothing of a report that was signed before it was
        // said.
        if (record.name == "meter" && c.name == "most") {
            columns += "||CASE WHEN most<9.9e37 THEN ','||quote(most) ELSE '' END";
            continue;
        }
        columns += (columns.empty() ? "quote(" : "||','||quote(") + c.name + ")";
    }
    SQLite::Statement q(db, "SELECT " + columns + " FROM " + record.name + where + " ORDER BY id");
    if (!where.empty()) q.bind(1, build);
    while (q.executeStep()) out += record.name + " " + q.getColumn(0).getString() + "\n";
}

}  // namespace

std::string Book::state() const {
    return inside_->read(std::string(), [&] {
        SQLite::Database& db = *inside_->db;
        const std::int64_t build = inside_->chosen();
        std::string out;
        const auto rowOf = record::build.row(db, build);
        if (!rowOf) return out;
        SQLite::Statement kit(db, "SELECT text FROM kit_text WHERE id=?");
        kit.bind(1, rowOf->kit);
        out = "kit " + (kit.executeStep() ? kit.getColumn(0).getString() : std::string()) + "\n";
        out += "build " + rowOf->kitName + " " + std::to_string(rowOf->started) + " " +
               std::to_string(int(rowOf->rule)) + " " + rowOf->profile + "\n";
        for (const RecordLine& record : record::all()) {
            if (record.name == record::gate.line().name)
                addGates(db, build, out);
            else if (signedAsItIs(record))
                addRows(db, record, " WHERE build=?", build, out);
        }
        addRows(db, record::contact.line(), " WHERE rig=? AND NOT (" + hiddenRows("contact") + ")", build,
                out);
        addRows(db, record::heard.line(), " WHERE rig=? AND NOT (" + hiddenRows("heard") + ")", build, out);
        addRows(db, record::meter.line(), "", build, out);
        for (const char* word : {"who", "callsign", "locator", "licence", "report photos"})
            out += std::string(word) + " " + preference(word) + "\n";
        SQLite::Statement pictures(
            db,
            "SELECT hex(jpeg) FROM photo JOIN photo_data ON photo_data.id=photo.data WHERE photo.build=? "
            "ORDER BY photo.id");
        pictures.bind(1, build);
        while (pictures.executeStep()) out += "picture " + pictures.getColumn(0).getString() + "\n";
        return out;
    });
}

}  // namespace ombrek
