#include "parcel/change.h"

#include <algorithm>

#include "base/phrase.h"

namespace skivet {

namespace {

constexpr std::size_t run_bytes = 20;

std::array<std::byte, 8> mark_of(ByteSpan bytes) {
    const auto hash = sha256(bytes);
    std::array<std::byte, 8> out;
    std::copy_n(hash.begin(), out.size(), out.begin());
    return out;
}

std::uint32_t unit_bytes(Format format) { return info(format).block_bytes; }

/// Units of a surface by its number in surface_order, as a description alone says; 0: there is no such surface.
std::uint64_t units_in(const TextureDesc& desc, std::uint32_t surface) {
    std::uint64_t in_a_picture = 0;
    for (std::uint32_t mip = 0; mip < desc.mips; ++mip) in_a_picture += mip_side(desc.depth, mip);
    if (in_a_picture == 0 || surface >= in_a_picture * desc.layers * desc.faces) return 0;
    auto left = surface % in_a_picture;
    for (std::uint32_t mip = 0; mip < desc.mips; ++mip) {
        const auto slices = mip_side(desc.depth, mip);
        if (left < slices)
            return level_bytes(desc.format, mip_side(desc.width, mip), mip_side(desc.height, mip)) /
                   std::max<std::uint32_t>(1, unit_bytes(desc.format));
        left -= slices;
    }
    return 0;
}

/// Stretches of the file that no surface takes, where surfaces lie in it as they are.
std::vector<std::pair<std::uint64_t, std::uint64_t>> outside_of(const TextureLayout& layout, std::uint64_t file_size) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> taken, out;
    for (const auto& s : layout.surfaces) taken.emplace_back(s.offset, s.offset + s.size);
    std::sort(taken.begin(), taken.end());
    std::uint64_t at = 0;
    for (const auto& [from, to] : taken) {
        if (from > at) out.emplace_back(at, from);
        at = std::max(at, to);
    }
    if (at < file_size) out.emplace_back(at, file_size);
    return out;
}

/// Adds the runs of `step` bytes in which the two differ within [from, to).
void compare(ByteSpan original, ByteSpan edited, std::uint32_t surface, std::size_t from, std::size_t to, std::size_t step,
             TextureChange& out) {
    const auto differs = [&](std::size_t at) { return std::memcmp(original.data() + at, edited.data() + at, step) != 0; };
    for (std::size_t at = from; at < to;) {
        if (!differs(at)) {
            at += step;
            continue;
        }
        auto end = at + step;
        while (end < to && differs(end)) end += step;
        out.runs.push_back({surface, static_cast<std::uint32_t>(at / step), static_cast<std::uint32_t>((end - at) / step),
                            mark_of(original.subspan(at, end - at))});
        out.units.insert(out.units.end(), edited.begin() + static_cast<std::ptrdiff_t>(at),
                         edited.begin() + static_cast<std::ptrdiff_t>(end));
        at = end;
    }
}

std::string what_of(const TextureFile& t) {
    return phrase("{} {} with {} mips in {}", size_text(t.layout.desc), info(t.layout.desc.format).name, t.layout.desc.mips,
                  t.kind->name());
}

}  // namespace

std::vector<std::size_t> surface_order(const TextureLayout& layout) {
    std::vector<std::size_t> out(layout.surfaces.size());
    for (std::size_t i = 0; i < out.size(); ++i) out[i] = i;
    const auto key = [&](std::size_t i) {
        const auto& s = layout.surfaces[i];
        return std::tuple(s.layer, s.face, s.mip, s.slice);
    };
    std::sort(out.begin(), out.end(), [&](auto a, auto b) { return key(a) < key(b); });
    return out;
}

Result<Sha256> pixel_hash(const TextureFile& texture) {
    Sha256Stream hash;
    for (const auto i : surface_order(texture.layout)) {
        SKIVET_TRY(const auto bytes, texture.surface_bytes(texture.layout.surfaces[i]));
        hash.add(bytes);
    }
    return hash.finish();
}

Result<Bytes> put_units(const TextureFile& original, const TextureChange& change) {
    const auto unit = unit_bytes(original.layout.desc.format);
    const auto order = surface_order(original.layout);
    std::vector<SurfaceEdit> edits;
    std::size_t at = 0;
    std::vector<std::pair<const ChangedRun*, std::size_t>> bytes_outside;
    for (const auto& run : change.runs) {
        if (run.surface == outside) {
            bytes_outside.emplace_back(&run, at);
            at += run.count;
            continue;
        }
        const auto surface = order[run.surface];
        if (edits.empty() || edits.back().surface != surface) {
            SKIVET_TRY(auto bytes, original.surface_bytes(original.layout.surfaces[surface]));
            edits.push_back({surface, std::move(bytes)});
        }
        std::memcpy(edits.back().bytes.data() + std::size_t{run.first} * unit, change.units.data() + at, std::size_t{run.count} * unit);
        at += std::size_t{run.count} * unit;
    }
    Bytes out = original.file;
    if (!edits.empty()) {
        SKIVET_TRY(out, original.kind->replace(original.file, original.layout, edits));
    }
    for (const auto& [run, from] : bytes_outside) {
        if (run->first > out.size() || run->count > out.size() - run->first) return fail(ErrorCode::stale, "the file became shorter");
        std::memcpy(out.data() + run->first, change.units.data() + from, run->count);
    }
    return out;
}

