// How an edit becomes levels.
//
// Level 0 is compared with our decode of the original, in the form that was exported; equal blocks keep their bytes. The smaller levels
// follow (see rebuild.h).
#include "bench/fitting.h"

#include <fmt/format.h>
#include <cmath>

#include "bench/color_match.h"
#include "bench/cube.h"
#include "bench/export.h"
#include "bench/level.h"
#include "bench/rebuild.h"
#include "codec/paint_form.h"
#include "pixel/alpha_use.h"

namespace skivet {
namespace {

bool all_opaque(const Image& image) {
    return std::all_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] == 255; });
}

bool all_clear(const Image& image) {
    return std::all_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] == 0; });
}

void check_alpha(Fit& out, const Image& original, Image& edited, Format format, const FitOptions& options) {
    const auto& f = info(format);
    const bool had = f.has_alpha && !all_opaque(original);
    const bool has = !all_opaque(edited);
    if (options.restore_alpha && had)
        for (std::size_t i = 0; i < edited.texels.size(); ++i) edited.texels[i][3] = original.texels[i][3];
    else if (options.drop_alpha && has)
        for (auto& t : edited.texels) t[3] = 255;
    else if (had && !has)
        out.findings.push_back({Grade::mend, "Alpha is gone",
                                "The original uses alpha; in the edit everything is opaque. A cut-out or a mask would be lost.",
                                Mend::restore_alpha});
    else if (!had && has && f.has_alpha)
        out.findings.push_back({Grade::mend, "Alpha appeared",
                                "The original is opaque; parts of the edit are not, and the game may show holes.", Mend::drop_alpha});
    else if (has && !f.has_alpha)
        out.findings.push_back(
            {Grade::note, "Alpha is left out", fmt::format("{} has no alpha; what the edit has there is not used.", f.name), Mend::none});
}

/// Paint programs often drop the color of fully transparent texels and leave one flat color there. That is not an edit: where all
/// that changed under zero alpha became the same color, the original's color goes back (fidelity rule 5).
void check_hidden_color(Fit& out, const Image& original, Image& edited) {
    if (all_clear(original)) return;  // alpha is no transparency here
    std::vector<std::size_t> hidden;
    for (std::size_t i = 0; i < edited.texels.size(); ++i)
        if (original.texels[i][3] == 0 && edited.texels[i][3] == 0 && original.texels[i] != edited.texels[i]) hidden.push_back(i);
    if (hidden.empty()) return;
    const auto flat = edited.texels[hidden.front()];
    if (!std::all_of(hidden.begin(), hidden.end(), [&](std::size_t i) { return edited.texels[i] == flat; })) return;
    for (const auto i : hidden) edited.texels[i] = original.texels[i];
    out.findings.push_back({Grade::note, "Color under zero alpha was put back",
                            fmt::format("{} hidden texels had lost their color when the file was saved.", grouped(hidden.size())),
                            Mend::none});
}

/// Colors of a premultiplied texture are never brighter than their alpha; paint programs work with colors that are not multiplied.
void check_premultiplied(Fit& out, const Image& original, Image& edited, const FitOptions& options) {
    std::uint64_t brighter = 0;
    for (std::size_t i = 0; i < edited.texels.size(); ++i)
        brighter += edited.texels[i] != original.texels[i] && brighter_than_alpha(edited.texels[i]);
    if (brighter == 0) return;
    if (!options.premultiply) {
        out.findings.push_back(
            {Grade::mend, "Color is brighter than its alpha",
             fmt::format(
                 "The original's colors are multiplied by alpha; in {} texels the edit's are not, and the game would let them glow.",
                 grouped(brighter)),
             Mend::premultiply});
        return;
    }
    for (std::size_t i = 0; i < edited.texels.size(); ++i) {
        auto& t = edited.texels[i];
        if (t == original.texels[i]) continue;
        for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>((t[c] * t[3] + 127) / 255);
    }
}

Image resized(const Image& image, std::uint32_t width, std::uint32_t height, bool srgb) {
    return to_bytes(resize(to_float(image, srgb), width, height, MipFilter::kaiser), srgb);
}

