#include "texture/webp.h"

#include <webp/decode.h>
#include <webp/encode.h>

#include "base/phrase.h"
#include "codec/codec.h"

namespace skivet {
namespace {

constexpr float lossy_quality = 95;  ///< the second compression should not add to the first one's losses

const std::uint8_t* raw(ByteSpan data) { return reinterpret_cast<const std::uint8_t*>(data.data()); }

Result<WebPBitstreamFeatures> features_of(ByteSpan data) {
    WebPBitstreamFeatures f{};
    const auto status = WebPGetFeatures(raw(data), data.size(), &f);
    if (status == VP8_STATUS_NOT_ENOUGH_DATA)
        return fail(ErrorCode::damaged, phrase("the header ends after {} bytes", grouped(data.size())), "The file is cut off");
    if (status != VP8_STATUS_OK) return fail(ErrorCode::damaged, "the header is no sound WebP header");
    if (f.has_animation) return fail(ErrorCode::unsupported, "an animated picture", "Still pictures are read");
    return f;
}

struct Memory {
    WebPMemoryWriter writer{};
    Memory() { WebPMemoryWriterInit(&writer); }
    Memory(const Memory&) = delete;
    Memory& operator=(const Memory&) = delete;
    ~Memory() { WebPMemoryWriterClear(&writer); }
};

Result<Bytes> compressed(const Bytes& texels, const TextureDesc& d, bool alpha, bool lossless) {
    WebPConfig config;
    WebPPicture picture;
    if (!WebPConfigInit(&config) || !WebPPictureInit(&picture))
        return fail(ErrorCode::io, "libwebp has another version than at build time");
    if (lossless) (void)WebPConfigLosslessPreset(&config, 6);
    else config.quality = lossy_quality;
    config.exact = 1;  // color under zero alpha stays
    Memory memory;
    picture.use_argb = 1;
    picture.width = static_cast<int>(d.width);
    picture.height = static_cast<int>(d.height);
    picture.writer = WebPMemoryWrite;
    picture.custom_ptr = &memory.writer;
    const int stride = static_cast<int>(d.width) * (alpha ? 4 : 3);
    const bool done =
        (alpha ? WebPPictureImportRGBA(&picture, raw(texels), stride) : WebPPictureImportRGB(&picture, raw(texels), stride)) &&
        WebPEncode(&config, &picture);
    const auto code = picture.error_code;
    WebPPictureFree(&picture);
    if (!done) return fail(ErrorCode::io, phrase("libwebp could not encode the picture (error {})", static_cast<int>(code)));
    const auto* begin = reinterpret_cast<const std::byte*>(memory.writer.mem);
    return Bytes(begin, begin + memory.writer.size);
}

/// The chunks of a RIFF file, whole; the last one may be cut off.
std::vector<std::pair<std::string, ByteSpan>> chunks_of(ByteSpan file) {
    std::vector<std::pair<std::string, ByteSpan>> out;
    for (std::size_t at = 12; at + 8 <= file.size();) {
        const auto size = load_le<std::uint32_t>(file.data() + at + 4);
        const auto whole = std::min<std::uint64_t>(file.size() - at, 8ull + size + (size & 1));
        out.emplace_back(as_text(file.subspan(at, 4)), file.subspan(at, static_cast<std::size_t>(whole)));
        at += static_cast<std::size_t>(whole);
    }
    return out;
}

bool is_picture(const std::string& type) { return type == "VP8 " || type == "VP8L" || type == "ALPH"; }

}  // namespace

KindTraits WebpKind::traits() const { return {.picture = true, .extensions = {"webp"}, .marks = {"RIFF"}, .certainty = 0.8}; }

std::optional<std::uint64_t> WebpKind::stated_size(ByteSpan d, const ReadLimits&) const {
    if (d.size() < 12) return std::nullopt;
    const auto size = load_le<std::uint32_t>(d.data() + 4) + std::uint64_t{8};
    return size <= d.size() ? std::optional(size) : std::nullopt;
}

bool WebpKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 16 && as_text(head.first(4)) == "RIFF" && as_text(head.subspan(8, 4)) == "WEBP";
}

Result<TextureLayout> WebpKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    SKIVET_TRY(const auto f, features_of(data));
    TextureLayout out;
    out.direct = false;
    out.desc.format = f.has_alpha ? Format::RGBA8 : Format::RGB8;
    out.desc.width = static_cast<std::uint32_t>(f.width);
    out.desc.height = static_cast<std::uint32_t>(f.height);
    SKIVET_CHECK(check_desc(out.desc, limits));
    SKIVET_CHECK(check_claim(out.desc, file_size, limits));
    out.surfaces.push_back({0, 0, 0, 0, out.desc.width, out.desc.height, 0, level_bytes(out.desc.format, out.desc.width, out.desc.height)});
    return out;
}

Result<Bytes> WebpKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const {
    Bytes out(static_cast<std::size_t>(surface.size));
    auto* to = reinterpret_cast<std::uint8_t*>(out.data());
    const bool alpha = layout.desc.format == Format::RGBA8;
    const int stride = static_cast<int>(surface.width) * (alpha ? 4 : 3);
    if (!(alpha ? WebPDecodeRGBAInto(raw(file), file.size(), to, out.size(), stride)
                : WebPDecodeRGBInto(raw(file), file.size(), to, out.size(), stride)))
        return fail(ErrorCode::damaged, "the picture data is cut off or damaged");
    return out;
}

Result<Bytes> WebpKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    SKIVET_TRY(const auto f, features_of(file));
    SKIVET_TRY(const auto fresh, compressed(edits.front().bytes, layout.desc, f.has_alpha != 0, f.format == 2));
    const auto old_chunks = chunks_of(file);
    if (old_chunks.empty() || old_chunks.front().first != "VP8X") return fresh;  // nothing but the picture
    ByteWriter out;
    out.put(file.first(12));
    bool placed = false;
    for (const auto& [type, chunk] : old_chunks) {
        if (!is_picture(type)) out.put(chunk);
        else if (!std::exchange(placed, true))
            for (const auto& [new_type, new_chunk] : chunks_of(fresh))
                if (is_picture(new_type)) out.put(new_chunk);
    }
    store_le(out.bytes.data() + 4, static_cast<std::uint32_t>(out.bytes.size() - 8));
    return std::move(out.bytes);
}

}  // namespace skivet
