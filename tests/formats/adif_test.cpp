#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>
#include <random>

#include "folder.h"
#include "formats/adif.h"
#include "formats/contact_adif.h"
#include "formats/contact_text.h"
#include "formats/heard_csv.h"
#include "process.h"

using namespace ombrek;

namespace {

constexpr std::int64_t kNow = 1795804200;  // 2026-11-27 18:30 UTC

Contact contact(const std::string& call, std::int64_t at = kNow - 3600) {
    Contact out;
    out.call = call;
    out.at = at;
    out.frequency = 7.031e6;
    out.band = "40m";
    out.mode = "CW";
    out.sent = "599";
    out.received = "579";
    out.watts = 3;
    return out;
}

LogTaken taken(const std::string& bytes, const std::vector<Contact>& there = {}) {
    auto out = takeAdif(bytes, there, {}, kNow);
    if (!out) FAIL(out.error().text());
    return *out;
}

std::string field(const std::string& name, const std::string& value) {
    return "<" + name + ":" + std::to_string(value.size()) + ">" + value;
}

const std::string kOne = field("CALL", "QX1ABC") + field("QSO_DATE", "20261126") + field("TIME_ON", "1830") +
                         field("BAND", "40m") + field("MODE", "CW");

}  // namespace

TEST_CASE("ADIF that is written is read back by a reader written from the published format") {
    const Folder folder;
    std::vector<Contact> log{contact("QX1ABC"), contact("QX2DEF/P", kNow - 7200)};
    log[0].name = "Zoë Müller";
    log[0].place = "Ōsaka";
    log[0].locator = "PM74";
    log[0].note = "first\nline <eor> and <CALL:3>abc";
    log[1].frequency = 0;
    log[1].extra = field("APP_OTHER_SCORE", "17") + field("QSL_SENT", "Y");
    for (const char* name : {"log.adi", "log.adx"}) {
        const auto file = (folder / name).string();
        std::ofstream(file, std::ios::binary) << writeLog(log, {}, "QX9ZZ", "JO62qm", kNow, file);
        const auto read = nlohmann::json::parse(outputOf("/usr/bin/python3 '" + std::string(OMBREK_TESTS) +
                                                         "/formats/read_adif.py' '" + file + "'"));
        INFO(name << " " << read.dump());
        REQUIRE(read.size() == 2);
        CHECK(read[0]["CALL"] == "QX1ABC");
        CHECK(read[0]["QSO_DATE"] == "20261127");
        CHECK(read[0]["TIME_ON"] == "173000");
        CHECK(std::stod(read[0]["FREQ"].get<std::string>()) == Approx(7.031));
        CHECK(read[0]["RST_RCVD"] == "579");
        CHECK(read[0]["TX_PWR"] == "3");
        CHECK(read[0]["GRIDSQUARE"] == "PM74");
        CHECK(read[1]["CALL"] == "QX2DEF/P");
        CHECK(read[1]["QSL_SENT"] == "Y");
        CHECK(read[1]["APP_OTHER_SCORE"] == "17");
        CHECK_FALSE(read[1].contains("FREQ"));
        const bool whole = read[0]["NAME"] == "Zoë Müller", ascii = read[0]["NAME"] == "Zoe Muller";
        CHECK((std::string(name) == "log.adx" ? whole : ascii));
        // And by ourselves, without loss.
        std::ifstream in(file, std::ios::binary);
        const std::string bytes((std::istreambuf_iterator<char>(in)), {});
        const LogTaken back = taken(bytes);
        REQUIRE(back.contacts.size() == 2);
        CHECK(back.contacts[0].name == log[0].name);
        CHECK(back.contacts[0].place == log[0].place);
        CHECK(back.contacts[0].note == log[0].note);
        CHECK(back.contacts[1].extra.find("QSL_SENT") != std::string::npos);
        CHECK(back.doubts.empty());
    }
}

