#include "desk/pieces/tone.h"

#include <alsa/asoundlib.h>

#include <algorithm>
#include <array>
#include <atomic>
#include <cmath>
#include <cstdint>
#include <cstdlib>
#include <numbers>
#include <thread>

namespace ombrek {

struct Tone::Shared {
    std::atomic<bool> ends = false;
    std::atomic<double> hertz = 0;  ///< 0: silence
};

namespace {

constexpr unsigned kRate = 22050, kLatency = 100000;  ///< [a second], [µs]
constexpr double kLowest = 220, kOctaves = 2, kLoudness = 0.15;
constexpr std::size_t kBlock = 512;

/// What the sound system has to complain of is nobody's business: there is a tone, or none.
void quiet(const char*, int, const char*, int, const char*, ...) {}

/// Sound that hangs, or is not there, holds nobody but this thread.
template <class State>
void play(const std::shared_ptr<State>& shared) {
    snd_pcm_t* pcm = nullptr;
    if (snd_pcm_open(&pcm, "default", SND_PCM_STREAM_PLAYBACK, 0) < 0) return;
    if (snd_pcm_set_params(pcm, SND_PCM_FORMAT_S16, SND_PCM_ACCESS_RW_INTERLEAVED, 1, kRate, 1, kLatency) <
        0) {
        snd_pcm_close(pcm);
        return;
    }
    double phase = 0, loud = 0;
    std::array<std::int16_t, kBlock> block{};
    while (!shared->ends) {
        const double hertz = shared->hertz;
        for (std::int16_t& sample : block) {
            loud += ((hertz > 0 ? kLoudness : 0) - loud) * 0.002;  // no clicks
            phase = std::fmod(phase + 2 * std::numbers::pi * hertz / kRate, 2 * std::numbers::pi);
            sample = std::int16_t(32000 * loud * std::sin(phase));
        }
        const auto written = snd_pcm_writei(pcm, block.data(), block.size());
        if (written < 0 && snd_pcm_recover(pcm, int(written), 1) < 0) break;
    }
    snd_pcm_close(pcm);
}

}  // namespace

Tone::Tone() : shared_(std::make_shared<Shared>()) {
    if (std::getenv("OMBREK_SILENT") != nullptr) return;
    snd_lib_error_set_handler(quiet);
    std::thread([shared = shared_] { play(shared); }).detach();
}

Tone::~Tone() { shared_->ends = true; }

void Tone::follow(double share) {
    shared_->hertz = kLowest * std::exp2(kOctaves * std::clamp(std::isnan(share) ? 0.0 : share, 0.0, 1.0));
}

}  // namespace ombrek
