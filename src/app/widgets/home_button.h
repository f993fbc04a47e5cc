#pragma once
#include <QAbstractButton>

namespace skivet::app {

/// The upper left of the window: our mark, the project's name, and the way to the others.
class HomeButton : public QAbstractButton {
    Q_OBJECT
public:
    explicit HomeButton(QWidget* parent = nullptr);
    /// `under`: said below the name.
    void set_project(const QString& name, const QString& under);
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSizeHint() const override { return {110, 52}; }

protected:
    void paintEvent(QPaintEvent*) override;
    bool event(QEvent* event) override;

private:
    QString under_;
};

}  // namespace skivet::app
