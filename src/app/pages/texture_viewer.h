#pragma once
#include <QFrame>
#include <QHBoxLayout>
#include <QLabel>

#include "app/models/catalog_model.h"
#include "app/models/pictures.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/image_view.h"

namespace skivet::app {

class ChannelRow;
class MipStrip;
class PictureRow;

/// The chosen texture, large: channels, mips, faces, facts.
class TextureViewer : public QFrame {
    Q_OBJECT
public:
    explicit TextureViewer(CatalogModel* model, QWidget* parent = nullptr);
    void show_item(std::size_t item);
    void clear();
    void set_channels(Channels channels);
    void set_mip(int mip);
    void step_face(int by);
    [[nodiscard]] ImageView* view() const { return view_; }
    [[nodiscard]] FlowRow* buttons() const { return buttons_; }
    /// Beside what is said of the mip that is shown: for other ways of looking at it.
    [[nodiscard]] QHBoxLayout* looks() const { return looks_; }
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
        Image shown;  ///< paint form, as displayed
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
    CatalogModel* model_;
    SharedView* shared_;
    ImageView* view_;
    ChannelRow* channel_row_;
    MipStrip* mips_;
    QLabel *mip_text_, *name_, *where_, *facts_, *face_text_;
    QWidget *face_row_, *relation_box_;
    PictureRow *set_row_, *alike_row_;
    QLabel *set_title_, *alike_title_;
    QWidget* copies_button_;
    Relations relations_;
    quint64 relation_request_ = 0;
    FlowRow* buttons_;
    QHBoxLayout* looks_;
    std::shared_ptr<const OpenTexture> texture_;
    std::size_t item_ = 0;
    quint64 request_ = 0;
    Channels channels_ = Channels::alpha_over;
    int mip_ = 0, part_ = 0;
};

}  // namespace skivet::app
