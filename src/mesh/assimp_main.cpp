// skivet-mesh: reads a file of meshes from its standard input (mesh_wire.h) and writes what is in it to its standard output. Not for
// people.
#include <assimp/config.h>
#include <assimp/GltfMaterial.h>
#include <assimp/postprocess.h>
#include <assimp/scene.h>
#include <sys/resource.h>
#include <unistd.h>
#include <algorithm>
#include <assimp/Importer.hpp>
#include <assimp/IOStream.hpp>
#include <assimp/IOSystem.hpp>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <exception>

#include "mesh/mesh_wire.h"

namespace {

using namespace skivet;

void write_all(ByteSpan bytes) {
    while (!bytes.empty()) {
        const auto n = ::write(STDOUT_FILENO, bytes.data(), bytes.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) _exit(5);
        bytes = bytes.subspan(static_cast<std::size_t>(n));
    }
}

/// Reads so many bytes, or fewer where the input ends.
Bytes read_bytes(std::uint64_t count) {
    Bytes out(count);
    std::size_t at = 0;
    while (at < out.size()) {
        const auto n = ::read(STDIN_FILENO, out.data() + at, out.size() - at);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) break;
        at += static_cast<std::size_t>(n);
    }
    out.resize(at);
    return out;
}

/// Forward slashes, without a leading "./".
std::string tidy(std::string path) {
    std::replace(path.begin(), path.end(), '\\', '/');
    while (path.starts_with("./")) path.erase(0, 2);
    return path;
}

class Stream : public Assimp::IOStream {
public:
    explicit Stream(ByteSpan bytes) : bytes_(bytes) {}
    size_t Read(void* to, size_t size, size_t count) override {
        if (size == 0 || count == 0) return 0;
        const auto whole = std::min(count, (bytes_.size() - at_) / size);
        if (whole > 0) std::memcpy(to, bytes_.data() + at_, whole * size);
        at_ += whole * size;
        return whole;
    }
    size_t Write(const void*, size_t, size_t) override { return 0; }
    aiReturn Seek(size_t offset, aiOrigin origin) override {
        const auto from = origin == aiOrigin_SET ? 0 : origin == aiOrigin_CUR ? at_ : bytes_.size();
        if (origin == aiOrigin_END ? offset > from : offset > bytes_.size() - from) return aiReturn_FAILURE;
        at_ = origin == aiOrigin_END ? from - offset : from + offset;
        return aiReturn_SUCCESS;
    }
    [[nodiscard]] size_t Tell() const override { return at_; }
    [[nodiscard]] size_t FileSize() const override { return bytes_.size(); }
    void Flush() override {}

private:
    ByteSpan bytes_;
    std::size_t at_ = 0;
};

/// Only what was handed over; asked for anything else, the program says what it wants and ends.
class Files : public Assimp::IOSystem {
public:
    explicit Files(const MeshFiles& files) : files_(files) {}
    bool Exists(const char* path) const override { return find(path).is_there; }
    [[nodiscard]] char getOsSeparator() const override { return '/'; }
    Assimp::IOStream* Open(const char* path, const char* mode) override {
        if (std::strpbrk(mode, "wa+")) return nullptr;
        const auto& file = find(path);
        return file.is_there ? new Stream(file.bytes) : nullptr;
    }
    void Close(Assimp::IOStream* stream) override { delete stream; }
    bool ComparePaths(const char* a, const char* b) const override { return tidy(a) == tidy(b); }

private:
    [[nodiscard]] const MeshFiles::One& find(const char* path) const {
        static const MeshFiles::One none;
        const auto name = tidy(path);
        if (name.empty()) return none;
        for (const auto& file : files_.files)
            if (file.name == name) return file;
        if (files_.files.back().name.empty()) return none;
        MeshAnswer answer;
        answer.wanted = name;
        write_mesh_answer(answer, write_all);
        _exit(0);
    }
    const MeshFiles& files_;
};

