#pragma once

#include <sys/types.h>
#include <string>
#include <utility>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// The simulator in a process of its own (`ombrek-spice`), which stands beside the program. It is started in
/// an empty folder with an empty environment, and confines itself. It may die: the next question starts
/// another. Used from one thread at a time.
class SimulatorProcess {
 public:
    SimulatorProcess() = default;
    ~SimulatorProcess();
    SimulatorProcess(const SimulatorProcess&) = delete;
    SimulatorProcess& operator=(const SimulatorProcess&) = delete;

    /// @return a Problem when the program, the library or its confinement is not to be had
    Result<void> start();
    bool running() const { return pid_ > 0; }
    /// Send lines and wait for one. @return a Problem when it died or gave no answer in 20 s
    Result<std::string> ask(const std::string& text);
    /// As many lines "NAME VALUE" as `count` says.
    Result<std::vector<std::pair<std::string, double>>> values(const std::string& count);

 private:
    Result<void> spawn(const std::string& program);
    Result<std::string> line();
    tl::unexpected<Problem> died();
    void end();

    pid_t pid_ = 0;
    int in_ = -1;  ///< both ways
    int asked_ = 0;
    std::string heard_;
};

}  // namespace ombrek
