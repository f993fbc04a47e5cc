#include "bench/mends.h"

#include <fmt/format.h>
#include <cmath>

#include "base/phrase.h"
#include "base/text.h"
#include "bench/cube.h"
#include "bench/export.h"
#include "bench/fit_state.h"
#include "codec/paint_form.h"
#include "pixel/mips.h"

namespace skivet {
namespace {

Finding found(Grade grade, const std::string& headline, const std::string& detail) { return {grade, said(headline), said(detail), {}}; }

/// What the texture would be with the edit's size: a whole chain stays whole, a single level single, others end at the same size.
TextureDesc with_size_of_edit(const FitState& s) {
    auto d = s.desc();
    const auto old_full = full_mip_count(d.width, d.height), mips = d.mips;
    d.width = s.painted.width;
    d.height = s.painted.height;
    const auto full = full_mip_count(d.width, d.height);
    d.mips = mips == 1 ? 1 : mips + full > old_full ? std::clamp(mips + full - old_full, 1u, full) : 1;
    return d;
}
bool can_keep_size(const FitState& s) {
    const auto& d = s.desc();
    constexpr std::uint32_t most = 16384;  // what current graphics hardware takes; common practice
    return !s.sized() && !s.whole && d.depth == 1 && d.layers == 1 && d.faces == 1 && s.original->kind->can_resize(s.original->layout) &&
           can_encode(d.format) && !s.format().wide && s.painted.width <= most && s.painted.height <= most;
}

std::optional<Finding> offer_keep_size(const FitState& s) {
    if (!can_keep_size(s)) return std::nullopt;
    const auto now = level_bytes_of(s.desc()), then = level_bytes_of(with_size_of_edit(s));
    return found(
        Grade::note, phrase("It could stay {}×{}", s.painted.width, s.painted.height),
        phrase("The file says its own size: {} bytes become {}, in the file and in the game's memory.", grouped(now), grouped(then)));
}

void keep_size(FitState& s) {
    s.becomes = with_size_of_edit(s);
    s.note(Grade::note, phrase("{}×{} becomes {}×{}", s.width, s.height, s.painted.width, s.painted.height),
           phrase("You chose another size: {} bytes become {}, with {}.", grouped(level_bytes_of(s.desc())),
                  grouped(level_bytes_of(*s.becomes)), mips_text(s.becomes->mips)));
    s.out.findings.back().mend = Mend::resize;
    s.width = s.painted.width;
    s.height = s.painted.height;
    // The original at that size: what alpha is put back from, and what is shown beside the edit.
    s.before = SharedImage(to_bytes(resize(to_float(s.before, s.srgb), s.width, s.height, MipFilter::kaiser), s.srgb));
    s.out.original = paint_form(s.desc().format, s.before);
    s.deep.reset();
}

std::optional<Finding> offer_resize(const FitState& s) {
    if (s.sized()) return std::nullopt;
    if (s.options.mends.has(Mend::keep_size) && can_keep_size(s)) return std::nullopt;
    const auto any = [&](auto wrong) { return wrong(s.painted.width) ? s.painted.width : wrong(s.painted.height) ? s.painted.height : 0; };
    const auto no_power = [](std::uint32_t side) { return !std::has_single_bit(side); };
    std::string detail = said(can_keep_size(s) ? "A game that has the size in its own tables would show rubbish."
                                               : "The game reads the size from its own tables and would show rubbish.");
    if (const auto side = any(no_power); side != 0 && !no_power(s.width) && !no_power(s.height))
        detail += phrase(" {} is no power of two, as both of the game's sides are.", side);
    const auto& f = s.format();
    if (const auto side = any([&](std::uint32_t n) { return n % f.block_width != 0; }); side != 0)
        detail += phrase(" {} is no multiple of {}, the side of {}'s blocks.", side, f.block_width, f.name);
    return found(Grade::blocks, phrase("{}×{} where the game has {}×{}", s.painted.width, s.painted.height, s.width, s.height),
                 std::move(detail));
}

void resize_it(FitState& s) {
    s.painted = to_bytes(resize(to_float(s.painted, s.srgb), s.width, s.height, MipFilter::kaiser), s.srgb);
    // 16 bits tell what was not painted; of a picture that was scaled nothing can be told.
    if (!s.format().wide) s.deep.reset();
    if (s.deep) s.deep = resize(*s.deep, s.width, s.height, MipFilter::kaiser);
}

std::optional<Finding> offer_undo_save(const FitState& s) {
    if (!s.save_fault) return std::nullopt;
    const auto& row = info(*s.save_fault);
    return found(s.edited.touched ? Grade::note : Grade::mend, std::string(row.headline), std::string(row.detail));
}

void undo_save(FitState& s) {
    if (s.deep) {
        // The faults are those of files, whose values are 0…1.
        auto deep = to_16_bit_form(s.desc().format, std::move(*s.deep));
        const auto own = to_16_bit_form(s.desc().format, *s.own);
        undo_save_fault(*s.save_fault, s.out.original, s.painted, &own, &deep);
        s.deep = from_16_bit_form(s.desc().format, std::move(deep));
    } else {
        undo_save_fault(*s.save_fault, s.out.original, s.painted, nullptr, nullptr);
    }
    s.save_fault.reset();
}

/// Where x, y and z are all kept. Nothing where a length cannot be wrong.
std::optional<NormalChannels> whole_normals(const FitState& s) {
    const auto& n = s.out.mips.normals;
    return s.sized() && n && n->z >= 0 ? n : std::nullopt;
}
std::array<float, 3> normal_of(const NormalChannels& n, const Texel& t) {
    const auto part = [&](std::size_t c) { return static_cast<float>(t[c]) / 255 * n.scale + n.offset; };
    return {part(n.x), part(n.y), part(static_cast<std::size_t>(n.z))};
}
float length_of(const std::array<float, 3>& v) { return std::sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]); }

