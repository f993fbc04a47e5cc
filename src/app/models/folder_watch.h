#pragma once
#include <map>
#include <QObject>
#include <QSocketNotifier>
#include <QTimer>
#include <set>

namespace skivet::app {

/// Tells that something was written, made, renamed or removed in some folders, their own files but not those further down. One watch a
/// folder, however many files it has: a watch on each file costs the window's thread a moment each, and is lost when a program writes a new
/// file over the old one.
class FolderWatch : public QObject {
    Q_OBJECT
public:
    explicit FolderWatch(QObject* parent = nullptr);
    ~FolderWatch() override;
    FolderWatch(const FolderWatch&) = delete;
    FolderWatch& operator=(const FolderWatch&) = delete;

    /// These and no others. What is not there yet, or what the system has no watch left for, is told of every two seconds instead.
    void set(const std::set<std::string>& folders);

signals:
    void changed();
    /// A folder is watched from now on; what was written there before has told nobody.
    void began();

private:
    void read_events();

    int descriptor_ = -1;
    std::map<std::string, int> watches_;  ///< by folder; -1: the system refused
    QTimer instead_;
};

}  // namespace skivet::app
