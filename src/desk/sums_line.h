#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>

#include "core/coil/core.h"
#include "core/sums/sums.h"

namespace ombrek {

/// The line at the foot of the window: type what is on the part or in the head, read the answer with its
/// working.
class SumsLine : public QFrame {
    Q_OBJECT
 public:
    explicit SumsLine(const std::vector<MagneticCore>& cores, QWidget* parent = nullptr);
    /// The field has the keys.
    void begin();
    /// Little height: close together.
    void setLow(bool low);
    void setSitting(const QString& today, const QString& left);
    QString answerText() const { return answer_->text(); }

 signals:
    /// Enter: the best answer's value, to be put where the page wants one.
    void used(const QString& value);
    void left();

 protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

 private:
    void answer();
    void fitSitting();
    void showNext(int by);

    const std::vector<MagneticCore>& cores_;
    QLineEdit* typed_;
    QLabel *answer_, *working_, *today_, *remaining_;
    std::vector<SumAnswer> answers_;
    std::size_t at_ = 0;
};

}  // namespace ombrek
