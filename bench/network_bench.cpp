#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "core/circuit/network.h"
#include "core/circuit/prototype.h"
#include "core/proof/low_pass.h"
#include "formats/trace_csv.h"
#include "timing.h"

// The sixth station's reckoning: a sweep against a circuit simulator and against numpy, ten thousand filters,
// a trace of a million points.

using namespace ombrek;

namespace {

std::vector<FilterPart> seven() {
    const auto g = chebyshev(7, 0.1);
    const double w = 2 * 3.14159265358979 * 8.2e6;
    std::vector<FilterPart> out;
    for (std::size_t i = 0; i < g.size(); ++i) {
        FilterPart p;
        const bool coil = i % 2 == 1;
        p.element = {coil ? LadderElement::Kind::seriesL : LadderElement::Kind::shuntC,
                     coil ? g[i] * 50 / w : g[i] / (50 * w)};
        out.push_back(p);
    }
    return out;
}

void netlist(const std::string& file, const std::vector<FilterPart>& filter) {
    std::ofstream out(file);
    out.precision(12);
    out << "seven\nV1 s 0 AC 2\nRs s n0 50\n";
    int node = 0;
    for (std::size_t i = 0; i < filter.size(); ++i) {
        const bool coil = filter[i].coil();
        out << (coil ? "L" : "C") << i << " n" << node << (coil ? " n" + std::to_string(node + 1) : " 0")
            << " " << filter[i].element.value << "\n";
        node += coil;
    }
    out << "Rl n" << node << " 0 50\n.ac lin 2001 1meg 100meg\n.print ac v(n" << node << ")\n.end\n";
}

/// numpy's own way: chain matrices of all frequencies multiplied, timed inside python.
constexpr const char* kNumpy = R"PY(
import sys, time
import numpy as np
values = [float(v) for v in sys.argv[1:]]
f = np.linspace(1e6, 100e6, 2001)
def sweep():
    w = 2j * np.pi * f
    m = np.zeros((2001, 2, 2), complex); m[:, 0, 0] = m[:, 1, 1] = 1
    for i, v in enumerate(values):
        e = np.zeros((2001, 2, 2), complex); e[:, 0, 0] = e[:, 1, 1] = 1
        if i % 2: e[:, 0, 1] = w * v
        else: e[:, 1, 0] = w * v
        m = m @ e
    s21 = 2 / (m[:, 0, 0] + m[:, 0, 1] / 50 + m[:, 1, 0] * 50 + m[:, 1, 1])
    return -20 * np.log10(np.abs(s21))
best = 1e9
for _ in range(30):
    start = time.perf_counter(); loss = sweep(); best = min(best, time.perf_counter() - start)
print(best * 1e3, loss[1000])
)PY";

}  // namespace

int main() {
    const auto filter = seven();
    const auto frequencies = frequenciesFrom(1e6, 100e6, 2001);
    const auto elements = elementsOf(filter);
    std::vector<double> loss(frequencies.size());
    LadderSweep s;
    const double ours = milliseconds(
        [&] {
            sweepInto(s, elements, frequencies, 50, 50);
            for (std::size_t k = 0; k < loss.size(); ++k) loss[k] = s.loss(k);
        },
        200);
    const auto folder = std::filesystem::temp_directory_path() / "ombrek-network-bench";
    std::filesystem::create_directories(folder);
    const std::string file = (folder / "seven.cir").string();
    netlist(file, filter);
    const double simulator =
        milliseconds([&] { (void)!std::system(("ngspice -b " + file + " >/dev/null 2>&1").c_str()); }, 5);
    std::ofstream(folder / "seven.py") << kNumpy;
    std::string command = "/usr/bin/python3 " + (folder / "seven.py").string();
    for (const auto& e : elements) command += " " + std::to_string(e.value * 1e12) + "e-12";
    double numpy = 0, middle = 0;
    if (FILE* pipe = popen(command.c_str(), "r")) {
        (void)!std::fscanf(pipe, "%lf %lf", &numpy, &middle);
        pclose(pipe);
    }
    std::printf(
        "a sweep of 2,001 points of 7 elements %.4f ms; ngspice as a process %.1f ms: %.0f times (200 "
        "wanted); "
        "numpy %.3f ms: %.1f times (20 wanted); they agree to %.1e dB\n",
        ours, simulator, simulator / ours, numpy, numpy / ours, std::abs(middle - loss[1000]));

    FilterQuestion q;
    q.carrier = 7.03e6;
    const auto drawn = frequenciesFrom(1e6, 50e6, 201, true);
    tell("1,000 and 10,000 filters of 201 points",
         milliseconds([&] { (void)toleranceBand(filter, q, drawn, 1000, 1); }),
         milliseconds([&] { (void)toleranceBand(filter, q, drawn, 10000, 1); }), 200);

    const auto trace = [](int points) {
        std::string out = "Frequency (Hz),Level (dBm)\n";
        char line[64];
        for (int i = 0; i < points; ++i) {
            const double f = 1e6 + 1e8 * i / points;
            const double level = -90 + (i * 37 % 5) + (i == points / 5 ? 85 : 0);
            out.append(line, std::size_t(std::snprintf(line, sizeof line, "%.1f,%.2f\n", f, level)));
        }
        return out;
    };
    const std::string small = trace(10000), large = trace(1000000);
    const auto open = [&](const std::string& bytes) {
        SpectrumQuestion question;
        question.carrier = 21e6;
        question.watts = 5;
        (void)judgeSpectrum(readTrace(bytes, question.carrier).value(), question);
    };
    tell("a trace of 10,000 and of 1,000,000 points opened", milliseconds([&] { open(small); }, 3),
         milliseconds([&] { open(large); }, 3), 1000);
    std::filesystem::remove_all(folder);
    return 0;
}
