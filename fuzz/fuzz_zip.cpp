// Any bytes as a ZIP archive: open, read, plan a replacement, and what the plan gives must open again.
#include <cstdlib>

#include "container/zip.h"
#include "mutators.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const auto bytes = std::as_bytes(std::span(data, size));
    ReadLimits limits;
    limits.inflated_bytes = 16 << 20;
    const auto zip = ZipContainer::open(FileView::of(Bytes(bytes.begin(), bytes.end())), limits);
    if (!zip) return 0;
    (void)(*zip)->segments();
    for (std::size_t i = 0; i < std::min<std::size_t>(8, (*zip)->entries().size()); ++i) {
        (void)(*zip)->read_head(i, 256);
        (void)(*zip)->read(i, limits);
        const std::vector<Replacement> replacement = {{i, Bytes(33, std::byte{7})}};
        const auto plan = (*zip)->plan(replacement, limits);
        if (!plan || plan->files.empty()) continue;
        const auto after = planned_bytes(plan->files[0], bytes);
        if (!after) std::abort();
        const auto again = ZipContainer::open(FileView::of(*after), limits);
        if (!again || (*again)->entries().size() != (*zip)->entries().size()) std::abort();
    }
    return 0;
}

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    return fuzz::mutate_zip(data, size, most, seed);
}
