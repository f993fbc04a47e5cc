// The encoders' promises: more effort is never worse by more than noise, and the bytes do not depend on the machine.
#include <gtest/gtest.h>
#include <hwy/highway.h>
#include <tbb/global_control.h>

#include <bit>
#include <set>
#include <string>

#include "codec/block_facts.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "pixel/normals.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Image mixed_picture(std::uint32_t side, unsigned seed, bool alpha) {
    auto image = smooth_picture(side, side, seed, alpha);
    const auto noise = random_picture(side, side, seed + 1);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            auto& t = image.at(x, y);
            if (x < side / 4)  // noise
                for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>((t[c] * 3 + noise.at(x, y)[c]) / 4);
            else if (x < side / 2)
                t = {static_cast<std::uint8_t>((x / 8) * 31), 40, static_cast<std::uint8_t>((y / 8) * 17), t[3]};  // flat squares
            else if (x < side / 2 + 8) t[0] = t[1] = t[2];                                                         // gray
        }
    return image;
}

class Encoders : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, Encoders,
                         testing::Values(Format::BC1, Format::BC2, Format::BC3, Format::BC4, Format::BC4_SNORM, Format::BC5, Format::BC7,
                                         Format::ETC1, Format::ETC2_RGB, Format::ETC2_RGBA1, Format::ETC2_RGBA, Format::EAC_R,
                                         Format::EAC_RG_SNORM, Format::BC6H, Format::BC6H_SF16),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

}  // namespace

TEST_P(Encoders, MoreEffortIsNotWorse) {
    const auto picture = stored_form(
        GetParam(), mixed_picture(96, 3, info(GetParam()).has_alpha && GetParam() != Format::BC1 && GetParam() != Format::ETC2_RGBA1));
    double last = 0;
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        const auto back = *decode(GetParam(), *encode(GetParam(), picture, {effort}), 96, 96);
        double sum = 0;
        for (std::size_t i = 0; i < back.texels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c)
                sum += (back.texels[i][c] - picture.texels[i][c]) * (back.texels[i][c] - picture.texels[i][c]);
        const double psnr = 10 * std::log10(255.0 * 255.0 / (sum / static_cast<double>(back.texels.size() * 4) + 1e-9));
        EXPECT_GE(psnr, last - 0.05) << name_of(effort);
        last = psnr;
    }
}

TEST_P(Encoders, EveryInstructionSetAndNumberOfThreadsGivesTheSameBytes) {
    const auto picture = stored_form(GetParam(), mixed_picture(52, 5, info(GetParam()).has_alpha));
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        const EncodeOptions options{effort, effort == Effort::normal};
        const auto expected = *encode(GetParam(), picture, options);
        {
            const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
            EXPECT_EQ(*encode(GetParam(), picture, options), expected) << "one thread";
        }
        const auto supported = hwy::SupportedTargets();
        for (std::int64_t rest = supported; rest != 0; rest &= rest - 1) {
            hwy::SetSupportedTargetsForTest(rest & -rest);
            hwy::GetChosenTarget().Update(hwy::SupportedTargets());
            EXPECT_EQ(*encode(GetParam(), picture, options), expected) << hwy::TargetName(rest & -rest) << " " << name_of(effort);
        }
        hwy::SetSupportedTargetsForTest(0);
        hwy::GetChosenTarget().Update(hwy::SupportedTargets());
    }
}

