#pragma once
#include <QAction>
#include <QDialog>

#include "app/models/session.h"

namespace skivet::app {

/// A field and a list: type a part of a command's name, Enter runs it.
void show_command_finder(QWidget* parent, const QList<QAction*>& actions);
/// What opens pieces, and how the game is started.
void show_settings(QWidget* parent, Session* session);
void show_log(QWidget* parent, Session* session);

}  // namespace skivet::app
