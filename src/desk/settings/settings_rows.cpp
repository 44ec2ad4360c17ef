#include "desk/settings/settings_rows.h"

#include <QApplication>
#include <QFileInfo>
#include <QLocale>
#include <QRegularExpression>
#include <algorithm>

#include "core/air/locator.h"
#include "core/coil/wire.h"
#include "desk/board/free_evenings.h"
#include "desk/person.h"
#include "desk/session.h"
#include "look/colours.h"

namespace ombrek {
namespace {

bool desktopDark = false;
QString benchOverride;

/// Why a typed text cannot be kept; empty: it can.
QString trouble(SettingRow::Takes takes, const QString& text) {
    using Takes = SettingRow::Takes;
    const auto like = [&](const char* form) {
        return QRegularExpression(QRegularExpression::anchoredPattern(QString::fromUtf8(form)),
                                  QRegularExpression::CaseInsensitiveOption)
            .match(text)
            .hasMatch();
    };
    if (text.isEmpty()) return {};
    switch (takes) {
        case Takes::callsign:  // ITU Radio Regulations article 19, with a prefix or a suffix behind a stroke
            return like("([A-Z0-9]{1,4}/)?[A-Z0-9]{1,3}[0-9][A-Z0-9]{0,3}[A-Z](/[A-Z0-9]{1,4})?")
                       ? QString()
                       : QStringLiteral("A callsign is letters and a number, as on the licence.");
        case Takes::locator:
            return placeOfLocator(text.toStdString())
                       ? QString()
                       : QStringLiteral("A locator is two letters, two digits and two letters, as AB12cd.");
        case Takes::evenings:
            if (const auto read = freeEvenings(text, wallClock(), 8); !read) return qs(read.error().sentence);
            return {};
        case Takes::address:
            return like("[^:\\s]+:[0-9]{1,5}") ? QString()
                                               : QStringLiteral("Write the address as 127.0.0.1:5925.");
        case Takes::folder:
            return QFileInfo(text).isDir() ? QString() : QStringLiteral("There is no folder %1.").arg(text);
        case Takes::words:
            break;
    }
    return text.size() > 200 ? QStringLiteral("This is too long.") : QString();
}

}  // namespace

const std::vector<SettingRow>& settingRows() {
    using Where = SettingRow::Where;
    using Takes = SettingRow::Takes;
    static const std::vector<SettingRow> rows{
        {"bench",
         "Bench colours",
         "Light paper for the day, dark for the night, or as the desktop is.",
         Where::person,
         {{"desktop", "as the desktop"}, {"day", "day bench"}, {"night", "night bench"}}},
        {"text",
         "Text size",
         "All text, and the room it takes. Ctrl and plus or minus do it from anywhere.",
         Where::person,
         {{"100", "as drawn"},
          {"110", "110 %"},
          {"120", "120 %"},
          {"130", "130 %"},
          {"140", "140 %"},
          {"150", "150 %"},
          {"80", "80 %"},
          {"90", "90 %"}}},
        {"decimal",
         "Decimal sign",
         "In everything that is read; both are understood when typed.",
         Where::person,
         {{"desktop", "as the desktop"}, {"point", "point, 4.7"}, {"comma", "comma, 4,7"}}},
        {"wire",
         "Wires",
         "How wires are named. Where the kit says otherwise, its own name stands behind.",
         Where::person,
         {{"kit", "as the kit names them"}, {"awg", "AWG"}, {"swg", "SWG"}, {"mm", "millimetres"}}},
        {"length",
         "Lengths of wire",
         "On Winding and on the cut list.",
         Where::person,
         {{"cm", "centimetres"}, {"inch", "inches"}}},
        {"menu bar",
         "Menu bar",
         "Hidden, it comes with Alt.",
         Where::person,
         {{"shown", "shown"}, {"hidden", "hidden"}}},
        {"folder/sheet",
         "Folder of sheets",
         "Where printed sheets, lists and reports are offered to be written.",
         Where::person,
         {},
         Takes::folder},
        {"rule",
         "Verdict rule",
         "Guarded: the meter's own error counts against a pass. Simple: the value decides.",
         Where::build,
         {{"guard", "guarded"}, {"simple", "simple"}}},
        {"hand",
         "Hand",
         "Which hand winds; the drawn coil follows it.",
         Where::book,
         {{"right", "right hand"}, {"left", "left hand"}}},
        {"sound",
         "Sound and voice",
         "While turns are counted, and when a reading is judged.",
         Where::book,
         {{"off", "silent"},
          {"tens", "a sound at every ten"},
          {"voice", "tens are spoken"},
          {"verdicts", "tens and verdicts are spoken"}}},
        {"who", "Your name", "Stands with every reading and on the report.", Where::book, {}},
        {"callsign", "Callsign", "Stands on the report.", Where::book, {}, Takes::callsign},
        {"locator", "Locator", "Where the bench is; stands on the report.", Where::book, {}, Takes::locator},
        {"evenings",
         "Free evenings",
         "Which evenings are free, as Tue 19-21, Sat 14-18; the sittings are planned into them.",
         Where::book,
         {},
         Takes::evenings},
        {"instruments",
         "Instruments",
         "Address of the first of four ports on which the instruments listen.",
         Where::book,
         {},
         Takes::address}};
    return rows;
}

const SettingRow* settingRow(const std::string& key) {
    const auto& rows = settingRows();
    const auto hit =
        std::find_if(rows.begin(), rows.end(), [&](const SettingRow& r) { return key == r.key; });
    return hit == rows.end() ? nullptr : &*hit;
}

QString placeWord(SettingRow::Where where) {
    switch (where) {
        case SettingRow::Where::person:
            return QStringLiteral("for you, in every book");
        case SettingRow::Where::book:
            return QStringLiteral("in this book");
        case SettingRow::Where::build:
            break;
    }
    return QStringLiteral("with this kit");
}

QString settingOf(const SettingRow& row, Session& session) {
    using Where = SettingRow::Where;
    QString value;
    if (row.where == Where::person) value = person::get(QString::fromUtf8(row.key));
    if (row.where == Where::book) value = qs(session.book().preference(row.key));
    if (row.where == Where::build)
        value = session.hasBuild() && session.build().rule == VerdictRule::simple ? QStringLiteral("simple")
                                                                                  : QStringLiteral("guard");
    if (row.choices.empty()) return value;
    const bool known = std::any_of(row.choices.begin(), row.choices.end(), [&](const SettingRow::Choice& c) {
        return value == QLatin1String(c.value);
    });
    return known ? value : QString::fromUtf8(row.choices.front().value);
}

QString shownSetting(const SettingRow& row, Session& session) {
    const QString value = settingOf(row, session);
    for (const SettingRow::Choice& choice : row.choices) {
        if (value == QLatin1String(choice.value)) return QString::fromUtf8(choice.shown);
    }
    return value.isEmpty() ? QStringLiteral("not said") : value;
}

QString changeSetting(const SettingRow& row, const QString& value, Session& session) {
    using Where = SettingRow::Where;
    if (row.choices.empty()) {
        if (const QString why = trouble(row.takes, value); !why.isEmpty()) return why;
    }
    if (row.where == Where::person) {
        person::set(QString::fromUtf8(row.key), value);
        applyPerson();
        return {};
    }
    if (row.where == Where::build && !session.hasBuild())
        return QStringLiteral("This goes with a kit: begin one first.");
    const Result<void> done =
        row.where == Where::book
            ? session.book().prefer(row.key, value.toStdString())
            : session.book().chooseRule(value == QStringLiteral("simple") ? VerdictRule::simple
                                                                          : VerdictRule::guardBand);
    if (done && row.takes == SettingRow::Takes::address) {
        person::trust(value);
        session.practice().setAddress(value.section(QChar(':'), 0, 0),
                                      quint16(value.section(QChar(':'), 1).toUInt()));
    }
    return done ? QString() : qs(done.error().text());
}

void applyPerson() {
    const auto is = [](const char* key, const char* value) {
        return person::get(QString::fromUtf8(key)) == QLatin1String(value);
    };
    bool number = false;
    const int text = person::get(QStringLiteral("text")).toInt(&number);
    setTextScale(number ? text / 100.0 : 1.0);
    QApplication::setFont(benchFont(15));
    const bool commaHere = QLocale().decimalPoint() == QStringLiteral(",");
    writeDecimalsWith(is("decimal", "comma") || (commaHere && !is("decimal", "point")) ? ',' : '.');
    writeWiresAs(is("wire", "awg")   ? WireNames::awg
                 : is("wire", "swg") ? WireNames::swg
                 : is("wire", "mm")  ? WireNames::millimetres
                                     : WireNames::asGiven,
                 is("length", "inch") ? Lengths::inches : Lengths::centimetres);
    const QString bench = benchOverride.isEmpty() ? person::get(QStringLiteral("bench")) : benchOverride;
    setNight(bench == QStringLiteral("night") || (bench != QStringLiteral("day") && desktopDark));
}

void overrideBench(const QString& bench) { benchOverride = bench; }
void rememberDesktop(bool dark) { desktopDark = dark; }

}  // namespace ombrek
