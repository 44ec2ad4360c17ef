#include "report/board_drawing.h"

#include <QImage>
#include <fstream>
#include <set>

#include "desk/pieces/voice.h"
#include "report/joint_picture.h"
#include "report/photo_file.h"
#include "station/board/loupe.h"
#include "window_fixture.h"

using namespace ombrek;

// What is drawn, looked at pixel by pixel where it matters.

namespace {

constexpr int kWide = 640, kHigh = 460;

Part partAt(const char* ref, double x, double y) {
    Part part;
    part.ref = ref;
    part.kind = PartKind::resistor;
    part.value = "1 kΩ";
    part.place = Place{x, y, 10, 5, 0};
    return part;
}

QImage drawn(const BoardDrawing& drawing) {
    QImage image(kWide, kHigh, QImage::Format_RGB32);
    image.fill(dayBench().paper);
    QPainter p(&image);
    drawing.paint(p, image.rect(), dayBench());
    return image;
}

/// The middle of all pixels of a colour.
QPointF middleOf(const QImage& image, const QColor& colour) {
    double x = 0, y = 0;
    int count = 0;
    for (int row = 0; row < image.height(); ++row) {
        for (int column = 0; column < image.width(); ++column) {
            if (image.pixelColor(column, row) != colour) continue;
            x += column;
            y += row;
            ++count;
        }
    }
    return count == 0 ? QPointF(-1, -1) : QPointF(x / count, y / count);
}

}  // namespace

TEST_CASE("the board is drawn where its parts are, from above and mirrored", "[drawing]") {
    application();
    const Part part = partAt("R1", 25, 30);
    BoardDrawing drawing;
    drawing.board = {100, 60};
    drawing.pieces = {{&part, BoardPiece::Fitting::now}};
    drawing.leaders = false;
    const QPointF above = middleOf(drawn(drawing), dayBench().copper);
    CHECK(above.x() == Approx(kWide * 0.25).margin(4));
    drawing.mirrored = true;
    const QPointF below = middleOf(drawn(drawing), dayBench().copper);
    CHECK(below.x() == Approx(kWide * 0.75).margin(4));
    CHECK(below.y() == Approx(above.y()).margin(2));
}

TEST_CASE("zoomed, what is aimed at lies in the middle, from either side", "[drawing]") {
    application();
    const Part part = partAt("R1", 80, 50);
    BoardDrawing drawing;
    drawing.board = {100, 60};
    drawing.pieces = {{&part, BoardPiece::Fitting::now}};
    drawing.leaders = false;
    drawing.middle = {80, 50};
    for (const bool mirrored : {false, true}) {
        drawing.mirrored = mirrored;
        for (const double zoom : {1.5, 4.0, 9.0}) {
            drawing.zoom = zoom;
            const QPointF at = middleOf(drawn(drawing), dayBench().copper);
            CHECK(at.x() == Approx(kWide / 2.0).margin(5));
            CHECK(at.y() == Approx(kHigh / 2.0).margin(5));
        }
    }
}

TEST_CASE("every mark of the board tells itself from the others without colour", "[drawing]") {
    application();
    const Part part = partAt("R1", 50, 30);
    std::set<QByteArray> seen;
    std::vector<BoardPiece> pieces{{&part, BoardPiece::Fitting::waits},
                                   {&part, BoardPiece::Fitting::now},
                                   {&part, BoardPiece::Fitting::in},
                                   {&part, BoardPiece::Fitting::in, false, true},
                                   {&part, BoardPiece::Fitting::in, true, false}};
    for (const BoardPiece& piece : pieces) {
        BoardDrawing drawing;
        drawing.board = {100, 60};
        drawing.pieces = {piece};
        const QImage grey = drawn(drawing).convertToFormat(QImage::Format_Grayscale8);
        QByteArray bits;
        for (int y = 0; y < grey.height(); y += 2) {
            for (int x = 0; x < grey.width(); x += 2) bits.append(qGray(grey.pixel(x, y)) > 128 ? '1' : '0');
        }
        seen.insert(bits);
    }
    CHECK(seen.size() == pieces.size());
}

