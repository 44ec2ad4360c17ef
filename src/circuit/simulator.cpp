#include "circuit/simulator.h"

#include <dlfcn.h>
#include <locale.h>
#include <ngspice/sharedspice.h>

#include <cctype>
#include <cmath>
#include <cstring>
#include <map>
#include <mutex>

#include "core/quantity/quantity.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

/// The library, loaded once; its own state is one for the program.
class Library {
 public:
    bool load() {
        if (handle_ != nullptr && !gone_) return true;
        handle_ = dlopen("libngspice.so.0", RTLD_NOW | RTLD_LOCAL);
        if (handle_ == nullptr) return false;
        gone_ = false;
        init_ = reinterpret_cast<decltype(init_)>(dlsym(handle_, "ngSpice_Init"));
        command_ = reinterpret_cast<decltype(command_)>(dlsym(handle_, "ngSpice_Command"));
        circuit_ = reinterpret_cast<decltype(circuit_)>(dlsym(handle_, "ngSpice_Circ"));
        vectors_ = reinterpret_cast<decltype(vectors_)>(dlsym(handle_, "ngSpice_AllVecs"));
        plot_ = reinterpret_cast<decltype(plot_)>(dlsym(handle_, "ngSpice_CurPlot"));
        vector_ = reinterpret_cast<decltype(vector_)>(dlsym(handle_, "ngGet_Vec_Info"));
        if (!init_ || !command_ || !circuit_ || !vectors_ || !plot_ || !vector_) return false;
        init_(hear, nothing, leave, nullptr, nullptr, nullptr, this);
        return true;
    }

    Result<void> read(const Netlist& netlist) {
        said_.clear();
        auto lines = linesOf(netlist);
        std::vector<char*> text;
        for (std::string& line : lines) text.push_back(line.data());
        text.push_back(nullptr);
        if (circuit_(text.data()) != 0 || gone_) return failed();
        return {};
    }

    Result<OperatingPoint> solve() {
        said_.clear();
        command("op");
        const char* plot = gone_ ? nullptr : plot_();
        if (plot == nullptr || std::strncmp(plot, "op", 2) != 0) return failed();
        OperatingPoint out;
        char** names = vectors_(const_cast<char*>(plot));
        for (; names != nullptr && *names != nullptr; ++names) take(plot, *names, out);
        command("destroy all");
        if (out.volts.empty()) return failed();
        return out;
    }

    void alter(const std::string& resistor, double ohms) {
        command(("alter " + lowered(resistor) + " = " + plainNumber(ohms)).c_str());
    }

    void forget() {
        if (!gone_) command("remcirc");
    }

    bool gone() const { return gone_; }

 private:
    void command(const char* words) {
        std::string copy(words);
        command_(copy.data());
    }

    void take(const std::string& plot, const std::string& name, OperatingPoint& out) {
        // Nodes that a fault was made with are nobody's to read.
        if (name.starts_with("ombrek_")) return;
        std::string whole = plot + "." + name;
        const pvector_info info = vector_(whole.data());
        if (info == nullptr || info->v_length < 1 || info->v_realdata == nullptr) return;
        const double value = info->v_realdata[0];
        if (!std::isfinite(value)) return;
        if (const auto branch = name.find("#branch"); branch != std::string::npos) {
            out.currents[name.substr(0, branch)] = value;
        } else if ((name[0] == 'v' || name[0] == 'V') && name.size() > 3 && name[1] == '(') {
            out.volts[name.substr(2, name.size() - 3)] = value;  // a node that is a number
        } else {
            out.volts[name] = value;
        }
    }

    tl::unexpected<Problem> failed() const {
        return problem("", said_.empty() ? "This circuit has no operating point that the simulator finds."
                                         : "The simulator finds no operating point: " + said_);
    }

