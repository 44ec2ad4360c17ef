#pragma once

#include <QByteArray>
#include <QString>

namespace ombrek {

/// Asked for the word below.
inline constexpr const char* kKeyQuestion = "SIM:KEY?";

/// A word by which a practice bench proves itself: it is drawn anew for each bench and stands in a file that
/// only this user can read. What else listens on the bench's port cannot know it.
class BenchKey {
 public:
    BenchKey() = default;
    /// Draw one for a bench whose first port is this. @return false: the file could not be written
    bool drawFor(quint16 firstPort);
    ~BenchKey();
    BenchKey(const BenchKey&) = delete;
    BenchKey& operator=(const BenchKey&) = delete;
    const QByteArray& word() const { return word_; }

 private:
    QString file_;
    QByteArray word_;
};

/// The word of the bench that began last at a port; empty where none did.
QByteArray benchKeyAt(quint16 firstPort);

}  // namespace ombrek
