#pragma once
// What the program says: the log, and what the person should see now.
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
    void tell(const QString& text) { emit notice(text); }
    /// Both.
    void complain(const Error& error);
    /// The last 2,000 lines or so, the time in front.
    [[nodiscard]] const std::vector<QString>& log() const { return log_; }

signals:
    void logged(const QString& line);
    void notice(const QString& text);

private:
    std::vector<QString> log_;
};

}  // namespace skivet::app
