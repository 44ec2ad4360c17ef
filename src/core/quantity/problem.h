#pragma once

#include <string>
#include <tl/expected.hpp>

namespace ombrek {

/// What went wrong with something a person or a file gave us.
///
/// `place` says where ("line 12, column 4", "/coils/2/core", "value"; may be empty);
/// `sentence` says what is wrong and what to do, ready to be shown.
struct Problem {
    std::string place;
    std::string sentence;

    /// Place and sentence in one line, as the CLI and the page's note line show it.
    std::string text() const { return place.empty() ? sentence : place + ": " + sentence; }
};

/// What a function gives that reads what people or files say: a value, or the Problem. It is never left
/// unlooked at.
template <class T>
class [[nodiscard]] Result : public tl::expected<T, Problem> {
 public:
    using tl::expected<T, Problem>::expected;
};

/// `return problem("line 3", "...")` from any function that returns a Result.
inline tl::unexpected<Problem> problem(std::string place, std::string sentence) {
    return tl::make_unexpected(Problem{std::move(place), std::move(sentence)});
}

}  // namespace ombrek
