#include "base/pack_decoders.h"

#include <brotli/decode.h>
#include <bzlib.h>
#include <lz4frame.h>
#include <lzma.h>
#include <zlib.h>
#include <zstd.h>

#include "base/phrase.h"

namespace skivet::pack_streams {

tl::unexpected<Error> broken(Packing packing, std::uint64_t at) {
    return fail_at(ErrorCode::damaged, at, phrase("the {} stream is damaged", name_of(packing)));
}

namespace {

constexpr std::uint64_t lzma_memory = 192ull << 20;

tl::unexpected<Error> ends_early(Packing packing, std::uint64_t at) {
    return fail_at(ErrorCode::damaged, at, phrase("the {} stream ends early", name_of(packing)));
}

class ZlibDecoder final : public Decoder {
public:
    ZlibDecoder(Packing packing, ByteSpan in, bool all_members) : packing_(packing), in_(in), all_members_(all_members) {
        const int bits = packing == Packing::deflate ? -MAX_WBITS : packing == Packing::zlib ? MAX_WBITS : MAX_WBITS + 16;
        ready_ = inflateInit2(&z_, bits) == Z_OK;
    }
    ~ZlibDecoder() override {
        if (ready_) inflateEnd(&z_);
    }
    Result<std::size_t> read(std::byte* out, std::size_t room) override {
        if (!ready_) return fail(ErrorCode::io, "out of memory");
        std::size_t done = 0;
        while (done < room && !ended_) {
            z_.next_in = const_cast<Bytef*>(reinterpret_cast<const Bytef*>(in_.data() + at_));
            z_.avail_in = static_cast<uInt>(std::min<std::size_t>(in_.size() - at_, 1u << 30));
            z_.next_out = reinterpret_cast<Bytef*>(out + done);
            z_.avail_out = static_cast<uInt>(std::min<std::size_t>(room - done, 1u << 30));
            const auto in_before = z_.avail_in, out_before = z_.avail_out;
            const int result = ::inflate(&z_, Z_NO_FLUSH);
            at_ += in_before - z_.avail_in;
            done += out_before - z_.avail_out;
            if (result == Z_STREAM_END) {
                // RFC 1952 section 2.2: members follow one another; zeros behind the last one are padding of tapes.
                if (all_members_ && packing_ == Packing::gzip && at_ + 2 <= in_.size() && in_[at_] == std::byte{0x1F} &&
                    in_[at_ + 1] == std::byte{0x8B}) {
                    inflateReset(&z_);
                    continue;
                }
                ended_ = true;
            } else if (result == Z_BUF_ERROR || (result == Z_OK && in_before == z_.avail_in && out_before == z_.avail_out)) {
                return ends_early(packing_, at_);
            } else if (result != Z_OK) {
                return broken(packing_, at_);
            }
        }
        return done;
    }
    std::uint64_t taken() const override { return at_; }

private:
    Packing packing_;
    ByteSpan in_;
    bool all_members_, ready_ = false, ended_ = false;
    z_stream z_{};
    std::size_t at_ = 0;
};

class ZstdDecoder final : public Decoder {
public:
    ZstdDecoder(ByteSpan in, bool all_frames) : in_{in.data(), in.size(), 0}, all_frames_(all_frames) {
        if (stream_) ZSTD_DCtx_setParameter(stream_.get(), ZSTD_d_windowLogMax, 27);
    }
    Result<std::size_t> read(std::byte* out, std::size_t room) override {
        if (!stream_) return fail(ErrorCode::io, "out of memory");
        ZSTD_outBuffer buffer{out, room, 0};
        while (buffer.pos < room && !ended_) {
            const auto in_before = in_.pos;
            const auto out_before = buffer.pos;
            const auto left = ZSTD_decompressStream(stream_.get(), &buffer, &in_);
            if (ZSTD_isError(left)) return broken(Packing::zstd, in_.pos);
            if (left == 0) ended_ = !all_frames_ || in_.pos == in_.size || !frame_follows();
            else if (in_.pos == in_before && buffer.pos == out_before) return ends_early(Packing::zstd, in_.pos);
        }
        return buffer.pos;
    }
    std::uint64_t taken() const override { return in_.pos; }

private:
    struct Free {
        void operator()(ZSTD_DCtx* d) const { ZSTD_freeDCtx(d); }
    };
    std::unique_ptr<ZSTD_DCtx, Free> stream_{ZSTD_createDCtx()};
    ZSTD_inBuffer in_;
    bool all_frames_, ended_ = false;
    bool frame_follows() const {
        if (in_.size - in_.pos < 4) return false;
        const auto magic = load_le<std::uint32_t>(static_cast<const std::byte*>(in_.src) + in_.pos);
        return magic == 0xFD2FB528 || (magic & 0xFFFFFFF0u) == 0x184D2A50;  // RFC 8878: a frame, or one to be skipped
    }
};

class Lz4Decoder final : public Decoder {
public:
    explicit Lz4Decoder(ByteSpan in) : in_(in) {
        LZ4F_dctx* made = nullptr;
        if (!LZ4F_isError(LZ4F_createDecompressionContext(&made, LZ4F_VERSION))) stream_.reset(made);
    }
    Result<std::size_t> read(std::byte* out, std::size_t room) override {
        if (!stream_) return fail(ErrorCode::io, "out of memory");
        std::size_t done = 0;
        while (done < room && !ended_) {
            std::size_t put = room - done, took = in_.size() - at_;
            const auto left = LZ4F_decompress(stream_.get(), out + done, &put, in_.data() + at_, &took, nullptr);
            if (LZ4F_isError(left)) return broken(Packing::lz4_frame, at_);
            at_ += took;
            done += put;
            if (left == 0) ended_ = true;
            else if (took == 0 && put == 0) return ends_early(Packing::lz4_frame, at_);
        }
        return done;
    }
    std::uint64_t taken() const override { return at_; }

private:
    struct Free {
        void operator()(LZ4F_dctx* d) const { LZ4F_freeDecompressionContext(d); }
    };
    std::unique_ptr<LZ4F_dctx, Free> stream_;
    ByteSpan in_;
    std::size_t at_ = 0;
    bool ended_ = false;
};

/// .xz, .lzma, and the bare LZMA stream behind 5 bytes of properties.
class LzmaDecoder final : public Decoder {
public:
    LzmaDecoder(Packing packing, ByteSpan in, bool all) : packing_(packing), in_(in) {
        if (packing == Packing::xz) {
            state_ = lzma_stream_decoder(&z_, lzma_memory, all ? LZMA_CONCATENATED : 0u);
            finish_ = all;
        } else if (packing == Packing::lzma_alone) {
            state_ = lzma_alone_decoder(&z_, lzma_memory);
        } else {
            lzma_filter filters[2] = {{LZMA_FILTER_LZMA1, nullptr}, {LZMA_VLI_UNKNOWN, nullptr}};
            state_ = in.size() < 5 ? LZMA_DATA_ERROR
                                   : lzma_properties_decode(&filters[0], nullptr, reinterpret_cast<const std::uint8_t*>(in.data()), 5);
            if (state_ == LZMA_OK) {
                if (lzma_raw_decoder_memusage(filters) > lzma_memory) state_ = LZMA_MEMLIMIT_ERROR;
                else state_ = lzma_raw_decoder(&z_, filters);
                std::free(filters[0].options);
            }
            at_ = 5;
        }
    }
    ~LzmaDecoder() override { lzma_end(&z_); }
    Result<std::size_t> read(std::byte* out, std::size_t room) override {
        if (state_ == LZMA_MEMLIMIT_ERROR)
            return fail(ErrorCode::limit, phrase("the {} stream wants more memory than the limit", name_of(packing_)));
        if (state_ != LZMA_OK && !ended_) return broken(packing_, at_);
        std::size_t done = 0;
        while (done < room && !ended_) {
            z_.next_in = reinterpret_cast<const std::uint8_t*>(in_.data() + at_);
            z_.avail_in = in_.size() - at_;
            z_.next_out = reinterpret_cast<std::uint8_t*>(out + done);
            z_.avail_out = room - done;
            const auto in_before = z_.avail_in, out_before = z_.avail_out;
            state_ = lzma_code(&z_, finish_ || in_before == 0 ? LZMA_FINISH : LZMA_RUN);
            at_ += in_before - z_.avail_in;
            done += out_before - z_.avail_out;
            if (state_ == LZMA_STREAM_END) ended_ = true;
            else if (state_ == LZMA_MEMLIMIT_ERROR)
                return fail(ErrorCode::limit, phrase("the {} stream wants more memory than the limit", name_of(packing_)));
            else if (state_ == LZMA_BUF_ERROR || (state_ == LZMA_OK && in_before == 0 && out_before == z_.avail_out)) {
                // A bare stream without an end marker ends where its input does.
                if (packing_ == Packing::lzma_raw && at_ == in_.size()) ended_ = true;
                else return ends_early(packing_, at_);
            } else if (state_ != LZMA_OK) return broken(packing_, at_);
        }
        return done;
    }
    std::uint64_t taken() const override { return at_; }

private:
    Packing packing_;
    ByteSpan in_;
    lzma_stream z_ = LZMA_STREAM_INIT;
    lzma_ret state_ = LZMA_OK;
    bool finish_ = false, ended_ = false;
    std::size_t at_ = 0;
};

class Bzip2Decoder final : public Decoder {
public:
    Bzip2Decoder(ByteSpan in, bool all) : in_(in), all_(all) { ready_ = BZ2_bzDecompressInit(&z_, 0, 0) == BZ_OK; }
    ~Bzip2Decoder() override {
        if (ready_) BZ2_bzDecompressEnd(&z_);
    }
    Result<std::size_t> read(std::byte* out, std::size_t room) override {
        if (!ready_) return fail(ErrorCode::io, "out of memory");
        std::size_t done = 0;
        while (done < room && !ended_) {
            z_.next_in = const_cast<char*>(reinterpret_cast<const char*>(in_.data() + at_));
            z_.avail_in = static_cast<unsigned>(std::min<std::size_t>(in_.size() - at_, 1u << 30));
            z_.next_out = reinterpret_cast<char*>(out + done);
            z_.avail_out = static_cast<unsigned>(std::min<std::size_t>(room - done, 1u << 30));
            const auto in_before = z_.avail_in, out_before = z_.avail_out;
            const int result = BZ2_bzDecompress(&z_);
            at_ += in_before - z_.avail_in;
            done += out_before - z_.avail_out;
            if (result == BZ_STREAM_END) {
                if (all_ && at_ + 3 <= in_.size() && as_text(in_.subspan(at_, 3)) == "BZh") {
                    BZ2_bzDecompressEnd(&z_);
                    z_ = {};
                    ready_ = BZ2_bzDecompressInit(&z_, 0, 0) == BZ_OK;
                    if (!ready_) return fail(ErrorCode::io, "out of memory");
                    continue;
                }
                ended_ = true;
            } else if (result != BZ_OK) {
                return broken(Packing::bzip2, at_);
            } else if (in_before == z_.avail_in && out_before == z_.avail_out) {
                return ends_early(Packing::bzip2, at_);
            }
        }
        return done;
    }
    std::uint64_t taken() const override { return at_; }

private:
    ByteSpan in_;
    bool all_, ready_ = false, ended_ = false;
    bz_stream z_{};
    std::size_t at_ = 0;
};

class BrotliDecoder final : public Decoder {
public:
    explicit BrotliDecoder(ByteSpan in) : in_(in) {}
    Result<std::size_t> read(std::byte* out, std::size_t room) override {
        if (!state_) return fail(ErrorCode::io, "out of memory");
        std::size_t left = room;
        auto* next_out = reinterpret_cast<std::uint8_t*>(out);
        while (left > 0 && !ended_) {
            auto left_in = in_.size() - at_;
            const auto* next_in = reinterpret_cast<const std::uint8_t*>(in_.data() + at_);
            const auto before = left;
            const auto result = BrotliDecoderDecompressStream(state_.get(), &left_in, &next_in, &left, &next_out, nullptr);
            at_ = in_.size() - left_in;
            if (result == BROTLI_DECODER_RESULT_ERROR) return broken(Packing::brotli, at_);
            if (result == BROTLI_DECODER_RESULT_SUCCESS) ended_ = true;
            else if (result == BROTLI_DECODER_RESULT_NEEDS_MORE_INPUT && left == before) return ends_early(Packing::brotli, at_);
        }
        return room - left;
    }
    std::uint64_t taken() const override { return at_; }

private:
    struct Free {
        void operator()(BrotliDecoderState* s) const { BrotliDecoderDestroyInstance(s); }
    };
    std::unique_ptr<BrotliDecoderState, Free> state_{BrotliDecoderCreateInstance(nullptr, nullptr, nullptr)};
    ByteSpan in_;
    std::size_t at_ = 0;
    bool ended_ = false;
};

}  // namespace

std::unique_ptr<Decoder> decoder_for(Packing packing, ByteSpan in, bool all) {
    switch (packing) {
        case Packing::deflate:
        case Packing::zlib:
        case Packing::gzip: return std::make_unique<ZlibDecoder>(packing, in, all);
        case Packing::zstd: return std::make_unique<ZstdDecoder>(in, all);
        case Packing::lz4_frame: return std::make_unique<Lz4Decoder>(in);
        case Packing::lzma_alone:
        case Packing::lzma_raw:
        case Packing::xz: return std::make_unique<LzmaDecoder>(packing, in, all);
        case Packing::bzip2: return std::make_unique<Bzip2Decoder>(in, all);
        case Packing::brotli: return std::make_unique<BrotliDecoder>(in);
        default: return nullptr;
    }
}

}  // namespace skivet::pack_streams
