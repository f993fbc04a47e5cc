#pragma once
#include <filesystem>
#include <functional>
#include <QAction>
#include <QDialog>
#include <vector>

namespace skivet::app {

class Jobs;
class Messages;
class ProjectStore;
class SourcesModel;

/// A field and a list: type a part of a command's name, Enter runs it.
void show_command_finder(QWidget* parent, const QList<QAction*>& actions);
enum class SettingsPart { look, keys, pictures, editors, delivery, game };
/// What opens pieces, where deliveries go, and how the game is started; and what is the program's. `store` null: the program's alone.
void show_settings(QWidget* parent, Jobs* jobs, ProjectStore* store, SettingsPart part);
/// The names of the keys, never their values; a key is added as words, digits or a file.
void show_keys(QWidget* parent, ProjectStore* store);
/// The user's own programs for packers that sheets only name, and whether there is any to be named.
void show_packers(QWidget* parent, ProjectStore* store);
[[nodiscard]] bool wants_packers(const ProjectStore& store);
/// What a source is taken for, with the reasons; another kind can be chosen for it or for all files named alike.
void show_kinds(QWidget* parent, SourcesModel* model, std::size_t source);
/// Asks for a folder; `chosen` gets it. It begins where the last folder for `what` was.
void choose_folder(QWidget* parent, const char* what, const QString& title,
                   const std::function<void(const std::filesystem::path&)>& chosen);
/// The files and folders of this computer among what was dropped or pasted.
[[nodiscard]] std::vector<std::filesystem::path> local_files(const class QMimeData& data);
/// Asks for a line of text; `then` gets it without blanks around it. `name`: the dialog's object name.
void ask_for_text(QWidget* parent, const QString& title, const QString& words, const QString& proposed, const QString& yes,
                  const char* name, const std::function<void(const QString&)>& then);
void show_log(QWidget* parent, Messages* messages);

}  // namespace skivet::app
