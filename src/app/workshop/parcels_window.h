#pragma once
// The parcels in the game and one's own work among them, in their order; what a change of them does to each texture, side by side where two
// meet; nothing is written before a yes.
#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>

#include "app/models/parcel_model.h"
#include "app/widgets/image_view.h"
#include "app/widgets/titled_view.h"

namespace skivet::app {

class ParcelsWindow : public QDialog {
    Q_OBJECT
public:
    ParcelsWindow(QWidget* parent, ParcelModel* model);
    [[nodiscard]] QListWidget* layers() const { return layers_; }
    [[nodiscard]] QListWidget* textures() const { return textures_; }
    /// A parcel, or a folder or archive of another form, as if it had been chosen.
    void bring(const std::filesystem::path& path);

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    /// What a row of textures is about.
    struct Row {
        Address address;
        QString name, note;
        std::size_t texture = 0;            ///< of what is brought; counts where the address is empty
        bool wrong = false;                 ///< it does not go in
        const StackTexture* met = nullptr;  ///< in model_->plan(); null: one layer alone changes it
    };
    QWidget* make_left();
    QWidget* make_right();
    void refresh();
    void show_layer();
    void show_about(const ParcelAbout& about, bool foreign);
    void show_texture();
    void show_sides(const Row& row, const std::vector<ParcelModel::Side>& sides);
    void refuse(const QString& why);
    [[nodiscard]] std::optional<std::size_t> current_layer() const;
    [[nodiscard]] std::vector<Row> rows_of(std::size_t layer) const;
    [[nodiscard]] QString name_of(std::size_t layer) const;
    [[nodiscard]] QString words_of(const StackTexture& met) const;

    ParcelModel* model_;
    QListWidget *layers_, *textures_;
    std::vector<Row> rows_;
    QLabel *title_, *about_, *notes_, *state_, *about_texture_, *textures_title_;
    QLabel* names_[2];
    ImageView* views_[2];
    QPushButton* stays_[2];
    std::optional<std::size_t> shown_[2];  ///< layers whose pictures are shown; none: the original's
    QWidget *full_, *empty_, *moves_, *leave_button_, *write_button_;
    QAction *add_, *out_, *higher_, *lower_, *leave_, *write_;
};

/// What goes into a parcel, what it says of itself, and the file.
class MakeParcelWindow : public QDialog {
    Q_OBJECT
public:
    MakeParcelWindow(QWidget* parent, ParcelModel* model);
    /// Writes the file as if it had been chosen.
    void write(const std::filesystem::path& file);

private:
    void make();
    void show_made(Result<MadeParcel> made);
    [[nodiscard]] MakeWish wish() const;

    ParcelModel* model_;
    QLineEdit *title_edit_, *author_, *version_, *license_;
    QPlainTextEdit* notes_;
    QListWidget* pieces_;
    QLabel *counts_, *wrong_;
    QAction* write_;
    std::shared_ptr<const MadeParcel> made_;
    std::uint64_t requests_ = 0;
    std::vector<PieceId> own_;
};

void show_parcels(QWidget* parent, ParcelModel* model);

}  // namespace skivet::app
