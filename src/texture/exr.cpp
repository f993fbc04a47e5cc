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

/// Whether every attribute of the header lies in the file: the library takes the memory that one claims before it reads. Layout of the
/// header: "OpenEXR File Layout" of the OpenEXR project: names end with zero, then the type, four bytes of size, the value; an empty name
/// ends it.
Status attributes_hold(ByteSpan data) {
    std::size_t at = 8;
    const auto text = [&]() -> std::optional<std::size_t> {  // its length
        for (auto end = at; end < data.size(); ++end)
            if (data[end] == std::byte{0}) return end - std::exchange(at, end + 1);
        return std::nullopt;
    };
    for (;;) {
        const auto begin = at;
        const auto name = text();
        if (name && *name == 0) return {};
        if (!name || !text() || data.size() - at < 4) return fail_at(ErrorCode::damaged, begin, "the header is cut off");
        const auto size = load_le<std::uint32_t>(data.data() + at);
        at += 4;
        if (size > data.size() - at)
            return fail_at(ErrorCode::damaged, begin,
                           phrase("an attribute needs {} bytes, {} are there", grouped(size), grouped(data.size() - at)));
        at += size;
    }
}

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
        SKIVET_CHECK(attributes_hold(data));
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
