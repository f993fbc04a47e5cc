#pragma once
// The command line described for others: a manual page and completions for shells, made of the very texts `--help` shows.
#include <string>

namespace CLI {
class App;
}

namespace skivet::cli {

/// For man(1), as roff with the man macros.
[[nodiscard]] std::string man_page(const CLI::App& app, const std::string& version);
/// For bash, zsh or fish; empty for any other.
[[nodiscard]] std::string completion(const CLI::App& app, const std::string& shell);

}  // namespace skivet::cli
