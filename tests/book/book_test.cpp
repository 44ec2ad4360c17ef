#include <SQLiteCpp/SQLiteCpp.h>
#include <fcntl.h>
#include <signal.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cmath>
#include <fstream>
#include <random>
#include <sstream>

#include "shack.h"

using namespace ombrek;
namespace fs = std::filesystem;

namespace {

std::string bytesOf(const fs::path& file) {
    std::ifstream in(file, std::ios::binary);
    std::stringstream out;
    out << in.rdbuf();
    return out.str();
}

/// Everything in the book that undo must bring back, as text.
std::string snapshot(const Book& book) { return everything(book.path()); }

const Reading kReading{0, Subject::part("R1"), 4.7e3, Unit::ohm, 40, {}, "typed", 0};

}  // namespace

TEST_CASE("a new book is empty and can be written") {
    TestShack shack;
    const auto book = shack.open();
    CHECK_FALSE(book->readOnly());
    CHECK_FALSE(book->build());
    CHECK(book->builds().empty());
    CHECK(book->undoName().empty());
    CHECK_FALSE(book->undo());
    CHECK_FALSE(book->redo());
}

TEST_CASE("what is done is there after opening again") {
    TestShack shack;
    {
        auto book = shack.begun();
        REQUIRE(book->takeReading(kReading));
        REQUIRE(book->countTurn("T1", "main"));
        REQUIRE(book->countTurn("T1", "main"));
        REQUIRE(book->finishWinding("T1", "main"));
        REQUIRE(book->markPart("J1", PartMark::seen));
        REQUIRE(book->doStep("s1"));
        REQUIRE(book->doStep("hold", true));
        REQUIRE(book->remark("s1", "odd joint"));
        REQUIRE(book->passGate("power", "meter reads low"));
        REQUIRE(book->chooseOrder(Order::lowestFirst));
        REQUIRE(book->chooseRule(VerdictRule::simple));
        REQUIRE(book->chooseProfile("itu-below-30"));
    }
    const auto build = shack.open()->build();
    REQUIRE(build);
    REQUIRE(build->readings.size() == 1);
    CHECK(build->readings[0].value == 4.7e3);
    CHECK(build->readings[0].unit == Unit::ohm);
    CHECK(build->readings[0].uncertainty == 40);
    CHECK(build->winding("T1", "main").turns == 2);
    CHECK(build->winding("T1", "main").done);
    CHECK(build->parts.at("J1") == PartMark::seen);
    CHECK(build->done("s1"));
    CHECK(build->steps.at("hold").knowingly);
    CHECK(build->remarks.at("s1") == "odd joint");
    CHECK(build->gates.at("power").reason == "meter reads low");
    CHECK(build->order == Order::lowestFirst);
    CHECK(build->rule == VerdictRule::simple);
    CHECK(build->profile == "itu-below-30");
}

TEST_CASE("a count never falls below zero") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->countTurn("T1", "main", -1));
    CHECK(book->build()->winding("T1", "main").turns == 0);
    REQUIRE(book->countTurn("T1", "main", 1));
    REQUIRE(book->countTurn("T1", "main", -1));
    REQUIRE(book->countTurn("T1", "main", -1));
    CHECK(book->build()->winding("T1", "main").turns == 0);
}

TEST_CASE("a reading answers a part that was marked missing") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->markPart("R1", PartMark::missing));
    REQUIRE(book->takeReading(kReading));
    CHECK(book->build()->parts.empty());
    REQUIRE(book->undo());
    CHECK(book->build()->parts.at("R1") == PartMark::missing);
}

TEST_CASE("several builds in one book keep apart") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->countTurn("T1", "main"));
    REQUIRE(book->startBuild("Second", "{\"b\":2}"));
    CHECK(book->build()->windings.empty());
    CHECK(book->build()->kitText == "{\"b\":2}");
    REQUIRE(book->chooseBuild(book->builds().front().id));
    CHECK(book->build()->winding("T1", "main").turns == 1);
}

