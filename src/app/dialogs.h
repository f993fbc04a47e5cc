#pragma once
#include <filesystem>
#include <functional>
#include <QAction>
#include <QDialog>

namespace skivet::app {

class Messages;
class ProjectStore;
class SourcesModel;

/// A field and a list: type a part of a command's name, Enter runs it.
void show_command_finder(QWidget* parent, const QList<QAction*>& actions);
enum class SettingsPart { editors, delivery, game };
/// What opens pieces, where deliveries go, and how the game is started.
void show_settings(QWidget* parent, ProjectStore* store, SettingsPart part = SettingsPart::editors);
/// The names of the keys, never their values; a key is added as words, digits or a file.
void show_keys(QWidget* parent, ProjectStore* store);
/// The user's own programs for packers that sheets only name, and whether there is any to be named.
void show_packers(QWidget* parent, ProjectStore* store);
[[nodiscard]] bool wants_packers(const ProjectStore& store);
/// What a source is taken for, with the reasons; another kind can be chosen for it or for all files named alike.
void show_kinds(QWidget* parent, SourcesModel* model, std::size_t source);
/// Asks for a folder; `chosen` gets it.
void choose_folder(QWidget* parent, const QString& title, const std::function<void(const std::filesystem::path&)>& chosen);
void show_log(QWidget* parent, Messages* messages);

}  // namespace skivet::app