TEST_P(Encoders, ABlockDoesNotDependOnItsNeighbors) {
    // Blocks are encoded side by side in one vector: nothing may leak from one to the next.
    auto mixed = mixed_picture(64, 9, info(GetParam()).has_alpha);
    for (std::uint32_t y = 0; y < 64; ++y)  // every third block is opaque: blocks of both kinds then stand in one vector
        for (std::uint32_t x = 0; x < 64; ++x)
            if ((y / 4 * 16 + x / 4) % 3 == 0) mixed.at(x, y)[3] = 255;
    const auto picture = stored_form(GetParam(), mixed);
    const std::size_t bytes = info(GetParam()).block_bytes;
    // Where a picture came from is told by the whole of it (held_before), so it is said here.
    const auto plain = [](Effort effort, bool held_before) { return EncodeOptions{effort, false, std::nullopt, held_before}; };
    const auto seen = [](Effort effort) { return EncodeOptions{effort, true, std::nullopt, true}; };
    for (const auto& options : {plain(Effort::fast, false), plain(Effort::fast, true), plain(Effort::normal, false),
                                plain(Effort::normal, true), plain(Effort::best, true), seen(Effort::fast), seen(Effort::best)}) {
        const auto all = *encode(GetParam(), picture, options);
        for (std::uint32_t b = 0; b < 256; b += options.effort == Effort::best ? 17 : 1) {
            Image alone(4, 4);
            for (std::uint32_t y = 0; y < 4; ++y)
                for (std::uint32_t x = 0; x < 4; ++x) alone.at(x, y) = picture.at(b % 16 * 4 + x, b / 16 * 4 + y);
            const auto block = *encode(GetParam(), alone, options);
            EXPECT_TRUE(std::equal(block.begin(), block.end(), all.begin() + static_cast<std::ptrdiff_t>(b * bytes)))
                << name_of(options.effort) << (options.alpha_is_transparency ? ", transparency," : "") << " block " << b;
        }
    }
}

/// Colors in clusters of two or three, each a little loose, on both sides of an edge: flat art with soft edges.
Image clustered_picture(std::uint32_t side, unsigned seed) {
    std::mt19937 random(seed);
    Image out(side, side);
    const auto pick = [&](unsigned n) { return static_cast<int>(random() % n); };
    for (std::uint32_t by = 0; by < side; by += 4)
        for (std::uint32_t bx = 0; bx < side; bx += 4) {
            std::array<std::array<int, 3>, 3> cluster{};
            for (auto& color : cluster)
                for (auto& c : color) c = pick(240);
            const int dx = pick(7) - 3, dy = pick(7) - 3, at = pick(9) - 4, clusters = 2 + pick(2), loose = 1 + pick(4);
            for (int i = 0; i < 16; ++i) {
                const int side_of_edge = dx * (i % 4) + dy * (i / 4) - at;
                const auto& color = cluster[static_cast<std::size_t>(side_of_edge > 2 ? clusters - 1 : side_of_edge > 0 ? 1 : 0)];
                auto& t = out.at(bx + static_cast<std::uint32_t>(i % 4), by + static_cast<std::uint32_t>(i / 4));
                t[3] = 255;
                for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>(color[c] + pick(static_cast<unsigned>(loose)));
            }
        }
    return out;
}

TEST(Bc7, ClustersOfColorsDoNotDependOnTheirNeighborsEither) {
    // What came out of one block's tries says how much more is tried: only what it would have come out to by itself.
    const auto picture = clustered_picture(160, 3);
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        EncodeOptions options{effort};
        options.held_before = effort == Effort::normal;
        const auto all = *encode(Format::BC7, picture, options);
        for (std::uint32_t b = 0; b < 1600; ++b) {
            Image alone(4, 4);
            for (std::uint32_t y = 0; y < 4; ++y)
                for (std::uint32_t x = 0; x < 4; ++x) alone.at(x, y) = picture.at(b % 40 * 4 + x, b / 40 * 4 + y);
            const auto block = *encode(Format::BC7, alone, options);
            EXPECT_TRUE(std::equal(block.begin(), block.end(), all.begin() + static_cast<std::ptrdiff_t>(b * 16)))
                << name_of(effort) << " block " << b;
        }
    }
}

TEST(Bc7, EveryModeIsUsed) {
    std::set<int> modes;
    for (unsigned seed = 1; seed < 5; ++seed)
        for (const bool alpha : {false, true}) {
            const auto bytes = *encode(Format::BC7, mixed_picture(128, seed, alpha), {Effort::best});
            for (std::size_t at = 0; at < bytes.size(); at += 16) modes.insert(std::countr_zero(static_cast<unsigned>(bytes[at])));
        }
    EXPECT_EQ(modes, (std::set<int>{0, 1, 2, 3, 4, 5, 6, 7}));
}

