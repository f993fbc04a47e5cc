#pragma once
// A program of its own for what must not take this process with it: given its input, heard to its end, ended when it goes beyond its
// limits.
#include <chrono>
#include <span>
#include <string>
#include <vector>

#include "base/bytes.h"
#include "base/progress.h"

namespace skivet {

struct ChildLimits {
    std::chrono::milliseconds time{20'000};  ///< of the clock
    std::uint64_t output = 2ull << 30;       ///< bytes
};

struct ChildEnd {
    enum class Stopped : std::uint8_t { no, time, output } stopped = Stopped::no;  ///< it was ended because it went beyond a limit
    bool by_itself = false;                                                        ///< it ended, and was not ended by a signal
    int code = 0;                                                                  ///< its exit code, or the signal that ended it
    Bytes output;                                                                  ///< what it wrote to its standard output
    std::string said;  ///< the first line of its standard error, as far as it can be shown
};

/// Runs words[0] (a path, or a name that is looked for in PATH) with the other words, in a group of its own. It gets `input`, one span
/// after the other, on its standard input. Errors: `io` where it cannot be started; `canceled`.
[[nodiscard]] Result<ChildEnd> run_child(const std::vector<std::string>& words, std::span<const ByteSpan> input, const ChildLimits& limits,
                                         const CancelToken& cancel = {});

}  // namespace skivet
