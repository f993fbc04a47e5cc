// Any bytes as a table of vertices, as a frame record, or as what the program that reads meshes says and is given. The first byte chooses
// which; what becomes a mesh is laid out, as the window does.
#include <cstdlib>

#include "catalog/frame_record.h"
#include "mesh/mesh_wire.h"
#include "mesh/uv.h"
#include "mesh/vertex_table.h"

using namespace skivet;

namespace {

void use(const Mesh& mesh) {
    for (const auto& part : mesh.parts) {
        for (const auto corner : part.corners)
            if (corner >= part.places.size()) std::abort();
        if (!part.normals.empty() && part.normals.size() != part.places.size()) std::abort();
        if (!part.colors.empty() && part.colors.size() != part.places.size()) std::abort();
        for (const auto& uv : part.uvs)
            if (uv.size() != part.places.size()) std::abort();
    }
    (void)levels_of_detail(mesh);
    const auto layout = uv_layout(mesh, {}, 0, 64, 64);
    (void)uv_lines(layout);
    for (const auto& island : layout.islands)
        if (island.triangles.empty()) std::abort();
    (void)layout.at({0.3f, 0.6f});
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 3) return 0;
    MeshLimits limits;
    limits.file_bytes = 1 << 20;
    limits.triangles = limits.vertices = 5000;
    limits.parts = 50;
    const auto rest = std::as_bytes(std::span(data + 3, size - 3));
    switch (data[0] % 4) {
        case 0: {
            const auto table = read_vertex_table(rest, limits);
            if (!table) return 0;
            auto reading = proposed_reading(*table);
            if (reading.columns.size() != table->columns.size()) std::abort();
            // What a person might make of it.
            reading.v_up = data[1] & 1;
            reading.strip = data[1] & 2;
            if (data[1] & 4 && !reading.columns.empty())
                reading.columns[data[2] % reading.columns.size()] = {static_cast<VertexField>(data[1] % vertex_field_count), data[2] % 3u};
            if (const auto mesh = mesh_of(*table, reading, "table")) use(*mesh);
            return 0;
        }
        case 1: {
            const auto record = frame_record_of({reinterpret_cast<const char*>(rest.data()), rest.size()}, "/record");
            if (!record) return 0;
            for (const auto& thing : record->things)
                for (const auto t : thing.textures)
                    if (t >= record->textures.size()) std::abort();
            Image draws(8, 8);
            for (std::size_t i = 0; i < draws.texels.size(); ++i) draws.texels[i] = {static_cast<std::uint8_t>(i), 0, 0, 255};
            const auto map = thing_map(*record, draws);
            for (const auto thing : map.things)
                if (thing >= static_cast<std::int32_t>(record->things.size())) std::abort();
            return 0;
        }
        case 2: {
            const auto answer = read_mesh_answer(rest, limits);
            if (answer) use(answer->mesh);
            return 0;
        }
        default: (void)read_mesh_files(rest); return 0;
    }
}
