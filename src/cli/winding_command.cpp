#include <cmath>

#include "cli/commands.h"
#include "cli/print.h"
#include "core/coil/tank.h"
#include "report/picture_file.h"

namespace ombrek {
namespace {

Result<double> quantity(const std::string& name, const std::string& text, Unit unit, double low,
                        double high) {
    const auto value = parseQuantity(text, unit);
    if (!value) return problem(name, value.error().sentence);
    if (!(value->value >= low) || value->value > high) return problem(name, "This is out of range.");
    return value->value;
}

struct TrimmerAnswer {
    double inductance = 0, target = 0;
    TankCapacitance tank;
};

Result<TrimmerAnswer> readQuestion(const TrimmerQuestion& q) {
    TrimmerAnswer out;
    const auto dots = q.trim.find("..");
    if (dots == std::string::npos) return problem("trim", "Write the trimmer's range as 5p..30p.");
    const auto l = quantity("inductance", q.inductance, Unit::henry, 1e-12, 1e3),
               fixed = quantity("fixed", q.fixed, Unit::farad, 0, 1),
               least = quantity("trim", q.trim.substr(0, dots), Unit::farad, 0, 1),
               most = quantity("trim", q.trim.substr(dots + 2), Unit::farad, 0, 1),
               target = quantity("target", q.target, Unit::hertz, 1, 1e12);
    for (const auto* r : {&l, &fixed, &least, &most, &target}) {
        if (!*r) return tl::make_unexpected(r->error());
    }
    if (!(*most > *least)) return problem("trim", "The trimmer's largest value is above its smallest.");
    if (!(*fixed + *least > 0))
        return problem("fixed", "With the trimmer at its least there is no capacitance at all.");
    if (q.turns < 1 || q.turns > 10000) return problem("turns", "A winding has 1 to 10000 turns.");
    out.inductance = *l;
    out.target = *target;
    out.tank = {*fixed, 0, *least, *most};
    return out;
}

}  // namespace

int trimmerCommand(const TrimmerQuestion& question, bool json) {
    const auto read = readQuestion(question);
    if (!read) return refuse(read.error(), json);
    const TrimmerCover cover =
        trimmerCover(read->inductance, question.turns, read->tank, read->target, read->target);
    const bool reached = cover.position >= 0 && cover.position <= 1;
    const int change = turnsChange(cover, question.turns);
    if (!json) {
        std::printf("%s\n", cover.sentence.c_str());
        return 0;
    }
    printJson(
        {{"f_low", cover.lowest},
         {"f_high", cover.highest},
         {"position", reached ? nlohmann::ordered_json(cover.position) : nlohmann::ordered_json(nullptr)},
         {"turns_change", change}});
    return 0;
}

int turnsCommand(const std::string& file, bool json) {
    const auto picture = readPicture(file);
    if (!picture) return refuse(picture.error(), json);
    const auto count = countTurns(*picture);
    if (!count) return refuse(count.error(), json);
    if (json) {
        printJson({{"count", count->count}, {"sure", count->sure}});
    } else {
        std::printf("%s\n", count->sentence.c_str());
    }
    return 0;
}

}  // namespace ombrek
