#include "parcel/parcel.h"

#include "base/phrase.h"

namespace skivet {

std::string parcel_id(std::string_view title) {
    std::string out;
    for (const char c : title) {
        const bool letter = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        const bool large = c >= 'A' && c <= 'Z';
        if (letter || large) out += static_cast<char>(large ? c - 'A' + 'a' : c);
        else if (!out.empty() && out.back() != '-') out += '-';
        if (out.size() == 64) break;
    }
    while (!out.empty() && out.back() == '-') out.pop_back();
    return out.empty() ? "mod" : out;
}

Status check_about(const ParcelAbout& about) {
    const auto wrong = [](std::string what) { return fail(ErrorCode::usage, std::move(what)); };
    const auto good_id = [](const std::string& id) {
        return !id.empty() && id.size() <= 64 && id.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-.") == std::string::npos &&
               id.front() != '.' && id.front() != '-';
    };
    if (!good_id(about.id))
        return wrong(phrase("\"{}\" is no parcel's id: lower-case letters, digits, '-' and '.', at most 64, a letter or digit first",
                            about.id.substr(0, 80)));
    if (about.title.empty()) return wrong("a parcel has a title");
    for (const auto* text : {&about.title, &about.author, &about.version, &about.license, &about.game})
        if (text->size() > 256) return wrong("a text of more than 256 bytes where a few words belong");
    if (about.notes.size() > 65536) return wrong("notes of more than 64 KB");
    for (const auto* names : {&about.needs, &about.not_with})
        for (const auto& name : *names)
            if (!good_id(name.id) || name.version.size() > 256) return wrong(phrase("\"{}\" is no parcel's id", name.id.substr(0, 80)));
    return {};
}

Result<ParcelTexture> parcel_texture(const TextureFile& original, const TextureFile& edited, bool own) {
    ParcelTexture out;
    out.kind = original.kind->name();
    out.desc = original.layout.desc;
    out.was_file = to_hex(sha256(original.file));
    out.becomes_file = to_hex(sha256(edited.file));
    SKIVET_TRY(const auto was, pixel_hash(original));
    SKIVET_TRY(const auto becomes, pixel_hash(edited));
    out.was_pixels = to_hex(was);
    out.becomes_pixels = to_hex(becomes);
    auto change = near_difference(original, edited);
    constexpr double nearly_all = 0.98;
    const auto units = level_bytes(out.desc.format, out.desc.width, out.desc.height) / info(out.desc.format).block_bytes;
    if (change && units >= 64 && share_of(change->change, original.layout) >= nearly_all) {
        if (!own)
            return fail(ErrorCode::unsupported,
                        "nearly all of it is other than the game's: painted anew, or the game's own, compressed again",
                        "Say that it is wholly your own, if it is");
        out.own = true;
    }
    if (change) {
        out.change = std::move(change->change);
        if (change->file != edited.file) {
            auto made = edited;
            made.file = std::move(change->file);
            SKIVET_TRY(const auto pixels, pixel_hash(made));
            out.becomes_file = to_hex(sha256(made.file));
            out.becomes_pixels = to_hex(pixels);
        }
        return out;
    }
    if (!own) {
        auto error = std::move(change).error();
        if (error.code == ErrorCode::unsupported)
            error.advice = "A parcel could only hold the whole texture. Say that it is wholly your own, if it is";
        return fail(std::move(error));
    }
    out.own = true;
    out.whole = edited.file;
    return out;
}

}  // namespace skivet
