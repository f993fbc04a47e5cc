#pragma once
#include <QLineEdit>
#include <QListView>
#include <QMimeData>
#include <QPointer>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/models/contact_model.h"
#include "app/pages/page.h"
#include "app/pages/texture_viewer.h"
#include "app/widgets/contact_sheet.h"

namespace skivet::app {

class FrameModel;
class FrameWindow;
class TryOnModel;
class TryOnWindow;

/// Every texture of the game as a picture; search, facets, and one texture large.
class CatalogPage : public Page {
    Q_OBJECT
public:
    /// `try_on`: makes those that show a texture on its object; null: none.
    /// `frame`: records of frames; null: none.
    explicit CatalogPage(CatalogModel* model, TryOnModel* try_on = nullptr, FrameModel* frame = nullptr, QWidget* parent = nullptr);
    void entered() override;
    [[nodiscard]] QJsonObject view() const override;
    void restore(const QJsonObject& view) override;
    [[nodiscard]] QLineEdit* search() const { return search_; }
    [[nodiscard]] ContactSheet* contact_sheet() const { return contact_sheet_; }
    [[nodiscard]] ContactModel* model() const { return cards_; }
    [[nodiscard]] FacetModel* facets() const { return facets_; }
    [[nodiscard]] QListView* facet_list() const { return facet_list_; }
    [[nodiscard]] TextureViewer* viewer() const { return viewer_; }
    /// Shows what looks like a picture instead of what was searched for.
    void find_by(const QImage& picture, const QString& name);
    void find_by(const std::filesystem::path& file);
    /// Back to the search.
    void leave_hits();
    /// How files leave the window by the mouse; a drag of the desktop's own unless a test listens.
    std::function<void(QMimeData* files, const QPixmap& picture)> begin_drag;

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void ask();
    void show_answer(const CatalogAnswer& answer, std::vector<Card> cards);
    void show_hits(Result<std::vector<PictureHit>> hits, const QImage& picture, const QString& name);
    void show_counts();
    void keep_current(const std::function<void()>& change);
    [[nodiscard]] std::vector<std::size_t> chosen(bool whole_sets) const;
    void take(const TakeAs& as, bool whole_sets = false);
    void step(int by);
    void show_searches();
    void choose_picture();
    void paste_picture();
    void export_chosen();
    void drag_chosen();
    void copy_picture();
    void show_on_object();
    void show_islands(bool show);
    void show_frame();
    /// Goes to a texture, whatever was searched for.
    void show_texture(std::size_t item);
    /// Asks for a path inside the archive, beginning with `proposed`; the name of the dialog is for tests.
    void ask_for_variant();
    void ask_for_name();

    CatalogModel* model_;
    TryOnModel* try_on_;
    QPointer<TryOnWindow> on_object_;
    TryOnModel* islands_of_ = nullptr;  ///< of the texture that is shown large, once somebody wants to see them
    FrameModel* frame_;
    QPointer<FrameWindow> frame_window_;
    ContactModel* cards_;
    FacetModel* facets_;
    QListView* facet_list_;
    QLineEdit* search_;
    QLabel* count_;
    ContactSheet* contact_sheet_;
    QStackedWidget* middle_;
    QLabel* empty_text_;
    QWidget* hits_row_;
    QLabel *hits_picture_, *hits_text_;
    TextureViewer* viewer_;
    QString wished_;        ///< address of the one to go to as soon as it is there
    QString current_;       ///< address of the texture that is shown, to find it again in another snapshot
    CatalogAnswer answer_;  ///< the newest
    bool quiet_ = false;    ///< the contact sheet's current card moves, but what is large stays
    bool hits_ = false;     ///< what is shown was found by a picture
    CancelToken asking_;
    quint64 question_ = 0;
};

}  // namespace skivet::app
