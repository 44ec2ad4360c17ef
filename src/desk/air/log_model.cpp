#include "desk/air/log_model.h"

#include <algorithm>
#include <cmath>

#include "core/air/band_name.h"
#include "formats/adif.h"
#include "formats/contact_text.h"
#include "judged/licence.h"
#include "station/bands.h"

namespace ombrek {
namespace {

QString clock(std::int64_t at) {
    const std::string date = adifDate(at), time = adifTime(at);
    return qs(date.substr(0, 4) + "-" + date.substr(4, 2) + "-" + date.substr(6, 2) + " " +
              time.substr(0, 2) + ":" + time.substr(2, 2));
}

bool fits(const Contact& c, const QStringList& words) {
    if (words.isEmpty()) return true;
    const QString text = qs(c.call + " " + c.band + " " + c.mode + " " + c.name + " " + c.place + " " +
                            c.locator + " " + c.note + " ") +
                         clock(c.at);
    const QStringList have = text.split(QChar(' '), Qt::SkipEmptyParts);
    return std::all_of(words.begin(), words.end(), [&](const QString& word) {
        return std::any_of(have.begin(), have.end(),
                           [&](const QString& h) { return h.startsWith(word, Qt::CaseInsensitive); });
    });
}

}  // namespace

LogView logView(const StationLog& log, const QString& typed, std::int64_t build, std::size_t inHand) {
    constexpr std::size_t kDots = 3000;
    LogView out;
    const QStringList words = typed.split(QChar(' '), Qt::SkipEmptyParts);
    std::size_t own = 0;
    for (std::size_t i = log.contacts.size(); i-- > 0;) {
        if (fits(log.contacts[i], words)) out.rows.push_back(i);
        own += build != 0 && log.contacts[i].build == build;
    }
    for (const std::size_t i : out.rows) {
        if (out.dots.size() >= kDots) break;
        if (const auto place = placeOfLocator(log.contacts[i].locator))
            out.dots.push_back({*place, false, i == inHand});
    }
    for (const Heard& h : log.heard) {
        if (out.dots.size() >= kDots) break;
        if (const auto place = placeOfLocator(h.locator)) out.dots.push_back({*place, true, false});
    }
    out.now =
        log.contacts.empty()
            ? QStringLiteral("The log is empty. A writes a contact down.")
            : QStringLiteral("%L1 contacts in the log, %L2 with this rig.").arg(log.contacts.size()).arg(own);
    out.why = QStringLiteral(
        "A: callsign, report sent, report received; time, band, mode and power are there already. "
        "Times are UTC.");
    out.found = words.isEmpty()
                    ? QString()
                    : QStringLiteral("%L1 of %L2 fit.").arg(out.rows.size()).arg(log.contacts.size());
    return out;
}

StateLine logLine(const Contact& c, std::int64_t build, bool current) {
    QString text = qs(c.call);
    for (const std::string& word :
         {c.band, c.mode, c.sent.empty() && c.received.empty() ? "" : c.sent + "/" + c.received, c.name})
        if (!word.empty()) text += QStringLiteral("  ") + qs(word);
    const bool own = build != 0 && c.build == build;
    return {VerdictState::pass, text, clock(c.at), current, false, !own};
}

std::vector<Fact> contactFacts(const Contact& c, const QString& ownLocator, bool own) {
    std::vector<Fact> out;
    const auto add = [&](const char* name, const QString& value) {
        if (!value.isEmpty()) out.push_back({QString::fromUtf8(name), value});
    };
    add("UTC", clock(c.at));
    add("Frequency", c.frequency > 0 ? qs(formatQuantity(c.frequency, Unit::hertz, 7)) : qs(c.band));
    add("Mode", qs(c.mode));
    add("Sent, received", qs(c.sent) + QStringLiteral(" / ") + qs(c.received));
    add("Power", c.watts > 0 ? qs(formatQuantity(c.watts, Unit::watt, 3)) : QString());
    add("Name", qs(c.name));
    add("Place", qs(c.place) + (c.locator.empty() ? QString() : QStringLiteral(" ") + qs(c.locator)));
    const auto from = placeOfLocator(c.own.empty() ? ownLocator.toStdString() : c.own);
    const auto to = placeOfLocator(c.locator);
    if (from && to) {
        const GreatCircle way = greatCircle(*from, *to);
        add("Distance", qs(decimals(way.kilometres, 0)) + QStringLiteral("\u202fkm"));
        if (std::isfinite(way.bearing)) add("Bearing", qs(decimals(way.bearing, 0)) + QStringLiteral("°"));
        if (c.watts > 0)
            add("For each watt", qs(decimals(way.kilometres / c.watts, 0)) + QStringLiteral("\u202fkm"));
    }
    add("Rig", own            ? QStringLiteral("this one")
               : c.build != 0 ? QStringLiteral("another of this book")
                              : QString());
    add("Note", qs(c.note));
    return out;
}

Contact beginContact(const StationLog& log, const Judged* judged, std::int64_t now) {
    Contact out;
    out.at = now;
    const std::int64_t build = judged != nullptr ? judged->build().id : 0;
    out.build = build;
    const auto last = std::find_if(log.contacts.rbegin(), log.contacts.rend(),
                                   [&](const Contact& c) { return c.build == build; });
    if (last != log.contacts.rend()) {
        out.band = last->band;
        out.mode = last->mode;
        out.watts = last->watts;
    } else if (judged != nullptr && judged->kit().ratings.transmits()) {
        out.band = bandAt(judged->proof().frequency.value_or(judged->kit().ratings.frequency));
        out.mode = rigMode(judged->build());
        if (out.mode == "DIGITAL") out.mode.clear();
    }
    if (judged != nullptr && judged->kit().ratings.transmits() && out.watts == 0) {
        const auto& power = judged->proof(hasBand(judged->kit(), out.band) ? out.band : "").power;
        if (power) out.watts = std::round(power->watts * 10) / 10;
    }
    out.sent = usualReport(out.mode);
    out.received = usualReport(out.mode);
    return out;
}

PlotData heardPlot(const StationLog& log, std::int64_t build, const QString& ownLocator) {
    PlotData out;
    const auto home = placeOfLocator(ownLocator.toStdString());
    PlotData::Series dots{PlotData::Kind::dots, {}, {}};
    for (const Heard& h : log.heard) {
        const auto place = placeOfLocator(h.locator);
        if (h.build != build || !home || !place || !std::isfinite(h.snr)) continue;
        dots.x.push_back(greatCircle(*home, *place).kilometres);
        dots.y.push_back(h.snr);
    }
    if (dots.x.empty()) return out;
    out.title = QStringLiteral("Signal against distance");
    out.xLabel = QStringLiteral("[km]");
    out.yLabel = QStringLiteral("[dB]");
    const auto [low, high] = std::minmax_element(dots.y.begin(), dots.y.end());
    out.yLow = *low - 5;
    out.yHigh = *high + 5;
    out.xHigh = *std::max_element(dots.x.begin(), dots.x.end()) * 1.1 + 1;
    out.series = {dots};
    return out;
}

QString heardSentence(const StationLog& log, std::int64_t build, const QString& ownLocator, double watts) {
    const auto home = placeOfLocator(ownLocator.toStdString());
    double farthest = 0, best = NAN;
    std::size_t count = 0;
    for (const Heard& h : log.heard) {
        if (h.build != build) continue;
        ++count;
        if (std::isfinite(h.snr)) best = std::isnan(best) ? h.snr : std::max(best, h.snr);
        const auto place = placeOfLocator(h.locator);
        if (home && place) farthest = std::max(farthest, greatCircle(*home, *place).kilometres);
    }
    if (count == 0) return QStringLiteral("No reports of other receivers. V takes in a table of them.");
    QString out = QStringLiteral("%L1 reports of other receivers").arg(count);
    if (farthest > 0) out += QStringLiteral(", the farthest from %1\u202fkm").arg(qs(decimals(farthest, 0)));
    if (farthest > 0 && watts > 0)
        out += QStringLiteral(" (%1\u202fkm a watt)").arg(qs(decimals(farthest / watts, 0)));
    if (std::isfinite(best)) out += QStringLiteral(", the strongest %1\u202fdB").arg(qs(decimals(best, 0)));
    return out + QChar('.');
}

}  // namespace ombrek
