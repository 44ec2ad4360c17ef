#include "formats/calendar.h"

#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

using namespace ombrek;

TEST_CASE("the calendar is read by an independent parser", "[reference]") {
    // Source: RFC 5545, as read by the icalendar package of Python, which shares nothing with libical.
    INFO("python3-icalendar must be installed");
    REQUIRE(std::system("/usr/bin/python3 -c 'import icalendar'") == 0);
    // 18:00 UTC on 24 and 25 October 2026: the clocks of Europe go back in the night between them.
    const std::vector<Appointment> out{
        {1792864800, 1792864800 + 7200, "Bench: Lantern 15",
         "Odds 50 %; commas, semicolons; \"quotes\"\nand lines", "a@ombrek"},
        {1792951200, 1792951200 + 5400, std::string(200, 'x'), "", "b@ombrek", true}};
    const std::string file = (std::filesystem::temp_directory_path() / "ombrek-calendar-test.ics").string();
    std::ofstream(file) << calendarFile(out, 1792800000);
    const std::string script =
        "import icalendar,sys\n"
        "c=icalendar.Calendar.from_ical(open(sys.argv[1]).read())\n"
        "e=[x for x in c.walk('VEVENT')]\n"
        "assert len(e)==2 and str(c['VERSION'])=='2.0' and c['PRODID']\n"
        "assert int(e[0].decoded('DTSTART').timestamp())==1792864800\n"
        "assert int((e[0].decoded('DTEND')-e[0].decoded('DTSTART')).total_seconds())==7200\n"
        "assert int(e[1].decoded('DTSTART').timestamp())==1792951200\n"
        "assert str(e[0]['SUMMARY'])=='Bench: Lantern 15'\n"
        "assert str(e[0]['DESCRIPTION'])=='Odds 50 %; commas, semicolons; \"quotes\"\\nand lines'\n"
        "assert e[1]['RRULE']['FREQ']==['YEARLY'] and 'RRULE' not in e[0]\n"
        "assert str(e[1]['SUMMARY'])=='x'*200 and str(e[1]['UID'])=='b@ombrek'\n";
    std::ofstream(file + ".py") << script;
    CHECK(std::system(("/usr/bin/python3 " + file + ".py " + file).c_str()) == 0);
    std::filesystem::remove(file);
    std::filesystem::remove(file + ".py");
}
