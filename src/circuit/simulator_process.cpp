#include "circuit/simulator_process.h"

#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <charconv>
#include <chrono>
#include <csignal>
#include <cstdlib>
#include <filesystem>

namespace ombrek {
namespace {

namespace fs = std::filesystem;

constexpr int kAnswerIn = 20000;  ///< [ms]
constexpr int kOften = 2000;      ///< questions, then a fresh one: it keeps memory of what it solved
constexpr std::size_t kMostValues = 200000;
constexpr std::size_t kLongest = 1 << 24;  ///< bytes of one answer

/// Beside the program that runs: as installed, or in the neighbouring folder of a build.
std::string programPath() {
    std::error_code failed;
    const fs::path here = fs::read_symlink("/proc/self/exe", failed).parent_path();
    for (const fs::path& candidate : {here / "ombrek-spice", here.parent_path() / "src" / "ombrek-spice",
                                      here.parent_path().parent_path() / "src" / "ombrek-spice"}) {
        if (access(candidate.c_str(), X_OK) == 0) return candidate.string();
    }
    return "";
}

tl::unexpected<Problem> cannot(const std::string& why) {
    return problem("",
                   "The simulator cannot be started (" + why + "): without it a circuit is not reckoned.");
}

}  // namespace

SimulatorProcess::~SimulatorProcess() { end(); }

void SimulatorProcess::end() {
    if (in_ >= 0) close(in_);
    in_ = -1;
    heard_.clear();
    if (pid_ > 0) {
        kill(pid_, SIGKILL);
        while (waitpid(pid_, nullptr, 0) < 0 && errno == EINTR) continue;
    }
    pid_ = 0;
}

Result<void> SimulatorProcess::start() {
    if (running() && asked_ < kOften) return {};
    end();
    const std::string program = programPath();
    if (program.empty()) return cannot("ombrek-spice is not beside this program");
    if (const auto spawned = spawn(program); !spawned) return spawned;
    const auto word = line();
    const std::string said = word.value_or("");
    if (said == "ready") return {};
    end();
    if (said == "missing")
        return problem("",
                       "The simulator (libngspice) is not installed: without it a circuit is not reckoned.");
    return cannot(said == "open" ? "this system cannot confine it" : "it ended");
}

Result<void> SimulatorProcess::spawn(const std::string& program) {
    std::error_code failed;
    std::string folder = (fs::temp_directory_path(failed) / "ombrek-spice-XXXXXX").string();
    if (failed || mkdtemp(folder.data()) == nullptr) return cannot("no folder of its own can be made");
    std::array<int, 2> pair;
    if (socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, pair.data()) != 0) {
        rmdir(folder.c_str());
        return cannot("no pipe can be made");
    }
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_adddup2(&actions, pair[1], 0);
    posix_spawn_file_actions_adddup2(&actions, pair[1], 1);
    posix_spawn_file_actions_addopen(&actions, 2, "/dev/null", O_WRONLY, 0);
    posix_spawn_file_actions_addchdir_np(&actions, folder.c_str());
    posix_spawnattr_t attributes;
    posix_spawnattr_init(&attributes);
    sigset_t none;
    sigemptyset(&none);
    posix_spawnattr_setsigmask(&attributes, &none);
    posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETSIGMASK);
    std::string home = "HOME=" + folder, locale = "LC_ALL=C", threads = "OMP_NUM_THREADS=1";
    std::string name = program;
    char* arguments[] = {name.data(), nullptr};
    char* environment[] = {home.data(), locale.data(), threads.data(), nullptr};
    const int result = posix_spawn(&pid_, program.c_str(), &actions, &attributes, arguments, environment);
    posix_spawn_file_actions_destroy(&actions);
    posix_spawnattr_destroy(&attributes);
    close(pair[1]);
    in_ = pair[0];
    asked_ = 0;
    if (result == 0) return {};
    pid_ = 0;
    rmdir(folder.c_str());
    end();
    return cannot("it did not start");
}

tl::unexpected<Problem> SimulatorProcess::died() {
    end();
    return problem("", "The simulator gave up on this circuit, and was begun anew.");
}

Result<std::string> SimulatorProcess::line() {
    const auto until = std::chrono::steady_clock::now() + std::chrono::milliseconds(kAnswerIn);
    for (;;) {
        if (const auto end = heard_.find('\n'); end != std::string::npos) {
            std::string out = heard_.substr(0, end);
            heard_.erase(0, end + 1);
            return out;
        }
        const auto left =
            std::chrono::duration_cast<std::chrono::milliseconds>(until - std::chrono::steady_clock::now());
        pollfd waits{in_, POLLIN, 0};
        const int ready = left.count() > 0 ? poll(&waits, 1, int(left.count())) : 0;
        if (ready < 0 && errno == EINTR) continue;
        if (ready <= 0 || heard_.size() > kLongest) return died();
        std::array<char, 65536> buffer;
        const ssize_t got = read(in_, buffer.data(), buffer.size());
        if (got < 0 && errno == EINTR) continue;
        if (got <= 0) return died();
        heard_.append(buffer.data(), std::size_t(got));
    }
}

Result<std::string> SimulatorProcess::ask(const std::string& text) {
    if (!running()) return died();
    ++asked_;
    for (std::size_t sent = 0; sent < text.size();) {
        const ssize_t did = send(in_, text.data() + sent, text.size() - sent, MSG_NOSIGNAL);
        if (did < 0 && errno == EINTR) continue;
        if (did <= 0) return died();
        sent += std::size_t(did);
    }
    return line();
}

Result<std::vector<std::pair<std::string, double>>> SimulatorProcess::values(const std::string& count) {
    std::size_t many = 0;
    std::from_chars(count.data(), count.data() + count.size(), many);
    std::vector<std::pair<std::string, double>> out;
    for (std::size_t i = 0; i < std::min(many, kMostValues); ++i) {
        const auto row = line();
        if (!row) return tl::make_unexpected(row.error());
        const auto blank = row->find(' ');
        double value = 0;
        if (blank == std::string::npos ||
            std::from_chars(row->data() + blank + 1, row->data() + row->size(), value).ec != std::errc{})
            continue;
        out.emplace_back(row->substr(0, blank), value);
    }
    return out;
}

}  // namespace ombrek
