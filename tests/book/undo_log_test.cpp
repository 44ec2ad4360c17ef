#include "book/undo_log.h"

#include "book/shack.h"

using namespace ombrek;

namespace {

std::int64_t rowsIn(const TestShack& shack, const std::string& table) {
    SQLite::Database db(shack.file.string(), SQLite::OPEN_READONLY, 2000);
    return db.execAndGet("SELECT count(*) FROM " + table).getInt64();
}

constexpr std::int64_t kDay = 86400;

}  // namespace

TEST_CASE("a season's actions can be taken back, and a hundred of any age") {
    TestShack shack;
    {
        auto book = shack.begun();
        for (int i = 0; i < 150; ++i) REQUIRE(book->countTurn("T1", "main"));
        shack.now += 100 * kDay;
        for (int i = 0; i < 30; ++i) REQUIRE(book->countTurn("T2", "main"));
        CHECK(book->oldestUndo()->name == "start of Tiny");
        CHECK(book->oldestUndo()->at == 1000000);
    }
    auto book = shack.open();
    CHECK(book->oldestUndo()->name == "turn on T1");
    int back = 0;
    while (book->undo()) ++back;
    CHECK(back == kUndoActions);
    CHECK(book->build()->winding("T1", "main").turns == 150 + 30 - kUndoActions);
    CHECK_FALSE(book->oldestUndo());
}

TEST_CASE("young actions are kept however many they are: what fills the log goes") {
    TestShack shack;
    {
        auto book = shack.begun();
        for (int i = 0; i < 300; ++i) REQUIRE(book->countTurn("T1", "main"));
    }
    {
        auto book = shack.open();
        CHECK(book->oldestUndo()->name == "start of Tiny");
        const std::string long_(9'000'000, 'x');
        for (int i = 0; i < 4; ++i) REQUIRE(book->remark("s1", long_ + std::to_string(i)));
    }
    auto book = shack.open();
    // The last remark's old text, and the one before that, make 18 MB: what is older is out of reach.
    CHECK(book->oldestUndo()->name == "remark on s1");
    REQUIRE(book->undo());
    CHECK(book->build()->remarks.at("s1").back() == '2');
    CHECK(book->build()->winding("T1", "main").turns == 300);
}

TEST_CASE("a choice of order does not write the kit's text into the log") {
    TestShack shack;
    auto book = shack.open();
    const std::string kit(45'000, 'k');
    REQUIRE(book->startBuild("Large", kit));
    for (const Order order : {Order::lowestFirst, Order::byKind, Order::byStage}) {
        REQUIRE(book->chooseOrder(order));
        CHECK(book->build()->order == order);
        CHECK(book->build()->kitText == kit);
    }
    SQLite::Database db(shack.file.string(), SQLite::OPEN_READONLY, 2000);
    CHECK(db.execAndGet("SELECT sum(length(sql)) FROM undo_step").getInt() < 2000);
    REQUIRE(book->changeKit(kit + "2", "places"));
    REQUIRE(book->undo());
    CHECK(book->build()->kitText == kit);
    REQUIRE(book->redo());
    CHECK(book->build()->kitText == kit + "2");
}

TEST_CASE("pictures and kit texts that nothing speaks of any more go with the log") {
    TestShack shack;
    {
        auto book = shack.begun();
        REQUIRE(book->changeKit("{\"name\":\"Tiny\"}", "places"));
        REQUIRE(book->keepPhoto("s1", true, "\xff\xd8"));
        REQUIRE(book->removePhoto(book->build()->photos.front().id));
    }
    CHECK(rowsIn(shack, "photo_data") == 1);
    CHECK(rowsIn(shack, "kit_text") == 2);
    {
        auto book = shack.open();  // can still be taken back
        REQUIRE(book->undo());
        CHECK(book->photo(book->build()->photos.front().id) == "\xff\xd8");
        REQUIRE(book->redo());
        shack.now += 100 * kDay;
        for (int i = 0; i < kUndoActions; ++i) REQUIRE(book->countTurn("T1", "main"));
    }
    auto book = shack.open();
    CHECK(rowsIn(shack, "photo_data") == 0);
    CHECK(rowsIn(shack, "kit_text") == 1);
    CHECK(book->build()->kitText == "{\"name\":\"Tiny\"}");
}

TEST_CASE("one start with the clock years ahead takes nothing out of the log") {
    TestShack shack;
    {
        auto book = shack.begun();
        for (int i = 0; i < 300; ++i) REQUIRE(book->countTurn("T1", "main"));
    }
    const auto now = shack.now;
    shack.now += 5 * 365 * kDay;
    shack.open();
    shack.now = now;
    auto book = shack.open();
    CHECK(book->oldestUndo()->name == "start of Tiny");
}
