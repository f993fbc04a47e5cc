#include "mesh/mesh_wire.h"

#include <cmath>
#include <cstring>

#include "base/phrase.h"

namespace skivet {
namespace {

constexpr std::uint32_t files_mark = 0x31464D53, answer_mark = 0x32414D53;  // "SMF1", "SMA2"

void put_text(ByteWriter& to, std::string_view text) {
    to.le(static_cast<std::uint32_t>(text.size()));
    to.put(text);
}

Result<std::string> take_text(ByteReader& from, std::uint64_t most) {
    SKIVET_TRY(const auto size, from.le<std::uint32_t>());
    if (size > most) return fail_at(ErrorCode::limit, from.position(), phrase("a name of {} bytes", grouped(size)));
    SKIVET_TRY(const auto bytes, from.take(size));
    return as_text(bytes);
}

/// Both ends are programs of one machine, so numbers lie as in its memory.
template <class T>
Result<std::vector<T>> take_all(ByteReader& from, std::uint64_t count) {
    SKIVET_TRY(const auto bytes, from.take(count * sizeof(T)));
    std::vector<T> out(static_cast<std::size_t>(count));
    if (!bytes.empty()) std::memcpy(out.data(), bytes.data(), bytes.size());
    return out;
}

template <class T>
std::size_t without_wrong_numbers(std::vector<T>& values) {
    std::size_t wrong = 0;
    for (auto& value : values)
        for (auto& v : value)
            if (!std::isfinite(v)) v = 0, ++wrong;
    return wrong;
}

}  // namespace

Bytes head_of(const MeshFiles& files) {
    ByteWriter to;
    std::uint64_t contents = 0;
    to.le(files_mark);
    to.le(static_cast<std::uint32_t>(files.files.size()));
    for (const auto& file : files.files) {
        put_text(to, file.name);
        to.le(static_cast<std::uint8_t>(file.is_there));
        to.le(static_cast<std::uint64_t>(file.bytes.size()));
        contents += file.bytes.size();
    }
    ByteWriter out;
    out.le(to.bytes.size() + contents);
    out.put(to.bytes);
    return std::move(out.bytes);
}

Result<MeshFiles> read_mesh_files(ByteSpan bytes) {
    ByteReader from(bytes);
    SKIVET_TRY(const auto mark, from.le<std::uint32_t>());
    if (mark != files_mark) return fail(ErrorCode::damaged, "these are not the files of a mesh");
    SKIVET_TRY(const auto count, from.le<std::uint32_t>());
    MeshFiles out;
    std::vector<std::uint64_t> sizes;
    for (std::uint32_t i = 0; i < count; ++i) {
        SKIVET_TRY(auto name, take_text(from, 65536));
        SKIVET_TRY(const auto is_there, from.le<std::uint8_t>());
        SKIVET_TRY(const auto size, from.le<std::uint64_t>());
        out.files.push_back({std::move(name), is_there != 0, {}});
        sizes.push_back(size);
    }
    for (std::uint32_t i = 0; i < count; ++i) {
        SKIVET_TRY(out.files[i].bytes, from.take(sizes[i]));
    }
    return out;
}

void write_mesh_answer(const MeshAnswer& answer, const std::function<void(ByteSpan)>& sink) {
    ByteWriter to;
    const auto all = [&](const auto& values) { sink(std::as_bytes(std::span(values))); };
    to.le(answer_mark);
    put_text(to, answer.wanted);
    put_text(to, answer.wrong);
    to.le(static_cast<std::uint32_t>(answer.mesh.notes.size()));
    for (const auto& note : answer.mesh.notes) put_text(to, note);
    to.le(static_cast<std::uint32_t>(answer.mesh.parts.size()));
    for (const auto& part : answer.mesh.parts) {
        put_text(to, part.name);
        put_text(to, part.material);
        to.le(static_cast<std::uint32_t>(part.maps.size()));
        for (const auto& map : part.maps) {
            to.le(static_cast<std::uint8_t>(map.use));
            put_text(to, map.path);
        }
        to.le(static_cast<std::uint64_t>(part.places.size()));
        to.le(static_cast<std::uint8_t>(!part.normals.empty()));
        to.le(static_cast<std::uint8_t>(!part.colors.empty()));
        to.le(static_cast<std::uint32_t>(part.uvs.size()));
        to.le(static_cast<std::uint64_t>(part.corners.size()));
        sink(to.bytes);
        to.bytes.clear();
        all(part.places);
        all(part.normals);
        all(part.colors);
        for (const auto& uv : part.uvs) all(uv);
        all(part.corners);
    }
    sink(to.bytes);
}

Result<MeshAnswer> read_mesh_answer(ByteSpan bytes, const MeshLimits& limits) {
    ByteReader from(bytes);
    SKIVET_TRY(const auto mark, from.le<std::uint32_t>());
    if (mark != answer_mark) return fail(ErrorCode::damaged, "this is not what reading a mesh gives");
    MeshAnswer out;
    SKIVET_TRY(out.wanted, take_text(from, 65536));
    SKIVET_TRY(out.wrong, take_text(from, 65536));
    SKIVET_TRY(const auto notes, from.le<std::uint32_t>());
    for (std::uint32_t i = 0; i < notes; ++i) {
        SKIVET_TRY(auto note, take_text(from, 65536));
        out.mesh.notes.push_back(std::move(note));
    }
    SKIVET_TRY(const auto parts, from.le<std::uint32_t>());
    if (parts > limits.parts)
        return fail(ErrorCode::limit, phrase("{} parts, more than the {} that are read", grouped(parts), grouped(limits.parts)));
    std::uint64_t vertices = 0, triangles = 0, wrong = 0;
    for (std::uint32_t i = 0; i < parts; ++i) {
        MeshPart part;
        SKIVET_TRY(part.name, take_text(from, limits.name_bytes));
        SKIVET_TRY(part.material, take_text(from, limits.name_bytes));
        SKIVET_TRY(const auto maps, from.le<std::uint32_t>());
        for (std::uint32_t m = 0; m < maps; ++m) {
            SKIVET_TRY(const auto use, from.le<std::uint8_t>());
            if (use >= map_use_count) return fail_at(ErrorCode::damaged, from.position(), phrase("there is no map of use {}", use));
            SKIVET_TRY(auto path, take_text(from, limits.name_bytes));
            part.maps.push_back({static_cast<MapUse>(use), std::move(path)});
        }
        SKIVET_TRY(const auto count, from.le<std::uint64_t>());
        SKIVET_TRY(const auto has_normals, from.le<std::uint8_t>());
        SKIVET_TRY(const auto has_colors, from.le<std::uint8_t>());
        SKIVET_TRY(const auto sets, from.le<std::uint32_t>());
        SKIVET_TRY(const auto corners, from.le<std::uint64_t>());
        // Before anything is multiplied or taken: each alone is below its limit.
        if (count > limits.vertices || corners / 3 > limits.triangles || sets > limits.uv_sets || (vertices += count) > limits.vertices ||
            (triangles += corners / 3) > limits.triangles)
            return fail(ErrorCode::limit,
                        phrase("more than {} triangles or {} vertices", grouped(limits.triangles), grouped(limits.vertices)));
        if (corners % 3 != 0) return fail_at(ErrorCode::damaged, from.position(), "corners that are no triangles");
        SKIVET_TRY(part.places, take_all<Vec3>(from, count));
        if (has_normals) {
            SKIVET_TRY(part.normals, take_all<Vec3>(from, count));
        }
        if (has_colors) {
            SKIVET_TRY(part.colors, take_all<Color4>(from, count));
        }
        for (std::uint32_t s = 0; s < sets; ++s) {
            SKIVET_TRY(auto uv, take_all<Vec2>(from, count));
            part.uvs.push_back(std::move(uv));
        }
        SKIVET_TRY(part.corners, take_all<std::uint32_t>(from, corners));
        for (const auto corner : part.corners)
            if (corner >= count)
                return fail_at(ErrorCode::damaged, from.position(), phrase("a corner is vertex {} of {}", grouped(corner), grouped(count)));
        wrong += without_wrong_numbers(part.places) + without_wrong_numbers(part.normals) + without_wrong_numbers(part.colors);
        for (auto& uv : part.uvs) wrong += without_wrong_numbers(uv);
        out.mesh.parts.push_back(std::move(part));
    }
    if (wrong > 0) out.mesh.notes.push_back(phrase("{} numbers that are none stand as 0", grouped(wrong)));
    return out;
}

}  // namespace skivet
