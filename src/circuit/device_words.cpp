#include "circuit/device_words.h"

namespace ombrek {
namespace {

// Source: the parameter tables of the SPICE 3 user's manual (diode, bipolar, JFET, MOSFET level 1, switch),
// with the names by which netlists of later simulators write the same ("cj0", "m", "vj").
constexpr std::string_view kDiode =
    " level is js rs n tt cjo cj0 cj vj pb m mj eg xti kf af fc bv ibv nbv nz tnom ikf ik isr nr jsw trs ";
constexpr std::string_view kBipolar =
    " level is bf nf vaf va ikf ik jbf ise c2 ne br nr var vb ikr jbr isc c4 nc rb irb rbm re rc cje vje pe "
    "mje me tf xtf vtf "
    "itf ptf cjc vjc pc mjc mc xcjc tr cjs ccs vjs ps mjs ms xtb eg xti kf af fc tnom iss ns ";
constexpr std::string_view kJunction =
    " level vto vt0 beta lambda rd rs cgs cgd pb is b kf af fc tnom tcv bex n ";
constexpr std::string_view kMos =
    " level vto vt0 kp gamma phi lambda rd rs cbd cbs is pb cgso cgdo cgbo rsh cj mj cjsw mjsw js tox nsub "
    "nss nfs tpg xj "
    "ld uo u0 ucrit uexp utra vmax neff kf af fc delta theta eta kappa tnom w l ";
constexpr std::string_view kSwitch = " vt vh ron roff ";

constexpr DeviceKind kKinds[] = {{"d", 'd', kDiode},      {"npn", 'q', kBipolar},  {"pnp", 'q', kBipolar},
                                 {"njf", 'j', kJunction}, {"pjf", 'j', kJunction}, {"nmos", 'm', kMos},
                                 {"pmos", 'm', kMos},     {"sw", 's', kSwitch}};

constexpr std::string_view kNotes =
    " mfg mfr type vpk ipk iave irms diss vds vgs vceo vcbo vebo icrating ron qg vds_max ";
constexpr std::string_view kAtRest =
    " ic temp dtemp tc tc1 tc2 noisy tol pwr v cpar lser ipk irms mfg pn type ";

bool in(std::string_view list, const std::string& word) {
    return !word.empty() && word.find(' ') == std::string::npos &&
           list.find(' ' + word + ' ') != std::string_view::npos;
}

}  // namespace

bool DeviceKind::knows(const std::string& parameter) const { return in(parameters, parameter); }

const DeviceKind* deviceKind(const std::string& word) {
    for (const DeviceKind& kind : kKinds) {
        if (kind.name == word) return &kind;
    }
    return nullptr;
}

bool noteOfMaker(const std::string& parameter) { return in(kNotes, parameter); }

bool nothingAtRest(const std::string& parameter) { return in(kAtRest, parameter); }

}  // namespace ombrek
