#include "app/settings_pages.h"

#include <QAction>
#include <QFormLayout>
#include <QHeaderView>
#include <QRadioButton>
#include <QVBoxLayout>

#include "app/language.h"
#include "app/models/pictures.h"
#include "app/pages/page.h"
#include "app/pages/page_list.h"
#include "app/theme/theme.h"
#include "app/workshop/workshop_actions.h"
#include "catalog/thumbnail_cache.h"

namespace skivet::app {
namespace {

QFormLayout* form_of(QWidget* page) {
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(8, 6, 8, 8);
    auto* rows = new QFormLayout;
    rows->setVerticalSpacing(12);
    rows->setHorizontalSpacing(16);
    box->addLayout(rows);
    box->addStretch();
    return rows;
}

/// "catalog/export": what a person calls where it is.
QString page_of(const QString& id) {
    if (auto window = workshop_window_of(id); !window.isEmpty()) return window;
    const auto page = id.section(QLatin1Char('/'), 0, 0);
    for (const auto& row : page_list())
        if (page == QString::fromLatin1(row.title).toLower()) return row.title_text();
    return page == QLatin1String("start") ? KeySettings::tr("Start") : KeySettings::tr("Everywhere");
}

}  // namespace

LookSettings::LookSettings(const Settings& settings) {
    auto* rows = form_of(this);
    look_ = new QButtonGroup(this);
    auto* looks = new QVBoxLayout;
    const struct {
        Settings::Look look;
        const char* name;
        QString text;
    } all[] = {{Settings::Look::system, "look_system", tr("as the system has it")},
               {Settings::Look::light, "look_light", tr("light")},
               {Settings::Look::night, "look_night", tr("night")}};
    for (const auto& one : all) {
        auto* button = new QRadioButton(one.text);
        button->setObjectName(QLatin1String(one.name));
        button->setChecked(one.look == settings.look);
        look_->addButton(button, static_cast<int>(one.look));
        looks->addWidget(button);
    }
    rows->addRow(tr("Look"), looks);
    text_ = new QComboBox;
    text_->setObjectName(QStringLiteral("text_size"));
    text_->setAccessibleName(tr("Size of text and pictures"));
    text_->addItem(tr("as the system has it"), 0);
    for (const int percent : {80, 90, 100, 110, 125, 150, 175, 200}) text_->addItem(tr("%1 %").arg(percent), percent);
    if (text_->findData(settings.text_percent) < 0) text_->addItem(tr("%1 %").arg(settings.text_percent), settings.text_percent);
    text_->setCurrentIndex(text_->findData(settings.text_percent));
    rows->addRow(tr("Size of everything"), text_);
    rows->addRow(QString(), make_label(tr("The size changes with the next start."), "soft"));
    language_ = new QComboBox;
    language_->setObjectName(QStringLiteral("language"));
    language_->setAccessibleName(tr("Language"));
    language_->addItem(tr("as the system has it"), QString());
    for (const auto& known : known_languages()) language_->addItem(known.name, to_text(known.token));
    language_->setCurrentIndex(std::max(0, language_->findData(to_text(settings.language))));
    rows->addRow(tr("Language"), language_);
    rows->addRow(QString(), make_label(tr("The language changes with the next start."), "soft"));
    menu_bar_ = new QCheckBox(tr("Show the menu bar"));
    menu_bar_->setObjectName(QStringLiteral("menu_bar"));
    menu_bar_->setToolTip(tr("Without it Alt or F10 shows the menus"));
    menu_bar_->setChecked(settings.menu_bar);
    rows->addRow(tr("Menus"), menu_bar_);
}

void LookSettings::keep(Settings& settings) const {
    settings.look = static_cast<Settings::Look>(look_->checkedId());
    settings.text_percent = text_->currentData().toInt();
    settings.menu_bar = menu_bar_->isChecked();
    settings.language = language_->currentData().toString().toStdString();
}

KeySettings::KeySettings(const Settings& settings, const QList<QAction*>& actions) {
    for (const auto* action : actions) {
        Row row{action->objectName(), page_of(action->objectName()), action->text(), standard_key(action), standard_key(action)};
        if (const auto own = settings.keys.find(row.id.toStdString()); own != settings.keys.end())
            row.key = QKeySequence::fromString(QString::fromStdString(own->second), QKeySequence::PortableText);
        if (std::none_of(rows_.begin(), rows_.end(), [&](const Row& r) { return r.id == row.id; })) rows_.push_back(std::move(row));
    }
    // Windows that are not open just now.
    for (const auto& action : workshop_actions()) {
        Row row{QLatin1String(action.id), workshop_window_of(QLatin1String(action.id)), action.text_in_words(), action.standard(),
                action.standard()};
        if (const auto own = settings.keys.find(action.id); own != settings.keys.end())
            row.key = QKeySequence::fromString(QString::fromStdString(own->second), QKeySequence::PortableText);
        std::erase_if(rows_, [&](const Row& r) { return r.id == row.id; });
        rows_.push_back(std::move(row));
    }
    std::stable_sort(rows_.begin(), rows_.end(), [](const Row& a, const Row& b) { return a.page < b.page; });
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(8, 6, 8, 8);
    search_ = new QLineEdit;
    search_->setObjectName(QStringLiteral("key_search"));
    search_->setPlaceholderText(tr("An action or a key"));
    search_->setAccessibleName(tr("Search"));
    search_->setClearButtonEnabled(true);
    box->addWidget(search_);
    table_ = new QTableWidget(0, 3);
    table_->setObjectName(QStringLiteral("key_table"));
    table_->setAccessibleName(tr("Actions and their keys"));
    table_->setHorizontalHeaderLabels({tr("Action"), tr("Page"), tr("Key")});
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setShowGrid(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(27);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    table_->setColumnWidth(1, 110);
    table_->setColumnWidth(2, 170);
    box->addWidget(table_, 1);
    about_ = make_label({}, "warning", true);
    about_->hide();
    box->addWidget(about_);
    auto* row = new QHBoxLayout;
    row->addWidget(make_label(tr("Its key:"), "soft"));
    edit_ = new QKeySequenceEdit;
    edit_->setObjectName(QStringLiteral("key_edit"));
    edit_->setAccessibleName(tr("Press the key the chosen action is to have"));
    row->addWidget(edit_, 1);
    auto* none = new Button(tr("None"), Button::Look::link);
    auto* standard = new Button(tr("As it was"), Button::Look::link);
    none->setObjectName(QStringLiteral("key_none"));
    standard->setObjectName(QStringLiteral("key_standard"));
    for (auto* button : {none, standard}) button->setAutoDefault(false);
    row->addWidget(none);
    row->addWidget(standard);
    box->addLayout(row);
    connect(search_, &QLineEdit::textChanged, this, [this] {
        table_->setCurrentCell(-1, -1);  // another search begins anew
        show_rows();
    });
    connect(table_, &QTableWidget::currentCellChanged, this, &KeySettings::choose);
    connect(edit_, &QKeySequenceEdit::editingFinished, this, [this] {
        // One key, not a row of them.
        if (!edit_->keySequence().isEmpty()) set_key(QKeySequence(edit_->keySequence()[0]));
    });
    connect(none, &QPushButton::clicked, this, [this] { set_key({}); });
    connect(standard, &QPushButton::clicked, this, [this] {
        if (current() >= 0) set_key(rows_[std::size_t(current())].standard);
    });
    show_rows();
}

int KeySettings::current() const {
    const auto* item = table_->item(table_->currentRow(), 0);
    return item ? item->data(Qt::UserRole).toInt() : -1;
}

void KeySettings::show_rows() {
    const int before = current();
    table_->setRowCount(0);
    const auto words = search_->text();
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const auto& row = rows_[i];
        const auto key = key_text(row.key);
        // The one that is being changed stays, whatever key it has by now.
        if (int(i) != before && !words.isEmpty() && !row.text.contains(words, Qt::CaseInsensitive) &&
            !row.page.contains(words, Qt::CaseInsensitive) && !key.contains(words, Qt::CaseInsensitive))
            continue;
        const int at = table_->rowCount();
        table_->insertRow(at);
        const QString cells[] = {row.text, row.page, key};
        for (int c = 0; c < 3; ++c) {
            auto* item = new QTableWidgetItem(cells[c]);
            item->setData(Qt::UserRole, int(i));
            if (row.key != row.standard) {
                auto font = table_->font();
                font.setBold(true);
                item->setFont(font);
            }
            table_->setItem(at, c, item);
        }
        if (int(i) == before) table_->setCurrentCell(at, 0);
    }
    if (table_->currentRow() < 0 && table_->rowCount() > 0) table_->setCurrentCell(0, 0);
    const auto text = wrong();
    about_->setText(text);
    about_->setVisible(!text.isEmpty());
}

void KeySettings::choose() {
    const QSignalBlocker quiet(edit_);
    edit_->setEnabled(current() >= 0);
    edit_->setKeySequence(current() >= 0 ? rows_[std::size_t(current())].key : QKeySequence());
}

void KeySettings::set_key(const QKeySequence& key) {
    if (current() < 0) return;
    rows_[std::size_t(current())].key = key;
    show_rows();
    choose();
}

QString KeySettings::wrong() const {
    const auto everywhere = tr("Everywhere");
    for (std::size_t i = 0; i < rows_.size(); ++i)
        for (std::size_t j = i + 1; j < rows_.size(); ++j) {
            const auto &a = rows_[i], &b = rows_[j];
            // The workshop's windows are windows of their own: what works everywhere in this one does not work in them.
            const auto& other = a.page == everywhere ? b : a;
            const bool meet =
                a.page == b.page || ((a.page == everywhere || b.page == everywhere) && workshop_window_of(other.id).isEmpty());
            if (meet && !a.key.isEmpty() && a.key == b.key)
                return tr("%1 is the key of both \"%2\" and \"%3\".").arg(key_text(a.key), a.text, b.text);
        }
    return {};
}

void KeySettings::keep(Settings& settings) const {
    for (const auto& row : rows_) {
        const auto id = row.id.toStdString();
        if (row.key == row.standard) settings.keys.erase(id);
        else settings.keys[id] = row.key.toString(QKeySequence::PortableText).toStdString();
    }
}

CacheSettings::CacheSettings(const Settings& settings, Jobs* jobs) : jobs_(jobs) {
    auto* rows = form_of(this);
    auto* where = make_elided_label("strong");
    where->setText(to_text(ThumbnailCache::usual_place()));
    where->setTextInteractionFlags(Qt::TextSelectableByMouse);
    where->setMinimumWidth(360);
    rows->addRow(tr("They lie in"), where);
    held_ = make_label(tr("being measured"), "strong");
    auto* row = new QHBoxLayout;
    row->addWidget(held_);
    auto* clear = new Button(tr("Clear"), Button::Look::link);
    clear->setObjectName(QStringLiteral("clear_pictures"));
    clear->setAutoDefault(false);
    row->addSpacing(12);
    row->addWidget(clear);
    row->addStretch();
    rows->addRow(tr("They take"), row);
    most_ = new QComboBox;
    most_->setObjectName(QStringLiteral("most_pictures"));
    most_->setAccessibleName(tr("They may take"));
    for (const std::uint64_t mb : {64, 128, 256, 512, 1024, 4096})
        most_->addItem(to_text(human_bytes(mb << 20)), QVariant::fromValue<quint64>(mb << 20));
    const auto now = QVariant::fromValue<quint64>(settings.thumbnail_bytes);
    if (most_->findData(now) < 0) most_->addItem(to_text(human_bytes(settings.thumbnail_bytes)), now);
    most_->setCurrentIndex(most_->findData(now));
    rows->addRow(tr("They may take"), most_);
    rows->addRow(
        QString(),
        make_label(tr("Small pictures of textures, kept so that nothing is decoded twice. What was not looked at for longest goes first."),
                   "soft", true));
    connect(clear, &QPushButton::clicked, this, [this] {
        held_->setText(tr("being cleared"));
        jobs_->run(
            Jobs::By::looker, this, {},
            []() -> Status {
                SKIVET_TRY(const auto cache, ThumbnailCache::open(ThumbnailCache::usual_place()));
                return cache->clear();
            },
            [this](const Status& cleared) {
                if (cleared) measure();
                else held_->setText(to_text(cleared.error().message()));
            });
    });
    measure();
}

void CacheSettings::measure() {
    jobs_->run(
        Jobs::By::looker, this, {},
        [] {
            std::uint64_t bytes = 0;
            for (const char* end : {"", "-wal"}) {
                std::error_code code;
                const auto size = std::filesystem::file_size(ThumbnailCache::usual_place().string() + end, code);
                if (!code) bytes += size;
            }
            return bytes;
        },
        [this](std::uint64_t bytes) { held_->setText(to_text(human_bytes(bytes))); });
}

void CacheSettings::keep(Settings& settings) const { settings.thumbnail_bytes = most_->currentData().toULongLong(); }

}  // namespace skivet::app
