#include "app/models/mesh_pictures.h"

#include "app/models/pictures.h"

namespace skivet::app {
namespace {

/// Triangles of an island, by part.
std::vector<std::vector<bool>> marks_of(const MeshScene& scene, std::uint32_t island) {
    std::vector<std::vector<bool>> out(scene.rays->mesh().parts.size());
    if (!scene.layout || island >= scene.layout->islands.size()) return out;
    for (const auto i : scene.layout->islands[island].triangles) {
        const auto& t = scene.layout->triangles[i];
        auto& part = out[t.part];
        if (part.empty()) part.resize(scene.rays->mesh().parts[t.part].triangles());
        part[t.triangle] = true;
    }
    return out;
}

}  // namespace

void MeshPictures::set_scene(MeshScene scene) {
    jobs_.let_go({scene_});
    scene_ = std::make_shared<MeshScene>(std::move(scene));
}

void MeshPictures::ask(const MeshWish& wish) {
    wish_ = wish;
    waiting_ = true;
    // A rough picture is soon there, and shows that something moves; a fine one of what nobody looks at any more is not waited for.
    if (running_) return making_.cancel();
    start(false);
}

void MeshPictures::start(bool fine) {
    if (!scene_->rays || wish_.pixels.isEmpty()) {
        waiting_ = running_ = false;
        return emit made({}, true);
    }
    if (!fine) waiting_ = false;
    running_ = true;
    // A rough one is made to its end: else nothing would be seen while somebody turns without a pause.
    making_ = {};
    jobs_.run(
        Jobs::By::pictures, this, {},
        [scene = scene_, wish = wish_, fine, cancel = fine ? making_ : CancelToken()] {
            auto look = wish.look;
            if (wish.island) look.marked = marks_of(*scene, *wish.island);
            const auto side = [fine](int pixels) { return std::uint32_t(std::max(1, fine ? pixels : (pixels + 1) / 2)); };
            const auto width = side(wish.pixels.width()), height = side(wish.pixels.height());
            const auto picture = fine ? scene->rays->fine_picture(wish.camera, width, height, scene->surfaces, look, cancel)
                                      : scene->rays->picture(wish.camera, width, height, scene->surfaces, look, cancel);
            return picture ? to_qimage(*picture) : QImage();
        },
        [this, fine](const QImage& picture) {
            running_ = false;
            if (!picture.isNull()) emit made(picture, fine);
            if (running_) return;  // asked again by who got it
            if (waiting_) start(false);
            else if (!fine) start(true);
        });
}

}  // namespace skivet::app
