#pragma once

#include <QString>
#include <string>
#include <vector>

namespace ombrek {

class Session;

/// One setting: what it is called, what it does, where it is kept, and its choices.
struct SettingRow {
    const char* key;   ///< of QSettings or of the book's preference
    const char* name;  ///< "Bench colours"
    const char* says;  ///< what it does
    enum class Where {
        person,  ///< QSettings, the same for every book
        book,    ///< the book's preference, goes with the file
        build    ///< this kit's own
    } where;
    struct Choice {
        const char *value, *shown;
    };
    std::vector<Choice> choices;  ///< the first is the usual one; empty: a text is typed
    enum class Takes {
        words,
        callsign,
        locator,
        evenings,
        address,
        folder
    } takes = Takes::words;  ///< of a text
};
/// Every setting, in the order of the page.
const std::vector<SettingRow>& settingRows();
/// By its key; null when there is none.
const SettingRow* settingRow(const std::string& key);

/// "kept for this person" and the like.
QString placeWord(SettingRow::Where where);

/// What is set; a value that is none of the choices is the usual one.
QString settingOf(const SettingRow& row, Session& session);
/// As it is shown: "night bench".
QString shownSetting(const SettingRow& row, Session& session);

/// Keep it where it belongs. @return why it cannot be kept, as a sentence; empty when it was
QString changeSetting(const SettingRow& row, const QString& value, Session& session);

/// Put what the person set into effect: colours, text size, decimal sign, wires and lengths.
void applyPerson();

/// The bench for this run, whatever is set: "day" or "night"; empty: as set.
void overrideBench(const QString& bench);
/// Whether the desktop is dark; asked once, before the application's own palette is put on.
void rememberDesktop(bool dark);

}  // namespace ombrek
