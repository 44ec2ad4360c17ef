#pragma once

#include <QMainWindow>

namespace ombrek {

class Page;

/// What stands over the pages (menus, sheets, the line of the first evening) asks of the window that holds
/// it: which page is shown, where others are, the window's own acts.
class Rooms : public QMainWindow {
 public:
    using QMainWindow::QMainWindow;
    /// The page that is shown.
    virtual Page* page() const = 0;
    /// The page of an id in pages.cpp.
    virtual Page* pageOf(const QString& id) const = 0;
    /// Open a page by its id in pages.cpp. @param about  what it is opened about, in the page's own words
    virtual void open(const QString& id, const QString& about) = 0;
    /// The same by way of the station it belongs to.
    virtual void openFrom(const QString& id) = 0;
    /// The act of the window of this id, or null.
    QAction* act(const QString& id) const { return findChild<QAction*>(id, Qt::FindDirectChildrenOnly); }
};

}  // namespace ombrek
