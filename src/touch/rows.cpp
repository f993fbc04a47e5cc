// The table of touch-ups.
#include "touch/rows.h"

namespace skivet {
namespace {

constexpr auto number = TouchParamKind::number;
constexpr auto choice = TouchParamKind::choice;
constexpr std::string_view borders = "kept|wrapped", meanings = "color|data", channels = "red|green|blue|alpha",
                           sources = "red|green|blue|alpha|gray",
                           filters = "point|box|triangle|gaussian|mitchell|catmull_rom|lanczos|kaiser";

constexpr TouchParam strength = {"strength", number, "Strength", 0, 1, "1", {}};
constexpr TouchParam border = {"border", choice, "At the borders", 0, 0, "kept", borders};
constexpr TouchParam meaning = {"values", choice, "Values are", 0, 0, "color", meanings};

constexpr TouchParam recolor_params[] = {{"hue", number, "Hue", 0, 360, "", {}}, strength};
constexpr TouchParam tint_params[] = {{"color", TouchParamKind::color, "Color", 0, 0, "", {}}, strength};
constexpr TouchParam turn_params[] = {{"degrees", number, "Degrees", -180, 180, "", {}}};
constexpr TouchParam brighten_params[] = {{"stops", number, "Stops of light", -6, 6, "", {}}};
constexpr TouchParam factor_params[] = {{"factor", number, "Factor", 0, 4, "", {}}};
constexpr TouchParam alpha_params[] = {{"value", number, "Alpha", 0, 255, "255", {}}};
constexpr TouchParam file_params[] = {{"file", TouchParamKind::file, "Picture", 0, 0, "", {}}};
constexpr TouchParam cut_params[] = {{"at", number, "From alpha", 0, 255, "128", {}}};
constexpr TouchParam channel_params[] = {{"to", choice, "Into", 0, 0, "", channels},
                                         {"from", choice, "From", 0, 0, "", sources},
                                         {"file", TouchParamKind::file, "Of the picture", 0, 0, "-", {}}};
constexpr TouchParam normals_params[] = {
    {"height", number, "Height, in texels", 0.01, 1000, "8", {}}, border, {"green", choice, "Green points", 0, 0, "up", "up|down"}};
constexpr TouchParam edges_params[] = {
    {"strength", number, "Strength", 0, 16, "1", {}}, {"lines", choice, "Lines are", 0, 0, "light", "light|dark"}, border};
constexpr TouchParam soften_params[] = {{"radius", number, "Radius, in texels", 0.2, 64, "1", {}}, border, meaning};
constexpr TouchParam sharpen_params[] = {
    {"amount", number, "Amount", 0, 4, "0.5", {}}, {"radius", number, "Radius, in texels", 0.2, 64, "1", {}}, border};
constexpr TouchParam bleed_params[] = {{"alpha", number, "Visible from alpha", 1, 255, "1", {}},
                                       {"texels", number, "So far, in texels (0: all)", 0, 16384, "0", {}}};
constexpr TouchParam resize_params[] = {{"width", number, "Width", 1, 16384, "", {}},
                                        {"height", number, "Height", 1, 16384, "", {}},
                                        {"filter", choice, "Filter", 0, 0, "kaiser", filters},
                                        meaning};
constexpr TouchParam multiple_params[] = {{"multiple", number, "To a multiple of", 1, 4096, "4", {}}};

namespace t = touches;
constexpr TouchRow rows[] = {
    {"recolor", "color", "Recolor", "another hue, as light and as strong as before", recolor_params, t::recolor},
    {"tint", "color", "Tint", "this color's hue and strength, as light as before; grays too", tint_params, t::tint},
    {"turn", "color", "Turn hues", "every hue further round the circle", turn_params, t::turn},
    {"brighten", "color", "Brighten", "twice the light for each stop", brighten_params, t::brighten},
    {"contrast", "color", "Contrast", "values further from the middle, or nearer", factor_params, t::contrast},
    {"saturate", "color", "Saturate", "colors further from their gray, or nearer", factor_params, t::saturate},
    {"gray", "color", "Gray", "the gray of the same luminance", {}, t::gray},
    {"alpha", "alpha", "Set alpha", "the same alpha everywhere", alpha_params, t::alpha},
    {"alpha_gray", "alpha", "Alpha from gray", "alpha is what the picture's gray is", {}, t::alpha_gray},
    {"alpha_file", "alpha", "Alpha from a picture", "alpha is another picture's gray", file_params, t::alpha_file},
    {"alpha_invert", "alpha", "Invert alpha", "what was clear becomes opaque", {}, t::alpha_invert},
    {"alpha_cut", "alpha", "Cut alpha", "opaque from there on, clear below", cut_params, t::alpha_cut},
    {"flip_green", "normals", "Flip green", "a normal map for the other convention", {}, t::flip_green},
    {"rebuild_z", "normals", "Rebuild Z", "blue of a normal map from red and green", {}, t::rebuild_z},
    {"normals", "normals", "Normals from height", "a normal map from the picture's gray as height", normals_params, nullptr, t::normals},
    {"channel", "channels", "Move a channel", "one channel from another, of this picture or of another one", channel_params, t::channel},
    {"edges", "detail", "Outlines", "a map of the picture's edges", edges_params, nullptr, t::edges},
    {"soften", "detail", "Soften", "a Gaussian blur, in light", soften_params, nullptr, t::soften},
    {"sharpen", "detail", "Sharpen", "edges stand out more", sharpen_params, nullptr, t::sharpen},
    {"bleed", "detail", "Bleed color", "color of visible texels goes on under clear ones", bleed_params, nullptr, t::bleed},
    {"resize", "size", "Resize", "another size", resize_params, nullptr, t::resized, true},
    {"pad", "size", "Pad", "sides up to a multiple; the last row and column go on", multiple_params, nullptr, t::padded, true},
    {"crop", "size", "Crop", "sides down to a multiple", multiple_params, nullptr, t::cropped, true},
};

}  // namespace

std::span<const TouchRow> all_touch_ups() { return rows; }

const TouchRow* touch_row(std::string_view id) {
    for (const auto& row : rows)
        if (row.id == id) return &row;
    return nullptr;
}

}  // namespace skivet
