#pragma once
// What the program says: the log, and what the person should see now.
#include <filesystem>
#include <QObject>
#include <vector>

#include "base/result.h"

namespace skivet::app {

class Messages : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    /// Into the log alone.
    void say(const QString& line);
    /// Into the footer for some seconds.
    void tell(const QString& text) { complaint_.clear(), error_.clear(), emit notice(text); }
    /// Both: work went wrong.
    void complain(const Error& error);
    /// Both: what was asked for cannot be done, and why. No work went wrong by it.
    void refuse(const QString& text);
    /// Every line goes to the end of this file, too, from now on; beyond a megabyte it begins anew, and the older one stays beside it as
    /// NAME.1. Written beside the window; empty: nowhere.
    static void keep_in(const std::filesystem::path& file);
    /// Writes a text into a file beside the window; what goes wrong is complained of.
    void save(const std::filesystem::path& file, const std::string& text);
    /// Waits until what was said is in the file.
    static void flush();
    /// What was complained of or refused last; empty once another word was said.
    [[nodiscard]] const QString& complaint() const { return complaint_; }
    /// The same of errors alone; empty once something was refused, too.
    [[nodiscard]] const QString& error() const { return error_; }
    /// The last 2,000 lines or so, the time in front.
    [[nodiscard]] const std::vector<QString>& log() const { return log_; }

signals:
    void logged(const QString& line);
    void notice(const QString& text);

private:
    void complain(const QString& text, bool is_error);

    std::vector<QString> log_;
    QString complaint_, error_;
};

}  // namespace skivet::app
