#pragma once
// The pictures of a folder and the textures they were matched to, side by side for a yes; doubtful ones first.
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QListView>
#include <QStandardItemModel>

#include "app/models/bench_model.h"
#include "app/models/catalog_model.h"
#include "app/models/sources_model.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class BringWindow : public QDialog {
    Q_OBJECT
public:
    BringWindow(QWidget* parent, SourcesModel* sources, CatalogModel* catalog, BenchModel* bench, std::filesystem::path folder);
    ~BringWindow() override;
    [[nodiscard]] QListView* list() const { return list_; }
    [[nodiscard]] QComboBox* candidates() const { return candidates_; }
    /// False until the folder was gone through.
    [[nodiscard]] bool ready() const { return ready_; }

private:
    /// As soon as the whole game is listed.
    void match();
    void fill(Result<BroughtFolder> found);
    void show_row(const QModelIndex& index);
    [[nodiscard]] Address address_of(const BroughtMatch& match) const;
    void refresh_counts();
    void take();
    [[nodiscard]] BroughtMatch* match_at(const QModelIndex& index);

    SourcesModel* sources_;
    CatalogModel* catalog_;
    BenchModel* bench_;
    std::filesystem::path folder_;
    std::shared_ptr<const AnalyzedCatalog> analyzed_;  ///< that the matches count in
    std::shared_ptr<Progress> progress_;
    BroughtFolder found_;
    bool ready_ = false;
    QStandardItemModel* rows_;
    QListView* list_;
    ImageView *mine_, *theirs_;
    QLabel *doubt_, *counts_;
    QComboBox* candidates_;
    QAction* take_;
};

}  // namespace skivet::app
