#include <algorithm>
#include <numeric>
#include <random>
#include <set>

#include "core/plan/order.h"

using namespace ombrek;

namespace {

std::vector<std::string> names(const std::vector<PlanStep>& steps, Order order) {
    std::vector<std::string> out;
    const auto found = planOrder(steps, order).value();
    for (const std::size_t i : found) out.push_back(steps[i].id);
    return out;
}

}  // namespace

TEST_CASE("the manual's order is kept where nothing forbids it") {
    const std::vector<PlanStep> steps{{"a", {}, 9, {}}, {"b", {}, 1, {}}, {"c", {}, 5, {}}};
    CHECK(names(steps, Order::manual) == std::vector<std::string>{"a", "b", "c"});
    CHECK(names(steps, Order::lowestFirst) == std::vector<std::string>{"b", "c", "a"});
}

TEST_CASE("what must come before comes before, in every order") {
    const std::vector<PlanStep> steps{{"case", {"board"}, 0, {}},
                                      {"tall", {}, 20, {}},
                                      {"board", {"tall", "flat"}, 0, {}},
                                      {"flat", {}, 1, {}}};
    CHECK(names(steps, Order::manual) == std::vector<std::string>{"tall", "flat", "board", "case"});
    CHECK(names(steps, Order::lowestFirst) == std::vector<std::string>{"flat", "tall", "board", "case"});
}

TEST_CASE("equals stay in the manual's order") {
    const std::vector<PlanStep> steps{{"r3", {}, 2.5, {}}, {"r1", {}, 2.5, {}}, {"r2", {}, 2.5, {}}};
    CHECK(names(steps, Order::lowestFirst) == std::vector<std::string>{"r3", "r1", "r2"});
}

TEST_CASE("a circle is spelled out") {
    const auto order = planOrder(
        {{"x", {}, 0, {}}, {"a", {"c"}, 0, {}}, {"b", {"a"}, 0, {}}, {"c", {"b"}, 0, {}}}, Order::manual);
    REQUIRE_FALSE(order);
    CHECK(order.error().sentence.find("circle") != std::string::npos);
    for (const char* id : {"a", "b", "c"}) CHECK(order.error().sentence.find(id) != std::string::npos);
    CHECK_FALSE(planOrder({{"self", {"self"}, 0, {}}}, Order::manual));
}

TEST_CASE("an unknown step and a step named twice are told") {
    const auto unknown = planOrder({{"a", {"ghost"}, 0, {}}}, Order::manual);
    REQUIRE_FALSE(unknown);
    CHECK(unknown.error().place == "a");
    CHECK(unknown.error().sentence.find("ghost") != std::string::npos);
    CHECK_FALSE(planOrder({{"a", {}, 0, {}}, {"a", {}, 0, {}}}, Order::manual));
}

TEST_CASE("an empty plan is in order") { CHECK(planOrder({}, Order::lowestFirst).value().empty()); }

TEST_CASE("random plans: every step once, dependencies kept, circles found exactly when there is one") {
    std::mt19937 engine(5);
    int large = 0, different = 0;
    for (int round = 0; round < 300; ++round) {
        const std::size_t n = 1 + engine() % 25;
        std::vector<std::size_t> hidden(n);
        std::iota(hidden.begin(), hidden.end(), 0);
        std::shuffle(hidden.begin(), hidden.end(), engine);
        std::vector<PlanStep> steps(n);
        for (std::size_t i = 0; i < n; ++i) {
            steps[i].id = "s" + std::to_string(i);
            steps[i].height = double(engine() % 5);
            steps[i].kind = int(engine() % 4);
            steps[i].stage = int(engine() % 4);
            steps[i].hardness = double(engine() % 5);
            for (std::size_t j = 0; j < n; ++j) {
                if (hidden[j] < hidden[i] && engine() % 5 == 0)
                    steps[i].after.push_back("s" + std::to_string(j));
                if (hidden[j] > hidden[i] && engine() % 9 == 0)
                    steps[i].before.push_back("s" + std::to_string(j));
            }
        }
        std::set<std::vector<std::size_t>> orders;
        for (const School& school : schools()) {
            const auto found = planOrder(steps, school.order).value();
            orders.insert(found);
            std::vector<std::size_t> at(n, n);
            for (std::size_t k = 0; k < n; ++k) at[found[k]] = k;
            REQUIRE(std::count(at.begin(), at.end(), n) == 0);
            for (std::size_t i = 0; i < n; ++i) {
                for (const auto& id : steps[i].after) REQUIRE(at[std::stoul(id.substr(1))] < at[i]);
                for (const auto& id : steps[i].before) REQUIRE(at[std::stoul(id.substr(1))] > at[i]);
            }
        }
        if (n > 12) different += orders.size() >= 4;
        large += n > 12;
        if (n > 1) {  // tie the last to the first: a circle
            const auto last = std::size_t(std::max_element(hidden.begin(), hidden.end()) - hidden.begin());
            const auto lowest = std::size_t(std::min_element(hidden.begin(), hidden.end()) - hidden.begin());
            steps[lowest].after.push_back(steps[last].id);
            steps[last].after.push_back(steps[lowest].id);
            REQUIRE_FALSE(planOrder(steps, Order::manual));
        }
    }
    CHECK(different > large * 8 / 10);  // the schools are no mere names
}

TEST_CASE("each school has its own key, and what must not be done yet comes later") {
    std::vector<PlanStep> steps{
        {"ic", {}, 8, {}, 9, 2, 3}, {"r", {}, 2, {}, 1, 2, 1}, {"coil", {}, 10, {}, 8, 1, 5}};
    CHECK(names(steps, Order::byKind) == std::vector<std::string>{"r", "coil", "ic"});
    CHECK(names(steps, Order::byStage) == std::vector<std::string>{"coil", "r", "ic"});
    CHECK(names(steps, Order::hardestFirst) == std::vector<std::string>{"coil", "ic", "r"});
    steps.push_back({"volts", {}, 0, {"ic"}, 0, 9, 0});
    for (const School& s : schools()) {
        const auto order = names(steps, s.order);
        CHECK(std::find(order.begin(), order.end(), "volts") < std::find(order.begin(), order.end(), "ic"));
        CHECK(school(s.order).word == s.word);
    }
    CHECK_FALSE(planOrder({{"a", {}, 0, {"ghost"}}}, Order::manual));
    CHECK_FALSE(planOrder({{"a", {"b"}, 0, {"b"}}, {"b", {}, 0, {}}}, Order::manual));
}
