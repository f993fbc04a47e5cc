#pragma once
#include <QWidget>

namespace skivet::app {

/// The five pages as stations on a line, each with a live count: navigation and state of the work in one.
class Route : public QWidget {
    Q_OBJECT
public:
    explicit Route(const QStringList& stations, QWidget* parent = nullptr);
    void set_current(int station);
    void set_count(int station, const QString& count);
    void set_warning(int station, bool warning);
    [[nodiscard]] QSize sizeHint() const override { return {740, 66}; }
    [[nodiscard]] QSize minimumSizeHint() const override { return {520, 66}; }

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
