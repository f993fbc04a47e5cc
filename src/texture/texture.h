#pragma once
// A texture is a value: a description and bytes. A TextureKind knows one file format: how to recognize it, where each level lies, and
// how to put changed levels back without touching anything else in the file.
#include <functional>
#include <map>
#include <memory>

#include "base/bytes.h"
#include "base/limits.h"
#include "base/pack.h"
#include "pixel/format.h"
#include "pixel/image.h"
#include "pixel/reduce.h"

namespace skivet {

struct TextureDesc {
    Format format = Format::unknown;
    std::uint32_t width = 0;  ///< texels of level 0
    std::uint32_t height = 0;
    std::uint32_t depth = 1;  ///< slices of a volume
    std::uint32_t mips = 1;
    std::uint32_t layers = 1;
    std::uint32_t faces = 1;  ///< 6 for a whole cubemap
    ColorSpace color = ColorSpace::unknown;
    bool operator==(const TextureDesc&) const = default;
};

/// One level of one layer and face, or one slice of one level of a volume.
struct Surface {
    std::uint32_t mip = 0, layer = 0, face = 0, slice = 0;
    std::uint32_t width = 0, height = 0;
    std::uint64_t offset = 0;  ///< bytes from the start of the file; 0 when the kind is not direct
    std::uint64_t size = 0;    ///< bytes
};

struct TextureLayout {
    TextureDesc desc;
    std::vector<Surface> surfaces;
    /// True when the surfaces lie in the file as they are; false when the file packs them (PNG) or pads their rows.
    bool direct = true;
    /// What is missing of a file that ends early; empty for a whole one. Levels beyond the end are listed, reading them says what they
    /// lack.
    std::optional<Error> damage;
    /// Where the file ends by its own account, in bytes from its start; 0 where that is the end of its last surface, or not stated.
    std::uint64_t end = 0;

