#pragma once
#include <filesystem>

#include "base/bytes.h"

namespace skivet {

struct WriteHow {
    bool make_folders = true;  ///< folders on the way are made; otherwise a missing one is the error `missing`
    bool replace = true;       ///< a file that is there is replaced; otherwise it is the error `usage`
    bool sync = false;         ///< on the disk before the old content is let go
    bool secret = false;       ///< readable by its owner only, also where the file that is replaced was not
};

/// Writes a file of our own (never a game file: those go through delivery) without a name and gives it its name when it is whole, so that a
/// reader or a crash never sees half of it and no other file is touched on the way. A link is followed: its target gets the content. The
/// mode of a file that is replaced stays. Errors: `usage` when there is something at the path that is no regular file, and the system's.
[[nodiscard]] Status write_file(const std::filesystem::path& path, ByteSpan data, WriteHow how = {});
[[nodiscard]] Result<Bytes> read_file(const std::filesystem::path& path, std::uint64_t limit = 2ull << 30);

/// `folder / relative`, unless a link on the way leads out of the folder (error `usage`). Nothing has to exist.
[[nodiscard]] Result<std::filesystem::path> path_inside(const std::filesystem::path& folder, const std::filesystem::path& relative);
/// Whether `path` is `folder` or lies in it, links resolved.
[[nodiscard]] bool lies_in(const std::filesystem::path& path, const std::filesystem::path& folder);
/// Where a user's own data lies: $XDG_DATA_HOME/skivet, or ~/.local/share/skivet (XDG Base Directory Specification); without a home below
/// the temporary folder.
[[nodiscard]] std::filesystem::path user_data_folder();
/// The same for settings ($XDG_CONFIG_HOME/skivet, ~/.config/skivet), for what can be made again ($XDG_CACHE_HOME/skivet, ~/.cache/skivet)
/// and for logs and how windows were left ($XDG_STATE_HOME/skivet, ~/.local/state/skivet).
[[nodiscard]] std::filesystem::path user_config_folder();
[[nodiscard]] std::filesystem::path user_cache_folder();
[[nodiscard]] std::filesystem::path user_state_folder();
/// 16 letters and digits nobody can guess, for names that must not be another file's.
[[nodiscard]] std::string unguessable();

/// A new folder below the temporary one, which is removed with all that is in it. `path` is empty when it cannot be made.
class TemporaryFolder {
public:
    TemporaryFolder();
    ~TemporaryFolder();
    TemporaryFolder(const TemporaryFolder&) = delete;
    TemporaryFolder& operator=(const TemporaryFolder&) = delete;
    std::filesystem::path path;
};

}  // namespace skivet
