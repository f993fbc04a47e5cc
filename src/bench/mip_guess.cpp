#include "bench/mip_guess.h"

#include <fmt/format.h>
#include <cmath>

#include "base/phrase.h"
#include "bench/level.h"
#include "pixel/alpha_use.h"

namespace skivet {
namespace {

constexpr std::uint32_t compared_side = 512;    ///< recipes are tried on levels up to this size
constexpr std::uint32_t smallest_compared = 8;  ///< below this, single blocks decide
constexpr double close = 20;                    ///< a filter so many times less likely than the best is said, too
constexpr std::size_t compared_pairs = 4;       ///< a filter shows in the first; the others are there against chance

/// Two neighboring levels of the texture.
template <class Picture>
struct Pair {
    Picture above, below;
    std::uint32_t mip = 0;  ///< of the one below
};

/// Squared errors in steps: of the channels judged, and for each 4×4 texels of light and the two color differences they make when there
/// are three. Compression keeps the light of a block far better than its colors, and flat blocks far better than others, so each is weighed
/// by its own error.
struct Misfit {
    double squared = 0, count = 0;
    double texels = 0;
    struct Block {
        std::array<double, 3> squared{};
        double texels = 0;
    };
    std::vector<Block> blocks;
    Misfit(std::uint32_t width, std::uint32_t height) : across_((width + 3) / 4) {
        blocks.resize(std::size_t{across_} * ((height + 3) / 4));
    }
    void add(const std::array<double, 4>& d, const std::array<bool, 4>& channels, std::size_t x, std::size_t y) {
        for (std::size_t c = 0; c < 4; ++c)
            if (channels[c]) squared += d[c] * d[c], count += 1;
        const std::array<double, 3> p = channels[2]
                                            ? std::array{(d[0] + 2 * d[1] + d[2]) / 4, (d[0] - d[2]) / 2, (2 * d[1] - d[0] - d[2]) / 4}
                                            : std::array{d[0], d[1], d[3]};
        auto& block = blocks[y / 4 * across_ + x / 4];
        for (std::size_t c = 0; c < 3; ++c) block.squared[c] += p[c] * p[c];
        block.texels += 1;
        texels += 1;
    }
    void operator+=(const Misfit& other) { squared += other.squared, count += other.count, texels += other.texels; }
    [[nodiscard]] double mean() const { return count > 0 ? squared / count : 0; }

private:
    std::size_t across_;
};

/// Channels whose filtering can be judged: those stored, but alpha only where it is all there is.
std::array<bool, 4> judged(const FormatInfo& f) {
    if (f.format == Format::A8) return {false, false, false, true};
    return {true, !f.luminance && f.channels >= 2, !f.luminance && f.channels >= 3, false};
}

Misfit compare(const Image& made, const Image& have, const std::array<bool, 4>& channels) {
    Misfit out(made.width, made.height);
    for (std::size_t i = 0; i < made.texels.size(); ++i) {
        std::array<double, 4> d{};
        for (std::size_t c = 0; c < 4; ++c)
            if (channels[c]) d[c] = made.texels[i][c] - have.texels[i][c];
        out.add(d, channels, i % made.width, i / made.width);
    }
    return out;
}
Misfit compare(const ImageF& made, const Image& have, bool linear, const std::array<bool, 4>& channels, double) {
    return compare(to_bytes(made, linear), have, channels);
}

/// `range`: the value that counts as 255 steps.
Misfit compare(const ImageF& made, const ImageF& have, bool linear, const std::array<bool, 4>& channels, double range) {
    Misfit out(made.width, made.height);
    for (std::size_t i = 0; i < made.texels.size(); ++i) {
        const auto t = from_work(made.texels[i], linear, have.texels[i]);
        std::array<double, 4> d{};
        for (std::size_t c = 0; c < 4; ++c)
            if (const double e = (t[c] - have.texels[i][c]) * 255 / range; channels[c] && std::isfinite(e)) d[c] = e;
        out.add(d, channels, i % made.width, i / made.width);
    }
    return out;
}

double range_of(const FormatInfo&, const Image&) { return 255; }
double range_of(const FormatInfo& f, const ImageF& level) {
    if (f.numeric == Numeric::unorm) return 1;
    if (f.numeric == Numeric::snorm) return 2;
    double sum = 0, count = 0;  // floats and integers have no natural range: four times the mean
    for (const auto& t : level.texels)
        for (std::size_t c = 0; c < 3; ++c)
            if (std::isfinite(t[c])) sum += std::abs(t[c]), count += 1;
    return count > 0 && sum > 0 ? 4 * sum / count : 1;
}

/// The levels below a picture of one color are told by nothing, so a spread is needed as well as closeness.
template <class Picture>
double variance(const Picture& level, const std::array<bool, 4>& channels, double range) {
    double out = 0;
    for (std::size_t c = 0; c < 4; ++c) {
        if (!channels[c]) continue;
        double sum = 0, squares = 0;
        for (const auto& t : level.texels) {
            const double v = std::isfinite(static_cast<double>(t[c])) ? static_cast<double>(t[c]) * 255 / range : 0;
            sum += v, squares += v * v;
        }
        const auto n = static_cast<double>(level.texels.size());
        out = std::max(out, squares / n - sum / n * (sum / n));
    }
    return out;
}

/// Share of the variance of independent errors that is left after halving: the sum of the squared weights, squared for two axes.
/// A picked texel would get four times the box's, which is more than errors that go together in a block allow; it counts as the box.
double noise_gain(MipFilter filter) {
    const auto taps = make_taps(64, 32, filter == MipFilter::point ? MipFilter::box : filter)[16];
    double sum = 0;
    for (const float w : taps.weights) sum += double{w} * w;
    return sum * sum;
}

template <class Picture>
class Search {
public:
    Search(const TextureFile& texture, MipGuess& guess)
        : texture_(texture), guess_(guess), channels_(judged(info(texture.layout.desc.format))) {}

