#pragma once
// Sifting a file: what textures and streams are in it, with their pictures; and the names of hashed entries.
#include <QDialog>
#include <QLabel>
#include <QListView>
#include <QProgressBar>
#include <QStandardItemModel>

#include "app/models/session.h"
#include "app/widgets/image_view.h"
#include "catalog/names.h"
#include "container/sift.h"

namespace skivet::app {

class SiftWindow : public QDialog {
    Q_OBJECT
public:
    SiftWindow(QWidget* parent, Session* session, const std::filesystem::path& file);
    ~SiftWindow() override;
    [[nodiscard]] bool settled() const { return done_ && pending_ == 0; }

private:
    struct Found;
    void start();
    void fill();
    void show_hit(int row);
    void want_picture(int row);

    Session* session_;
    std::filesystem::path file_;
    std::shared_ptr<Progress> progress_ = std::make_shared<Progress>();
    std::shared_ptr<const Container> container_;
    std::vector<SiftHit> hits_;             ///< one an entry of the container, without what is inside
    QStandardItemModel* rows_;
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

void show_sifting(QWidget* parent, Session* session, std::size_t source);
/// Looks through all sources for the names of entries known only by a hash, and offers what it finds.
void show_names(QWidget* parent, Session* session);

}  // namespace skivet::app
