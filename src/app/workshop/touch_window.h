#pragma once
#include <QComboBox>
#include <QDialog>
#include <QListWidget>
#include <QTimer>

#include "app/models/bench_model.h"
#include "app/widgets/image_view.h"
#include "bench/touching.h"

namespace skivet::app {

/// The touch-ups of a piece, in order, with what they make of its picture; or new ones for several pieces at once.
class TouchWindow : public QDialog {
    Q_OBJECT
public:
    /// `pieces`: at least one; the first one's picture is shown.
    TouchWindow(QWidget* parent, BenchModel* model, std::vector<PieceId> pieces);
    ~TouchWindow() override;
    [[nodiscard]] ImageView* after() const { return after_; }
    [[nodiscard]] std::vector<std::string> texts() const;

private:
    void add(const TouchRow& row);
    void move(int by);
    void remove();
    void fill_lists(class QMenu* menu);
    void use_list(const std::string& name);
    void fill_list(int current);
    /// What is typed counts, also when no key ended it.
    void take_typed();
    void show_controls();
    void add_param(class QFormLayout* form, std::size_t i);
    void add_mask(class QFormLayout* form);
    void changed();
    void make_preview();

    BenchModel* model_;
    std::vector<PieceId> pieces_;
    std::vector<TouchUp> touches_;
    TouchLists lists_{TouchLists::standard_folder()};
    QListWidget* list_;
    QVBoxLayout* controls_;
    QLabel* wrong_;
    ImageView *before_, *after_;
    QAction *up_, *down_, *remove_, *keep_;
    QTimer settle_;       ///< a slider that is dragged asks many times
    CancelToken cancel_;  ///< of the preview that is being made
    quint64 asked_ = 0;
};

}  // namespace skivet::app
