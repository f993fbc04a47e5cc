#include "catalog/frame_record.h"

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <unordered_map>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

constexpr std::uint64_t most_bytes = 256u << 20;
constexpr std::size_t most_draws = 200'000, most_textures = 65'536, most_bound = 128, most_notes = 20;
constexpr std::string_view record_file = "frame.jsonl";
constexpr int known_version = 1;

std::optional<std::uint64_t> number(const json& j, const char* key) {
    const auto found = j.find(key);
    if (found == j.end() || !found->is_number_unsigned()) return std::nullopt;
    return found->get<std::uint64_t>();
}

}  // namespace

Result<FrameRecord> frame_record_of(std::string_view text, const fs::path& folder) {
    FrameRecord out;
    out.folder = folder;
    bool begun = false;
    std::size_t line_number = 0;
    std::map<std::uint64_t, std::size_t> texture_of;
    std::map<std::uint64_t, fs::path> mesh_of;
    std::vector<std::pair<std::uint64_t, std::vector<std::uint64_t>>>
        bound;  // of each draw: its mesh and its textures, by the record's numbers
    const auto note = [&](const std::string& what) {
        if (out.notes.size() < most_notes) out.notes.push_back(phrase("line {}: {}", grouped(line_number), what));
    };
    const auto file_in = [&](const json& j, const char* key) -> fs::path {
        const auto found = j.find(key);
        if (found == j.end() || !found->is_string()) return {};
        const auto inside = path_inside(folder, found->get<std::string>());
        if (inside) return *inside;
        note(phrase("{} is outside of the record's folder", found->get<std::string>()));
        return {};
    };
    while (!text.empty()) {
        const auto end = std::min(text.find('\n'), text.size());
        const auto line = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        ++line_number;
        if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
        // Flat objects are all there is: what nests deeply is refused before it is parsed.
        if (std::count(line.begin(), line.end(), '{') > 16 || std::count(line.begin(), line.end(), '[') > 16) {
            note(said("this is no line of a frame record"));
            continue;
        }
        const auto j = json::parse(line, nullptr, false);
        if (!j.is_object()) {
            note(said("this is no line of a frame record"));
            continue;
        }
        if (const auto version = number(j, "frame")) {
            if (*version > known_version)
                return fail(ErrorCode::unsupported, phrase("the record is of version {}, version {} is read", *version, known_version),
                            "A newer Skivet reads it");
            begun = true;
            out.width = static_cast<std::uint32_t>(std::min<std::uint64_t>(number(j, "width").value_or(0), 65536));
            out.height = static_cast<std::uint32_t>(std::min<std::uint64_t>(number(j, "height").value_or(0), 65536));
            out.picture = file_in(j, "picture");
            out.draw_map = file_in(j, "draws");
        } else if (const auto draw = number(j, "draw")) {
            if (out.draws.size() == most_draws) return fail(ErrorCode::limit, phrase("more than {} draws", grouped(most_draws)));
            if (*draw == 0 || *draw > 0xFFFFFF) {
                note(phrase("there is no draw {}", *draw));
                continue;
            }
            out.draws.push_back({static_cast<std::uint32_t>(*draw), {}, {}, number(j, "triangles").value_or(0)});
            auto& of = bound.emplace_back(number(j, "mesh").value_or(0), std::vector<std::uint64_t>());
            if (const auto list = j.find("textures"); list != j.end() && list->is_array())
                for (const auto& one : *list)
                    if (one.is_number_unsigned() && of.second.size() < most_bound) of.second.push_back(one.get<std::uint64_t>());
        } else if (const auto texture = number(j, "texture")) {
            if (out.textures.size() == most_textures)
                return fail(ErrorCode::limit, phrase("more than {} textures", grouped(most_textures)));
            if (!texture_of.emplace(*texture, out.textures.size()).second) {
                note(phrase("there are two textures {}", *texture));
                continue;
            }
            out.textures.push_back({*texture, file_in(j, "file"),
                                    static_cast<std::uint32_t>(std::min<std::uint64_t>(number(j, "width").value_or(0), 65536)),
                                    static_cast<std::uint32_t>(std::min<std::uint64_t>(number(j, "height").value_or(0), 65536)), 0});
        } else if (const auto mesh = number(j, "mesh")) {
            mesh_of.emplace(*mesh, file_in(j, "file"));
        }
    }
    if (!begun)
        return fail(ErrorCode::damaged, "this is no frame record: no line says that it begins",
                    "docs/frame-record.md describes what is read");
    std::map<std::pair<std::uint64_t, std::vector<std::uint64_t>>, std::size_t> folded;
    for (std::size_t d = 0; d < out.draws.size(); ++d) {
        auto& draw = out.draws[d];
        if (const auto mesh = mesh_of.find(bound[d].first); mesh != mesh_of.end()) draw.mesh = mesh->second;
        for (const auto texture : bound[d].second)
            if (const auto found = texture_of.find(texture); found != texture_of.end()) draw.textures.push_back(found->second);
        const auto [thing, is_new] = folded.emplace(bound[d], out.things.size());
        if (is_new) out.things.push_back({{}, draw.textures});
        out.things[thing->second].draws.push_back(d);
    }
    for (auto& thing : out.things)
        for (const auto t : std::set<std::size_t>(thing.textures.begin(), thing.textures.end())) ++out.textures[t].things;
    for (auto& thing : out.things) {
        std::vector<std::size_t> once;
        for (const auto t : thing.textures)
            if (std::find(once.begin(), once.end(), t) == once.end()) once.push_back(t);
        std::stable_sort(once.begin(), once.end(),
                         [&](std::size_t a, std::size_t b) { return out.textures[a].things < out.textures[b].things; });
        thing.textures = std::move(once);
    }
    return out;
}