TEST(Etc2, EveryModeIsUsed) {
    std::set<std::string> modes;
    for (unsigned seed = 1; seed < 4; ++seed) {
        const auto bytes = *encode(Format::ETC2_RGB, mixed_picture(96, seed, false), {Effort::best});
        for (std::size_t at = 0; at < bytes.size(); at += 8) {
            const auto text = describe_block(Format::ETC2_RGB, ByteSpan(bytes).subspan(at, 8));
            modes.insert(text.substr(0, text.find(' ')));
        }
    }
    EXPECT_EQ(modes, (std::set<std::string>{"individual", "differential", "T", "H", "planar"}));
}

TEST(Bc6h, BothKindsOfModesAreUsed) {
    std::set<std::string> modes;
    const auto picture = from_view(Format::BC6H, mixed_picture(96, 2, false));
    const auto bytes = *encode(Format::BC6H, picture, {Effort::best});
    for (std::size_t at = 0; at < bytes.size(); at += 16) modes.insert(describe_block(Format::BC6H, ByteSpan(bytes).subspan(at, 16)));
    const auto any = [&](std::string_view part) {
        return std::any_of(modes.begin(), modes.end(), [&](const auto& m) { return m.find(part) != std::string::npos; });
    };
    EXPECT_TRUE(any("one region"));
    EXPECT_TRUE(any("two regions"));
    EXPECT_GE(modes.size(), 6u);
}

TEST(Etc2, HolesStayHolesAndTheRestStaysSolid) {
    auto picture = mixed_picture(64, 4, false);
    for (std::size_t i = 0; i < picture.texels.size(); ++i) picture.texels[i][3] = (i * 7) % 5 == 0 ? 0 : 255;
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        const auto back = *decode(Format::ETC2_RGBA1, *encode(Format::ETC2_RGBA1, picture, {effort}), 64, 64);
        for (std::size_t i = 0; i < picture.texels.size(); ++i) ASSERT_EQ(back.texels[i][3], picture.texels[i][3]) << i;
    }
}

TEST(Bc4Snorm, EndsAreMinusOneAndOne) {
    BlockTexels in;
    for (std::size_t i = 0; i < 16; ++i) in[i] = {std::uint8_t(i % 2 ? 255 : 1), 0, 0, 255};  // 128 is zero
    const auto block = encode_one(Format::BC4_SNORM, in);
    const auto wide = *decode_wide(Format::BC4_SNORM, block, 4, 4);
    EXPECT_EQ(wide.texels[0][0], -1.0f);
    EXPECT_EQ(wide.texels[1][0], 1.0f);
    EXPECT_EQ(decode_one(Format::BC4_SNORM, block.data()), in);
}

TEST(Bc7, SingleColorsAreExact) {
    for (int v = 0; v < 256; v += 5) {
        BlockTexels in;
        in.fill({std::uint8_t(v), std::uint8_t(255 - v), std::uint8_t(v * 7), std::uint8_t(v % 2 ? 255 : v)});
        EXPECT_EQ(decode_one(Format::BC7, encode_one(Format::BC7, in).data()), in) << v;
    }
}

TEST(Bc7, FewColorsAreExactWhereAModeHoldsThem) {
    // Steps of one gray level: mode 6 holds them all, its sixteen weights reach every value between odd endpoints 14 apart.
    for (int start = 0; start < 248; start += 3) {
        BlockTexels in;
        for (std::size_t i = 0; i < 16; ++i) {
            const auto v = static_cast<std::uint8_t>(start + static_cast<int>(i % 8));
            in[i] = {v, v, v, 255};
        }
        EXPECT_EQ(decode_one(Format::BC7, encode_one(Format::BC7, in, {Effort::best}).data()), in) << start;
    }
    // Two halves of two colors each: two subsets whose endpoints are free in 8 bits up to a common last bit.
    for (unsigned seed = 0; seed < 40; ++seed) {
        const auto random = random_picture(4, 1, seed);
        BlockTexels in;
        for (std::size_t i = 0; i < 16; ++i) {
            auto t = random.texels[i % 4 / 2 * 2 + i / 4 % 2];
            for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>(t[c] | 1);
            t[3] = 255;
            in[i] = t;
        }
        EXPECT_EQ(decode_one(Format::BC7, encode_one(Format::BC7, in, {Effort::best}).data()), in) << seed;
    }
}

