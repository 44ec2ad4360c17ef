#include "formats/heard_csv.h"

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>
#include <optional>
#include <set>

#include "core/air/locator.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/contact_adif.h"

namespace ombrek {
namespace {

/// A column by the words its heading may have; the first that is found counts.
struct ColumnWords {
    std::vector<std::string> words;
    int at = -1;
};
struct Columns {
    ColumnWords when{{"timestamp", "utc", "time", "date"}};
    ColumnWords by{
        {"receiver", "reporter", "rx_sign", "rx call", "receivercallsign", "spotter", "heard by", "by"}};
    ColumnWords locator{
        {"receiverlocator", "rx_loc", "reporter grid", "rx grid", "rx locator", "grid", "locator"}};
    ColumnWords frequency{{"frequency", "freq", "mhz"}};
    ColumnWords snr{{"snr", "db", "signal"}};
    ColumnWords mode{{"mode"}};
};

std::string tidy(const std::string& cell) { return lowered(trimmed(cell)); }

void find(ColumnWords& column, const CsvRow& head, const std::set<int>& taken) {
    for (const bool whole : {true, false}) {
        for (const std::string& word : column.words) {
            for (int i = 0; i < int(head.size()); ++i) {
                const std::string name = tidy(head[std::size_t(i)]);
                const bool fits = whole ? name == word : name.find(word) != std::string::npos;
                // The transmitter's own columns are of this station.
                if (!fits || taken.contains(i) || name.starts_with("tx") ||
                    name.find("sender") != std::string::npos)
                    continue;
                column.at = i;
                return;
            }
        }
    }
}

/// "2026-11-27 18:30:00", "2026-11-27T18:30Z", "27 Nov 18:30" not, seconds since 1970.
std::optional<std::int64_t> timeOf(const std::string& cell) {
    int year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0;
    const std::string text(trimmed(cell));
    if (text.size() >= 9 && text.size() <= 11 && text.find_first_not_of("0123456789") == std::string::npos)
        return std::stoll(text);
    const int read =
        std::sscanf(text.c_str(), "%4d-%2d-%2d%*c%2d:%2d:%2d", &year, &month, &day, &hour, &minute, &second);
    if (read < 5) return std::nullopt;
    const std::chrono::year_month_day date{std::chrono::year(year), std::chrono::month(unsigned(month)),
                                           std::chrono::day(unsigned(day))};
    if (!date.ok() || hour > 23 || minute > 59 || second > 60 || hour < 0 || minute < 0) return std::nullopt;
    return std::chrono::sys_seconds(std::chrono::sys_days(date)).time_since_epoch().count() + hour * 3600LL +
           minute * 60LL + second;
}

std::string cellOf(const CsvRow& row, const ColumnWords& column) {
    return column.at >= 0 && column.at < int(row.size()) ? std::string(trimmed(row[std::size_t(column.at)]))
                                                         : std::string();
}

double numberOf(std::string text) {
    std::replace(text.begin(), text.end(), ',', '.');
    double out = NAN;
    if (text.starts_with('+')) text.erase(0, 1);
    const auto read = std::from_chars(text.data(), text.data() + text.size(), out);
    return read.ec == std::errc{} && std::isfinite(out) ? out : NAN;
}

std::string keyOf(const Heard& h) {
    return h.by + " " + std::to_string(h.at / 60) + " " + std::to_string(std::llround(h.frequency / 1000));
}

Result<Heard> heardOf(const CsvRow& row, const Columns& c, std::int64_t now) {
    Heard out;
    out.by = uppered(cellOf(row, c.by));
    if (out.by.empty()) return problem("", "No receiver is named.");
    const auto at = timeOf(cellOf(row, c.when));
    if (!at) return problem("", "\"" + cellOf(row, c.when).substr(0, 30) + "\" is no date and time.");
    if (const std::string why = timeTrouble(*at, now); !why.empty()) return problem("", why);
    out.at = *at;
    if (const std::string locator = cellOf(row, c.locator); placeOfLocator(locator))
        out.locator = tidyLocator(locator);
    const double f = numberOf(cellOf(row, c.frequency));
    if (f > 0) out.frequency = f < 1e3 ? f * 1e6 : f < 1e6 ? f * 1e3 : f;  // MHz, kHz or Hz
    out.snr = numberOf(cellOf(row, c.snr));
    out.mode = cellOf(row, c.mode);
    return out;
}

}  // namespace

Result<HeardTaken> readHeard(const std::string& bytes, const std::vector<Heard>& there, std::int64_t now,
                             const Progress& progress) {
    const auto table = readTable(bytes, progress);
    if (!table) return tl::make_unexpected(table.error());
    if (table->rows.empty()) return problem("", "This table is empty.");
    Columns columns;
    std::set<int> taken;
    for (ColumnWords* c :
         {&columns.when, &columns.by, &columns.locator, &columns.frequency, &columns.snr, &columns.mode}) {
        find(*c, table->rows.front(), taken);
        if (c->at >= 0) taken.insert(c->at);
    }
    if (columns.by.at < 0 || columns.when.at < 0)
        return problem("", "Its heading names no receiver (\"receiver\", \"reporter\") or no time.");
    HeardTaken out;
    std::set<std::string> known;
    for (const Heard& h : there) known.insert(keyOf(h));
    for (std::size_t i = 1; i < table->rows.size(); ++i) {
        auto heard = heardOf(table->rows[i], columns, now);
        if (!heard) {
            out.refused.push_back({table->lines[i], table->rows[i].front(), heard.error().sentence});
        } else if (!known.insert(keyOf(*heard)).second) {
            ++out.duplicates;
        } else {
            out.reports.push_back(std::move(*heard));
        }
    }
    return out;
}

}  // namespace ombrek
