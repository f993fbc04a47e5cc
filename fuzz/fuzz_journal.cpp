#include "delivery/journal.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    // With a length and a checksum that hold: the parser behind them is what is looked for.
    const auto raw = std::as_bytes(std::span(data, size));
    ByteWriter out;
    out.put("SKJ2");
    out.le(static_cast<std::uint32_t>(raw.size()));
    out.put(raw);
    const auto digest = sha256(out.bytes);
    out.put(digest);
    out.bytes.resize(out.bytes.size() + 32);
    (void)read_description(out.bytes);
    (void)read_description(raw);
    return 0;
}
