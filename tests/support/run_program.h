#pragma once
#include <string>
#include <vector>

namespace skivet::test {

struct Ran {
    int code = -1;
    std::string output;  ///< stdout and stderr
};
/// Runs a program found on PATH (or by path) and waits for it.
[[nodiscard]] Ran run_program(const std::vector<std::string>& words, const std::string& folder = {});
/// skivet-cli inside this process.
struct CliRan {
    int code = -1;
    std::string out, err;
};
/// `in`: what comes in from the standard input. `terminal`: stderr is one.
[[nodiscard]] CliRan run_cli(const std::vector<std::string>& arguments, const std::string& in = {}, bool terminal = false);

}  // namespace skivet::test
