#pragma once

#include <cstddef>
#include <string_view>

namespace ombrek {

/// Whether `value` is one of its enum's names: the compilers write a value that is none as a cast, "(E)7".
template <auto value>
constexpr bool isEnumerator() {
    std::string_view name = __PRETTY_FUNCTION__;
    name.remove_prefix(name.find("value = ") + 8);
    const std::size_t cast = name.rfind(')');
    return cast == std::string_view::npos || name[cast + 1] == ':';  // "(unnamed namespace)::E::name"
}

/// How many names an enum has that counts from 0. A table that mirrors it by position says so:
///
///     static_assert(std::size(words) == enumerators<Delivery>());
template <class E, std::size_t from = 0>
constexpr std::size_t enumerators() {
    if constexpr (isEnumerator<E(from)>())
        return enumerators<E, from + 1>();
    else
        return from;
}

}  // namespace ombrek
