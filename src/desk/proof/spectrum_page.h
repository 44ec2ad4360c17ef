#pragma once

#include <memory>

#include "core/proof/close_in.h"
#include "core/proof/spectrum.h"
#include "desk/page.h"

namespace ombrek {

class BigNumber;
class Card;
class Plot;
class StateList;
class VerdictLine;

/// An analyser's trace: its peaks named and held against the limit, its harmonics kept as readings of the
/// band; close about a carrier, hum and bandwidth.
class SpectrumPage : public Page {
    Q_OBJECT
 public:
    explicit SpectrumPage(Session& session);
    void refresh() override;
    void begin(const QString& band) override;
    QString about() const override { return qs(band_); }
    bool openFile(const QString& path) override;
    /// What is seen of it [Hz].
    std::pair<double, double> view() const { return {low_, high_}; }

 private:
    /// A trace as it was judged.
    struct Shown {
        std::vector<TracePoint> points;  ///< by rising frequency
        Spectrum spectrum;
        std::optional<CloseIn> closeIn;
    };
    using Read = std::shared_ptr<const Shown>;

    void addKeys();
    void take(Read read, const std::string& band);
    void keepHarmonics(const Spectrum& spectrum, const std::string& band);
    void nextBand();
    void choose(int by);
    void zoom(double factor);
    void pan(double part);
    void whole();
    void showTrace();
    void showPeaks();

    std::string band_;
    Read shown_;
    std::string shownBand_;
    std::int64_t shownBuild_ = 0;
    double low_ = 0, high_ = 0;
    int at_ = -1;  ///< peak in hand
    BigNumber* number_;
    VerdictLine* verdict_;
    Plot* plot_;
    Card *sheet_, *peaks_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
