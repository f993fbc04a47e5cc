#include "app/desktop_notice.h"

#include <QDBusConnection>
#include <QDBusMessage>
#include <QDBusPendingCall>
#include <QFile>
#include <QVariantMap>

namespace skivet::app {

bool has_session_bus() {
    return qEnvironmentVariableIsSet("DBUS_SESSION_BUS_ADDRESS") ||
           (qEnvironmentVariableIsSet("XDG_RUNTIME_DIR") &&
            QFile::exists(qEnvironmentVariable("XDG_RUNTIME_DIR") + QStringLiteral("/bus")));
}

void show_on_desktop(const QString& title, const QString& text) {
    if (!has_session_bus()) return;
    auto bus = QDBusConnection::sessionBus();
    if (!bus.isConnected()) return;
    auto call =
        QDBusMessage::createMethodCall(QStringLiteral("org.freedesktop.Notifications"), QStringLiteral("/org/freedesktop/Notifications"),
                                       QStringLiteral("org.freedesktop.Notifications"), QStringLiteral("Notify"));
    // Its body may be read as markup.
    call << QStringLiteral("Skivet") << uint(0) << QStringLiteral("skivet") << title << text.toHtmlEscaped() << QStringList()
         << QVariantMap{{QStringLiteral("desktop-entry"), QStringLiteral("skivet")}} << -1;
    bus.asyncCall(call);
}

}  // namespace skivet::app
