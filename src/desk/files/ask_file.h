#pragma once

#include <QWidget>
#include <functional>

namespace ombrek {

/// A kind of file a person is asked for.
struct FileWish {
    const char* title;    ///< of the dialog
    const char* purpose;  ///< whose last folder is remembered, "kit"
    const char* filter;   ///< as QFileDialog reads it; the last line is "All files (*)"
};

inline constexpr FileWish kBookFile{"A book", "book", "Books (*.ombrek);;All files (*)"};
inline constexpr FileWish kAnyFile{
    "Open", "book",
    "Books, kits, lists, pictures (*.ombrek *.json *.csv *.txt *.tsv *.png *.jpg);;All files (*)"};
inline constexpr FileWish kKitFile{"Kit file or upgrade", "kit", "Kits (*.kit.json *.json);;All files (*)"};
inline constexpr FileWish kTalkFile{"What was said", "talk", "Text (*.txt);;All files (*)"};
inline constexpr FileWish kListFile{"Parts list", "list",
                                    "Lists (*.csv *.tsv *.txt *.bom *.md);;All files (*)"};
inline constexpr FileWish kPaperFile{"Text from the paper", "list",
                                     "Texts (*.txt *.md *.csv);;All files (*)"};
inline constexpr FileWish kPictureFile{"Picture", "picture",
                                       "Pictures (*.png *.jpg *.jpeg *.JPG *.PNG);;All files (*)"};
inline constexpr FileWish kPlacementFile{"Placement table", "list",
                                         "Tables (*.csv *.txt *.pos *.xy *.mnt);;All files (*)"};
inline constexpr FileWish kNetlistFile{"The kit's circuit", "kit",
                                       "SPICE netlists (*.cir *.net *.sp *.spice *.ckt);;All files (*)"};
inline constexpr FileWish kPdfFile{"Write the sheet to", "sheet", "PDF (*.pdf)"};
inline constexpr FileWish kCsvFile{"Write the table to", "sheet", "CSV (*.csv);;All files (*)"};
inline constexpr FileWish kLogFile{"A station's log", "log",
                                   "Logs (*.adi *.adx *.adif *.ADI);;All files (*)"};
inline constexpr FileWish kHeardFile{"Reports of other receivers", "log",
                                     "CSV (*.csv *.tsv *.txt);;All files (*)"};
inline constexpr FileWish kJsonFile{"Write the report to", "sheet", "JSON (*.json);;All files (*)"};
inline constexpr FileWish kNextKitFile{"Write the kit for its next builder to", "kit",
                                       "Kits (*.kit.json);;All files (*)"};
inline constexpr FileWish kHtmlFile{"Write the report to", "sheet", "HTML (*.html);;All files (*)"};
inline constexpr FileWish kTextFile{"Write the letter to", "sheet", "Text (*.txt);;All files (*)"};
inline constexpr FileWish kCalendarFile{"Write the calendar to", "sheet", "Calendar (*.ics);;All files (*)"};

/// The desktop's own dialog; the window goes on behind it, and `use` is called when a file was chosen.
void askToOpen(QWidget* over, const FileWish& wish, std::function<void(const QString&)> use);
/// The desktop asks itself before a file is written over. @param name  proposed, without a folder
void askToSave(QWidget* over, const FileWish& wish, const QString& name,
               std::function<void(const QString&)> use);

}  // namespace ombrek
