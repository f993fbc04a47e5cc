#pragma once
// Touch-ups: changes to a picture that need no brush. A touch-up is a row of one table (rows.cpp): what it is called, what it takes, what
// it does. The command line, the project file and the window read the table, so a new row is all that a new touch-up takes.
//
// A picture here is what a paint program shows: R, G, B encoded (sRGB where it is color), A apart from them.
#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "base/progress.h"
#include "base/result.h"
#include "pixel/image.h"

namespace skivet {

/// The value of one parameter, read from its text.
struct TouchValue {
    double number = 0;                ///< of a number; of a choice its place in the list
    std::array<float, 4> color = {};  ///< encoded, 0…1
    std::string file;
};

/// Where a touch-up works, and how much: 0 keeps a texel as it is, bit for bit.
struct TouchMask {
    enum class By : std::uint8_t { everywhere, channel, color, file };
    By by = By::everywhere;
    bool inverted = false;
    std::size_t channel = 0;          ///< R, G, B, A; 4: gray
    std::array<float, 4> color = {};  ///< encoded
    double within = 0.1;              ///< of that color: distance in Oklab at which the weight is 0; up to three quarters of it it is 1
    std::string file;                 ///< a picture of the same size, by its gray
    bool operator==(const TouchMask&) const = default;
};

/// What a touch-up works with besides the picture.
struct TouchArgs {
    std::span<const TouchValue> values;
    const ImageF* other = nullptr;  ///< the picture that its file parameter names, of the same size
    std::function<bool()> canceled;
    [[nodiscard]] double number(std::size_t i) const { return values[i].number; }
    [[nodiscard]] float factor(std::size_t i) const { return static_cast<float>(values[i].number); }
    [[nodiscard]] std::size_t choice(std::size_t i) const { return static_cast<std::size_t>(values[i].number); }
};

enum class TouchParamKind : std::uint8_t { number, choice, color, file };
struct TouchParam {
    std::string_view id;
    TouchParamKind kind = TouchParamKind::number;
    std::string_view words;  ///< what a person reads
    double least = 0, most = 0;
    std::string_view usual;    ///< as text; empty: it has to be said (a file may be left out)
    std::string_view choices;  ///< "kept|wrapped"
};

struct TouchRow {
    std::string_view id;     ///< in the project file and on the command line
    std::string_view group;  ///< color, alpha, normals, channels, detail, size
    std::string_view words;  ///< what a person reads
    std::string_view does;   ///< one sentence for help texts
    std::span<const TouchParam> params;
    /// One of the two: each texel by itself, or the whole picture, which may come out in another size. Encoded values, 0…1.
    TexelF (*point)(const TexelF& texel, std::size_t at, const TouchArgs& args) = nullptr;
    ImageF (*whole)(const ImageF& picture, const TouchArgs& args) = nullptr;
    bool resizes = false;  ///< no mask is possible
};
[[nodiscard]] std::span<const TouchRow> all_touch_ups();
[[nodiscard]] const TouchRow* touch_row(std::string_view id);

/// What a parameter is when nothing is said; it must have such a value.
[[nodiscard]] TouchValue usual_value(const TouchRow& row, const TouchParam& param);

struct TouchUp {
    const TouchRow* row = nullptr;
    std::vector<TouchValue> values;  ///< one a parameter
    TouchMask mask;
};

/// "recolor=210,strength:0.8,mask:red": the touch-up's name, then its values in order or each behind its name. A mask is red, green, blue,
/// alpha or gray, a color with how near ("mask:#a03020~0.1"), or a picture ("mask:@areas.png"); "not " before it turns it around. A comma
/// or backslash in a file's name has a backslash before it. Errors `usage` say what there is.
[[nodiscard]] Result<TouchUp> parse_touch_up(std::string_view text);
/// The same with everything that is not as usual; parse_touch_up gives it back.
[[nodiscard]] std::string text_of(const TouchUp& touch);
/// For a person: "Tint: color #2040c0, strength 0.6; where red is high".
[[nodiscard]] std::string describe(const TouchUp& touch);
/// The mask as text: "" everywhere.
[[nodiscard]] std::string text_of(const TouchMask& mask);
[[nodiscard]] Result<TouchMask> parse_touch_mask(const std::string& text);
/// Every touch-up with its parameters, a line each, for help texts.
[[nodiscard]] std::string touch_words();

/// The pictures that touch-ups name, as floats of encoded values.
using TouchPictures = std::function<Result<ImageF>(const std::string& name)>;
/// Makes them in order; values are rounded once, at the end, and a texel that none changes keeps its bits. Errors `unfit` for a picture of
/// another size than the one it is for, `limit` for a size that is not possible, those of `pictures`, `canceled`; the picture is then as it
/// was.
[[nodiscard]] Status touch(Image& picture, std::span<const TouchUp> touches, const TouchPictures& pictures, const CancelToken& cancel = {});
[[nodiscard]] Status touch(ImageF& picture, std::span<const TouchUp> touches, const TouchPictures& pictures,
                           const CancelToken& cancel = {});

}  // namespace skivet