namespace {

/// The change, and the file it makes of the original: the edited one, where its kind gives back what it is given.
Result<NearChange> change_and_file(const TextureFile& original, const TextureFile& edited) {
    TextureChange out;
    for (const auto* t : {&original, &edited})
        if (t->layout.damage) return fail(*t->layout.damage);
    if (original.kind->name() != edited.kind->name() || !(original.layout.desc == edited.layout.desc) ||
        original.layout.surfaces.size() != edited.layout.surfaces.size())
        return fail(ErrorCode::unsupported, phrase("{} became {}, which is no change of some blocks", what_of(original), what_of(edited)));
    const auto unit = unit_bytes(original.layout.desc.format);
    const auto a = surface_order(original.layout), b = surface_order(edited.layout);
    for (std::size_t i = 0; i < a.size(); ++i) {
        SKIVET_TRY(const auto before, original.surface_bytes(original.layout.surfaces[a[i]]));
        SKIVET_TRY(const auto after, edited.surface_bytes(edited.layout.surfaces[b[i]]));
        if (before.size() != after.size() || before.size() % unit != 0)
            return fail(ErrorCode::unsupported, "its levels are not of whole units");
        compare(before, after, static_cast<std::uint32_t>(i), 0, before.size(), unit, out);
    }
    // A file that is packed, or whose kind compresses what it is given, may come out other than the editor wrote it. What its kind makes
    // follow by itself, a checksum say, is no change.
    SKIVET_TRY(auto again, put_units(original, out));
    if (again != edited.file && original.layout.direct && again.size() == edited.file.size() && again.size() == original.file.size() &&
        again.size() < outside) {
        for (const auto& [from, to] : outside_of(original.layout, original.file.size())) {
            const auto here = [&, x = static_cast<std::size_t>(from), y = static_cast<std::size_t>(to)](const Bytes& bytes) {
                return ByteSpan(bytes).subspan(x, y - x);
            };
            if (!std::ranges::equal(here(again), here(edited.file)))
                compare(original.file, edited.file, outside, static_cast<std::size_t>(from), static_cast<std::size_t>(to), 1, out);
        }
        SKIVET_TRY(again, put_units(original, out));
    }
    return NearChange{std::move(out), std::move(again)};
}

tl::unexpected<Error> not_the_same(const TextureFile& original) {
    return fail(ErrorCode::unsupported, phrase("a {} file does not come out the same when some of it is changed", original.kind->name()));
}

}  // namespace

Result<TextureChange> difference(const TextureFile& original, const TextureFile& edited) {
    if (original.file == edited.file) return TextureChange{};
    SKIVET_TRY(auto made, change_and_file(original, edited));
    if (made.file != edited.file) return not_the_same(original);
    return std::move(made.change);
}

Result<NearChange> near_difference(const TextureFile& original, const TextureFile& edited) {
    if (original.file == edited.file) return NearChange{{}, edited.file};
    SKIVET_TRY(auto made, change_and_file(original, edited));
    if (made.file == edited.file) return made;
    // What is not a picture by its own file format comes out exactly or is something else.
    if (!original.kind->traits().picture || info(original.layout.desc.format).wide) return not_the_same(original);
    auto again = edited;
    again.file = made.file;
    for (const auto& s : edited.layout.surfaces) {
        SKIVET_TRY(const auto wanted, edited.decode(s.mip, s.layer, s.face, s.slice));
        SKIVET_TRY(const auto got, again.decode(s.mip, s.layer, s.face, s.slice));
        if (wanted.texels.size() != got.texels.size()) return not_the_same(original);
        double sum = 0;
        int most = 0;
        for (std::size_t i = 0; i < got.texels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c) {
                const int d = std::abs(int{wanted.texels[i][c]} - int{got.texels[i][c]});
                sum += d * d;
                most = std::max(most, d);
            }
        if (most > 48 || sum > 9.0 * 4 * static_cast<double>(got.texels.size())) return not_the_same(original);
    }
    return made;
}

namespace {

/// Calls `look(run number, what the texture has there or nothing, new content)` for every run.
template <class Look>
Status for_each_run(const TextureFile& texture, const TextureChange& change, Look look) {
    const auto unit = unit_bytes(texture.layout.desc.format);
    const auto order = surface_order(texture.layout);
    Bytes bytes;
    std::uint32_t now = outside;
    std::size_t at = 0;
    for (std::size_t i = 0; i < change.runs.size(); ++i) {
        const auto& run = change.runs[i];
        const std::uint64_t step = run.surface == outside ? 1 : unit, size = step * run.count;
        const auto content = ByteSpan(change.units).subspan(at, static_cast<std::size_t>(size));
        at += static_cast<std::size_t>(size);
        if (run.surface != outside && run.surface >= order.size()) {
            look(i, std::nullopt, content);
            continue;
        }
        if (run.surface != outside && (run.surface != now || bytes.empty())) {
            SKIVET_TRY(bytes, texture.surface_bytes(texture.layout.surfaces[order[run.surface]]));
            now = run.surface;
        }
        const ByteSpan all = run.surface == outside ? ByteSpan(texture.file) : ByteSpan(bytes);
        const auto there = slice(all, run.first * step, size);
        look(i, there ? std::optional(*there) : std::nullopt, content);
    }
    return {};
}

}  // namespace

