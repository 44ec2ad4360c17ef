#include "desk/find/find_model.h"

#include <algorithm>

#include "desk/session.h"
#include "station/parts_in/parts_in.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

/// Plain small letters: no accents, µ as u, Ω as ohm.
QString plain(const QString& text) {
    QString out;
    for (const QChar c : text.toLower().normalized(QString::NormalizationForm_KD)) {
        if (c.isMark()) continue;
        if (c == QChar(0x3bc) || c == QChar(0xb5)) {
            out += QChar('u');
        } else if (c == QChar(0x3c9) || c == QChar(0x2126)) {
            out += QStringLiteral("ohm");
        } else {
            out += c.isSpace() ? QChar(' ') : c;
        }
    }
    return out;
}

QString tight(QString text) { return text.remove(QChar(' ')); }

/// 0: not found; the higher the better.
int worth(const Findable& f, const QString& typed, const QStringList& words) {
    const QString title = plain(f.title);
    const QString all =
        title + QChar(' ') + plain(f.detail) + QChar(' ') + plain(f.kind) + QChar(' ') + plain(f.words);
    const QString spaced = QChar(' ') + all, close = tight(all);
    int begins = 0;
    for (const QString& word : words) {
        const bool begin = spaced.contains(QChar(' ') + word);
        if (!begin && !all.contains(word) && !close.contains(word)) return 0;
        begins += begin;
    }
    const QString first = title.section(QChar(','), 0, 0).trimmed();
    if (first == typed) return 5;
    if (title.startsWith(typed) || tight(title).startsWith(tight(typed))) return 4;
    if (begins == words.size()) return title.contains(words.first()) ? 3 : 2;
    return 1;
}

std::vector<std::string> partsOf(const Check& check, const Kit& kit) {
    std::vector<std::string> out;
    const QString at = qs(check.at);
    for (const Part& part : kit.parts) {
        const QString ref = qs(part.ref);
        const qsizetype where = at.indexOf(ref);
        const bool whole = where >= 0 && (where == 0 || !at[where - 1].isLetterOrNumber()) &&
                           (where + ref.size() == at.size() || !at[where + ref.size()].isLetterOrNumber());
        if (whole) out.push_back(part.ref);
    }
    return out;
}

}  // namespace

std::vector<Findable> findablesOf(const Kit& kit) {
    std::vector<Findable> out;
    for (const Coil& coil : kit.coils)
        out.push_back({QStringLiteral("coil"),
                       QStringLiteral("%1, %2").arg(qs(coil.ref), qs(coil.core.designation)),
                       qs(coil.what),
                       QStringLiteral("toroid winding turns"),
                       QStringLiteral("winding"),
                       qs(coil.ref),
                       {},
                       {coil.ref}});
    for (const bool board : {false, true}) {
        for (const Part& part : kit.parts) {
            if (board && !part.place) continue;
            out.push_back({board ? QStringLiteral("on the board") : QStringLiteral("part"),
                           QStringLiteral("%1, %2").arg(qs(part.ref), qs(valueText(part))),
                           qs(part.what),
                           qs(word(part.kind)) + QChar(' ') + qs(part.value),
                           board ? QStringLiteral("board") : QStringLiteral("parts-in"),
                           qs(part.ref),
                           {},
                           {part.ref}});
        }
    }
    for (const Step& step : kit.steps)
        out.push_back({QStringLiteral("step"),
                       qs(step.title),
                       qs(step.note),
                       qs(listed(step.fits, 200)),
                       QStringLiteral("board"),
                       qs(step.id),
                       {},
                       step.fits});
    for (const Check& check : kit.checks)
        out.push_back({QStringLiteral("check"),
                       qs(check.title),
                       qs(check.at),
                       qs(check.condition),
                       QStringLiteral("first-light"),
                       qs(check.id),
                       {},
                       partsOf(check, kit)});
    for (const Adjustment& a : kit.adjustments)
        out.push_back({QStringLiteral("adjustment"),
                       qs(a.title),
                       qs(a.adjuster),
                       QStringLiteral("tune trimmer"),
                       QStringLiteral("tune"),
                       qs(a.id),
                       {},
                       {a.adjuster}});
    return out;
}

std::vector<std::size_t> narrowed(const std::vector<Findable>& all, const QString& typed) {
    const QString text = plain(typed).simplified();
    const QStringList words = text.split(QChar(' '), Qt::SkipEmptyParts);
    std::vector<std::pair<int, std::size_t>> found;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const int w = words.isEmpty() ? 1 : worth(all[i], text, words);
        if (w > 0) found.push_back({w, i});
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<std::size_t> out;
    for (const auto& [w, i] : found) out.push_back(i);
    return out;
}

}  // namespace ombrek
