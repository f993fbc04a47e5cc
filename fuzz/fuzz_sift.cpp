// Any bytes looked through for textures and streams; what sifting opens is read and written in place. The same bytes are looked at with the
// raw lens, and a sheet is drafted from them.
#include <cstdlib>

#include "container/draft_sheet.h"
#include "container/sift.h"
#include "sheet/raw_lens.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto context = [] {
        ReadContext k;
        k.limits.inflated_bytes = 4 << 20;
        k.limits.entries = 2000;
        return k;
    }();
    if (size < 8) return 0;
    const auto raw = std::as_bytes(std::span(data + 8, size - 8));
    const Bytes bytes(raw.begin(), raw.end());
    Progress progress;
    SiftOptions options;
    options.stream_bytes = 1 << 20;
    options.all_bytes = 4 << 20;
    (void)sift(context, bytes, progress, options);
    if (const auto found = open_sifted(context, FileView::of(bytes, "x"), progress))
        for (std::size_t i = 0; i < std::min<std::size_t>(3, (*found)->entries().size()); ++i) {
            auto content = (*found)->read(i, context.limits);
            if (!content) continue;
            if (!content->empty()) (*content)[content->size() / 2] ^= std::byte{1};
            const auto plan = (*found)->plan(std::vector<Replacement>{{i, *content}}, context.limits);
            if (plan && !plan->files.empty() && !planned_bytes(plan->files[0], bytes)) std::abort();
        }
    Lens lens;
    lens.format = all_formats()[data[0] % all_formats().size()].format;
    lens.palette_bits = data[1] % 5 == 0 ? 8 : data[1] % 5 == 1 ? 4 : 0;
    lens.palette_at = data[2] * 3u;
    lens.width = data[3] + 1u;
    lens.height = data[4];
    lens.offset = data[5];
    lens.pitch = data[6] % 3 == 0 ? data[6] * 5u : 0;
    lens.tiling.tiling = static_cast<Tiling>(data[7] % 3);
    (void)picture_through(lens, bytes);
    (void)sheet_of(lens, bytes, "x", "x.y");
    if (data[7] == 32 && bytes.size() < 2000) (void)suggest_widths(lens, bytes), (void)suggest_formats(bytes, lens.offset);
    if (data[7] % 4 == 1) (void)draft_sheet(context, FileView::of(bytes, "x.bin"), progress);
    return 0;
}
