#pragma once
#include <cstdint>
#include <nlohmann/json.hpp>
#include <utility>

namespace skivet {

/// A whole number of a JSON file. Throws json::type_error, as get() does for other kinds, also for a fraction and for what T cannot hold:
/// get() makes whatever the processor does out of these.
template <class T>
[[nodiscard]] T whole_number(const nlohmann::json& j) {
    if (j.is_number_unsigned()) {
        if (const auto v = j.get<std::uint64_t>(); std::in_range<T>(v)) return static_cast<T>(v);
    } else if (j.is_number_integer()) {
        if (const auto v = j.get<std::int64_t>(); std::in_range<T>(v)) return static_cast<T>(v);
    }
    throw nlohmann::json::type_error::create(302, "a whole number within limits is wanted", &j);
}
/// The same of a member, or `otherwise` where there is none.
template <class T>
[[nodiscard]] T whole_number(const nlohmann::json& j, const char* name, T otherwise) {
    const auto at = j.find(name);
    return at == j.end() ? otherwise : whole_number<T>(*at);
}

}  // namespace skivet