constexpr std::pair<aiTextureType, MapUse> uses[] = {
    {aiTextureType_BASE_COLOR, MapUse::base_color},
    {aiTextureType_DIFFUSE, MapUse::base_color},
    {aiTextureType_NORMALS, MapUse::normal},
    {aiTextureType_NORMAL_CAMERA, MapUse::normal},
    {aiTextureType_DIFFUSE_ROUGHNESS, MapUse::roughness},
    {aiTextureType_SHININESS, MapUse::gloss},
    {aiTextureType_METALNESS, MapUse::metalness},
    {aiTextureType_AMBIENT_OCCLUSION, MapUse::occlusion},
    {aiTextureType_LIGHTMAP, MapUse::occlusion},
    {aiTextureType_EMISSIVE, MapUse::emission},
    {aiTextureType_EMISSION_COLOR, MapUse::emission},
    {aiTextureType_SPECULAR, MapUse::specular},
    {aiTextureType_OPACITY, MapUse::opacity},
    {aiTextureType_UNKNOWN, MapUse::rough_metal},
    {aiTextureType_HEIGHT, MapUse::normal},  // OBJ's map_bump, which nearly always is a normal map
};

std::string text(const aiString& in, std::size_t most) { return std::string(in.C_Str()).substr(0, most); }

std::vector<MapName> maps_of(const aiMaterial& material, const MeshLimits& limits) {
    std::vector<MapName> out;
    for (const auto& [type, use] : uses)
        for (unsigned i = 0; i < std::min(material.GetTextureCount(type), 4u); ++i) {
            aiString path;
            if (material.GetTexture(type, i, &path) != aiReturn_SUCCESS || path.length == 0) continue;
            MapName map{use, tidy(text(path, limits.name_bytes))};
            if (std::find(out.begin(), out.end(), map) == out.end()) out.push_back(std::move(map));
        }
    return out;
}

Vec3 moved(const aiMatrix4x4& m, const aiVector3D& v) {
    const auto out = m * v;
    return {out.x, out.y, out.z};
}

void add_part(Mesh& to, const aiScene& scene, const aiNode& node, const aiMesh& mesh, const aiMatrix4x4& place, const MeshLimits& limits) {
    MeshPart part;
    part.name = text(mesh.mName.length > 0 && node.mNumMeshes > 1 ? mesh.mName : node.mName, limits.name_bytes);
    if (part.name.empty()) part.name = text(mesh.mName, limits.name_bytes);
    if (mesh.mMaterialIndex < scene.mNumMaterials) {
        const auto& material = *scene.mMaterials[mesh.mMaterialIndex];
        aiString name;
        // Where the file says none Assimp makes one up.
        if (material.Get(AI_MATKEY_NAME, name) == aiReturn_SUCCESS && std::string_view(name.C_Str()) != AI_DEFAULT_MATERIAL_NAME)
            part.material = text(name, limits.name_bytes);
        part.maps = maps_of(material, limits);
    }
    part.places.reserve(mesh.mNumVertices);
    for (unsigned i = 0; i < mesh.mNumVertices; ++i) part.places.push_back(moved(place, mesh.mVertices[i]));
    if (mesh.HasNormals()) {
        // Normals go with the inverse's transpose, so that a stretched thing is still lit from where the light is.
        auto turn = aiMatrix3x3(place);
        const bool flat = turn.Determinant() == 0;
        if (!flat) turn.Inverse().Transpose();
        part.normals.reserve(mesh.mNumVertices);
        for (unsigned i = 0; i < mesh.mNumVertices; ++i) {
            const auto n = turn * mesh.mNormals[i];
            part.normals.push_back({n.x, n.y, n.z});
        }
    }
    if (mesh.HasVertexColors(0)) {
        part.colors.reserve(mesh.mNumVertices);
        for (unsigned i = 0; i < mesh.mNumVertices; ++i) {
            const auto& c = mesh.mColors[0][i];
            part.colors.push_back(
                {std::clamp(c.r, 0.0f, 1.0f), std::clamp(c.g, 0.0f, 1.0f), std::clamp(c.b, 0.0f, 1.0f), std::clamp(c.a, 0.0f, 1.0f)});
        }
    }
    for (unsigned set = 0; set < std::min(limits.uv_sets, static_cast<std::uint32_t>(AI_MAX_NUMBER_OF_TEXTURECOORDS)); ++set) {
        if (!mesh.HasTextureCoords(set)) break;
        std::vector<Vec2> uv;
        uv.reserve(mesh.mNumVertices);
        for (unsigned i = 0; i < mesh.mNumVertices; ++i) uv.push_back({mesh.mTextureCoords[set][i].x, mesh.mTextureCoords[set][i].y});
        part.uvs.push_back(std::move(uv));
    }
    // Mirrored in its place, a triangle's corners run the other way round.
    const bool mirrored = aiMatrix3x3(place).Determinant() < 0;
    part.corners.reserve(std::size_t{mesh.mNumFaces} * 3);
    for (unsigned f = 0; f < mesh.mNumFaces; ++f) {
        const auto& face = mesh.mFaces[f];
        if (face.mNumIndices != 3) continue;  // points and lines
        for (const unsigned k : {0u, mirrored ? 2u : 1u, mirrored ? 1u : 2u}) part.corners.push_back(face.mIndices[k]);
    }
    if (!part.corners.empty()) to.parts.push_back(std::move(part));
}

