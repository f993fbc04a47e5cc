#include "container/write_plan.h"

#include <xxhash.h>

#include "base/phrase.h"

namespace skivet {

std::string_view name_of(Way way) {
    switch (way) {
        case Way::in_place: return "in-place";
        case Way::append: return "append";
        case Way::rebuild: return "rebuild";
        case Way::create: return "create";
        case Way::remove: return "remove";
        default: return "nothing";
    }
}

std::uint64_t FilePlan::bytes_new() const {
    std::uint64_t sum = 0;
    for (const auto& range : ranges) sum += range.bytes.size();
    for (const auto& piece : pieces) sum += piece.bytes.size();
    return sum;
}

std::uint64_t FilePlan::bytes_written() const { return pieces.empty() && origin.path.empty() ? bytes_new() : new_size; }

std::uint64_t WritePlan::bytes_written() const {
    std::uint64_t sum = 0;
    for (const auto& file : files) sum += file.bytes_written();
    return sum;
}

Way WritePlan::way() const {
    auto most = Way::nothing;
    for (const auto& file : files) most = std::max(most, file.way);
    return most;
}

void WritePlan::add(WritePlan other) { std::move(other.files.begin(), other.files.end(), std::back_inserter(files)); }

namespace {
constexpr std::size_t range_size = 1u << 20;
constexpr std::size_t usual_gap = 32;  // as minimize has it
}  // namespace

void RangeWriter::put(ByteSpan bytes) {
    while (!bytes.empty()) {
        const auto part = bytes.first(std::min(bytes.size(), range_size - std::min(range_size, waiting_.size())));
        waiting_.insert(waiting_.end(), part.begin(), part.end());
        if (waiting_.size() >= range_size) finish();
        bytes = bytes.subspan(part.size());
    }
}

void RangeWriter::put_content(const Content& content) {
    if (content.size() >= range_size) {
        finish();
        out_.push_back({at_, content, 0});
        at_ += content.size();
    } else {
        put(ByteSpan(content));
    }
    content.rest();
}

void RangeWriter::fill(std::uint64_t count, std::byte value) { waiting_.resize(waiting_.size() + static_cast<std::size_t>(count), value); }

void RangeWriter::finish() {
    const auto size = waiting_.size();
    if (size > 0) out_.push_back({at_, std::exchange(waiting_, {}), 0});
    at_ += size;
}

std::vector<std::pair<std::uint64_t, std::uint64_t>> written_ranges(const FilePlan& plan) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> out;
    for (const auto& range : plan.ranges) out.emplace_back(range.at, range.bytes.size());
    std::uint64_t at = 0;
    for (const auto& piece : plan.pieces) {
        if (!piece.is_copy()) out.emplace_back(at, piece.bytes.size());
        at += piece.length();
    }
    return out;
}

std::uint64_t kept_bytes(const FilePlan& plan) {
    const auto size = plan.expected.size;
    std::uint64_t sum = 0;
    if (!plan.pieces.empty()) {
        for (const auto& piece : plan.pieces) sum += piece.is_copy() ? piece.size : 0;
        return size - std::min(size, sum);
    }
    for (const auto& range : plan.ranges) sum += std::min<std::uint64_t>(range.bytes.size(), size - std::min(size, range.at));
    return sum + (size - std::min(size, plan.new_size));
}

std::uint64_t range_hash(ByteSpan bytes) { return XXH3_64bits(bytes.data(), bytes.size()); }

std::uint64_t sample_of(ByteSpan file) {
    constexpr std::size_t page = 4096, samples = 16;  // 64 KB of any file: read in a millisecond, and another build differs in one of them
    if (file.size() <= page * samples) return XXH3_64bits_withSeed(file.data(), file.size(), file.size());
    std::uint64_t sum = file.size();
    for (std::size_t i = 0; i < samples; ++i) {
        const auto at = static_cast<std::size_t>((file.size() - page) / (samples - 1) * i);
        sum = XXH3_64bits_withSeed(file.data() + at, page, sum);
    }
    return XXH3_64bits_withSeed(file.data() + file.size() - page, page, sum);
}

