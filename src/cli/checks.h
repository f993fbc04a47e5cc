#pragma once
// What is looked at before a command runs.
#include <CLI/CLI.hpp>
#include <string>
#include <vector>

#include "base/shard.h"

namespace skivet::cli {

/// A first word that is no command, with the one that was likely meant; empty: all is well, or the parser says it better.
[[nodiscard]] std::string unknown_command(const CLI::App& app, const std::vector<std::string>& arguments);
/// "all", "full" and the like, or a number of a range.
[[nodiscard]] CLI::Validator word_or_number(std::vector<std::string> words, unsigned least, unsigned most);

/// Gives a command --shard.
void add_shard(CLI::App* command, Shard& shard);

}  // namespace skivet::cli
