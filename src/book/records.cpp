#include "book/records.h"

#include "core/text/enumerators.h"

namespace ombrek {
namespace {

/// The words of an enum as they stand in books, by position.
template <class E, std::size_t count>
Words wordsOf(const char* const (&words)[count]) {
    static_assert(count == enumerators<E>());
    return {words, words + count};
}

const Words kOrders = wordsOf<Order>({"manual", "lowest-first", "by-kind", "by-stage", "hardest-first"});
const Words kRules = wordsOf<VerdictRule>({"guard-band", "simple"});
const Words kWays = wordsOf<BagWay>({"by-kind", "by-plan", "before-fitting"});
const Words kDepths = wordsOf<BagDepth>({"measure-all", "measure-doubtful", "trust-bag"});
const Words kMarks = wordsOf<PartMark>({"seen", "trusted", "missing"});
const Words kLooks = wordsOf<Book::Look>({"joints", "sense"});
const Words kRemedies = wordsOf<Remedy::How>({"drawer", "shopping", "supplier", "equivalent"});
const Words kStates = wordsOf<VerdictState>({"pass", "doubtful", "fail", "cannot-tell", "not-done"});
const Words kFindings = wordsOf<Finding::What>({"bridge", "dry", "missed", "flux", "turned", "other"});
const Words kReached = wordsOf<Way>({"practice", "tcp", "serial", "usbtmc", "sigrok", "folder"});
// Until version 7 they stood among the gates, by these words: what a report of then was signed by has them
// still.
const Words kChoices = wordsOf<Choice>(
    {"tuning: order", "tuning: left at the peak or backed off", "dial: wanted range", "mode of the rig"});
const Words kUnits =
    wordsOf<Unit>({"none", "ohm", "farad", "henry", "volt", "ampere", "watt", "hertz", "metre", "second",
                   "celsius", "percent", "decibel", "dbm", "ppm", "degree"});
const Words kKinds = wordsOf<PartKind>({"resistor", "capacitor", "inductor", "diode", "transistor", "ic",
                                        "crystal", "coil", "trimmer", "other"});

/// A value of a pair's second, by the member of it.
template <class Value, class Member>
auto second(Member Value::*member) {
    return [member](auto& row) -> auto& { return row.second.*member; };
}

/// A name and its text.
Record<record::Named<std::string>> texts(const std::string& table, const std::string& name,
                                         const std::string& text, bool ofBuild = true) {
    using Row = record::Named<std::string>;
    const std::string unique = (ofBuild ? "build, " : "") + name;
    return {table, {column<Row>(name, &Row::first), column<Row>(text, &Row::second)}, unique, ofBuild};
}

/// Text with whatever bytes came, kept as a blob.
RecordColumn<record::DraftRow> sourceColumn() {
    using Row = record::DraftRow;
    RecordColumn<Row> out;
    out.line.name = "source";
    out.bind = [](SQLite::Statement& q, int at, const Row& row) {
        q.bind(at, row.source.data(), int(row.source.size()));
    };
    out.read = [](const SQLite::Column& from, Row& row) {
        row.source.assign(static_cast<const char*>(from.getBlob()), std::size_t(from.getBytes()));
    };
    return out;
}

}  // namespace

std::string settingsText(const Settings& settings) {
    std::string out;
    for (const auto& [name, value] : settings) {
        if (!std::isfinite(value)) continue;
        char number[32];
        const auto end = std::to_chars(number, number + sizeof number, value).ptr;
        out += (out.empty() ? "" : ";") + name + "=" + std::string(number, end);
    }
    return out;
}

Settings readSettings(const std::string& text) {
    Settings out;
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = std::min(text.find(';', at), text.size());
        const std::size_t equals = text.find('=', at);
        if (equals < end) {
            double value = 0;
            const char* last = text.data() + end;
            const auto read = std::from_chars(text.data() + equals + 1, last, value);
            if (read.ec == std::errc{} && read.ptr == last && std::isfinite(value))
                out[text.substr(at, equals - at)] = value;
        }
        at = end + 1;
    }
    return out;
}

