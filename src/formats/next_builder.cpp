#include "formats/next_builder.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

#include "core/text/letters.h"
#include "station/board/work.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

/// A path of a file system, "/home/…", "~/…", "C:\…".
bool namesPath(const std::string& text) {
    const auto at = [&](const char* mark) { return text.find(mark) != std::string::npos; };
    return at("/home/") || at("~/") || at(":\\") || at("file://") || at("/media/") || at("/tmp/") ||
           at("/root/") || at("/Users/") || at("@");
}

bool wordLetter(char c) {
    return std::isalnum(static_cast<unsigned char>(c)) != 0 || static_cast<unsigned char>(c) >= 128;
}

/// Whether a text has these words, not as the middle of another word.
bool names(const std::string& text, const std::string& words) {
    if (words.size() < 2) return false;
    for (std::size_t at = text.find(words); at != std::string::npos; at = text.find(words, at + 1)) {
        const bool before = at > 0 && wordLetter(text[at - 1]);
        const bool behind = at + words.size() < text.size() && wordLetter(text[at + words.size()]);
        if (!before && !behind) return true;
    }
    return false;
}

/// Texts that are written by people; the circuit is a file of its own kind.
class Cleaner {
 public:
    explicit Cleaner(const std::vector<std::string>& mine) {
        for (const std::string& words : mine) {
            mine_.push_back(lowered(words));
            // Each longer word of a name tells of its bearer as well.
            std::string word;
            for (const char c : lowered(words) + " ") {
                if (wordLetter(c)) {
                    word += c;
                } else if (const std::string whole = std::exchange(word, {}); whole.size() >= 4) {
                    mine_.push_back(whole);
                }
            }
        }
    }

    void clean(Json& value, const std::string& place) {
        if (value.is_string()) {
            const std::string text = lowered(value.get<std::string>());
            const bool own =
                std::any_of(mine_.begin(), mine_.end(), [&](const std::string& m) { return names(text, m); });
            if (!own && !namesPath(value.get<std::string>())) return;
            value = "";
            leftOut.push_back(place);
        } else if (value.is_array()) {
            std::size_t i = 0;
            for (Json& item : value) {
                const std::string called = item.is_object()
                                               ? item.value("ref", item.value("id", std::to_string(i)))
                                               : std::to_string(i);
                clean(item, place + "/" + called);
                ++i;
            }
            std::erase_if(value.get_ref<Json::array_t&>(), [](const Json& item) {
                return item.is_string() && item.get<std::string>().empty();
            });
        } else if (value.is_object()) {
            cleanObject(value, place);
        }
    }

    std::vector<std::string> leftOut;

 private:
    void cleanObject(Json& object, const std::string& place) {
        std::vector<std::string> gone;
        for (auto& [name, item] : object.items()) {
            if (name.starts_with("x-")) {  // remarks that are nobody's business
                gone.push_back(name);
                continue;
            }
            const bool text = item.is_string();
            clean(item, place + "/" + name);
            if (text && item.get<std::string>().empty()) gone.push_back(name);
        }
        for (const std::string& name : gone) object.erase(name);
    }

    std::vector<std::string> mine_;
};

/// How often something was mended at each step: findings of the loupe at the parts it fits.
std::map<std::string, int> mendedAt(const Kit& kit, const Build& build) {
    std::map<std::string, int> out;
    for (const Finding& f : build.findings) {
        for (const Step& step : kit.steps) {
            if (std::find(step.fits.begin(), step.fits.end(), f.ref) != step.fits.end()) ++out[step.id];
        }
    }
    return out;
}

}  // namespace

Result<NextBuilder> forNextBuilder(const std::string& kitText, const Kit& kit, const Build& build,
                                   const std::vector<std::string>& mine) {
    Json document = Json::parse(kitText, nullptr, false);
    if (!document.is_object()) return problem("", "The kit of this build cannot be read.");
    NextBuilder out;
    Cleaner cleaner(mine);
    cleaner.clean(document, "");
    const auto mended = mendedAt(kit, build);
    const auto took = stepMinutes(kit, build);
    for (Json& step : document["steps"]) {
        const std::string id = step.value("id", "");
        if (const auto hit = took.find(id); hit != took.end()) {
            step["taken_minutes"] = std::round(std::clamp(hit->second, 0.1, 100000.0) * 10) / 10;
            ++out.times;
        }
        if (const auto hit = mended.find(id); hit != mended.end()) step["mended"] = hit->second;
    }
    out.kitText = document.dump(2) + "\n";
    out.leftOut = std::move(cleaner.leftOut);
    return out;
}

Result<std::string> plannedByBuilderBefore(const std::string& kitText) {
    Json document = Json::parse(kitText, nullptr, false);
    if (!document.is_object()) return problem("", "The kit of this build cannot be read.");
    std::size_t times = 0;
    for (Json& step : document["steps"]) {
        const double took =
            step.is_object() && step.contains("taken_minutes") && step["taken_minutes"].is_number()
                ? step["taken_minutes"].get<double>()
                : 0;
        if (!(took > 0)) continue;
        step["minutes"] = std::clamp(took, 0.1, 1000.0);
        ++times;
    }
    if (times == 0) return problem("", "This kit does not say what a builder before you took.");
    return document.dump(2);
}

}  // namespace ombrek
