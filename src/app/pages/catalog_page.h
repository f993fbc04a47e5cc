#pragma once
#include <QCheckBox>
#include <QLineEdit>
#include <QListView>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/models/entry_table.h"
#include "app/pages/page.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class MipStrip;

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

    /// Floats brighter or darker by 2^stops.
    void change_exposure(int stops);
    void show_histogram(bool show);

private:
    void update_picture();
    void show_facts(const QString& alpha, const QString& mips);
    void read_out(QPoint texel);
    /// What the picture was made from: one surface's bytes, for the readout.
    struct Under {
        Bytes bytes;
        Format format = Format::unknown;
        std::uint32_t width = 0, height = 0;
        Image shown;   ///< paint form, as displayed
        std::size_t normal_x = 0;   ///< the channel of a normal's X
        std::vector<std::array<quint32, 256>> histogram;
    };
    std::shared_ptr<const Under> under_;
    int exposure_ = 0;
    QPointF light_{-0.5, -0.5};
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
    QWidget* face_row_;
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
    void entered() override;
    [[nodiscard]] QLineEdit* search() const { return search_; }
    [[nodiscard]] QListView* sheet() const { return sheet_; }
    [[nodiscard]] TextureViewer* viewer() const { return viewer_; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void refresh();
    void rebuild_facets();
    void apply_facets();
    void take(ExportAs as);
    void show_counts();

    CatalogModel* model_;
    QLineEdit* search_;
    QLabel* count_;
    QListView* sheet_;
    QStackedWidget* middle_;
    QLabel* empty_text_;
    QVBoxLayout* facets_;
    QList<QCheckBox*> folder_boxes_, format_boxes_, source_boxes_;
    TextureViewer* viewer_;
};

}  // namespace skivet::app