Result<Mesh> mesh_of(const aiScene& scene, const MeshLimits& limits) {
    Mesh out;
    std::uint64_t triangles = 0, vertices = 0;
    // By hand: how deep nodes lie in each other is the file's to say.
    std::vector<std::pair<const aiNode*, aiMatrix4x4>> open;
    if (scene.mRootNode) open.emplace_back(scene.mRootNode, aiMatrix4x4());
    while (!open.empty()) {
        const auto [node, above] = open.back();
        open.pop_back();
        const auto place = above * node->mTransformation;
        for (unsigned i = 0; i < node->mNumMeshes; ++i) {
            const auto& mesh = *scene.mMeshes[node->mMeshes[i]];
            triangles += mesh.mNumFaces, vertices += mesh.mNumVertices;
            if (triangles > limits.triangles || vertices > limits.vertices || out.parts.size() >= limits.parts)
                return fail(ErrorCode::limit, "has more triangles or parts than are read");
            add_part(out, scene, *node, mesh, place, limits);
        }
        for (unsigned i = node->mNumChildren; i-- > 0;) open.emplace_back(node->mChildren[i], place);
    }
    // A file without any node still has its meshes.
    return out;
}

}  // namespace

int main() {
    // Whatever the file says, this is what it may cost.
    const rlimit memory{3ull << 30, 3ull << 30}, files{0, 0};
    ::setrlimit(RLIMIT_AS, &memory);
    ::setrlimit(RLIMIT_FSIZE, &files);
    ::setrlimit(RLIMIT_CORE, &files);
    try {
        MeshAnswer answer;
        const MeshLimits limits;
        const auto first = read_bytes(8);
        if (first.size() != 8) return 2;
        // A million triangles as text are 100 MB and take two seconds. What takes ten times as long goes round in circles.
        const rlim_t seconds = 1 + load_le<std::uint64_t>(first.data()) / 5'000'000;
        const rlimit time{seconds, seconds};
        ::setrlimit(RLIMIT_CPU, &time);
        auto bytes = read_bytes(std::min<std::uint64_t>(load_le<std::uint64_t>(first.data()), 2 * limits.file_bytes));
        const auto input = read_mesh_files(bytes);
        if (!input || input->files.empty()) return 2;
        Assimp::Importer importer;
        importer.SetIOHandler(new Files(*input));
        // One file is one mesh: the other parts of a figure are files of their own, and put on beside it.
        importer.SetPropertyInteger(AI_CONFIG_IMPORT_MD3_HANDLE_MULTIPART, 0);
        importer.SetPropertyInteger(AI_CONFIG_IMPORT_MD3_LOAD_SHADERS, 0);
        const auto* scene = importer.ReadFile(input->files[0].name, aiProcess_Triangulate | aiProcess_FlipUVs);
        Bytes().swap(bytes);  // the library has made its own of it
        if (!scene) {
            answer.wrong = importer.GetErrorString();
            if (answer.wrong.empty()) answer.wrong = "is no mesh that is read";
        } else if (auto mesh = mesh_of(*scene, limits); mesh) {
            answer.mesh = std::move(*mesh);
        } else {
            answer.wrong = mesh.error().what;
        }
        write_mesh_answer(answer, write_all);
        _exit(0);  // giving back every face of a million takes longer than ending
    } catch (const std::exception& wrong) {
        std::fprintf(stderr, "%s\n", wrong.what());
    } catch (...) {
        std::fputs("an unknown fault\n", stderr);
    }
    return 3;
}
