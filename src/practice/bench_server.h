#pragma once

#include <QTcpServer>
#include <array>
#include <list>
#include <memory>

#include "instruments/bench_key.h"
#include "practice/practice_instruments.h"

namespace ombrek {

/// The practice bench on 127.0.0.1: one TCP port an instrument, SCPI lines, in the order of kInstrumentRoles.
class BenchServer : public QObject {
    Q_OBJECT
 public:
    explicit BenchServer(PracticeInstruments instruments, QObject* parent = nullptr);

    ~BenchServer() override;

    /// @param firstPort  of four in a row; 0 lets the system choose each
    /// @return a Problem when a port is taken
    Result<void> listen(quint16 firstPort);
    quint16 port(InstrumentRole role) const;

 private:
    void serve(InstrumentRole role);

    PracticeInstruments instruments_;
    BenchKey key_;
    std::array<std::list<QTcpSocket*>, 4> open_;  ///< conversations at each, the one silent longest first
    std::array<QTcpServer, 4> servers_;
};

}  // namespace ombrek
