#pragma once
#include <QDialog>

#include "app/pages/try_on_panel.h"

namespace skivet::app {

/// The texture that is chosen in the catalog, on its object; it follows the choice while it is open.
class TryOnWindow : public QDialog {
    Q_OBJECT
public:
    TryOnWindow(QWidget* parent, std::unique_ptr<TryOnModel> model);
    void show_item(std::size_t item);
    [[nodiscard]] TryOnPanel* panel() const { return panel_; }
    [[nodiscard]] TryOnModel* model() const { return model_.get(); }

private:
    std::unique_ptr<TryOnModel> model_;
    TryOnPanel* panel_;
};

}  // namespace skivet::app
