#include "formats/adif.h"

#include <unicode/translit.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <memory>
#include <pugixml.hpp>
#include <sstream>

#include "core/text/letters.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr std::string_view kWhole = "APP_OMBREK_WHOLE_";  ///< a value that is no ASCII, percent-coded

bool blank(char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n' || c == '\0'; }

/// A tag, "<CALL:6:S>" or "<EOR>", as it stands in the text.
struct Tag {
    std::string name;   ///< in capitals
    bool data = false;  ///< it has a length
    std::size_t length = 0;
    std::size_t from = 0, end = 0;  ///< of the text
};

bool nameLetter(char c) {
    return std::isalnum(static_cast<unsigned char>(c)) || c == '_' || c == '-' || c == '.';
}

/// The tag that begins at this place; nothing when it is no tag.
bool tagAt(std::string_view text, std::size_t at, Tag& out) {
    constexpr std::size_t kLongest = 100;
    if (at >= text.size() || text[at] != '<') return false;
    const std::size_t close = text.substr(at, kLongest).find('>');
    if (close == std::string_view::npos) return false;
    const std::string_view inside = trimmed(text.substr(at + 1, close - 1));
    const std::size_t colon = inside.find(':');
    const std::string_view name = trimmed(inside.substr(0, colon));
    if (name.empty() || !std::all_of(name.begin(), name.end(), nameLetter)) return false;
    out = {uppered(name), false, 0, at, at + close + 1};
    if (colon == std::string_view::npos) return out.name == "EOR" || out.name == "EOH";
    std::string_view length = trimmed(inside.substr(colon + 1));
    length = trimmed(length.substr(0, length.find(':')));
    const auto read = std::from_chars(length.data(), length.data() + length.size(), out.length);
    out.data = read.ec == std::errc{} && read.ptr == length.data() + length.size();
    return out.data;
}

/// The first tag at or after a place, within a part of the text. @return whether there is one
bool nextTag(std::string_view text, std::size_t from, Tag& out) {
    for (std::size_t at = text.find('<', from); at != std::string_view::npos; at = text.find('<', at + 1)) {
        if (tagAt(text, at, out)) return true;
    }
    return false;
}

/// Fields whose value may be any text, also one with brackets in it.
bool isProse(std::string_view name) {
    for (const char* prose : {"COMMENT", "NOTES", "QSLMSG", "ADDRESS", "NAME", "QTH", "RIG", "APP_"}) {
        if (name.find(prose) != std::string_view::npos) return true;
    }
    return false;
}

std::size_t letters(std::string_view utf8) {
    return std::size_t(std::count_if(utf8.begin(), utf8.end(),
                                     [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

/// Where a value ends. The length that is said is believed where a tag, the end or a blank follows it; else
/// the value goes to the next tag.
struct Cut {
    std::size_t end;
    bool right;
};
Cut cutOf(std::string_view text, const Tag& tag) {
    const std::size_t said = tag.end + tag.length;
    const std::size_t room = text.size() - tag.end;
    Tag inside, after;
    if (tag.length <= room) {
        const bool broken = nextTag(text.substr(0, said), tag.end, inside) && !isProse(tag.name);
        std::size_t next = said;
        while (next < text.size() && blank(text[next])) ++next;
        const bool follows = next == text.size() || tagAt(text, next, after);
        if (!broken && (follows || next > said || tag.length == 0)) return {said, true};
    }
    std::size_t end = nextTag(text, tag.end, after) ? after.from : text.size();
    while (end > tag.end && blank(text[end - 1])) --end;
    const bool inLetters = letters(text.substr(tag.end, end - tag.end)) == tag.length;
    return {end, inLetters};
}

/// Bytes before a place, as a line number that goes on from the last one.
class Lines {
 public:
    explicit Lines(std::string_view text) : text_(text) {}
    std::size_t at(std::size_t place) {
        line_ += std::size_t(
            std::count(text_.begin() + std::ptrdiff_t(seen_), text_.begin() + std::ptrdiff_t(place), '\n'));
        seen_ = place;
        return line_;
    }

 private:
    std::string_view text_;
    std::size_t seen_ = 0, line_ = 1;
};

std::string percentCoded(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (std::isalnum(static_cast<unsigned char>(c)) && static_cast<unsigned char>(c) < 128) {
            out += c;
        } else {
            char hex[4];
            std::snprintf(hex, sizeof hex, "%%%02X", static_cast<unsigned char>(c));
            out += hex;
        }
    }
    return out;
}

std::string percentDecoded(const std::string& text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        unsigned value = 0;
        const bool coded =
            text[i] == '%' && i + 2 < text.size() &&
            std::from_chars(text.data() + i + 1, text.data() + i + 3, value, 16).ptr == text.data() + i + 3;
        out += coded ? char(value) : text[i];
        if (coded) i += 2;
    }
    return out;
}

/// Values that were written beside their ASCII come back whole.
void makeWhole(AdifRecord& record) {
    const auto fields = record.fields;
    for (const auto& [name, value] : fields) {
        if (!name.starts_with(kWhole)) continue;
        for (auto& [other, text] : record.fields) {
            if (other == name.substr(kWhole.size())) text = toUtf8(percentDecoded(value));
        }
    }
    std::erase_if(record.fields, [](const auto& f) { return f.first.starts_with(kWhole); });
}

void keepRecord(AdifFile& out, AdifRecord& record) {
    makeWhole(record);
    if (!record.fields.empty()) out.records.push_back(std::move(record));
    record = {};
}

/// Where the records begin: behind the header's end, where there is a header.
std::size_t afterHeader(std::string_view text) {
    Tag tag;
    std::size_t first = 0;
    while (first < text.size() && blank(text[first])) ++first;
    if (tagAt(text, first, tag) && tag.name == "CALL") return first;
    for (std::size_t at = 0; nextTag(text, at, tag);) {
        if (tag.name == "EOH") return tag.end;
        if (tag.name == "EOR") return 0;
        at = tag.data ? std::max(tag.end, cutOf(text, tag).end) : tag.end;
    }
    return 0;
}

bool ofHeader(std::string_view name) {
    return name == "ADIF_VER" || name == "PROGRAMID" || name == "PROGRAMVERSION" ||
           name == "CREATED_TIMESTAMP" || name.starts_with("USERDEF");
}

Result<AdifFile> readAdi(std::string_view text, const Progress& progress) {
    AdifFile out;
    Lines lines(text);
    AdifRecord record;
    Tag tag;
    std::size_t tags = 0;
    for (std::size_t at = afterHeader(text); nextTag(text, at, tag); ++tags) {
        if (progress && tags % 4096 == 0 && !progress(double(at) / double(text.size())))
            return problem("", "Stopped; nothing was taken in.");
        at = tag.end;
        if (!tag.data) {
            if (tag.name == "EOR") keepRecord(out, record);
            continue;
        }
        const Cut cut = cutOf(text, tag);
        at = cut.end;
        if (ofHeader(tag.name)) continue;
        const std::size_t line = lines.at(tag.from);
        if (record.fields.empty()) record.line = line;
        const std::string value = toUtf8(text.substr(tag.end, cut.end - tag.end));
        if (!cut.right)
            out.doubts.push_back({line, tag.name,
                                  "The length of " + tag.name + " is not that of its value; \"" +
                                      value.substr(0, 40) + "\" was read."});
        record.add(tag.name, std::string(trimmed(value)));
    }
    if (!record.value("CALL").empty()) {
        out.doubts.push_back(
            {record.line, "EOR", "The last record has no end; it was read as far as it goes."});
        keepRecord(out, record);
    }
    if (tags == 0) return problem("", "This is no ADIF log: it has no field as <CALL:6>.");
    return out;
}

/// The field a child of a record stands for.
std::string fieldOf(const pugi::xml_node& node) {
    const std::string name = uppered(node.name());
    const std::string field = uppered(node.attribute("FIELDNAME").value());
    if (name == "APP") return "APP_" + uppered(node.attribute("PROGRAMID").value()) + "_" + field;
    return name == "USERDEF" ? field : name;
}

Result<AdifFile> readAdx(const std::string& bytes, const Progress& progress) {
    pugi::xml_document document;
    const auto read = document.load_buffer(bytes.data(), bytes.size());
    AdifFile out;
    const pugi::xml_node root = document.first_child();
    const pugi::xml_node records =
        root.find_child([](const pugi::xml_node& n) { return uppered(n.name()) == "RECORDS"; });
    if (uppered(root.name()) != "ADX" || !records)
        return problem("", "This is no ADIF log: it has no RECORDS within ADX.");
    for (const pugi::xml_node& node : records.children()) {
        if (progress && out.records.size() % 4096 == 0 && !progress(0.5))
            return problem("", "Stopped; nothing was taken in.");
        AdifRecord record;
        const auto offset =
            std::min(std::size_t(std::max<std::ptrdiff_t>(node.offset_debug(), 0)), bytes.size());
        record.line =
            out.records.size() < 1000  // counting is dear; what is far down is told by its number
                ? 1 + std::size_t(std::count(bytes.begin(), bytes.begin() + std::ptrdiff_t(offset), '\n'))
                : 0;
        for (const pugi::xml_node& field : node.children()) {
            if (field.type() == pugi::node_element)
                record.add(fieldOf(field), std::string(trimmed(field.child_value())));
        }
        keepRecord(out, record);
    }
    if (!read)
        out.doubts.push_back({0, "ADX",
                              std::string("The file is not whole (") + read.description() +
                                  "); it was read as far as it goes."});
    return out;
}

bool isUtf16(std::string_view bytes) {
    return bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF") ||
           (bytes.size() > 3 && bytes[0] == '<' && bytes[1] == '\0');
}

std::string nearestAscii(const std::string& text) {
    static const std::unique_ptr<icu::Transliterator> fold = [] {
        UErrorCode error = U_ZERO_ERROR;
        return std::unique_ptr<icu::Transliterator>(icu::Transliterator::createInstance(
            icu::UnicodeString("Any-Latin; Latin-ASCII"), UTRANS_FORWARD, error));
    }();
    icu::UnicodeString unicode = icu::UnicodeString::fromUTF8(text);
    if (fold) fold->transliterate(unicode);
    std::string utf8, out;
    unicode.toUTF8String(utf8);
    for (const char c : utf8) {
        if (static_cast<unsigned char>(c) < 128) out += c;
    }
    return out;
}

bool isAscii(std::string_view text) {
    return std::all_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 128; });
}

/// ADIF ends a line within a value by CR and LF.
std::string withLineEnds(const std::string& text) {
    std::string out;
    for (const char c : text) out += c == '\n' ? std::string("\r\n") : std::string(1, c);
    return out;
}

void put(std::string& out, const std::string& name, const std::string& value) {
    out += "<" + name + ":" + std::to_string(value.size()) + ">" + value + " ";
}

}  // namespace

