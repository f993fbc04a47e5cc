#include "texture/tiff.h"

#include <fmt/format.h>
#include <tiffio.h>
#include <cmath>
#include <cstdarg>

#include "base/phrase.h"
#include "codec/codec.h"

namespace skivet {
namespace {

/// A file in memory, as libtiff wants it. Writing may make it longer.
struct Memory {
    Bytes bytes;
    std::uint64_t at = 0;
    std::uint64_t most = 0;   ///< no file grows beyond this
    ByteSpan only_read = {};  ///< where there are any, these are the file, and `bytes` is empty
    [[nodiscard]] ByteSpan all() const { return only_read.empty() ? ByteSpan(bytes) : only_read; }
};

tmsize_t read_memory(thandle_t handle, void* to, tmsize_t count) {
    auto& m = *static_cast<Memory*>(handle);
    const auto all = m.all();
    const auto there = all.size() - std::min<std::uint64_t>(all.size(), m.at);
    const auto n = std::min<std::uint64_t>(there, static_cast<std::uint64_t>(std::max<tmsize_t>(count, 0)));
    if (n > 0) std::memcpy(to, all.data() + m.at, static_cast<std::size_t>(n));
    m.at += n;
    return static_cast<tmsize_t>(n);
}
tmsize_t write_memory(thandle_t handle, void* from, tmsize_t count) {
    auto& m = *static_cast<Memory*>(handle);
    const auto end = m.at + static_cast<std::uint64_t>(count);
    if (count < 0 || end > m.most) return 0;
    if (end > m.bytes.size()) m.bytes.resize(static_cast<std::size_t>(end));
    if (count > 0) std::memcpy(m.bytes.data() + m.at, from, static_cast<std::size_t>(count));
    m.at = end;
    return count;
}
toff_t seek_memory(thandle_t handle, toff_t offset, int whence) {
    auto& m = *static_cast<Memory*>(handle);
    m.at = whence == SEEK_SET ? offset : whence == SEEK_CUR ? m.at + offset : m.all().size() + offset;
    return m.at;
}

/// libtiff says what is wrong to a handler of the whole process; the last word is kept for the thread that asked.
thread_local std::string last_error;
void keep_error(const char*, const char* format, va_list arguments) {
    std::array<char, 300> text{};
    (void)std::vsnprintf(text.data(), text.size(), format, arguments);
    last_error = text.data();
}

using File = std::unique_ptr<TIFF, decltype(&TIFFClose)>;

File open_file(Memory& memory, const char* mode) {
    static const bool quiet = [] {
        TIFFSetErrorHandler(keep_error);
        TIFFSetWarningHandler(nullptr);
        return true;
    }();
    (void)quiet;
    last_error.clear();
    return {TIFFClientOpen(
                "memory", mode, &memory, read_memory, write_memory, seek_memory, [](thandle_t) { return 0; },
                [](thandle_t h) -> toff_t { return static_cast<Memory*>(h)->all().size(); }, nullptr, nullptr),
            &TIFFClose};
}

tl::unexpected<Error> tiff_error(std::string_view doing) {
    return fail(ErrorCode::damaged, last_error.empty() ? said(doing) : fmt::format("{}: {}", said(doing), last_error));
}

struct Header {
    std::uint32_t width = 0, height = 0;
    std::uint16_t bits = 8, samples = 1, photometric = PHOTOMETRIC_MINISBLACK, numbers = SAMPLEFORMAT_UINT, planes = PLANARCONFIG_CONTIG;
    Format format = Format::unknown;
    bool palette = false, inverted = false;
    [[nodiscard]] std::size_t texel() const { return std::size_t{bits} / 8 * samples; }
};

Result<Header> header_of(TIFF* file) {
    Header h;
    if (!TIFFGetField(file, TIFFTAG_IMAGEWIDTH, &h.width) || !TIFFGetField(file, TIFFTAG_IMAGELENGTH, &h.height))
        return fail(ErrorCode::damaged, "the size is missing");
    TIFFGetFieldDefaulted(file, TIFFTAG_BITSPERSAMPLE, &h.bits);
    TIFFGetFieldDefaulted(file, TIFFTAG_SAMPLESPERPIXEL, &h.samples);
    TIFFGetFieldDefaulted(file, TIFFTAG_SAMPLEFORMAT, &h.numbers);
    TIFFGetFieldDefaulted(file, TIFFTAG_PLANARCONFIG, &h.planes);
    if (!TIFFGetField(file, TIFFTAG_PHOTOMETRIC, &h.photometric))
        return fail(ErrorCode::damaged, "the photometric interpretation is missing");
    h.palette = h.photometric == PHOTOMETRIC_PALETTE && h.bits == 8 && h.samples == 1;
    h.inverted = h.photometric == PHOTOMETRIC_MINISWHITE;
    const bool gray = h.photometric == PHOTOMETRIC_MINISBLACK || h.inverted, color = h.photometric == PHOTOMETRIC_RGB;
    if (h.palette) {
        h.format = Format::RGB8;
    } else if (h.numbers == SAMPLEFORMAT_UINT && (h.bits == 8 || h.bits == 16)) {
        const bool deep = h.bits == 16;
        if (gray && h.samples == 1) h.format = deep ? Format::L16 : Format::L8;
        if (gray && h.samples == 2 && !h.inverted) h.format = deep ? Format::LA16 : Format::LA8;
        if (color && h.samples == 3) h.format = deep ? Format::RGB16 : Format::RGB8;
        if (color && h.samples == 4) h.format = deep ? Format::RGBA16 : Format::RGBA8;
    } else if (h.numbers == SAMPLEFORMAT_IEEEFP && (h.bits == 16 || h.bits == 32)) {
        const bool single = h.bits == 32;
        if (gray && h.samples == 1 && !h.inverted) h.format = single ? Format::R32F : Format::R16F;
        if (color && h.samples == 3) h.format = single ? Format::RGB32F : Format::RGB16F;
        if (color && h.samples == 4) h.format = single ? Format::RGBA32F : Format::RGBA16F;
    }
    if (h.photometric == PHOTOMETRIC_SEPARATED)
        return fail(ErrorCode::unsupported, "the colors are inks (CMYK)", "Gray and RGB are read; save it without CMYK");
    if (h.format == Format::unknown || (h.planes != PLANARCONFIG_CONTIG && h.samples > 1))
        return fail(ErrorCode::unsupported,
                    phrase("{} samples of {} bits, photometric interpretation {}{}", h.samples, h.bits, h.photometric,
                           h.planes != PLANARCONFIG_CONTIG ? said(", in planes") : ""),
                    "Gray, RGB and RGBA of 8 and 16 bits and floats are read");
    return h;
}

/// Calls visit(index, x, y, width, height) for every strip or tile; width and height of the part inside the picture, `pitch` texels a row.
struct Pieces {
    bool tiled = false;
    std::uint32_t width = 0, height = 0;  ///< of a piece
    tmsize_t bytes = 0;
};
Result<Pieces> pieces_of(TIFF* file, const Header& h) {
    Pieces p;
    p.tiled = TIFFIsTiled(file);
    if (p.tiled) {
        if (!TIFFGetField(file, TIFFTAG_TILEWIDTH, &p.width) || !TIFFGetField(file, TIFFTAG_TILELENGTH, &p.height))
            return tiff_error("the tile size is missing");
        p.bytes = TIFFTileSize(file);
    } else {
        p.width = h.width;
        TIFFGetFieldDefaulted(file, TIFFTAG_ROWSPERSTRIP, &p.height);
        p.height = std::min(p.height, h.height);
        p.bytes = TIFFStripSize(file);
    }
    if (p.width == 0 || p.height == 0 || p.width > (1u << 20) || p.height > (1u << 20) ||
        p.bytes != static_cast<tmsize_t>(std::uint64_t{p.width} * p.height * h.texel()))
        return fail(ErrorCode::damaged, phrase("strips or tiles of {}×{} texels in {} bytes", p.width, p.height, p.bytes));
    if (p.bytes > (1 << 30)) return fail(ErrorCode::limit, "a strip or tile of more than a gigabyte");
    return p;
}

/// Where a piece's rows go in the picture.
template <class Visit>
Status each_piece(const Header& h, const Pieces& p, const Visit& visit) {
    std::uint32_t index = 0;
    for (std::uint32_t y = 0; y < h.height; y += p.height)
        for (std::uint32_t x = 0; x < h.width; x += p.width)
            SKIVET_CHECK(visit(index++, x, y, std::min(p.width, h.width - x), std::min(p.height, h.height - y)));
    return {};
}

/// Calls `row_of_pieces(y, height, texels)` for each row of strips or tiles, from the top: `height` rows of the picture's whole width.
template <class Row>
Status each_row_of_pieces(TIFF* file, const Header& h, const Pieces& p, const Row& row_of_pieces) {
    Bytes row(std::size_t{h.width} * std::min(p.height, h.height) * h.texel()), piece(static_cast<std::size_t>(p.bytes));
    return each_piece(h, p,
                      [&](std::uint32_t index, std::uint32_t x, std::uint32_t y, std::uint32_t width, std::uint32_t height) -> Status {
                          std::fill(piece.begin(), piece.end(), std::byte{0});
                          const auto got = p.tiled ? TIFFReadEncodedTile(file, index, piece.data(), p.bytes)
                                                   : TIFFReadEncodedStrip(file, index, piece.data(), p.bytes);
                          if (got < 0) return tiff_error(p.tiled ? phrase("tile {}", index) : phrase("strip {}", index));
                          for (std::uint32_t r = 0; r < height; ++r)
                              std::memcpy(row.data() + (std::size_t{r} * h.width + x) * h.texel(),
                                          piece.data() + std::size_t{r} * p.width * h.texel(), width * h.texel());
                          if (x + width < h.width) return {};
                          return row_of_pieces(y, height, std::span(row).first(std::size_t{h.width} * height * h.texel()));
                      });
}

Result<Bytes> read_texels(TIFF* file, const Header& h) {
    SKIVET_TRY(const auto p, pieces_of(file, h));
    Bytes out(std::size_t{h.width} * h.height * h.texel());
    SKIVET_CHECK(each_row_of_pieces(file, h, p, [&](std::uint32_t y, std::uint32_t, ByteSpan texels) -> Status {
        std::copy(texels.begin(), texels.end(), out.begin() + static_cast<std::ptrdiff_t>(std::size_t{y} * h.width * h.texel()));
        return {};
    }));
    return out;
}

void invert(std::span<std::byte> texels) {
    for (auto& b : texels) b = ~b;
}

/// The colors of a palette's numbers.
Result<Bytes> colors_of(TIFF* file, ByteSpan numbers) {
    std::uint16_t *red = nullptr, *green = nullptr, *blue = nullptr;
    if (!TIFFGetField(file, TIFFTAG_COLORMAP, &red, &green, &blue)) return fail(ErrorCode::damaged, "the color map is missing");
    Bytes out;
    out.reserve(numbers.size() * 3);
    for (const auto index : numbers)
        for (const auto* channel : {red, green, blue}) out.push_back(static_cast<std::byte>(channel[static_cast<std::size_t>(index)] >> 8));
    return out;
}

/// The first value of the first directory that lies behind the end of the file: the library shows such a picture as well as it can and says
/// nothing. TIFF 6.0 section 2: a directory is a count and entries of 12 bytes (tag, type, count, value or its place). BigTIFF is not
/// looked at.
std::optional<Error> cut_off(ByteSpan d) {
    if (d.size() < 8 || (d[0] != d[1])) return std::nullopt;
    const auto order = d[0] == std::byte{'M'} ? ByteOrder::big : ByteOrder::little;
    const auto number = [&](std::uint64_t at, unsigned width) { return load_uint(d.data() + at, width, order); };
    if (number(2, 2) != 42) return std::nullopt;
    const auto directory = number(4, 4);
    const auto missing = [&](std::uint64_t at, std::uint64_t end) {
        return Error{
            ErrorCode::damaged,
            phrase("a value of the directory: needs {} bytes at {}, the file has {}", grouped(end - at), grouped(at), grouped(d.size())),
            {},
            at,
            "The file is cut off"};
    };
    if (directory + 2 > d.size()) return missing(directory, directory + 2);
    const auto count = number(directory, 2);
    if (directory + 2 + count * 12 + 4 > d.size()) return missing(directory, directory + 2 + count * 12 + 4);
    constexpr std::uint8_t sizes[] = {0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8};  // by type
    for (std::uint64_t i = 0; i < count; ++i) {
        const auto entry = directory + 2 + i * 12, type = number(entry + 2, 2);
        const auto bytes = type < std::size(sizes) ? number(entry + 4, 4) * sizes[type] : 0;
        const auto at = number(entry + 8, 4);
        if (bytes > 4 && at + bytes > d.size()) return missing(at, at + bytes);
    }
    return std::nullopt;
}

}  // namespace

KindTraits TiffKind::traits() const { return {.picture = true, .extensions = {"tif", "tiff"}}; }

bool TiffKind::recognize(ByteSpan head, std::string_view) const {
    if (head.size() < 8) return false;
    const auto mark = as_text(head.first(4));
    using namespace std::string_literals;
    return mark == "II*\0"s || mark == "MM\0*"s || mark == "II+\0"s || mark == "MM\0+"s;
}

Result<TextureLayout> TiffKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    if (data.size() < file_size && file_size < (256u << 20))
        return fail(ErrorCode::limit, "the directory of a TIFF file can lie anywhere, so all of it is needed");
    Memory memory{{}, 0, 0, data};
    const auto file = open_file(memory, "rm");
    if (!file) return tiff_error("header");
    SKIVET_TRY(const auto h, header_of(file.get()));
    TextureLayout out;
    out.direct = false;
    out.desc.format = h.format;
    out.desc.width = h.width;
    out.desc.height = h.height;
    if (info(h.format).is_float()) out.desc.color = ColorSpace::linear;
    SKIVET_CHECK(check_desc(out.desc, limits));
    SKIVET_CHECK(check_claim(out.desc, file_size, limits));
    out.surfaces.push_back({0, 0, 0, 0, h.width, h.height, 0, level_bytes(h.format, h.width, h.height)});
    if (data.size() == file_size) out.damage = cut_off(data);
    return out;
}

