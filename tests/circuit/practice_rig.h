#pragma once

#include <catch2/catch.hpp>

#include "circuit/build_circuit.h"
#include "circuit/models.h"
#include "circuit/suspects.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/tables.h"

namespace ombrek {

/// The practice kit and its circuit, read once.
struct PracticeRig {
    Kit kit;
    KitCircuit circuit;

    PracticeRig() {
        const auto tables = readTables(dataFolder());
        REQUIRE(tables);
        auto file = readKitFile(dataFolder() / "demo" / "lantern-15.kit.json", tables->cores);
        REQUIRE(file);
        kit = std::move(file->kit);
        auto read = readKitCircuit(kit.circuit, shippedModels());
        if (!read) FAIL(read.error().text());
        circuit = std::move(*read);
    }

    /// Where the kit's checks are read, those that a circuit at rest can tell.
    std::vector<CircuitReading> probes() const {
        std::vector<CircuitReading> out;
        for (const Check& check : kit.checks) {
            if (auto probe = probeOf(circuit, kit, check)) out.push_back(*probe);
        }
        return out;
    }
};

}  // namespace ombrek
