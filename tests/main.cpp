#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>
#include <cstdlib>

#include "at_end.h"

std::vector<std::function<void()>>& atEnd() {
    static std::vector<std::function<void()>> acts;
    return acts;
}

/// The one main of all test programs. Windows are drawn off screen unless a platform is named: test discovery
/// starts the programs at build time, where there is no display.
int main(int argc, char** argv) {
    setenv("QT_QPA_PLATFORM", "offscreen", 0);
    const int result = Catch::Session().run(argc, argv);
    for (const auto& act : atEnd()) act();
    return result;
}
