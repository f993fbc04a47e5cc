#include "parcel/stack.h"

#include "codec/codec.h"

namespace skivet {

namespace {

struct Unit {
    std::uint32_t surface, number;
    auto operator<=>(const Unit&) const = default;
};

/// A change, unit by unit, in order.
class UnitWalk {
public:
    UnitWalk(const TextureChange& change, std::size_t unit) : change_(change), unit_(unit) {}
    [[nodiscard]] bool done() const { return run_ == change_.runs.size(); }
    [[nodiscard]] Unit at() const { return {change_.runs[run_].surface, change_.runs[run_].first + step_}; }
    [[nodiscard]] ByteSpan bytes() const { return ByteSpan(change_.units).subspan(offset_, size()); }
    void next() {
        offset_ += size();
        if (++step_ == change_.runs[run_].count) step_ = 0, ++run_;
    }

private:
    [[nodiscard]] std::size_t size() const { return change_.runs[run_].surface == outside ? 1 : unit_; }
    const TextureChange& change_;
    std::size_t unit_, run_ = 0, offset_ = 0;
    std::uint32_t step_ = 0;
};

/// Whether two changes give the same unit of a largest level different content.
bool meet(const TextureChange& a, const TextureChange& b, std::size_t unit, const std::vector<std::uint32_t>& mips) {
    UnitWalk one(a, unit), other(b, unit);
    while (!one.done() && !other.done()) {
        const auto x = one.at(), y = other.at();
        if (x < y) {
            one.next();
        } else if (y < x) {
            other.next();
        } else {
            const bool counts = x.surface == outside || mips[x.surface] == 0;
            if (counts && !std::ranges::equal(one.bytes(), other.bytes())) return true;
            one.next(), other.next();
        }
    }
    return false;
}

/// Units that several layers give different content: original + Σ (layer - original).
Result<Bytes> mean_all(Format format, const std::vector<Bytes>& original, const std::vector<std::vector<Bytes>>& layers) {
    // Side by side as one level of whole units; blocks are coded each by itself.
    const auto& facts = info(format);
    const auto width = static_cast<std::uint32_t>(original.size() * facts.block_width);
    const std::uint32_t height = facts.block_height;
    const auto strip = [&](const auto& unit_at) {
        Bytes out;
        for (std::size_t i = 0; i < original.size(); ++i) {
            const Bytes& unit = unit_at(i);
            out.insert(out.end(), unit.begin(), unit.end());
        }
        return out;
    };
    std::size_t most = 0;
    for (const auto& unit : layers) most = std::max(most, unit.size());
    const auto original_strip = strip([&](std::size_t i) -> const Bytes& { return original[i]; });
    const auto layer_strip = [&](std::size_t n) {
        return strip([&](std::size_t i) -> const Bytes& { return n < layers[i].size() ? layers[i][n] : original[i]; });
    };
    if (facts.wide) {
        SKIVET_TRY(const auto base, decode_wide(format, original_strip, width, height));
        ImageF sum = base;
        for (std::size_t n = 0; n < most; ++n) {
            SKIVET_TRY(const auto one, decode_wide(format, layer_strip(n), width, height));
            for (std::size_t t = 0; t < sum.texels.size(); ++t)
                for (std::size_t c = 0; c < 4; ++c)
                    if (one.texels[t][c] != base.texels[t][c]) sum.texels[t][c] += one.texels[t][c] - base.texels[t][c];
        }
        return encode(format, sum);
    }
    SKIVET_TRY(const auto base, decode(format, original_strip, width, height));
    std::vector<std::array<int, 4>> sum(base.texels.size());
    for (std::size_t t = 0; t < sum.size(); ++t)
        for (std::size_t c = 0; c < 4; ++c) sum[t][c] = base.texels[t][c];
    for (std::size_t n = 0; n < most; ++n) {
        SKIVET_TRY(const auto one, decode(format, layer_strip(n), width, height));
        for (std::size_t t = 0; t < sum.size(); ++t)
            for (std::size_t c = 0; c < 4; ++c) sum[t][c] += one.texels[t][c] - base.texels[t][c];
    }
    Image all(width, height);
    for (std::size_t t = 0; t < sum.size(); ++t)
        for (std::size_t c = 0; c < 4; ++c) all.texels[t][c] = static_cast<std::uint8_t>(std::clamp(sum[t][c], 0, 255));
    return encode(format, all);
}

}  // namespace

Result<Composed> compose(const TextureFile& original, std::span<const TextureLayer> layers, std::optional<std::size_t> preferred) {
    Composed out;
    const auto& desc = original.layout.desc;
    const std::size_t unit = info(desc.format).block_bytes;
    const auto order = surface_order(original.layout);
    std::vector<std::uint32_t> mips;
    for (const auto i : order) mips.push_back(original.layout.surfaces[i].mip);

    // From the uppermost down, each that does not meet one that stays.
    std::vector<std::size_t> by_rank;
    if (preferred && *preferred < layers.size()) by_rank.push_back(*preferred);
    for (std::size_t i = layers.size(); i-- > 0;)
        if (i != preferred) by_rank.push_back(i);
    std::vector<std::size_t> kept;
    for (const auto i : by_rank) {
        const auto meets = [&](std::size_t k) {
            if (!layers[i].whole.empty() || !layers[k].whole.empty()) return layers[i].whole.empty() || layers[i].whole != layers[k].whole;
            return meet(layers[i].change, layers[k].change, unit, mips);
        };
        if (layers[i].whole.empty() && layers[i].change.empty()) continue;
        if (std::any_of(kept.begin(), kept.end(), meets)) out.left_out.push_back(i);
        else kept.push_back(i);
    }
    std::sort(kept.begin(), kept.end());
    std::sort(out.left_out.begin(), out.left_out.end());
    if (!kept.empty() && !layers[kept.front()].whole.empty()) {
        out.file = layers[kept.front()].whole;
        return out;
    }

    // All units in order; those that several give.
    std::vector<UnitWalk> walks;
    for (const auto i : kept) walks.emplace_back(layers[i].change, unit);
    TextureChange all;
    struct Shared {
        std::size_t at;  ///< in all.units
        std::vector<Bytes> contents;
    };
    std::vector<Shared> shared;
    for (;;) {
        std::optional<Unit> next;
        for (const auto& walk : walks)
            if (!walk.done() && (!next || walk.at() < *next)) next = walk.at();
        if (!next) break;
        std::vector<Bytes> contents;
        for (auto& walk : walks)
            if (!walk.done() && walk.at() == *next) {
                contents.emplace_back(walk.bytes().begin(), walk.bytes().end());
                walk.next();
            }
        if (!all.runs.empty() && all.runs.back().surface == next->surface && all.runs.back().first + all.runs.back().count == next->number)
            ++all.runs.back().count;
        else all.runs.push_back({next->surface, next->number, 1, {}});
        const bool equal = std::all_of(contents.begin(), contents.end(), [&](const Bytes& c) { return c == contents.front(); });
        // What nobody can encode is the uppermost's.
        if (!equal && can_encode(desc.format)) shared.push_back({all.units.size(), contents});
        all.units.insert(all.units.end(), contents.back().begin(), contents.back().end());
    }
    if (!shared.empty()) {
        out.mended_levels = true;
        std::vector<Bytes> before;
        std::vector<std::vector<Bytes>> contents;
        std::size_t at = 0, next = 0;
        for (const auto& run : all.runs) {
            const auto size = run.surface == outside ? 1 : unit;
            Bytes surface;
            for (std::uint32_t i = 0; i < run.count; ++i, at += size) {
                if (next == shared.size() || shared[next].at != at) continue;
                if (surface.empty()) {
                    SKIVET_TRY(surface, original.surface_bytes(original.layout.surfaces[order[run.surface]]));
                }
                const auto from = surface.begin() + static_cast<std::ptrdiff_t>((std::size_t{run.first} + i) * unit);
                before.emplace_back(from, from + static_cast<std::ptrdiff_t>(unit));
                contents.push_back(std::move(shared[next].contents));
                ++next;
            }
        }
        SKIVET_TRY(const auto mixed, mean_all(desc.format, before, contents));
        if (mixed.size() != shared.size() * unit) return fail(ErrorCode::unsupported, "its levels are not of whole units");
        for (std::size_t i = 0; i < shared.size(); ++i) std::memcpy(all.units.data() + shared[i].at, mixed.data() + i * unit, unit);
    }
    SKIVET_TRY(out.file, put_units(original, all));
    return out;
}

TextureLayer as_layer(const TextureFile& original, Bytes file, std::string_view path, const TextureKinds& kinds, const ReadLimits& limits) {
    if (auto edited = TextureFile::open(kinds, file, path, limits))
        if (auto change = difference(original, *edited)) return {std::move(*change), {}};
    return {{}, std::move(file)};
}

}  // namespace skivet
