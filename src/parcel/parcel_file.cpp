// The ZIP that a parcel is.
#include <fmt/format.h>
#include <fstream>

#include "base/phrase.h"
#include "container/zip.h"
#include "parcel/manifest.h"

namespace skivet {

namespace {

constexpr std::uint64_t most_manifest = 256u << 20;
constexpr std::uint64_t most_picture = 1u << 20;

/// A ZIP without entries: its end record alone (APPNOTE 6.3.10, section 4.3.16).
Bytes empty_zip() {
    ByteWriter out;
    out.le(std::uint32_t{0x06054b50});
    out.bytes.resize(22);
    return std::move(out.bytes);
}

}  // namespace

bool is_parcel(ByteSpan head) {
    // The manifest is the first entry: a local header of 30 bytes and its name.
    const auto name = manifest_name;
    return head.size() >= 30 + name.size() && load_le<std::uint32_t>(head.data()) == 0x04034b50 &&
           load_le<std::uint16_t>(head.data() + 26) == name.size() && as_text(head.subspan(30, name.size())) == name;
}

bool is_parcel_file(const std::filesystem::path& file) {
    std::array<char, 64> head{};
    std::ifstream in(file, std::ios::binary);
    in.read(head.data(), std::streamsize(head.size()));
    return is_parcel(as_bytes(std::string_view(head.data(), std::size_t(std::max<std::streamsize>(0, in.gcount())))));
}

Result<Bytes> write_parcel(const Parcel& parcel) {
    SKIVET_CHECK(check_about(parcel.about));
    Changes changes;
    std::vector<ParcelFiles> files;
    std::vector<NewEntry> entries;
    for (std::size_t i = 0; i < parcel.textures.size(); ++i) {
        const auto& t = parcel.textures[i];
        if (t.whole.empty()) {
            files.push_back({fmt::format("changes/{:05}.blocks", i + 1), {}});
            entries.push_back({files.back().change, write_change(t.change)});
        } else {
            files.push_back({{}, fmt::format("whole/{:05}", i + 1)});
            entries.push_back({files.back().whole, t.whole});
        }
        for (const auto* picture : {&t.before, &t.after})
            if (*picture) entries.push_back({(*picture)->file, (*picture)->bytes});
    }
    const auto manifest = write_manifest(parcel, files);
    const auto text = as_bytes(manifest);
    changes.added.push_back({std::string(manifest_name), Bytes(text.begin(), text.end())});
    std::move(entries.begin(), entries.end(), std::back_inserter(changes.added));
    const auto nothing = empty_zip();
    SKIVET_TRY(const auto zip, ZipContainer::open(FileView::of(nothing, "parcel"), ReadLimits{}));
    SKIVET_TRY(const auto plan, zip->plan_changes(changes, ReadLimits{}));
    if (plan.files.size() != 1) return fail(ErrorCode::io, "the parcel could not be put together");
    return planned_bytes(plan.files.front(), nothing);
}

Result<Parcel> read_parcel(const FileView& file, const ReadLimits& limits) {
    SKIVET_TRY(const auto zip, ZipContainer::open(file, limits));
    const auto read = [&](const std::string& name, std::uint64_t most) -> Result<Bytes> {
        const auto entry = zip->find(name);
        if (!entry) return fail(ErrorCode::damaged, phrase("\"{}\" is not in the parcel", name));
        const auto size = zip->entries()[*entry].size;
        if (size > most)
            return fail(ErrorCode::limit, phrase("\"{}\" has {}, at most {} are expected", name, human_bytes(size), human_bytes(most)));
        auto bytes = zip->read(*entry, limits);
        if (!bytes) return fail(std::move(bytes).error().within(name));
        return bytes;
    };
    SKIVET_TRY(const auto text, read(std::string(manifest_name), most_manifest));
    SKIVET_TRY(auto manifest, read_manifest(as_text(text), limits));
    auto& textures = manifest.parcel.textures;
    std::uint64_t all = 0;
    for (std::size_t i = 0; i < textures.size(); ++i) {
        auto& t = textures[i];
        const auto work = [&]() -> Status {
            const auto& names = manifest.files[i];
            // What a change can be at most: every unit, each in a stretch of its own.
            std::uint64_t size = 0;
            for (std::uint32_t mip = 0; mip < t.desc.mips; ++mip)
                size += level_bytes(t.desc.format, mip_side(t.desc.width, mip), mip_side(t.desc.height, mip)) *
                        mip_side(t.desc.depth, mip) * t.desc.layers * t.desc.faces;
            if (!names.change.empty()) {
                SKIVET_TRY(const auto bytes, read(names.change, (size + (1u << 20)) * 21 + 4));
                SKIVET_TRY(t.change, read_change(bytes, t.desc));
                all += bytes.size();
            } else {
                SKIVET_TRY(t.whole, read(names.whole, limits.inflated_bytes));
                if (to_hex(sha256(t.whole)) != t.becomes_file)
                    return fail(ErrorCode::damaged, "the whole texture is not what it says it becomes");
                all += t.whole.size();
            }
            if (all > 2 * limits.inflated_bytes) return fail(ErrorCode::limit, "the parcel unpacks to more than the limit");
            for (auto* picture : {&t.before, &t.after})
                if (*picture) {
                    SKIVET_TRY((*picture)->bytes, read((*picture)->file, most_picture));
                }
            return {};
        };
        if (auto done = work(); !done) return fail(std::move(done).error().within(t.inner.back()));
    }
    return std::move(manifest.parcel);
}

}  // namespace skivet
