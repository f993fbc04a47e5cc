#pragma once
// The commands of skivet-cli. Each takes its options as a value and returns the exit code; results go to `out`, failures to `err`.
#include <iosfwd>

#include "base/shard.h"
#include "catalog/catalog.h"
#include "cli/run.h"
#include "delivery/vault_register.h"

namespace skivet::cli {

struct Context {
    ReadContext context;
    std::ostream& out;
    std::ostream& err;
    CancelToken cancel;
    bool json = false;
    bool quiet = false;  ///< no progress, and no word where all went well
    Terminal terminal = {};
    std::filesystem::path vault;
    bool vault_chosen = false;  ///< by --vault; otherwise deliveries are looked for in every vault of the register
    VaultRegister vaults{VaultRegister::usual_place()};
    Interruption* interruption = nullptr;

    /// Prints the error and returns its exit code.
    int failed(const Error& error) const;
    /// A word beside the results, on stderr; nothing with --quiet.
    void say(const std::string& line) const;
};

/// "1 range", "3 ranges"; `many` for words that do not take an s.
[[nodiscard]] std::string count_of(std::uint64_t count, std::string_view one, std::string_view many = {});

/// Programs out of "NAME=COMMAND" texts, added to others. Error `usage` for a text that is none.
[[nodiscard]] Result<PackerPrograms> packer_programs(const std::vector<std::string>& unpackers, const std::vector<std::string>& packers,
                                                     PackerPrograms out = {});

struct ListOptions {
    std::vector<std::string> sources;
    std::vector<std::string> match;
    std::filesystem::path index;  ///< kept between calls; empty: none
    std::string roles;            ///< what roles are told from: name or picture; empty: pictures where there is an index
    bool textures = false;
    bool recursive = false;
};
struct ExportOptions {
    std::vector<std::string> sources;
    std::filesystem::path to;
    std::string as = "png";
    std::string faces = "cross";  ///< of a cubemap: cross, six or first
    std::string layers = "all";   ///< of an array or a volume: all or first
    std::vector<std::string> match;
    std::string mip = "0";
    std::string alpha = "keep";
    int jobs = 0;                  ///< 0: as many as the machine has cores
    std::uint64_t part_bytes = 0;  ///< files of more are cut; 0: never
    bool flat = false;
    bool sets = false;  ///< a folder a set
    bool fat32 = false;
    bool resume = false;
    bool force = false;  ///< also over files that no export made
    Shard shard;
};
struct EncodeCommand {
    std::filesystem::path image, out;  ///< or two folders
    Shard shard;                       ///< of the pictures of a folder
    std::string as = "dds";            ///< what textures of a folder become
    bool resume = false;               ///< of a folder: leave out what is there already
    std::string format, like, mips = "full", color, effort = "normal";
    std::string mends;            ///< with `like`: those that are made where they are due
    bool resize_texture = false;  ///< with `like`: the texture gets the picture's size
    int jobs = 0;
};
struct ReplaceOptions {
    std::string address;
    std::filesystem::path with;
    std::filesystem::path beside;  ///< an override folder; empty: into the archive
    std::filesystem::path patch;   ///< a new archive with only this entry
    std::string mends;             ///< made where they are due
    std::string format;            ///< that the texture gets; empty: its own
    bool resize_texture = false;
    bool dry_run = false;
    bool as_is = false;
};
struct AddOptions {
    std::string address;
    std::string like;            ///< path of an entry in the same archive; empty: none
    std::filesystem::path with;  ///< empty: what `like` holds
    std::string mends;
    bool dry_run = false;
    bool as_is = false;
};
struct RenameOptions {
    std::string address, path;
    bool dry_run = false;
};
struct RemoveOptions {
    std::vector<std::string> addresses;
    bool dry_run = false;
};
struct TouchOptions {
    std::vector<std::string> files;    ///< picture or texture files, or addresses
    std::vector<std::string> touches;  ///< in order
    std::string list, keep_as;         ///< made before those; kept under a name with those behind it
    std::string mask;                  ///< for those without one of their own
    std::filesystem::path to;          ///< a folder for pictures; empty: back to where they are from
    std::string mends;
    bool dry_run = false;
    bool force = false;   ///< also over pictures that are there
    bool resume = false;  ///< leave those out
    Shard shard;
};
struct ApplyOptions {
    std::filesystem::path folder, into, beside, patch;
    bool dry_run = false;
};

/// What a game's folder holds that could be a source, in the order proposed; 1 when there is nothing.
int survey(Context& context, const std::string& folder);
int list(Context& context, const ListOptions& options);
int show(Context& context, const std::string& address);
int export_entries(Context& context, const ExportOptions& options);
int encode_image(Context& context, const EncodeCommand& options);
int replace(Context& context, const ReplaceOptions& options);
int add_entry(Context& context, const AddOptions& options);
int rename_entry(Context& context, const RenameOptions& options);
int remove_entries(Context& context, const RemoveOptions& options);
int apply_folder(Context& context, const ApplyOptions& options);
int touch_files(Context& context, const TouchOptions& options);
struct RestoreOptions {
    std::string source;                  ///< empty: everything in the vault
    std::vector<std::string> addresses;  ///< empty: the whole source
    bool unfinished = false;             ///< only what was cut short
};
int restore(Context& context, const RestoreOptions& options);
/// Rolls back what was cut short, in every vault that this call would look into, and says so. Returns an exit code.
int recover(Context& context);
/// Says which of the arguments name files that a delivery left half written; returns how many.
int warn_of_unfinished(Context& context, const std::vector<std::string>& arguments);
int verify(Context& context, const std::string& source);
int compare(Context& context, const std::string& a, const std::string& b);
struct FindPictureOptions {
    std::filesystem::path image, index;
    std::vector<std::string> sources;
    std::size_t top = 10;
};
int find_picture(Context& context, const FindPictureOptions& options);
struct RolesOptions {
    std::vector<std::string> sources;
    std::filesystem::path index;
    bool by_picture = false;
    Shard shard;
};
int roles(Context& context, const RolesOptions& options);
struct ExtractOptions {
    std::string address;
    std::string out;      ///< a file, or "-" for the output; empty: the entry's own name in the current folder
    bool stored = false;  ///< as it lies in the archive
};
int extract(Context& context, const ExtractOptions& options);
int sheet_check(Context& context, const std::string& file);
struct SheetTryOptions {
    std::string file, archive;
    bool prove = false;
    std::size_t records = 12;
};
int sheet_try(Context& context, const SheetTryOptions& options);
int names(Context& context, const std::vector<std::string>& sources);
int sheet_draft(Context& context, const std::string& archive, const std::string& out);
int sift_file(Context& context, const std::string& file);
int compact(Context& context, const std::string& source, bool dry_run);

}  // namespace skivet::cli
