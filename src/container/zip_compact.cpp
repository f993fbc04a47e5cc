// Giving back what no directory of a ZIP archive names any more.
#include "base/hash.h"
#include "container/zip_format.h"
#include "container/zip_planner.h"
#include "container/zip_records.h"

namespace skivet {

using namespace zip;

Result<FilePlan> ZipContainer::Planner::compact() {
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
        out.put(moved_record(record_at(part.record->directory_at, part.record->directory_size, RecordOf::directory),
                             part.to - zip_.tail_.base, part.size, part.stored));
    SKIVET_CHECK(check_whole());
    const auto directory_bytes = out.bytes.size();
    out.put(end_records(at, directory_bytes, parts.size()));
    plan.pieces.push_back({0, 0, std::move(out.bytes)});
    return plan;
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

}  // namespace skivet
