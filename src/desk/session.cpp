#include "desk/session.h"

#include <cmath>

#include "formats/kit_json.h"
#include "kit/proof.h"

namespace ombrek {

Session::Session(Tables tables, std::unique_ptr<Book> book, QObject* parent)
    : QObject(parent), tables_(std::move(tables)), book_(std::move(book)) {
    reload();
    book_->onChange([this] {
        reload();
        emit changed();
    });
}

void Session::reload() {
    auto build = book_->build();
    hasBuild_ = build.has_value();
    if (!build) return;
    const bool sameKit = build->id == build_.id && build->kitText == build_.kitText && !kit_.id.empty();
    build_ = std::move(*build);
    if (!sameKit) {
        auto kit = readKit(build_.kitText, tables_.cores);
        if (!kit) {
            hasBuild_ = false;
            say(qs(kit.error().text()), VerdictState::fail);
            return;
        }
        kit_ = std::move(*kit);
    }
    order_ = stepOrder(kit_, build_.order).value_or(std::vector<std::size_t>{});
}

std::shared_ptr<const Drawers> Session::drawers() {
    constexpr std::size_t kSmall = 3000;  // lines read in a few milliseconds
    const int revision = book_->stockRevision();
    if (drawers_ && drawersRead_ == revision) return drawers_;
    if (book_->stockSize() <= kSmall) {
        drawers_ = std::make_shared<Drawers>(book_->stock());
        drawersRead_ = revision;
    } else {
        using Read = Result<std::shared_ptr<const Drawers>>;
        const bool begun = work_.start<Read>(
            [path = book_->path()](const LongWork::Progress&) -> Read {
                auto lines = Book::readStock(path);
                if (!lines) return tl::make_unexpected(lines.error());
                return std::make_shared<const Drawers>(std::move(*lines));
            },
            [this](Read read) {
                if (read) {
                    drawers_ = std::move(*read);
                    emit changed();
                } else {
                    say(qs(read.error().text()), VerdictState::fail);
                }
            });
        if (begun) drawersRead_ = revision;
        if (!drawers_) drawers_ = std::make_shared<Drawers>(std::vector<StockLine>());
    }
    return drawers_;
}

void Session::beginKit(const QString& path) {
    auto file = readKitFile(path.toStdString(), tables_.cores);
    if (!file) {
        say(qs(file.error().text()), VerdictState::fail);
        return;
    }
    keep(book_->startBuild(file->kit.name, file->text));
}

bool Session::keep(const Result<void>& result) {
    if (!result) say(qs(result.error().text()), VerdictState::fail);
    return result.has_value();
}

void Session::store(Reading reading) {
    const QString subject = qs(reading.subject);
    if (keep(book_->takeReading(reading))) emit taken(subject);
}

void Session::measure(Unit unit, const QString& subject, double setting, std::function<void(Measured)> use) {
    if (waiting_) return;
    waiting_ = true;
    say(QStringLiteral("Asking the %1 …").arg(qs(name(instrumentFor(unit)))));
    const std::int64_t buildAsked = build_.id;
    bench_.take(unit, subject, setting, [this, unit, use = std::move(use), buildAsked](Result<double> value) {
        waiting_ = false;
        if (!value) {
            say(qs(value.error().text()), VerdictState::cannotTell);
            return;
        }
        if (buildAsked != build_.id) return;  // the builder has turned to another kit meanwhile
        say(QString());
        use(measuredWith(book_->meters(), unit, *value));
    });
}

void Session::read(Reading wanted) {
    const bool power = wanted.unit == Unit::watt;
    const Unit asked = power ? Unit::dbm : wanted.unit;
    const double setting =
        wanted.subject.starts_with("coil:") || wanted.subject.starts_with("adjust:") ? wanted.setting : -1;
    measure(asked, qs(wanted.subject), setting, [this, wanted, asked, power](Measured measured) mutable {
        wanted.value = measured.value;
        wanted.unit = asked;
        wanted.uncertainty = measured.uncertainty;
        if (wanted.method.empty()) wanted.method = std::string(name(instrumentFor(asked)));
        store(power ? inWatts(wanted) : wanted);
    });
}

void Session::type(Reading wanted, const QString& text) {
    const auto value = parseQuantity(text.toStdString(), wanted.unit);
    if (!value) {
        say(qs(value.error().text()), VerdictState::cannotTell);
        return;
    }
    const Measured measured = measuredWith(book_->meters(), wanted.unit, value->value);
    wanted.value = measured.value;
    wanted.uncertainty = measured.uncertainty;
    if (wanted.method.empty()) wanted.method = "typed";
    say(QString());
    store(wanted);
}

void Session::say(const QString& line, VerdictState state) { emit said(line, state); }

}  // namespace ombrek
