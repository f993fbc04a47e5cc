#include "bench/touching.h"

#include "base/file_write.h"
#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {
constexpr std::string_view ending = ".txt";
}

TouchPictures touch_pictures_in(std::filesystem::path folder, const ReadLimits& limits) {
    return [folder = std::move(folder), limits](const std::string& name) -> Result<ImageF> {
        const auto path = folder / name;
        const auto within = [&](Error error) { return fail(std::move(error).within(name)); };
        auto bytes = read_file(path, limits.inflated_bytes);
        if (!bytes) return within(std::move(bytes).error());
        auto picture = read_edited(std::move(*bytes), limits, name);
        if (!picture) return within(std::move(picture).error());
        if (picture->wide) return std::move(*picture->wide);
        return to_float(picture->image, false);
    };
}

Status touch(EditedFile& edited, std::span<const TouchUp> touches, const TouchPictures& pictures, const CancelToken& cancel) {
    if (touches.empty()) return {};
    if (edited.values)
        return fail(ErrorCode::unsupported, "touch-ups are not made on true values", "Save it with 8 or 16 bits, as PNG or TIFF");
    auto image = edited.image;
    SKIVET_CHECK(touch(image, touches, pictures, cancel));
    if (edited.wide) SKIVET_CHECK(touch(*edited.wide, touches, pictures, cancel));
    edited.image = std::move(image);
    edited.texture.reset();
    edited.touched = true;
    return {};
}

fs::path TouchLists::standard_folder() { return user_data_folder() / "touch-ups"; }

std::vector<std::string> TouchLists::names() const {
    std::vector<std::string> out;
    std::error_code code;
    for (const auto& file : fs::directory_iterator(folder_, code))
        if (file.path().extension() == ending) out.push_back(file.path().stem().string());
    std::sort(out.begin(), out.end());
    return out;
}

Result<std::vector<TouchUp>> TouchLists::read(const std::string& name) const {
    std::error_code code;
    const auto kept = folder_ / (name + std::string(ending));
    const auto path = name.find('/') == std::string::npos && fs::exists(kept, code) ? kept : fs::path(name);
    if (!fs::exists(path, code)) {
        std::string there;
        for (const auto& one : names()) there += (there.empty() ? "" : ", ") + one;
        return fail(ErrorCode::usage, phrase("there is no list of touch-ups \"{}\"", name),
                    there.empty() ? said("None is kept yet") : phrase("There are: {}", there));
    }
    SKIVET_TRY(const auto bytes, read_file(path, 1u << 20));
    std::vector<TouchUp> out;
    std::size_t number = 0;
    const auto text = as_text(bytes);
    for (std::string_view rest = text; !rest.empty();) {
        const auto end = rest.find('\n');
        auto line = rest.substr(0, end);
        rest = end == std::string_view::npos ? std::string_view() : rest.substr(end + 1);
        ++number;
        if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
        if (line.empty() || line.front() == '#') continue;
        auto touch = parse_touch_up(line);
        if (!touch) return fail(std::move(touch).error().within(phrase("line {}", number)).within(path.filename().string()));
        out.push_back(std::move(*touch));
    }
    return out;
}

Status TouchLists::keep(const std::string& name, std::span<const TouchUp> touches) const {
    if (name.empty() || name.find('/') != std::string::npos || name.front() == '.')
        return fail(ErrorCode::usage, phrase("\"{}\" cannot be the name of a list", name), "Letters, digits and spaces");
    std::string text;
    for (const auto& touch : touches) text += text_of(touch) + '\n';
    return write_file(folder_ / (name + std::string(ending)), std::as_bytes(std::span(text)));
}

}  // namespace skivet
