#pragma once

#include <QString>
#include <memory>

class QTextToSpeech;

namespace ombrek {

/// Says a count or a verdict aloud, by the machine's own voice. Silent where it has none.
class Voice {
 public:
    Voice();
    ~Voice();
    /// Whether this machine can speak.
    bool able() const;
    /// Speaks it, over what is being said.
    void say(const QString& words);

 private:
    std::unique_ptr<QTextToSpeech> speech_;
};

}  // namespace ombrek
