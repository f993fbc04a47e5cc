#include "texture/exr.h"

#include <ImathBox.h>
#include <ImfChannelList.h>
#include <ImfFrameBuffer.h>
#include <ImfHeader.h>
#include <ImfInputFile.h>
#include <ImfIO.h>
#include <ImfMultiPartInputFile.h>
#include <ImfOutputFile.h>
#include <exception>

#include "base/phrase.h"
#include "codec/codec.h"
#include "pixel/half.h"

namespace skivet {
namespace {

class MemoryIn final : public Imf::IStream {
public:
    explicit MemoryIn(ByteSpan data) : IStream("memory"), data_(data) {}
    bool read(char to[], int count) override {
        if (count < 0 || static_cast<std::uint64_t>(count) > data_.size() - std::min<std::uint64_t>(data_.size(), at_))
            throw std::runtime_error("the file ends early");
        std::memcpy(to, data_.data() + at_, static_cast<std::size_t>(count));
        at_ += static_cast<std::uint64_t>(count);
        return at_ < data_.size();
    }
    std::uint64_t tellg() override { return at_; }
    void seekg(std::uint64_t position) override { at_ = position; }

private:
    ByteSpan data_;
    std::uint64_t at_ = 0;
};

class MemoryOut final : public Imf::OStream {
public:
    MemoryOut() : OStream("memory") {}
    void write(const char from[], int count) override {
        const auto end = at_ + static_cast<std::uint64_t>(count);
        if (end > bytes.size()) bytes.resize(static_cast<std::size_t>(end));
        std::memcpy(bytes.data() + at_, from, static_cast<std::size_t>(count));
        at_ = end;
    }
    std::uint64_t tellp() override { return at_; }
    void seekp(std::uint64_t position) override { at_ = position; }
    Bytes bytes;

private:
    std::uint64_t at_ = 0;
};

/// What the header claims, looked at before the library takes memory for it. Layout of the header: "OpenEXR File Layout" of the OpenEXR
/// project: names end with zero, then the type, four bytes of size, the value; an empty name ends it.
class HeaderClaims {
public:
    /// Every attribute lies in the file; the picture, all channels and the lines or tiles that are unpacked together take no more than such
    /// a file may claim; and the table of these pieces, eight bytes each, is there.
    static Status check(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) {
        HeaderClaims claims;
        SKIVET_CHECK(claims.read(data));
        return claims.hold(file_size, limits);
    }

private:
    std::int64_t width_ = 1, height_ = 1;
    std::uint64_t texel_ = 0, lines_ = 256, tile_width_ = 0, tile_height_ = 0;

