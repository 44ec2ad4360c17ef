#pragma once

#include <string>
#include <vector>

#include "core/air/receive_comparison.h"
#include "judged/judged.h"
#include "kit/build.h"
#include "kit/contact.h"

namespace ombrek {

/// One thing to listen for, look at or read on the way to the first contact.
struct AirItem {
    const char *id, *title;
    const char* right;      ///< what it is like when it is right
    const char* wrong;      ///< what is behind it when it is not, and what to do
    bool swr = false;       ///< a standing-wave ratio is read, of each band
    bool compared = false;  ///< a comparison with another receiver, several
};

/// One of the six steps from the finished rig to the first contact.
struct AirStep {
    const char *id, *title, *now, *why, *caution;
    std::vector<AirItem> items;
    bool radiates = false;  ///< goes on the air: every gate of a band must be open
};
/// The way from the dummy load to the first contact.
const std::vector<AirStep>& airSteps();

/// What a note is of, "SWR, 40m".
std::string airTitle(const AirNote& note);

/// An item with what was said of it last.
struct AirItemState {
    const AirItem* item = nullptr;
    std::string band;               ///< of an item that each band has
    const AirNote* note = nullptr;  ///< the last that holds; null: none
    VerdictState state = VerdictState::notDone;
    std::string sentence;
};
struct AirStepState {
    const AirStep* step = nullptr;
    std::vector<AirItemState> items;
    VerdictState state = VerdictState::notDone;
    std::string barred;  ///< why it cannot be begun, as a sentence; empty: it can
};

/// How far the rig is. A repair ends what was heard before it: the notes of before are not the rig's any
/// more.
/// @param first  the rig's first contact, where there is one
std::vector<AirStepState> airStates(const Judged& judged, const Contact* first);

/// Bands of the kit on which the rig is fit for the air; none: on no band.
std::vector<std::string> bandsOnAir(const Judged& judged);

/// The step in hand: the first that is not done; null when all are.
const AirStepState* nextAirStep(const std::vector<AirStepState>& states);

/// The comparisons of the receive step that hold.
std::vector<HeardDifference> comparisonsOf(const Build& build);
ReceiveVerdict receiveVerdict(const Build& build);

/// The rig's first contact of a log by time; null when it has none.
const Contact* firstContact(const std::vector<Contact>& log, std::int64_t build);

/// An SWR as it is typed: "1.4", "1.4:1". 0 for what is none.
double swrOf(std::string_view text);

/// How far people must keep from the antenna, of the strongest band; empty while no power was read.
std::string keepAway(const Judged& judged);

}  // namespace ombrek
