#include "fair/press/meshes.h"

#include <array>
#include <cmath>
#include <cstring>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QtEndian>

namespace fair {
namespace {

struct Mesh {
    std::vector<std::array<float, 3>> places;
    std::vector<std::array<float, 2>> uvs;  ///< one a place; v runs down
    std::vector<quint16> triangles;         ///< three corners each

    void quad(std::array<std::array<float, 3>, 4> corners, std::array<std::array<float, 2>, 4> at) {
        const auto first = quint16(places.size());
        for (size_t i = 0; i < 4; ++i) {
            places.push_back(corners[i]);
            uvs.push_back(at[i]);
        }
        for (const int k : {0, 1, 2, 0, 2, 3}) triangles.push_back(quint16(first + k));
    }
};

constexpr std::array<std::array<float, 2>, 4> whole = {{{0, 1}, {1, 1}, {1, 0}, {0, 0}}}, turned = {{{1, 1}, {0, 1}, {0, 0}, {1, 0}}};

/// A flat animal of some thickness. Both sides show the texture from the same part, so one side has it the wrong way round.
Mesh horse_mesh() {
    Mesh out;
    const float t = 0.12f;
    out.quad({{{-1, 0, t}, {1, 0, t}, {1, 2, t}, {-1, 2, t}}}, whole);
    out.quad({{{1, 0, -t}, {-1, 0, -t}, {-1, 2, -t}, {1, 2, -t}}}, turned);
    out.quad({{{-1, 2, t}, {1, 2, t}, {1, 2, -t}, {-1, 2, -t}}}, {{{0, 0.02f}, {1, 0.02f}, {1, 0}, {0, 0}}});
    return out;
}

Mesh booth_mesh() {
    Mesh out;
    const float w = 1.2f, d = 0.8f, h = 1.6f;
    out.quad({{{-w, 0, d}, {w, 0, d}, {w, h, d}, {-w, h, d}}}, whole);
    out.quad({{{w, 0, d}, {w, 0, -d}, {w, h, -d}, {w, h, d}}}, whole);
    out.quad({{{w, 0, -d}, {-w, 0, -d}, {-w, h, -d}, {w, h, -d}}}, whole);
    out.quad({{{-w, 0, -d}, {-w, 0, d}, {-w, h, d}, {-w, h, -d}}}, whole);
    return out;
}

/// A cone over a ring of walls; the stripes go round once.
Mesh tent_mesh() {
    Mesh out;
    constexpr int sides = 12;
    for (int i = 0; i < sides; ++i) {
        const float a = float(i) * 6.2831853f / sides, b = float(i + 1) * 6.2831853f / sides, u0 = float(i) / sides,
                    u1 = float(i + 1) / sides;
        const std::array<float, 3> p = {std::cos(a) * 2, 0, std::sin(a) * 2}, q = {std::cos(b) * 2, 0, std::sin(b) * 2};
        out.quad({{p, q, {q[0], 1, q[2]}, {p[0], 1, p[2]}}}, {{{u0, 1}, {u1, 1}, {u1, 0.6f}, {u0, 0.6f}}});
        out.quad({{{p[0], 1, p[2]}, {q[0], 1, q[2]}, {0, 2.4f, 0}, {0, 2.4f, 0}}}, {{{u0, 0.6f}, {u1, 0.6f}, {u1, 0}, {u0, 0}}});
    }
    return out;
}

QByteArray obj_of(const Mesh& mesh, const QByteArray& name) {
    QByteArray out = "# " + name + ", a thing of Brindle Fair\no " + name + "\n";
    for (const auto& p : mesh.places)
        out += "v " + QByteArray::number(p[0]) + ' ' + QByteArray::number(p[1]) + ' ' + QByteArray::number(p[2]) + '\n';
    for (const auto& t : mesh.uvs) out += "vt " + QByteArray::number(t[0]) + ' ' + QByteArray::number(1 - t[1]) + '\n';
    for (size_t i = 0; i < mesh.triangles.size(); i += 3) {
        out += 'f';
        for (size_t k = 0; k < 3; ++k) {
            const auto n = QByteArray::number(mesh.triangles[i + k] + 1);
            out += ' ' + n + '/' + n;
        }
        out += '\n';
    }
    return out;
}

QByteArray buffer_of(const Mesh& mesh) {
    QByteArray out;
    const auto number = [&](float v) {
        quint32 bits;
        std::memcpy(&bits, &v, 4);
        bits = qToLittleEndian(bits);
        out.append(reinterpret_cast<const char*>(&bits), 4);
    };
    for (const auto& p : mesh.places)
        for (const float v : p) number(v);
    for (const auto& t : mesh.uvs)
        for (const float v : t) number(v);
    for (const auto i : mesh.triangles) {
        const auto little = qToLittleEndian(i);
        out.append(reinterpret_cast<const char*>(&little), 2);
    }
    while (out.size() % 4) out.append('\0');
    return out;
}

/// glTF 2.0; `uri` is where the buffer is, empty inside a .glb.
QJsonObject gltf_of(const Mesh& mesh, const QString& name, const QString& picture, const QString& uri, qsizetype bytes) {
    const int n = int(mesh.places.size()), t = int(mesh.triangles.size());
    std::array<float, 3> low = mesh.places[0], high = low;
    for (const auto& p : mesh.places)
        for (size_t c = 0; c < 3; ++c) low[c] = std::min(low[c], p[c]), high[c] = std::max(high[c], p[c]);
    const auto view = [](int at, int length, int target) {
        return QJsonObject{{"buffer", 0}, {"byteOffset", at}, {"byteLength", length}, {"target", target}};
    };
    QJsonObject buffer{{"byteLength", int(bytes)}};
    if (!uri.isEmpty()) buffer["uri"] = uri;
    return {{"asset", QJsonObject{{"version", "2.0"}, {"generator", "fair-press"}}},
            {"scene", 0},
            {"scenes", QJsonArray{QJsonObject{{"nodes", QJsonArray{0}}}}},
            {"nodes", QJsonArray{QJsonObject{{"mesh", 0}, {"name", name}}}},
            {"meshes",
             QJsonArray{QJsonObject{
                 {"name", name},
                 {"primitives", QJsonArray{QJsonObject{
                                    {"attributes", QJsonObject{{"POSITION", 0}, {"TEXCOORD_0", 1}}}, {"indices", 2}, {"material", 0}}}}}}},
            {"materials", QJsonArray{QJsonObject{{"name", picture}}}},
            {"buffers", QJsonArray{buffer}},
            {"bufferViews", QJsonArray{view(0, n * 12, 34962), view(n * 12, n * 8, 34962), view(n * 20, t * 2, 34963)}},
            {"accessors", QJsonArray{QJsonObject{{"bufferView", 0},
                                                 {"componentType", 5126},
                                                 {"count", n},
                                                 {"type", "VEC3"},
                                                 {"min", QJsonArray{double(low[0]), double(low[1]), double(low[2])}},
                                                 {"max", QJsonArray{double(high[0]), double(high[1]), double(high[2])}}},
                                     QJsonObject{{"bufferView", 1}, {"componentType", 5126}, {"count", n}, {"type", "VEC2"}},
                                     QJsonObject{{"bufferView", 2}, {"componentType", 5123}, {"count", t}, {"type", "SCALAR"}}}}};
}

QByteArray glb_of(const Mesh& mesh, const QString& name, const QString& picture) {
    const auto buffer = buffer_of(mesh);
    auto json = QJsonDocument(gltf_of(mesh, name, picture, {}, buffer.size())).toJson(QJsonDocument::Compact);
    while (json.size() % 4) json.append(' ');
    QByteArray out("glTF");
    const auto number = [&](quint32 v) {
        const auto little = qToLittleEndian(v);
        out.append(reinterpret_cast<const char*>(&little), 4);
    };
    number(2);
    number(quint32(12 + 8 + json.size() + 8 + buffer.size()));
    number(quint32(json.size()));
    out.append("JSON", 4);
    out.append(json);
    number(quint32(buffer.size()));
    out.append("BIN\0", 4);
    return out + buffer;
}

}  // namespace

std::vector<PackedFile> make_meshes() {
    const auto booth = booth_mesh();
    const auto buffer = buffer_of(booth);
    const auto gltf =
        QJsonDocument(gltf_of(booth, "booth", "ground/bricks",
                              "data:application/octet-stream;base64," + QString::fromLatin1(buffer.toBase64()), buffer.size()))
            .toJson(QJsonDocument::Indented);
    return {{"models/horse.obj", obj_of(horse_mesh(), "horse"), true},
            {"models/booth.gltf", gltf, true},
            {"models/tent.glb", glb_of(tent_mesh(), "tent", "cloth/tent"), false}};
}

}  // namespace fair
