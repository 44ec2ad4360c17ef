#include <SQLiteCpp/SQLiteCpp.h>

#include <cmath>

#include "bench_fixture.h"
#include "book/book.h"
#include "folder.h"
#include "judged/judged.h"

using namespace ombrek;

// An error of a meter that cannot be used (none, no number, infinite, absurd) is not an error of nothing: no
// verdict is better for it.

namespace {

/// How many verdicts of what was measured pass in a book's first build.
int passes(const std::filesystem::path& file) {
    auto book = Book::open(file);
    REQUIRE(book);
    const auto build = (*book)->build();
    REQUIRE(build);
    const Kit& kit = practiceKit().kit;
    const Judged judged(kit, *build);
    int out = 0;
    const auto count = [&](const Verdict& v) {
        out += v.state == VerdictState::pass && std::isfinite(v.reading);
    };
    for (const Check& check : kit.checks) {
        if (!check.yesNo()) count(judged.check(check));
    }
    const ProofState& proof = judged.proof();
    count(proof.powerVerdict);
    count(proof.frequencyVerdict);
    for (const Verdict& v : proof.harmonicVerdicts) count(v);
    return out;
}

}  // namespace

TEST_CASE("an error that cannot be used makes nothing pass") {
    const Folder folder;
    const auto whole = folder / "whole.ombrek";
    practiceBook(whole, practiceKit(), PracticeStage::finished);
    CHECK(passes(whole) > 5);
    for (const char* bad : {"NULL", "'nan'", "9e999", "1e200", "-9e999"}) {
        INFO(bad);
        const auto file = folder / "bad.ombrek";
        std::filesystem::remove(file);
        std::filesystem::copy_file(whole, file);
        {
            SQLite::Database db(file.string(), SQLite::OPEN_READWRITE);
            db.exec(std::string("UPDATE reading SET uncertainty = ") + bad);
        }
        CHECK(passes(file) == 0);
    }
    for (const double bad : {double(NAN), double(INFINITY), 1e200, -1.0}) {
        CHECK(judge(10, {9, 11}, bad, VerdictRule::guardBand, Unit::volt).state == VerdictState::cannotTell);
        CHECK(judge(10, {9, INFINITY}, bad, VerdictRule::guardBand, Unit::volt).state ==
              VerdictState::cannotTell);
    }
}
