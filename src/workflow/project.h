#pragma once
// A project is a folder of Skivet's with everything about one game's mod:
//   project.json   sources and pieces
//   project.last.json  the same as it was when the project was last opened
//   project.lock   held by the program that works on it, with its process in it
//   work/          exported files, watched
//   versions/      what was brought back, by SHA-256
//   originals/     the texture files of the pieces as the game had them, by SHA-256
//   delivered/     what one's own deliveries made of them, as changes
//   parcels/       the parcels that are installed, by SHA-256
//   vault/         what deliveries overwrote
//   index.sqlite   the catalog's index; may be thrown away
//   baseline*.sqlite  what a clean installation was, one for each version of the game that was recorded
//   sheets/        sheets drafted or written for this game
//   keys           the key ring, readable by its owner only
#include <map>
#include <unordered_map>

#include "base/file_lock.h"
#include "base/hash.h"
#include "bench/alpha_way.h"
#include "bench/fitting.h"
#include "container/address.h"
#include "mesh/vertex_table.h"
#include "workflow/place_settings.h"
#include "workflow/stack_state.h"

namespace skivet {

enum class PieceState { on_the_bench, out, changed, fits, needs_mend, delivered, gone_stale };
[[nodiscard]] std::string_view name_of(PieceState state);

/// Stays with a piece as long as the project has it; never given twice. 0: not in a project.
using PieceId = std::uint64_t;

/// PieceFile::part of alpha that lies apart.
inline constexpr std::string_view alpha_part = "alpha";

/// A file of a piece beside its own.
struct PieceFile {
    std::string part;            ///< what it holds: alpha_part, or a face or layer as parts_of names it
    std::filesystem::path file;  ///< relative to the work folder
    std::string exported_hash;   ///< as those of the piece's own file
    std::string seen_hash;
    bool operator==(const PieceFile&) const = default;
};
/// How a texture is taken out.
struct TakeAs {
    ExportAs as = ExportAs::picture;  ///< `picture`: as propose_export says
    AlphaWay alpha = AlphaWay::kept;  ///< where can_split_alpha; kept elsewhere
    bool parts = false;               ///< each face or layer in a file of its own, where has_parts (cube.h); alpha stays in them

    TakeAs(ExportAs way = ExportAs::picture, AlphaWay alpha_way = AlphaWay::kept, bool in_parts = false)
        : as(way), alpha(alpha_way), parts(in_parts) {}
    bool operator==(const TakeAs&) const = default;
};

struct Piece {
    PieceId id = 0;
    Address address;
    std::string like = {};  ///< it comes with its delivery, as a variant of this entry of the same archive; empty: it was there
    TakeAs as = ExportAs::png;
    std::filesystem::path file;     ///< relative to the project's work folder
    std::vector<PieceFile> more;    ///< files that are read with it
    std::string original_hash;      ///< SHA-256 of the texture file as the game had it; its copy is in originals/
    std::string exported_hash;      ///< of the exported file, to notice a save
    std::string seen_hash;          ///< of the file when it was last looked at
    std::string delivered_hash;     ///< edit() that was delivered to the game; empty: it is not there, though a device may have it
    std::string delivered_texture;  ///< of the texture file that went into the game
    std::string on_device;          ///< edit() that was put onto the card or device; empty: none
    std::string device_delivery;    ///< the delivery that did
    std::string in_game;            ///< of the texture file the game has where parcels change it, too; empty: as taken or delivered
    std::string leader_hash;        ///< original_hash of the piece whose file this one follows; empty: it has a file of its own
    std::vector<std::string> way;   ///< of a map that follows: the touch-ups that make it of that piece's picture (derived_map.h)
    PieceState state = PieceState::on_the_bench;
    FitOptions options;
    std::vector<std::string> touches;  ///< touch-ups as texts, made in this order on what the file holds (touch_up.h)
    std::int64_t changed_at = 0;       ///< seconds since 1970, UTC

