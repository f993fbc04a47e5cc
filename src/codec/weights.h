#pragma once
// What an error in one channel of one texel counts, where that is not the same everywhere.
#include "codec/codec.h"

namespace skivet {

/// Whether channel_weights says anything else than "all alike".
[[nodiscard]] inline bool counts_by_channel(const EncodeOptions& options) {
    return options.alpha_is_transparency || options.normals.has_value();
}

/// In 32nds.
/// Transparency: color counts by its alpha, but never nothing, because filtering at an edge still shows it.
/// Normals: the squared angle between n and n + d is d² - (n·d)² for small d. Of that the part without mixed products is taken,
/// Σ (1 - n²) d² over the channels; where z is rebuilt as √(1 - x² - y²) its error is -(x dx + y dy) / z, which gives x the weight 1 + x² /
/// z² and y the same with y. z² is taken as 1/16 at least, and a stored z counts ⅛ at least, so that lengths stay near one. Channels that
/// hold nothing of the normal keep 1/32.
[[nodiscard]] std::array<std::uint16_t, 4> channel_weights(const EncodeOptions& options, const Texel& texel);

/// The squared angle in full, for the three color channels: Σ square d² + mixed (along·d)².
struct AngleMetric {
    std::array<float, 3> square{}, along{};
    float mixed = 0;
};
/// For options.normals. An eighth of the error along a stored normal still counts, so that lengths stay near one.
[[nodiscard]] AngleMetric angle_metric(const EncodeOptions& options, const Texel& texel);

}  // namespace skivet
