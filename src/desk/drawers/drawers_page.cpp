#include "desk/drawers/drawers_page.h"

#include <QKeyEvent>
#include <cmath>

#include "desk/drawers/drawers_model.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/find_field.h"
#include "desk/pieces/refused_words.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/files.h"
#include "formats/stock_csv.h"
#include "formats/stock_text.h"
#include "lists/parts_list.h"

namespace ombrek {

DrawersPage::DrawersPage(Session& session)
    : Page(session, QStringLiteral("Drawers")),
      find_(new FindField(QStringLiteral("Find in the drawers"), QStringLiteral("10n..47n 50V"))),
      number_(new BigNumber(60)),
      what_(textLabel(17)),
      found_(textLabel(14, false, "soft")),
      list_(new StateList),
      line_(new Card),
      help_(new Card) {
    big()->addWidget(find_);
    big()->addWidget(found_);
    auto* sheet = new Card;
    sheet->addBody(list_, 1);
    sheet->fillWithBody();
    big()->addWidget(sheet, 1);
    line_->addBody(number_);
    line_->addBody(what_);
    side()->addWidget(line_, 0);
    help_->setTitle(QStringLiteral("What can be typed"));
    help_->setText(QStringLiteral(
        "4k7\u2003that value\n10n..47n\u2003a range\n50V\u2003at least so many volts\n1%\u2003that tolerance "
        "or better\nnpn B3\u2003words of the name or the drawer\n\nAll of it must fit. What is promised to a "
        "kit is not offered to another."));
    side()->addWidget(help_, 1);
    addKeys();
    connect(find_, &FindField::left, this, [this] { setFocus(); });
    connect(find_, &QLineEdit::textChanged, this, [this] { search(inHand()); });
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        showLine();
    });
}

void DrawersPage::addKeys() {
    addKey("find", "F", "F", "find", [this] { find_->setFocus(); });
    addKey("line", "Down", "Up Down", "a line", [this] { choose(1); });
    addKey("count", "Right", "Right Left", "one more, one less", [this] { count(1); });
    addKey("add", "A", "A", "add a line", [this] { addTyped(); });
    addKey("change", "C", "C", "change it", [this] { change(); });
    addKey("take-in", "I", "I", "take in a CSV",
           [this] { askToOpen(this, kListFile, [this](const QString& f) { takeIn(f); }); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (working()) return work().stop();
        emit left();
    });
    addRare("the-line-before", "Up", "the line before", [this] { choose(-1); });
    addRare("one-less", "Left", "one less", [this] { count(-1); });
    addRare("the-spares-of-this-kit", "S", "the spares of this kit into a drawer", [this] { putSpares(); });
    addRare("write-the-drawers-as-csv", "X", "write the drawers as CSV", [this] {
        writeOut(kCsvFile, QStringLiteral("drawers.csv"),
                 [all = drawers_] { return QByteArray::fromStdString(writeStock(all->lines)); });
    });
    addRare("take-the-line-out", "Delete", "take the line out", [this] {
        if (const StockLine* l = line()) session_.kept(session_.book().removeStock(l->id));
    });
}

/// The keys go to the search, but where there is nothing to find: A has to begin.
void DrawersPage::begin(const QString&) {
    const auto all = session_.drawers();
    if (all && !all->lines.empty()) find_->setFocus();
}

const StockLine* DrawersPage::line() const {
    return at_ >= 0 && at_ < int(rows_.size()) ? &drawers_->lines[rows_[std::size_t(at_)]] : nullptr;
}

void DrawersPage::refresh() {
    const std::int64_t id = inHand();  // its place is one in the drawers as they were
    promises_ = session_.book().promises();
    if (auto now = session_.drawers()) drawers_ = std::move(now);
    search(id);
}

std::int64_t DrawersPage::inHand() const { return line() != nullptr ? line()->id : 0; }

void DrawersPage::search(std::int64_t id) {
    if (!drawers_) return;
    rows_ = drawers_->search.find(find_->text().toStdString());
    const auto same =
        std::find_if(rows_.begin(), rows_.end(), [&](std::size_t i) { return drawers_->lines[i].id == id; });
    at_ = same == rows_.end() ? 0 : int(same - rows_.begin());
    showLine();
}

