#include "container/zip.h"

#include <fmt/format.h>

#include "base/deflate.h"
#include "base/hash.h"
#include "base/text.h"
#include "container/zip_format.h"

namespace skivet {
namespace {

using namespace zip;

std::uint32_t u32(ByteSpan d, std::uint64_t at) { return load_le<std::uint32_t>(d.data() + at); }
std::uint16_t u16(ByteSpan d, std::uint64_t at) { return load_le<std::uint16_t>(d.data() + at); }
std::uint64_t u64(ByteSpan d, std::uint64_t at) { return load_le<std::uint64_t>(d.data() + at); }

std::string_view method_name(std::uint16_t method) {
    switch (method) {  // 4.4.5
        case 0: return "stored";
        case 8: return "deflate";
        case 9: return "deflate64";
        case 12: return "bzip2";
        case 14: return "lzma";
        case 93: return "zstd";
        case 95: return "xz";
        default: return "unknown";
    }
}

/// The name of a directory record as UTF-8: flag, then the Info-ZIP Unicode path field (4.6.9), then the host, then CP437.
std::string entry_name(ByteSpan name, ByteSpan extra, std::uint16_t flags, std::uint8_t made_on) {
    auto text = as_text(name);
    if (flags & flag_utf8 && is_utf8(text)) return text;
    for (std::size_t at = 0; at + 4 <= extra.size();) {
        const auto id = u16(extra, at), size = u16(extra, at + 2);
        if (size > extra.size() - at - 4) break;
        if (id == unicode_path_extra && size > 5 && u32(extra, at + 5) == crc32(name)) return as_text(extra.subspan(at + 9, size - 5u));
        at += 4u + size;
    }
    // Programs on Unix write the system's own encoding without a flag, and that has long been UTF-8.
    constexpr std::uint8_t host_unix = 3;  // 4.4.2.2
    if (made_on == host_unix && is_utf8(text)) return text;
    return cp437_to_utf8(text);
}

}  // namespace

bool ZipContainer::recognize(ByteSpan file) { return find_tail(file).has_value(); }

Result<ZipContainer::Tail> ZipContainer::find_tail(ByteSpan file) {
    if (file.size() < end_size) return fail(ErrorCode::unsupported, "too short for a ZIP archive");
    // The record is looked for from the end; its comment must reach exactly to the end of the file, which a signature inside a
    // comment does not pass.
    const auto first = file.size() - end_size;
    const auto lowest = first > 0xFFFF ? first - 0xFFFF : 0;
    for (auto at = first;; --at) {
        if (u32(file, at) == end_signature && at + end_size + u16(file, at + 20) == file.size()) {
            Tail tail;
            tail.end_at = at;
            tail.count = u16(file, at + 10);
            tail.directory_size = u32(file, at + 12);
            std::uint64_t offset = u32(file, at + 16);
            std::uint64_t directory_end = at;
            if (at >= locator_size && u32(file, at - locator_size) == locator_signature) {
                const auto search_end = at - locator_size;
                // The stated position does not count data before the archive; the record lies right before its locator.
                auto end64 = u64(file, search_end + 8);
                if (end64 > search_end || search_end - end64 < end64_size || u32(file, end64) != end64_signature)
                    end64 = search_end >= end64_size ? search_end - end64_size : 0;
                if (search_end < end64_size || u32(file, end64) != end64_signature)
                    return fail_at(ErrorCode::damaged, search_end, "the ZIP64 end record is not where its locator points");
                tail.end64_at = end64;
                tail.count = u64(file, end64 + 32);
                tail.directory_size = u64(file, end64 + 40);
                offset = u64(file, end64 + 48);
                directory_end = end64;
            }
            if (tail.directory_size > directory_end)
                return fail_at(ErrorCode::damaged, at, fmt::format("the directory is said to have {} bytes, only {} lie before it",
                                                                   grouped(tail.directory_size), grouped(directory_end)));
            tail.directory_at = directory_end - tail.directory_size;
            if (offset > tail.directory_at)
                return fail_at(ErrorCode::damaged, at, fmt::format("the directory is said to be at {}, behind its end record", hex(offset)));
            tail.base = tail.directory_at - offset;
            // Some writers leave room between directory and end record; then the stated offset is right and nothing lies before.
            if (tail.base > 0 && tail.directory_size >= 4 && u32(file, tail.directory_at) != directory_signature &&
                u32(file, offset) == directory_signature) {
                tail.directory_at = offset;
                tail.base = 0;
            }
            return tail;
        }
        if (at == lowest) break;
    }
    return fail(ErrorCode::unsupported, "no ZIP end record", "The file is cut off or no ZIP archive");
}

Result<std::unique_ptr<Container>> ZipContainer::open(FileView view, const ReadLimits& limits) {
    auto zip = std::make_unique<ZipContainer>();
    zip->file_ = std::move(view);
    SKIVET_TRY(const auto file, zip->file_.bytes());
    SKIVET_TRY(zip->tail_, find_tail(file));
    SKIVET_CHECK(zip->read_directory(file, limits));
    zip->recognized_by_ = fmt::format("its end record at {}", hex(zip->tail_.end_at));
    return zip;
}

Status ZipContainer::read_directory(ByteSpan file, const ReadLimits& limits) {
    if (tail_.directory_size > limits.directory_bytes)
        return fail_at(ErrorCode::limit, tail_.directory_at, fmt::format("a directory of {}", human_bytes(tail_.directory_size)));
    if (tail_.count > limits.entries || tail_.count > tail_.directory_size / directory_size)
        return fail_at(ErrorCode::damaged, tail_.end_at, fmt::format("{} entries cannot lie in a directory of {} bytes", grouped(tail_.count),
                                                                     grouped(tail_.directory_size)));
    const auto directory = file.subspan(static_cast<std::size_t>(tail_.directory_at), static_cast<std::size_t>(tail_.directory_size));
    entries_.reserve(static_cast<std::size_t>(tail_.count));
    records_.reserve(static_cast<std::size_t>(tail_.count));
    std::uint64_t at = 0;
    for (std::uint64_t i = 0; i < tail_.count; ++i) {
        const auto wrong = [&](std::string what) {
            return fail(Error{ErrorCode::damaged, std::move(what), {"central directory", fmt::format("entry {}", i + 1)}, tail_.directory_at + at, {}});
        };
        if (directory.size() - at < directory_size) return wrong(fmt::format("needs {} bytes, has {}", directory_size, directory.size() - at));
        const auto record = directory.subspan(static_cast<std::size_t>(at));
        if (u32(record, 0) != directory_signature) return wrong("no directory record where one must be");
        const std::uint64_t name = u16(record, dir_name), extra = u16(record, dir_extra), comment = u16(record, dir_comment);
        const auto total = directory_size + name + extra + comment;
        if (total > record.size()) return wrong(fmt::format("needs {} bytes, has {}", total, record.size()));
        Record r;
        r.directory_at = tail_.directory_at + at;
        r.directory_size = static_cast<std::uint32_t>(total);
        r.flags = u16(record, dir_flags);
        r.method = u16(record, dir_method);
        r.crc = u32(record, dir_crc);
        Entry e;
        e.stored = u32(record, dir_stored);
        e.size = u32(record, dir_bytes);
        std::uint64_t local = u32(record, dir_local_at);
        const auto fields = record.subspan(static_cast<std::size_t>(directory_size + name), static_cast<std::size_t>(extra));
        for (std::size_t f = 0; f + 4 <= fields.size();) {  // 4.5.3: only the numbers that did not fit, in this order
            const auto id = u16(fields, f);
            const std::size_t size = u16(fields, f + 2);
            if (size > fields.size() - f - 4) break;
            if (id == zip64_extra) {
                std::size_t p = f + 4;
                for (auto* value : {&e.size, &e.stored, &local})
                    if (*value == in_zip64) {
                        if (p + 8 > f + 4 + size) return wrong("its ZIP64 field is too short");
                        *value = u64(fields, p);
                        p += 8;
                    }
            }
            f += 4 + size;
        }
        if (local > tail_.directory_at || tail_.base + local > tail_.directory_at)
            return wrong(fmt::format("its data is said to be at {}, behind the directory", hex(local)));
        r.local_at = tail_.base + local;
        e.at = r.local_at;
        e.method = method_name(r.method);
        e.path = entry_name(record.subspan(static_cast<std::size_t>(directory_size), static_cast<std::size_t>(name)), fields, r.flags, static_cast<std::uint8_t>(record[5]));
        at += total;
        if (!e.path.empty() && e.path.back() == '/' && e.size == 0) continue;  // a folder's own record
        entries_.push_back(std::move(e));
        records_.push_back(r);
    }
    return {};
}

Result<ZipContainer::Local> ZipContainer::local_header(ByteSpan file, std::size_t entry) const {
    const auto at = records_[entry].local_at;
    auto header = slice(file, at, local_size);
    if (!header || u32(*header, 0) != local_signature)
        return fail_at(ErrorCode::damaged, at, "no local header where the directory points", "The archive is damaged here; other entries can still be used");
    Local local;
    local.header_size = static_cast<std::uint32_t>(local_size + u16(*header, local_name) + u16(*header, local_extra));
    local.data_at = at + local.header_size;
    if (local.data_at > tail_.directory_at)
        return fail_at(ErrorCode::damaged, at, fmt::format("local header: needs {} bytes, has {}", local.header_size, tail_.directory_at - at));
    return local;
}

Result<ByteSpan> ZipContainer::packed(ByteSpan file, std::size_t entry) const {
    const auto& record = records_[entry];
    if (record.flags & flag_encrypted)
        return fail_at(ErrorCode::unsupported, record.local_at, "the entry is encrypted", "ZIP encryption is not supported");
    SKIVET_TRY(const auto local, local_header(file, entry));
    if (local.data_at > tail_.directory_at || entries_[entry].stored > tail_.directory_at - local.data_at)
        return fail_at(ErrorCode::damaged, local.data_at, fmt::format("needs {} bytes, has {}", grouped(entries_[entry].stored),
                                                                      grouped(tail_.directory_at - std::min(local.data_at, tail_.directory_at))));
    return slice(file, local.data_at, entries_[entry].stored);
}

Result<Bytes> ZipContainer::read(std::size_t entry, const ReadLimits& limits) const {
    const auto& e = entries_[entry];
    const auto named = [&](Error error) { return fail(in_entry(*this, entry, std::move(error))); };
    SKIVET_TRY(const auto file, file_.bytes());
    auto data = packed(file, entry);
    if (!data) return named(std::move(data).error());
    Bytes out;
    if (records_[entry].method == 0) {
        if (e.size != e.stored) return named(Error{ErrorCode::damaged, fmt::format("stored, but {} bytes became {}", grouped(e.size), grouped(e.stored)), {}, e.at, {}});
        if (e.size > limits.inflated_bytes) return named(Error{ErrorCode::limit, fmt::format("{} are more than the limit", human_bytes(e.size)), {}, e.at, {}});
        out.assign(data->begin(), data->end());
    } else if (records_[entry].method == 8) {
        auto unpacked = inflate(*data, e.size, limits);
        if (!unpacked) {
            auto error = std::move(unpacked).error();
            error.at = e.at;
            return named(std::move(error));
        }
        out = std::move(*unpacked);
    } else {
        return named(Error{ErrorCode::unsupported, fmt::format("packed with method {} ({})", records_[entry].method, e.method), {}, e.at,
                           "Only stored and deflate entries can be read"});
    }
    if (const auto sum = crc32(out); sum != records_[entry].crc)
        return named(Error{ErrorCode::damaged, fmt::format("CRC-32 is {:08x}, the directory says {:08x}", sum, records_[entry].crc), {}, e.at,
                           "The entry is damaged; other entries can still be used"});
    return out;
}

Result<Bytes> ZipContainer::read_head(std::size_t entry, std::size_t count) const {
    SKIVET_TRY(const auto file, file_.bytes());
    auto data = packed(file, entry);
    if (!data) return fail(in_entry(*this, entry, std::move(data).error()));
    if (records_[entry].method == 0) {
        const auto head = data->first(std::min(count, data->size()));
        return Bytes(head.begin(), head.end());
    }
    if (records_[entry].method == 8) return inflate_prefix(*data, std::min<std::size_t>(count, static_cast<std::size_t>(std::min<std::uint64_t>(entries_[entry].size, count))));
    return fail(in_entry(*this, entry, Error{ErrorCode::unsupported, fmt::format("packed with method {} ({})", records_[entry].method, entries_[entry].method), {}, {}, {}}));
}

std::vector<Segment> ZipContainer::segments() const {
    std::vector<Segment> used;
    const auto file = file_.bytes();
    if (!file) return {};
    for (std::size_t i = 0; i < entries_.size(); ++i) {
        const auto local = local_header(*file, i);
        used.push_back({Segment::What::entry, entries_[i].at, entries_[i].stored + (local ? local->header_size : local_size), i});
    }
    used.push_back({Segment::What::table, tail_.directory_at, file_.size() - tail_.directory_at, 0});
    return with_gaps(std::move(used), file_.size());
}

}  // namespace skivet
