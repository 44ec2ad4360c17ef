#include <cmath>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "folder.h"
#include "run_cli.h"

using namespace ombrek;
using nlohmann::json;

namespace {

const Folder& folder() {
    static const Folder made;
    return made;
}

std::string traceFile(double second, double third) {
    const auto file = folder() / "trace.csv";
    std::ofstream out(file);
    out << "Frequency (MHz),Level (dBm)\n";
    for (int i = 0; i <= 4000; ++i) {
        const double f = 1 + 0.02 * i;
        const auto line = [&](double at, double level) {
            return std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - at) / 0.04, 2));
        };
        const double noise = std::pow(10, (-90 + (i * 37) % 5) / 10.0);
        out << f << ","
            << 10 * std::log10(noise + line(21.06, 5) + line(42.12, 5 - second) + line(63.18, 5 - third))
            << "\n";
    }
    return file.string();
}

json asked(const std::string& command) {
    const Ran ran = run(command + " --json");
    INFO(ran.out);
    return json::parse(ran.out);
}

}  // namespace

TEST_CASE("spectrum: harmonics named, held against a profile: what is wrong with the question is said") {
    const json clean =
        asked("spectrum " + traceFile(55, 60) + " --carrier 21.06M --power 3 --profile us-below-30");
    CHECK(clean["verdict"] == "pass");
    CHECK(clean["carrier"]["frequency_hz"] == Approx(21.06e6).margin(20e3));
    REQUIRE(clean["peaks"].size() == 2);
    CHECK(clean["peaks"][0]["name"] == "harmonic 2");
    CHECK(clean["peaks"][0]["below_db"].get<double>() == Approx(55).margin(1));
    CHECK(clean["peaks"][0]["required_db"] == 43);
    CHECK(clean["peaks"][1]["verdict"] == "pass");
    const json dirty =
        asked("spectrum " + traceFile(35, 60) + " --carrier 21.06M --power 3 --profile us-below-30");
    CHECK(dirty["verdict"] == "fail");
    CHECK(asked("spectrum " + traceFile(55, 60) + " --carrier 21.06M")["verdict"] == "cannot tell");
    CHECK(run("spectrum " + traceFile(55, 60) + " --profile nobody", true).code == 2);
    CHECK(run("spectrum " + traceFile(55, 60) + " --oscillator VFO=x", true).code == 2);
    CHECK(run("spectrum /nowhere.csv", true).code == 2);
    const auto empty = folder() / "empty.csv";
    std::ofstream(empty) << "nothing\n";
    CHECK(run("spectrum " + empty.string() + " --json").code == 2);
}

TEST_CASE("power: watts with a budget, by each way: a missing figure is said") {
    const json scope = asked("power --method peak-to-peak --volts 44.72 --load 50");
    CHECK(scope["watts"].get<double>() == Approx(5).epsilon(1e-3));
    CHECK(scope["u"].get<double>() > 0);
    double squares = 0;
    for (const json& line : scope["budget"]) squares += std::pow(line["u_watts"].get<double>(), 2);
    CHECK(std::sqrt(squares) == Approx(scope["u"].get<double>()));
    const json level = asked("power --method analyser --dbm 6.92 --attenuation 30");
    CHECK(level["watts"].get<double>() == Approx(4.92).epsilon(1e-3));
    const json low = asked("power --method attenuator --dbm -3.08 --attenuation 40");
    CHECK(low["watts"].get<double>() == Approx(4.92).epsilon(1e-3));
    CHECK(asked("power --method wattmeter --watts 10 --full-scale 10")["at_least"] == true);
    CHECK(run("power --method peak-to-peak", true).code == 2);
    CHECK(run("power --method guess --volts 3", true).code == 2);
    CHECK(run("power --method analyser --dbm loud", true).code == 2);
    CHECK(run("power --volts 3", true).code != 0);
}

TEST_CASE("spectrum: a second trace tells the analyser's own, a narrow one its hum") {
    const std::string hot = traceFile(40, 62);
    const auto cool = folder() / "cool.csv";
    std::filesystem::copy_file(hot, folder() / "hot.csv", std::filesystem::copy_options::overwrite_existing);
    std::filesystem::rename(traceFile(52, 62), cool);
    const json out = asked("spectrum " + (folder() / "hot.csv").string() +
                           " --carrier 21.06M --power 3 --again " + cool.string());
    REQUIRE(out.at("analyser_own").size() == 1);
    CHECK(out["analyser_own"][0]["name"] == "harmonic 2");
    const auto narrow = folder() / "narrow.csv";
    std::ofstream close(narrow);
    close.precision(12);
    close << "Frequency (Hz),Level (dBm)\n";
    for (int i = -150; i <= 150; ++i) {
        const double f = 2.0 * i;
        const auto line = [&](double at, double level) {
            return std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - at) / 6, 2));
        };
        close << std::fixed << 7.03e6 + f << ","
              << 10 * std::log10(1e-9 + line(0, 0) + line(120, -37) + line(-120, -37)) << "\n";
    }
    close.close();
    const json hum = asked("spectrum " + narrow.string() + " --carrier 7.03M --close-in cw");
    CHECK(hum.at("hum_below_db").get<double>() == Approx(37).margin(0.5));
    CHECK(hum.at("lines")[0].at("name") == "hum, 120\u202fHz");
    CHECK(hum.at("verdict") == "doubtful");
    CHECK(run("spectrum " + narrow.string() + " --close-in usb --json").code == 2);
    CHECK(run("spectrum " + narrow.string() + " --carrier 7.03M --close-in warble --json").code == 2);
}