    /// Tells one edit from another: the files as they were last seen, the touch-ups, and the format it is to have.
    [[nodiscard]] std::string edit() const;
    /// Whether any of its files is other than it was exported.
    [[nodiscard]] bool is_saved() const;
    [[nodiscard]] bool follows() const { return !leader_hash.empty(); }
    [[nodiscard]] std::string name() const;
};

/// A state of a working file as it was brought back; its bytes are in versions/, by their hash.
struct Version {
    std::filesystem::path file;  ///< relative to the work folder, as it was saved
    std::string hash;            ///< SHA-256
    std::int64_t at = 0;         ///< seconds since 1970, UTC
    std::uint64_t size = 0;      ///< bytes
};

/// An entry that gets another name or is taken out with the next delivery.
struct EntryChange {
    Address address;
    std::string path;  ///< its new path in the same archive; empty: it is taken out
    bool operator==(const EntryChange&) const = default;
};

/// Where pieces go when they are delivered.
enum class Destination {
    into_archives,    ///< the entries themselves
    beside_the_game,  ///< loose files in a folder the game prefers (places.h)
    patch_archives,   ///< a new archive for each source, with the changed entries alone, that the game loads later
    device,           ///< files for a card or device
};

/// Where a source belongs, for the reader's sake; the order alone decides what wins.
struct SourceSetting {
    bool off = false;   ///< in the list, but not loaded
    std::string group;  ///< "base", "update", "extra content", "other mods"; may be empty
    bool operator==(const SourceSetting&) const = default;
};
/// The user's word on what a texture is for: `role` as the catalog names it ("base_color").
struct RoleChoice {
    std::string path, role;
    bool operator==(const RoleChoice&) const = default;
};
/// A habit of this game's names: `place` is suffix, prefix, word or folder.
struct HabitChoice {
    std::string place, word, role;
    bool operator==(const HabitChoice&) const = default;
};
/// A search under a name, with the facets it narrows down by.
struct KeptSearch {
    std::string name, text;
    std::vector<std::pair<std::string, std::string>> chosen;  ///< facet and value
    std::vector<std::string> traits;
    bool operator==(const KeptSearch&) const = default;
};

/// How a texture's set is tried on (try_on.h).
struct TryOnChoice {
    std::vector<std::string> meshes;  ///< as text_of(MeshPlace) says them; empty: what is found first
    std::vector<std::string> hidden;  ///< parts that are off, by part_title
    bool upright_z = false;           ///< the mesh's z is up, not its y
    bool green_down = false;          ///< of the normal map, as MeshSurface has it
    bool operator==(const TryOnChoice&) const = default;
};

/// A version of the game that was recorded as it was shipped.
struct ShippedVersion {
    std::string name;      ///< as the person calls it; may be empty
    std::int64_t at = 0;   ///< seconds since 1970, UTC
    std::string baseline;  ///< file in the project's folder
    bool operator==(const ShippedVersion&) const = default;
};

struct Project {
    std::filesystem::path folder;
    std::string name;
    std::filesystem::path game;                  ///< the installation; may be empty
    std::vector<std::filesystem::path> sources;  ///< in load order
    std::map<std::filesystem::path, SourceSetting> source_settings;
    std::vector<RoleChoice> roles;
    std::vector<HabitChoice> habits;
    std::vector<KeptSearch> searches;
    std::vector<Piece> pieces;         ///< in the order they were taken, which is that of their ids
    StackState stack_state;            ///< parcels that are installed, and one's own deliveries
    std::vector<EntryChange> changes;  ///< that wait for a delivery into the archives; no two of one entry
    PieceId next_piece = 1;            ///< the id of the next one that is taken
    std::vector<Version> versions;     ///< of the pieces' files, in the order they were seen
    PlaySettings play;                 ///< how the game is started
    std::vector<KindChoice> choices;   ///< what the user said files are, against recognition
    Destination destination = Destination::into_archives;
    std::vector<ShippedVersion> shipped;  ///< the oldest first
    std::string shipped_now;              ///< the baseline the installation is compared with; empty: baseline.sqlite
    bool only_as_shipped = false;         ///< nothing is taken to the bench that something else changed since the installation was recorded
    PackerPrograms packers;               ///< programs that sheets call by name
    PlaceSettings places;
    std::filesystem::path load_list;  ///< the game's own list that said the load order when the installation was gone through; or empty
    std::vector<std::string> known_paths;                     ///< paths that hashed names stand for, accepted by the user
    std::vector<std::string> seen_places;                     ///< what was found in the installation when it was last gone through
    TableReadings table_readings;                             ///< of tables of vertices whose columns a person corrected
    std::map<std::string, TryOnChoice> try_on;                ///< by try_on_key; how one looks at things, no decision that is undone
    std::vector<std::string> editor;                          ///< what opens a piece (open_with.h); empty: the desktop decides
    std::map<std::string, std::vector<std::string>> editors;  ///< the same for endings, without their dot

