#include "book/daily_copy.h"

#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/SQLiteCpp.h>
#include <unistd.h>

#include <algorithm>
#include <functional>

#include "book/file_guard.h"

namespace ombrek {
namespace fs = std::filesystem;

namespace {

constexpr const char* kEnding = ".ombrek";

fs::path folderOf(const fs::path& book) { return book.parent_path() / (book.stem().string() + ".copies"); }

bool isDay(const std::string& text) {
    static const std::string form = "dddd-dd-dd";
    if (text.size() != form.size()) return false;
    for (std::size_t i = 0; i < form.size(); ++i) {
        const bool digit = text[i] >= '0' && text[i] <= '9';
        if (form[i] == 'd' ? !digit : text[i] != form[i]) return false;
    }
    return true;
}

}  // namespace

std::vector<DailyCopy> dailyCopies(const fs::path& book) {
    std::vector<DailyCopy> out;
    std::error_code none;
    for (fs::directory_iterator at(folderOf(book), none), end; !none && at != end; at.increment(none)) {
        const fs::path& file = at->path();
        if (file.extension() == kEnding && isDay(file.stem().string()))
            out.push_back({file, file.stem().string()});
    }
    std::sort(out.begin(), out.end(), [](const DailyCopy& a, const DailyCopy& b) { return a.day > b.day; });
    return out;
}

Result<void> copyBook(const fs::path& book, const fs::path& copy) {
    const fs::path part = copy.string() + ".part-" + std::to_string(::getpid());
    std::error_code none;
    const auto inspected = inspectBookFile(book);
    if (!inspected) return tl::make_unexpected(inspected.error());
    if (*inspected == BookFile::absent)
        return tl::make_unexpected(Problem{book.filename().string(), "There is no book there."});
    if (fs::equivalent(book, copy, none))
        return tl::make_unexpected(
            Problem{copy.filename().string(), "This is the book itself; a copy wants another name."});
    try {
        {
            SQLite::Database from(book.string(), SQLite::OPEN_READONLY, 5000);
            SQLite::Database to(part.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 5000);
            SQLite::Backup backup(to, from);
            backup.executeStep();
            to.exec("PRAGMA journal_mode=DELETE");  // one file
        }
        fs::rename(part, copy);
        return {};
    } catch (const std::exception& error) {
        fs::remove(part, none);
        return tl::make_unexpected(Problem{
            copy.filename().string(),
            std::string("The copy could not be written (") + error.what() + "); the book is as it was."});
    }
}

Result<void> copyDaily(const fs::path& book, const std::string& day) {
    const fs::path folder = folderOf(book);
    std::error_code failed;
    if (fs::exists(folder / (day + kEnding), failed)) return {};
    fs::create_directories(folder, failed);
    if (failed)
        return tl::make_unexpected(
            Problem{folder.filename().string(),
                    "No daily copy: its folder cannot be made (" + failed.message() + ")."});
    if (const auto copied = copyBook(book, folder / (day + kEnding)); !copied) return copied;
    const auto all = dailyCopies(book);
    for (std::size_t i = kDailyCopies; i < all.size(); ++i) fs::remove(all[i].file, failed);
    return {};
}

Result<fs::path> restoreCopy(const fs::path& book, const DailyCopy& copy) {
    const std::string stem = (book.parent_path() / book.stem()).string() + ".of-" + copy.day;
    fs::path to = stem + kEnding;
    for (int i = 2; fs::exists(to); ++i) to = stem + "-" + std::to_string(i) + kEnding;
    if (const auto copied = copyBook(copy.file, to); !copied) return tl::make_unexpected(copied.error());
    return to;
}

}  // namespace ombrek
