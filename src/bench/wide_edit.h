#pragma once
// Edits of textures with true values: what of them is the original's; used by fitting.cpp only.
#include <algorithm>
#include <cmath>

#include "codec/codec.h"

namespace skivet {

/// Whether `painted`, read from a 16-bit file, is what `own` was written as: the nearest whole step. A little more than half a step is let
/// through, for the writer rounded in floats.
inline bool same_in_16_bits(const TexelF& painted, const TexelF& own, bool is_signed) {
    const auto step = [&](float v) { return std::clamp(is_signed ? v * 127.0 * 257 + 128 * 257 : v * 65535.0, 0.0, 65535.0); };
    for (std::size_t c = 0; c < 4; ++c)
        if (!(std::abs(step(painted[c]) - step(own[c])) < 0.52)) return false;
    return true;
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

}  // namespace skivet
