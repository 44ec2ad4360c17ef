#include <SQLiteCpp/SQLiteCpp.h>

#include <cstdio>
#include <ctime>
#include <filesystem>
#include <fstream>
#include <vector>

#include "book/book.h"
#include "formats/files.h"
#include "formats/tables.h"
#include "practice/practice_kit.h"
#include "timing.h"

// A shack's whole life: 50 builds and 20,000 readings. How long it takes to open, beside reading every page
// of the file by SQLite itself, in the same run.

using namespace ombrek;
namespace fs = std::filesystem;

namespace {

constexpr int kBuilds = 50, kReadings = 20000;

void fill(const fs::path& file, const std::string& kit) {
    auto book = Book::open(file).value();
    for (int b = 0; b < kBuilds; ++b) (void)book->startBuild("build " + std::to_string(b), kit);
    book.reset();
    SQLite::Database db(file.string(), SQLite::OPEN_READWRITE, 2000);
    SQLite::Transaction transaction(db);
    SQLite::Statement insert(
        db,
        "INSERT INTO reading(build,subject,value,unit,uncertainty,settings,method,at,beyond,meter,sheet,who) "
        "VALUES(?,'check:supply',?,'volt',0.01,'','multimeter',1000000,0,'','','')");
    for (int i = 0; i < kReadings; ++i) {
        insert.bind(1, 1 + i % kBuilds);
        insert.bind(2, 5 + 1e-5 * i);
        insert.exec();
        insert.reset();
    }
    transaction.commit();
}

}  // namespace

int main() {
    const auto tables = readTables(dataFolder());
    const auto kit = tables ? readPracticeKit(dataFolder(), *tables) : tl::make_unexpected(Problem{});
    if (!kit) return 1;
    const fs::path folder =
        fs::temp_directory_path() / ("ombrek-bench-" + std::to_string(std::time(nullptr)));
    fs::create_directory(folder);
    const fs::path file = folder / "life.ombrek";
    fill(file, kit->text);
    if (const auto book = Book::open(file); !book) return std::printf("%s\n", book.error().text().c_str()), 1;
    const double pages = milliseconds([&] {
        SQLite::Database db(file.string(), SQLite::OPEN_READONLY);
        SQLite::Statement check(db, "PRAGMA quick_check");
        (void)check.executeStep();
    });
    const double open = milliseconds([&] { (void)Book::open(file); });
    std::printf("%.1f MB: every page by SQLite %.1f ms, open %.1f ms: %.2f of it\n",
                double(fs::file_size(file)) / 1e6, pages, open, open / pages);
    fs::remove_all(folder);
}
