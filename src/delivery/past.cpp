#include "delivery/past.h"

#include "base/phrase.h"
#include "delivery/vault.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

using Pieces = std::vector<PastPiece>;

void add(Pieces& out, PastPiece piece) {
    if (piece.size == 0) return;
    if (piece.from_now && !out.empty() && out.back().from_now && out.back().at + out.back().size == piece.at) out.back().size += piece.size;
    else out.push_back(piece);
}

/// Pieces with where each begins: an archive may have changed in a hundred thousand places.
class Placed {
public:
    explicit Placed(const Pieces& pieces) : pieces_(pieces) {
        for (const auto& piece : pieces) {
            starts_.push_back(size_);
            size_ += piece.size;
        }
    }
    [[nodiscard]] std::uint64_t size() const { return size_; }
    /// [at, at + size) of what they make up.
    Status cut(std::uint64_t at, std::uint64_t size, Pieces& out) const {
        if (at > size_ || size > size_ - at) return fail_at(ErrorCode::damaged, at, "a journal reads past the end of its file");
        if (size == 0) return {};
        for (auto i = static_cast<std::size_t>(std::upper_bound(starts_.begin(), starts_.end(), at) - starts_.begin()) - 1; size > 0; ++i) {
            const auto& piece = pieces_[i];
            const auto skip = at - starts_[i], take = std::min(size, piece.size - skip);
            if (piece.from_now) add(out, {true, piece.at + skip, take, {}});
            else add(out, {false, 0, take, piece.kept.subspan(static_cast<std::size_t>(skip), static_cast<std::size_t>(take))});
            at += take;
            size -= take;
        }
        return {};
    }

private:
    const Pieces& pieces_;
    std::vector<std::uint64_t> starts_;
    std::uint64_t size_ = 0;
};

/// Where later deliveries wrote.
class Written {
public:
    [[nodiscard]] bool empty() const { return ranges_.empty(); }
    [[nodiscard]] bool meets(std::uint64_t from, std::uint64_t to) const {
        const auto next = ranges_.lower_bound(to);
        return next != ranges_.begin() && std::prev(next)->second > from;
    }
    void add(std::uint64_t from, std::uint64_t to) {
        // One that reaches over others takes them in, so that no two overlap.
        auto next = ranges_.upper_bound(to);
        while (next != ranges_.begin() && std::prev(next)->second >= from) {
            const auto there = std::prev(next);
            from = std::min(from, there->first);
            to = std::max(to, there->second);
            next = ranges_.erase(there);
        }
        ranges_[from] = to;
    }

private:
    std::map<std::uint64_t, std::uint64_t> ranges_;  // from, to
};

std::uint64_t length(const Pieces& pieces) {
    std::uint64_t sum = 0;
    for (const auto& piece : pieces) sum += piece.size;
    return sum;
}

/// The file before a delivery, of the one after it.
Result<Pieces> before(const JournalFile& file, const FileView& journal, const Pieces& now) {
    Pieces out;
    const Placed after(now);
    if (file.way == Way::rebuild) {
        for (const auto& piece : file.back) {
            if (piece.from_new) {
                SKIVET_CHECK(after.cut(piece.at, piece.size, out));
            } else {
                SKIVET_TRY(const auto kept, journal.bytes(piece.at, piece.size));
                add(out, {false, 0, piece.size, kept});
            }
        }
        return out;
    }
    std::uint64_t at = 0;
    for (const auto& range : file.ranges) {
        if (range.at < at) return fail(ErrorCode::damaged, "the ranges of a journal overlap");
        if (range.at > at) SKIVET_CHECK(after.cut(at, range.at - at, out));
        SKIVET_TRY(const auto kept, journal.bytes(range.kept_at, range.old_size));
        add(out, {false, 0, range.old_size, kept});
        at = range.at + range.old_size;
        // Bytes behind the old end are gone with it.
        if (range.old_size < range.new_size) at = range.at + range.new_size;
    }
    if (at < file.old_size) SKIVET_CHECK(after.cut(at, file.old_size - at, out));
    return out;
}

bool in_place(const Pieces& pieces) {
    std::uint64_t at = 0;
    for (const auto& piece : pieces) {
        if (piece.from_now && piece.at != at) return false;
        at += piece.size;
    }
    return true;
}