TEST_CASE("every action can be taken back and done again, one by one, over a restart") {
    TestShack shack;
    std::vector<std::string> states;
    const std::vector<std::function<Result<void>(Book&)>> actions{
        [](Book& b) { return b.startBuild("Tiny", "{\"it's\": \"quoted\"}"); },
        [](Book& b) { return b.takeReading(kReading); },
        [](Book& b) { return b.countTurn("T1", "main"); },
        [](Book& b) { return b.countTurn("T1", "main"); },
        [](Book& b) { return b.countTurn("T1", "main", -1); },
        [](Book& b) { return b.finishWinding("T1", "main"); },
        [](Book& b) { return b.finishWinding("T1", "main", false); },
        [](Book& b) { return b.markPart("J1", PartMark::missing); },
        [](Book& b) { return b.markPart("J1", PartMark::seen); },
        [](Book& b) { return b.doStep("s1"); },
        [](Book& b) { return b.doStep("s1", true); },
        [](Book& b) { return b.remark("s1", "it's \"odd\"; DROP TABLE step"); },
        [](Book& b) { return b.remark("s1", ""); },
        [](Book& b) { return b.passGate("g", "reason"); },
        [](Book& b) { return b.choose(Choice::mode, "CW"); },
        [](Book& b) { return b.choose(Choice::mode, "SSB"); },
        [](Book& b) { return b.keepPaper("coils", "L1 9 turns"); },
        [](Book& b) { return b.chooseOrder(Order::lowestFirst); },
        [](Book& b) { return b.chooseRule(VerdictRule::simple); },
        [](Book& b) { return b.chooseProfile("p"); },
        [](Book& b) { return b.startBuild("Second", "{}"); },
        [](Book& b) { return b.chooseBuild(1); },
    };
    {
        auto book = shack.open();
        states.push_back(snapshot(*book));
        for (const auto& action : actions) {
            REQUIRE(action(*book));
            states.push_back(snapshot(*book));
        }
    }
    for (std::size_t i = actions.size(); i-- > 0;) {
        auto book = shack.open();  // a restart between any two
        REQUIRE(book->undo());
        INFO("undo of action " << i);
        REQUIRE(snapshot(*book) == states[i]);
    }
    auto book = shack.open();
    CHECK_FALSE(book->undo());
    for (std::size_t i = 0; i < actions.size(); ++i) {
        REQUIRE(book->redo());
        INFO("redo of action " << i);
        REQUIRE(snapshot(*book) == states[i + 1]);
    }
    CHECK_FALSE(book->redo());
}

TEST_CASE("random doing, undoing and redoing always ends where it should") {
    TestShack shack;
    auto book = shack.begun();
    std::mt19937 engine(31);
    std::vector<std::string> past{snapshot(*book)};
    std::size_t at = 0;
    for (int i = 0; i < 400; ++i) {
        const unsigned dice = engine() % 10;
        if (dice < 3 && at > 0) {
            REQUIRE(book->undo());
            --at;
        } else if (dice < 5 && at + 1 < past.size()) {
            REQUIRE(book->redo());
            ++at;
        } else {
            past.resize(at + 1);
            const std::string name = "T" + std::to_string(engine() % 3);
            if (dice % 2) {
                REQUIRE(book->countTurn(name, "main", engine() % 4 ? 1 : -1));
            } else {
                REQUIRE(book->takeReading(
                    {0, Subject::coil(name), double(engine() % 100), Unit::henry, 0, {}, "typed", 0}));
            }
            past.push_back(snapshot(*book));
            ++at;
        }
        REQUIRE(snapshot(*book) == past[at]);
    }
}

TEST_CASE("a new action forgets what could have been done again") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->countTurn("T1", "main"));
    REQUIRE(book->undo());
    REQUIRE(book->countTurn("T2", "main"));
    CHECK_FALSE(book->redo());
    CHECK(book->undoName() == "turn on T2");
}

TEST_CASE("the listener hears every change and no failure") {
    TestShack shack;
    auto book = shack.begun();
    int heard = 0;
    book->onChange([&](const Book::Notice&) { ++heard; });
    REQUIRE(book->countTurn("T1", "main"));
    REQUIRE(book->undo());
    REQUIRE(book->redo());
    CHECK_FALSE(book->redo());
    CHECK(heard == 3);
}

TEST_CASE("sittings: a pause of more than twenty minutes begins another") {
    TestShack shack;
    auto book = shack.begun();
    shack.now += 600;
    REQUIRE(book->countTurn("T1", "main"));
    shack.now += 19 * 60;
    REQUIRE(book->countTurn("T1", "main"));
    shack.now += 21 * 60;
    REQUIRE(book->countTurn("T1", "main"));
    const auto sittings = book->build()->sittings;
    REQUIRE(sittings.size() == 2);
    CHECK(sittings[0].end - sittings[0].start == 600 + 19 * 60);
    CHECK(sittings[1].end == sittings[1].start);
}

