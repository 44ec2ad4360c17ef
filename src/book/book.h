#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/quantity/problem.h"
#include "kit/build.h"

namespace ombrek {

/// Seconds since 1970, UTC. Handed in, so that tests and the practice book have their own time.
using Clock = std::function<std::int64_t()>;
std::int64_t wallClock();

/// The builder's workbook: one SQLite file that holds every build and all that was done.
///
/// Every action is one transaction, on the disk when the call returns, and can be undone, also after a
/// restart. An action that cannot be written returns a Problem and changes nothing. Example:
///
///     auto book = Book::open("shack.ombrek");
///     if (!book) return show(book.error());
///     if (auto done = (*book)->countTurn("T1", "main"); !done) show(done.error());
class Book {
 public:
    /// Open a book, making it if the file is not there. A file that is damaged, of a newer version or no book
    /// at all is refused with a sentence and not touched. When another program has the book open, or it
    /// cannot be written, it opens read-only.
    static Result<std::unique_ptr<Book>> open(const std::filesystem::path& path, Clock clock = wallClock);
    ~Book();
    Book(const Book&) = delete;
    Book& operator=(const Book&) = delete;

    const std::filesystem::path& path() const;
    bool readOnly() const;
    /// Why it is read-only, as a sentence; empty when it can be written.
    const std::string& readOnlyReason() const;

    struct BuildLine {
        std::int64_t id = 0;
        std::string kitName;
        std::int64_t started = 0;
    };
    std::vector<BuildLine> builds() const;
    /// The build in hand, with everything done so far; nothing in a new book.
    std::optional<Build> build() const;

    Result<void> startBuild(const std::string& kitName, const std::string& kitText);
    Result<void> chooseBuild(std::int64_t id);
    Result<void> chooseOrder(Order order);
    Result<void> chooseRule(VerdictRule rule);
    Result<void> chooseProfile(const std::string& profile);

    Result<void> takeReading(const Reading& reading);
    Result<void> markPart(const std::string& ref, PartMark mark);
    /// One pass of the wire more (`by` = 1) or taken back (−1); the count never falls below zero.
    Result<void> countTurn(const std::string& coil, const std::string& winding, int by = 1);
    Result<void> finishWinding(const std::string& coil, const std::string& winding, bool done = true);
    Result<void> doStep(const std::string& step, bool knowingly = false);
    Result<void> remark(const std::string& step, const std::string& text);
    Result<void> passGate(const std::string& gate, const std::string& reason);

    /// Take the last action back, or do it again. @return its name ("turn on T1"), or a Problem when there is
    /// none
    Result<std::string> undo();
    Result<std::string> redo();
    /// The name of what undo would take back; empty if nothing.
    std::string undoName() const;

    /// Called after every change.
    void onChange(std::function<void()> listener);

 private:
    struct Inside;
    explicit Book(std::unique_ptr<Inside> inside);
    Result<void> act(const std::string& name, const std::function<void()>& change);
    Result<std::string> step(bool undo);
    std::unique_ptr<Inside> inside_;
};

}  // namespace ombrek
