#pragma once
// What a command costs, in a process of its own.
#include <fmt/format.h>
#include <cstdio>

#include "support/places.h"
#include "support/run_program.h"

namespace skivet::test {

struct Cost {
    int code = -1;
    long megabytes = 0;
    std::string said;
};
/// skivet-cli with these words.
inline Cost cost_of(const std::string& words) {
    const auto ran =
        run_program({"sh", "-c", fmt::format("{0}/skivet_hostile run 0 0 {0}/skivet-cli {1} 2>&1", skivet::test::programs_folder, words)});
    Cost out;
    const auto at = ran.output.rfind("exit ");
    if (at == std::string::npos) return {-1, 0, ran.output};
    std::sscanf(ran.output.c_str() + at, "exit %d peak %ld MB", &out.code, &out.megabytes);
    out.said = ran.output.substr(0, at);
    return out;
}

inline constexpr long own_megabytes = 40;  // the program itself, with its libraries

}  // namespace skivet::test
