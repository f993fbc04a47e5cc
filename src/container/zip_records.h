#pragma once
// Records of a ZIP archive as bytes: made from the old ones, so that every field nobody asked to change stays.
#include <string_view>

#include "base/bytes.h"

namespace skivet::zip {

/// `fields` without the ZIP64 field (sizes and offsets are stated anew).
[[nodiscard]] Bytes without_zip64(ByteSpan fields);
/// The directory's record of an entry that only lies elsewhere. Numbers that need 64 bits are stated anew. `offset` counts from the
/// archive's beginning.
[[nodiscard]] Bytes moved_record(ByteSpan old, std::uint64_t offset, std::uint64_t size, std::uint64_t stored);

/// Local headers and the directory's records have their names at other places.
enum class RecordOf { local, directory };
/// Whether a record has its mark and everything it says it has. What is planned from one must be looked at again: the file may have been
/// written meanwhile.
[[nodiscard]] bool record_holds(ByteSpan record, RecordOf kind);
/// The record with another name, UTF-8 (flag bit 11 where it is not ASCII, 4.4.4), and without a Unicode path field, which would go on
/// saying the old one (4.6.9).
[[nodiscard]] Bytes with_name(ByteSpan record, RecordOf kind, std::string_view name);
/// A record without a name and with nothing that is not needed: deflate, no times, no attributes.
[[nodiscard]] Bytes plain_record(RecordOf kind);

}  // namespace skivet::zip
