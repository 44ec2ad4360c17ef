#pragma once

#include <QByteArray>
#include <QObject>
#include <QString>
#include <memory>

#include "core/quantity/problem.h"

namespace ombrek {

/// Bytes to an instrument and from it. Nothing here waits: what is lost is told.
class Cable : public QObject {
    Q_OBJECT
 public:
    using QObject::QObject;
    /// Ends in `opened` or in `lost`, in its own time.
    virtual void open() = 0;
    virtual void close() = 0;
    virtual bool isOpen() const = 0;
    virtual void write(const QByteArray& bytes) = 0;

 signals:
    /// It may be written to now.
    void opened();
    /// What came, in whatever pieces.
    void heard(const QByteArray& bytes);
    /// It is not there, or is there no more. @param why  a sentence
    void lost(const QString& why);
};

/// "192.168.1.20:5025". A Problem says how an address is written.
Result<std::unique_ptr<Cable>> tcpCable(const QString& address);
/// "/dev/ttyUSB0 9600 8N1", with "dtr" or "rts" to switch a lead that feeds itself from them; without numbers
/// 9600 8N1.
Result<std::unique_ptr<Cable>> serialCable(const QString& address);
/// "/dev/usbtmc0". The kernel's read waits for the instrument: it has a thread of its own.
Result<std::unique_ptr<Cable>> usbtmcCable(const QString& address);

}  // namespace ombrek