/// Whether `painted`, read from a 16-bit file, is what `own` was written as: the nearest whole step. A little more than half a step is let
/// through, for the writer rounded in floats.
bool same_in_16_bits(const TexelF& painted, const TexelF& own, bool is_signed) {
    const auto step = [&](float v) { return std::clamp(is_signed ? v * 127.0 * 257 + 128 * 257 : v * 65535.0, 0.0, 65535.0); };
    for (std::size_t c = 0; c < 4; ++c)
        if (!(std::abs(step(painted[c]) - step(own[c])) < 0.52)) return false;
    return true;
}

/// Floats painted for a texture of fractions or whole numbers: the forms its own precision is compared in.
void in_other_forms(EditedFile& edited, const TextureDesc& d) {
    auto& values = *edited.values;
    if (is_encoded_color(d))
        for (auto& t : values.texels)
            for (std::size_t c = 0; c < 3; ++c) t[c] = linear_to_srgb(std::max(t[c], 0.0f));
    edited.image = paint_form(d.format, view_of(d.format, stored_form(d.format, values)));
    if (!info(d.format).is_integer()) edited.wide = to_16_bit_form(d.format, values);
}

/// The mends of alpha on true values.
void mend(ImageF& painted, const ImageF& original, const FitOptions& options, bool had_alpha) {
    for (std::size_t i = 0; i < painted.texels.size(); ++i) {
        if (options.restore_alpha && had_alpha) painted.texels[i][3] = original.texels[i][3];
        else if (options.drop_alpha) painted.texels[i][3] = 1;
    }
}

/// What level 0 becomes in true values: the original's where the edit is what was exported; the edit's elsewhere.
class WideEdit {
public:
    WideEdit(Format format, const ImageF& own, const Image& own_view, const Image& wanted_view)
        : format_(format), own_(own), own_view_(own_view), wanted_view_(wanted_view) {}

    /// `edit`, in stored form, holds what a 16-bit file of `own` has, or something else.
    [[nodiscard]] ImageF in_16_bits(const ImageF& edit) const {
        const bool is_signed = info(format_).numeric == Numeric::snorm;
        return merged(edit, [is_signed](const TexelF& a, const TexelF& b) { return same_in_16_bits(a, b, is_signed); });
    }
    [[nodiscard]] ImageF in_floats(const ImageF& edit) const {
        return merged(edit, [](const TexelF& a, const TexelF& b) {
            for (std::size_t c = 0; c < 4; ++c)
                if (a[c] != b[c] && !(std::isnan(a[c]) && std::isnan(b[c]))) return false;  // no file keeps which NaN it was
            return true;
        });
    }
    [[nodiscard]] ImageF in_8_bits() const {
        auto out = from_view(format_, wanted_view_);
        for (std::size_t i = 0; i < out.texels.size(); ++i)
            if (wanted_view_.texels[i] == own_view_.texels[i]) out.texels[i] = own_.texels[i];
        return out;
    }

private:
    Format format_;
    const ImageF& own_;
    const Image& own_view_;
    const Image& wanted_view_;

    template <class Same>
    ImageF merged(const ImageF& edit, const Same& same) const {
        const auto edit_view = view_of(format_, edit);
        auto out = edit;
        for (std::size_t i = 0; i < out.texels.size(); ++i) {
            // What was put back (color under zero alpha, say) was put back in the 8-bit view only.
            const bool put_back = wanted_view_.texels[i] == own_view_.texels[i] && edit_view.texels[i] != own_view_.texels[i];
            if (put_back || same(edit.texels[i], own_.texels[i])) out.texels[i] = own_.texels[i];
        }
        return out;
    }
};

/// One face, or all six of a cross.
template <class Picture>
Result<RebuiltLevels> rebuild_shown(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options, const Picture& before,
                                    const Picture& after, bool cross) {
    if (!cross) return rebuild_levels(original, mips, options, before, after);
    RebuiltLevels all;
    for (std::uint32_t face = 0; face < 6; ++face) {
        SKIVET_TRY(auto one, rebuild_levels(original, mips, options, face_of(before, face), face_of(after, face), 0, face));
        for (auto& edit : one.edits) all.edits.push_back(std::move(edit));
        all.levels.resize(one.levels.size());
        for (std::size_t i = 0; i < one.levels.size(); ++i)
            all.levels[i].blocks += one.levels[i].blocks, all.levels[i].kept += one.levels[i].kept;
    }
    return all;
}

