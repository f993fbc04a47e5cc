// Any bytes as a crate under the shipped sheet, with the checksum and the size field made right so that the records are reached.
#include "base/file_write.h"
#include "base/hash.h"
#include "container/sheet_container.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto sheet =
        std::make_shared<const Sheet>(*parse_sheet(as_text(*read_file(std::string(SKIVET_SHEETS) + "/fair-crate.toml")), "s"));
    if (size < 40) return 0;
    const auto raw = std::as_bytes(std::span(data, size));
    Bytes bytes(raw.begin(), raw.end());
    std::memcpy(bytes.data(), "FCRATE01", 8);
    store_le(bytes.data() + 32, std::uint64_t{size});
    const auto at = load_le<std::uint64_t>(bytes.data() + 16);
    const auto length = load_le<std::uint32_t>(bytes.data() + 24);
    if (const auto table = slice(bytes, at, length)) store_le(bytes.data() + 28, crc32(*table));
    ReadContext context;
    context.limits.inflated_bytes = 16 << 20;
    const auto& limits = context.limits;
    const auto crate = SheetContainer::open(FileView::of(bytes), sheet, context);
    if (!crate) return 0;
    (void)(*crate)->segments();
    for (std::size_t i = 0; i < std::min<std::size_t>(8, (*crate)->entries().size()); ++i) {
        (void)(*crate)->read(i, limits);
        const std::vector<Replacement> replacement = {{i, Bytes(70, std::byte{7})}};
        const auto plan = (*crate)->plan(replacement, limits);
        if (plan && !plan->files.empty() && !planned_bytes(plan->files[0], bytes)) std::abort();
    }
    return 0;
}
