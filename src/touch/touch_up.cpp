#include "touch/touch_up.h"

#include <fmt/format.h>
#include <tbb/parallel_for.h>
#include <charconv>
#include <cmath>

#include "base/phrase.h"
#include "base/text.h"
#include "touch/oklab.h"
#include "touch/rows.h"

namespace skivet {
namespace {

constexpr std::uint64_t most_texels = 1u << 26;  // of a result; its floats are 1 GB
constexpr std::array<std::string_view, 5> channel_names = {"red", "green", "blue", "alpha", "gray"};

std::vector<std::string_view> words_of(std::string_view list) {
    std::vector<std::string_view> out;
    while (true) {
        const auto bar = list.find('|');
        out.push_back(list.substr(0, bar));
        if (bar == std::string_view::npos) return out;
        list.remove_prefix(bar + 1);
    }
}

/// The parts between commas; "\," is a comma.
std::vector<std::string> parts_of(std::string_view text) {
    std::vector<std::string> out(1);
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '\\' && i + 1 < text.size()) out.back() += text[++i];
        else if (text[i] == ',') out.emplace_back();
        else out.back() += text[i];
    }
    return out;
}
std::string escaped(std::string_view file) {
    std::string out;
    for (const char c : file) {
        if (c == ',' || c == '\\') out += '\\';
        out += c;
    }
    return out;
}

std::optional<double> number_of(std::string_view text) {
    double v = 0;
    const auto [end, code] = std::from_chars(text.data(), text.data() + text.size(), v);
    if (code != std::errc() || end != text.data() + text.size() || !std::isfinite(v)) return std::nullopt;
    return v;
}
std::optional<TexelF> color_of(std::string_view text) {
    if (text.size() != 7 || text[0] != '#') return std::nullopt;
    unsigned v = 0;
    const auto [end, code] = std::from_chars(text.data() + 1, text.data() + 7, v, 16);
    if (code != std::errc() || end != text.data() + 7) return std::nullopt;
    const auto part = [&](unsigned shift) { return static_cast<float>(v >> shift & 255) / 255; };
    return TexelF{part(16), part(8), part(0), 1};
}
std::string text_of(const TexelF& color) {
    const auto byte = [&](std::size_t c) { return static_cast<int>(std::lround(color[c] * 255)); };
    return fmt::format("#{:02x}{:02x}{:02x}", byte(0), byte(1), byte(2));
}

/// What a parameter takes, for messages and help.
std::string wanted(const TouchParam& p) {
    switch (p.kind) {
        case TouchParamKind::number: return phrase("a number from {} to {}", p.least, p.most);
        case TouchParamKind::color: return said("a color like #a03020");
        case TouchParamKind::file: return said("the name of a picture file");
        case TouchParamKind::choice: break;
    }
    std::string out;
    for (const auto word : words_of(p.choices)) out += fmt::format("{}{}", out.empty() ? "" : ", ", word);
    return phrase("one of {}", out);
}

Result<TouchValue> value_of(const TouchRow& row, const TouchParam& p, std::string_view text) {
    TouchValue out;
    const auto wrong = [&] {
        return fail(ErrorCode::usage, phrase("{}: {} is \"{}\"", row.id, p.id, text), phrase("It takes {}", wanted(p)));
    };
    switch (p.kind) {
        case TouchParamKind::number: {
            const auto v = number_of(text);
            if (!v || *v < p.least || *v > p.most) return wrong();
            out.number = *v;
            return out;
        }
        case TouchParamKind::color: {
            const auto c = color_of(text);
            if (!c) return wrong();
            out.color = *c;
            return out;
        }
        case TouchParamKind::file:
            if (text.empty() || (text == "-" && p.usual != "-")) return wrong();
            if (text != "-") out.file = text;
            return out;
        case TouchParamKind::choice: break;
    }
    const auto words = words_of(p.choices);
    const auto found = std::find(words.begin(), words.end(), text);
    if (found == words.end()) return wrong();
    out.number = static_cast<double>(found - words.begin());
    return out;
}

std::string text_of(const TouchParam& p, const TouchValue& v) {
    switch (p.kind) {
        case TouchParamKind::number: return fmt::format("{}", v.number);
        case TouchParamKind::color: return text_of(v.color);
        case TouchParamKind::file: return v.file.empty() ? "-" : escaped(v.file);
        case TouchParamKind::choice: break;
    }
    return std::string(words_of(p.choices)[static_cast<std::size_t>(v.number)]);
}

