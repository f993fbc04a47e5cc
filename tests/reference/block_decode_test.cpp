// Block decoding against Mesa's software OpenGL (Debian: libgl1-mesa-dri, libegl1): random blocks are uploaded as compressed textures and
// read back with glGetTexImage. BC1 to BC3 are EXT_texture_compression_s3tc, BC4 and BC5 ARB_texture_compression_rgtc, BC6H and BC7
// ARB_texture_compression_bptc, ETC2 and EAC OpenGL 4.3 (ARB_ES3_compatibility), ASTC KHR_texture_compression_astc_ldr. Where a
// specification leaves the precision of interpolated values open, asked for here is no difference at all to Mesa's softpipe driver. (Its
// llvmpipe driver interpolates with coarser weights and is up to 2/255 from the formulas of the specification, so it is no reference for
// this.)
#include <EGL/egl.h>
#include <EGL/eglext.h>
#include <GL/gl.h>
#include <GL/glext.h>
#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>
#include <set>
#include <string>

#include "codec/codec.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

class Gl {
public:
    Gl() {
        ::setenv("LIBGL_ALWAYS_SOFTWARE", "1", 1);
        ::setenv("GALLIUM_DRIVER", "softpipe", 1);
        display_ = eglGetPlatformDisplay(EGL_PLATFORM_SURFACELESS_MESA, EGL_DEFAULT_DISPLAY, nullptr);
        if (!eglInitialize(display_, nullptr, nullptr) || !eglBindAPI(EGL_OPENGL_API)) return;
        const EGLint attributes[] = {EGL_SURFACE_TYPE, EGL_PBUFFER_BIT, EGL_RENDERABLE_TYPE, EGL_OPENGL_BIT, EGL_NONE};
        EGLConfig config{};
        EGLint count = 0;
        eglChooseConfig(display_, attributes, &config, 1, &count);
        context_ = eglCreateContext(display_, count ? config : EGL_NO_CONFIG_KHR, EGL_NO_CONTEXT, nullptr);
        ready = context_ && eglMakeCurrent(display_, EGL_NO_SURFACE, EGL_NO_SURFACE, context_);
    }
    ~Gl() {
        eglMakeCurrent(display_, EGL_NO_SURFACE, EGL_NO_SURFACE, EGL_NO_CONTEXT);
        if (context_) eglDestroyContext(display_, context_);
        eglTerminate(display_);
    }
    Gl(const Gl&) = delete;
    Gl& operator=(const Gl&) = delete;

    Image decode(GLenum format, const Bytes& data, int width, int height) const {
        const auto upload = reinterpret_cast<PFNGLCOMPRESSEDTEXIMAGE2DPROC>(eglGetProcAddress("glCompressedTexImage2D"));
        GLuint texture = 0;
        glGenTextures(1, &texture);
        glBindTexture(GL_TEXTURE_2D, texture);
        upload(GL_TEXTURE_2D, 0, format, width, height, 0, static_cast<GLsizei>(data.size()), data.data());
        EXPECT_EQ(glGetError(), GLenum{GL_NO_ERROR});
        Image out(static_cast<std::uint32_t>(width), static_cast<std::uint32_t>(height));
        glPixelStorei(GL_PACK_ALIGNMENT, 1);
        glGetTexImage(GL_TEXTURE_2D, 0, GL_RGBA, GL_UNSIGNED_BYTE, out.texels.data());
        EXPECT_EQ(glGetError(), GLenum{GL_NO_ERROR});
        glDeleteTextures(1, &texture);
        return out;
    }
    ImageF decode_wide(GLenum format, const Bytes& data, int width, int height) const {
        const auto upload = reinterpret_cast<PFNGLCOMPRESSEDTEXIMAGE2DPROC>(eglGetProcAddress("glCompressedTexImage2D"));
        GLuint texture = 0;
        glGenTextures(1, &texture);
        glBindTexture(GL_TEXTURE_2D, texture);
        upload(GL_TEXTURE_2D, 0, format, width, height, 0, static_cast<GLsizei>(data.size()), data.data());
        EXPECT_EQ(glGetError(), GLenum{GL_NO_ERROR});
        ImageF out(static_cast<std::uint32_t>(width), static_cast<std::uint32_t>(height));
        glGetTexImage(GL_TEXTURE_2D, 0, GL_RGBA, GL_FLOAT, out.texels.data());
        EXPECT_EQ(glGetError(), GLenum{GL_NO_ERROR});
        glDeleteTextures(1, &texture);
        return out;
    }
    /// What the driver's own encoder makes of a picture.
    Bytes encode(GLenum format, const ImageF& image) const {
        const auto download = reinterpret_cast<PFNGLGETCOMPRESSEDTEXIMAGEPROC>(eglGetProcAddress("glGetCompressedTexImage"));
        GLuint texture = 0;
        glGenTextures(1, &texture);
        glBindTexture(GL_TEXTURE_2D, texture);
        const auto width = static_cast<GLsizei>(image.width), height = static_cast<GLsizei>(image.height);
        glTexImage2D(GL_TEXTURE_2D, 0, static_cast<GLint>(format), width, height, 0, GL_RGBA, GL_FLOAT, image.texels.data());
        GLint size = 0;
        glGetTexLevelParameteriv(GL_TEXTURE_2D, 0, GL_TEXTURE_COMPRESSED_IMAGE_SIZE, &size);
        Bytes out(static_cast<std::size_t>(size));
        download(GL_TEXTURE_2D, 0, out.data());
        EXPECT_EQ(glGetError(), GLenum{GL_NO_ERROR});
        glDeleteTextures(1, &texture);
        return out;
    }
    bool ready = false;

private:
    EGLDisplay display_ = nullptr;
    EGLContext context_ = nullptr;
};