    [[nodiscard]] const Surface* find(std::uint32_t mip, std::uint32_t layer = 0, std::uint32_t face = 0, std::uint32_t slice = 0) const;
};

/// The offset of a surface that lies in a file that is missing.
constexpr std::uint64_t absent = 1ull << 62;

/// A file beside a texture's own that holds some of its levels.
struct SiblingFile {
    std::string name;        ///< in the folder of the texture's own file
    std::uint64_t size = 0;  ///< bytes, unpacked
    Packing packing = Packing::none;
    int level = 0;           ///< to pack with; 0: the library's usual one
    bool only_read = false;  ///< a palette that others may use, too: its first `size` bytes are read, nothing is ever written
};

/// How a texture is spread over files. Layouts count as if the siblings' unpacked bytes stood, in order, behind the first `own` bytes of
/// the texture's own file; what that file has beyond them comes last (see spread.h).
struct Spread {
    std::uint64_t own = 0;
    std::vector<SiblingFile> siblings;  ///< empty: everything is in one file
};

/// New bytes, in desc.format, for one surface.
struct SurfaceEdit {
    std::size_t surface = 0;  ///< index into TextureLayout::surfaces
    Bytes bytes;
};

/// What a kind of texture file is, beside how it is read. Whoever wants to know asks this, never for a name.
struct KindTraits {
    bool picture = false;                      ///< a picture file that games use, too; otherwise a file made for textures
    bool keeps_levels = false;                 ///< an edit that comes back in it brings its own format and levels
    std::vector<std::string> extensions = {};  ///< of its files' names, without a dot, the usual one first
    std::vector<std::string> marks = {};       ///< with which its files begin (one of them); none: it is not sifted for
    double certainty = 0.9;                    ///< how sure a find in unknown bytes is: the longer the mark, the surer
};

/// What a picture file says about its colors, where that is not sRGB.
struct PictureColor {
    double gamma = 0;  ///< exponent from light to sample; 0: not stated
    Bytes profile;     ///< ICC; empty: none
};

/// Level 0 as somebody painted it.
struct Painted {
    Image image;                   ///< in paint form (codec/paint_form.h); of floats a view
    std::optional<ImageF> wide;    ///< the same with 16 bits, 0…1, when the file has them
    std::optional<ImageF> values;  ///< true values, when the file has floats
    PictureColor color;
};

/// A surface whose texels are numbers of palette entries.
struct IndexedPicture {
    std::uint32_t width = 0, height = 0;
    std::vector<Texel> palette;         ///< at most 256
    std::vector<std::uint8_t> numbers;  ///< one a texel, row by row from the top
};

class TextureKind {
public:
    virtual ~TextureKind() = default;
    [[nodiscard]] virtual std::string name() const = 0;
    [[nodiscard]] virtual KindTraits traits() const = 0;
    /// How many bytes a file takes that `data` begins with, by its own account; nothing when it does not say, is not whole, or is none. By
    /// default the end of its layout, where its surfaces lie in the file as they are or the layout states it.
    [[nodiscard]] virtual std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const;
    /// The picture an edit in this kind of file brings. Errors are those of the file.
    [[nodiscard]] virtual Result<Painted> painted(ByteSpan file, const TextureLayout& layout, const ReadLimits& limits) const;
    /// Looks only at the first bytes (1,024 are enough for every kind) and the path.
    [[nodiscard]] virtual bool recognize(ByteSpan head, std::string_view path) const = 0;
    /// Whether a file of so many bytes can be of the kind.
    [[nodiscard]] virtual bool fits_size(std::uint64_t) const { return true; }
    /// `data` may be only the beginning of a file of `file_size` bytes; enough of it must be there to read the header.
    [[nodiscard]] virtual Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const = 0;
    /// The files beside the texture's own that hold levels of it; none for most kinds. `data` begins with the texture's own file.
    [[nodiscard]] virtual Result<Spread> spread(ByteSpan data, std::string_view path, const ReadLimits& limits) const;
    /// The surface as desc.format has it, without padding of rows.
    [[nodiscard]] virtual Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const;
    /// Of a surface cut off by the file's end, what is there is shown; the rest is as zero bytes decode.
    [[nodiscard]] virtual Result<Image> decode(ByteSpan file, const TextureLayout& layout, const Surface& surface) const;
    /// The surface as numbers and palette; nothing where the file has none.
    [[nodiscard]] virtual Result<std::optional<IndexedPicture>> indexed(ByteSpan file, const TextureLayout& layout,
                                                                        const Surface& surface) const;
    /// The surface as desc.format has it, some rows of blocks at a time from the top: `band` gets their bytes and how many texels high they
    /// are, about 64. False, before the first, where the file cannot be read so; then `bytes` is the way. By default of surfaces that lie
    /// in the file as they are.
    [[nodiscard]] virtual Result<bool> read_bands(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                                  const std::function<Status(ByteSpan bytes, std::uint32_t height)>& band) const;
    /// The surface made smaller, to `side` texels on its longer side or up to twice as many (of what the file itself can give smaller,
    /// three quarters of that), without decoding all of it at once; nothing where the file cannot be read so. By default from `read_bands`.
    [[nodiscard]] virtual std::optional<Reduced> decode_small(ByteSpan file, const TextureLayout& layout, const Surface& surface,
                                                              std::uint32_t side) const;
    /// True values, see ImageF.
    [[nodiscard]] virtual Result<ImageF> decode_wide(ByteSpan file, const TextureLayout& layout, const Surface& surface) const;
    /// The whole file with the edits in; every byte that is not theirs stays, but for size and checksum fields that must follow.
    [[nodiscard]] virtual Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const;
    /// Whether a file of this layout may become one of another size and number of levels: it says its own size.
    [[nodiscard]] virtual bool can_resize(const TextureLayout&) const { return false; }
    /// Whether it may become one of another format: it says its own format, and can say that one.
    [[nodiscard]] virtual bool can_reformat(const TextureLayout&, Format) const { return false; }
    /// The file with all levels of another size or format: `desc` differs from the layout's in width, height, mips and format alone;
    /// `payload` in lay_out order, largest level first. Of the header only the fields about them change. Error `unsupported` where
    /// can_resize, or can_reformat, is false.
    [[nodiscard]] virtual Result<Bytes> resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& desc,
                                                ByteSpan payload) const;
};