/// A touch-up with the pictures it needs.
struct Step {
    const TouchUp* touch = nullptr;
    TouchArgs args;
    std::optional<ImageF> other, mask;
    std::optional<Oklab> near_color;

    [[nodiscard]] float weight(const TexelF& t, std::size_t at) const {
        const auto& m = touch->mask;
        float w = 1;
        switch (m.by) {
            case TouchMask::By::everywhere: return 1;
            case TouchMask::By::channel: w = m.channel < 4 ? t[m.channel] : touches::gray_of(t); break;
            case TouchMask::By::file: w = touches::gray_of(mask->texels[at]); break;
            case TouchMask::By::color: {
                const auto c = oklab_of(t);
                const auto apart = std::hypot(c.lightness - near_color->lightness, c.a - near_color->a, c.b - near_color->b);
                w = static_cast<float>(std::clamp((m.within - static_cast<double>(apart)) / (m.within / 4), 0.0, 1.0));
            }
        }
        return m.inverted ? 1 - w : w;
    }
    [[nodiscard]] static TexelF mixed(const TexelF& before, const TexelF& after, float weight) {
        if (weight <= 0) return before;
        if (weight >= 1) return after;
        TexelF out;
        for (std::size_t c = 0; c < 4; ++c) out[c] = before[c] + (after[c] - before[c]) * weight;
        return out;
    }
    [[nodiscard]] TexelF point(const TexelF& t, std::size_t at) const {
        const auto w = weight(t, at);
        return w <= 0 ? t : mixed(t, touch->row->point(t, at, args), w);
    }
};

Error other_size(const TouchUp& touch, const std::string& file, const ImageF& picture, std::uint32_t width, std::uint32_t height) {
    return {ErrorCode::unfit,
            phrase("{}: {} is {}×{}, the picture {}×{}", touch.row->id, file, picture.width, picture.height, width, height),
            {},
            {},
            "Give it the picture's size"};
}

class Run {
public:
    Run(const TouchPictures& pictures, const CancelToken& cancel) : pictures_(pictures), cancel_(cancel) {}

    template <class Picture>
    Status all(Picture& picture, std::span<const TouchUp> touches) {
        ImageF floats;
        bool as_floats = false;
        if constexpr (std::is_same_v<Picture, ImageF>) floats = picture, as_floats = true;
        auto width = picture.width, height = picture.height;
        std::vector<Step> points;  // of one texel after the other, not done yet
        const auto catch_up = [&] {
            if constexpr (std::is_same_v<Picture, Image>)
                if (!as_floats) floats = to_float(picture, false), as_floats = true;
            each_texel(floats, points);
            points.clear();
        };
        for (const auto& touch : touches) {
            SKIVET_CHECK(cancel_.check());
            SKIVET_TRY(auto step, step_of(touch, width, height));
            if (touch.row->point) {
                points.push_back(std::move(step));
                continue;
            }
            catch_up();
            bind(step);
            auto after = touch.row->whole(floats, step.args);
            SKIVET_CHECK(cancel_.check());
            if (!touch.row->resizes)
                for (std::size_t i = 0; i < after.texels.size(); ++i)
                    after.texels[i] = Step::mixed(floats.texels[i], after.texels[i], step.weight(floats.texels[i], i));
            floats = std::move(after);
            width = floats.width;
            height = floats.height;
        }
        if (as_floats) catch_up();
        SKIVET_CHECK(cancel_.check());
        if constexpr (std::is_same_v<Picture, ImageF>) picture = std::move(floats);
        else if (as_floats) picture = to_bytes(floats, false);
        else {
            auto out = picture;
            each_texel(out, points);
            SKIVET_CHECK(cancel_.check());
            picture = std::move(out);
        }
        return {};
    }

private:
    const TouchPictures& pictures_;
    const CancelToken& cancel_;

    /// The pictures lie in the step, which may have moved.
    static void bind(Step& step) { step.args.other = step.other ? &*step.other : nullptr; }

