// Replacing, adding, renaming and taking out entries of a ZIP archive.
//
// A packed size that stays the same is written over the old bytes; only the checksums beside it change. Otherwise the entry is written
// again where the directory stood (or over itself, when it is the last one before the directory), and directory and end records
// follow it. What lies before is not touched, so the bytes written depend on the entry and the directory, not on the archive.
// Where stored entries are aligned, what is written anew is aligned as they are, by zeros in front of its local header.
// A new entry has the records of the one it is like, under its own name. An entry that only gets another name is written again as it lies,
// packed and encrypted. One that is taken out leaves its bytes; compacting gives them back.

#include "base/hash.h"
#include "base/phrase.h"
#include "container/zip_format.h"
#include "container/zip_planner.h"
#include "container/zip_records.h"

namespace skivet {

using namespace zip;

ZipContainer::Planner::Planner(const ZipContainer& zip, ByteSpan file) : zip_(zip), file_(file), append_at_(zip.tail_.directory_at) {
    starts_.reserve(zip.records_.size());
    for (const auto& record : zip.records_) starts_.push_back(record.local_at);
    std::sort(starts_.begin(), starts_.end());
}

Status ZipContainer::Planner::replace(const Replacement& replacement, const ReadLimits& limits, bool always_append) {
    const auto entry = replacement.entry;
    if (entry >= zip_.entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
    if (auto done = replace_entry(replacement, limits, always_append); !done) return fail(in_entry(zip_, entry, std::move(done).error()));
    replacement.bytes.rest();
    return {};
}

void ZipContainer::Planner::remove(std::size_t entry) {
    removed_.insert(entry);
    give_back(entry);
}

void ZipContainer::Planner::give_back(std::size_t entry) {
    const auto local = zip_.local_header(file_, entry);
    if (!local) return;
    const auto& record = zip_.records_[entry];
    const auto end = data_end(local->data_at, zip_.entries_[entry].stored) + zip_.descriptor_size(file_, entry, *local);
    if (end == zip_.tail_.directory_at && starts_.back() == record.local_at && lies_alone(entry, *local))
        append_at_ = std::min(append_at_, record.local_at);
}

std::optional<std::string> ZipContainer::Planner::name_of(std::size_t entry) const {
    const auto found = names_.find(entry);
    return found == names_.end() ? std::nullopt : std::optional(found->second);
}

Result<Content> ZipContainer::Planner::packed_like(std::size_t entry, const Content& content, std::uint32_t crc) const {
    const auto& record = zip_.records_[entry];
    if (record.method == 0 && !(record.flags & flag_encrypted)) return content;
    const auto old = zip_.stored_bytes(file_, entry);
    SKIVET_TRY(auto packed, pack_method(record.method, content, old && !(record.flags & flag_encrypted) ? *old : ByteSpan{}));
    if (record.flags & flag_encrypted) {
        SKIVET_TRY(packed, zip_.encrypted(packed, entry, crc));
    }
    content.rest();
    return Content(std::move(packed));
}

Status ZipContainer::Planner::replace_entry(const Replacement& replacement, const ReadLimits& limits, bool always_append) {
    const auto entry = replacement.entry;
    const auto& e = zip_.entries_[entry];
    const auto& record = zip_.records_[entry];
    if (!packing_of(record.method))
        return fail_at(ErrorCode::unsupported, e.at, phrase("packed with method {} ({})", record.method, e.method),
                       "Entries of this method cannot be replaced");
    if (replacement.bytes.size() > limits.inflated_bytes) return fail(ErrorCode::limit, "the new content is larger than the limit");
    const bool states_crc = record.aes_version != 2;
    const auto crc = states_crc ? crc32(replacement.bytes) : 0;
    // An entry whose content stays keeps its stored bytes. An entry that cannot be read is damaged and may be replaced.
    if (!always_append && (crc == record.crc || !states_crc) && replacement.bytes.size() == e.size) {
        const auto now = zip_.read(entry, limits);
        if (now && replacement.bytes == *now) return {};
    }
    SKIVET_TRY(const auto local, zip_.local_header(file_, entry));
    SKIVET_TRY(auto packed, packed_like(entry, replacement.bytes, crc));
    const bool same_size =
        packed.size() == e.stored && replacement.bytes.size() == e.size && local.data_at + e.stored <= zip_.tail_.directory_at;
    // The stream of method 14 that we write has an end mark, and a flag must say so.
    const bool flags_hold = (record.method != 14 || record.flags & flag_lzma_end_mark) &&
                            !(record.flags & flag_encrypted && !record.aes && record.flags & flag_descriptor);
    if (same_size && flags_hold && !always_append && !names_.contains(entry) && lies_alone(entry, local)) {
        in_place(entry, local, packed, crc);
    } else {
        give_back(entry);
        appended_.push_back({entry, local, std::move(packed), crc, replacement.bytes.size(), false, false, name_of(entry)});
    }
    return {};
}

Status ZipContainer::Planner::add(const NewEntry& entry, const ReadLimits& limits) {
    if (entry.bytes.size() > limits.inflated_bytes) return fail(ErrorCode::limit, "the new content is larger than the limit");
    if (entry.path.size() > 0xFFFF) return fail(ErrorCode::unfit, "a name of more than 65,535 bytes");
    Appended item;
    item.size = entry.bytes.size();
    item.crc = crc32(entry.bytes);
    item.is_new = true;
    item.name = entry.path;
    if (entry.like) {
        const auto& record = zip_.records_[*entry.like];
        if (!packing_of(record.method))
            return fail(in_entry(
                zip_, *entry.like,
                Error{ErrorCode::unsupported, phrase("packed with method {}", record.method), {}, {}, "Name another one it is like"}));
        if (record.aes_version == 2) item.crc = 0;
        item.entry = *entry.like;
        SKIVET_TRY(item.local, zip_.local_header(file_, item.entry));
        SKIVET_TRY(item.packed, packed_like(item.entry, entry.bytes, item.crc));
    } else {
        SKIVET_TRY(item.packed, pack_method(8, entry.bytes, {}));
    }
    appended_.push_back(std::move(item));
    return {};
}

Status ZipContainer::Planner::move_renamed() {
    for (const auto& [entry, name] : names_) {
        if (std::any_of(appended_.begin(), appended_.end(), [e = entry](const Appended& a) { return a.entry == e && !a.is_new; })) continue;
        const auto work = [&, e = entry, n = name]() -> Status {
            SKIVET_TRY(const auto local, zip_.local_header(file_, e));
            const auto& record = zip_.records_[e];
            const auto end = data_end(local.data_at, zip_.entries_[e].stored) + zip_.descriptor_size(file_, e, local);
            SKIVET_TRY(const auto behind, slice(file_, local.data_at, end - local.data_at));
            Appended item{e, local, {}, record.crc, zip_.entries_[e].size, false, true, n};
            auto whole = with_name(record_at(record.local_at, local.header_size, RecordOf::local), RecordOf::local, n);
            item.local.header_size = static_cast<std::uint32_t>(whole.size());
            whole.insert(whole.end(), behind.begin(), behind.end());
            item.packed = std::move(whole);
            give_back(e);
            appended_.push_back(std::move(item));
            return {};
        };
        if (auto done = work(); !done) return fail(in_entry(zip_, entry, std::move(done).error()));
    }
    return {};
}

Result<FilePlan> ZipContainer::Planner::finish() {
    SKIVET_CHECK(move_renamed());
    FilePlan plan;
    plan.new_size = zip_.file_.size();
    plan.way = Way::in_place;
    if (appended_.empty() && removed_.empty()) {
        for (const auto& [entry, crc] : new_crc_) patch(zip_.records_[entry].directory_at + dir_crc, crc);
        plan.ranges = std::move(ranges_);
        return plan;
    }
    if (zip_.tail_.split)
        return fail(ErrorCode::unsupported, "an archive split over several files takes only content that packs to the same size",
                    "Join the parts with a ZIP program first");
    RangeWriter out(ranges_, append_at_);
    const auto align = zip_.alignment(file_);
    std::uint64_t count = zip_.tail_.count - removed_.size();
    for (auto& item : appended_) {
        const auto head = item.whole ? Bytes{} : local_record(item);
        const auto head_size = item.whole ? item.local.header_size : head.size();
        if (is_aligned(item, align))
            if (const auto over = (out.at() + head_size - zip_.tail_.base) % align) out.fill(align - over, std::byte{0});
        const Moved moved{out.at(), &item};
        if (item.is_new) new_ones_.push_back(moved), ++count;
        else moved_to_[item.entry] = moved;
        out.put(head);
        out.put_content(item.packed);
    }
    const auto directory_at = out.at();
    out.put(directory());
    const auto directory_bytes = out.at() - directory_at;
    out.put(end_records(directory_at, directory_bytes, count));
    SKIVET_CHECK(check_whole());
    out.finish();
    plan.new_size = out.at();
    if (plan.new_size > zip_.file_.size()) plan.way = Way::append;
    // Readers look for the directory right before its end first. Where other bytes stand there, these must not look like one.
    const auto end_at = plan.new_size - (file_.size() - (zip_.tail_.end64_at ? zip_.tail_.end64_at : zip_.tail_.end_at));
    const auto looked_at = end_at - directory_bytes;
    if (looked_at != directory_at && looked_at >= append_at_ && new_u32(looked_at) == directory_signature)
        return fail_at(ErrorCode::unsupported, zip_.tail_.directory_at,
                       "what stands between the directory and its end would be taken for the directory",
                       "Deliver into an override folder instead, if the game has one");
    plan.ranges = std::move(ranges_);
    return plan;
}

std::uint32_t ZipContainer::Planner::new_u32(std::uint64_t at) const {
    std::uint32_t out = 0;
    for (std::uint64_t i = 0; i < 4; ++i)
        for (const auto& range : ranges_)
            if (at + i >= range.at && at + i - range.at < range.bytes.size())
                out |= std::to_integer<std::uint32_t>(range.bytes[static_cast<std::size_t>(at + i - range.at)]) << 8 * i;
    return out;
}

Result<Bytes> ZipContainer::Planner::patch_archive() {
    ByteWriter out;
    Bytes records;
    for (const auto& item : appended_) {
        const auto moved = directory_record(item, out.bytes.size());
        records.insert(records.end(), moved.begin(), moved.end());
        out.put(local_record(item));
        out.put(item.packed);
    }
    SKIVET_CHECK(check_whole());
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

bool ZipContainer::Planner::is_aligned(const Appended& item, std::uint64_t align) const {
    return align > 1 && item.entry != nothing && zip_.records_[item.entry].method == 0 && zip_.entries_[item.entry].stored > 0 &&
           (item.local.data_at - zip_.tail_.base) % align == 0;
}

void ZipContainer::Planner::patch(std::uint64_t at, std::uint32_t value) {
    Bytes bytes(4);
    store_le(bytes.data(), value);
    ranges_.push_back({at, std::move(bytes), 0});
}

std::uint32_t ZipContainer::Planner::at32(std::uint64_t at) const { return at + 4 <= file_.size() ? u32(file_, at) : 0; }

bool ZipContainer::Planner::lies_alone(std::size_t entry, const Local& local) const {
    const auto from = zip_.records_[entry].local_at;
    const auto first = std::lower_bound(starts_.begin(), starts_.end(), from);
    const auto next = std::next(first);
    return next == starts_.end() || *next >= std::max(from + 1, data_end(local.data_at, zip_.entries_[entry].stored));
}

void ZipContainer::Planner::in_place(std::size_t entry, const Local& local, const Content& packed, std::uint32_t crc) {
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

std::uint16_t ZipContainer::Planner::new_flags(std::uint16_t flags, const Appended& item) const {
    flags = static_cast<std::uint16_t>(flags & ~flag_descriptor);
    return item.entry != nothing && zip_.records_[item.entry].method == 14 ? static_cast<std::uint16_t>(flags | flag_lzma_end_mark) : flags;
}

Bytes ZipContainer::Planner::record_at(std::uint64_t at, std::uint64_t size, RecordOf kind) const {
    // Copied first: what is looked at must be what is used, whoever writes the file now.
    const auto old = file_.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(size));
    Bytes out(old.begin(), old.end());
    if (record_holds(out, kind)) return out;
    torn_ = true;
    return plain_record(kind);
}

Status ZipContainer::Planner::check_whole() const {
    if (!torn_) return {};
    return fail(ErrorCode::stale, "the archive was written by another program while it was looked at", "Look again");
}

Bytes ZipContainer::Planner::model_of(const Appended& item, RecordOf kind) const {
    Bytes out;
    if (item.entry == nothing) {
        out = plain_record(kind);
    } else {
        const auto& record = zip_.records_[item.entry];
        const bool local = kind == RecordOf::local;
        out = record_at(local ? record.local_at : record.directory_at, local ? item.local.header_size : record.directory_size, kind);
    }
    return item.name ? with_name(out, kind, *item.name) : out;
}

Bytes ZipContainer::Planner::local_record(const Appended& item) const {
    const auto model = model_of(item, RecordOf::local);
    const ByteSpan old = model;
    const std::size_t name = u16(old, local_name);
    const auto extra = without_zip64(old.subspan(local_size + name));
    Bytes out(old.begin(), old.begin() + static_cast<std::ptrdiff_t>(local_size + name));
    out.insert(out.end(), extra.begin(), extra.end());
    const auto flags = load_le<std::uint16_t>(out.data() + local_flags);
    store_le(out.data() + local_flags, new_flags(flags, item));
    store_le(out.data() + local_crc, item.crc);
    store_le(out.data() + local_stored, static_cast<std::uint32_t>(item.packed.size()));
    store_le(out.data() + local_bytes, static_cast<std::uint32_t>(item.size));
    store_le(out.data() + local_extra, static_cast<std::uint16_t>(extra.size()));
    return out;
}

Bytes ZipContainer::Planner::directory() const {
    const auto old = file_.subspan(static_cast<std::size_t>(zip_.tail_.directory_at), static_cast<std::size_t>(zip_.tail_.directory_size));
    Bytes out;
    out.reserve(old.size() + 64);
    std::uint64_t copied = 0;
    const auto copy_to = [&](std::uint64_t end) {
        out.insert(out.end(), old.begin() + static_cast<std::ptrdiff_t>(copied), old.begin() + static_cast<std::ptrdiff_t>(end));
        copied = end;
    };
    const auto put = [&](const Moved& moved) {
        const auto record = directory_record(*moved.item, moved.to - zip_.tail_.base);
        out.insert(out.end(), record.begin(), record.end());
    };
    for (std::size_t i = 0; i < zip_.records_.size(); ++i) {
        const auto at = zip_.records_[i].directory_at - zip_.tail_.directory_at;
        const auto size = zip_.records_[i].directory_size;
        if (removed_.contains(i)) {
            copy_to(at);
            copied = at + size;
        } else if (const auto moved = moved_to_.find(i); moved != moved_to_.end()) {
            copy_to(at);
            put(moved->second);
            copied = at + size;
        } else if (const auto crc = new_crc_.find(i); crc != new_crc_.end()) {
            copy_to(at + size);
            store_le(out.data() + out.size() - size + dir_crc, crc->second);
        }
    }
    copy_to(old.size());
    for (const auto& moved : new_ones_) put(moved);
    return out;
}

Bytes ZipContainer::Planner::directory_record(const Appended& item, std::uint64_t offset) const {
    const auto model = model_of(item, RecordOf::directory);
    const ByteSpan old = model;
    if (item.whole) return moved_record(old, offset, item.size, zip_.entries_[item.entry].stored);
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
    store_le(out.data() + dir_flags, new_flags(flags, item));
    store_le(out.data() + dir_crc, item.crc);
    store_le(out.data() + dir_stored, static_cast<std::uint32_t>(item.packed.size()));
    store_le(out.data() + dir_bytes, static_cast<std::uint32_t>(item.size));
    store_le(out.data() + dir_extra, static_cast<std::uint16_t>(extra.size()));
    store_le(out.data() + dir_local_at, offset >= in_zip64 ? in_zip64 : static_cast<std::uint32_t>(offset));
    return out;
}

Bytes ZipContainer::Planner::end_records(std::uint64_t directory_at, std::uint64_t directory_bytes, std::uint64_t count) const {
    const auto& tail = zip_.tail_;
    const auto offset = directory_at - tail.base;
    // What lay between directory and end records (a signature, say) stays there.
    const auto old_end = tail.end64_at ? tail.end64_at : tail.end_at;
    const auto behind = tail.directory_at + tail.directory_size;
    ByteWriter out;
    out.put(file_.subspan(static_cast<std::size_t>(behind), static_cast<std::size_t>(old_end - behind)));
    const bool wide = tail.end64_at != 0 || offset >= in_zip64 || directory_bytes >= in_zip64 || count >= in_zip64_count;
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
        for (const int at : {24, 32}) store_le(out.bytes.data() + start + at, count);  // on this disk, and in all
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
    for (const int at : {8, 10}) {
        if (tail.end64_at && load_le<std::uint16_t>(end + at) == in_zip64_count) continue;
        store_le(end + at, static_cast<std::uint16_t>(std::min<std::uint64_t>(count, in_zip64_count)));
    }
    keep_or(12, directory_bytes);
    keep_or(16, offset);
    return std::move(out.bytes);
}

Result<WritePlan> ZipContainer::plan(std::span<const Replacement> replacements, const ReadLimits& limits) const {
    return plan_entries({{replacements.begin(), replacements.end()}, {}, {}, {}}, limits);
}

Result<WritePlan> ZipContainer::plan_entries(const Changes& changes, const ReadLimits& limits) const {
    if (!read_only_.empty()) return cannot_write(*this);
    SKIVET_TRY(const auto file, file_.bytes());
    Planner planner(*this, file);
    for (const auto entry : changes.removed) planner.remove(entry);
    for (const auto& name : changes.renamed) planner.rename(name.entry, name.path);
    for (const auto& replacement : changes.replaced) SKIVET_CHECK(planner.replace(replacement, limits));
    for (const auto& entry : changes.added)
        if (auto done = planner.add(entry, limits); !done) return fail(std::move(done).error().within(entry.path));
    SKIVET_TRY(auto plan, planner.finish());
    return finish_plan(file_, std::move(plan));
}

Result<Bytes> ZipContainer::patch_archive(std::span<const Replacement> entries, const ReadLimits& limits) const {
    if (!read_only_.empty()) return cannot_write(*this);
    SKIVET_TRY(const auto file, file_.bytes());
    std::uint64_t sum = 0;
    for (const auto& e : entries) sum += e.bytes.size();
    if (entries.size() >= in_zip64_count || sum >= 0xF0000000u)
        return fail(ErrorCode::limit, "a patch archive of more than 65,534 entries or 3.7 GB", "Make several");
    Planner planner(*this, file);
    for (const auto& replacement : entries) SKIVET_CHECK(planner.replace(replacement, limits, true));
    return planner.patch_archive();
}

}  // namespace skivet
