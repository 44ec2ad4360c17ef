#pragma once

#include <QString>
#include <memory>

class QTextToSpeech;

namespace ombrek {

/// Says a count aloud: where the program was built with Qt's speech and the machine has a voice. Silent
/// otherwise.
class Voice {
 public:
    Voice();
    ~Voice();
    bool able() const;
    void say(const QString& words);

 private:
    std::unique_ptr<QTextToSpeech> speech_;
};

}  // namespace ombrek
