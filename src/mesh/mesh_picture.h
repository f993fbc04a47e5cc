#pragma once
// Pictures of a mesh with its textures, and what lies under a pixel of one. Rays are cast by Embree.
#include "base/progress.h"
#include "mesh/shading.h"
#include "mesh/surface.h"
#include "mesh/view.h"

namespace skivet {

/// What a ray meets first.
struct MeshHit {
    std::uint32_t part = 0;      ///< index into Mesh::parts
    std::uint32_t triangle = 0;  ///< of that part
    Vec2 uv = {0, 0};            ///< of the set that is looked at; not brought into 0…1
    Vec3 place = {0, 0, 0};
    float distance = 0;  ///< from the eye
};

struct PictureLook {
    enum class Shown : std::uint8_t { lit, base_color, normals } shown = Shown::lit;  ///< base_color: nothing but the texture
    bool wires = false;
    bool vertex_colors = true;  ///< where a part has them; games use them for other things, too
    LevelRule levels;
    Lighting light;
    std::uint32_t uv_set = 0;
    float repeat = 1;  ///< the textures lie so many times each way from 0 to 1
    Texel behind = {118, 118, 118, 255};
    std::vector<std::vector<bool>> marked;  ///< for each part, for each triangle: tinted; may be empty
    Texel mark = {166, 58, 80, 255};
};

/// The mesh, ready for rays. It keeps the mesh; safe to ask from several threads.
class MeshRays {
public:
    /// `parts`: those that are there (all where empty). Error `limit` where Embree gets no memory.
    [[nodiscard]] static Result<MeshRays> make(std::shared_ptr<const Mesh> mesh, std::span<const std::size_t> parts = {});
    MeshRays(MeshRays&&) noexcept;
    MeshRays& operator=(MeshRays&&) noexcept;
    ~MeshRays();

    [[nodiscard]] const Mesh& mesh() const;
    /// At a place of a picture of `width` × `height` pixels, from its upper left corner; nothing where there is nothing.
    [[nodiscard]] std::optional<MeshHit> hit(const Camera& camera, std::uint32_t width, std::uint32_t height, const Vec2& at,
                                             std::uint32_t uv_set = 0) const;

    /// One ray a pixel, through its middle. `surfaces`: one for each part; parts beyond them are gray. Where textures are seen through
    /// holes or through what blends, up to eight surfaces lie over each other. The same picture on every machine and number of threads.
    /// Error `canceled`.
    [[nodiscard]] Result<Image> picture(const Camera& camera, std::uint32_t width, std::uint32_t height,
                                        std::span<const MeshSurface> surfaces, const PictureLook& look,
                                        const CancelToken& cancel = {}) const;
    /// The same with edges made smooth: of pixels that differ from a neighbor in what they show, `picture`'s ray and four more.
    [[nodiscard]] Result<Image> fine_picture(const Camera& camera, std::uint32_t width, std::uint32_t height,
                                             std::span<const MeshSurface> surfaces, const PictureLook& look,
                                             const CancelToken& cancel = {}) const;

    struct Inside;

private:
    explicit MeshRays(std::unique_ptr<Inside> inside);
    std::unique_ptr<Inside> in_;
};

}  // namespace skivet
