#include "sheet/method.h"

#include <fmt/format.h>

namespace skivet {

std::optional<Method> method_named(const Sheet& sheet, std::string_view name) {
    for (const auto& packer : sheet.packers)
        if (packer.name == name) return Method{Packing::none, &packer};
    if (const auto packing = packing_named(name)) return Method{*packing, nullptr};
    return std::nullopt;
}

Result<Bytes> unpack_by(const Method& method, ByteSpan data, std::optional<std::uint64_t> size, const ReadLimits& limits) {
    if (!method.described) return skivet::unpack(method.packing, data, size, limits);
    const auto most = limits.inflated_bytes;
    auto out = method.described->kind == PackerSpec::Kind::lzss ? unpack_lzss(method.described->lzss, data, size, most)
                                                                : unpack_runs(method.described->runs, data, size, most);
    if (!out) return fail(std::move(out).error().within(fmt::format("packer {}", method.described->name)));
    return out;
}

Result<Bytes> pack_by(const Method& method, ByteSpan content, int level, ByteSpan like) {
    if (!method.described) return skivet::pack(method.packing, content, level, like);
    if (method.described->kind == PackerSpec::Kind::lzss) return pack_lzss(method.described->lzss, content);
    auto out = pack_runs(method.described->runs, content);
    if (!out) return fail(std::move(out).error().within(fmt::format("packer {}", method.described->name)));
    return out;
}

}  // namespace skivet
