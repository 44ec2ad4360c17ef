#include <sys/resource.h>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <filesystem>
#include <random>

#include "book/book.h"
#include "core/parts/bag.h"
#include "formats/stock_csv.h"
#include "judged/remedy.h"
#include "lists/parts_list.h"
#include "timing.h"

// The first station under load: the whole bag at once, large drawers, large lists, marks. Each time stands
// beside what is wanted of it and beside a smaller case from the same run.

using namespace ombrek;

namespace {

struct Bag {
    std::vector<WantedPart> wanted;
    std::vector<FoundPart> found;
};

/// Lines of E12 values over five decades, and their parts with scatter, shuffled.
Bag bagOf(int parts) {
    std::mt19937 engine(21);
    std::uniform_real_distribution<double> scatter(-0.05, 0.05);
    Bag out;
    const int e12[] = {10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82};
    for (int i = 0; i < parts; ++i) {
        const double value = e12[engine() % 12] * std::pow(10.0, double(engine() % 5));
        out.wanted.push_back({"R" + std::to_string(i), PartKind::resistor, value, 5});
        const double read = value * (1 + scatter(engine));
        out.found.push_back({"p" + std::to_string(i), PartKind::resistor, read, read * 0.01, {}, ""});
    }
    std::shuffle(out.found.begin(), out.found.end(), engine);
    return out;
}

std::string stockOf(int lines) {
    std::mt19937 engine(5);
    const int e24[] = {10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30,
                       33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91};
    std::string out = "drawer,kind,value,tolerance,volts,what,count\n";
    for (int i = 0; i < lines; ++i) {
        const int value = e24[engine() % 24];
        out += "D" + std::to_string(engine() % 400) + ",capacitor," + std::to_string(value) + "e-" +
               std::to_string(7 + engine() % 5) + "," + (engine() % 2 ? "5" : "10") + "," +
               std::to_string(16 << (engine() % 3)) + ",\"ceramic, lot " + std::to_string(i) + "\"," +
               std::to_string(engine() % 50) + "\n";
    }
    return out;
}

std::string listOf(int lines) {
    std::string out = "Ref,Value,Tolerance,Description,Qty\n";
    for (int i = 0; i < lines; ++i) out += "R" + std::to_string(i) + ",4k7,5%,\"metal film, 0.25 W\",1\n";
    return out;
}

double memoryMb() {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return double(usage.ru_maxrss) / 1024;
}

}  // namespace

int main() {
    const double before = memoryMb();
    const std::string hundredThousand = listOf(100000), tenThousand = listOf(10000);
    const auto go = [](double) { return true; };
    const double small = milliseconds([&] { (void)readPartsList(tenThousand, go); }, 3);
    const double large = milliseconds([&] { (void)readPartsList(hundredThousand, go); }, 3);
    tell("10,000 and 100,000 CSV lines read", small, large, 3000);
    std::printf("%-52s %9.0f MB above the start, of the 300 MB wanted %.2f\n", "memory while doing it",
                memoryMb() - before, (memoryMb() - before) / 300);

    for (const int parts : {200, 2000}) {
        const Bag bag = bagOf(parts);
        const double time = milliseconds([&] { (void)matchBag(bag.wanted, bag.found); });
        static double first = time;
        if (parts == 2000) tell("200 and 2,000 parts assigned", first, time, 2000);
    }

    const auto file = readStock(stockOf(100000)).value();
    const StockSearch search(file.lines);
    const std::vector<StockLine> part(file.lines.begin(), file.lines.begin() + 10000);
    const StockSearch smallSearch(part);
    for (const char* typed : {"1", "10n..47n 50V", "lot 99", "ceramic"}) {
        std::size_t hits = 0;
        const double few = milliseconds([&] { hits = smallSearch.find(typed).size(); });
        const double many = milliseconds([&] { hits = search.find(typed).size(); });
        char what[80];
        std::snprintf(what, sizeof what, "10,000 and 100,000 lines: \"%s\" (%zu)", typed, hits);
        tell(what, few, many, 30);
    }

    Part wanted;
    wanted.kind = PartKind::capacitor;
    wanted.nominal = 22e-9;
    wanted.unit = Unit::farad;
    wanted.tolerance = 10;
    wanted.volts = 16;
    const double fewOffers = milliseconds([&] { (void)fromDrawers(wanted, part, {}, 1); }, 3);
    const double offers = milliseconds([&] { (void)fromDrawers(wanted, file.lines, {}, 1); }, 3);
    tell("substitutes from 10,000 and 100,000 lines", fewOffers, offers, 50);

    const std::vector<std::string> marks{"104K", "4k7", "01C", "472", "brown black red gold",
                                         "R47",  "2n2", "68X"};
    constexpr int kMarks = 200000;
    std::size_t read = 0;
    const double time = milliseconds(
        [&] {
            for (int i = 0; i < kMarks; ++i) read += readMark(marks[std::size_t(i) % marks.size()]).size();
        },
        3);
    std::printf("%-52s %9.2f million a second, of the 1 wanted %.2f (%zu)\n", "marks read",
                kMarks / time / 1000, kMarks / time / 1000, read);

    std::string name = (std::filesystem::temp_directory_path() / "ombrek-bench-XXXXXX").string();
    const std::filesystem::path folder = mkdtemp(name.data());
    {
        auto book = Book::open(folder / "b.ombrek").value();
        const auto import = [&](const std::vector<StockLine>& lines) {
            return milliseconds([&] { (void)book->importStock(lines, go); }, 1);
        };
        const double tenth = import(part), whole = import(file.lines);
        tell("10,000 and 100,000 lines kept in the book", tenth, whole, 3000);
        std::printf("%-52s %9.2f ms\n", "that import taken back",
                    milliseconds([&] { (void)book->undo(); }, 1));
        std::printf("%-52s %9.2f ms\n", "the drawers read again",
                    milliseconds([&] { (void)book->stock(); }, 1));
    }
    std::filesystem::remove_all(folder);
    return 0;
}
