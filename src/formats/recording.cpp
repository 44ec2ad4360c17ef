#include "formats/recording.h"

#include <sndfile.h>

#include <algorithm>
#include <memory>

namespace ombrek {
namespace {

constexpr double kMostSeconds = 60;
constexpr int kMostRate = 400000, kMostChannels = 16;

struct Close {
    void operator()(SNDFILE* file) const { sf_close(file); }
};

}  // namespace

Result<Recording> readRecording(const std::filesystem::path& path) {
    SF_INFO info{};
    const std::unique_ptr<SNDFILE, Close> file(sf_open(path.c_str(), SFM_READ, &info));
    const std::string name = path.filename().string();
    if (!file) return problem(name, "This is no recording that can be read; a WAV file is.");
    if (info.samplerate < 1 || info.samplerate > kMostRate || info.channels < 1 ||
        info.channels > kMostChannels)
        return problem(name, "This recording has a rate or channels that cannot be.");
    const auto frames = sf_count_t(kMostSeconds * info.samplerate);
    std::vector<float> all(std::size_t(frames) * std::size_t(info.channels));
    const sf_count_t read = sf_readf_float(file.get(), all.data(), frames);
    Recording out;
    out.rate = info.samplerate;
    for (sf_count_t i = 0; i < read; ++i) {
        float sum = 0;
        for (int c = 0; c < info.channels; ++c) sum += all[std::size_t(i * info.channels + c)];
        out.samples.push_back(sum / float(info.channels));
    }
    return out;
}

}  // namespace ombrek