TEST_CASE("a board without size and a part without place draw nothing and break nothing", "[drawing]") {
    application();
    BoardDrawing drawing;
    const QImage empty = drawn(drawing);
    CHECK(middleOf(empty, dayBench().board) == QPointF(-1, -1));
    drawing.board = {100, 60};
    CHECK(middleOf(drawn(drawing), dayBench().board) != QPointF(-1, -1));
}

TEST_CASE("each finding under the loupe has its own picture", "[drawing]") {
    application();
    std::set<QByteArray> seen;
    const auto picture = [](std::optional<Finding::What> what) {
        QImage image(120, 90, QImage::Format_RGB32);
        image.fill(dayBench().card);
        QPainter p(&image);
        drawJoint(p, image.rect(), what, dayBench());
        p.end();
        return QByteArray(reinterpret_cast<const char*>(image.constBits()), image.sizeInBytes());
    };
    seen.insert(picture(std::nullopt));
    for (const JointLook& look : jointLooks()) seen.insert(picture(look.what));
    CHECK(seen.size() == jointLooks().size() + 1);
}

TEST_CASE("photographs: what is no picture, too large or damaged is said in a sentence", "[photo]") {
    application();
    Folder folder;
    const auto file = [&](const char* name) { return QString::fromStdString((folder / name).string()); };
    QImage image(900, 300, QImage::Format_RGB32);
    image.fill(Qt::blue);
    image.save(file("small.jpg"));
    const auto small = readPhoto(file("small.jpg"));
    REQUIRE(small);
    CHECK(QImage::fromData(*small).size() == QSize(900, 300));
    image.scaled(300, 3200).save(file("tall.png"));
    CHECK(QImage::fromData(*readPhoto(file("tall.png"))).size() == QSize(150, 1600));

    QFile good(file("small.jpg"));
    good.open(QIODevice::ReadOnly);
    std::ofstream(file("cut.jpg").toStdString(), std::ios::binary) << good.read(120).toStdString();
    std::ofstream(file("text.png").toStdString()) << "no picture at all";
    // The head of a PNG that claims 20,000 by 20,000 pixels (PNG, W3C recommendation, IHDR).
    QByteArray head =
        QByteArray::fromHex("89504e470d0a1a0a0000000d4948445200004e2000004e2008020000005a1d2e3c");
    std::ofstream(file("huge.png").toStdString(), std::ios::binary) << head.toStdString();
    std::filesystem::resize_file(
        [&] {
            std::ofstream((folder / "fat.jpg").string()) << "x";
            return folder / "fat.jpg";
        }(),
        65'000'000);
    for (const char* name : {"cut.jpg", "text.png", "huge.png", "fat.jpg", "absent.jpg"}) {
        const auto refused = readPhoto(file(name));
        INFO(name);
        REQUIRE_FALSE(refused);
        CHECK_FALSE(refused.error().sentence.empty());
        CHECK(refused.error().place == name);
    }
}

TEST_CASE("a photograph of 50 MB and one of 90 megapixels are made small enough for the book", "[photo]") {
    application();
    Folder folder;
    const auto file = [&](const char* name) { return QString::fromStdString((folder / name).string()); };
    QImage wide(4500, 3800, QImage::Format_RGB888);
    wide.fill(Qt::darkGreen);
    REQUIRE(wide.save(file("fifty.png"), "PNG", 100));  // not compressed at all
    REQUIRE(std::filesystem::file_size(folder / "fifty.png") > 50'000'000);
    REQUIRE(QImage(10000, 9000, QImage::Format_Grayscale8).save(file("ninety.png"), "PNG", 0));
    for (const char* name : {"fifty.png", "ninety.png"}) {
        INFO(name);
        const auto small = readPhoto(file(name));
        REQUIRE(small);
        const QSize size = QImage::fromData(*small).size();
        CHECK(std::max(size.width(), size.height()) == kPhotoSide);
        CHECK(small->size() < 2'000'000);
    }
}

TEST_CASE("a machine without a voice stays silent", "[voice]") {
    application();
    Voice voice;
    voice.say(QStringLiteral("ten"));
    if (!voice.able()) SUCCEED("no voice here, and nothing broke");
}
