#include "app/dialogs.h"

#include "app/models/sources_model.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QInputDialog>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPainter>
#include <QPlainTextEdit>
#include <QPointer>
#include <QStyledItemDelegate>
#include <QUrl>
#include <QVBoxLayout>

#include "app/language.h"
#include "app/models/left_state.h"
#include "app/models/preferences.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/fuzzy.h"
#include "base/file_write.h"

namespace skivet::app {
namespace {

constexpr std::size_t most_recent = 8;

/// A command, where it belongs, and its key at the right.
class CommandRows : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    enum Role { Place = Qt::UserRole + 1, Key };
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {200, 30}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto& c = colors();
        const bool on = option.state & QStyle::State_Selected;
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        const auto box = QRectF(option.rect).adjusted(1, 1, -1, -1);
        if (on) {
            p->setPen(Qt::NoPen);
            p->setBrush(c.accent);
            p->drawRoundedRect(box, 3, 3);
        }
        const auto text = box.adjusted(9, 0, -9, 0);
        p->setFont(number_font(11));
        p->setPen(on ? c.on_accent : c.soft);
        const auto key = index.data(Key).toString();
        p->drawText(text, int(Qt::AlignVCenter | Qt::AlignRight), key);
        const int taken = key.isEmpty() ? 0 : p->fontMetrics().horizontalAdvance(key) + 14;
        p->setFont(text_font(13));
        p->setPen(on ? c.on_accent : c.ink);
        const auto name = p->fontMetrics().elidedText(index.data().toString(), Qt::ElideRight, int(text.width()) - taken);
        p->drawText(text, int(Qt::AlignVCenter | Qt::AlignLeft), name);
        const int used = p->fontMetrics().horizontalAdvance(name) + 12;
        p->setFont(text_font(12));
        p->setPen(on ? c.on_accent : c.soft);
        p->drawText(
            text.adjusted(used, 0, -taken, 0), int(Qt::AlignVCenter | Qt::AlignLeft),
            p->fontMetrics().elidedText(index.data(Place).toString(), Qt::ElideRight, std::max(0, int(text.width()) - taken - used)));
        p->restore();
    }
};

class Finder : public QDialog {
public:
    Finder(QWidget* parent, const QList<QAction*>& actions) : QDialog(parent), actions_(actions) {
        setAttribute(Qt::WA_DeleteOnClose);
        setObjectName(QStringLiteral("finder"));
        setWindowTitle(tr("Find a command"));
        resize(560, 420);
        auto* box = new QVBoxLayout(this);
        field_ = new QLineEdit;
        field_->setPlaceholderText(tr("What do you want to do?"));
        field_->setAccessibleName(tr("Command"));
        list_ = new QListWidget;
        list_->setAccessibleName(tr("Commands"));
        list_->setItemDelegate(new CommandRows(list_));
        box->addWidget(field_);
        box->addWidget(list_);
        connect(field_, &QLineEdit::textChanged, this, &Finder::fill);
        connect(list_, &QListWidget::itemActivated, this, &Finder::run);
        field_->installEventFilter(this);
        fill();
    }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() == QEvent::KeyPress) {
            const auto key = static_cast<QKeyEvent*>(event)->key();
            if (key == Qt::Key_Down || key == Qt::Key_Up) {
                list_->setCurrentRow(std::clamp(list_->currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, std::max(0, list_->count() - 1)));
                return true;
            }
            if (key == Qt::Key_Return || key == Qt::Key_Enter) {
                run();
                return true;
            }
        }
        return QDialog::eventFilter(watched, event);
    }

private:
    void fill() {
        struct Hit {
            QAction* action;
            int score;
        };
        std::vector<Hit> hits;
        const auto& recent = Preferences::the().settings().recent_commands;
        for (auto* action : actions_) {
            if (action->text().isEmpty() || !action->isEnabled() || !action->isVisible()) continue;
            // What it does counts, too, but less than its name.
            auto score = fuzzy_score(action->text(), field_->text());
            if (const auto tip = fuzzy_score(action->toolTip(), field_->text()); tip && *tip / 3 > score.value_or(0)) score = *tip / 3;
            if (!score) continue;
            const auto used = std::find(recent.begin(), recent.end(), action->objectName().toStdString());
            if (used != recent.end()) *score += 2 * int(recent.end() - used);
            hits.push_back({action, *score});
        }
        std::stable_sort(hits.begin(), hits.end(), [](const Hit& a, const Hit& b) { return a.score > b.score; });
        list_->clear();
        for (const auto& hit : hits) {
            auto* item = new QListWidgetItem(hit.action->text(), list_);
            item->setData(Qt::UserRole, QVariant::fromValue<QObject*>(hit.action));
            item->setData(CommandRows::Place, hit.action->toolTip() == hit.action->text() ? QString() : hit.action->toolTip());
            item->setData(CommandRows::Key, key_text(hit.action->shortcut()));
            item->setData(Qt::AccessibleTextRole, hit.action->text() + QStringLiteral(", ") + key_text(hit.action->shortcut()));
        }
        list_->setCurrentRow(0);
    }
    void run() {
        const auto* item = list_->currentItem();
        if (!item) return;
        const QPointer<QAction> action = qobject_cast<QAction*>(item->data(Qt::UserRole).value<QObject*>());
        close();
        if (!action) return;
        if (const auto id = action->objectName().toStdString(); !id.empty())
            Preferences::the().change([&](Settings& s) {
                std::erase(s.recent_commands, id);
                s.recent_commands.insert(s.recent_commands.begin(), id);
                if (s.recent_commands.size() > most_recent) s.recent_commands.resize(most_recent);
            });
        action->trigger();
    }
    QList<QAction*> actions_;
    QLineEdit* field_;
    QListWidget* list_;
};

}  // namespace

