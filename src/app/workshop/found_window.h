#pragma once
// What was found in the game's folder, before it becomes the sources: each with pictures, a count and a tick.
#include <QDialog>
#include <QLabel>
#include <QStandardItemModel>
#include <QTreeView>

#include "app/models/found_model.h"
#include "app/widgets/button.h"

namespace skivet::app {

class FoundWindow : public QDialog {
    Q_OBJECT
public:
    explicit FoundWindow(FoundModel* model, QWidget* parent);
    [[nodiscard]] QTreeView* list() const { return list_; }
    /// Goes through another folder.
    void look_through(const std::filesystem::path& game);

private:
    void refresh();
    void add_row(QStandardItem* section, std::size_t found, const OrderedSource* order, bool fresh, bool ticked);

    FoundModel* model_;
    QLabel *title_, *about_;
    QTreeView* list_;
    QStandardItemModel* rows_;
    QAction* take_;
};

/// Goes through a game's folder and shows what is found in it.
void show_found(QWidget* parent, FoundModel* model, const std::filesystem::path& game);
/// Asks for the folder first.
void ask_for_game(QWidget* parent, const std::function<void(const std::filesystem::path&)>& chosen);

}  // namespace skivet::app
