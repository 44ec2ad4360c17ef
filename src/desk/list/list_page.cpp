#include "desk/list/list_page.h"

#include <QClipboard>
#include <QFileInfo>
#include <QGuiApplication>
#include <QRegularExpression>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/kit_variants.h"

namespace ombrek {
namespace {

constexpr std::size_t kMostKept = 2000000;  ///< of a list that is kept in the book [bytes]
constexpr std::int64_t kShapeEdit = -1;     ///< the edit that says what the columns hold
constexpr std::int64_t kVariantEdit = -2;   ///< the edit that says which variant is built

std::string variantOf(const ListDraft& draft) {
    std::string out;
    for (const ListDraft::Edit& edit : draft.edits) {
        if (edit.how == "variant") out = edit.text;
    }
    return out;
}

}  // namespace

ListPage::ListPage(Session& session)
    : Page(session, QStringLiteral("Parts list")),
      source_(textLabel(20, true)),
      doubts_(textLabel(15)),
      rowCard_(new Card),
      columns_(new Card),
      rows_(new Card),
      list_(new StateList),
      columnList_(new StateList) {
    rowCard_->addBody(source_);
    rowCard_->addBody(doubts_);
    big()->addWidget(rowCard_, 0);
    rows_->addBody(list_, 1);
    rows_->fillWithBody();
    big()->addWidget(rows_, 1);
    columns_->addBody(columnList_, 1);
    columns_->fillWithBody();
    side()->addWidget(columns_, 1);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        row_ = std::size_t(row);
        refresh();
    });
    connect(columnList_, &StateList::picked, this, [this](int column) {
        column_ = std::size_t(column);
        refresh();
    });
}

void ListPage::addKeys() {
    setEnter("say-the-row-again", "say the row again", [this] { model_.empty() ? addLine() : correct(); });
    addKey("one-more-line", "N", "N", "one more line", [this] { addLine(); });
    addKey("a-row", "Down", "Up Down", "a row", [this] { choose(1); });
    addKey("right-as-read", "Y", "Y", "right as read", [this] {
        if (model_.empty()) return;
        const auto edit = model_.confirm(row_);
        if (edit) nextDoubt();
        if (edit) keep(*edit);
    });
    addKey("leave-it-out", "Delete", "Del", "leave it out", [this] {
        if (model_.empty()) return;
        keep(model_.drop(row_));
    });
    addKey("begin-the-kit", "A", "A", "begin the kit", [this] { accept(); });
    addKey("open-a-file", "O", "O", "open a file",
           [this] { askToOpen(this, kListFile, [this](const QString& f) { open(f); }); });
    addKey("paste", "Ctrl+V", "Ctrl+V", "paste", [this] { paste(); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (working()) return work().stop();
        emit left();
    });
    addRare("paste-below", "Shift+V", "paste below what is here", [this] { pasteBelow(); });
    addRare("variant", "V", "which variant is built", [this] { nextVariant(); });
    addRare("the-row-before", "Up", "the row before", [this] { choose(-1); });
    addRare("the-next-column", "Right", "the next column", [this] { chooseColumn(1); });
    addRare("the-column-before", "Left", "the column before", [this] { chooseColumn(-1); });
    addRare("what-the-column-holds", "C", "what the column holds", [this] { turnColumn(); });
}

void ListPage::begin(const QString& about) {
    if (!about.isEmpty()) open(about);
    refresh();
}

void ListPage::open(const QString& file) {
    const bool begun = work().start<Result<std::string>>(
        [path = file.toStdString()](const LongWork::Progress&) { return readFile(path, kLargestList); },
        [this, info = QFileInfo(file)](Result<std::string> bytes) {
            if (!bytes) return session_.say(qs(bytes.error().text()), VerdictState::fail);
            take({info.completeBaseName().toStdString(),
                  info.fileName().toStdString(),
                  std::move(*bytes),
                  {}});
        });
    if (!begun) session_.say(QStringLiteral("Another list is still being read."));
}