TEST_CASE("a child killed in the middle of its turns loses none that returned") {
    TestShack shack;
    shack.begun();
    for (int round = 0; round < 6; ++round) {
        int pipe[2];
        REQUIRE(::pipe(pipe) == 0);
        const int before = shack.open()->build()->winding("T1", "main").turns;
        const pid_t child = ::fork();
        if (child == 0) {
            ::close(pipe[0]);
            auto book = Book::open(shack.file);
            if (!book) ::_exit(3);
            for (int i = 0; i < 100000; ++i) {
                if (!(*book)->countTurn("T1", "main")) ::_exit(4);
                const char done = 1;
                if (::write(pipe[1], &done, 1) != 1) ::_exit(5);
            }
            ::_exit(0);
        }
        ::close(pipe[1]);
        int returned = 0;
        char byte = 0;
        const int enough = 5 + round * 7;
        while (returned < enough && ::read(pipe[0], &byte, 1) == 1) ++returned;
        ::kill(child, SIGKILL);
        while (::read(pipe[0], &byte, 1) == 1) ++returned;  // those told of before the kill
        ::close(pipe[0]);
        int status = 0;
        ::waitpid(child, &status, 0);
        REQUIRE(WIFSIGNALED(status));
        const int after = shack.open()->build()->winding("T1", "main").turns;
        CHECK(after >= before + returned);
        CHECK(after <= before + returned + 1);  // at most the one that was written and not yet told
    }
}

TEST_CASE("killed at turn 17 it stands at turn 17") {
    TestShack shack;
    shack.begun();
    int pipe[2];
    REQUIRE(::pipe(pipe) == 0);
    const pid_t child = ::fork();
    if (child == 0) {
        auto book = Book::open(shack.file);
        bool kept = book.has_value();
        for (int i = 0; kept && i < 17; ++i) kept = (*book)->countTurn("T1", "main").has_value();
        if (!kept || ::write(pipe[1], "x", 1) != 1) ::_exit(3);
        for (;;) ::pause();
    }
    char byte = 0;
    REQUIRE(::read(pipe[0], &byte, 1) == 1);
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
    CHECK(WIFSIGNALED(status));
    CHECK(shack.open()->build()->winding("T1", "main").turns == 17);
}

TEST_CASE("the board's records are kept, and each is one undo step") {
    TestShack shack;
    {
        auto book = shack.begun();
        REQUIRE(book->keepAside("cut leads", 5));
        REQUIRE(book->lookedAt("R1", Book::Look::joints));
        REQUIRE(book->lookedAt("R1", Book::Look::sense));
        REQUIRE(book->found("R1", Finding::What::dry));
        REQUIRE(book->closeFinding(book->build()->findings.front().id));
        REQUIRE(book->keepPhoto("s1", true, std::string("\xff\xd8\0jpeg", 7)));
        REQUIRE(book->countAway({100, 400}));
        REQUIRE(book->changeKit("{\"another\": 1}", "placement"));
    }
    auto book = shack.open();
    const Build build = *book->build();
    CHECK(build.kept.at("cut leads") == 5);
    CHECK(build.joints.contains("R1"));
    CHECK(build.senses.contains("R1"));
    CHECK(build.findings.front().closed > 0);
    CHECK(build.photos.front().after);
    CHECK(book->photo(build.photos.front().id) == std::string("\xff\xd8\0jpeg", 7));
    CHECK(book->photo(999).empty());
    CHECK(build.away.front().end == 400);
    CHECK(build.kitText == "{\"another\": 1}");
    for (const char* name : {"placement", "counting of a pause", "photograph of s1", "closing of a finding",
                             "finding at R1", "look at R1", "look at R1", "count of cut leads"}) {
        CHECK(book->undoName() == name);
        REQUIRE(book->undo());
    }
    const Build before = *book->build();
    CHECK(before.kept.empty());
    CHECK(before.findings.empty());
    CHECK(before.photos.empty());
    CHECK(before.away.empty());
    for (int i = 0; i < 8; ++i) REQUIRE(book->redo());
    CHECK(book->photo(book->build()->photos.front().id) == std::string("\xff\xd8\0jpeg", 7));
    CHECK(book->build()->findings.front().closed > 0);
}

TEST_CASE("a clock that was set back begins another stretch and loses no time") {
    TestShack shack;
    auto book = shack.begun();
    shack.now += 600;
    REQUIRE(book->countTurn("T1", "main"));
    shack.now -= 86400;
    REQUIRE(book->countTurn("T1", "main"));
    shack.now += 300;
    REQUIRE(book->countTurn("T1", "main"));
    const auto sittings = book->build()->sittings;
    REQUIRE(sittings.size() == 2);
    CHECK(sittings[0].end - sittings[0].start == 600);
    CHECK(sittings[1].end - sittings[1].start == 300);
}

TEST_CASE("a second program opens it read-only, says so, and sees what is done") {
    TestShack shack;
    auto book = shack.begun();
    REQUIRE(book->countTurn("T1", "main"));
    auto second = shack.open();
    CHECK(second->readOnly());
    CHECK(second->readOnlyReason().find("Another program") != std::string::npos);
    CHECK(second->build()->winding("T1", "main").turns == 1);
    const auto refused = second->countTurn("T1", "main");
    REQUIRE_FALSE(refused);
    CHECK(refused.error().sentence == second->readOnlyReason());
    CHECK_FALSE(second->undo());
    REQUIRE(book->countTurn("T1", "main"));
    CHECK(second->build()->winding("T1", "main").turns == 2);
    second.reset();
    book.reset();
    CHECK_FALSE(shack.open()->readOnly());
}

