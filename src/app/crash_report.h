#pragma once
#include <filesystem>
#include <optional>
#include <string>

namespace skivet::app {

/// From now on the end of the program by a fault (a signal, an exception nobody caught) leaves `crash.txt` in `folder`: when, which
/// version, what happened, and where (a backtrace). The fault goes its way afterwards. Only what a signal handler may do is done then
/// (POSIX.1-2017, 2.4.3); the folder is made now.
void report_crashes(const std::filesystem::path& folder, const std::string& version);

/// The report that an earlier run left, once: it is moved aside under the time it was written at; of those the last five are kept.
[[nodiscard]] std::optional<std::filesystem::path> take_crash_report(const std::filesystem::path& folder);

}  // namespace skivet::app
