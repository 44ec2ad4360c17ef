#pragma once

#include <catch2/catch.hpp>
#include <cmath>

#include "judged/judged.h"
#include "station/tune/tune.h"

namespace ombrek {

inline Adjustment adjustmentOf(const char* id, Adjustment::Kind kind,
                               std::vector<std::string> partners = {}) {
    Adjustment out;
    out.id = out.title = out.adjuster = id;
    out.kind = kind;
    out.unit = Unit::volt;
    out.partners = std::move(partners);
    return out;
}

/// A build that takes readings one after another.
class TuneBench {
 public:
    Kit kit;
    Build build;
    void read(const std::string& id, double value, double position) {
        build.readings.push_back({++id_,
                                  Subject::adjustment(id),
                                  value,
                                  Unit::volt,
                                  0,
                                  {{std::string(kPosition), position}},
                                  "typed",
                                  id_});
    }
    /// As it is, whatever it is of.
    void take(Reading reading) {
        reading.id = ++id_;
        reading.at = id_;
        build.readings.push_back(std::move(reading));
    }
    void hear(const std::string& id, int louder, double before, double position) {
        build.readings.push_back({++id_,
                                  Subject::adjustment(id),
                                  double(louder),
                                  Unit::none,
                                  0,
                                  {{std::string(kPosition), position}, {std::string(kBefore), before}},
                                  "by ear",
                                  id_});
    }
    TuneState state(const std::string& id) { return tuneState(kit, *kit.adjustment(id), build); }

 private:
    std::int64_t id_ = 0;
};

}  // namespace ombrek
