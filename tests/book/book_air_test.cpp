#include <atomic>
#include <thread>

#include "book/shack.h"

using namespace ombrek;

namespace {

Contact made(const std::string& call, std::int64_t at, std::int64_t build = 0) {
    Contact out;
    out.call = call;
    out.at = at;
    out.build = build;
    out.band = "40m";
    out.frequency = 7.03e6;
    out.name = "Zoë";
    return out;
}

std::vector<Contact> many(std::size_t count) {
    std::vector<Contact> out;
    for (std::size_t i = 0; i < count; ++i)
        out.push_back(made("QX" + std::to_string(i), std::int64_t(i) * 60));
    return out;
}

}  // namespace

TEST_CASE("contacts are kept by time, changed, taken out, and all of it is undone") {
    TestShack shack;
    auto book = shack.begun();
    const std::int64_t build = book->build()->id;
    REQUIRE(book->addContact(made("QX2DEF", 500, build)));
    const std::string one = everything(shack.file);
    REQUIRE(book->addContact(made("QX1ABC", 100)));
    auto log = book->contacts();
    REQUIRE(log.size() == 2);
    CHECK(log[0].call == "QX1ABC");
    CHECK(log[1].build == build);
    CHECK(log[1].name == "Zoë");
    log[0].note = "changed";
    REQUIRE(book->changeContact(log[0]));
    CHECK(book->contacts()[0].note == "changed");
    REQUIRE(book->removeContact(log[1].id));
    CHECK(book->contacts().size() == 1);
    for (int i = 0; i < 3; ++i) REQUIRE(book->undo());
    CHECK(everything(shack.file) == one);
    // They are the station's: another kit changes nothing of them.
    REQUIRE(book->startBuild("Other", "{}"));
    CHECK(book->contacts().size() == 1);
    book.reset();
    CHECK(shack.open()->contacts().front().call == "QX2DEF");
}

TEST_CASE("an import of contacts is one action, may be stopped, and gives way to what is typed meanwhile") {
    TestShack shack;
    auto book = shack.begun();
    CHECK_FALSE(book->importContacts(many(2000), [](double share) { return share < 0.3; }));
    CHECK(book->contacts().empty());
    std::atomic<bool> half = false, typed = false;
    std::thread import([&] {
        (void)book->importContacts(many(10000), [&](double share) {
            half = half || share > 0.5;
            while (half && !typed) std::this_thread::yield();
            return true;
        });
    });
    while (!half) std::this_thread::yield();
    CHECK(book->contacts().empty());  // nobody sees a row before all are there
    REQUIRE(book->addContact(made("QX9TYPED", 77)));
    CHECK(book->contacts().size() == 1);
    typed = true;
    import.join();
    book->announce();
    CHECK(book->contacts().size() == 10001);
    CHECK(book->undoName() == "10000 contacts of a log");
    REQUIRE(book->undo());
    REQUIRE(book->contacts().size() == 1);
    CHECK(book->contacts().front().call == "QX9TYPED");
    REQUIRE(book->redo());
    CHECK(book->contacts().size() == 10001);
    REQUIRE(book->undo());
    book.reset();
    CHECK(shack.open()->contacts().size() == 1);
}

TEST_CASE("an import that was cut off leaves nothing") {
    TestShack shack;
    shack.begun();
    {
        SQLite::Database db(shack.file.string(), SQLite::OPEN_READWRITE, 2000);
        db.exec("UPDATE action_in_hand SET id=0");
        db.exec("INSERT INTO contact(id, call) VALUES(1, 'QX1'), (2, 'QX2'), (3, 'QX3')");
        db.exec("INSERT INTO stock(id, drawer, kind, unit) VALUES(2, 'A1', 'resistor', 'ohm')");
        db.exec("INSERT INTO pending_import(first, last, record) VALUES(2, 3, 'contact')");
    }
    auto book = shack.open();
    CHECK(book->contacts().size() == 1);
    CHECK(book->stock().size() == 1);  // of another record, though its id is the same
}

