// Any bytes as a texture file or picture, and as what the shipped texture sheets describe; decode every surface, put a changed one back.
// With SKIVET_FUZZ_KIND=png (an extension) in the environment only as that.
#include <cstdlib>

#include "container/kinds.h"
#include "mutators.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const ReadContext context = [] {
        ReadContext k;
        const char* only = std::getenv("SKIVET_FUZZ_KIND");
        if (!only) {
            (void)add_sheets_in(k, SKIVET_SHEETS);
            return k;
        }
        const auto all = k.textures.all();
        k.textures = {};
        for (const auto& kind : all)
            for (const auto& extension : kind->traits().extensions)
                if (extension == only) k.textures.add(kind);
        if (k.textures.all().empty()) std::abort();
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

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    if (size >= 4 && std::memcmp(data, "DDS ", 4) == 0) return fuzz::mutate_dds(data, size, most, seed);
    if (size >= 4 && std::memcmp(data, "\xABKTX", 4) == 0 && data[5] == '2') return fuzz::mutate_ktx2(data, size, most, seed);
    return LLVMFuzzerMutate(data, size, most);
}
