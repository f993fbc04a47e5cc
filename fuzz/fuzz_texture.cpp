// Any bytes as a texture file or picture, and as what the shipped texture sheets describe; decode every surface, put a changed one back.
#include "container/kinds.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const ReadContext context = [] {
        ReadContext k;
        (void)add_sheets_in(k, SKIVET_SHEETS);
        return k;
    }();
    ReadLimits limits;
    limits.image_texels = 1 << 20;
    const auto bytes = std::as_bytes(std::span(data, size));
    const auto texture = TextureFile::open(context.textures, Bytes(bytes.begin(), bytes.end()), "x.tga", limits);
    if (!texture) return 0;
    std::size_t left = 40;
    for (const auto& s : texture->layout.surfaces) {
        if (left-- == 0) break;
        (void)texture->kind->decode(texture->file, texture->layout, s);
        (void)texture->kind->decode_small(texture->file, texture->layout, s, 4);
    }
    (void)texture->kind->replace(texture->file, texture->layout, {});
    if (texture->layout.surfaces.empty() || texture->layout.surfaces.front().size > (1u << 20)) return 0;
    if (auto changed = texture->kind->bytes(texture->file, texture->layout, texture->layout.surfaces.front());
        changed && !changed->empty()) {
        changed->front() ^= std::byte{0x80};
        const SurfaceEdit edit{0, std::move(*changed)};
        (void)texture->kind->replace(texture->file, texture->layout, std::span(&edit, 1));
    }
    return 0;
}
