#pragma once

#include <catch2/catch.hpp>
#include <filesystem>
#include <string>

#include "folder.h"
#include "formats/kit_json.h"
#include "practice/practice_kit.h"

namespace ombrek {

/// The tables and the practice kit as they ship.
inline const Tables& shippedTables() {
    static const Tables tables = readTables(OMBREK_DATA_FOLDER).value();
    return tables;
}

inline const PracticeKit& practiceKit() {
    static const PracticeKit practice = readPracticeKit(OMBREK_DATA_FOLDER, shippedTables()).value();
    return practice;
}

/// The practice rig of the Tune station: every way of adjusting.
inline const PracticeKit& tuningKit() {
    static const PracticeKit rig = readShippedKit(OMBREK_DATA_FOLDER, shippedTables(), "bell-buoy").value();
    return rig;
}

/// The practice rig of the Proof station: three bands, one dead final.
inline const PracticeKit& provingKit() {
    static const PracticeKit rig = readShippedKit(OMBREK_DATA_FOLDER, shippedTables(), "night-ferry").value();
    return rig;
}

}  // namespace ombrek
