#pragma once

#include <QMenuBar>
#include <QPointer>

namespace ombrek {

class Rooms;

/// The menu bar: every act of the window and of the page in hand, by the same QActions as the caps. It may be
/// hidden; Alt alone shows it then, until it is left.
class Menus : public QObject {
    Q_OBJECT
 public:
    explicit Menus(Rooms& rooms);
    /// The page in hand has changed: its acts stand under "Page".
    void followPage();
    /// Hidden for good, or shown. Kept per person.
    void setShown(bool shown);
    bool shown() const { return shown_; }
    QMenu* menu(const QString& title) const;

 protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

 signals:
    /// A recent file was chosen.
    void wantsBook(const QString& file);
    void wantsKit(const QString& file);

 private:
    QMenu* add(const QString& title, const QList<const char*>& acts);
    QMenu* recent(QMenu* menu, const QString& title, const QString& key,
                  std::function<void(const QString&)> open);
    void show();

    Rooms& rooms_;
    QMenuBar* bar_;
    QMenu* page_ = nullptr;
    QPointer<QMenu> more_;  ///< the page's acts that do not stand at its foot
    bool shown_ = true, altAlone_ = false;
};

}  // namespace ombrek
