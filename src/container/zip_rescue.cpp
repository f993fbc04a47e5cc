// A ZIP whose central directory is damaged or missing is listed from its local headers, which repeat most of what the directory says.
// Such an archive is only read: writing it would mean guessing at what the directory held.
#include <cstring>

#include "base/hash.h"
#include "base/phrase.h"
#include "container/zip.h"
#include "container/zip_format.h"

namespace skivet {

using namespace zip;

namespace {

std::size_t next_mark(ByteSpan file, std::size_t from) {
    while (from + local_size <= file.size()) {
        const auto* hit = static_cast<const std::byte*>(std::memchr(file.data() + from, 'P', file.size() - from));
        if (!hit) break;
        from = static_cast<std::size_t>(hit - file.data());
        if (from + local_size <= file.size() && u32(file, from) == local_signature) return from;
        ++from;
    }
    return file.size();
}

/// Where the data of an entry ends whose sizes follow it (4.3.9): the next descriptor that states exactly the distance to it.
struct Found {
    std::uint64_t stored = 0, size = 0;
    std::uint32_t crc = 0;
};
std::optional<Found> find_descriptor(ByteSpan file, std::size_t data_at) {
    for (auto at = data_at; at + 16 <= file.size(); ++at) {
        const auto* hit = static_cast<const std::byte*>(std::memchr(file.data() + at, 'P', file.size() - at));
        if (!hit) return std::nullopt;
        at = static_cast<std::size_t>(hit - file.data());
        if (at + 16 > file.size() || u32(file, at) != descriptor_signature) continue;
        if (at + 24 <= file.size() && u64(file, at + 8) == at - data_at) return Found{at - data_at, u64(file, at + 16), u32(file, at + 4)};
        if (u32(file, at + 8) == at - data_at) return Found{at - data_at, u32(file, at + 12), u32(file, at + 4)};
    }
    return std::nullopt;
}

}  // namespace

Status ZipContainer::rescue(ByteSpan file, const ReadLimits& limits, const Error& why) {
    tail_ = {};
    tail_.directory_at = tail_.end_at = file.size();
    // Every search for a descriptor may run over the rest of the file; a file made of nothing but such headers must not make us slow.
    std::uint64_t searched = 0;
    const std::uint64_t most_searched = 4 * static_cast<std::uint64_t>(file.size()) + (64u << 20);
    for (auto at = next_mark(file, 0); at < file.size();) {
        const auto header = file.subspan(at);
        const std::size_t name = u16(header, local_name), extra = u16(header, local_extra);
        const std::size_t data_at = at + local_size + name + extra;
        Record r;
        r.local_at = at;
        r.flags = u16(header, local_flags);
        r.method = u16(header, local_method);
        r.time = u16(header, local_time);
        r.crc = u32(header, local_crc);
        Entry e;
        e.at = at;
        e.stored = u32(header, local_stored);
        e.size = u32(header, local_bytes);
        if (name == 0 || data_at > file.size() || u16(header, 4) > 100) {
            at = next_mark(file, at + 4);
            continue;
        }
        const auto fields = header.subspan(local_size + name, extra);
        each_extra(fields, [&](std::uint16_t id, ByteSpan field) {
            if (id == zip64_extra && field.size() >= 16 && e.stored == in_zip64) e.size = u64(field, 0), e.stored = u64(field, 8);
            if (id == aes_extra && field.size() >= 7 && r.method == method_aes) {
                r.aes_version = static_cast<std::uint8_t>(field[0]);
                r.aes = static_cast<std::uint8_t>(field[4]);
                r.method = u16(field, 5);
            }
        });
        if (r.flags & flag_descriptor && (e.stored == 0 || e.stored == in_zip64)) {
            const auto found = searched < most_searched ? find_descriptor(file, data_at) : std::nullopt;
            searched += found ? found->stored : file.size() - data_at;
            if (found) e.stored = found->stored, e.size = found->size, r.crc = found->crc;
            else e.stored = e.size = 0;
        }
        e.method = method_name(r.method);
        e.path = entry_name(header.subspan(local_size, name), fields, r.flags, 3);
        const bool folder = !e.path.empty() && e.path.back() == '/';
        const bool cut = e.stored > file.size() - data_at;
        at = next_mark(file, cut ? data_at : data_at + static_cast<std::size_t>(e.stored));
        if (folder) continue;
        if (entries_.size() >= limits.entries) return fail(ErrorCode::limit, phrase("more than {} local headers", grouped(limits.entries)));
        if (cut && problems_.size() < 100)
            problems_.push_back(Error{ErrorCode::damaged,
                                      phrase("needs {} bytes, has {}", grouped(e.stored), grouped(file.size() - data_at)),
                                      {e.path},
                                      e.at,
                                      {}});
        entries_.push_back(std::move(e));
        records_.push_back(r);
    }
    if (entries_.empty()) return fail(why);
    number_doubles();
    auto problem = why;
    problem.what = phrase("the central directory cannot be used ({}); {} entries were found by their own headers", said(why.what),
                          grouped(entries_.size()));
    problem.advice = "They can be taken out; nothing can be put in";
    problems_.insert(problems_.begin(), problem);
    read_only_ = "the archive's directory is damaged, so it can only be read";
    recognized_by_ = phrase("{} local headers; its directory is damaged", grouped(entries_.size()));
    return {};
}

}  // namespace skivet