struct Case {
    Format format;
    GLenum gl;
    double tolerance = 0;  ///< for wide formats, in their own unit
};
class AgainstOpenGl : public testing::TestWithParam<Case> {};
const auto case_name = [](const auto& param) { return std::string(skivet::info(param.param.format).name); };
INSTANTIATE_TEST_SUITE_P(Blocks, AgainstOpenGl,
                         testing::Values(Case{Format::BC1, GL_COMPRESSED_RGBA_S3TC_DXT1_EXT},
                                         Case{Format::BC2, GL_COMPRESSED_RGBA_S3TC_DXT3_EXT},
                                         Case{Format::BC3, GL_COMPRESSED_RGBA_S3TC_DXT5_EXT}, Case{Format::BC4, GL_COMPRESSED_RED_RGTC1},
                                         Case{Format::BC5, GL_COMPRESSED_RG_RGTC2}, Case{Format::BC7, GL_COMPRESSED_RGBA_BPTC_UNORM},
                                         Case{Format::ETC2_RGB, GL_COMPRESSED_RGB8_ETC2},
                                         Case{Format::ETC2_RGBA1, GL_COMPRESSED_RGB8_PUNCHTHROUGH_ALPHA1_ETC2},
                                         Case{Format::ETC2_RGBA, GL_COMPRESSED_RGBA8_ETC2_EAC}),
                         case_name);
class WideAgainstOpenGl : public testing::TestWithParam<Case> {};
// EAC: 11 bits over 2047 here, Mesa first repeats them to 16 bits; half a 16-bit step apart at most.
INSTANTIATE_TEST_SUITE_P(Blocks, WideAgainstOpenGl,
                         testing::Values(Case{Format::BC4_SNORM, GL_COMPRESSED_SIGNED_RED_RGTC1, 1.01 / 127},
                                         Case{Format::BC5_SNORM, GL_COMPRESSED_SIGNED_RG_RGTC2, 1.01 / 127},
                                         Case{Format::BC6H, GL_COMPRESSED_RGB_BPTC_UNSIGNED_FLOAT},
                                         Case{Format::BC6H_SF16, GL_COMPRESSED_RGB_BPTC_SIGNED_FLOAT},
                                         Case{Format::EAC_R, GL_COMPRESSED_R11_EAC, 1.0 / 65535},
                                         Case{Format::EAC_R_SNORM, GL_COMPRESSED_SIGNED_R11_EAC, 1.0 / 32767},
                                         Case{Format::EAC_RG, GL_COMPRESSED_RG11_EAC, 1.0 / 65535},
                                         Case{Format::EAC_RG_SNORM, GL_COMPRESSED_SIGNED_RG11_EAC, 1.0 / 32767}),
                         case_name);

/// 256×256 texels of random blocks; a share of them with equal or ordered endpoints and with each mode of the formats that have modes.
Bytes random_blocks(Format format, unsigned seed) {
    auto blocks = random_bytes(static_cast<std::size_t>(level_bytes(format, 256, 256)), seed);
    const std::size_t size = info(format).block_bytes;
    for (std::size_t i = 0; (i + 1) * size <= blocks.size(); ++i) {
        auto* block = blocks.data() + i * size;
        if (format == Format::BC7) {  // mode m is m zero bits and a one
            const auto mode = i % 8;
            block[0] = static_cast<std::byte>((static_cast<unsigned>(block[0]) >> (mode + 1) << (mode + 1)) | 1u << mode);
        } else if (format == Format::BC6H || format == Format::BC6H_SF16) {
            const std::uint8_t modes[] = {0, 1, 2, 6, 10, 14, 18, 22, 26, 30, 3, 7, 11, 15};
            const auto mode = modes[i % 14];
            const unsigned bits = mode < 2 ? 2 : 5;
            block[0] = static_cast<std::byte>((static_cast<unsigned>(block[0]) >> bits << bits) | mode);
        } else if (info(format).numeric == Numeric::snorm && size <= 16 && (format == Format::BC4_SNORM || format == Format::BC5_SNORM)) {
            // An endpoint of -128 means -1 like -127 (Khronos Data Format Specification 1.3, section 19.1); Mesa interpolates from -128.
            for (std::size_t part = 0; part < size; part += 8)
                for (std::size_t e = 0; e < 2; ++e)
                    if (block[part + e] == std::byte{0x80}) block[part + e] = std::byte{0x81};
        } else if (i % 7 == 0 && size >= 8) {
            block[size - 8] = block[size - 6];
            block[size - 7] = block[size - 5];
        }
    }
    return blocks;
}

}  // namespace

