#include <catch2/catch.hpp>
#include <cstdio>
#include <fstream>
#include <iterator>
#include <regex>
#include <set>

// The man pages and the completion that are installed say what the programs say of themselves.

namespace {

std::string run(const std::string& command) {
    std::string out;
    FILE* pipe = popen((command + " 2>/dev/null").c_str(), "r");
    REQUIRE(pipe != nullptr);
    char buffer[4096];
    while (const std::size_t got = std::fread(buffer, 1, sizeof buffer, pipe)) out.append(buffer, got);
    pclose(pipe);
    return out;
}

std::string text(const std::string& file) {
    std::ifstream in(OMBREK_DOCS "/../packaging/" + file);
    REQUIRE(in);
    return {std::istreambuf_iterator<char>(in), {}};
}

/// Names at the beginning of the lines below "Subcommands:".
std::set<std::string> commandsOf(const std::string& help) {
    std::set<std::string> out;
    const std::string below = help.substr(help.find("Subcommands:"));
    const std::regex name("\n  ([a-z]+) ");
    for (std::sregex_iterator at(below.begin(), below.end(), name), end; at != end; ++at)
        out.insert((*at)[1]);
    return out;
}

std::set<std::string> optionsOf(const std::string& help) {
    std::set<std::string> out;
    const std::regex name("--([a-z][a-z-]*)");
    for (std::sregex_iterator at(help.begin(), help.end(), name), end; at != end; ++at) out.insert((*at)[1]);
    return out;
}

std::string plain(std::string man) { return std::regex_replace(man, std::regex("\\\\-"), "-"); }

}  // namespace

TEST_CASE("every command of ombrek-cli stands in its man page and its completion, and no other") {
    const auto commands = commandsOf(run(OMBREK_CLI " --help"));
    CHECK(commands.size() >= 16);
    const std::string man = text("man/ombrek-cli.1");
    std::set<std::string> described;
    const std::regex name("\n\\.B ([a-z]+)\n");
    for (std::sregex_iterator at(man.begin(), man.end(), name), end; at != end; ++at)
        described.insert((*at)[1]);
    CHECK(described == commands);
    const std::string completion = text("ombrek-cli.bash");
    std::smatch list;
    REQUIRE(std::regex_search(completion, list, std::regex("commands=\"([a-z ]+)\"")));
    std::set<std::string> completed;
    const std::string words = list[1];
    const std::regex word("[a-z]+");
    for (std::sregex_iterator at(words.begin(), words.end(), word), end; at != end; ++at)
        completed.insert(at->str());
    CHECK(completed == commands);
}

TEST_CASE("every option of ombrek-bench and ombrek stands in its man page") {
    for (const auto& [program, page] :
         {std::pair{OMBREK_BENCH, "man/ombrek-bench.1"}, std::pair{OMBREK_WINDOW, "man/ombrek.1"}}) {
        const auto options = optionsOf(run(std::string(program) + " --help"));
        CHECK(options.size() >= 4);
        const std::string man = plain(text(page));
        for (const std::string& option : options) {
            INFO(page << ": " << option);
            CHECK(man.find("--" + option) != std::string::npos);
        }
    }
}
