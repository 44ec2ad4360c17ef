#include <catch2/catch.hpp>

#include "formats/trace_csv.h"

using namespace ombrek;

namespace {

std::vector<TracePoint> read(const std::string& text, double carrier = 0) {
    const auto out = readTrace(text, carrier);
    INFO(text.substr(0, 80));
    REQUIRE(out);
    return *out;
}

}  // namespace

TEST_CASE("traces in the dialects that analysers and spreadsheets write") {
    const char* const same[] = {
        "Frequency (Hz),Level (dBm)\n7000000,-10\n7100000,-20\n7200000,-30\n7300000,-40\n7400000,-50\n",
        "7000000,-10\n7100000,-20\n7200000,-30\n7300000,-40\n7400000,-50\n",
        "# made on a bench\n! another remark, 2026\nMarker,1\n\nFreq [MHz];Trace A [dBm]\n"
        "7.0;-10\n7.1;-20\n7.2;-30\n7.3;-40\n7.4;-50\n",
        "Frequenz [MHz];Pegel [dBm]\n7,0;-10,0\n7,1;-20,0\n7,2;-30,0\n7,3;-40,0\n7,4;-50,0\n",
        "point\tkHz\tdBm\n1\t7000\t-10\n2\t7100\t-20\n3\t7200\t-30\n4\t7300\t-40\n5\t7400\t-50\n",
        "  7.0e6   -1.0e1\n  7.1e6   -2.0e1\n  7.2e6  -3e1\n  7.3e6  -4e1\n  7.4e6  -5e1\n",
        "\xEF\xBB\xBF\"Frequency\",\"Max "
        "hold\",\"Phase\"\r\n7000000,-10,3\r\n7100000,-20,3\r\n7200000,-30,3\r\n"
        "7300000,-40,3\r\n7400000,-50,3\r\n"};
    for (const char* text : same) {
        const auto trace = read(text);
        REQUIRE(trace.size() == 5);
        INFO(text);
        CHECK(trace.front().hertz == Approx(7.0e6));
        CHECK(trace.back().hertz == Approx(7.4e6));
        CHECK(trace.back().level == -50);
    }
    // Without a heading the carrier tells the unit.
    CHECK(read("10,-10\n20,-20\n30,-30\n40,-40\n50,-50\n", 21e6).front().hertz == 10e6);
    CHECK(read("10,-10\n20,-20\n30,-30\n40,-40\n50,-50\n", 21e3).front().hertz == 10e3);
}

TEST_CASE("what is no trace is said") {
    for (const char* text : {"", "hello", "1,2\n", "a,b\nc,d\ne,f\ng,h\ni,j\n", "5,1\n4,1\n3,1\n2,1\n1,1\n",
                             "7e6\n7.1e6\n7.2e6\n7.3e6\n7.4e6\n", "1,nan\n2,nan\n3,nan\n4,nan\n5,nan\n"}) {
        INFO(text);
        CHECK_FALSE(readTrace(text).has_value());
    }
}

TEST_CASE("a bridge's table of impedances is no trace") {
    for (const char* head : {"MHz,R,X", "Frequency (MHz);SWR;|Z| (ohm)", "f [MHz]\tRs\tXs"}) {
        const char mark = std::string(head).find(';') != std::string::npos    ? ';'
                          : std::string(head).find('\t') != std::string::npos ? '\t'
                                                                              : ',';
        std::string text = std::string(head) + "\n";
        for (int i = 0; i < 8; ++i)
            text +=
                std::to_string(7 + i) + mark + std::to_string(50 + i) + mark + std::to_string(i - 4) + "\n";
        INFO(text);
        const auto trace = readTrace(text, 0);
        REQUIRE_FALSE(trace);
        CHECK(trace.error().sentence.find("impedances") != std::string::npos);
    }
}
