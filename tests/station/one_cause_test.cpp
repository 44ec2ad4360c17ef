#include "station/parts_in/one_cause.h"

#include <catch2/catch.hpp>

using namespace ombrek;

namespace {

/// A bag of capacitors and their readings.
struct Bag {
    Kit kit;
    Build build;
    void add(const std::string& ref, double nominal, double reads, double tolerance = 10) {
        Part part;
        part.ref = ref;
        part.kind = PartKind::capacitor;
        part.nominal = nominal;
        part.unit = Unit::farad;
        part.value = formatQuantity(nominal, Unit::farad, 3);
        part.tolerance = tolerance;
        kit.parts.push_back(part);
        Reading reading;
        reading.subject = Subject::part(ref);
        reading.value = reads;
        reading.unit = Unit::farad;
        reading.uncertainty = 0.01 * reads;
        reading.at = std::int64_t(kit.parts.size());
        build.readings.push_back(reading);
    }
};

}  // namespace

TEST_CASE("six of a line packed with another value are one finding") {
    Bag bag;
    for (int i = 1; i <= 6; ++i) bag.add("C" + std::to_string(i), 22e-9, 33e-9 * (1 + 0.01 * i));
    bag.add("C7", 100e-9, 101e-9);
    bag.add("C8", 47e-12, 47e-12);
    const auto causes = oneCauses(bag.kit, bag.build);
    REQUIRE(causes.size() == 1);
    CHECK(causes[0].what == OneCause::What::packed);
    CHECK(causes[0].refs.size() == 6);
    CHECK(causes[0].head == "All six 22\u202fnF read 33\u202fnF");
    const auto told = toldOnce(bagStory(bag.kit, bag.build).troubles, causes);
    CHECK(told.size() == 1);
}

TEST_CASE("a line stays one finding while its parts are replaced one after another") {
    Bag bag;
    for (int i = 1; i <= 4; ++i) bag.add("C" + std::to_string(i), 22e-9, 33e-9);
    const auto replace = [&](const std::string& ref) {
        Reading right = bag.build.readings.front();
        right.subject = Subject::part(ref);
        right.value = 22e-9;
        right.uncertainty = 0.2e-9;
        right.id = 100 + std::int64_t(bag.build.readings.size());
        bag.build.readings.push_back(right);
    };
    replace("C1");
    replace("C3");
    const auto causes = oneCauses(bag.kit, bag.build);
    REQUIRE(causes.size() == 1);
    CHECK(causes[0].refs == std::vector<std::string>{"C2", "C4"});
    CHECK(causes[0].head == "All four 22\u202fnF read 33\u202fnF, two replaced");
    CHECK(toldOnce(bagStory(bag.kit, bag.build).troubles, causes).size() == 1);
    replace("C2");
    replace("C4");
    CHECK(oneCauses(bag.kit, bag.build).empty());
}

TEST_CASE("everything off by one ratio is the meter, not the bag") {
    Bag bag;
    bag.add("C1", 22e-9, 22e-9 * 1.2);
    bag.add("C2", 22e-9, 22e-9 * 1.21);
    bag.add("C3", 22e-9, 22e-9 * 1.195);
    bag.add("C4", 100e-9, 100e-9 * 1.2);
    bag.add("C5", 1e-9, 1e-9 * 1.205);
    const auto causes = oneCauses(bag.kit, bag.build);
    REQUIRE(causes.size() == 1);
    CHECK(causes[0].what == OneCause::What::scale);
    CHECK(causes[0].refs.size() == 5);
    CHECK(toldOnce(bagStory(bag.kit, bag.build).troubles, causes).front().state == VerdictState::doubtful);
}

TEST_CASE("two of a line, or three that differ, are told one by one") {
    Bag two;
    two.add("C1", 22e-9, 33e-9);
    two.add("C2", 22e-9, 33e-9);
    CHECK(oneCauses(two.kit, two.build).empty());
    Bag three;
    three.add("C1", 22e-9, 33e-9);
    three.add("C2", 22e-9, 47e-9);
    three.add("C3", 22e-9, 15e-9);
    CHECK(oneCauses(three.kit, three.build).empty());
    Bag good;
    for (int i = 1; i <= 6; ++i) good.add("C" + std::to_string(i), 22e-9, 22.1e-9);
    CHECK(oneCauses(good.kit, good.build).empty());
    CHECK(oneCauses({}, {}).empty());
}
