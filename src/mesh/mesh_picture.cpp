// A pixel is one ray. The triangle it meets says how far the texture moves from one pixel to the next: the neighbors' rays are met with the
// plane of that triangle, so the level of a texture is exact for flat things and needs no neighbor to have been drawn. Everything is
// computed in the order of one pixel's own numbers, so tiles may be drawn by any thread.
#include "mesh/mesh_picture.h"

#include <embree3/rtcore.h>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <algorithm>
#include <atomic>
#include <limits>
#include <numeric>

#include "base/phrase.h"
#include "mesh/vectors.h"

namespace skivet {

struct MeshRays::Inside {
    std::shared_ptr<const Mesh> mesh;
    RTCDevice device = nullptr;
    RTCScene scene = nullptr;
    float small = 1e-5f;  ///< in the mesh's unit; how far behind a surface the next is looked for
    Inside() = default;
    Inside(const Inside&) = delete;
    Inside& operator=(const Inside&) = delete;
    ~Inside() {
        if (scene) rtcReleaseScene(scene);
        if (device) rtcReleaseDevice(device);
    }
};

namespace {

constexpr int most_layers = 8;
/// What a pixel shows first, for telling where edges are.
struct Seen {
    std::uint32_t part = std::numeric_limits<std::uint32_t>::max();
    float distance = 0;
    Vec3 normal = {0, 0, 0};
    bool through = false;  ///< a hole, or something that blends
};

struct Rays {
    Vec3 eye;
    CameraAxes axes;
    float width, height;
    Rays(const Camera& camera, std::uint32_t w, std::uint32_t h)
        : eye(camera.eye), axes(axes_of(camera)), width(static_cast<float>(w)), height(static_cast<float>(h)) {}
    [[nodiscard]] Vec3 towards(float x, float y) const {
        const float scale = 2 * axes.half_height / height;
        return axes.forward + axes.right * ((x - width / 2) * scale) + axes.up * ((height / 2 - y) * scale);
    }
};

struct Met {
    std::uint32_t part, triangle;
    float t, b1, b2;  ///< along the ray; shares of the second and third corner
};

std::optional<Met> meet(RTCScene scene, const Vec3& from, const Vec3& towards, float near) {
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    RTCRayHit ray{};
    ray.ray.org_x = from[0], ray.ray.org_y = from[1], ray.ray.org_z = from[2];
    ray.ray.dir_x = towards[0], ray.ray.dir_y = towards[1], ray.ray.dir_z = towards[2];
    ray.ray.tnear = near;
    ray.ray.tfar = std::numeric_limits<float>::infinity();
    ray.ray.mask = std::numeric_limits<unsigned>::max();
    ray.hit.geomID = RTC_INVALID_GEOMETRY_ID;
    rtcIntersect1(scene, &context, &ray);
    if (ray.hit.geomID == RTC_INVALID_GEOMETRY_ID) return std::nullopt;
    return Met{ray.hit.geomID, ray.hit.primID, ray.ray.tfar, ray.hit.u, ray.hit.v};
}

template <class T>
T between(const T& a, const T& b, const T& c, float b1, float b2) {
    T out{};
    for (std::size_t i = 0; i < out.size(); ++i) out[i] = a[i] * (1 - b1 - b2) + b[i] * b1 + c[i] * b2;
    return out;
}

/// A triangle's corners and what of them a point needs.
struct Face {
    const MeshPart& part;
    std::array<std::uint32_t, 3> v;
    Vec3 e1, e2, out;  ///< two edges; e1 × e2, not of length one
    Face(const MeshPart& of, std::uint32_t triangle) : part(of) {
        for (std::size_t k = 0; k < 3; ++k) v[k] = of.corners[std::size_t{triangle} * 3 + k];
        e1 = of.places[v[1]] - of.places[v[0]];
        e2 = of.places[v[2]] - of.places[v[0]];
        out = cross(e1, e2);
    }
    /// How the shares of the second and third corner change along a step in the triangle's plane.
    [[nodiscard]] Vec2 shares(const Vec3& step) const {
        const float whole = dot(out, out);
        if (whole <= 0) return {0, 0};
        return {dot(cross(step, e2), out) / whole, dot(cross(e1, step), out) / whole};
    }
};

struct Drawing {
    const Mesh& mesh;
    RTCScene scene;
    float small;
    std::span<const MeshSurface> surfaces;
    const PictureLook& look;
    Vec3 behind = {0, 0, 0}, mark = {0, 0, 0};  ///< of the look, in linear light