void ListPage::paste() {
    const QString text = QGuiApplication::clipboard()->text();
    if (text.trimmed().isEmpty())
        return session_.say(QStringLiteral("There is no text to paste: copy the list in the manual first."));
    takeText(text);
}

bool ListPage::takeText(const QString& text) {
    take({"Pasted list", "the clipboard", text.toStdString(), {}});
    return true;
}

/// Over a list that stands here another is asked about: the same once more is meant.
bool ListPage::replaces(const ListDraft& draft) {
    const bool meant = model_.empty() || draft.source == draft_.source || draft.source == replacement_;
    replacement_ = meant ? std::string() : draft.source;
    if (!meant)
        session_.say(
            QStringLiteral("A list of %1 rows stands here. Once more replaces it; Shift+V adds what was "
                           "copied below it.")
                .arg(model_.rows().size()),
            VerdictState::doubtful);
    return meant;
}

void ListPage::pasteBelow() {
    const std::string text = QGuiApplication::clipboard()->text().trimmed().toStdString();
    if (text.empty() || model_.empty()) return paste();
    if (looksLikeTable(text) != base_.table)
        return session_.say(
            QStringLiteral("One is a table and the other is text: begin the kit with one, take "
                           "the other in as an upgrade."),
            VerdictState::cannotTell);
    replacement_.clear();
    addBelow(text);
}

/// Another list: read, and kept in the book with what is said of its rows until the kit is begun.
void ListPage::take(const ListDraft& draft) {
    if (!replaces(draft)) return;
    read(draft, [this, draft](ListSource source) {
        base_ = std::move(source);
        draft_ = draft;
        row_ = column_ = 0;
        asked_ = false;
        model_.take(base_);
        inBook_ = draft_.source.size() <= kMostKept && session_.kept(session_.book().keepListDraft(draft_));
        session_.say(
            inBook_
                ? QStringLiteral("Read from %1.").arg(qs(draft.origin))
                : QStringLiteral("Read from %1. The list is not kept in the book: corrections are lost when "
                                 "Ombrek ends.")
                      .arg(qs(draft.origin)),
            inBook_ ? VerdictState::notDone : VerdictState::doubtful);
        refresh();
    });
}

void ListPage::read(const ListDraft& draft, std::function<void(ListSource)> then) {
    const std::string& bytes = draft.source;
    // The book is asked in this thread; the reader gets the one shape that fits the header.
    const auto table = looksLikeTable(bytes) ? readTable(bytes.substr(0, 20000)) : problem("", "");
    std::optional<ListShape> known;
    if (table) known = readShape(session_.book().listShape(guessShape(*table).key));
    for (const ListDraft::Edit& edit : draft.edits) {
        if (edit.how == "shape") known = readShape(edit.text);
    }
    const bool begun = work().start<Result<ListSource>>(
        [bytes, known, variant = variantOf(draft)](const LongWork::Progress& progress) {
            return readPartsList(
                bytes, progress, [known](const std::string&) { return known; }, variant);
        },
        [this, then = std::move(then)](Result<ListSource> source) {
            if (!source) return session_.say(qs(source.error().text()), VerdictState::fail);
            then(std::move(*source));
        });
    if (!begun) session_.say(QStringLiteral("Something is still being read."));
}

/// What the book holds, after a restart, or when an action was taken back.
void ListPage::followBook() {
    if (working() || (!inBook_ && !model_.empty())) return;
    const auto held = session_.book().listDraft();
    if (!held) {
        if (inBook_) model_ = {}, draft_ = {}, inBook_ = false;
        return;
    }
    if (held->source != draft_.source || model_.empty() || variantOf(*held) != variantOf(draft_)) {
        read(*held, [this, draft = *held](ListSource source) {
            base_ = std::move(source);
            draft_ = draft;
            inBook_ = true;
            model_.take(base_, draft_.edits, variantOf(draft_));
            refresh();
        });
    } else if (held->edits != draft_.edits) {
        const std::int64_t key = row_ < model_.rows().size() ? model_.rows()[row_].key : 0;
        draft_ = *held;
        model_.take(base_, draft_.edits, variantOf(draft_));
        row_ = model_.rowOf(key, row_);
    }
}

