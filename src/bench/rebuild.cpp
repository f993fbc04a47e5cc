#include "bench/rebuild.h"

#include <cmath>

#include "base/phrase.h"
#include "bench/level.h"

namespace skivet {
namespace {

/// Part of a level in working values.
struct Patch {
    Rect rect;
    ImageF values;
};

/// A level with a patch over it; without a level, zeros.
class PatchedRows final : public RowSource {
public:
    PatchedRows(const RowSource* level, std::uint32_t width, std::uint32_t height, const Patch& patch)
        : level_(level), width_(width), height_(height), patch_(patch) {}
    [[nodiscard]] std::uint32_t width() const override { return width_; }
    [[nodiscard]] std::uint32_t height() const override { return height_; }
    void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const override {
        if (level_) level_->row(y, x, count, out);
        else std::fill_n(out, count, TexelF{});
        const auto& r = patch_.rect;
        if (y < r.y || y >= r.y + r.height) return;
        const auto from = std::max(x, r.x), to = std::min(x + count, r.x + r.width);
        if (from < to) std::copy_n(&patch_.values.at(from - r.x, y - r.y), to - from, out + (from - x));
    }

private:
    const RowSource* level_;
    std::uint32_t width_, height_;
    const Patch& patch_;
};

bool finite(const TexelF& t) {
    return std::all_of(t.begin(), t.end(), [](float v) { return std::isfinite(v); });
}

template <class Picture>
class Rebuild {
public:
    Rebuild(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options, std::uint32_t layer, std::uint32_t face,
            std::span<const Picture> smaller)
        : original_(original),
          recipe_(mips.known ? mips.recipe : MipRecipe{}),
          normals_(mips.normals.value_or(NormalChannels())),
          options_(options),
          layer_(layer),
          face_(face),
          smaller_(smaller) {}

    Result<RebuiltLevels> run(const Picture& before, const Picture& after) {
        const auto& d = original_.layout.desc;
        const auto rows = rows_that_differ(before, after);
        dirty_.resize(before.texels.size());
        bool any = false;
        for (std::size_t i = 0; i < dirty_.size(); ++i) {
            if (i % before.width == 0 && !rows[i / before.width]) {
                i += before.width - 1;
                continue;
            }
            dirty_[i] = !same_texel(before.texels[i], after.texels[i]);
            any = any || dirty_[i];
        }
        if (!any) {
            for (std::uint32_t mip = 0; mip < d.mips; ++mip) out_.levels.push_back({blocks_of(mip), blocks_of(mip)});
            return std::move(out_);
        }
        start(before, after);
        SKIVET_CHECK(encode_level(0, before, after));
        const auto* above = &before;
        Picture decoded, last;  // `above` may be the last one
        for (std::uint32_t mip = 1; mip < d.mips; ++mip) {
            const auto* own = mip <= smaller_.size() ? &smaller_[mip - 1] : nullptr;
            if (!own) {
                SKIVET_TRY(decoded, decode_level<Picture>(original_, mip, layer_, face_));
                own = &decoded;
            }
            const auto wanted = next(*above, *own);
            SKIVET_CHECK(encode_level(mip, *own, wanted));
            if (own == &decoded) std::swap(decoded, last), own = &last;
            above = own;
        }
        return std::move(out_);
    }

private:
    const TextureFile& original_;
    MipRecipe recipe_;
    NormalChannels normals_;
    EncodeOptions options_;
    std::uint32_t layer_, face_;
    std::span<const Picture> smaller_;  ///< levels 1 and below, where they are decoded already
    RebuiltLevels out_;
    std::vector<std::uint8_t> dirty_;
    Patch patch_;  ///< the new level's values, in the smallest part that holds all touched texels
    Patch share_;  ///< how much of a texel's footprint was touched, same part
    double old_coverage_ = 0, new_coverage_ = 0;

    [[nodiscard]] std::uint64_t blocks_of(std::uint32_t mip) const {
        const auto& d = original_.layout.desc;
        return level_bytes(d.format, mip_side(d.width, mip), mip_side(d.height, mip)) / info(d.format).block_bytes;
    }

