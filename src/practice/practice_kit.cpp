#include "practice/practice_kit.h"

#include <unistd.h>

#include <algorithm>
#include <cmath>

#include "book/book.h"
#include "book/file_guard.h"
#include "core/parts/part_kind.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/stock_csv.h"
#include "instruments/scpi.h"
#include "judged/before_plug.h"
#include "judged/judged.h"
#include "judged/on_air.h"
#include "judged/repair.h"
#include "judged/sign_off.h"
#include "judged/tune_next.h"
#include "station/board/loupe.h"
#include "station/first_light/key_down.h"
#include "station/parts_in/parts_in.h"
#include "station/proof/proof.h"
#include "station/rests_on.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"

namespace ombrek {

Result<PracticeKit> readPracticeKit(const std::filesystem::path& folder, const Tables& tables) {
    const auto text = readFile(folder / "demo" / "practice.bench.json", 1000000);
    if (!text) return tl::make_unexpected(text.error());
    auto bag = readPracticeBag(*text);
    if (!bag) return problem("practice.bench.json, " + bag.error().place, bag.error().sentence);
    auto kit = readKitFile(folder / "demo" / bag->kitFile, tables.cores);
    if (!kit) return tl::make_unexpected(kit.error());
    const auto csv = readFile(folder / "demo" / "drawers.csv", 1000000);
    if (!csv) return tl::make_unexpected(csv.error());
    auto drawers = readStock(*csv);
    if (!drawers) return problem("drawers.csv", drawers.error().sentence);
    return PracticeKit{std::move(kit->kit), std::move(kit->text), std::move(*bag), std::move(drawers->lines)};
}

Result<PracticeKit> readShippedKit(const std::filesystem::path& folder, const Tables& tables,
                                   const std::string& id) {
    auto practice = readPracticeKit(folder, tables);
    if (!practice) return practice;
    auto kit = readKitFile(folder / "demo" / (id + ".kit.json"), tables.cores);
    if (!kit) return tl::make_unexpected(kit.error());
    PracticeBag bag = bagOf(folder, kit->kit.id, kit->text);
    return PracticeKit{std::move(kit->kit), std::move(kit->text), std::move(bag),
                       std::move(practice->drawers)};
}

namespace {

/// A builder who works through the practice kit: takes each reading from the practice instruments and writes
/// it in the book.
class PracticeBuilder {
 public:
    PracticeBuilder(Book& book, const PracticeKit& practice, std::int64_t& now)
        : book_(book),
          kit_(practice.kit),
          instruments_(PracticeTruth(practice.kit, practice.bag)),
          now_(now) {}

    void takeZero() {
        MeterLine line = *meterFor(book_.meters(), Unit::farad, 0);
        instruments_.answer(InstrumentRole::lcMeter, "SIM:PROB clips:open");
        line.zero =
            readReply(instruments_.answer(InstrumentRole::lcMeter, "MEAS:CAP?").value_or("")).value_or(0);
        line.calibrated = now_ - 120LL * 86400;
        keep(book_.setMeter(line));
    }

    /// Drawers of a builder who has built before.
    void stock(const std::vector<StockLine>& lines) { keep(book_.addStock(lines)); }

    /// @param later  designators whose bag has not been opened yet
    void partsIn(const std::vector<std::string>& later) {
        for (const Part& part : kit_.parts) {
            if (std::find(later.begin(), later.end(), part.ref) != later.end()) continue;
            now_ += 25;
            if (!part.measurable()) {
                keep(book_.markPart(part.ref, PartMark::seen));
            } else if (!read(Subject::part(part.ref), part.unit, -1)) {
                keep(book_.markPart(part.ref, PartMark::missing));
            }
        }
    }

    /// Look twice at what is odd: read its mark, and hand over what is left in the bag.
    void lookTwice(const PracticeBag& bag) {
        for (const auto& [ref, printed] : bag.marks) {
            now_ += 30;
            if (book_.build()->last(Subject::part(ref)) != nullptr)
                keep(book_.readMark(ref, printed, markAgrees(*kit_.part(ref), printed)));
        }
        for (std::size_t i = 0; i < bag.over.size(); ++i) {
            const Unit unit = unitOf(bag.over[i].kind);
            instruments_.answer(instrumentFor(unit), "SIM:PROB loose:" + std::to_string(i + 1));
            const auto line = instruments_.answer(instrumentFor(unit), measureQuery(unit));
            const auto value = readReply(line.value_or(""));
            if (!value) continue;
            const Measured m = measuredWith(book_.meters(), unit, *value);
            keep(book_.keepLoose({0, bag.over[i].kind, bag.over[i].mark, m.value, m.uncertainty}));
        }
    }

