#include "desk/settings/settings_page.h"

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/settings/settings_rows.h"

namespace ombrek {

SettingsPage::SettingsPage(Session& session)
    : Page(session, QStringLiteral("Settings")),
      list_(new StateList),
      choices_(new StateList),
      about_(new Card) {
    auto* all = new Card;
    all->addBody(list_, 1);
    all->fillWithBody();
    big()->addWidget(all, 1);
    about_->addBody(choices_, 1);
    about_->fillWithBody();
    side()->addWidget(about_, 1);
    setEnter("change", "change it", [this] { change(1); });
    addKey("setting", "Down", "Up Down", "a setting", [this] { choose(1); });
    addKey("next-choice", "Right", "Left Right", "another choice", [this] { change(1); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addRare("the-setting-before", "Up", "the setting before", [this] { choose(-1); });
    addRare("choice-before", "Left", "the choice before", [this] { change(-1); });
    connect(list_, &StateList::picked, this, [this](int row) {
        row_ = std::size_t(row);
        refresh();
    });
    connect(choices_, &StateList::picked, this, [this](int choice) {
        const auto& choices = settingRows()[row_].choices;
        if (choice < int(choices.size())) set(QString::fromUtf8(choices[std::size_t(choice)].value));
    });
}

void SettingsPage::begin(const QString& about) {
    const auto& rows = settingRows();
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (about == QLatin1String(rows[i].key)) row_ = i;
    }
    refresh();
}

QString SettingsPage::about() const { return QString::fromUtf8(settingRows()[row_].key); }

void SettingsPage::choose(int by) {
    const int count = int(settingRows().size());
    row_ = std::size_t((int(row_) + by + count) % count);
    refresh();
}

/// The next choice of the row in hand, or a text is asked for.
void SettingsPage::change(int by) {
    const SettingRow& row = settingRows()[row_];
    const QString now = settingOf(row, session_);
    if (row.choices.empty())
        return askText(QString::fromUtf8(row.name), now,
                       [this](const QString& text) { set(text.trimmed()); });
    const int count = int(row.choices.size());
    for (int i = 0; i < count; ++i) {
        if (now == QLatin1String(row.choices[std::size_t(i)].value))
            return set(QString::fromUtf8(row.choices[std::size_t((i + by + count) % count)].value));
    }
}

void SettingsPage::set(const QString& value) {
    const SettingRow& row = settingRows()[row_];
    const QString trouble = changeSetting(row, value, session_);
    if (!trouble.isEmpty()) return session_.say(trouble, VerdictState::cannotTell);
    refresh();
    // What is drawn already is drawn anew with it.
    if (row.where == SettingRow::Where::person) emit wantsLook();
}

void SettingsPage::refresh() {
    const auto& rows = settingRows();
    const SettingRow& row = rows[row_];
    setNow(QStringLiteral("%1: %2").arg(QString::fromUtf8(row.name), shownSetting(row, session_)),
           QString::fromUtf8(row.says));
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < rows.size(); ++i)
        lines.push_back(
            {VerdictState::notDone,
             QStringLiteral("%1: %2").arg(QString::fromUtf8(rows[i].name), shownSetting(rows[i], session_)),
             placeWord(rows[i].where), i == row_, false, true});
    list_->setLines(std::move(lines));
    about_->setTitle(QString::fromUtf8(row.name));
    about_->setText(QStringLiteral("Kept %1.%2")
                        .arg(placeWord(row.where),
                             row.choices.empty()
                                 ? QStringLiteral(" Enter writes it; an empty line takes nothing away.")
                                 : QString()));
    std::vector<StateLine> choices;
    const QString now = settingOf(row, session_);
    for (const SettingRow::Choice& choice : row.choices) {
        const bool chosen = now == QLatin1String(choice.value);
        choices.push_back(
            {VerdictState::notDone, QString::fromUtf8(choice.shown), QString(), chosen, false, true});
    }
    choices_->setVisible(!choices.empty());
    choices_->setLines(std::move(choices));
}

}  // namespace ombrek
