#include "book/inside.h"

// What is done at Winding: turns, ends, tails, shape.

namespace ombrek {
namespace {

std::string keyOf(const std::string& coil, const std::string& winding) { return coil + "/" + winding; }

}  // namespace

Result<void> Book::countTurn(const std::string& coil, const std::vector<std::string>& windings, int by) {
    return act(by > 0 ? "turn on " + coil : "turn off " + coil, [&] {
        for (const std::string& winding : windings)
            inside_->run(
                "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, max(0, ?), 0) "
                "ON CONFLICT(build, name) DO UPDATE SET turns=max(0, turns+?)",
                inside_->chosen(), keyOf(coil, winding), by, by);
        inside_->changed(Subject::coil(coil), by > 0 ? "wound" : "unwound");
    });
}

Result<void> Book::finishWinding(const std::string& coil, const std::vector<std::string>& windings,
                                 bool done) {
    return act((done ? "end of " : "return to ") + coil + " " + windings.front(), [&] {
        for (const std::string& winding : windings)
            inside_->run(
                "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, 0, ?) "
                "ON CONFLICT(build, name) DO UPDATE SET done=excluded.done",
                inside_->chosen(), keyOf(coil, winding), done ? 1 : 0);
        if (done) return;
        // Opened again: what was proved of its tails and read of it holds no more.
        inside_->changed(Subject::coil(coil), "opened again");
        inside_->run("DELETE FROM coil_check WHERE build=? AND name LIKE ? AND name<>?", inside_->chosen(),
                     coil + "/%", coil + "/cut");
    });
}

Result<void> Book::setTurns(const std::string& coil, const std::vector<std::string>& windings, int turns) {
    return act("count of " + coil, [&] {
        for (const std::string& winding : windings)
            inside_->run(
                "INSERT INTO winding(build, name, turns, done) VALUES(?, ?, max(0, ?), 0) "
                "ON CONFLICT(build, name) DO UPDATE SET turns=excluded.turns",
                inside_->chosen(), keyOf(coil, winding), turns);
        inside_->changed(Subject::coil(coil), "counted again");
    });
}

Result<void> Book::bent(const std::string& coil, double factor) {
    return act("squeeze or spread of " + coil, [&] {
        inside_->changed(Subject::coil(coil), "squeezed or spread");
        inside_->run(
            "INSERT INTO practice(build, subject, value) VALUES(?,?,?) "
            "ON CONFLICT(build, subject) DO UPDATE SET value=value*excluded.value",
            inside_->chosen(), Subject::coil(coil).text(), factor);
    });
}

Result<void> Book::checkCoil(const std::string& name, const std::string& how) {
    return act("check of " + name.substr(0, name.find('/')), [&] {
        inside_->run("DELETE FROM coil_check WHERE build=? AND name=?", inside_->chosen(), name);
        if (!how.empty()) inside_->put(record::coilCheck, {name, how});
    });
}

}  // namespace ombrek
