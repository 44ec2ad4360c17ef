#include <SQLiteCpp/SQLiteCpp.h>

#include <cmath>
#include <sstream>
#include <thread>

#include "book/schema.h"
#include "shack.h"

using namespace ombrek;

namespace {

const StockLine kFilm{0, "A1", PartKind::capacitor, 22e-9, Unit::farad, 5, 100, 0, "film; it's \"blue\"", 4};
const StockLine kMetal{0, "B3", PartKind::resistor, 4700, Unit::ohm, 1, 0, 0.25, "metal film", 20};

/// Everything that the first station's actions change, as text.
std::string snapshot(const Book& book) { return everything(book.path()); }

}  // namespace

TEST_CASE("every action of the first station is undone and redone, one by one, over a restart") {
    TestShack shack;
    const std::vector<std::function<Result<void>(Book&)>> actions{
        [](Book& b) { return b.startBuild("Tiny", "{}"); },
        [](Book& b) { return b.chooseWay(BagWay::beforeFitting); },
        [](Book& b) { return b.chooseDepth(BagDepth::trustBag); },
        [](Book& b) {
            return b.markParts({"R1", "R2", "R3"}, PartMark::trusted);
        },
        [](Book& b) { return b.readMark("R1", "it's brown", true); },
        [](Book& b) { return b.readMark("R1", "red", false); },
        [](Book& b) {
            return b.keepLoose({0, PartKind::capacitor, "104", 99e-9, 1e-9});
        },
        [](Book& b) {
            return b.keepLoose({0, PartKind::resistor, "x", NAN, 0});
        },
        [](Book& b) {
            return b.keepLoose({1, PartKind::capacitor, "104K", 98e-9, 1e-9});
        },
        [](Book& b) { return b.settleLoose(1, "C1", Unit::farad); },
        [](Book& b) { return b.settleLoose(2, "R4", Unit::ohm); },
        [](Book& b) {
            return b.keepLoose({0, PartKind::resistor, "", 33, 1});
        },
        [](Book& b) { return b.movePart("C1", "C2", PartKind::capacitor); },
        [](Book& b) {
            return b.decide("Q1", {Remedy::How::equivalent, "gain group B"});
        },
        [](Book& b) {
            return b.addStock({kFilm, kMetal});
        },
        [](Book& b) {
            return b.promise("C2", {1, 1}, "two in parallel");
        },
        [](Book& b) { return b.takePromised("C2", PartKind::capacitor); },
        [](Book& b) { return b.undecide("C2"); },
        [](Book& b) {
            StockLine line = b.stock().front();
            line.count = 77;
            return b.changeStock(line);
        },
        [](Book& b) { return b.removeStock(2); },
        [](Book& b) { return b.putSpares({1}, {kMetal}); },
        [](Book& b) { return b.dropLoose(1); },
        [](Book& b) {
            MeterLine m = b.meters().front();
            m.zero = 0.6e-12;
            return b.setMeter(m);
        },
        [](Book& b) { return b.rememberShape("k", "refs,value"); },
    };
    std::vector<std::string> states;
    {
        auto book = shack.open();
        states.push_back(snapshot(*book));
        for (const auto& action : actions) {
            REQUIRE(action(*book));
            states.push_back(snapshot(*book));
        }
    }
    for (std::size_t i = actions.size(); i-- > 0;) {
        auto book = shack.open();
        REQUIRE(book->undo());
        INFO("undo of action " << i);
        REQUIRE(snapshot(*book) == states[i]);
    }
    auto book = shack.open();
    for (std::size_t i = 0; i < actions.size(); ++i) {
        REQUIRE(book->redo());
        INFO("redo of action " << i);
        REQUIRE(snapshot(*book) == states[i + 1]);
    }
}

TEST_CASE("what is promised is taken from its drawer once, and the line waits to be measured again") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->addStock({kFilm, kMetal}));
    REQUIRE(book->markPart("C2", PartMark::missing));
    REQUIRE(book->promise("C2", {1, 1}, "two in parallel"));
    CHECK(book->promises().size() == 2);
    CHECK(book->stock()[0].count == 4);
    CHECK(freeFor(book->stock()[0], book->promises(), 99) == 2);
    REQUIRE(book->takePromised("C2", PartKind::capacitor));
    CHECK(book->stock()[0].count == 2);
    CHECK(book->stock()[1].count == 20);
    CHECK(book->promises().empty());
    CHECK(book->build()->parts.empty());
    CHECK(book->build()->remedies.at("C2").note == "two in parallel");
}

