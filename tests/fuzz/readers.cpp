#include <cassert>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>

#include "circuit/deck.h"
#include "circuit/kit_circuit.h"
#include "circuit/network_of.h"
#include "circuit/reading.h"
#include "core/antenna/load_text.h"
#include "core/sums/sums.h"
#include "formats/adif.h"
#include "formats/command_set.h"
#include "formats/contact_text.h"
#include "formats/heard_csv.h"
#include "formats/kit_json.h"
#include "formats/stock_csv.h"
#include "formats/touchstone.h"
#include "formats/trace_csv.h"
#include "lists/instructions.h"
#include "lists/packing_list.h"
#include "lists/parts_list.h"
#include "lists/placement.h"
#include "lists/voltage_table.h"

// Every reader of what others may send, for a fuzzer that sees which branches an input takes (scripts/fuzz).
// OMBREK_READER names the one that is fed.

using namespace ombrek;

namespace {

struct Reader {
    const char* name;
    void (*read)(const std::string&);
};

void readAList(const std::string& bytes) {
    const auto list = readPartsList(bytes);
    if (!list) return;
    for (const ListLine& line : list->list.lines) assert(std::isfinite(line.nominal) && !line.refs.empty());
    if (!anyFitted(list->list)) return;
    const auto kit = readKit(kitFromList(list->list, "fuzz", {}), {});
    assert(kit);  // what was taken is always a kit
}

void readANetlist(const std::string& bytes) {
    const auto netlist = readNetlist(bytes);
    if (!netlist) return;
    (void)deckOf(*netlist);
    (void)networkOf(*netlist);
}

constexpr Reader kReaders[] = {
    {"kit", [](const std::string& b) { (void)readKit(b, {}); }},
    {"list", readAList},
    {"voltages", [](const std::string& b) { (void)readVoltageTable(b); }},
    {"steps", [](const std::string& b) { (void)readInstructions(b); }},
    {"packing", [](const std::string& b) { (void)readPackingList(b); }},
    {"placement", [](const std::string& b) { (void)readPlacement(b); }},
    {"stock", [](const std::string& b) { (void)readStock(b); }},
    {"trace", [](const std::string& b) { (void)readTrace(b); }},
    {"touchstone", [](const std::string& b) { (void)readTouchstone(b); }},
    {"log", [](const std::string& b) { (void)readAdif(b); }},
    {"heard", [](const std::string& b) { (void)readHeard(b, {}, 0); }},
    {"netlist", readANetlist},
    {"circuit", [](const std::string& b) { (void)readKitCircuit(b, ""); }},
    {"readings", [](const std::string& b) { (void)readCircuitReadings(b); }},
    {"commands", [](const std::string& b) { (void)readCommandSet(b); }},
    {"sums", [](const std::string& b) { (void)answerSum(b, {}); }},
    {"load", [](const std::string& b) { (void)parseLoad(b); }},
    {"contact", [](const std::string& b) { (void)readContactLine(b, {}, 0); }},
};

const Reader& wanted() {
    const char* name = std::getenv("OMBREK_READER");
    for (const Reader& reader : kReaders) {
        if (name != nullptr && std::string(name) == reader.name) return reader;
    }
    std::fprintf(stderr, "OMBREK_READER is one of:");
    for (const Reader& reader : kReaders) std::fprintf(stderr, " %s", reader.name);
    std::fprintf(stderr, "\n");
    std::exit(2);
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const Reader& reader = wanted();
    reader.read(std::string(reinterpret_cast<const char*>(data), size));
    return 0;
}
