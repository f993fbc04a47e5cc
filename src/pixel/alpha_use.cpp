#include "pixel/alpha_use.h"

#include <algorithm>

#include "base/phrase.h"

namespace skivet {
namespace {

/// Variance of the three colors, summed, over the texels that were added.
class Spread {
public:
    void add(const Texel& t) {
        ++count_;
        for (std::size_t c = 0; c < 3; ++c) sum_[c] += t[c], square_[c] += static_cast<double>(t[c]) * t[c];
    }
    [[nodiscard]] double variance() const {
        double out = 0;
        for (std::size_t c = 0; c < 3 && count_ > 0; ++c) out += square_[c] / count_ - sum_[c] / count_ * (sum_[c] / count_);
        return out;
    }
    [[nodiscard]] double count() const { return count_; }

private:
    double count_ = 0;
    std::array<double, 3> sum_{}, square_{};
};

}  // namespace

std::string_view name_of(AlphaUse use) {
    switch (use) {
        case AlphaUse::none: return "opaque";
        case AlphaUse::empty: return "zero everywhere";
        case AlphaUse::cut_out: return "cut-out";
        case AlphaUse::gradient: return "gradient";
        case AlphaUse::mask: return "mask";
    }
    return "";
}

bool all_opaque(const Image& image) {
    // A stretch at a time without leaving it early: that is what compilers make vectors of.
    constexpr std::size_t stretch = 4096;
    for (std::size_t i = 0; i < image.texels.size(); i += stretch) {
        unsigned least = 255;
        for (auto k = i; k < std::min(image.texels.size(), i + stretch); ++k) least &= image.texels[k][3];
        if (least != 255) return false;
    }
    return true;
}

bool all_clear(const Image& image) {
    return std::all_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] == 0; });
}

AlphaFacts alpha_facts(const Image& image) {
    AlphaFacts out;
    std::size_t clear = 0, solid = 0, partly = 0, near_alpha = 0, brighter = 0, faint = 0;
    Spread under, over;
    const Texel* first_hidden = nullptr;
    for (const auto& t : image.texels) {
        clear += t[3] == 0;
        solid += t[3] >= 254;  // what encoders of old made of 255
        brighter += brighter_than_alpha(t);
        faint += t[3] <= 16;
        if (t[3] >= 8 && t[3] <= 247) {
            ++partly;
            near_alpha += std::max({t[0], t[1], t[2]}) * 2 >= t[3];
        }
        (t[3] < 128 ? under : over).add(t);
        if (t[3] != 0) continue;
        if (!first_hidden) first_hidden = &t;
        else if (!std::equal(t.begin(), t.begin() + 3, first_hidden->begin())) out.hidden_colors = true;
    }
    const auto all = image.texels.size();
    if (solid == all) return out;
    if (clear == all) {
        out.use = AlphaUse::empty;
        return out;
    }
    out.premultiplied = brighter * 50 <= all && partly * 100 >= all && faint * 100 >= all && near_alpha * 10 >= partly;
    if (out.premultiplied) {
        out.use = AlphaUse::gradient;
        return out;
    }
    const bool detail_below = under.count() > 0 && over.count() > 0 && under.variance() > 30 && under.variance() * 4 >= over.variance();
    if (detail_below || over.count() == 0) out.use = AlphaUse::mask;
    else out.use = static_cast<double>(clear + solid) >= 0.95 * static_cast<double>(all) ? AlphaUse::cut_out : AlphaUse::gradient;
    return out;
}

bool brighter_than_alpha(const Texel& t) { return std::max({t[0], t[1], t[2]}) > t[3] + 8; }

std::optional<std::size_t> lone_channel(const Image& image) {
    std::array<bool, 4> varies{};
    for (const auto& t : image.texels)
        for (std::size_t c = 0; c < 4; ++c) varies[c] = varies[c] || t[c] != image.texels.front()[c];
    if (std::count(varies.begin(), varies.end(), true) != 1) return std::nullopt;
    return static_cast<std::size_t>(std::find(varies.begin(), varies.end(), true) - varies.begin());
}

std::string describe(const AlphaFacts& facts) {
    std::string out = said(name_of(facts.use));
    if (facts.premultiplied) out += said(", color premultiplied");
    if (facts.hidden_colors) out += said(", colors under zero alpha");
    return out;
}

}  // namespace skivet
