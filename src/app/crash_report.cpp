#include "app/crash_report.h"

#include <execinfo.h>
#include <fcntl.h>
#include <fmt/chrono.h>
#include <sys/stat.h>
#include <unistd.h>
#include <algorithm>
#include <array>
#include <csignal>
#include <cstring>
#include <exception>
#include <vector>

#include "base/own_folders.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

constexpr std::size_t most_kept = 5;
constexpr int most_frames = 64;

// What the handler needs, made before: it may neither allocate nor lock.
struct Prepared {
    std::array<char, 4096> path{};
    std::array<char, 512> head{};
    std::array<char, 1024> thrown{};
    std::array<char, 1 << 16> stack{};
};
Prepared prepared;  // NOLINT(cppcoreguidelines-avoid-non-const-global-variables): a signal handler takes no argument

void put(int file, const char* text) {
    const auto ignored = ::write(file, text, std::strlen(text));
    (void)ignored;
}

/// Decimal digits, without a library.
void put_number(int file, long number) {
    std::array<char, 24> digits{};
    auto at = digits.size() - 1;
    do digits[--at] = char('0' + number % 10);
    while ((number /= 10) > 0);
    put(file, digits.data() + at);
}

const char* meaning_of(int signal) {
    switch (signal) {
        case SIGSEGV: return "memory that is not there was used (SIGSEGV)";
        case SIGBUS: return "a file became shorter while it was read, or memory failed (SIGBUS)";
        case SIGFPE: return "a division by zero (SIGFPE)";
        case SIGILL: return "an instruction this processor does not have (SIGILL)";
        default: return "the program gave up (SIGABRT)";
    }
}

void on_fault(int signal) {
    if (const int file = ::open(prepared.path.data(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0600); file >= 0) {
        put(file, prepared.head.data());
        put(file, "When: ");
        put_number(file, long(::time(nullptr)));
        put(file, " seconds after 1970-01-01 UTC\nWhat: ");
        put(file, meaning_of(signal));
        if (prepared.thrown[0] != 0) put(file, "\nThrown: "), put(file, prepared.thrown.data());
        put(file, "\n\nWhere:\n");
        std::array<void*, most_frames> frames{};
        ::backtrace_symbols_fd(frames.data(), ::backtrace(frames.data(), most_frames), file);
        ::close(file);
    }
    // As it would have ended; the handler was taken out when it was called.
    ::raise(signal);
}

[[noreturn]] void on_terminate() {
    try {
        if (const auto thrown = std::current_exception()) std::rethrow_exception(thrown);
    } catch (const std::exception& error) {
        std::strncpy(prepared.thrown.data(), error.what(), prepared.thrown.size() - 1);
    } catch (...) {
        std::strncpy(prepared.thrown.data(), "something that is no exception", prepared.thrown.size() - 1);
    }
    std::abort();
}

}  // namespace

void report_crashes(const fs::path& folder, const std::string& version) {
    std::error_code code;
    make_folders(folder, code);
    const auto path = (folder / "crash.txt").string();
    if (path.size() >= prepared.path.size()) return;
    std::copy(path.begin(), path.end(), prepared.path.begin());
    const auto head = fmt::format(
        "Skivet {} ended by a fault. What was written into games is whole, or is put back at the next start.\n"
        "For a report: this file, and what you did last. It names no file of yours but the program's own.\n\n",
        version);
    std::copy_n(head.begin(), std::min(head.size(), prepared.head.size() - 1), prepared.head.begin());
    std::array<void*, 1> frames{};
    (void)::backtrace(frames.data(), 1);  // loads what it needs, which the handler may not
    std::set_terminate(on_terminate);
    // A stack of its own: the usual one may be what ran out.
    stack_t stack{};
    stack.ss_sp = prepared.stack.data();
    stack.ss_size = prepared.stack.size();
    ::sigaltstack(&stack, nullptr);
    struct sigaction action {};
    action.sa_handler = on_fault;
    action.sa_flags = SA_ONSTACK | int(SA_RESETHAND);
    sigemptyset(&action.sa_mask);
    for (const int signal : {SIGSEGV, SIGBUS, SIGFPE, SIGILL, SIGABRT}) ::sigaction(signal, &action, nullptr);
}

std::optional<fs::path> take_crash_report(const fs::path& folder) {
    const auto path = folder / "crash.txt";
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0 || info.st_size == 0) return std::nullopt;
    const auto kept = folder / fmt::format("crash {:%Y-%m-%d %H.%M.%S}.txt", fmt::localtime(info.st_mtime));
    std::error_code code;
    fs::rename(path, kept, code);
    if (code) return path;
    std::vector<fs::path> all;
    for (const auto& one : fs::directory_iterator(folder, code))
        if (one.path().filename().string().starts_with("crash ") && one.path().extension() == ".txt") all.push_back(one.path());
    std::sort(all.begin(), all.end());
    for (std::size_t i = 0; i + most_kept < all.size(); ++i) fs::remove(all[i], code);
    return kept;
}

}  // namespace skivet::app
