// Any bytes as a parcel, its manifest or a change. The first byte chooses which; of what can be read as a change two are laid one above the
// other, which must come out as a texture of the same size.
#include <cstdlib>

#include "parcel/manifest.h"
#include "parcel/stack.h"
#include "texture/dds.h"

using namespace skivet;

namespace {

TextureFile texture() {
    TextureDesc desc;
    desc.format = Format::BC1;
    desc.width = desc.height = 16;
    desc.mips = 5;
    Bytes payload(128 + 32 + 8 + 8 + 8);
    for (std::size_t i = 0; i < payload.size(); ++i) payload[i] = static_cast<std::byte>(i * 7);
    auto out = TextureFile::open(TextureKinds::standard(), *write_dds(desc, payload), "a.dds", ReadLimits{});
    if (!out) std::abort();
    return std::move(*out);
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto original = texture();
    if (size < 2) return 0;
    ReadLimits limits;
    limits.image_side = 256;
    limits.image_texels = 1 << 14;
    limits.layers = 8;
    limits.inflated_bytes = 1 << 20;
    limits.entries = 1000;
    const auto rest = std::as_bytes(std::span(data + 2, size - 2));
    switch (data[0] % 3) {
        case 0: {
            const auto parcel = read_parcel(FileView::over(rest, "x.parcel"), limits);
            if (!parcel) return 0;
            // What was read can be written, and is the same again.
            const auto again = write_parcel(*parcel);
            if (!again) return 0;
            const auto back = read_parcel(FileView::of(*again, "x.parcel"), limits);
            if (!back || back->textures.size() != parcel->textures.size()) std::abort();
            return 0;
        }
        case 1: {
            if (const auto manifest = read_manifest(std::string_view(reinterpret_cast<const char*>(rest.data()), rest.size()), limits))
                if (manifest->files.size() != manifest->parcel.textures.size()) std::abort();
            return 0;
        }
        default: {
            const auto cut = std::min<std::size_t>(data[1] * 8, rest.size());
            std::vector<TextureLayer> layers;
            for (const auto part : {rest.first(cut), rest.subspan(cut)})
                if (auto change = read_change(part, original.layout.desc)) {
                    if (!misfits(original, *change)) std::abort();
                    layers.push_back({std::move(*change), {}});
                }
            const auto all = compose(original, layers);
            if (all && all->file.size() != original.file.size()) std::abort();
            return 0;
        }
    }
}