namespace {
/// Bumps, some of them steep; parts of the normal in the channels asked for, the others as `rest`.
Image bumpy_normals(std::uint32_t side, const NormalChannels& n, std::uint8_t rest) {
    Image image(side, side, {rest, rest, rest, 255});
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const double u = 1.2 * std::cos(x * 0.21) * std::sin(y * 0.13) + 0.4 * std::sin(x * 0.9 + y * 0.7),
                         v = 0.9 * std::sin(x * 0.17 + y * 0.31);
            const double length = std::sqrt(u * u + v * v + 1);
            const auto byte = [](double part) { return static_cast<std::uint8_t>(std::lround((part + 1) * 127.5)); };
            auto& t = image.at(x, y);
            t[n.x] = byte(u / length);
            t[n.y] = byte(v / length);
            if (n.z >= 0) t[static_cast<std::size_t>(n.z)] = byte(1 / length);
        }
    return image;
}
}  // namespace

TEST(Normals, ErrorsCountByTheirAngle) {
    struct Case {
        Format format;
        NormalChannels channels;
        std::uint8_t rest;
        double at_most;  ///< share of the squared angle that is left; measured, not promised anywhere
    };
    const NormalChannels rgb, rg{0, 1, -1}, ag{3, 1, -1};
    for (const auto& c : {Case{Format::BC1, rgb, 0, 0.999}, Case{Format::BC3, ag, 0, 1.0}, Case{Format::BC5, rg, 0, 1.0},
                          Case{Format::BC7, rgb, 0, 0.99}, Case{Format::BC7, rg, 0, 0.99}}) {
        const auto picture = stored_form(c.format, bumpy_normals(96, c.channels, c.rest));
        const auto squared_angle = [&](bool as_normals, Effort effort) {
            EncodeOptions options{effort};
            if (as_normals) options.normals = c.channels;
            const auto back = *decode(c.format, *encode(c.format, picture, options), 96, 96);
            double sum = 0;
            for (std::size_t i = 0; i < back.texels.size(); ++i) {
                TexelF a, b;
                for (std::size_t k = 0; k < 4; ++k) a[k] = picture.texels[i][k] / 255.0f, b[k] = back.texels[i][k] / 255.0f;
                const double angle = angle_between(c.channels, a, b);
                sum += angle * angle;
            }
            return sum;
        };
        for (const auto effort : {Effort::normal, Effort::best}) {
            const auto ratio = squared_angle(true, effort) / squared_angle(false, effort);
            EXPECT_LT(ratio, c.at_most) << info(c.format).name << " " << name_of(effort);
        }
    }
}

TEST(AlphaIsTransparency, UnseenColorMayBeWrongAndSeenColorGains) {
    auto picture = random_picture(64, 64, 4);
    for (std::size_t i = 0; i < picture.texels.size(); ++i) picture.texels[i][3] = i % 2 ? 255 : 0;
    for (const auto format : {Format::BC3, Format::BC7}) {
        const auto seen_error = [&](bool transparency) {
            const auto back = *decode(format, *encode(format, picture, {Effort::normal, transparency}), 64, 64);
            double sum = 0;
            for (std::size_t i = 0; i < picture.texels.size(); ++i)
                for (std::size_t c = 0; c < 3 && picture.texels[i][3] == 255; ++c)
                    sum += (back.texels[i][c] - picture.texels[i][c]) * (back.texels[i][c] - picture.texels[i][c]);
            return sum;
        };
        // BC7 has to hold alpha with the same lines, so less is to be had.
        EXPECT_LT(seen_error(true), seen_error(false) * (format == Format::BC3 ? 0.8 : 0.95)) << info(format).name;
    }
}

TEST(Effort, HasNames) {
    EXPECT_EQ(effort_named("best"), Effort::best);
    EXPECT_EQ(name_of(Effort::fast), "fast");
    EXPECT_FALSE(effort_named("utmost"));
}
