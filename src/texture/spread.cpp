#include "texture/spread.h"

#include "base/phrase.h"

namespace skivet {
namespace {

Error in_sibling(const SiblingFile& sibling, Error error) {
    if (error.code == ErrorCode::missing)
        return Error{ErrorCode::missing,
                     sibling.only_read ? phrase("{} is missing: the palette is in it", sibling.name)
                                       : phrase("{} is missing: its levels cannot be shown", sibling.name),
                     {},
                     {},
                     "Put it beside the texture's other files"};
    return std::move(error).within(sibling.name);
}

/// The unpacked bytes of a sibling, of the size its texture's header calls for.
Result<Bytes> read_whole(const SiblingFile& sibling, const ReadSibling& read, const ReadLimits& limits) {
    auto stored = read(sibling.name);
    if (!stored) return fail(in_sibling(sibling, std::move(stored).error()));
    auto bytes = sibling.packing == Packing::none ? std::move(stored) : unpack(sibling.packing, *stored, sibling.size, limits);
    if (!bytes) return fail(in_sibling(sibling, std::move(bytes).error()));
    if (sibling.only_read && bytes->size() > sibling.size) bytes->resize(static_cast<std::size_t>(sibling.size));
    if (bytes->size() != sibling.size)
        return fail(ErrorCode::damaged,
                    phrase("{}: its {} {} bytes, it has {}", sibling.name, sibling.only_read ? "palette needs" : "levels need",
                           grouped(sibling.size), grouped(bytes->size())),
                    "It belongs to another texture or is cut off");
    return bytes;
}

struct Found {
    std::shared_ptr<const TextureKind> kind;
    Spread spread;
};
Result<Found> find(const TextureKinds& kinds, ByteSpan data, std::string_view path, const ReadLimits& limits) {
    Found out;
    out.kind = kinds.recognize(data, path);
    if (!out.kind) return out;
    SKIVET_TRY(out.spread, out.kind->spread(data, path, limits));
    std::uint64_t total = 0;
    for (const auto& sibling : out.spread.siblings) {
        total += sibling.size;
        if (sibling.size > limits.inflated_bytes || total > limits.inflated_bytes)
            return fail(ErrorCode::limit, phrase("{}: levels of {} bytes", sibling.name, grouped(sibling.size)));
    }
    return out;
}

}  // namespace

Result<TextureFile> open_spread(const TextureKinds& kinds, Bytes own, std::string_view path, const ReadSibling& read,
                                const ReadLimits& limits) {
    SKIVET_TRY(const auto found, find(kinds, own, path, limits));
    if (found.spread.siblings.empty() || found.spread.own > own.size()) return TextureFile::open(kinds, std::move(own), path, limits);
    TextureFile out;
    out.kind = found.kind;
    auto layout = out.kind->layout(own, own.size(), limits);
    if (!layout) return fail(std::move(layout).error().within(out.kind->name()));
    out.layout = std::move(*layout);
    const auto tail = own.begin() + static_cast<std::ptrdiff_t>(found.spread.own);
    Bytes rest(tail, own.end());
    out.file = std::move(own);
    out.file.resize(static_cast<std::size_t>(found.spread.own));
    // Where each sibling would begin, and by how much less there is when an earlier one is missing.
    std::uint64_t begin = found.spread.own, lacking = 0;
    std::vector<std::uint64_t> shift(out.layout.surfaces.size());
    for (const auto& sibling : found.spread.siblings) {
        auto bytes = read_whole(sibling, read, limits);
        for (auto i = std::size_t{0}; i < shift.size(); ++i) {
            const auto at = out.layout.surfaces[i].offset;
            if (at >= begin && at < begin + sibling.size) shift[i] = bytes ? lacking : absent;
        }
        begin += sibling.size;
        if (bytes) {
            out.file.insert(out.file.end(), bytes->begin(), bytes->end());
        } else if (sibling.only_read) {
            out.file.resize(out.file.size() + static_cast<std::size_t>(sibling.size));  // black, and the damage says why
            if (!out.layout.damage) out.layout.damage = std::move(bytes).error();
        } else {
            lacking += sibling.size;
            if (!out.layout.damage) out.layout.damage = std::move(bytes).error();
        }
    }
    for (auto i = std::size_t{0}; i < shift.size(); ++i) {
        auto& offset = out.layout.surfaces[i].offset;
        offset = shift[i] == absent ? absent : offset - shift[i];
    }
    out.file.insert(out.file.end(), rest.begin(), rest.end());
    return out;
}

Result<Bytes> join_spread(const TextureKinds& kinds, Bytes own, std::string_view path, const ReadSibling& read, const ReadLimits& limits) {
    SKIVET_TRY(const auto found, find(kinds, own, path, limits));
    if (found.spread.siblings.empty() || found.spread.own > own.size()) return own;
    const auto split = own.begin() + static_cast<std::ptrdiff_t>(found.spread.own);
    Bytes out(own.begin(), split);
    for (const auto& sibling : found.spread.siblings) {
        SKIVET_TRY(const auto bytes, read_whole(sibling, read, limits));
        out.insert(out.end(), bytes.begin(), bytes.end());
    }
    out.insert(out.end(), split, own.end());
    return out;
}

Result<std::vector<SpreadPart>> split_spread(const TextureKinds& kinds, ByteSpan joined, std::string_view path, const ReadSibling& read,
                                             const ReadLimits& limits) {
    std::vector<SpreadPart> out(1);
    auto whole = find(kinds, joined, path, limits);
    // What has no sound header, or only the texture's own file, was given to go in as it is.
    std::uint64_t needed = 0;
    if (whole) {
        needed = whole->spread.own;
        for (const auto& sibling : whole->spread.siblings) needed += sibling.size;
    }
    if (!whole || joined.size() < needed) {
        out[0].bytes.assign(joined.begin(), joined.end());
        return out;
    }
    const auto& found = *whole;
    auto at = found.spread.siblings.empty() ? joined.size() : found.spread.own;
    SKIVET_TRY(const auto own, slice(joined, 0, at));
    out[0].bytes.assign(own.begin(), own.end());
    for (const auto& sibling : found.spread.siblings) {
        SKIVET_TRY(const auto bytes, slice(joined, at, sibling.size));
        at += sibling.size;
        if (sibling.only_read) continue;
        SpreadPart part{sibling.name, Bytes(bytes.begin(), bytes.end())};
        if (sibling.packing != Packing::none) {
            auto read_back = read(sibling.name);
            if (!read_back) return fail(in_sibling(sibling, std::move(read_back).error()));
            auto stored = std::move(*read_back);
            const auto before = unpack(sibling.packing, stored, sibling.size, limits);
            if (before && *before == part.bytes) {
                part.bytes = std::move(stored);
            } else {
                SKIVET_TRY(part.bytes, pack(sibling.packing, bytes, sibling.level, stored));
            }
        }
        out.push_back(std::move(part));
    }
    out[0].bytes.insert(out[0].bytes.end(), joined.begin() + static_cast<std::ptrdiff_t>(at), joined.end());
    return out;
}

std::uint32_t first_level_there(const TextureLayout& layout) {
    for (std::uint32_t mip = 0; mip < layout.desc.mips; ++mip)
        if (const auto* s = layout.find(mip); s && s->offset < absent) return mip;
    return 0;
}

}  // namespace skivet