    Result<Step> step_of(const TouchUp& touch, std::uint32_t width, std::uint32_t height) const {
        Step out;
        out.touch = &touch;
        out.args.values = touch.values;
        out.args.canceled = [this] { return cancel_.canceled(); };
        const auto load = [&](const std::string& name, std::optional<ImageF>& into) -> Status {
            SKIVET_TRY(into, pictures_(name));
            if (into->width != width || into->height != height) return fail(other_size(touch, name, *into, width, height));
            return {};
        };
        for (std::size_t i = 0; i < touch.values.size(); ++i) {
            const auto& p = touch.row->params[i];
            if (!touch.values[i].file.empty()) SKIVET_CHECK(load(touch.values[i].file, out.other));
            else if (p.kind == TouchParamKind::file && p.usual.empty())
                return fail(ErrorCode::usage, phrase("{}: {} has to be said", touch.row->id, p.id), phrase("It takes {}", wanted(p)));
        }
        if (touch.mask.by == TouchMask::By::file) SKIVET_CHECK(load(touch.mask.file, out.mask));
        if (touch.mask.by == TouchMask::By::color) out.near_color = oklab_of(touch.mask.color);
        if (touch.row->resizes) {
            const auto larger = touch.row->params.size() == 1 ? std::uint64_t{width + 4096} * (height + 4096)
                                                              : static_cast<std::uint64_t>(touch.values[0].number * touch.values[1].number);
            if (larger > most_texels)
                return fail(ErrorCode::limit, phrase("{}: the picture would have up to {} texels", touch.row->id, grouped(larger)),
                            phrase("{} are possible", grouped(most_texels)));
        }
        return out;
    }

    void each_texel(Image& picture, std::vector<Step>& steps) const {
        each_row(picture, steps, [&](std::uint32_t y, const auto& through) {
            auto* row = &picture.at(0, y);
            std::vector<TexelF> texels(picture.width);
            to_float(row, picture.width, false, texels.data());
            for (std::uint32_t x = 0; x < picture.width; ++x) texels[x] = through(texels[x], std::size_t{y} * picture.width + x);
            to_bytes(texels.data(), picture.width, false, row);
        });
    }
    void each_texel(ImageF& picture, std::vector<Step>& steps) const {
        each_row(picture, steps, [&](std::uint32_t y, const auto& through) {
            for (std::uint32_t x = 0; x < picture.width; ++x)
                picture.at(x, y) = through(picture.at(x, y), std::size_t{y} * picture.width + x);
        });
    }
    template <class Picture, class Row>
    void each_row(const Picture& picture, std::vector<Step>& steps, const Row& row) const {
        if (steps.empty()) return;
        for (auto& step : steps) bind(step);
        tbb::parallel_for(0u, picture.height, [&](std::uint32_t y) {
            if (cancel_.canceled()) return;
            row(y, [&](TexelF t, std::size_t at) {
                for (const auto& step : steps) t = step.point(t, at);
                return t;
            });
        });
    }
};

}  // namespace

Result<TouchMask> parse_touch_mask(const std::string& whole) {
    TouchMask out;
    std::string_view text = whole;
    constexpr std::string_view no = "not ";
    if (text.starts_with(no)) out.inverted = true, text.remove_prefix(no.size());
    if (const auto found = std::find(channel_names.begin(), channel_names.end(), text); found != channel_names.end()) {
        out.by = TouchMask::By::channel;
        out.channel = static_cast<std::size_t>(found - channel_names.begin());
        return out;
    }
    if (text.starts_with('@') && text.size() > 1) {
        out.by = TouchMask::By::file;
        out.file = text.substr(1);
        return out;
    }
    const auto wave = text.find('~');
    const auto within = wave == std::string_view::npos ? std::optional(out.within) : number_of(text.substr(wave + 1));
    if (const auto color = color_of(text.substr(0, wave)); color && within && *within > 0 && *within <= 2) {
        out.by = TouchMask::By::color;
        out.color = *color;
        out.within = *within;
        return out;
    }
    return fail(
        ErrorCode::usage, phrase("\"{}\" is no mask", whole),
        "A mask is red, green, blue, alpha or gray, a color with how near (#a03020~0.1, up to 2), or a picture (@areas.png); \"not \" "
        "before it turns it around");
}

std::string text_of(const TouchMask& mask) {
    const std::string no = mask.inverted ? "not " : "";
    switch (mask.by) {
        case TouchMask::By::channel: return no + std::string(channel_names[mask.channel]);
        case TouchMask::By::color: return fmt::format("{}{}~{}", no, text_of(mask.color), mask.within);
        case TouchMask::By::file: return no + "@" + escaped(mask.file);
        default: return {};
    }
}