    /// Null when it has been put away.
    [[nodiscard]] const Piece* piece(PieceId id) const;
    [[nodiscard]] Piece* piece(PieceId id);
    /// The piece taken from there, or null. For many questions see PiecesByAddress.
    [[nodiscard]] const Piece* piece_of(const Address& address) const;
    /// Takes a piece in and gives it an id; null, and nothing is changed, when one of the same address is there.
    Piece* add(Piece piece);
    /// Lets changes wait, in place of others of the same entries. Errors `usage` for entries that are on the bench; the rest waits.
    [[nodiscard]] std::vector<Error> add(std::span<const EntryChange> more);
    /// They do not wait any more; how many of them did.
    std::size_t drop(std::span<const EntryChange> some);
    /// Takes a piece off the list; its files stay. False when it is not there.
    bool put_away(PieceId id);

    [[nodiscard]] std::filesystem::path work() const { return folder / "work"; }
    [[nodiscard]] std::filesystem::path version_file(const std::string& hash) const { return folder / "versions" / hash; }
    [[nodiscard]] std::filesystem::path parcels() const { return folder / "parcels"; }
    [[nodiscard]] std::filesystem::path sheets() const { return folder / "sheets"; }
    [[nodiscard]] std::filesystem::path vault() const { return folder / "vault"; }
    [[nodiscard]] std::filesystem::path index() const { return folder / "index.sqlite"; }
    [[nodiscard]] std::filesystem::path baseline() const { return folder / (shipped_now.empty() ? "baseline.sqlite" : shipped_now); }
    [[nodiscard]] SourceSetting setting(const std::filesystem::path& source) const {
        const auto found = source_settings.find(source);
        return found == source_settings.end() ? SourceSetting{} : found->second;
    }
    [[nodiscard]] std::filesystem::path keys() const { return folder / "keys"; }
    [[nodiscard]] std::filesystem::path original_of(const Piece& piece) const { return folder / "originals" / piece.original_hash; }
};

/// Which piece is taken from where, for many questions between two changes of a project.
class PiecesByAddress {
public:
    explicit PiecesByAddress(const Project& project);
    [[nodiscard]] std::optional<PieceId> find(const Address& address) const;

private:
    std::unordered_map<std::string, PieceId> ids_;
};

/// Reads project.json; a folder without one gives an empty project there. Error `damaged` names the file.
[[nodiscard]] Result<Project> open_project(const std::filesystem::path& folder);
[[nodiscard]] Status save_project(const Project& project);
/// One project, one writer. Makes the folder. Error `busy` says which process has it.
[[nodiscard]] Result<FileLock> lock_project(const std::filesystem::path& folder);
/// Keeps project.json, which can be read, as the last good copy.
[[nodiscard]] Status keep_good_copy(const std::filesystem::path& folder);
[[nodiscard]] bool has_good_copy(const std::filesystem::path& folder);
/// Puts the last good copy in the place of a project.json that cannot be read; that one stays beside it as project.damaged.json (with a
/// number where there is one already).
[[nodiscard]] Status use_good_copy(const std::filesystem::path& folder);
/// The folder below `projects` whose project is about this game, or one that is free: named after the game.
[[nodiscard]] std::filesystem::path project_for_game(const std::filesystem::path& projects, const std::filesystem::path& game);

}  // namespace skivet
