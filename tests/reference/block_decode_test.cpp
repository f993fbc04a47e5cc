// Block decoding against Mesa's software OpenGL (Debian: libgl1-mesa-dri, libegl1): random blocks are uploaded as compressed textures and
// read back with glGetTexImage. BC1 to BC3 are EXT_texture_compression_s3tc, BC4 and BC5 ARB_texture_compression_rgtc. Their specifications
// leave the precision of interpolated values open; asked for here is no difference at all to Mesa's softpipe driver. (Its llvmpipe driver
// interpolates with coarser weights and is up to 2/255 from the formulas of the specification, so it is no reference for this.)
#include <EGL/egl.h>
#include <EGL/eglext.h>
#include <GL/gl.h>
#include <GL/glext.h>
#include <gtest/gtest.h>

#include <cstdlib>

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
    bool ready = false;

private:
    EGLDisplay display_ = nullptr;
    EGLContext context_ = nullptr;
};

struct Case {
    Format format;
    GLenum gl;
};
class AgainstOpenGl : public testing::TestWithParam<Case> {};
INSTANTIATE_TEST_SUITE_P(Blocks, AgainstOpenGl,
                         testing::Values(Case{Format::BC1, GL_COMPRESSED_RGBA_S3TC_DXT1_EXT}, Case{Format::BC2, GL_COMPRESSED_RGBA_S3TC_DXT3_EXT},
                                         Case{Format::BC3, GL_COMPRESSED_RGBA_S3TC_DXT5_EXT}, Case{Format::BC4, GL_COMPRESSED_RED_RGTC1},
                                         Case{Format::BC5, GL_COMPRESSED_RG_RGTC2}),
                         [](const auto& param) { return std::string(skivet::info(param.param.format).name); });

}  // namespace

TEST_P(AgainstOpenGl, RandomBlocksDecodeTheSame) {
    const Gl gl;
    ASSERT_TRUE(gl.ready) << "Mesa's software OpenGL is missing (packages libgl1-mesa-dri, libegl1)";
    int largest = 0;
    for (unsigned seed = 0; seed < 8; ++seed) {
        auto blocks = random_bytes(static_cast<std::size_t>(level_bytes(GetParam().format, 256, 256)), seed);
        // Equal and ordered endpoints occur too seldom by chance.
        const auto size = info(GetParam().format).block_bytes;
        for (std::size_t at = 0; at + size <= blocks.size(); at += size * 7u) blocks[at + size - 8] = blocks[at + size - 6], blocks[at + size - 7] = blocks[at + size - 5];
        const auto theirs = gl.decode(GetParam().gl, blocks, 256, 256);
        const auto ours = *decode(GetParam().format, blocks, 256, 256);
        for (std::size_t i = 0; i < ours.texels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c) {
                const int d = std::abs(ours.texels[i][c] - theirs.texels[i][c]);
                ASSERT_EQ(d, 0) << "texel " << i << " channel " << c;
                largest = std::max(largest, d);
            }
    }
    RecordProperty("largest_difference", largest);
    std::printf("%s: largest difference %d/255\n", std::string(info(GetParam().format).name).c_str(), largest);
}

TEST(Bc1Specification, WorkedExample) {
    // Khronos Data Format Specification 1.3, section 18.1: RGB0 at code 0, RGB1 at 1, (2 RGB0 + RGB1)/3 at 2, (RGB0 + 2 RGB1)/3 at 3 when
    // color0 > color1; (RGB0 + RGB1)/2 at 2 and black at 3 otherwise. Endpoints here: pure red over pure blue, and the reverse.
    const std::uint16_t red = 0xF800, blue = 0x001F;
    std::byte block[8];
    store_le(block, red);
    store_le(block + 2, blue);
    store_le(block + 4, 0xE4E4E4E4u);  // 0, 1, 2, 3 in each row
    BlockTexels out;
    decode_bc1(block, out);
    EXPECT_EQ(out[0], (Texel{255, 0, 0, 255}));
    EXPECT_EQ(out[1], (Texel{0, 0, 255, 255}));
    EXPECT_EQ(out[2], (Texel{170, 0, 85, 255}));
    EXPECT_EQ(out[3], (Texel{85, 0, 170, 255}));
    store_le(block, blue);
    store_le(block + 2, red);
    decode_bc1(block, out);
    EXPECT_EQ(out[2], (Texel{127, 0, 127, 255}));
    EXPECT_EQ(out[3], (Texel{0, 0, 0, 0}));
}
