#pragma once
#include <filesystem>

#include "base/bytes.h"

namespace skivet {

/// Writes a file of our own (never a game file: those go through delivery) beside its final name and renames it, so that a reader
/// or a crash never sees half of it.
[[nodiscard]] Status write_file(const std::filesystem::path& path, ByteSpan data);
[[nodiscard]] Result<Bytes> read_file(const std::filesystem::path& path, std::uint64_t limit = 2ull << 30);

}  // namespace skivet
