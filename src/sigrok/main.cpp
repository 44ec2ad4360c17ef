#include <libsigrok/libsigrok.h>
#include <poll.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <map>
#include <nlohmann/json.hpp>
#include <string>
#include <thread>
#include <vector>

// One instrument by libsigrok, printed a sample a line. A program of its own: a driver that hangs or falls
// over takes nothing with it.

namespace {

void print(const nlohmann::json& line) {
    std::printf("%s\n", line.dump(-1, ' ', true, nlohmann::json::error_handler_t::replace).c_str());
    if (std::fflush(stdout) != 0) std::_Exit(0);  // nobody listens any more
}

[[noreturn]] void refuse(const std::string& why) {
    print({{"trouble", why}});
    std::_Exit(1);
}

const std::map<int, const char*> kUnits{
    {SR_UNIT_VOLT, "V"},     {SR_UNIT_AMPERE, "A"},    {SR_UNIT_OHM, "Ω"},  {SR_UNIT_FARAD, "F"},
    {SR_UNIT_HENRY, "H"},    {SR_UNIT_HERTZ, "Hz"},    {SR_UNIT_WATT, "W"}, {SR_UNIT_DECIBEL_MW, "dBm"},
    {SR_UNIT_CELSIUS, "°C"}, {SR_UNIT_PERCENTAGE, "%"}};

struct FlagName {
    int flag;
    const char* word;
};
constexpr FlagName kFlags[] = {{SR_MQFLAG_AC, "ac"},       {SR_MQFLAG_DC, "dc"},   {SR_MQFLAG_DIODE, "diode"},
                               {SR_MQFLAG_HOLD, "hold"},   {SR_MQFLAG_MAX, "max"}, {SR_MQFLAG_MIN, "min"},
                               {SR_MQFLAG_RELATIVE, "rel"}};

/// "driver:conn=/dev/ttyUSB0:serialcomm=9600/8n1 CHANNEL".
struct Spec {
    std::string driver, channel;
    std::map<std::string, std::string> options;
};

Spec readSpec(const std::string& text) {
    Spec out;
    const auto blank = text.find(' ');
    out.channel = blank == std::string::npos ? "" : text.substr(blank + 1);
    std::string rest = text.substr(0, blank);
    bool first = true;
    while (!rest.empty()) {
        const auto colon = std::min(rest.find(':'), rest.size());
        const std::string word = rest.substr(0, colon);
        rest.erase(0, colon + 1);
        const auto equals = word.find('=');
        if (std::exchange(first, false)) {
            out.driver = word;
        } else if (equals != std::string::npos) {
            out.options[word.substr(0, equals)] = word.substr(equals + 1);
        }
    }
    return out;
}

sr_dev_driver* driverOf(sr_context* context, const std::string& name) {
    for (sr_dev_driver** d = sr_driver_list(context); d != nullptr && *d != nullptr; ++d) {
        if (name == (*d)->name) return *d;
    }
    return nullptr;
}

GSList* optionsOf(const Spec& spec) {
    GSList* out = nullptr;
    for (const auto& [name, value] : spec.options) {
        const int key = name == "conn" ? SR_CONF_CONN : name == "serialcomm" ? SR_CONF_SERIALCOMM : 0;
        if (key == 0) continue;
        auto* config = g_new0(sr_config, 1);
        config->key = std::uint32_t(key);
        config->data = g_variant_ref_sink(g_variant_new_string(value.c_str()));
        out = g_slist_append(out, config);
    }
    return out;
}

std::vector<sr_channel*> analogChannels(const sr_dev_inst* device) {
    std::vector<sr_channel*> out;
    for (GSList* c = sr_dev_inst_channels_get(device); c != nullptr; c = c->next) {
        auto* channel = static_cast<sr_channel*>(c->data);
        if (channel->type == SR_CHANNEL_ANALOG) out.push_back(channel);
    }
    return out;
}

const std::map<std::string, int> kQuantities{{"voltage", SR_MQ_VOLTAGE},
                                             {"current", SR_MQ_CURRENT},
                                             {"resistance", SR_MQ_RESISTANCE},
                                             {"capacitance", SR_MQ_CAPACITANCE},
                                             {"frequency", SR_MQ_FREQUENCY},
                                             {"inductance", SR_MQ_SERIES_INDUCTANCE},
                                             {"power", SR_MQ_POWER}};

/// A typed setting as the key's own type; null: it cannot be one.
GVariant* valueOf(const sr_key_info& key, const std::string& text) {
    char* end = nullptr;
    const double number = std::strtod(text.c_str(), &end);  // this program keeps the C locale
    const bool isNumber = end != text.c_str() && *end == 0 && std::isfinite(number);
    switch (key.datatype) {
        case SR_T_FLOAT:
            return isNumber ? g_variant_new_double(number) : nullptr;
        case SR_T_UINT64:
            return isNumber && number >= 0 && number < 1e15 ? g_variant_new_uint64(std::uint64_t(number))
                                                            : nullptr;
        case SR_T_BOOL:
            return g_variant_new_boolean(text == "on" || text == "1");
        case SR_T_STRING:
            return g_variant_new_string(text.c_str());
        case SR_T_MQ: {  // "voltage", "voltage ac"
            const auto hit = kQuantities.find(text.substr(0, text.find('+')));
            if (hit == kQuantities.end()) return nullptr;
            const int flags = text.ends_with("+ac") ? SR_MQFLAG_AC : text.ends_with("+dc") ? SR_MQFLAG_DC : 0;
            return g_variant_new("(ut)", guint32(hit->second), guint64(flags));
        }
        default:
            return nullptr;
    }
}

/// What the driver is told of the instrument before it measures: of the channel's group, else of the whole.
/// Nothing that could switch an output on is passed.
void configure(sr_dev_inst* device, const sr_channel* channel, const Spec& spec) {
    sr_channel_group* group = nullptr;
    for (GSList* g = sr_dev_inst_channel_groups_get(device); g != nullptr; g = g->next) {
        auto* one = static_cast<sr_channel_group*>(g->data);
        if (g_slist_length(one->channels) == 1 && one->channels->data == channel) group = one;
    }
    for (const auto& [name, value] : spec.options) {
        if (name == "conn" || name == "serialcomm") continue;
        const sr_key_info* key = sr_key_info_name_get(SR_KEY_CONFIG, name.c_str());
        if (key == nullptr || key->key == SR_CONF_ENABLED)
            refuse("libsigrok has no setting \"" + name.substr(0, 40) + "\" here.");
        bool done = false;
        for (sr_channel_group* of : {group, static_cast<sr_channel_group*>(nullptr)}) {
            GVariant* data = done ? nullptr : valueOf(*key, value);
            done = done || (data != nullptr && sr_config_set(device, of, key->key, data) == SR_OK);
        }
        if (!done)
            refuse("the instrument does not take " + name.substr(0, 40) + "=" + value.substr(0, 40) + ".");
    }
}

std::string nameOf(const sr_dev_inst* device) {
    std::string out;
    for (const char* word : {sr_dev_inst_vendor_get(device), sr_dev_inst_model_get(device)}) {
        if (word != nullptr && *word != 0) out += (out.empty() ? "" : " ") + std::string(word);
    }
    return out.empty() ? "an instrument" : out;
}

/// The last of each packet: a display, not a record. A logger's thousands a second are thinned.
void onPacket(const sr_dev_inst*, const sr_datafeed_packet* packet, void*) {
    if (packet->type != SR_DF_ANALOG) return;
    const auto* analog = static_cast<const sr_datafeed_analog*>(packet->payload);
    if (analog == nullptr || analog->num_samples == 0) return;
    const auto channels = std::max<std::size_t>(g_slist_length(analog->meaning->channels), 1);
    std::vector<float> values(std::size_t(analog->num_samples) * channels);
    if (sr_analog_to_float(analog, values.data()) != SR_OK) return;
    using Clock = std::chrono::steady_clock;
    static Clock::time_point last;
    if (Clock::now() - last < std::chrono::milliseconds(50)) return;
    last = Clock::now();
    const double value = values.back();
    nlohmann::json line{{"value", nullptr}, {"flags", nlohmann::json::array()}};
    if (std::isfinite(value)) line["value"] = value;
    if (std::isnan(value)) line["value"] = "no number";
    if (std::isinf(value)) line["below"] = value < 0;
    const auto unit = kUnits.find(analog->meaning->unit);
    line["unit"] = unit == kUnits.end() ? "" : unit->second;
    // Negative digits say how many before the point are none; a float holds seven.
    if (analog->spec != nullptr && std::abs(analog->spec->spec_digits) <= 15)
        line["digits"] = int(analog->spec->spec_digits);
    for (const FlagName& f : kFlags) {
        if ((analog->meaning->mqflags & f.flag) != 0) line["flags"].push_back(f.word);
    }
    print(line);
}

/// The program ends with whoever started it.
void endWithInput() {
    std::thread([] {
        char ignored[64];
        while (::read(0, ignored, sizeof ignored) > 0) {
        }
        std::_Exit(0);
    }).detach();
}

int list(sr_context* context) {
    for (sr_dev_driver** d = sr_driver_list(context); d != nullptr && *d != nullptr; ++d)
        print({{"driver", (*d)->name}, {"name", (*d)->longname}});
    return 0;
}

sr_dev_driver* startedDriver(sr_context* context, const Spec& spec) {
    sr_dev_driver* driver = driverOf(context, spec.driver);
    if (driver == nullptr) refuse("libsigrok has no driver \"" + spec.driver.substr(0, 40) + "\".");
    if (sr_driver_init(context, driver) != SR_OK)
        refuse("the driver \"" + spec.driver + "\" does not start.");
    return driver;
}

/// What answers to one driver.
int look(sr_context* context, const Spec& spec) {
    sr_dev_driver* driver = startedDriver(context, spec);
    for (GSList* d = sr_driver_scan(driver, optionsOf(spec)); d != nullptr; d = d->next) {
        const auto* device = static_cast<const sr_dev_inst*>(d->data);
        nlohmann::json line{{"device", nameOf(device)}, {"channels", nlohmann::json::array()}};
        for (const sr_channel* channel : analogChannels(device)) line["channels"].push_back(channel->name);
        print(line);
    }
    return 0;
}

int readOne(sr_context* context, const Spec& spec) {
    sr_dev_driver* driver = startedDriver(context, spec);
    GSList* found = sr_driver_scan(driver, optionsOf(spec));
    if (found == nullptr)
        refuse("libsigrok finds no instrument for \"" + spec.driver +
               "\"; is it connected, switched on and sending?");
    auto* device = static_cast<sr_dev_inst*>(found->data);
    if (sr_dev_open(device) != SR_OK) refuse(nameOf(device) + " cannot be opened; may you use its port?");
    const auto analog = analogChannels(device);
    if (analog.empty()) refuse(nameOf(device) + " measures nothing that has a number.");
    bool any = false;
    for (GSList* c = sr_dev_inst_channels_get(device); c != nullptr; c = c->next) {
        auto* channel = static_cast<sr_channel*>(c->data);
        const bool wanted =
            channel->type == SR_CHANNEL_ANALOG &&
            (spec.channel.empty() ? channel == analog.front() : spec.channel == channel->name);
        sr_dev_channel_enable(channel, wanted);
        any = any || wanted;
    }
    const auto chosen = std::find_if(analog.begin(), analog.end(), [&](const sr_channel* c) {
        return spec.channel.empty() ? c == analog.front() : spec.channel == c->name;
    });
    if (chosen != analog.end()) configure(device, *chosen, spec);
    if (!any)
        refuse(nameOf(device) + " has no channel \"" + spec.channel.substr(0, 40) + "\"; the first is " +
               analog.front()->name + ".");
    sr_session* session = nullptr;
    sr_session_new(context, &session);
    sr_session_dev_add(session, device);
    sr_session_datafeed_callback_add(session, onPacket, nullptr);
    if (sr_session_start(session) != SR_OK) refuse(nameOf(device) + " does not begin to measure.");
    sr_session_run(session);
    sr_dev_close(device);
    refuse(nameOf(device) + " stopped sending.");
}

}  // namespace

int main(int argc, char** argv) {
    CLI::App options{
        "One instrument that libsigrok knows, a sample a line, as JSON. Ombrek starts it; by hand it shows "
        "what arrives."};
    std::string reading, looking;
    bool drivers = false;
    options.add_option("--read", reading,
                       "driver:conn=PORT:serialcomm=9600/8n1, and behind a blank a channel; prints until "
                       "standard input ends");
    options.add_option("--look", looking, "the same: who answers to this driver");
    options.add_flag("--drivers", drivers, "the drivers that there are");
    CLI11_PARSE(options, argc, argv);
    sr_context* context = nullptr;
    sr_log_loglevel_set(SR_LOG_NONE);
    if (sr_init(&context) != SR_OK) refuse("libsigrok does not start.");
    if (drivers) return list(context);
    if (!looking.empty()) return look(context, readSpec(looking));
    if (reading.empty()) {
        std::fputs(options.help().c_str(), stderr);
        return 2;
    }
    endWithInput();
    return readOne(context, readSpec(reading));
}
