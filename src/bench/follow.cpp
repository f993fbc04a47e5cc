#include "bench/follow.h"

#include <cmath>

#include "codec/paint_form.h"

namespace skivet {

Result<EditedFile> follow_edit(const Image& before, const Image& painted, const TextureFile& follower) {
    SKIVET_TRY(const auto own, follower.decode(0));
    const auto mine = paint_form(follower.layout.desc.format, own);
    if (painted.width != before.width || painted.height != before.height)
        return fail(ErrorCode::unfit, "the edit has another size than the texture it was made of, so its copies cannot follow",
                    "Bring the edit back to the original's size");
    // Change and mask are filtered together: what a texel of the follower covers counts by area.
    ImageF change(before.width, before.height), after(before.width, before.height);
    ImageF mask(before.width, before.height);
    for (std::size_t i = 0; i < before.texels.size(); ++i) {
        const bool touched = painted.texels[i] != before.texels[i];
        mask.texels[i] = {touched ? 1.0f : 0.0f, 0, 0, 0};
        for (std::size_t c = 0; c < 4; ++c) {
            change.texels[i][c] = touched ? static_cast<float>(painted.texels[i][c] - before.texels[i][c]) : 0;
            after.texels[i][c] = painted.texels[i][c];
        }
    }
    const auto w = mine.width, h = mine.height;
    const bool same_size = w == before.width && h == before.height;
    if (!same_size) {
        change = resize(change, w, h, MipFilter::box);
        after = resize(after, w, h, MipFilter::box);
        mask = resize(mask, w, h, MipFilter::box);
    }
    EditedFile out;
    out.image = mine;
    for (std::size_t i = 0; i < mine.texels.size(); ++i) {
        const float share = mask.texels[i][0];
        if (share <= 0) continue;
        for (std::size_t c = 0; c < 4; ++c) {
            const float value = share > 0.999f ? after.texels[i][c] : static_cast<float>(mine.texels[i][c]) + change.texels[i][c];
            out.image.texels[i][c] = static_cast<std::uint8_t>(std::lround(std::clamp(value, 0.0f, 255.0f)));
        }
    }
    return out;
}

}  // namespace skivet
