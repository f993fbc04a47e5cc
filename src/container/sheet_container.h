#pragma once
#include "container/kinds.h"
#include "sheet/sheet.h"

namespace skivet {

/// An archive whose layout a sheet describes. Reading and writing both follow from the sheet's meanings.
class SheetContainer final : public Container {
public:
    [[nodiscard]] static Result<std::unique_ptr<Container>> open(FileView file, std::shared_ptr<const Sheet> sheet, const ReadLimits& limits);

    [[nodiscard]] std::string kind() const override { return sheet_->name; }
    [[nodiscard]] Result<Bytes> read(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> read_head(std::size_t entry, std::size_t count) const override;
    [[nodiscard]] Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override;
    [[nodiscard]] std::vector<Segment> segments() const override;

private:
    [[nodiscard]] Status read_table(ByteSpan file, const ReadLimits& limits);
    [[nodiscard]] Result<ByteSpan> packed(ByteSpan file, std::size_t entry) const;
    [[nodiscard]] Result<Bytes> unpack(ByteSpan packed, std::size_t entry, const ReadLimits& limits) const;
    /// Bytes the entry may take where it is: up to the next thing the file has; 0 when other entries share its data.
    [[nodiscard]] std::uint64_t room(std::size_t entry) const;

    FileView file_;
    std::shared_ptr<const Sheet> sheet_;
    RecordValues header_;
    std::vector<RecordValues> records_;
    std::vector<std::uint64_t> starts_;   ///< sorted beginnings of everything in the file, and its end
    std::uint64_t table_at_ = 0;
    std::uint64_t table_end_ = 0;
};

[[nodiscard]] std::shared_ptr<const ContainerKind> sheet_kind(std::shared_ptr<const Sheet> sheet);

}  // namespace skivet