Result<FrameRecord> read_frame_record(const fs::path& place) {
    std::error_code code;
    const auto file = fs::is_directory(place, code) ? place / record_file : place;
    SKIVET_TRY(const auto bytes, read_file(file, most_bytes));
    auto record = frame_record_of({reinterpret_cast<const char*>(bytes.data()), bytes.size()}, file.parent_path());
    if (!record) return fail(std::move(record).error().within(file.string()));
    return record;
}

ThingMap thing_map(const FrameRecord& record, const Image& draws) {
    ThingMap out{record.width ? record.width : draws.width, record.height ? record.height : draws.height, {}};
    if (draws.width == 0 || draws.height == 0 || std::uint64_t{out.width} * out.height > (1u << 28)) return {};
    std::unordered_map<std::uint32_t, std::int32_t> thing_of;
    for (std::size_t t = 0; t < record.things.size(); ++t)
        for (const auto d : record.things[t].draws) thing_of.emplace(record.draws[d].number, static_cast<std::int32_t>(t));
    out.things.resize(std::size_t{out.width} * out.height);
    for (std::uint32_t y = 0; y < out.height; ++y)
        for (std::uint32_t x = 0; x < out.width; ++x) {
            const auto& texel = draws.at(static_cast<std::uint32_t>(std::uint64_t{x} * draws.width / out.width),
                                         static_cast<std::uint32_t>(std::uint64_t{y} * draws.height / out.height));
            const auto found =
                thing_of.find(texel[0] | static_cast<std::uint32_t>(texel[1]) << 8 | static_cast<std::uint32_t>(texel[2]) << 16);
            out.things[std::size_t{y} * out.width + x] = found == thing_of.end() ? -1 : found->second;
        }
    return out;
}

std::vector<PictureHit> ranked_as_captured(std::vector<PictureHit> hits, std::uint32_t width, std::uint32_t height,
                                           const std::function<std::pair<std::uint32_t, std::uint32_t>(std::size_t)>& size_of) {
    // Scores of equal pictures differ by a few hundredths after compression.
    constexpr float turned = 0.04f, a_part = 0.04f, another_shape = 0.04f, another_size = 0.02f, smaller = 0.03f;
    const auto worth = [&](const PictureHit& hit) {
        float out = hit.score;
        if (hit.mirrored || hit.quarter_turns != 0) out -= turned;
        if (hit.width < 0.9f || hit.height < 0.9f) out -= a_part;
        const auto [w, h] = size_of(hit.picture);
        if (std::uint64_t{w} * height != std::uint64_t{h} * width) out -= another_shape;
        if (w != width || h != height) out -= another_size;
        if (w < width || h < height) out -= smaller;
        return out;
    };
    std::stable_sort(hits.begin(), hits.end(), [&](const PictureHit& a, const PictureHit& b) { return worth(a) > worth(b); });
    return hits;
}

std::optional<fs::path> newest_frame_record(const std::vector<fs::path>& folders) {
    std::optional<fs::path> out;
    fs::file_time_type newest;
    for (const auto& folder : folders) {
        std::error_code code;
        for (fs::directory_iterator at(folder, code), end; !code && at != end; at.increment(code)) {
            const auto file = at->path() / record_file;
            std::error_code none;
            const auto time = fs::last_write_time(file, none);
            if (none || (out && time <= newest)) continue;
            out = at->path();
            newest = time;
        }
    }
    return out;
}

}  // namespace skivet
