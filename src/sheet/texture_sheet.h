#pragma once
#include "sheet/sheet.h"
#include "texture/texture.h"

namespace skivet {

/// A texture kind a sheet describes.
class SheetTextureKind final : public TextureKind {
public:
    explicit SheetTextureKind(Sheet sheet) : sheet_(std::move(sheet)) {}
    [[nodiscard]] std::string name() const override { return sheet_.name; }
    [[nodiscard]] bool recognize(ByteSpan head, std::string_view path) const override;
    [[nodiscard]] Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> bytes(ByteSpan file, const TextureLayout& layout, const Surface& surface) const override;
    [[nodiscard]] Result<Bytes> replace(ByteSpan file, const TextureLayout& layout, std::span<const SurfaceEdit> edits) const override;

private:
    Sheet sheet_;
};

}  // namespace skivet
