// Any text as a sheet; a sheet that is sound reads its own text as an archive, a wrapped file or a texture, and writes to it.
#include "container/sheet_container.h"
#include "mutators.h"
#include "sheet/texture_sheet.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    auto sheet = parse_sheet(text, "fuzz.toml");
    if (!sheet) return 0;
    ReadContext context;
    context.limits.inflated_bytes = 8 << 20;
    context.limits.entries = 5000;
    const auto raw = std::as_bytes(std::span(data, size));
    const Bytes bytes(raw.begin(), raw.end());
    if (sheet->kind == SheetKind::texture) {
        context.limits.image_side = 2048;
        context.limits.image_texels = 1 << 20;
        context.limits.layers = 16;
        const SheetTextureKind kind(std::move(*sheet));
        const auto layout = kind.layout(bytes, bytes.size(), context.limits);
        (void)kind.spread(bytes, "a/b.c", context.limits);
        if (!layout || layout->damage) return 0;
        for (std::size_t i = 0; i < std::min<std::size_t>(3, layout->surfaces.size()); ++i)
            if (auto level = kind.bytes(bytes, *layout, layout->surfaces[i]))
                (void)kind.replace(bytes, *layout, std::vector<SurfaceEdit>{{i, std::move(*level)}});
        return 0;
    }
    const auto shared = std::make_shared<const Sheet>(std::move(*sheet));
    const auto kind = shared->kind == SheetKind::wrapper ? sheet_wrapper_kind(shared) : sheet_kind(shared);
    const auto opened = kind->open(context, FileView::of(bytes, "x"));
    if (!opened) return 0;
    for (std::size_t i = 0; i < std::min<std::size_t>(3, (*opened)->entries().size()); ++i) {
        (void)(*opened)->read(i, context.limits);
        (void)(*opened)->plan(std::vector<Replacement>{{i, Bytes(50)}}, context.limits);
        Changes changes;
        changes.added.push_back({"n/new", Bytes(50), i});
        changes.renamed.push_back({i, "n/other"});
        (void)(*opened)->plan_changes(changes, context.limits);
    }
    return 0;
}

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    return fuzz::mutate_sheet(data, size, most, seed);
}
