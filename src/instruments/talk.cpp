#include "instruments/talk.h"

namespace ombrek {
namespace {

constexpr int kLongest = 200;  ///< characters of a line that are kept

QString printable(const QByteArray& bytes) {
    QString out;
    for (const char c : bytes.left(kLongest)) {
        const auto byte = static_cast<unsigned char>(c);
        out += byte >= 32 && byte < 127 ? QString(QChar(byte))
                                        : QStringLiteral("\\x%1").arg(int(byte), 2, 16, QChar('0'));
    }
    return bytes.size() > kLongest ? out + QStringLiteral(" …") : out;
}

}  // namespace

void Talk::add(Who who, const QByteArray& bytes) {
    QByteArray line = bytes;
    while (line.endsWith('\n') || line.endsWith('\r')) line.chop(1);
    lines_.push_back({QDateTime::currentMSecsSinceEpoch(), who,
                      who == Who::note ? QString::fromUtf8(line) : printable(line)});
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
