#pragma once
#include "base/keys.h"
#include "base/packer_program.h"
#include "container/container.h"
#include "container/past_files.h"
#include "texture/texture.h"

namespace skivet {

struct ReadContext;

/// Why a file is taken for something, and how sure that is.
struct Recognized {
    int rank = 0;        ///< the higher one wins; see `ranks`
    std::string reason;  ///< "8 bytes at 0, and its size field"
};

/// What speaks how strongly for a kind.
namespace ranks {
constexpr int by_name = 10;  ///< only the name
constexpr int weak = 20;     ///< a short mark, or one at the end of the file
constexpr int magic = 50;    ///< a magic number
constexpr int checked = 60;  ///< a magic number and a checksum
constexpr int sheet = 100;   ///< a sheet; each condition of it adds one: somebody described exactly this
}  // namespace ranks

/// One kind of container. Adding one is one file and one line in standard_containers().
class ContainerKind {
public:
    virtual ~ContainerKind() = default;
    [[nodiscard]] virtual std::string name() const = 0;
    /// `head` is the file's beginning, or all of it (then head.size() == file_size). Cheap: called for every entry of every archive.
    [[nodiscard]] virtual std::optional<Recognized> recognize(ByteSpan head, std::uint64_t file_size, std::string_view path) const = 0;
    [[nodiscard]] virtual Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const = 0;
    /// Names of packers that only a program of the user's can stand for.
    [[nodiscard]] virtual std::vector<std::string> wanted_packers() const { return {}; }
};

[[nodiscard]] std::vector<std::shared_ptr<const ContainerKind>> standard_containers();

/// "Take what fits this pattern for that": the user's word against recognition.
struct KindChoice {
    std::string pattern;  ///< a whole path, or a file name with * and ?
    std::string kind;
    bool operator==(const KindChoice&) const = default;
};

/// Everything the program can recognize. Handed to whoever opens something; nothing global.
struct ReadContext {
    TextureKinds textures = TextureKinds::standard();
    std::vector<std::shared_ptr<const ContainerKind>> containers = standard_containers();
    std::vector<KindChoice> choices;  ///< the first that fits wins
    std::shared_ptr<const KeyRing> keys = std::make_shared<KeyRing>();
    std::shared_ptr<const PackerPrograms> packers = std::make_shared<PackerPrograms>();
    std::uint64_t sheets_hash = 0;          ///< of all sheets added: listings of an index hold only under the same ones
    std::vector<std::string> known_paths;   ///< paths that hashed names may stand for, besides the sheets' own dictionaries
    std::shared_ptr<const PastFiles> past;  ///< files that are read as they were; null: all as they lie on the disk
    ReadLimits limits;
};

/// Reads a sheet and adds what it describes. Errors carry the file and the line.
[[nodiscard]] Status add_sheet(ReadContext& context, const std::filesystem::path& file);
/// All *.toml in a folder, in the order of their names; a missing folder adds nothing. Damaged sheets are reported in the result and
/// do not keep the others out.
[[nodiscard]] std::vector<Error> add_sheets_in(ReadContext& context, const std::filesystem::path& folder);

struct Candidate {
    std::shared_ptr<const ContainerKind> kind;
    Recognized recognized;
};
/// What a file may be, the most likely first. A choice of the user's stands alone.
[[nodiscard]] std::vector<Candidate> candidates(const ReadContext& context, ByteSpan head, std::uint64_t file_size, std::string_view path);

/// A container by its content. When the most likely kind cannot open it, the next is tried; the error is the first one's.
[[nodiscard]] Result<std::shared_ptr<const Container>> open_container(const ReadContext& context, FileView file);
/// A folder or an archive; an archive cut into parts by the name of any of them. Of a folder, what lies at a path of `apart` is left out.
[[nodiscard]] Result<std::shared_ptr<const Container>> open_source(const ReadContext& context, const std::filesystem::path& path,
                                                                   std::span<const std::filesystem::path> apart = {});

/// The files of an archive cut into parts that `path` belongs to, in order: name.001 …, name.00 …, name.part1 … and name.z01 … name.zip.
/// Just `path` when it is whole.
/// Error `missing` with the name of the first part that is not there.
[[nodiscard]] Result<std::vector<std::filesystem::path>> parts_of(const std::filesystem::path& path);

}  // namespace skivet
