#include "desk/help/guide.h"

#include <QDir>
#include <QFile>
#include <QRegularExpression>
#include <algorithm>

#include "core/sums/relations.h"
#include "formats/files.h"
#include "log/log.h"

namespace ombrek {
namespace {

struct GuideFile {
    const char *file, *title;
};
const std::vector<GuideFile>& guideFiles() {
    static const std::vector<GuideFile> files{{"first-evening.md", "The first evening"},
                                              {"parts-in.md", "Parts in"},
                                              {"winding.md", "Winding"},
                                              {"board.md", "Board"},
                                              {"first-light.md", "First light"},
                                              {"tune.md", "Tune"},
                                              {"proof.md", "Proof"},
                                              {"sign-off.md", "Sign-off"},
                                              {"own-kit.md", "A kit of your own"},
                                              {"instruments.md", "Instruments"},
                                              {"instruments-serial.md", "Instruments on a serial lead"},
                                              {"instruments-network.md", "Instruments on the network"},
                                              {"instruments-usb.md", "Instruments by USB (usbtmc)"},
                                              {"instruments-libsigrok.md", "Instruments by libsigrok"},
                                              {"instruments-folder.md", "Instruments that write files"},
                                              {"sums.md", "The sums line"},
                                              {"desk.md", "Keys, mouse, files, settings"}};
    return files;
}

/// The guide ships beside the tables; in a source tree it is in docs.
QDir guideFolder() {
    const auto data = dataFolder();
    std::error_code error;
    const auto installed = data / "guide";
    return QDir(QString::fromStdString(
        (std::filesystem::exists(installed, error) ? installed : data.parent_path() / "docs" / "guide")
            .string()));
}

/// "### word", and what follows until the next.
std::vector<GuideEntry> readWords() {
    std::vector<GuideEntry> out;
    for (const QString& block :
         guideText(QStringLiteral("glossary.md")).split(QStringLiteral("\n### ")).mid(1)) {
        const QString word = block.section(QChar('\n'), 0, 0).trimmed();
        out.push_back(
            {word, block.section(QChar('\n'), 1).simplified(), QStringLiteral("word ") + word, true});
    }
    std::sort(out.begin(), out.end(), [](const GuideEntry& a, const GuideEntry& b) {
        return a.title.compare(b.title, Qt::CaseInsensitive) < 0;
    });
    return out;
}

/// Every relation that the sums line knows, as a table in Markdown.
QString relationsTable() {
    QString out = QStringLiteral("\n| type | it answers | by | source |\n|---|---|---|---|\n");
    for (const sums::Relation& row : sums::relations()) {
        const QString example = QString::fromUtf8(row.example), formula = QString::fromUtf8(row.formula);
        out += QStringLiteral("| `%1` | %2: %3 | %4 | %5 |\n")
                   .arg(example.section(QStringLiteral(" = "), 0, 0), QString::fromUtf8(row.meaning),
                        example.section(QStringLiteral(" = "), 1), formula, QString::fromUtf8(row.source))
                   .replace(QStringLiteral("|\u0393|"), QStringLiteral("\u0393"));
    }
    return out;
}

}  // namespace

const std::vector<GuideEntry>& guideEntries() {
    static const std::vector<GuideEntry> entries = [] {
        std::vector<GuideEntry> out;
        for (const GuideFile& file : guideFiles()) {
            if (!guideText(QString::fromUtf8(file.file)).isEmpty())
                out.push_back(
                    {QString::fromUtf8(file.title), QString(), QString::fromUtf8(file.file), false});
        }
        for (GuideEntry& word : readWords()) out.push_back(std::move(word));
        return out;
    }();
    return entries;
}

QString guideText(const QString& name) {
    QFile file(guideFolder().filePath(name));
    if (!file.open(QIODevice::ReadOnly)) return {};
    const QString text = QString::fromUtf8(file.readAll());
    return name == QStringLiteral("sums.md") ? text + relationsTable() : text;
}

std::vector<GuideEntry> wordsIn(const QString& text) {
    std::vector<GuideEntry> out;
    for (const GuideEntry& entry : guideEntries()) {
        if (!entry.word) continue;
        // "bias (of a final)" stands for "bias".
        const QString word = entry.title.section(QStringLiteral(" ("), 0, 0);
        const QRegularExpression whole(
            QStringLiteral("(?<![\\w-])%1(s|es)?(?![\\w-])").arg(QRegularExpression::escape(word)),
            QRegularExpression::CaseInsensitiveOption | QRegularExpression::UseUnicodePropertiesOption);
        if (text.contains(whole)) out.push_back(entry);
    }
    return out;
}

QString aboutText(const QString& book) {
    return QStringLiteral(
               "# Ombrek %1\n\nFrom the bag of parts to the signed-off rig.\n\nIt shows what usual practice "
               "says and what "
               "your readings tell. Your licence, your local rules and your own judgement at the bench come "
               "first.\n\n"
               "## Where things are\n\n- The book: `%2`\n- Its daily copies: the folder `.copies` beside "
               "it\n- The log: "
               "`%3`\n\n## Licences\n\nOmbrek itself: see `LICENSE`. It uses and ships with these:\n\n"
               "| what | licence |\n|---|---|\n| Qt 6 | LGPL 3 |\n| QCustomPlot | GPL 3 |\n| Ombrek Readout, "
               "drawn from B612 | "
               "SIL OFL 1.1 |\n| SQLite | public domain |\n| SQLiteCpp, nlohmann JSON, spdlog, CLI11 | MIT, "
               "BSD |\n| Eigen | "
               "MPL 2 |\n| OpenCV (image processing) | Apache 2 |\n| libcsv | LGPL 2.1 |\n| libical | MPL 2 "
               "|\n| expected | CC0 "
               "|\n")
        .arg(QStringLiteral(OMBREK_VERSION), book, QString::fromStdString(usualLogFile().string()));
}

}  // namespace ombrek
