#include "catalog/usage.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <set>
#include <unordered_map>

#include "base/file_write.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

constexpr std::uint64_t most_mesh_bytes = 64u << 20;

std::string stem_of(std::string_view path) {
    const auto slash = path.find_last_of("/\\");
    auto name = slash == std::string_view::npos ? path : path.substr(slash + 1);
    const auto dot = name.find('.');
    return lower(dot == std::string_view::npos || dot == 0 ? name : name.substr(0, dot));
}

void words_of_gltf(const json& j, std::vector<std::string>& out) {
    for (const char* list : {"images", "materials"}) {
        if (!j.contains(list) || !j[list].is_array()) continue;
        for (const auto& one : j[list])
            for (const char* key : {"uri", "name"})
                if (one.is_object() && one.contains(key) && one[key].is_string()) {
                    const auto text = one[key].get<std::string>();
                    if (!text.starts_with("data:")) out.push_back(text);
                }
    }
}

}  // namespace

std::vector<std::string> textures_of_mesh(ByteSpan file, std::string_view path) {
    std::vector<std::string> out;
    const auto name = lower(path);
    const auto text = [&](std::size_t at, std::size_t size) {
        return std::string_view(reinterpret_cast<const char*>(file.data()) + at, size);
    };
    if (name.ends_with(".gltf") || name.ends_with(".glb")) {
        std::string_view source = text(0, file.size());
        if (name.ends_with(".glb")) {  // glTF 2.0, section 4.4: 12 bytes of header, then chunks of length, type, data; the first is JSON
            if (file.size() < 20 || load_uint(file.data(), 4, ByteOrder::little) != 0x46546C67) return out;
            const auto length = load_uint(file.data() + 12, 4, ByteOrder::little);
            if (length > file.size() - 20) return out;
            source = text(20, static_cast<std::size_t>(length));
        }
        const auto j = json::parse(source, nullptr, false);
        if (j.is_object()) words_of_gltf(j, out);
    } else if (name.ends_with(".obj") || name.ends_with(".mtl")) {
        const auto all = text(0, file.size());
        for (std::size_t at = 0; at < all.size();) {
            const auto end = std::min(all.find('\n', at), all.size());
            auto line = all.substr(at, end - at);
            while (!line.empty() && (line.back() == '\r' || line.back() == ' ')) line.remove_suffix(1);
            if (line.starts_with("usemtl ") || line.starts_with("map_")) {
                const auto space = line.rfind(' ');  // options of map_ lines stand before the file
                if (space != std::string_view::npos && space + 1 < line.size()) out.emplace_back(line.substr(space + 1));
            }
            at = end + 1;
        }
    }
    return out;
}

std::vector<std::pair<std::string, std::string>> uses_in_record(ByteSpan file) {
    std::vector<std::pair<std::string, std::string>> out;
    const std::string_view all(reinterpret_cast<const char*>(file.data()), file.size());
    for (std::size_t at = 0; at < all.size();) {
        const auto end = std::min(all.find('\n', at), all.size());
        const auto j = json::parse(all.substr(at, end - at), nullptr, false);
        at = end + 1;
        if (!j.is_object() || !j.contains("texture") || !j["texture"].is_string()) continue;
        std::string object;
        for (const char* key : {"object", "mesh"})
            if (object.empty() && j.contains(key) && j[key].is_string()) object = j[key].get<std::string>();
        out.emplace_back(object, j["texture"].get<std::string>());
    }
    return out;
}

Result<std::map<std::string, std::vector<std::string>>> users_of_textures(const ReadContext& context, std::span<const Source> sources,
                                                                          const Catalog& catalog, const fs::path& records,
                                                                          Progress& progress) {
    std::vector<std::pair<std::string, std::string>> uses;  // object, texture as named
    for (const auto& item : catalog.items) {
        SKIVET_CHECK(progress.cancel.check());
        const auto name = lower(item.path());
        const bool mesh = item.kind == EntryKind::mesh || name.ends_with(".mtl");
        if (!mesh || !item.effective || item.size > most_mesh_bytes || !sources[item.source].container) continue;
        const auto bytes = read_entry(context, *sources[item.source].container, item.inner);
        if (!bytes) continue;
        for (auto& texture : textures_of_mesh(*bytes, item.path())) uses.emplace_back(stem_of(item.path()), std::move(texture));
    }
    std::error_code code;
    if (!records.empty())
        for (const auto& file : fs::directory_iterator(records, code)) {
            if (!file.path().string().ends_with(".record.jsonl")) continue;
            if (const auto bytes = read_file(file.path(), 256u << 20))
                for (auto& use : uses_in_record(*bytes))
                    if (!use.first.empty()) uses.push_back(std::move(use));
        }
    std::map<std::string, std::vector<std::string>> out;
    if (uses.empty()) return out;
    std::unordered_map<std::string, std::string> by_path;
    std::unordered_map<std::string, std::set<std::string>> by_stem;
    const Habits habits;
    for (const auto& item : catalog.items) {
        if (!item.is_texture() || !item.effective) continue;
        const auto key = path_key(item.inner);
        by_path[lower(item.path())] = key;
        by_stem[stem_of(item.path())].insert(key);
        // A material named "horse_a" means horse_a_tint and its kin.
        if (const auto parts = split_name(item.path(), habits); parts.habit) by_stem[lower(parts.base)].insert(key);
    }
    for (const auto& [object, texture] : uses) {
        std::set<std::string> keys;
        if (const auto path = by_path.find(lower(texture)); path != by_path.end()) keys.insert(path->second);
        else if (const auto stem = by_stem.find(stem_of(texture)); stem != by_stem.end() && stem->second.size() <= 8) keys = stem->second;
        for (const auto& key : keys) {
            auto& users = out[key];
            if (std::find(users.begin(), users.end(), object) == users.end()) users.push_back(object);
        }
    }
    return out;
}

}  // namespace skivet