void show_command_finder(QWidget* parent, const QList<QAction*>& actions) { (new Finder(parent, actions))->open(); }

void show_keys(QWidget* parent, ProjectStore* store) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("keys"));
    dialog->setWindowTitle(QObject::tr("Key ring"));
    dialog->resize(560, 420);
    auto* box = new QVBoxLayout(dialog);
    box->setContentsMargins(20, 16, 20, 16);
    box->addWidget(make_label(
        QObject::tr(
            "Every key is tried on every archive that wants one. Values are kept in the project for your eyes only and are never shown."),
        "soft", true));
    auto* list = new QListWidget;
    list->setAccessibleName(QObject::tr("Keys"));
    const auto fill = [=] {
        list->clear();
        for (const auto& name : store->key_names()) list->addItem(to_text(name));
        if (list->count() == 0) {
            list->addItem(QObject::tr("No key yet"));
            list->item(0)->setFlags(Qt::NoItemFlags);
        }
    };
    fill();
    box->addWidget(list, 1);
    auto* remove = new Button(QObject::tr("Remove"), Button::Look::link);
    auto* remove_row = new QHBoxLayout;
    remove_row->addStretch();
    remove_row->addWidget(remove);
    box->addLayout(remove_row);
    auto* form = new QFormLayout;
    auto* name = new QLineEdit;
    name->setObjectName(QStringLiteral("key_name"));
    name->setPlaceholderText(QObject::tr("as the sheet calls it, or any name"));
    auto* how = new QComboBox;
    how->setObjectName(QStringLiteral("key_how"));
    how->addItems({QObject::tr("Password"), QObject::tr("Hexadecimal digits"), QObject::tr("File")});
    auto* value = new QLineEdit;
    value->setObjectName(QStringLiteral("key_value"));
    value->setEchoMode(QLineEdit::Password);
    form->addRow(QObject::tr("Name"), name);
    form->addRow(QObject::tr("Written as"), how);
    form->addRow(QObject::tr("Value"), value);
    box->addLayout(form);
    const auto end = end_form(box, QObject::tr("Add the key"));
    auto* wrong = end.wrong;
    auto* add = end.button;
    add->setObjectName(QStringLiteral("add_key"));
    QObject::connect(how, &QComboBox::currentIndexChanged, value, [=](int index) {
        value->setEchoMode(index == 2 ? QLineEdit::Normal : QLineEdit::Password);
        value->setPlaceholderText(index == 2 ? QObject::tr("path of the file") : QString());
    });
    QObject::connect(add, &QPushButton::clicked, dialog, [=] {
        static constexpr const char* lead[] = {"text:", "", "@"};
        const auto text = name->text().trimmed().toStdString() + '=' + lead[how->currentIndex()] + value->text().toStdString();
        if (const auto added = store->add_key(text); !added) {
            wrong->setText(to_text(added.error().message()));
            wrong->show();
            return;
        }
        wrong->hide();
        name->clear();
        value->clear();
        fill();
        name->setFocus();
    });
    QObject::connect(remove, &QPushButton::clicked, dialog, [=] {
        if (!list->currentItem() || !(list->currentItem()->flags() & Qt::ItemIsSelectable)) return;
        store->remove_key(list->currentItem()->text().toStdString());
        fill();
    });
    dialog->open();
    name->setFocus();
}

