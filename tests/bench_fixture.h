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
    static const PracticeKit rig = [] {
        const std::filesystem::path folder = OMBREK_DATA_FOLDER;
        auto file = readKitFile(folder / "demo" / "bell-buoy.kit.json", shippedTables().cores).value();
        PracticeBag bag = bagOf(folder, file.kit.id, file.text);
        return PracticeKit{std::move(file.kit), std::move(file.text), std::move(bag), practiceKit().drawers};
    }();
    return rig;
}

}  // namespace ombrek
