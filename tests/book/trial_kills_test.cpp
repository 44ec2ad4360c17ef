#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <random>

#include "shack.h"
#include "trial.h"

using namespace ombrek;

// The reliability trial of kills: what the counter showed is in the book after any of them. See
// scripts/trial.

TEST_CASE("killed at any moment, no turn that was shown is lost, and none is made up") {
    const int all = trials(20);
    TestShack shack;
    shack.begun();
    std::mt19937 draw(trialSeed());
    int kept = 0, most = 0;
    for (int i = 0; i < all; ++i) {
        int shown[2];
        REQUIRE(::pipe(shown) == 0);
        const pid_t child = ::fork();
        if (child == 0) {
            auto book = Book::open(shack.file);
            if (!book) ::_exit(1);
            while ((*book)->countTurn("T1", "main")) {
                if (::write(shown[1], "x", 1) != 1) ::_exit(2);
            }
            ::_exit(3);
        }
        ::close(shown[1]);
        int status = 0, seen = 0;
        // Every other one counts already when its time begins to run, however slow the machine opens a book.
        char one = 0;
        if (i % 2 == 1 && ::read(shown[0], &one, 1) == 1) ++seen;
        ::usleep(useconds_t(draw() % 150000));
        ::kill(child, SIGKILL);
        ::waitpid(child, &status, 0);
        while (::read(shown[0], &one, 1) == 1) ++seen;
        ::close(shown[0]);
        INFO("kill " << i);
        REQUIRE(WIFSIGNALED(status));
        const auto book = Book::open(shack.file);
        REQUIRE(book);
        const int turns = (*book)->build()->winding("T1", "main").turns;
        // One may be in the book whose light had not come on yet.
        CHECK(turns >= kept + seen);
        CHECK(turns <= kept + seen + 1);
        kept = turns;
        most = std::max(most, seen);
    }
    std::printf("%d kills: %d turns kept, %d at most between two\n", all, kept, most);
    CHECK(kept > 0);
}
