#include "mesh/mesh.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <iterator>
#include <limits>
#include <map>

namespace skivet {

float Box3::radius() const { return std::hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]) / 2; }

std::size_t Mesh::triangles() const {
    std::size_t out = 0;
    for (const auto& part : parts) out += part.triangles();
    return out;
}

Box3 Mesh::box(std::span<const std::size_t> parts_named) const {
    constexpr float far = std::numeric_limits<float>::max();
    Box3 out{{far, far, far}, {-far, -far, -far}};
    bool any = false;
    const auto add = [&](const MeshPart& part) {
        for (const auto corner : part.corners) {
            any = true;
            for (std::size_t c = 0; c < 3; ++c) {
                out.low[c] = std::min(out.low[c], part.places[corner][c]);
                out.high[c] = std::max(out.high[c], part.places[corner][c]);
            }
        }
    };
    if (parts_named.empty()) std::for_each(parts.begin(), parts.end(), add);
    else
        for (const auto p : parts_named) add(parts[p]);
    return any ? out : Box3{};
}

int detail_number(std::string_view name) {
    std::size_t digits = name.size();
    while (digits > 0 && std::isdigit(static_cast<unsigned char>(name[digits - 1]))) --digits;
    if (digits == name.size() || name.size() - digits > 2) return -1;
    auto before = name.substr(0, digits);
    if (!before.empty() && (before.back() == '_' || before.back() == '-')) before.remove_suffix(1);
    if (before.size() < 3) return -1;
    std::string word(before.substr(before.size() - 3));
    std::transform(word.begin(), word.end(), word.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    if (word != "lod") return -1;
    if (before.size() > 3 && std::isalpha(static_cast<unsigned char>(before[before.size() - 4])) &&
        std::islower(static_cast<unsigned char>(before[before.size() - 3])))
        return -1;  // "melod1"
    int number = 0;
    for (const char c : name.substr(digits)) number = number * 10 + (c - '0');
    return number;
}

std::string part_title(const MeshPart& part) {
    if (part.name.empty() || part.name == part.material) return part.material;
    return part.material.empty() ? part.name : part.name + " · " + part.material;
}

Mesh joined(std::vector<Mesh> meshes) {
    Mesh out;
    for (auto& mesh : meshes) {
        std::move(mesh.parts.begin(), mesh.parts.end(), std::back_inserter(out.parts));
        std::move(mesh.notes.begin(), mesh.notes.end(), std::back_inserter(out.notes));
    }
    return out;
}

std::vector<DetailLevel> levels_of_detail(const Mesh& mesh) {
    std::map<int, std::vector<std::size_t>> numbered;
    std::vector<std::size_t> always;
    for (std::size_t i = 0; i < mesh.parts.size(); ++i) {
        const int number = detail_number(mesh.parts[i].name);
        if (number < 0) always.push_back(i);
        else numbered[number].push_back(i);
    }
    if (numbered.empty()) return {{0, std::move(always)}};
    std::vector<DetailLevel> out;
    for (auto& [number, parts] : numbered) {
        parts.insert(parts.end(), always.begin(), always.end());
        std::sort(parts.begin(), parts.end());
        out.push_back({number, std::move(parts)});
    }
    return out;
}

}  // namespace skivet
