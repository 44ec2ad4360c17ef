#include "formats/recording.h"

#include <sndfile.h>

#include <algorithm>
#include <memory>

namespace ombrek {
namespace {

constexpr std::size_t kMost = 3000000;  ///< samples, a minute at 48 kHz
constexpr sf_count_t kBlock = 4096;     ///< frames read at once
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
    std::vector<float> block(std::size_t(kBlock) * std::size_t(info.channels));
    Recording out;
    out.rate = info.samplerate;
    while (out.samples.size() < kMost) {
        const sf_count_t read = sf_readf_float(file.get(), block.data(), kBlock);
        if (read <= 0) break;
        for (sf_count_t i = 0; i < read; ++i) {
            float sum = 0;
            for (int c = 0; c < info.channels; ++c) sum += block[std::size_t(i * info.channels + c)];
            out.samples.push_back(sum / float(info.channels));
        }
    }
    return out;
}

}  // namespace ombrek
