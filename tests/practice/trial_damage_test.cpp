#include <cstdio>
#include <fstream>
#include <random>

#include "bench_fixture.h"
#include "book/book.h"
#include "judged/judged.h"
#include "judged/sign_off.h"
#include "trial.h"

using namespace ombrek;
namespace fs = std::filesystem;

// The reliability trial on damaged books: opened, or refused with a sentence and rescued; nothing is better
// than before the damage. See scripts/trial.

namespace {

struct Standing {
    std::size_t readings = 0;
    std::set<std::string> passed;
};

Standing standingOf(const Book& book, const Kit& kit) {
    Standing out;
    const std::optional<Build> build = book.build();
    if (!build) return out;
    out.readings = build->readings.size();
    const Judged judged{kit, *build};
    for (const Gate& gate : judged.readiness().gates) {
        if (gate.state() == VerdictState::pass) out.passed.insert(gate.name);
    }
    return out;
}

enum class Harm { flip, zeroedPage, cut, swapped, noise, count };

constexpr const char* kHarms[] = {"bits flipped", "a page zeroed", "cut short", "pages swapped", "noise"};
static_assert(std::size(kHarms) == std::size_t(Harm::count));

/// @return whether the bytes of a value may have changed, so that a verdict may be another by right
bool harm(std::string& bytes, Harm kind, std::mt19937& draw) {
    const auto at = [&](std::size_t most) { return std::size_t(draw()) % most; };
    const std::size_t pages = bytes.size() / 4096;
    switch (kind) {
        case Harm::flip:
            for (std::size_t i = 1 + at(20); i > 0; --i) bytes[at(bytes.size())] ^= char(1u << at(8));
            return true;
        case Harm::zeroedPage: {
            const std::size_t page = at(pages);
            bytes.replace(page * 4096, 4096, 4096, '\0');
            return false;
        }
        case Harm::cut:
            bytes.resize(at(bytes.size()));
            return false;
        case Harm::swapped: {
            const std::size_t a = at(pages), b = at(pages);
            const std::string held = bytes.substr(a * 4096, 4096);
            bytes.replace(a * 4096, 4096, bytes, b * 4096, 4096);
            bytes.replace(b * 4096, 4096, held);
            return false;
        }
        default: {
            const std::size_t from = at(bytes.size()),
                              many = std::min<std::size_t>(bytes.size() - from, 1 + at(300));
            for (std::size_t i = 0; i < many; ++i) bytes[from + i] = char(draw());
            return true;
        }
    }
}

std::string bytesOf(const fs::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace

TEST_CASE("damaged books are opened or refused and rescued, and none stands better than before") {
    const int all = trials(60);
    Folder folder;
    const fs::path whole = folder / "whole.ombrek";
    practiceBook(whole, practiceKit(), PracticeStage::partWay);
    const Kit& kit = practiceKit().kit;
    Standing before;
    {
        const auto book = Book::open(whole);
        REQUIRE(book);
        before = standingOf(**book, kit);
    }
    const std::string bytes = bytesOf(whole);
    std::mt19937 draw(trialSeed());
    std::map<Harm, int> of, lost;
    int opened = 0, refused = 0, rescued = 0, fewer = 0, better = 0;
    for (int i = 0; i < all; ++i) {
        const fs::path hurt = folder / "hurt.ombrek", copy = folder / "copy.ombrek";
        for (const auto& entry : fs::directory_iterator(fs::path(folder / ""))) {
            if (entry.path() != whole) fs::remove_all(entry.path());
        }
        std::string damaged = bytes;
        const auto kind = static_cast<Harm>(draw() % unsigned(Harm::count));
        const bool values = harm(damaged, kind, draw);
        ++of[kind];
        std::ofstream(hurt, std::ios::binary) << damaged;
        const auto judge = [&](const Book& book) {
            const Standing now = standingOf(book, kit);
            fewer += now.readings < before.readings;
            const bool more = !std::includes(before.passed.begin(), before.passed.end(), now.passed.begin(),
                                             now.passed.end());
            better += more && !values;
        };
        INFO("book " << i);
        if (const auto book = Book::open(hurt)) {
            ++opened;
            judge(**book);
            continue;
        } else {
            CHECK(book.error().sentence.size() > 20);
        }
        ++refused;
        const auto saved = Book::rescue(hurt, copy);
        if (!saved) {
            CHECK(saved.error().sentence.size() > 20);
            ++lost[kind];
            continue;
        }
        ++rescued;
        const auto book = Book::open(copy);
        REQUIRE(book);
        judge(**book);
    }
    std::printf(
        "%d damaged books: %d opened, %d refused, of these %d rescued; %d with fewer readings, %d better\n",
        all, opened, refused, rescued, fewer, better);
    for (const auto& [kind, count] : of)
        std::printf("  %s: %d, nothing rescued of %d\n", kHarms[std::size_t(kind)], count, lost[kind]);
    CHECK(better == 0);
    CHECK(opened + refused == all);
}