TEST_CASE("odd dialects of ADIF are taken") {
    struct Dialect {
        const char* what;
        std::string bytes;
        std::size_t contacts;
    };
    const std::string utf16 = [] {
        std::string out = "\xFF\xFE";
        for (const char c : "head <EOH>" + kOne + "<EOR>") out += c, out += '\0';
        return out;
    }();
    const std::vector<Dialect> dialects{
        {"no header", kOne + "<EOR>", 1},
        {"a header of prose", "Log of a station\nmade 2026\n<EOH>\n" + kOne + "<EOR>", 1},
        {"a header with fields", "x<ADIF_VER:5>3.0.9<PROGRAMID:3>abc<eoh>" + kOne + "<EOR>", 1},
        {"a header without its end",
         "<ADIF_VER:5>3.0.9 " + kOne + "<EOR>" + "<CALL:6>QX2DEF<QSO_DATE:8>20261126<TIME_ON:4>1200<EOR>", 2},
        {"small letters", "<call:6>QX1ABC<qso_date:8>20261126<time_on:4>1830<band:3>40m<eor>", 1},
        {"type letters", "<CALL:6:S>QX1ABC<QSO_DATE:8:D>20261126<TIME_ON:6:T>183000<EOR>", 1},
        {"blanks within tags", "< CALL : 6 >QX1ABC<QSO_DATE : 8>20261126<TIME_ON:4 >1830< EOR >", 1},
        {"line ends between", "<CALL:6>QX1ABC\r\n<QSO_DATE:8>20261126\r\n<TIME_ON:4>1830\r\n<EOR>\r\n", 1},
        {"old line ends", "<CALL:6>QX1ABC\r<QSO_DATE:8>20261126\r<TIME_ON:4>1830\r<EOR>\r", 1},
        {"comments between", kOne + " // a good one\n<EOR> // done\n", 1},
        {"no end of the last record", kOne + "<EOR>\n<CALL:6>QX2DEF<QSO_DATE:8>20261126<TIME_ON:4>1831", 2},
        {"a length too small", "<CALL:4>QX1ABC<QSO_DATE:8>20261126<TIME_ON:4>1830<EOR>", 1},
        {"a length too large", "<CALL:16>QX1ABC<QSO_DATE:8>20261126<TIME_ON:4>1830<EOR>", 1},
        {"a length beyond the file",
         "<CALL:6>QX1ABC<QSO_DATE:8>20261126<TIME_ON:4>1830<COMMENT:9999>hello<EOR>", 1},
        {"a byte-order mark", "\xEF\xBB\xBF" + kOne + "<EOR>", 1},
        {"UTF-16", utf16, 1},
        {"Latin-1",
         field("NAME",
               "Z\xF6"
               "e") +
             kOne + "<EOR>",
         1},
        {"lengths in letters", "<NAME:4>Zoë!" + kOne + "<EOR>", 1},
        {"a decimal comma", kOne + field("FREQ", "7,031") + field("TX_PWR", "2,5") + "<EOR>", 1},
        {"a date with dashes and a time with colons",
         field("CALL", "QX1ABC") + field("QSO_DATE", "2026-11-26") + field("TIME_ON", "18:30:05") + "<EOR>",
         1},
        {"only the end's time",
         field("CALL", "QX1ABC") + field("QSO_DATE", "20261126") + field("TIME_OFF", "1830") + "<EOR>", 1},
        {"a tag of no length", "<CALL:6>QX1ABC<NAME:0><QSO_DATE:8>20261126<TIME_ON:4>1830<EOR>", 1},
        {"empty records", "<EOR><EOR>" + kOne + "<EOR><EOR>", 1},
        {"XML",
         "<?xml "
         "version=\"1.0\"?><ADX><HEADER/><RECORDS><RECORD><CALL>QX1ABC</CALL><QSO_DATE>20261126</"
         "QSO_DATE><TIME_ON>1830</TIME_ON></RECORD></RECORDS></ADX>",
         1},
        {"a time of three digits, kilohertz",
         field("CALL", "QX1ABC") + field("QSO_DATE", "20261126") + field("TIME_ON", "1830") +
             field("FREQ", "7031") + "<EOR>" + field("CALL", "QX2DEF") + field("QSO_DATE", "20261126") +
             field("TIME_ON", "930") + "<EOR>",
         2},
        {"XML behind a remark, all in small letters",
         "<!-- a log "
         "--><adx><header/><records><record><call>QX1ABC</call><qso_date>20261126</qso_date><time_on>1830</"
         "time_on></record></records></adx>",
         1},
        {"XML in small letters, cut off",
         "<ADX><HEADER></HEADER><RECORDS><RECORD><call>QX1ABC</call><qso_date>20261126</"
         "qso_date><time_on>1830</time_on></RECORD><RECORD><call>QX2",
         1},
    };
    CHECK(dialects.size() >= 20);
    for (const Dialect& d : dialects) {
        INFO(d.what);
        const LogTaken log = taken(d.bytes);
        REQUIRE(log.contacts.size() == d.contacts);
        CHECK(log.contacts.front().call == "QX1ABC");
        CHECK(adifDate(log.contacts.front().at) == "20261126");
        CHECK(adifTime(log.contacts.front().at).substr(0, 4) == "1830");
    }
    CHECK(taken(field("NAME",
                      "Z\xF6"
                      "e") +
                kOne + "<EOR>")
              .contacts.front()
              .name == "Zöe");
    CHECK(taken("<NAME:4>Zoë!" + kOne + "<EOR>").contacts.front().name == "Zoë!");
    CHECK(taken(kOne + field("FREQ", "7,031") + "<EOR>").contacts.front().frequency == Approx(7.031e6));
    CHECK(taken(kOne + field("FREQ", "7031") + "<EOR>").contacts.front().band == "40m");
    CHECK(taken(kOne + field("FREQ", "7031000") + "<EOR>").contacts.front().frequency == Approx(7.031e6));
    CHECK_FALSE(taken("<CALL:4>QX1ABC<QSO_DATE:8>20261126<TIME_ON:4>1830<EOR>").doubts.empty());
}

