#pragma once
// What passes along the line of a fit. Only the stages (fitting.cpp) and the mends (mends.cpp) look inside.
#include "base/phrase.h"
#include "bench/fitting.h"
#include "bench/save_fault.h"
#include "pixel/alpha_use.h"

namespace skivet {

/// A value; each stage gets it and gives it on. The original must outlive it.
struct FitState {
    const TextureFile* original = nullptr;
    const KnownOriginal* known = nullptr;  ///< may be null
    FitOptions options;
    EditedFile edited;        ///< as given, its colors brought to sRGB
    bool whole = false;       ///< a cubemap or an array that came back as one picture of all its parts (cube.h)
    bool srgb = false;        ///< scaled in light
    std::uint32_t width = 0;  ///< of the picture the game's texture makes: level 0, or the cross
    std::uint32_t height = 0;
    SharedImage before;         ///< that picture, decoded, as stored
    std::optional<ImageF> own;  ///< the same in true values, where `deep` is, or the format is wide
    Image painted;              ///< the edit in paint form; once it is stored only its size is left
    /// The edit in true values, where its file has more than 8 bits and the format gains from them.
    std::optional<ImageF> deep;
    Image wanted;               ///< what level 0 becomes, in stored form, while mends are made
    SharedImage settled;        ///< the same when they are
    std::optional<ImageF> lit;  ///< what level 0 becomes in true values, where they are light in floats
    AlphaFacts alpha;           ///< of `before`
    std::optional<SaveFault> save_fault;
    /// The texture gets another size or format: all levels are new. What `desc` says then; nothing otherwise.
    std::optional<TextureDesc> becomes;
    bool own_levels = false;  ///< the edit is a texture file of the same shape: its levels go in as they are
    std::vector<SurfaceEdit> edits;
    Bytes payload;  ///< all levels of a texture of another size
    Fit out;
    bool ended = false;  ///< a finding blocks what would come next

    [[nodiscard]] const TextureDesc& desc() const { return original->layout.desc; }
    /// What the levels are encoded in.
    [[nodiscard]] const FormatInfo& format() const { return info(target().format); }
    [[nodiscard]] bool normalized() const { return format().numeric == Numeric::unorm || format().numeric == Numeric::snorm; }
    /// What the texture will be.
    [[nodiscard]] const TextureDesc& target() const { return becomes ? *becomes : desc(); }
    /// The edit has the size the game expects.
    [[nodiscard]] bool sized() const { return painted.width == width && painted.height == height; }
    /// The original's alpha says something.
    [[nodiscard]] bool had_alpha() const { return info(desc().format).has_alpha && !all_opaque(before); }
    void note(Grade grade, const std::string& headline, const std::string& detail) {
        out.findings.push_back({grade, said(headline), said(detail), std::nullopt});
    }
    /// Nothing further along can be done.
    void block(const std::string& headline, const std::string& detail) {
        note(Grade::blocks, headline, detail);
        ended = true;
    }
};

}  // namespace skivet
