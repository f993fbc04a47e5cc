// ASTC by way of libastcenc: fourteen footprints with low dynamic range, read and written, and the same with high dynamic range, read.
// Its contexts are tables that take milliseconds to make, so each thread keeps the last one it used.
// The LDR profile is used for sRGB textures too: both directions then agree, which is what identity needs; it is within one step of
// the sRGB profile.
#include <astcenc.h>

#include <memory>
#include <new>

#include "codec/blocks.h"

namespace skivet {
namespace {

constexpr astcenc_swizzle straight{ASTCENC_SWZ_R, ASTCENC_SWZ_G, ASTCENC_SWZ_B, ASTCENC_SWZ_A};

struct Key {
    unsigned width = 0, height = 0;
    astcenc_profile profile = ASTCENC_PRF_LDR;
    float quality = 0;
    unsigned flags = 0;
    bool operator==(const Key&) const = default;
};

class Context {
public:
    explicit Context(const Key& key) : key_(key) {
        astcenc_config config;
        if (astcenc_config_init(key.profile, key.width, key.height, 1, key.quality, key.flags, &config) == ASTCENC_SUCCESS)
            astcenc_context_alloc(&config, 1, &context_);
    }
    ~Context() { astcenc_context_free(context_); }
    Context(const Context&) = delete;
    Context& operator=(const Context&) = delete;
    [[nodiscard]] const Key& key() const { return key_; }
    [[nodiscard]] astcenc_context* get() const { return context_; }

private:
    Key key_;
    astcenc_context* context_ = nullptr;
};

/// Throws std::bad_alloc when the library runs out of memory, as everything else does then.
astcenc_context* context_for(const Key& key) {
    thread_local std::unique_ptr<Context> reader, writer;
    auto& kept = key.flags & ASTCENC_FLG_DECOMPRESS_ONLY ? reader : writer;
    if (!kept || kept->key() != key) kept = std::make_unique<Context>(key);
    if (!kept->get()) {
        kept.reset();
        throw std::bad_alloc();
    }
    return kept->get();
}

/// `count` blocks as one picture of a block's height.
template <unsigned width, unsigned height, class T, astcenc_profile profile>
void decode_astc(const std::byte* blocks, std::size_t count, T* out, std::size_t pitch) {
    constexpr bool wide = std::is_same_v<T, TexelF>;
    std::vector<T> strip(count * width * height);
    void* slice = strip.data();
    astcenc_image image{static_cast<unsigned>(count) * width, height, 1, wide ? ASTCENC_TYPE_F32 : ASTCENC_TYPE_U8, &slice};
    auto* context = context_for({width, height, profile, ASTCENC_PRE_FASTEST, ASTCENC_FLG_DECOMPRESS_ONLY});
    astcenc_decompress_image(context, reinterpret_cast<const std::uint8_t*>(blocks), count * 16, &image, &straight, 0);
    astcenc_decompress_reset(context);
    for (std::size_t y = 0; y < height; ++y) std::copy_n(strip.data() + y * count * width, count * width, out + y * pitch);
}

template <unsigned width, unsigned height>
void encode_astc(const Texel* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    std::vector<Texel> strip(count * width * height);
    for (std::size_t i = 0; i < count; ++i)
        for (std::size_t y = 0; y < height; ++y)
            std::copy_n(blocks + (i * height + y) * width, width, strip.data() + (y * count + i) * width);
    void* slice = strip.data();
    astcenc_image image{static_cast<unsigned>(count) * width, height, 1, ASTCENC_TYPE_U8, &slice};
    const float quality = options.effort == Effort::fast     ? ASTCENC_PRE_FAST
                          : options.effort == Effort::normal ? ASTCENC_PRE_MEDIUM
                                                             : ASTCENC_PRE_THOROUGH;
    auto* context =
        context_for({width, height, ASTCENC_PRF_LDR, quality, options.alpha_is_transparency ? ASTCENC_FLG_USE_ALPHA_WEIGHT : 0});
    astcenc_compress_image(context, &image, &straight, reinterpret_cast<std::uint8_t*>(out), count * 16, 0);
    astcenc_compress_reset(context);
}

template <unsigned width, unsigned height>
constexpr BlockCodec low{decode_astc<width, height, Texel, ASTCENC_PRF_LDR>, nullptr, encode_astc<width, height>, nullptr};
template <unsigned width, unsigned height>
constexpr BlockCodec high{nullptr, decode_astc<width, height, TexelF, ASTCENC_PRF_HDR>, nullptr, nullptr};

}  // namespace

const std::array<BlockCodec, 28> astc_codecs = {
    low<4, 4>,  low<5, 4>,   low<5, 5>,   low<6, 5>,   low<6, 6>,   low<8, 5>,    low<8, 6>,    low<8, 8>,   low<10, 5>, low<10, 6>,
    low<10, 8>, low<10, 10>, low<12, 10>, low<12, 12>, high<4, 4>,  high<5, 4>,   high<5, 5>,   high<6, 5>,  high<6, 6>, high<8, 5>,
    high<8, 6>, high<8, 8>,  high<10, 5>, high<10, 6>, high<10, 8>, high<10, 10>, high<12, 10>, high<12, 12>};

}  // namespace skivet
