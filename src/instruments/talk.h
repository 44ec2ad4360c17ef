#pragma once

#include <QDateTime>
#include <QString>
#include <deque>

namespace ombrek {

/// What was said to an instrument and heard from it, the newest lines of it.
class Talk {
 public:
    enum class Who { ombrek, instrument, note };
    struct Line {
        qint64 at = 0;  ///< milliseconds since 1970
        Who who = Who::note;
        QByteArray bytes{};  ///< as they came, without the line's end, cut at 200
        QString text;        ///< the same to be read: what cannot be printed as \xNN
    };
    /// Bytes to be read: UTF-8 where they are that, else what is not ASCII as \xNN.
    static QString printable(const QByteArray& bytes);
    void said(const QByteArray& bytes) { add(Who::ombrek, bytes); }
    void heard(const QByteArray& bytes) { add(Who::instrument, bytes); }
    void note(const QString& text) { add(Who::note, text.toUtf8()); }
    const std::deque<Line>& lines() const { return lines_; }
    /// How many there ever were: whoever shows them knows by it whether there are new ones.
    qint64 count() const { return count_; }
    /// For a report of a fault: a line each, with its time, "<" said to it, ">" heard from it.
    QString text() const;

    static constexpr std::size_t kMost = 2000;

 private:
    void add(Who who, const QByteArray& bytes);
    std::deque<Line> lines_;
    qint64 count_ = 0;
};

}  // namespace ombrek
