#include "parcel/manifest.h"

#include <nlohmann/json.hpp>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace {

using Json = nlohmann::json;

constexpr int version = 1;
constexpr std::size_t most_textures = 100'000;
constexpr int most_depth = 8;  // of JSON; a manifest has 4

Json names_to_json(const std::vector<ParcelName>& names) {
    auto out = Json::array();
    for (const auto& name : names) {
        out.push_back({{"id", name.id}});
        if (!name.version.empty()) out.back()["version"] = name.version;
    }
    return out;
}

/// Values of a manifest, with what is wrong in words.
struct Reader {
    std::optional<Error> error;

    void wrong(std::string what) {
        if (!error) error = Error{ErrorCode::damaged, std::move(what), {}, {}, {}};
    }
    std::string text(const Json& j, const char* key, std::size_t most = 256) {
        const auto found = j.find(key);
        if (found == j.end()) return {};
        if (!found->is_string()) return wrong(phrase("\"{}\" is no text", key)), std::string();
        auto out = found->get<std::string>();
        if (out.size() > most) return wrong(phrase("\"{}\" has {} bytes, at most {} are allowed", key, out.size(), most)), std::string();
        return out;
    }
    std::string hash(const Json& j, const char* key) {
        auto out = text(j, key);
        if (!out.empty() && (out.size() != 64 || out.find_first_not_of("0123456789abcdef") != std::string::npos))
            wrong(phrase("\"{}\" is no SHA-256 in lower-case hexadecimal", key));
        return out;
    }
    std::uint32_t number(const Json& j, const char* key, std::uint32_t otherwise) {
        const auto found = j.find(key);
        if (found == j.end()) return otherwise;
        if (!found->is_number_unsigned() || found->get<std::uint64_t>() > 0xFFFFFFFF)
            return wrong(phrase("\"{}\" is no whole number", key)), otherwise;
        return static_cast<std::uint32_t>(found->get<std::uint64_t>());
    }
    const Json& object(const Json& j, const char* key) {
        static const Json none = Json::object();
        const auto found = j.find(key);
        if (found == j.end()) return none;
        if (!found->is_object()) return wrong(phrase("\"{}\" is no object", key)), none;
        return *found;
    }
    const Json& list(const Json& j, const char* key) {
        static const Json none = Json::array();
        const auto found = j.find(key);
        if (found == j.end()) return none;
        if (!found->is_array()) return wrong(phrase("\"{}\" is no list", key)), none;
        return *found;
    }
    std::vector<ParcelName> names(const Json& j, const char* key) {
        std::vector<ParcelName> out;
        for (const auto& one : list(j, key)) {
            if (!one.is_object() || out.size() == 1000) return wrong(phrase("\"{}\" is no list of parcels", key)), out;
            out.push_back({text(one, "id"), text(one, "version")});
        }
        return out;
    }
    std::string name_inside(const Json& j, const char* key) {
        auto out = text(j, key, 200);
        if (!out.empty() && (out == manifest_name || safe_relative_path(out) != out))
            wrong(phrase("\"{}\" is no name of a file in the parcel", key));
        return out;
    }
};

TextureDesc desc_from(Reader& in, const Json& j) {
    TextureDesc out;
    const auto format = in.text(j, "format");
    const auto known = format_named(format);
    if (!known || *known == Format::unknown) in.wrong(phrase("the format \"{}\" is not known", format));
    else out.format = *known;
    out.width = in.number(j, "width", 0);
    out.height = in.number(j, "height", 0);
    out.depth = in.number(j, "depth", 1);
    out.mips = in.number(j, "mips", 1);
    out.layers = in.number(j, "layers", 1);
    out.faces = in.number(j, "faces", 1);
    const auto color = in.text(j, "color");
    out.color = color == "srgb" ? ColorSpace::srgb : color == "linear" ? ColorSpace::linear : ColorSpace::unknown;
    return out;
}

Json desc_to_json(const TextureDesc& d) {
    Json out{{"format", std::string(info(d.format).name)}, {"width", d.width}, {"height", d.height}, {"mips", d.mips}};
    if (d.depth != 1) out["depth"] = d.depth;
    if (d.layers != 1) out["layers"] = d.layers;
    if (d.faces != 1) out["faces"] = d.faces;
    if (d.color != ColorSpace::unknown) out["color"] = std::string(name_of(d.color));
    return out;
}

