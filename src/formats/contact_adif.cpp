#include "formats/contact_adif.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <set>

#include "core/air/band_name.h"
#include "core/air/locator.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr std::int64_t kClockAhead = 15 * 60;  ///< a clock may be so wrong [s]

/// Digits alone; −1 when there is something else.
int digits(const std::string& text, std::size_t from, std::size_t count) {
    int out = 0;
    for (std::size_t i = from; i < from + count; ++i) {
        if (i >= text.size() || text[i] < '0' || text[i] > '9') return -1;
        out = out * 10 + (text[i] - '0');
    }
    return out;
}

/// Seconds since 1970 of a date "20261127" and a time "1830" or "183000".
Result<std::int64_t> timeOf(std::string date, std::string time) {
    std::erase_if(date, [](char c) { return c == '-' || c == '/' || c == '.'; });
    std::erase(time, ':');
    if (time.size() == 3 || time.size() == 5) time.insert(0, "0");  // 930 for 0930
    using namespace std::chrono;
    const year_month_day day{year(digits(date, 0, 4)), month(unsigned(digits(date, 4, 2))),
                             std::chrono::day(unsigned(digits(date, 6, 2)))};
    if (date.size() != 8 || digits(date, 0, 8) < 0 || !day.ok())
        return problem("QSO_DATE", "\"" + date.substr(0, 20) + "\" is no date; one is written 20261127.");
    const int hour = digits(time, 0, 2), minute = digits(time, 2, 2);
    const int second = time.size() >= 6 ? digits(time, 4, 2) : 0;
    if (hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 59)
        return problem("TIME_ON", "\"" + time.substr(0, 20) + "\" is no time; one is written 1830, in UTC.");
    return sys_seconds(sys_days(day)).time_since_epoch().count() + hour * 3600LL + minute * 60LL + second;
}

/// A number with a point or a comma; 0 for what is none.
double number(std::string text) {
    std::replace(text.begin(), text.end(), ',', '.');
    // "7.030.00" is megahertz, kilohertz and tens of hertz as displays group them: the later points are none.
    if (const auto first = text.find('.'); first != std::string::npos) {
        std::string behind = text.substr(first + 1);
        if (behind.find('.') == 3) std::erase(behind, '.');
        text = text.substr(0, first + 1) + behind;
    }
    const auto read = parseQuantity(text);
    return read && read->unit == Unit::none && std::isfinite(read->value) && read->value > 0 ? read->value
                                                                                             : 0;
}

/// A frequency in MHz, as ADIF wants it; one that lies in a band only as kilohertz or hertz is taken so.
double hertzOf(double said) {
    for (const double unit : {1e6, 1e3, 1.0}) {
        if (!bandAt(said * unit).empty()) return said * unit;
    }
    return said * 1e6;
}

/// A contact's texts and the fields they go by.
struct TextField {
    const char* name;
    std::string Contact::*text;
};
constexpr TextField kTexts[] = {{"RST_SENT", &Contact::sent},      {"RST_RCVD", &Contact::received},
                                {"NAME", &Contact::name},          {"QTH", &Contact::place},
                                {"GRIDSQUARE", &Contact::locator}, {"COMMENT", &Contact::note},
                                {"MY_GRIDSQUARE", &Contact::own}};

/// Read into the contact's own members beside the texts.
bool isOwn(const std::string& name) {
    for (const char* own : {"CALL", "QSO_DATE", "TIME_ON", "FREQ", "BAND", "MODE", "TX_PWR"}) {
        if (name == own) return true;
    }
    return std::any_of(std::begin(kTexts), std::end(kTexts),
                       [&](const TextField& t) { return name == t.name; });
}

}  // namespace