TEST_CASE("a value holds brackets where its length says so") {
    const std::string note = "it said <EOR> and <CALL:6>QX9XYZ";
    const LogTaken log = taken(kOne + field("COMMENT", note) + "<EOR>");
    REQUIRE(log.contacts.size() == 1);
    CHECK(log.contacts.front().note == note);
}

TEST_CASE("what cannot be is refused with its line, and the rest is kept") {
    const std::string bad =
        "<CALL:6>QX1ABC<QSO_DATE:8>18990101<TIME_ON:4>1200<EOR>\n"
        "<CALL:6>QX2DEF<QSO_DATE:8>20261128<TIME_ON:4>0200<EOR>\n"
        "<CALL:6>QX3GHI<QSO_DATE:8>20270101<TIME_ON:4>1200<EOR>\n"
        "<CALL:8>QX 4 JKL<QSO_DATE:8>20261101<TIME_ON:4>1200<EOR>\n"
        "<CALL:6>QX5MNO<QSO_DATE:8>20260231<TIME_ON:4>1200<EOR>\n"
        "<CALL:6>QX6PQR<QSO_DATE:8>20261101<TIME_ON:4>2560<EOR>\n"
        "<QSO_DATE:8>20261101<TIME_ON:4>1200<EOR>\n"
        "<CALL:6>QX7STU<QSO_DATE:8>20261101<TIME_ON:4>1200<GRIDSQUARE:4>ZZ99<EOR>\n";
    const LogTaken log = taken(bad);
    CHECK(log.read == 8);
    REQUIRE(log.contacts.size() == 1);
    CHECK(log.contacts[0].call == "QX7STU");
    CHECK(log.contacts[0].locator.empty());
    CHECK(log.contacts[0].extra.find("ZZ99") != std::string::npos);  // nothing lost
    REQUIRE(log.refused.size() == 7);
    CHECK(log.refused[0].line == 1);
    CHECK(log.refused[0].reason.find("1930") != std::string::npos);
    CHECK(log.refused[1].line == 2);
    CHECK(log.refused[1].reason.find("local time") != std::string::npos);
    CHECK(log.refused[2].reason.find("future") != std::string::npos);
    CHECK(log.refused[3].reason.find("blank") != std::string::npos);
    CHECK_FALSE(takeAdif("hello, this is no log", {}, {}, kNow));
    CHECK_FALSE(takeAdif("", {}, {}, kNow));
    CHECK_FALSE(takeAdif("<?xml version=\"1.0\"?><html/>", {}, {}, kNow));
}

TEST_CASE("the same contact twice is taken once, two stations in the same minute both") {
    const std::string two =
        kOne + "<EOR>" + kOne +
        "<EOR><CALL:6>QX2DEF<QSO_DATE:8>20261126<TIME_ON:4>1830<BAND:3>40m<MODE:2>CW<EOR>";
    const LogTaken first = taken(two);
    CHECK(first.contacts.size() == 2);
    CHECK(first.duplicates == 1);
    const LogTaken again = taken(two, first.contacts);
    CHECK(again.contacts.empty());
    CHECK(again.duplicates == 3);
}

TEST_CASE("damaged logs do no harm") {
    std::mt19937 random(5);
    const std::string whole =
        writeAdi({recordOf(contact("QX1ABC"), "rig"), recordOf(contact("QX2DEF"), "")}, kNow);
    for (int i = 0; i < 3000; ++i) {
        std::string bytes = whole;
        for (int k = 0; k < 1 + int(random() % 6); ++k) bytes[random() % bytes.size()] = char(random() % 256);
        if (random() % 3 == 0) bytes.resize(random() % bytes.size());
        const auto read = takeAdif(bytes, {}, {}, kNow);
        if (!read) continue;
        CHECK(read->contacts.size() + read->refused.size() + read->duplicates == read->read);
        for (const Contact& c : read->contacts) CHECK(callTrouble(c.call).empty());
    }
}