    Drawing(const MeshRays::Inside& in, std::span<const MeshSurface> laid, const PictureLook& shown)
        : mesh(*in.mesh), scene(in.scene), small(in.small), surfaces(laid), look(shown) {
        for (std::size_t c = 0; c < 3; ++c) {
            behind[c] = srgb_to_linear(static_cast<float>(look.behind[c]) / 255);
            mark[c] = srgb_to_linear(static_cast<float>(look.mark[c]) / 255);
        }
    }

    struct Point {
        Vec3 color = {0, 0, 0};
        float alpha = 1;
        Vec3 normal = {0, 0, 0};
    };

    [[nodiscard]] Point point(const Rays& rays, float x, float y, const Vec3& towards, const Met& met) const {
        const auto& part = mesh.parts[met.part];
        const Face face(part, met.triangle);
        static const MeshSurface plain;
        const auto& surface = met.part < surfaces.size() ? surfaces[met.part] : plain;
        const auto eye = normalized(towards) * -1;
        auto flat = normalized(face.out);
        Vec3 normal = flat;
        if (!part.normals.empty()) {
            normal = normalized(between(part.normals[face.v[0]], part.normals[face.v[1]], part.normals[face.v[2]], met.b1, met.b2));
            if (dot(normal, normal) == 0) normal = flat;
        }
        // Both sides are seen; the back one is lit as if it were the front.
        if (dot(flat, eye) < 0) {
            flat = flat * -1;
            if (part.normals.empty()) normal = flat;
        }
        const bool turned = dot(normal, flat) < 0;
        if (turned) normal = normal * -1;
        // The next pixels' rays, met with this plane.
        const auto place = rays.eye + towards * met.t;
        const auto step = [&](float dx, float dy) {
            const auto other = rays.towards(x + dx, y + dy);
            const float down = dot(other, face.out);
            if (std::abs(down) < 1e-12f) return Vec2{0, 0};
            return face.shares(other * (dot(place - rays.eye, face.out) / down) + rays.eye - place);
        };
        const auto right = step(1, 0), down = step(0, 1);
        Vec2 uv = {0, 0}, u1 = {0, 0}, u2 = {0, 0}, uv_right = {0, 0}, uv_down = {0, 0};
        const bool has_uv = part.uvs.size() > look.uv_set;
        if (has_uv) {
            const auto& set = part.uvs[look.uv_set];
            uv = between(set[face.v[0]], set[face.v[1]], set[face.v[2]], met.b1, met.b2);
            for (std::size_t c = 0; c < 2; ++c) {
                u1[c] = set[face.v[1]][c] - set[face.v[0]][c];
                u2[c] = set[face.v[2]][c] - set[face.v[0]][c];
                uv[c] *= look.repeat;
                uv_right[c] = (u1[c] * right[0] + u2[c] * right[1]) * look.repeat;
                uv_down[c] = (u1[c] * down[0] + u2[c] * down[1]) * look.repeat;
            }
        }
        const auto read = [&](const SharedMap& map) {
            const auto level = used_level(*map, look.levels, level_for(map->levels[0].width, map->levels[0].height, uv_right, uv_down));
            return sampled(*map, uv, level);
        };
        const auto has = [&](const SharedMap& map) { return has_uv && map && map->is_there(); };
        Point out;
        Material material;
        if (has(surface.base_color)) {
            const auto texel = read(surface.base_color);
            material.base = {texel[0], texel[1], texel[2]};
            if (surface.alpha == AlphaMode::cut_out) out.alpha = texel[3] < surface.cut_at ? 0.0f : 1.0f;
            if (surface.alpha == AlphaMode::blend) out.alpha = texel[3];
        }
        if (look.vertex_colors && !part.colors.empty()) {
            const auto& a = part.colors[face.v[0]];
            const auto &b = part.colors[face.v[1]], &c = part.colors[face.v[2]];
            const auto at = [&](std::size_t i) { return a[i] + (b[i] - a[i]) * met.b1 + (c[i] - a[i]) * met.b2; };
            for (std::size_t i = 0; i < 3; ++i) material.base[i] *= at(i);
            if (surface.alpha == AlphaMode::blend) out.alpha *= at(3);
        }
        out.normal = normal;
        if (out.alpha == 0) return out;
        if (look.shown == PictureLook::Shown::base_color) {
            out.color = material.base;
        } else {
            if (has(surface.normal)) normal = bent(surface, face, read(surface.normal), normal, turned, u1, u2);
            out.normal = normal;
            if (has(surface.roughness)) {
                const float value = read(surface.roughness)[0];
                material.roughness = surface.is_gloss ? 1 - value : value;
            }
            if (has(surface.metalness)) material.metalness = read(surface.metalness)[0];
            if (has(surface.specular)) {
                const auto value = read(surface.specular);
                material.specular = {value[0], value[1], value[2]};
            }
            if (has(surface.occlusion)) material.occlusion = read(surface.occlusion)[0];
            if (has(surface.emission)) {
                const auto value = read(surface.emission);
                material.emission = {value[0], value[1], value[2]};
            }
            if (look.shown == PictureLook::Shown::normals) {
                for (std::size_t c = 0; c < 3; ++c) out.color[c] = srgb_to_linear(normal[c] / 2 + 0.5f);
            } else {
                out.color = shaded(material, normal, eye, look.light);
            }
        }
        if (met.part < look.marked.size() && met.triangle < look.marked[met.part].size() && look.marked[met.part][met.triangle])
            out.color = out.color * 0.6f + mark * 0.4f;
        if (look.wires) {
            // How many pixels away the nearest edge is, by how a corner's share changes from pixel to pixel.
            const Vec2 third = {-right[0] - right[1], -down[0] - down[1]};
            const float away =
                std::min({met.b1 / std::max(1e-9f, std::hypot(right[0], down[0])), met.b2 / std::max(1e-9f, std::hypot(right[1], down[1])),
                          (1 - met.b1 - met.b2) / std::max(1e-9f, std::hypot(third[0], third[1]))});
            const float line = std::clamp(1.1f - away, 0.0f, 1.0f) * 0.8f;
            for (auto& c : out.color) c *= 1 - line;
        }
        return out;
    }

