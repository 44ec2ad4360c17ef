#include "lists/kind_evidence.h"

#include <algorithm>
#include <unordered_map>
#include <vector>

#include "core/text/letters.h"

namespace ombrek {
namespace {

using K = PartKind;

struct LetterRow {
    std::string_view letters;
    K first;
    double weight;
    K second = K::other;
    double secondWeight = 0;
};
// Common practice; IEC 60617 and older national letters side by side.
constexpr LetterRow kLetters[] = {{"R", K::resistor, 3},
                                  {"RN", K::resistor, 2.5, K::other, 1},
                                  {"RA", K::resistor, 2.5},
                                  {"RS", K::resistor, 2.5},
                                  {"RV", K::trimmer, 3},
                                  {"VR", K::trimmer, 2.5, K::ic, 1},
                                  {"RP", K::trimmer, 3},
                                  {"POT", K::trimmer, 3},
                                  {"TRIM", K::trimmer, 3},
                                  {"C", K::capacitor, 3},
                                  {"CE", K::capacitor, 2.5},
                                  {"CX", K::capacitor, 2.5},
                                  {"CV", K::trimmer, 3},
                                  {"VC", K::trimmer, 3},
                                  {"CT", K::trimmer, 3},
                                  {"TC", K::trimmer, 3},
                                  {"L", K::coil, 2, K::inductor, 2},
                                  {"RFC", K::inductor, 3, K::coil, 2},
                                  {"CH", K::inductor, 3, K::coil, 1.5},
                                  {"DR", K::inductor, 3, K::coil, 1.5},
                                  {"FB", K::other, 3, K::inductor, 1},
                                  {"FL", K::other, 2.5, K::crystal, 1},
                                  {"T", K::coil, 2, K::transistor, 1.9},
                                  {"TR", K::transistor, 2, K::coil, 1.9},
                                  {"D", K::diode, 3},
                                  {"LED", K::diode, 4},
                                  {"ZD", K::diode, 3},
                                  {"DZ", K::diode, 3},
                                  {"CR", K::diode, 3},
                                  {"VD", K::diode, 3},
                                  {"GL", K::diode, 3},
                                  {"BR", K::diode, 2.5},
                                  {"DS", K::diode, 2, K::other, 1},
                                  {"HL", K::diode, 2, K::other, 1},
                                  {"Q", K::transistor, 3},
                                  {"VT", K::transistor, 3},
                                  {"FET", K::transistor, 3},
                                  {"U", K::ic, 3},
                                  {"IC", K::ic, 3.5},
                                  {"DA", K::ic, 2.5},
                                  {"DD", K::ic, 2.5},
                                  {"VREG", K::ic, 3},
                                  {"REG", K::ic, 2.5},
                                  {"Y", K::crystal, 3},
                                  {"X", K::crystal, 2, K::other, 1.9},
                                  {"XT", K::crystal, 3},
                                  {"XTAL", K::crystal, 4},
                                  {"XL", K::crystal, 3},
                                  {"ZQ", K::crystal, 3},
                                  {"XU", K::other, 3},
                                  {"XS", K::other, 3},
                                  {"XP", K::other, 3},
                                  {"P", K::other, 2, K::trimmer, 1.9},
                                  {"TP", K::other, 3},
                                  {"J", K::other, 3},
                                  {"JP", K::other, 3},
                                  {"JK", K::other, 3},
                                  {"CN", K::other, 3},
                                  {"CON", K::other, 3},
                                  {"CONN", K::other, 3},
                                  {"BU", K::other, 3},
                                  {"ST", K::other, 3},
                                  {"SV", K::other, 3},
                                  {"SL", K::other, 3},
                                  {"K", K::other, 3},
                                  {"KL", K::other, 3},
                                  {"RL", K::other, 3},
                                  {"RE", K::other, 3},
                                  {"REL", K::other, 3},
                                  {"RY", K::other, 3},
                                  {"RLY", K::other, 3},
                                  {"S", K::other, 3},
                                  {"SW", K::other, 3},
                                  {"SA", K::other, 3},
                                  {"PB", K::other, 3},
                                  {"F", K::other, 3},
                                  {"SI", K::other, 3},
                                  {"M", K::other, 3},
                                  {"MP", K::other, 3},
                                  {"MK", K::other, 3},
                                  {"MIC", K::other, 3},
                                  {"BT", K::other, 3},
                                  {"BAT", K::other, 3},
                                  {"B", K::other, 2},
                                  {"BZ", K::other, 3},
                                  {"LS", K::other, 3},
                                  {"SP", K::other, 3},
                                  {"SPK", K::other, 3},
                                  {"H", K::other, 3},
                                  {"HW", K::other, 3},
                                  {"HS", K::other, 3},
                                  {"W", K::other, 3},
                                  {"JMP", K::other, 3},
                                  {"LCD", K::other, 4},
                                  {"DISP", K::other, 4},
                                  {"PCB", K::other, 4},
                                  {"ANT", K::other, 3},
                                  {"A", K::other, 2},
                                  {"E", K::other, 2},
                                  {"G", K::other, 2},
                                  {"N", K::other, 1.5},
                                  {"Z", K::other, 1.5},
                                  {"SK", K::other, 3},
                                  {"PL", K::other, 3},
                                  {"ENC", K::other, 3},
                                  {"MOD", K::other, 3},
                                  {"FD", K::other, 3},
                                  {"FID", K::other, 3},
                                  {"NT", K::other, 3},
                                  {"TH", K::other, 3},
                                  {"NTC", K::other, 3},
                                  {"OK", K::ic, 3},
                                  {"OC", K::ic, 3}};

struct WordRow {
    std::string_view word;  ///< lower case, singular; ends with '*': any word that begins so
    K kind;
    double weight = 4;
};
constexpr WordRow kWords[] = {
    {"trimmer", K::trimmer, 5},
    {"trimpot*", K::trimmer, 6},
    {"trimmpoti*", K::trimmer, 6},
    {"trimmkond*", K::trimmer, 6},
    {"trimcap", K::trimmer, 6},
    {"trim", K::trimmer, 2},
    {"variable", K::trimmer, 5},
    {"varicon", K::trimmer, 6},
    {"polyvaricon", K::trimmer, 6},
    {"drehko*", K::trimmer, 6},
    {"preset", K::trimmer, 5},
    {"ajustable", K::trimmer, 5},
    {"\u534a\u56fa\u5b9a\u62b5\u6297*", K::trimmer, 6},
    {"\u30c8\u30ea\u30de*", K::trimmer, 6},
    {"\u30d0\u30ea\u30b3\u30f3*", K::trimmer, 6},
    {"\u043f\u043e\u0434\u0441\u0442\u0440\u043e\u0435\u0447\u043d*", K::trimmer, 6},
    {"cermet", K::trimmer, 2},
    {"potentiometer", K::other, 6},
    {"potentiometre", K::other, 6},
    {"potentiomètre", K::other, 6},
    {"potenciómetro", K::other, 6},
    {"potenciometro", K::other, 6},
    {"potenziometro", K::other, 6},
    {"pot", K::other, 5},
    {"poti", K::other, 5},
    {"varistor", K::other, 7},
    {"thermistor", K::other, 5},
    {"ntc", K::other, 4},
    {"ptc", K::other, 4},
    {"bead", K::other, 6},
    {"ferritebead*", K::other, 7},
    {"ferrite_bead*", K::other, 7},
    {"ferritperle*", K::other, 6},
    {"dämpfungsperle*", K::other, 6},
    {"perle", K::other, 5},
    {"socket", K::other},
    {"connector", K::other},
    {"conn", K::other},
    {"header", K::other},
    {"pinheader", K::other},
    {"plug", K::other},
    {"jack", K::other},
    {"bnc", K::other},
    {"terminal", K::other},
    {"screw", K::other},
    {"schraubklemme*", K::other},
    {"klemme*", K::other},
    {"buchse*", K::other},
    {"stecker*", K::other},
    {"stiftleiste*", K::other},
    {"buchsenleiste*", K::other},
    {"wannenstecker*", K::other},
    {"fassung*", K::other},
    {"ic-fassung*", K::other, 6},
    {"sockel*", K::other},
    {"connecteur", K::other},
    {"bornier", K::other},
    {"prise", K::other},
    {"embase", K::other},
    {"conector", K::other},
    {"connettore", K::other},
    {"zócalo", K::other},
    {"switch", K::other},
    {"schalter*", K::other},
    {"taster*", K::other},
    {"drehschalter", K::other},
    {"interrupteur", K::other},
    {"commutateur", K::other},
    {"interruptor", K::other},
    {"conmutador", K::other},
    {"pulsador", K::other},
    {"button", K::other},
    {"pushbutton", K::other},
    {"relay", K::other, 5},
    {"relais", K::other, 5},
    {"relé", K::other, 5},
    {"rele", K::other, 5},
    {"relay-*", K::other, 5},
    {"fuse", K::other},
    {"fuseholder", K::other},
    {"sicherung*", K::other},
    {"fusible", K::other},
    {"lamp", K::other},
    {"battery", K::other},
    {"batterie*", K::other},
    {"speaker", K::other},
    {"loudspeaker", K::other},
    {"lautsprecher", K::other},
    {"buzzer", K::other},
    {"microphone", K::other},
    {"display", K::other},
    {"lcd", K::other, 5},
    {"oled", K::other, 5},
    {"encoder", K::other},
    {"jumper", K::other},
    {"drahtbrücke*", K::other},
    {"testpoint", K::other},
    {"knob", K::other},
    {"spacer", K::other},
    {"heatsink", K::other},
    {"kühlkörper", K::other},
    {"hole", K::other, 3},
    {"crystal", K::crystal},
    {"xtal", K::crystal},
    {"quartz", K::crystal},
    {"quarz*", K::crystal},
    {"cristal", K::crystal},
    {"cristallo", K::crystal},
    {"cuarzo", K::crystal},
    {"kristal", K::crystal},
    {"resonator", K::crystal},
    {"résonateur", K::crystal},
    {"resonador", K::crystal},
    {"oscillator", K::crystal, 3},
    {"tcxo", K::crystal, 4},
    {"toroid", K::coil, 5},
    {"toroidal", K::coil, 5},
    {"ringkern*", K::coil, 5},
    {"tore", K::coil, 5},
    {"toroide", K::coil, 5},
    {"turn", K::coil, 4},
    {"windung*", K::coil, 4},
    {"wdg", K::coil, 4},
    {"spire", K::coil, 4},
    {"tour", K::coil, 3},
    {"vuelta", K::coil, 4},
    {"espira", K::coil, 4},
    {"coil", K::coil, 3},
    {"spule", K::coil, 3},
    {"bobine", K::coil, 3},
    {"bobina", K::coil, 3},
    {"binocular", K::coil, 5},
    {"transformer", K::coil, 5},
    {"xfmr", K::coil, 5},
    {"xformer", K::coil, 5},
    {"transformator", K::coil, 5},
    {"trafo", K::coil, 5},
    {"übertrager", K::coil, 5},
    {"transfo", K::coil, 5},
    {"transformateur", K::coil, 5},
    {"transformador", K::coil, 5},
    {"trasformatore", K::coil, 5},
    {"balun", K::coil, 5},
    {"bifilar", K::coil, 5},
    {"bifilaire", K::coil, 5},
    {"trifilar", K::coil, 5},
    {"npn", K::transistor, 5},
    {"pnp", K::transistor, 5},
    {"fet", K::transistor},
    {"jfet", K::transistor, 5},
    {"mosfet", K::transistor, 5},
    {"nmos", K::transistor},
    {"pmos", K::transistor},
    {"n-channel", K::transistor},
    {"p-channel", K::transistor},
    {"bjt", K::transistor},
    {"darlington", K::transistor},
    {"transistor*", K::transistor, 5},
    {"regulator", K::ic},
    {"spannungsregler", K::ic, 5},
    {"festspannungsregler", K::ic, 5},
    {"régulateur", K::ic, 5},
    {"regulador", K::ic, 5},
    {"regolatore", K::ic, 5},
    {"mixer", K::ic, 3},
    {"mischer", K::ic, 3},
    {"amplifier", K::ic, 3},
    {"verstärker", K::ic, 3},
    {"opamp", K::ic, 5},
    {"op-amp", K::ic, 5},
    {"microcontroller", K::ic, 5},
    {"mikrocontroller", K::ic, 5},
    {"mcu", K::ic, 5},
    {"optocoupler", K::ic, 5},
    {"optokoppler", K::ic, 5},
    {"timer", K::ic, 3},
    {"led", K::diode, 4},
    {"diode*", K::diode, 5},
    {"diodo", K::diode, 5},
    {"leuchtdiode", K::diode, 5},
    {"kapazitätsdiode", K::diode, 5},
    {"gleichrichter", K::diode, 5},
    {"rectifier", K::diode, 4},
    {"redresseur", K::diode, 4},
    {"varactor", K::diode, 5},
    {"varicap", K::diode, 5},
    {"zener", K::diode, 5},
    {"z-diode", K::diode, 5},
    {"schottky", K::diode, 4},
    {"choke", K::inductor, 4},
    {"inductor", K::inductor, 4},
    {"inductance", K::inductor, 4},
    {"inductancia", K::inductor, 4},
    {"induttanza", K::inductor, 4},
    {"ind", K::inductor, 4},
    {"self", K::inductor, 3},
    {"drossel", K::inductor, 4},
    {"festinduktivität*", K::inductor, 5},
    {"induktivität*", K::inductor, 4},
    {"resistor", K::resistor},
    {"res", K::resistor},
    {"resistance", K::resistor, 3},
    {"résistance", K::resistor},
    {"resistencia", K::resistor},
    {"resistenza", K::resistor},
    {"resistore", K::resistor},
    {"weerstand", K::resistor},
    {"widerstand*", K::resistor},
    {"widerstände", K::resistor},
    {"schichtwiderstand", K::resistor},
    {"metallschicht*", K::resistor, 3},
    {"kohleschicht*", K::resistor, 3},
    {"capacitor", K::capacitor},
    {"cap", K::capacitor},
    {"kondensator*", K::capacitor},
    {"condensateur", K::capacitor},
    {"condensador", K::capacitor},
    {"condensatore", K::capacitor},
    {"condensator", K::capacitor},
    {"kerko", K::capacitor},
    {"elko", K::capacitor},
    {"folko", K::capacitor},
    {"electrolytic", K::capacitor, 3},
    {"electro", K::capacitor, 3},
    {"elco", K::capacitor, 4},
    {"mica", K::capacitor, 3},
    {"mylar", K::capacitor, 3},
    {"elektrolyt*", K::capacitor, 3},
    {"électrolytique", K::capacitor, 3},
    {"chimique", K::capacitor, 3},
    {"electrolítico", K::capacitor, 3},
    {"elettrolitico", K::capacitor, 3},
    {"tantal", K::capacitor, 3},
    {"tantalum", K::capacitor, 3},
    {"tantale", K::capacitor, 3},
    {"keramik*", K::capacitor, 2},
    {"ceramic", K::capacitor, 2},
    {"mlcc", K::capacitor, 3},
    {"styroflex", K::capacitor, 3},
    {"polystyrene", K::capacitor, 3},
    {"polyester", K::capacitor, 3},
    {"mkt", K::capacitor, 3},
    {"mks", K::capacitor, 3},
    {"fkp", K::capacitor, 3},
    {"np0", K::capacitor, 3},
    {"npo", K::capacitor, 3},
    {"c0g", K::capacitor, 3},
    {"cog", K::capacitor, 3},
    {"x7r", K::capacitor, 3},
    {"x5r", K::capacitor, 3},
    {"y5v", K::capacitor, 3},
    {"z5u", K::capacitor, 3}};

/// A register's or a maker's letters before the number.
struct TypeRow {
    std::string_view letters;  ///< capitals
    K kind;
};
// JEDEC's and Pro Electron's registers, JIS C 7012, and the usual letters of monolithic circuits (from
// memory).
constexpr TypeRow kTypes[] = {{"1N", K::diode},        {"2N", K::transistor},   {"3N", K::transistor},
                              {"4N", K::ic},           {"6N", K::ic},           {"1S", K::diode},
                              {"1SS", K::diode},       {"2SA", K::transistor},  {"2SB", K::transistor},
                              {"2SC", K::transistor},  {"2SD", K::transistor},  {"2SJ", K::transistor},
                              {"2SK", K::transistor},  {"3SK", K::transistor},  {"AA", K::diode},
                              {"BA", K::diode},        {"BAR", K::diode},       {"BAS", K::diode},
                              {"BAT", K::diode},       {"BAV", K::diode},       {"BAW", K::diode},
                              {"BB", K::diode},        {"BBY", K::diode},       {"BY", K::diode},
                              {"BYV", K::diode},       {"BYW", K::diode},       {"BZV", K::diode},
                              {"BZX", K::diode},       {"ZPD", K::diode},       {"ZPY", K::diode},
                              {"ZMM", K::diode},       {"ZD", K::diode},        {"OA", K::diode},
                              {"UF", K::diode},        {"MBR", K::diode},       {"MBRS", K::diode},
                              {"MUR", K::diode},       {"SMAJ", K::diode},      {"SMBJ", K::diode},
                              {"LL", K::diode},        {"SB", K::diode},        {"SS", K::diode},
                              {"AC", K::transistor},   {"AF", K::transistor},   {"BC", K::transistor},
                              {"BCP", K::transistor},  {"BCX", K::transistor},  {"BCW", K::transistor},
                              {"BCV", K::transistor},  {"BD", K::transistor},   {"BF", K::transistor},
                              {"BFG", K::transistor},  {"BFQ", K::transistor},  {"BFR", K::transistor},
                              {"BFS", K::transistor},  {"BFY", K::transistor},  {"BS", K::transistor},
                              {"BSS", K::transistor},  {"BSX", K::transistor},  {"BSY", K::transistor},
                              {"BU", K::transistor},   {"BUZ", K::transistor},  {"MPF", K::transistor},
                              {"MPS", K::transistor},  {"MPSA", K::transistor}, {"MPSH", K::transistor},
                              {"MMBT", K::transistor}, {"MMBF", K::transistor}, {"PN", K::transistor},
                              {"IRF", K::transistor},  {"IRFZ", K::transistor}, {"IRFR", K::transistor},
                              {"IRL", K::transistor},  {"IRLZ", K::transistor}, {"IRLML", K::transistor},
                              {"RD", K::transistor},   {"MRF", K::transistor},  {"TIP", K::transistor},
                              {"MJE", K::transistor},  {"MJ", K::transistor},   {"VN", K::transistor},
                              {"ZTX", K::transistor},  {"FZT", K::transistor},  {"ZVN", K::transistor},
                              {"ZVP", K::transistor},  {"FDN", K::transistor},  {"FDS", K::transistor},
                              {"PMV", K::transistor},  {"KSP", K::transistor},  {"DTC", K::transistor},
                              {"PBSS", K::transistor}, {"LM", K::ic},           {"NE", K::ic},
                              {"SA", K::ic},           {"SE", K::ic},           {"TL", K::ic},
                              {"TLC", K::ic},          {"TLV", K::ic},          {"TPS", K::ic},
                              {"MC", K::ic},           {"CD", K::ic},           {"HEF", K::ic},
                              {"HCF", K::ic},          {"SN", K::ic},           {"LF", K::ic},
                              {"OPA", K::ic},          {"AD", K::ic},           {"ADA", K::ic},
                              {"AMS", K::ic},          {"MAX", K::ic},          {"TDA", K::ic},
                              {"TBA", K::ic},          {"TCA", K::ic},          {"UA", K::ic},
                              {"UPC", K::ic},          {"ULN", K::ic},          {"UDN", K::ic},
                              {"LT", K::ic},           {"LTC", K::ic},          {"ATMEGA", K::ic},
                              {"ATTINY", K::ic},       {"ATSAM", K::ic},        {"PIC", K::ic},
                              {"STM", K::ic},          {"LPC", K::ic},          {"LP", K::ic},
                              {"MCP", K::ic},          {"PCF", K::ic},          {"PCA", K::ic},
                              {"INA", K::ic},          {"FST", K::ic},          {"FT", K::ic},
                              {"ICL", K::ic},          {"ICM", K::ic},          {"CNY", K::ic},
                              {"PC", K::ic},           {"MOC", K::ic},          {"DS", K::ic},
                              {"AT", K::ic},           {"RC", K::ic},           {"SI", K::ic},
                              {"XC", K::ic},           {"HT", K::ic},           {"M74HC", K::ic},
                              {"SSM", K::ic},          {"THS", K::ic},          {"MIC", K::ic},
                              {"NCP", K::ic},          {"NJM", K::ic},          {"ESP", K::ic},
                              {"CNC", K::ic},          {"EPM", K::ic},          {"TEA", K::ic},
                              {"TLE", K::ic},          {"NTE", K::transistor},  {"DB", K::other},
                              {"PJ", K::other},        {"HD", K::ic},           {"BTS", K::transistor}};

struct PackageRow {
    std::string_view text;  ///< capitals; ends with '#': a number follows; with '*': anything may
    K kind = K::other;
    double weight = 0;
};
constexpr PackageRow kPackages[] = {{"TO#", K::transistor, 1.5},
                                    {"SOT#", K::transistor, 1},
                                    {"SC70#", K::ic, 0},
                                    {"SO#", K::ic, 2},
                                    {"SOIC#", K::ic, 2},
                                    {"SOP#", K::ic, 2},
                                    {"SOJ#", K::ic, 2},
                                    {"SSOP#", K::ic, 2},
                                    {"TSSOP#", K::ic, 2},
                                    {"MSOP#", K::ic, 2},
                                    {"QFN#", K::ic, 2},
                                    {"DFN#", K::ic, 1},
                                    {"QFP#", K::ic, 2},
                                    {"TQFP#", K::ic, 2},
                                    {"LQFP#", K::ic, 2},
                                    {"PLCC#", K::ic, 2},
                                    {"BGA#", K::ic, 2},
                                    {"DIP#", K::ic, 1.5},
                                    {"DIL#", K::ic, 1.5},
                                    {"PDIP#", K::ic, 2},
                                    {"SIL#", K::other, 1},
                                    {"SIP#", K::other, 0},
                                    {"SOD#", K::diode, 2},
                                    {"DO#", K::diode, 2},
                                    {"MELF*", K::other, 0},
                                    {"MINIMELF", K::diode, 1},
                                    {"HC49*", K::crystal, 3},
                                    {"HC-49*", K::crystal, 3},
                                    {"HC18*", K::crystal, 3},
                                    {"HC-18*", K::crystal, 3},
                                    {"AXIAL*", K::other, 0},
                                    {"RADIAL*", K::other, 0},
                                    {"SMD*", K::other, 0},
                                    {"THT", K::other, 0},
                                    {"TH", K::other, 0},
                                    {"DIN0204*", K::resistor, 1.5},
                                    {"DIN0207*", K::resistor, 1.5},
                                    {"R_*", K::resistor, 2.5},
                                    {"RES_*", K::resistor, 2.5},
                                    {"RESC*", K::resistor, 2.5},
                                    {"RESAD*", K::resistor, 2.5},
                                    {"C_*", K::capacitor, 2.5},
                                    {"CP_*", K::capacitor, 2.5},
                                    {"CAP_*", K::capacitor, 2.5},
                                    {"CAPC*", K::capacitor, 2.5},
                                    {"CAPPR*", K::capacitor, 2.5},
                                    {"CAPRD*", K::capacitor, 2.5},
                                    {"L_*", K::inductor, 2.5},
                                    {"INDC*", K::inductor, 2.5},
                                    {"D_*", K::diode, 2.5},
                                    {"LED_*", K::diode, 3},
                                    {"DIOM*", K::diode, 2.5},
                                    {"CRYSTAL*", K::crystal, 3},
                                    {"XTAL*", K::crystal, 3},
                                    {"OSC*", K::crystal, 2},
                                    {"PINHEADER*", K::other, 4},
                                    {"PINHD*", K::other, 4},
                                    {"PIN_HEADER*", K::other, 4},
                                    {"CONN*", K::other, 4},
                                    {"CON*", K::other, 4},
                                    {"HEADER*", K::other, 4},
                                    {"JST*", K::other, 4},
                                    {"DSUB*", K::other, 4},
                                    {"SUB-D*", K::other, 4},
                                    {"D-SUB*", K::other, 4},
                                    {"USB*", K::other, 4},
                                    {"BNC*", K::other, 4},
                                    {"TERMINALBLOCK*", K::other, 4},
                                    {"TESTPOINT*", K::other, 4},
                                    {"MOUNTINGHOLE*", K::other, 4},
                                    {"FIDUCIAL*", K::other, 4},
                                    {"POTENTIOMETER*", K::trimmer, 4},
                                    {"RELAY*", K::other, 4},
                                    {"SW_*", K::other, 4},
                                    {"FUSE*", K::other, 4},
                                    {"ACY#", K::other, 0},
                                    {"RCY#", K::other, 0},
                                    {"RAD#", K::other, 0},
                                    {"RM#", K::other, 0},
                                    {"SMA", K::other, 0},
                                    {"SMB", K::other, 0},
                                    {"SMC", K::other, 0}};
constexpr std::string_view kChips[] = {"0201", "0402", "0603", "0805", "1008", "1206", "1210",
                                       "1812", "2010", "2512", "0612", "2220", "0207", "0204"};

std::string capitals(std::string_view text) {
    std::string out(text);
    for (char& c : out) {
        if (c >= 'a' && c <= 'z') c = char(c - 'a' + 'A');
    }
    return out;
}

KindEvidence single(K kind, double weight) {
    KindEvidence out;
    out[kind] = weight;
    return out;
}

bool matches(std::string_view pattern, std::string_view text) {
    if (pattern.ends_with('*')) return text.starts_with(pattern.substr(0, pattern.size() - 1));
    if (!pattern.ends_with('#')) return text == pattern;
    pattern.remove_suffix(1);
    if (!text.starts_with(pattern)) return false;
    text.remove_prefix(pattern.size());
    if (text.starts_with('-') || text.starts_with('_')) text.remove_prefix(1);
    return !text.empty() && isDigit(text[0]);
}

}  // namespace

KindEvidence& KindEvidence::operator+=(const KindEvidence& other) {
    for (std::size_t i = 0; i < weight.size(); ++i) weight[i] += other.weight[i];
    return *this;
}

PartKind KindEvidence::best() const {
    const auto top = std::max_element(weight.begin(), weight.end());
    return *top > 0 ? static_cast<PartKind>(top - weight.begin()) : PartKind::other;
}

KindEvidence::Lead KindEvidence::lead() const {
    const PartKind first = best();
    Lead out{(*this)[first], first};
    double next = 0;
    for (std::size_t i = 0; i < weight.size(); ++i) {
        const auto kind = static_cast<PartKind>(i);
        if (kind != first && weight[i] > next) {
            next = weight[i];
            out.next = kind;
        }
    }
    out.by = (*this)[first] - next;
    return out;
}

KindEvidence byLetters(std::string_view letters) {
    const std::string name = capitals(letters);
    KindEvidence out;
    for (const LetterRow& row : kLetters) {
        if (row.letters != name) continue;
        out[row.first] += row.weight;
        if (row.secondWeight > 0) out[row.second] += row.secondWeight;
        return out;
    }
    // Letters of one's own, "CIN" or "ROSC": the first one still says something.
    if (name.size() > 1) {
        for (const LetterRow& row : kLetters) {
            if (row.letters == name.substr(0, 1) && row.weight >= 3) out[row.first] = 1.5;
        }
    }
    return out;
}

bool usualLetters(std::string_view letters) {
    return std::any_of(std::begin(kLetters), std::end(kLetters),
                       [&](const LetterRow& row) { return row.letters == letters; });
}

KindEvidence byWord(std::string_view text) {
    const std::string word = lowerText(text);
    // Whole words by a map, beginnings one by one.
    static const auto exact = [] {
        std::unordered_map<std::string_view, const WordRow*> out;
        for (const WordRow& row : kWords) {
            if (!row.word.ends_with('*')) out.try_emplace(row.word, &row);
        }
        return out;
    }();
    static const auto beginnings = [] {
        std::vector<const WordRow*> out;
        for (const WordRow& row : kWords) {
            if (row.word.ends_with('*')) out.push_back(&row);
        }
        return out;
    }();
    if (word.find_first_not_of("0123456789.,/%") == std::string::npos) return {};
    const auto find = [&](std::string_view w) -> const WordRow* {
        if (const auto known = exact.find(w); known != exact.end()) return known->second;
        for (const WordRow* row : beginnings) {
            if (w.starts_with(row->word.substr(0, row->word.size() - 1))) return row;
        }
        return nullptr;
    };
    const WordRow* hit = find(word);
    for (const std::string_view plural : {"s", "es", "n", "en", "er", "x"}) {
        if (hit == nullptr && word.size() > plural.size() + 2 && word.ends_with(plural))
            hit = find(std::string_view(word).substr(0, word.size() - plural.size()));
    }
    if (hit) return single(hit->kind, hit->weight);
    // "Folientrimmer", "Leistungstransistor": the last part of a compound is what it is.
    for (const WordRow& row : kWords) {
        if (word.size() < 8) break;
        std::string_view tail = row.word;
        if (tail.ends_with('*')) tail.remove_suffix(1);
        if (tail.size() >= 5 && word.size() > tail.size() + 2 && word.ends_with(tail))
            return single(row.kind, row.weight);
    }
    // "Transformer_1P_1S", "SW_Push": names of a program's symbols are words with underlines.
    const auto line = word.find('_');
    if (line == std::string::npos || line < 3) return {};
    return byWord(word.substr(0, line));
}

bool adjustableWord(std::string_view word) {
    const KindEvidence evidence = byWord(word);
    return evidence[K::trimmer] >= 4;
}

std::optional<PartKind> byType(std::string_view word) {
    if (word.size() < 3 || word.find_first_of("0123456789") == std::string_view::npos) return std::nullopt;
    const std::string text = capitals(word);
    // A three-terminal regulator and a logic family have no letters before their number.
    const auto numbered = [&](std::string_view start, std::size_t least) {
        return text.starts_with(start) && text.size() >= least;
    };
    if ((numbered("78", 4) || numbered("79", 4)) &&
        std::all_of(text.begin() + 2, text.end(), [](char c) { return isDigit(c) || isLetter(c); }))
        return K::ic;
    if (numbered("74", 4) && isLetter(text[2])) return K::ic;
    // Field-effect transistors "J310", "U310": three digits tell them from a designator.
    if ((text[0] == 'J' || text[0] == 'U') && text.size() == 4 &&
        std::all_of(text.begin() + 1, text.end(), isDigit) && text[1] <= '3')
        return K::transistor;
    // A varistor's "S14K275": disc and voltage.
    const auto disc = text.find('K');
    if (text[0] == 'S' && disc != std::string::npos && disc > 1 && disc + 1 < text.size() &&
        std::all_of(text.begin() + 1, text.begin() + std::ptrdiff_t(disc), isDigit) &&
        std::all_of(text.begin() + std::ptrdiff_t(disc) + 1, text.end(), isDigit))
        return K::other;
    const TypeRow* longest = nullptr;
    for (const TypeRow& row : kTypes) {
        const std::size_t size = row.letters.size();
        std::string_view rest = std::string_view(text).substr(std::min(size, text.size()));
        if (text[0] != row.letters[0] || !text.starts_with(row.letters) || rest.empty()) continue;
        // "BZX79", "BC 547" is written together here; "TL072" and "LM-317" too.
        if (rest[0] == '-') rest.remove_prefix(1);
        if (rest.empty() || !isDigit(rest[0])) continue;
        const auto digits = std::size_t(std::count_if(rest.begin(), rest.end(), isDigit));
        if (digits < 2) continue;
        if (longest == nullptr || size > longest->letters.size()) longest = &row;
    }
    return longest ? std::optional(longest->kind) : std::nullopt;
}

std::optional<KindEvidence> byPackage(std::string_view word) {
    const std::string whole = capitals(word);
    if (std::find(std::begin(kChips), std::end(kChips), whole) != std::end(kChips)) return KindEvidence();
    // "Resistor_THT:R_Axial_DIN0207": a library before the colon.
    std::string text = whole.substr(whole.find(':') == std::string::npos ? 0 : whole.find(':') + 1);
    const PackageRow* hit = nullptr;
    for (const PackageRow& row : kPackages) {
        if (matches(row.text, text) && (hit == nullptr || row.text.size() > hit->text.size())) hit = &row;
    }
    if (hit) return hit->weight > 0 ? single(hit->kind, hit->weight) : KindEvidence();
    // "R0805", "C1206", "SMD0805"
    if (text.size() >= 5 &&
        std::find(std::begin(kChips), std::end(kChips), text.substr(text.size() - 4)) != std::end(kChips)) {
        const std::string before = text.substr(0, text.size() - 4);
        if (before == "R") return single(K::resistor, 2.5);
        if (before == "C") return single(K::capacitor, 2.5);
        if (before == "L") return single(K::inductor, 2.5);
        if (before == "D") return single(K::diode, 2.5);
        if (before.size() <= 5 && std::all_of(before.begin(), before.end(), isLetter)) return KindEvidence();
    }
    return std::nullopt;
}

std::optional<NotFitted> notFittedIn(std::string_view text) {
    // Longest first. Words in capitals are taken as such only.
    static constexpr std::string_view phrases[] = {"do not populate",
                                                   "do not install",
                                                   "do not fit",
                                                   "do not stuff",
                                                   "do not place",
                                                   "not populated",
                                                   "not installed",
                                                   "not assembled",
                                                   "not supplied",
                                                   "not mounted",
                                                   "not stuffed",
                                                   "not placed",
                                                   "not fitted",
                                                   "not used",
                                                   "unpopulated",
                                                   "omitted",
                                                   "nicht bestückt",
                                                   "nicht bestücken",
                                                   "unbestückt",
                                                   "entfällt",
                                                   "non monté",
                                                   "non équipé",
                                                   "non montée",
                                                   "ne pas monter",
                                                   "no montar",
                                                   "no montado",
                                                   "sin montar",
                                                   "non montato",
                                                   "non montare",
                                                   "niet geplaatst",
                                                   "niet monteren",
                                                   "optional",
                                                   "omit",
                                                   "unused",
                                                   "opcional",
                                                   "optionnel",
                                                   "leave unpopulated",
                                                   "leave out",
                                                   "leave empty",
                                                   "left empty",
                                                   "leave blank",
                                                   "leer lassen",
                                                   "frei lassen",
                                                   "bleibt frei",
                                                   "bleibt leer",
                                                   "laisser vide",
                                                   "dejar vac\u00edo",
                                                   "lasciare vuoto",
                                                   "n/f",
                                                   "dnp",
                                                   "dni",
                                                   "dnf",
                                                   "dns",
                                                   "nopop",
                                                   "n.b."};
    if (text.size() < 2) return std::nullopt;
    const std::string low = lowerText(text);
    // Every phrase has one of these letters at its beginning.
    if (low.find_first_of("dnouesl") == std::string::npos && low.find("leave") == std::string::npos)
        return std::nullopt;
    const auto wordAt = [&](std::size_t at, std::size_t size) {
        const auto inner = [&](std::size_t i) {
            return isLetter(low[i]) || isDigit(low[i]) || static_cast<unsigned char>(low[i]) >= 0x80;
        };
        return (at == 0 || !inner(at - 1)) && (at + size >= low.size() || !inner(at + size));
    };
    for (const auto phrase : phrases) {
        for (auto at = low.find(phrase); at != std::string::npos; at = low.find(phrase, at + 1)) {
            if (wordAt(at, phrase.size())) return NotFitted{at, phrase.size()};
        }
    }
    for (const std::string_view exact : {"NF", "NB", "NM"}) {
        for (auto at = text.find(exact); at != std::string_view::npos; at = text.find(exact, at + 1)) {
            // "100 NF" is nanofarads.
            std::size_t before = at;
            while (before > 0 && text[before - 1] == ' ') --before;
            const bool amount = before > 0 && isDigit(text[before - 1]);
            if (wordAt(at, exact.size()) && !amount) return NotFitted{at, exact.size()};
        }
    }
    return std::nullopt;
}

std::string lowerText(std::string_view text) {
    std::string out = lowered(text);
    for (std::size_t i = 0; i + 1 < out.size(); ++i) {
        // À … Þ in UTF-8 become à … þ.
        auto& second = out[i + 1];
        if (out[i] == '\xC3' && static_cast<unsigned char>(second) >= 0x80 &&
            static_cast<unsigned char>(second) <= 0x9E)
            second = char(static_cast<unsigned char>(second) + 0x20);
    }
    return out;
}

}  // namespace ombrek