    Status read(ByteSpan data) {
        for (std::size_t at = 8;;) {
            const auto begin = at;
            const auto name = text(data, at);
            if (name && name->empty()) return {};
            const auto type = name ? text(data, at) : std::nullopt;
            if (!type || data.size() - at < 4) return fail_at(ErrorCode::damaged, begin, "the header is cut off");
            const auto size = load_le<std::uint32_t>(data.data() + at);
            at += 4;
            if (size > data.size() - at)
                return fail_at(ErrorCode::damaged, begin,
                               phrase("an attribute needs {} bytes, {} are there", grouped(size), grouped(data.size() - at)));
            const auto value = data.subspan(at, size);
            if (!fills(*type, value))
                return fail_at(ErrorCode::damaged, begin, phrase("attribute {} is no {} of {} bytes", *name, *type, grouped(size)));
            note(*name, value);
            at += size;
        }
    }
    static std::optional<std::string_view> text(ByteSpan data, std::size_t& at) {
        const auto rest = std::string_view(reinterpret_cast<const char*>(data.data()), data.size()).substr(std::min(at, data.size()));
        const auto length = rest.find('\0');
        if (length == std::string_view::npos) return std::nullopt;
        at += length + 1;
        return rest.substr(0, length);
    }
    /// Whether a value of this type takes all its bytes and no more. The library reads what the type has, whatever the size says, and
    /// what follows would be taken for something else.
    static bool fills(std::string_view type, ByteSpan value) {
        constexpr std::pair<std::string_view, std::size_t> sizes[] = {{"box2i", 16},
                                                                      {"box2f", 16},
                                                                      {"chromaticities", 32},
                                                                      {"compression", 1},
                                                                      {"deepImageState", 1},
                                                                      {"double", 8},
                                                                      {"envmap", 1},
                                                                      {"float", 4},
                                                                      {"int", 4},
                                                                      {"keycode", 28},
                                                                      {"lineOrder", 1},
                                                                      {"m33f", 36},
                                                                      {"m33d", 72},
                                                                      {"m44f", 64},
                                                                      {"m44d", 128},
                                                                      {"rational", 8},
                                                                      {"tiledesc", 9},
                                                                      {"timecode", 8},
                                                                      {"v2f", 8},
                                                                      {"v2i", 8},
                                                                      {"v2d", 16},
                                                                      {"v3f", 12},
                                                                      {"v3i", 12},
                                                                      {"v3d", 24}};
        for (const auto& [name, size] : sizes)
            if (name == type) return value.size() == size;
        const auto number = [&](std::size_t at) { return std::uint64_t{load_le<std::uint32_t>(value.data() + at)}; };
        std::size_t at = 0;
        if (type == "preview")  // of which no side can be longer than all of it
            return value.size() >= 8 && number(0) <= value.size() && number(4) <= value.size() &&
                   value.size() - 8 == number(0) * number(4) * 4;
        if (type == "floatvector") return value.size() % 4 == 0;
        if (type == "stringvector") {
            while (value.size() - at >= 4 && number(at) <= value.size() - at - 4) at += 4 + static_cast<std::size_t>(number(at));
            return at == value.size();
        }
        if (type != "chlist") return true;
        for (;;) {
            const auto name = text(value, at);
            if (!name || name->empty()) return name && at == value.size();
            if (value.size() - at < 16) return false;
            at += 16;
        }
    }
    void note(std::string_view name, ByteSpan value) {
        const auto number = [&](std::size_t at) { return load_le<std::uint32_t>(value.data() + at); };
        if (name == "dataWindow" && value.size() >= 16) {
            const auto side = [&](std::size_t at) {
                return std::int64_t{static_cast<std::int32_t>(number(at + 8))} - static_cast<std::int32_t>(number(at)) + 1;
            };
            width_ = std::max(width_, side(0));
            height_ = std::max(height_, side(4));
        }
        // Lines that are packed together, by the kind of compression: none, RLE, ZIP of one line, ZIP, PIZ, PXR24, B44, B44A, DWAA, DWAB.
        constexpr std::array<std::uint64_t, 10> together = {1, 1, 1, 16, 32, 16, 32, 32, 32, 256};
        if (name == "compression" && !value.empty() && static_cast<std::size_t>(value[0]) < together.size())
            lines_ = together[static_cast<std::size_t>(value[0])];
        if (name == "tiles" && value.size() >= 8) tile_width_ = number(0), tile_height_ = number(4);
        // Of each channel a name, its type (1: half), whether it is linear, and how it is sampled.
        if (name == "channels")
            for (std::size_t at = 0; text(value, at) && value.size() - std::min(at, value.size()) >= 16; at += 16)
                texel_ += number(at) == 1 ? 2 : 4;
    }
    [[nodiscard]] Status hold(std::uint64_t file_size, const ReadLimits& limits) const {
        if (width_ > limits.image_side || height_ > limits.image_side || tile_width_ > limits.image_side ||
            tile_height_ > limits.image_side)
            return fail(ErrorCode::limit, phrase("{}×{} texels are more than the limit", grouped(static_cast<std::uint64_t>(width_)),
                                                 grouped(static_cast<std::uint64_t>(height_))));
        const auto width = static_cast<std::uint64_t>(width_), height = static_cast<std::uint64_t>(height_);
        const bool tiled = tile_width_ > 0 && tile_height_ > 0;
        // A file that describes tiles may have lines all the same.
        const auto bytes = std::max(width, tile_width_) * std::max({height, tile_height_, lines_}) * texel_;
        if (!limits.may_claim(bytes, file_size))
            return fail(ErrorCode::limit,
                        phrase("claims {}×{} texels, {}, in a file of {} bytes", grouped(width), grouped(height), human_bytes(bytes),
                               grouped(file_size)),
                        "No picture packs so well; the header is damaged or made to do harm");
        const auto pieces = tiled ? ((width - 1) / tile_width_ + 1) * ((height - 1) / tile_height_ + 1) : (height - 1) / lines_ + 1;
        if (pieces > file_size / 8)
            return fail(ErrorCode::damaged,
                        phrase("the table of its {} pieces does not fit into {} bytes", grouped(pieces), grouped(file_size)));
        return {};
    }
};

template <class Work>
auto guarded(const Work& work) -> decltype(work()) {
    try {
        return work();
    } catch (const std::exception& error) {  // the library's way of saying that something is wrong
        return fail(ErrorCode::damaged, error.what());
    }
}

struct Channels {
    std::vector<std::string> names;  ///< in the order of the texel
    bool half = true;
    [[nodiscard]] Format format() const {
        switch (names.size()) {
            case 1: return half ? Format::R16F : Format::R32F;
            case 3: return half ? Format::RGB16F : Format::RGB32F;
            default: return half ? Format::RGBA16F : Format::RGBA32F;
        }
    }
};

Result<Channels> channels_of(const Imf::Header& header) {
    Channels out;
    const auto& list = header.channels();
    for (const char* name : {"R", "G", "B"})
        if (list.findChannel(name)) out.names.emplace_back(name);
    if (out.names.size() == 3) {
        if (list.findChannel("A")) out.names.emplace_back("A");
    } else {
        out.names.clear();
        if (list.findChannel("Y") && !list.findChannel("RY")) out.names.emplace_back("Y");
    }
    if (out.names.empty())
        return fail(ErrorCode::unsupported, "neither R, G and B nor Y alone are among its channels", "Save the picture as RGB");
    for (const auto& name : out.names) {
        const auto* c = list.findChannel(name);
        if (c->xSampling != 1 || c->ySampling != 1) return fail(ErrorCode::unsupported, phrase("channel {} is subsampled", name));
        if (c->type != Imf::HALF) out.half = false;
    }
    return out;
}

struct Box {
    int left, top;
    std::uint32_t width, height;
};
Result<Box> box_of(const Imf::Header& header) {
    const auto& w = header.dataWindow();
    const auto width = static_cast<std::int64_t>(w.max.x) - w.min.x + 1, height = static_cast<std::int64_t>(w.max.y) - w.min.y + 1;
    if (width <= 0 || height <= 0 || width > UINT32_MAX || height > UINT32_MAX) return fail(ErrorCode::damaged, "the data window is empty");
    return Box{w.min.x, w.min.y, static_cast<std::uint32_t>(width), static_cast<std::uint32_t>(height)};
}

/// Where the library finds element (x, y) when (left, top) is the first.
char* base_of(char* first, const Box& box, std::size_t x_stride, std::size_t y_stride) {
    return first - static_cast<std::ptrdiff_t>(x_stride) * box.left - static_cast<std::ptrdiff_t>(y_stride) * box.top;
}

/// Slices for the texels of `texels`, in the layout of the format.
void add_slices(Imf::FrameBuffer& frame, const Channels& channels, const Box& box, Bytes& texels) {
    const std::size_t part = channels.half ? 2 : 4, texel = part * channels.names.size();
    for (std::size_t c = 0; c < channels.names.size(); ++c)
        frame.insert(channels.names[c],
                     Imf::Slice(channels.half ? Imf::HALF : Imf::FLOAT,
                                base_of(reinterpret_cast<char*>(texels.data()) + c * part, box, texel, texel * box.width), texel,
                                texel * box.width));
}

Result<Bytes> read_texels(ByteSpan file) {
    MemoryIn in(file);
    Imf::InputFile input(in, 0);
    SKIVET_TRY(const auto channels, channels_of(input.header()));
    SKIVET_TRY(const auto box, box_of(input.header()));
    Bytes texels(std::size_t{box.width} * box.height * channels.names.size() * (channels.half ? 2 : 4));
    Imf::FrameBuffer frame;
    add_slices(frame, channels, box, texels);
    input.setFrameBuffer(frame);
    input.readPixels(box.top, box.top + static_cast<int>(box.height) - 1);
    return texels;
}

Result<Bytes> written(ByteSpan file, Bytes texels) {
    MemoryIn in(file);
    Imf::InputFile input(in, 0);
    const auto& header = input.header();
    if (header.hasTileDescription()) return fail(ErrorCode::unsupported, "a tiled OpenEXR file is only read", "Save it with scan lines");
    SKIVET_TRY(const auto channels, channels_of(header));
    SKIVET_TRY(const auto box, box_of(header));
    // Channels that are no color go from one file to the other as they are.
    Imf::FrameBuffer rest, all;
    std::vector<Bytes> kept;
    for (auto c = header.channels().begin(); c != header.channels().end(); ++c) {
        if (std::find(channels.names.begin(), channels.names.end(), c.name()) != channels.names.end()) continue;
        const auto& channel = c.channel();
        if (channel.xSampling != 1 || channel.ySampling != 1)
            return fail(ErrorCode::unsupported, phrase("channel {} is subsampled", c.name()));
        const std::size_t part = channel.type == Imf::HALF ? 2 : 4;
        kept.emplace_back(std::size_t{box.width} * box.height * part);
        const Imf::Slice slice(channel.type, base_of(reinterpret_cast<char*>(kept.back().data()), box, part, part * box.width), part,
                               part * box.width);
        rest.insert(c.name(), slice);
        all.insert(c.name(), slice);
    }
    if (!kept.empty()) {
        input.setFrameBuffer(rest);
        input.readPixels(box.top, box.top + static_cast<int>(box.height) - 1);
    }
    add_slices(all, channels, box, texels);
    MemoryOut out;
    {
        Imf::OutputFile output(out, header, 0);
        output.setFrameBuffer(all);
        output.writePixels(static_cast<int>(box.height));
    }
    return std::move(out.bytes);
}

}  // namespace

KindTraits ExrKind::traits() const { return {.picture = true, .extensions = {"exr"}}; }

bool ExrKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 8 && load_le<std::uint32_t>(head.data()) == 20000630;
}

