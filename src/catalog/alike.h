#pragma once
// Textures that look alike: found by any picture, and twins, reduced copies and variants of a texture.
#include <memory>
#include <span>

#include "base/progress.h"
#include "catalog/picture_facts.h"

namespace skivet {

using FactsPtr = std::shared_ptr<const PictureFacts>;

/// A texture that looks like the picture asked for.
struct PictureHit {
    std::size_t picture = 0;                    ///< index into what the search was made from
    float score = 0;                            ///< 1: the same; below about 0.6 the likeness is chance
    float x = 0, y = 0, width = 1, height = 1;  ///< the part of the texture that the picture shows, as shares of its sides
    std::uint8_t quarter_turns = 0;             ///< the picture is turned so often clockwise
    bool mirrored = false;                      ///< and was mirrored left to right before
};

/// A search over many textures, made once and asked often. 1 KB a texture, 2 KB where alpha varies: those are
/// looked at twice, by their colors alone and by what is seen of them.
///
/// First every texture's 64 windows (whole, three quarters and half of each side, in steps) are compared with the picture in 8 turns, by
/// 4×4 values each. Of the best 3,000 textures the windows are compared by 8×8 values and the whole by all 32×32, of the best 900 they are
/// moved and stretched, and the best 200 are judged by 16×16 values. Values are freed from brightness and contrast; color counts a little,
/// so that among equal patterns the right color comes first.
class PictureSearch {
public:
    /// Null facts never match.
    [[nodiscard]] static PictureSearch build(std::vector<FactsPtr> pictures);
    /// The most alike first, at most `top`. Error `canceled` only.
    [[nodiscard]] Result<std::vector<PictureHit>> find(const Image& picture, std::size_t top, const CancelToken& cancel = {}) const;
    [[nodiscard]] std::size_t size() const { return pictures_.size(); }

private:
    struct Entry {
        std::uint32_t picture = 0;
        bool over = false;  ///< by its pattern over gray
    };
    std::vector<FactsPtr> pictures_;
    std::vector<Entry> entries_;
    std::vector<std::int8_t> windows_;  ///< an entry
};

/// How two textures belong together.
enum class Likeness : std::uint8_t {
    none,
    same,     ///< the same picture at the same size; format and mips may differ
    smaller,  ///< the other one is the same picture with fewer texels
    larger,   ///< the other one has more texels
    variant,  ///< the same pattern in other colors
};
[[nodiscard]] std::string_view name_of(Likeness likeness);

/// What is compared: facts and size.
struct Comparable {
    FactsPtr facts;
    std::uint32_t width = 0, height = 0;
};
/// What `b` is to `a`. Flat pictures are alike only when their level 0 is the same, bit for bit.
[[nodiscard]] Likeness likeness(const Comparable& a, const Comparable& b);

struct AlikeTexture {
    std::size_t index = 0;
    Likeness likeness = Likeness::none;
};
/// All others that are alike, the same ones first.
[[nodiscard]] std::vector<AlikeTexture> alike_to(std::span<const Comparable> all, std::size_t one);

/// For each texture the number of others that show the same picture at any size (same, smaller, larger).
/// Candidates come from eight 16-bit parts of a 128-bit hash of the pattern, so that pairs within 7 bits are met; they are compared
/// in full. Of more than 48 that share a part only neighbors are, and two that have 48 no more: what is there often has too few.
[[nodiscard]] std::vector<std::uint32_t> count_twins(std::span<const Comparable> all);

}  // namespace skivet