    static int hear(char* line, int, void* self) {
        std::string text(line);
        const auto begin = text.find(' ');
        text = begin == std::string::npos ? text : text.substr(begin + 1);
        auto& said = static_cast<Library*>(self)->said_;
        if (said.size() < 300 && lowered(text).find("error") != std::string::npos)
            said += (said.empty() ? "" : " ") + text;
        return 0;
    }
    static int nothing(char*, int, void*) { return 0; }
    static int leave(int, NG_BOOL, NG_BOOL, int, void* self) {
        static_cast<Library*>(self)->gone_ = true;
        return 0;
    }

    void* handle_ = nullptr;
    bool gone_ = false;
    std::string said_;
    int (*init_)(SendChar*, SendStat*, ControlledExit*, SendData*, SendInitData*, BGThreadRunning*,
                 void*) = nullptr;
    int (*command_)(char*) = nullptr;
    int (*circuit_)(char**) = nullptr;
    char** (*vectors_)(char*) = nullptr;
    char* (*plot_)() = nullptr;
    pvector_info (*vector_)(char*) = nullptr;
};

}  // namespace

double OperatingPoint::between(const std::string& node, const std::string& other) const {
    const auto at = [&](const std::string& name) {
        if (name == "0") return 0.0;
        const auto hit = volts.find(name);
        return hit == volts.end() ? NAN : hit->second;
    };
    return at(node) - at(other);
}

namespace {

/// The simulator prints numbers for itself and reads them again: with a comma in them it breaks its own
/// memory. While it works, this thread writes numbers with a point.
class WithPoint {
 public:
    WithPoint() : point_(newlocale(LC_NUMERIC_MASK, "C", duplocale(uselocale(nullptr)))) {
        if (point_ != nullptr) before_ = uselocale(point_);
    }
    ~WithPoint() {
        if (point_ == nullptr) return;
        uselocale(before_);
        freelocale(point_);
    }
    WithPoint(const WithPoint&) = delete;
    WithPoint& operator=(const WithPoint&) = delete;

 private:
    locale_t point_, before_ = nullptr;
};

Library& library() {
    static Library one;
    return one;
}

std::mutex& turn() {
    static std::mutex one;
    return one;
}

tl::unexpected<Problem> notInstalled() {
    return problem("", "The simulator (libngspice) is not installed: without it a circuit is not reckoned.");
}

}  // namespace

Result<OperatingPoint> operatingPoint(const Netlist& netlist) {
    Result<OperatingPoint> out;
    const auto read = operatingPoints(netlist, {{}}, [&](std::size_t, const Result<OperatingPoint>& point) {
        out = point;
        return true;
    });
    if (!read) return tl::make_unexpected(read.error());
    return out;
}

Result<void> operatingPoints(const Netlist& netlist, const std::vector<std::vector<Alteration>>& sets,
                             const std::function<bool(std::size_t, const Result<OperatingPoint>&)>& take) {
    const std::lock_guard guard(turn());
    const WithPoint pointed;
    Library& spice = library();
    if (!spice.load()) return notInstalled();
    if (const auto read = spice.read(netlist); !read) return read;
    std::map<std::string, double> stands;
    for (const CircuitElement& e : netlist.elements) {
        if (e.kind() == 'r') stands.emplace(lowered(e.name), spiceNumber(e.word()));
    }
    for (std::size_t i = 0; i < sets.size(); ++i) {
        if (spice.gone()) {
            // One of them made the library give up: the next begin anew.
            if (!spice.load()) return notInstalled();
            if (const auto read = spice.read(netlist); !read) return read;
        }
        for (const Alteration& a : sets[i]) spice.alter(a.resistor, a.ohms);
        const auto point = spice.solve();
        for (const Alteration& a : sets[i]) {
            const auto stood = stands.find(lowered(a.resistor));
            if (stood != stands.end() && !spice.gone()) spice.alter(a.resistor, stood->second);
        }
        if (!take(i, point)) break;
    }
    spice.forget();
    return {};
}

bool simulatorThere() {
    const std::lock_guard guard(turn());
    const WithPoint pointed;
    return library().load();
}

}  // namespace ombrek
