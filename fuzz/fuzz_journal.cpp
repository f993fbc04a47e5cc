#include "delivery/journal.h"

using namespace skivet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    // With a checksum that holds: the parser behind it is what is looked for.
    const auto raw = std::as_bytes(std::span(data, size));
    Bytes bytes(raw.begin(), raw.end());
    const auto digest = sha256(bytes);
    bytes.insert(bytes.end(), digest.begin(), digest.end());
    (void)read_journal(bytes);
    return 0;
}