Result<TextureLayout> ExrKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    return guarded([&]() -> Result<TextureLayout> {
        if (load_le<std::uint32_t>(data.data() + 4) & 0x1800)
            return fail(ErrorCode::unsupported, "several parts or deep data", "Single pictures are read");
        SKIVET_CHECK(HeaderClaims::check(data, file_size, limits));
        MemoryIn in(data);
        Imf::InputFile input(in, 0);
        SKIVET_TRY(const auto channels, channels_of(input.header()));
        SKIVET_TRY(const auto box, box_of(input.header()));
        TextureLayout out;
        out.direct = false;
        out.desc.format = channels.format();
        out.desc.width = box.width;
        out.desc.height = box.height;
        out.desc.color = ColorSpace::linear;
        SKIVET_CHECK(check_desc(out.desc, limits));
        SKIVET_CHECK(check_claim(out.desc, file_size, limits));
        out.surfaces.push_back({0, 0, 0, 0, box.width, box.height, 0, level_bytes(out.desc.format, box.width, box.height)});
        return out;
    });
}

Result<Bytes> ExrKind::bytes(ByteSpan file, const TextureLayout&, const Surface&) const {
    return guarded([&]() -> Result<Bytes> { return read_texels(file); });
}

Result<Bytes> ExrKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    if (edits.front().bytes.size() != layout.surfaces.front().size) return fail(ErrorCode::unfit, "the picture has another size");
    return guarded([&]() -> Result<Bytes> { return written(file, edits.front().bytes); });
}

Result<Bytes> write_exr(const ImageF& image, bool half, bool gray, bool alpha) {
    return guarded([&]() -> Result<Bytes> {
        Channels channels;
        channels.half = half;
        if (gray) channels.names = {"Y"};
        else channels.names = {"R", "G", "B"};
        if (alpha && !gray) channels.names.emplace_back("A");
        SKIVET_TRY(auto texels, encode(channels.format(), image));
        Imf::Header header(static_cast<int>(image.width), static_cast<int>(image.height));
        header.compression() = Imf::ZIP_COMPRESSION;
        for (const auto& name : channels.names) header.channels().insert(name, Imf::Channel(half ? Imf::HALF : Imf::FLOAT));
        Imf::FrameBuffer frame;
        add_slices(frame, channels, {0, 0, image.width, image.height}, texels);
        MemoryOut out;
        {
            Imf::OutputFile output(out, header, 0);
            output.setFrameBuffer(frame);
            output.writePixels(static_cast<int>(image.height));
        }
        return std::move(out.bytes);
    });
}

}  // namespace skivet
