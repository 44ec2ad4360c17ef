#pragma once

#include <QPointer>
#include <QThread>
#include <atomic>
#include <functional>
#include <memory>

namespace ombrek {

/// Long work off the window's thread: told how far it is, it can be stopped, and its end is delivered in the
/// window's thread. Example:
///
///     work.start<Result<ListSource>>([bytes](const Progress& p) { return readPartsList(bytes, p); },
///                                    [this](auto source) { show(std::move(source)); });
class LongWork : public QObject {
    Q_OBJECT
 public:
    /// As core's Progress: told a share 0 … 1, answers whether to go on.
    using Progress = std::function<bool(double)>;

    using QObject::QObject;
    ~LongWork() override {
        stop();
        if (thread_ == nullptr) return;
        thread_->wait();
        delete thread_;  // its end is not delivered any more
    }

    bool running() const { return thread_ != nullptr; }
    /// Asked to end; what it gives then is dropped.
    void stop() {
        if (stopped_) *stopped_ = true;
    }

    /// One piece of work at a time. @return false when another is still running
    template <class T>
    bool start(std::function<T(const Progress&)> work, std::function<void(T)> done) {
        if (running()) return false;
        auto result = std::make_shared<std::unique_ptr<T>>();
        stopped_ = std::make_shared<std::atomic<bool>>(false);
        const Progress progress = [this, stop = stopped_](double share) {
            emit progressed(share);
            return !*stop;
        };
        thread_ = QThread::create([this, work = std::move(work), progress, result] {
            try {
                *result = std::make_unique<T>(work(progress));
            } catch (const std::exception& error) {
                emit failed(QString::fromUtf8(error.what()));
            }
        });
        connect(thread_, &QThread::finished, this, [this, result, done = std::move(done)] {
            thread_->deleteLater();
            thread_ = nullptr;
            emit ended();
            if (*result) done(std::move(**result));
        });
        thread_->start();
        return true;
    }

 signals:
    /// From the working thread; a connected slot runs in the window's.
    void progressed(double share);
    void ended();
    /// It broke off; there is no result.
    void failed(const QString& why);

 private:
    QThread* thread_ = nullptr;
    std::shared_ptr<std::atomic<bool>> stopped_;
};

}  // namespace ombrek
