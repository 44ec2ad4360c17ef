#include <catch2/catch.hpp>
#include <cmath>

#include "core/circuit/compare.h"

using namespace ombrek;

// Bands against bands, and marks against jumps. The stories are the trade's (common practice): relays of one
// age, a track that is cracked beside a pulled connector.

namespace {

std::vector<Channel> channels(const std::vector<const char*>& lines) {
    std::vector<Channel> out;
    for (const char* line : lines) {
        const auto channel = readChannel(line);
        REQUIRE(channel);
        out.push_back(*channel);
    }
    return out;
}

}  // namespace

TEST_CASE("a line of a table of bands: name, how it works, what it uses: and what is refused") {
    const auto c = readChannel("30 m: dead K3, l5, c12 K3");
    REQUIRE(c);
    CHECK(c->name == "30 m");
    CHECK(c->works == Channel::Works::no);
    CHECK(c->uses == std::vector<std::string>{"K3", "L5", "C12"});
    CHECK(readChannel("speaker OK")->works == Channel::Works::yes);
    CHECK_FALSE(readChannel("30m K3"));
    CHECK_FALSE(readChannel("dead K3"));
    CHECK_FALSE(readChannel(""));
}

TEST_CASE("three dead bands that share nothing but the kind of relay") {
    const auto table = channels({"80m works K1 L1", "40m dead K2 L2", "30m dead K3 L3", "20m works K4 L4",
                                 "15m dead K5 C9", "10m works K6 L6"});
    const auto causes = sharedCauses(table);
    REQUIRE_FALSE(causes.empty());
    CHECK(causes[0].kind);
    CHECK(causes[0].what == "K");
    CHECK(causes[0].parts == std::vector<std::string>{"K2", "K3", "K5"});
    CHECK(comparedWords(table).find("K2, K3 and K5") != std::string::npos);
    CHECK(comparedWords(table).find("bypass one") != std::string::npos);
    // Where each has a coil of its own, too, that is said as well.
    const auto both = channels(
        {"80m works K1 L1", "40m dead K2 L2", "30m dead K3 L3", "20m works K4 L4", "15m dead K5 L5"});
    CHECK(comparedWords(both).find("K2, K3 and K5, or L2, L3 and L5") != std::string::npos);
}

TEST_CASE("two dead functions share one part that no live one needs: one dead alone: nothing dead") {
    const auto table = channels(
        {"receive works U3 U4 R1", "transmit dead U6 Q8 R1", "side tone dead Q8 U5", "phones works U5"});
    const auto causes = sharedCauses(table);
    CHECK(causes[0].what == "Q8");
    CHECK_FALSE(causes[0].kind);
    double sum = 0;
    for (const SharedCause& cause : causes) sum += cause.odds;
    CHECK(sum == Approx(1));
    CHECK(comparedWords(table).find("share Q8") != std::string::npos);
    CHECK(comparedWords(channels({"40m dead K1 L1", "20m works K2"})).find("has K1 and L1") !=
          std::string::npos);
    CHECK(comparedWords(channels({"40m works K1"})) == "None of them is dead.");
    CHECK(comparedWords(channels({"40m dead"})).find("without parts") != std::string::npos);
    CHECK(sharedCauses({}).empty());
}

TEST_CASE("a reading that jumps where one presses names the place: jumps that come by themselves name none") {
    std::vector<RunningReading> readings;
    std::vector<Press> presses;
    const auto at = [&](double t, double v) { readings.push_back({t, v}); };
    for (int i = 0; i < 60; ++i) at(i, 5 + 0.002 * (i % 3));
    CHECK(jumpsOf(readings).empty());
    for (const double t : {5.0, 15.0, 25.0}) presses.push_back({t, "J2"});
    for (const double t : {10.0, 20.0, 30.0}) presses.push_back({t, "K1"});
    CHECK(placesByJumps(readings, presses).back().odds > 0.8);  // none of them
    for (const int t : {11, 21, 31}) readings[std::size_t(t)].value = 0.1;
    CHECK(jumpsOf(readings).size() == 6);  // there and back
    const auto odds = placesByJumps(readings, presses);
    CHECK(odds[0].place == "K1");
    CHECK(odds[0].odds > 0.9);
    CHECK(odds[0].jumps == 3);
    CHECK(odds[1].jumps == 0);
    // It jumps all the time, whatever one presses.
    for (std::size_t i = 0; i < readings.size(); i += 2) readings[i].value = 2;
    CHECK(placesByJumps(readings, presses).front().odds < 0.6);
    // Lost and found again is a jump, too; nothing at all is none.
    readings[40].value = INFINITY;
    CHECK(jumpsOf({{0, 1}, {1, INFINITY}, {2, 1}}).size() == 2);
    CHECK(jumpsOf({}).empty());
    CHECK(placesByJumps({}, {}).size() == 1);
}