/// Whether two blocks show the same.
bool same_texels(const FormatInfo& f, ByteSpan a, ByteSpan b) {
    const auto x = decode_wide(f.format, a, f.block_width, f.block_height), y = decode_wide(f.format, b, f.block_width, f.block_height);
    return x && y && std::equal(x->texels.begin(), x->texels.end(), y->texels.begin(), [](const TexelF& p, const TexelF& q) {
               return same_texel(p, q);
           });
}

/// An edited DDS of the same shape: its own levels go in as they are, so that what a person compressed with care is not
/// compressed again. Blocks that decode to the same texels keep the original's bytes.
Result<std::vector<SurfaceEdit>> take_levels(const TextureFile& original, const TextureFile& edited, Fit& fit) {
    std::vector<SurfaceEdit> edits;
    const auto& f = info(original.layout.desc.format);
    for (std::size_t i = 0; i < original.layout.surfaces.size(); ++i) {
        const auto& surface = original.layout.surfaces[i];
        const auto* theirs = edited.layout.find(surface.mip, surface.layer, surface.face, surface.slice);
        if (!theirs) return fail(ErrorCode::damaged, fmt::format("mip {} is missing in the edit", surface.mip));
        SKIVET_TRY(const auto before, original.surface_bytes(surface));
        SKIVET_TRY(auto after, edited.surface_bytes(*theirs));
        LevelFit level;
        level.blocks = before.size() / f.block_bytes;
        for (std::size_t b = 0; b < level.blocks; ++b) {
            const auto at = b * f.block_bytes;
            bool same = std::equal(before.begin() + static_cast<std::ptrdiff_t>(at),
                                   before.begin() + static_cast<std::ptrdiff_t>(at + f.block_bytes),
                                   after.begin() + static_cast<std::ptrdiff_t>(at));
            if (!same && f.block_compressed() && same_texels(f, ByteSpan(before).subspan(at), ByteSpan(after).subspan(at))) {
                std::copy_n(before.begin() + static_cast<std::ptrdiff_t>(at), f.block_bytes,
                            after.begin() + static_cast<std::ptrdiff_t>(at));
                same = true;
            }
            level.kept += same;
        }
        if (surface.layer == 0 && surface.face == 0 && surface.slice == 0) fit.levels.push_back(level);
        if (after != before) edits.push_back({i, std::move(after)});
    }
    return edits;
}

void check_shape(Fit& out, const TextureDesc& d, const EditedFile& edited) {
    if (!edited.texture) return;
    const auto& e = edited.texture->layout.desc;
    if (e.format != d.format)
        out.findings.push_back({Grade::note, fmt::format("Saved as {}, goes back as {}", info(e.format).name, info(d.format).name),
                                "The game expects the original's format. Save as PNG to lose nothing on the way.", Mend::none});
    if (e.mips != d.mips)
        out.findings.push_back({Grade::note, fmt::format("Saved with {} mips, goes back with {}", e.mips, d.mips),
                                "The levels are made again from the largest one.", Mend::none});
}

}  // namespace

bool Fit::blocked() const {
    return std::any_of(findings.begin(), findings.end(), [](const auto& f) { return f.grade == Grade::blocks; });
}
bool Fit::needs_mend() const {
    return std::any_of(findings.begin(), findings.end(), [](const auto& f) { return f.grade >= Grade::mend; });
}
std::uint64_t Fit::kept_blocks() const {
    std::uint64_t sum = 0;
    for (const auto& level : levels) sum += level.kept;
    return sum;
}
std::uint64_t Fit::new_blocks() const {
    std::uint64_t sum = 0;
    for (const auto& level : levels) sum += level.blocks - level.kept;
    return sum;
}

