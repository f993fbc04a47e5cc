#pragma once
#include <iosfwd>
#include <string>
#include <vector>

#include "base/progress.h"

namespace skivet::cli {

/// Runs skivet-cli on arguments (without the program's name) and returns the exit code of the cli contract.
int run(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err, const CancelToken& cancel);

}  // namespace skivet::cli
