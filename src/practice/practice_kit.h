#pragma once

#include <filesystem>
#include <string>

#include "formats/tables.h"
#include "kit/stock.h"
#include "practice/practice_instruments.h"

namespace ombrek {

/// The practice kit with its bag, from a data folder.
struct PracticeKit {
    Kit kit;
    std::string text;  ///< the kit's JSON
    PracticeBag bag;
    std::vector<StockLine> drawers;  ///< of a builder who has built before
};
/// The practice kit that ships, with the truth behind it.
Result<PracticeKit> readPracticeKit(const std::filesystem::path& dataFolder, const Tables& tables);

/// The bag of a kit of one's own on the practice bench: every value scatters within its tolerance by a lot
/// that the kit's text decides, and nothing is wrong.
PracticeBag honestBag(const std::string& kitText);

/// The troubles seeded for a kit that ships, told by its id; for any other an honest bag.
PracticeBag bagOf(const std::filesystem::path& folder, const std::string& kitId, const std::string& kitText);

/// Another kit that ships, with its bag and the same drawers. @param id  "bell-buoy"
Result<PracticeKit> readShippedKit(const std::filesystem::path& dataFolder, const Tables& tables,
                                   const std::string& id);

/// How far a practice book has come.
enum class PracticeStage {
    tuning,    ///< of the rig with every way of adjusting: nulls in hand, a counter, crystals and a dial
               ///< measured
    proving,   ///< of the rig with three bands: its parts and coils in, some powers read
    partWay,   ///< the receiver plays, the finals' parts are not yet in, one of their coils is on the bench
    finished,  ///< everything but the builder's own word on the licence
    onAir      ///< of the rig with three bands: mended, signed off with a known defect, some contacts made
};

/// Make a book in which the practice kit has been worked on with the practice bench, for trying every screen
/// and for pictures. Every figure in it was read from the practice instruments.
Result<void> writePracticeBook(const std::filesystem::path& book, const PracticeKit& practice,
                               PracticeStage stage);

}  // namespace ombrek
