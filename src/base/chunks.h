#pragma once
// Work over many small things on all cores.
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <algorithm>
#include <cstddef>
#include <vector>

namespace skivet {

/// Things a chunk: enough that sharing out costs nothing, and whole words of a std::vector<bool>, whose neighbors no two threads may
/// change.
inline constexpr std::size_t chunk_size = 1024;

/// Calls with the first and one behind the last number of each chunk of 0 … count - 1, at the same time; of what that throws one is thrown.
/// Not while a lock is held: a thread that waits for others meanwhile may begin any other work.
template <class Work>
void in_chunks(std::size_t count, const Work& work) {
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, (count + chunk_size - 1) / chunk_size, 1), [&](const auto& chunks) {
        for (auto c = chunks.begin(); c != chunks.end(); ++c) work(c * chunk_size, std::min(count, (c + 1) * chunk_size));
    });
}

/// The same; what each call gives, in the order of the chunks.
template <class Work>
auto from_chunks(std::size_t count, const Work& work) {
    std::vector<decltype(work(std::size_t{}, std::size_t{}))> out((count + chunk_size - 1) / chunk_size);
    in_chunks(count, [&](std::size_t begin, std::size_t end) { out[begin / chunk_size] = work(begin, end); });
    return out;
}

}  // namespace skivet