    /// The normal a normal map says. The directions of u and v are those of this triangle, made upright to the smooth normal; where a
    /// triangle lies mirrored on its texture they are a left hand, as they have to be.
    [[nodiscard]] Vec3 bent(const MeshSurface& surface, const Face& face, const TexelF& texel, const Vec3& normal, bool turned,
                            const Vec2& u1, const Vec2& u2) const {
        const float area = u1[0] * u2[1] - u1[1] * u2[0];
        if (area == 0) return normal;
        const float side = turned ? -1.0f : 1.0f;
        auto along = (face.e1 * u2[1] - face.e2 * u1[1]) * (1 / area), down = (face.e2 * u1[0] - face.e1 * u2[0]) * (1 / area);
        along = normalized(along - normal * dot(along, normal));
        down = normalized(down - normal * dot(down, normal));
        const float x = texel[0] * 2 - 1, y = (texel[1] * 2 - 1) * (surface.green_down ? 1.0f : -1.0f);
        const float z = surface.normal->two_channels ? std::sqrt(std::max(0.0f, 1 - x * x - y * y)) : texel[2] * 2 - 1;
        const auto out = normalized(along * (x * side) + down * (y * side) + normal * std::max(z, 0.0f));
        return dot(out, out) > 0 ? out : normal;
    }

