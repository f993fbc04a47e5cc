#pragma once
// How things were left: sizes of windows, columns, the last folders, where one was in each project. Of use on this computer alone, so it is
// kept as state, not as a setting. One for the process.
#include <filesystem>
#include <QJsonObject>
#include <QThreadPool>

class QFileDialog;
class QSplitter;
class QWidget;

namespace skivet::app {

class LeftState {
public:
    [[nodiscard]] static LeftState& the();
    ~LeftState();
    /// Reads the file, and keeps every later change in it. One that cannot be read counts as empty: nothing rests on it.
    void load(const std::filesystem::path& file);
    [[nodiscard]] QJsonValue value(const QString& group, const QString& name) const;
    /// Groups are bounded: of more than 60 names those set longest ago are forgotten.
    void set(const QString& group, const QString& name, const QJsonValue& value);
    /// Waits until what was set is in the file.
    void flush();

private:
    void save();
    std::filesystem::path file_;  ///< empty: nothing is kept
    QJsonObject all_;             ///< by group, then by name: {"value", "order"}
    double order_ = 0;
    QThreadPool writer_;
};

/// Gives a window the size it was left with, where it fits on the screen, and keeps it when the window closes.
void keep_size(QWidget* window, const char* name);
/// The same for how a splitter divides its room.
void keep_columns(QSplitter* columns, const char* name);
/// A dialog that begins where one was left before. `name`: what it asks for.
void keep_folder(QFileDialog* dialog, const char* name);

}  // namespace skivet::app
