#pragma once
// A second start on the same project hands its files to the window that is there, over a local socket whose name follows from the project's
// folder.
#include <filesystem>
#include <QLocalServer>
#include <vector>

namespace skivet::app {

class OneWindow : public QObject {
    Q_OBJECT
public:
    /// Listens for later starts.
    explicit OneWindow(const std::filesystem::path& project, QObject* parent = nullptr);
    /// True when a window took the files; it answers within two seconds or is taken for gone.
    [[nodiscard]] static bool hand_over(const std::filesystem::path& project, const std::vector<std::filesystem::path>& files);

signals:
    void asked(const std::vector<std::filesystem::path>& files);

private:
    QLocalServer server_;
};

}  // namespace skivet::app