    /// Linear light, and what is seen.
    [[nodiscard]] Vec3 ray(const Rays& rays, float x, float y, Seen& seen) const {
        const auto towards = rays.towards(x, y);
        Vec3 color = {0, 0, 0};
        float left = 1, near = 0;
        for (int layer = 0; layer < most_layers && left > 0.004f; ++layer) {
            const auto met = meet(scene, rays.eye, towards, near);
            if (!met) break;
            const auto here = point(rays, x, y, towards, *met);
            if (layer == 0) seen = {met->part, met->t, here.normal, here.alpha < 1};
            color = color + here.color * (here.alpha * left);
            left *= 1 - here.alpha;
            near = std::max(met->t + small, std::nextafter(met->t, std::numeric_limits<float>::infinity()));
        }
        if (left <= 0.004f) return color;
        return color + behind * left;
    }
};

/// Linear to encoded. Where the curve is steepest, near black, a step of the table is a sixteenth of one of 8 bits.
class Encoder {
public:
    Encoder() {
        for (std::size_t i = 0; i < table_.size(); ++i)
            table_[i] = static_cast<std::uint8_t>(std::lround(linear_to_srgb((static_cast<float>(i) + 0.5f) / steps) * 255));
    }
    [[nodiscard]] std::uint8_t operator()(float linear) const {
        if (!(linear > 0)) return 0;
        if (linear >= 1) return 255;
        return table_[static_cast<std::size_t>(linear * steps)];
    }

private:
    static constexpr float steps = 1 << 16;
    std::array<std::uint8_t, 1 << 16> table_{};
};
const Encoder encoded;

Texel texel_of(const Vec3& color) { return {encoded(color[0]), encoded(color[1]), encoded(color[2]), 255}; }

/// Rows of tiles in any order; error `canceled`.
template <class Work>
Status over_rows(std::uint32_t height, const CancelToken& cancel, const Work& work) {
    constexpr std::uint32_t rows = 8;
    tbb::parallel_for(tbb::blocked_range<std::uint32_t>(0, (height + rows - 1) / rows, 1), [&](const auto& range) {
        for (auto band = range.begin(); band != range.end(); ++band)
            for (auto y = band * rows; y < std::min(height, (band + 1) * rows) && !cancel.canceled(); ++y) work(y);
    });
    return cancel.check();
}

}  // namespace

MeshRays::MeshRays(std::unique_ptr<Inside> inside) : in_(std::move(inside)) {}
MeshRays::MeshRays(MeshRays&&) noexcept = default;
MeshRays& MeshRays::operator=(MeshRays&&) noexcept = default;
MeshRays::~MeshRays() = default;
const Mesh& MeshRays::mesh() const { return *in_->mesh; }

Result<MeshRays> MeshRays::make(std::shared_ptr<const Mesh> mesh, std::span<const std::size_t> parts) {
    auto in = std::make_unique<Inside>();
    in->mesh = std::move(mesh);
    in->device = rtcNewDevice(nullptr);
    const auto wrong = [&](const char* doing) { return fail(ErrorCode::limit, phrase("there is not enough memory for {}", doing)); };
    if (!in->device) return wrong("rays");
    in->scene = rtcNewScene(in->device);
    // Neighboring triangles leave no holes between them.
    rtcSetSceneFlags(in->scene, RTC_SCENE_FLAG_ROBUST);
    std::vector<std::size_t> all(in->mesh->parts.size());
    std::iota(all.begin(), all.end(), std::size_t{0});
    for (const auto p : parts.empty() ? std::span<const std::size_t>(all) : parts) {
        const auto& part = in->mesh->parts[p];
        if (part.corners.empty()) continue;
        auto* geometry = rtcNewGeometry(in->device, RTC_GEOMETRY_TYPE_TRIANGLE);
        // Embree reads 16 bytes from each place: shared memory would be read past its end, so it gets its own.
        auto* places = static_cast<float*>(
            rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, sizeof(Vec3), part.places.size()));
        auto* corners = static_cast<std::uint32_t*>(
            rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 12, part.triangles()));
        if (places && corners) {
            std::memcpy(places, part.places.data(), part.places.size() * sizeof(Vec3));
            std::memcpy(corners, part.corners.data(), part.corners.size() * 4);
            rtcCommitGeometry(geometry);
            rtcAttachGeometryByID(in->scene, geometry, static_cast<unsigned>(p));
        }
        rtcReleaseGeometry(geometry);
        if (!places || !corners) return wrong("this mesh");
    }
    rtcCommitScene(in->scene);
    if (rtcGetDeviceError(in->device) != RTC_ERROR_NONE) return wrong("this mesh");
    const auto box = in->mesh->box();
    in->small = std::max(box.radius() * 1e-5f, 1e-12f);
    return MeshRays(std::move(in));
}

