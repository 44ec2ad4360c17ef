#pragma once

#include "desk/air/log_model.h"
#include "desk/page.h"

namespace ombrek {

class AzimuthalMap;
class Card;
class FindField;
class Plot;
class StateList;

/// The station's log: contacts written down in one line, taken in and given out as ADIF, on a map.
class LogPage : public Page {
    Q_OBJECT
 public:
    explicit LogPage(Session& session);
    void refresh() override;
    bool openFile(const QString& path) override;
    bool takeText(const QString& text) override;

 private:
    void addKeys();
    void askContact(const Contact& known, const QString& line);
    void keepTyped(const Contact& known, const QString& line);
    Session::Entered understand(const Contact& known, const QString& line) const;
    void change();
    void toggleRig();
    void takeIn(const QString& file);
    void takeBytes(std::function<Result<std::string>()> read);
    void takeReports(const QString& file);
    void giveOut();
    void choose(int by);
    void showRow();
    const Contact* inHand() const;
    double wattsOfRig() const;
    std::int64_t rig() const { return session_.hasBuild() ? session_.build().id : 0; }
    QString ownLocator() const { return qs(session_.book().preference("locator")); }

    LogView view_;
    std::shared_ptr<const StationLog> log_;
    int at_ = 0;
    FindField* find_;
    QLabel* found_;
    StateList* list_;
    Card *contact_, *mapCard_, *heard_;
    Plot* plot_;
    AzimuthalMap* map_;
};

}  // namespace ombrek
