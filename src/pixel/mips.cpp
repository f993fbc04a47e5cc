#include "pixel/mips.h"

#include <tbb/parallel_for.h>
#include <algorithm>
#include <cmath>
#include <cstring>
#include <numbers>
#include <numeric>

#include "base/phrase.h"
#include "pixel/format.h"
#include "pixel/resample_rows.h"

namespace skivet {
namespace {

constexpr double kaiser_alpha = 4.0;

// Modified Bessel function of the first kind, order 0: sum over k of ((x/2)^k / k!)^2 (Abramowitz & Stegun 9.6.12).
double bessel_i0(double x) {
    double sum = 1, term = 1;
    for (int k = 1; k < 30; ++k) {
        term *= (x / (2.0 * k)) * (x / (2.0 * k));
        sum += term;
    }
    return sum;
}

double sinc(double x) {
    const double px = std::numbers::pi * x;
    return std::abs(px) < 1e-9 ? 1 : std::sin(px) / px;
}

// Mitchell and Netravali, "Reconstruction Filters in Computer Graphics", SIGGRAPH 1988, equation 8.
double cubic(double x, double b, double c) {
    x = std::abs(x);
    if (x < 1) return ((12 - 9 * b - 6 * c) * x * x * x + (-18 + 12 * b + 6 * c) * x * x + (6 - 2 * b)) / 6;
    if (x < 2) return ((-b - 6 * c) * x * x * x + (6 * b + 30 * c) * x * x + (-12 * b - 48 * c) * x + (8 * b + 24 * c)) / 6;
    return 0;
}

/// In units of target texels.
double reach_of(MipFilter filter) {
    switch (filter) {
        case MipFilter::point:
        case MipFilter::box: return 0.5;
        case MipFilter::triangle: return 1;
        case MipFilter::gaussian:
        case MipFilter::mitchell:
        case MipFilter::catmull_rom: return 2;
        default: return 3;
    }
}

double kernel(MipFilter filter, double x) {
    if (std::abs(x) >= reach_of(filter)) return 0;
    switch (filter) {
        case MipFilter::triangle: return 1 - std::abs(x);
        case MipFilter::gaussian: return std::exp(-2 * x * x);
        case MipFilter::mitchell: return cubic(x, 1.0 / 3, 1.0 / 3);
        case MipFilter::catmull_rom: return cubic(x, 0, 0.5);
        case MipFilter::lanczos: return sinc(x) * sinc(x / 3);
        default: return sinc(x) * bessel_i0(kaiser_alpha * std::sqrt(1 - x * x / 9)) / bessel_i0(kaiser_alpha);
    }
}

std::uint32_t folded(std::int64_t i, std::uint32_t size, bool wrap) {
    const auto n = static_cast<std::int64_t>(size);
    if (!wrap) return static_cast<std::uint32_t>(std::clamp<std::int64_t>(i, 0, n - 1));
    return static_cast<std::uint32_t>((i % n + n) % n);
}

/// Source columns [begin, end), which may go beyond the picture.
void padded_row(const RowSource& source, std::uint32_t y, std::int64_t begin, std::int64_t end, bool wrap, TexelF* out) {
    const auto width = static_cast<std::int64_t>(source.width());
    const auto inner_begin = std::clamp<std::int64_t>(begin, 0, width), inner_end = std::clamp<std::int64_t>(end, inner_begin, width);
    if (inner_end > inner_begin)
        source.row(y, static_cast<std::uint32_t>(inner_begin), static_cast<std::uint32_t>(inner_end - inner_begin),
                   out + (inner_begin - begin));
    const auto outside = [&](std::int64_t x) { source.row(y, folded(x, source.width(), wrap), 1, out + (x - begin)); };
    for (auto x = begin; x < std::min(end, inner_begin); ++x) outside(x);
    for (auto x = std::max(begin, inner_end); x < end; ++x) outside(x);
}

/// Rows [from, to) of the part `out`.
void resample_band(const RowSource& source, const std::vector<Taps>& across, const std::vector<Taps>& down, bool wrap, const Rect& out,
                   std::uint32_t from, std::uint32_t to, ImageF& result) {
    const auto begin = across[out.x].first;
    std::int64_t end = begin + 1;
    std::size_t most = 1;
    for (auto x = out.x; x < out.x + out.width; ++x)
        end = std::max(end, across[x].first + static_cast<std::int64_t>(across[x].weights.size()));
    for (auto y = from; y < to; ++y) most = std::max(most, down[out.y + y].weights.size());
    const auto row_texels = static_cast<std::size_t>(end - begin);
    // A ring of source rows; each is asked for once a band.
    std::vector<TexelF> ring(row_texels * most), mixed(row_texels);
    TexelsApart apart;
    std::vector<std::int64_t> held(most, std::numeric_limits<std::int64_t>::min());
    std::vector<const float*> rows(most);
    for (auto y = from; y < to; ++y) {
        const auto& tap = down[out.y + y];
        for (std::size_t k = 0; k < tap.weights.size(); ++k) {
            const auto at = tap.first + static_cast<std::int64_t>(k);
            const auto n = static_cast<std::int64_t>(most);
            const auto slot = static_cast<std::size_t>((at % n + n) % n);
            auto* texels = ring.data() + slot * row_texels;
            if (held[slot] != at) padded_row(source, folded(at, source.height(), wrap), begin, end, wrap, texels), held[slot] = at;
            rows[k] = texels->data();
        }
        mix_rows(rows.data(), tap.weights.data(), tap.weights.size(), mixed.data()->data(), row_texels * 4);
        mix_texels(mixed.data(), begin, &across[out.x], out.width, source.width() % across.size() == 0,
                   &result.texels[std::size_t{y} * out.width], apart);
    }
}

/// Color times alpha.
class WeightedRows final : public RowSource {
public:
    explicit WeightedRows(const RowSource& source) : source_(source) {}
    [[nodiscard]] std::uint32_t width() const override { return source_.width(); }
    [[nodiscard]] std::uint32_t height() const override { return source_.height(); }
    void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const override {
        source_.row(y, x, count, out);
        for (std::uint32_t i = 0; i < count; ++i)
            for (std::size_t c = 0; c < 3; ++c) out[i][c] *= out[i][3];
    }

private:
    const RowSource& source_;
};

/// The part of a normal that is not stored, in the first channel.
class RebuiltRows final : public RowSource {
public:
    RebuiltRows(const RowSource& source, const NormalChannels& channels) : source_(source), channels_(channels) {}
    [[nodiscard]] std::uint32_t width() const override { return source_.width(); }
    [[nodiscard]] std::uint32_t height() const override { return source_.height(); }
    void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const override {
        source_.row(y, x, count, out);
        for (std::uint32_t i = 0; i < count; ++i) {
            const float nx = out[i][channels_.x] * channels_.scale + channels_.offset,
                        ny = out[i][channels_.y] * channels_.scale + channels_.offset;
            out[i] = {std::sqrt(std::max(0.0f, 1 - nx * nx - ny * ny)), 0, 0, 0};
        }
    }

private:
    const RowSource& source_;
    const NormalChannels& channels_;
};

void renormalize(ImageF& level, const NormalChannels& n, const ImageF* rebuilt) {
    for (std::size_t i = 0; i < level.texels.size(); ++i) {
        auto& t = level.texels[i];
        const float x = t[n.x] * n.scale + n.offset, y = t[n.y] * n.scale + n.offset;
        const float z = n.z < 0 ? rebuilt->texels[i][0] : t[static_cast<std::size_t>(n.z)] * n.scale + n.offset;
        const float length = std::sqrt(x * x + y * y + z * z);
        if (length < 1e-6f) continue;  // normals that cancel out have no direction
        t[n.x] = (x / length - n.offset) / n.scale;
        t[n.y] = (y / length - n.offset) / n.scale;
        if (n.z >= 0) t[static_cast<std::size_t>(n.z)] = (z / length - n.offset) / n.scale;
    }
}

}  // namespace

std::string_view name_of(MipFilter filter) {
    constexpr std::string_view names[] = {"point", "box", "triangle", "Gaussian", "Mitchell", "Catmull-Rom", "Lanczos", "Kaiser"};
    return names[static_cast<std::size_t>(filter)];
}

std::string describe(const MipRecipe& r, bool say_light) {
    auto text = !say_light       ? phrase("{} filter", said(name_of(r.filter)))
                : r.linear_light ? phrase("{} filter in linear light", said(name_of(r.filter)))
                                 : phrase("{} filter in encoded light", said(name_of(r.filter)));
    if (r.wrap) text += said(", edges wrap");
    if (r.by_alpha) text += said(", color weighted by alpha");
    if (r.renormalize) text += said(", normals renormalized");
    if (r.coverage) text += phrase(", alpha coverage kept at {}", r.coverage);
    return text;
}

std::vector<Taps> make_taps(std::uint32_t source, std::uint32_t target, MipFilter filter) {
    std::vector<Taps> all(target);
    const double scale = static_cast<double>(source) / target;
    const bool enlarge = scale < 1;
    // The weights repeat where both sizes have a common divisor; for halving an even size all are the same.
    const auto common = std::gcd(source, target), period = target / common;
    for (std::uint32_t i = 0; i < target; ++i) {
        if (i >= period) {
            all[i] = {all[i - period].first + source / common, all[i - period].weights};
            continue;
        }
        const double low = i * scale, high = (i + 1) * scale, center = (low + high) / 2;
        auto& tap = all[i];
        if (filter == MipFilter::point && !enlarge) {
            tap.first = static_cast<std::int64_t>(low);
            tap.weights = {1};
            continue;
        }
        const double reach = enlarge ? 1.0 : reach_of(filter) * scale;
        const auto from = static_cast<std::int64_t>(std::floor(center - reach - 0.5)),
                   to = static_cast<std::int64_t>(std::ceil(center + reach + 0.5));
        std::vector<double> raw;
        double sum = 0;
        for (auto s = from; s <= to; ++s) {
            const double at = static_cast<double>(s);
            raw.push_back(enlarge                    ? std::max(0.0, 1 - std::abs(at + 0.5 - center))
                          : filter == MipFilter::box ? std::max(0.0, std::min(high, at + 1) - std::max(low, at))
                                                     : kernel(filter, (at + 0.5 - center) / scale));
            sum += raw.back();
        }
        // Taps of weight zero at both ends would mark texels as touched that are not.
        auto first = std::size_t{0}, last = raw.size();
        while (last > first + 1 && std::abs(raw[last - 1]) < 1e-7 * sum) --last;
        while (first + 1 < last && std::abs(raw[first]) < 1e-7 * sum) ++first;
        tap.first = from + static_cast<std::int64_t>(first);
        for (auto k = first; k < last; ++k) tap.weights.push_back(static_cast<float>(raw[k] / sum));
    }
    return all;
}

void ByteRows::row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const {
    to_float(&image_.at(x, y), count, srgb_, out);
}

void FloatRows::row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const {
    std::copy_n(&image_.at(x, y), count, out);
    if (!srgb_) return;
    for (std::uint32_t i = 0; i < count; ++i)
        for (std::size_t c = 0; c < 3; ++c) out[i][c] = srgb_to_linear(out[i][c]);
}

ImageF resample(const RowSource& source, std::uint32_t width, std::uint32_t height, MipFilter filter, bool wrap, Rect out) {
    ImageF result(out.width, out.height);
    if (out.empty()) return result;
    const auto across = make_taps(source.width(), width, filter), down = make_taps(source.height(), height, filter);
    // Rows do not depend on each other; a band asks again only for the rows at its upper edge.
    constexpr std::uint32_t band = 64;
    const auto work = [&](std::uint32_t i) {
        resample_band(source, across, down, wrap, out, i * band, std::min(out.height, (i + 1) * band), result);
    };
    const auto bands = (out.height + band - 1) / band;
    if (bands < 2) work(0);
    else tbb::parallel_for(0u, bands, work);
    return result;
}

ImageF resize(const ImageF& image, std::uint32_t width, std::uint32_t height, MipFilter filter) {
    return resample(FloatRows(image), width, height, filter, false, {0, 0, width, height});
}

Rect next_rect(std::uint32_t width, std::uint32_t height) { return {0, 0, mip_side(width, 1), mip_side(height, 1)}; }

ImageF next_level(const RowSource& source, const MipRecipe& recipe, const NormalChannels& normals, Rect out) {
    const auto whole = next_rect(source.width(), source.height());
    const auto filtered = [&](const RowSource& rows) { return resample(rows, whole.width, whole.height, recipe.filter, recipe.wrap, out); };
    if (recipe.by_alpha) {
        auto level = filtered(WeightedRows(source));
        std::optional<ImageF> plain;  // where nothing is seen, color is only color
        for (std::size_t i = 0; i < level.texels.size(); ++i) {
            auto& t = level.texels[i];
            if (t[3] > 1e-4f) {
                for (std::size_t c = 0; c < 3; ++c) t[c] /= t[3];
            } else {
                if (!plain) plain = filtered(source);
                std::copy_n(plain->texels[i].begin(), 3, t.begin());
            }
        }
        return level;
    }
    auto level = filtered(source);
    if (recipe.renormalize) {
        const auto rebuilt = normals.z < 0 ? filtered(RebuiltRows(source, normals)) : ImageF();
        renormalize(level, normals, &rebuilt);
    }
    return level;
}

ImageF next_mip(const ImageF& image, MipFilter filter) {
    return next_level(FloatRows(image), {filter}, {}, next_rect(image.width, image.height));
}

double coverage_of(const ImageF& image, std::uint8_t reference) {
    const float limit = static_cast<float>(reference) / 255.0f;
    const auto covered = std::count_if(image.texels.begin(), image.texels.end(), [&](const TexelF& t) { return t[3] >= limit; });
    return static_cast<double>(covered) / static_cast<double>(image.texels.size());
}

float coverage_factor(const ImageF& image, std::uint8_t reference, double coverage) {
    const auto count = image.texels.size();
    const auto wanted = static_cast<std::size_t>(std::floor(coverage * static_cast<double>(count) + 0.5));
    if (wanted == 0 || wanted >= count) return 1;
    std::vector<float> alpha(count);
    for (std::size_t i = 0; i < count; ++i) alpha[i] = image.texels[i][3];
    std::nth_element(alpha.begin(), alpha.begin() + static_cast<std::ptrdiff_t>(wanted - 1), alpha.end(), std::greater<>());
    const float kth = alpha[wanted - 1];
    const float limit = static_cast<float>(reference) / 255.0f;
    return kth * 8 < limit ? 8 : limit / kth;
}

void keep_coverage(ImageF& image, std::uint8_t reference, double coverage) {
    const float factor = coverage_factor(image, reference, coverage);
    for (auto& t : image.texels) t[3] = std::min(1.0f, t[3] * factor);
}

std::vector<std::uint8_t> next_dirty(const std::vector<std::uint8_t>& dirty, std::uint32_t width, std::uint32_t height, MipFilter filter,
                                     bool wrap) {
    const auto out_width = mip_side(width, 1), out_height = mip_side(height, 1);
    std::vector<std::uint8_t> out(std::size_t{out_width} * out_height);
    const auto marked = bounds(dirty, width);
    if (marked.empty()) return out;
    const auto across = make_taps(width, out_width, filter), down = make_taps(height, out_height, filter);
    const auto any = [&](const Taps& tap, std::uint32_t size, const auto& at) {
        for (std::size_t k = 0; k < tap.weights.size(); ++k)
            if (at(folded(tap.first + static_cast<std::int64_t>(k), size, wrap))) return true;
        return false;
    };
    std::vector<std::uint8_t> rows(std::size_t{out_width} * height);
    for (std::uint32_t x = 0; x < out_width; ++x) {
        const auto in_reach = [&](std::uint32_t at) { return at >= marked.x && at < marked.x + marked.width; };
        if (!any(across[x], width, in_reach)) continue;
        for (auto y = marked.y; y < marked.y + marked.height; ++y)
            rows[std::size_t{y} * out_width + x] =
                any(across[x], width, [&](std::uint32_t at) { return dirty[std::size_t{y} * width + at] != 0; });
    }
    for (std::uint32_t y = 0; y < out_height; ++y) {
        const auto in_reach = [&](std::uint32_t at) { return at >= marked.y && at < marked.y + marked.height; };
        if (!any(down[y], height, in_reach)) continue;
        for (std::uint32_t x = 0; x < out_width; ++x)
            out[std::size_t{y} * out_width + x] =
                any(down[y], height, [&](std::uint32_t at) { return rows[std::size_t{at} * out_width + x] != 0; });
    }
    return out;
}

Rect bounds(const std::vector<std::uint8_t>& dirty, std::uint32_t width) {
    const auto height = static_cast<std::uint32_t>(dirty.size() / std::max(width, 1u));
    std::uint32_t left = width, right = 0, top = height, bottom = 0;
    for (std::uint32_t y = 0; y < height; ++y) {
        const auto* row = dirty.data() + std::size_t{y} * width;
        // Eight at a time over what is not marked, which is nearly all.
        const auto* first = row;
        for (std::uint64_t eight = 0; row + width - first >= 8; first += 8)
            if (std::memcpy(&eight, first, 8); eight != 0) break;
        first = std::find_if(first, row + width, [](std::uint8_t v) { return v != 0; });
        if (first == row + width) continue;
        const auto* last = row + width - 1;
        while (!*last) --last;
        left = std::min(left, static_cast<std::uint32_t>(first - row));
        right = std::max(right, static_cast<std::uint32_t>(last - row) + 1);
        top = std::min(top, y);
        bottom = y + 1;
    }
    if (bottom == 0) return {};
    return {left, top, right - left, bottom - top};
}

}  // namespace skivet
