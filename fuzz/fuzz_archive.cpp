// Any bytes as whatever archive they look like: tar, packed files, 7z, cpio, ISO 9660, ZIP, one inside the other. What was put into a tar
// or cpio is there afterwards, and nothing else came or went.
#include <cstdlib>

#include "container/kinds.h"

using namespace skivet;

namespace {

/// Whether an archive has so many entries, and one of them what was put there.
bool holds(const Bytes& archive, const ReadContext& context, std::size_t count, std::size_t entry, std::size_t size) {
    const auto opened = open_container(context, FileView::of(archive, "x.tar"));
    if (!opened || (*opened)->entries().size() != count) return false;
    const auto read = (*opened)->read(entry, context.limits);
    return read && *read == Bytes(size, std::byte{7});
}

}  // namespace

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
    const bool in_order = ((*archive)->kind() == "tar" || (*archive)->kind() == "cpio") && (*archive)->problems().empty();
    if (in_order && !(*archive)->entries().empty()) {
        const auto count = (*archive)->entries().size();
        const auto plan = (*archive)->plan_changes({{}, {{"in/fresh", Bytes(300, std::byte{7}), 0}}, {}, {}}, context.limits);
        if (plan) {
            const auto changed = planned_bytes(plan->files.at(0), bytes);
            if (!changed || !holds(*changed, context, count + 1, count, 300)) std::abort();
        }
    }
    if (in_order) {
        // Several at once, the last one first.
        std::vector<Replacement> several;
        for (auto i = std::min<std::size_t>(4, (*archive)->entries().size()); i-- > 0;) several.push_back({i, Bytes(700, std::byte{7})});
        const auto plan = (*archive)->plan(several, context.limits);
        if (plan && !plan->files.empty()) {
            const auto changed = planned_bytes(plan->files[0], bytes);
            if (!changed) std::abort();
            for (const auto& r : several)
                if (!holds(*changed, context, (*archive)->entries().size(), r.entry, 700)) std::abort();
        }
    }
    for (std::size_t i = 0; i < std::min<std::size_t>(4, (*archive)->entries().size()); ++i) {
        (void)(*archive)->read_head(i, 256);
        (void)(*archive)->read(i, context.limits);
        const auto plan = (*archive)->plan(std::vector<Replacement>{{i, Bytes(700, std::byte{7})}}, context.limits);
        if (!plan || plan->files.empty()) continue;
        const auto changed = planned_bytes(plan->files[0], bytes);
        if (!changed) std::abort();
        if (in_order && !holds(*changed, context, (*archive)->entries().size(), i, 700)) std::abort();
    }
    return 0;
}
