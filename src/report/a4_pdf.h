#pragma once

#include <QByteArray>
#include <QPdfWriter>
#include <QString>
#include <functional>

namespace ombrek {

/// A PDF of A4 pages, drawn by `draw`. Needs a QGuiApplication; may run on any thread.
/// @param margin  on every side [mm] @param dotsPerInch  what the painter counts in
QByteArray a4Pdf(const QString& title, double margin, int dotsPerInch,
                 const std::function<void(QPdfWriter&)>& draw);

}  // namespace ombrek
