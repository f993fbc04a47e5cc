#pragma once
// The person's settings for the program as a whole. One for the process: every window follows it.
#include <QKeySequence>
#include <QObject>
#include <QThreadPool>

#include "workflow/settings.h"

namespace skivet::app {

class Preferences : public QObject {
    Q_OBJECT
public:
    /// The process's, with the settings of a new installation until `load`.
    [[nodiscard]] static Preferences& the();
    ~Preferences() override;
    /// Reads the file, and keeps every later change in it. What was wrong with it, if anything.
    std::optional<Error> load(const std::filesystem::path& file);
    [[nodiscard]] const Settings& settings() const { return settings_; }
    template <class Change>
    void change(Change change) {
        const auto before = settings_;
        change(settings_);
        if (settings_ == before) return;
        save();
        emit changed();
    }
    /// The key of an action: the person's, or the standard one.
    [[nodiscard]] QKeySequence key(const QString& action, const QKeySequence& standard) const;

signals:
    void changed();

private:
    void save();
    std::filesystem::path file_;  ///< empty: nothing is kept
    Settings settings_;
    QThreadPool writer_;
};

}  // namespace skivet::app
