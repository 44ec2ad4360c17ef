#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>
#include <cstdlib>

/// The one main of all test programs. Windows are drawn off screen unless a platform is named: test discovery
/// starts the programs at build time, where there is no display.
int main(int argc, char** argv) {
    setenv("QT_QPA_PLATFORM", "offscreen", 0);
    return Catch::Session().run(argc, argv);
}
