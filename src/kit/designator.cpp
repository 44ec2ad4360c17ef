#include "kit/designator.h"

#include <cctype>

namespace ombrek {

void eachWord(std::string_view text, const std::function<void(const std::string&)>& use) {
    std::string word;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        if (i < text.size() && std::isalnum(static_cast<unsigned char>(text[i]))) {
            word += text[i];
        } else if (!word.empty()) {
            use(word);
            word.clear();
        }
    }
}

bool namesPart(std::string_view text, std::string_view ref) {
    bool out = false;
    eachWord(text, [&](const std::string& word) { out = out || word == ref; });
    return out;
}

}  // namespace ombrek