std::string AdifRecord::value(std::string_view name) const {
    const auto hit =
        std::find_if(fields.begin(), fields.end(), [&](const auto& f) { return f.first == name; });
    return hit == fields.end() ? std::string() : hit->second;
}

void AdifRecord::add(std::string name, std::string value) {
    if (!value.empty()) fields.emplace_back(std::move(name), std::move(value));
}

Result<AdifFile> readAdif(const std::string& bytes, const Progress& progress) {
    const bool wide = isUtf16(bytes);
    const std::string turned = wide ? toUtf8(bytes) : std::string();
    std::string_view text = wide ? std::string_view(turned) : std::string_view(bytes);
    if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
    constexpr std::size_t kHead = 4096;
    const std::string start = uppered(trimmed(text.substr(0, kHead)));
    if (start.starts_with("<?XML") || start.find("<ADX") != std::string::npos)
        return readAdx(wide ? turned : bytes, progress);
    return readAdi(text, progress);
}

std::string adifDate(std::int64_t at) {
    using namespace std::chrono;
    const year_month_day day{floor<days>(sys_seconds(seconds(at)))};
    char out[16];
    std::snprintf(out, sizeof out, "%04d%02u%02u", int(day.year()), unsigned(day.month()),
                  unsigned(day.day()));
    return out;
}

