// How an edit becomes levels: a line of stages, each a function from value to value (`line` below). What a stage says about the edit is a
// finding; an error is one of the original or the machine.
//
// Level 0 is compared with our decode of the original, in the form that was exported; equal blocks keep their bytes. The smaller levels
// follow (see rebuild.h).
#include "bench/fitting.h"

#include <fmt/format.h>
#include <cmath>

#include "base/phrase.h"
#include "bench/color_match.h"
#include "bench/cube.h"
#include "bench/export.h"
#include "bench/fit_state.h"
#include "bench/follow.h"
#include "bench/rebuild.h"
#include "bench/wide_edit.h"
#include "codec/paint_form.h"

namespace skivet {
namespace {

/// Floats painted for a texture of fractions or whole numbers: the forms its own precision is compared in.
void in_other_forms(EditedFile& edited, const TextureDesc& d) {
    auto& values = *edited.values;
    if (is_encoded_color(d))
        for (auto& t : values.texels)
            for (std::size_t c = 0; c < 3; ++c) t[c] = linear_to_srgb(std::max(t[c], 0.0f));
    edited.image = paint_form(d.format, view_of(d.format, stored_form(d.format, values)));
    if (!info(d.format).is_integer()) edited.wide = to_16_bit_form(d.format, values);
}

/// One surface, or all parts. `known` may be null.
template <class Picture>
Result<RebuiltLevels> rebuild_shown(const TextureFile& original, const MipGuess& mips, const EncodeOptions& options, const Picture& before,
                                    const Picture& after, bool whole, const KnownOriginal* known) {
    if (!whole)
        return rebuild_levels(original, mips, options, before, after, 0, 0, known ? std::span(known->smaller) : std::span<const Image>());
    RebuiltLevels all;
    const auto& d = original.layout.desc;
    for (const auto& at : parts_of(d)) {
        SKIVET_TRY(auto one, rebuild_levels(original, mips, options, cut_part(before, d, at), cut_part(after, d, at), at.layer, at.face));
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
        if (!theirs) return fail(ErrorCode::damaged, phrase("mip {} is missing in the edit", surface.mip));
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

/// Paint programs often drop the color of fully transparent texels and leave one flat color there. That is not an edit: where all
/// that changed under zero alpha became the same color, the original's color goes back.
void put_hidden_color_back(FitState& s) {
    const auto& before = *s.before;
    if (all_clear(before)) return;  // alpha is no transparency here
    std::vector<std::size_t> hidden;
    const auto rows = rows_that_differ(before, s.wanted);
    for (std::size_t i = 0; i < s.wanted.texels.size(); ++i) {
        if (i % before.width == 0 && !rows[i / before.width]) {
            i += before.width - 1;
            continue;
        }
        if (before.texels[i][3] == 0 && s.wanted.texels[i][3] == 0 && before.texels[i] != s.wanted.texels[i]) hidden.push_back(i);
    }
    if (hidden.empty()) return;
    const auto flat = s.wanted.texels[hidden.front()];
    if (!std::all_of(hidden.begin(), hidden.end(), [&](std::size_t i) { return s.wanted.texels[i] == flat; })) return;
    for (const auto i : hidden) s.wanted.texels[i] = before.texels[i];
    s.note(Grade::note, "Color under zero alpha was put back",
           phrase("{} hidden texels had lost their color when the file was saved.", grouped(hidden.size())));
}

/// Premultiplied color is added as it is, so there all of it counts.
bool transparent(const FitState& s) {
    return !s.alpha.premultiplied && (s.alpha.use == AlphaUse::cut_out || s.alpha.use == AlphaUse::gradient);
}

bool one_bit_alpha(const FormatInfo& f) {
    return f.has_alpha && (f.alpha.bits == 1 || f.format == Format::BC1 || f.format == Format::ETC2_RGBA1);
}

// ---- the stages, in order ----

/// The original decoded, and the edit in the forms that compare with it.
Result<FitState> forms(FitState s) {
    const auto& d = s.desc();
    // A cubemap comes back as its cross, or as one face; an array as all of its layers, or the first.
    const auto& picture = s.edited.image;
    s.whole = !s.edited.texture && is_whole(d, picture.width, picture.height);
    const auto [columns, rows] = part_grid(d);
    s.width = s.whole ? d.width * columns : d.width;
    s.height = s.whole ? d.height * rows : d.height;
    if (s.known && !s.whole) {
        s.before = s.known->level;
    } else {
        SKIVET_TRY(auto decoded, decode_shown<Image>(*s.original, 0, s.whole));
        s.before = SharedImage(std::move(decoded));
    }
    if (s.known) {
        s.out.mips = s.known->mips;
    } else {
        SKIVET_TRY(s.out.mips, guess_mips(*s.original));
    }
    s.out.original = paint_form(d.format, s.before);
    s.srgb = s.out.mips.recipe.linear_light || d.color == ColorSpace::srgb;
    if (s.format().has_alpha) s.alpha = s.known && !s.whole ? s.known->alpha : alpha_facts(s.before);
    // Data has no color space, whatever a paint program wrote into the file.
    if (d.color != ColorSpace::linear && !s.out.mips.normals && s.format().may_be_srgb)
        if (auto done = match_color(s.edited); !done.empty()) s.note(Grade::note, "Colors were converted", std::move(done));
    if (s.edited.values && !s.format().is_float()) in_other_forms(s.edited, d);
    s.painted = std::move(s.edited.image);
    if (s.format().wide && !s.normalized() && s.edited.values) s.deep = *s.edited.values;
    else if (s.edited.wide && (s.format().wide ? s.normalized() : gains_from_16_bits(d.format)))
        s.deep = from_16_bit_form(d.format, *s.edited.wide);
    if (s.deep) {
        SKIVET_TRY(s.own, decode_shown<ImageF>(*s.original, 0, s.whole));
    }
    return s;
}

/// The mends of one step: made where they are wanted, otherwise offered.
void mend(FitState& s, MendStep step) {
    for (const auto& row : all_mends()) {
        if (row.step != step) continue;
        auto finding = row.offer(s);
        if (!finding) continue;
        if (s.options.mends.has(row.mend)) {
            // While the size is wrong the others wait; what is wanted already is not offered again.
            if (s.sized() || step == MendStep::size) row.apply(s), s.own_levels = false;
            continue;
        }
        finding->mend = row.mend;
        s.out.findings.push_back(std::move(*finding));
    }
}

/// The format that somebody chose.
void reformat(FitState& s) {
    const auto wanted = s.options.format;
    if (wanted == Format::unknown || wanted == s.desc().format || !s.sized()) return;
    const auto possible = other_formats(*s.original);
    const auto name = info(wanted).name;
    if (std::find(possible.begin(), possible.end(), wanted) == possible.end())
        return s.note(Grade::note, phrase("It cannot become {}", name), "The file does not say its format, or cannot say this one.");
    const auto before = level_bytes_of(s.target());
    auto d = s.target();
    d.format = wanted;
    s.note(Grade::note, phrase("{} becomes {}", s.format().name, name),
           phrase("You chose another format: {} bytes become {}, in the file and in the game's memory. All blocks are new.",
                  grouped(before), grouped(level_bytes_of(d))));
    s.out.findings.back().format = s.desc().format;
    s.becomes = d;
    s.deep.reset();
}

Result<FitState> sized(FitState s) {
    mend(s, MendStep::size);
    reformat(s);
    if (s.whole && has_cross(s.desc()) && s.sized()) {
        clear_corners(s.painted);
        if (s.deep) clear_corners(*s.deep);
    }
    return s;
}

/// What an edit that is a texture file has otherwise than the original.
Result<FitState> shaped(FitState s) {
    if (!s.edited.texture || !s.sized()) return s;
    const auto& d = s.target();
    const auto& e = s.edited.texture->layout.desc;
    if (e.format != d.format) {
        s.note(Grade::note, phrase("Saved as {}, goes back as {}", info(e.format).name, info(d.format).name),
               "The game expects the original's format. Save as PNG to lose nothing on the way.");
        const auto possible = other_formats(*s.original);
        if (std::find(possible.begin(), possible.end(), e.format) != possible.end()) s.out.findings.back().format = e.format;
    }
    if (e.mips != d.mips)
        s.note(Grade::note, phrase("Saved with {} mips, goes back with {}", e.mips, d.mips),
               "The levels are made again from the largest one.");
    s.own_levels = e.format == d.format && e.width == d.width && e.height == d.height && e.depth == d.depth && e.mips == d.mips &&
                   e.layers == d.layers && e.faces == d.faces;
    return s;
}

/// What the format cannot keep of what the file has, and what is strange about it.
Result<FitState> noticed(FitState s) {
    if (!s.sized()) return s;
    const auto& f = s.format();
    if (s.normalized()) s.save_fault = find_save_fault(s.out.original, s.painted, s.out.mips.normals.has_value());
    const auto colored = [](const Texel& t) { return std::abs(t[0] - t[1]) > 8 || std::abs(t[1] - t[2]) > 8; };
    const auto any = [](const Image& image, const auto& test) { return std::any_of(image.texels.begin(), image.texels.end(), test); };
    if (f.channels == 1 && any(s.painted, colored))
        s.note(Grade::note, "Only its brightness is kept", phrase("{} has one channel; the colors of the edit become gray.", f.name));
    if (f.channels >= 3 && s.alpha.use != AlphaUse::empty && any(s.out.original, colored) && !any(s.painted, colored)) {
        if (s.out.mips.normals)
            s.note(Grade::mend, "The directions are gone",
                   "The original is a normal map; the edit is gray, and the game would light it wrong.");
        else s.note(Grade::note, "The colors are gone", "The original has colors, the edit is gray. Was it saved with one channel?");
    }
    if (one_bit_alpha(f) && any(s.painted, [](const Texel& t) { return t[3] > 8 && t[3] < 247; }))
        s.note(Grade::note, "Alpha is only on or off", phrase("{} has one bit of alpha: from 128 on a texel is opaque.", f.name));
    if (s.edited.wide && !s.deep && std::any_of(s.edited.wide->texels.begin(), s.edited.wide->texels.end(), [](const TexelF& t) {
            return std::any_of(t.begin(), t.end(), [](float v) { return std::abs(v * 255 - std::round(v * 255)) > 1e-3f; });
        }))
        s.note(Grade::note, "16 bits are kept as 8", phrase("{} has no more; finer steps of the edit are rounded.", f.name));
    return s;
}

Result<FitState> alpha_checked(FitState s) {
    mend(s, MendStep::painted);
    if (!s.format().has_alpha && !all_opaque(s.painted) && !s.options.mends.has(Mend::drop_alpha))
        s.note(Grade::note, "Alpha is left out", phrase("{} has no alpha; what the edit has there is not used.", s.format().name));
    // What else is wrong was said at once; the mends are made once the size is right.
    s.ended = !s.sized();
    if (s.ended) s.out.edited = SharedImage(std::move(s.painted));
    return s;
}

/// What of it the format can hold, and what the person did not mean to change.
Result<FitState> stored(FitState s) {
    s.wanted = stored_form(s.format().format, std::move(s.painted));  // its size stays
    if (s.format().has_alpha && info(s.desc().format).has_alpha) put_hidden_color_back(s);
    mend(s, MendStep::stored);
    s.settled = SharedImage(std::exchange(s.wanted, {}));
    s.out.edited = paint_form(s.format().format, s.settled);
    s.out.change = difference(s.out.original, s.out.edited);
    return s;
}

Result<FitState> possible(FitState s) {
    if (s.own_levels) return s;
    if (s.desc().depth > 1)
        s.block("A volume can only come back as DDS", phrase("A picture has one slice; this texture has {}.", s.desc().depth));
    else if (!can_encode(s.format().format) && s.out.change.changed_texels > 0)
        s.block(phrase("{} is only read", s.format().name),
                "Edits can come back as a texture file of the same format (KTX2), not as a picture.");
    return s;
}

std::vector<LevelFit> all_new(const TextureDesc& d) {
    std::vector<LevelFit> out;
    for (std::uint32_t mip = 0; mip < d.mips; ++mip)
        out.push_back({level_bytes(d.format, mip_side(d.width, mip), mip_side(d.height, mip)) / info(d.format).block_bytes, 0});
    return out;
}

/// Changed blocks of every level.
Result<FitState> levels(FitState s) {
    if (s.own_levels && s.becomes) {
        SKIVET_TRY(s.payload, payload_of(*s.edited.texture));
        s.out.levels = all_new(*s.becomes);
        return s;
    }
    if (s.own_levels) {
        SKIVET_TRY(s.edits, take_levels(*s.original, *s.edited.texture, s.out));
        return s;
    }
    const auto& f = s.format();
    auto encode = s.options.encode;
    encode.alpha_is_transparency = transparent(s);
    encode.normals = s.out.mips.normals;
    if (s.becomes) {
        const auto& mips = s.out.mips;
        SKIVET_TRY(s.payload, encode_levels(s.out.edited, *s.becomes, mips.known ? mips.recipe : MipRecipe{}, encode,
                                            mips.normals.value_or(NormalChannels())));
        s.out.levels = all_new(*s.becomes);
        return s;
    }
    if (s.deep) s.deep = stored_form(f.format, *s.deep);
    RebuiltLevels rebuilt;
    if (f.wide) {
        if (!s.own) {
            SKIVET_TRY(s.own, decode_shown<ImageF>(*s.original, 0, s.whole));
        }
        const WideEdit wide(f.format, *s.own, s.before, s.settled);
        auto after = !s.deep ? wide.in_8_bits() : s.normalized() ? wide.in_16_bits(*s.deep) : wide.in_floats(*s.deep);
        SKIVET_TRY(rebuilt, rebuild_shown(*s.original, s.out.mips, encode, *s.own, after, s.whole, nullptr));
        if (f.is_float()) s.lit = std::move(after);
    } else {
        // Exported with all the precision interpolation has: what is the same in 16 bits was not painted.
        if (s.deep) {
            auto wanted = *s.settled;
            for (std::size_t i = 0; i < wanted.texels.size(); ++i)
                if (same_in_16_bits(s.deep->texels[i], s.own->texels[i], f.numeric == Numeric::snorm))
                    wanted.texels[i] = s.before->texels[i];
            s.settled = SharedImage(std::move(wanted));
        }
        SKIVET_TRY(rebuilt, rebuild_shown(*s.original, s.out.mips, encode, *s.before, *s.settled, s.whole, s.known));
    }
    s.edits = std::move(rebuilt.edits);
    s.out.levels = std::move(rebuilt.levels);
    if (s.desc().layers * s.desc().faces > 1 && !s.whole)
        s.note(Grade::note, "Only the first face or layer was edited", "The others stay as they are.");
    return s;
}

/// The decode of what the game will get; `before` is that of the original. Blocks with the same bytes are not decoded again.
Result<SharedImage> as_shown(const SharedImage& before, const TextureFile& original, const Bytes& file, const TextureLayout& layout,
                             bool whole) {
    const auto *old = original.layout.find(0), *now = layout.find(0);
    if (!whole && layout.direct && layout.desc.format == original.layout.desc.format && old && now &&
        old->size == level_bytes(layout.desc.format, before->width, before->height) && now->size == old->size) {
        const auto old_bytes = slice(original.file, old->offset, old->size), bytes = slice(file, now->offset, now->size);
        if (old_bytes && bytes) {
            if (std::equal(old_bytes->begin(), old_bytes->end(), bytes->begin())) return before;
            auto now_shown = *before;
            SKIVET_CHECK(decode_changed(layout.desc.format, *old_bytes, *bytes, now_shown));
            return SharedImage(std::move(now_shown));
        }
    }
    SKIVET_TRY(auto decoded, decode_shown<Image>(TextureFile{original.kind, layout, file}, 0, whole));
    return SharedImage(std::move(decoded));
}

// RMS in steps of 255: 22 dB. Common practice is to find errors from about there without looking for them.
constexpr std::uint8_t heavy_loss = 20;

/// What of the edit the format could not keep, with where.
void losses(FitState& s) {
    // Where texels have 8 bits a channel, only a file with a palette or one that packs with loss changes them.
    const auto& f = s.format();
    const auto whole = [](const ChannelBits& c) { return c.bits == 0 || c.bits == 8; };
    if (!f.block_compressed() && whole(f.red) && whole(f.green) && whole(f.blue) && whole(f.alpha)) {
        std::uint64_t other = 0;
        for (std::size_t i = 0; i < s.out.edited->texels.size(); ++i) other += s.out.edited->texels[i] != s.out.result->texels[i];
        if (other > 0)
            s.note(Grade::note, phrase("{} texels got the nearest color", grouped(other)),
                   "The file has a palette without room for all of your colors, or packs with loss.");
        return;
    }
    const auto& map = s.out.blocks;
    const auto count =
        static_cast<std::uint64_t>(std::count_if(map.loss.begin(), map.loss.end(), [](auto loss) { return loss >= heavy_loss; }));
    if (count == 0) return;
    const auto where = map.texels(*map.worst());
    s.note(Grade::note, count == 1 ? std::string("1 block lost much") : phrase("{} blocks lost much", grouped(count)),
           phrase("{} cannot hold so many different colors side by side; most was lost at {}, {}.", f.name, where.x, where.y));
    s.out.findings.back().where = where;
}

/// Level 0 of what the game will get, as stored; with its true values where the edit had some.
Result<std::pair<SharedImage, std::optional<ImageF>>> result_of(FitState& s) {
    std::pair<SharedImage, std::optional<ImageF>> out;
    if (!s.lit || s.edits.empty()) {
        SKIVET_TRY(out.first, as_shown(s.before, *s.original, s.out.file, s.out.layout, s.whole));
        return out;
    }
    SKIVET_TRY(out.second, decode_shown<ImageF>(TextureFile{s.original->kind, s.out.layout, s.out.file}, 0, s.whole));
    out.first = SharedImage(view_of(s.format().format, *out.second));
    return out;
}

/// 1 for each texel of a new block: what was kept is not off and would only thin out what is said of the rest.
std::vector<std::uint8_t> in_new_blocks(const BlockMap& map, const Image& picture) {
    std::vector<std::uint8_t> out(picture.texels.size());
    for (std::uint32_t y = 0; y < picture.height; ++y)
        for (std::uint32_t x = 0; x < picture.width; ++x) out[std::size_t{y} * picture.width + x] = map.is_new[map.at(x, y)];
    return out;
}

/// How far the result is off, as it counts for what the texture is.
void errors_by_use(FitState& s, const std::optional<ImageF>& values) {
    auto& out = s.out;
    if (!out.mips.normals && !values) {
        if (s.target().color == ColorSpace::linear && s.format().channels > 1) out.psnr_channels = psnr_by_channel(out.edited, out.result);
        return;
    }
    const auto counting = in_new_blocks(out.blocks, out.edited);
    if (out.mips.normals) out.degrees = angles_between(*out.mips.normals, out.edited, out.result, counting);
    else  // The cross of a cubemap has other texels than what is stored.
        out.stops =
            stops_between(*s.lit, *values, darkest_light, values->texels.size() == counting.size() ? Counting(counting) : Counting());
}

/// The texture file, and what the game will see of it.
Result<FitState> compared(FitState s) {
    auto file = s.becomes ? s.original->kind->resized(s.original->file, s.original->layout, *s.becomes, s.payload)
                          : s.original->kind->replace(s.original->file, s.original->layout, s.edits);
    if (!file) {
        s.block("The texture cannot be written back", file.error().message());
        return s;
    }
    s.out.file = std::move(*file);
    auto again = s.original->kind->layout(s.out.file, s.out.file.size(), ReadLimits{});
    if (!again) return fail(std::move(again).error().within("what the game would get"));
    const auto& d = s.target();
    s.out.layout = std::move(*again);
    SKIVET_TRY(const auto stored, result_of(s));
    s.out.resized = s.becomes.has_value();
    s.out.result = paint_form(d.format, stored.first);
    s.out.quality = difference(s.out.edited, s.out.result);
    s.out.blocks = map_blocks(*s.original, s.out.file, s.out.layout, s.out.original, s.out.edited, s.out.result, transparent(s));
    errors_by_use(s, stored.second);
    losses(s);
    if (!s.out.needs_mend())
        s.note(Grade::fits, s.becomes ? "Format and filter match" : "Size, mips and format match",
               fmt::format("{}×{} · {} · {}{}", d.width, d.height, mips_text(d.mips), s.format().name,
                           d.color == ColorSpace::srgb ? " sRGB" : ""));
    return s;
}

constexpr Result<FitState> (*line[])(FitState) = {forms, sized, shaped, noticed, alpha_checked, stored, possible, levels, compared};

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

Result<KnownOriginal> know_original(const TextureFile& original) {
    if (original.layout.damage) return fail(*original.layout.damage);
    KnownOriginal out;
    SKIVET_TRY(auto level, original.decode(0));
    out.level = SharedImage(std::move(level));
    const auto& d = original.layout.desc;
    for (std::uint32_t mip = 1; mip < d.mips && !info(d.format).wide; ++mip) {
        SKIVET_TRY(auto smaller, original.decode(mip));
        out.smaller.push_back(std::move(smaller));
    }
    SKIVET_TRY(out.mips, guess_mips(original));
    if (info(d.format).has_alpha) out.alpha = alpha_facts(out.level);
    return out;
}

Result<Fit> fit(const TextureFile& original, EditedFile edited, const FitOptions& options, const KnownOriginal* known) {
    if (original.layout.damage) return fail(*original.layout.damage);
    FitState state;
    state.original = &original;
    state.known = known;
    state.options = options;
    state.edited = std::move(edited);
    for (const auto stage : line) {
        SKIVET_TRY(state, stage(std::move(state)));
        if (state.ended) break;
    }
    // What stops a delivery first, what is only good to know last.
    std::stable_sort(state.out.findings.begin(), state.out.findings.end(),
                     [](const Finding& a, const Finding& b) { return a.grade > b.grade; });
    return std::move(state.out);
}

Result<MendedEdit> mended_edit(const TextureFile& original, EditedFile edited, const FitOptions& options) {
    FitState state;
    state.original = &original;
    state.options = options;
    state.edited = std::move(edited);
    for (const auto stage : line) {
        SKIVET_TRY(state, stage(std::move(state)));
        if (state.ended || stage == stored) break;
    }
    if (state.whole) return fail(ErrorCode::unfit, "nothing can follow the edit of a cubemap or an array", "Edit the copies by themselves");
    if (state.ended)
        return fail(ErrorCode::unfit, "the edit has another size than the texture it was made of, so its copies cannot follow",
                    "Mend its size first");
    return MendedEdit{std::move(state.out.original), std::move(state.out.edited)};
}

}  // namespace skivet
