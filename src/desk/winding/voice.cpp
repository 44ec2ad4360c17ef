#include "desk/winding/voice.h"

#ifdef OMBREK_SPEECH
#include <QTextToSpeech>
#endif

namespace ombrek {

#ifdef OMBREK_SPEECH

Voice::Voice() {
    if (!QTextToSpeech::availableEngines().isEmpty()) speech_ = std::make_unique<QTextToSpeech>();
}
Voice::~Voice() = default;
bool Voice::able() const { return speech_ && !speech_->availableVoices().isEmpty(); }
void Voice::say(const QString& words) {
    if (able()) speech_->say(words);
}

#else

}  // namespace ombrek

class QTextToSpeech {};

namespace ombrek {

Voice::Voice() = default;
Voice::~Voice() = default;
bool Voice::able() const { return false; }
void Voice::say(const QString&) {}

#endif

}  // namespace ombrek
