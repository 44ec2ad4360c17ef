#include <algorithm>

#include "book/import_rows.h"
#include "book/inside.h"
#include "book/trust.h"

// The station's log, what was heard on the way to the first contact, and troubles that are still open.

namespace ombrek {
namespace {

/// All rows of a record of no build but those that are hidden, with their ids.
template <class Row>
std::vector<Row> allRows(const Record<Row>& record, SQLite::Database& db) {
    std::vector<Row> out;
    record.each(
        db, 0,
        [&](std::int64_t id, Row row) {
            row.id = id;
            out.push_back(std::move(row));
        },
        -1, " AND NOT (" + hiddenRows(record.line().name) + ")");
    std::stable_sort(out.begin(), out.end(), [](const Row& a, const Row& b) { return a.at < b.at; });
    return out;
}

template <class Row>
Result<std::vector<Row>> rowsOfFile(const Record<Row>& record, const std::filesystem::path& book) {
    try {
        const auto opened = openBook(book.string(), SQLite::OPEN_READONLY);
        SQLite::Database& db = *opened;
        return db.tableExists(record.line().name) ? allRows(record, db) : std::vector<Row>();
    } catch (const SQLite::Exception&) {
        return problem(book.filename().string(), "The log cannot be read from this book.");
    }
}

}  // namespace

Result<void> Book::noticed(const Repair& trouble) {
    return act("trouble noticed", [&] {
        Repair now = trouble;
        now.at = 0;
        now.seen = inside_->clock();
        inside_->put(record::repair, now);
    });
}

Result<void> Book::sawAgain(std::int64_t trouble, const std::string& text) {
    return act("sighting", [&] { inside_->put(record::sighting, {0, trouble, inside_->clock(), text}); });
}

Result<void> Book::noteOnAir(const AirNote& note) {
    return act("note on " + note.item, [&] {
        AirNote now = note;
        now.at = inside_->clock();
        inside_->put(record::air, now);
    });
}

std::vector<Contact> Book::contacts() const {
    return inside_->read(std::vector<Contact>(), [&] { return allRows(record::contact, *inside_->db); });
}

std::vector<Heard> Book::heard() const {
    return inside_->read(std::vector<Heard>(), [&] { return allRows(record::heard, *inside_->db); });
}

std::size_t Book::logSize() const {
    return inside_->read(std::size_t(0), [&] {
        return std::size_t(
            inside_->db->execAndGet("SELECT (SELECT count(*) FROM contact) + (SELECT count(*) FROM heard)")
                .getInt64());
    });
}

Result<std::vector<Contact>> Book::readContacts(const std::filesystem::path& book) {
    return rowsOfFile(record::contact, book);
}

Result<std::vector<Heard>> Book::readHeard(const std::filesystem::path& book) {
    return rowsOfFile(record::heard, book);
}

int Book::logRevision() const { return inside_->logRevision; }

Result<void> Book::addContact(const Contact& contact) {
    return act("contact with " + contact.call, [&] {
        ++inside_->logRevision;
        record::contact.put(*inside_->db, 0, contact);
    });
}

Result<void> Book::changeContact(const Contact& contact) {
    return act("change of the contact with " + contact.call, [&] {
        ++inside_->logRevision;
        record::contact.change(*inside_->db, contact.id, contact);
    });
}

Result<void> Book::removeContact(std::int64_t id) {
    return act("removal of a contact", [&] {
        ++inside_->logRevision;
        inside_->run("DELETE FROM contact WHERE id=?", id);
    });
}

Result<void> Book::importContacts(const std::vector<Contact>& contacts,
                                  const std::function<bool(double)>& goOn) {
    return importRows(*this, *inside_, record::contact, contacts,
                      std::to_string(contacts.size()) + " contacts of a log", goOn);
}

Result<void> Book::importHeard(const std::vector<Heard>& reports, const std::function<bool(double)>& goOn) {
    return importRows(*this, *inside_, record::heard, reports,
                      std::to_string(reports.size()) + " reports of others", goOn);
}

}  // namespace ombrek
