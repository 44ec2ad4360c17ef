#include "formats/calendar.h"

#include <libical/ical.h>

#include <memory>

namespace ombrek {
namespace {

icaltimetype utc(std::int64_t seconds) {
    return icaltime_from_timet_with_zone(time_t(seconds), 0, icaltimezone_get_utc_timezone());
}

}  // namespace

std::string calendarFile(const std::vector<Appointment>& appointments, std::int64_t now) {
    const std::unique_ptr<icalcomponent, void (*)(icalcomponent*)> calendar(
        icalcomponent_new(ICAL_VCALENDAR_COMPONENT), icalcomponent_free);
    icalcomponent_add_property(calendar.get(), icalproperty_new_version("2.0"));
    icalcomponent_add_property(calendar.get(), icalproperty_new_prodid("-//Ombrek//Ombrek//EN"));
    for (const Appointment& a : appointments) {
        icalcomponent* event = icalcomponent_new(ICAL_VEVENT_COMPONENT);
        icalcomponent_add_property(event, icalproperty_new_uid(a.id.c_str()));
        icalcomponent_add_property(event, icalproperty_new_dtstamp(utc(now)));
        icalcomponent_add_property(event, icalproperty_new_dtstart(utc(a.start)));
        icalcomponent_add_property(event, icalproperty_new_dtend(utc(a.end)));
        icalcomponent_add_property(event, icalproperty_new_summary(a.title.c_str()));
        if (!a.text.empty()) icalcomponent_add_property(event, icalproperty_new_description(a.text.c_str()));
        if (a.yearly)
            icalcomponent_add_property(event,
                                       icalproperty_new_rrule(icalrecurrencetype_from_string("FREQ=YEARLY")));
        icalcomponent_add_component(calendar.get(), event);
    }
    char* text = icalcomponent_as_ical_string_r(calendar.get());
    std::string out(text);
    icalmemory_free_buffer(text);
    return out;
}

}  // namespace ombrek
