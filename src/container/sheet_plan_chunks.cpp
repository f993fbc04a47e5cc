// Writing entries that lie in one stream of chunks. Content goes over the old one in the stream while it fits, otherwise to the stream's
// end. Only the chunks it touches are packed again. They go over the old ones where they fit; where the table says offsets, the others go
// to the file's end; otherwise, or when there are more of them, chunks and their table are laid out anew and everything behind them moves.
#include <fmt/format.h>

#include "container/sheet_planner.h"
#include "sheet/method.h"

namespace skivet {

using namespace sheet_gaps;

std::vector<bool> SheetContainer::Planner::shared_items() const {
    std::vector<bool> out(c_.items_.size());
    const auto order = by_file_.find(own_file);
    std::uint64_t end = 0;
    std::size_t owner = 0;  // of the farthest end so far
    for (const auto i : order == by_file_.end() ? std::vector<std::size_t>{} : order->second) {
        const auto& item = c_.items_[i];
        if (item.stored == 0) continue;
        if (item.data_at < end) out[i] = out[owner] = true;
        if (item.data_at + item.stored > end) end = item.data_at + item.stored, owner = i;
    }
    return out;
}

Result<std::map<std::size_t, SheetContainer::Planner::NewChunk>> SheetContainer::Planner::new_chunks() {
    const auto& chunks = c_.chunks_;
    const auto stream_end = chunks.back().start + chunks.back().size;
    auto end = stream_end;
    std::vector<std::pair<std::uint64_t, ByteSpan>> edits;
    const auto shared = shared_items();
    for (auto& [entry, fresh] : fresh_) {
        const auto& item = c_.items_[entry];
        const auto& content = fresh.content;
        auto at = item.data_at;
        if (content.size() > item.stored || (shared[entry] && item.stored > 0)) {
            at = aligned(end, sheet_.align);
            end = at + content.size();
        }
        if (!content.empty()) edits.emplace_back(at, content);
        SKIVET_CHECK(patch_record(entry, at, &fresh));
    }
    SKIVET_TRY(auto usual, sheet_data::chunk_size(sheet_, c_.header_.values));
    if (usual == 0) usual = chunks.front().size;
    // The chunks as they are cut now: the last one filled up, then new ones.
    std::vector<std::pair<std::uint64_t, std::uint64_t>> cut;  // start, size
    for (const auto& chunk : chunks) cut.emplace_back(chunk.start, chunk.size);
    if (end > stream_end && cut.back().second < usual) cut.back().second = std::min(usual, end - cut.back().first);
    while (cut.back().first + cut.back().second < end) {
        const auto start = cut.back().first + cut.back().second;
        cut.emplace_back(start, std::min(usual, end - start));
    }
    // What lies in which chunk.
    std::map<std::size_t, std::vector<std::size_t>> touched;
    for (std::size_t e = 0; e < edits.size(); ++e) {
        const auto& [at, content] = edits[e];
        const auto first = std::upper_bound(cut.begin(), cut.end(), at, [](std::uint64_t a, const auto& c) { return a < c.first; });
        for (auto i = static_cast<std::size_t>(first - cut.begin()) - 1; i < cut.size() && cut[i].first < at + content.size(); ++i)
            touched[i].push_back(e);
    }
    for (std::size_t i = chunks.size() - 1; i < cut.size(); ++i)
        if (i >= chunks.size() || cut[i].second != chunks[i].size) touched.try_emplace(i);
    std::map<std::size_t, NewChunk> out;
    for (const auto& [i, changes] : touched) {
        const auto [start, size] = cut[i];
        Bytes content;
        if (i < chunks.size()) {
            SKIVET_TRY(const auto old, c_.chunk_bytes(i));
            content = *old;
        }
        content.resize(static_cast<std::size_t>(size), sheet_.fill);
        for (const auto e : changes) overlay(content, start, edits[e].first, edits[e].second);
        NewChunk chunk;
        chunk.size = size;
        SKIVET_TRY(auto packed, pack_by(*method_named(sheet_, sheet_.method), content, sheet_.level, {}, *c_.packers_));
        chunk.raw = packed.size() >= content.size();
        chunk.stored = chunk.raw ? std::move(content) : std::move(packed);
        out[i] = std::move(chunk);
    }
    return out;
}

Status SheetContainer::Planner::patch_chunk(std::size_t index, std::uint64_t at, const NewChunk& chunk) {
    RecordValues row;
    SKIVET_CHECK(read_record(sheet_.chunks->table, c_.header_.order, image_, c_.chunks_[index].row_at, ReadLimits{}, row));
    if (const auto* offset = row.with(Meaning::data_offset)) SKIVET_CHECK(patch(*offset, at - c_.base_of(*offset->field, offset->at)));
    if (const auto* stored = row.with(Meaning::stored_size)) {
        const auto bit = sheet_.chunks->high_bit && chunk.raw ? 1ull << (8 * stored->field->width - 1) : 0;
        SKIVET_CHECK(patch(*stored, chunk.stored.size() | bit));
    }
    if (const auto* size = row.with(Meaning::size)) SKIVET_CHECK(patch(*size, chunk.size));
    return {};
}

Result<std::optional<FilePlan>> SheetContainer::Planner::lay_out_chunks() {
    SKIVET_TRY(const auto fresh, new_chunks());
    const auto& chunks = c_.chunks_;
    const auto& table = sheet_.chunks->table;
    const bool places = table.with(Meaning::data_offset) && table.with(Meaning::stored_size);
    if (fresh.empty()) return std::optional<FilePlan>();
    const bool more = fresh.rbegin()->first >= chunks.size();
    const bool in_place = !more && std::all_of(fresh.begin(), fresh.end(), [&](const auto& f) {
        const auto& old = chunks[f.first];
        return places ? f.second.stored.size() <= old.stored : f.second.stored.size() == old.stored;
    });
    if (!in_place && (more || !places || sheet_.header_at < 0 || relaid_)) {
        SKIVET_TRY(auto plan, rebuild_chunks(fresh));
        return std::optional(std::move(plan));
    }
    FilePlan plan;
    plan.new_size = file_.size();
    plan.way = Way::in_place;
    std::vector<WriteRange> grown;
    RangeWriter behind(grown, file_.size());
    for (const auto& [index, chunk] : fresh) {
        const auto& old = chunks[index];
        auto at = old.at;
        Bytes there(static_cast<std::size_t>(old.stored), sheet_.fill);  // nothing of the old content stays behind
        if (chunk.stored.size() <= old.stored) {
            std::copy(chunk.stored.begin(), chunk.stored.end(), there.begin());
        } else {
            at = aligned(behind.at(), sheet_.align);
            behind.fill(at - behind.at(), sheet_.fill);
            behind.put_content(chunk.stored);
        }
        plan.ranges.push_back({old.at, std::move(there), 0});
        SKIVET_CHECK(patch_chunk(index, at, chunk));
    }
    behind.finish();
    if (!grown.empty()) {
        plan.way = Way::append;
        plan.new_size = behind.at();
        std::move(grown.begin(), grown.end(), std::back_inserter(plan.ranges));
        growth_ = plan.new_size - file_.size();
    }
    return std::optional(std::move(plan));
}

Status SheetContainer::Planner::fill_row(Bytes& table, std::size_t row, std::size_t like, std::uint64_t at, const Chunk& chunk) const {
    const auto& type = sheet_.chunks->table;
    RecordValues old;
    SKIVET_CHECK(read_record(type, c_.header_.order, image_, c_.chunks_[like].row_at, ReadLimits{}, old));
    const auto size = *type.fixed_size();
    const auto start = c_.chunks_[like].row_at;
    const auto to = table.begin() + static_cast<std::ptrdiff_t>(row * size);
    const auto from = image_.begin() + static_cast<std::ptrdiff_t>(start);
    std::copy(from, from + static_cast<std::ptrdiff_t>(size), to);
    const auto put = [&](Meaning meaning, std::uint64_t number) -> Status {
        const auto* value = old.with(meaning);
        if (!value) return {};
        const auto place = to + static_cast<std::ptrdiff_t>(value->at - start);
        const Bytes before(place, place + static_cast<std::ptrdiff_t>(value->size));
        SKIVET_TRY(const auto bytes, field_bytes(*value->field, c_.header_.order, number, before));
        std::copy(bytes.begin(), bytes.end(), place);
        return {};
    };
    const auto* offset = old.with(Meaning::data_offset);
    if (offset) SKIVET_CHECK(put(Meaning::data_offset, at - c_.base_of(*offset->field, offset->at)));
    const auto* stored = old.with(Meaning::stored_size);
    if (stored)
        SKIVET_CHECK(
            put(Meaning::stored_size, chunk.stored | (sheet_.chunks->high_bit && chunk.raw ? 1ull << (8 * stored->field->width - 1) : 0)));
    return put(Meaning::size, chunk.size);
}

Result<FilePlan> SheetContainer::Planner::rebuild_chunks(const std::map<std::size_t, NewChunk>& fresh) {
    const auto& chunks = c_.chunks_;
    const auto& spec = *sheet_.chunks;
    if (c_.chunk_table_at_ >= file_.size())
        return fail(ErrorCode::unsupported, "the table of chunks is in a packed directory and would have to grow",
                    "Deliver into an override folder instead, if the game has one");
    const auto count = std::max(chunks.size(), fresh.rbegin()->first + 1);
    if (count != chunks.size()) {
        if (spec.table_count.by != CountOf::By::field)
            return fail(ErrorCode::unsupported, "more chunks are needed, and no field says how many there are");
        const auto* value = c_.header_.values.named(spec.table_count.field);
        SKIVET_CHECK(patch(*value, count));
    }
    // Stretches in file order: the table, the chunks, and everything between them, which is copied.
    struct Stretch {
        std::uint64_t at, end;
        std::size_t chunk;  ///< none: the table
    };
    constexpr auto none = ~std::size_t{0};
    std::vector<Stretch> stretches = {{c_.chunk_table_at_, c_.chunk_table_end_, none}};
    std::size_t highest = 0;
    for (std::size_t i = 0; i < chunks.size(); ++i) {
        stretches.push_back({chunks[i].at, chunks[i].at + chunks[i].stored, i});
        if (chunks[i].at >= chunks[highest].at) highest = i;
    }
    std::stable_sort(stretches.begin(), stretches.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    for (std::size_t i = 1; i < stretches.size(); ++i)
        if (stretches[i].at < stretches[i - 1].end)
            return fail(ErrorCode::unsupported, "chunks share bytes, so they cannot be laid out anew");
    FilePlan plan;
    std::uint64_t from = 0, to = 0;
    std::vector<std::uint64_t> placed(count);
    std::size_t table_piece = 0;
    const auto row_size = *spec.table.fixed_size();
    const auto note_move = [&] {
        if ((moves_.empty() ? 0 : moves_.back().second) != to - from) moves_.emplace_back(from, to - from);
    };
    const bool offsets = spec.table.with(Meaning::data_offset) != nullptr;
    const auto pad = [&] {
        const auto start = aligned(to, sheet_.align);
        if (!offsets || start == to) return;
        plan.pieces.push_back({0, 0, Bytes(static_cast<std::size_t>(start - to), sheet_.fill)});
        to = start;
    };
    const auto put = [&](std::size_t index, const Content& bytes) {
        pad();
        placed[index] = to;
        to += bytes.size();
        if (!bytes.empty()) plan.pieces.push_back({0, 0, bytes});
    };
    for (const auto& s : stretches) {
        // Padding before a chunk is made anew.
        const bool pads = s.chunk != none && offsets && to != from && s.at > from && s.at - from < dead_from(sheet_.align) &&
                          c_.is_blank(file_.subspan(static_cast<std::size_t>(from), static_cast<std::size_t>(s.at - from)));
        if (pads) from = s.at;
        if (s.at > from) {
            note_move();
            plan.pieces.push_back({from, s.at - from, {}});
            to += s.at - from;
            from = s.at;
        }
        note_move();
        if (s.chunk == none) {
            table_piece = plan.pieces.size();
            plan.pieces.push_back({0, 0, Bytes(static_cast<std::size_t>(count * row_size))});
            to += count * row_size;
        } else if (const auto changed = fresh.find(s.chunk); changed != fresh.end()) {
            put(s.chunk, changed->second.stored);
        } else {
            if (to != from) pad();
            placed[s.chunk] = to;
            if (s.end > s.at) plan.pieces.push_back({s.at, s.end - s.at, {}});
            to += s.end - s.at;
        }
        from = s.end;
        if (s.chunk == highest)
            for (auto i = chunks.size(); i < count; ++i) put(i, fresh.at(i).stored);
    }
    note_move();
    if (from < file_.size()) plan.pieces.push_back({from, file_.size() - from, {}});
    plan.new_size = to + (file_.size() - from);
    plan.way = Way::rebuild;
    growth_ = plan.new_size - file_.size();
    Bytes table(static_cast<std::size_t>(count * row_size));
    for (std::size_t i = 0; i < count; ++i) {
        const auto changed = fresh.find(i);
        const auto like = std::min(i, chunks.size() - 1);
        auto numbers = chunks[like];
        if (changed != fresh.end()) {
            numbers.stored = changed->second.stored.size();
            numbers.size = changed->second.size;
            numbers.raw = changed->second.raw;
        }
        SKIVET_CHECK(fill_row(table, i, like, placed[i], numbers));
    }
    plan.pieces[table_piece].bytes = std::move(table);
    return plan;
}

}  // namespace skivet