    void cut(const Coil& coil) { keep(book_.checkCoil(coil.ref + "/cut", "yes")); }

    void windCoil(const Coil& coil) {
        cut(coil);
        for (const Winding& winding : coil.windings) {
            for (int i = 0; i < winding.turns; ++i) turn(coil, winding);
            keep(book_.finishWinding(coil.ref, winding.name));
        }
        for (int tries = 0; tries < 6; ++tries) {
            read(Subject::coil(coil.ref), Unit::henry, coil.windings.front().turns);
            const auto advice = coilAdvice(coil, *book_.build());
            const bool bend =
                advice && (advice->act == TrimAdvice::Act::squeeze || advice->act == TrimAdvice::Act::spread);
            if (!bend && coilVerdict(coil, *book_.build()).state != VerdictState::doubtful) break;
            if (!advice) break;
            now_ += 90;
            const double percent = -0.8 * advice->deviationPercent;
            instruments_.answer(InstrumentRole::lcMeter, "SIM:BEND " + coil.ref + "," + plainNumber(percent));
            keep(book_.bent(coil.ref, 1 + percent / 100));
        }
    }

    /// Tails stripped, every winding proved from pad to pad, windings apart.
    void proveCoil(const Coil& coil) {
        now_ += 120;
        keep(book_.checkCoil(coil.ref + "/strip", "scrape"));
        for (const Winding& w : coil.windings)
            keep(book_.checkCoil(coil.ref + "/" + w.name + "/continuity", "ok"));
        if (coil.windings.size() > 1) keep(book_.checkCoil(coil.ref + "/isolation", "ok"));
    }

    void turn(const Coil& coil, const Winding& winding) {
        now_ += 9;
        keep(book_.countTurn(coil.ref, winding.name));
    }

    void check(const Check& check) {
        now_ += 60;
        for (;;) {
            const Build build = *book_.build();
            const auto plug = askBeforePlug(Judged(kit_, build), check);
            if (!plug || !trouble_) break;
            keep(book_.passGate(plug->gate, "seen"));
        }
        read(Subject::check(check.id), check.unit, -1);
    }

    void stepsUntil(const std::string& last) {
        for (const Step& step : kit_.steps) {
            now_ += static_cast<std::int64_t>(step.minutes * 55);
            if (step.id == last) return;
            if (step.hold) {
                for (const auto& need : step.hold->needs) {
                    if (need.is(Subject::Kind::check) && book_.build()->last(need) == nullptr)
                        check(*kit_.check(need.id));
                }
            }
            keep(book_.doStep(step.id));
            if (step.id == "r-supply") keep(book_.keepAside("cut leads", 4));
            if (step.id == "r-transmit") keep(book_.keepAside("cut leads", 8));
            if (step.id == "u1") keep(book_.remark(step.id, "sits a little high, but square"));
            if (step.id.starts_with("look-s")) loupe(step.id == "look-small");
            for (const char* last : {"hold-supply", "c-keying", "look-small"})
                if (step.id == last) now_ += 22 * 3600;  // the next evening
        }
    }

    /// Every joint made so far, and every polarised part; one dry joint is found and mended.
    void loupe(bool finds) {
        for (const Part* part : jointsToLookAt(kit_, *book_.build(), true)) {
            now_ += 4;
            keep(book_.lookedAt(part->ref, Book::Look::joints));
            if (!finds || part->ref != "C42") continue;
            keep(book_.found(part->ref, Finding::What::dry));
            now_ += 90;
            keep(book_.closeFinding(book_.build()->findings.back().id));
        }
        for (const SenseLook& look : sensesToLookAt(kit_, *book_.build()))
            keep(book_.lookedAt(look.part->ref, Book::Look::sense));
    }

