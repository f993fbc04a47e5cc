#pragma once
// The raw lens: bare bytes as pixels. What is found can be kept as a texture sheet.
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QSpinBox>
#include <QVBoxLayout>

#include "app/models/sources_model.h"
#include "app/widgets/image_view.h"
#include "app/workshop/place_strip.h"
#include "sheet/raw_lens.h"

namespace skivet::app {

class RawLens : public QDialog {
    Q_OBJECT
public:
    /// `name` is the file's name, by which a sheet would recognize it.
    RawLens(QWidget* parent, SourcesModel* sources, FileView data, const QString& name);
    [[nodiscard]] const Lens& lens() const { return lens_; }
    void set_lens(const Lens& lens);
    /// True when the picture and the suggestions are those of the lens.
    [[nodiscard]] bool settled() const { return !painting_ && !asked_ && !suggesting_; }

private:
    void add_keys();
    [[nodiscard]] QWidget* make_settings();
    void read_settings();
    void show_settings();
    void look();
    void suggest();
    void show_guesses();
    void step_width(int blocks);
    void step_offset(qint64 bytes);
    void step_format(int by);
    void keep();

    SourcesModel* sources_;
    FileView data_;
    QString name_;
    Lens lens_;
    SharedView* shared_;
    ImageView* view_;
    PlaceStrip* place_;
    QComboBox *format_, *order_, *block_height_, *palette_;
    QSpinBox *width_, *height_, *pitch_;
    QLineEdit *offset_, *palette_at_;
    QWidget *block_height_row_, *palette_row_;
    QLabel *seen_, *message_;
    QVBoxLayout* guesses_;
    std::vector<WidthGuess> widths_;
    std::vector<FormatGuess> formats_;
    QTimer settle_;
    bool filling_ = false, painting_ = false, asked_ = false, suggesting_ = false;
};

/// Opens the lens on a source's file, or on one of its entries.
void show_raw_lens(QWidget* parent, SourcesModel* sources, std::size_t source, std::optional<std::size_t> entry);

}  // namespace skivet::app
