#include "desk/instrument_strip.h"

#include <QCoreApplication>
#include <QPushButton>
#include <QVBoxLayout>

#include "desk/pieces/text.h"

namespace ombrek {

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
        label->setText(qs(name(role)));
        all->addWidget(label);
        QLabel*& who = who_[std::size_t(role)];
        who = textLabel(13, false, "soft");
        who->setAccessibleName(qs(name(role)));
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
    connect(&bench_, &QProcess::readyReadStandardOutput, this, [this] {
        bench_.readAllStandardOutput();
        look();
    });
    connect(&bench_, &QProcess::errorOccurred, this, [this] {
        note_->setText(QStringLiteral("ombrek-bench did not start; is it installed beside ombrek?"));
    });
}

InstrumentStrip::~InstrumentStrip() {
    bench_.disconnect();
    bench_.kill();
    bench_.waitForFinished(1000);
}

void InstrumentStrip::useAddress() {
    const QStringList parts = address_->text().trimmed().split(QChar(':'));
    bool ok = false;
    const int port = parts.size() == 2 ? parts[1].toInt(&ok) : 0;
    if (!ok || port < 1 || port > 65532 || parts[0].isEmpty()) {
        note_->setText(QStringLiteral("Write the address as 127.0.0.1:5925."));
        return;
    }
    session_.bench().setAddress(parts[0], quint16(port), parts[0].startsWith(QLatin1String("127.")));
    look();
}

void InstrumentStrip::look() {
    note_->clear();
    for (const InstrumentRole role : kInstrumentRoles) {
        QLabel* who = who_[std::size_t(role)];
        who->setText(QStringLiteral("asking …"));
        session_.bench().identify(role, [guard = QPointer<QLabel>(who)](Result<QString> answer) {
            if (guard) guard->setText(answer ? answer->left(60) : qs(answer.error().sentence));
        });
    }
}

void InstrumentStrip::startPracticeBench() {
    if (bench_.state() != QProcess::NotRunning) return look();
    bench_.start(QCoreApplication::applicationDirPath() + QStringLiteral("/ombrek-bench"),
                 {QStringLiteral("--port"), QString::number(session_.bench().firstPort())});
    note_->setText(QStringLiteral("starting …"));
}

}  // namespace ombrek
