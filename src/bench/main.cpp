#include <CLI/CLI.hpp>
#include <QCoreApplication>
#include <cstdio>

#include "bench/bench_server.h"
#include "bench/practice_kit.h"
#include "formats/files.h"

using namespace ombrek;

namespace {

int refuse(const Problem& problem) {
    std::fprintf(stderr, "ombrek-bench: %s\n", problem.text().c_str());
    return 1;
}

}  // namespace

/// The practice bench: four SCPI instruments on 127.0.0.1 that probe the practice kit.
int main(int argc, char** argv) {
    CLI::App options{
        "The practice bench: a multimeter, an L/C meter, a counter and a power meter that speak SCPI on "
        "127.0.0.1 and "
        "probe the practice kit."};
    quint16 port = 5925;
    options.add_option("--port", port, "first of four ports; 0 lets the system choose")
        ->capture_default_str();
    CLI11_PARSE(options, argc, argv);

    QCoreApplication application(argc, argv);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error());
    auto practice = readPracticeKit(dataFolder(), *tables);
    if (!practice) return refuse(practice.error());
    BenchServer server(
        PracticeInstruments(PracticeTruth(std::move(practice->kit), std::move(practice->bag))));
    if (const auto ready = server.listen(port); !ready) return refuse(ready.error());
    for (const InstrumentRole role : kInstrumentRoles) {
        std::printf("%.*s 127.0.0.1:%d\n", int(name(role).size()), name(role).data(), server.port(role));
    }
    std::fflush(stdout);
    return QCoreApplication::exec();
}
