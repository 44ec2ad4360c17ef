#pragma once

#include "instruments/bench_client.h"
#include "instruments/device.h"

namespace ombrek {

/// The practice bench as one instrument of the list.
class PracticeDevice : public Device {
    Q_OBJECT
 public:
    explicit PracticeDevice(BenchClient& bench, QObject* parent = nullptr);
    /// What it reads does not wander.
    bool standsAtOnce() const override { return true; }

 protected:
    void startAsking(const Probe& probe) override;
    void startIdentifying() override;

 private:
    BenchClient& bench_;
    int question_ = 0;
};

}  // namespace ombrek
