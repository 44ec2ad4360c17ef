#include <random>

#include "bench_of.h"
#include "instruments/scpi_device.h"
#include "instruments/sigrok_device.h"
#include "instruments/stream_device.h"
#include "draws.h"

using namespace ombrek;

// A hundred thousand garbled replies over each way: none of them becomes a wrong reading, and nothing waits
// for ever. Seeds are fixed.

namespace {

const int kReplies = draws(100000, 20000);
constexpr double kTrue = 101.3e-12;

/// One to three bytes lost, doubled or turned into others.
QByteArray garbled(QByteArray line, std::mt19937& random) {
    const int faults = 1 + int(random() % 3);
    for (int i = 0; i < faults && !line.isEmpty(); ++i) {
        const auto at = int(random() % std::size_t(line.size()));
        switch (random() % 4) {
            case 0:
                line[at] = char(random() % 256);
                break;
            case 1:
                line[at] = "0123456789.-+eE pnumkM"[random() % 22];
                break;
            case 2:
                line.remove(at, 1);
                break;
            default:
                line.insert(at, line[at]);
        }
    }
    return line;
}

/// A cable in memory: what is written is answered at once by `says`.
class MemoryCable : public Cable {
 public:
    void open() override {
        open_ = true;
        emit opened();
    }
    void close() override { open_ = false; }
    bool isOpen() const override { return open_; }
    void write(const QByteArray& bytes) override {
        if (!says) return;
        const QByteArray answer = says(bytes);
        QMetaObject::invokeMethod(
            this, [this, answer] { emit heard(answer); }, Qt::QueuedConnection);
    }
    std::function<QByteArray(const QByteArray&)> says;

 private:
    bool open_ = false;
};

Standing farads() {
    return {Unit::farad, Flow::either, [](double value) { return usualUncertainty(Unit::farad, value); }};
}

/// What stood and was not the truth.
struct Tally {
    int parsed = 0, stood = 0, wrong = 0;
    Standing standing = farads();
    void take(const Sample& sample) {
        parsed += sample.kind == Sample::Kind::reading;
        if (standing.take(sample) != Standing::State::stands) return;
        ++stood;
        const Sample& s = standing.value();
        wrong += !(s.kind == Sample::Kind::reading && std::fabs(s.value - kTrue) < 0.03 * kTrue);
        standing = farads();
    }
};

}  // namespace

TEST_CASE("garbled SCPI replies give no wrong reading that stands") {
    std::mt19937 random(1);
    Tally tally;
    for (int i = 0; i < kReplies; ++i) {
        const QByteArray line = garbled("+1.01300000E-10,+2.0E-02,+0", random);
        tally.take(readScpiReply(std::string_view(line.constData(), std::size_t(line.size())), Unit::farad,
                                 Flow::either));
    }
    INFO(tally.parsed << " parsed, " << tally.stood << " stood");
    CHECK(tally.parsed > 1000);
    CHECK(tally.wrong == 0);
}

TEST_CASE("garbled lines of libsigrok's process give no wrong reading that stands") {
    std::mt19937 random(2);
    Tally tally;
    for (int i = 0; i < kReplies; ++i)
        tally.take(readSigrokLine(
            garbled(R"({"digits": 13, "flags": [], "unit": "F", "value": 1.013e-10})", random)));
    INFO(tally.parsed << " parsed, " << tally.stood << " stood");
    CHECK(tally.parsed > 1000);
    CHECK(tally.wrong == 0);
}

TEST_CASE("a line device that hears nothing but rubbish answers every question, and never wrongly") {
    eventLoop();
    std::mt19937 random(3);
    auto* cable = new MemoryCable;
    LineDevice device(std::unique_ptr<Cable>(cable), *readLinePattern("C # @ Q *"));
    Tally tally;
    int asked = 0, answered = 0;
    for (int i = 0; i < kReplies;) {
        if (!device.asking()) {
            ++asked;
            device.ask({Unit::farad}, [&](const Sample& sample) {
                ++answered;
                tally.take(sample);
            });
        }
        QByteArray bytes;  // in pieces that end anywhere
        for (int n = 0; n < 4; ++n, ++i) bytes += garbled("C= 101.3 pF Q= 85\r\n", random);
        const auto cut = int(random() % std::size_t(bytes.size() + 1));
        emit cable->heard(bytes.left(cut));
        emit cable->heard(bytes.mid(cut));
    }
    INFO(asked << " asked, " << tally.parsed << " parsed, " << tally.stood << " stood");
    CHECK(answered >= asked - 1);
    CHECK(asked > kReplies / 10);
    CHECK(tally.parsed > 1000);
    CHECK(tally.wrong == 0);
    CHECK(device.talk().lines().size() <= Talk::kMost);
}

TEST_CASE("a SCPI device that hears rubbish answers every question, and is right again when the cable is") {
    eventLoop();
    std::mt19937 random(4);
    auto* cable = new MemoryCable;
    int replies = 0;
    bool garbles = true;
    cable->says = [&](const QByteArray&) {
        ++replies;
        const QByteArray line = "+1.01300000E-10,+0";
        // Now and then the line has no end, as a message cut short.
        return (garbles ? garbled(line, random) : line) + (garbles && replies % 4000 == 0 ? "" : "\n");
    };
    CommandSet set;
    set.queries = {{Unit::farad, Flow::either, {}, "FETC?", 0, "", 0}};
    set.answers = 300;
    ScpiDevice device(std::unique_ptr<Cable>(cable), set);
    device.setQuiet(0);
    Tally tally;
    const auto ask = [&](const std::function<void(const Sample&)>& use) {
        bool answered = false;
        device.ask({Unit::farad}, [&](const Sample& sample) {
            answered = true;
            use(sample);
        });
        REQUIRE(waitUntil([&] { return answered; }));
    };
    while (replies < kReplies) ask([&](const Sample& sample) { tally.take(sample); });
    INFO(tally.parsed << " parsed, " << tally.stood << " stood");
    CHECK(tally.parsed > 1000);
    CHECK(tally.wrong == 0);
    garbles = false;
    for (int i = 0; i < 3; ++i) ask([&](const Sample& sample) { CHECK(sample.value == 1.013e-10); });
}
