#include "desk/pieces/voice.h"

#include <QLocale>
#include <QTextToSpeech>

namespace ombrek {
namespace {

/// The words are English, whatever the desktop speaks: without a word from us an engine takes the first of
/// its voices, which may be of any language.
void speakEnglish(QTextToSpeech& speech) {
    for (const QLocale& locale : speech.availableLocales()) {
        if (locale.language() == QLocale::English) return speech.setLocale(locale);
    }
}

}  // namespace

Voice::Voice() {
    // A speech service that hangs is waited for by Qt; who has one, and every test but one, does without.
    if (qEnvironmentVariableIsSet("OMBREK_SILENT")) return;
    if (!QTextToSpeech::availableEngines().isEmpty()) speech_ = std::make_unique<QTextToSpeech>();
}
Voice::~Voice() = default;
bool Voice::able() const { return speech_ && !speech_->availableVoices().isEmpty(); }

/// The language is asked for only where there are voices: an engine that is not there is waited for without
/// end.
void Voice::say(const QString& words) {
    if (!able()) return;
    if (speech_->locale().language() != QLocale::English) speakEnglish(*speech_);
    speech_->say(words);
}

}  // namespace ombrek
