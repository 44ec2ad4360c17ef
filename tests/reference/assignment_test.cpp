#include "core/parts/assignment.h"

#include <glpk.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace ombrek;

namespace {

/// The same problem as a linear programme: every row and column used at most once.
double byLinearProgramme(const CostTable& costs) {
    glp_term_out(GLP_OFF);
    glp_prob* lp = glp_create_prob();
    glp_set_obj_dir(lp, GLP_MIN);
    glp_add_rows(lp, int(costs.rows + costs.columns));
    for (int i = 1; i <= int(costs.rows + costs.columns); ++i) glp_set_row_bnds(lp, i, GLP_UP, 0, 1);
    for (std::size_t r = 0; r < costs.rows; ++r) {
        for (std::size_t c = 0; c < costs.columns; ++c) {
            if (std::isinf(costs.at(r, c))) continue;
            const int column = glp_add_cols(lp, 1);
            glp_set_col_bnds(lp, column, GLP_LO, 0, 0);
            glp_set_obj_coef(lp, column, costs.at(r, c));
            const int rows[] = {0, int(r + 1), int(costs.rows + c + 1)};
            const double ones[] = {0, 1, 1};
            glp_set_mat_col(lp, column, 2, rows, ones);
        }
    }
    glp_smcp options;
    glp_init_smcp(&options);
    options.msg_lev = GLP_MSG_OFF;
    options.presolve = GLP_ON;
    REQUIRE(glp_simplex(lp, &options) == 0);
    const double out = glp_get_obj_val(lp);
    glp_delete_prob(lp);
    return out;
}

}  // namespace

TEST_CASE("large assignments agree with a linear programme solver", "[reference]") {
    // Source: GLPK's simplex method; the vertices of the assignment polytope are whole numbers (Birkhoff).
    std::mt19937 engine(17);
    std::uniform_real_distribution<double> any(-15, 3);
    for (const auto& [rows, columns] : {std::pair{80, 80}, {120, 90}, {60, 140}, {200, 200}}) {
        CostTable costs{std::size_t(rows), std::size_t(columns)};
        for (double& cost : costs.cost)
            if (engine() % 6 == 0) cost = any(engine);
        INFO(rows << " by " << columns);
        CHECK(cheapestAssignment(costs).cost == Approx(byLinearProgramme(costs)).epsilon(1e-9));
    }
}
