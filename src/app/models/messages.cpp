#include "app/models/messages.h"

#include <fstream>
#include <QCoreApplication>
#include <QDateTime>
#include <QPointer>
#include <QThreadPool>

#include "base/file_write.h"
#include "base/own_folders.h"

namespace skivet::app {

namespace {

constexpr std::uintmax_t longest = 1 << 20;  // bytes

/// One file for the process, one thread that writes it.
struct LogFile {
    std::filesystem::path path;
    QThreadPool writer;
    LogFile() { writer.setMaxThreadCount(1); }
};
LogFile& log_file() {
    static LogFile one;
    return one;
}

void append(const std::filesystem::path& path, const std::string& line) {
    std::error_code code;
    if (std::filesystem::file_size(path, code) > longest && !code) std::filesystem::rename(path, path.string() + ".1", code);
    std::ofstream(path, std::ios::app | std::ios::binary) << line << '\n';
}

}  // namespace

void Messages::keep_in(const std::filesystem::path& file) {
    auto& log = log_file();
    flush();
    log.path = file;
    std::error_code code;
    if (!file.empty()) make_folders(file.parent_path(), code);
}

void Messages::flush() { log_file().writer.waitForDone(); }

void Messages::save(const std::filesystem::path& file, const std::string& text) {
    log_file().writer.start([self = QPointer<Messages>(this), file, text] {
        const auto saved = write_file(file, as_bytes(text));
        if (saved) return;
        QMetaObject::invokeMethod(
            qApp,
            [self, error = saved.error()] {
                if (self) self->complain(error);
            },
            Qt::QueuedConnection);
    });
}

void Messages::say(const QString& line) {
    const auto now = QDateTime::currentDateTime();
    log_.push_back(now.toString(QStringLiteral("HH:mm:ss  ")) + line);
    if (auto& log = log_file(); !log.path.empty())
        log.writer.start(
            [path = log.path, text = (now.toString(Qt::ISODate) + QStringLiteral("  ") + line).toStdString()] { append(path, text); });
    if (log_.size() > 2000) log_.erase(log_.begin(), log_.begin() + 500);
    emit logged(log_.back());
}

void Messages::complain(const Error& error) { complain(QString::fromStdString(error.message()), true); }
void Messages::refuse(const QString& text) { complain(text, false); }

void Messages::complain(const QString& text, bool is_error) {
    say(text);
    complaint_ = text;
    error_ = is_error ? text : QString();
    emit notice(text);
}

}  // namespace skivet::app
