#include <poll.h>
#include <tbb/global_control.h>
#include <tbb/info.h>
#include <unistd.h>
#include <algorithm>
#include <array>
#include <csignal>
#include <iostream>
#include <new>
#include <system_error>
#include <thread>

#include "base/threads.h"
#include "cli/run.h"

namespace {

/// Waits for SIGINT and SIGTERM beside the work. The command gets a moment to end by itself and to say so; one that is deep in a
/// computation is ended here, with nothing half-written: files appear whole or not at all, and game files are written only under
/// `begin_writing`.
void wait_for_signals(skivet::cli::Interruption& interruption, const sigset_t& signals) {
    int signal = 0;
    while (sigwait(&signals, &signal) != 0) {
    }
    interruption.cancel.cancel();
    std::this_thread::sleep_for(std::chrono::milliseconds(20));
    while (!interruption.when_idle([] { ::_exit(130); })) std::this_thread::sleep_for(std::chrono::milliseconds(5));
}

}  // namespace

int main(int argc, char** argv) {
    std::signal(SIGPIPE, SIG_IGN);  // a reader that went away is an error of writing, and never the end of a delivery
    sigset_t signals;
    sigemptyset(&signals);
    sigaddset(&signals, SIGINT);
    sigaddset(&signals, SIGTERM);
    pthread_sigmask(SIG_BLOCK, &signals, nullptr);  // before the first thread, so that all of them leave signals to one
    // Lives as long as the process, because the thread does.
    static skivet::cli::Interruption interruption;
    int code = 4;
    try {
        // One shows how far the work is, one waits for signals, and this one works, too.
        const auto wanted = static_cast<unsigned>(tbb::info::default_concurrency());
        const auto had = skivet::threads_to_be_had(wanted + 1);
        // Kept to the end of the process: letting go of it starts the workers that it kept from starting.
        alignas(tbb::global_control) static std::array<std::byte, sizeof(tbb::global_control)> place;
        new (place.data()) tbb::global_control(tbb::global_control::max_allowed_parallelism, std::clamp(had, 2u, wanted + 1) - 1);
        try {
            std::thread([signals] { wait_for_signals(interruption, signals); }).detach();
        } catch (const std::system_error&) {
            pthread_sigmask(SIG_UNBLOCK, &signals, nullptr);  // nobody is there to wait: they do what they do by themselves
        }
        const skivet::cli::Terminal terminal{::isatty(STDERR_FILENO) == 1, &std::cin, [] {
                                                 // A pipe whose reader went away is in error, whatever was last written to it.
                                                 pollfd out{STDOUT_FILENO, POLLOUT, 0};
                                                 return ::poll(&out, 1, 0) > 0 && (out.revents & POLLERR) != 0;
                                             }};
        code = skivet::cli::run({argv + 1, argv + argc}, std::cout, std::cerr, &interruption, terminal);
    } catch (const std::bad_alloc&) {
        std::cerr << "skivet-cli: there is not enough memory for this; nothing that was there before is changed\n";
    }
    std::cout.flush();
    std::cerr.flush();
    return interruption.cancel.canceled() && code != 0 ? 130 : code;
}
