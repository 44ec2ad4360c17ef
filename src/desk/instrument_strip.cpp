#include "desk/instrument_strip.h"

#include <QCoreApplication>
#include <QPushButton>
#include <QVBoxLayout>

#include "desk/person.h"
#include "desk/pieces/text.h"
#include "instruments/bench.h"
#include "practice/practice_instruments.h"

namespace ombrek {
namespace {

/// Maker and model of an answer to *IDN? (IEEE 488.2: maker, model, serial number, firmware), in one line.
QString whoIs(const QString& answer, const QLabel& label) {
    const QString name = answer.section(QChar(','), 0, 1).replace(QChar(','), QChar(' ')).simplified();
    return label.fontMetrics().elidedText(name, Qt::ElideRight, InstrumentStrip::kWidth - 44);
}

}  // namespace

InstrumentStrip::InstrumentStrip(Session& session, QWidget* parent)
    : QFrame(parent),
      session_(session),
      own_(new QVBoxLayout),
      address_(new QLineEdit),
      note_(textLabel(13, false, "soft")) {
    setObjectName(QStringLiteral("strip"));
    setAutoFillBackground(true);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(20, 24, 18, 16);
    all->setSpacing(8);
    auto* title = textLabel(18, true);
    title->setText(QStringLiteral("On the bench"));
    all->addWidget(title);
    own_->setSpacing(8);
    all->addLayout(own_);
    auto* list = new QPushButton(QStringLiteral("Your &instruments …"));
    list->setFocusPolicy(Qt::TabFocus);
    all->addWidget(list);
    connect(list, &QPushButton::clicked, this, [this] { emit wantsList(); });
    all->addSpacing(10);
    practiceTitle_ = textLabel(15, true);
    practiceTitle_->setText(QStringLiteral("Practice bench"));
    all->addWidget(practiceTitle_);
    for (const InstrumentRole role : kInstrumentRoles) {
        QLabel*& who = who_[std::size_t(role)];
        who = textLabel(13, false, "soft");
        who->setAccessibleName(qs(word(role)));
        all->addWidget(who);
    }
    auto* prompt = textLabel(14);
    prompt->setText(QStringLiteral("Address of the first of four ports"));
    all->addWidget(prompt);
    address_->setText(
        QStringLiteral("%1:%2").arg(session_.practice().host()).arg(session_.practice().firstPort()));
    address_->setAccessibleName(prompt->text());
    all->addWidget(address_);
    auto* practice = new QPushButton(QStringLiteral("Start the &practice bench"));
    practice->setFocusPolicy(Qt::TabFocus);
    all->addWidget(practice);
    all->addWidget(note_);
    all->addStretch(1);
    connect(address_, &QLineEdit::returnPressed, this, [this] { useAddress(); });
    connect(practice, &QPushButton::clicked, this, [this] { startPracticeBench(); });
    setFixedWidth(kWidth);
    connect(&bench_, &QProcess::readyReadStandardOutput, this, [this] { readPorts(); });
    connect(&bench_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
        note_->setText(
            error == QProcess::FailedToStart
                ? QStringLiteral("ombrek-bench did not start; is it installed beside ombrek?")
                : QStringLiteral("The practice bench ended. The button starts it again; readings are kept."));
    });
    connect(&session_, &Session::changed, this, [this] {
        onKitChange();
        showOwn();
    });
    connect(&session_.bench(), &Bench::stateChanged, this, [this] { showOwn(); });
    showOwn();
}

InstrumentStrip::~InstrumentStrip() {
    bench_.disconnect();
    bench_.closeWriteChannel();  // it ends with its standard input
    if (!bench_.waitForFinished(1000)) bench_.kill();
    bench_.waitForFinished(1000);
}

