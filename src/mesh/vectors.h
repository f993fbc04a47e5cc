#pragma once
#include <cmath>

#include "mesh/mesh.h"

namespace skivet {

inline Vec3 operator+(const Vec3& a, const Vec3& b) { return {a[0] + b[0], a[1] + b[1], a[2] + b[2]}; }
inline Vec3 operator-(const Vec3& a, const Vec3& b) { return {a[0] - b[0], a[1] - b[1], a[2] - b[2]}; }
inline Vec3 operator*(const Vec3& a, float s) { return {a[0] * s, a[1] * s, a[2] * s}; }
inline Vec3 operator*(const Vec3& a, const Vec3& b) { return {a[0] * b[0], a[1] * b[1], a[2] * b[2]}; }
inline float dot(const Vec3& a, const Vec3& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }
inline Vec3 cross(const Vec3& a, const Vec3& b) {
    return {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
}
inline float length(const Vec3& a) { return std::sqrt(dot(a, a)); }
/// `a` itself where it has no length.
inline Vec3 normalized(const Vec3& a) {
    const float l = length(a);
    return l > 0 ? a * (1 / l) : a;
}

}  // namespace skivet
