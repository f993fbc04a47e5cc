#include "support/run_program.h"

#include <sys/wait.h>
#include <array>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <sstream>
#include <string>
#include <vector>

#include "cli/run.h"
#include "support/temp_folder.h"

namespace skivet::test {
namespace {

/// A data folder, and with it a vault, and a cache of this process's own: tests run beside one another, and a vault has one writer.
class OwnDataFolder {
public:
    OwnDataFolder() {
        ::setenv("XDG_DATA_HOME", folder_.path().c_str(), 1);
        ::setenv("XDG_CACHE_HOME", (folder_ / "cache").c_str(), 1);
    }

private:
    TempFolder folder_;
};
const OwnDataFolder own_data_folder;

}  // namespace

Ran run_program(const std::vector<std::string>& words, const std::string& folder) {
    std::string command = folder.empty() ? "" : "cd '" + folder + "' && ";
    auto all = words;
    // Hundreds of times: the system's own, without what a user's set-up puts around it, starts in less than half the time.
    if (static const bool is_there = std::filesystem::exists("/usr/bin/python3"); is_there && !all.empty() && all[0] == "python3") {
        all[0] = "/usr/bin/python3";
        all.insert(all.begin() + 1, {"-B", "-E", "-S"});
    }
    for (const auto& word : all) {
        command += '\'';
        for (char c : word) command += c == '\'' ? std::string("'\\''") : std::string(1, c);
        command += "' ";
    }
    command += "2>&1";
    Ran out;
    FILE* pipe = ::popen(command.c_str(), "r");
    if (!pipe) return out;
    std::array<char, 4096> buffer{};
    while (const auto got = std::fread(buffer.data(), 1, buffer.size(), pipe)) out.output.append(buffer.data(), got);
    const int status = ::pclose(pipe);
    out.code = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
    return out;
}

CliRan run_cli(const std::vector<std::string>& arguments, const std::string& in, bool terminal) {
    std::ostringstream out, err;
    std::istringstream input(in);
    CliRan ran;
    ran.code = cli::run(arguments, out, err, nullptr, {terminal, &input, {}});
    ran.out = out.str();
    ran.err = err.str();
    return ran;
}

}  // namespace skivet::test
