#include "bench/color_match.h"

#include <lcms2.h>
#include <spng.h>
#include <cmath>

#include "base/phrase.h"

namespace skivet {
namespace {

using Profile = std::unique_ptr<void, decltype(&cmsCloseProfile)>;
using Transform = std::unique_ptr<void, decltype(&cmsDeleteTransform)>;

std::string name_of(const Profile& profile) {
    std::array<char, 128> text{};
    cmsGetProfileInfoASCII(profile.get(), cmsInfoDescription, "en", "US", text.data(), static_cast<cmsUInt32Number>(text.size() - 1));
    return text.front() ? std::string(text.data()) : said("without a name");
}

/// Applies `map` to all color values, 0…1.
template <class Map>
void map_colors(EditedFile& edited, const Map& map) {
    std::vector<TexelF> row;
    const auto each_row = [&](std::uint32_t width, std::uint32_t height, const auto& load, const auto& store) {
        row.resize(width);
        for (std::uint32_t y = 0; y < height; ++y) {
            load(y);
            map(row);
            store(y);
        }
    };
    auto& image = edited.image;
    each_row(
        image.width, image.height, [&](std::uint32_t y) { to_float(&image.at(0, y), image.width, false, row.data()); },
        [&](std::uint32_t y) { to_bytes(row.data(), image.width, false, &image.at(0, y)); });
    if (!edited.wide) return;
    auto& wide = *edited.wide;
    each_row(
        wide.width, wide.height, [&](std::uint32_t y) { std::copy_n(&wide.at(0, y), wide.width, row.data()); },
        [&](std::uint32_t y) { std::copy_n(row.data(), wide.width, &wide.at(0, y)); });
}

std::string match_profile(EditedFile& edited) {
    const Profile theirs(cmsOpenProfileFromMem(edited.color.profile.data(), static_cast<cmsUInt32Number>(edited.color.profile.size())),
                         &cmsCloseProfile);
    if (!theirs) return "The color profile in the file is damaged; its colors were taken as sRGB.";
    const bool gray = cmsGetColorSpace(theirs.get()) == cmsSigGrayData;
    if (!gray && cmsGetColorSpace(theirs.get()) != cmsSigRgbData)
        return "The color profile in the file is for neither RGB nor gray; its colors were taken as sRGB.";
    const Profile ours(cmsCreate_sRGBProfile(), &cmsCloseProfile);
    const Transform transform(cmsCreateTransform(theirs.get(), gray ? TYPE_GRAY_FLT : TYPE_RGB_FLT, ours.get(), TYPE_RGB_FLT,
                                                 INTENT_RELATIVE_COLORIMETRIC, cmsFLAGS_NOCACHE),
                              &cmsDeleteTransform);
    if (!transform) return "The color profile in the file cannot be used; its colors were taken as sRGB.";
    std::vector<float> in, out;
    const auto convert = [&](std::vector<TexelF>& row) {
        in.clear();
        for (const auto& t : row) in.insert(in.end(), t.begin(), t.begin() + (gray ? 1 : 3));
        out.resize(row.size() * 3);
        cmsDoTransform(transform.get(), in.data(), out.data(), static_cast<cmsUInt32Number>(row.size()));
        for (std::size_t i = 0; i < row.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c) row[i][c] = std::clamp(out[i * 3 + c], 0.0f, 1.0f);
    };
    // A profile that is sRGB under some name must not move a texel by a step of rounding.
    std::vector<TexelF> sample;
    for (int i = 0; i < 4096; ++i)
        sample.push_back({static_cast<float>(i % 16) / 15, static_cast<float>(i / 16 % 16) / 15, static_cast<float>(i / 256) / 15, 1});
    if (gray)
        for (auto& t : sample) t[1] = t[2] = t[0];
    const auto before = sample;
    convert(sample);
    float most = 0;
    for (std::size_t i = 0; i < sample.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) most = std::max(most, std::abs(sample[i][c] - before[i][c]));
    if (most < 1.5f / 255) return {};
    map_colors(edited, convert);
    return phrase("The file's colors follow the profile \"{}\"; they were converted to sRGB.", name_of(theirs));
}

}  // namespace

std::string match_color(EditedFile& edited) {
    if (!edited.color.profile.empty()) return match_profile(edited);
    if (edited.color.gamma == 0) return {};
    // gAMA is the exponent from light to sample, so light is sample^(1 / gamma).
    const double exponent = 1 / edited.color.gamma;
    map_colors(edited, [&](std::vector<TexelF>& row) {
        for (auto& t : row)
            for (std::size_t c = 0; c < 3; ++c) t[c] = linear_to_srgb(static_cast<float>(std::pow(static_cast<double>(t[c]), exponent)));
    });
    return phrase("The file states a gamma of {:.3g}; its colors were converted to sRGB.", edited.color.gamma);
}

}  // namespace skivet
