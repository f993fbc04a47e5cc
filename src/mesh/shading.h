#pragma once
#include "mesh/mesh.h"

namespace skivet {

/// A point of a surface, all in linear light.
struct Material {
    Vec3 base = {0.5f, 0.5f, 0.5f};
    float roughness = 0.6f;  ///< as painted; its square is the width of the highlight
    float metalness = 0;
    Vec3 specular = {-1, 0, 0};  ///< reflected straight on; the first below 0: by base and metalness
    float occlusion = 1;
    Vec3 emission = {0, 0, 0};
};

/// One light far away, and the same light from everywhere.
struct Lighting {
    Vec3 towards = {0.45f, 0.65f, 0.6f};  ///< the light; any length
    float direct = 0.8f;                  ///< what a white, matt surface that faces it gives back
    float around = 0.22f;                 ///< what comes from everywhere
    bool operator==(const Lighting&) const = default;
};

/// What is seen of it. The model of glTF 2.0, appendix B.3 (metallic-roughness: Lambert, Trowbridge and Reitz' distribution, Smith's
/// masking with its height correlated, Schlick's Fresnel); of what comes from everywhere the diffuse part by the base color and the
/// reflected one by Schlick's Fresnel towards the eye, both times the occlusion. All three vectors have length one; `normal` and `eye`
/// point away from the surface.
[[nodiscard]] Vec3 shaded(const Material& material, const Vec3& normal, const Vec3& eye, const Lighting& light);

}  // namespace skivet