    void start(const Picture& before, const Picture& after) {
        const auto rect = bounds(dirty_, before.width);
        patch_ = share_ = {rect, ImageF(rect.width, rect.height)};
        const auto rows = rows_of(after, recipe_.linear_light);
        for (std::uint32_t y = 0; y < rect.height; ++y) {
            rows.row(rect.y + y, rect.x, rect.width, &patch_.values.at(0, y));
            for (std::uint32_t x = 0; x < rect.width; ++x)
                share_.values.at(x, y).fill(dirty_[std::size_t{rect.y + y} * before.width + rect.x + x] ? 1.0f : 0.0f);
        }
        if (!recipe_.coverage) return;
        const auto coverage = [&](const Picture& picture) {
            ImageF alpha(picture.width, picture.height);
            rows_of(picture, false).row(0, 0, picture.width * picture.height, alpha.texels.data());
            return coverage_of(alpha, recipe_.coverage);
        };
        old_coverage_ = coverage(before);
        new_coverage_ = coverage(after);
    }

    /// The part `rect` of the level below `rows`. Coverage is a matter of the whole level.
    ImageF filtered(const RowSource& rows, const Rect& rect, double coverage) const {
        if (!recipe_.coverage) return next_level(rows, recipe_, normals_, rect);
        const auto whole = whole_next_level(rows, recipe_, normals_, coverage);
        ImageF part(rect.width, rect.height);
        for (std::uint32_t y = 0; y < rect.height; ++y) std::copy_n(&whole.at(rect.x, rect.y + y), rect.width, &part.at(0, y));
        return part;
    }

    /// Moves patch, share and dirty texels one level down and returns the level.
    Picture next(const Picture& above, const Picture& own) {
        const bool linear = recipe_.linear_light;
        dirty_ = next_dirty(dirty_, above.width, above.height, recipe_.filter, recipe_.wrap);
        const auto rect = bounds(dirty_, own.width);
        const auto old_rows = rows_of(above, linear);
        const auto expected = filtered(old_rows, rect, old_coverage_);
        Patch fresh{rect, filtered(PatchedRows(&old_rows, above.width, above.height, patch_), rect, new_coverage_)};
        Patch share{rect, resample(PatchedRows(nullptr, above.width, above.height, share_), own.width, own.height, MipFilter::box,
                                   recipe_.wrap, rect)};
        auto wanted = own;
        const auto own_rows = rows_of(own, linear);
        std::vector<TexelF> row(rect.width);
        for (std::uint32_t y = 0; y < rect.height; ++y) {
            own_rows.row(rect.y + y, rect.x, rect.width, row.data());
            for (std::uint32_t x = 0; x < rect.width; ++x) {
                auto& value = fresh.values.at(x, y);
                if (!dirty_[std::size_t{rect.y + y} * own.width + rect.x + x]) {
                    value = row[x];
                    continue;
                }
                const float clean = 1 - std::clamp(share.values.at(x, y)[0], 0.0f, 1.0f);
                auto mixed = value;
                for (std::size_t c = 0; c < 4; ++c) mixed[c] += (row[x][c] - expected.at(x, y)[c]) * clean;
                value = finite(mixed) ? mixed : finite(value) ? value : row[x];  // infinities have no mean
                auto& texel = wanted.at(rect.x + x, rect.y + y);
                texel = from_work(value, linear, texel);
            }
        }
        patch_ = std::move(fresh);
        share_ = std::move(share);
        return wanted;
    }

    Status encode_level(std::uint32_t mip, const Picture& own, const Picture& wanted) {
        const auto& d = original_.layout.desc;
        const auto* surface = original_.layout.find(mip, layer_, face_);
        if (!surface) return fail(ErrorCode::damaged, phrase("mip {} is missing", mip));
        SKIVET_TRY(const auto bytes, original_.surface_bytes(*surface));
        LevelFit level{blocks_of(mip), 0};
        SKIVET_TRY(auto encoded, encode_changed(d.format, wanted, own, bytes, &level.kept, options_));
        if (encoded != bytes)
            out_.edits.push_back({static_cast<std::size_t>(surface - original_.layout.surfaces.data()), std::move(encoded)});
        out_.levels.push_back(level);
        return {};
    }
};

}  // namespace

Result<RebuiltLevels> rebuild_levels(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options, const Image& before,
                                     const Image& after, std::uint32_t layer, std::uint32_t face, std::span<const Image> smaller) {
    return Rebuild<Image>(original, mips, options, layer, face, smaller).run(before, after);
}
Result<RebuiltLevels> rebuild_levels(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options, const ImageF& before,
                                     const ImageF& after, std::uint32_t layer, std::uint32_t face, std::span<const Image>) {
    return Rebuild<ImageF>(original, mips, options, layer, face, {}).run(before, after);
}

}  // namespace skivet
