#include "container/zip_records.h"

#include <algorithm>

#include "container/zip_format.h"

namespace skivet::zip {

Bytes without_zip64(ByteSpan fields) {
    Bytes out;
    std::size_t at = 0;
    while (at + 4 <= fields.size()) {
        const std::size_t size = u16(fields, at + 2);
        if (size > fields.size() - at - 4) break;
        if (u16(fields, at) != zip64_extra)
            out.insert(out.end(), fields.begin() + static_cast<std::ptrdiff_t>(at),
                       fields.begin() + static_cast<std::ptrdiff_t>(at + 4 + size));
        at += 4 + size;
    }
    out.insert(out.end(), fields.begin() + static_cast<std::ptrdiff_t>(at), fields.end());  // padding some writers leave
    return out;
}

Bytes moved_record(ByteSpan old, std::uint64_t offset, std::uint64_t size, std::uint64_t stored) {
    const std::size_t name = u16(old, dir_name), extra_size = u16(old, dir_extra);
    auto extra = without_zip64(old.subspan(directory_size + name, extra_size));
    ByteWriter field;
    const std::uint64_t numbers[] = {size, stored, offset};
    std::uint16_t wide = 0;
    for (const auto n : numbers) wide = static_cast<std::uint16_t>(wide + (n >= in_zip64));
    if (wide > 0) {
        field.le(zip64_extra);
        field.le(static_cast<std::uint16_t>(8 * wide));
        for (const auto n : numbers)
            if (n >= in_zip64) field.le(n);
    }
    Bytes out(old.begin(), old.begin() + static_cast<std::ptrdiff_t>(directory_size + name));
    out.insert(out.end(), field.bytes.begin(), field.bytes.end());
    out.insert(out.end(), extra.begin(), extra.end());
    out.insert(out.end(), old.begin() + static_cast<std::ptrdiff_t>(directory_size + name + extra_size), old.end());
    const auto narrow = [](std::uint64_t n) { return n >= in_zip64 ? in_zip64 : static_cast<std::uint32_t>(n); };
    store_le(out.data() + dir_stored, narrow(stored));
    store_le(out.data() + dir_bytes, narrow(size));
    store_le(out.data() + dir_extra, static_cast<std::uint16_t>(field.bytes.size() + extra.size()));
    store_le(out.data() + dir_local_at, narrow(offset));
    return out;
}

bool record_holds(ByteSpan record, RecordOf kind) {
    const bool local = kind == RecordOf::local;
    const auto fixed = static_cast<std::size_t>(local ? local_size : directory_size);
    if (record.size() < fixed || u32(record, 0) != (local ? local_signature : directory_signature)) return false;
    const auto name = static_cast<std::size_t>(local ? local_name : dir_name),
               extra = static_cast<std::size_t>(local ? local_extra : dir_extra);
    return fixed + u16(record, name) + u16(record, extra) <= record.size();
}

Bytes with_name(ByteSpan record, RecordOf kind, std::string_view name) {
    const bool local = kind == RecordOf::local;
    const auto fixed = static_cast<std::size_t>(local ? local_size : directory_size);
    const auto name_at = static_cast<std::size_t>(local ? local_name : dir_name),
               extra_at = static_cast<std::size_t>(local ? local_extra : dir_extra);
    const std::size_t old_name = u16(record, name_at), old_extra = u16(record, extra_at);
    Bytes extra;
    std::size_t kept = 0;
    const auto fields = record.subspan(fixed + old_name, old_extra);
    each_extra(fields, [&](std::uint16_t id, ByteSpan field) {
        kept += 4 + field.size();
        if (id == unicode_path_extra) return;
        extra.insert(extra.end(), field.data() - 4, field.data() + field.size());
    });
    extra.insert(extra.end(), fields.begin() + static_cast<std::ptrdiff_t>(kept), fields.end());  // padding some writers leave
    Bytes out(record.begin(), record.begin() + static_cast<std::ptrdiff_t>(fixed));
    const auto text = as_bytes(name);
    out.insert(out.end(), text.begin(), text.end());
    out.insert(out.end(), extra.begin(), extra.end());
    out.insert(out.end(), record.begin() + static_cast<std::ptrdiff_t>(fixed + old_name + old_extra), record.end());
    store_le(out.data() + name_at, static_cast<std::uint16_t>(name.size()));
    store_le(out.data() + extra_at, static_cast<std::uint16_t>(extra.size()));
    if (std::any_of(name.begin(), name.end(), [](char c) { return static_cast<unsigned char>(c) >= 0x80; })) {
        const auto flags_at = local ? local_flags : dir_flags;
        store_le(out.data() + flags_at, static_cast<std::uint16_t>(u16(record, flags_at) | flag_utf8));
    }
    return out;
}

Bytes plain_record(RecordOf kind) {
    constexpr std::uint16_t version = 20, first_day = 0x21;  // what deflate needs (4.4.3); 1 January 1980
    Bytes out(static_cast<std::size_t>(kind == RecordOf::local ? local_size : directory_size));
    const bool local = kind == RecordOf::local;
    store_le(out.data(), local ? local_signature : directory_signature);
    if (!local) store_le(out.data() + 4, version);
    store_le(out.data() + (local ? 4 : 6), version);
    store_le(out.data() + (local ? local_method : dir_method), std::uint16_t{8});
    store_le(out.data() + (local ? local_time : dir_time) + 2, first_day);
    return out;
}

}  // namespace skivet::zip
