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
    bool able() const;
    void say(const QString& words);

 private:
    std::unique_ptr<QTextToSpeech> speech_;
};

}  // namespace ombrek
