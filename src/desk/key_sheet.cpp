#include "desk/key_sheet.h"

#include <QKeyEvent>
#include <QPainter>

#include "desk/window.h"
#include "look/colours.h"

namespace ombrek {
namespace {

struct KeyLine {
    QString key, does;
};

const std::vector<KeyLine>& windowKeys() {
    static const std::vector<KeyLine> keys{
        {QStringLiteral("F1 … F7"), QStringLiteral("go to a station")},
        {QStringLiteral("0 … 9"), QStringLiteral("type a reading; Enter takes it, Esc leaves")},
        {QStringLiteral("Ctrl+K"), QStringLiteral("sums; Enter puts the answer on the page")},
        {QStringLiteral("Z"), QStringLiteral("take the last action back")},
        {QStringLiteral("Shift+Z"), QStringLiteral("do it again")},
        {QStringLiteral("B"), QStringLiteral("instruments out or in")},
        {QStringLiteral("F8 F9 F10"), QStringLiteral("drawers, meters, history; Esc comes back")},
        {QStringLiteral("Ctrl+P"), QStringLiteral("start the practice bench")},
        {QStringLiteral("Ctrl+N"), QStringLiteral("another kit or build")},
        {QStringLiteral("F11"), QStringLiteral("only the big thing, doubled")},
        {QStringLiteral("Ctrl+D"), QStringLiteral("day bench or night bench")},
        {QStringLiteral("?"), QStringLiteral("this sheet; any key puts it away")}};
    return keys;
}

std::vector<KeyLine> keysOf(const Page& page) {
    std::vector<KeyLine> out;
    for (const QAction* act : page.actions())
        out.push_back({act->property(Page::kKey).toString(), act->text()});
    return out;
}

void drawKeys(QPainter& p, const std::vector<KeyLine>& keys, QPointF at, const Colours& c) {
    for (const KeyLine& key : keys) {
        p.setFont(benchFont(17, true));
        p.setPen(c.copper);
        p.drawText(QRectF(at, QSizeF(120, 28)), Qt::AlignLeft | Qt::AlignVCenter, key.key);
        p.setFont(benchFont(17));
        p.setPen(c.ink);
        p.drawText(QRectF(at + QPointF(130, 0), QSizeF(420, 28)), Qt::AlignLeft | Qt::AlignVCenter, key.does);
        at += QPointF(0, 36);
    }
}

}  // namespace

KeySheet::KeySheet(Window& window) : QWidget(window.centralWidget()), window_(window) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(QStringLiteral("Keys"));
    hide();
}

void KeySheet::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Colours& c = coloursOf(*this);
    p.fillRect(rect(), c.paper);
    p.setPen(c.ink);
    p.setFont(benchFont(30, true));
    p.drawText(QRectF(60, 40, width() - 120.0, 44), Qt::AlignLeft,
               QStringLiteral("Keys on %1").arg(window_.page()->name()));
    drawKeys(p, keysOf(*window_.page()), {60, 110}, c);
    drawKeys(p, windowKeys(), {width() / 2.0 + 20, 110}, c);
}

void KeySheet::leave() {
    hide();
    window_.page()->takeFocus();
}

void KeySheet::keyPressEvent(QKeyEvent*) { leave(); }
void KeySheet::mousePressEvent(QMouseEvent*) { leave(); }

}  // namespace ombrek