namespace record {

const Record<BuildRow> build(
    "build",
    {column<BuildRow>("kit_name", &BuildRow::kitName), column<BuildRow>("kit", &BuildRow::kit),
     column<BuildRow>("build_order", &BuildRow::order, kOrders),
     column<BuildRow>("rule", &BuildRow::rule, kRules), column<BuildRow>("profile", &BuildRow::profile),
     column<BuildRow>("started", &BuildRow::started), column<BuildRow>("way", &BuildRow::way, kWays),
     column<BuildRow>("depth", &BuildRow::depth, kDepths)},
    "", false);

const Record<std::int64_t> chosen("chosen",
                                  {column<std::int64_t>(
                                      "build", [](auto& build) -> auto& { return build; })},
                                  "", false);

const Record<Reading> reading(
    "reading", {column<Reading>("subject", &Reading::subject), column<Reading>("value", &Reading::value, NAN),
                column<Reading>("unit", &Reading::unit, kUnits),
                column<Reading>("uncertainty", &Reading::uncertainty, NAN),
                column<Reading>("settings", &Reading::settings), column<Reading>("method", &Reading::method),
                column<Reading>("at", &Reading::at), column<Reading>("beyond", &Reading::beyond),
                column<Reading>("meter", &Reading::meter), column<Reading>("sheet", &Reading::sheet),
                column<Reading>("who", &Reading::who)});

using Mark = Named<PartMark>;
const Record<Mark> part("part",
                        {column<Mark>("ref", &Mark::first), column<Mark>("mark", &Mark::second, kMarks)},
                        "build, ref");

using Wound = Named<WindingProgress>;
const Record<Wound> winding("winding",
                            {column<Wound>("name", &Wound::first),
                             column<Wound>("turns", second(&WindingProgress::turns)),
                             column<Wound>("done", second(&WindingProgress::done))},
                            "build, name");

using StepRow = Named<StepRecord>;
const Record<StepRow> step("step",
                           {column<StepRow>("step", &StepRow::first),
                            column<StepRow>("knowingly", second(&StepRecord::knowingly)),
                            column<StepRow>("at", second(&StepRecord::at)),
                            column<StepRow>("reason", second(&StepRecord::reason))},
                           "build, step");

const Record<Named<std::string>> remark = texts("remark", "step", "text");
const Record<Named<std::string>> printed = texts("printed", "ref", "text");
const Record<Named<std::string>> coilCheck = texts("coil_check", "name", "how");
const Record<Named<std::string>> preference = texts("preference", "key", "value", false);
const Record<Named<std::string>> listShape = texts("list_shape", "key", "shape", false);

using GateRow = Named<GateRecord>;
const Record<GateRow> gate("gate",
                           {column<GateRow>("gate", &GateRow::first),
                            column<GateRow>("reason", second(&GateRecord::reason)),
                            column<GateRow>("at", second(&GateRecord::at)),
                            column<GateRow>("basis", second(&GateRecord::basis)),
                            column<GateRow>("forbids", second(&GateRecord::forbids))},
                           "build, gate");

using ChoiceRow = std::pair<Choice, ChoiceRecord>;
const Record<ChoiceRow> choice("choice",
                               {column<ChoiceRow>("what", &ChoiceRow::first, kChoices),
                                column<ChoiceRow>("said", second(&ChoiceRecord::said)),
                                column<ChoiceRow>("at", second(&ChoiceRecord::at))},
                               "build, what");
const Record<Named<std::string>> paper = texts("paper", "holds", "text");

const Record<LoosePart> loose("loose_part", {column<LoosePart>("kind", &LoosePart::kind, kKinds),
                                             column<LoosePart>("printed", &LoosePart::printed),
                                             column<LoosePart>("value", &LoosePart::value, NAN),
                                             column<LoosePart>("uncertainty", &LoosePart::uncertainty)});

using RemedyRow = Named<Remedy>;
const Record<RemedyRow> remedy("remedy",
                               {column<RemedyRow>("ref", &RemedyRow::first),
                                column<RemedyRow>("how", second(&Remedy::how), kRemedies),
                                column<RemedyRow>("note", second(&Remedy::note))},
                               "build, ref");

const Record<Sitting> away("away",
                           {column<Sitting>("start", &Sitting::start), column<Sitting>("end", &Sitting::end)},
                           "build, start");

using KeptRow = Named<int>;
const Record<KeptRow> kept("kept",
                           {column<KeptRow>("what", &KeptRow::first),
                            column<KeptRow>("count", &KeptRow::second)},
                           "build, what");

const Record<Finding> finding("finding", {column<Finding>("ref", &Finding::ref),
                                          column<Finding>("what", &Finding::what, kFindings),
                                          column<Finding>("found", &Finding::found),
                                          column<Finding>("closed", &Finding::closed)});

const Record<LookRow> looked("looked",
                             {column<LookRow>("ref", &LookRow::ref),
                              column<LookRow>("how", &LookRow::how, kLooks),
                              column<LookRow>("at", &LookRow::at)},
                             "build, ref, how");

const Record<PhotoRow> photo("photo", {column<PhotoRow>(
                                           "step", [](auto& p) -> auto& { return p.line.step; }),
                                       column<PhotoRow>(
                                           "after", [](auto& p) -> auto& { return p.line.after; }),
                                       column<PhotoRow>(
                                           "at", [](auto& p) -> auto& { return p.line.at; }),
                                       column<PhotoRow>("data", &PhotoRow::data)});

const Record<Change> change("epoch",
                            {column<Change>("subject", &Change::subject),
                             column<Change>("after", &Change::after), column<Change>("at", &Change::at),
                             column<Change>("how", &Change::how)});

const Record<Repair> repair("repair",
                            {column<Repair>("at", &Repair::at), column<Repair>("ref", &Repair::ref),
                             column<Repair>("found", &Repair::found), column<Repair>("done", &Repair::done),
                             column<Repair>("noticed", &Repair::noticed),
                             column<Repair>("seen", &Repair::seen), column<Repair>("who", &Repair::who),
                             column<Repair>("parts", &Repair::parts),
                             column<Repair>("again", &Repair::again)});

const Record<Sighting> sighting("sighting", {column<Sighting>("repair", &Sighting::repair),
                                             column<Sighting>("at", &Sighting::at),
                                             column<Sighting>("text", &Sighting::text)});

const Record<AirNote> air("air",
                          {column<AirNote>("step", &AirNote::step), column<AirNote>("item", &AirNote::item),
                           column<AirNote>("state", &AirNote::state, kStates),
                           column<AirNote>("value", &AirNote::value, NAN),
                           column<AirNote>("text", &AirNote::text), column<AirNote>("at", &AirNote::at)});

// Of the station, not of one build: a rig that is not in this book may have made it.
const Record<Contact> contact(
    "contact",
    {column<Contact>("rig", &Contact::build), column<Contact>("at", &Contact::at),
     column<Contact>("call", &Contact::call), column<Contact>("frequency", &Contact::frequency),
     column<Contact>("band", &Contact::band), column<Contact>("mode", &Contact::mode),
     column<Contact>("sent", &Contact::sent), column<Contact>("received", &Contact::received),
     column<Contact>("watts", &Contact::watts), column<Contact>("name", &Contact::name),
     column<Contact>("place", &Contact::place), column<Contact>("locator", &Contact::locator),
     column<Contact>("note", &Contact::note), column<Contact>("own", &Contact::own),
     column<Contact>("extra", &Contact::extra)},
    "", false);

const Record<Heard> heard("heard",
                          {column<Heard>("rig", &Heard::build), column<Heard>("at", &Heard::at),
                           column<Heard>("by", &Heard::by), column<Heard>("locator", &Heard::locator),
                           column<Heard>("frequency", &Heard::frequency),
                           column<Heard>("snr", &Heard::snr, NAN), column<Heard>("mode", &Heard::mode)},
                          "", false);

using PracticeRow = Named<double>;
const Record<PracticeRow> practice("practice",
                                   {column<PracticeRow>("subject", &PracticeRow::first),
                                    column<PracticeRow>("value", &PracticeRow::second)},
                                   "build, subject");

const Record<StockLine> stock(
    "stock",
    {column<StockLine>("drawer", &StockLine::drawer), column<StockLine>("kind", &StockLine::kind, kKinds),
     column<StockLine>("value", &StockLine::value), column<StockLine>("unit", &StockLine::unit, kUnits),
     column<StockLine>("tolerance", &StockLine::tolerance), column<StockLine>("volts", &StockLine::volts),
     column<StockLine>("watts", &StockLine::watts), column<StockLine>("what", &StockLine::what),
     column<StockLine>("count", &StockLine::count)},
    "", false);

const Record<Range> importUndone("import_undone",
                                 {column<Range>("first", &Range::first), column<Range>("last", &Range::last),
                                  column<Range>("record", &Range::record)},
                                 "", false);

const Record<Promise> promise("promise",
                              {column<Promise>("stock", &Promise::stock),
                               column<Promise>("build", &Promise::build),
                               column<Promise>("ref", &Promise::ref),
                               column<Promise>("count", &Promise::count)},
                              "", false);

const Record<MeterLine> meter(
    "meter",
    {column<MeterLine>("name", &MeterLine::name), column<MeterLine>("unit", &MeterLine::unit, kUnits),
     column<MeterLine>("low", &MeterLine::low), column<MeterLine>("high", &MeterLine::high, INFINITY),
     column<MeterLine>("percent", &MeterLine::percent), column<MeterLine>("digits", &MeterLine::digits),
     column<MeterLine>("counts", &MeterLine::counts, 1), column<MeterLine>("floor", &MeterLine::floor),
     column<MeterLine>("zero", &MeterLine::zero), column<MeterLine>("calibrated", &MeterLine::calibrated),
     column<MeterLine>("most", &MeterLine::most, INFINITY)},
    "name, unit, low", false);

const Record<Instrument> instrument(
    "instrument",
    {column<Instrument>("name", &Instrument::name), column<Instrument>("way", &Instrument::way, kReached),
     column<Instrument>("address", &Instrument::address), column<Instrument>("speaks", &Instrument::speaks),
     column<Instrument>("pattern", &Instrument::pattern),
     column<Instrument>("measures", &Instrument::measures),
     column<Instrument>("identity", &Instrument::identity),
     column<Instrument>("average", &Instrument::average, 1), column<Instrument>("used", &Instrument::used),
     column<Instrument>("place", &Instrument::place)},
    "name", false);

const Record<DraftRow> draft("list_draft",
                             {column<DraftRow>("name", &DraftRow::name),
                              column<DraftRow>("origin", &DraftRow::origin), sourceColumn()},
                             "", false);

using Edit = ListDraft::Edit;
const Record<Edit> draftEdit("list_edit",
                             {column<Edit>("line", &Edit::line), column<Edit>("how", &Edit::how),
                              column<Edit>("text", &Edit::text)},
                             "line", false);

const std::vector<RecordLine>& all() {
    static const std::vector<RecordLine> lines{
        build.line(),      chosen.line(), reading.line(),    part.line(),     winding.line(),
        step.line(),       remark.line(), gate.line(),       printed.line(),  coilCheck.line(),
        preference.line(), loose.line(),  remedy.line(),     stock.line(),    importUndone.line(),
        promise.line(),    meter.line(),  away.line(),       kept.line(),     finding.line(),
        looked.line(),     photo.line(),  listShape.line(),  change.line(),   repair.line(),
        practice.line(),   draft.line(),  draftEdit.line(),  sighting.line(), air.line(),
        contact.line(),    heard.line(),  instrument.line(), choice.line(),   paper.line()};
    return lines;
}

}  // namespace record
}  // namespace ombrek
