#pragma once
#include <QLineEdit>
#include <QListView>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/models/contact_model.h"
#include "app/pages/page.h"
#include "app/widgets/contact_sheet.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class MipStrip;
class PictureRow;

/// The chosen texture, large: channels, mips, faces, facts.
class TextureViewer : public QFrame {
    Q_OBJECT
public:
    TextureViewer(Session* session, QWidget* parent = nullptr);
    void show_item(std::size_t item);
    void clear();
    void set_channels(Channels channels);
    void set_mip(int mip);
    void step_face(int by);
    [[nodiscard]] ImageView* view() const { return view_; }
    [[nodiscard]] QHBoxLayout* buttons() const { return buttons_; }
    [[nodiscard]] PictureRow* set_row() const { return set_row_; }
    [[nodiscard]] PictureRow* alike_row() const { return alike_row_; }
    [[nodiscard]] std::size_t item() const { return item_; }
    /// What belongs to it, once it is known.
    [[nodiscard]] const Relations& relations() const { return relations_; }

    /// Floats brighter or darker by 2^stops.
    void change_exposure(int stops);
    void show_histogram(bool show);

signals:
    /// The texture with its copies is wanted on the bench.
    void copies_wanted();
    /// Another texture was chosen in one of the rows below.
    void chosen(std::size_t item);
    void showing(std::size_t item);

private:
    void update_picture();
    void update_relations();
    void show_facts(const QString& alpha, const QString& mips);
    void read_out(QPoint texel);
    /// What the picture was made from: one surface's bytes, for the readout.
    struct Under {
        Bytes bytes;
        Format format = Format::unknown;
        std::uint32_t width = 0, height = 0;
        Image shown;               ///< paint form, as displayed
        std::size_t normal_x = 0;  ///< the channel of a normal's X
        std::vector<std::array<quint32, 256>> histogram;
    };
    std::shared_ptr<const Under> under_;
    int exposure_ = 0;
    QPointF light_{-0.5, -0.5};
    QPoint pointed_{-1, -1};
    bool lighting_ = false, histogram_ = false;
    QWidget* exposure_row_;
    QLabel* exposure_text_;
    QString alpha_fact_, mips_fact_, use_fact_, damage_fact_;
    Session* session_;
    SharedView* shared_;
    ImageView* view_;
    QList<QAction*> channel_actions_;
    MipStrip* mips_;
    QLabel *mip_text_, *name_, *where_, *facts_, *face_text_;
    QWidget *face_row_, *relation_box_;
    PictureRow *set_row_, *alike_row_;
    QLabel *set_title_, *alike_title_;
    QWidget* copies_button_;
    Relations relations_;
    quint64 relation_request_ = 0;
    QHBoxLayout* buttons_;
    std::shared_ptr<const OpenTexture> texture_;
    std::size_t item_ = 0;
    quint64 request_ = 0;
    Channels channels_ = Channels::alpha_over;
    int mip_ = 0, part_ = 0;
};

/// Every texture of the game as a picture; search, facets, and one texture large.
class CatalogPage : public Page {
    Q_OBJECT
public:
    CatalogPage(Session* session, QWidget* parent = nullptr);
    ~CatalogPage() override;
    void entered() override;
    [[nodiscard]] QLineEdit* search() const { return search_; }
    [[nodiscard]] ContactSheet* sheet() const { return sheet_; }
    [[nodiscard]] ContactModel* model() const { return model_; }
    [[nodiscard]] FacetModel* facets() const { return facets_; }
    [[nodiscard]] QListView* facet_list() const { return facet_list_; }
    [[nodiscard]] TextureViewer* viewer() const { return viewer_; }
    /// Shows what looks like a picture instead of what was searched for.
    void find_by(const QImage& picture, const QString& name);
    void find_by(const std::filesystem::path& file);
    /// Back to the search.
    void leave_hits();

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
    void take(ExportAs as, bool whole_sets = false);
    void step(int by);
    void show_menu(const QPoint& at);
    void show_searches();
    void choose_picture();
    void paste_picture();
    void export_chosen();

    ContactModel* model_;
    FacetModel* facets_;
    QListView* facet_list_;
    QLineEdit* search_;
    QLabel* count_;
    ContactSheet* sheet_;
    QStackedWidget* middle_;
    QLabel* empty_text_;
    QWidget* hits_row_;
    QLabel *hits_picture_, *hits_text_;
    TextureViewer* viewer_;
    QString current_;       ///< address of the texture that is shown, to find it again in another stock
    CatalogAnswer answer_;  ///< the newest
    bool quiet_ = false;    ///< the sheet's current card moves, but what is large stays
    bool hits_ = false;     ///< what is shown was found by a picture
    CancelToken asking_;
    quint64 question_ = 0;
    QThreadPool asker_;  ///< searches of large catalogs
};

}  // namespace skivet::app
