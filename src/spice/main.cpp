// The simulator, in a process of its own. It reads circuits on its standard input and answers on its standard
// output; it can open nothing for writing, start nothing and talk to nobody. Not for use by hand.
//
//     C 5        a circuit of five lines follows        →  ok  |  no WHY
//     S 2        two lines "r3 4700 1000" follow: a resistor, its value now, its value after
//                                                       →  p N, N lines "NAME VALUE"  |  no WHY
//
// See docs/decisions/0032-what-is-trusted.md.

#include <dlfcn.h>
#include <ngspice/sharedspice.h>
#include <pwd.h>
#include <seccomp.h>
#include <sys/resource.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <iostream>
#include <string>
#include <vector>

/// The library asks who its user is to look for a file of commands in that home, and falls over when the
/// system does not know the user. It is told of nobody, whose home is gone. (A function of the program goes
/// before the C library's.)
extern "C" passwd* getpwuid(uid_t) {
    static char name[] = "ombrek", empty[] = "", home[] = "/nonexistent";
    static passwd nobody{};
    nobody.pw_name = name;
    nobody.pw_passwd = nobody.pw_gecos = nobody.pw_shell = empty;
    nobody.pw_dir = home;
    return &nobody;
}

namespace {

constexpr std::size_t kMostLines = 60000;
constexpr rlim_t kMemory = rlim_t(2) << 30, kSeconds = 900, kFiles = 32;

std::string said;
bool gone = false;

int hear(char* line, int, void*) {
    std::string text(line);
    const auto begin = text.find(' ');
    if (begin != std::string::npos) text = text.substr(begin + 1);
    std::string small;
    for (const char c : text) small += char(std::tolower(static_cast<unsigned char>(c)));
    if (said.size() < 300 && small.find("error") != std::string::npos)
        said += (said.empty() ? "" : " ") + text;
    return 0;
}
int nothing(char*, int, void*) { return 0; }
int leave(int, NG_BOOL, NG_BOOL, int, void*) {
    gone = true;
    return 0;
}

struct Library {
    decltype(&ngSpice_Init) init;
    decltype(&ngSpice_Command) command;
    decltype(&ngSpice_Circ) circuit;
    decltype(&ngSpice_AllVecs) vectors;
    decltype(&ngSpice_CurPlot) plot;
    decltype(&ngGet_Vec_Info) vector;
} spice;

template <class F>
bool find(void* handle, const char* name, F& function) {
    function = reinterpret_cast<F>(dlsym(handle, name));
    return function != nullptr;
}

bool load() {
    void* const handle = dlopen("libngspice.so.0", RTLD_NOW | RTLD_LOCAL);
    if (handle == nullptr || !find(handle, "ngSpice_Init", spice.init) ||
        !find(handle, "ngSpice_Command", spice.command) || !find(handle, "ngSpice_Circ", spice.circuit) ||
        !find(handle, "ngSpice_AllVecs", spice.vectors) || !find(handle, "ngSpice_CurPlot", spice.plot) ||
        !find(handle, "ngGet_Vec_Info", spice.vector))
        return false;
    spice.init(hear, nothing, leave, nullptr, nullptr, nullptr, nullptr);
    return true;
}

void limit(int what, rlim_t most) {
    const rlimit value{most, most};
    setrlimit(__rlimit_resource_t(what), &value);
}

/// What a solver needs and no more: memory, time, the two pipes. Whatever else is asked for is refused.
bool confine() {
    limit(RLIMIT_CORE, 0);
    limit(RLIMIT_FSIZE, 0);
    limit(RLIMIT_CPU, kSeconds);
    limit(RLIMIT_NOFILE, kFiles);
#ifndef __SANITIZE_ADDRESS__
    limit(RLIMIT_AS, kMemory);
#endif
    static const int kAllowed[] = {
        SCMP_SYS(read),          SCMP_SYS(write),        SCMP_SYS(writev),       SCMP_SYS(lseek),
        SCMP_SYS(close),         SCMP_SYS(fstat),        SCMP_SYS(newfstatat),   SCMP_SYS(mmap),
        SCMP_SYS(munmap),        SCMP_SYS(mremap),       SCMP_SYS(mprotect),     SCMP_SYS(madvise),
        SCMP_SYS(brk),           SCMP_SYS(futex),        SCMP_SYS(rt_sigaction), SCMP_SYS(rt_sigprocmask),
        SCMP_SYS(rt_sigreturn),  SCMP_SYS(sigaltstack),  SCMP_SYS(getrusage),    SCMP_SYS(times),
        SCMP_SYS(clock_gettime), SCMP_SYS(gettimeofday), SCMP_SYS(time),         SCMP_SYS(getpid),
        SCMP_SYS(gettid),        SCMP_SYS(tgkill),       SCMP_SYS(sysinfo),      SCMP_SYS(prlimit64),
        SCMP_SYS(sched_yield),   SCMP_SYS(getrandom),    SCMP_SYS(exit),         SCMP_SYS(exit_group)};
    const scmp_filter_ctx filter = seccomp_init(SCMP_ACT_ERRNO(EPERM));
    if (filter == nullptr) return false;
    bool done = true;
    for (const int call : kAllowed) done = done && seccomp_rule_add(filter, SCMP_ACT_ALLOW, call, 0) == 0;
    done = done && seccomp_load(filter) == 0;
    seccomp_release(filter);
    return done;
}

/// Letters of a line that Ombrek writes. A command reader's signs are not among them.
bool plain(const std::string& line) {
    return line.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789 ._+-*/^()=,<>?:!&|") ==
           std::string::npos;
}

bool isAlias(const std::string& word) {
    return word.size() > 1 && word[0] == 'r' && word.find_first_not_of("0123456789", 1) == std::string::npos;
}

std::string written(double value) {
    std::array<char, 40> buffer;
    return {buffer.data(), std::to_chars(buffer.data(), buffer.data() + buffer.size(), value).ptr};
}

/// A number with nothing behind it, or nothing.
bool readNumber(const std::string& text, double& value) {
    const char* const end = text.data() + text.size();
    const auto [at, error] = std::from_chars(text.data(), end, value);
    return error == std::errc{} && at == end && std::isfinite(value);
}

void command(std::string words) { spice.command(words.data()); }

void no() {
    std::string why;
    for (const char c : said.empty() ? std::string("there is none") : said)
        why += std::isprint(static_cast<unsigned char>(c)) ? c : ' ';
    std::cout << "no " << why << std::endl;
}

std::vector<std::string> lines(std::size_t count) {
    std::vector<std::string> out(std::min(count, kMostLines));
    for (std::string& line : out) std::getline(std::cin, line);
    return out;
}

void circuit(std::size_t count) {
    auto text = lines(count);
    said.clear();
    command("remcirc");
    if (!std::all_of(text.begin(), text.end(), plain)) {
        said = "a sign that no circuit has";
        return no();
    }
    std::vector<char*> pointers;
    for (std::string& line : text) pointers.push_back(line.data());
    pointers.push_back(nullptr);
    if (spice.circuit(pointers.data()) != 0 || gone) return no();
    std::cout << "ok" << std::endl;
}

struct Alteration {
    std::string resistor;
    double now = 0, after = 0;
};

void alter(const std::string& resistor, double ohms) { command("alter " + resistor + " = " + written(ohms)); }

std::vector<std::pair<std::string, double>> point() {
    std::vector<std::pair<std::string, double>> out;
    command("op");
    const char* plot = gone ? nullptr : spice.plot();
    if (plot == nullptr || std::strncmp(plot, "op", 2) != 0) return out;
    const std::string of(plot);
    char** names = spice.vectors(const_cast<char*>(plot));
    for (; names != nullptr && *names != nullptr; ++names) {
        std::string whole = of + "." + *names;
        const pvector_info info = spice.vector(whole.data());
        if (info == nullptr || info->v_length < 1 || info->v_realdata == nullptr) continue;
        if (std::isfinite(info->v_realdata[0])) out.emplace_back(*names, info->v_realdata[0]);
    }
    command("destroy all");
    return out;
}

void solve(std::size_t count) {
    std::vector<Alteration> set;
    for (const std::string& line : lines(count)) {
        const auto first = line.find(' '), second = line.find(' ', first + 1);
        Alteration a{line.substr(0, first), 0, 0};
        if (second == std::string::npos || !isAlias(a.resistor) ||
            !readNumber(line.substr(first + 1, second - first - 1), a.now) ||
            !readNumber(line.substr(second + 1), a.after))
            continue;
        set.push_back(std::move(a));
    }
    said.clear();
    for (const Alteration& a : set) alter(a.resistor, a.now);
    const auto values = point();
    for (const Alteration& a : set) {
        if (!gone) alter(a.resistor, a.after);
    }
    if (values.empty()) return no();
    std::cout << "p " << values.size() << '\n';
    for (const auto& [name, value] : values) std::cout << name << ' ' << written(value) << '\n';
    std::cout.flush();
}

}  // namespace

int main() {
    close_range(3, ~0U, 0);
    // The folder that it was started in is its home, empty and gone: nothing can be found or put there.
    if (const char* home = std::getenv("HOME")) rmdir(home);
    if (!load()) {
        std::cout << "missing" << std::endl;
        return 1;
    }
    if (!confine()) {
        std::cout << "open" << std::endl;
        return 1;
    }
    std::cout << "ready" << std::endl;
    for (std::string line; !gone && std::getline(std::cin, line);) {
        const std::size_t count = line.size() > 2 ? std::strtoul(line.c_str() + 2, nullptr, 10) : 0;
        if (line.starts_with("C ")) circuit(count);
        if (line.starts_with("S ")) solve(count);
    }
    _exit(0);
}
