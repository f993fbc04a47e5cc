#pragma once
#include <QDialog>
#include <QLabel>
#include <QPointer>
#include <QVBoxLayout>

#include "app/models/frame_model.h"
#include "app/widgets/frame_view.h"

namespace skivet::app {

class TryOnModel;
class TryOnWindow;

/// What a game drew in one frame, thing by thing, with the textures each has and where they are in the archives.
class FrameWindow : public QDialog {
    Q_OBJECT
public:
    /// `try_on` may be null: then things are not shown on their meshes.
    FrameWindow(QWidget* parent, FrameModel* model, TryOnModel* try_on);
    [[nodiscard]] FrameView* view() const { return view_; }
    [[nodiscard]] TryOnWindow* on_mesh() const;
    /// Opens the newest record, or asks for one where there is none.
    void open_newest();

signals:
    /// A texture is to be shown in the catalog.
    void wanted(std::size_t item);

private:
    void choose();
    void show_thing();
    void show_textures();
    [[nodiscard]] QWidget* make_row(std::size_t texture);
    void light(std::size_t thing);
    void point_at(QPoint pixel, bool choose);
    void show_on_mesh();
    void save(std::size_t texture);

    FrameModel* model_;
    TryOnModel* try_on_;
    FrameView* view_;
    QLabel *thing_text_, *note_;
    QVBoxLayout* rows_;
    QAction* mesh_;
    QPointer<TryOnWindow> on_mesh_;
    std::size_t lit_ = std::size_t(-1);
};

}  // namespace skivet::app
