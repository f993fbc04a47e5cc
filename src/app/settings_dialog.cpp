#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QProcess>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/dialogs.h"
#include "app/guide_window.h"
#include "app/models/preferences.h"
#include "app/models/project_store.h"
#include "app/pages/page.h"
#include "app/settings_pages.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"
#include "workflow/open_with.h"
#include "workflow/places.h"

namespace skivet::app {
namespace {

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

/// A form's lines, and what they become.
class SettingsDialog : public QDialog {
public:
    SettingsDialog(QWidget* parent, Jobs* jobs, ProjectStore* store, SettingsPart part) : QDialog(parent), store_(store) {
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(tr("Settings"));
        setObjectName(QStringLiteral("settings"));
        resize(860, 560);
        set_help(this, "settings");
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(12, 12, 12, 12);
        auto* both = new QHBoxLayout;
        both->setSpacing(16);
        parts_ = new QListWidget;
        parts_->setObjectName(QStringLiteral("settings_parts"));
        parts_->setAccessibleName(tr("Parts of the settings"));
        parts_->setFixedWidth(170);
        pages_ = new QStackedWidget;
        both->addWidget(parts_);
        both->addWidget(pages_, 1);
        box->addLayout(both, 1);
        const auto& settings = Preferences::the().settings();
        add_part(tr("Look"), look_ = new LookSettings(settings));
        add_part(tr("Keys", "of the keyboard"), keys_ = new KeySettings(settings, actions_of(parent)));
        add_part(tr("Small pictures"), caches_ = new CacheSettings(settings, jobs));
        if (store) {
            add_part(tr("Editors"), make_editors());
            add_part(tr("Delivery"), make_delivery());
            add_part(tr("The game"), make_game());
        }
        connect(parts_, &QListWidget::currentRowChanged, pages_, &QStackedWidget::setCurrentIndex);
        parts_->setCurrentRow(std::min(static_cast<int>(part), parts_->count() - 1));
        const auto end = end_form(box, tr("Keep"));
        wrong_ = end.wrong;
        end.button->setObjectName(QStringLiteral("keep_settings"));
        connect(end.button, &QPushButton::clicked, this, &SettingsDialog::keep);
        parts_->setFocus();
    }

private:
    struct Form {
        QWidget* page = new QWidget;
        QFormLayout* rows = new QFormLayout;
        Form() {
            auto* box = new QVBoxLayout(page);
            box->setContentsMargins(0, 0, 0, 0);
            box->addLayout(rows);
            box->addStretch();
            rows->setContentsMargins(8, 14, 8, 8);
            rows->setVerticalSpacing(8);
            rows->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
        }
        QLineEdit* field(const QString& label, const char* name, const QString& text, const QString& empty, const QString& tip = {}) {
            auto* out = new QLineEdit(text);
            out->setObjectName(QLatin1String(name));
            out->setPlaceholderText(empty);
            out->setToolTip(tip);
            out->setCursorPosition(0);  // a long one is read from its beginning
            rows->addRow(label, out);
            return out;
        }
        void note(const QString& text) { rows->addRow(QString(), make_label(text, "soft", true)); }
    };

    QWidget* make_editors() {
        Form form;
        const auto& project = store_->project();
        for (const auto& ending : endings_of_pieces()) {
            const auto own = project.editors.find(ending);
            editors_[ending] = form.field(tr("Open %1 with").arg(to_text(ending).toUpper()), ("editor_" + ending).c_str(),
                                          own == project.editors.end() ? QString() : joined(own->second), tr("as all others"));
        }
        editor_ = form.field(tr("Open others with"), "editor", joined(project.editor), tr("the desktop's program for the file type"));
        form.note(tr("{file}, {folder}, {alpha} and {name} are filled in; without {file} it comes last."));
        clean_ = new QCheckBox(tr("Only what is as shipped"));
        clean_->setObjectName(QStringLiteral("only_as_shipped"));
        clean_->setToolTip(tr("What something else changed since the installation was recorded does not come to the bench"));
        clean_->setChecked(project.only_as_shipped);
        form.rows->addRow(tr("Take to the bench"), clean_);
        return form.page;
    }

    /// A field for a folder, with a button that asks for one.
    QLineEdit* folder_field(Form& form, const QString& label, const char* name, const QString& text, const QString& empty) {
        auto* field = new QLineEdit(text);
        field->setObjectName(QLatin1String(name));
        field->setPlaceholderText(empty);
        auto* row = new QHBoxLayout;
        row->addWidget(field, 1);
        auto* choose = new Button(tr("Choose…"), Button::Look::link);
        connect(choose, &QPushButton::clicked, this, [this, field, label] {
            choose_folder(this, "place", label, [field](const std::filesystem::path& folder) { field->setText(to_text(folder)); });
        });
        row->addWidget(choose);
        form.rows->addRow(label, row);
        return field;
    }

