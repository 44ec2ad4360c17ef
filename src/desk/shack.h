#pragma once

#include <QObject>
#include <filesystem>
#include <memory>

#include "desk/pieces/long_work.h"
#include "desk/window.h"

namespace ombrek {

/// One open book at a time, with its window. Another book, or text of another size, has the window made anew.
class Shack : public QObject {
    Q_OBJECT
 public:
    explicit Shack(Tables tables) : tables_(std::move(tables)) {}
    ~Shack() override;

    /// Open a book off the window's thread (its folder may be far away); the one that is open stays open
    /// until then, and when the new one cannot be opened.
    void open(const std::filesystem::path& book);
    Window* window() { return window_.get(); }
    Session* session() { return session_.get(); }
    bool opening() const { return work_.running(); }

 signals:
    /// A window is there on a book.
    void opened();
    /// It could not be opened, and no other is open.
    void refused(const Problem& problem, const QString& book);

 private:
    void take(const std::filesystem::path& path, std::unique_ptr<Book> book);
    void makeWindow();
    void copyDaily();

    Tables tables_;
    std::unique_ptr<Session> session_;
    std::unique_ptr<Window> window_;
    LongWork work_, copying_;
    QTimer hour_;
};

}  // namespace ombrek