TEST_CASE("a loose part that found its line brings its reading and its mark") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->markPart("C1", PartMark::missing));
    REQUIRE(book->keepLoose({0, PartKind::capacitor, "104K", 98e-9, 1.2e-9}));
    const auto id = book->build()->loose.front().id;
    REQUIRE(book->settleLoose(id, "C1", Unit::farad));
    const Build build = *book->build();
    CHECK(build.loose.empty());
    CHECK(build.parts.empty());
    CHECK(build.printed.at("C1") == "104K");
    REQUIRE(build.last(Subject::part("C1")));
    CHECK(build.last(Subject::part("C1"))->value == 98e-9);
    CHECK(build.last(Subject::part("C1"))->unit == Unit::farad);
    CHECK(build.last(Subject::part("C1"))->uncertainty == 1.2e-9);
}

TEST_CASE("a part that moves to its line puts the one that lay there among the parts without a line") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->takeReading({0, Subject::part("C1"), 22e-9, Unit::farad, 1e-10, {}, "typed", 0}));
    REQUIRE(book->readMark("C1", "223", false));
    REQUIRE(book->takeReading({0, Subject::part("C2"), 27e-9, Unit::farad, 2e-10, {}, "typed", 0}));
    REQUIRE(book->readMark("C2", "273", false));
    REQUIRE(book->movePart("C1", "C2", PartKind::capacitor));
    const Build build = *book->build();
    CHECK(build.last(Subject::part("C1")) == nullptr);
    CHECK(build.last(Subject::part("C2"))->value == 22e-9);
    CHECK(build.printed == std::map<std::string, std::string>{{"C2", "223"}});
    REQUIRE(build.loose.size() == 1);
    CHECK(build.loose[0].value == 27e-9);
    CHECK(build.loose[0].uncertainty == 2e-10);
    CHECK(build.loose[0].printed == "273");
    CHECK(build.loose[0].kind == PartKind::capacitor);
    REQUIRE(book->undo());
    CHECK(book->build()->last(Subject::part("C1"))->value == 22e-9);
    CHECK(book->build()->loose.empty());
}

TEST_CASE("stock is the builder's, not one build's") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->addStock({kFilm}));
    REQUIRE(book->promise("C2", {1}, ""));
    REQUIRE(book->startBuild("Second", "{}"));
    CHECK(book->stock().size() == 1);
    CHECK(freeFor(book->stock()[0], book->promises(), book->build()->id) == 3);
    REQUIRE(book->markPart("C2", PartMark::seen));
    CHECK(book->build()->remedies.empty());
}

TEST_CASE("a long import runs beside the window's own connection, is one action, and can be stopped") {
    TestShack shack;
    auto book = shack.begun();
    const std::vector<StockLine> many(5000, kMetal);
    Result<void> done = problem("", "not run");
    std::thread([&] { done = book->importStock(many, [](double) { return true; }); }).join();
    REQUIRE(done);
    CHECK(book->stock().size() == 5000);
    CHECK(Book::readStock(shack.file)->size() == 5000);
    CHECK(book->undoName() == "5000 lines of stock");
    const auto stopped = book->importStock(many, [](double share) { return share < 0.5; });
    REQUIRE_FALSE(stopped);
    CHECK(book->stock().size() == 5000);
    REQUIRE(book->undo());
    CHECK(book->stock().empty());
    REQUIRE(book->redo());
    CHECK(book->stock().size() == 5000);
}

TEST_CASE("meters: the builder's own lines stand before the usual ones of the same unit") {
    TestShack shack;
    auto book = shack.begun();
    CHECK(book->meters().size() == usualMeters().size());
    MeterLine m;
    m.unit = Unit::farad;
    m.name = "bridge";
    m.percent = 0.2;
    m.high = 1e-6;
    REQUIRE(book->setMeter(m));
    CHECK(book->meters().size() == usualMeters().size());
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9)->percent == 0.2);
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9)->high == 1e-6);
    CHECK(std::isinf(meterFor(book->meters(), Unit::ohm, 1)->high));
}

TEST_CASE("a decision taken back frees what was kept back, and habits are the builder's") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->addStock({kFilm}));
    REQUIRE(book->promise("C2", {1, 1}, "two in parallel"));
    REQUIRE(book->undecide("C2"));
    CHECK(book->promises().empty());
    CHECK(book->build()->remedies.empty());
    CHECK(freeFor(book->stock()[0], book->promises(), 99) == 4);
    CHECK(book->preference("hand").empty());
    REQUIRE(book->prefer("hand", "left"));
    REQUIRE(book->startBuild("Second", "{}"));
    CHECK(book->preference("hand") == "left");
}