std::optional<Finding> offer_normalize(const FitState& s) {
    const auto normals = whole_normals(s);
    if (!normals || s.save_fault) return std::nullopt;
    std::uint64_t painted = 0, off = 0;
    for (std::size_t i = 0; i < s.painted.texels.size(); ++i) {
        const auto& t = s.painted.texels[i];
        if (t == s.out.original->texels[i]) continue;
        ++painted;
        // As far off as a texel of a normal map may be to be taken for one (guess_normals).
        off += std::abs(length_of(normal_of(*normals, t)) - 1) > 0.15f;
    }
    if (off < 16 || off * 50 < painted) return std::nullopt;
    return found(Grade::mend, phrase("{} normals have a wrong length", grouped(off)),
                 "What was painted there is a color, not a direction; in the game the light would be too bright or too dark.");
}

void normalize(FitState& s) {
    const auto normals = whole_normals(s);
    if (!normals) return;
    const std::array<std::size_t, 3> at{normals->x, normals->y, static_cast<std::size_t>(normals->z)};
    for (std::size_t i = 0; i < s.painted.texels.size(); ++i) {
        auto& t = s.painted.texels[i];
        if (t == s.out.original->texels[i]) continue;
        auto v = normal_of(*normals, t);
        const auto length = length_of(v);
        if (length < 0.05f) v = {0, 0, 1};  // points nowhere: as a flat one
        else
            for (auto& part : v) part /= length;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto value = (v[k] - normals->offset) / normals->scale;
            t[at[k]] = static_cast<std::uint8_t>(std::lround(std::clamp(value, 0.0f, 1.0f) * 255));
            if (s.deep) s.deep->texels[i][at[k]] = s.format().is_signed() ? v[k] : value;
        }
    }
}

std::optional<Finding> offer_alpha_back(const FitState& s) {
    if (!s.had_alpha() || !all_opaque(s.painted)) return std::nullopt;
    return found(Grade::mend, "Alpha is gone",
                 "The original uses alpha; in the edit everything is opaque. A cut-out or a mask would be lost.");
}

void put_alpha_back(FitState& s) {
    for (std::size_t i = 0; i < s.painted.texels.size(); ++i) s.painted.texels[i][3] = s.before->texels[i][3];
    if (s.deep)
        for (std::size_t i = 0; i < s.deep->texels.size(); ++i) s.deep->texels[i][3] = s.own->texels[i][3];
}

std::optional<Finding> offer_opaque(const FitState& s) {
    if (s.had_alpha() || !s.format().has_alpha || all_opaque(s.painted)) return std::nullopt;
    return found(Grade::mend, "Alpha appeared", "The original is opaque; parts of the edit are not, and the game may show holes.");
}

void make_opaque(FitState& s) {
    for (auto& t : s.painted.texels) t[3] = 255;
    if (s.deep)
        for (auto& t : s.deep->texels) t[3] = 1;
}

