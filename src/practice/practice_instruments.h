#pragma once

#include <optional>
#include <string>

#include "kit/instrument.h"
#include "practice/truth.h"

namespace ombrek {

/// What the practice L/C meter shows with nothing on its clips, on top of every capacitance [F].
inline constexpr double kPracticeStray = 0.6e-12;
inline constexpr double kUsualAttenuation = 30;  ///< of the practice bench until it is told another [dB]

/// A kit's text in a few letters, the same on every machine: the practice bench says it, and a window
/// compares it.
std::string practiceMark(const std::string& kitText);

/// The four instruments of the practice bench on one kit, without any sockets: a line in, perhaps a line out.
class PracticeInstruments {
 public:
    /// @param kitMark  said in *IDN?, so that a window sees which kit it is on
    explicit PracticeInstruments(PracticeTruth truth, std::string kitMark = "")
        : truth_(std::move(truth)), kitMark_(std::move(kitMark)) {}

    /// One SCPI line to one instrument. @return the answer without line end; nothing for a command
    std::optional<std::string> answer(InstrumentRole role, const std::string& line);

    /// What the clips are on.
    const Subject& subject() const { return subject_; }

 private:
    std::string measured(Unit unit, const std::string& argument);

    PracticeTruth truth_;
    std::string kitMark_;
    double attenuation_ = kUsualAttenuation;  ///< before the power meter [dB]
    Subject subject_;
    std::string error_ = "0,\"No error\"";
};

}  // namespace ombrek
