#pragma once
// Positions inside ZIP records; section numbers are those of APPNOTE 6.3.10.
#include <limits>

#include "base/pack.h"

namespace skivet::zip {

constexpr std::uint32_t local_signature = 0x04034b50;       // 4.3.7
constexpr std::uint32_t directory_signature = 0x02014b50;   // 4.3.12
constexpr std::uint32_t end_signature = 0x06054b50;         // 4.3.16
constexpr std::uint32_t end64_signature = 0x06064b50;       // 4.3.14
constexpr std::uint32_t locator_signature = 0x07064b50;     // 4.3.15
constexpr std::uint32_t descriptor_signature = 0x08074b50;  // 4.3.9.3; also the first bytes of a split archive (8.5.3)

constexpr std::uint64_t local_size = 30, directory_size = 46, end_size = 22, end64_size = 56, locator_size = 20;
constexpr std::uint16_t flag_encrypted = 1, flag_lzma_end_mark = 2, flag_descriptor = 8, flag_strong = 0x40, flag_utf8 = 0x800,
                        flag_masked = 0x2000;
constexpr std::uint16_t zip64_extra = 0x0001, unicode_path_extra = 0x7075, aes_extra = 0x9901;
constexpr std::uint32_t in_zip64 = 0xFFFFFFFF;
constexpr std::uint16_t in_zip64_count = 0xFFFF;
constexpr std::uint16_t method_aes = 99;  // 4.4.5: the real method is in the extra field 0x9901

// local header
constexpr std::uint64_t local_flags = 6, local_method = 8, local_time = 10, local_crc = 14, local_stored = 18, local_bytes = 22,
                        local_name = 26, local_extra = 28;
// central directory record
constexpr std::uint64_t dir_flags = 8, dir_method = 10, dir_time = 12, dir_crc = 16, dir_stored = 20, dir_bytes = 24, dir_name = 28,
                        dir_extra = 30, dir_comment = 32, dir_disk = 34, dir_local_at = 42;

inline std::uint32_t u32(ByteSpan d, std::uint64_t at) { return load_le<std::uint32_t>(d.data() + at); }
inline std::uint16_t u16(ByteSpan d, std::uint64_t at) { return load_le<std::uint16_t>(d.data() + at); }
inline std::uint64_t u64(ByteSpan d, std::uint64_t at) { return load_le<std::uint64_t>(d.data() + at); }

/// Where `size` bytes from `at` end. An archive may state any 64-bit size: one that no file can have ends at the largest offset a file
/// has, so that what is added to it cannot wrap around.
[[nodiscard]] constexpr std::uint64_t data_end(std::uint64_t at, std::uint64_t size) {
    constexpr std::uint64_t last = std::numeric_limits<std::int64_t>::max();
    return at > last || size > last - at ? last : at + size;
}

/// 4.4.5; nothing for methods we cannot unpack.
[[nodiscard]] std::optional<Packing> packing_of(std::uint16_t method);
[[nodiscard]] std::string_view method_name(std::uint16_t method);
/// The stream of method 14 has 4 bytes of its own before the properties (5.8.8).
constexpr std::size_t lzma_lead = 4;
[[nodiscard]] Result<Bytes> pack_method(std::uint16_t method, ByteSpan data, ByteSpan like);

/// The name of a record as UTF-8: flag, then the Unicode path field (4.6.9), then the host, then CP437.
[[nodiscard]] std::string entry_name(ByteSpan name, ByteSpan extra, std::uint16_t flags, std::uint8_t made_on);

/// Calls `use(id, field)` for every extra field (4.5.1); stops at one that does not fit.
template <class Use>
void each_extra(ByteSpan fields, Use use) {
    for (std::size_t at = 0; at + 4 <= fields.size();) {
        const auto id = u16(fields, at);
        const std::size_t size = u16(fields, at + 2);
        if (size > fields.size() - at - 4) break;
        use(id, fields.subspan(at + 4, size));
        at += 4 + size;
    }
}

}  // namespace skivet::zip
