#pragma once
// How far a command is, for whoever sits before a terminal; and files that may be the standard input or output.
#include <condition_variable>
#include <mutex>
#include <thread>

#include "cli/commands.h"

namespace skivet::cli {

/// One line on stderr while it lives: "Looking at pictures  [#####-----]  45 %  1,234 of 2,700  98/s  0:12 left". Nothing where stderr is
/// no terminal, with --quiet, and for work that is done at once. No colors, so there is nothing for NO_COLOR to turn off.
class Shown {
public:
    /// `bytes`: the progress counts bytes.
    Shown(const Context& context, const Progress& progress, std::string what, bool bytes = false);
    ~Shown();
    Shown(const Shown&) = delete;
    Shown& operator=(const Shown&) = delete;

private:
    void run();
    const Context& context_;
    const Progress& progress_;
    std::string what_;
    bool bytes_;
    bool ended_ = false;
    std::mutex mutex_;
    std::condition_variable end_;
    std::thread thread_;
};
/// The line. `seconds`: since the work began.
[[nodiscard]] std::string progress_line(const std::string& what, std::uint64_t done, std::uint64_t total, double seconds, bool bytes);

/// A file's bytes, or those of the standard input for "-". Error `limit` beyond the context's bound.
[[nodiscard]] Result<Bytes> read_input(const Context& context, const std::filesystem::path& file);
/// Writes a file of our own, or to the standard output for "-".
[[nodiscard]] Status write_output(const Context& context, const std::filesystem::path& file, ByteSpan bytes);

/// The name among `names` that a mistyped word was most likely meant to be; empty: none is near.
[[nodiscard]] std::string nearest(std::string_view word, const std::vector<std::string>& names);

}  // namespace skivet::cli
