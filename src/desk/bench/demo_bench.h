#pragma once

#include <QTcpServer>
#include <QTimer>

#include "desk/session.h"

namespace ombrek {

/// A few instruments for pictures, in the book that is open: an L/C meter that sends lines, a multimeter by
/// libsigrok's demo, a supply and a folder. They go with it; the book keeps them.
class DemoBench : public QObject {
    Q_OBJECT
 public:
    explicit DemoBench(Session& session);

 private:
    QTcpServer lines_, supply_;
    QTimer timer_;
};

}  // namespace ombrek