namespace {

/// `gone_over` gets the bytes of `current` that are done with.
template <class GoneOver>
void cut_to_changes(FilePlan& plan, ByteSpan current, std::size_t gap, const GoneOver& gone_over) {
    std::sort(plan.ranges.begin(), plan.ranges.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    std::vector<WriteRange> out;
    for (const auto& range : plan.ranges) {
        const auto differs = [&](std::size_t i) {
            const auto at = range.at + i;
            return at >= current.size() || current[static_cast<std::size_t>(at)] != range.bytes[i];
        };
        std::size_t i = 0;
        while (i < range.bytes.size()) {
            while (i < range.bytes.size() && !differs(i)) ++i;
            if (i == range.bytes.size()) break;
            const auto start = i;
            auto end = i + 1;
            for (std::size_t same = 0; ++i < range.bytes.size() && same <= gap;) {
                if (differs(i)) end = i + 1, same = 0;
                else ++same;
            }
            out.push_back({range.at + start, range.bytes.part(start, end - start), 0});
            i = end;
        }
        range.bytes.rest();
        gone_over(range.bytes.size());
    }
    plan.ranges = std::move(out);
    if (plan.empty()) plan.way = Way::nothing;
}

}  // namespace

void minimize(FilePlan& plan, ByteSpan current, std::size_t gap) {
    cut_to_changes(plan, current, gap, [](std::size_t) {});
}

void join_pieces(FilePlan& plan) {
    constexpr std::size_t joined = 64u << 10;  // larger ones are a write each in any case
    std::vector<PlanPiece> out;
    for (auto& piece : plan.pieces) {
        if (piece.length() == 0) continue;
        if (!out.empty() && piece.is_copy() && out.back().is_copy() && out.back().from + out.back().size == piece.from) {
            out.back().size += piece.size;
        } else if (!out.empty() && !piece.is_copy() && !out.back().is_copy() && out.back().bytes.size() + piece.bytes.size() < joined) {
            auto both = out.back().bytes.copy();
            both.insert(both.end(), piece.bytes.begin(), piece.bytes.end());
            out.back().bytes = std::move(both);
        } else {
            out.push_back(std::move(piece));
        }
    }
    plan.pieces = std::move(out);
    plan.new_size = 0;
    for (const auto& piece : plan.pieces) plan.new_size += piece.length();
}

namespace {

/// One plan for every part of a cut file that the ranges touch. What lies behind the end goes into the last part.
Result<WritePlan> over_parts(const FileView& view, const FilePlan& plan) {
    if (!plan.pieces.empty())
        return fail(ErrorCode::unsupported, "an archive cut into parts cannot be built anew", "Join the parts into one file and use that");
    WritePlan out;
    const auto& parts = view.parts();
    std::uint64_t start = 0;
    for (std::size_t p = 0; p < parts.size(); ++p) {
        const bool last = p + 1 == parts.size();
        const auto end = last ? std::max(plan.new_size, start + parts[p].stamp.size) : start + parts[p].stamp.size;
        FilePlan one;
        one.file = parts[p].path;
        one.expected = parts[p].stamp;
        one.new_size = last ? (plan.new_size >= start ? plan.new_size - start : ~0ull) : parts[p].stamp.size;
        if (one.new_size == ~0ull || (!last && plan.new_size < end))
            return fail(ErrorCode::unsupported, "the archive would become shorter than its parts",
                        "Join the parts into one file and use that");
        one.way = plan.way == Way::append && !last ? Way::in_place : plan.way;
        for (const auto& range : plan.ranges) {
            const auto from = std::max(range.at, start), to = std::min<std::uint64_t>(range.at + range.bytes.size(), end);
            if (from >= to) continue;
            one.ranges.push_back(
                {from - start, range.bytes.part(static_cast<std::size_t>(from - range.at), static_cast<std::size_t>(to - from)), 0});
        }
        if (!one.empty()) {
            SKIVET_TRY(const auto all, view.bytes());
            const auto mine = all.subspan(static_cast<std::size_t>(start), static_cast<std::size_t>(parts[p].stamp.size));
            one.sample = sample_of(mine);
            for (auto& range : one.ranges)
                range.was =
                    range_hash(mine.subspan(static_cast<std::size_t>(std::min<std::uint64_t>(range.at, mine.size())),
                                            static_cast<std::size_t>(std::min<std::uint64_t>(
                                                range.bytes.size(), mine.size() - std::min<std::uint64_t>(range.at, mine.size())))));
            out.files.push_back(std::move(one));
        }
        start += parts[p].stamp.size;
    }
    return out;
}

}  // namespace

Result<WritePlan> finish_plan(const FileView& view, FilePlan plan) {
    SKIVET_TRY(const auto current, view.bytes());
    plan.file = view.path();
    plan.expected = view.stamp();
    if (!plan.pieces.empty()) {
        join_pieces(plan);
        plan.way = Way::rebuild;
        // A rebuild that copies everything changes nothing.
        if (plan.pieces.size() == 1 && plan.pieces[0].is_copy() && plan.pieces[0].from == 0 && plan.new_size == current.size())
            return WritePlan{};
    } else {
        cut_to_changes(plan, current, usual_gap, [&](std::size_t bytes) { view.note_read(bytes); });
    }
    WritePlan out;
    if (plan.empty()) return out;
    if (view.parts().size() > 1) return over_parts(view, plan);
    plan.sample = sample_of(current);
    for (auto& range : plan.ranges) {
        const auto at = std::min<std::uint64_t>(range.at, current.size());
        range.was = range_hash(current.subspan(static_cast<std::size_t>(at),
                                               static_cast<std::size_t>(std::min<std::uint64_t>(range.bytes.size(), current.size() - at))));
        view.note_read(range.bytes.size());
    }
    out.files.push_back(std::move(plan));
    return out;
}

Result<WritePlan> plan_whole_file(const FileView& view, Content content) {
    FilePlan plan;
    plan.new_size = content.size();
    plan.way = content.size() > view.size() ? Way::append : Way::in_place;
    plan.ranges.push_back({0, std::move(content), 0});
    return finish_plan(view, std::move(plan));
}

WritePlan plan_new_file(const std::filesystem::path& file, Content content) {
    FilePlan plan;
    plan.file = file;
    plan.way = Way::create;
    plan.new_size = content.size();
    plan.ranges.push_back({0, std::move(content), 0});
    WritePlan out;
    out.files.push_back(std::move(plan));
    return out;
}

Result<WritePlan> plan_no_file(const FileView& view) {
    WritePlan out;
    SKIVET_TRY(const auto all, view.bytes());
    std::size_t at = 0;
    for (const auto& part : view.parts()) {
        FilePlan plan;
        plan.file = part.path;
        plan.expected = part.stamp;
        plan.way = Way::remove;
        plan.sample = sample_of(all.subspan(at, static_cast<std::size_t>(part.stamp.size)));
        at += static_cast<std::size_t>(part.stamp.size);
        out.files.push_back(std::move(plan));
    }
    return out;
}

Result<Bytes> planned_bytes(const FilePlan& plan, ByteSpan current) {
    const auto past = [](std::uint64_t at, const char* what) { return fail_at(ErrorCode::damaged, at, what); };
    Bytes out;
    if (!plan.pieces.empty()) {
        out.reserve(static_cast<std::size_t>(plan.new_size));
        for (const auto& piece : plan.pieces) {
            if (!piece.is_copy()) {
                out.insert(out.end(), piece.bytes.begin(), piece.bytes.end());
                continue;
            }
            if (piece.from > current.size() || piece.size > current.size() - piece.from)
                return past(piece.from, "the plan reads past the end of the file");
            const auto from = current.subspan(static_cast<std::size_t>(piece.from), static_cast<std::size_t>(piece.size));
            out.insert(out.end(), from.begin(), from.end());
        }
        return out;
    }
    out.assign(current.begin(), current.begin() + static_cast<std::ptrdiff_t>(std::min<std::uint64_t>(current.size(), plan.new_size)));
    out.resize(static_cast<std::size_t>(plan.new_size));
    for (const auto& range : plan.ranges) {
        if (range.at > out.size() || range.bytes.size() > out.size() - range.at)
            return past(range.at, "the plan writes past the end of the file");
        std::copy(range.bytes.begin(), range.bytes.end(), out.begin() + static_cast<std::ptrdiff_t>(range.at));
    }
    return out;
}

}  // namespace skivet
