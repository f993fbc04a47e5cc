#include "workflow/own_layer.h"

#include "base/file_write.h"
#include "parcel/change.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

// The first byte of a file in delivered/ says what follows.
constexpr std::byte is_change{'C'}, is_whole{'W'};

fs::path kept_file(const fs::path& project, const std::string& original, const std::string& texture) {
    return project / "delivered" / (texture + "-" + original.substr(0, 16));
}

Result<TextureFile> open_original(const ReadContext& context, const fs::path& project, const std::string& hash, const Address& address) {
    auto bytes = read_file(project / "originals" / hash);
    if (!bytes) return fail(std::move(bytes).error().within("originals"));
    return TextureFile::open(context.textures, std::move(*bytes), address.inner.back(), context.limits);
}

Result<Bytes> read_delivered(const ReadContext& context, const Project& project, const OwnTexture& entry) {
    auto kept = read_file(kept_file(project.folder, entry.original_hash, entry.texture_hash));
    if (!kept) return fail(std::move(kept).error().within("delivered"));
    if (kept->empty()) return fail(ErrorCode::damaged, "a file in delivered/ is empty");
    const auto rest = ByteSpan(*kept).subspan(1);
    if (kept->front() == is_whole) return Bytes(rest.begin(), rest.end());
    SKIVET_TRY(const auto original, open_original(context, project.folder, entry.original_hash, entry.address));
    SKIVET_TRY(const auto change, read_change(rest, original.layout.desc));
    return apply(original, change);
}

}  // namespace

Status keep_delivered(const ReadContext& context, const fs::path& project, const std::string& original_hash, const Address& address,
                      ByteSpan texture) {
    const auto file = kept_file(project, original_hash, to_hex(sha256(texture)));
    std::error_code code;
    if (fs::exists(file, code)) return {};
    Bytes out{is_whole};
    out.insert(out.end(), texture.begin(), texture.end());
    // Files that pack their surfaces would have to be packed anew to know.
    if (const auto original = open_original(context, project, original_hash, address); original && original->layout.direct)
        if (const auto edited =
                TextureFile::open(context.textures, Bytes(texture.begin(), texture.end()), address.inner.back(), context.limits))
            if (const auto change = difference(*original, *edited)) {
                const auto bytes = write_change(*change);
                if (bytes.size() < texture.size()) {
                    out = {is_change};
                    out.insert(out.end(), bytes.begin(), bytes.end());
                }
            }
    return write_file(file, out);
}

void add_changes(OwnLayer& layer, std::span<const EntryChange> changes) {
    for (const auto& change : changes) {
        // A variant is not among the originals: it comes under its newest name, or not at all.
        const auto variant = std::find_if(layer.textures.begin(), layer.textures.end(),
                                          [&](const OwnTexture& t) { return !t.like.empty() && t.address == change.address; });
        if (variant != layer.textures.end()) {
            if (change.path.empty()) layer.textures.erase(variant);
            else variant->address.inner.back() = change.path;
            continue;
        }
        // One that has been renamed already is known by its first name.
        const auto known = std::find_if(layer.changes.begin(), layer.changes.end(), [&](const EntryChange& c) {
            auto now = c.address;
            now.inner.back() = c.path;
            return !c.path.empty() && now == change.address;
        });
        if (known == layer.changes.end()) {
            layer.changes.push_back(change);
            continue;
        }
        known->path = change.path;
        if (known->path == known->address.inner.back()) layer.changes.erase(known);
    }
}

namespace {

/// The layer's texture of an entry, a new one where it has none.
OwnTexture& texture_of(OwnLayer& layer, Address address, const std::string& like) {
    for (const auto& c : layer.changes) {
        auto now = c.address;
        now.inner.back() = c.path;
        if (!c.path.empty() && now == address) {
            address = c.address;
            break;
        }
    }
    const auto found =
        std::find_if(layer.textures.begin(), layer.textures.end(), [&](const OwnTexture& t) { return t.address == address; });
    if (found != layer.textures.end()) return *found;
    layer.textures.push_back({std::move(address), like, {}, {}, {}});
    return layer.textures.back();
}

}  // namespace

void add_texture(OwnLayer& layer, OwnTexture texture) {
    auto& there = texture_of(layer, texture.address, texture.like);
    texture.address = there.address;
    there = std::move(texture);
}

Result<OwnLayer> own_layer(const ReadContext& context, const Project& project, const fs::path& source, std::span<const Address> leave_out) {
    OwnLayer out;
    for (const auto& entry : project.stack_state.delivered) {
        if (entry.address.source != source || entry.delivery.empty()) continue;
        if (entry.what != DeliveredEntry::What::texture) {
            const EntryChange change{entry.address, entry.path};
            add_changes(out, {&change, 1});
            continue;
        }
        auto& texture = texture_of(out, entry.address, entry.like);
        const bool is_wanted = std::find(leave_out.begin(), leave_out.end(), entry.address) == leave_out.end();
        texture.original_hash = entry.original_hash;
        texture.texture_hash = is_wanted ? entry.texture_hash : std::string();
    }
    std::erase_if(out.textures, [](const OwnTexture& t) { return t.texture_hash.empty(); });
    for (auto& texture : out.textures) {
        SKIVET_TRY(texture.texture, read_delivered(context, project, texture));
    }
    return out;
}

}  // namespace skivet