    Status run() {
        const auto& d = texture_.layout.desc;
        const auto& f = info(d.format);
        SKIVET_CHECK(read_pairs());
        if (pairs_.empty()) return {};
        const auto& largest = pairs_.front().above;
        range_ = range_of(f, largest);
        if constexpr (std::is_same_v<Picture, Image>) {
            if (d.color != ColorSpace::srgb) guess_.normals = guess_normals(d.format, largest);
            if (f.has_alpha && f.channels > 1) alpha_ = alpha_facts(largest).use;
        }
        find_filter();
        if (seen_through()) find_coverage();
        return {};
    }

    /// With the recipe found: which levels it does not explain.
    Status find_painted() {
        std::vector<double> rms;
        const auto& d = texture_.layout.desc;
        std::optional<Picture> above;
        for (std::uint32_t mip = 1;
             mip < d.mips && mip_side(d.width, mip) >= smallest_compared && mip_side(d.height, mip) >= smallest_compared; ++mip) {
            if (const auto some = error_in_bands(mip)) {
                rms.push_back(std::sqrt(some->mean()));
                above.reset();
                continue;
            }
            if (!above) {
                SKIVET_TRY(above, decode_level<Picture>(texture_, mip - 1, 0, 0));
            }
            SKIVET_TRY(auto below, decode_level<Picture>(texture_, mip, 0, 0));
            rms.push_back(std::sqrt(error(guess_.recipe, *above, below).mean()));
            above = std::move(below);
        }
        auto sorted = rms;
        std::sort(sorted.begin(), sorted.end());
        const double usual = sorted.empty() ? 0 : sorted[sorted.size() / 4];
        for (std::size_t i = 0; i < rms.size(); ++i)
            if (rms[i] > 12 && rms[i] > 4 * usual) guess_.painted.push_back(static_cast<std::uint32_t>(i) + 1);
        return {};
    }

private:
    const TextureFile& texture_;
    MipGuess& guess_;
    std::array<bool, 4> channels_;
    std::vector<Pair<Picture>> pairs_;
    double range_ = 255;
    AlphaUse alpha_ = AlphaUse::none;

    [[nodiscard]] bool seen_through() const { return alpha_ == AlphaUse::cut_out || alpha_ == AlphaUse::gradient; }

    Status read_pairs() {
        const auto& d = texture_.layout.desc;
        std::uint32_t first = 0;
        while (first + 3 < d.mips && std::max(mip_side(d.width, first), mip_side(d.height, first)) > compared_side) ++first;
        SKIVET_TRY(auto above, decode_level<Picture>(texture_, first, 0, 0));
        for (auto mip = first + 1; mip < d.mips && pairs_.size() < compared_pairs; ++mip) {
            SKIVET_TRY(auto below, decode_level<Picture>(texture_, mip, 0, 0));
            if (!pairs_.empty() && std::min(below.width, below.height) < smallest_compared) break;
            pairs_.push_back({std::move(above), below, mip});
            above = std::move(below);
        }
        return {};
    }

