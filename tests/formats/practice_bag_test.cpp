#include "bench_fixture.h"

using namespace ombrek;

TEST_CASE("the practice bag is read, and its faults are told") {
    const auto bag = readPracticeBag(
        R"({"format":"ombrek-bench","version":1,"kit":"k.json","seed":3,"parts":{"R1":"1.2k"},"missing":["C1"],"coils":{"L1":-3},"marks":{"R2":"brown"},"over":[{"kind":"capacitor","value":"1n","mark":"102"}]})");
    REQUIRE(bag);
    CHECK(bag->parts.at("R1") == 1200);
    CHECK(bag->missing.contains("C1"));
    CHECK(bag->coils.at("L1") == -3);
    CHECK(bag->marks.at("R2") == "brown");
    REQUIRE(bag->over.size() == 1);
    CHECK(bag->over[0].value == Approx(1e-9));
    for (const char* text :
         {"", "{}", R"({"format":"x"})", R"({"format":"ombrek-bench","version":9,"kit":"k","seed":1})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":-1})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":1,"parts":[]})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":1,"parts":{"R1":"lots"}})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":1,"coils":{"L1":900}})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":1,"missing":[3]})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":1,"over":[{"kind":"ic","value":"1n"}]})",
          R"({"format":"ombrek-bench","version":1,"kit":"k","seed":1,"marks":{"R1":3}})"}) {
        INFO(text);
        const auto broken = readPracticeBag(text);
        REQUIRE_FALSE(broken);
        CHECK_FALSE(broken.error().sentence.empty());
    }
}
