#include "desk/instrument_strip.h"

#include <QCoreApplication>
#include <QPushButton>
#include <QVBoxLayout>

#include "desk/pieces/text.h"
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
    : QFrame(parent), session_(session), address_(new QLineEdit), note_(textLabel(13, false, "soft")) {
    setObjectName(QStringLiteral("strip"));
    setAutoFillBackground(true);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(20, 24, 18, 16);
    all->setSpacing(8);
    auto* title = textLabel(18, true);
    title->setText(QStringLiteral("On the bench"));
    all->addWidget(title);
    for (const InstrumentRole role : kInstrumentRoles) {
        auto* label = textLabel(15, true);
        label->setText(qs(word(role)));
        all->addWidget(label);
        QLabel*& who = who_[std::size_t(role)];
        who = textLabel(13, false, "soft");
        who->setAccessibleName(qs(word(role)));
        all->addWidget(who);
    }
    all->addSpacing(10);
    auto* prompt = textLabel(14);
    prompt->setText(QStringLiteral("Address of the first of four ports"));
    all->addWidget(prompt);
    address_->setText(QStringLiteral("%1:%2").arg(session_.bench().host()).arg(session_.bench().firstPort()));
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
    connect(&bench_, &QProcess::errorOccurred, this, [this] {
        note_->setText(QStringLiteral("ombrek-bench did not start; is it installed beside ombrek?"));
    });
    connect(&session_, &Session::changed, this, [this] { onKitChange(); });
}

InstrumentStrip::~InstrumentStrip() {
    bench_.disconnect();
    bench_.closeWriteChannel();  // it ends with its standard input
    if (!bench_.waitForFinished(1000)) bench_.kill();
    bench_.waitForFinished(1000);
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
    session_.bench().setAddress(address.left(colon), quint16(port));
    session_.kept(session_.book().prefer("instruments", address.toStdString()));
    look();
}

void InstrumentStrip::look() {
    note_->clear();
    for (const InstrumentRole role : kInstrumentRoles) {
        QLabel* who = who_[std::size_t(role)];
        who->setText(QStringLiteral("asking …"));
        session_.bench().identify(role, [guard = QPointer<QLabel>(who)](Result<QString> answer) {
            if (!guard) return;
            guard->setText(answer ? whoIs(*answer, *guard) : qs(answer.error().sentence));
            guard->setToolTip(answer ? answer->left(200) : QString());
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
    session_.bench().setPorts(QStringLiteral("127.0.0.1"), ports);
    look();
}

/// The practice bench goes with the kit in hand.
void InstrumentStrip::onKitChange() {
    if (bench_.state() == QProcess::NotRunning || !session_.hasBuild()) return;
    if (qs(practiceMark(session_.build().kitText)) != benchKit_) startPracticeBench();
}

}  // namespace ombrek