/// An edit that the model has made already, into the book.
void ListPage::keep(const ListDraft::Edit& edit) {
    asked_ = false;
    std::erase_if(draft_.edits, [&](const ListDraft::Edit& e) { return e.line == edit.line; });
    draft_.edits.push_back(edit);
    if (inBook_) session_.kept(session_.book().editListDraft(edit));
    refresh();
}

/// On to the next row that wants a look, round the list.
void ListPage::nextDoubt() {
    const auto& rows = model_.rows();
    for (std::size_t i = 1; i <= rows.size(); ++i) {
        const std::size_t at = (row_ + i) % rows.size();
        if (rows[at].state == VerdictState::pass) continue;
        row_ = at;
        return;
    }
}

void ListPage::choose(int by) {
    const int count = int(model_.rows().size());
    if (count > 0) row_ = std::size_t((int(row_) + by + count) % count);
    refresh();
}

void ListPage::chooseColumn(int by) {
    const int count = int(model_.source().shape.columns.size());
    if (count > 0) column_ = std::size_t((int(column_) + by + count) % count);
    refresh();
}

void ListPage::turnColumn() {
    if (!base_.table || column_ >= base_.shape.columns.size()) return;
    Column& held = base_.shape.columns[column_];
    held = static_cast<Column>((static_cast<int>(held) + 1) % kColumns);
    base_.list = readListTable(base_.cells, base_.shape, {}, variantOf(draft_));
    const std::int64_t key = row_ < model_.rows().size() ? model_.rows()[row_].key : 0;
    model_.take(base_, draft_.edits, variantOf(draft_));
    row_ = model_.rowOf(key, row_);
    const ListShape& shape = base_.shape;
    if (!shape.key.empty()) session_.kept(session_.book().rememberShape(shape.key, shapeText(shape)));
    keep({kShapeEdit, "shape", shapeText(shape)});
}

/// Without any list: designators as the board's print has them, in any order, with a value or without. A
/// blank line keeps each for itself.
void ListPage::addLine() {
    if (base_.table)
        return session_.say(
            QStringLiteral("A table's rows are its own: say a row again, or paste what is missing."));
    askText(QStringLiteral("One more line, as R1-R4 10k or C5"), QString(),
            [this](const QString& text) { addBelow("\n" + text.toStdString()); });
}

void ListPage::addBelow(const std::string& text) {
    ListDraft draft = draft_;
    if (draft.source.empty()) draft = {"Own kit", "what was typed", "", {}};
    if (!draft.source.empty() && !draft.source.ends_with('\n')) draft.source += "\n";
    draft.source += text + "\n";
    read(draft, [this, draft](ListSource source) {
        base_ = std::move(source);
        draft_ = draft;
        asked_ = false;
        model_.take(base_, draft_.edits, variantOf(draft_));
        inBook_ = session_.kept(session_.book().keepListDraft(draft_));
        refresh();
    });
}

/// The next of the list's variants, and none after the last: every value is read anew for it.
void ListPage::nextVariant() {
    const auto names = model_.source().list.variants;
    if (model_.empty() || names.empty())
        return session_.say(QStringLiteral("This list comes in one variant only."));
    const auto hit = std::find(names.begin(), names.end(), variantOf(draft_));
    const std::string next = hit == names.end() ? names.front() : hit + 1 == names.end() ? "" : *(hit + 1);
    ListDraft draft = draft_;
    std::erase_if(draft.edits, [](const ListDraft::Edit& e) { return e.line == kVariantEdit; });
    draft.edits.push_back({kVariantEdit, "variant", next});
    read(draft, [this, next](ListSource source) {
        base_ = std::move(source);
        const std::int64_t key = row_ < model_.rows().size() ? model_.rows()[row_].key : 0;
        model_.take(base_, draft_.edits, next);
        row_ = model_.rowOf(key, row_);
        keep({kVariantEdit, "variant", next});
    });
}

