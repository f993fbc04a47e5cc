#pragma once
#include <QComboBox>
#include <QPushButton>
#include <QSlider>
#include <QTreeWidget>

#include "app/models/try_on_model.h"
#include "app/widgets/image_view.h"
#include "app/widgets/mesh_view.h"

namespace skivet::app {

/// A texture on its object beside the texture laid flat; what it lies on, and how it is looked at. Shows a model's values and calls its
/// functions.
class TryOnPanel : public QWidget {
    Q_OBJECT
public:
    explicit TryOnPanel(TryOnModel* model, QWidget* parent = nullptr);
    /// The next of the game's, yours and what the game gets.
    void flip();
    /// Shows the islands over the flat picture, or not.
    void toggle_islands() { islands_->trigger(); }
    [[nodiscard]] MeshView* mesh_view() const { return view_; }
    [[nodiscard]] ImageView* flat_view() const { return flat_; }
    [[nodiscard]] QTreeWidget* tree() const { return tree_; }
    [[nodiscard]] QSlider* distance() const { return distance_; }
    /// What is said of the place under the pointer, and of the layout as a whole.
    [[nodiscard]] QString said_of_place() const { return place_->text(); }
    [[nodiscard]] QString said_of_layout() const { return facts_->text(); }
    /// The island that is lit; -1: none.
    [[nodiscard]] int island() const { return island_ ? int(*island_) : -1; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    [[nodiscard]] QWidget* make_object();
    [[nodiscard]] QWidget* make_flat();
    QAction* toggle(const char* id, const QString& text, const QKeySequence& key, const QString& tip, bool on, std::function<void()> run);
    void show_rows();
    void show_scene(bool another);
    void ask_picture();
    void point_at_mesh(std::optional<QPointF> at);
    void point_at_flat(QPoint texel);
    void light_island(std::optional<std::uint32_t> island);
    void say_place(const QString& where, std::optional<std::uint32_t> island);
    void say_mip();
    /// How often the texture lies each way on a plain body.
    [[nodiscard]] float repeat() const;
    void save_islands(bool over_picture);
    void choose_file();
    /// How the columns of a table of vertices are read, to be corrected; then it is put on.
    void show_columns(const std::filesystem::path& file);
    [[nodiscard]] std::optional<MeshHit> hit_at(QPointF at) const;

    TryOnModel* model_;
    MeshView* view_;
    SharedView* shared_;
    ImageView* flat_;
    QTreeWidget* tree_;
    QSlider* distance_;
    QComboBox *mips_, *quality_, *tiles_, *details_;
    QWidget* tiles_box_;
    QPushButton* columns_;
    QLabel *mip_text_, *place_, *facts_, *reason_;
    QAction *game_, *yours_, *result_, *lit_, *wires_, *islands_, *upright_, *green_, *colors_;
    std::optional<std::uint32_t> island_;
    bool filling_ = false;
    bool missed_ = false;  ///< another object came while nobody saw it
    bool ticked_ = false;  ///< the click that is being handled was on a box
};

}  // namespace skivet::app