/// All kinds a program knows; built-in ones and those from sheets.
class TextureKinds {
public:
    /// DDS, KTX, KTX2 and the picture files games use as textures.
    [[nodiscard]] static TextureKinds standard();
    void add(std::shared_ptr<const TextureKind> kind);
    /// nullptr when nothing fits. `size`: bytes of the whole file, where they are known.
    [[nodiscard]] std::shared_ptr<const TextureKind> recognize(ByteSpan head, std::string_view path,
                                                               std::optional<std::uint64_t> size = std::nullopt) const;
    /// The first one whose files' names end like this; nullptr when none does.
    [[nodiscard]] std::shared_ptr<const TextureKind> by_extension(std::string_view path) const;
    [[nodiscard]] const std::vector<std::shared_ptr<const TextureKind>>& all() const { return kinds_; }

private:
    std::vector<std::shared_ptr<const TextureKind>> kinds_;
    std::map<std::string, std::shared_ptr<const TextureKind>, std::less<>> by_extension_;  ///< of each extension the first kind
};

/// A texture file in memory together with what it is.
struct TextureFile {
    std::shared_ptr<const TextureKind> kind;
    TextureLayout layout;
    Bytes file;

    [[nodiscard]] static Result<TextureFile> open(const TextureKinds& kinds, Bytes file, std::string_view path, const ReadLimits& limits);
    [[nodiscard]] Result<Image> decode(std::uint32_t mip = 0, std::uint32_t layer = 0, std::uint32_t face = 0,
                                       std::uint32_t slice = 0) const;
    [[nodiscard]] Result<ImageF> decode_wide(std::uint32_t mip = 0, std::uint32_t layer = 0, std::uint32_t face = 0,
                                             std::uint32_t slice = 0) const;
    /// The surface in desc.format.
    [[nodiscard]] Result<Bytes> surface_bytes(const Surface& surface) const;
};

/// For a file that ends before its surfaces do: at least an eighth of the first level must be there, then what is missing becomes
/// `layout.damage`; otherwise it is the error.
[[nodiscard]] Status accept_cut_off(TextureLayout& layout, std::uint64_t start, std::uint64_t end, std::uint64_t file_size);

/// Checks sizes against the limits and each other. Used by every kind before it lays out surfaces.
[[nodiscard]] Status check_desc(const TextureDesc& desc, const ReadLimits& limits);

/// For files whose picture is packed: error `limit` when it would be larger than `stored` bytes of file can hold (ReadLimits::may_claim).
[[nodiscard]] Status check_claim(const TextureDesc& desc, std::uint64_t stored, const ReadLimits& limits);

enum class MipOrder { largest_first, smallest_first };
/// Surfaces one after the other from `offset`: layers, faces, then mips in order; a volume's slices inside its mips.
/// Each level starts at a multiple of `align` from the payload's start. Returns the end of the last one in `end`.
[[nodiscard]] std::vector<Surface> lay_out(const TextureDesc& desc, std::uint64_t offset, MipOrder order, std::uint64_t align,
                                           std::uint64_t& end);

/// All surfaces' bytes in lay_out order, largest level first, one after the other.
[[nodiscard]] Result<Bytes> payload_of(const TextureFile& texture);

/// "1024×1024", with "×6 faces" and the like where there are.
[[nodiscard]] std::string size_text(const TextureDesc& desc);
/// "1 level", "9 mips".
[[nodiscard]] std::string mips_text(std::uint32_t mips);

}  // namespace skivet