    void tune(const Adjustment& adjustment, int most) {
        if (keyDown(adjustment)) keep(book_.passGate(kLoadOn, "on"));
        for (int i = 0; i < most; ++i) {
            const TuneState state = tuneState(kit_, adjustment, *book_.build());
            if (state.state == VerdictState::pass) return;
            now_ += 40;
            if (state.state == VerdictState::fail) return;
            readOrLook(adjustment, std::round(state.nextPosition * 1000) / 1000);
        }
    }

    /// Every adjustment in its order, those that pull each other in rounds; a coil that is wrong is wound
    /// anew.
    /// @param until  id of the one at whose `most`th reading it ends
    void tuneAll(const std::string& until, int most) {
        int there = 0;
        for (int i = 0; i < 400 && there < most; ++i) {
            const Build build = *book_.build();
            const Judged judged(kit_, build);
            const Adjustment* next = nextAdjustment(judged);
            if (next == nullptr) return;
            const TuneState& state = judged.tune(*next);
            const Adjustment* turned = state.other.empty() ? next : kit_.adjustment(state.other);
            there += turned->id == until || next->id == until;
            if (keyDown(*turned)) keep(book_.passGate(kLoadOn, "on"));
            now_ += 40;
            if (!state.remedy.empty())
                wound(*kit_.coil(next->coil), state.remedy.starts_with("Add") ? 2 : -2);
            else
                readOrLook(*turned, judged.tune(*turned).nextPosition);
        }
    }

    /// What is counted beside the adjustments.
    void frequencies() {
        for (const double known : {3.579545e6, 10e6, 16e6, 20e6})
            readAt(Subject::reference(decimals(known, 0)), known, {{std::string(kKnown), known}});
        for (int i = 1; i <= 14; ++i) readAt(Subject::crystal(std::to_string(i)), -1, {});
        for (int degrees = 0; degrees <= 180; degrees += 30)
            readAt(Subject::dial(decimals(degrees, 3)), degrees / 180.0,
                   {{std::string(kPosition), double(degrees)}});
    }

    void proof() {
        now_ += 120;
        keep(book_.passGate(kLoadOn, "on"));
        read(Subject::supply(), Unit::volt, -1);
        read(Subject::power(), Unit::dbm, -1);
        read(Subject::frequency(), Unit::hertz, -1);
        for (int order = 2; order <= kit_.ratings.harmonics; ++order) {
            read(Subject::harmonic(order), Unit::decibel, -1);
        }
    }

    /// Every band at the rated supply with its harmonics, the first one at lower supplies, too.
    void prove() {
        keep(book_.passGate(kLoadOn, "on"));
        const auto bands = kit_.ratings.bandNames();
        for (const double volts : {9.0, 12.0, kit_.ratings.supply}) {
            now_ += 120;
            readSupply(volts);
            for (const std::string& band : bands) {
                if (volts < kit_.ratings.supply && band != bands.front()) continue;
                now_ += 40;
                read(Subject::power(band), Unit::dbm, -1);
                read(Subject::current(band), Unit::ampere, -1);
                if (volts < kit_.ratings.supply) continue;
                read(Subject::frequency(band), Unit::hertz, -1);
                for (int order = 2; order <= kit_.ratings.harmonics; ++order)
                    read(Subject::harmonic(order, band), Unit::decibel, -1);
            }
        }
        keep(book_.prefer("chain", "30 dB pad 10 W, analyser +20 dBm"));
        keep(book_.prefer("coupler", "T, coil 0.1u..12u, rig 10p..260p, antenna 10p..260p, 100 V"));
        keep(book_.prefer("antenna loads", "wire 20.3, wire 12.6, loop 110+60j"));
    }

    /// The dead final is noticed and replaced.
    void replaceFinal(const std::string& ref) {
        Repair repair;
        repair.noticed = "half the power on every band";
        keep(book_.noticed(repair));
        now_ += 1800;
        repair = book_.build()->repairs.back();
        repair.ref = ref;
        repair.found = "gate does not hold its charge";
        repair.done = "replaced";
        repair.parts = "1 of the same type from drawer finals";
        repair.who = "Ada";
        repair.again = keptSubjects(shownAgain(kit_, ref));
        keep(book_.repaired(repair));
        instruments_.answer(InstrumentRole::multimeter, "SIM:MEND \"" + ref + "\"");
    }

