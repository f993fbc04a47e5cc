#include "app/models/preferences.h"

#include <QCoreApplication>

namespace skivet::app {

Preferences& Preferences::the() {
    static Preferences one;
    return one;
}

Preferences::~Preferences() { writer_.waitForDone(); }

std::optional<Error> Preferences::load(const std::filesystem::path& file) {
    writer_.setMaxThreadCount(1);
    std::optional<Error> aside;
    file_ = file;
    settings_ = load_settings(file, &aside);
    emit changed();
    return aside;
}

void Preferences::save() {
    if (file_.empty()) return;
    // Nothing rests on it: what cannot be kept is as it was at the next start.
    writer_.start([settings = settings_, file = file_] { (void)save_settings(settings, file); });
}

QKeySequence Preferences::key(const QString& action, const QKeySequence& standard) const {
    const auto own = settings_.keys.find(action.toStdString());
    return own == settings_.keys.end() ? standard
                                       : QKeySequence::fromString(QString::fromStdString(own->second), QKeySequence::PortableText);
}

}  // namespace skivet::app
