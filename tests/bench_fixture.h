#pragma once

#include <unistd.h>

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

/// A practice book at a path. To work through a kit takes seconds: each is made once, when this program is
/// newer than the one that is kept, and copied from then on; several programs may do so at once.
inline void practiceBook(const std::filesystem::path& file, const PracticeKit& kit, PracticeStage stage) {
    namespace fs = std::filesystem;
    std::string all = kit.text + std::to_string(int(stage));
    for (const std::string& fault : kit.bag.faults) all += "\n" + fault;
    const auto mark = std::hash<std::string>()(all);
    const fs::path kept = fs::path(OMBREK_KEPT) / (std::to_string(mark) + ".ombrek");
    std::error_code none;
    if (!fs::exists(kept, none) ||
        fs::last_write_time(kept, none) < fs::last_write_time(fs::canonical("/proc/self/exe"))) {
        const fs::path mine = kept.string() + "." + std::to_string(::getpid());
        fs::create_directories(kept.parent_path());
        REQUIRE(writePracticeBook(mine, kit, stage));
        fs::rename(mine, kept);
    }
    fs::copy_file(kept, file);
}

}  // namespace ombrek
