#include "app/workshop/try_on_window.h"

#include <QVBoxLayout>

#include "app/guide_window.h"
#include "app/models/left_state.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {

TryOnWindow::TryOnWindow(QWidget* parent, std::unique_ptr<TryOnModel> model) : QDialog(parent), model_(std::move(model)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("try_on_window"));
    resize(1060, 680);
    keep_size(this, "try-on");
    set_help(this, "object");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(14, 12, 14, 12);
    panel_ = new TryOnPanel(model_.get());
    box->addWidget(panel_);
    add_workshop_action(this, "try-on-window/flip", [this] { panel_->flip(); });
    add_workshop_action(this, "try-on-window/islands", [this] { panel_->toggle_islands(); });
    const auto say_name = [this] { setWindowTitle(model_->is_empty() ? tr("On the object") : tr("%1 on its object").arg(model_->name())); };
    connect(model_.get(), &TryOnModel::rows_changed, this, say_name);
    say_name();
    panel_->mesh_view()->setFocus();
}

void TryOnWindow::show_item(std::size_t item) { model_->show_item(item); }

}  // namespace skivet::app
