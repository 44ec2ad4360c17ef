#pragma once

#include <QElapsedTimer>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>
#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

#include "desk/act.h"
#include "desk/files/ask_file.h"
#include "desk/pieces/long_work.h"
#include "desk/session.h"
#include "report/a4_sheet.h"

namespace ombrek {

/// What every station's page has: the now line, the big live thing with cards beside it, an entry for a typed
/// reading, a line for what happened, and the keys. A page shows what the book holds and keeps nothing of its
/// own that would be missed.
class Page : public QWidget {
    Q_OBJECT
 public:
    Page(Session& session, const QString& name, QWidget* parent = nullptr);

    /// Show what the book holds now.
    virtual void refresh() = 0;
    /// A room is opened; `about` is a designator, a file or empty.
    virtual void begin(const QString& /*about*/) {}

    /// The page's acts (see act.h) are its QActions. The act of this id, or null.
    QAction* act(const QString& id) const { return findChild<QAction*>(id, Qt::FindDirectChildrenOnly); }
    /// A cap at the foot for an act of the window.
    void addCap(QAction* act);
    /// A file was given to this page, by a path or dropped on it. @return false when it takes none
    virtual bool openFile(const QString& /*path*/) { return false; }
    /// What `begin` would take to come back to what is in hand here.
    virtual QString about() const { return {}; }
    /// What this page prints now; nothing when it prints nothing.
    virtual std::optional<A4Sheet> sheet() { return std::nullopt; }
    /// The row in hand, or what the page says, as text to be copied.
    virtual QString copied() const;
    /// Whether it has a sheet to print.
    virtual bool prints() const { return false; }
    /// A text was pasted or dropped that belongs here. @return false when it takes none
    virtual bool takeText(const QString& /*text*/) { return false; }
    /// Whether a picture given to openFile is one for this page.
    virtual bool takesPictures() const { return false; }
    /// Whether something is being typed.
    bool entryOpen() const { return !entryRow_->isHidden(); }
    QString name() const { return name_; }

    /// Put a value where the page wants one (from the sums line). @return false when it wants none
    bool offer(const QString& text);
    /// The same with what was copied, when it is one short line.
    bool offerPasted();
    /// Focus to the entry that is open, else to the page and its keys.
    void takeFocus();
    /// Whether digits typed on the page are a reading.
    bool takesNumbers() const { return bool(reading_.use); }
    /// Leave only the big thing, for reading from afar.
    virtual void setBigOnly(bool on);
    /// Little height: leave out what is said elsewhere on the page.
    virtual void setCompact(bool) {}
    void showLine(const QString& line, VerdictState state);
    /// The same, once the long work that runs has ended; at once when none runs.
    void sayWhenDone(const QString& line);
    QString nowSentence() const { return now_->text(); }
    bool working() const { return work_.running(); }

    /// A page takes the room it is given: a sentence that changes does not have the window and every hidden
    /// page measured again, which costs more than a frame.
    bool hasHeightForWidth() const override { return false; }
    QSize sizeHint() const override { return {1066, 760}; }
    QSize minimumSizeHint() const override { return {400, 300}; }

 signals:
    /// Another page is to be opened, by its id in pages.cpp; `about` is what its `begin` takes.
    void wants(const QString& page, const QString& about);
    /// Another book is to be opened.
    void wantsBook(const QString& file);
    /// What is drawn is drawn anew: text of another size, numbers written otherwise.
    void wantsLook();
    /// Esc with nothing to close: back to where the builder came from.
    void left();

 protected:
    void setNow(const QString& sentence, const QString& why);
    /// An act of this page with its key. @param id  stays as it is when the words change
    /// @param sequence  as QKeySequence reads it; "Return" also takes Enter
    QAction* addKey(const char* id, const char* sequence, const char* shown, const char* does,
                    std::function<void()> act, bool common = true);
    /// One that is not on the row at the foot, only under "?".
    QAction* addRare(const char* id, const char* key, const char* does, std::function<void()> act) {
        return addKey(id, key, key, does, std::move(act), false);
    }
    /// Ins and Ctrl+V: this station's own material, entered or pasted from the paper.
    void takesPaper(const char* word);
    /// Shift+E and Shift+D: where the rig is otherwise than its paper, of what is in hand on this page.
    /// @param inHand  of unknown kind: nothing is
    void takesNotes(std::function<Subject()> inHand);
    /// The kit has none of it yet: the keys stand at the foot, and a card shows how the paper may print it.
    void offerPaper(bool empty);
    /// Whether an act stands at the foot now; the others stand under "?".
    void setCommon(const char* id, bool common);
    /// Whether an act can be done now; its key says why not. @param whyNot  a sentence; empty: it can
    void setAble(const char* id, const QString& whyNot);
    /// Enter does what the now line says.
    void setEnter(const char* id, const char* does, std::function<void()> act);
    QVBoxLayout* big();
    QVBoxLayout* side();
    /// What is typed on the page goes into an entry with this prompt, which says beside it what it will be
    /// kept as. An entry that is open keeps the reading it was opened for, whatever the page wants meanwhile.
    void wantReading(const QString& prompt, const Reading& pattern);
    /// The same for a reading that is not of the book's subjects.
    void wantReading(const QString& prompt, std::function<Session::Entered(const QString&)> understand,
                     std::function<void(const QString&)> use);
    /// The page wants no value now.
    void wantNothing() { reading_ = {}; }
    /// Long work of this page: progress stands on the note line, Esc stops it.
    LongWork& work() { return work_; }
    /// Ask where, then write the file off the window's thread and say so.
    /// @param then  called when it has been written
    void writeOut(const FileWish& wish, const QString& name, std::function<QByteArray()> bytes,
                  std::function<void()> then = {});
    /// A free text instead of a reading (a remark, a reason); Enter uses it, Esc leaves.
    void askText(const QString& prompt, const QString& start, std::function<void(const QString&)> use);

    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

    Session& session_;

 private:
    /// What an entry is for.
    struct Wanted {
        QString prompt;
        std::function<Session::Entered(const QString&)> understand;  ///< none: any text will do
        std::function<void(const QString&)> use;
    };
    void enter();
    void openEntry(const Wanted& wanted, const QString& text);
    void showMeaning();
    QString whyNot(const QKeyEvent& event) const;
    void closeEntry();
    void showCaps();

    QString name_;
    const char* paper_ = "";  ///< what this station takes from the paper
    class Card* paperCard_ = nullptr;
    QLabel *now_, *why_;
    class FittedColumn *big_, *side_;
    QWidget* entryRow_;
    QLabel *entryPrompt_, *entryMeaning_;
    QLineEdit* entry_;
    class NoteLine* note_;
    QWidget* keyRow_;  ///< the caps of the acts at the foot
    bool bigOnly_ = false;
    QElapsedTimer said_;     ///< since the last line
    bool troubled_ = false;  ///< the last line was about something that is not understood
    Wanted reading_, open_;  ///< wanted now, and what the open entry is for
    QString insisted_;       ///< a text that was asked about
    std::function<void()> enterAct_;
    QString whenDone_;
    LongWork work_;
};

}  // namespace ombrek
