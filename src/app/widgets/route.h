#pragma once
#include <QWidget>

#include "app/widgets/accessible.h"

namespace skivet::app {

/// The five pages as stations on a line, each with a live count: navigation and state of the work in one.
class Route : public QWidget, public WithParts {
    Q_OBJECT
public:
    explicit Route(const QStringList& stations, QWidget* parent = nullptr);
    void set_current(int station);
    void set_count(int station, const QString& count);
    void set_warning(int station, bool warning);
    [[nodiscard]] QSize sizeHint() const override { return {740, 66}; }
    [[nodiscard]] QSize minimumSizeHint() const override { return {520, 66}; }

    [[nodiscard]] int part_count() const override { return int(stations_.size()); }
    [[nodiscard]] QString part_name(int part) const override;
    [[nodiscard]] QRect part_place(int part) const override;
    [[nodiscard]] int current_part() const override { return current_; }
    void choose_part(int part) override { emit chosen(part); }
    [[nodiscard]] bool parts_are_pages() const override { return true; }

signals:
    void chosen(int station);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] double x_of(int station) const;
    struct Station {
        QString name, count;
        bool warning = false;
    };
    std::vector<Station> stations_;
    int current_ = 0;
};

}  // namespace skivet::app
