// Any bytes as whatever archive they look like: tar, packed files, 7z, cpio, ISO 9660, ZIP, one inside the other.
#include <cstdlib>

#include "container/kinds.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto context = [] {
        ReadContext k;
        k.limits.inflated_bytes = 4 << 20;
        k.limits.entries = 2000;
        return k;
    }();
    const auto bytes = std::as_bytes(std::span(data, size));
    const auto archive = open_container(context, FileView::of(Bytes(bytes.begin(), bytes.end()), "x.tar"));
    if (!archive) return 0;
    (void)(*archive)->segments();
    (void)(*archive)->plan_compact(context.limits);
    for (std::size_t i = 0; i < std::min<std::size_t>(4, (*archive)->entries().size()); ++i) {
        (void)(*archive)->read_head(i, 256);
        (void)(*archive)->read(i, context.limits);
        const auto plan = (*archive)->plan(std::vector<Replacement>{{i, Bytes(700, std::byte{7})}}, context.limits);
        if (plan && !plan->files.empty() && !planned_bytes(plan->files[0], bytes)) std::abort();
    }
    return 0;
}
