#pragma once

#include <cmath>

#include "bench_fixture.h"
#include "instruments/bench.h"
#include "stand_ins.h"

namespace ombrek {

inline const std::vector<CommandSet>& shippedSets() {
    static const auto sets =
        readCommandSets(std::filesystem::path(OMBREK_DATA_FOLDER) / "instruments").value();
    return sets;
}

inline Instrument instrumentAt(Way way, const QString& address, const std::string& measures,
                               const std::string& speaks, const std::string& pattern = "") {
    Instrument out;
    out.id = 1;
    out.name = "mine";
    out.way = way;
    out.address = address.toStdString();
    out.measures = measures;
    out.speaks = speaks;
    out.pattern = pattern;
    return out;
}

/// Command sets that answer sooner or never: nobody waits seconds in a test for what does not come.
inline std::vector<CommandSet> hastySets(int answers = 1000) {
    auto sets = shippedSets();
    for (CommandSet& set : sets) {
        set.answers = answers;
        for (auto& q : set.queries) q.settle = 0;
    }
    return sets;
}

/// A bench of one instrument, asked until it has answered.
class OneBench {
 public:
    explicit OneBench(const Instrument& instrument, std::vector<CommandSet> sets = shippedSets())
        : bench(std::move(sets)) {
        eventLoop();
        bench.setInstruments({instrument});
    }
    Result<BenchReading> take(Unit unit, Flow flow = Flow::either) {
        std::optional<Result<BenchReading>> out;
        int answers = 0;
        bench.take({unit, flow}, [&](const Result<BenchReading>& reading) {
            out = reading;
            ++answers;
        });
        REQUIRE(waitUntil([&] { return out.has_value(); }));
        CHECK(answers == 1);
        return *out;
    }
    /// The sentence of a reading that must fail.
    std::string refused(Unit unit, Flow flow = Flow::either) {
        const auto reading = take(unit, flow);
        if (reading) FAIL("it gave " << reading->value);
        return reading.error().text();
    }
    Result<QString> identify() {
        std::optional<Result<QString>> out;
        bench.identify("mine", [&](const Result<QString>& words) { out = words; });
        REQUIRE(waitUntil([&] { return out.has_value(); }));
        return *out;
    }
    Bench bench;
};

inline bool contains(const std::string& text, const std::string& part) {
    INFO(text);
    return text.find(part) != std::string::npos;
}

}  // namespace ombrek
