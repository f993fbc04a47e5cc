#pragma once
#include <ostream>
#include <string>

#include "base/chunks.h"

namespace skivet::cli {

/// Writes `line(0)` … `line(count - 1)`, which are made on all cores, in their order; ends early when nobody reads on.
template <class Line>
void write_lines(std::ostream& out, std::size_t count, const Line& line) {
    constexpr std::size_t at_once = 16 * chunk_size;  // a million lines would take more room than what they tell of
    for (std::size_t from = 0; from < count && out; from += at_once)
        for (const auto& lines : from_chunks(std::min(at_once, count - from), [&](std::size_t begin, std::size_t end) {
                 std::string made;
                 for (auto i = from + begin; i < from + end; ++i) made += line(i);
                 return made;
             }))
            out << lines;
}

}  // namespace skivet::cli
