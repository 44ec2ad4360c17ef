#pragma once

#include <QLabel>
#include <QWidget>
#include <filesystem>

#include "core/quantity/problem.h"

namespace ombrek {

/// What a start shows when the book cannot be opened: the sentence, where the file is, and the ways out.
class Refusal : public QWidget {
    Q_OBJECT
 public:
    Refusal(const Problem& problem, const std::filesystem::path& book);
    /// What to open instead; empty when the builder only closes it.
    const QString& chosen() const { return chosen_; }
    /// Show it and wait. @return chosen()
    QString ask();

 signals:
    /// The builder has read it, or a copy was made.
    void ended();

 private:
    void rescue();
    void openOther();
    void leave(const QString& chosen);

    std::filesystem::path book_;
    QLabel* line_;
    QString chosen_, rescuedTo_;
};

}  // namespace ombrek
