#include "app/catalog_dialogs.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QProgressBar>
#include <QTimer>

#include "app/language.h"
#include "app/pages/page.h"

namespace skivet::app {

void correct_habit(QWidget* parent, CatalogModel* model, std::size_t item, Role role) {
    const auto snapshot = model->snapshot();
    if (item >= snapshot->catalog.items.size()) return;
    const auto& path = snapshot->catalog.items[item].path();
    const auto parts = split_name(path, model->catalog()->analysis.habits);
    if (parts.habit) {
        auto habit = *parts.habit;
        habit.role = role;
        if (role == Role::unsure) model->forget_habit(habit);
        else model->set_habit(habit);
        return model->tell(
            role == Role::unsure
                ? QObject::tr("\"%1\" means what it means everywhere again.").arg(to_text(habit.word))
                : QObject::tr("All textures with \"%1\" in their name are %2 now.").arg(to_text(habit.word), spoken(name_of(role))));
    }
    if (role == Role::unsure) return;
    // No known part: the last word of the name is offered.
    const auto name = to_text(snapshot->catalog.items[item].name());
    const auto mark = std::max({name.lastIndexOf('_'), name.lastIndexOf('-'), name.lastIndexOf('.'), name.lastIndexOf(' ')});
    auto* dialog = new QInputDialog(parent);
    dialog->setObjectName(QStringLiteral("habit_word"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(QObject::tr("Naming habit"));
    dialog->setLabelText(QObject::tr("Which ending of \"%1\" says that it is %2?").arg(name, spoken(name_of(role))));
    dialog->setTextValue(mark > 0 ? name.mid(mark + 1) : QString());
    QObject::connect(dialog, &QInputDialog::textValueSelected, model, [model, role](const QString& word) {
        const auto clean = word.trimmed().toLower().toStdString();
        if (!clean.empty()) model->set_habit({RoleHabit::Place::suffix, clean, role});
    });
    dialog->open();
}

void show_habits(QWidget* parent, CatalogModel* model) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName(QStringLiteral("habits"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(QObject::tr("Naming habits"));
    dialog->resize(640, 480);
    auto* box = new QVBoxLayout(dialog);
    box->addWidget(make_label(QObject::tr("What in this game's names says what a texture is for. The usual words are known; here are those "
                                          "of this game, and words that recur and may be such."),
                              "soft", true));
    auto* list = new QListWidget;
    list->setObjectName(QStringLiteral("habit_list"));
    box->addWidget(list, 1);
    auto* row = new QHBoxLayout;
    auto* role = new QComboBox;
    role->setObjectName(QStringLiteral("habit_role"));
    for (const auto& r : all_roles())
        if (r.role != Role::unsure) role->addItem(to_text(r.name), int(r.role));
    auto* accept = new Button(QObject::tr("Means this"), Button::Look::primary);
    auto* forget = new Button(QObject::tr("Forget"), Button::Look::plain);
    row->addWidget(forget);
    row->addStretch();
    row->addWidget(make_label(QObject::tr("The chosen word means"), "soft"));
    row->addWidget(role);
    row->addWidget(accept);
    box->addLayout(row);
    struct Line {
        RoleHabit habit;
        bool own = false;
    };
    auto lines = std::make_shared<std::vector<Line>>();
    const auto fill = [=] {
        const int before = list->currentRow();
        list->clear();
        lines->clear();
        for (const auto& h : model->habits()) {
            const auto place = place_named(h.place);
            const auto r = role_named(h.role);
            if (!place || !r) continue;
            lines->push_back({{*place, h.word, *r}, true});
            list->addItem(QObject::tr("%1 \"%2\" means %3").arg(spoken(h.place), to_text(h.word), spoken(name_of(*r))));
        }
        for (const auto& p : model->catalog()->analysis.proposals) {
            lines->push_back({p.habit, false});
            QString text = QObject::tr("%1 \"%2\"? %3 names, %4 with a counterpart")
                               .arg(spoken(name_of(p.habit.place)), to_text(p.habit.word))
                               .arg(p.names)
                               .arg(p.shared);
            if (p.habit.role != Role::unsure)
                text += QObject::tr("; %1 % look like %2").arg(int(100 * p.agreement)).arg(spoken(name_of(p.habit.role)));
            auto* item = new QListWidgetItem(text, list);
            QStringList examples;
            for (const auto& e : p.examples) examples << to_text(e);
            item->setToolTip(examples.join('\n'));
        }
        if (lines->empty()) {
            auto* none = new QListWidgetItem(QObject::tr("No habit of this game's own is known, and no word recurs like one. Alt+Shift+1 … "
                                                         "9 in the catalog say it from an example."),
                                             list);
            none->setFlags(Qt::NoItemFlags);
        }
        list->setCurrentRow(std::clamp(before, 0, std::max(0, int(lines->size()) - 1)));
    };
    const auto follow = [=](int at) {
        const bool some = at >= 0 && at < int(lines->size());
        accept->setEnabled(some);
        forget->setEnabled(some && (*lines)[std::size_t(at)].own);
        if (some && (*lines)[std::size_t(at)].habit.role != Role::unsure)
            role->setCurrentIndex(role->findData(int((*lines)[std::size_t(at)].habit.role)));
    };
    QObject::connect(list, &QListWidget::currentRowChanged, dialog, follow);
    QObject::connect(accept, &QPushButton::clicked, dialog, [=] {
        const int at = list->currentRow();
        if (at < 0 || at >= int(lines->size())) return;
        auto habit = (*lines)[std::size_t(at)].habit;
        habit.role = static_cast<Role>(role->currentData().toInt());
        model->set_habit(habit);
        fill();
    });
    QObject::connect(forget, &QPushButton::clicked, dialog, [=] {
        const int at = list->currentRow();
        if (at < 0 || at >= int(lines->size())) return;
        model->forget_habit((*lines)[std::size_t(at)].habit);
        fill();
    });
    QObject::connect(model, &CatalogModel::analysis_changed, dialog, fill);
    fill();
    follow(list->currentRow());
    list->setFocus();
    dialog->open();
}

void show_export(QWidget* parent, CatalogModel* model, std::vector<std::size_t> some, std::vector<std::size_t> all) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName(QStringLiteral("export"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(QObject::tr("Export"));
    dialog->setMinimumWidth(560);
    auto* box = new QVBoxLayout(dialog);
    box->setSpacing(10);
    auto* form = new QFormLayout;
    auto* what = new QComboBox;
    what->setObjectName(QStringLiteral("what"));
    if (!some.empty())
        what->addItem(some.size() == 1 ? QObject::tr("The chosen texture") : QObject::tr("The %L1 chosen textures").arg(some.size()));
    what->addItem(QObject::tr("All %L1 that are found").arg(all.size()));
    form->addRow(QObject::tr("What"), what);
    auto* place = new QLineEdit(QDir::homePath() + QStringLiteral("/textures"));
    place->setObjectName(QStringLiteral("place"));
    auto* browse = new Button(QObject::tr("Choose…"), Button::Look::plain);
    auto* place_row = new QHBoxLayout;
    place_row->addWidget(place, 1);
    place_row->addWidget(browse);
    form->addRow(QObject::tr("Into"), place_row);
    auto* as = new QComboBox;
    as->setObjectName(QStringLiteral("as"));
    const std::pair<QString, ExportAs> ways[] = {{QObject::tr("PNG, or OpenEXR for floats"), ExportAs::picture},
                                                 {QObject::tr("DDS, compressed bytes untouched"), ExportAs::dds},
                                                 {QObject::tr("KTX2, compressed bytes untouched"), ExportAs::ktx2},
                                                 {QObject::tr("TGA"), ExportAs::tga},
                                                 {QObject::tr("TIFF"), ExportAs::tiff},
                                                 {QObject::tr("OpenEXR"), ExportAs::exr},
                                                 {QObject::tr("PNG, 16 bits"), ExportAs::png16},
                                                 {QObject::tr("As they lie in the archive"), ExportAs::raw}};
    for (const auto& [name, way] : ways) as->addItem(name, int(way));
    form->addRow(QObject::tr("As"), as);
    auto* shape = new QComboBox;
    shape->setObjectName(QStringLiteral("shape"));
    shape->addItems({QObject::tr("As in the archive"), QObject::tr("None, all in one"), QObject::tr("One for each set")});
    form->addRow(QObject::tr("Folders"), shape);
    auto* mips = new QComboBox;
    mips->addItems({QObject::tr("The largest level"), QObject::tr("All levels")});
    form->addRow(QObject::tr("Mips"), mips);
    auto* alpha = new QComboBox;
    alpha->addItems({QObject::tr("In the picture"), QObject::tr("As a gray picture beside"), QObject::tr("Left out")});
    form->addRow(QObject::tr("Alpha"), alpha);
    auto* resume = new QCheckBox(QObject::tr("Leave out what is there already"));
    resume->setObjectName(QStringLiteral("resume"));
    form->addRow(QString(), resume);
    auto* fat32 = new QCheckBox(QObject::tr("For a FAT32 card: cut files of 4 GiB and more"));
    form->addRow(QString(), fat32);
    box->addLayout(form);
    auto* bar = new QProgressBar;
    bar->setTextVisible(false);
    bar->setFixedHeight(8);
    auto* text = make_label({}, "soft", true);
    text->setObjectName(QStringLiteral("state"));
    text->setMinimumHeight(36);
    box->addWidget(bar);
    box->addWidget(text);
    bar->hide();
    auto* row = new QHBoxLayout;
    auto* close = new Button(QObject::tr("Close"), Button::Look::plain);
    close->setObjectName(QStringLiteral("close"));
    auto* pause = new Button(QObject::tr("Pause"), Button::Look::plain);
    pause->setObjectName(QStringLiteral("pause"));
    auto* cancel = new Button(QObject::tr("Cancel"), Button::Look::plain);
    cancel->setObjectName(QStringLiteral("cancel"));
    auto* start = new Button(QObject::tr("Export"), Button::Look::primary);
    start->setObjectName(QStringLiteral("start"));
    start->setDefault(true);
    row->addWidget(close);
    row->addStretch();
    row->addWidget(pause);
    row->addWidget(cancel);
    row->addWidget(start);
    box->addLayout(row);
    pause->hide();
    cancel->hide();
    QObject::connect(close, &QPushButton::clicked, dialog, &QDialog::close);  // a running export goes on
    QObject::connect(browse, &QPushButton::clicked, dialog, [=] {
        auto* choose = new QFileDialog(dialog, QObject::tr("Export into"), place->text());
        choose->setAttribute(Qt::WA_DeleteOnClose);
        choose->setFileMode(QFileDialog::Directory);
        QObject::connect(choose, &QFileDialog::fileSelected, place, &QLineEdit::setText);
        choose->open();
    });
    auto* timer = new QTimer(dialog);
    timer->setInterval(200);
    auto clock = std::make_shared<QElapsedTimer>();
    const auto running = [=](bool on) {
        for (auto* field : std::initializer_list<QWidget*>{what, place, browse, as, shape, mips, alpha, resume, fat32})
            field->setEnabled(!on);
        bar->setVisible(on);
        pause->setVisible(on);
        cancel->setVisible(on);
        start->setVisible(!on);
        if (on) timer->start();
        else timer->stop();
    };
    QObject::connect(timer, &QTimer::timeout, dialog, [=] {
        const auto progress = model->exporting();
        if (!progress) {  // it was begun in a window that is closed, and has ended
            running(false);
            return text->setText(QObject::tr("The export has ended; the log says how."));
        }
        const auto done = progress->done.load(), total = progress->total.load(), bytes = progress->bytes.load();
        const double seconds = std::max<double>(0.001, double(clock->elapsed()) / 1000);
        bar->setRange(0, int(std::max<std::uint64_t>(1, total)));
        bar->setValue(int(done));
        pause->setText(progress->gate.paused() ? QObject::tr("Go on") : QObject::tr("Pause"));
        if (progress->gate.paused()) return text->setText(QObject::tr("%L1 of %L2 · paused").arg(done).arg(total));
        QString line =
            QObject::tr("%L1 of %L2 · %3 a second").arg(done).arg(total).arg(to_text(human_bytes(std::uint64_t(double(bytes) / seconds))));
        if (done > 4 && total > done)
            line += QObject::tr(" · %1 s left").arg(int(std::ceil(seconds / double(done) * double(total - done))));
        text->setText(line);
    });
    QObject::connect(pause, &QPushButton::clicked, dialog, [=] {
        const auto progress = model->exporting();
        if (const auto id = model->jobs().id_of(progress)) model->jobs().pause(*id, !progress->gate.paused());
    });
    QObject::connect(cancel, &QPushButton::clicked, dialog, [=] {
        if (const auto progress = model->exporting()) progress->cancel.cancel();
    });
    QObject::connect(start, &QPushButton::clicked, dialog, [=, some = std::move(some), all = std::move(all)] {
        if (model->exporting()) return text->setText(QObject::tr("An export is running already."));
        ExportWish wish;
        wish.as = static_cast<ExportAs>(as->currentData().toInt());
        wish.shape = static_cast<FolderShape>(shape->currentIndex());
        wish.mip = mips->currentIndex() == 1 ? "all" : "0";
        wish.alpha = static_cast<AlphaWay>(alpha->currentIndex());
        wish.resume = resume->isChecked();
        wish.part_bytes = fat32->isChecked() ? fat32_part : 0;
        const bool chosen = !some.empty() && what->currentIndex() == 0;
        clock->start();
        text->setText(QObject::tr("Beginning"));
        model->export_items(
            chosen ? some : all, wish, place->text().toStdString(), false,
            [dialog = QPointer<QDialog>(dialog), model, text, running, resume, to = place->text()](const Result<ExportReport>& report) {
                if (!dialog) {
                    model->tell(report ? QObject::tr("Exported to %1: %L2 written, %L3 failed.")
                                             .arg(to)
                                             .arg(report->written)
                                             .arg(report->failed.size())
                                       : to_text(report.error().message()));
                    return;
                }
                running(false);
                if (!report && report.error().code == ErrorCode::canceled) {
                    resume->setChecked(true);
                    return text->setText(QObject::tr("Canceled. What was written stays; Export goes on from there."));
                }
                if (!report) return text->setText(to_text(report.error().message()));
                QString line = QObject::tr("%L1 written").arg(report->written);
                if (report->skipped) line += QObject::tr(", %L1 were there already").arg(report->skipped);
                if (!report->failed.empty())
                    line += QObject::tr(", %1 failed: %2 says why").arg(report->failed.size()).arg(to_text(report->log.filename()));
                text->setText(line + QObject::tr(" · %1").arg(to_text(human_bytes(report->bytes))));
            });
        running(true);
    });
    if (model->exporting()) running(true), clock->start();
    dialog->open();
}

}  // namespace skivet::app
