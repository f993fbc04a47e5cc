#pragma once
// Every project has a vault of its own and the command line one more. The register is a list of their folders, so that a delivery is found
// wherever it was made. It is only a list: what a vault holds is read from the vault.
#include <filesystem>
#include <vector>

#include "base/result.h"

namespace skivet {

class VaultRegister {
public:
    explicit VaultRegister(std::filesystem::path file) : file_(std::move(file)) {}
    /// $XDG_DATA_HOME/skivet/vaults, or ~/.local/share/skivet/vaults.
    [[nodiscard]] static std::filesystem::path usual_place();
    /// Takes a vault in; one that is in the list already stays once.
    [[nodiscard]] Status add(const std::filesystem::path& vault) const;
    /// The vaults whose folders are there, in the order they were added. A list that cannot be read is an empty one.
    [[nodiscard]] std::vector<std::filesystem::path> all() const;

private:
    std::filesystem::path file_;
};

}  // namespace skivet