    /// What does not pass is accepted as a known defect, the licence confirmed.
    void signOff(const LimitProfile& profile) {
        keep(book_.prefer("who", "Ada"));
        keep(book_.prefer("callsign", "QX9ZZ"));
        keep(book_.prefer("locator", "JO62qm"));
        keep(book_.prefer(
            std::string(kLicence),
            "40m 7-7.2 MHz 100 W CW SSB\n30m 10.1-10.15 MHz 100 W CW\n20m 14-14.35 MHz 100 W CW SSB\n"));
        keep(book_.passGate("licence", "confirmed"));
        const Build build = *book_.build();
        const Judged judged(kit_, build, profile);
        for (const Gate& gate : judged.readiness().gates) {
            for (const Evidence& e : gate.evidence) {
                if (e.state == VerdictState::pass || gate.id == "licence") continue;
                const bool filter = e.band == "20m";
                keep(book_.passGate(evidenceGate(gate.id, e),
                                    filter
                                        ? "the low-pass begins too high; a turn more on each coil is to come"
                                        : "seen, and lived with",
                                    basisOf({e}), filter ? "transmitting on 20m" : ""));
            }
        }
    }

    /// What is heard on the way to the first contact, and a few contacts.
    void goOnAir() {
        for (const AirStep& step : airSteps()) {
            for (const AirItem& item : step.items) {
                now_ += 60;
                if (item.compared) {
                    for (const char* heard : {"equal", "weaker", "equal", "S5 S5"})
                        note(step, item.id, NAN, heard);
                } else if (item.swr) {
                    note(step, "swr@40m", 1.4, "1.4");
                    note(step, "swr@30m", 1.7, "1.7");
                } else if (std::string_view(item.id) != "contact") {
                    note(step, item.id, NAN, "");
                }
            }
        }
        struct Made {
            const char *call, *band, *sent, *received, *name, *place, *locator;
            double frequency;
            int hours;
        };
        for (const Made& m : {Made{"QX1ABC", "40m", "599", "559", "Tom", "Kiel", "JO54bh", 7.031e6, 1},
                              Made{"QX2DEF", "40m", "579", "549", "Ana", "Porto", "IN51rd", 7.029e6, 22},
                              Made{"QX3GHI/P", "30m", "599", "579", "Lena", "", "KP20le", 10.116e6, 3},
                              Made{"QX5MNO", "40m", "559", "339", "Rui", "Azores", "HM77cr", 7.03e6, 49}}) {
            now_ += m.hours * 3600;
            Contact c;
            c.build = book_.build()->id;
            c.at = now_;
            c.call = m.call;
            c.band = m.band;
            c.frequency = m.frequency;
            c.mode = "CW";
            c.sent = m.sent;
            c.received = m.received;
            c.watts = 4;
            c.name = m.name;
            c.place = m.place;
            c.locator = m.locator;
            keep(book_.addContact(c));
        }
        Repair hum;
        hum.noticed = "no sidetone now and then";
        keep(book_.noticed(hum));
        keep(book_.sawAgain(book_.build()->repairs.back().id, "cold, in the first minute"));
    }

    const Result<void>& trouble() const { return trouble_; }

 private:
    /// @return false when the instrument finds nothing
    bool read(const Subject& subject, Unit unit, double setting) {
        const Unit asked = unit == Unit::watt ? Unit::dbm : unit;
        std::string probe = "SIM:PROB \"" + subject.text() + "\"";
        if (setting >= 0) probe += "," + plainNumber(setting);
        const InstrumentRole role = instrumentFor(asked);
        instruments_.answer(role, probe);
        const bool harmonic = subject.is(Subject::Kind::harmonic);
        const auto line = instruments_.answer(role, measureQuery(asked) + (harmonic ? " " + subject.id : ""));
        auto value = readReply(line.value_or(""));
        if (!value) return false;
        const Measured measured = measuredWith(book_.meters(), asked, *value);
        Reading reading{0, subject, measured.value, asked, measured.uncertainty, {}, "", 0};
        if (subject.is(Subject::Kind::adjustment)) reading.settings[std::string(kPosition)] = setting;
        if (subject.is(Subject::Kind::coil)) reading.settings[std::string(kTurns)] = setting;
        reading.method = std::string(word(role));
        if (subject.is(Subject::Kind::power)) {
            reading.method = "attenuator";
            reading.settings = {{"attenuation", kBenchAttenuation}};
        } else if (unit == Unit::watt) {
            reading = inWatts(reading, kBenchAttenuation);
        }
        if (supply_ > 0 && !subject.is(Subject::Kind::supply))
            reading.settings[std::string(kSupply)] = supply_;
        keep(book_.takeReading(reading));
        return true;
    }