Result<Bytes> TiffKind::bytes(ByteSpan data, const TextureLayout&, const Surface&) const {
    Memory memory{{}, 0, 0, data};
    const auto file = open_file(memory, "rm");
    if (!file) return tiff_error("header");
    SKIVET_TRY(const auto h, header_of(file.get()));
    SKIVET_TRY(auto texels, read_texels(file.get(), h));
    if (h.inverted) invert(texels);
    if (!h.palette) return texels;
    return colors_of(file.get(), texels);
}

Result<bool> TiffKind::read_bands(ByteSpan data, const TextureLayout& layout, const Surface&,
                                  const std::function<Status(ByteSpan bytes, std::uint32_t height)>& band) const {
    Memory memory{{}, 0, 0, data};
    const auto file = open_file(memory, "rm");
    if (!file || layout.damage) return false;
    SKIVET_TRY(const auto h, header_of(file.get()));
    SKIVET_TRY(const auto p, pieces_of(file.get(), h));
    constexpr std::uint64_t most = 64u << 20;  // a strip of everything is no band
    if (static_cast<std::uint64_t>(p.bytes) > most || std::uint64_t{h.width} * p.height * h.texel() > most) return false;
    SKIVET_CHECK(each_row_of_pieces(file.get(), h, p, [&](std::uint32_t, std::uint32_t height, std::span<std::byte> texels) -> Status {
        if (h.inverted) invert(texels);
        if (!h.palette) return band(texels, height);
        SKIVET_TRY(const auto colors, colors_of(file.get(), texels));
        return band(colors, height);
    }));
    return true;
}

