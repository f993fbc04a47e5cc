// The user's own programs for packers that sheets only name.
#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>
#include <set>

#include "app/dialogs.h"
#include "app/models/project_store.h"
#include "app/pages/page.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"

namespace skivet::app {

namespace {

/// What sheets ask for, and what the project has besides.
std::set<std::string> packer_names(const ProjectStore& store) {
    std::set<std::string> out;
    for (const auto& kind : store.context()->containers)
        for (auto& name : kind->wanted_packers()) out.insert(std::move(name));
    for (const auto& program : store.project().packers.all()) out.insert(program.name);
    return out;
}

}  // namespace

bool wants_packers(const ProjectStore& store) { return !packer_names(store).empty(); }

void show_packers(QWidget* parent, ProjectStore* store) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("packers"));
    dialog->setWindowTitle(QObject::tr("Packers"));
    dialog->resize(640, 400);
    auto* box = new QVBoxLayout(dialog);
    box->setContentsMargins(20, 16, 20, 16);
    box->addWidget(make_label(QObject::tr("Some sheets want a packer that nobody may ship. Name your own program for it; it runs without "
                                          "network and without your files."),
                              "soft", true));
    auto* list = new QListWidget;
    list->setObjectName(QStringLiteral("packer_list"));
    list->setAccessibleName(QObject::tr("Packers"));
    list->ensurePolished();
    box->addWidget(list, 1);
    auto* form = new QFormLayout;
    auto* unpack = new QLineEdit;
    unpack->setObjectName(QStringLiteral("unpack_command"));
    unpack->setPlaceholderText(QObject::tr("program and arguments; {size} is the unpacked size"));
    auto* pack = new QLineEdit;
    pack->setObjectName(QStringLiteral("pack_command"));
    pack->setPlaceholderText(QObject::tr("without one its entries can only be read"));
    form->addRow(QObject::tr("Unpacks with"), unpack);
    form->addRow(QObject::tr("Packs with"), pack);
    box->addLayout(form);
    const auto end = end_form(box, QObject::tr("Keep"));
    auto* wrong = end.wrong;
    auto* keep = end.button;
    keep->setObjectName(QStringLiteral("keep_packer"));
    const auto name = [=] {
        return list->currentItem() ? list->currentItem()->data(Qt::UserRole).toString().toStdString() : std::string();
    };
    const auto fill = [=] {
        const auto chosen = name();
        list->clear();
        for (const auto& packer : packer_names(*store)) {
            const bool known = store->project().packers.find(packer) != nullptr;
            auto* item = new QListWidgetItem(known ? to_text(packer) : QObject::tr("%1  —  has no program yet").arg(to_text(packer)), list);
            item->setData(Qt::UserRole, to_text(packer));
            if (packer == chosen) list->setCurrentItem(item);
        }
        if (list->count() == 0) {
            list->addItem(QObject::tr("No sheet asks for one yet"));
            list->item(0)->setFlags(Qt::NoItemFlags);
            list->item(0)->setForeground(list->palette().placeholderText());
        }
        for (QWidget* w : {static_cast<QWidget*>(unpack), static_cast<QWidget*>(pack), static_cast<QWidget*>(keep)})
            w->setEnabled(!packer_names(*store).empty());
        if (!list->currentItem()) list->setCurrentRow(0);
    };
    QObject::connect(list, &QListWidget::currentItemChanged, dialog, [=] {
        const auto* program = store->project().packers.find(name());
        unpack->setText(program ? to_text(command_text(program->unpack)) : QString());
        pack->setText(program ? to_text(command_text(program->pack)) : QString());
        wrong->hide();
    });
    QObject::connect(keep, &QPushButton::clicked, dialog, [=] {
        if (const auto kept = store->set_packer(name(), unpack->text().toStdString(), pack->text().toStdString()); !kept) {
            wrong->setText(to_text(kept.error().message()));
            wrong->show();
            return;
        }
        wrong->hide();
        fill();
    });
    fill();
    dialog->open();
    unpack->setFocus();
}

}  // namespace skivet::app
