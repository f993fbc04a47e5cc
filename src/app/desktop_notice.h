#pragma once
#include <QString>

namespace skivet::app {

/// Says something on the desktop, by the Desktop Notifications Specification 1.2 (org.freedesktop.Notifications); nothing where there is no
/// bus or nobody who shows it. Does not wait.
void show_on_desktop(const QString& title, const QString& text);

/// Whether there is a session bus. Asking where there is none would start one.
[[nodiscard]] bool has_session_bus();

}  // namespace skivet::app
