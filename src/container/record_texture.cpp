#include "container/record_texture.h"

#include "base/phrase.h"
#include "texture/dds.h"
#include "texture/ktx2.h"

namespace skivet {
namespace {

/// The levels in a file of a common format; one that no DDS can say in KTX2.
Result<Bytes> written(const TextureDesc& desc, ByteSpan levels) {
    auto dds = write_dds(desc, levels);
    return dds ? dds : write_ktx2(desc, levels);
}

}  // namespace

RecordTexture::RecordTexture(const SheetTextureKind& kind, const RecordValues& record, ByteSpan image) : kind_(kind), record_(record) {
    for (const auto& value : record.values) {
        if (value.field->bit_at) {  // part of the whole number before it
            at_.push_back(at_.back());
            continue;
        }
        at_.push_back(header_.size());
        if (value.field->type == FieldType::pad) continue;
        const auto bytes = image.subspan(static_cast<std::size_t>(value.at), static_cast<std::size_t>(value.size));
        header_.insert(header_.end(), bytes.begin(), bytes.end());
    }
}

Result<TextureFile> RecordTexture::open(Bytes header, ByteSpan data, const ReadLimits& limits) const {
    TextureFile out;
    out.file = std::move(header);
    out.file.insert(out.file.end(), data.begin(), data.end());
    SKIVET_TRY(out.layout, kind_.layout(out.file, out.file.size(), limits));
    if (out.layout.damage) return fail(*out.layout.damage);
    // The kind outlives every texture opened here.
    out.kind = std::shared_ptr<const TextureKind>(std::shared_ptr<const TextureKind>(), &kind_);
    return out;
}

Result<RecordTexture::Shown> RecordTexture::shown(std::uint64_t data_size, const ReadLimits& limits, Sizes& known) const {
    SKIVET_TRY(const auto layout, kind_.layout(header_, header_.size() + data_size, limits));
    if (layout.damage) return fail(*layout.damage);
    for (const auto& [desc, shown] : known)
        if (desc == layout.desc) return shown;
    std::uint64_t levels = 0;
    for (const auto& s : layout.surfaces) levels += s.size;
    if (levels > limits.inflated_bytes) return fail(ErrorCode::limit, phrase("{} of levels are more than the limit", human_bytes(levels)));
    Shown out{".dds", 0};
    if (const auto header = write_dds(layout.desc, {})) {
        out.size = header->size() + levels;
    } else {
        out.ending = ".ktx2";
        // Its size depends on the levels' alignment, so it is written once around zeros.
        const Bytes zeros(static_cast<std::size_t>(levels));
        SKIVET_TRY(const auto whole, write_ktx2(layout.desc, zeros));
        out.size = whole.size();
    }
    if (known.size() < 64) known.emplace_back(layout.desc, out);
    return out;
}

Result<Bytes> RecordTexture::file_of(ByteSpan data, const ReadLimits& limits) const {
    SKIVET_TRY(const auto texture, open(header_, data, limits));
    SKIVET_TRY(const auto levels, payload_of(texture));
    return written(texture.layout.desc, levels);
}

Status RecordTexture::set(Bytes& header, Put& put, Meaning meaning, std::uint64_t number) const {
    for (std::size_t i = 0; i < record_.values.size(); ++i) {
        const auto& value = record_.values[i];
        if (value.field->means != meaning) continue;
        const auto at = header.begin() + static_cast<std::ptrdiff_t>(at_[i]);
        const Bytes old(at, at + static_cast<std::ptrdiff_t>(value.size));
        SKIVET_TRY(const auto bytes, field_bytes(*value.field, kind_.sheet().order, number, old));
        std::copy(bytes.begin(), bytes.end(), at);
        put.fields.emplace_back(&value, number);
        return {};
    }
    return fail(ErrorCode::unfit, phrase("its {} is another, and no field of the record says it", name_of(meaning)),
                "Keep what the original has, or say in the sheet which field it is");
}

Result<RecordTexture::Put> RecordTexture::put(ByteSpan old_data, ByteSpan file, const ReadLimits& limits) const {
    SKIVET_TRY(const auto before, open(header_, old_data, limits));
    auto edited = TextureFile::open(TextureKinds::standard(), Bytes(file.begin(), file.end()), {}, limits);
    if (!edited)
        return fail(ErrorCode::unfit, phrase("is no texture: {}", edited.error().message()),
                    "This entry takes a DDS or KTX2 file; its own can be exported as one");
    const auto& old = before.layout.desc;
    const auto& now = edited->layout.desc;
    Put out;
    auto header = header_;
    const std::tuple<Meaning, std::uint32_t, std::uint32_t> numbers[] = {
        {Meaning::width, old.width, now.width}, {Meaning::height, old.height, now.height}, {Meaning::depth, old.depth, now.depth},
        {Meaning::mips, old.mips, now.mips},    {Meaning::layers, old.layers, now.layers}, {Meaning::faces, old.faces, now.faces}};
    for (const auto& [meaning, was, is] : numbers)
        if (was != is && !(meaning == Meaning::mips && kind_.sheet().all_mips)) SKIVET_CHECK(set(header, out, meaning, is));
    if (old.format != now.format) {
        const auto* field = record_.with(Meaning::format);
        const std::pair<const std::uint64_t, std::string>* found = nullptr;
        if (field)
            for (const auto& entry : field->field->values)
                if (const auto named = format_and_color(entry.second);
                    named && named->first == now.format && (!found || named->second == now.color))
                    found = &entry;
        if (!found)
            return fail(ErrorCode::unfit, phrase("is {}, and the sheet has no number for it here; the original is {}",
                                                 info(now.format).name, info(old.format).name));
        SKIVET_CHECK(set(header, out, Meaning::format, found->first * field->field->unit + static_cast<std::uint64_t>(field->field->add)));
    }
    auto target = before;
    if (!out.fields.empty()) {
        // Levels of other sizes lie elsewhere; what is behind the last one is kept.
        SKIVET_TRY(const auto room, kind_.needed(header, limits));
        SKIVET_TRY(const auto had, kind_.needed(header_, limits));
        Bytes data(static_cast<std::size_t>(room));
        if (had < old_data.size()) data.insert(data.end(), old_data.begin() + static_cast<std::ptrdiff_t>(had), old_data.end());
        SKIVET_TRY(target, open(header, data, limits));
    }
    std::vector<SurfaceEdit> edits;
    for (std::size_t i = 0; i < target.layout.surfaces.size(); ++i) {
        const auto& s = target.layout.surfaces[i];
        const auto* from = edited->layout.find(s.mip, s.layer, s.face, s.slice);
        if (!from) return fail(ErrorCode::unfit, phrase("mip {}: is not in the file", s.mip));
        SKIVET_TRY(auto bytes, edited->surface_bytes(*from));
        edits.push_back({i, std::move(bytes)});
    }
    SKIVET_TRY(const auto whole, kind_.replace(target.file, target.layout, edits));
    out.data.assign(whole.begin() + static_cast<std::ptrdiff_t>(header.size()), whole.end());
    return out;
}

}  // namespace skivet