void DrawersPage::showLine() {
    const DrawersView v = drawersView(rows_.size(), drawers_->lines.size());
    setNow(v.now, v.why);
    found_->setText(v.found);
    list_->setLines(
        int(rows_.size()),
        [this, drawers = drawers_, shown = at_](int row) {
            return drawerRow(drawers->lines[rows_[std::size_t(row)]], promises_, row == shown);
        },
        at_);
    const StockLine* l = line();
    if (l == nullptr) {
        line_->setTitle(QStringLiteral("No line"));
        number_->showWord(QStringLiteral("nothing fits"));
        what_->setText(QString());
        line_->setText(QString());
        return;
    }
    const DrawerLineView shown = drawerLineView(*l, promises_);
    line_->setTitle(shown.title);
    number_->show(QString::number(shown.count), QStringLiteral("pc"));
    what_->setText(shown.what);
    line_->setText(shown.promised);
}

void DrawersPage::choose(int by) {
    if (rows_.empty()) return;
    at_ = (at_ + by + int(rows_.size())) % int(rows_.size());
    showLine();
}

void DrawersPage::count(int by) {
    if (const StockLine* l = line()) {
        StockLine changed = *l;
        changed.count = std::max(0, changed.count + by);
        session_.kept(session_.book().changeStock(changed));
    }
}

void DrawersPage::addTyped() {
    askText(QStringLiteral("Drawer, part, count"), QString(), [this](const QString& text) {
        const auto typed = readStockText(text.toStdString());
        if (!typed) return session_.say(qs(typed.error().sentence), VerdictState::cannotTell);
        session_.kept(session_.book().addStock({*typed}));
    });
}

void DrawersPage::change() {
    const StockLine* l = line();
    if (l == nullptr) return;
    const std::int64_t id = l->id;
    askText(QStringLiteral("Drawer, part, count"), qs(stockText(*l)), [this, id](const QString& text) {
        auto typed = readStockText(text.toStdString());
        if (!typed) return session_.say(qs(typed.error().sentence), VerdictState::cannotTell);
        typed->id = id;
        session_.kept(session_.book().changeStock(*typed));
    });
}

/// Read a file and keep it in the book, all off the window's thread; one action.
void DrawersPage::takeIn(const QString& file) {
    struct Taken {
        std::size_t lines = 0;
        std::vector<RefusedLine> refused;
    };
    const bool begun = work().start<Result<Taken>>(
        [this, path = file.toStdString()](const LongWork::Progress& progress) -> Result<Taken> {
            const auto bytes = readFile(path, kLargestList);
            if (!bytes) return tl::make_unexpected(bytes.error());
            auto read = readStock(*bytes, [&](double share) { return progress(share / 2); });
            if (!read) return tl::make_unexpected(read.error());
            const auto kept = session_.book().importStock(
                read->lines, [&](double share) { return progress(0.5 + share / 2); });
            if (!kept) return tl::make_unexpected(kept.error());
            return Taken{read->lines.size(), std::move(read->refused)};
        },
        [this](Result<Taken> taken) {
            if (!taken) return session_.say(qs(taken.error().text()), VerdictState::fail);
            session_.book().announce();
            const QString line = QStringLiteral("%L1 lines taken in; Z takes them back.").arg(taken->lines) +
                                 refusedWords(taken->refused);
            session_.say(line, taken->refused.empty() ? VerdictState::pass : VerdictState::doubtful);
        });
    if (!begun) session_.say(QStringLiteral("Something is still being worked on."));
}

void DrawersPage::putSpares() {
    if (!session_.hasBuild()) return;
    std::vector<std::int64_t> ids;
    const std::vector<StockLine> lines = sparesOf(session_.judged(), ids);
    if (ids.empty()) return session_.say(QStringLiteral("This kit has no parts over."));
    if (session_.kept(session_.book().putSpares(ids, lines)))
        session_.say(QStringLiteral("%1 put into the drawer \"spares\".").arg(ids.size()),
                     VerdictState::pass);
}

void DrawersPage::keyPressEvent(QKeyEvent* event) {
    const QString text = event->text();
    if (!text.isEmpty() && text[0].isDigit() && event->modifiers() == Qt::NoModifier) {
        find_->setFocus();
        find_->setText(text);
        return;
    }
    Page::keyPressEvent(event);
}

}  // namespace ombrek
