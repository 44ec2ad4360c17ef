#include <fcntl.h>
#include <unistd.h>

#include <QPointer>
#include <condition_variable>
#include <deque>
#include <functional>
#include <mutex>
#include <thread>

#include "instruments/cable.h"
#include "instruments/device_file.h"

namespace ombrek {
namespace {

/// What the thread and the cable share. A read that hangs in the kernel keeps it alive, and nothing else.
struct Shared {
    std::mutex mutex;
    std::condition_variable wake;
    std::deque<QByteArray> toWrite;
    bool ended = false;
};

/// Runs in the thread: lines are written one after the other, and a question's answer is read.
void converse(const std::shared_ptr<Shared>& shared, const std::string& path,
              const std::function<void(QByteArray, QString, bool)>& tell) {
    if (const QString why = whyNoDevice(QString::fromStdString(path), DeviceFile::usbInstrument);
        !why.isEmpty())
        return tell({}, why, false);
    const int file = ::open(path.c_str(), O_RDWR | O_NOCTTY | O_CLOEXEC);
    if (file < 0) {
        tell({},
             errno == EACCES ? QStringLiteral("may not be opened; a rule of udev must give it to you")
                             : QStringLiteral("is not there; is its cable plugged in?"),
             false);
        return;
    }
    tell({}, {}, true);
    while (true) {
        QByteArray line;
        {
            std::unique_lock lock(shared->mutex);
            shared->wake.wait(lock, [&] { return shared->ended || !shared->toWrite.empty(); });
            if (shared->ended) break;
            line = shared->toWrite.front();
            shared->toWrite.pop_front();
        }
        if (::write(file, line.constData(), std::size_t(line.size())) != line.size()) {
            tell({}, QStringLiteral("takes nothing any more; is its cable plugged in?"), false);
            break;
        }
        if (!line.contains('?')) continue;
        char buffer[4096];
        const auto got = ::read(file, buffer, sizeof buffer);  // one message, or the kernel's own time-out
        if (got < 0 && errno != ETIMEDOUT) {
            tell({}, QStringLiteral("does not answer any more; is its cable plugged in?"), false);
            break;
        }
        if (got > 0) tell(QByteArray(buffer, int(got)), {}, true);
    }
    ::close(file);
}

class UsbtmcCable : public Cable {
 public:
    explicit UsbtmcCable(QString path) : path_(std::move(path)) {}
    ~UsbtmcCable() override { close(); }

    void open() override {
        close();
        shared_ = std::make_shared<Shared>();
        const auto tell = [self = QPointer<UsbtmcCable>(this), shared = std::weak_ptr<Shared>(shared_),
                           loop = loop_](const QByteArray& bytes, const QString& trouble, bool well) {
            QMetaObject::invokeMethod(
                loop.get(),
                [=] {
                    if (self && !shared.expired() && self->shared_ == shared.lock())
                        self->told(bytes, trouble, well);
                },
                Qt::QueuedConnection);
        };
        std::thread(converse, shared_, path_.toStdString(), tell).detach();
    }
    void close() override {
        open_ = false;
        const auto shared = std::exchange(shared_, nullptr);
        if (!shared) return;
        const std::lock_guard lock(shared->mutex);
        shared->ended = true;
        shared->wake.notify_all();
    }
    bool isOpen() const override { return open_; }
    void write(const QByteArray& bytes) override {
        if (!shared_) return;
        const std::lock_guard lock(shared_->mutex);
        shared_->toWrite.push_back(bytes);
        shared_->wake.notify_all();
    }

 private:
    void told(const QByteArray& bytes, const QString& trouble, bool well) {
        if (!well) {
            close();
            emit lost(path_ + QChar(' ') + trouble);
        } else if (!bytes.isEmpty()) {
            emit heard(bytes);
        } else {
            open_ = true;
            emit opened();
        }
    }
    QString path_;
    bool open_ = false;
    std::shared_ptr<Shared> shared_;
    /// Lives as long as anybody may want to tell something; deleted in its own thread.
    std::shared_ptr<QObject> loop_{new QObject, [](QObject* o) { o->deleteLater(); }};
};

}  // namespace

Result<std::unique_ptr<Cable>> usbtmcCable(const QString& address) {
    const QString path = address.trimmed();
    if (!path.startsWith(QStringLiteral("/dev/")) || path.contains(QChar(' ')))
        return problem("", "Write the device as /dev/usbtmc0.");
    return std::make_unique<UsbtmcCable>(path);
}

}  // namespace ombrek