Result<TouchUp> parse_touch_up(std::string_view text) {
    const auto equals = text.find('=');
    const auto name = text.substr(0, equals);
    TouchUp out;
    out.row = touch_row(name);
    if (!out.row) return fail(ErrorCode::usage, phrase("there is no touch-up \"{}\"", name), phrase("There are:\n{}", touch_words()));
    const auto& params = out.row->params;
    std::vector<std::optional<TouchValue>> said(params.size());
    std::size_t next = 0;
    if (equals != std::string_view::npos)
        for (const auto& part : parts_of(text.substr(equals + 1))) {
            const auto colon = part.find(':');
            const auto id = std::string_view(part).substr(0, colon);
            auto which = std::find_if(params.begin(), params.end(), [&](const TouchParam& p) { return p.id == id; });
            auto value = std::string_view(part).substr(colon == std::string::npos ? 0 : colon + 1);
            if (colon != std::string::npos && id == "mask") {
                if (out.row->resizes) return fail(ErrorCode::usage, phrase("{}: a size cannot have a mask", out.row->id));
                SKIVET_TRY(out.mask, parse_touch_mask(std::string(value)));
                continue;
            }
            if (colon == std::string::npos || which == params.end()) {
                value = part;
                while (next < params.size() && said[next]) ++next;
                if (next == params.size())
                    return fail(ErrorCode::usage, phrase("{}: nothing takes \"{}\"", out.row->id, part),
                                phrase("There are:\n{}", touch_words()));
                which = params.begin() + static_cast<std::ptrdiff_t>(next);
            }
            auto& place = said[static_cast<std::size_t>(which - params.begin())];
            if (place) return fail(ErrorCode::usage, phrase("{}: {} is said twice", out.row->id, which->id));
            SKIVET_TRY(place, value_of(*out.row, *which, value));
        }
    for (std::size_t i = 0; i < params.size(); ++i) {
        if (!said[i] && params[i].usual.empty())
            return fail(ErrorCode::usage, phrase("{}: {} has to be said", out.row->id, params[i].id),
                        phrase("It takes {}", wanted(params[i])));
        if (!said[i]) {
            SKIVET_TRY(said[i], value_of(*out.row, params[i], params[i].usual));
        }
        out.values.push_back(*said[i]);
    }
    return out;
}

TouchValue usual_value(const TouchRow& row, const TouchParam& param) { return value_of(row, param, param.usual).value_or(TouchValue{}); }

std::string text_of(const TouchUp& touch) {
    std::string out(touch.row->id);
    char before = '=';
    const auto add = [&](std::string_view id, const std::string& value) {
        out += fmt::format("{}{}:{}", before, id, value);
        before = ',';
    };
    for (std::size_t i = 0; i < touch.row->params.size(); ++i) {
        const auto& p = touch.row->params[i];
        if (const auto text = text_of(p, touch.values[i]); text != p.usual) add(p.id, text);
    }
    if (touch.mask.by != TouchMask::By::everywhere) add("mask", text_of(touch.mask));
    return out;
}

std::string describe(const TouchUp& touch) {
    std::string out = said(touch.row->words);
    std::string_view before = ": ";
    for (std::size_t i = 0; i < touch.row->params.size(); ++i) {
        const auto& p = touch.row->params[i];
        const auto text = text_of(p, touch.values[i]);
        if (text == p.usual && i > 0) continue;
        out += before;
        // One number alone needs no name.
        const auto shown = p.kind == TouchParamKind::choice ? said(text) : text;
        out += touch.row->params.size() == 1 ? shown : fmt::format("{} {}", said(p.id), shown);
        before = ", ";
    }
    const auto& m = touch.mask;
    if (m.by == TouchMask::By::channel) {
        const auto channel = said(channel_names[m.channel]);
        out += m.inverted ? phrase("; where {} is low", channel) : phrase("; where {} is high", channel);
    }
    if (m.by == TouchMask::By::color)
        out += m.inverted ? phrase("; away from {}", text_of(m.color)) : phrase("; near {}", text_of(m.color));
    if (m.by == TouchMask::By::file) out += m.inverted ? phrase("; where {} is dark", m.file) : phrase("; where {} is bright", m.file);
    return out;
}

std::string touch_words() {
    std::string out;
    for (const auto& row : all_touch_ups()) {
        out += fmt::format("  {}: {}\n", row.id, row.does);
        for (const auto& p : row.params)
            out += fmt::format("    {}: {}{}\n", p.id, wanted(p),
                               p.usual.empty()  ? ""
                               : p.usual == "-" ? said(", or nothing")
                                                : phrase("; {} if not said", p.usual));
    }
    return out;
}

Status touch(Image& picture, std::span<const TouchUp> touches, const TouchPictures& pictures, const CancelToken& cancel) {
    return Run(pictures, cancel).all(picture, touches);
}
Status touch(ImageF& picture, std::span<const TouchUp> touches, const TouchPictures& pictures, const CancelToken& cancel) {
    return Run(pictures, cancel).all(picture, touches);
}

}  // namespace skivet
