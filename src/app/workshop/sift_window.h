#pragma once
// Sifting a file: what textures and streams are in it, with their pictures; and the names of hashed entries.
#include <QAbstractListModel>
#include <QDialog>
#include <QHash>
#include <QLabel>
#include <QListView>
#include <QProgressBar>

#include "app/models/sources_model.h"
#include "app/widgets/image_view.h"
#include "catalog/names.h"
#include "container/sift.h"

namespace skivet::app {

/// What sifting found, a row an entry; texts and pictures are made when a row is looked at, however many there are.
class HitModel : public QAbstractListModel {
    Q_OBJECT
public:
    using QAbstractListModel::QAbstractListModel;
    void set(std::shared_ptr<const Container> container, std::shared_ptr<const std::vector<SiftHit>> hits);
    void set_picture(int row, const QImage& picture);
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;

signals:
    /// A row is shown for the first time.
    void picture_wanted(int row) const;

private:
    std::shared_ptr<const Container> container_;
    std::shared_ptr<const std::vector<SiftHit>> hits_;  ///< one an entry of the container, without what is inside
    QHash<int, QImage> pictures_;
    mutable QSet<int> asked_;
};

class SiftWindow : public QDialog {
    Q_OBJECT
public:
    SiftWindow(QWidget* parent, SourcesModel* sources, const std::filesystem::path& file);
    ~SiftWindow() override;
    [[nodiscard]] bool settled() const { return done_ && pending_ == 0; }

private:
    struct Found;
    void start();
    void fill();
    void show_hit(int row);
    void want_picture(int row);

    SourcesModel* sources_;
    std::filesystem::path file_;
    std::shared_ptr<Progress> progress_ = std::make_shared<Progress>();
    std::shared_ptr<const Container> container_;
    std::shared_ptr<const std::vector<SiftHit>> hits_ = std::make_shared<std::vector<SiftHit>>();
    std::size_t textures_ = 0;
    HitModel* rows_;
    QListView* list_;
    SharedView* shared_;
    ImageView* view_;
    QLabel *title_, *facts_, *counted_;
    QProgressBar* bar_;
    QTimer timer_;
    QAction *take_, *stop_;
    bool done_ = false;
    int pending_ = 0;
};

void show_sifting(QWidget* parent, SourcesModel* sources, std::size_t source);
/// Looks through all sources for the names of entries known only by a hash, and offers what it finds.
void show_names(QWidget* parent, SourcesModel* sources);

}  // namespace skivet::app
