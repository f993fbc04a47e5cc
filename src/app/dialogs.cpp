#include "app/dialogs.h"

#include <QFormLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QVBoxLayout>

#include "app/pages/page.h"
#include "app/theme/theme.h"

namespace skivet::app {
namespace {

class Finder : public QDialog {
public:
    Finder(QWidget* parent, const QList<QAction*>& actions) : QDialog(parent), actions_(actions) {
        setAttribute(Qt::WA_DeleteOnClose);
        setObjectName(QStringLiteral("finder"));
        setWindowTitle(tr("Find a command"));
        resize(460, 380);
        auto* box = new QVBoxLayout(this);
        field_ = new QLineEdit;
        field_->setPlaceholderText(tr("What do you want to do?"));
        field_->setAccessibleName(tr("Command"));
        list_ = new QListWidget;
        list_->setAccessibleName(tr("Commands"));
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
        list_->clear();
        for (auto* action : actions_) {
            if (action->text().isEmpty() || !action->isEnabled() || !action->text().contains(field_->text(), Qt::CaseInsensitive)) continue;
            auto* item = new QListWidgetItem(QStringLiteral("%1   %2").arg(action->text(), action->shortcut().toString()));
            item->setData(Qt::UserRole, QVariant::fromValue<QObject*>(action));
            list_->addItem(item);
        }
        list_->setCurrentRow(0);
    }
    void run() {
        const auto* item = list_->currentItem();
        if (!item) return;
        auto* action = qobject_cast<QAction*>(item->data(Qt::UserRole).value<QObject*>());
        close();
        if (action) action->trigger();
    }
    QList<QAction*> actions_;
    QLineEdit* field_;
    QListWidget* list_;
};

QString joined(const std::vector<std::string>& words) {
    QStringList out;
    for (const auto& word : words) out << (word.find(' ') == std::string::npos ? to_text(word) : '"' + to_text(word) + '"');
    return out.join(' ');
}

std::vector<std::string> split(const QString& command) {
    std::vector<std::string> out;
    for (const auto& word : QProcess::splitCommand(command)) out.push_back(word.toStdString());
    return out;
}

}  // namespace

void show_command_finder(QWidget* parent, const QList<QAction*>& actions) { (new Finder(parent, actions))->open(); }

void show_settings(QWidget* parent, Session* session) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(QObject::tr("Settings"));
    dialog->resize(560, 200);
    auto* box = new QVBoxLayout(dialog);
    auto* form = new QFormLayout;
    auto* editor = new QLineEdit(joined(session->project().editor));
    editor->setPlaceholderText(QObject::tr("the desktop's program for the file type"));
    auto* play = new QLineEdit(joined(session->project().play));
    play->setPlaceholderText(QObject::tr("program and arguments"));
    form->addRow(QObject::tr("Open pieces with"), editor);
    form->addRow(QObject::tr("Start the game with"), play);
    box->addLayout(form);
    box->addStretch();
    auto* row = new QHBoxLayout;
    row->addStretch();
    auto* keep = new Button(QObject::tr("Keep"), Button::Look::primary);
    row->addWidget(keep);
    box->addLayout(row);
    QObject::connect(keep, &QPushButton::clicked, dialog, [=] {
        session->set_commands(split(editor->text()), split(play->text()));
        dialog->accept();
    });
    dialog->open();
}

void show_log(QWidget* parent, Session* session) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(QObject::tr("Log"));
    dialog->resize(760, 420);
    auto* box = new QVBoxLayout(dialog);
    auto* text = new QPlainTextEdit;
    text->setReadOnly(true);
    text->setFont(number_font(12));
    for (const auto& line : session->log()) text->appendPlainText(line);
    QObject::connect(session, &Session::logged, text, &QPlainTextEdit::appendPlainText);
    box->addWidget(text);
    dialog->open();
}

}  // namespace skivet::app
