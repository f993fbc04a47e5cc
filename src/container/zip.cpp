#include "container/zip.h"

#include <algorithm>

#include "base/hash.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/overlaps.h"
#include "container/zip_format.h"

namespace skivet {

using namespace zip;

namespace zip {

std::optional<Packing> packing_of(std::uint16_t method) {
    switch (method) {
        case 0: return Packing::none;
        case 8: return Packing::deflate;
        case 12: return Packing::bzip2;
        case 14: return Packing::lzma_raw;
        case 93: return Packing::zstd;
        case 95: return Packing::xz;
        default: return std::nullopt;
    }
}

std::string_view method_name(std::uint16_t method) {
    switch (method) {
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

Result<Bytes> pack_method(std::uint16_t method, ByteSpan data, ByteSpan like) {
    const auto packing = packing_of(method);
    if (!packing)
        return fail(ErrorCode::unsupported, phrase("packed with method {} ({})", method, method_name(method)),
                    "Entries of this method cannot be replaced");
    if (*packing != Packing::lzma_raw) return pack(*packing, data, 0, like);
    SKIVET_TRY(const auto stream, pack(*packing, data, 0, like.size() > lzma_lead ? like.subspan(lzma_lead) : ByteSpan{}));
    ByteWriter out;
    out.le(std::uint16_t{0x0415});  // LZMA SDK 21.04; readers do not use it
    out.le(std::uint16_t{5});
    out.put(stream);
    return std::move(out.bytes);
}

std::string entry_name(ByteSpan name, ByteSpan extra, std::uint16_t flags, std::uint8_t made_on) {
    auto text = as_text(name);
    if (flags & flag_utf8 && is_utf8(text)) return text;
    std::optional<std::string> unicode;
    each_extra(extra, [&](std::uint16_t id, ByteSpan field) {
        if (id == unicode_path_extra && field.size() > 5 && u32(field, 1) == crc32(name)) unicode = as_text(field.subspan(5));
    });
    if (unicode) return *unicode;
    // Programs on Unix write the system's own encoding without a flag, and that has long been UTF-8.
    constexpr std::uint8_t host_unix = 3;  // 4.4.2.2
    if (made_on == host_unix && is_utf8(text)) return text;
    return cp437_to_utf8(text);
}

}  // namespace zip

bool ZipContainer::recognize(ByteSpan file) { return find_tail(file, {}).has_value(); }

Result<ZipContainer::Tail> ZipContainer::find_tail(ByteSpan file, const std::vector<FilePart>& parts) {
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
            std::uint32_t disk = u16(file, at + 4), directory_disk = u16(file, at + 6);
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
                disk = u32(file, end64 + 16);
                directory_disk = u32(file, end64 + 20);
                tail.count = u64(file, end64 + 32);
                tail.directory_size = u64(file, end64 + 40);
                offset = u64(file, end64 + 48);
                directory_end = end64;
            }
            if (tail.directory_size > directory_end)
                return fail_at(ErrorCode::damaged, at,
                               phrase("the directory is said to have {} bytes, only {} lie before it", grouped(tail.directory_size),
                                      grouped(directory_end)));
            if (disk > 0 && disk != 0xFFFF) {
                if (parts.size() != disk + 1u)
                    return fail(
                        ErrorCode::missing,
                        phrase("this is the last of {} parts, {} of them are here", disk + 1, std::max<std::size_t>(1, parts.size())),
                        "Put name.z01, name.z02 … beside name.zip");
                std::uint64_t start = 0;
                for (std::uint32_t p = 0; p < directory_disk && p < parts.size(); ++p) start += parts[p].stamp.size;
                tail.split = true;
                tail.directory_at = start + offset;
                if (tail.directory_at > directory_end - tail.directory_size)
                    return fail_at(ErrorCode::damaged, at,
                                   phrase("the directory is said to be at {} of part {}", hex(offset), directory_disk + 1));
                return tail;
            }
            tail.directory_at = directory_end - tail.directory_size;
            if (offset > tail.directory_at)
                return fail_at(ErrorCode::damaged, at, phrase("the directory is said to be at {}, behind its end record", hex(offset)));
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

Result<std::unique_ptr<Container>> ZipContainer::open(FileView view, const ReadLimits& limits, std::shared_ptr<const KeyRing> keys) {
    auto zip = std::make_unique<ZipContainer>();
    zip->file_ = std::move(view);
    zip->keys_ = keys ? std::move(keys) : std::make_shared<KeyRing>();
    SKIVET_TRY(const auto file, zip->file_.bytes());
    const auto read = [&]() -> Status {
        SKIVET_TRY(zip->tail_, find_tail(file, zip->file_.parts()));
        return zip->read_directory(file, limits);
    };
    if (auto done = read(); !done) {
        const auto why = std::move(done).error();
        if (why.code == ErrorCode::missing) return fail(why);
        zip->entries_.clear();
        zip->records_.clear();
        if (auto rescued = zip->rescue(file, limits, why); !rescued)
            return fail(rescued.error().code == ErrorCode::limit ? rescued.error() : why);
    } else {
        zip->recognized_by_ = phrase("its end record at {}", hex(zip->tail_.end_at));
        if (zip->tail_.split) zip->recognized_by_ += phrase(", {} parts", zip->file_.parts().size());
    }
    for (std::size_t i = 0; i < zip->entries_.size(); ++i) zip->entries_[i].encrypted = zip->records_[i].flags & flag_encrypted;
    return zip;
}

Status ZipContainer::read_directory(ByteSpan file, const ReadLimits& limits) {
    if (tail_.directory_size > limits.directory_bytes)
        return fail_at(ErrorCode::limit, tail_.directory_at, phrase("a directory of {}", human_bytes(tail_.directory_size)));
    if (tail_.count > limits.entries || tail_.count > tail_.directory_size / directory_size)
        return fail_at(ErrorCode::damaged, tail_.end_at,
                       phrase("{} entries cannot lie in a directory of {} bytes", grouped(tail_.count), grouped(tail_.directory_size)));
    std::vector<std::uint64_t> part_starts = {0};
    for (const auto& part : file_.parts()) part_starts.push_back(part_starts.back() + part.stamp.size);
    const auto directory = file.subspan(static_cast<std::size_t>(tail_.directory_at), static_cast<std::size_t>(tail_.directory_size));
    entries_.reserve(static_cast<std::size_t>(tail_.count));
    records_.reserve(static_cast<std::size_t>(tail_.count));
    std::uint64_t at = 0;
    for (std::uint64_t i = 0; i < tail_.count; ++i) {
        const auto wrong = [&](std::string what) {
            return fail(
                Error{ErrorCode::damaged, std::move(what), {"central directory", phrase("entry {}", i + 1)}, tail_.directory_at + at, {}});
        };
        if (directory.size() - at < directory_size) return wrong(phrase("needs {} bytes, has {}", directory_size, directory.size() - at));
        const auto record = directory.subspan(static_cast<std::size_t>(at));
        if (u32(record, 0) != directory_signature) return wrong("no directory record where one must be");
        const std::uint64_t name = u16(record, dir_name), extra = u16(record, dir_extra), comment = u16(record, dir_comment);
        const auto total = directory_size + name + extra + comment;
        if (total > record.size()) return wrong(phrase("needs {} bytes, has {}", total, record.size()));
        Record r;
        r.directory_at = tail_.directory_at + at;
        r.directory_size = static_cast<std::uint32_t>(total);
        r.flags = u16(record, dir_flags);
        r.method = u16(record, dir_method);
        r.time = u16(record, dir_time);
        r.crc = u32(record, dir_crc);
        Entry e;
        e.stored = u32(record, dir_stored);
        e.size = u32(record, dir_bytes);
        std::uint64_t local = u32(record, dir_local_at);
        std::uint64_t disk = u16(record, dir_disk);
        const auto fields = record.subspan(static_cast<std::size_t>(directory_size + name), static_cast<std::size_t>(extra));
        bool short64 = false;
        each_extra(fields, [&](std::uint16_t id, ByteSpan field) {
            if (id == aes_extra && field.size() >= 7 && r.method == method_aes) {
                r.aes_version = static_cast<std::uint8_t>(field[0]);
                r.aes = static_cast<std::uint8_t>(field[4]);
                r.method = u16(field, 5);
            }
            if (id != zip64_extra) return;
            std::size_t p = 0;
            for (auto* value : {&e.size, &e.stored, &local})  // 4.5.3: only the numbers that did not fit, in this order
                if (*value == in_zip64) {
                    if (p + 8 > field.size()) {
                        short64 = true;
                        return;
                    }
                    *value = u64(field, p);
                    p += 8;
                }
            if (disk == 0xFFFF && p + 4 <= field.size()) disk = u32(field, p);
        });
        if (short64) return wrong("its ZIP64 field is too short");
        if (tail_.split) {
            if (disk + 1 >= part_starts.size()) return wrong(phrase("lies in part {} of {}", disk + 1, part_starts.size() - 1));
            local += part_starts[static_cast<std::size_t>(disk)];
        }
        if (local > tail_.directory_at || tail_.base + local > tail_.directory_at)
            return wrong(phrase("its data is said to be at {}, behind the directory", hex(local)));
        r.local_at = tail_.base + local;
        e.check = r.crc;
        e.at = r.local_at;
        e.method = method_name(r.method);
        e.path = entry_name(record.subspan(static_cast<std::size_t>(directory_size), static_cast<std::size_t>(name)), fields, r.flags,
                            static_cast<std::uint8_t>(record[5]));
        at += total;
        if (!e.path.empty() && e.path.back() == '/' && e.size == 0) {  // a folder's own record
            folders_.push_back({r, e.stored});
            continue;
        }
        entries_.push_back(std::move(e));
        records_.push_back(r);
    }
    number_doubles();
    note_overlaps(file.size(), limits);
    return {};
}

void ZipContainer::note_overlaps(std::uint64_t file_size, const ReadLimits& limits) {
    std::vector<EntryClaim> claims(entries_.size());
    for (std::size_t i = 0; i < claims.size(); ++i)
        claims[i] = {records_[i].local_at, local_size + std::min(entries_[i].stored, file_size), entries_[i].size};
    const auto found = find_overlaps(claims, file_size, limits);
    if (found.over.empty()) return;
    problems_.push_back({ErrorCode::damaged,
                         phrase("{} entries lie over bytes of others", grouped(found.over.size())),
                         {entries_[found.over.front()].path},
                         records_[found.over.front()].local_at,
                         "Some programs write the same content once for several names; if it is not that, the directory is damaged"});
    if (!found.too_much) return;
    for (const auto i : found.over) records_[i].repeats = true;
}

/// What the system maps around a byte that is touched.
constexpr std::uint64_t head_pages = 64u << 10;

Result<ZipContainer::Local> ZipContainer::local_header(ByteSpan file, const Record& record) const {
    const auto at = record.local_at;
    file_.note_read(head_pages);
    auto header = slice(file, at, local_size);
    if (!header || u32(*header, 0) != local_signature)
        return fail_at(ErrorCode::damaged, at, "no local header where the directory points",
                       "The archive is damaged here; other entries can still be used");
    Local local;
    local.header_size = static_cast<std::uint32_t>(local_size + u16(*header, local_name) + u16(*header, local_extra));
    local.data_at = at + local.header_size;
    if (local.data_at > tail_.directory_at)
        return fail_at(ErrorCode::damaged, at, phrase("local header: needs {} bytes, has {}", local.header_size, tail_.directory_at - at));
    return local;
}

Result<ByteSpan> ZipContainer::stored_bytes(ByteSpan file, std::size_t entry) const {
    SKIVET_TRY(const auto local, local_header(file, entry));
    if (local.data_at > tail_.directory_at || entries_[entry].stored > tail_.directory_at - local.data_at)
        return fail_at(ErrorCode::damaged, local.data_at,
                       phrase("needs {} bytes, has {}", grouped(entries_[entry].stored),
                              grouped(tail_.directory_at - std::min(local.data_at, tail_.directory_at))));
    return slice(file, local.data_at, entries_[entry].stored);
}

std::uint64_t ZipContainer::descriptor_size(ByteSpan file, std::size_t entry, const Local& local) const {
    // 4.3.9: the signature is optional, sizes are 4 or 8 bytes.
    const auto& record = records_[entry];
    if (!(record.flags & flag_descriptor)) return 0;
    const auto at32 = [&](std::uint64_t p) { return p + 4 <= file.size() ? u32(file, p) : 0; };
    const auto at = data_end(local.data_at, entries_[entry].stored);
    const std::uint64_t lead = at32(at) == descriptor_signature && at32(at + 4) == record.crc ? 4 : 0;
    if (lead == 0 && at32(at) != record.crc) return 0;
    const bool wide = at + lead + 20 <= file.size() && u64(file, at + lead + 4) == entries_[entry].stored &&
                      u64(file, at + lead + 12) == entries_[entry].size;
    return lead + (wide ? 20 : 12);
}

Result<Bytes> ZipContainer::unpack_entry(ByteSpan packed, std::size_t entry, const ReadLimits& limits) const {
    const auto& record = records_[entry];
    const auto packing = packing_of(record.method);
    if (!packing)
        return fail_at(ErrorCode::unsupported, entries_[entry].at,
                       phrase("packed with method {} ({})", record.method, entries_[entry].method),
                       "Stored, deflate, bzip2, LZMA, Zstandard and XZ entries can be read");
    if (*packing == Packing::lzma_raw) {
        if (packed.size() < lzma_lead + 5) return fail_at(ErrorCode::damaged, entries_[entry].at, "the lzma stream ends early");
        packed = packed.subspan(lzma_lead);
    }
    auto out = unpack(*packing, packed, entries_[entry].size, limits);
    if (!out) {
        auto error = std::move(out).error();
        error.at = entries_[entry].at;
        return fail(std::move(error));
    }
    if (record.aes_version == 2) return out;  // its authentication code was checked instead
    if (const auto sum = crc32(*out); sum != record.crc)
        return fail_at(ErrorCode::damaged, entries_[entry].at, phrase("CRC-32 is {:08x}, the directory says {:08x}", sum, record.crc),
                       "The entry is damaged; other entries can still be used");
    return out;
}

Result<Bytes> ZipContainer::unpack_entry(std::size_t entry, const ReadLimits& limits) const {
    SKIVET_TRY(const auto file, file_.bytes());
    const auto all = [&]() -> Result<Bytes> {
        if (records_[entry].repeats) return refuse_repeat(entries_[entry].at);
        SKIVET_TRY(const auto data, stored_bytes(file, entry));
        file_.note_read(data.size());
        if (records_[entry].flags & flag_encrypted)
            return decrypted(data, entry, [&](ByteSpan packed) { return unpack_entry(packed, entry, limits); });
        return unpack_entry(data, entry, limits);
    };
    auto out = all();
    if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
    return out;
}

Result<Bytes> ZipContainer::stored_entry(std::size_t entry, const ReadLimits&) const {
    SKIVET_TRY(const auto file, file_.bytes());
    const auto data = stored_bytes(file, entry);
    if (!data) return fail(in_entry(*this, entry, data.error()));
    return Bytes(data->begin(), data->end());
}

Result<Bytes> ZipContainer::head_of_entry(std::size_t entry, std::size_t count) const {
    SKIVET_TRY(const auto file, file_.bytes());
    const auto head = [&](ByteSpan packed) -> Result<Bytes> {
        const auto packing = packing_of(records_[entry].method);
        if (!packing)
            return fail(ErrorCode::unsupported, phrase("packed with method {} ({})", records_[entry].method, entries_[entry].method));
        if (*packing == Packing::lzma_raw) packed = packed.subspan(std::min(lzma_lead, packed.size()));
        return unpack_prefix(*packing, packed, static_cast<std::size_t>(std::min<std::uint64_t>(entries_[entry].size, count)));
    };
    const auto all = [&]() -> Result<Bytes> {
        SKIVET_TRY(const auto data, stored_bytes(file, entry));
        file_.note_read(std::min<std::uint64_t>(data.size(), head_pages));
        return records_[entry].flags & flag_encrypted ? decrypted(data, entry, head) : head(data);
    };
    auto out = all();
    if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
    return out;
}

Result<FileView> ZipContainer::view_of_entry(std::size_t entry, const ReadLimits& limits) const {
    const auto& record = records_[entry];
    if (record.method != 0 || record.flags & flag_encrypted || entries_[entry].size != entries_[entry].stored)
        return Container::view_of_entry(entry, limits);
    SKIVET_TRY(const auto file, file_.bytes());
    const auto data = stored_bytes(file, entry);
    if (!data) return fail(in_entry(*this, entry, data.error()));
    return file_.part(static_cast<std::uint64_t>(data->data() - file.data()), data->size(), entries_[entry].path);
}

std::vector<Segment> ZipContainer::segments() const {
    std::vector<Segment> used;
    const auto file = file_.bytes();
    if (!file) return {};
    for (std::size_t i = 0; i < entries_.size(); ++i) {
        const auto local = local_header(*file, i);
        const auto head = local ? local->header_size + descriptor_size(*file, i, *local) : local_size;
        used.push_back({Segment::What::entry, entries_[i].at, data_end(head, entries_[i].stored), i});
    }
    for (const auto& folder : folders_)
        if (const auto local = local_header(*file, folder.record))
            used.push_back({Segment::What::table, folder.record.local_at, data_end(local->header_size, folder.stored), 0});
    used.push_back({Segment::What::table, tail_.directory_at, file_.size() - tail_.directory_at, 0});
    return with_gaps(std::move(used), file_.size());
}

namespace {

class ZipKind final : public ContainerKind {
public:
    std::string name() const override { return "ZIP"; }
    std::optional<Recognized> recognize(ByteSpan head, std::uint64_t file_size, std::string_view) const override {
        // A local header at the start means a ZIP even when its end is damaged: then the message should be about that.
        if (head.size() >= 4 && (u32(head, 0) == local_signature ||
                                 (head.size() >= 8 && u32(head, 0) == descriptor_signature && u32(head, 4) == local_signature)))
            return Recognized{ranks::magic, "a local header at its beginning"};
        if (head.size() == file_size && ZipContainer::recognize(head)) return Recognized{ranks::weak, "an end record at its end"};
        return std::nullopt;
    }
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        SKIVET_TRY(auto zip, ZipContainer::open(std::move(file), context.limits, context.keys));
        return std::shared_ptr<const Container>(std::move(zip));
    }
};

}  // namespace

std::shared_ptr<const ContainerKind> zip_kind() { return std::make_shared<ZipKind>(); }

}  // namespace skivet
