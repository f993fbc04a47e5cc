#include "mesh/shading.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "mesh/vectors.h"

namespace skivet {

Vec3 shaded(const Material& material, const Vec3& normal, const Vec3& eye, const Lighting& light) {
    constexpr float pi = std::numbers::pi_v<float>;
    const auto towards = normalized(light.towards);
    const auto half = normalized(towards + eye);
    const float nl = std::max(0.0f, dot(normal, towards)), nv = std::max(1e-4f, dot(normal, eye)), nh = std::max(0.0f, dot(normal, half)),
                vh = std::max(0.0f, dot(eye, half));
    // A surface without any roughness would show a light far away as a point nobody hits.
    const float rough = std::max(material.roughness, 0.045f), a = rough * rough, a2 = a * a;
    Vec3 diffuse{}, straight{};
    if (material.specular[0] >= 0) {
        const float most = std::max({material.specular[0], material.specular[1], material.specular[2]});
        diffuse = material.base * (1 - most);
        straight = material.specular;
    } else {
        diffuse = material.base * (1 - material.metalness);
        for (std::size_t c = 0; c < 3; ++c) straight[c] = 0.04f + (material.base[c] - 0.04f) * material.metalness;
    }
    const float wide = nh * nh * (a2 - 1) + 1, distribution = a2 / (pi * wide * wide);
    const float masking = nl * std::sqrt(nv * nv * (1 - a2) + a2) + nv * std::sqrt(nl * nl * (1 - a2) + a2);
    const float visible = masking > 0 ? 0.5f / masking : 0;
    const auto fifth = [](float x) { return x * x * x * x * x; };
    const float grazing = fifth(1 - std::min(vh, 1.0f)), grazing_eye = fifth(1 - std::min(nv, 1.0f));
    Vec3 out{};
    for (std::size_t c = 0; c < 3; ++c) {
        const float fresnel = straight[c] + (1 - straight[c]) * grazing;
        const float direct = ((1 - fresnel) * diffuse[c] / pi + fresnel * distribution * visible) * nl * light.direct * pi;
        // What is rough reflects less at grazing angles (common practice, no source).
        const float around_straight = straight[c] + std::max(0.0f, 1 - rough - straight[c]) * grazing_eye;
        const float around = (diffuse[c] * (1 - around_straight) + around_straight) * light.around * material.occlusion;
        out[c] = direct + around + material.emission[c];
    }
    return out;
}

}  // namespace skivet