TEST_P(AgainstOpenGl, RandomBlocksOfEveryModeDecodeTheSame) {
    const Gl gl;
    ASSERT_TRUE(gl.ready) << "Mesa's software OpenGL is missing (packages libgl1-mesa-dri, libegl1)";
    for (unsigned seed = 0; seed < 8; ++seed) {
        const auto blocks = random_blocks(GetParam().format, seed);
        const auto theirs = gl.decode(GetParam().gl, blocks, 256, 256);
        const auto ours = *decode(GetParam().format, blocks, 256, 256);
        for (std::size_t i = 0; i < ours.texels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c)
                ASSERT_EQ(ours.texels[i][c], theirs.texels[i][c]) << "seed " << seed << " texel " << i << " channel " << c;
    }
}

TEST_P(WideAgainstOpenGl, RandomBlocksOfEveryModeDecodeTheSame) {
    const Gl gl;
    ASSERT_TRUE(gl.ready) << "Mesa's software OpenGL is missing (packages libgl1-mesa-dri, libegl1)";
    double largest = 0;
    for (unsigned seed = 0; seed < 8; ++seed) {
        const auto blocks = random_blocks(GetParam().format, seed);
        const auto theirs = gl.decode_wide(GetParam().gl, blocks, 256, 256);
        const auto ours = *decode_wide(GetParam().format, blocks, 256, 256);
        for (std::size_t i = 0; i < ours.texels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c) {
                const float a = ours.texels[i][c], b = theirs.texels[i][c];
                if (std::isnan(a) && std::isnan(b)) continue;
                if (a == b) continue;  // infinities too
                const double d = std::abs(double(a) - double(b));
                ASSERT_LE(d, GetParam().tolerance) << "seed " << seed << " texel " << i << " channel " << c << ": " << a << " and " << b;
                largest = std::max(largest, d);
            }
    }
    std::printf("%s: largest difference %g\n", std::string(info(GetParam().format).name).c_str(), largest);
}

TEST(AgainstOpenGl, Etc1IsEtc2WithoutItsNewModes) {
    const Gl gl;
    ASSERT_TRUE(gl.ready);
    auto blocks = random_bytes(static_cast<std::size_t>(level_bytes(Format::ETC1, 256, 256)), 5);
    for (std::size_t i = 0; i < blocks.size(); i += 8) {
        for (std::size_t c = 0; c < 3; ++c)  // base 4…27 keeps base plus difference inside 0…31
            blocks[i + c] =
                static_cast<std::byte>((4 + static_cast<unsigned>(blocks[i + c]) % 24) << 3 | (static_cast<unsigned>(blocks[i + c]) & 7));
    }
    EXPECT_EQ(*decode(Format::ETC1, blocks, 256, 256), gl.decode(GL_COMPRESSED_RGB8_ETC2, blocks, 256, 256));
}

class AstcAgainstOpenGl : public testing::TestWithParam<unsigned> {};
INSTANTIATE_TEST_SUITE_P(Footprints, AstcAgainstOpenGl, testing::Range(0u, 14u), [](const auto& param) {
    return std::string(skivet::info(static_cast<Format>(static_cast<unsigned>(Format::ASTC_4x4) + param.param)).name);
});

