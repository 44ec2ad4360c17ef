#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <iterator>

#include "lists/given_kind.h"

using namespace ombrek;
namespace fs = std::filesystem;

// What a file is, by its content: the corpus of lists, files of Debian's packages, and pieces of manuals.

namespace {

std::string bytesOf(const fs::path& file) {
    std::ifstream in(file, std::ios::binary);
    REQUIRE(in);
    std::string out{std::istreambuf_iterator<char>(in), {}};
    return out.substr(0, kGivenHead);
}

GivenKind kindOf(const fs::path& file) { return givenKind(bytesOf(file), file.filename().string()); }

}  // namespace

TEST_CASE("every list of the corpus is a parts list") {
    int files = 0;
    for (const auto& entry : fs::directory_iterator(OMBREK_LISTS "/corpus")) {
        if (entry.path().extension() == ".truth") continue;
        INFO(entry.path().filename().string() << " is " << word(kindOf(entry.path())));
        CHECK(kindOf(entry.path()) == GivenKind::partsList);
        ++files;
    }
    CHECK(files > 20);
}

TEST_CASE("what ships is what it is") {
    const std::pair<const char*, GivenKind> files[] = {{"lantern-15.kit.json", GivenKind::kit},
                                                       {"lantern-15.upgrade.json", GivenKind::upgrade},
                                                       {"lantern-15.packing.csv", GivenKind::packingList},
                                                       {"drawers.csv", GivenKind::stock},
                                                       {"pilot-lamp.list.txt", GivenKind::partsList},
                                                       {"pilot-lamp.voltages.txt", GivenKind::voltages},
                                                       {"coil-l2.jpg", GivenKind::picture},
                                                       {"practice.bench.json", GivenKind::unknown}};
    for (const auto& [name, kind] : files) {
        INFO(name);
        CHECK(kindOf(fs::path(OMBREK_DATA_FOLDER) / "demo" / name) == kind);
    }
}

TEST_CASE("somebody else's placement tables are placement tables", "[reference]") {
    // Source: example boards of Debian's package gerbv.
    const fs::path examples = OMBREK_DESIGNS "/usr/share/doc/gerbv/examples";
    CHECK(kindOf(examples / "protel-pnp/Pick_Place_for_SE_SG_IF_V2.csv") == GivenKind::placement);
    CHECK(kindOf(examples / "pick-and-place/LED.xy") == GivenKind::placement);
}

TEST_CASE("pieces of a manual: instructions, coils, checks: and what is none of them") {
    CHECK(
        givenKind(
            "1. Solder R1 to R4. Keep the cut leads for later.\n2. Fit D1, the band towards the edge. Do not "
            "fit U1 yet.\n3. Measure 5 V at pin 8 before you go on.\n",
            "") == GivenKind::steps);
    CHECK(givenKind("L1   T50-2, 28 turns #28\nT1   FT37-43, 10 turns bifilar, 0.3 mm\n", "") ==
          GivenKind::coils);
    CHECK(
        givenKind(
            "Key up\nIC3 pin 8   5.0 V\nIC3 pin 1   0.6 V\nQ1 collector   8.2 V\nSupply current   < 50 mA\n",
            "") == GivenKind::voltages);
    CHECK(givenKind("! one port\n# GHz S MA R 50\n1 0.5 10\n", "x.s1p") == GivenKind::touchstone);
    CHECK(givenKind("# hz s ri r 75\n1e6 1 0\n", "") == GivenKind::touchstone);
    CHECK(givenKind("# a comment in Markdown\nR1 4k7\nR2 10k\nC1 100n\n", "list.md") == GivenKind::partsList);
    for (const char* text :
         {"", "   \n\n", "{}", "{\"some\": \"other json\"}", "Dear builder,\nthank you for your order.\n",
          "The quick brown fox jumps over the lazy dog.", "12345",
          "\x7f"
          "ELF\x02\x01"}) {
        INFO(text);
        CHECK(givenKind(text, "") == GivenKind::unknown);
    }
    std::string binary(4000, '\0');
    CHECK(givenKind(binary, "data.bin") == GivenKind::unknown);
    for (std::size_t i = 0; i < binary.size(); ++i) binary[i] = char((i * 7919) % 251 + 1);
    CHECK(givenKind(binary, "data.bin") == GivenKind::unknown);
}
