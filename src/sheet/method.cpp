#include "sheet/method.h"

#include "base/phrase.h"

namespace skivet {

std::optional<Method> method_named(const Sheet& sheet, std::string_view name) {
    for (const auto& packer : sheet.packers)
        if (packer.name == name) return Method{Packing::none, &packer};
    if (const auto packing = packing_named(name)) return Method{*packing, nullptr};
    return std::nullopt;
}

namespace {

Result<const PackerProgram*> program_of(const PackerSpec& packer, const PackerPrograms& programs) {
    if (const auto* program = programs.find(packer.name)) return program;
    return fail(ErrorCode::missing, phrase("wants the packer \"{}\"", packer.name),
                "Name your program for it in the project's settings, or with --unpacker and --packer");
}

}  // namespace

Result<Bytes> unpack_by(const Method& method, ByteSpan data, std::optional<std::uint64_t> size, const ReadLimits& limits,
                        const PackerPrograms& programs) {
    if (!method.described) return skivet::unpack(method.packing, data, size, limits);
    const auto& packer = *method.described;
    if (packer.kind == PackerSpec::Kind::program) {
        SKIVET_TRY(const auto* program, program_of(packer, programs));
        ProgramLimits bounds;
        bounds.output = limits.inflated_bytes;
        return run_unpacker(*program, data, size, bounds);
    }
    const auto most = limits.inflated_bytes;
    auto out =
        packer.kind == PackerSpec::Kind::lzss ? unpack_lzss(packer.lzss, data, size, most) : unpack_runs(packer.runs, data, size, most);
    if (!out) return fail(std::move(out).error().within(phrase("packer {}", packer.name)));
    return out;
}

Result<Bytes> pack_by(const Method& method, ByteSpan content, int level, ByteSpan like, const PackerPrograms& programs) {
    if (!method.described) return skivet::pack(method.packing, content, level, like);
    const auto& packer = *method.described;
    if (packer.kind == PackerSpec::Kind::lzss) return pack_lzss(packer.lzss, content);
    if (packer.kind == PackerSpec::Kind::program) {
        SKIVET_TRY(const auto* program, program_of(packer, programs));
        return run_packer(*program, content);
    }
    auto out = pack_runs(packer.runs, content);
    if (!out) return fail(std::move(out).error().within(phrase("packer {}", packer.name)));
    return out;
}

}  // namespace skivet