/// Colors of a premultiplied texture are never brighter than their alpha; paint programs work with colors that are not multiplied.
std::optional<Finding> offer_multiply(const FitState& s) {
    if (!s.alpha.premultiplied || s.out.mips.normals || s.format().wide) return std::nullopt;
    std::uint64_t brighter = 0;
    for (std::size_t i = 0; i < s.wanted.texels.size(); ++i)
        brighter += s.wanted.texels[i] != s.before->texels[i] && brighter_than_alpha(s.wanted.texels[i]);
    if (brighter == 0) return std::nullopt;
    return found(Grade::mend, "Color is brighter than its alpha",
                 phrase("The original's colors are multiplied by alpha; in {} texels the edit's are not, and the game would let them glow.",
                        grouped(brighter)));
}

void multiply(FitState& s) {
    for (std::size_t i = 0; i < s.wanted.texels.size(); ++i) {
        auto& t = s.wanted.texels[i];
        const auto& was = s.before->texels[i];
        if (t == was) continue;
        bool as_it_was = t[3] == was[3];
        for (std::size_t c = 0; c < 3; ++c) {
            t[c] = static_cast<std::uint8_t>((t[c] * t[3] + 127) / 255);
            as_it_was = as_it_was && std::abs(t[c] - was[c]) <= 1;
        }
        // A program that divides by alpha when it opens a file rounds; that is no edit.
        if (as_it_was) t = was;
    }
}

constexpr MendRow rows[] = {
    {Mend::resize, MendStep::size, "resize", "size", "Resize it", "bring the edit to the game's size", offer_resize, resize_it},
    {Mend::keep_size, MendStep::size, "keep_size", "larger", "Keep its size", "give the texture the edit's size, where its file can say so",
     offer_keep_size, keep_size},
    {Mend::undo_save, MendStep::painted, "undo_save", "save", "Undo it", "undo what a program did to the whole picture while it saved",
     offer_undo_save, undo_save},
    {Mend::normalize, MendStep::painted, "normalize", "normals", "Make them one long", "bring painted normals to length one",
     offer_normalize, normalize},
    {Mend::restore_alpha, MendStep::painted, "restore_alpha", "alpha", "Put alpha back", "take alpha from the game's texture",
     offer_alpha_back, put_alpha_back},
    {Mend::drop_alpha, MendStep::painted, "drop_alpha", "alpha", "Make it opaque", "alpha is 255 everywhere", offer_opaque, make_opaque},
    {Mend::premultiply, MendStep::stored, "premultiply", "color", "Multiply by alpha", "multiply what was painted by its alpha",
     offer_multiply, multiply},
};
static_assert(std::size(rows) == mend_count);
static_assert([] {
    for (std::size_t i = 0; i < mend_count; ++i)
        if (rows[i].mend != static_cast<Mend>(i)) return false;
    return true;
}());

}  // namespace

std::span<const MendRow> all_mends() { return rows; }
const MendRow& info(Mend mend) { return rows[static_cast<std::size_t>(mend)]; }

std::optional<Mend> mend_named(std::string_view id) {
    for (const auto& row : rows)
        if (row.id == id) return row.mend;
    return std::nullopt;
}

Result<MendSet> parse_mends(std::string_view list) {
    MendSet out;
    while (!list.empty()) {
        const auto comma = list.find(',');
        const auto word = list.substr(0, comma);
        bool known = word == "all";
        // Another size is a choice of its own, not part of a repair.
        for (const auto& row : rows)
            if ((word == "all" && row.mend != Mend::keep_size) || row.id == word || row.group == word) out.add(row.mend), known = true;
        if (!known) {
            std::string there;
            for (const auto& row : rows) there += fmt::format("{} ({}), ", row.id, row.does);
            return fail(ErrorCode::usage, phrase("there is no mend \"{}\"", word),
                        phrase("There are: {}and alpha or all for several", there));
        }
        list = comma == std::string_view::npos ? std::string_view() : list.substr(comma + 1);
    }
    return out;
}

std::string mend_words() {
    std::string ids, groups;
    for (const auto& row : rows) {
        ids += fmt::format("{}{}", ids.empty() ? "" : ", ", row.id);
        if (groups.find(row.group) == std::string::npos) groups += fmt::format("{}{}", groups.empty() ? "" : ", ", row.group);
    }
    return phrase("{}; or all that are about {}; or all", ids, groups);
}

std::vector<std::string> ids_of(const MendSet& mends) {
    std::vector<std::string> out;
    for (const auto& row : rows)
        if (mends.has(row.mend)) out.emplace_back(row.id);
    return out;
}

}  // namespace skivet
