#include "app/theme/system_look.h"

#include <QDBusConnection>
#include <QDBusMessage>
#include <QDBusPendingCallWatcher>
#include <QDBusPendingReply>
#include <QDBusVariant>

#include "app/desktop_notice.h"

namespace skivet::app {
namespace {

constexpr const char* service = "org.freedesktop.portal.Desktop";
constexpr const char* path = "/org/freedesktop/portal/desktop";
constexpr const char* interface = "org.freedesktop.portal.Settings";
constexpr const char* appearance = "org.freedesktop.appearance";
constexpr const char* scheme_key = "color-scheme";

/// Variants in variants, as older portals answer.
QVariant plain(QVariant value) {
    while (value.canConvert<QDBusVariant>()) value = value.value<QDBusVariant>().variant();
    return value;
}

}  // namespace

double text_scale_of(const QVariant& answer) {
    bool number = false;
    const auto scale = plain(answer).toDouble(&number);
    return number && scale >= 0.5 && scale <= 3 ? scale : 1;
}

double system_text_scale() {
    if (!has_session_bus()) return 1;
    // A connection of its own: the application that will have the usual one is not there yet.
    const auto name = QStringLiteral("skivet-text-scale");
    double out = 1;
    {
        auto bus = QDBusConnection::connectToBus(QDBusConnection::SessionBus, name);
        auto ask =
            QDBusMessage::createMethodCall(QLatin1String(service), QLatin1String(path), QLatin1String(interface), QStringLiteral("Read"));
        ask << QStringLiteral("org.gnome.desktop.interface") << QStringLiteral("text-scaling-factor");
        const auto answer = bus.isConnected() ? bus.call(ask, QDBus::Block, 200) : QDBusMessage();
        if (answer.type() == QDBusMessage::ReplyMessage && !answer.arguments().isEmpty()) out = text_scale_of(answer.arguments().front());
    }
    QDBusConnection::disconnectFromBus(name);
    return out;
}

SystemLook::SystemLook(const QPalette& given, QObject* parent) : QObject(parent), dark_(given.color(QPalette::Window).lightness() < 128) {
    if (!has_session_bus()) return;
    auto bus = QDBusConnection::sessionBus();
    if (!bus.isConnected()) return;
    bus.connect(QLatin1String(service), QLatin1String(path), QLatin1String(interface), QStringLiteral("SettingChanged"), this,
                SLOT(setting_changed(QString, QString, QDBusVariant)));
    auto ask =
        QDBusMessage::createMethodCall(QLatin1String(service), QLatin1String(path), QLatin1String(interface), QStringLiteral("Read"));
    ask << QLatin1String(appearance) << QLatin1String(scheme_key);
    auto* answer = new QDBusPendingCallWatcher(bus.asyncCall(ask), this);
    connect(answer, &QDBusPendingCallWatcher::finished, this, [this, answer] {
        answer->deleteLater();
        const QDBusPendingReply<QVariant> reply = *answer;
        if (!reply.isError()) take(plain(reply.value()));
    });
}

void SystemLook::take(const QVariant& scheme) {
    bool number = false;
    const auto wish = scheme.toUInt(&number);
    const bool dark = number && wish == 1 ? true : number && wish == 2 ? false : dark_;
    if (dark == dark_) return;
    dark_ = dark;
    emit changed();
}

void SystemLook::setting_changed(const QString& space, const QString& key, const QDBusVariant& value) {
    if (space == QLatin1String(appearance) && key == QLatin1String(scheme_key)) take(plain(value.variant()));
}

}  // namespace skivet::app
