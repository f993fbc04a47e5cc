#pragma once
#include <filesystem>
#include <string>
#include <vector>

namespace skivet {

struct Program {
    int process = 0;
    std::string name;  ///< as the system knows it, at most 15 bytes
};

/// Other processes that have the file open or mapped, as far as we may see (/proc); our own is left out.
[[nodiscard]] std::vector<Program> programs_with(const std::filesystem::path& file);
/// "fair-stall (4711) and two more"; empty for none.
[[nodiscard]] std::string names_of(const std::vector<Program>& programs);

}  // namespace skivet
