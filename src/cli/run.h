#pragma once
#include <functional>
#include <iosfwd>
#include <mutex>
#include <string>
#include <vector>

#include "base/progress.h"

namespace skivet::cli {

/// What a signal ends, and how. A command that only computes holds nothing outside its process, so it may be ended anywhere; one that
/// writes a game's files must first put the old bytes back. The two sides agree on this object.
class Interruption {
public:
    CancelToken cancel;
    /// Before game files are written. False once canceled: then nothing may begin.
    [[nodiscard]] bool begin_writing();
    void end_writing();
    /// Calls `end` unless something is being written; nothing begins meanwhile. Returns false when it is.
    template <class End>
    bool when_idle(End end) {
        const std::lock_guard lock(mutex_);
        if (writing_ > 0) return false;
        end();
        return true;
    }

private:
    std::mutex mutex_;
    int writing_ = 0;
};

/// What surrounds a call.
struct Terminal {
    bool err = false;                        ///< stderr is a terminal: progress is shown there
    std::istream* in = nullptr;              ///< standard input; null: none
    std::function<bool()> reader_gone = {};  ///< whether nobody reads the standard output any more; empty: not known
};

/// skivet-cli without its process. `interruption` may be null. Returns the exit code; errors of `out` are errors of the call.
int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err, Interruption* interruption = nullptr,
        const Terminal& terminal = {});

}  // namespace skivet::cli
