#pragma once

#include <QTimer>
#include <memory>

#include "core/frequency/settling.h"
#include "desk/page.h"

namespace ombrek {

class BigNumber;
class Card;
class LiveScale;
class Tone;

/// An adjustment watched while it is turned: readings stream in, eyes stay on the screwdriver. Space holds
/// the reading, Enter keeps it.
class LivePage : public Page {
    Q_OBJECT
 public:
    explicit LivePage(Session& session);
    ~LivePage() override;
    void refresh() override;
    void begin(const QString& about) override;
    void setBigOnly(bool on) override;
    QString about() const override { return id_; }

 protected:
    void hideEvent(QHideEvent* event) override;
    void showEvent(QShowEvent* event) override;

 private:
    void addKeys();
    const Adjustment* adjustment() const;
    void ask();
    void arrived(const Result<double>& value);
    double attenuation() const;  ///< before the power meter [dB]
    void turn(double by);
    void keep();
    void hold();
    void toggleTone();
    void showNumber();
    void sayNow();

    QString id_;
    double position_ = 0.5;
    bool asking_ = false;
    int failed_ = 0;  ///< answers in a row that were none
    QString trouble_;
    ShownOn on_;                      ///< where the last reading was shown
    std::vector<TimedReading> slow_;  ///< every ten seconds or so, for what warms up
    QElapsedTimer clock_;
    QTimer timer_;
    std::unique_ptr<Tone> tone_;
    BigNumber* number_;
    LiveScale* scale_;
    Card *sheet_, *facts_;
};

}  // namespace ombrek
