// The first byte chooses a packing, the second, for those a sheet describes, its parameters. The rest is unpacked as a stream, and packed
// and unpacked as content, which must come back.
#include <cstdlib>

#include "base/lzss.h"
#include "base/pack.h"
#include "base/runs.h"

using namespace skivet;

namespace {

constexpr std::uint64_t most = 1 << 20;

LzssSpec lzss_of(unsigned choice) {
    LzssSpec spec;
    if (choice & 1) spec.back = true;
    if (choice & 2) spec.literal = false;
    if (choice & 4) spec.lowest_first = false;
    if (choice & 8) spec.big = true;
    if (choice & 16) spec.start = 4078, spec.fill = std::byte{0x20};
    if (choice & 32) spec.window = 256, spec.place = {{0, 8}}, spec.length = {{8, 8}}, spec.shortest = 2;
    if (choice & 64) spec.window = 65536, spec.pair_bytes = 3, spec.place = {{0, 16}}, spec.length = {{16, 8}};
    return spec;
}

RunsSpec runs_of(unsigned choice) {
    using Does = RunsSpec::Does;
    if (choice % 3 == 0) return {1 + choice / 3 % 4, {{0, 127, Does::copy, 1, 1}, {128, 255, Does::repeat, 1, 1}}};
    if (choice % 3 == 1) return {1, {{0, 127, Does::copy, 1, 1}, {128, 128, Does::nothing, 0, 0}, {129, 255, Does::repeat, 128, -1}}};
    return {1, {{0, 191, Does::itself, 1, 0}, {192, 255, Does::repeat, 0, 1}}};
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 2) return 0;
    const auto raw = std::as_bytes(std::span(data + 2, size - 2));
    const Bytes bytes(raw.begin(), raw.end());
    ReadLimits limits;
    limits.inflated_bytes = most;
    const unsigned which = data[0] % 5;
    if (which == 0) {
        const auto spec = lzss_of(data[1]);
        if (!wrong_in(spec).empty()) return 0;
        (void)unpack_lzss(spec, bytes, std::nullopt, most);
        (void)unpack_lzss(spec, bytes, 1000, most);
        const auto back = unpack_lzss(spec, pack_lzss(spec, bytes), bytes.size(), most);
        if (!back || *back != bytes) std::abort();
        return 0;
    }
    if (which == 1) {
        const auto spec = runs_of(data[1]);
        if (!wrong_in(spec).empty()) std::abort();
        (void)unpack_runs(spec, bytes, std::nullopt, most);
        const auto packed = pack_runs(spec, bytes);
        if (!packed) return 0;
        const auto back = unpack_runs(spec, *packed, bytes.size(), most);
        if (!back || *back != bytes) std::abort();
        return 0;
    }
    const Packing packing = which == 2 ? Packing::lzo1x : which == 3 ? Packing::snappy : Packing::brotli;
    (void)unpack(packing, bytes, std::uint64_t{data[1]} * 100, limits);
    (void)unpack_prefix(packing, bytes, data[1]);
    if (packing == Packing::brotli) (void)unpack_stream(packing, bytes, most);
    const auto packed = pack(packing, bytes);
    if (!packed) std::abort();
    const auto back = unpack(packing, *packed, bytes.size(), limits);
    if (!back || *back != bytes) std::abort();
    return 0;
}
