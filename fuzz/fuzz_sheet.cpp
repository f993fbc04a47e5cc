// Any text as a sheet; a sheet that is sound reads its own text as an archive.
#include "container/sheet_container.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    auto sheet = parse_sheet(text, "fuzz.toml");
    if (!sheet || sheet->kind != SheetKind::container) return 0;
    const auto bytes = std::as_bytes(std::span(data, size));
    (void)SheetContainer::open(FileView::of(Bytes(bytes.begin(), bytes.end())), std::make_shared<const Sheet>(std::move(*sheet)), ReadLimits{});
    return 0;
}
