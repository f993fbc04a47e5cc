#pragma once
// An archive nobody described, small enough to make in a test: for drafting.
#include <fmt/format.h>

#include "base/bytes.h"
#include "support/temp_folder.h"

namespace skivet::test {

/// Twenty-four named entries with offsets and sizes: letters, numbers and zeros, as games have them; each by itself under `key`.
inline Bytes band_archive(const Bytes& key, std::string_view mark = "BAND") {
    ByteWriter w;
    w.put(mark);
    w.le(std::uint32_t{24});
    Bytes data;
    for (std::uint32_t i = 0; i < 24; ++i) {
        auto content = bytes_of(std::string(40 + 9 * i, static_cast<char>('a' + i)) + " a drum, a horn and a bell ");
        content.resize(content.size() + 200 + 31 * i);  // zeros
        for (std::size_t k = 0; k < content.size() && !key.empty(); ++k) content[k] ^= key[k % key.size()];
        auto name = fmt::format("band/drum_{}.txt", i);
        name.resize(32);
        w.put(name);
        w.le(static_cast<std::uint32_t>(8 + 24 * 40 + data.size()));
        w.le(static_cast<std::uint32_t>(content.size()));
        data.insert(data.end(), content.begin(), content.end());
    }
    w.put(data);
    return std::move(w.bytes);
}

/// The same with another mark, all of it under `key`.
inline Bytes hidden_band_archive(const Bytes& key) {
    auto out = band_archive({}, "CAGE");
    for (std::size_t k = 0; k < out.size(); ++k) out[k] ^= key[k % key.size()];
    return out;
}

}  // namespace skivet::test
