// Replacing entries of a ZIP archive.
//
// A packed size that stays the same is written over the old bytes; only the checksums beside it change. Otherwise the entry is written
// again where the directory stood (or over itself, when it is the last one before the directory), and directory and end records
// follow it. What lies before is not touched, so the bytes written depend on the entry and the directory, not on the archive.
#include <fmt/format.h>

#include "base/deflate.h"
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
        const std::size_t size = load_le<std::uint16_t>(fields.data() + at + 2);
        if (size > fields.size() - at - 4) break;
        if (load_le<std::uint16_t>(fields.data() + at) != zip64_extra)
            out.insert(out.end(), fields.begin() + static_cast<std::ptrdiff_t>(at), fields.begin() + static_cast<std::ptrdiff_t>(at + 4 + size));
        at += 4 + size;
    }
    out.insert(out.end(), fields.begin() + static_cast<std::ptrdiff_t>(at), fields.end());  // padding some writers leave
    return out;
}

}  // namespace

class ZipContainer::Planner {
public:
    Planner(const ZipContainer& zip, ByteSpan file) : zip_(zip), file_(file), append_at_(zip.tail_.directory_at) {}

    Status add(const Replacement& replacement, const ReadLimits& limits) {
        const auto entry = replacement.entry;
        if (entry >= zip_.entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
        const auto& e = zip_.entries_[entry];
        const auto& record = zip_.records_[entry];
        if (record.method != 0 && record.method != 8)
            return fail(in_entry(zip_, entry, Error{ErrorCode::unsupported, fmt::format("packed with method {} ({})", record.method, e.method), {}, e.at,
                                                    "Only stored and deflate entries can be replaced"}));
        if (replacement.bytes.size() > limits.inflated_bytes)
            return fail(in_entry(zip_, entry, Error{ErrorCode::limit, "the new content is larger than the limit", {}, {}, {}}));
        const auto crc = crc32(replacement.bytes);
        // Rule 7: an entry whose content stays keeps its stored bytes. An entry that cannot be read is damaged and may be replaced.
        if (crc == record.crc && replacement.bytes.size() == e.size) {
            const auto now = zip_.read(entry, limits);
            if (now && *now == replacement.bytes) return {};
        }
        auto local = zip_.local_header(file_, entry);
        if (!local) return fail(in_entry(zip_, entry, std::move(local).error()));
        const auto packed = record.method == 0 ? replacement.bytes : deflate(replacement.bytes);
        const bool same_place = packed.size() == e.stored && replacement.bytes.size() == e.size && local->data_at + e.stored <= zip_.tail_.directory_at;
        if (same_place) {
            in_place(entry, *local, packed, crc);
        } else {
            const auto end = local->data_at + e.stored + descriptor_size(entry, *local);
            // The last entry before the directory gives its own place back.
            if (end == zip_.tail_.directory_at && is_alone_at_end(entry)) append_at_ = std::min(append_at_, record.local_at);
            appended_.push_back({entry, *local, packed, crc, replacement.bytes.size()});
        }
        return {};
    }

    Result<FilePlan> finish() {
        FilePlan plan;
        plan.file = zip_.file_.path();
        plan.expected = zip_.file_.stamp();
        plan.new_size = zip_.file_.size();
        plan.way = appended_.empty() ? Way::in_place : Way::append;
        if (!appended_.empty()) {
            ByteWriter out;
            std::vector<std::uint64_t> moved_to(zip_.records_.size(), stays);
            for (auto& item : appended_) {
                moved_to[item.entry] = append_at_ + out.bytes.size();
                out.put(local_record(item));
                out.put(item.packed);
            }
            const auto directory_at = append_at_ + out.bytes.size();
            out.put(directory(moved_to));
            const auto directory_bytes = append_at_ + out.bytes.size() - directory_at;
            out.put(end_records(directory_at, directory_bytes));
            plan.new_size = append_at_ + out.bytes.size();
            ranges_.push_back({append_at_, std::move(out.bytes)});
        } else {
            for (const auto& [entry, crc] : new_crc_) patch(zip_.records_[entry].directory_at + dir_crc, crc);
        }
        plan.ranges = std::move(ranges_);
        minimize(plan, file_);
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

    /// Of an entry that is not moved; 0 is where the first entry of an archive lies.
    static constexpr std::uint64_t stays = ~std::uint64_t{0};

    const ZipContainer& zip_;
    ByteSpan file_;
    std::uint64_t append_at_;
    std::vector<WriteRange> ranges_;
    std::vector<Appended> appended_;
    std::vector<std::pair<std::size_t, std::uint32_t>> new_crc_;

    void patch(std::uint64_t at, std::uint32_t value) {
        Bytes bytes(4);
        store_le(bytes.data(), value);
        ranges_.push_back({at, std::move(bytes)});
    }

    std::uint32_t at32(std::uint64_t at) const { return at + 4 <= file_.size() ? load_le<std::uint32_t>(file_.data() + at) : 0; }

    /// Bytes of the data descriptor behind the entry, 0 when it has none (4.3.9: the signature is optional, sizes are 4 or 8 bytes).
    std::uint64_t descriptor_size(std::size_t entry, const Local& local) const {
        const auto& record = zip_.records_[entry];
        if (!(record.flags & flag_descriptor)) return 0;
        const auto at = local.data_at + zip_.entries_[entry].stored;
        const std::uint64_t lead = at32(at) == descriptor_signature && at32(at + 4) == record.crc ? 4 : 0;
        if (lead == 0 && at32(at) != record.crc) return 0;
        const bool wide = at + lead + 20 <= file_.size() && load_le<std::uint64_t>(file_.data() + at + lead + 4) == zip_.entries_[entry].stored &&
                          load_le<std::uint64_t>(file_.data() + at + lead + 12) == zip_.entries_[entry].size;
        return lead + (wide ? 20 : 12);
    }

    bool is_alone_at_end(std::size_t entry) const {
        const auto at = zip_.records_[entry].local_at;
        for (std::size_t i = 0; i < zip_.records_.size(); ++i)
            if (i != entry && zip_.records_[i].local_at >= at) return false;
        return true;
    }

    void in_place(std::size_t entry, const Local& local, const Bytes& packed, std::uint32_t crc) {
        const auto& record = zip_.records_[entry];
        ranges_.push_back({local.data_at, packed});
        if (at32(record.local_at + local_crc) == record.crc) patch(record.local_at + local_crc, crc);
        if (descriptor_size(entry, local) > 0) {
            const auto at = local.data_at + zip_.entries_[entry].stored;
            patch(at + (at32(at) == descriptor_signature && at32(at + 4) == record.crc ? 4 : 0), crc);
        }
        new_crc_.emplace_back(entry, crc);
    }

    Bytes local_record(const Appended& item) const {
        const auto old = file_.subspan(static_cast<std::size_t>(zip_.records_[item.entry].local_at), item.local.header_size);
        const std::size_t name = load_le<std::uint16_t>(old.data() + local_name);
        const auto extra = without_zip64(old.subspan(local_size + name));
        Bytes out(old.begin(), old.begin() + static_cast<std::ptrdiff_t>(local_size + name));
        out.insert(out.end(), extra.begin(), extra.end());
        const auto flags = load_le<std::uint16_t>(out.data() + local_flags);
        store_le(out.data() + local_flags, static_cast<std::uint16_t>(flags & ~flag_descriptor));
        store_le(out.data() + local_crc, item.crc);
        store_le(out.data() + local_stored, static_cast<std::uint32_t>(item.packed.size()));
        store_le(out.data() + local_bytes, static_cast<std::uint32_t>(item.size));
        store_le(out.data() + local_extra, static_cast<std::uint16_t>(extra.size()));
        return out;
    }

    Bytes directory(const std::vector<std::uint64_t>& moved_to) const {
        const auto old = file_.subspan(static_cast<std::size_t>(zip_.tail_.directory_at), static_cast<std::size_t>(zip_.tail_.directory_size));
        Bytes out;
        out.reserve(old.size() + 64);
        std::uint64_t copied = 0;
        const auto copy_to = [&](std::uint64_t end) {
            out.insert(out.end(), old.begin() + static_cast<std::ptrdiff_t>(copied), old.begin() + static_cast<std::ptrdiff_t>(end));
            copied = end;
        };
        for (std::size_t i = 0; i < zip_.records_.size(); ++i) {
            const auto at = zip_.records_[i].directory_at - zip_.tail_.directory_at;
            if (moved_to[i] != stays) {
                copy_to(at);
                const auto& item = *std::find_if(appended_.begin(), appended_.end(), [&](const auto& a) { return a.entry == i; });
                const auto record = directory_record(old.subspan(static_cast<std::size_t>(at), zip_.records_[i].directory_size), item,
                                                     moved_to[i] - zip_.tail_.base);
                out.insert(out.end(), record.begin(), record.end());
                copied = at + zip_.records_[i].directory_size;
            } else if (const auto crc = std::find_if(new_crc_.begin(), new_crc_.end(), [&](const auto& c) { return c.first == i; });
                       crc != new_crc_.end()) {
                copy_to(at + zip_.records_[i].directory_size);
                store_le(out.data() + out.size() - zip_.records_[i].directory_size + dir_crc, crc->second);
            }
        }
        copy_to(old.size());
        return out;
    }

    static Bytes directory_record(ByteSpan old, const Appended& item, std::uint64_t offset) {
        const std::size_t name = load_le<std::uint16_t>(old.data() + dir_name), extra_size = load_le<std::uint16_t>(old.data() + dir_extra);
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
        store_le(out.data() + dir_flags, static_cast<std::uint16_t>(flags & ~flag_descriptor));
        store_le(out.data() + dir_crc, item.crc);
        store_le(out.data() + dir_stored, static_cast<std::uint32_t>(item.packed.size()));
        store_le(out.data() + dir_bytes, static_cast<std::uint32_t>(item.size));
        store_le(out.data() + dir_extra, static_cast<std::uint16_t>(extra.size()));
        store_le(out.data() + dir_local_at, offset >= in_zip64 ? in_zip64 : static_cast<std::uint32_t>(offset));
        return out;
    }

    Bytes end_records(std::uint64_t directory_at, std::uint64_t directory_bytes) const {
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
                out.le(tail.count);
                out.le(tail.count);
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
    SKIVET_TRY(const auto file, file_.bytes());
    Planner planner(*this, file);
    for (const auto& replacement : replacements) SKIVET_CHECK(planner.add(replacement, limits));
    SKIVET_TRY(auto plan, planner.finish());
    WritePlan out;
    if (!plan.empty()) out.files.push_back(std::move(plan));
    return out;
}

}  // namespace skivet
