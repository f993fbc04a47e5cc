// Replacing entries of a ZIP archive.
//
// A packed size that stays the same is written over the old bytes; only the checksums beside it change. Otherwise the entry is written
// again where the directory stood (or over itself, when it is the last one before the directory), and directory and end records
// follow it. What lies before is not touched, so the bytes written depend on the entry and the directory, not on the archive.
// Where stored entries are aligned, what is written anew is aligned as they are, by zeros in front of its local header.
#include <fmt/format.h>

#include "base/hash.h"
#include "container/zip.h"
#include "container/zip_format.h"

namespace skivet {

using namespace zip;

namespace {

/// `fields` without the ZIP64 field (sizes and offsets are stated anew).
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

}  // namespace

class ZipContainer::Planner {
public:
    Planner(const ZipContainer& zip, ByteSpan file) : zip_(zip), file_(file), append_at_(zip.tail_.directory_at) {
        starts_.reserve(zip.records_.size());
        for (const auto& record : zip.records_) starts_.push_back(record.local_at);
        std::sort(starts_.begin(), starts_.end());
    }

    Status add(const Replacement& replacement, const ReadLimits& limits, bool always_append = false) {
        const auto entry = replacement.entry;
        if (entry >= zip_.entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
        if (auto done = add_entry(replacement, limits, always_append); !done) return fail(in_entry(zip_, entry, std::move(done).error()));
        return {};
    }

    Result<FilePlan> finish() {
        FilePlan plan;
        plan.new_size = zip_.file_.size();
        plan.way = appended_.empty() ? Way::in_place : Way::append;
        if (!appended_.empty()) {
            if (zip_.tail_.split)
                return fail(ErrorCode::unsupported, "an archive split over several files takes only content that packs to the same size",
                            "Join the parts with a ZIP program first");
            ByteWriter out;
            const auto align = zip_.alignment(file_);
            for (auto& item : appended_) {
                if (is_aligned(item, align))
                    while ((append_at_ + out.bytes.size() + local_record(item).size() - zip_.tail_.base) % align) out.le(std::uint8_t{0});
                moved_to_[item.entry] = {append_at_ + out.bytes.size(), &item};
                out.put(local_record(item));
                out.put(item.packed);
            }
            const auto directory_at = append_at_ + out.bytes.size();
            out.put(directory());
            const auto directory_bytes = append_at_ + out.bytes.size() - directory_at;
            out.put(end_records(directory_at, directory_bytes, zip_.tail_.count));
            plan.new_size = append_at_ + out.bytes.size();
            // Readers look for the directory right before its end first. Where other bytes stand there, these must not look like one.
            const auto end_at = plan.new_size - (file_.size() - (zip_.tail_.end64_at ? zip_.tail_.end64_at : zip_.tail_.end_at));
            const auto looked_at = end_at - directory_bytes;
            if (looked_at != directory_at && looked_at >= append_at_ && looked_at - append_at_ + 4 <= out.bytes.size() &&
                u32(out.bytes, looked_at - append_at_) == directory_signature)
                return fail_at(ErrorCode::unsupported, zip_.tail_.directory_at,
                               "what stands between the directory and its end would be taken for the directory",
                               "Deliver into an override folder instead, if the game has one");
            ranges_.push_back({append_at_, std::move(out.bytes), 0});
        } else {
            for (const auto& [entry, crc] : new_crc_) patch(zip_.records_[entry].directory_at + dir_crc, crc);
        }
        plan.ranges = std::move(ranges_);
        return plan;
    }

    /// A whole archive of only the entries that were added.
    Bytes patch_archive() {
        ByteWriter out;
        Bytes records;
        for (const auto& item : appended_) {
            const auto& record = zip_.records_[item.entry];
            const auto old = file_.subspan(static_cast<std::size_t>(record.directory_at), record.directory_size);
            const auto moved = directory_record(old, item, out.bytes.size());
            records.insert(records.end(), moved.begin(), moved.end());
            out.put(local_record(item));
            out.put(item.packed);
        }
        ByteWriter end;
        end.le(end_signature);
        for (const int zero : {0, 0}) end.le(static_cast<std::uint16_t>(zero));
        for (int twice = 0; twice < 2; ++twice) end.le(static_cast<std::uint16_t>(appended_.size()));
        end.le(static_cast<std::uint32_t>(records.size()));
        end.le(static_cast<std::uint32_t>(out.bytes.size()));
        end.le(std::uint16_t{0});
        out.put(records);
        out.put(end.bytes);
        return std::move(out.bytes);
    }

    /// Every entry moved together, in the order they lie in.
    Result<FilePlan> compact() {
        struct Part {
            const Record* record;
            std::uint64_t size, stored, end, to, data_at;
        };
        std::vector<Part> parts;
        const auto add = [&](const Record& record, std::uint64_t size, std::uint64_t stored, std::uint64_t behind) -> Status {
            SKIVET_TRY(const auto local, zip_.local_header(file_, record));
            const auto end = data_end(local.data_at, stored) + behind;
            if (end > zip_.tail_.directory_at) return fail_at(ErrorCode::damaged, record.local_at, "reaches into the directory");
            parts.push_back({&record, size, stored, end, 0, local.data_at});
            return {};
        };
        for (std::size_t i = 0; i < zip_.records_.size(); ++i) {
            const auto local = zip_.local_header(file_, i);
            const auto behind = local ? zip_.descriptor_size(file_, i, *local) : 0;
            if (auto done = add(zip_.records_[i], zip_.entries_[i].size, zip_.entries_[i].stored, behind); !done)
                return fail(in_entry(zip_, i, std::move(done).error()));
        }
        for (const auto& folder : zip_.folders_) SKIVET_CHECK(add(folder.record, 0, folder.stored, 0));
        std::stable_sort(parts.begin(), parts.end(), [](const auto& a, const auto& b) { return a.record->local_at < b.record->local_at; });
        FilePlan plan;
        plan.pieces.push_back({0, zip_.tail_.base, {}});
        auto at = zip_.tail_.base;
        std::uint64_t done_to = zip_.tail_.base;  // of the old file, to copy data once that several entries share
        const auto align = zip_.alignment(file_);
        // What is no dead entry and no padding stays, whole and in its place among the entries.
        const auto keep_gap = [&](std::uint64_t end) {
            if (end <= done_to || !zip_.gap_of(file_, done_to, end, align).foreign) return;
            plan.pieces.push_back({done_to, end - done_to, {}});
            at += end - done_to;
        };
        for (auto& part : parts) {
            const auto from = std::max(part.record->local_at, done_to);
            keep_gap(from);
            if (part.record->method == 0 && part.stored > 0 && (part.data_at - zip_.tail_.base) % align == 0 && part.end > from &&
                from == part.record->local_at) {
                const auto wanted = (at + (part.data_at - from) - zip_.tail_.base) % align;
                if (wanted) plan.pieces.push_back({0, 0, Bytes(static_cast<std::size_t>(align - wanted))}), at += align - wanted;
            }
            part.to = at - (from - part.record->local_at);
            if (part.end <= from) continue;
            plan.pieces.push_back({from, part.end - from, {}});
            at += part.end - from;
            done_to = part.end;
        }
        keep_gap(zip_.tail_.directory_at);
        std::sort(parts.begin(), parts.end(), [](const auto& a, const auto& b) { return a.record->directory_at < b.record->directory_at; });
        ByteWriter out;
        for (const auto& part : parts)
            out.put(moved_record(file_.subspan(static_cast<std::size_t>(part.record->directory_at), part.record->directory_size),
                                 part.to - zip_.tail_.base, part.size, part.stored));
        const auto directory_bytes = out.bytes.size();
        out.put(end_records(at, directory_bytes, parts.size()));
        plan.pieces.push_back({0, 0, std::move(out.bytes)});
        return plan;
    }

private:
    struct Appended {
        std::size_t entry;
        Local local;
        Bytes packed;
        std::uint32_t crc;
        std::uint64_t size;
    };
    struct Moved {
        std::uint64_t to = 0;
        const Appended* item = nullptr;
    };

    const ZipContainer& zip_;
    ByteSpan file_;
    std::uint64_t append_at_;
    std::vector<std::uint64_t> starts_;  ///< of all local headers, sorted
    std::vector<WriteRange> ranges_;
    std::vector<Appended> appended_;
    std::unordered_map<std::size_t, Moved> moved_to_;
    std::unordered_map<std::size_t, std::uint32_t> new_crc_;

    Status add_entry(const Replacement& replacement, const ReadLimits& limits, bool always_append) {
        const auto entry = replacement.entry;
        const auto& e = zip_.entries_[entry];
        const auto& record = zip_.records_[entry];
        if (!packing_of(record.method))
            return fail_at(ErrorCode::unsupported, e.at, fmt::format("packed with method {} ({})", record.method, e.method),
                           "Entries of this method cannot be replaced");
        if (replacement.bytes.size() > limits.inflated_bytes) return fail(ErrorCode::limit, "the new content is larger than the limit");
        const bool states_crc = record.aes_version != 2;
        const auto crc = states_crc ? crc32(replacement.bytes) : 0;
        // An entry whose content stays keeps its stored bytes. An entry that cannot be read is damaged and may be replaced.
        if (!always_append && (crc == record.crc || !states_crc) && replacement.bytes.size() == e.size) {
            const auto now = zip_.read(entry, limits);
            if (now && *now == replacement.bytes) return {};
        }
        SKIVET_TRY(const auto local, zip_.local_header(file_, entry));
        const auto old = zip_.stored_bytes(file_, entry);
        SKIVET_TRY(auto packed, pack_method(record.method, replacement.bytes, old && !(record.flags & flag_encrypted) ? *old : ByteSpan{}));
        if (record.flags & flag_encrypted) {
            SKIVET_TRY(packed, zip_.encrypted(packed, entry, crc));
        }
        const bool same_size =
            packed.size() == e.stored && replacement.bytes.size() == e.size && local.data_at + e.stored <= zip_.tail_.directory_at;
        // The stream of method 14 that we write has an end mark, and a flag must say so.
        const bool flags_hold = (record.method != 14 || record.flags & flag_lzma_end_mark) &&
                                !(record.flags & flag_encrypted && !record.aes && record.flags & flag_descriptor);
        if (same_size && flags_hold && !always_append && lies_alone(entry, local)) {
            in_place(entry, local, packed, crc);
        } else {
            const auto end = data_end(local.data_at, e.stored) + zip_.descriptor_size(file_, entry, local);
            // The last entry before the directory gives its own place back.
            if (end == zip_.tail_.directory_at && starts_.back() == record.local_at && lies_alone(entry, local))
                append_at_ = std::min(append_at_, record.local_at);
            appended_.push_back({entry, local, std::move(packed), crc, replacement.bytes.size()});
        }
        return {};
    }

    bool is_aligned(const Appended& item, std::uint64_t align) const {
        return align > 1 && zip_.records_[item.entry].method == 0 && zip_.entries_[item.entry].stored > 0 &&
               (item.local.data_at - zip_.tail_.base) % align == 0;
    }

    void patch(std::uint64_t at, std::uint32_t value) {
        Bytes bytes(4);
        store_le(bytes.data(), value);
        ranges_.push_back({at, std::move(bytes), 0});
    }

    std::uint32_t at32(std::uint64_t at) const { return at + 4 <= file_.size() ? u32(file_, at) : 0; }

    /// No other entry begins in this one's bytes; two names may stand for the same data.
    bool lies_alone(std::size_t entry, const Local& local) const {
        const auto from = zip_.records_[entry].local_at;
        const auto first = std::lower_bound(starts_.begin(), starts_.end(), from);
        const auto next = std::next(first);
        return next == starts_.end() || *next >= std::max(from + 1, data_end(local.data_at, zip_.entries_[entry].stored));
    }

    void in_place(std::size_t entry, const Local& local, const Bytes& packed, std::uint32_t crc) {
        const auto& record = zip_.records_[entry];
        ranges_.push_back({local.data_at, packed, 0});
        if (record.aes_version == 2) return;
        if (at32(record.local_at + local_crc) == record.crc) patch(record.local_at + local_crc, crc);
        if (zip_.descriptor_size(file_, entry, local) > 0) {
            const auto at = local.data_at + zip_.entries_[entry].stored;
            patch(at + (at32(at) == descriptor_signature && at32(at + 4) == record.crc ? 4 : 0), crc);
        }
        new_crc_[entry] = crc;
    }

    /// Flags of an entry that is written anew: sizes stand before it, and an LZMA stream has its end mark.
    std::uint16_t new_flags(std::uint16_t flags, std::size_t entry) const {
        flags = static_cast<std::uint16_t>(flags & ~flag_descriptor);
        return zip_.records_[entry].method == 14 ? static_cast<std::uint16_t>(flags | flag_lzma_end_mark) : flags;
    }

    Bytes local_record(const Appended& item) const {
        const auto old = file_.subspan(static_cast<std::size_t>(zip_.records_[item.entry].local_at), item.local.header_size);
        const std::size_t name = u16(old, local_name);
        const auto extra = without_zip64(old.subspan(local_size + name));
        Bytes out(old.begin(), old.begin() + static_cast<std::ptrdiff_t>(local_size + name));
        out.insert(out.end(), extra.begin(), extra.end());
        const auto flags = load_le<std::uint16_t>(out.data() + local_flags);
        store_le(out.data() + local_flags, new_flags(flags, item.entry));
        store_le(out.data() + local_crc, item.crc);
        store_le(out.data() + local_stored, static_cast<std::uint32_t>(item.packed.size()));
        store_le(out.data() + local_bytes, static_cast<std::uint32_t>(item.size));
        store_le(out.data() + local_extra, static_cast<std::uint16_t>(extra.size()));
        return out;
    }

    Bytes directory() const {
        const auto old =
            file_.subspan(static_cast<std::size_t>(zip_.tail_.directory_at), static_cast<std::size_t>(zip_.tail_.directory_size));
        Bytes out;
        out.reserve(old.size() + 64);
        std::uint64_t copied = 0;
        const auto copy_to = [&](std::uint64_t end) {
            out.insert(out.end(), old.begin() + static_cast<std::ptrdiff_t>(copied), old.begin() + static_cast<std::ptrdiff_t>(end));
            copied = end;
        };
        for (std::size_t i = 0; i < zip_.records_.size(); ++i) {
            const auto at = zip_.records_[i].directory_at - zip_.tail_.directory_at;
            const auto size = zip_.records_[i].directory_size;
            if (const auto moved = moved_to_.find(i); moved != moved_to_.end()) {
                copy_to(at);
                const auto one = old.subspan(static_cast<std::size_t>(at), size);
                const auto to = moved->second.to - zip_.tail_.base;
                const auto record = directory_record(one, *moved->second.item, to);
                out.insert(out.end(), record.begin(), record.end());
                copied = at + size;
            } else if (const auto crc = new_crc_.find(i); crc != new_crc_.end()) {
                copy_to(at + size);
                store_le(out.data() + out.size() - size + dir_crc, crc->second);
            }
        }
        copy_to(old.size());
        return out;
    }

    /// The record of an entry that only lies elsewhere. Numbers that need 64 bits are stated anew.
    static Bytes moved_record(ByteSpan old, std::uint64_t offset, std::uint64_t size, std::uint64_t stored) {
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

    Bytes directory_record(ByteSpan old, const Appended& item, std::uint64_t offset) const {
        const std::size_t name = u16(old, dir_name), extra_size = u16(old, dir_extra);
        auto extra = without_zip64(old.subspan(directory_size + name, extra_size));
        if (offset >= in_zip64) {
            ByteWriter field;
            field.le(zip64_extra);
            field.le(std::uint16_t{8});
            field.le(offset);
            extra.insert(extra.begin(), field.bytes.begin(), field.bytes.end());
        }
        Bytes out(old.begin(), old.begin() + static_cast<std::ptrdiff_t>(directory_size + name));
        out.insert(out.end(), extra.begin(), extra.end());
        out.insert(out.end(), old.begin() + static_cast<std::ptrdiff_t>(directory_size + name + extra_size), old.end());
        const auto flags = load_le<std::uint16_t>(out.data() + dir_flags);
        store_le(out.data() + dir_flags, new_flags(flags, item.entry));
        store_le(out.data() + dir_crc, item.crc);
        store_le(out.data() + dir_stored, static_cast<std::uint32_t>(item.packed.size()));
        store_le(out.data() + dir_bytes, static_cast<std::uint32_t>(item.size));
        store_le(out.data() + dir_extra, static_cast<std::uint16_t>(extra.size()));
        store_le(out.data() + dir_local_at, offset >= in_zip64 ? in_zip64 : static_cast<std::uint32_t>(offset));
        return out;
    }

    Bytes end_records(std::uint64_t directory_at, std::uint64_t directory_bytes, std::uint64_t count) const {
        const auto& tail = zip_.tail_;
        const auto offset = directory_at - tail.base;
        // What lay between directory and end records (a signature, say) stays there.
        const auto old_end = tail.end64_at ? tail.end64_at : tail.end_at;
        const auto behind = tail.directory_at + tail.directory_size;
        ByteWriter out;
        out.put(file_.subspan(static_cast<std::size_t>(behind), static_cast<std::size_t>(old_end - behind)));
        const bool wide = tail.end64_at != 0 || offset >= in_zip64 || directory_bytes >= in_zip64;
        if (wide) {
            const auto end64_at = directory_at + directory_bytes + out.bytes.size();
            const auto start = out.bytes.size();
            if (tail.end64_at) {
                out.put(file_.subspan(static_cast<std::size_t>(tail.end64_at), static_cast<std::size_t>(tail.end_at - tail.end64_at)));
            } else {
                out.le(end64_signature);
                out.le(end64_size - 12);
                out.le(std::uint16_t{45});
                out.le(std::uint16_t{45});
                out.le(std::uint32_t{0});
                out.le(std::uint32_t{0});
                out.le(count);
                out.le(count);
                out.le(std::uint64_t{0});
                out.le(std::uint64_t{0});
                out.le(locator_signature);
                out.le(std::uint32_t{0});
                out.le(std::uint64_t{0});
                out.le(std::uint32_t{1});
            }
            store_le(out.bytes.data() + start + 40, directory_bytes);
            store_le(out.bytes.data() + start + 48, offset);
            store_le(out.bytes.data() + out.bytes.size() - locator_size + 8, end64_at - tail.base);
        }
        const auto end_start = out.bytes.size();
        out.put(file_.subspan(static_cast<std::size_t>(tail.end_at)));
        auto* end = out.bytes.data() + end_start;
        const auto keep_or = [&](std::size_t at, std::uint64_t value) {
            if (tail.end64_at && load_le<std::uint32_t>(end + at) == in_zip64) return;
            store_le(end + at, value >= in_zip64 ? in_zip64 : static_cast<std::uint32_t>(value));
        };
        keep_or(12, directory_bytes);
        keep_or(16, offset);
        return std::move(out.bytes);
    }
};

Result<WritePlan> ZipContainer::plan(std::span<const Replacement> replacements, const ReadLimits& limits) const {
    if (!read_only_.empty()) return cannot_write(*this);
    SKIVET_TRY(const auto file, file_.bytes());
    Planner planner(*this, file);
    for (const auto& replacement : replacements) SKIVET_CHECK(planner.add(replacement, limits));
    SKIVET_TRY(auto plan, planner.finish());
    return finish_plan(file_, std::move(plan));
}

Result<WritePlan> ZipContainer::plan_compact(const ReadLimits&) const {
    if (!read_only_.empty()) return cannot_write(*this);
    if (tail_.split)
        return fail(ErrorCode::unsupported, "an archive split over several files cannot be built anew",
                    "Join the parts with a ZIP program first");
    if (dead_bytes() == 0) return WritePlan{};
    SKIVET_TRY(const auto file, file_.bytes());
    SKIVET_TRY(auto plan, Planner(*this, file).compact());
    return finish_plan(file_, std::move(plan));
}

std::uint64_t ZipContainer::dead_bytes() const {
    const auto file = file_.bytes();
    if (!file) return 0;
    std::uint64_t sum = 0;
    const auto align = alignment(*file);
    for (const auto& segment : segments()) {
        if (segment.what != Segment::What::gap || segment.at < tail_.base) continue;
        const auto gap = gap_of(*file, segment.at, segment.at + segment.size, align);
        if (!gap.foreign) sum += gap.dead;
    }
    return sum;
}

ZipContainer::Gap ZipContainer::gap_of(ByteSpan file, std::uint64_t at, std::uint64_t end, std::uint64_t align) const {
    Gap out{at, end, 0, false};
    const auto foreign = [&] { return out.foreign = true, out; };
    while (at < end) {
        // Fewer zeros than a step of the archive's alignment are padding.
        std::uint64_t zeros = 0;
        while (at < end && file[static_cast<std::size_t>(at)] == std::byte{0}) ++at, ++zeros;
        if (zeros >= align) return foreign();
        if (at == end) break;
        // An entry that was written anew elsewhere leaves its local header and its data.
        if (end - at < local_size || u32(file, at) != local_signature) return foreign();
        const auto head = local_size + std::uint64_t{u16(file, at + local_name)} + u16(file, at + local_extra);
        if (head > end - at) return foreign();
        std::uint64_t size = u32(file, at + local_stored);
        if (u16(file, at + local_flags) & flag_descriptor) {
            // Its size stands behind the data; only a stream says itself where it ends, and the checksum shows that it is one (4.3.9).
            if (u16(file, at + local_method) != 8 || (u16(file, at + local_flags) & flag_encrypted)) return foreign();
            const auto rest = file.subspan(static_cast<std::size_t>(at + head), static_cast<std::size_t>(end - at - head));
            const auto stream = unpack_stream(Packing::deflate, rest, ReadLimits{}.inflated_bytes);
            if (!stream) return foreign();
            auto behind = stream->packed_size;
            if (behind + 4 <= rest.size() && u32(rest, behind) == descriptor_signature) behind += 4;
            if (behind + 12 > rest.size() || u32(rest, behind) != crc32(stream->bytes)) return foreign();
            size = behind + (u32(rest, behind + 4) == stream->packed_size && u32(rest, behind + 8) == stream->bytes.size() ? 12 : 20);
        } else if (size == in_zip64) {
            return foreign();
        }
        if (size > end - at - head) return foreign();
        out.dead += head + size;
        at += head + size;
    }
    return out;
}

std::uint64_t ZipContainer::alignment(ByteSpan file) const {
    std::vector<std::uint64_t> starts;
    for (std::size_t i = 0; i < records_.size(); ++i) {
        if (records_[i].method != 0 || entries_[i].stored == 0) continue;
        if (const auto local = local_header(file, i)) starts.push_back(local->data_at - tail_.base);
    }
    return shown_alignment(starts);
}

Result<Bytes> ZipContainer::patch_archive(std::span<const Replacement> entries, const ReadLimits& limits) const {
    if (!read_only_.empty()) return cannot_write(*this);
    SKIVET_TRY(const auto file, file_.bytes());
    std::uint64_t sum = 0;
    for (const auto& e : entries) sum += e.bytes.size();
    if (entries.size() >= 0xFFFF || sum >= 0xF0000000u)
        return fail(ErrorCode::limit, "a patch archive of more than 65,534 entries or 3.7 GB", "Make several");
    Planner planner(*this, file);
    for (const auto& replacement : entries) SKIVET_CHECK(planner.add(replacement, limits, true));
    return planner.patch_archive();
}

}  // namespace skivet
