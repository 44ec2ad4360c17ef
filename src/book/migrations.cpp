#include "book/migrations.h"

#include <sqlite3.h>

#include <string>

#include "book/schema.h"
#include "book/trust.h"

namespace ombrek {
namespace {

/// What a version's step does, in SQL as it was when the version came out. Frozen: a book of any age is read
/// with the words that were true then, whatever the records have become.
struct Migration {
    int from;
    const char* sql;
};

constexpr Migration kMigrations[] = {
    {1, R"(
        ALTER TABLE build ADD COLUMN way DEFAULT 0;
        ALTER TABLE build ADD COLUMN depth DEFAULT 0;
        CREATE TABLE IF NOT EXISTS printed(id INTEGER PRIMARY KEY, build, ref, text, UNIQUE(build, ref));
        CREATE TABLE IF NOT EXISTS coil_check(id INTEGER PRIMARY KEY, build, name, how, UNIQUE(build, name));
        CREATE TABLE IF NOT EXISTS preference(id INTEGER PRIMARY KEY, key, value, UNIQUE(key));
        CREATE TABLE IF NOT EXISTS loose_part(id INTEGER PRIMARY KEY, build, kind, printed, value, uncertainty);
        CREATE TABLE IF NOT EXISTS remedy(id INTEGER PRIMARY KEY, build, ref, how, note, UNIQUE(build, ref));
        CREATE TABLE IF NOT EXISTS stock(id INTEGER PRIMARY KEY, drawer, kind, value, unit, tolerance, volts,
            watts, what, count);
        CREATE TABLE IF NOT EXISTS promise(id INTEGER PRIMARY KEY, stock, build, ref, count);
        CREATE TABLE IF NOT EXISTS meter(id INTEGER PRIMARY KEY, name, unit, low, high, percent, digits, counts,
            floor, zero, calibrated, UNIQUE(unit, low));
        CREATE TABLE IF NOT EXISTS list_shape(id INTEGER PRIMARY KEY, key, shape, UNIQUE(key));
    )"},
    {2, R"(
        CREATE TABLE IF NOT EXISTS away(id INTEGER PRIMARY KEY, build, start, end, UNIQUE(build, start));
        CREATE TABLE IF NOT EXISTS kept(id INTEGER PRIMARY KEY, build, what, count, UNIQUE(build, what));
        CREATE TABLE IF NOT EXISTS finding(id INTEGER PRIMARY KEY, build, ref, what, found, closed);
        CREATE TABLE IF NOT EXISTS looked(id INTEGER PRIMARY KEY, build, ref, how, at, UNIQUE(build, ref, how));
        CREATE TABLE IF NOT EXISTS photo(id INTEGER PRIMARY KEY, build, step, after, at, jpeg);
    )"},
    {3, R"(
        ALTER TABLE reading ADD COLUMN beyond DEFAULT 0;
        ALTER TABLE step ADD COLUMN reason DEFAULT '';
        ALTER TABLE gate ADD COLUMN basis DEFAULT '';
        ALTER TABLE photo ADD COLUMN data DEFAULT NULL;
        CREATE TABLE IF NOT EXISTS epoch(id INTEGER PRIMARY KEY, build, subject, after, UNIQUE(build, subject));
        CREATE TABLE IF NOT EXISTS practice(id INTEGER PRIMARY KEY, build, subject, value,
            UNIQUE(build, subject));
        CREATE TABLE IF NOT EXISTS list_draft(id INTEGER PRIMARY KEY, name, origin, source);
        CREATE TABLE IF NOT EXISTS list_edit(id INTEGER PRIMARY KEY, line, how, text, UNIQUE(line));
        CREATE TABLE IF NOT EXISTS photo_data(id INTEGER PRIMARY KEY, jpeg BLOB);
        CREATE TABLE IF NOT EXISTS pending_import(id INTEGER PRIMARY KEY, first INTEGER, last INTEGER);
    )"},
    // Choices as words, circumstances by name, the kit's text in its own table, every change of a thing kept,
    // repairs, the time of an action. Statements of the undo log would write the old shape: they go.
    {4, R"(
        DELETE FROM undo_step;
        DELETE FROM action;
        ALTER TABLE action ADD COLUMN at INTEGER DEFAULT 0;
        CREATE INDEX action_undone ON action(undone);

        CREATE TABLE kit_text(id INTEGER PRIMARY KEY, text TEXT);
        INSERT INTO kit_text(id, text) SELECT id, kit_text FROM build;
        ALTER TABLE build ADD COLUMN kit;
        UPDATE build SET kit=id,
            build_order=CASE build_order WHEN 0 THEN 'manual' WHEN 1 THEN 'lowest-first' WHEN 2 THEN 'by-kind'
                WHEN 3 THEN 'by-stage' WHEN 4 THEN 'hardest-first' ELSE build_order END,
            rule=CASE rule WHEN 0 THEN 'guard-band' WHEN 1 THEN 'simple' ELSE rule END,
            way=CASE way WHEN 0 THEN 'by-kind' WHEN 1 THEN 'by-plan' WHEN 2 THEN 'before-fitting' ELSE way END,
            depth=CASE depth WHEN 0 THEN 'measure-all' WHEN 1 THEN 'measure-doubtful' WHEN 2 THEN 'trust-bag'
                ELSE depth END;
        ALTER TABLE build DROP COLUMN kit_text;

        CREATE TEMP TABLE unit_word(number, word);
        INSERT INTO unit_word VALUES (0,'none'),(1,'ohm'),(2,'farad'),(3,'henry'),(4,'volt'),(5,'ampere'),
            (6,'watt'),(7,'hertz'),(8,'metre'),(9,'second'),(10,'celsius'),(11,'percent'),(12,'decibel'),
            (13,'dbm'),(14,'ppm'),(15,'degree');
        CREATE TEMP TABLE kind_word(number, word);
        INSERT INTO kind_word VALUES (0,'resistor'),(1,'capacitor'),(2,'inductor'),(3,'diode'),
            (4,'transistor'),(5,'ic'),(6,'crystal'),(7,'coil'),(8,'trimmer'),(9,'other');
        UPDATE reading SET unit=coalesce((SELECT word FROM unit_word WHERE number=unit), unit);
        UPDATE stock SET unit=coalesce((SELECT word FROM unit_word WHERE number=unit), unit),
            kind=coalesce((SELECT word FROM kind_word WHERE number=kind), kind);
        UPDATE meter SET unit=coalesce((SELECT word FROM unit_word WHERE number=unit), unit);
        UPDATE loose_part SET kind=coalesce((SELECT word FROM kind_word WHERE number=kind), kind);
        DROP TABLE unit_word;
        DROP TABLE kind_word;
        UPDATE part SET mark=CASE mark WHEN 0 THEN 'seen' WHEN 1 THEN 'trusted' WHEN 2 THEN 'missing'
            ELSE mark END;
        UPDATE remedy SET how=CASE how WHEN 0 THEN 'drawer' WHEN 1 THEN 'shopping' WHEN 2 THEN 'supplier'
            WHEN 3 THEN 'equivalent' ELSE how END;
        UPDATE finding SET what=CASE what WHEN 0 THEN 'bridge' WHEN 1 THEN 'dry' WHEN 2 THEN 'missed'
            WHEN 3 THEN 'flux' WHEN 4 THEN 'turned' WHEN 5 THEN 'other' ELSE what END;
        UPDATE looked SET how=CASE how WHEN 0 THEN 'joints' WHEN 1 THEN 'sense' ELSE how END;

        ALTER TABLE reading ADD COLUMN settings DEFAULT '';
        ALTER TABLE reading ADD COLUMN meter DEFAULT '';
        ALTER TABLE reading ADD COLUMN sheet DEFAULT '';
        ALTER TABLE reading ADD COLUMN who DEFAULT '';
        UPDATE reading SET settings=coalesce(CASE
            WHEN subject LIKE 'adjust:%' THEN 'position=' || setting
            WHEN subject LIKE 'coil:%' AND setting > 0 THEN 'turns=' || setting
            WHEN subject NOT LIKE 'proof:power%' OR method='peak-to-peak' THEN ''
            WHEN method='diode-probe' THEN 'diode drop=' || setting
            WHEN method='wattmeter' THEN 'correction=' || setting
            ELSE 'attenuation=' || setting END, '');
        ALTER TABLE reading DROP COLUMN setting;

        ALTER TABLE epoch RENAME TO epoch_4;
        CREATE TABLE epoch(id INTEGER PRIMARY KEY, build, subject, after, at, how);
        INSERT INTO epoch(build, subject, after, at, how) SELECT build, subject, after, 0, '' FROM epoch_4;
        DROP TABLE epoch_4;
        CREATE TABLE import_undone(id INTEGER PRIMARY KEY, first, last);
        CREATE TABLE repair(id INTEGER PRIMARY KEY, build, at, ref, found, done);

        INSERT INTO photo_data(id, jpeg) SELECT 1000000000 + id, jpeg FROM photo WHERE data IS NULL;
        UPDATE photo SET data=1000000000 + id WHERE data IS NULL;
        ALTER TABLE photo DROP COLUMN jpeg;
    )"},
    // The log, the first steps on the air, repairs with what must be shown again, known defects. Imports of
    // other records than stock.
    {5, R"(
        ALTER TABLE gate ADD COLUMN forbids DEFAULT '';
        ALTER TABLE repair ADD COLUMN noticed DEFAULT '';
        ALTER TABLE repair ADD COLUMN seen DEFAULT 0;
        ALTER TABLE repair ADD COLUMN who DEFAULT '';
        ALTER TABLE repair ADD COLUMN parts DEFAULT '';
        ALTER TABLE repair ADD COLUMN again DEFAULT '';
        ALTER TABLE import_undone ADD COLUMN record DEFAULT 'stock';
        ALTER TABLE pending_import ADD COLUMN record DEFAULT 'stock';
        CREATE TABLE IF NOT EXISTS sighting(id INTEGER PRIMARY KEY, build, repair, at, text);
        CREATE TABLE IF NOT EXISTS air(id INTEGER PRIMARY KEY, build, step, item, state, value, text, at);
        CREATE TABLE IF NOT EXISTS contact(id INTEGER PRIMARY KEY, rig, at, call, frequency, band, mode, sent,
            received, watts, name, place, locator, note, own, extra);
        CREATE TABLE IF NOT EXISTS heard(id INTEGER PRIMARY KEY, rig, at, by, locator, frequency, snr, mode);
        CREATE INDEX IF NOT EXISTS contact_at ON contact(at);
    )"},
    // Instruments by name; a data sheet is of one of them, and says what harms it.
    {6, R"(
        ALTER TABLE meter RENAME TO meter_6;
        CREATE TABLE meter(id INTEGER PRIMARY KEY, name, unit, low, high, percent, digits, counts, floor, zero,
            calibrated, most, UNIQUE(name, unit, low));
        INSERT INTO meter(id, name, unit, low, high, percent, digits, counts, floor, zero, calibrated)
            SELECT id, coalesce(name, ''), unit, low, high, percent, digits, counts, floor, zero, calibrated
            FROM meter_6;
        DROP TABLE meter_6;
        CREATE TABLE IF NOT EXISTS instrument(id INTEGER PRIMARY KEY, name, way, address, speaks, pattern,
            measures, identity, average, used, place, UNIQUE(name));
    )"},
    // What is chosen for a build is no gate, and the text of its paper no habit of the builder's. An action
    // on what stands elsewhere now cannot be taken back any more.
    {7, R"(
        CREATE TABLE IF NOT EXISTS choice(id INTEGER PRIMARY KEY, build, what, said, at, UNIQUE(build, what));
        INSERT INTO choice(id, build, what, said, at) SELECT id, build, gate, reason, at FROM gate
            WHERE gate IN ('tuning: order', 'tuning: left at the peak or backed off', 'dial: wanted range',
                'mode of the rig');
        CREATE TABLE IF NOT EXISTS paper(id INTEGER PRIMARY KEY, build, holds, text, UNIQUE(build, holds));
        INSERT INTO paper(build, holds, text)
            SELECT CAST(substr(key, instr(key, ' of build ') + 10) AS INTEGER),
                substr(key, 7, instr(key, ' of build ') - 7), value
            FROM preference WHERE key LIKE 'paper % of build %' AND value <> '';
        CREATE TEMP TABLE moved(step, action);
        INSERT INTO moved SELECT id, action FROM undo_step WHERE
            (sql LIKE '% gate%' AND (sql LIKE '%''tuning: order''%' OR sql LIKE '%''tuning: left at the peak or%'
                OR sql LIKE '%''dial: wanted range''%' OR sql LIKE '%''mode of the rig''%'))
            OR (sql LIKE '% preference%' AND sql LIKE '%''paper % of build %')
            OR sql IN (SELECT 'DELETE FROM gate WHERE id=' || id FROM choice)
            OR sql IN (SELECT 'DELETE FROM preference WHERE id=' || id FROM preference
                WHERE key LIKE 'paper % of build %');
        DELETE FROM undo_step WHERE id IN (SELECT step FROM moved);
        DELETE FROM action WHERE id IN (SELECT action FROM moved) AND id NOT IN (SELECT action FROM undo_step);
        DROP TABLE moved;
        DELETE FROM gate WHERE id IN (SELECT id FROM choice);
        DELETE FROM preference WHERE key LIKE 'paper % of build %';
    )"},
};

void dropTriggers(SQLite::Database& db) {
    std::string drops;
    SQLite::Statement q(db, "SELECT name FROM sqlite_master WHERE type='trigger'");
    while (q.executeStep()) drops += "DROP TRIGGER " + quoted(q.getColumn(0).getString()) + ";";
    q.reset();
    db.exec(drops);
}

}  // namespace

void migrate(SQLite::Database& db, Damage damage) {
    const int version = db.execAndGet("PRAGMA user_version").getInt();
    if (version >= kSchemaVersion) return;
    SQLite::Transaction transaction(db);
    try {
        dropTriggers(db);
        for (const Migration& m : kMigrations) {
            if (m.from >= version) db.exec(m.sql);
        }
        remakeTriggers(db);
    } catch (const SQLite::Exception& error) {
        // A disk that is full, or a file that is locked, is no matter of its tables.
        if (error.getErrorCode() != SQLITE_ERROR) throw;
        throw SQLite::Exception("it says that it is of version " + std::to_string(version) +
                                    ", and its tables are not as they were then",
                                SQLITE_CORRUPT);
    }
    const std::string what = damage == Damage::refused ? damageIn(db) : "";
    if (!what.empty()) throw SQLite::Exception(what, SQLITE_CORRUPT);
    db.exec("PRAGMA user_version=" + std::to_string(kSchemaVersion));
    transaction.commit();
}

}  // namespace ombrek
