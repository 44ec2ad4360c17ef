#include <filesystem>

#include "book/book.h"
#include "formats/contact_adif.h"
#include "timing.h"

// A log of 100,000 contacts beside one of 10,000: read from ADIF, taken into a book, read from it, written
// out; and what a contact costs that is typed into each.

using namespace ombrek;

namespace {

std::string adif(int count) {
    std::vector<Contact> log;
    for (int i = 0; i < count; ++i) {
        Contact c;
        c.call = "QX" + std::to_string(i % 10) + "A" + std::string(1, char('A' + i % 26)) +
                 std::string(1, char('A' + i / 26 % 26));
        c.at = 1700000000LL + i * 60LL;
        c.band = "40m";
        c.frequency = 7.03e6;
        c.mode = "CW";
        c.sent = c.received = "599";
        c.name = "Tom";
        c.locator = "JO62qm";
        log.push_back(c);
    }
    return writeLog(log, {}, "QX9ZZ", "JO62qm", 1795000000, "log.adi");
}

struct Times {
    double read = 0, taken = 0, listed = 0, typed = 0;
};

Times timesOf(int count) {
    Times out;
    const std::string bytes = adif(count);
    LogTaken log;
    out.read = milliseconds([&] { log = takeAdif(bytes, {}, {}, 1795000000).value(); }, 3);
    const auto folder = std::filesystem::temp_directory_path() / "ombrek-log-bench";
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    auto book = Book::open(folder / "log.ombrek").value();
    out.taken = milliseconds([&] { (void)book->importContacts(log.contacts); }, 1);
    out.listed = milliseconds([&] { (void)book->contacts(); }, 3);
    Contact one = log.contacts.front();
    out.typed = milliseconds([&] { (void)book->addContact(one); }, 20);
    book.reset();
    std::filesystem::remove_all(folder);
    return out;
}

}  // namespace

int main() {
    const Times small = timesOf(10000), large = timesOf(100000);
    tell("ADIF of 10,000 and of 100,000 records read", small.read, large.read, 5000);
    tell("taken into a book", small.taken, large.taken, 10000);
    tell("read from it (beside the window when long)", small.listed, large.listed, 2000);
    tell("one contact typed into it", small.typed, large.typed, 50);
}
