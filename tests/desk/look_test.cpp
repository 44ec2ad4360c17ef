#include <cmath>

#include "desk/winding/winding_model.h"
#include "look/plot.h"
#include "look/verdict_mark.h"
#include "window_fixture.h"

using namespace ombrek;

namespace {

double channel(double c) { return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4); }

double luminance(const QColor& c) {
    return 0.2126 * channel(c.redF()) + 0.7152 * channel(c.greenF()) + 0.0722 * channel(c.blueF());
}

double contrast(const QColor& a, const QColor& b) {
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

/// A colour as one with a colour-vision deficiency sees it (matrices of Machado, Oliveira & Fernandes 2009,
/// full strength, from memory, applied to linear light).
QColor seen(const QColor& c, const double (&m)[9]) {
    const double in[3] = {channel(c.redF()), channel(c.greenF()), channel(c.blueF())};
    double out[3];
    for (int i = 0; i < 3; ++i) {
        const double v = std::clamp(m[3 * i] * in[0] + m[3 * i + 1] * in[1] + m[3 * i + 2] * in[2], 0.0, 1.0);
        out[i] = v <= 0.0031308 ? 12.92 * v : 1.055 * std::pow(v, 1 / 2.4) - 0.055;
    }
    return QColor::fromRgbF(float(out[0]), float(out[1]), float(out[2]));
}

double distance(const QColor& a, const QColor& b) {
    return std::sqrt(std::pow(a.redF() - b.redF(), 2) + std::pow(a.greenF() - b.greenF(), 2) +
                     std::pow(a.blueF() - b.blueF(), 2));
}

}  // namespace

TEST_CASE("text holds 4.5 to 1 on every ground, day and night", "[reference]") {
    // Source: WCAG 2.2, success criterion 1.4.3, contrast by relative luminance.
    for (const Colours* c : {&dayBench(), &nightBench()}) {
        CHECK(contrast(c->soft, c->rail) >= 4.5);  // the rail carries ink and soft text only
        CHECK(contrast(c->ink, c->rail) >= 7.0);
        for (const QColor& ground : {c->paper, c->card}) {
            CHECK(contrast(c->ink, ground) >= 7.0);
            for (const QColor& text :
                 {c->soft, c->copper, c->pass, c->doubtful, c->fail, c->cannotTell, c->notDone}) {
                INFO(text.name().toStdString() << " on " << ground.name().toStdString());
                CHECK(contrast(text, ground) >= 4.5);
            }
        }
        CHECK(contrast(c->boardInk, c->board) >= 4.5);
        // Menus: ink and, where an act cannot be done, soft on a card; ink on the line's colour under the
        // mouse.
        CHECK(contrast(c->ink, c->line) >= 4.5);
    }
}

TEST_CASE("every pair of text and ground in the palette holds 4.5 to 1, day and night", "[reference]") {
    // Source: WCAG 2.2, success criterion 1.4.3. What cannot be done now is exempt there, and holds it all
    // the same.
    using Role = QPalette::ColorRole;
    const std::pair<Role, Role> pairs[] = {
        {QPalette::WindowText, QPalette::Window},         {QPalette::Text, QPalette::Base},
        {QPalette::Text, QPalette::AlternateBase},        {QPalette::ButtonText, QPalette::Button},
        {QPalette::HighlightedText, QPalette::Highlight}, {QPalette::PlaceholderText, QPalette::Base},
        {QPalette::ToolTipText, QPalette::ToolTipBase}};
    for (const Colours* c : {&dayBench(), &nightBench()}) {
        const QPalette palette = paletteOf(*c);
        for (const auto& [text, ground] : pairs) {
            INFO(int(text) << " on " << int(ground) << ", paper " << c->paper.name().toStdString());
            CHECK(contrast(palette.color(text), palette.color(ground)) >= 4.5);
        }
    }
}

TEST_CASE("pass and fail stay apart for the three common colour-vision deficiencies", "[reference]") {
    const double protan[9] = {0.152286, 1.052583,  -0.204868, 0.114503, 0.786281,
                              0.099216, -0.003882, -0.048116, 1.051998};
    const double deutan[9] = {0.367322, 0.860646,  -0.227968, 0.280085, 0.672501,
                              0.047413, -0.011820, 0.042940,  0.968881};
    const double tritan[9] = {1.255528, -0.076749, -0.178779, -0.078411, 0.930809,
                              0.147602, 0.004733,  0.691367,  0.303900};
    for (const Colours* c : {&dayBench(), &nightBench()}) {
        for (const auto* m : {&protan, &deutan, &tritan})
            CHECK(distance(seen(c->pass, *m), seen(c->fail, *m)) > 0.2);
    }
}

TEST_CASE("every verdict has a shape of its own, told without colour") {
    application();
    std::vector<QImage> shapes;
    for (int i = 0; i < 5; ++i) {
        QImage image(48, 48, QImage::Format_Grayscale8);
        image.fill(Qt::white);
        QPainter painter(&image);
        Colours grey = dayBench();
        grey.pass = grey.doubtful = grey.fail = grey.cannotTell = grey.notDone = Qt::black;
        drawVerdictMark(painter, QRectF(4, 4, 40, 40), static_cast<VerdictState>(i), grey);
        painter.end();
        for (const QImage& other : shapes) {
            int different = 0;
            for (int y = 0; y < 48; ++y) {
                for (int x = 0; x < 48; ++x)
                    different += std::abs(qGray(image.pixel(x, y)) - qGray(other.pixel(x, y))) > 128;
            }
            CHECK(different > 150);
        }
        shapes.push_back(image);
    }
}

TEST_CASE("the application's font is its own") {
    application();
    CHECK(QFontInfo(benchFont(15)).family() == QStringLiteral("Ombrek Readout"));
    CHECK(QFontMetrics(benchFont(20)).horizontalAdvance(QChar('1')) ==
          QFontMetrics(benchFont(20)).horizontalAdvance(QChar('8')));
}

TEST_CASE("counts are said by tens") {
    CHECK(tensOf(0) == "none");
    CHECK(tensOf(8) == "eight");
    CHECK(tensOf(10) == "one ten");
    CHECK(tensOf(18) == "one ten and eight");
    CHECK(tensOf(20) == "two tens");
    CHECK(tensOf(37) == "three tens and seven");
}

TEST_CASE("a plot as SVG carries its words") {
    application();
    PlotData data;
    data.title = QStringLiteral("A plot");
    data.xLabel = QStringLiteral("travel");
    data.series = {{PlotData::Kind::line, {0, 0.5, 1}, {0, 1, 0}}, {PlotData::Kind::stems, {0.2}, {0.7}}};
    data.marks = {{true, 0.5, QStringLiteral("best"), true}, {false, 0.4, QStringLiteral("limit"), false}};
    const QByteArray svg = plotSvg(data, QSize(400, 200));
    CHECK(svg.contains("<svg"));
    CHECK(svg.contains("A plot"));
    CHECK(svg.size() > 2000);
}
