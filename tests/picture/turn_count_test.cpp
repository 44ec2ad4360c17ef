#include <catch2/catch.hpp>

#include "draw_coil.h"
#include "draws.h"

using namespace ombrek;

// Proven on drawn pictures only: coils with known counts, drawn by a renderer that knows nothing of the
// counter.

namespace {

/// A coil as a builder may photograph it, everything from the number alone.
DrawnCoil anyCoil(int number) {
    std::mt19937_64 engine(std::uint64_t(number) * 7919 + 17);
    const auto even = [&](double low, double high) {
        return low + (high - low) * double(engine() >> 11) * 0x1.0p-53;
    };
    DrawnCoil out;
    out.turns = 5 + int(engine() % 36);
    out.seed = engine();
    out.tilt = even(0, 20);
    out.noise = even(1, 9);
    out.blur = even(0.3, 1.6);
    out.shine = even(0.1, 1);
    out.overlaps = engine() % 3 == 0 ? 1 + int(engine() % 2) : 0;
    out.core = int(engine() % 6);
    out.size = 640 + int(engine() % 320);
    return out;
}

}  // namespace

namespace {

struct Score {
    int right = 0, wrong = 0, flagged = 0, sure = 0;
};

/// Counts of many drawn pictures, each as drawn, or changed.
Score scoreOf(int pictures, void (*change)(DrawnCoil&)) {
    Score out;
    for (int i = 0; i < pictures; ++i) {
        DrawnCoil coil = anyCoil(i);
        change(coil);
        const auto count = countTurns(drawCoil(coil));
        const bool exact = count && count->count == coil.turns;
        out.right += exact;
        out.sure += count && count->sure;
        if (exact) continue;
        ++out.wrong;
        out.flagged += !count || !count->sure;
        UNSCOPED_INFO("picture " << i << ": " << coil.turns << " drawn, " << (count ? count->count : -1)
                                 << (count && count->sure ? " sure" : " unsure") << ", core " << coil.core
                                 << ", overlaps " << coil.overlaps << ", tilt " << coil.tilt << ", noise "
                                 << coil.noise << ", blur " << coil.blur << ", size " << coil.size);
    }
    UNSCOPED_INFO(out.right << " of " << pictures << " right, " << out.flagged << " of " << out.wrong
                            << " wrong ones flagged, " << out.sure << " sure");
    return out;
}

}  // namespace

TEST_CASE("turns in drawn pictures: 95 of 100 right, and nine of ten wrong ones are not sure", "[picture]") {
    const int kPictures = draws(160, 40);
    const Score score = scoreOf(kPictures, [](DrawnCoil&) {});
    CHECK(score.right >= kPictures * 95 / 100);
    CHECK(score.flagged * 10 >= score.wrong * 9);
    CHECK(score.sure >= kPictures / 2);  // flagging everything would be no help
}

TEST_CASE("a lamp at one side, and a card on a darker bench, do not change the count", "[picture]") {
    const int kPictures = draws(40, 20);
    const Score lamp = scoreOf(kPictures, [](DrawnCoil& coil) { coil.uneven = 0.5; });
    CHECK(lamp.right >= kPictures * 95 / 100);
    CHECK(lamp.flagged * 10 >= lamp.wrong * 9);
    const Score card = scoreOf(kPictures, [](DrawnCoil& coil) { coil.bench = 0.12; });
    CHECK(card.right >= kPictures * 95 / 100);
    CHECK(card.flagged * 10 >= card.wrong * 9);
}

TEST_CASE("marks lie on the wires, from the hole to the edge, clockwise", "[picture]") {
    DrawnCoil coil;
    coil.turns = 14;
    coil.seed = 3;
    const auto count = countTurns(drawCoil(coil)).value();
    REQUIRE(count.count == 14);
    REQUIRE(count.marks.size() == 14);
    double last = -1;
    for (const WireMark& m : count.marks) {
        CHECK(m.angle > last);
        last = m.angle;
        CHECK(std::hypot(m.x2 - m.x1, m.y2 - m.y1) > 50);
        CHECK(m.x2 > 0);
        CHECK(m.x2 < coil.size);
    }
}

TEST_CASE("the same picture, however large, has the same turns", "[picture]") {
    DrawnCoil coil;
    coil.turns = 21;
    coil.seed = 12;
    for (const int size : {500, 900, 1400}) {
        coil.size = size;
        INFO(size);
        CHECK(countTurns(drawCoil(coil)).value().count == 21);
    }
}

TEST_CASE("what is no picture of a ring is refused with a sentence", "[picture]") {
    std::mt19937 engine(4);
    Picture plain{400, 300, std::vector<std::uint8_t>(400 * 300 * 3, 200)};
    Picture noise = plain;
    for (auto& byte : noise.rgb) byte = std::uint8_t(engine());
    Picture bar = plain;
    for (int y = 100; y < 200; ++y)
        std::fill_n(bar.rgb.begin() + (y * 400 + 50) * 3, 300 * 3, std::uint8_t(30));
    DrawnCoil bare;
    bare.turns = 1;
    Picture ring = drawCoil(bare);
    const Picture cut{400, 300, std::vector<std::uint8_t>(1000)};
    const Picture huge{20000, 10000, {}};
    const Picture tiny{10, 10, std::vector<std::uint8_t>(300)};
    for (const Picture& picture : {plain, noise, bar, cut, huge, tiny}) {
        const auto count = countTurns(picture);
        REQUIRE_FALSE(count);
        CHECK(count.error().sentence.size() > 20);
    }
    const auto one = countTurns(ring);
    if (one) CHECK(one->count <= 2);
}