    void readSupply(double volts) {
        instruments_.answer(InstrumentRole::multimeter,
                            "SIM:PROB \"" + Subject::supply().text() + "\"," + plainNumber(volts));
        const auto value =
            readReply(instruments_.answer(InstrumentRole::multimeter, measureQuery(Unit::volt)).value_or(""));
        if (!value) return;
        const Measured m = measuredWith(book_.meters(), Unit::volt, *value);
        keep(book_.takeReading({0,
                                Subject::supply(),
                                m.value,
                                Unit::volt,
                                m.uncertainty,
                                {{std::string(kSupply), volts}},
                                "multimeter",
                                0}));
        supply_ = m.value;
    }

    /// A frequency with what went with it.
    void readAt(const Subject& subject, double setting, Settings settings) {
        now_ += 30;
        instruments_.answer(InstrumentRole::counter, "SIM:PROB \"" + subject.text() + "\"" +
                                                         (setting >= 0 ? "," + plainNumber(setting) : ""));
        const auto value =
            readReply(instruments_.answer(InstrumentRole::counter, measureQuery(Unit::hertz)).value_or(""));
        if (!value) return;
        keep(book_.takeReading({0, subject, *value, Unit::hertz, 0, std::move(settings), "counter", 0}));
    }

    void wound(const Coil& coil, int turns) {
        const int now = mainTurns(coil, *book_.build()) + turns;
        keep(book_.setTurns(coil.ref, coil.windings.front().name, now));
        instruments_.answer(InstrumentRole::lcMeter,
                            "SIM:PROB " + Subject::coil(coil.ref).text() + "," + std::to_string(now));
    }

    /// By an instrument, or by eyes where only they tell.
    void readOrLook(const Adjustment& a, double position) {
        const Subject subject = Subject::adjustment(a.id);
        const bool seen = a.kind == Adjustment::Kind::contrast;
        if (!seen && a.scale.kind == ReadingScale::Kind::number) {
            read(subject, a.unit, position);
            return;
        }
        instruments_.answer(InstrumentRole::multimeter,
                            "SIM:PROB " + subject.text() + "," + plainNumber(position));
        std::string shows =
            instruments_.answer(InstrumentRole::multimeter, "SIM:LOOK? " + subject.text()).value_or("");
        std::erase(shows, '"');
        const auto mark = readMark(a.scale, shows);
        const double rank = seen ? (shows == "seen" ? 1 : 0) : mark ? mark->rank : 0;
        keep(book_.takeReading(
            {0, subject, rank, Unit::none, 0, {{std::string(kPosition), position}}, "seen", 0}));
    }

    void note(const AirStep& step, const std::string& item, double value, const std::string& text) {
        keep(book_.noteOnAir({0, step.id, item, VerdictState::pass, value, text, 0}));
    }

    void keep(Result<void> result) {
        if (!result && trouble_) trouble_ = std::move(result);
    }