Result<std::vector<std::size_t>> misfits(const TextureFile& texture, const TextureChange& change) {
    std::vector<std::size_t> out;
    SKIVET_CHECK(for_each_run(texture, change, [&](std::size_t run, std::optional<ByteSpan> there, ByteSpan) {
        if (!there || mark_of(*there) != change.runs[run].original) out.push_back(run);
    }));
    return out;
}

Result<bool> is_made(const TextureFile& texture, const TextureChange& change) {
    bool all = true;
    SKIVET_CHECK(for_each_run(texture, change, [&](std::size_t, std::optional<ByteSpan> there, ByteSpan content) {
        all = all && there && std::ranges::equal(*there, content);
    }));
    return all;
}

Result<Bytes> apply(const TextureFile& original, const TextureChange& change) {
    SKIVET_TRY(const auto wrong, misfits(original, change));
    if (!wrong.empty())
        return fail(ErrorCode::stale, phrase("{} of its {} changed stretches hold something else here", wrong.size(), change.runs.size()),
                    "It was made for another version of this texture");
    return put_units(original, change);
}

double share_of(const TextureChange& change, const TextureLayout& layout) {
    const auto order = surface_order(layout);
    const std::uint64_t unit = unit_bytes(layout.desc.format);
    std::uint64_t all = 0, changed = 0;
    for (const auto& s : layout.surfaces)
        if (s.mip == 0) all += level_bytes(layout.desc.format, s.width, s.height) / unit;
    for (const auto& run : change.runs)
        if (run.surface != outside && run.surface < order.size() && layout.surfaces[order[run.surface]].mip == 0) changed += run.count;
    return all == 0 ? 0 : static_cast<double>(changed) / static_cast<double>(all);
}

Bytes write_change(const TextureChange& change) {
    ByteWriter out;
    out.le(static_cast<std::uint32_t>(change.runs.size()));
    for (const auto& run : change.runs) {
        out.le(run.surface);
        out.le(run.first);
        out.le(run.count);
        out.put(run.original);
    }
    out.put(change.units);
    return std::move(out.bytes);
}

Result<TextureChange> read_change(ByteSpan bytes, const TextureDesc& desc) {
    ByteReader reader(bytes);
    SKIVET_TRY(const auto count, reader.le<std::uint32_t>());
    if (count > reader.remaining() / run_bytes)
        return fail_at(ErrorCode::damaged, 0, phrase("{} stretches do not fit into {}", grouped(count), human_bytes(bytes.size())));
    const std::uint64_t unit = unit_bytes(desc.format);
    TextureChange out;
    out.runs.reserve(count);
    std::uint64_t sum = 0;
    for (std::uint32_t i = 0; i < count; ++i) {
        ChangedRun run;
        const auto at = reader.position();
        SKIVET_TRY(run.surface, reader.le<std::uint32_t>());
        SKIVET_TRY(run.first, reader.le<std::uint32_t>());
        SKIVET_TRY(run.count, reader.le<std::uint32_t>());
        SKIVET_TRY(const auto mark, reader.take(run.original.size()));
        std::copy(mark.begin(), mark.end(), run.original.begin());
        const auto wrong = [&](std::string what) { return fail_at(ErrorCode::damaged, at, phrase("stretch {}: {}", i + 1, what)); };
        if (run.count == 0) return wrong("is empty");
        if (run.surface != outside) {
            const auto units = units_in(desc, run.surface);
            if (units == 0) return wrong(phrase("there is no surface {}", run.surface));
            if (std::uint64_t{run.first} + run.count > units)
                return wrong(phrase("ends at unit {} of {}", std::uint64_t{run.first} + run.count, units));
        }
        if (!out.runs.empty()) {
            const auto& last = out.runs.back();
            if (run.surface < last.surface || (run.surface == last.surface && run.first < std::uint64_t{last.first} + last.count))
                return wrong("lies before the one before it");
        }
        sum += run.count * (run.surface == outside ? 1 : unit);
        out.runs.push_back(run);
    }
    if (sum != reader.remaining())
        return fail_at(ErrorCode::damaged, reader.position(),
                       phrase("needs {} bytes of units, has {}", grouped(sum), grouped(reader.remaining())));
    SKIVET_TRY(const auto rest, reader.take(sum));
    out.units.assign(rest.begin(), rest.end());
    return out;
}

}  // namespace skivet
