#include "desk/paper/paper_page.h"

#include <QClipboard>
#include <QGuiApplication>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/files.h"

namespace ombrek {
namespace {

constexpr std::size_t kMost = 60000;  ///< of a text that is read here: ten pages and more [bytes]

}  // namespace

PaperPage::PaperPage(Session& session)
    : Page(session, QStringLiteral("From the paper")),
      source_(textLabel(20, true)),
      doubts_(textLabel(15)),
      rowCard_(new Card),
      all_(new Card),
      how_(new Card),
      list_(new StateList) {
    rowCard_->addBody(source_);
    rowCard_->addBody(doubts_);
    big()->addWidget(rowCard_, 0);
    all_->setTitle(QStringLiteral("What was made of it"));
    all_->addBody(list_, 1);
    all_->fillWithBody();
    big()->addWidget(all_, 1);
    side()->addWidget(how_, 1);
    setEnter("say-the-row-again", "say the row again, or write the first", [this] { say(); });
    addKey("a-row", "Down", "Up Down", "a row", [this] { choose(1); });
    addKey("one-more-line", "N", "N", "one more line", [this] { add(); });
    addKey("leave-it-out", "Delete", "Del", "leave it out", [this] { drop(); });
    addKey("take-them", "A", "A", "take them into the kit", [this] { take(); });
    addKey("paste", "Ctrl+V", "Ctrl+V", "paste", [this] { paste(); });
    addKey("open-a-file", "O", "O", "open a file",
           [this] { askToOpen(this, kPaperFile, [this](const QString& f) { open(f); }); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (working()) return work().stop();
        emit left();
    });
    addRare("the-row-before", "Up", "the row before", [this] { choose(-1); });
    connect(list_, &StateList::picked, this, [this](int row) {
        row_ = std::size_t(row);
        refresh();
    });
}

void PaperPage::begin(const QString& about) {
    const QString word = about.section(QChar(' '), 0, 0);
    const Paper paper = paperOf(word.toStdString());
    if (paper != model_.paper() || model_.rows().empty()) {
        model_.begin(paper);
        row_ = 0;
    }
    followBook();
    if (about.endsWith(QLatin1String(" paste"))) paste();
    refresh();
}

/// Under which word the book keeps what is not taken yet.
std::string PaperPage::holds() const { return paperRow(model_.paper()).word; }

/// What the book holds of it, after a restart, or when a correction was taken back.
void PaperPage::followBook() {
    if (!session_.hasBuild()) return;
    const std::string held = session_.book().paper(holds());
    if (held == model_.text()) return;
    model_.read(held, session_.kit(), session_.tables().cores);
}

void PaperPage::read(std::string text) {
    asked_ = false;
    model_.read(std::move(text), session_.kit(), session_.tables().cores);
    if (session_.hasBuild()) session_.kept(session_.book().keepPaper(holds(), model_.text()));
    row_ = std::min(row_, model_.rows().empty() ? 0 : model_.rows().size() - 1);
    refresh();
}

void PaperPage::paste() {
    const QString text = QGuiApplication::clipboard()->text();
    if (text.trimmed().isEmpty())
        return session_.say(QStringLiteral("There is no text to paste: copy the lines in the manual first."));
    takeText(text);
}

/// What stands here already is kept: a second page goes below the first.
bool PaperPage::takeText(const QString& text) {
    if (std::size_t(text.size()) + model_.text().size() > kMost) {
        session_.say(QStringLiteral(
                         "This is more than ten pages of a manual: take what is here first, or paste less."),
                     VerdictState::cannotTell);
        return true;
    }
    std::string all = model_.text();
    const std::size_t before = model_.rows().size();
    if (!all.empty() && all.back() != '\n') all += '\n';
    read(all + text.toStdString());
    if (before > 0)
        session_.say(QStringLiteral("Added below the %1 rows that stood here, which are kept: %2 now.")
                         .arg(before)
                         .arg(model_.rows().size()));
    return true;
}

void PaperPage::open(const QString& file) {
    const bool begun = work().start<Result<std::string>>(
        [path = file.toStdString()](const LongWork::Progress&) { return readFile(path, kMost); },
        [this](Result<std::string> bytes) {
            if (!bytes) return session_.say(qs(bytes.error().text()), VerdictState::fail);
            read(std::move(*bytes));
        });
    if (!begun) session_.say(QStringLiteral("Something is still being read."));
}

void PaperPage::choose(int by) {
    const int count = int(model_.rows().size());
    if (count > 0) row_ = std::size_t((int(row_) + by + count) % count);
    refresh();
}

void PaperPage::say() {
    if (model_.rows().empty()) return add();
    const PaperModel::Row& row = model_.rows()[row_];
    askText(QStringLiteral("Line %1").arg(row.line), qs(row.source).simplified(),
            [this, at = row_](const QString& text) { read(model_.withRow(at, text.toStdString())); });
}

void PaperPage::add() {
    askText(QStringLiteral("One more line"), QString(),
            [this](const QString& text) { read(model_.withLine(text.toStdString())); });
}

void PaperPage::drop() {
    if (!model_.rows().empty()) read(model_.withRow(row_, ""));
}

void PaperPage::take() {
    if (!session_.hasBuild() || model_.takable() == 0) return;
    const int left = int(model_.rows().size()) - model_.takable();
    if (model_.doubtful() > 0 && !asked_) {
        asked_ = true;
        return session_.say(
            QStringLiteral("%1 rows are doubtful, %2 of them cannot be taken. A again takes the rest.")
                .arg(model_.doubtful())
                .arg(left),
            VerdictState::doubtful);
    }
    const auto text =
        model_.into(session_.build().kitText, session_.kit(), session_.build(), session_.tables().cores);
    if (!text) return session_.say(qs(text.error().text()), VerdictState::cannotTell);
    const PaperRow& row = paperRow(model_.paper());
    const int taken = model_.takable();
    if (!session_.kept(session_.book().changeKit(*text, row.action, {}, {}, holds()))) return;
    model_.begin(model_.paper());
    session_.say(QStringLiteral("%1 taken into the kit. Z takes them back.").arg(taken), VerdictState::pass);
    emit wants(QString::fromLatin1(row.station), QString());
}

void PaperPage::refresh() {
    followBook();
    const auto& rows = model_.rows();
    row_ = std::min(row_, rows.empty() ? 0 : rows.size() - 1);
    setNow(model_.now(), model_.why());
    setAble("take-them", !session_.hasBuild()    ? QStringLiteral("Begin a kit first.")
                         : model_.takable() == 0 ? QStringLiteral("Nothing here can be taken yet.")
                                                 : QString());
    setAble("leave-it-out", rows.empty() ? QStringLiteral("There is no row yet.") : QString());
    const std::size_t chosen = row_;
    list_->setLines(
        int(rows.size()),
        [this, chosen](int at) {
            const PaperModel::Row& r = model_.rows()[std::size_t(at)];
            return StateLine{r.state, qs(r.says), QStringLiteral("line %1").arg(r.line),
                             std::size_t(at) == chosen, false};
        },
        rows.empty() ? -1 : int(row_));
    rowCard_->setVisible(!rows.empty());
    if (!rows.empty()) {
        rowCard_->setTitle(QStringLiteral("Line %1 of the paper").arg(rows[row_].line));
        source_->setText(qs(rows[row_].source).simplified().left(160));
        doubts_->setText(rows[row_].doubts.empty()
                             ? QStringLiteral("Understood: %1.").arg(qs(rows[row_].says))
                             : qs(rows[row_].doubts));
    }
    how_->setTitle(QStringLiteral("How it may look"));
    how_->setText(qs(std::string_view(paperRow(model_.paper()).example)));
}

}  // namespace ombrek