    Book& book_;
    const Kit& kit_;
    PracticeInstruments instruments_;
    std::int64_t& now_;
    double supply_ = 0;  ///< as it was read last, of a rig that is proved at several [V]
    Result<void> trouble_;
};

}  // namespace

PracticeBag bagOf(const std::filesystem::path& folder, const std::string& kitId, const std::string& kitText) {
    std::error_code ignored;
    for (const auto& entry : std::filesystem::directory_iterator(folder / "demo", ignored)) {
        if (!entry.path().filename().string().ends_with(".bench.json")) continue;
        const auto text = readFile(entry.path(), 1000000);
        auto bag = text ? readPracticeBag(*text) : Result<PracticeBag>(problem("", ""));
        if (bag && bag->kitFile == kitId + ".kit.json") return std::move(*bag);
    }
    return honestBag(kitText);
}

PracticeBag honestBag(const std::string& kitText) {
    PracticeBag out;
    for (const unsigned char c : practiceMark(kitText)) out.seed = out.seed * 31 + c;
    return out;
}

namespace {

Result<void> workPracticeBook(const std::filesystem::path& path, const PracticeKit& practice,
                              PracticeStage stage) {
    std::int64_t now = 1793300400;  // an October evening of 2026
    auto book = Book::open(path, [&now] { return now; });
    if (!book) return tl::make_unexpected(book.error());
    if (auto started = (*book)->startBuild(practice.kit.name, practice.text); !started) return started;
    if ((*book)->build()->kitText != practice.text)
        return problem(path.string(), "The book did not keep the kit.");
    PracticeBuilder builder(**book, practice, now);
    const Kit& kit = practice.kit;
    if (stage == PracticeStage::tuning) {
        builder.stock(practice.drawers);
        builder.stepsUntil("");
        for (const Check& check : kit.checks) builder.check(check);
        builder.tuneAll("phase", 9);
        builder.frequencies();
        return builder.trouble();
    }
    if (stage == PracticeStage::proving || stage == PracticeStage::onAir) {
        builder.stock(practice.drawers);
        builder.partsIn({});
        for (const Coil& coil : kit.coils) {
            builder.windCoil(coil);
            builder.proveCoil(coil);
        }
        builder.stepsUntil("");
        for (const Check& check : kit.checks) builder.check(check);
        builder.prove();
        if (stage == PracticeStage::proving) return builder.trouble();
        now += 46 * 3600;
        builder.replaceFinal("Q3");
        builder.prove();
        builder.signOff(LimitProfile{});
        builder.goOnAir();
        return builder.trouble();
    }
    const bool finished = stage == PracticeStage::finished;
    // Part-way, the bag with the finals is still closed and their coils are the ones on the bench.
    const std::vector<std::string> laterParts{"C74", "C75", "C76", "C77", "Q5", "Q6", "Q7", "H1"};
    const std::vector<std::string> laterCoils{"L2", "L3", "L4", "T4"};
    builder.takeZero();
    builder.stock(practice.drawers);
    builder.partsIn(finished ? std::vector<std::string>{} : laterParts);
    builder.lookTwice(practice.bag);
    now += 22 * 3600;
    for (const Coil& coil : kit.coils) {
        if (finished || std::find(laterCoils.begin(), laterCoils.end(), coil.ref) == laterCoils.end()) {
            builder.windCoil(coil);
            builder.proveCoil(coil);
        }
    }
    if (!finished) {
        const Coil& inHand = *kit.coil("L2");
        builder.cut(inHand);
        for (int i = 0; i < 7; ++i) builder.turn(inHand, inHand.windings.front());
    }
    now += 47 * 3600;
    builder.stepsUntil(finished ? "" : "lowpass");
    if (finished) {
        for (const Check& check : kit.checks) {
            if ((*book)->build()->last(Subject::check(check.id)) == nullptr) builder.check(check);
        }
    }
    if (builder.trouble()) {
        if (auto kept = (*book)->prefer("evenings", "Tue Thu 20:00 2h, Sat 14:00 3h"); !kept) return kept;
    }
    now += 21 * 3600;
    for (const Adjustment& adjustment : kit.adjustments) {
        if (finished || adjustment.id == "bfo" || adjustment.id == "vfo") builder.tune(adjustment, 80);
        if (!finished && adjustment.id == "rx") builder.tune(adjustment, 4);
    }
    if (finished) builder.proof();
    return builder.trouble();
}

}  // namespace

Result<void> writePracticeBook(const std::filesystem::path& path, const PracticeKit& practice,
                               PracticeStage stage) {
    // Made aside and moved into place whole: one that was cut off half-way is never taken for a book.
    namespace fs = std::filesystem;
    const fs::path target = followLink(path);
    std::error_code error;
    if (fs::exists(target, error))
        return problem(target.filename().string(), "There is a file of this name already.");
    const fs::path beside = target.string() + ".making-" + std::to_string(::getpid());
    const auto tidy = [&] {
        std::error_code ignored;
        for (const char* end : {"", "-wal", "-shm"}) fs::remove(beside.string() + end, ignored);
        fs::remove(beside.parent_path() / ("." + beside.filename().string() + ".lock"), ignored);
    };
    tidy();
    if (auto worked = workPracticeBook(beside, practice, stage); !worked) {
        tidy();
        return worked;
    }
    fs::rename(beside, target, error);
    tidy();
    if (error)
        return problem(target.filename().string(),
                       "The practice book cannot be put here: " + error.message() + ".");
    return {};
}

}  // namespace ombrek