Result<ParcelTexture> texture_from(const Json& j, const ReadLimits& limits, ParcelFiles& files) {
    Reader in;
    ParcelTexture out;
    if (!j.is_object()) return fail(ErrorCode::damaged, "is no object");
    for (const auto& step : in.list(j, "path")) {
        if (!step.is_string() || step.get<std::string>().empty() || step.get<std::string>().size() > limits.name_bytes ||
            out.inner.size() == limits.depth) {
            in.wrong("\"path\" is no list of paths");
            break;
        }
        out.inner.push_back(step.get<std::string>());
    }
    if (out.inner.empty()) in.wrong("\"path\" is missing");
    const auto& source = in.object(j, "source");
    out.source = in.text(source, "name", limits.name_bytes);
    out.group = in.text(source, "group");
    out.like = in.text(j, "like", limits.name_bytes);
    out.kind = in.text(j, "kind");
    out.desc = desc_from(in, in.object(j, "texture"));
    const auto& was = in.object(j, "was");
    out.was_file = in.hash(was, "file");
    out.was_pixels = in.hash(was, "pixels");
    const auto& becomes = in.object(j, "becomes");
    out.becomes_file = in.hash(becomes, "file");
    out.becomes_pixels = in.hash(becomes, "pixels");
    if (out.becomes_file.empty()) in.wrong("what it becomes is missing");
    const auto own = j.find("own");
    out.own = own != j.end() && own->is_boolean() && own->get<bool>();
    files.change = in.name_inside(j, "change");
    files.whole = in.name_inside(j, "whole");
    if (files.change.empty() == files.whole.empty()) in.wrong("it has not one of \"change\" and \"whole\"");
    if (!files.change.empty() && out.was_file.empty()) in.wrong("it is a change, and does not say of what");
    const auto& pictures = in.object(j, "pictures");
    if (auto name = in.name_inside(pictures, "before"); !name.empty()) out.before = ParcelPicture{std::move(name)};
    if (auto name = in.name_inside(pictures, "after"); !name.empty()) out.after = ParcelPicture{std::move(name)};
    if (in.error) return fail(std::move(*in.error));
    SKIVET_CHECK(check_desc(out.desc, limits));
    return out;
}

}  // namespace

std::string write_manifest(const Parcel& parcel, std::span<const ParcelFiles> files) {
    const auto& about = parcel.about;
    Json out{{"parcel", version}, {"id", about.id}, {"title", about.title}, {"textures", Json::array()}};
    const auto put = [&](const char* key, const std::string& text) {
        if (!text.empty()) out[key] = text;
    };
    put("author", about.author);
    put("version", about.version);
    put("license", about.license);
    put("notes", about.notes);
    put("game", about.game);
    if (!about.needs.empty()) out["needs"] = names_to_json(about.needs);
    if (!about.not_with.empty()) out["not_with"] = names_to_json(about.not_with);
    if (parcel.foreign) out["foreign"] = true;
    for (std::size_t i = 0; i < parcel.textures.size(); ++i) {
        const auto& t = parcel.textures[i];
        Json one{{"path", t.inner}, {"kind", t.kind}, {"texture", desc_to_json(t.desc)}, {"becomes", {{"file", t.becomes_file}}}};
        if (!t.source.empty()) one["source"]["name"] = t.source;
        if (!t.group.empty()) one["source"]["group"] = t.group;
        if (!t.like.empty()) one["like"] = t.like;
        if (!t.was_file.empty()) one["was"]["file"] = t.was_file;
        if (!t.was_pixels.empty()) one["was"]["pixels"] = t.was_pixels;
        if (!t.becomes_pixels.empty()) one["becomes"]["pixels"] = t.becomes_pixels;
        if (!files[i].change.empty()) one["change"] = files[i].change;
        if (!files[i].whole.empty()) one["whole"] = files[i].whole;
        if (t.own) one["own"] = true;
        if (t.before) one["pictures"]["before"] = t.before->file;
        if (t.after) one["pictures"]["after"] = t.after->file;
        out["textures"].push_back(std::move(one));
    }
    return out.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<ReadManifest> read_manifest(std::string_view text, const ReadLimits& limits) {
    Json j;
    try {
        bool too_deep = false;
        j = Json::parse(text, [&](int depth, Json::parse_event_t, Json&) { return depth <= most_depth || !(too_deep = true); });
        if (too_deep) return fail(ErrorCode::limit, "the manifest has lists in lists in lists");
    } catch (const Json::exception& e) {
        return fail(ErrorCode::damaged, phrase("the manifest is no JSON: {}", e.what()));
    }
    if (!j.is_object()) return fail(ErrorCode::damaged, "the manifest is no object");
    Reader in;
    if (const auto v = in.number(j, "parcel", 0); !in.error && v != version)
        return fail(ErrorCode::unsupported, v == 0 ? "the manifest does not say that it is a parcel's" : phrase("parcels of version {}", v),
                    v > version ? "A newer Skivet reads it" : "");
    ReadManifest out;
    auto& about = out.parcel.about;
    about.id = in.text(j, "id");
    about.title = in.text(j, "title");
    about.author = in.text(j, "author");
    about.version = in.text(j, "version");
    about.license = in.text(j, "license");
    about.notes = in.text(j, "notes", 65536);
    about.game = in.text(j, "game");
    about.needs = in.names(j, "needs");
    about.not_with = in.names(j, "not_with");
    const auto foreign = j.find("foreign");
    out.parcel.foreign = foreign != j.end() && foreign->is_boolean() && foreign->get<bool>();
    const auto& textures = in.list(j, "textures");
    if (in.error) return fail(std::move(*in.error));
    if (auto sound = check_about(about); !sound) return fail(ErrorCode::damaged, sound.error().what);
    if (textures.size() > most_textures)
        return fail(ErrorCode::limit, phrase("{} textures are more than a parcel holds", grouped(textures.size())));
    for (std::size_t i = 0; i < textures.size(); ++i) {
        ParcelFiles files;
        auto one = texture_from(textures[i], limits, files);
        if (!one) return fail(std::move(one).error().within(phrase("texture {}", i + 1)));
        out.parcel.textures.push_back(std::move(*one));
        out.files.push_back(std::move(files));
    }
    return out;
}

}  // namespace skivet
