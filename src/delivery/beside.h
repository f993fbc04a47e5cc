#pragma once
// Ways to deliver other than into the archive itself, and the way back for single entries.
#include "container/address.h"
#include "delivery/vault.h"

namespace skivet {

/// Loose files in a folder the game prefers over its archives: each piece under its own path, whatever archive it comes from. Files that
/// are there are overwritten, others created with their folders. Error `usage` for a path that leaves the folder, or two pieces with one.
[[nodiscard]] Result<WritePlan> plan_override(const std::filesystem::path& folder, std::span<const AddressedBytes> pieces);

/// A new archive of the source's kind with only these entries, for games in which later archives win. Error `unsupported` for kinds that
/// cannot be made, and for entries inside archives inside.
[[nodiscard]] Result<WritePlan> plan_patch_archive(const ReadContext& context, const Container& source, const std::filesystem::path& file,
                                                   std::span<const AddressedBytes> pieces);

/// The content an entry had before all deliveries, as a plan to put it back into the source as it is now. An empty plan when it has it.
[[nodiscard]] Result<WritePlan> plan_restore_entry(const Vault& vault, const ReadContext& context, const std::filesystem::path& source,
                                                   const std::vector<std::string>& inner);

/// What a plan does to other names of the files it rebuilds, a sentence each: a rebuilt file is a new one, and hard links keep the old.
[[nodiscard]] std::vector<std::string> broken_links(const WritePlan& plan);

}  // namespace skivet
