#pragma once

#include <sys/wait.h>

#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <nlohmann/json.hpp>
#include <string>

struct Ran {
    int code = -1;
    std::string out;
};

/// Run ombrek-cli; standard error goes with the output when `errors` is set.
inline Ran run(const std::string& arguments, bool errors = false) {
    const std::string command =
        std::string(OMBREK_CLI) + " " + arguments + (errors ? " 2>&1" : " 2>/dev/null");
    FILE* pipe = popen(command.c_str(), "r");
    REQUIRE(pipe);
    Ran ran;
    std::array<char, 4096> buffer;
    while (const std::size_t n = fread(buffer.data(), 1, buffer.size(), pipe))
        ran.out.append(buffer.data(), n);
    const int status = pclose(pipe);
    ran.code = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
    return ran;
}
