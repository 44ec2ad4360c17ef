#include "shack.h"

using namespace ombrek;

namespace {

Instrument lcMeter() {
    Instrument out;
    out.name = "LC";
    out.way = Way::serial;
    out.address = "/dev/ttyUSB0 9600 8N1";
    out.speaks = "lines";
    out.pattern = "C # @ Q *";
    out.measures = "F H";
    out.average = 5;
    return out;
}

}  // namespace

TEST_CASE("instruments are kept, named once, taken back and remembered") {
    TestShack shack;
    std::int64_t id = 0;
    {
        auto book = shack.begun();
        REQUIRE(book->instruments().size() == 1);
        CHECK(book->instruments()[0].way == Way::practice);
        const auto kept = book->setInstrument(lcMeter());
        REQUIRE(kept);
        id = *kept;
        CHECK_FALSE(book->setInstrument(lcMeter()));  // the name is taken
        Instrument nameless = lcMeter();
        nameless.name.clear();
        CHECK_FALSE(book->setInstrument(nameless));
        nameless.name = kPracticeBench;  // which is another's
        CHECK_FALSE(book->setInstrument(nameless));
    }
    auto book = shack.open();
    REQUIRE(book->instruments().size() == 2);
    const Instrument back = book->instruments()[0];
    CHECK(back.id == id);
    CHECK(back.address == lcMeter().address);
    CHECK(back.pattern == lcMeter().pattern);
    CHECK(back.average == 5);
    CHECK(back.used);
    CHECK(book->instruments()[1].way == Way::practice);  // the builder's own come first
    REQUIRE(book->removeInstrument("LC"));
    CHECK(book->instruments().size() == 1);
    REQUIRE(book->undo());
    CHECK(book->instruments()[0].name == "LC");
    // The practice bench laid aside stays so.
    Instrument practice = practiceInstrument();
    practice.used = false;
    REQUIRE(book->setInstrument(practice));
    CHECK_FALSE(book->instruments()[1].used);
    CHECK(book->instruments().size() == 2);
}

TEST_CASE("data sheets go with their instrument, and take its new name with them") {
    TestShack shack;
    auto book = shack.begun();
    Instrument meter = lcMeter();
    meter.id = book->setInstrument(meter).value();
    MeterLine line;
    line.name = "LC";
    line.unit = Unit::farad;
    line.percent = 0.2;
    line.most = 5;
    REQUIRE(book->setMeter(line));
    line.name = "other";
    line.percent = 3;
    REQUIRE(book->setMeter(line));  // the same unit and start: another instrument's
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9, {"LC"})->percent == 0.2);
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9, {"LC"})->most == 5);
    meter.name = "blue";
    REQUIRE(book->setInstrument(meter));
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9, {"blue"})->percent == 0.2);
    meter.name = "other";  // whose sheet was there before it
    REQUIRE(book->setInstrument(meter));
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9, {"other"})->percent == 0.2);
    REQUIRE(book->undo());
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9, {"blue"})->percent == 0.2);
    CHECK(meterFor(book->meters(), Unit::farad, 1e-9, {"other"})->percent == 3);
}
