#include "instruments/talk.h"

namespace ombrek {
namespace {

constexpr int kLongestTalk = 200;  ///< characters of a line that are kept

QString escaped(int byte) { return QStringLiteral("\\x%1").arg(byte, 2, 16, QChar('0')); }

}  // namespace

QString Talk::printable(const QByteArray& bytes) {
    const QString text = QString::fromUtf8(bytes);
    QString out;
    if (text.contains(QChar::ReplacementCharacter)) {
        for (const char c : bytes) {
            const auto byte = static_cast<unsigned char>(c);
            out += byte >= 32 && byte < 127 ? QString(QChar(byte)) : escaped(byte);
        }
        return out;
    }
    for (const QChar c : text)
        out += c.isPrint() || c.isSurrogate() ? QString(c) : escaped(c.unicode() & 0xff);
    return out;
}

void Talk::add(Who who, const QByteArray& bytes) {
    QByteArray line = bytes;
    while (line.endsWith('\n') || line.endsWith('\r')) line.chop(1);
    const bool cut = line.size() > kLongestTalk && who != Who::note;
    if (cut) line.truncate(kLongestTalk);
    lines_.push_back({QDateTime::currentMSecsSinceEpoch(), who, line,
                      printable(line) + (cut ? QStringLiteral(" …") : QString())});
    if (lines_.size() > kMost) lines_.pop_front();
    ++count_;
}

QString Talk::text() const {
    QString out;
    for (const Line& line : lines_) {
        const char* mark = line.who == Who::ombrek ? "<" : line.who == Who::instrument ? ">" : "-";
        out += QDateTime::fromMSecsSinceEpoch(line.at).toString(QStringLiteral("HH:mm:ss.zzz")) +
               QStringLiteral(" %1 %2\n").arg(QString::fromUtf8(mark), line.text);
    }
    return out;
}

}  // namespace ombrek
