#include "catalog/picture_facts.h"

#include <fmt/format.h>
#include <xxhash.h>
#include <cmath>

#include "base/phrase.h"
#include "codec/paint_form.h"
#include "pixel/mips.h"
#include "pixel/normals.h"

namespace skivet {
namespace {

static_assert(std::is_trivially_copyable_v<PictureNumbers> && std::is_trivially_copyable_v<PicturePattern>);

int luma_of(const Texel& t) { return (77 * t[0] + 150 * t[1] + 29 * t[2] + 128) >> 8; }

/// Values less their mean, over their deviation (returned), times 32.
template <std::size_t count>
float normalize(const std::array<float, count>& values, std::array<std::int8_t, count>& out) {
    double sum = 0, square = 0;
    for (const float v : values) sum += v, square += static_cast<double>(v) * v;
    const double middle = sum / count, deviation = std::sqrt(std::max(0.0, square / count - middle * middle));
    const auto scale = static_cast<float>(32 / deviation), mean = static_cast<float>(middle);
    if (deviation > 0.05)
        for (std::size_t i = 0; i < count; ++i) {
            const float v = std::clamp((values[i] - mean) * scale, -127.0f, 127.0f);
            out[i] = static_cast<std::int8_t>(v + (v < 0 ? -0.5f : 0.5f));  // std::lround, without a call
        }
    return static_cast<float>(deviation);
}

/// Red and green around the middle, and blue high or the same everywhere.
bool like_normals(const ImageF& small) {
    std::array<double, 3> sum{};
    double blue_square = 0;
    for (const auto& t : small.texels) {
        for (std::size_t c = 0; c < 3; ++c) sum[c] += t[c];
        blue_square += static_cast<double>(t[2]) * t[2];
    }
    const auto n = static_cast<double>(small.texels.size());
    const auto middle = [&](std::size_t c) { return std::abs(sum[c] / n - 0.5) < 0.08; };
    const double blue = sum[2] / n;
    return middle(0) && middle(1) && (blue > 0.7 || blue_square / n - blue * blue < 1e-5);
}

/// The picture at another size, by means of the texels under each; what a whole number of texels fits is done without a filter's tables,
/// which cost more than the few texels do.
ImageF stretched(const Image& picture, std::uint32_t side) {
    const auto fits = [&](std::uint32_t from) { return from % side == 0 || side % from == 0; };
    if (!fits(picture.width) || !fits(picture.height)) return resize(to_float(picture, false), side, side, MipFilter::box);
    ImageF out(side, side);
    const auto across = std::max(1u, picture.width / side), down = std::max(1u, picture.height / side);
    const float scale = 1 / (255.0f * static_cast<float>(across * down));
    std::vector<std::uint32_t> left(side);
    for (std::uint32_t x = 0; x < side; ++x) left[x] = x * picture.width / side;
    if (across * down == 1) {
        const auto texels = to_float(picture, false);
        for (std::uint32_t y = 0; y < side; ++y)
            for (std::uint32_t x = 0; x < side; ++x) out.at(x, y) = texels.at(left[x], y * picture.height / side);
        return out;
    }
    for (std::uint32_t y = 0; y < side; ++y) {
        const auto* rows = picture.texels.data() + std::size_t{y * picture.height / side} * picture.width;
        auto* to = out.texels.data() + std::size_t{y} * side;
        for (std::uint32_t x = 0; x < side; ++x) {
            std::array<std::uint32_t, 4> sum{};
            for (std::uint32_t j = 0; j < down; ++j)
                for (std::uint32_t i = 0; i < across; ++i) {
                    const auto& t = rows[std::size_t{j} * picture.width + left[x] + i];
                    for (std::size_t c = 0; c < 4; ++c) sum[c] += t[c];
                }
            for (std::size_t c = 0; c < 4; ++c) to[x][c] = static_cast<float>(sum[c]) * scale;
        }
    }
    return out;
}

/// The stretched copies of the picture and its means.
void add_pattern(PictureFacts& f, const Image& picture) {
    constexpr auto side = PicturePattern::side;
    PicturePattern p;
    const auto small = stretched(picture, side);
    std::array<float, side * side> y{}, values{};
    std::array<double, 4> mean{};
    const bool normals = like_normals(small);
    float least_alpha = 1;
    for (std::size_t row = 0; row < side; ++row) {
        TexelF sum{};
        for (std::size_t i = row * side; i < (row + 1) * side; ++i) {
            const auto& t = small.texels[i];
            y[i] = 255 * (0.299f * t[0] + 0.587f * t[1] + 0.114f * t[2]);
            values[i] = normals ? 127.5f * (t[0] + t[1]) : y[i];
            least_alpha = std::min(least_alpha, t[3]);
            for (std::size_t c = 0; c < 4; ++c) sum[c] += t[c];
        }
        for (std::size_t c = 0; c < 4; ++c) mean[c] += sum[c];
    }
    const bool opaque = least_alpha > 0.98f;
    const auto count = static_cast<double>(y.size());
    for (std::size_t c = 0; c < 4; ++c) f.mean[c] = static_cast<std::uint8_t>(std::lround(std::clamp(255 * mean[c] / count, 0.0, 255.0)));
    f.contrast = normalize(values, p.luma);
    if (!opaque && mean[3] > 0.01 * count) {
        // Texel by texel before it is stretched: means of colors and of alpha do not make the mean of their product.
        auto over = picture;
        for (auto& t : over.texels)
            for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>((t[c] * t[3] + 128 * (255 - t[3]) + 127) / 255);
        const auto cells = stretched(over, PicturePattern::over_side);
        std::array<float, PicturePattern::over_side * PicturePattern::over_side> gray{};
        for (std::size_t i = 0; i < gray.size(); ++i)
            gray[i] = 255 * (0.299f * cells.texels[i][0] + 0.587f * cells.texels[i][1] + 0.114f * cells.texels[i][2]);
        f.over_contrast = normalize(gray, p.over);
    }
    constexpr auto part = side / PicturePattern::chroma_side;
    for (std::uint32_t cy = 0; cy < PicturePattern::chroma_side; ++cy)
        for (std::uint32_t cx = 0; cx < PicturePattern::chroma_side; ++cx) {
            float blue = 0, red = 0;
            for (std::uint32_t dy = 0; dy < part; ++dy)
                for (std::uint32_t dx = 0; dx < part; ++dx) {
                    const auto i = (cy * part + dy) * side + cx * part + dx;
                    blue += 255 * small.texels[i][2] - y[i];
                    red += 255 * small.texels[i][0] - y[i];
                }
            const auto half = [&](float v) {
                return static_cast<std::int8_t>(std::lround(std::clamp(v / (2 * part * part), -127.0f, 127.0f)));
            };
            p.blue[cy * PicturePattern::chroma_side + cx] = half(blue);
            p.red[cy * PicturePattern::chroma_side + cx] = half(red);
        }
    f.set_pattern(p);
}

void add_shares(PictureFacts& f, const Image& picture) {
    std::array<std::uint32_t, 256> values{};
    std::size_t gray = 0, dark = 0, bright = 0, pure = 0, spots = 0;
    std::uint64_t saturation = 0, steps = 0;
    const auto extreme = [](std::uint8_t v) { return v < 28 || v > 227; };
    for (std::uint32_t row = 0; row < picture.height; ++row) {
        int before = -1;
        for (std::uint32_t x = 0; x < picture.width; ++x) {
            const auto& t = picture.at(x, row);
            const int y = luma_of(t), spread = std::max({t[0], t[1], t[2]}) - std::min({t[0], t[1], t[2]});
            ++values[static_cast<std::size_t>(y)];
            gray += spread <= 12;
            saturation += static_cast<std::uint64_t>(spread);
            dark += y < 24;
            bright += y > 200;
            spots += y > 96;
            pure += extreme(t[0]) && extreme(t[1]) && extreme(t[2]);
            if (before >= 0) steps += static_cast<std::uint64_t>(std::abs(y - before));
            before = y;
        }
    }
    const auto all = static_cast<float>(picture.texels.size());
    const auto share = [&](std::size_t n) { return static_cast<float>(n) / all; };
    f.gray = share(gray), f.dark = share(dark), f.bright = share(bright), f.pure = share(pure), f.spots = share(spots);
    f.saturation = static_cast<float>(saturation) / (255 * all);
    f.grain = static_cast<float>(steps) / (255 * all);
    // The two commonest tones.
    std::array<std::uint32_t, 257> upto{};
    for (std::size_t v = 0; v < 256; ++v) upto[v + 1] = upto[v] + values[v];
    const auto around = [&](int v) {
        return upto[static_cast<std::size_t>(std::min(v + 17, 256))] - upto[static_cast<std::size_t>(std::max(v - 16, 0))];
    };
    int first = 0;
    for (int v = 1; v < 256; ++v)
        if (around(v) > around(first)) first = v;
    std::uint32_t second = 0;
    for (int v = 0; v < 256; ++v)
        if (std::abs(v - first) >= 64) second = std::max(second, around(v));
    // One tone alone is no two-tone pattern.
    f.two_tone = share(second) >= 0.02f ? share(around(first) + second) : 0;
}

float curl_of(const Image& stored, const NormalChannels& n) {
    if (stored.width < 4 || stored.height < 4) return 0;
    std::vector<float> p(stored.texels.size()), q(stored.texels.size());
    for (std::size_t i = 0; i < stored.texels.size(); ++i) {
        TexelF t;
        to_float(&stored.texels[i], 1, false, &t);
        const float x = t[n.x] * n.scale + n.offset, y = t[n.y] * n.scale + n.offset;
        const float z = n.z < 0 ? std::sqrt(std::max(0.0f, 1 - x * x - y * y)) : t[static_cast<std::size_t>(n.z)] * n.scale + n.offset;
        p[i] = -x / std::max(z, 0.1f);
        q[i] = -y / std::max(z, 0.1f);
    }
    double ab = 0, aa = 0, bb = 0;
    const auto w = stored.width;
    for (std::uint32_t y = 1; y + 1 < stored.height; ++y)
        for (std::uint32_t x = 1; x + 1 < w; ++x) {
            const auto i = std::size_t{y} * w + x;
            const double a = p[i + w] - p[i - w], b = q[i + 1] - q[i - 1];
            ab += a * b, aa += a * a, bb += b * b;
        }
    return aa > 0 && bb > 0 ? static_cast<float>(ab / std::sqrt(aa * bb)) : 0;
}

/// The strict test wants unit vectors; a small level's are shorter, because they are means, and many maps are black where nothing is drawn.
/// So here the share of texels that point to the front with at most length one counts, among those that are not black, and they must be
/// upright in the mean, most of them nearly of length one.
bool nearly_normals(Format format, const Image& stored) {
    const auto& f = info(format);
    if (f.channels < 3 || f.is_float() || f.luminance || f.numeric != Numeric::unorm) return false;
    std::size_t drawn = 0, sound = 0, unit = 0;
    std::array<double, 3> sum{};
    for (const auto& t : stored.texels) {
        if (std::max({t[0], t[1], t[2]}) < 12) continue;
        ++drawn;
        const float x = static_cast<float>(t[0]) / 127.5f - 1, y = static_cast<float>(t[1]) / 127.5f - 1,
                    z = static_cast<float>(t[2]) / 127.5f - 1;
        const float length = std::sqrt(x * x + y * y + z * z);
        sound += z > -0.06f && length < 1.2f && length > 0.25f;
        unit += std::abs(length - 1) < 0.2f;
        for (std::size_t c = 0; c < 3; ++c) sum[c] += t[c] / 255.0;
    }
    const auto n = static_cast<double>(drawn);
    return drawn * 20 >= stored.texels.size() && static_cast<double>(sound) > 0.9 * n && static_cast<double>(unit) > 0.55 * n &&
           std::abs(sum[0] / n - 0.5) < 0.07 && std::abs(sum[1] / n - 0.5) < 0.07 && sum[2] / n > 0.72;
}

struct SmallLevel {
    Image stored;
    Image painted;
    std::uint32_t mip = 0;
};

Result<SmallLevel> small_level(const TextureFile& texture, std::uint32_t side) {
    const auto& d = texture.layout.desc;
    std::uint32_t mip = 0;
    while (mip + 1 < d.mips && std::max(mip_side(d.width, mip + 1), mip_side(d.height, mip + 1)) >= side) ++mip;
    // One level that the file can give smaller.
    if (d.mips == 1 && texture.layout.surfaces.size() == 1)
        if (auto small = texture.kind->decode_small(texture.file, texture.layout, texture.layout.surfaces[0], 2 * side))
            return SmallLevel{std::move(small->samples), paint_form(d.format, small->means), 0};
    if (const auto texels = std::uint64_t{mip_side(d.width, mip)} * mip_side(d.height, mip); texels > ReadLimits{}.guess_texels)
        return fail(ErrorCode::limit, phrase("{}×{} texels can only be decoded all at once", grouped(d.width), grouped(d.height)),
                    "It is not looked at for its role or a small picture; it can be opened and exported");
    auto decoded = texture.decode(mip);
    while (!decoded && mip > 0) decoded = texture.decode(--mip);  // a file that is cut off lacks the small ones
    for (std::uint32_t m = 1; !decoded && m < d.mips; ++m)
        decoded = texture.decode(mip = m);  // or the large ones lie in a file that is missing
    if (!decoded) return tl::unexpected(decoded.error());
    const auto longer = std::max(decoded->width, decoded->height);
    const auto step = longer / (2 * side);
    if (step < 2) {
        auto painted = paint_form(d.format, *decoded);
        return SmallLevel{std::move(*decoded), std::move(painted), mip};
    }
    // Files without smaller levels are large, and a quarter of a thousand texels a side tell as much: single texels for what depends on
    // exact values (vectors' lengths, alpha of 0 and 255), means for what is shown.
    auto small = reduce(*decoded, step);
    return SmallLevel{std::move(small.samples), paint_form(d.format, small.means), mip};
}

/// Normals that are seen otherwise than they are stored (with_z).
std::optional<NormalChannels> normals_seen(const TextureDesc& d, const Image& stored) {
    if (d.color == ColorSpace::srgb) return std::nullopt;
    const auto normals = guess_normals(d.format, stored);
    return normals && normals->z < 0 ? normals : std::nullopt;
}

Image fitted(Image image, std::uint32_t side) {
    const auto longer = std::max(image.width, image.height);
    if (longer <= side) return image;
    const auto reduce = [&](std::uint32_t s) { return std::max(1u, static_cast<std::uint32_t>(std::uint64_t{s} * side / longer)); };
    return to_bytes(resize(to_float(image, false), reduce(image.width), reduce(image.height), MipFilter::box), false);
}

}  // namespace

std::string ContentKey::text() const { return fmt::format("{:016x}{:016x}", high, low); }

ContentKey content_key(ByteSpan file) {
    const auto hash = XXH3_128bits(file.data(), file.size());
    return {hash.high64, hash.low64};
}

std::string_view name_of(GreenAxis axis) {
    switch (axis) {
        case GreenAxis::up: return "green up";
        case GreenAxis::down: return "green down";
        default: return "green unsure";
    }
}

GreenAxis PictureNumbers::green_axis() const {
    if (normals == NormalsIn::none) return GreenAxis::unsure;
    // Rows count downward: with green down both slopes are taken along the picture's axes.
    return curl > 0.15f ? GreenAxis::down : curl < -0.15f ? GreenAxis::up : GreenAxis::unsure;
}

PictureFacts facts_of_picture(const Image& picture) {
    PictureFacts out;
    if (picture.texels.empty()) return out;
    add_pattern(out, picture);
    add_shares(out, picture);
    return out;
}

std::uint64_t bytes_to_measure(const TextureDesc& d, std::uint64_t file_size) {
    std::uint32_t mip = 0;
    while (mip + 1 < d.mips && std::max(mip_side(d.width, mip + 1), mip_side(d.height, mip + 1)) >= thumbnail_side) ++mip;
    // The level's samples, and four bytes a texel; a kind that reads rows needs less.
    const auto w = mip_side(d.width, mip), h = mip_side(d.height, mip);
    return file_size + level_bytes(d.format, w, h) + std::uint64_t{w} * h * 4;
}

Result<MeasuredPicture> measure_picture(const TextureFile& texture) {
    SKIVET_TRY(auto small, small_level(texture, thumbnail_side));
    const auto& d = texture.layout.desc;
    MeasuredPicture out;
    out.thumbnail = fitted(std::move(small.painted), thumbnail_side);
    out.facts = facts_of_picture(out.thumbnail);
    const auto seen = normals_seen(d, small.stored);
    const bool whole_level = !seen && out.thumbnail.width == small.stored.width && out.thumbnail.height == small.stored.height;
    if (whole_level && (d.format == Format::BC1 || d.format == Format::BC3))
        if (const auto* surface = texture.layout.find(small.mip))
            if (auto bytes = texture.surface_bytes(*surface)) out.blocks = std::move(*bytes), out.format = d.format;
    out.thumbnail = with_z(seen, std::move(out.thumbnail));
    // A quarter of the texels tell what the channels are.
    Image some(std::max(1u, small.stored.width / 2), std::max(1u, small.stored.height / 2));
    for (std::uint32_t y = 0; y < some.height; ++y)
        for (std::uint32_t x = 0; x < some.width; ++x)
            some.at(x, y) = small.stored.at(std::min(2 * x, small.stored.width - 1), std::min(2 * y, small.stored.height - 1));
    if (const auto n = guess_normals(d.format, some)) {
        out.facts.normals = n->x == 3 ? NormalsIn::alpha_green : n->z < 0 ? NormalsIn::red_green : NormalsIn::rgb;
        out.facts.curl = curl_of(small.stored, *n);
    } else if (nearly_normals(d.format, some)) {
        out.facts.normals = NormalsIn::rgb;
        out.facts.curl = curl_of(small.stored, NormalChannels{});
    }
    if (info(d.format).has_alpha) {
        const auto alpha = alpha_facts(small.stored);
        out.facts.alpha = alpha.use;
        out.facts.hidden_colors = alpha.hidden_colors;
    }
    if (const auto* top = texture.layout.find(0); top && texture.layout.direct && top->offset + top->size <= texture.file.size()) {
        const auto seed = (std::uint64_t{static_cast<std::uint16_t>(d.format)} << 40) ^ (std::uint64_t{d.width} << 20) ^ d.height;
        out.facts.level0 = XXH3_64bits_withSeed(texture.file.data() + top->offset, top->size, seed);
    }
    return out;
}

Result<Image> thumbnail(const TextureFile& texture, std::uint32_t side) {
    SKIVET_TRY(auto seen, small_picture(texture, side));
    return std::move(seen.image);
}

Result<SmallPicture> small_picture(const TextureFile& texture, std::uint32_t side) {
    SKIVET_TRY(auto small, small_level(texture, side));
    const auto seen = normals_seen(texture.layout.desc, small.stored);
    return SmallPicture{with_z(seen, fitted(std::move(small.painted), side)), seen};
}

void PictureFacts::set_pattern(const PicturePattern& pattern) {
    constexpr auto cell = PicturePattern::side / coarse_side;
    std::array<int, coarse_side * coarse_side> sums{};
    int square = 0;
    for (std::size_t i = 0; i < pattern.luma.size(); ++i) {
        const int v = pattern.luma[i];
        sums[i / PicturePattern::side / cell * coarse_side + i % PicturePattern::side / cell] += v;
        square += v * v;
    }
    for (std::size_t i = 0; i < coarse.size(); ++i)
        coarse[i] = static_cast<std::int8_t>(std::lround(static_cast<float>(sums[i]) / (cell * cell)));
    luma_length = std::sqrt(static_cast<float>(square));
    held_ = std::make_shared<PicturePattern>(pattern);
    store_.reset();
}

PicturePattern PictureFacts::pattern() const {
    if (held_) return *held_;
    return store_ ? store_->pattern(number_) : PicturePattern();
}

float pattern_agreement(const PicturePattern& a, const PicturePattern& b) {
    std::int32_t ab = 0, aa = 0, bb = 0;
    for (std::size_t i = 0; i < a.luma.size(); ++i) {
        const std::int32_t x = a.luma[i], y = b.luma[i];
        ab += x * y, aa += x * x, bb += y * y;
    }
    if (aa == 0 || bb == 0) return 0;
    return static_cast<float>(ab / std::sqrt(static_cast<double>(aa) * bb));
}

float most_agreement(const PictureNumbers& a, const PictureNumbers& b) {
    if (a.luma_length <= 0 || b.luma_length <= 0) return 0;
    constexpr float values = PicturePattern::side / PictureNumbers::coarse_side * (PicturePattern::side / PictureNumbers::coarse_side);
    constexpr float rounding = PicturePattern::side * 0.5f;  // how far rounded means are from the true ones, at most: half a step each
    std::int32_t ab = 0, aa = 0, bb = 0;
    for (std::size_t i = 0; i < a.coarse.size(); ++i) {
        const std::int32_t x = a.coarse[i], y = b.coarse[i];
        ab += x * y, aa += x * x, bb += y * y;
    }
    const float means_a = std::sqrt(values * static_cast<float>(aa)), means_b = std::sqrt(values * static_cast<float>(bb));
    const auto rest = [&](float length, float means) {
        const float least = std::max(0.0f, means - rounding);
        return std::sqrt(std::max(0.0f, length * length - least * least));
    };
    const float most = values * static_cast<float>(ab) + rounding * (means_a + means_b + rounding) +
                       rest(a.luma_length, means_a) * rest(b.luma_length, means_b);
    return most / (a.luma_length * b.luma_length);
}

float color_distance(const PicturePattern& a, const PicturePattern& b) {
    int most = 0;
    for (std::size_t i = 0; i < a.blue.size(); ++i)
        most = std::max({most, 2 * std::abs(a.blue[i] - b.blue[i]), 2 * std::abs(a.red[i] - b.red[i])});
    return static_cast<float>(most);
}

float mean_distance(const PictureNumbers& a, const PictureNumbers& b) {
    int most = 0;
    for (std::size_t c = 0; c < 3; ++c) most = std::max(most, std::abs(a.mean[c] - b.mean[c]));
    return static_cast<float>(most);
}

}  // namespace skivet