    [[nodiscard]] Misfit error(const MipRecipe& recipe, const Picture& above, const Picture& below) const {
        const auto made = next_level(rows_of(above, recipe.linear_light), recipe, guess_.normals.value_or(NormalChannels()),
                                     next_rect(above.width, above.height));
        return compare(made, below, recipe.linear_light, channels_, range_);
    }

    /// The same for a large level, of which a part tells enough: bands all over it, away from its upper and lower edge. Nothing for smaller
    /// levels, and for those that cannot be read in part.
    [[nodiscard]] std::optional<Misfit> error_in_bands(std::uint32_t mip) const {
        constexpr std::uint32_t bands = 24, band = 8, around = 16;  // rows; of the level above as many as any filter reaches
        const auto& d = texture_.layout.desc;
        const auto block = std::uint32_t{info(d.format).block_height};
        const auto width = mip_side(d.width, mip), height = mip_side(d.height, mip), high = mip_side(d.height, mip - 1);
        if (height <= compared_side || around % block != 0 || band % block != 0 || guess_.recipe.coverage || d.depth > 1)
            return std::nullopt;
        Misfit out(0, 0);
        for (std::uint32_t k = 0; k < bands; ++k) {
            const auto y = (around + (height - 2 * around - band) * k / (bands - 1)) / band * band;
            const auto first = 2 * y - around, count = std::min(2 * band + 2 * around, high - first);
            const auto above = decode_rows<Picture>(texture_, mip - 1, first, count);
            const auto below = decode_rows<Picture>(texture_, mip, y, band);
            if (!above || !below) return std::nullopt;
            const auto rows = rows_of(*above, guess_.recipe.linear_light);
            const auto made =
                next_level(SomeRows(rows, first, high), guess_.recipe, guess_.normals.value_or(NormalChannels()), {0, y, width, band});
            out += compare(made, *below, guess_.recipe.linear_light, channels_, range_);
        }
        return out;
    }

    /// Minus the logarithm of the likelihood: n/2 log(variance) a pair, with n the number of independent errors, taken as one for each
    /// 256 texels: errors in a block go together, and the model of them is rough.
    /// Compression left an error of some variance v in both levels; that of the upper one comes through the filter by its gain g. So the
    /// right filter shows v (1 + g), and without the division the softest would win whenever v is large.
    [[nodiscard]] double cost(const MipRecipe& recipe, Misfit* total = nullptr) const {
        double out = 0;
        const double gain = noise_gain(recipe.filter);
        for (const auto& pair : pairs_) {
            const auto e = error(recipe, pair.above, pair.below);
            std::array<double, 3> parts{};
            for (const auto& block : e.blocks)
                for (std::size_t c = 0; c < 3; ++c) parts[c] += block.squared[c];
            for (const double part : parts) out += e.texels / 512 * std::log((part / e.texels + 0.1) / (1 + gain));  // rounding: 1/12
            if (total) *total += e;
        }
        return out;
    }

    /// What the logarithm of a block's error counts for, for each of light and color differences. How compression leans to one filter or
    /// another is the same in every block, so beyond a thousand of them nothing gets surer: of 224 chains of BC1 and BC7 those named
    /// wrongly came out up to e^4 times more likely for a thousand blocks, none more.
    [[nodiscard]] double weight() const {
        double blocks = 0;
        for (const auto& pair : pairs_) blocks += std::ceil(pair.below.width / 4.0) * std::ceil(pair.below.height / 4.0);
        return 0.06 * std::min(1.0, 1000 / std::max(blocks, 1.0));
    }

    /// The same of what is left of the level made when it is compressed, too, block by block, where flat ones tell more: compression makes
    /// every level softer than it was, which would otherwise be taken for a softer filter. What it does to one it did to the other, so most
    /// of the error came through the filter. The fast effort does: whoever made the texture used another encoder anyway.
    [[nodiscard]] double cost_compressed(const MipRecipe& recipe) const {
        const auto format = texture_.layout.desc.format;
        double out = 0;
        const double gain = noise_gain(recipe.filter), weighs = weight();
        for (const auto& pair : pairs_) {
            const auto made = next_level(rows_of(pair.above, recipe.linear_light), recipe, guess_.normals.value_or(NormalChannels()),
                                         next_rect(pair.above.width, pair.above.height));
            const auto coded = encode(format, to_bytes(made, recipe.linear_light), {Effort::fast});
            const auto shown = coded ? decode(format, *coded, made.width, made.height) : tl::unexpected(coded.error());
            if (!shown) return std::numeric_limits<double>::max();
            for (const auto& block : compare(*shown, pair.below, channels_).blocks)
                for (const double part : block.squared) out += weighs * std::log(0.2 + part / block.texels / (1 + 2 * gain));
        }
        return out;
    }

