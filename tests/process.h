#pragma once

#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <memory>
#include <string>

/// What a program writes to its standard output.
inline std::string outputOf(const std::string& command) {
    std::unique_ptr<FILE, int (*)(FILE*)> pipe(popen(command.c_str(), "r"), pclose);
    REQUIRE(pipe);
    std::string out;
    std::array<char, 4096> buffer;
    while (const std::size_t n = fread(buffer.data(), 1, buffer.size(), pipe.get()))
        out.append(buffer.data(), n);
    return out;
}
