#include <csignal>
#include <iostream>

#include "cli/run.h"

namespace {

// The only thing a signal handler may touch here; copies of the token share one flag.
skivet::CancelToken& interrupt_token() {
    static skivet::CancelToken token;
    return token;
}

}  // namespace

int main(int argc, char** argv) {
    interrupt_token();
    std::signal(SIGINT, [](int) { interrupt_token().cancel(); });
    try {
        return skivet::cli::run({argv + 1, argv + argc}, std::cout, std::cerr, interrupt_token());
    } catch (const std::bad_alloc&) {
        std::cerr << "skivet-cli: out of memory\n";
        return 4;
    }
}
