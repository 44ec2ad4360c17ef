#include "core/air/band_name.h"

#include <algorithm>
#include <cctype>

#include "core/text/letters.h"

namespace ombrek {
namespace {

struct BandName {
    std::string_view name;
    double low, high;  ///< [MHz]
};
constexpr BandName kBands[] = {{"2190m", 0.1357, 0.1378}, {"630m", 0.472, 0.479}, {"560m", 0.501, 0.504},
                               {"160m", 1.8, 2.0},        {"80m", 3.5, 4.0},      {"60m", 5.06, 5.45},
                               {"40m", 7.0, 7.3},         {"30m", 10.1, 10.15},   {"20m", 14.0, 14.35},
                               {"17m", 18.068, 18.168},   {"15m", 21.0, 21.45},   {"12m", 24.89, 24.99},
                               {"10m", 28.0, 29.7},       {"8m", 40, 45},         {"6m", 50, 54},
                               {"5m", 54.000001, 69.9},   {"4m", 70, 71},         {"2m", 144, 148},
                               {"1.25m", 222, 225},       {"70cm", 420, 450},     {"33cm", 902, 928},
                               {"23cm", 1240, 1300},      {"13cm", 2300, 2450},   {"9cm", 3300, 3500},
                               {"6cm", 5650, 5925},       {"3cm", 10000, 10500},  {"1.25cm", 24000, 24250}};

}  // namespace

std::string bandAt(double frequency) {
    for (const BandName& b : kBands) {
        if (frequency >= b.low * 1e6 && frequency <= b.high * 1e6) return std::string(b.name);
    }
    return "";
}

double middleOfBand(std::string_view name) {
    for (const BandName& b : kBands) {
        if (sameLetters(name, b.name)) return (b.low + b.high) / 2 * 1e6;
    }
    return 0;
}

}  // namespace ombrek
