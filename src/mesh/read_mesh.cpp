#include "mesh/read_mesh.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <csignal>

#include "base/child_program.h"
#include "base/file_view.h"
#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// Of what Assimp reads, formats that are of use for one still thing. ".mesh" and the like are left out: many programs call other things
/// so.
constexpr std::array<std::string_view, 21> endings = {".obj", ".gltf", ".glb",     ".fbx", ".ply", ".dae",  ".stl",
                                                      ".3ds", ".x3d",  ".off",     ".lwo", ".b3d", ".x",    ".ase",
                                                      ".md2", ".md3",  ".md5mesh", ".ac",  ".acc", ".ms3d", ".smd"};
/// Files a mesh may want before it is read; a mesh names one or two.
constexpr std::size_t most_files = 16;

Result<MeshAnswer> ask(const fs::path& program, const MeshFiles& files, const MeshLimits& limits, const CancelToken& cancel) {
    const auto head = head_of(files);
    std::vector<ByteSpan> input = {head};
    for (const auto& file : files.files) input.push_back(file.bytes);
    ChildLimits most;
    most.time = std::chrono::seconds(60);  // of the clock; the program itself counts what it computes
    most.output = limits.vertices * (12 + 12 + 8 * limits.uv_sets) + limits.triangles * 12 + (1 << 20);
    const std::string advice = "Save it as glTF or OBJ in a modeling program";
    SKIVET_TRY(const auto ended, run_child({program.string()}, input, most, cancel));
    if (ended.stopped == ChildEnd::Stopped::time || (!ended.by_itself && (ended.code == SIGXCPU || ended.code == SIGKILL)))
        return fail(ErrorCode::limit, "reading it takes too long for its size", advice);
    if (ended.stopped == ChildEnd::Stopped::output) return fail(ErrorCode::limit, "is larger than what is read", advice);
    if (!ended.by_itself) return fail(ErrorCode::damaged, phrase("reading it ended with signal {}", ended.code), advice);
    if (ended.code != 0)
        return fail(ErrorCode::damaged, phrase("reading it failed: {}", ended.said.empty() ? std::string("out of memory") : ended.said),
                    advice);
    return read_mesh_answer(ended.output, limits);
}

}  // namespace

Result<Mesh> read_mesh(const fs::path& program, const MeshSource& source, const MeshLimits& limits, const CancelToken& cancel) {
    if (program.empty())
        return fail(ErrorCode::missing, "the program skivet-mesh, which reads meshes, is not beside this one", "Install Skivet again");
    if (source.bytes.size() > limits.file_bytes)
        return fail(ErrorCode::limit, phrase("{} of mesh, more than {}", human_bytes(source.bytes.size()), human_bytes(limits.file_bytes)));
    MeshFiles files;
    std::vector<Bytes> beside;  // what `files` looks into
    beside.reserve(most_files);
    files.files.push_back({source.name, true, source.bytes});
    while (true) {
        SKIVET_TRY(auto answer, ask(program, files, limits, cancel));
        if (!answer.wrong.empty()) return fail(ErrorCode::damaged, answer.wrong, "Save it as glTF or OBJ in a modeling program");
        if (answer.wanted.empty()) {
            if (answer.mesh.triangles() == 0) return fail(ErrorCode::unsupported, "there are no triangles in it");
            if (files.files.back().name.empty())
                answer.mesh.notes.push_back(phrase("names more than {} other files; the rest was not looked for", most_files));
            return std::move(answer.mesh);
        }
        if (files.files.size() > most_files) return fail(ErrorCode::damaged, "these are not the files of a mesh");
        if (files.files.size() == most_files) {
            files.files.push_back({{}, false, {}});
            continue;
        }
        auto found = source.beside ? source.beside(answer.wanted) : std::nullopt;
        beside.push_back(found ? std::move(*found) : Bytes());
        files.files.push_back({answer.wanted, found.has_value(), beside.back()});
    }
}

Result<Mesh> read_mesh_file(const fs::path& program, const fs::path& path, const MeshLimits& limits, const CancelToken& cancel) {
    const auto whole = [&limits](const fs::path& file) -> Result<Bytes> {
        SKIVET_TRY(const auto view, FileView::open(file));
        if (view.size() > limits.file_bytes)
            return fail(ErrorCode::limit, phrase("{} of mesh, more than {}", human_bytes(view.size()), human_bytes(limits.file_bytes)));
        SKIVET_TRY(const auto bytes, view.bytes());
        return Bytes(bytes.begin(), bytes.end());
    };
    const auto named = [&](Error error) { return std::move(error).within(path.filename().string()); };
    MeshSource source;
    source.name = path.filename().string();
    SKIVET_TRY(source.bytes, whole(path).map_error(named));
    source.beside = [&](const std::string& other) -> std::optional<Bytes> {
        const auto inside = path_from("", other);
        if (!inside) return std::nullopt;
        auto bytes = whole(path.parent_path() / *inside);
        return bytes ? std::optional(std::move(*bytes)) : std::nullopt;
    };
    return read_mesh(program, source, limits, cancel).map_error(named);
}

bool is_mesh_path(std::string_view path) {
    std::string lower(path.substr(path.size() - std::min<std::size_t>(path.size(), 8)));
    std::transform(lower.begin(), lower.end(), lower.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return std::any_of(endings.begin(), endings.end(), [&](std::string_view ending) { return lower.ends_with(ending); });
}

std::string mesh_patterns() {
    std::string out;
    for (const auto ending : endings) out += (out.empty() ? "*" : " *") + std::string(ending);
    return out;
}

std::optional<std::string> path_from(std::string_view folder, std::string_view path) {
    std::string slashed(path);
    std::replace(slashed.begin(), slashed.end(), '\\', '/');
    if (slashed.empty() || slashed.front() == '/' || (slashed.size() > 1 && slashed[1] == ':')) return std::nullopt;
    const auto joined = (fs::path(folder) / slashed).lexically_normal().generic_string();
    if (joined == ".." || joined.starts_with("../")) return std::nullopt;
    return joined;
}

}  // namespace skivet