std::string adifTime(std::int64_t at) {
    const std::int64_t second = ((at % 86400) + 86400) % 86400;
    char out[16];
    std::snprintf(out, sizeof out, "%02d%02d%02d", int(second / 3600), int(second / 60 % 60),
                  int(second % 60));
    return out;
}

std::string writeAdi(const std::vector<AdifRecord>& records, std::int64_t now) {
    std::string out = "A station's log, written by Ombrek.\n";
    put(out, "ADIF_VER", "3.1.4");
    put(out, "PROGRAMID", "Ombrek");
    put(out, "CREATED_TIMESTAMP", adifDate(now) + " " + adifTime(now));
    out += "<EOH>\n";
    for (const AdifRecord& record : records) {
        for (const auto& [name, value] : record.fields) {
            const bool ascii = isAscii(value);
            put(out, name, withLineEnds(ascii ? value : nearestAscii(value)));
            if (!ascii) put(out, std::string(kWhole) + name, percentCoded(value));
        }
        out += "<EOR>\n";
    }
    return out;
}

std::string writeAdx(const std::vector<AdifRecord>& records, std::int64_t now) {
    pugi::xml_document document;
    auto declaration = document.append_child(pugi::node_declaration);
    declaration.append_attribute("version") = "1.0";
    declaration.append_attribute("encoding") = "UTF-8";
    pugi::xml_node root = document.append_child("ADX");
    pugi::xml_node header = root.append_child("HEADER");
    header.append_child("ADIF_VER").text() = "3.1.4";
    header.append_child("PROGRAMID").text() = "Ombrek";
    header.append_child("CREATED_TIMESTAMP").text() = (adifDate(now) + " " + adifTime(now)).c_str();
    pugi::xml_node all = root.append_child("RECORDS");
    for (const AdifRecord& record : records) {
        pugi::xml_node node = all.append_child("RECORD");
        for (const auto& [name, value] : record.fields) {
            const std::size_t second = name.find('_', 4);
            if (name.starts_with("APP_") && second != std::string::npos) {
                pugi::xml_node field = node.append_child("APP");
                field.append_attribute("PROGRAMID") = name.substr(4, second - 4).c_str();
                field.append_attribute("FIELDNAME") = name.substr(second + 1).c_str();
                field.append_attribute("TYPE") = "S";
                field.text() = value.c_str();
            } else if (std::isdigit(static_cast<unsigned char>(name[0])) ||
                       name.find('.') != std::string::npos || name[0] == '-') {
                pugi::xml_node field = node.append_child("USERDEF");
                field.append_attribute("FIELDNAME") = name.c_str();
                field.text() = value.c_str();
            } else {
                node.append_child(name.c_str()).text() = value.c_str();
            }
        }
    }
    std::ostringstream out;
    document.save(out, " ");
    return out.str();
}

}  // namespace ombrek
