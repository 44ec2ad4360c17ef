#include "desk/person.h"

#include <QDir>
#include <QFileInfo>
#include <QSettings>

namespace ombrek::person {
namespace {

constexpr qsizetype kLongest = 4096;  ///< of a kept text; a path is no longer
constexpr qsizetype kMostTrusted = 200;
constexpr QLatin1String kTrusted("instruments/trusted");

QSettings store() { return QSettings(QStringLiteral("ombrek"), QStringLiteral("ombrek")); }

}  // namespace

QString get(const QString& key, const QString& usual) {
    const QString value = store().value(key).toString();
    return value.isEmpty() || value.size() > kLongest ? usual : value;
}

void set(const QString& key, const QString& value) { store().setValue(key, value); }

QStringList recent(const QString& key) {
    QStringList out;
    for (const QString& file : store().value(key).toStringList()) {
        if (out.size() < kRecent && file.size() < kLongest && QFileInfo(file).isFile()) out << file;
    }
    return out;
}

void remember(const QString& key, const QString& file) {
    const QString whole = QFileInfo(file).absoluteFilePath();
    QStringList all = recent(key);
    all.removeAll(whole);
    all.prepend(whole);
    store().setValue(key, QStringList(all.mid(0, kRecent)));
}

bool trusts(const QString& place) { return store().value(kTrusted).toStringList().contains(place); }

void trust(const QString& place) {
    QStringList all = store().value(kTrusted).toStringList();
    if (all.contains(place) || place.size() > kLongest) return;
    all.prepend(place);
    store().setValue(kTrusted, QStringList(all.mid(0, kMostTrusted)));
}

QString folder(const QString& purpose) {
    const QString kept = get(QStringLiteral("folder/") + purpose);
    return !kept.isEmpty() && QFileInfo(kept).isDir() ? kept : QDir::homePath();
}

void useFolder(const QString& purpose, const QString& file) {
    set(QStringLiteral("folder/") + purpose, QFileInfo(file).absolutePath());
}

}  // namespace ombrek::person