TEST_CASE("foreign, damaged and newer files are refused and left as they are") {
    TestShack shack;
    shack.begun();
    const std::string good = bytesOf(shack.file);
    REQUIRE(good.size() > 4096);
    const auto patched = [&](std::size_t at, const std::string& bytes) {
        return std::string(good).replace(at, bytes.size(), bytes);
    };
    const std::vector<std::pair<std::string, std::string>> files{
        {"text", "Dear diary"},
        {"empty", ""},
        {"zeros", std::string(8192, '\0')},
        {"bytes", std::string(5000, '\xa5')},
        {"header cut short", good.substr(0, 60)},
        {"cut in a page", good.substr(0, 5000)},
        {"another program's database", patched(68, std::string("\0\0\0\1", 4))},
        {"newer", patched(60, std::string("\0\0\0\x63", 4))},
        {"first page overwritten", patched(100, std::string(3000, '\x5a'))},
        {"middle overwritten", patched(4096, std::string(good.size() - 4096, '\x5a'))},
        {"page size nonsense", patched(16, std::string("\x00\x03", 2))},
    };
    for (const auto& [name, bytes] : files) {
        const fs::path file = shack.folder / "odd.ombrek";
        std::ofstream(file, std::ios::binary | std::ios::trunc) << bytes;
        const auto book = Book::open(file);
        INFO(name);
        REQUIRE_FALSE(book);
        CHECK(book.error().place == "odd.ombrek");
        CHECK(book.error().sentence.size() > 20);
        CHECK(bytesOf(file) == bytes);
        for (const char* beside : {"odd.ombrek-wal", "odd.ombrek-shm"}) fs::remove(shack.folder / beside);
    }
}

TEST_CASE("a folder or a place that is not there is no book") {
    TestShack shack;
    CHECK_FALSE(Book::open(shack.folder));
    CHECK_FALSE(Book::open("/nowhere/at/all/book.ombrek"));
}

TEST_CASE("a full disk gives a sentence, keeps what was there and the session usable") {
    TestShack shack;
    shack.begun();
    const pid_t child =
        ::fork();  // the limit on file size holds for the whole process, so it is set in a child
    if (child == 0) {
        ::signal(SIGXFSZ, SIG_IGN);
        auto book = Book::open(shack.file);
        if (!book || !(*book)->countTurn("T1", "main")) ::_exit(2);
        const rlimit small{1, RLIM_INFINITY};
        ::setrlimit(RLIMIT_FSIZE, &small);
        const auto refused = (*book)->countTurn("T1", "main");
        if (refused || refused.error().sentence.empty()) ::_exit(3);
        if ((*book)->build()->winding("T1", "main").turns != 1) ::_exit(4);
        const rlimit large{RLIM_INFINITY, RLIM_INFINITY};
        ::setrlimit(RLIMIT_FSIZE, &large);
        if (!(*book)->countTurn("T1", "main")) ::_exit(5);
        ::_exit((*book)->build()->winding("T1", "main").turns == 2 ? 0 : 6);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    REQUIRE(WIFEXITED(status));
    CHECK(WEXITSTATUS(status) == 0);
    CHECK(shack.open()->build()->winding("T1", "main").turns == 2);
}

TEST_CASE("odd numbers and texts are kept as they are") {
    TestShack shack;
    auto book = shack.begun();
    for (const double value : {0.1, -1e-300, 1e30, 4.9e-9, 21060000.5}) {
        REQUIRE(book->takeReading(
            {0, Subject::power(), value, Unit::none, 0, {{"correction", 0.3}}, "it's; a \"method\"", 0}));
        CHECK(book->build()->last(Subject::power())->value == value);
    }
    REQUIRE(book->takeReading({0, Subject::power(), NAN, Unit::watt, 0, {}, "", 0}));
    CHECK(std::isnan(book->build()->last(Subject::power())->value));
    REQUIRE(book->undo());
    REQUIRE(book->redo());
    CHECK(std::isnan(book->build()->last(Subject::power())->value));
    CHECK(book->build()->all(Subject::power()).size() == 6);
    CHECK(book->build()->last(readSubject("proof:nothing")) == nullptr);
    REQUIRE(book->remark("s1", std::string(100000, 'x') + "\n\xc3\xa9"));
    CHECK(book->build()->remarks.at("s1").size() == 100003);
}
