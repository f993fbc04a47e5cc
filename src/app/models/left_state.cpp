#include "app/models/left_state.h"

#include <QEvent>
#include <QFile>
#include <QFileDialog>
#include <QJsonArray>
#include <QJsonDocument>
#include <QScreen>
#include <QSplitter>
#include <QWidget>

#include "base/file_write.h"
#include "base/own_folders.h"

namespace skivet::app {
namespace {

constexpr qsizetype most_names = 60;
constexpr qint64 most_bytes = 4 << 20;

/// Keeps a window's size when it is hidden.
class SizeKeeper : public QObject {
public:
    SizeKeeper(QWidget* window, const char* name) : QObject(window), window_(window), name_(QLatin1String(name)) {
        window->installEventFilter(this);
    }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (watched == window_ && event->type() == QEvent::Hide && !window_->isMaximized())
            LeftState::the().set(QStringLiteral("sizes"), name_, QJsonArray{window_->width(), window_->height()});
        return QObject::eventFilter(watched, event);
    }

private:
    QWidget* window_;
    QString name_;
};

}  // namespace

LeftState& LeftState::the() {
    static LeftState one;
    return one;
}

LeftState::~LeftState() { flush(); }

void LeftState::load(const std::filesystem::path& file) {
    flush();
    writer_.setMaxThreadCount(1);
    file_ = file;
    all_ = {};
    order_ = 0;
    QFile in(QString::fromStdString(file.string()));
    if (file.empty() || !in.open(QIODevice::ReadOnly) || in.size() > most_bytes) return;
    all_ = QJsonDocument::fromJson(in.readAll()).object();
    for (const auto& group : std::as_const(all_))
        for (const auto& one : group.toObject()) order_ = std::max(order_, one.toObject().value(QStringLiteral("order")).toDouble());
}

QJsonValue LeftState::value(const QString& group, const QString& name) const {
    return all_.value(group).toObject().value(name).toObject().value(QStringLiteral("value"));
}

void LeftState::set(const QString& group, const QString& name, const QJsonValue& value) {
    if (file_.empty()) return;
    auto names = all_.value(group).toObject();
    if (names.value(name).toObject().value(QStringLiteral("value")) == value) return;
    names.insert(name, QJsonObject{{QStringLiteral("value"), value}, {QStringLiteral("order"), ++order_}});
    while (names.size() > most_names) {
        auto oldest = names.begin();
        const auto order_of = [](const QJsonObject::iterator& at) {
            return at.value().toObject().value(QStringLiteral("order")).toDouble();
        };
        for (auto at = names.begin(); at != names.end(); ++at)
            if (order_of(at) < order_of(oldest)) oldest = at;
        names.erase(oldest);
    }
    all_.insert(group, names);
    save();
}

void LeftState::flush() { writer_.waitForDone(); }

void LeftState::save() {
    if (file_.empty()) return;
    writer_.start([text = QJsonDocument(all_).toJson(QJsonDocument::Compact), file = file_] {
        std::error_code code;
        make_folders(file.parent_path(), code);
        (void)write_file(file, as_bytes(text.toStdString()));
    });
}

void keep_size(QWidget* window, const char* name) {
    const auto size = LeftState::the().value(QStringLiteral("sizes"), QLatin1String(name)).toArray();
    const auto wanted = size.size() == 2 ? QSize(size[0].toInt(), size[1].toInt()) : window->size();
    // No larger than what the screen has free, the first time as well.
    window->resize(wanted.boundedTo(window->screen()->availableGeometry().size()).expandedTo(window->minimumSizeHint()));
    new SizeKeeper(window, name);
}

void keep_columns(QSplitter* columns, const char* name) {
    const auto kept = LeftState::the().value(QStringLiteral("columns"), QLatin1String(name)).toArray();
    if (kept.size() == columns->count()) {
        QList<int> sizes;
        for (const auto& size : kept) sizes << size.toInt();
        columns->setSizes(sizes);
    }
    QObject::connect(columns, &QSplitter::splitterMoved, columns, [columns, key = QString::fromLatin1(name)] {
        QJsonArray sizes;
        for (const int size : columns->sizes()) sizes << size;
        LeftState::the().set(QStringLiteral("columns"), key, sizes);
    });
}

void keep_folder(QFileDialog* dialog, const char* name) {
    const auto key = QString::fromLatin1(name);
    if (const auto folder = LeftState::the().value(QStringLiteral("folders"), key).toString(); !folder.isEmpty() && QFile::exists(folder))
        dialog->setDirectory(folder);
    QObject::connect(dialog, &QFileDialog::accepted, dialog,
                     [dialog, key] { LeftState::the().set(QStringLiteral("folders"), key, dialog->directory().absolutePath()); });
}

}  // namespace skivet::app
