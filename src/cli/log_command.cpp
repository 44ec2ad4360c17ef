#include <cmath>

#include "book/book.h"
#include "cli/commands.h"
#include "cli/print.h"
#include "core/air/locator.h"
#include "core/quantity/quantity.h"
#include "formats/contact_adif.h"
#include "formats/files.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Json told(const std::vector<RefusedLine>& lines) {
    Json out = Json::array();
    for (const RefusedLine& line : lines)
        out.push_back({{"line", line.line}, {"record", line.text}, {"reason", line.reason}});
    return out;
}

void sayLines(const std::vector<RefusedLine>& lines, const char* what) {
    constexpr std::size_t kMost = 20;
    for (std::size_t i = 0; i < std::min(kMost, lines.size()); ++i)
        std::fprintf(stderr, "line %zu, %s, %s: %s\n", lines[i].line, lines[i].text.c_str(), what,
                     lines[i].reason.c_str());
    if (lines.size() > kMost) std::fprintf(stderr, "and %zu more\n", lines.size() - kMost);
}

Json ofContact(const Contact& c, const std::string& ownLocator) {
    Json out{{"utc", adifDate(c.at) + " " + adifTime(c.at)}, {"call", c.call}, {"band", c.band},
             {"frequency_hz", c.frequency > 0 ? Json(c.frequency) : Json()}, {"mode", c.mode},
             {"sent", c.sent}, {"received", c.received},
             {"power_w", c.watts > 0 ? Json(c.watts) : Json()}, {"name", c.name}, {"place", c.place},
             {"locator", c.locator}, {"note", c.note}, {"km", nullptr}, {"bearing", nullptr},
             {"km_per_watt", nullptr}};
    const auto from = placeOfLocator(c.own.empty() ? ownLocator : c.own);
    const auto to = placeOfLocator(c.locator);
    if (from && to) {
        const GreatCircle way = greatCircle(*from, *to);
        out["km"] = way.kilometres;
        if (std::isfinite(way.bearing)) out["bearing"] = way.bearing;
        if (c.watts > 0) out["km_per_watt"] = way.kilometres / c.watts;
    }
    return out;
}

std::map<std::int64_t, std::string> rigsOf(const Book& book) {
    std::map<std::int64_t, std::string> out;
    for (const auto& b : book.builds()) out[b.id] = b.kitName;
    return out;
}

int importLog(Book& book, const std::string& file, bool json) {
    const auto bytes = readFile(file, kLargestLog);
    if (!bytes) return refuse(bytes.error(), json);
    const auto builds = book.builds();
    const auto rigs = [&](const std::string& rig) {
        for (const auto& b : builds) {
            if (b.kitName == rig) return b.id;
        }
        return std::int64_t(0);
    };
    const auto taken = takeAdif(*bytes, book.contacts(), rigs, wallClock());
    if (!taken) return refuse({file, taken.error().sentence}, json);
    if (const auto kept = book.importContacts(taken->contacts); !kept) return refuse(kept.error(), json);
    if (json) {
        printJson({{"file", file},
                   {"read", taken->read},
                   {"added", taken->contacts.size()},
                   {"duplicates", taken->duplicates},
                   {"refused", told(taken->refused)},
                   {"doubts", told(taken->doubts)},
                   {"contacts", book.contacts().size()}});
    } else {
        std::printf("%zu of %zu contacts taken in, %zu there already, %zu refused.\n", taken->contacts.size(),
                    taken->read, taken->duplicates, taken->refused.size());
        sayLines(taken->refused, "refused");
        sayLines(taken->doubts, "odd");
    }
    return 0;
}

int exportLog(const Book& book, const std::string& file, bool json) {
    const auto contacts = book.contacts();
    const std::string bytes = writeLog(contacts, rigsOf(book), book.preference("callsign"),
                                       book.preference("locator"), wallClock(), file);
    if (const auto done = writeFile(file, bytes); !done) return refuse(done.error(), json);
    if (json) {
        printJson({{"file", file}, {"written", contacts.size()}});
    } else {
        std::printf("%zu contacts written to %s.\n", contacts.size(), file.c_str());
    }
    return 0;
}

int showLog(const Book& book, bool json) {
    const std::string own = book.preference("locator");
    Json all = Json::array();
    for (const Contact& c : book.contacts()) all.push_back(ofContact(c, own));
    if (json) {
        printJson({{"contacts", all}});
        return 0;
    }
    for (const Json& c : all)
        std::printf("%s  %-10s %-5s %-5s %s %s%s\n", c["utc"].get<std::string>().c_str(),
                    c["call"].get<std::string>().c_str(), c["band"].get<std::string>().c_str(),
                    c["mode"].get<std::string>().c_str(), c["sent"].get<std::string>().c_str(),
                    c["received"].get<std::string>().c_str(),
                    c["km"].is_null() ? "" : ("  " + decimals(c["km"].get<double>(), 0) + " km").c_str());
    return 0;
}

}  // namespace

int logCommand(const LogWish& wish, bool json) {
    if (!wish.adif.empty() && !wish.import.empty())
        return refuse({"log", "Either --adif FILE or --import FILE, one at a time."}, json);
    if (!std::filesystem::exists(wish.book)) return refuse({wish.book, "There is no such book."}, json);
    const auto book = Book::open(wish.book);
    if (!book) return refuse(book.error(), json);
    if (!wish.import.empty()) return importLog(**book, wish.import, json);
    return wish.adif.empty() ? showLog(**book, json) : exportLog(**book, wish.adif, json);
}

int distanceCommand(const std::string& from, const std::string& to, bool json) {
    const auto a = placeOfLocator(from), b = placeOfLocator(to);
    if (!a) return refuse(a.error(), json);
    if (!b) return refuse(b.error(), json);
    const GreatCircle way = greatCircle(*a, *b);
    const bool ahead = std::isfinite(way.bearing);
    if (json) {
        printJson({{"km", way.kilometres},
                   {"bearing", ahead ? Json(way.bearing) : Json()},
                   {"within_km", way.within}});
    } else {
        std::printf("%s km%s\n", decimals(way.kilometres, way.kilometres < 100 ? 1 : 0).c_str(),
                    ahead ? (", " + decimals(way.bearing, 0) + "°").c_str() : "");
    }
    return 0;
}

}  // namespace ombrek
