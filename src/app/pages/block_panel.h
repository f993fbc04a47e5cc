#pragma once
#include <QLabel>
#include <QWidget>

#include "app/models/fit_pictures.h"

namespace skivet::app {

/// What became of all blocks in one line, or of the one that was chosen: before, yours and new, what it is made of, how far off it is.
class BlockPanel : public QWidget {
    Q_OBJECT
public:
    explicit BlockPanel(QWidget* parent = nullptr);
    void show_fit(std::shared_ptr<const FittedPiece> fitted);
    /// A cell of the fit's block map; nothing: all of them.
    void show_cell(std::optional<std::size_t> cell);
    [[nodiscard]] std::optional<std::size_t> cell() const { return cell_; }
    /// The new cell that comes next by how much was lost.
    [[nodiscard]] std::optional<std::size_t> next_lost() const;

private:
    void refresh();
    [[nodiscard]] QImage texels_of(const Image& image) const;
    /// As it counts for what the texture is: "38.1 dB", "0.21° (99 % within 0.8°)".
    [[nodiscard]] static QString how_far_off(const Fit& fit);
    /// "mode 6 · one subset"; empty where there is no block.
    [[nodiscard]] QString made_of(const TextureLayout& layout, const Bytes& file) const;
    std::shared_ptr<const FittedPiece> fitted_;
    std::optional<std::size_t> cell_;
    QLabel *pictures_[3], *head_, *text_;
    QWidget* wells_;
};

}  // namespace skivet::app
