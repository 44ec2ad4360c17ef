#include "look/colours.h"

#include <QApplication>
#include <QFontDatabase>
#include <QProxyStyle>
#include <algorithm>
#include <cmath>

/// The fonts are in a static library, whose resources are only linked in when somebody asks for them.
static void loadFontResource() { Q_INIT_RESOURCE(fonts); }

namespace ombrek {

const Colours& dayBench() {
    static const Colours day{.paper = "#F5F2EB",
                             .rail = "#ECE7DB",
                             .card = "#FCFAF5",
                             .line = "#DCD5C7",
                             .ink = "#1C2529",
                             .soft = "#59646A",
                             .copper = "#A8562A",
                             .copperLight = "#D99A6E",
                             .pass = "#1F5FA8",
                             .doubtful = "#8A5B00",
                             .fail = "#B9382A",
                             .cannotTell = "#6B4FA0",
                             .notDone = "#666D6A",
                             .passTint = "#DCE6F0",
                             .doubtfulTint = "#EFE1BF",
                             .core = "#CFC7B6",
                             .board = "#E4E6DA",
                             .boardInk = "#4E5A50"};
    return day;
}

const Colours& nightBench() {
    static const Colours night{.paper = "#1B2023",
                               .rail = "#14181A",
                               .card = "#23292D",
                               .line = "#3A4348",
                               .ink = "#ECE7DB",
                               .soft = "#A9B1B3",
                               .copper = "#E08A55",
                               .copperLight = "#F3B78F",
                               .pass = "#7DB3EC",
                               .doubtful = "#E3B04B",
                               .fail = "#F08A7B",
                               .cannotTell = "#BBA2E8",
                               .notDone = "#9AA39F",
                               .passTint = "#2A3A4B",
                               .doubtfulTint = "#44391F",
                               .core = "#575246",
                               .board = "#262E2A",
                               .boardInk = "#A4B3A6"};
    return night;
}

const Colours& coloursOf(const QPalette& palette) {
    return palette.color(QPalette::Window).lightness() < 128 ? nightBench() : dayBench();
}

const Colours& coloursOf(const QWidget&) { return coloursOf(QApplication::palette()); }

QPalette paletteOf(const Colours& c) {
    QPalette p;
    p.setColor(QPalette::Window, c.paper);
    p.setColor(QPalette::WindowText, c.ink);
    p.setColor(QPalette::Base, c.card);
    p.setColor(QPalette::AlternateBase, c.paper);
    p.setColor(QPalette::Text, c.ink);
    p.setColor(QPalette::Button, c.card);
    p.setColor(QPalette::ButtonText, c.ink);
    p.setColor(QPalette::Highlight, c.copper);
    p.setColor(QPalette::HighlightedText, c.card);
    p.setColor(QPalette::PlaceholderText, c.soft);
    p.setColor(QPalette::ToolTipBase, c.card);
    p.setColor(QPalette::ToolTipText, c.ink);
    return p;
}

QColor colourOf(const Colours& c, VerdictState state) {
    switch (state) {
        case VerdictState::pass:
            return c.pass;
        case VerdictState::doubtful:
            return c.doubtful;
        case VerdictState::fail:
            return c.fail;
        case VerdictState::cannotTell:
            return c.cannotTell;
        case VerdictState::notDone:
            break;
    }
    return c.notDone;
}

void fillDoubtful(QPainter& p, const QRectF& zone, const Colours& c) {
    p.fillRect(zone, c.doubtfulTint);
    p.fillRect(zone, QBrush(c.doubtful, Qt::BDiagPattern));
}

QString styleSheetOf(const Colours& c) {
    QString sheet = QStringLiteral(
        "QFrame#card { background: @card; border: 1px solid @line; border-radius: 10px; }"
        "QFrame#bottom { background: @card; border: 0; border-top: 1px solid @line; }"
        "QFrame#evening { background: @card; border: 0; border-bottom: 2px solid @copper; }"
        "QMenuBar { background: @rail; color: @ink; }"
        "QMenuBar::item { padding: 3px 10px; background: transparent; }"
        "QMenuBar::item:selected { background: @card; color: @copper; }"
        "QMenu { background: @card; color: @ink; border: 1px solid @line; padding: 4px 0; }"
        "QMenu::item { padding: 5px 26px 5px 18px; }"
        "QMenu::item:selected { background: @line; }"
        "QMenu::item:disabled { color: @soft; }"
        "QMenu::separator { height: 1px; background: @line; margin: 4px 12px; }"
        "QTextBrowser { background: transparent; color: @ink; border: 0; }"
        "QFrame#strip { background: @rail; border: 0; border-left: 1px solid @line; }"
        "QLineEdit { background: @card; border: 2px solid @line; border-radius: 6px; padding: 4px 8px; "
        "color: @ink; }"
        "QLineEdit:focus { border-color: @copper; }"
        "QListView { background: transparent; border: 0; outline: 0; }"
        "QListView:focus { border: 1px solid @copper; border-radius: 6px; }"
        "QScrollBar:vertical { background: transparent; width: 8px; margin: 0; }"
        "QScrollBar::handle:vertical { background: @line; border-radius: 4px; min-height: 24px; }"
        "QScrollBar::add-line, QScrollBar::sub-line { height: 0; }"
        "QLabel[tone=\"soft\"] { color: @soft; }"
        "QLabel[tone=\"copper\"] { color: @copper; }"
        "QToolTip { background: @card; color: @ink; border: 1px solid @line; }");
    const std::pair<const char*, QColor> names[] = {{"@card", c.card},     {"@line", c.line},
                                                    {"@copper", c.copper}, {"@ink", c.ink},
                                                    {"@rail", c.rail},     {"@soft", c.soft}};
    for (const auto& [name, colour] : names) sheet.replace(QLatin1String(name), colour.name());
    return sheet;
}

void installFonts() {
    loadFontResource();
    for (const char* file :
         {"OmbrekReadout-Regular.otf", "OmbrekReadout-Bold.otf", "OmbrekReadout-Italic.otf"}) {
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/") + QLatin1String(file));
    }
    QApplication::setFont(benchFont(15));
}

namespace {

class StillStyle : public QProxyStyle {
 public:
    StillStyle() : QProxyStyle(QStringLiteral("Fusion")) {}
    int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget,
                  QStyleHintReturn* returned) const override {
        return hint == SH_Widget_Animation_Duration ? 0
                                                    : QProxyStyle::styleHint(hint, option, widget, returned);
    }
};

}  // namespace

void installStyle() {
    QApplication::setStyle(new StillStyle);
    for (const Qt::UIEffect effect :
         {Qt::UI_AnimateMenu, Qt::UI_FadeMenu, Qt::UI_AnimateTooltip, Qt::UI_FadeTooltip})
        QApplication::setEffectEnabled(effect, false);
}

static double textScale = 1;

void setTextScale(double scale) { textScale = std::clamp(scale, 0.8, 1.6); }
int withText(int pixels) { return int(std::lround(pixels * textScale)); }

QFont benchFont(int pixels, bool bold) {
    QFont font(QStringLiteral("Ombrek Readout"));
    font.setPixelSize(withText(pixels));
    font.setBold(bold);
    return font;
}

void setNight(bool night) {
    const Colours& colours = night ? nightBench() : dayBench();
    QApplication::setPalette(paletteOf(colours));
    qApp->setStyleSheet(styleSheetOf(colours));
}

}  // namespace ombrek
