#include <QTcpServer>
#include <QTcpSocket>

#include "instruments/bench.h"
#include "window_fixture.h"

using namespace ombrek;

// A book that came from elsewhere names an instrument: nothing is said to it before the builder says yes.

TEST_CASE("an instrument that came with a book hears nothing before Enter was pressed for it twice") {
    application();
    QTcpServer meter;
    int came = 0;
    QObject::connect(&meter, &QTcpServer::newConnection, [&] {
        ++came;
        QTcpSocket* socket = meter.nextPendingConnection();
        QObject::connect(socket, &QTcpSocket::readyRead, socket, [socket] {
            socket->readAll();
            socket->write("Harbour Works,M1,7,1\n");
        });
    });
    REQUIRE(meter.listen(QHostAddress::LocalHost));
    const Instrument one{0,
                         "their meter",
                         Way::tcp,
                         "127.0.0.1:" + std::to_string(meter.serverPort()),
                         "bench-multimeter",
                         "",
                         "V",
                         1,
                         true,
                         "",
                         1};
    const auto theirs = [&](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file);
        REQUIRE(book);
        REQUIRE((*book)->setInstrument(one));
    };
    Desk desk(theirs);
    desk.window().open(QStringLiteral("bench"));
    desk.settle();
    QTest::qWait(200);
    CHECK(came == 0);
    // A reading by it is refused with its reason.
    std::string why;
    desk.session().bench().take({Unit::volt, Flow::dc, Subject::check("rail8"), -1},
                                [&](const Result<BenchReading>& r) { why = r ? "" : r.error().text(); });
    CHECK_THAT(why, Catch::Contains("came with this book"));
    QTest::qWait(100);
    CHECK(came == 0);
    for (int i = 0; i < 4 && desk.now().contains(QStringLiteral("their meter")) == false; ++i)
        desk.key(Qt::Key_Down);
    REQUIRE(desk.now().contains(QStringLiteral("their meter")));
    desk.key(Qt::Key_Return);
    QTest::qWait(200);
    CHECK(came == 0);
    CHECK(desk.window()
              .page()
              ->findChild<QWidget*>(QStringLiteral("note"))
              ->accessibleName()
              .contains(QStringLiteral("came with this book")));
    desk.key(Qt::Key_Return);
    CHECK(desk.waitFor([&] { return came > 0; }));
    // The yes is the person's, and lasts.
    desk.reopen();
    for (const Instrument& now : desk.session().bench().instruments())
        CHECK(desk.session().bench().trusts(now));
}