TEST_P(AstcAgainstOpenGl, EncodedPicturesAndRandomBlocksDecodeTheSame) {
    // Mesa has a decoder of its own. GL_COMPRESSED_RGBA_ASTC_4x4_KHR and the footprints after it are consecutive
    // (KHR_texture_compression_astc_hdr).
    const auto format = static_cast<Format>(static_cast<unsigned>(Format::ASTC_4x4) + GetParam());
    const auto& f = info(format);
    const Gl gl;
    ASSERT_TRUE(gl.ready);
    const std::uint32_t w = f.block_width * 20u, h = f.block_height * 20u;
    const auto check = [&](const Bytes& blocks, std::string_view what, std::size_t allowed) {
        const auto theirs = gl.decode(static_cast<GLenum>(0x93B0 + GetParam()), blocks, w, h);
        const auto ours = *decode(format, blocks, w, h);
        std::set<std::size_t> differing;  // blocks
        for (std::size_t i = 0; i < ours.texels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c)
                if (std::abs(int{ours.texels[i][c]} - int{theirs.texels[i][c]}) > 1)
                    differing.insert(i / w / f.block_height * 20 + i % w / f.block_width);
        // Mesa takes the upper 8 of 16 interpolated bits, libastcenc rounds them; the specification allows either (Khronos Data Format
        // Specification 1.3, section 23.19: results are 16 bits or half floats, and 8 bits only as an extension's decode mode).
        EXPECT_LE(differing.size(), allowed) << what;
    };
    check(*encode(format, smooth_picture(w, h, 3, true)), "gradients", 0);
    check(*encode(format, random_picture(w, h, 3)), "noise", 0);
    // Random bits are mostly reserved or of high dynamic range, which both show in the error color; of 400 blocks a few are judged
    // differently, illegal to one and not to the other.
    check(random_bytes(static_cast<std::size_t>(level_bytes(format, w, h)), GetParam()), "random blocks", 4);
}

TEST(Bc1Specification, WorkedExample) {
    // Khronos Data Format Specification 1.3, section 18.1: RGB0 at code 0, RGB1 at 1, (2 RGB0 + RGB1)/3 at 2, (RGB0 + 2 RGB1)/3 at 3 when
    // color0 > color1; (RGB0 + RGB1)/2 at 2 and black at 3 otherwise. Endpoints here: pure red over pure blue, and the reverse.
    const std::uint16_t red = 0xF800, blue = 0x001F;
    std::byte block[8];
    store_le(block, red);
    store_le(block + 2, blue);
    store_le(block + 4, 0xE4E4E4E4u);  // 0, 1, 2, 3 in each row
    auto out = decode_one(Format::BC1, block);
    EXPECT_EQ(out[0], (Texel{255, 0, 0, 255}));
    EXPECT_EQ(out[1], (Texel{0, 0, 255, 255}));
    EXPECT_EQ(out[2], (Texel{170, 0, 85, 255}));
    EXPECT_EQ(out[3], (Texel{85, 0, 170, 255}));
    store_le(block, blue);
    store_le(block + 2, red);
    out = decode_one(Format::BC1, block);
    EXPECT_EQ(out[2], (Texel{127, 0, 127, 255}));
    EXPECT_EQ(out[3], (Texel{0, 0, 0, 0}));
}

// The reference figure for BC6H: Mesa's own encoder for ARB_texture_compression_bptc (src/mesa/main/texcompress_bptc.c), reached by
// uploading floats. The measure is the mean |log2| of the ratio to the true value, over the three channels, with 2^-8 added to both so that
// black counts little.
TEST(Bc6hQuality, LogErrorIsBelowThatOfMesasEncoder) {
    const Gl gl;
    ASSERT_TRUE(gl.ready);
    for (const unsigned seed : {1u, 2u, 3u}) {
        const auto color = to_float(smooth_picture(128, 128, seed), true);
        ImageF light = color;  // eight stops from left to right
        for (std::uint32_t y = 0; y < 128; ++y)
            for (std::uint32_t x = 0; x < 128; ++x)
                for (std::size_t c = 0; c < 3; ++c) light.at(x, y)[c] *= std::exp2(8.0f * static_cast<float>(x) / 128 - 3);
        for (const auto& [format, internal] :
             {std::pair{Format::BC6H, GL_COMPRESSED_RGB_BPTC_UNSIGNED_FLOAT}, {Format::BC6H_SF16, GL_COMPRESSED_RGB_BPTC_SIGNED_FLOAT}}) {
            const auto log_error = [&](const Bytes& blocks) {
                const auto got = *skivet::decode_wide(format, blocks, 128, 128);
                double sum = 0;
                for (std::size_t i = 0; i < got.texels.size(); ++i)
                    for (std::size_t c = 0; c < 3; ++c) {
                        constexpr double floor = 1.0 / 256;
                        sum +=
                            std::abs(std::log2((std::max(0.0, double{got.texels[i][c]}) + floor) / (double{light.texels[i][c]} + floor)));
                    }
                return sum / static_cast<double>(got.texels.size() * 3);
            };
            const double theirs = log_error(gl.encode(static_cast<GLenum>(internal), light));
            double last = 0;
            for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
                last = log_error(*skivet::encode(format, light, {effort}));
                EXPECT_LT(last, theirs) << info(format).name << " " << name_of(effort);
            }
            std::printf("%s: mean |log2 error| %.4f at best, Mesa's encoder %.4f\n", std::string(info(format).name).c_str(), last, theirs);
        }
    }
}