Result<Bytes> TiffKind::replace(ByteSpan data, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(data.begin(), data.end());
    auto wanted = edits.front().bytes;
    if (wanted.size() != layout.surfaces.front().size) return fail(ErrorCode::unfit, "the picture has another size");
    Memory memory{Bytes(data.begin(), data.end()), 0, data.size() * 2 + wanted.size() * 2 + (1u << 20)};
    auto file = open_file(memory, "r+");
    if (!file) return tiff_error("header");
    SKIVET_TRY(const auto h, header_of(file.get()));
    if (h.palette) return fail(ErrorCode::unsupported, "a TIFF with a palette is only read", "Save the original as RGB");
    SKIVET_TRY(const auto p, pieces_of(file.get(), h));
    SKIVET_TRY(const auto before, read_texels(file.get(), h));
    if (h.inverted) invert(wanted);
    Bytes piece(static_cast<std::size_t>(p.bytes));
    SKIVET_CHECK(
        each_piece(h, p, [&](std::uint32_t index, std::uint32_t x, std::uint32_t y, std::uint32_t width, std::uint32_t height) -> Status {
            bool changed = false;
            std::fill(piece.begin(), piece.end(), std::byte{0});
            for (std::uint32_t row = 0; row < height; ++row) {
                const auto at = (std::size_t{y + row} * h.width + x) * h.texel();
                changed = changed || std::memcmp(before.data() + at, wanted.data() + at, width * h.texel()) != 0;
                std::memcpy(piece.data() + std::size_t{row} * p.width * h.texel(), wanted.data() + at, width * h.texel());
            }
            if (!changed) return {};
            // The last strip may be shorter; tiles are always whole.
            const auto size = p.tiled ? p.bytes : static_cast<tmsize_t>(std::size_t{height} * p.width * h.texel());
            const auto put = p.tiled ? TIFFWriteEncodedTile(file.get(), index, piece.data(), size)
                                     : TIFFWriteEncodedStrip(file.get(), index, piece.data(), size);
            if (put < 0) return tiff_error(p.tiled ? phrase("writing tile {}", index) : phrase("writing strip {}", index));
            return {};
        }));
    if (!TIFFRewriteDirectory(file.get()) && !TIFFFlush(file.get())) return tiff_error("writing the directory");
    file.reset();
    return std::move(memory.bytes);
}