/// Pieces of new files, some of which are literal bytes of the plan's.
struct Becomes {
    Pieces pieces;
    Bytes zeros;  ///< where a file grows and nothing is written
};

/// What a plan made on the old file makes of it, as pieces of the file as it is now and of bytes.
Result<Becomes> becomes(const FilePlan& plan, const Pieces& pieces) {
    Becomes out;
    const Placed old(pieces);
    if (!plan.pieces.empty()) {
        for (const auto& piece : plan.pieces)
            if (piece.is_copy()) SKIVET_CHECK(old.cut(piece.from, piece.size, out.pieces));
            else add(out.pieces, {false, 0, piece.bytes.size(), piece.bytes});
        return out;
    }
    const auto old_size = old.size();
    if (plan.new_size > old_size) out.zeros.resize(static_cast<std::size_t>(plan.new_size - old_size));
    const auto untouched = [&](std::uint64_t from, std::uint64_t to) -> Status {
        const auto end = std::min(to, old_size);
        if (from < end) SKIVET_CHECK(old.cut(from, end - from, out.pieces));
        const auto start = std::max(from, old_size);
        if (start < to) add(out.pieces, {false, 0, to - start, ByteSpan(out.zeros).first(static_cast<std::size_t>(to - start))});
        return {};
    };
    std::uint64_t at = 0;
    for (const auto& range : plan.ranges) {
        SKIVET_CHECK(untouched(at, range.at));
        add(out.pieces, {false, 0, range.bytes.size(), range.bytes});
        at = range.at + range.bytes.size();
    }
    SKIVET_CHECK(untouched(at, plan.new_size));
    return out;
}

Bytes literal(const Pieces& pieces, ByteSpan now) {
    Bytes out;
    for (const auto& piece : pieces) {
        const auto bytes =
            piece.from_now ? now.subspan(static_cast<std::size_t>(piece.at), static_cast<std::size_t>(piece.size)) : piece.kept;
        out.insert(out.end(), bytes.begin(), bytes.end());
    }
    return out;
}

/// The plan that makes these pieces of the file as it is.
Result<WritePlan> plan_pieces(const fs::path& file, const std::optional<FileView>& now, const Pieces& pieces) {
    if (!now) return plan_new_file(file, literal(pieces, {}));
    FilePlan plan;
    plan.new_size = length(pieces);
    if (in_place(pieces)) {
        plan.way = plan.new_size > now->size() ? Way::append : Way::in_place;
        std::uint64_t at = 0;
        for (const auto& piece : pieces) {
            if (!piece.from_now) plan.ranges.push_back({at, Bytes(piece.kept.begin(), piece.kept.end()), 0});
            at += piece.size;
        }
    } else {
        for (const auto& piece : pieces)
            if (piece.from_now) plan.pieces.push_back({piece.at, piece.size, {}});
            else plan.pieces.push_back({0, 0, Bytes(piece.kept.begin(), piece.kept.end())});
    }
    return finish_plan(*now, std::move(plan));
}

}  // namespace

std::shared_ptr<const PastFiles> Past::as_files() const {
    auto out = std::make_shared<PastFiles>();
    for (const auto& [path, file] : files)
        if (file.was) out->were.emplace(path, *file.was);
        else out->not_there.insert(path);
    return out;
}

Result<WritePlan> Past::from_now(const WritePlan& plan) const {
    WritePlan out;
    std::set<fs::path> done;
    for (const auto& wanted : plan.files) {
        std::error_code code;
        const auto found = files.find(fs::weakly_canonical(wanted.file, code));
        if (found == files.end()) {
            out.files.push_back(wanted);
            continue;
        }
        done.insert(found->first);
        const auto& file = found->second;
        if (wanted.way == Way::remove) {
            if (!file.now) continue;
            SKIVET_TRY(auto one, plan_no_file(*file.now));
            out.add(std::move(one));
            continue;
        }
        const Pieces nothing;
        SKIVET_TRY(const auto new_file, becomes(wanted, wanted.way == Way::create ? nothing : file.pieces));
        SKIVET_TRY(auto one, plan_pieces(found->first, file.now, new_file.pieces));
        out.add(std::move(one));
    }
    for (const auto& [path, file] : files) {
        if (done.contains(path)) continue;
        if (!file.was) {
            if (!file.now) continue;
            SKIVET_TRY(auto one, plan_no_file(*file.now));
            out.add(std::move(one));
            continue;
        }
        SKIVET_TRY(auto one, plan_pieces(path, file.now, file.pieces));
        out.add(std::move(one));
    }
    return out;
}

