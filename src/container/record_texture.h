#pragma once
// Textures without a header of their own, whose sides, format and levels stand in their archive's records. Such an entry is shown as a DDS
// or KTX2 file, and goes back as one: what the file says goes into the record, its levels into the data.
#include "sheet/texture_sheet.h"

namespace skivet {

class RecordTexture {
public:
    /// `record`: the values of the entry's record in `image`.
    RecordTexture(const SheetTextureKind& kind, const RecordValues& record, ByteSpan image);

    struct Shown {
        const char* ending;      ///< ".dds" or ".ktx2"
        std::uint64_t size = 0;  ///< bytes of the whole file
    };
    /// What data of so many bytes is shown as. Error when the record does not describe a texture, or one that needs more.
    /// `known` remembers what was found, since many textures of an archive are of one kind.
    using Sizes = std::vector<std::pair<TextureDesc, Shown>>;
    [[nodiscard]] Result<Shown> shown(std::uint64_t data_size, const ReadLimits& limits, Sizes& known) const;
    [[nodiscard]] Result<Bytes> file_of(ByteSpan data, const ReadLimits& limits) const;

    struct Put {
        Bytes data;
        std::vector<std::pair<const FieldValue*, std::uint64_t>> fields;  ///< of the record, and the numbers they get
    };
    /// What a file becomes. Another size, other levels or another format go in where fields say them. Error `unfit` where none does, or
    /// the file is no texture.
    [[nodiscard]] Result<Put> put(ByteSpan old_data, ByteSpan file, const ReadLimits& limits) const;

private:
    [[nodiscard]] Result<TextureFile> open(Bytes header, ByteSpan data, const ReadLimits& limits) const;
    /// Sets a number of the header's copy, or says why it cannot be.
    [[nodiscard]] Status set(Bytes& header, Put& put, Meaning meaning, std::uint64_t number) const;
    const SheetTextureKind& kind_;
    const RecordValues& record_;
    Bytes header_;                   ///< the record's fields one after the other
    std::vector<std::uint64_t> at_;  ///< where each field begins in it
};

}  // namespace skivet
