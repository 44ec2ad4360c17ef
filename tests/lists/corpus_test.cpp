#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <map>
#include <sstream>

#include "lists/parts_list.h"

using namespace ombrek;

namespace {

std::string bytesOf(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

/// One row of a truth: designators, kind, value in SI or words, fitted, turns; parted by tabs.
struct Truth {
    std::string ref, kind, value;
    bool fitted = true;
    int turns = 0;
};

std::vector<Truth> truthOf(const std::filesystem::path& path) {
    std::vector<Truth> out;
    std::istringstream rows(bytesOf(path));
    for (std::string row; std::getline(rows, row);) {
        std::istringstream cells(row);
        std::string refs, kind, value, fitted, turns;
        std::getline(cells, refs, '\t');
        std::getline(cells, kind, '\t');
        std::getline(cells, value, '\t');
        std::getline(cells, fitted, '\t');
        std::getline(cells, turns, '\t');
        std::istringstream each(refs);
        for (std::string ref; each >> ref;)
            out.push_back({ref, kind, value, fitted == "yes", turns.empty() ? 0 : std::stoi(turns)});
    }
    return out;
}

/// Decimal commas as points, to compare words.
std::string pointed(std::string text) {
    std::replace(text.begin(), text.end(), ',', '.');
    return text;
}

bool right(const ListLine& line, const Truth& truth, const PartsList& list) {
    if (word(line.kind) != truth.kind || line.fitted != truth.fitted) return false;
    char* end = nullptr;
    const double nominal = std::strtod(truth.value.c_str(), &end);
    const bool number = unitOf(line.kind) != Unit::none && end != truth.value.c_str();
    if (number) return std::fabs(line.nominal / nominal - 1) < 1e-6;
    if (truth.turns > 0) {
        return std::any_of(list.coils.begin(), list.coils.end(), [&](const ListCoil& coil) {
            return coil.ref == truth.ref && coil.core == truth.value.substr(0, truth.value.find(',')) &&
                   coil.windings.size() == 1 && coil.windings[0].turns == truth.turns;
        });
    }
    // Sockets and switches are translated in the lists; what they are is the kind's to say.
    const bool translated = truth.kind == "other" || truth.value == "LED";
    return translated || pointed(line.value).find(pointed(truth.value)) != std::string::npos;
}

struct Score {
    int all = 0, right = 0, silent = 0, doubted = 0, lines = 0;
};

Score scoreOf(const std::filesystem::path& file) {
    Score out;
    const auto source = readPartsList(bytesOf(file));
    REQUIRE(source);
    std::map<std::string, std::vector<const ListLine*>> lines;
    for (const ListLine& line : source->list.lines) {
        for (const std::string& ref : line.refs) lines[ref].push_back(&line);
    }
    std::filesystem::path truthFile = file;
    for (const Truth& truth : truthOf(truthFile.replace_extension(".truth"))) {
        ++out.all;
        const auto& said = lines[truth.ref];
        const bool good = said.size() == 1 && right(*said.front(), truth, source->list);
        out.right += good;
        if (!good) UNSCOPED_INFO(file.filename().string() << ": " << truth.ref << " " << truth.value);
        out.silent += !good && (said.empty() || said.front()->sure());
    }
    out.lines = int(source->list.lines.size());
    out.doubted = source->list.doubtful();
    return out;
}

}  // namespace

TEST_CASE("made-up lists in sixteen styles and five languages are read right, none silently wrong") {
    Score sum;
    int files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(OMBREK_LISTS) + "/corpus")) {
        if (entry.path().extension() == ".truth") continue;
        const Score one = scoreOf(entry.path());
        ++files;
        CAPTURE(entry.path().filename().string());
        CHECK(one.silent == 0);
        sum.all += one.all;
        sum.right += one.right;
        sum.lines += one.lines;
        sum.doubted += one.doubted;
    }
    CHECK(files >= 40);
    INFO(sum.right << " of " << sum.all << " designators, " << sum.doubted << " of " << sum.lines
                   << " lines doubted");
    CHECK(sum.right >= 0.98 * sum.all);
    // A doubt that is not needed costs the builder a look.
    CHECK(sum.doubted <= 0.05 * sum.lines);
}
