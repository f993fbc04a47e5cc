#pragma once
#include <QWidget>

#include "app/models/fit_pictures.h"

namespace skivet::app {

/// Two rows of levels, the game's and the new ones, with the share of kept blocks below.
class MipRows : public QWidget {
    Q_OBJECT
public:
    explicit MipRows(QWidget* parent = nullptr);
    /// `mips` may be null as long as they are made.
    void show_fit(std::shared_ptr<const FittedPiece> fitted, std::shared_ptr<const FitMips> mips);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    [[nodiscard]] double cell_width() const;
    [[nodiscard]] std::size_t count() const;
    std::shared_ptr<const FittedPiece> fitted_;
    std::shared_ptr<const FitMips> mips_;
};

}  // namespace skivet::app