std::optional<MeshHit> MeshRays::hit(const Camera& camera, std::uint32_t width, std::uint32_t height, const Vec2& at,
                                     std::uint32_t uv_set) const {
    const Rays rays(camera, width, height);
    const auto towards = rays.towards(at[0], at[1]);
    const auto met = meet(in_->scene, rays.eye, towards, 0);
    if (!met) return std::nullopt;
    MeshHit out;
    out.part = met->part;
    out.triangle = met->triangle;
    out.place = rays.eye + towards * met->t;
    out.distance = length(out.place - rays.eye);
    const auto& part = in_->mesh->parts[met->part];
    if (part.uvs.size() > uv_set) {
        const Face face(part, met->triangle);
        const auto& set = part.uvs[uv_set];
        out.uv = between(set[face.v[0]], set[face.v[1]], set[face.v[2]], met->b1, met->b2);
    }
    return out;
}

Result<Image> MeshRays::picture(const Camera& camera, std::uint32_t width, std::uint32_t height, std::span<const MeshSurface> surfaces,
                                const PictureLook& look, const CancelToken& cancel) const {
    Image out(width, height);
    const Rays rays(camera, width, height);
    const Drawing drawing(*in_, surfaces, look);
    SKIVET_CHECK(over_rows(height, cancel, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < width; ++x) {
            Seen seen;
            out.at(x, y) = texel_of(drawing.ray(rays, static_cast<float>(x) + 0.5f, static_cast<float>(y) + 0.5f, seen));
        }
    }));
    return out;
}

Result<Image> MeshRays::fine_picture(const Camera& camera, std::uint32_t width, std::uint32_t height, std::span<const MeshSurface> surfaces,
                                     const PictureLook& look, const CancelToken& cancel) const {
    Image out(width, height);
    const Rays rays(camera, width, height);
    const Drawing drawing(*in_, surfaces, look);
    std::vector<Seen> seen(std::size_t{width} * height);
    std::vector<Vec3> light(seen.size());
    SKIVET_CHECK(over_rows(height, cancel, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < width; ++x) {
            const auto at = std::size_t{y} * width + x;
            light[at] = drawing.ray(rays, static_cast<float>(x) + 0.5f, static_cast<float>(y) + 0.5f, seen[at]);
            out.texels[at] = texel_of(light[at]);
        }
    }));
    const auto differ = [](const Seen& a, const Seen& b) {
        if (a.part != b.part || a.through != b.through) return true;
        return dot(a.normal, b.normal) < 0.9f || std::abs(a.distance - b.distance) > 0.02f * std::max(a.distance, b.distance);
    };
    SKIVET_CHECK(over_rows(height, cancel, [&](std::uint32_t y) {
        for (std::uint32_t x = 0; x < width; ++x) {
            const auto at = std::size_t{y} * width + x;
            if (!(x > 0 && differ(seen[at], seen[at - 1])) && !(x + 1 < width && differ(seen[at], seen[at + 1])) &&
                !(y > 0 && differ(seen[at], seen[at - width])) && !(y + 1 < height && differ(seen[at], seen[at + width])))
                continue;
            // A turned square: no two rays in one row or column.
            auto sum = light[at];
            for (const auto& [dx, dy] : {std::pair{0.125f, 0.375f}, {0.375f, 0.875f}, {0.625f, 0.125f}, {0.875f, 0.625f}}) {
                Seen other;
                const auto more = drawing.ray(rays, static_cast<float>(x) + dx, static_cast<float>(y) + dy, other);
                for (std::size_t c = 0; c < 3; ++c) sum[c] += std::min(more[c], 1.0f);
            }
            for (std::size_t c = 0; c < 3; ++c) sum[c] = (sum[c] - light[at][c] + std::min(light[at][c], 1.0f)) / 5;
            out.texels[at] = texel_of(sum);
        }
    }));
    return out;
}

}  // namespace skivet