namespace {

/// `row` gives the samples of row y.
Result<Bytes> write_rows(std::uint32_t width, std::uint32_t height, bool alpha, std::uint16_t bits,
                         const std::function<void(std::uint32_t y, std::byte* out)>& row) {
    const std::uint16_t samples = alpha ? 4 : 3;
    const auto row_bytes = std::size_t{width} * samples * bits / 8;
    Memory memory;
    memory.most = row_bytes * height + row_bytes * height / 8 + (1u << 20);
    {
        const auto file = open_file(memory, "w");
        if (!file) return tiff_error("cannot begin a TIFF file");
        TIFFSetField(file.get(), TIFFTAG_IMAGEWIDTH, width);
        TIFFSetField(file.get(), TIFFTAG_IMAGELENGTH, height);
        TIFFSetField(file.get(), TIFFTAG_BITSPERSAMPLE, bits);
        TIFFSetField(file.get(), TIFFTAG_SAMPLESPERPIXEL, samples);
        TIFFSetField(file.get(), TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
        TIFFSetField(file.get(), TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
        TIFFSetField(file.get(), TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT);
        TIFFSetField(file.get(), TIFFTAG_COMPRESSION, COMPRESSION_ADOBE_DEFLATE);
        TIFFSetField(file.get(), TIFFTAG_PREDICTOR, PREDICTOR_HORIZONTAL);
        TIFFSetField(file.get(), TIFFTAG_ROWSPERSTRIP,
                     std::max<std::uint32_t>(1, static_cast<std::uint32_t>((256u << 10) / std::max<std::size_t>(1, row_bytes))));
        const std::uint16_t unassociated = EXTRASAMPLE_UNASSALPHA;
        if (alpha) TIFFSetField(file.get(), TIFFTAG_EXTRASAMPLES, 1, &unassociated);
        Bytes line(row_bytes);
        for (std::uint32_t y = 0; y < height; ++y) {
            row(y, line.data());
            if (TIFFWriteScanline(file.get(), line.data(), y, 0) < 0) return tiff_error("cannot write a row");
        }
        if (TIFFFlush(file.get()) == 0) return tiff_error("cannot end the file");
    }
    return std::move(memory.bytes);
}

}  // namespace

Result<Bytes> write_tiff(const Image& image) {
    const bool alpha = std::any_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] != 255; });
    return write_rows(image.width, image.height, alpha, 8, [&](std::uint32_t y, std::byte* out) {
        for (std::uint32_t x = 0; x < image.width; ++x)
            for (std::size_t c = 0; c < (alpha ? 4u : 3u); ++c) *out++ = std::byte{image.at(x, y)[c]};
    });
}

Result<Bytes> write_tiff16(const ImageF& image) {
    const bool alpha = std::any_of(image.texels.begin(), image.texels.end(), [](const TexelF& t) { return t[3] < 1; });
    return write_rows(image.width, image.height, alpha, 16, [&](std::uint32_t y, std::byte* out) {
        for (std::uint32_t x = 0; x < image.width; ++x)
            for (std::size_t c = 0; c < (alpha ? 4u : 3u); ++c, out += 2) {
                const auto value = static_cast<std::uint16_t>(std::lround(std::clamp(image.at(x, y)[c], 0.0f, 1.0f) * 65535));
                std::memcpy(out, &value, 2);  // libtiff writes the machine's own order and says so
            }
    });
}

}  // namespace skivet
