#pragma once
#include <QObject>
#include <QPalette>
#include <QVariant>

class QDBusVariant;

namespace skivet::app {

/// Whether the desktop wants dark windows: as its settings say by the desktop portal (org.freedesktop.appearance, color-scheme), where one
/// answers; otherwise as the palette it gave us was. Nothing waits for the answer.
/// How much larger than usual the desktop wants texts (org.gnome.desktop.interface, text-scaling-factor, by the Settings portal); 1 where
/// nobody says. Waits a fifth of a second at most: asked once, before there is a window.
[[nodiscard]] double system_text_scale();
/// What the portal's answer means; 1 for what makes no sense.
[[nodiscard]] double text_scale_of(const QVariant& answer);

class SystemLook : public QObject {
    Q_OBJECT
public:
    SystemLook(const QPalette& given, QObject* parent);
    [[nodiscard]] bool is_dark() const { return dark_; }
    /// What the portal says of color-scheme: 1 is dark, 2 is light, 0 no wish.
    void take(const QVariant& scheme);

signals:
    void changed();

private slots:
    void setting_changed(const QString& space, const QString& key, const QDBusVariant& value);

private:
    bool dark_;
};

}  // namespace skivet::app