    /// Of the recipes with the light, and what else there is, of the best one: the filters that come closest, compared compressed. Returns
    /// how likely the best one's light is, beside the same filter in the other.
    double compare_compressed(std::vector<MipRecipe>& tried, std::vector<double>& costs) const {
        constexpr std::size_t most = 4;
        const auto at = static_cast<std::size_t>(std::min_element(costs.begin(), costs.end()) - costs.begin());
        const auto best = tried[at];
        double light = 1;
        std::vector<std::pair<double, MipRecipe>> likely;
        for (std::size_t i = 0; i < tried.size(); ++i) {
            auto other = tried[i];
            other.filter = best.filter;
            if (other == best) likely.emplace_back(costs[i], tried[i]);
            other = tried[i];
            other.linear_light = best.linear_light;
            // A texel picked is the same in both.
            if (i != at && other == best && best.filter != MipFilter::point)
                light = std::min(light, 1 / (1 + std::exp(costs[at] - costs[i])));
        }
        std::stable_sort(likely.begin(), likely.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
        if (likely.size() > most) likely.resize(most);
        tried.clear(), costs.clear();
        for (const auto& [cost, recipe] : likely) tried.push_back(recipe), costs.push_back(cost_compressed(recipe));
        return light;
    }

    void find_filter() {
        const auto& d = texture_.layout.desc;
        const auto& f = info(d.format);
        guess_.light_matters = f.may_be_srgb && d.color != ColorSpace::linear && !guess_.normals;
        std::vector<MipRecipe> tried;
        for (const auto filter : all_mip_filters)
            for (const bool linear : {false, true})
                for (const bool by_alpha : {false, true})
                    for (const bool renormalize : {false, true}) {
                        if ((linear && !guess_.light_matters) || (by_alpha && !seen_through()) || (renormalize && !guess_.normals))
                            continue;
                        tried.push_back({filter, linear, false, by_alpha, renormalize, 0});
                    }
        // Where all come to the same, the simplest is meant: the box comes first, and what is done besides must earn its place.
        std::stable_partition(tried.begin(), tried.end(), [](const MipRecipe& r) { return r.filter == MipFilter::box; });
        std::vector<double> costs;
        for (const auto& recipe : tried) costs.push_back(cost(recipe) + recipe.by_alpha);
        double light = 1;
        if constexpr (std::is_same_v<Picture, Image>)
            if (f.block_compressed() && can_encode(d.format)) light = compare_compressed(tried, costs);
        const auto best = static_cast<std::size_t>(std::min_element(costs.begin(), costs.end()) - costs.begin());
        double sum = 0;
        for (const double c : costs) sum += std::exp(costs[best] - c);
        guess_.confidence = light / sum;
        guess_.recipe = tried[best];
        std::optional<std::size_t> second;
        for (std::size_t i = 0; i < tried.size(); ++i)
            if (tried[i].filter != guess_.recipe.filter && (!second || costs[i] < costs[*second])) second = i;
        guess_.second.reset();
        if (second && costs[*second] - costs[best] < std::log(close)) guess_.second = tried[*second];
        // The box with even sides has no edges to speak of; where both come to the same, edges go on. Only texels at the edges differ, so
        // it is the sum of the squares that counts, in units of the error that is there anyway.
        auto wrapped = guess_.recipe;
        wrapped.wrap = true;
        Misfit total(0, 0), with_wrap(0, 0);
        (void)cost(guess_.recipe, &total);
        (void)cost(wrapped, &with_wrap);
        const double noise = (with_wrap.mean() + 0.1) * with_wrap.count / std::max(with_wrap.texels, 1.0);  // of a texel
        const bool wraps = total.squared - with_wrap.squared > 21 * noise;
        // One painted level spoils two comparisons; without it nothing blurs what the others tell. Only a pair that has something to tell
        // and is explained can speak against the others.
        std::vector<double> means, spreads;
        for (const auto& pair : pairs_) {
            means.push_back(error(guess_.recipe, pair.above, pair.below).mean());
            spreads.push_back(variance(pair.below, channels_, range_));
        }
        double best_mean = -1;
        for (std::size_t i = 0; i < means.size(); ++i)
            if (means[i] < spreads[i] / 4 && spreads[i] > 1 && (best_mean < 0 || means[i] < best_mean)) best_mean = means[i];
        const auto spoiled = [&](std::size_t i) { return best_mean >= 0 && means[i] > 144 && means[i] > 16 * best_mean; };
        bool any_spoiled = false;
        for (auto i = pairs_.size(); i-- > 0;)
            if (spoiled(i)) pairs_.erase(pairs_.begin() + static_cast<std::ptrdiff_t>(i)), any_spoiled = true;
        if (any_spoiled) return find_filter();
        const auto largest = static_cast<std::size_t>(std::max_element(spreads.begin(), spreads.end()) - spreads.begin());
        guess_.rms = std::sqrt(means[largest]);
        if (wraps) guess_.recipe = wrapped;
        guess_.known = guess_.rms < 4 || (guess_.rms < 16 && means[largest] < spreads[largest] / 2);
    }

    void find_coverage() {
        constexpr std::array<std::uint8_t, 7> references = {64, 77, 85, 102, 128, 170, 191};
        const auto alpha_error = [&](std::uint8_t reference) {
            double squared = 0, count = 0;
            for (const auto& pair : pairs_) {
                const auto rows = rows_of(pair.above, false);
                auto made = next_level(rows, guess_.recipe, {}, next_rect(pair.above.width, pair.above.height));
                if (reference) {
                    ImageF above(pair.above.width, pair.above.height);
                    for (std::uint32_t y = 0; y < above.height; ++y) rows.row(y, 0, above.width, &above.at(0, y));
                    keep_coverage(made, reference, coverage_of(above, reference));
                }
                const auto e = compare(made, pair.below, false, {false, false, false, true}, range_);
                squared += e.squared, count += e.count;
            }
            return squared / count;
        };
        double best = alpha_error(0);
        const double plain = best;
        for (const auto reference : references)
            if (const double e = alpha_error(reference); e < best * 0.999 && e < plain * 0.8 - 0.1)
                best = e, guess_.recipe.coverage = reference;
    }
};

template <class Picture>
Status search(const TextureFile& original, MipGuess& guess) {
    Search<Picture> search(original, guess);
    SKIVET_CHECK(search.run());
    return guess.known ? search.find_painted() : Status{};
}

}  // namespace

Result<MipGuess> guess_mips(const TextureFile& original) {
    MipGuess guess;
    const auto& d = original.layout.desc;
    guess.levels = d.mips;
    guess.full = full_mip_count(d.width, d.height, d.depth);
    guess.smallest_width = mip_side(d.width, d.mips - 1);
    guess.smallest_height = mip_side(d.height, d.mips - 1);
    if (d.depth > 1) return guess;
    if (d.mips < 2) {
        if (!info(d.format).wide && d.color != ColorSpace::srgb) {
            SKIVET_TRY(const auto image, original.decode(0));
            guess.normals = guess_normals(d.format, image);
        }
        return guess;
    }
    SKIVET_CHECK(info(d.format).wide ? search<ImageF>(original, guess) : search<Image>(original, guess));
    return guess;
}

std::string use_of(const TextureFile& original, const MipGuess& guess) {
    if (guess.normals) return said(describe(*guess.normals));
    const auto& f = info(original.layout.desc.format);
    if (f.channels < 2 || f.wide) return {};
    const auto image = original.decode(0);
    if (!image) return {};
    constexpr std::array<std::string_view, 4> names = {"red", "green", "blue", "alpha"};
    if (const auto channel = lone_channel(*image)) return phrase("one value, in {}", said(names[*channel]));
    return {};
}

std::string describe(const MipGuess& guess) {
    if (guess.levels < 2) return said("one level only");
    std::string text;
    if (!guess.known) text = said("by hand, or with a filter we do not know; box is used where you painted");
    else {
        text = describe(guess.recipe, guess.light_matters || guess.recipe.linear_light);
        // The other filters explain a flat picture just as well; then it does not matter which is used.
        const auto sure = std::min(99.0, std::floor(guess.confidence * 100));
        text += guess.confidence < 0.2 ? said(" (others fit as well)")
                : guess.second         ? phrase(" ({:.0f} % sure, {} comes close)", sure, said(name_of(guess.second->filter)))
                                       : phrase(" ({:.0f} % sure)", sure);
        if (!guess.painted.empty()) {
            std::string levels;
            for (const auto mip : guess.painted) levels += fmt::format("{}{}", levels.empty() ? "" : " ", mip);
            text += guess.painted.size() == 1 ? phrase(" · level {} by hand", levels) : phrase(" · levels {} by hand", levels);
        }
    }
    if (guess.levels < guess.full)
        text += phrase(" · {} of {} levels, down to {}×{}", guess.levels, guess.full, guess.smallest_width, guess.smallest_height);
    return text;
}

}  // namespace skivet
