#pragma once
#include <QAction>
#include <QPushButton>

namespace skivet::app {

/// A button that shows its key on the right. Primary ones are filled with the accent; there is one on a page.
class Button : public QPushButton {
    Q_OBJECT
public:
    enum class Look { plain, primary, toggle, link };
    /// Follows the action: text, key, enabled, checked, tool tip.
    Button(QAction* action, Look look, QWidget* parent = nullptr);
    Button(const QString& text, Look look, QWidget* parent = nullptr);
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSizeHint() const override { return sizeHint(); }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void follow();
    QAction* action_ = nullptr;
    QString key_;
    Look look_;
};

}  // namespace skivet::app
