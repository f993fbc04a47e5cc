#include "support/run_program.h"

#include <sys/wait.h>
#include <array>
#include <cstdio>
#include <cstdlib>
#include <sstream>

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
    for (const auto& word : words) {
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