/// The builder's own: name, and how each stands.
void InstrumentStrip::showOwn() {
    std::vector<std::pair<QString, QString>> rows;
    for (const Instrument& one : session_.bench().instruments()) {
        if (one.way == Way::practice || !one.used) continue;
        const BenchState state = session_.bench().state(one.name);
        using Is = BenchState::Is;
        const QString words = state.is == Is::there       ? QStringLiteral("there")
                              : state.is == Is::busy      ? QStringLiteral("busy: %1").arg(state.words)
                              : state.is == Is::silent    ? QStringLiteral("silent: %1").arg(state.words)
                              : state.is == Is::disagrees ? QStringLiteral("disagrees: %1").arg(state.words)
                                                          : QStringLiteral("not asked yet");
        rows.emplace_back(QStringLiteral("%1  %2").arg(qs(one.name), qs(one.measures)), words);
    }
    const bool practice =
        std::any_of(session_.bench().instruments().begin(), session_.bench().instruments().end(),
                    [](auto& i) { return i.way == Way::practice && i.used; });
    practiceTitle_->setText(practice ? rows.empty() ? QStringLiteral("Practice bench")
                                                    : QStringLiteral("Practice bench, for the rest")
                                     : QStringLiteral("Practice bench, laid aside"));
    if (rows == shown_) return;
    shown_ = rows;
    while (QLayoutItem* item = own_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    for (const auto& [name, words] : rows) {
        auto* title = textLabel(15, true);
        title->setText(name);
        own_->addWidget(title);
        auto* state = textLabel(13, false, "soft");
        state->setWordWrap(true);
        state->setText(words.left(160));
        state->setAccessibleName(name);
        own_->addWidget(state);
    }
}

void InstrumentStrip::useAddress() {
    const QString address = address_->text().trimmed();
    const int colon = int(address.lastIndexOf(QChar(':')));
    bool ok = false;
    const int port = address.mid(colon + 1).toInt(&ok);
    if (colon < 1 || !ok || port < 1 || port > 65532) {
        note_->setText(QStringLiteral("Write the address as 127.0.0.1:5925."));
        return;
    }
    session_.practice().setAddress(address.left(colon), quint16(port));
    person::trust(address);
    session_.kept(session_.book().prefer("instruments", address.toStdString()));
    look();
}

void InstrumentStrip::look() {
    note_->clear();
    for (const Instrument& one : session_.bench().instruments()) {
        if (one.way != Way::practice && one.used)
            session_.bench().identify(one.name, [](const Result<QString>&) {});
    }
    for (const InstrumentRole role : kInstrumentRoles) {
        QLabel* who = who_[std::size_t(role)];
        who->setText(qs(word(role)) + QStringLiteral(": asking …"));
        session_.practice().identify(role, [guard = QPointer<QLabel>(who)](Result<QString> answer) {
            if (!guard) return;
            guard->setText(
                answer ? whoIs(*answer, *guard)
                       : QStringLiteral("%1: %2").arg(guard->accessibleName(),
                                                      qs(answer.error().sentence).section(QChar(';'), 0, 0)));
            guard->setToolTip(answer ? answer->left(200) : qs(answer.error().sentence));
        });
    }
}

void InstrumentStrip::startPracticeBench() {
    const QString mark = session_.hasBuild() ? qs(practiceMark(session_.build().kitText)) : QString();
    if (bench_.state() != QProcess::NotRunning && benchKit_ == mark) return look();
    if (bench_.state() != QProcess::NotRunning) {
        const QSignalBlocker quiet(bench_);
        bench_.closeWriteChannel();
        if (!bench_.waitForFinished(1000)) bench_.kill();
        bench_.waitForFinished(1000);
    }
    QStringList options{QStringLiteral("--port"), QStringLiteral("0"),
                        QStringLiteral("--until-stdin-closes")};
    if (session_.hasBuild() && kitFile_.open()) {
        kitFile_.resize(0);
        kitFile_.seek(0);
        kitFile_.write(QByteArray::fromStdString(session_.build().kitText));
        kitFile_.close();
        options << QStringLiteral("--kit") << kitFile_.fileName();
    }
    benchKit_ = mark;
    bench_.start(QCoreApplication::applicationDirPath() + QStringLiteral("/ombrek-bench"), options);
    note_->setText(QStringLiteral("starting …"));
}

void InstrumentStrip::readPorts() {
    BenchClient::Ports ports{};
    std::size_t read = 0;
    for (const QByteArray& line : bench_.readAllStandardOutput().split('\n')) {
        const int colon = int(line.lastIndexOf(':'));
        if (colon > 0 && read < ports.size()) ports[read++] = line.mid(colon + 1).trimmed().toUShort();
    }
    if (read < ports.size()) return;
    session_.practice().setPorts(QStringLiteral("127.0.0.1"), ports);
    look();
}

/// The practice bench goes with the kit in hand.
void InstrumentStrip::onKitChange() {
    if (bench_.state() == QProcess::NotRunning || !session_.hasBuild()) return;
    if (qs(practiceMark(session_.build().kitText)) != benchKit_) startPracticeBench();
}

}  // namespace ombrek