Result<Fit> fit(const TextureFile& original, const EditedFile& given, const FitOptions& options) {
    Fit out;
    const auto& d = original.layout.desc;
    if (original.layout.damage) return fail(*original.layout.damage);
    EditedFile edited = given;
    // A cubemap comes back as its cross, or as one face.
    const bool cross = has_cross(d) && edited.image.width / 4 == edited.image.height / 3 && edited.image.width % 4 == 0 &&
                       edited.image.height % 3 == 0 && !edited.texture;
    const auto shown_width = cross ? d.width * 4 : d.width, shown_height = cross ? d.height * 3 : d.height;
    SKIVET_TRY(const auto before, decode_shown<Image>(original, 0, cross));
    SKIVET_TRY(out.mips, guess_mips(original));
    out.original = paint_form(d.format, before);
    const bool srgb = out.mips.recipe.linear_light || d.color == ColorSpace::srgb;
    // Data has no color space, whatever a paint program wrote into the file.
    if (d.color != ColorSpace::linear && !out.mips.normals && info(d.format).may_be_srgb)
        if (const auto done = match_color(edited); !done.empty())
            out.findings.push_back({Grade::note, "Colors were converted", done, Mend::none});
    if (edited.values && !info(d.format).is_float()) in_other_forms(edited, d);
    Image painted = edited.image;
    if (painted.width != shown_width || painted.height != shown_height) {
        if (!options.resize) {
            out.findings.push_back({Grade::blocks,
                                    fmt::format("{}×{} where the game has {}×{}", painted.width, painted.height, shown_width, shown_height),
                                    "The game reads the size from its own tables and would show rubbish.", Mend::resize});
            // What else is wrong is said at once; the mends are made once the size is right.
            check_alpha(out, before, painted, d.format, {});
            std::erase_if(out.findings, [&](const Finding& f) {
                return (f.mend == Mend::restore_alpha && options.restore_alpha) || (f.mend == Mend::drop_alpha && options.drop_alpha);
            });
            out.edited = std::move(painted);
            return out;
        }
        painted = resized(painted, shown_width, shown_height, srgb);
    }
    if (cross) clear_corners(painted);
    check_shape(out, d, edited);
    check_alpha(out, before, painted, d.format, options);
    auto wanted = stored_form(d.format, painted);
    if (info(d.format).has_alpha) check_hidden_color(out, before, wanted);
    const auto alpha = info(d.format).has_alpha ? alpha_facts(before) : AlphaFacts{};
    if (alpha.premultiplied && !out.mips.normals && !info(d.format).wide) check_premultiplied(out, before, wanted, options);
    out.edited = paint_form(d.format, wanted);
    out.change = difference(out.original, out.edited);

    const bool as_they_are = edited.texture && !options.resize && !options.drop_alpha && !options.restore_alpha && !options.premultiply &&
                             edited.texture->layout.desc.format == d.format && edited.texture->layout.desc.width == d.width &&
                             edited.texture->layout.desc.height == d.height && edited.texture->layout.desc.depth == d.depth &&
                             edited.texture->layout.desc.mips == d.mips && edited.texture->layout.desc.layers == d.layers &&
                             edited.texture->layout.desc.faces == d.faces;
    if (!as_they_are && d.depth > 1) {
        out.findings.push_back({Grade::blocks, "A volume can only come back as DDS",
                                "A picture has one slice; this texture has " + std::to_string(d.depth) + ".", Mend::none});
        return out;
    }
    if (!as_they_are && !can_encode(d.format) && out.change.changed_texels > 0) {
        out.findings.push_back({Grade::blocks, fmt::format("{} is only read", info(d.format).name),
                                "Edits can come back as a texture file of the same format (KTX2), not as a picture.", Mend::none});
        return out;
    }
    std::vector<SurfaceEdit> edits;
    if (as_they_are) {
        SKIVET_TRY(edits, take_levels(original, *edited.texture, out));
    } else {
        const auto& f = info(d.format);
        auto encode = options.encode;
        // Premultiplied color is added as it is, so there all of it counts.
        encode.alpha_is_transparency = !alpha.premultiplied && (alpha.use == AlphaUse::cut_out || alpha.use == AlphaUse::gradient);
        encode.normals = out.mips.normals;
        RebuiltLevels rebuilt;
        if (!f.wide && edited.wide && gains_from_16_bits(d.format) && edited.wide->width == shown_width &&
            edited.wide->height == shown_height) {
            // Exported with all the precision interpolation has: what is the same in 16 bits was not painted.
            SKIVET_TRY(const auto own, decode_shown<ImageF>(original, 0, cross));
            auto fine = stored_form(d.format, from_16_bit_form(d.format, *edited.wide));
            mend(fine, own, options, !all_opaque(before));
            for (std::size_t i = 0; i < wanted.texels.size(); ++i)
                if (same_in_16_bits(fine.texels[i], own.texels[i], f.numeric == Numeric::snorm)) wanted.texels[i] = before.texels[i];
        }
        if (f.wide) {
            SKIVET_TRY(const auto own, decode_shown<ImageF>(original, 0, cross));
            const WideEdit wide(d.format, own, before, wanted);
            const auto in_stored_form = [&](const ImageF& values) {
                auto sized = values.width == shown_width && values.height == shown_height
                                 ? values
                                 : resize(values, shown_width, shown_height, MipFilter::kaiser);
                if (cross) clear_corners(sized);
                mend(sized, own, options, !all_opaque(before));
                return stored_form(d.format, sized);
            };
            const bool normalized = f.numeric == Numeric::unorm || f.numeric == Numeric::snorm;
            const auto after = !normalized && edited.values ? wide.in_floats(in_stored_form(*edited.values))
                               : normalized && edited.wide  ? wide.in_16_bits(in_stored_form(from_16_bit_form(d.format, *edited.wide)))
                                                            : wide.in_8_bits();
            SKIVET_TRY(rebuilt, rebuild_shown(original, out.mips, encode, own, after, cross));
        } else {
            SKIVET_TRY(rebuilt, rebuild_shown(original, out.mips, encode, before, wanted, cross));
        }
        edits = std::move(rebuilt.edits);
        out.levels = std::move(rebuilt.levels);
        if (d.layers * d.faces > 1 && !cross)
            out.findings.push_back({Grade::note, "Only the first face or layer was edited", "The others stay as they are.", Mend::none});
    }
    auto file = original.kind->replace(original.file, original.layout, edits);
    if (!file) {
        out.findings.push_back({Grade::blocks, "The texture cannot be written back", file.error().message(), Mend::none});
        return out;
    }
    out.file = std::move(*file);
    const auto again = original.kind->layout(out.file, out.file.size(), ReadLimits{});
    if (!again) return fail(again.error().within("what the game would get"));
    SKIVET_TRY(const auto result, decode_shown<Image>(TextureFile{original.kind, *again, out.file}, 0, cross));
    out.result = paint_form(d.format, result);
    out.quality = difference(out.edited, out.result);
    if (!out.needs_mend())
        out.findings.push_back({Grade::fits, "Size, mips and format match",
                                fmt::format("{}×{} · {} {} · {}{}", d.width, d.height, d.mips, d.mips == 1 ? "level" : "mips",
                                            info(d.format).name, d.color == ColorSpace::srgb ? " sRGB" : ""),
                                Mend::none});
    return out;
}

Result<Bytes> encode_levels(const Image& image, const TextureDesc& d, MipRecipe recipe, const EncodeOptions& options,
                            const NormalChannels& normals) {
    Bytes out;
    SKIVET_TRY(const auto first, encode(d.format, stored_form(d.format, image), options));
    out.insert(out.end(), first.begin(), first.end());
    if (d.mips < 2) return out;
    const double coverage = recipe.coverage ? coverage_of(to_float(image, false), recipe.coverage) : 0;
    auto level = whole_next_level(ByteRows(image, recipe.linear_light), recipe, normals, coverage);
    for (std::uint32_t mip = 1; mip < d.mips; ++mip) {
        if (mip > 1) level = whole_next_level(FloatRows(level), recipe, normals, coverage);
        SKIVET_TRY(const auto bytes, encode(d.format, stored_form(d.format, to_bytes(level, recipe.linear_light)), options));
        out.insert(out.end(), bytes.begin(), bytes.end());
    }
    return out;
}

}  // namespace skivet
