#include <unistd.h>
#include <CLI/CLI.hpp>

#include <QCoreApplication>
#include <QSocketNotifier>
#include <cstdio>
#include <random>

#include "formats/files.h"
#include "formats/kit_json.h"
#include "practice/bench_server.h"
#include "practice/practice_kit.h"

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
    std::string kitFile;
    std::vector<std::string> faults;
    bool untilClosed = false;
    options.add_option("--kit", kitFile, "kit file to be on; the practice kit if none is given");
    options.add_option(
        "--fault", faults,
        "a fault of its circuit to seed, \"R62 open\"; \"lot\" draws one, and says it to nobody");
    options.add_flag("--until-stdin-closes", untilClosed,
                     "end when standard input ends, as it does with the program that started this one");
    options.add_option("--port", port, "first of four ports; 0 lets the system choose")
        ->capture_default_str();
    CLI11_PARSE(options, argc, argv);

    QCoreApplication application(argc, argv);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error());
    auto practice = readPracticeKit(dataFolder(), *tables);
    if (!practice) return refuse(practice.error());
    if (!kitFile.empty()) {
        auto own = readKitFile(kitFile, tables->cores);
        if (!own) return refuse(own.error());
        if (own->kit.id != practice->kit.id) practice->bag = bagOf(dataFolder(), own->kit.id, own->text);
        practice->kit = std::move(own->kit);
        practice->text = std::move(own->text);
    }
    for (const std::string& fault : faults) {
        PracticeCircuit circuit(practice->kit, [](const std::string&) { return 0.0; });
        const auto all = circuit.faults();
        if (fault == "lot" && !all.empty()) {
            const Fault& drawn = all[std::random_device()() % all.size()];
            practice->bag.faults.push_back(drawn.ref + " " + drawn.what);
        } else if (circuit.seed(fault)) {
            practice->bag.faults.push_back(fault);
        } else {
            return refuse({"--fault", circuit.there()
                                          ? "The circuit knows no fault \"" + fault.substr(0, 60) +
                                                "\"; one is \"" + all.front().ref + " " + all.front().what +
                                                "\"."
                                          : "This kit comes without a circuit, or libngspice is not "
                                            "installed."});
        }
    }
    const std::string mark = practiceMark(practice->text);
    BenchServer server(
        PracticeInstruments(PracticeTruth(std::move(practice->kit), std::move(practice->bag)), mark));
    QSocketNotifier input(0, QSocketNotifier::Read);
    input.setEnabled(untilClosed);
    QObject::connect(&input, &QSocketNotifier::activated, &application, [] {
        char ignored[256];
        if (::read(0, ignored, sizeof ignored) <= 0) QCoreApplication::quit();
    });
    if (const auto ready = server.listen(port); !ready) return refuse(ready.error());
    for (const InstrumentRole role : kInstrumentRoles) {
        std::printf("%.*s 127.0.0.1:%d\n", int(word(role).size()), word(role).data(), server.port(role));
    }
    std::fflush(stdout);
    return QCoreApplication::exec();
}
