#pragma once
// Positions inside ZIP records; section numbers are those of APPNOTE 6.3.10.
#include <cstdint>

namespace skivet::zip {

constexpr std::uint32_t local_signature = 0x04034b50;       // 4.3.7
constexpr std::uint32_t directory_signature = 0x02014b50;   // 4.3.12
constexpr std::uint32_t end_signature = 0x06054b50;         // 4.3.16
constexpr std::uint32_t end64_signature = 0x06064b50;       // 4.3.14
constexpr std::uint32_t locator_signature = 0x07064b50;     // 4.3.15
constexpr std::uint32_t descriptor_signature = 0x08074b50;  // 4.3.9.3

constexpr std::uint64_t local_size = 30, directory_size = 46, end_size = 22, end64_size = 56, locator_size = 20;
constexpr std::uint16_t flag_encrypted = 1, flag_descriptor = 8, flag_utf8 = 0x800;
constexpr std::uint16_t zip64_extra = 0x0001, unicode_path_extra = 0x7075;
constexpr std::uint32_t in_zip64 = 0xFFFFFFFF;

// local header
constexpr std::uint64_t local_flags = 6, local_method = 8, local_crc = 14, local_stored = 18, local_bytes = 22, local_name = 26,
                        local_extra = 28;
// central directory record
constexpr std::uint64_t dir_flags = 8, dir_method = 10, dir_crc = 16, dir_stored = 20, dir_bytes = 24, dir_name = 28, dir_extra = 30,
                        dir_comment = 32, dir_local_at = 42;

}  // namespace skivet::zip
