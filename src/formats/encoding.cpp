#include "formats/encoding.h"

#include <cstdint>

namespace ombrek {
namespace {

void append(std::string& out, std::uint32_t code) {
    if (code == 0) return;
    if (code < 0x80) {
        out.push_back(char(code));
    } else if (code < 0x800) {
        out.push_back(char(0xC0 | (code >> 6)));
        out.push_back(char(0x80 | (code & 0x3F)));
    } else if (code < 0x10000) {
        out.push_back(char(0xE0 | (code >> 12)));
        out.push_back(char(0x80 | ((code >> 6) & 0x3F)));
        out.push_back(char(0x80 | (code & 0x3F)));
    } else {
        out.push_back(char(0xF0 | (code >> 18)));
        out.push_back(char(0x80 | ((code >> 12) & 0x3F)));
        out.push_back(char(0x80 | ((code >> 6) & 0x3F)));
        out.push_back(char(0x80 | (code & 0x3F)));
    }
}

std::string fromUtf16(std::string_view bytes, bool bigEndian) {
    std::string out;
    const auto unit = [&](std::size_t i) {
        const auto a = std::uint32_t(static_cast<unsigned char>(bytes[i]));
        const auto b = std::uint32_t(static_cast<unsigned char>(bytes[i + 1]));
        return bigEndian ? a << 8 | b : b << 8 | a;
    };
    for (std::size_t i = 0; i + 1 < bytes.size(); i += 2) {
        std::uint32_t code = unit(i);
        if (code >= 0xD800 && code < 0xDC00 && i + 3 < bytes.size()) {
            const std::uint32_t low = unit(i + 2);
            if (low >= 0xDC00 && low < 0xE000) {
                code = 0x10000 + ((code - 0xD800) << 10) + (low - 0xDC00);
                i += 2;
            }
        }
        append(out, code >= 0xD800 && code < 0xE000 ? 0xFFFD : code);
    }
    return out;
}

/// Bytes of a valid UTF-8 character at `i`; 0 if there is none.
std::size_t characterAt(std::string_view text, std::size_t i) {
    const auto lead = static_cast<unsigned char>(text[i]);
    const std::size_t length = lead < 0x80                     ? 1
                               : (lead >= 0xC2 && lead < 0xE0) ? 2
                               : (lead >= 0xE0 && lead < 0xF0) ? 3
                               : (lead >= 0xF0 && lead < 0xF5) ? 4
                                                               : 0;
    if (length == 0 || i + length > text.size()) return 0;
    for (std::size_t k = 1; k < length; ++k) {
        if ((static_cast<unsigned char>(text[i + k]) & 0xC0) != 0x80) return 0;
    }
    const auto second = length > 1 ? static_cast<unsigned char>(text[i + 1]) : 0;
    const bool overlong = (lead == 0xE0 && second < 0xA0) || (lead == 0xF0 && second < 0x90);
    const bool outside = (lead == 0xED && second >= 0xA0) || (lead == 0xF4 && second >= 0x90);
    return overlong || outside ? 0 : length;
}

bool validUtf8(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t length = characterAt(text, i);
        if (length == 0) return false;
        i += length;
    }
    return true;
}

std::string withPlainLines(std::string_view text) {
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '\0') continue;
        if (text[i] == '\r') {
            if (i + 1 >= text.size() || text[i + 1] != '\n') out.push_back('\n');
            continue;
        }
        out.push_back(text[i] == '\f' ? '\n' : text[i]);
    }
    return out;
}

}  // namespace

std::string toUtf8(std::string_view bytes) {
    if (bytes.starts_with("\xFF\xFE")) return withPlainLines(fromUtf16(bytes.substr(2), false));
    if (bytes.starts_with("\xFE\xFF")) return withPlainLines(fromUtf16(bytes.substr(2), true));
    if (bytes.starts_with("\xEF\xBB\xBF")) bytes.remove_prefix(3);
    if (validUtf8(bytes)) return withPlainLines(bytes);
    std::string out;
    out.reserve(bytes.size() + bytes.size() / 8);
    for (const char c : bytes) append(out, static_cast<unsigned char>(c));
    return withPlainLines(out);
}

}  // namespace ombrek
