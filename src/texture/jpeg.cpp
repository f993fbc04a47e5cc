#include "texture/jpeg.h"

#include <jpeglib.h>
#include <cstdio>
#include <limits>
#include <stdexcept>
#include <utility>

#include "base/phrase.h"
#include "codec/codec.h"

namespace skivet {
namespace {

/// libjpeg reports errors by a function that must not return; an exception leaves its C frames, which hold nothing to free.
struct JpegError : std::runtime_error {
    using std::runtime_error::runtime_error;
};

struct TooManyScans {};

struct ErrorManager : jpeg_error_mgr {
    ErrorManager() {
        jpeg_std_error(this);
        error_exit = [](j_common_ptr info) {
            std::array<char, JMSG_LENGTH_MAX> text{};
            info->err->format_message(info, text.data());
            throw JpegError(text.data());
        };
        output_message = [](j_common_ptr) {};
        emit_message = [](j_common_ptr, int) {};
    }
};

constexpr long memory_limit = 1L << 30;

class Reader {
public:
    // Delegating: once the first constructor is done, an error in the second one's body runs the destructor.
    Reader() {
        info.err = &errors_;
        jpeg_create_decompress(&info);
        info.mem->max_memory_to_use = memory_limit;
        // Progressive files can make the library do much work for few bytes: each scan, however short, is a walk over the whole picture.
        progress_.progress_monitor = [](j_common_ptr common) {
            const auto& i = *reinterpret_cast<j_decompress_ptr>(common);
            if (static_cast<std::uint64_t>(i.input_scan_number) > ReadLimits{}.most_scans(std::uint64_t{i.image_width} * i.image_height))
                throw TooManyScans();
        };
        info.progress = &progress_;
    }
    explicit Reader(ByteSpan file, bool keep_markers = false) : Reader() {
        jpeg_mem_src(&info, reinterpret_cast<const unsigned char*>(file.data()), static_cast<unsigned long>(file.size()));
        if (keep_markers) {
            jpeg_save_markers(&info, JPEG_COM, 0xFFFF);
            for (int m = 0; m < 16; ++m) jpeg_save_markers(&info, JPEG_APP0 + m, 0xFFFF);
        }
        jpeg_read_header(&info, TRUE);
    }
    Reader(const Reader&) = delete;
    Reader& operator=(const Reader&) = delete;
    ~Reader() { jpeg_destroy_decompress(&info); }
    jpeg_decompress_struct info{};

private:
    ErrorManager errors_;
    jpeg_progress_mgr progress_{};
};

/// The library's own one in memory says where its buffer is only at the end: after an error nobody could free what it grew to.
struct Destination : jpeg_destination_mgr {
    Bytes bytes;
    Destination() : jpeg_destination_mgr{} {
        init_destination = [](j_compress_ptr info) { of(info).grow(4096); };
        empty_output_buffer = [](j_compress_ptr info) -> boolean { return of(info).grow(of(info).bytes.size()), TRUE; };
        term_destination = [](j_compress_ptr info) { of(info).bytes.resize(of(info).bytes.size() - of(info).free_in_buffer); };
    }

private:
    static Destination& of(j_compress_ptr info) { return *static_cast<Destination*>(info->dest); }
    void grow(std::size_t by) {
        const auto filled = bytes.size();
        bytes.resize(filled + by);
        next_output_byte = reinterpret_cast<JOCTET*>(bytes.data() + filled);
        free_in_buffer = by;
    }
};

class Writer {
public:
    Writer() {
        info.err = &errors_;
        jpeg_create_compress(&info);
        info.mem->max_memory_to_use = memory_limit;
        info.dest = &destination_;
    }
    Writer(const Writer&) = delete;
    Writer& operator=(const Writer&) = delete;
    ~Writer() { jpeg_destroy_compress(&info); }
    jpeg_compress_struct info{};
    /// Once, at the end.
    [[nodiscard]] Bytes take() { return std::move(destination_.bytes); }

private:
    ErrorManager errors_;
    Destination destination_;
};

template <class Work>
auto guarded(const Work& work) -> decltype(work()) {
    try {
        return work();
    } catch (const JpegError& error) {
        return fail(ErrorCode::damaged, error.what());
    } catch (const TooManyScans&) {
        return fail(ErrorCode::limit, "many more scans than a picture of its size has", "Save it anew; a progressive file has about ten");
    }
}

/// Rows as they come, each to where to(y) says; of 1 / `reduced` of the sides, rounded up. sized(width, height) comes first.
template <class Sized, class To>
void read_rows(ByteSpan file, J_COLOR_SPACE space, unsigned reduced, const Sized& sized, const To& to) {
    Reader reader(file);
    auto& info = reader.info;
    info.scale_num = 1;
    info.scale_denom = reduced;
    info.out_color_space = space;
    info.dct_method = JDCT_ISLOW;
    jpeg_start_decompress(&info);
    sized(info.output_width, info.output_height);
    while (info.output_scanline < info.output_height) {
        auto* line = static_cast<JSAMPROW>(to(info.output_scanline));
        jpeg_read_scanlines(&info, &line, 1);
    }
}

/// The picture without its samples beside it: the library fills the texels.
Result<Image> decompressed(ByteSpan file, unsigned reduced = 1) {
    return guarded([&]() -> Result<Image> {
        Image out;
        read_rows(
            file, JCS_EXT_RGBA, reduced, [&](std::uint32_t width, std::uint32_t height) { out = Image(width, height); },
            [&](std::uint32_t y) { return out.texels[std::size_t{y} * out.width].data(); });
        return out;
    });
}

J_COLOR_SPACE stored_space(const TextureLayout& layout) { return layout.desc.format == Format::L8 ? JCS_GRAYSCALE : JCS_RGB; }

/// The picture with the original's tables and subsampling.
Bytes compressed(const jpeg_decompress_struct& like, const Bytes& texels, const TextureLayout& layout) {
    Writer writer;
    auto& info = writer.info;
    const bool gray = layout.desc.format == Format::L8;
    info.image_width = layout.desc.width;
    info.image_height = layout.desc.height;
    info.input_components = gray ? 1 : 3;
    info.in_color_space = gray ? JCS_GRAYSCALE : JCS_RGB;
    jpeg_set_defaults(&info);
    jpeg_set_colorspace(&info, like.jpeg_color_space);
    info.dct_method = JDCT_ISLOW;
    for (int i = 0; i < NUM_QUANT_TBLS; ++i) {
        if (!like.quant_tbl_ptrs[i]) continue;
        if (!info.quant_tbl_ptrs[i]) info.quant_tbl_ptrs[i] = jpeg_alloc_quant_table(reinterpret_cast<j_common_ptr>(&info));
        std::copy_n(like.quant_tbl_ptrs[i]->quantval, DCTSIZE2, info.quant_tbl_ptrs[i]->quantval);
    }
    for (int c = 0; c < info.num_components; ++c) {
        info.comp_info[c].h_samp_factor = like.comp_info[c].h_samp_factor;
        info.comp_info[c].v_samp_factor = like.comp_info[c].v_samp_factor;
        info.comp_info[c].quant_tbl_no = like.comp_info[c].quant_tbl_no;
    }
    jpeg_start_compress(&info, TRUE);
    const std::size_t row = std::size_t{info.image_width} * static_cast<std::size_t>(info.input_components);
    while (info.next_scanline < info.image_height) {
        auto* line = reinterpret_cast<JSAMPROW>(const_cast<std::byte*>(texels.data() + row * info.next_scanline));
        jpeg_write_scanlines(&info, &line, 1);
    }
    jpeg_finish_compress(&info);
    return writer.take();
}

/// Whether some texel under the block changed; blocks of subsampled channels cover more texels. One flag a texel.
bool touched(const std::vector<std::uint8_t>& changed, const TextureDesc& d, JDIMENSION bx, JDIMENSION by, unsigned width,
             unsigned height) {
    for (std::uint32_t y = by * height; y < std::min(d.height, (by + 1) * height); ++y)
        for (std::uint32_t x = bx * width; x < std::min(d.width, (bx + 1) * width); ++x)
            if (changed[std::size_t{y} * d.width + x]) return true;
    return false;
}

Result<Bytes> merged(ByteSpan file, const TextureLayout& layout, const Bytes& wanted) {
    const auto& d = layout.desc;
    const std::size_t texel = info(d.format).block_bytes;
    std::vector<std::uint8_t> changed(std::size_t{d.width} * d.height);
    Bytes row(d.width * texel);
    const auto compare = [&](std::uint32_t y) {
        for (std::size_t x = 0, at = std::size_t{y} * d.width; x < d.width; ++x, ++at)
            changed[at] = std::memcmp(&row[x * texel], &wanted[at * texel], texel) != 0;
    };
    read_rows(
        file, stored_space(layout), 1, [](auto...) {},
        [&](std::uint32_t y) {
            if (y > 0) compare(y - 1);
            return reinterpret_cast<JSAMPROW>(row.data());
        });
    if (d.height > 0) compare(d.height - 1);
    Reader original(file, true);
    auto& old = original.info;
    auto** old_blocks = jpeg_read_coefficients(&old);
    for (const auto* table : old.quant_tbl_ptrs)  // the library divides by them
        if (table && std::find(std::begin(table->quantval), std::end(table->quantval), 0) != std::end(table->quantval))
            return fail(ErrorCode::damaged, "a quantization table holds a zero (ITU-T T.81 B.2.4.1 wants 1 or more)",
                        "The picture can be shown, but nothing can be put into it");
    const auto fresh_file = compressed(old, wanted, layout);
    Reader fresh(fresh_file);
    auto** fresh_blocks = jpeg_read_coefficients(&fresh.info);
    const auto mcu_width = static_cast<unsigned>(old.max_h_samp_factor) * DCTSIZE,
               mcu_height = static_cast<unsigned>(old.max_v_samp_factor) * DCTSIZE;
    for (int c = 0; c < old.num_components; ++c) {
        const auto& part = old.comp_info[c];
        const auto& other = fresh.info.comp_info[c];
        const unsigned width = mcu_width / static_cast<unsigned>(part.h_samp_factor),
                       height = mcu_height / static_cast<unsigned>(part.v_samp_factor);
        for (JDIMENSION by = 0; by < std::min(part.height_in_blocks, other.height_in_blocks); ++by) {
            auto** to = old.mem->access_virt_barray(reinterpret_cast<j_common_ptr>(&old), old_blocks[c], by, 1, TRUE);
            auto** from = fresh.info.mem->access_virt_barray(reinterpret_cast<j_common_ptr>(&fresh.info), fresh_blocks[c], by, 1, FALSE);
            for (JDIMENSION bx = 0; bx < std::min(part.width_in_blocks, other.width_in_blocks); ++bx)
                if (touched(changed, d, bx, by, width, height)) std::copy_n(from[0][bx], DCTSIZE2, to[0][bx]);
        }
    }
    Writer writer;
    jpeg_copy_critical_parameters(&old, &writer.info);
    if (old.progressive_mode) jpeg_simple_progression(&writer.info);
    writer.info.restart_interval = old.restart_interval;
    writer.info.optimize_coding = TRUE;
    // The markers below hold the file's own header.
    writer.info.write_JFIF_header = FALSE;
    writer.info.write_Adobe_marker = FALSE;
    jpeg_write_coefficients(&writer.info, old_blocks);
    for (const auto* m = old.marker_list; m; m = m->next) jpeg_write_marker(&writer.info, m->marker, m->data, m->data_length);
    jpeg_finish_compress(&writer.info);
    return writer.take();
}

}  // namespace

KindTraits JpegKind::traits() const {
    return {.picture = true, .extensions = {"jpg", "jpeg"}, .marks = {"\xFF\xD8\xFF"}, .certainty = 0.8};
}

std::optional<std::uint64_t> JpegKind::stated_size(ByteSpan d, const ReadLimits&) const {
    // ITU-T T.81 B.1: segments, then scan data in which FF is followed by 00 or a restart mark.
    for (std::size_t at = 2; at + 4 <= d.size();) {
        if (d[at] != std::byte{0xFF}) return std::nullopt;
        const auto mark = static_cast<unsigned>(d[at + 1]);
        const auto length = static_cast<std::size_t>(load_uint(d.data() + at + 2, 2, ByteOrder::big));
        if (mark < 0xC0 || length < 2 || at + 2 + length > d.size()) return std::nullopt;
        at += 2 + length;
        if (mark != 0xDA) continue;
        for (; at + 2 <= d.size(); ++at) {
            if (d[at] != std::byte{0xFF}) continue;
            const auto next = static_cast<unsigned>(d[at + 1]);
            if (next == 0xD9) return at + 2;
            if (next != 0 && (next < 0xD0 || next > 0xD7)) break;  // another segment of a progressive file
        }
    }
    return std::nullopt;
}

bool JpegKind::recognize(ByteSpan head, std::string_view) const {
    return head.size() >= 4 && head[0] == std::byte{0xFF} && head[1] == std::byte{0xD8} && head[2] == std::byte{0xFF} &&
           head[3] >= std::byte{0xC0};
}

/// The library fills up a file that ends early with gray and only warns; whole files end with the marker EOI (ITU-T T.81, B.1.1.3), some
/// with more behind it. Looked for behind the first scan's header, because a preview among the markers before it has an end of its own.
static bool has_end(ByteSpan file) {
    std::size_t scan = 2;
    while (scan + 4 <= file.size() && file[scan + 1] != std::byte{0xDA})
        scan += file[scan + 1] == std::byte{0xFF} ? 1 : 2 + load_uint(file.data() + scan + 2, 2, ByteOrder::big);
    for (std::size_t at = file.size(); at >= scan + 2; --at)
        if (file[at - 2] == std::byte{0xFF} && file[at - 1] == std::byte{0xD9}) return true;
    return false;
}

Result<TextureLayout> JpegKind::layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const {
    return guarded([&]() -> Result<TextureLayout> {
        Reader reader(data);
        const auto& info = reader.info;
        if (info.num_components != 1 && info.num_components != 3)
            return fail(ErrorCode::unsupported, phrase("{} color components", info.num_components),
                        "Gray and RGB are read; save it without CMYK");
        TextureLayout out;
        out.direct = false;
        out.desc.format = info.num_components == 1 ? Format::L8 : Format::RGB8;
        out.desc.width = info.image_width;
        out.desc.height = info.image_height;
        SKIVET_CHECK(check_desc(out.desc, limits));
        SKIVET_CHECK(check_claim(out.desc, file_size, limits));
        out.surfaces.push_back(
            {0, 0, 0, 0, out.desc.width, out.desc.height, 0, level_bytes(out.desc.format, out.desc.width, out.desc.height)});
        if (data.size() == file_size && !has_end(data))
            out.damage = Error{ErrorCode::damaged,
                               "picture data: the end marker (EOI) is missing",
                               {},
                               file_size,
                               "The file is cut off; what is there is shown"};
        return out;
    });
}

Result<Bytes> JpegKind::bytes(ByteSpan file, const TextureLayout& layout, const Surface&) const {
    if (layout.damage) return fail(*layout.damage);
    return guarded([&]() -> Result<Bytes> {
        Bytes out(layout.surfaces.front().size);
        const auto row = static_cast<std::size_t>(level_bytes(layout.desc.format, layout.desc.width, 1));
        read_rows(
            file, stored_space(layout), 1, [](auto...) {},
            [&](std::uint32_t y) { return reinterpret_cast<JSAMPROW>(out.data() + row * y); });
        return out;
    });
}

std::optional<Reduced> JpegKind::decode_small(ByteSpan file, const TextureLayout& layout, const Surface&, std::uint32_t side) const {
    const auto longer = std::max(layout.desc.width, layout.desc.height);
    unsigned reduced = 1;
    while (reduced < 8 && longer / (reduced * 2) >= side * 3 / 4) reduced *= 2;
    if (reduced == 1 || layout.damage) return std::nullopt;
    const auto image = decompressed(file, reduced);
    if (!image) return std::nullopt;  // decoding the whole says why
    return Reduced{*image, *image};   // fewer coefficients have no single texels
}

Result<Image> JpegKind::decode(ByteSpan file, const TextureLayout&, const Surface&) const { return decompressed(file); }

Result<Bytes> JpegKind::replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const {
    if (edits.empty()) return Bytes(file.begin(), file.end());
    if (edits.front().bytes.size() != layout.surfaces.front().size) return fail(ErrorCode::unfit, "the picture has another size");
    return guarded([&]() -> Result<Bytes> { return merged(file, layout, edits.front().bytes); });
}

}  // namespace skivet
