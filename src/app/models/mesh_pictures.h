#pragma once
// Pictures of a mesh for the screen, made beside the window: at half the resolution while one moves, then whole.
#include <QImage>
#include <QObject>
#include <QTimer>

#include "app/models/jobs.h"
#include "mesh/mesh_picture.h"
#include "mesh/uv.h"

namespace skivet::app {

/// What is looked at.
struct MeshScene {
    std::shared_ptr<const MeshRays> rays;  ///< null: nothing
    std::vector<MeshSurface> surfaces;     ///< one for each part
    std::shared_ptr<const UvLayout> layout;
};

struct MeshWish {
    Camera camera;
    QSize pixels;  ///< of the screen
    PictureLook look;
    std::optional<std::uint32_t> island;  ///< of the layout: tinted
};

/// One picture at a time; whoever asks again meanwhile gets the newest.
class MeshPictures : public QObject {
    Q_OBJECT
public:
    explicit MeshPictures(Jobs& jobs, QObject* parent = nullptr) : QObject(parent), jobs_(jobs) {}
    ~MeshPictures() override { making_.cancel(); }
    void set_scene(MeshScene scene);
    [[nodiscard]] const MeshScene& scene() const { return *scene_; }
    /// `made` follows, once or twice.
    void ask(const MeshWish& wish);
    /// Nothing is made or asked for any more.
    [[nodiscard]] bool is_idle() const { return !running_ && !waiting_; }

signals:
    void made(const QImage& picture, bool fine);

private:
    void start(bool fine);
    Jobs& jobs_;
    std::shared_ptr<const MeshScene> scene_ = std::make_shared<MeshScene>();
    MeshWish wish_;
    CancelToken making_;
    bool running_ = false, waiting_ = false;
};

}  // namespace skivet::app
