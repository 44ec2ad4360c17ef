#pragma once

#include <QStackedWidget>
#include <QTimer>
#include <map>
#include <vector>

#include "desk/files/given.h"
#include "desk/instrument_strip.h"
#include "desk/menus.h"
#include "desk/page.h"
#include "desk/rooms.h"
#include "desk/session.h"
#include "desk/sums_line.h"
#include "desk/wire.h"

namespace ombrek {

struct PageRow;

/// The window: the wire at the left, one station's page, the sums line at the foot, the instruments folded in
/// at the right.
class Window : public Rooms {
    Q_OBJECT
 public:
    explicit Window(Session& session, QWidget* parent = nullptr);

    static constexpr int kStations = 7;
    /// Go to a station, 0 to 6.
    void goTo(int station);
    void open(const QString& id, const QString& about = QString()) override;
    /// Back to the station from a page beside it.
    void leave();
    int station() const { return station_; }
    Page* page() const override;
    Page* pageOf(const QString& id) const override;
    void openFrom(const QString& id) override;
    InstrumentStrip& instruments() { return *strip_; }
    /// The instruments beside the page, out or in.
    void showStrip(bool on);
    SumsLine& sums() { return *sums_; }
    Menus& menus() { return *menus_; }
    /// A kit file: begun, and remembered among the recent.
    void beginKit(const QString& file);
    /// What came from outside by dropping or pasting: taken where it belongs, with a sentence.
    void takeFile(const QString& file);
    void takeText(const QString& text);

 signals:
    /// Another book is to be opened.
    void wantsBook(const QString& file);
    /// The window is to be made anew: the text is of another size, or numbers are written otherwise.
    void wantsLook();

 protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

 private:
    void addActs();
    void addBookActs();
    void addEditActs();
    void addViewActs();
    void addHelpActs();
    void addPage(const PageRow& row, Page* page);
    /// An act of the window with its keys; the first is the one that is shown.
    QAction* addAct(const char* id, const char* shown, const QList<QKeySequence>& keys, const QString& does,
                    std::function<void()> done);
    void refresh();
    void showPage(Page* page);
    void pageFailed(const Page& page, const char* why);
    /// A line of what happened, on the page that is shown; an older one elsewhere is stale then.
    void speak(const QString& line, VerdictState state);
    void setChoosing(bool choosing);
    void toggleBig();
    void showRail();
    void showKeys();
    void undo(bool back);
    void nameUndo();
    QString wordsShown() const;
    void copy();
    void paste();
    void print();
    void saveCopy();
    void scaleText(int by);
    void belongs(const Given& given);
    void takePicture(const QString& file);

    Session& session_;
    WireRail* wire_;
    QStackedWidget* pages_;
    SumsLine* sums_;
    InstrumentStrip* strip_;
    class EveningLine* evening_;
    std::map<QString, Page*> byId_;
    std::vector<Page*> stations_;  ///< in the order of the wire
    Page* start_ = nullptr;
    Page* beside_ = nullptr;  ///< open beside the stations
    class KeySheet* keySheet_ = nullptr;
    class FindSheet* find_ = nullptr;
    Menus* menus_ = nullptr;
    Page* menuOf_ = nullptr;  ///< whose acts stand under "Page"
    LongWork looking_;        ///< at what was dropped
    QString arrived_;         ///< the newest file of a folder that is watched
    QTimer clock_, guard_;    ///< a minute of the sitting; a second in which a lost book is noticed
    Page* spoken_ = nullptr;  ///< the page with the last line
    int station_ = 0;
    bool bigOnly_ = false, choosing_ = false;
};

}  // namespace ombrek