Result<Past> Vault::past(std::span<const fs::path> sources, std::uint64_t most) const {
    SKIVET_TRY(const auto all, history());
    std::set<fs::path> wanted;
    for (const auto& source : sources) wanted.insert(real_path(source));
    Past out;
    // Where later deliveries wrote: what an earlier one left there says nothing any more.
    std::map<fs::path, Written> written;
    constexpr auto everything = ~0ull;
    for (auto journal = all.rbegin(); journal != all.rend(); ++journal)
        for (const auto& part : journal->parts) {
            if (!wanted.contains(part.source)) continue;
            SKIVET_TRY(const auto view, FileView::open(part.place));
            out.journals.push_back(view);
            for (const auto& file : part.files) {
                auto& later = written[file.file];
                if (later.empty()) {
                    JournalPart one = part;
                    one.files = {file};
                    SKIVET_CHECK(check_untouched(one));
                } else {
                    for (const auto& range : file.ranges) {
                        const auto end = range.at + range.new_size;
                        if (later.meets(range.at, std::max(end, range.at + 1))) continue;
                        const auto now = files_->read(file.file, range.at, range.new_size);
                        if (!now || sha256(*now) != range.new_hash)
                            return fail(
                                ErrorCode::stale,
                                phrase("{} was changed by something else since \"{}\"", file.file.filename().string(), journal->title),
                                "Undo the deliveries, or take the file as it is for new");
                    }
                }
                auto& past = out.files[file.file];
                if (later.empty()) {
                    if (auto now = FileView::open(file.file)) {
                        past.now = past.was = *now;
                        past.pieces = {{true, 0, now->size(), {}}};
                    } else if (now.error().code != ErrorCode::missing) {
                        return fail(std::move(now).error());
                    }
                }
                if (file.way == Way::create) {
                    past.was.reset();
                    past.pieces.clear();
                } else if (file.way == Way::remove) {
                    Pieces kept;
                    for (const auto& range : file.ranges) {
                        SKIVET_TRY(const auto bytes, view.bytes(range.kept_at, range.old_size));
                        add(kept, {false, 0, range.old_size, bytes});
                    }
                    past.pieces = std::move(kept);
                    past.was = FileView::of(Bytes{}, std::vector<FilePart>{{file.file, {}}});  // put together below
                } else {
                    SKIVET_TRY(past.pieces, before(file, view, past.pieces));
                }
                const bool whole = file.way == Way::rebuild || file.way == Way::create || file.way == Way::remove;
                if (whole) later.add(0, everything);
                else if (file.ranges.empty()) later.add(0, 0);
                else
                    for (const auto& range : file.ranges) later.add(range.at, range.at + std::max(range.old_size, range.new_size));
            }
        }
    for (auto& [path, file] : out.files) {
        if (!file.was) continue;
        if (file.now && in_place(file.pieces)) {
            std::vector<Overlay> over;
            std::uint64_t at = 0;
            for (const auto& piece : file.pieces) {
                if (!piece.from_now) over.push_back({at, piece.kept});
                at += piece.size;
            }
            SKIVET_TRY(file.was, file.now->with(over, at));
            continue;
        }
        const auto size = length(file.pieces);
        if (size > most)
            return fail(ErrorCode::limit,
                        phrase("{} of {} are too much to put together in memory", human_bytes(size), path.filename().string()),
                        "Undo the deliveries into it instead");
        ByteSpan now;
        if (file.now) {
            SKIVET_TRY(now, file.now->bytes());
        }
        FileStamp stamp = file.now ? file.now->stamp() : FileStamp{};
        stamp.size = size;
        file.was = FileView::of(literal(file.pieces, now), std::vector<FilePart>{{path, stamp}});
    }
    return out;
}

}  // namespace skivet
