#include "station/said.h"

#include <cctype>

#include "core/text/letters.h"

namespace ombrek {
namespace {

bool digitAt(std::string_view text, std::size_t at) {
    return at < text.size() && std::isdigit(static_cast<unsigned char>(text[at])) != 0;
}

bool blank(char c) { return std::isspace(static_cast<unsigned char>(c)) != 0; }

}  // namespace

std::vector<std::string> thingsSaid(std::string_view text) {
    std::vector<std::string> out;
    std::string thing;
    const auto end = [&] {
        std::string bare(trimmed(thing));
        if (bare.ends_with('.')) bare.pop_back();  // the sentence's own
        if (!bare.empty()) out.push_back(std::move(bare));
        thing.clear();
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        const bool decimal = c == ',' && i > 0 && digitAt(text, i - 1) && digitAt(text, i + 1);
        if (c == ';' || c == '\n' || (c == ',' && !decimal))
            end();
        else
            thing += c;
    }
    end();
    return out;
}

std::vector<std::string> wordsSaid(std::string_view text) {
    std::vector<std::string> out;
    std::string word;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        if (i < text.size() && !blank(text[i])) {
            word += text[i];
        } else if (!word.empty()) {
            out.push_back(word);
            word.clear();
        }
    }
    return out;
}

}  // namespace ombrek
