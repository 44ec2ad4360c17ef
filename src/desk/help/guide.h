#pragma once

#include <QString>
#include <QStringList>
#include <vector>

namespace ombrek {

/// A page of the shipped guide, or a word of the trade from its glossary.
struct GuideEntry {
    QString title;  ///< "Winding", "bifilar"
    QString says;   ///< of a word: what it means
    QString about;  ///< what the Guide page opens: "winding.md", "word bifilar"
    bool word = false;
};
/// The pages in their order, then the words by alphabet. Read once; none when the guide is not there.
const std::vector<GuideEntry>& guideEntries();

/// A file of the guide as Markdown; empty when it is not there.
QString guideText(const QString& file);

/// The words of the trade that stand in a text, as whole words in any case, singular or plural.
std::vector<GuideEntry> wordsIn(const QString& text);

/// Version, licences of everything that ships, and where book and log are, as Markdown.
QString aboutText(const QString& book);

}  // namespace ombrek
