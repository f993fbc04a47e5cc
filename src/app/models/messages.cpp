#include "app/models/messages.h"

#include <QDateTime>

namespace skivet::app {

void Messages::say(const QString& line) {
    log_.push_back(QDateTime::currentDateTime().toString(QStringLiteral("HH:mm:ss  ")) + line);
    if (log_.size() > 2000) log_.erase(log_.begin(), log_.begin() + 500);
    emit logged(log_.back());
}

void Messages::complain(const Error& error) {
    const auto line = QString::fromStdString(error.message());
    say(line);
    emit notice(line);
}

}  // namespace skivet::app
