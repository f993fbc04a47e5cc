#include "bench/open_raster.h"

#include "container/zip.h"

namespace skivet {

bool is_open_raster(ByteSpan file) {
    // The name and the content of a stored first entry begin behind the 30 bytes of its header.
    constexpr std::string_view mark = "PK\x03\x04", name = "mimetype", type = "image/openraster";
    const auto has = [&](std::size_t at, std::string_view text) {
        const auto bytes = slice(file, at, text.size());
        return bytes && as_text(*bytes) == text;
    };
    return has(0, mark) && has(30, name) && has(30 + name.size(), type);
}

Result<Bytes> merged_picture(ByteSpan file, const ReadLimits& limits) {
    auto archive = ZipContainer::open(FileView::over(file), limits);
    if (!archive) return fail(std::move(archive).error().within("OpenRaster"));
    const auto& entries = (*archive)->entries();
    for (std::size_t i = 0; i < entries.size(); ++i)
        if (entries[i].path == "mergedimage.png") {
            auto picture = (*archive)->read(i, limits);
            if (!picture) return fail(std::move(picture).error().within("mergedimage.png"));
            return picture;
        }
    return fail(Error{ErrorCode::missing,
                      "the file has layers but no mergedimage.png",
                      {"OpenRaster"},
                      {},
                      "Save it with a program that writes one, or export it as PNG"});
}

}  // namespace skivet