    QWidget* make_delivery() {
        Form form;
        const auto& project = store_->project();
        const auto& places = project.places;
        const auto words = tr("{path}, {file}, {archive} and {group} are filled in");
        loose_ = form.field(tr("Loose files go to"), "override_folder", to_text(places.override_folder),
                            to_text(proposed_override(project)), tr("A folder inside the game's"));
        layout_ = form.field(tr("… and lie there as"), "override_layout", to_text(places.override_layout),
                             to_text(proposed_layout(project)), words);
        patch_ = form.field(
            tr("Patch archives are named"), "patch_name", to_text(places.patch_name),
            to_text(proposed_patch_name(project, project.sources.empty() ? std::filesystem::path("x") : project.sources.front())),
            tr("{name} is the archive's name, {n} a number"));
        auto proposed = project;
        proposed.places.list_file.clear();
        const auto list = patch_list(proposed);
        list_ = form.field(tr("… and are listed in"), "list_file", to_text(places.list_file),
                           list.empty() ? tr("nothing") : to_text(list.lexically_relative(project.game)),
                           tr("The game's list of archives, inside its folder; - for none"));
        device_ = folder_field(form, tr("A card or device is at"), "device_folder", to_text(places.device.folder), tr("none"));
        device_files_ = new QComboBox;
        device_files_->setObjectName(QStringLiteral("device_files"));
        device_files_->addItems({tr("The game's files, whole"), tr("Textures as files of their own")});
        device_files_->setCurrentIndex(places.device.loose ? 1 : 0);
        form.rows->addRow(tr("… and takes"), device_files_);
        device_layout_ =
            form.field(tr("… which lie there as"), "device_layout", to_text(places.device.layout), QStringLiteral("{path}"), words);
        device_largest_ = form.field(tr("… of at most"), "device_largest",
                                     places.device.largest == fat32_largest ? QString() : QString::number(places.device.largest),
                                     tr("4294967295 bytes, as FAT32 holds"), tr("Larger files are cut into NAME.00, NAME.01 and so on"));
        form.note(
            words +
            tr(": the path in the archive or below the game's folder, its last part, the archive's name, and base, update or extra."));
        return form.page;
    }

    QWidget* make_game() {
        Form form;
        const auto& play = store_->project().play;
        play_ = form.field(tr("Start the game with"), "play", joined(play.command), tr("program and arguments"));
        play_folder_ = folder_field(form, tr("… in"), "play_folder", to_text(play.folder), tr("the game's folder"));
        play_log_ = form.field(tr("It writes a log to"), "play_log", to_text(play.log), tr("nothing but what it prints"),
                               tr("A file inside the game's folder; shown beside while the game runs"));
        environment_ = new QPlainTextEdit;
        environment_->setObjectName(QStringLiteral("play_environment"));
        environment_->setPlaceholderText(tr("NAME=value, one a line"));
        QStringList lines;
        for (const auto& word : play.environment) lines << to_text(word);
        environment_->setPlainText(lines.join('\n'));
        environment_->setMaximumHeight(110);
        form.rows->addRow(tr("Its environment"), environment_);
        return form.page;
    }

    void add_part(const QString& title, QWidget* page) {
        parts_->addItem(title);
        pages_->addWidget(page);
    }

    /// Everything a key can be given to: the window's, its workspace's and all pages'.
    static QList<QAction*> actions_of(const QWidget* window) {
        QList<QAction*> out;
        for (auto* action : window->findChildren<QAction*>())
            if (!standard_key(action).isEmpty() || action->objectName().contains(QLatin1Char('/'))) out << action;
        return out;
    }

    void keep() {
        if (const auto wrong = keys_->wrong(); !wrong.isEmpty()) return refuse(wrong);
        if (store_ && !keep_project()) return;
        Preferences::the().change([this](Settings& s) {
            look_->keep(s);
            keys_->keep(s);
            caches_->keep(s);
        });
        accept();
    }

    void refuse(const QString& why) {
        wrong_->setText(why);
        wrong_->show();
    }

    bool keep_project() {
        const auto text = [](const QLineEdit* field) { return field->text().trimmed().toStdString(); };
        PlaceSettings places{text(loose_), text(layout_), text(patch_), text(list_), store_->project().places.device};
        places.device.folder = text(device_);
        places.device.loose = device_files_->currentIndex() == 1;
        places.device.layout = text(device_layout_);
        bool number = true;
        places.device.largest =
            device_largest_->text().trimmed().isEmpty() ? fat32_largest : device_largest_->text().trimmed().toULongLong(&number);
        if (!number) places.device.largest = 0;
        PlaySettings play{split(play_->text()), text(play_folder_), {}, text(play_log_)};
        for (const auto& line : environment_->toPlainText().split('\n', Qt::SkipEmptyParts))
            play.environment.push_back(line.trimmed().toStdString());
        std::map<std::string, std::vector<std::string>> commands;
        for (const auto& [ending, field] : editors_)
            if (auto words = split(field->text()); !words.empty()) commands[ending] = std::move(words);
        const auto fine = [&]() -> Status {
            SKIVET_CHECK(check_places(places));
            SKIVET_CHECK(check_play(play));
            SKIVET_CHECK(check_command(split(editor_->text())));
            for (const auto& [ending, words] : commands) SKIVET_CHECK(check_command(words));
            return {};
        }();
        if (!fine) {
            refuse(to_text(fine.error().message()));
            return false;
        }
        store_->change(tr("Settings of the project"), [&](Project& p) {
            p.editor = split(editor_->text()), p.editors = commands;
            p.play = play, p.only_as_shipped = clean_->isChecked();
        });
        store_->set_places(places);
        return true;
    }

    ProjectStore* store_;
    QListWidget* parts_;
    QStackedWidget* pages_;
    LookSettings* look_;
    KeySettings* keys_;
    CacheSettings* caches_;
    std::map<std::string, QLineEdit*> editors_;
    QLineEdit *editor_, *loose_, *layout_, *patch_, *list_, *device_, *device_layout_, *device_largest_, *play_, *play_folder_, *play_log_;
    QCheckBox* clean_;
    QComboBox* device_files_;
    QPlainTextEdit* environment_;
    QLabel* wrong_;
};

}  // namespace

void show_settings(QWidget* parent, Jobs* jobs, ProjectStore* store, SettingsPart part) {
    (new SettingsDialog(parent, jobs, store, part))->open();
}

}  // namespace skivet::app