std::string callTrouble(const std::string& call) {
    const auto part = [](char c) { return (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '/'; };
    const bool letters = std::all_of(call.begin(), call.end(), part);
    const bool number = std::any_of(call.begin(), call.end(), [](char c) { return c >= '0' && c <= '9'; });
    const bool letter = std::any_of(call.begin(), call.end(), [](char c) { return c >= 'A' && c <= 'Z'; });
    if (call.size() >= 3 && call.size() <= 20 && letters && number && letter) return "";
    if (call.find(' ') != std::string::npos)
        return "\"" + call.substr(0, 20) + "\" has a blank in it; a callsign has none.";
    return "\"" + call.substr(0, 20) + "\" is no callsign: letters and a number, as QX1ABC or QX1ABC/P.";
}

std::string timeTrouble(std::int64_t at, std::int64_t now) {
    constexpr std::int64_t kFirst = -1262304000;  // 1930-01-01, the earliest date of the ADIF specification
    constexpr std::int64_t kZone = 14 * 3600;
    if (at < kFirst) return "It is before 1930: no log goes back so far. Is the year right?";
    if (at <= now + kClockAhead) return "";
    return at <= now + kZone ? "It lies ahead by hours: is it in local time? A log is kept in UTC."
                             : "It lies in the future: is the date right?";
}

std::string contactDoubt(const Contact& c) {
    const std::string lies = c.frequency > 0 ? bandAt(c.frequency) : "";
    if (lies.empty() || c.band.empty() || lies == lowered(c.band)) return "";
    return "It says " + c.band + ", and " + formatQuantity(c.frequency, Unit::hertz, 6) + " lies in " + lies +
           ": both are kept as they stand.";
}

Result<Contact> contactOf(const AdifRecord& record, std::int64_t now) {
    Contact out;
    out.call = uppered(record.value("CALL"));
    if (const std::string why = callTrouble(out.call); !why.empty()) return problem("CALL", why);
    const std::string time = record.value("TIME_ON");
    const auto at = timeOf(record.value("QSO_DATE"), time.empty() ? record.value("TIME_OFF") : time);
    if (!at) return tl::make_unexpected(at.error());
    if (const std::string why = timeTrouble(*at, now); !why.empty()) return problem("QSO_DATE", why);
    out.at = *at;
    out.frequency = hertzOf(number(record.value("FREQ")));
    out.band = lowered(record.value("BAND"));
    // What the log says of its band stays; where its frequency lies elsewhere, contactDoubt says so.
    if (out.band.empty() && out.frequency > 0) out.band = bandAt(out.frequency);
    out.mode = uppered(record.value("MODE"));
    out.watts = number(record.value("TX_PWR"));
    for (const TextField& t : kTexts) out.*t.text = record.value(t.name);
    AdifRecord rest;
    for (const auto& [name, value] : record.fields) {
        const bool lost = (name == "FREQ" && out.frequency == 0) || (name == "TX_PWR" && out.watts == 0);
        if (!isOwn(name) || lost) rest.add(lost ? "APP_OMBREK_READ_" + name : name, value);
    }
    // What is no locator is kept as it stands, but not as a place.
    for (auto [text, field] : {std::pair{&out.locator, "GRIDSQUARE"}, std::pair{&out.own, "MY_GRIDSQUARE"}}) {
        if (text->empty()) continue;
        if (placeOfLocator(*text)) {
            *text = tidyLocator(*text);
        } else {
            rest.add(std::string("APP_OMBREK_READ_") + field, *text);
            text->clear();
        }
    }
    if (!rest.fields.empty()) {
        for (const auto& [name, value] : rest.fields)
            out.extra += "<" + name + ":" + std::to_string(value.size()) + ">" + value;
    }
    return out;
}

AdifRecord recordOf(const Contact& c, const std::string& rig, const std::string& ownCall,
                    const std::string& ownLocator) {
    AdifRecord out;
    out.add("CALL", c.call);
    out.add("QSO_DATE", adifDate(c.at));
    out.add("TIME_ON", adifTime(c.at));
    out.add("BAND", c.band);
    if (c.frequency > 0) out.add("FREQ", plainNumber(c.frequency / 1e6));
    out.add("MODE", c.mode);
    if (c.watts > 0) out.add("TX_PWR", plainNumber(c.watts));
    for (const TextField& t : kTexts) out.add(t.name, c.*t.text);
    if (c.own.empty() && c.build != 0) out.add("MY_GRIDSQUARE", ownLocator);
    const auto extra = c.extra.empty() ? Result<AdifFile>(AdifFile{}) : readAdif(c.extra + "<EOR>");
    if (extra && !extra->records.empty()) {
        for (const auto& [name, value] : extra->records.front().fields) {
            if (out.value(name).empty() && !(name == "MY_RIG" && !rig.empty())) out.add(name, value);
        }
    }
    if (!rig.empty()) out.add("MY_RIG", rig);
    if (c.build != 0 && out.value("STATION_CALLSIGN").empty()) out.add("STATION_CALLSIGN", ownCall);
    return out;
}

std::string writeLog(const std::vector<Contact>& contacts, const std::map<std::int64_t, std::string>& rigs,
                     const std::string& ownCall, const std::string& ownLocator, std::int64_t now,
                     const std::string& file) {
    std::vector<AdifRecord> records;
    for (const Contact& c : contacts) {
        const auto rig = rigs.find(c.build);
        records.push_back(recordOf(c, rig == rigs.end() ? "" : rig->second, ownCall, ownLocator));
    }
    return lowered(file).ends_with(".adx") ? writeAdx(records, now) : writeAdi(records, now);
}

std::string sameContactKey(const Contact& c) {
    const std::string band = c.band.empty() ? bandAt(c.frequency) : lowered(c.band);
    const bool voice = c.mode == "SSB" || c.mode == "USB" || c.mode == "LSB";
    return c.call + " " + band + " " + (voice ? "SSB" : c.mode) + " " + std::to_string(c.at / 60);
}

Result<LogTaken> takeAdif(const std::string& bytes, const std::vector<Contact>& there,
                          const std::function<std::int64_t(const std::string& rig)>& rigs, std::int64_t now,
                          const Progress& progress) {
    const auto file = readAdif(bytes, [&](double share) { return !progress || progress(share * 0.8); });
    if (!file) return tl::make_unexpected(file.error());
    LogTaken out;
    out.doubts = file->doubts;
    out.read = file->records.size();
    std::set<std::string> known;
    for (const Contact& c : there) known.insert(sameContactKey(c));
    for (const AdifRecord& record : file->records) {
        auto contact = contactOf(record, now);
        if (!contact) {
            out.refused.push_back({record.line, record.value("CALL"), contact.error().text()});
        } else if (!known.insert(sameContactKey(*contact)).second) {
            ++out.duplicates;
        } else {
            if (rigs) contact->build = rigs(record.value("MY_RIG"));
            if (const std::string odd = contactDoubt(*contact); !odd.empty())
                out.doubts.push_back({record.line, contact->call, odd});
            out.contacts.push_back(std::move(*contact));
        }
    }
    return out;
}

}  // namespace ombrek
