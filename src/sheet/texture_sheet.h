#pragma once
#include "sheet/sheet.h"
#include "texture/texture.h"

namespace skivet {

/// A texture kind a sheet describes.
class SheetTextureKind final : public TextureKind {
public:
    explicit SheetTextureKind(Sheet sheet) : sheet_(std::move(sheet)) {}
    [[nodiscard]] std::string name() const override { return sheet_.name; }
    /// Its marks are the bytes at the beginning that the sheet recognizes it by.
    [[nodiscard]] KindTraits traits() const override;
    [[nodiscard]] std::optional<std::uint64_t> stated_size(ByteSpan data, const ReadLimits& limits) const override;
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Spread> spread(ByteSpan data, std::string_view path, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;

private:
    /// What a header makes of the sheet.
    struct Plan {
        HeaderRead header;
        TextureDesc desc;
        TilingSpec tiling;
        std::uint64_t row_pitch = 0;       ///< of level 0, as stated; 0: not stated
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
    /// Bytes from one row of blocks to the next, and bytes a level takes.
    [[nodiscard]] std::uint64_t pitch_of(const Plan& plan, const Surface& s) const;
    [[nodiscard]] std::uint64_t stored_bytes(const Plan& plan, const Surface& s) const;
    [[nodiscard]] Bytes reordered(Bytes texels, Format format, bool to_format) const;
    Sheet sheet_;
};

}  // namespace skivet
