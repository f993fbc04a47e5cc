#include "bench/derived_map.h"

#include <fmt/format.h>

#include "base/phrase.h"
#include "codec/paint_form.h"
#include "pixel/mips.h"

namespace skivet {
namespace {

constexpr std::uint32_t most_side = 1024, compared_side = 128;

struct Way {
    std::string_view touches;  ///< with ; between
    std::string_view words;
};
// Every way ends opaque: a map's own alpha is not what it is made of.
constexpr Way ways[] = {
    {"gray;alpha", "its gray"},
    {"channel=red,alpha;channel=green,alpha;channel=blue,alpha;alpha", "its alpha"},
    {"channel=green,red;channel=blue,red;alpha", "its red"},
    {"channel=red,green;channel=blue,green;alpha", "its green"},
    {"channel=red,blue;channel=green,blue;alpha", "its blue"},
    {"edges;alpha", "its outlines"},
    {"edges=lines:dark;alpha", "its outlines, dark"},
    {"normals=height:2;alpha", "its heights"},
    {"normals=height:4;alpha", "its heights"},
    {"normals=height:8;alpha", "its heights"},
    {"normals=height:16;alpha", "its heights"},
    {"normals=height:2,green:down;alpha", "its heights"},
    {"normals=height:4,green:down;alpha", "its heights"},
    {"normals=height:8,green:down;alpha", "its heights"},
    {"normals=height:16,green:down;alpha", "its heights"},
};

std::vector<std::string> steps_of(std::string_view touches) {
    std::vector<std::string> out;
    for (;;) {
        const auto end = touches.find(';');
        out.emplace_back(touches.substr(0, end));
        if (end == std::string_view::npos) return out;
        touches.remove_prefix(end + 1);
    }
}

/// The largest level that is not too large, in paint form.
Result<Image> level_to_compare(const TextureFile& texture) {
    const auto& d = texture.layout.desc;
    std::uint32_t mip = 0;
    while (mip + 1 < d.mips && std::max(mip_side(d.width, mip), mip_side(d.height, mip)) > most_side) ++mip;
    SKIVET_TRY(const auto level, texture.decode(mip));
    auto image = paint_form(d.format, level);
    if (std::max(image.width, image.height) <= most_side) return image;
    const auto fit = [&](std::uint32_t side) { return std::max(1u, side * most_side / std::max(image.width, image.height)); };
    return to_bytes(resize(to_float(image, false), fit(image.width), fit(image.height), MipFilter::box), false);
}

/// Colors in steps of 255.
std::vector<float> reduced(const Image& image) {
    const auto small = resize(to_float(image, false), compared_side, compared_side, MipFilter::box);
    std::vector<float> out;
    out.reserve(small.texels.size() * 3);
    for (const auto& t : small.texels)
        for (std::size_t c = 0; c < 3; ++c) out.push_back(t[c] * 255);
    return out;
}

/// Around the mean of each channel.
double variance(const std::vector<float>& values) {
    std::array<double, 3> sum{}, squares{};
    for (std::size_t i = 0; i < values.size(); ++i) sum[i % 3] += values[i], squares[i % 3] += double(values[i]) * values[i];
    const auto n = static_cast<double>(values.size() / 3);
    double out = 0;
    for (std::size_t c = 0; c < 3; ++c) out += squares[c] / n - sum[c] / n * (sum[c] / n);
    return out / 3;
}

double mean_square(const std::vector<float>& a, const std::vector<float>& b) {
    double sum = 0;
    for (std::size_t i = 0; i < a.size(); ++i) sum += double(a[i] - b[i]) * (a[i] - b[i]);
    return sum / static_cast<double>(a.size());
}

}  // namespace

Result<std::vector<TouchUp>> parse_way(std::span<const std::string> way) {
    std::vector<TouchUp> out;
    for (const auto& text : way) {
        SKIVET_TRY(auto one, parse_touch_up(text));
        out.push_back(std::move(one));
    }
    return out;
}

std::string describe_way(std::span<const std::string> way) {
    for (const auto& known : ways)
        if (std::ranges::equal(steps_of(known.touches), way)) return said(known.words);
    return said("touch-ups of it");
}

Result<std::optional<Derivation>> find_derivation(const TextureFile& base, const TextureFile& map, const CancelToken& cancel) {
    constexpr double least_deviation = 6, least_explained = 0.95;
    SKIVET_TRY(const auto picture, level_to_compare(base));
    SKIVET_TRY(const auto wanted_level, level_to_compare(map));
    const auto wanted = reduced(wanted_level);
    const auto varies = variance(wanted);
    std::optional<Derivation> best;
    if (varies < least_deviation * least_deviation) return best;
    for (const auto& way : ways) {
        SKIVET_CHECK(cancel.check());
        auto steps = steps_of(way.touches);
        SKIVET_TRY(const auto touches, parse_way(steps));
        auto made = picture;
        SKIVET_CHECK(touch(made, touches, {}, cancel));
        const double explained = 1 - mean_square(reduced(made), wanted) / varies;
        if (explained >= least_explained && (!best || explained > best->explained)) best = Derivation{std::move(steps), explained};
    }
    return best;
}

}  // namespace skivet