void show_kinds(QWidget* parent, SourcesModel* model, std::size_t source) {
    const auto snapshot = model->snapshot();
    if (source >= snapshot->facts.size()) return;
    const auto& facts = snapshot->facts[source];
    const auto path = snapshot->sources[source].path;
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("kinds"));
    dialog->setWindowTitle(QObject::tr("What is %1?").arg(to_text(path.filename())));
    dialog->resize(560, 420);
    auto* box = new QVBoxLayout(dialog);
    box->setContentsMargins(20, 16, 20, 16);
    box->addWidget(
        make_label(QObject::tr("The first one that fits is taken. Choose another if you know better; it is remembered in the project."),
                   "soft", true));
    auto* list = new QListWidget;
    list->setObjectName(QStringLiteral("kind_list"));
    list->setAccessibleName(QObject::tr("Kinds of archives"));
    box->addWidget(list, 1);
    list->ensurePolished();  // rows are as high as the style wants them only from then on
    const auto add = [&](const QString& text, const std::string& kind) {
        auto* item = new QListWidgetItem(text, list);
        item->setData(Qt::UserRole, to_text(kind));
        if (kind == facts.chosen) list->setCurrentItem(item);
    };
    add(facts.candidates.empty() ? QObject::tr("As recognized: nothing fits")
                                 : QObject::tr("As recognized: %1").arg(spoken(facts.candidates[0].first)),
        {});
    for (const auto& [kind, reason] : facts.candidates) add(QStringLiteral("%1  —  %2").arg(spoken(kind), spoken(reason)), kind);
    for (const auto& kind : model->context()->containers)
        if (std::none_of(facts.candidates.begin(), facts.candidates.end(), [&](const auto& c) { return c.first == kind->name(); }))
            add(spoken(kind->name()), kind->name());
    auto* alike = new QCheckBox(QObject::tr("for all files named *%1").arg(to_text(path.extension())));
    alike->setObjectName(QStringLiteral("kind_alike"));
    alike->setVisible(path.has_extension());
    box->addWidget(alike);
    auto* row = new QHBoxLayout;
    row->addStretch();
    auto* take = new Button(QObject::tr("Take it for this"), Button::Look::primary);
    take->setObjectName(QStringLiteral("take_kind"));
    row->addWidget(take);
    box->addLayout(row);
    const auto choose = [=] {
        if (!list->currentItem()) return;
        const auto pattern = alike->isChecked() ? "*" + path.extension().string() : path.string();
        model->choose_kind(pattern, list->currentItem()->data(Qt::UserRole).toString().toStdString());
        dialog->accept();
    };
    QObject::connect(take, &QPushButton::clicked, dialog, choose);
    QObject::connect(list, &QListWidget::itemActivated, dialog, choose);
    dialog->open();
    list->setFocus();
}

void show_log(QWidget* parent, Messages* messages) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("log"));
    dialog->setWindowTitle(QObject::tr("Log"));
    dialog->resize(820, 480);
    auto* box = new QVBoxLayout(dialog);
    auto* text = new QPlainTextEdit;
    text->setReadOnly(true);
    text->setAccessibleName(QObject::tr("Log"));
    text->setFont(number_font(12));
    for (const auto& line : messages->log()) text->appendPlainText(line);
    QObject::connect(messages, &Messages::logged, text, &QPlainTextEdit::appendPlainText);
    box->addWidget(text);
    auto* row = new QHBoxLayout;
    auto* copy = new Button(QObject::tr("Copy all"), Button::Look::plain);
    copy->setObjectName(QStringLiteral("copy_log"));
    auto* save = new Button(QObject::tr("Save as…"), Button::Look::plain);
    save->setObjectName(QStringLiteral("save_log"));
    for (auto* button : {copy, save}) button->setAutoDefault(false);
    row->addWidget(copy);
    row->addWidget(save);
    row->addStretch();
    box->addLayout(row);
    QObject::connect(copy, &QPushButton::clicked, dialog, [text] { QApplication::clipboard()->setText(text->toPlainText()); });
    QObject::connect(save, &QPushButton::clicked, dialog, [dialog, text, messages] {
        auto* ask = new QFileDialog(dialog, QObject::tr("Save the log"), QStringLiteral("skivet-log.txt"));
        ask->setAttribute(Qt::WA_DeleteOnClose);
        ask->setAcceptMode(QFileDialog::AcceptSave);
        keep_folder(ask, "log");
        QObject::connect(ask, &QFileDialog::fileSelected, dialog,
                         [text, messages](const QString& file) { messages->save(file.toStdString(), text->toPlainText().toStdString()); });
        ask->open();
    });
    dialog->open();
}

void ask_for_text(QWidget* parent, const QString& title, const QString& words, const QString& proposed, const QString& yes,
                  const char* name, const std::function<void(const QString&)>& then) {
    auto* dialog = new QInputDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QLatin1String(name));
    dialog->setWindowTitle(title);
    dialog->setLabelText(words);
    dialog->setTextValue(proposed);
    dialog->setOkButtonText(yes);
    dialog->resize(520, dialog->sizeHint().height());
    QObject::connect(dialog, &QInputDialog::textValueSelected, parent, [then](const QString& text) { then(text.trimmed()); });
    dialog->open();
}

std::vector<std::filesystem::path> local_files(const QMimeData& data) {
    std::vector<std::filesystem::path> out;
    for (const auto& url : data.urls())
        if (url.isLocalFile()) out.emplace_back(url.toLocalFile().toStdString());
    return out;
}

void choose_folder(QWidget* parent, const char* what, const QString& title,
                   const std::function<void(const std::filesystem::path&)>& chosen) {
    auto* dialog = new QFileDialog(parent, title);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::Directory);
    keep_folder(dialog, what);
    QObject::connect(dialog, &QFileDialog::fileSelected, dialog, [chosen](const QString& folder) { chosen(folder.toStdString()); });
    dialog->open();
}

}  // namespace skivet::app