TEST_CASE("a hundred thousand records are read whole, and reading can be stopped") {
    std::string bytes = "<EOH>";
    for (int i = 0; i < 100000; ++i) {
        const std::string time = adifTime(i % 86400).substr(0, 4);
        bytes += field("CALL", "QX" + std::to_string(i % 10) + "A" + std::string(1, char('A' + i % 26)) +
                                   std::string(1, char('A' + i / 26 % 26))) +
                 field("QSO_DATE", adifDate(kNow - 86400LL * (1 + i / 300))) + field("TIME_ON", time) +
                 field("BAND", "40m") + field("MODE", "CW") + "<EOR>\n";
    }
    const LogTaken log = taken(bytes);
    CHECK(log.read == 100000);
    CHECK(log.contacts.size() + log.duplicates == 100000);
    CHECK(log.refused.empty());
    CHECK_FALSE(takeAdif(bytes, {}, {}, kNow, [](double) { return false; }));
}

TEST_CASE("a contact is typed in one line") {
    Contact known = contact("", kNow);
    known.sent = known.received = "599";
    const auto typed =
        readContactLine("qx1abc 559 579 Tom jo62QM 14.061 5W 18:20, Kiel, first of the evening", known, kNow);
    REQUIRE(typed);
    CHECK(typed->call == "QX1ABC");
    CHECK(typed->sent == "559");
    CHECK(typed->received == "579");
    CHECK(typed->name == "Tom");
    CHECK(typed->locator == "JO62qm");
    CHECK(typed->frequency == Approx(14.061e6));
    CHECK(typed->band == "20m");
    CHECK(typed->watts == 5);
    CHECK(typed->place == "Kiel");
    CHECK(typed->note == "first of the evening");
    CHECK(typed->at == kNow - 600);
    // What is prefilled stays; its own line reads back to it.
    const auto brief = readContactLine("QX2DEF 579", known, kNow);
    REQUIRE(brief);
    CHECK(brief->band == "40m");
    CHECK(brief->sent == "579");
    CHECK(brief->received == "599");
    const auto back = readContactLine(contactLine(*typed), known, kNow);
    REQUIRE(back);
    CHECK(contactLine(*back) == contactLine(*typed));
    CHECK(readContactLine("QX3GHI 40m ssb 59 57", known, kNow)->mode == "SSB");
    CHECK(readContactLine("QX3GHI 7,0315", known, kNow)->frequency == Approx(7.0315e6));
    CHECK(readContactLine("QX3GHI 23:50", known, kNow)->at < kNow);  // of the evening before
    for (const char* wrong : {"", "Tom", "599 QX1ABC", "QX1ABC 599 579 559", "Q X1ABC"}) {
        INFO(wrong);
        CHECK_FALSE(readContactLine(wrong, known, kNow));
    }
}

TEST_CASE("reports of other receivers are read from tables of several networks' dialects") {
    const std::string wide =
        "timestamp,tx_sign,tx_loc,rx_sign,rx_loc,frequency,snr,power\n"
        "2026-11-26 20:00:00,QX9ZZ,JO62,QX1RX,IO91,7.0401,-12,3\n"
        "2026-11-26 20:02:00,QX9ZZ,JO62,QX2RX,FN31,7.0401,-24,3\n";
    const auto first = readHeard(wide, {}, kNow);
    REQUIRE(first);
    REQUIRE(first->reports.size() == 2);
    CHECK(first->reports[0].by == "QX1RX");
    CHECK(first->reports[0].locator == "IO91");
    CHECK(first->reports[0].frequency == Approx(7.0401e6));
    CHECK(first->reports[1].snr == -24);
    CHECK(readHeard(wide, first->reports, kNow)->duplicates == 2);
    const auto other =
        readHeard("UTC;Reporter;dB;MHz\n2026-11-26T20:00Z;qx3rx;+7;14,06\nnonsense;QX4RX;1;2\n", {}, kNow);
    REQUIRE(other);
    REQUIRE(other->reports.size() == 1);
    CHECK(other->reports[0].by == "QX3RX");
    CHECK(other->reports[0].snr == 7);
    CHECK(other->reports[0].frequency == Approx(14.06e6));
    CHECK(other->refused.size() == 1);
    CHECK_FALSE(readHeard("a,b\n1,2\n", {}, kNow));
    CHECK_FALSE(readHeard("", {}, kNow));
}
