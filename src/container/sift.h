#pragma once
// Looking through bytes that nothing describes for textures, pictures and compressed streams.
#include "base/pack.h"
#include "container/kinds.h"
#include "sift/bare.h"

namespace skivet {

/// Something found. A stream holds what was found inside it in turn.
struct SiftHit {
    std::uint64_t at = 0;             ///< in the file, or in the unpacked stream around it
    std::uint64_t size = 0;           ///< bytes it takes there
    std::string kind;                 ///< "DDS", "PNG", "zlib"; "headerless"
    std::string extension;            ///< of a file with it, without a dot; empty: after the kind
    double confidence = 0;            ///< 1: a checksum over all of it holds; 0.5: only its header makes sense
    std::optional<Packing> packing;   ///< of a stream
    std::uint64_t unpacked = 0;       ///< bytes of a stream, unpacked
    TextureDesc desc;                 ///< of a texture
    Bytes key;                        ///< not empty: every byte is hidden by the key's, one after the other, from the first on
    std::optional<BareTexture> bare;  ///< of a texture without a header
    std::vector<SiftHit> inside;      ///< of a stream
};

struct SiftOptions {
    unsigned depth = 3;                       ///< streams inside streams
    std::uint64_t stream_bytes = 256u << 20;  ///< a stream that unpacks to more is left alone
    std::uint64_t least_stream = 64;          ///< a stream that unpacks to fewer bytes means nothing
    std::uint64_t all_bytes = 4ull << 30;     ///< unpacked in total, then streams are no longer opened
    std::uint64_t vain_bytes = 256u << 20;    ///< unpacked for what only began like a stream, beyond 8 times the bytes there; see left_out
    bool without_marks = true;                ///< also raw deflate streams, LZ4 blocks with their size before them, TGA, hidden headers
    bool bare = true;                         ///< also textures without a header
    /// Gets a sentence for each stretch that was not looked at to its end, because too much in it begins like a stream and is none.
    std::vector<std::string>* left_out = nullptr;
};

/// All hits in the order they lie in; none overlaps another. `progress` counts the bytes of each of up to three passes. Error `canceled`
/// only.
[[nodiscard]] Result<std::vector<SiftHit>> sift(const ReadContext& context, ByteSpan data, Progress& progress,
                                                const SiftOptions& options = {});

/// A file as a container of what sifting finds: textures by their place, "0x001a40.dds", those in streams below their stream's,
/// "0x000400.zlib/0x000010.dds". A texture is replaced by one of the same size; inside a stream when the stream packed again fits. One
/// without a header is shown as a DDS or KTX2 file (bare_file.h).
[[nodiscard]] Result<std::shared_ptr<const Container>> open_sifted(const ReadContext& context, FileView file, Progress& progress);

/// What was found in a whole file, so that open_sifted need not look again while the file and the known textures stay as they are. The last
/// eight files of this run are remembered.
void remember_sifted(const ReadContext& context, const FileView& file, const std::vector<SiftHit>& hits);

/// The same for hits that are there already.
[[nodiscard]] std::shared_ptr<const Container> sifted_container(FileView file, std::vector<SiftHit> hits);

/// The kind "sifting". It recognizes nothing by itself: it is chosen.
[[nodiscard]] std::shared_ptr<const ContainerKind> sifted_kind();

}  // namespace skivet
