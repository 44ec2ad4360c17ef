#pragma once

#include "book/record.h"
#include "kit/contact.h"
#include "kit/instrument.h"
#include "kit/stock.h"

namespace ombrek {

/// What a book holds, each record described once, in records.cpp. A state that has a name, a part's mark or a
/// step, is a pair of the two.
namespace record {

template <class Value>
using Named = std::pair<std::string, Value>;

/// A build as its table has it.
struct BuildRow {
    std::string kitName;
    std::int64_t kit = 0;  ///< the kit's text, by its id in kit_text
    Order order = Order::manual;
    VerdictRule rule = VerdictRule::guardBand;
    std::string profile{};
    std::int64_t started = 0;
    BagWay way = BagWay::byKind;
    BagDepth depth = BagDepth::measureAll;
};

/// A look at a part: under the loupe, or against the print.
struct LookRow {
    std::string ref;
    int how = 0;  ///< as Book::Look
    std::int64_t at = 0;
};

/// A photograph, whose bytes lie in photo_data.
struct PhotoRow {
    PhotoLine line;
    std::int64_t data = 0;
};

/// The rows of an import that was taken back.
struct Range {
    std::int64_t first = 0, last = 0;
    std::string record = "stock";
};

struct DraftRow {
    std::string name, origin, source;
};

extern const Record<BuildRow> build;
extern const Record<std::int64_t> chosen;
extern const Record<Reading> reading;
extern const Record<Named<PartMark>> part;
extern const Record<Named<WindingProgress>> winding;
extern const Record<Named<StepRecord>> step;
extern const Record<Named<std::string>> remark, printed, coilCheck, preference, listShape;
extern const Record<Named<GateRecord>> gate;
extern const Record<std::pair<Choice, ChoiceRecord>> choice;
extern const Record<Named<std::string>> paper;  ///< text of a paper that is not taken yet, by what it holds
extern const Record<LoosePart> loose;
extern const Record<Named<Remedy>> remedy;
extern const Record<Sitting> away;
extern const Record<Named<int>> kept;
extern const Record<Finding> finding;
extern const Record<LookRow> looked;
extern const Record<PhotoRow> photo;
extern const Record<Change> change;
extern const Record<Repair> repair;
extern const Record<Sighting> sighting;
extern const Record<AirNote> air;
extern const Record<Contact> contact;
extern const Record<Heard> heard;
extern const Record<Named<double>> practice;
extern const Record<StockLine> stock;
extern const Record<Range> importUndone;
extern const Record<Promise> promise;
extern const Record<MeterLine> meter;
extern const Record<Instrument> instrument;
extern const Record<DraftRow> draft;
extern const Record<ListDraft::Edit> draftEdit;

/// All of them, as the database needs them.
const std::vector<RecordLine>& all();

}  // namespace record

}  // namespace ombrek
