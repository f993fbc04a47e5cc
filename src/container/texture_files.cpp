#include "container/texture_files.h"

#include "base/file_write.h"
#include "base/phrase.h"

namespace skivet {
namespace {

/// The path of a file beside another one.
std::string beside(const std::string& path, const std::string& name) {
    const auto slash = path.find_last_of('/');
    return slash == std::string::npos ? name : path.substr(0, slash + 1) + name;
}

ReadSibling siblings_by(const ReadContext& context, std::shared_ptr<AddressReader> reader, Address address) {
    return [&context, reader = std::move(reader), address = std::move(address)](const std::string& name) -> Result<Bytes> {
        auto there = address;
        if (!there.inner.empty()) {
            there.inner.back() = beside(there.inner.back(), name);
            return reader->read(there);
        }
        there.source.replace_filename(name);
        std::error_code code;
        if (!std::filesystem::exists(there.source, code)) return fail(ErrorCode::missing, phrase("there is no {}", there.source.string()));
        return read_file(there.source, context.limits.inflated_bytes);
    };
}
/// Of a reader that outlives what is made of it.
std::shared_ptr<AddressReader> borrowed(AddressReader& reader) { return {std::shared_ptr<void>(), &reader}; }

}  // namespace

ReadSibling siblings_of(const ReadContext& context, const Container& source, std::vector<std::string> inner) {
    return [&context, &source, inner = std::move(inner)](const std::string& name) {
        auto there = inner;
        there.back() = beside(there.back(), name);
        return read_entry(context, source, there);
    };
}

ReadSibling siblings_of(const ReadContext& context, Address address) {
    return siblings_by(context, std::make_shared<AddressReader>(context), std::move(address));
}

Result<TextureFile> open_texture_at(const ReadContext& context, const Address& address) {
    AddressReader reader(context);
    SKIVET_TRY(auto own, reader.read(address));
    const auto path = address.inner.empty() ? address.source.string() : address.inner.back();
    return open_spread(context.textures, std::move(own), path, siblings_by(context, borrowed(reader), address), context.limits);
}

Result<Bytes> read_texture_bytes(const ReadContext& context, const Address& address) {
    AddressReader reader(context);
    return read_texture_bytes(context, reader, address);
}

Result<Bytes> read_texture_bytes(const ReadContext& context, AddressReader& reader, const Address& address) {
    SKIVET_TRY(auto own, reader.read(address));
    const auto path = address.inner.empty() ? address.source.string() : address.inner.back();
    return join_spread(context.textures, std::move(own), path, siblings_by(context, borrowed(reader), address), context.limits);
}

Result<std::vector<AddressedBytes>> spread_replacements(const ReadContext& context, const Container& source,
                                                        std::vector<AddressedBytes> replacements) {
    std::vector<AddressedBytes> out;
    out.reserve(replacements.size());
    for (auto& r : replacements) {
        const auto read = siblings_of(context, source, r.inner);
        auto parts = split_spread(context.textures, r.bytes.copy(), r.inner.back(), read, context.limits);
        if (!parts) return fail(std::move(parts).error().within(r.inner.back()));
        if (parts->size() == 1) {
            if (r.bytes == parts->front().bytes) {
                r.bytes.rest();
                out.push_back(std::move(r));
                continue;
            }
            out.push_back({std::move(r.inner), std::move(parts->front().bytes)});
            continue;
        }
        for (auto& part : *parts) {
            auto inner = r.inner;
            if (!part.name.empty()) inner.back() = beside(inner.back(), part.name);
            out.push_back({std::move(inner), std::move(part.bytes)});
        }
    }
    return out;
}

}  // namespace skivet