void ListPage::correct() {
    if (model_.empty()) return;
    const std::int64_t key = model_.rows()[row_].key;
    askText(QStringLiteral("Line %1").arg(model_.rows()[row_].line), qs(model_.rowText(row_)),
            [this, key](const QString& text) {
                const std::size_t row = model_.rowOf(key, row_);
                if (row >= model_.rows().size() || model_.rows()[row].key != key) return;
                row_ = row;
                const int before = model_.parts();
                const auto edit = model_.correct(row, text.toStdString());
                if (!edit) return session_.say(qs(edit.error().sentence), VerdictState::cannotTell);
                // The rows are sorted anew: the row in hand stays the one that was said.
                row_ = model_.rowOf(key, row);
                keep(*edit);
                if (model_.parts() != before)
                    session_.say(QStringLiteral("Kept. The list has %1 parts now, it had %2.")
                                     .arg(model_.parts())
                                     .arg(before),
                                 VerdictState::doubtful);
            });
}

/// Its own title as far as a dash, else the file's name.
QString ListPage::suggestedName() const {
    const QString title =
        qs(base_.list.title).section(QRegularExpression(QStringLiteral(" [-\u2013\u2014:] ")), 0, 0);
    return title.isEmpty() ? qs(draft_.name) : title.simplified().left(60);
}

void ListPage::accept() {
    if (model_.empty() || model_.parts() == 0) return;
    if (model_.doubtful() + model_.refused() > 0 && !asked_) {
        asked_ = true;
        return session_.say(
            QStringLiteral("%1 rows are doubtful, %2 not taken. A again begins the kit as it stands.")
                .arg(model_.doubtful())
                .arg(model_.refused()),
            VerdictState::doubtful);
    }
    askText(QStringLiteral("Name of the kit"), suggestedName(), [this](const QString& name) { build(name); });
}

/// A kit that comes in variants is made of all of them, so that another may be built later.
void ListPage::build(const QString& name) {
    const std::string title = name.toStdString(), chosen = variantOf(draft_);
    const auto& cores = session_.tables().cores;
    const auto variants = model_.source().list.variants;
    if (variants.empty() || chosen.empty()) return start(kitFromList(model_.source().list, title, cores));
    const bool begun = work().start<std::string>(
        [title, chosen, cores, variants, draft = draft_, table = base_.table, cells = base_.cells,
         shape = base_.shape](const LongWork::Progress& progress) {
            std::vector<KitVersion> versions;
            for (const std::string& variant : variants) {
                ListSource source{table, cells, shape, {}};
                if (table) {
                    source.list = readListTable(cells, shape, {}, variant);
                } else if (auto read = readPartsList(draft.source, progress, {}, variant)) {
                    source = std::move(*read);
                }
                ListModel model;
                model.take(std::move(source), draft.edits, variant);
                versions.push_back({variant, kitFromList(model.source().list, title, cores)});
            }
            return withVariants(versions, chosen);
        },
        [this](const std::string& text) { start(text); });
    if (!begun) session_.say(QStringLiteral("Something is still being read."));
}

void ListPage::start(const std::string& text) {
    const auto kit = readKit(text, session_.tables().cores);
    if (!kit) return session_.say(qs(kit.error().text()), VerdictState::fail);
    if (!session_.kept(session_.book().startBuild(kit->name, text))) return;
    model_ = {};
    draft_ = {};
    inBook_ = false;
    emit wants(QStringLiteral("parts-in"), QString());
}

