#pragma once
#include "sheet/level_storage.h"
#include "texture/texture.h"

namespace skivet {

/// A texture kind a sheet describes.
class SheetTextureKind final : public TextureKind {
public:
    explicit SheetTextureKind(Sheet sheet) : sheet_(std::move(sheet)) {}
    [[nodiscard]] std::string name() const override { return sheet_.name; }
    [[nodiscard]] const Sheet& sheet() const { return sheet_; }
    /// Bytes the levels take behind a header.
    [[nodiscard]] Result<std::uint64_t> needed(ByteSpan header, const ReadLimits& limits) const;
    /// Its marks are the bytes at the beginning that the sheet recognizes it by.
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    /// Of a texture in several files only its own file's size is stated, and what is joined is larger: then any fits.
    [[nodiscard]] bool fits_size(std::uint64_t size) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Spread> spread(ByteSpan data, std::string_view path, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<std::optional<IndexedPicture>> indexed(ByteSpan file, const TextureLayout& layout,
                                                                const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;
    /// Where fields of the header say width and height, and everything else follows from them: no palette, no other files, no stated
    /// pitch, no checksum but over the payload.
    [[nodiscard]] bool can_resize(const TextureLayout& layout) const override;
    [[nodiscard]] Result<Bytes> resized(ByteSpan file, const TextureLayout& layout, const TextureDesc& desc,
                                        ByteSpan payload) const override;

private:
    /// What a header makes of the sheet.
    struct Plan {
        HeaderRead header;
        TextureDesc desc;
        LevelStorage storage;
        std::uint64_t row_pitch = 0;   ///< of level 0, as stated; 0: not stated
        std::uint64_t palette_at = 0;  ///< in the joined bytes
        std::uint64_t palette_entries = 0;
        std::uint64_t start = 0, end = 0;  ///< of the levels in the texture's own file
        std::vector<Surface> surfaces;
        std::vector<SiblingFile> siblings;
        bool plain = true;  ///< every level lies as the format has it
    };
    [[nodiscard]] Result<Plan> plan(ByteSpan data, std::string_view path, const ReadLimits& limits) const;
    [[nodiscard]] Result<TextureDesc> describe(const RecordValues& header, const ReadLimits& limits) const;
    [[nodiscard]] Status lay_out_level(Plan& plan, std::uint32_t mip, std::uint32_t layer, std::uint32_t face, std::uint64_t start,
                                       bool aligned, std::uint64_t& end) const;
    [[nodiscard]] Status lay_out_run(Plan& plan, std::uint32_t first, std::uint32_t last, std::uint64_t start, std::uint64_t& end) const;
    [[nodiscard]] LevelStorage storage_of(const Plan& plan, const Surface& s) const;
    [[nodiscard]] std::uint64_t stored_bytes(const Plan& plan, const Surface& s) const;
    /// The levels as they lie one after the other, unpacked where they are packed, and where the first of them is in it.
    struct Payload {
        Bytes owned;
        ByteSpan bytes;
        std::uint64_t at = 0;  ///< what offsets of surfaces count from
    };
    [[nodiscard]] std::uint64_t unpacked_end(const Plan& plan) const;
    [[nodiscard]] Result<Payload> payload_of(const Plan& plan, ByteSpan file) const;
    /// Bytes of the file that a packed payload takes.
    [[nodiscard]] Result<std::uint64_t> packed_size(const Plan& plan, ByteSpan file) const;
    [[nodiscard]] Result<std::vector<Texel>> palette_of(const Plan& plan, ByteSpan file) const;
    [[nodiscard]] Result<Bytes> put_back(const Plan& plan, ByteSpan file, Bytes payload) const;
    /// Writes a number into a field of the header.
    [[nodiscard]] Status put_number(Bytes& file, const HeaderRead& header, const FieldValue& field, std::uint64_t number) const;
    [[nodiscard]] Status sum_payload(const Plan& plan, Bytes& file) const;
    [[nodiscard]] Bytes reordered(Bytes texels, Format format, bool to_format) const;
    Sheet sheet_;
};

}  // namespace skivet