TEST_CASE("troubles stay open until they are mended, with every time they were seen") {
    TestShack shack;
    auto book = shack.begun();
    Repair trouble;
    trouble.noticed = "no output now and then";
    REQUIRE(book->noticed(trouble));
    const Repair kept = book->build()->repairs.at(0);
    CHECK(kept.open());
    CHECK(kept.seen == shack.now);
    REQUIRE(book->sawAgain(kept.id, "warm"));
    CHECK(book->build()->sightings.at(0).text == "warm");
    Repair mended = kept;
    mended.ref = "Q3";
    mended.done = "replaced";
    mended.again = "proof:power";
    shack.now += 100;
    REQUIRE(book->repaired(mended));
    const Build build = *book->build();
    REQUIRE(build.repairs.size() == 1);
    CHECK(build.repairs[0].at == shack.now);
    CHECK(build.repairs[0].noticed == "no output now and then");
    REQUIRE(book->undo());
    CHECK(book->build()->repairs.at(0).open());
    REQUIRE(book->noteOnAir({0, "load", "tone", VerdictState::fail, 3, "rough", 0}));
    CHECK(book->build()->air.at(0).state == VerdictState::fail);
    CHECK(book->build()->air.at(0).at == shack.now);
    REQUIRE(book->prefer(std::string(kLicence), "40m 7-7.2 MHz\n"));
    CHECK(book->build()->licence == "40m 7-7.2 MHz\n");
}

TEST_CASE("a repair takes what was promised to the part out of its drawer, and gives it back when undone") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->addStock({{0, "finals", PartKind::transistor, 0, Unit::none, 0, 0, 0, "BS", 5}}));
    const std::int64_t stock = book->stock().front().id;
    REQUIRE(book->promise("Q3", {stock}, "from drawer finals"));
    Repair repair;
    repair.ref = "Q3";
    repair.done = "resoldered";
    REQUIRE(book->repaired(repair));  // nothing was put in
    CHECK(book->stock().front().count == 5);
    CHECK(book->promises().size() == 1);
    repair.parts = "1 BS from drawer finals";
    REQUIRE(book->repaired(repair));
    CHECK(book->stock().front().count == 4);
    CHECK(book->promises().empty());
    REQUIRE(book->undo());
    CHECK(book->stock().front().count == 5);
    CHECK(book->promises().size() == 1);
}

TEST_CASE("a book's state is the same until something of the build changes") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->takeReading({0, Subject::part("R1"), 47, Unit::ohm, 0.5, {}, "typed", 0}));
    const std::string before = book->state();
    CHECK_FALSE(before.empty());
    CHECK(book->state() == before);
    book.reset();
    book = shack.open();
    CHECK(book->state() == before);
    REQUIRE(book->prefer("hand", "left"));  // a habit is no evidence
    CHECK(book->state() == before);
    REQUIRE(book->addContact(made("QX1", 5)));  // with another rig
    CHECK(book->state() == before);
    shack.now += 5000;
    for (const auto& change : std::vector<std::function<Result<void>()>>{
             [&] {
                 return book->takeReading({0, Subject::part("R1"), 48, Unit::ohm, 0.5, {}, "typed", 0});
             },
             [&] { return book->passGate("parts", "why not"); },
             [&] { return book->prefer("callsign", "QX9ZZ"); },
             [&] { return book->addContact(made("QX1", 5, book->build()->id)); },
             [&] { return book->keepPhoto("s", true, "\xff\xd8jpeg"); },
             [&] {
                 return book->setMeter({0, "mine", Unit::volt, 0, 1e9, 0.1});
             }}) {
        const std::string was = book->state();
        REQUIRE(change());
        CHECK(book->state() != was);
        REQUIRE(book->undo());
        CHECK(book->state() == was);
    }
}
