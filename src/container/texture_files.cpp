#include "container/texture_files.h"

#include "base/file_write.h"

namespace skivet {
namespace {

/// The path of a file beside another one.
std::string beside(const std::string& path, const std::string& name) {
    const auto slash = path.find_last_of('/');
    return slash == std::string::npos ? name : path.substr(0, slash + 1) + name;
}

}  // namespace

ReadSibling siblings_of(const Kinds& kinds, const Container& source, std::vector<std::string> inner) {
    return [&kinds, &source, inner = std::move(inner)](const std::string& name) {
        auto there = inner;
        there.back() = beside(there.back(), name);
        return read_entry(kinds, source, there);
    };
}

ReadSibling siblings_of(const Kinds& kinds, Address address) {
    return [&kinds, address = std::move(address)](const std::string& name) -> Result<Bytes> {
        auto there = address;
        if (!there.inner.empty()) {
            there.inner.back() = beside(there.inner.back(), name);
            return read_address(kinds, there);
        }
        there.source.replace_filename(name);
        std::error_code code;
        if (!std::filesystem::exists(there.source, code)) return fail(ErrorCode::missing, "there is no " + there.source.string());
        return read_file(there.source, kinds.limits.inflated_bytes);
    };
}

Result<TextureFile> open_texture_at(const Kinds& kinds, const Address& address) {
    SKIVET_TRY(auto own, read_address(kinds, address));
    const auto path = address.inner.empty() ? address.source.string() : address.inner.back();
    return open_spread(kinds.textures, std::move(own), path, siblings_of(kinds, address), kinds.limits);
}

Result<Bytes> read_texture_bytes(const Kinds& kinds, const Address& address) {
    SKIVET_TRY(auto own, read_address(kinds, address));
    const auto path = address.inner.empty() ? address.source.string() : address.inner.back();
    return join_spread(kinds.textures, std::move(own), path, siblings_of(kinds, address), kinds.limits);
}

Result<std::vector<AddressedBytes>> spread_replacements(const Kinds& kinds, const Container& source,
                                                        std::vector<AddressedBytes> replacements) {
    std::vector<AddressedBytes> out;
    out.reserve(replacements.size());
    for (auto& r : replacements) {
        const auto read = siblings_of(kinds, source, r.inner);
        auto parts = split_spread(kinds.textures, r.bytes, r.inner.back(), read, kinds.limits);
        if (!parts) return fail(std::move(parts).error().within(r.inner.back()));
        if (parts->size() == 1) {
            out.push_back(std::move(r));
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