void ListPage::refresh() {
    followBook();
    row_ = std::min(row_, model_.rows().empty() ? 0 : model_.rows().size() - 1);
    if (model_.empty()) {
        setNow(QStringLiteral("Paste the parts list, or open its file."),
               QStringLiteral(
                   "Ctrl+V pastes what you copied in the manual; O opens a table (CSV) or a text; with the "
                   "bare board alone, Enter writes what its print says."));
    } else {
        const int doubts = model_.doubtful() + model_.refused();
        const auto& variants = model_.source().list.variants;
        const std::string variant = variantOf(draft_);
        QStringList names;
        for (const std::string& name : variants) names << qs(name);
        const bool open = !variants.empty() && variant.empty();
        setNow(
            open ? QStringLiteral("Which do you build: %1? V chooses.").arg(names.join(QStringLiteral(", ")))
            : doubts > 0 ? QStringLiteral("Look at %1 doubtful rows; they stand first.").arg(doubts)
                         : QStringLiteral("Every row is understood: A begins the kit."),
            (variant.empty() ? QString() : QStringLiteral("For %1. ").arg(qs(variant))) +
                QStringLiteral("%1 parts on %2 rows. The kit begins with A.")
                    .arg(model_.parts())
                    .arg(model_.rows().size()) +
                (model_.source().list.notes.empty()
                     ? QString()
                     : QStringLiteral(" ") + qs(model_.source().list.notes.front())));
    }
    setCommon("variant", !model_.source().list.variants.empty());
    rows_->setTitle(QStringLiteral("What was made of it"));
    const std::size_t chosen = row_;
    list_->setLines(
        int(model_.rows().size()),
        [this, chosen](int row) {
            const ListModel::Row& r = model_.rows()[std::size_t(row)];
            return StateLine{r.state, qs(r.text),
                             QStringLiteral("%1 \u00b7 line %2").arg(qs(r.right)).arg(r.line),
                             std::size_t(row) == chosen, false};
        },
        model_.empty() ? -1 : int(row_));
    showRow();
    const QString none =
        model_.empty() ? QStringLiteral("There is no list yet: paste it, open its file, or drop it here.")
                       : QString();
    for (const char* id : {"right-as-read", "leave-it-out", "begin-the-kit"}) setAble(id, none);
    const bool table = model_.source().table;
    for (const char* id : {"the-next-column", "the-column-before", "what-the-column-holds"})
        setAble(id, table ? QString() : QStringLiteral("This list is text: it has no columns."));
    setAble("variant", model_.source().list.variants.empty()
                           ? QStringLiteral("This list comes in one variant.")
                           : QString());
    const ListShape& shape = model_.source().shape;
    std::vector<StateLine> columns;
    for (std::size_t i = 0; model_.source().table && i < shape.columns.size(); ++i) {
        columns.push_back({shape.columns[i] == Column::none ? VerdictState::notDone : VerdictState::pass,
                           qs(model_.columnName(i)), qs(word(shape.columns[i])), i == column_, false});
    }
    columns_->setTitle(columns.empty() ? QStringLiteral("How it may look") : QStringLiteral("The columns"));
    columns_->setText(
        columns.empty()
            ? QStringLiteral(
                  "A table with a heading in any order and language, or lines as a manual "
                  "prints them:\n\nR1, R4-R6   4k7 5%   4\nC2   100nF 50V ceramic (marked 104)\nQ1   "
                  "NPN, small signal\n\nRanges are opened, page heads are left out, and what "
                  "is not sure is asked.")
            : QStringLiteral("Left and Right choose a column, C says what it holds. It is remembered for "
                             "the next list with this heading."));
    columnList_->setVisible(!columns.empty());
    columnList_->setLines(std::move(columns));
}

void ListPage::showRow() {
    rowCard_->setVisible(!model_.empty());
    if (model_.empty()) return;
    const ListModel::Row& r = model_.rows()[row_];
    rowCard_->setTitle(QStringLiteral("Line %1 of the list").arg(r.line));
    source_->setText(qs(r.source).left(160));
    doubts_->setText(r.doubts.empty() ? QStringLiteral("Understood: %1.").arg(qs(r.text)) : qs(r.doubts));
}

}  // namespace ombrek
