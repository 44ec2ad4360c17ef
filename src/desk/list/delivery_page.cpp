#include "desk/list/delivery_page.h"

#include <QClipboard>
#include <QGuiApplication>

#include "desk/list/delivery_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/files.h"
#include "lists/parts_list.h"
#include "station/phrases.h"

namespace ombrek {
DeliveryPage::DeliveryPage(Session& session)
    : Page(session, QStringLiteral("Delivery")),
      what_(textLabel(28, true)),
      sentence_(textLabel(17)),
      card_(new Card),
      counts_(new Card),
      list_(new StateList) {
    card_->addBody(what_);
    card_->addBody(sentence_);
    big()->addWidget(card_, 0);
    auto* all = new Card;
    all->setTitle(QStringLiteral("What came of the order"));
    all->addBody(list_, 1);
    all->fillWithBody();
    big()->addWidget(all, 1);
    side()->addWidget(counts_, 1);
    setEnter("mark-what-did-not-come", "mark what did not come", [this] { markMissing(); });
    const auto choose = [this](int by) {
        const int count = int(lines_.size());
        if (count > 0) row_ = std::size_t((int(row_) + by + count) % count);
        refresh();
    };
    addKey("a-line", "Down", "Up Down", "a line", [choose] { choose(1); });
    addKey("open-a-file", "O", "O", "open a file",
           [this] { askToOpen(this, kListFile, [this](const QString& f) { open(f); }); });
    addKey("paste", "Ctrl+V", "Ctrl+V", "paste", [this] { paste(); });
    addKey("back", "Esc", "Esc", "back", [this] {
        if (working()) return work().stop();
        emit left();
    });
    addKey(
        "the-line-before", "Up", "Up", "the line before", [choose] { choose(-1); }, false);
    connect(list_, &StateList::picked, this, [this](int row) {
        row_ = std::size_t(row);
        refresh();
    });
}

void DeliveryPage::begin(const QString& about) {
    if (!about.isEmpty()) open(about);
    refresh();
}

void DeliveryPage::open(const QString& file) {
    read([path = file.toStdString()] { return readFile(path, kLargestList); });
}

void DeliveryPage::paste() { takeText(QGuiApplication::clipboard()->text()); }

bool DeliveryPage::takeText(const QString& text) {
    read([bytes = text.toStdString()] { return Result<std::string>(bytes); });
    return true;
}

void DeliveryPage::read(std::function<Result<std::string>()> source) {
    const bool begun = work().start<Result<std::vector<PackingLine>>>(
        [source = std::move(source)](const LongWork::Progress& progress) -> Result<std::vector<PackingLine>> {
            const auto bytes = source();
            if (!bytes) return tl::make_unexpected(bytes.error());
            return readPackingList(*bytes, progress);
        },
        [this](Result<std::vector<PackingLine>> read) {
            if (!read) return session_.say(qs(read.error().text()), VerdictState::fail);
            packing_ = std::move(*read);
            row_ = 0;
            session_.say(QStringLiteral("%1 lines read.").arg(packing_.size()));
            refresh();
        });
    if (!begun) session_.say(QStringLiteral("Something is still being read."));
}

void DeliveryPage::markMissing() {
    const auto refs = deliveryView(session_.judged(), packing_, row_).notCome;
    if (session_.kept(session_.book().markParts(refs, PartMark::missing)))
        session_.say(QStringLiteral("Marked as not here: %1.").arg(qs(listed(refs, 8))), VerdictState::pass);
}

void DeliveryPage::refresh() {
    if (!session_.hasBuild()) return;
    DeliveryView v = deliveryView(session_.judged(), packing_, row_);
    lines_ = std::move(v.lines);
    row_ = v.row;
    setNow(v.now, v.why);
    setAble("mark-what-did-not-come",
            v.notCome.empty() ? QStringLiteral("Nothing that came short is still open.") : QString());
    list_->setLines(std::move(v.rows));
    card_->setVisible(!lines_.empty());
    if (!lines_.empty()) {
        what_->setText(qs(lines_[row_].what));
        sentence_->setText(qs(lines_[row_].sentence));
    }
    counts_->setTitle(v.title);
    counts_->setFacts(v.counts);
    counts_->setText(v.text);
}

}  // namespace ombrek
