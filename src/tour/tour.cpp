#include "tour/tour.h"

#include <cmath>
#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPainterPath>
#include <QProcess>
#include <QPushButton>
#include <QTextStream>

#include "app/catalog_dialogs.h"
#include "app/dialogs.h"
#include "app/models/preferences.h"
#include "app/pages/bench_page.h"
#include "app/pages/catalog_page.h"
#include "app/pages/fitting_page.h"
#include "app/pages/try_on_panel.h"
#include "app/start_page.h"
#include "app/theme/theme.h"
#include "app/workshop/found_window.h"
#include "app/workshop/frame_window.h"
#include "app/workshop/parcels_window.h"
#include "app/workshop/raw_lens.h"
#include "app/workshop/sheet_workshop.h"
#include "app/workshop/sift_window.h"
#include "app/workshop/touch_window.h"

namespace skivet::app {
namespace {

/// A star painted onto the exported file and saved by way of a new file and a rename, as many paint programs do.
bool paint_star(const QString& file, double x = 0.36, const QColor& color = QColor(0xE0, 0xB0, 0x40)) {
    QImage image(file);
    if (image.isNull()) return false;
    image = image.convertToFormat(QImage::Format_RGBA8888);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath star;
    const QPointF center(image.width() * x, image.height() * 0.6);
    for (int i = 0; i < 10; ++i) {
        const double a = i * 3.14159265358979 / 5 - 3.14159265358979 / 2, r = image.width() * (i % 2 ? 0.05 : 0.12);
        const QPointF at(center.x() + r * std::cos(a), center.y() + r * std::sin(a));
        if (i == 0) star.moveTo(at);
        else star.lineTo(at);
    }
    star.closeSubpath();
    p.fillPath(star, color);
    p.end();
    const auto temporary = file + QStringLiteral(".new");
    return image.save(temporary, "PNG") && QFile::remove(file) && QFile::rename(temporary, file);
}

/// The same picture at another size and without alpha: two things the fit list must find.
bool spoil(const QString& file) {
    const QImage image(file);
    return !image.isNull() && image.scaled(200, 200).convertToFormat(QImage::Format_RGB888).save(file, "PNG");
}

}  // namespace

Tour::Tour(MainWindow* window, QString folder, std::function<void(int)> done)
    : QObject(window),
      main_(window),
      window_(window->workspace()),
      models_(window->models()),
      folder_(std::move(folder)),
      done_(std::move(done)) {
    poll_.setInterval(30);
    connect(&poll_, &QTimer::timeout, this, [this] {
        if (waited_.elapsed() > 60'000) {
            QTextStream(stderr) << "skivet: the tour got stuck before step " << step_ << '\n';
            poll_.stop();
            shot(QStringLiteral("stuck"));
            return done_(1);
        }
        // Quiet for a few rounds: pictures that were asked for while painting have arrived.
        settled_ = ready_() && !(main_->models() && main_->models()->jobs.busy()) ? settled_ + 1 : 0;
        if (settled_ < 8) return;
        poll_.stop();
        step();
    });
    QDir().mkpath(folder_);
    wait_for([this] { return models_->sources.ready(); });
}

void Tour::wait_for(std::function<bool()> ready) {
    ready_ = std::move(ready);
    settled_ = 0;
    waited_.start();
    poll_.start();
}

void Tour::shot(const QString& name) {
    const auto file = folder_ + '/' + name + QStringLiteral(".png");
    QWidget* shown = QApplication::activeModalWidget();
    (shown ? shown : main_)->grab().toImage().convertToFormat(QImage::Format_RGB888).save(file);
    QTextStream(stdout) << file << '\n';
}

std::size_t Tour::source_named(std::string_view name) const {
    const auto snapshot = models_->catalog.snapshot();
    for (std::size_t i = 0; i < snapshot->sources.size(); ++i)
        if (snapshot->sources[i].path.filename() == name) return i;
    return 0;
}

bool Tour::found_with_pictures() const {
    // Some archives have none to show: what asks for a key, or names everything by a hash.
    auto* model = models_->sources.found();
    const auto shown = [&](const Found& found) {
        return !found.samples.empty() && !model->picture(std::size_t(&found - model->installation()->survey.found.data()), 0).isNull();
    };
    if (model->looking() || models_->jobs.busy()) return false;
    const auto& found = model->installation()->survey.found;
    return std::any_of(found.begin(), found.end(), shown);
}

std::vector<std::size_t> Tour::textures_called(std::string_view name) const {
    std::vector<std::size_t> out;
    const auto snapshot = models_->catalog.snapshot();
    const auto& items = snapshot->catalog.items;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (const auto called = items[i].name(); items[i].is_texture() && called == name) out.push_back(i);
    return out;
}

QString Tour::parcel_file(const char* title) const {
    return folder_ + QStringLiteral("/../") + to_text(parcel_id(title)) + QStringLiteral(".parcel");
}

void Tour::make_parcel(const char* title, const QString& author) {
    MakeWish wish;
    wish.about.title = title;
    wish.about.id = parcel_id(title);
    wish.about.author = author.toStdString();
    wish.about.version = "1.0";
    wish.about.license = "CC-BY-4.0";
    wish.about.notes = "A star on the horse's side.";
    wish.pieces = {models_->bench.pieces()[1].id};
    models_->parcels.make(this, wish, [this, file = parcel_file(title)](Result<MadeParcel> made) {
        if (made) models_->parcels.write(std::make_shared<MadeParcel>(std::move(*made)), file.toStdString());
    });
}

void Tour::step() {
    const auto always = [] { return true; };
    const auto piece = [this]() -> const Piece* { return models_->bench.pieces().empty() ? nullptr : &models_->bench.pieces().front(); };
    switch (step_++) {
        case 0: {
            // It walks to things by their names in the demo.
            for (const char* name : {"midway.zip", "rides.crate", "organ.zip", "sideshow.bale", "cashbox.strongbox"}) {
                const auto snapshot = models_->catalog.snapshot();
                if (std::any_of(snapshot->sources.begin(), snapshot->sources.end(),
                                [&](const Source& s) { return s.path.filename() == name; }))
                    continue;
                QTextStream(stderr) << "skivet: the tour shows the demo, and this project has no " << name << ". ./run-demo makes it\n";
                return done_(2);
            }
            window_->go_to(PageId::sources);
            return wait_for(always);
        }
        case 1:
            shot(QStringLiteral("1-sources"));
            window_->go_to(PageId::catalog);
            return wait_for(always);
        case 2: {
            shot(QStringLiteral("2-catalog"));
            auto* viewer = window_->page<CatalogPage>()->viewer();
            for (const auto item : textures_called("horse_a_bump")) viewer->show_item(item);
            viewer->show_histogram(true);
            return wait_for(always);
        }
        case 3: {
            window_->page<CatalogPage>()->viewer()->set_channels(Channels::lit);
            return wait_for(always);
        }
        case 4: {
            auto* view = window_->page<CatalogPage>()->viewer()->view();
            QWheelEvent wheel(QPointF(view->width() * 0.4, view->height() * 0.4),
                              view->mapToGlobal(QPointF(view->width() * 0.4, view->height() * 0.4)), {}, {0, 360}, Qt::NoButton,
                              Qt::NoModifier, Qt::NoScrollPhase, false);
            QCoreApplication::sendEvent(view, &wheel);
            QMouseEvent move(QEvent::MouseMove, QPointF(view->width() * 0.4, view->height() * 0.4),
                             view->mapToGlobal(QPointF(view->width() * 0.4, view->height() * 0.4)), Qt::NoButton, Qt::NoButton,
                             Qt::NoModifier);
            QCoreApplication::sendEvent(view, &move);
            return wait_for(always);
        }
        case 5: {
            shot(QStringLiteral("7-viewer"));
            QEvent leave(QEvent::Leave);
            QCoreApplication::sendEvent(window_->page<CatalogPage>()->viewer()->view(), &leave);
            window_->page<CatalogPage>()->viewer()->show_histogram(false);
            window_->page<CatalogPage>()->viewer()->set_channels(Channels::alpha_over);
            std::vector<std::size_t> chosen;
            for (const auto* name : {"awning_red_tint", "horse_a_tint", "pipes", "bunting"})
                for (const auto item : textures_called(name)) chosen.push_back(item);
            models_->catalog.take(chosen, ExportAs::png);
            return wait_for([this, chosen] { return models_->bench.pieces().size() >= chosen.size(); });
        }
        case 6:
            window_->go_to(PageId::bench);
            QFile::copy(to_text(models_->store.project().work() / models_->bench.pieces()[1].file),
                        folder_ + QStringLiteral("/../horse.png"));
            if (!piece() || !paint_star(to_text(models_->store.project().work() / models_->bench.pieces()[1].file)) ||
                !paint_star(to_text(models_->store.project().work() / piece()->file)) ||
                !spoil(to_text(models_->store.project().work() / models_->bench.pieces()[3].file)))
                return done_(1);
            return wait_for([this] {
                const auto seen = [](const Piece& p) { return p.state == PieceState::fits || p.state == PieceState::needs_mend; };
                return std::count_if(models_->bench.pieces().begin(), models_->bench.pieces().end(), seen) == 3;
            });
        case 7: window_->page<BenchPage>()->choose_piece(models_->bench.pieces()[1].id); return wait_for(always);
        case 8:
            shot(QStringLiteral("3-bench"));
            window_->page<FittingPage>()->show_piece(models_->bench.pieces()[1].id);
            window_->go_to(PageId::fitting);
            return wait_for([this] { return models_->bench.pieces()[1].state == PieceState::fits; });
        case 9:
            shot(QStringLiteral("4-fitting"));
            window_->page<FittingPage>()->show_object(true);
            return wait_for([this] {
                const auto& scene = models_->try_on.pictures().scene();
                return scene.rays && scene.layout && !models_->try_on.flat().isNull() && models_->try_on.pictures().is_idle();
            });
        case 10: {
            auto* view = window_->page<FittingPage>()->try_on()->mesh_view();
            const QPointF at(view->width() * 0.45, view->height() * 0.45);
            QMouseEvent move(QEvent::MouseMove, at, view->mapToGlobal(at), Qt::NoButton, Qt::NoButton, Qt::NoModifier);
            QCoreApplication::sendEvent(view, &move);
            return wait_for([this] { return models_->try_on.pictures().is_idle(); });
        }
        case 11:
            shot(QStringLiteral("16-on-the-object"));
            window_->page<FittingPage>()->show_object(false);
            window_->page<FittingPage>()->show_piece(models_->bench.pieces()[3].id);
            return wait_for([this] { return models_->bench.pieces()[3].state == PieceState::needs_mend; });
        case 12:
            shot(QStringLiteral("6-needs-a-mend"));
            window_->go_to(PageId::delivery);
            models_->delivery.let_wait(
                {{{models_->store.project().game / "midway.zip", {"booths/ticket/ticket_child.dds"}}, "booths/ticket/ticket_kid.dds"}});
            return wait_for([this] { return models_->delivery.plan() && models_->delivery.plan()->change_count() == 1; });
        case 13:
            shot(QStringLiteral("5-delivery"));
            models_->delivery.deliver();
            return wait_for([piece] { return piece()->state == PieceState::delivered; });
        case 14: models_->delivery.undo_all(); return wait_for([this] { return models_->delivery.history().empty(); });
        case 15:
            window_->go_to(PageId::sources);
            show_found(window_, models_->sources.found(), models_->store.project().game);
            return wait_for([this] { return found_with_pictures(); });
        case 16:
            shot(QStringLiteral("19-found"));
            window_->findChild<FoundWindow*>()->reject();
            show_raw_lens(window_, &models_->sources, source_named("rides.crate"), 0);
            return wait_for([this] { return window_->findChild<RawLens*>() != nullptr; });
        case 17: {
            // The largest level of a panel is its last.
            const auto snapshot = models_->catalog.snapshot();
            const auto size = snapshot->sources[source_named("rides.crate")].container->entries()[0].size;
            Lens lens;
            lens.format = Format::BC3;
            lens.width = 512;
            lens.offset = size - std::uint64_t{512} * 512;
            window_->findChild<RawLens*>()->set_lens(lens);
            return wait_for([this] { return window_->findChild<RawLens*>()->settled(); });
        }
        case 18: {
            shot(QStringLiteral("9-raw-lens"));
            window_->findChild<RawLens*>()->reject();
            show_sheet_workshop(window_, &models_->sources, source_named("rides.crate"));
            return wait_for([this] { return window_->findChild<SheetWorkshop*>() != nullptr; });
        }
        case 19: {
            auto* workshop = window_->findChild<SheetWorkshop*>();
            for (auto* action : workshop->actions())
                if (action->shortcut() == QKeySequence(Qt::CTRL | Qt::Key_D)) action->trigger();
            return wait_for([workshop] { return workshop->settled() && !workshop->findChild<QPlainTextEdit*>()->toPlainText().isEmpty(); });
        }
        case 20: {
            auto* workshop = window_->findChild<SheetWorkshop*>();
            workshop->findChild<QTableView*>()->selectRow(9);
            return wait_for([workshop] { return workshop->settled(); });
        }
        case 21:
            shot(QStringLiteral("10-sheet-workshop"));
            window_->findChild<SheetWorkshop*>()->reject();
            show_sifting(window_, &models_->sources, source_named("organ.zip"));
            return wait_for([this] { return window_->findChild<SiftWindow*>() && window_->findChild<SiftWindow*>()->settled(); });
        case 22:
            window_->findChild<SiftWindow*>()->reject();
            window_->open_settings(SettingsPart::keys);
            return wait_for([] { return QApplication::activeModalWidget() != nullptr; });
        case 23:
            shot(QStringLiteral("13-settings"));
            static_cast<QDialog*>(QApplication::activeModalWidget())->reject();
            show_keys(window_, &models_->store);
            return wait_for([] {
                return QApplication::activeModalWidget() && QApplication::activeModalWidget()->objectName() == QLatin1String("keys");
            });
        case 24: {
            // The strongbox's key, as a person would put it in.
            auto* keys = QApplication::activeModalWidget();
            keys->findChild<QLineEdit*>("key_name")->setText(QStringLiteral("cashbox"));
            keys->findChild<QComboBox*>("key_how")->setCurrentIndex(2);
            keys->findChild<QLineEdit*>("key_value")->setText(to_text((models_->store.project().game / "cashbox key.txt").string()));
            keys->findChild<QPushButton*>("add_key")->click();
            return wait_for(
                [this] { return models_->sources.snapshot()->sources[source_named("cashbox.strongbox")].container != nullptr; });
        }
        case 25:
            static_cast<QDialog*>(QApplication::activeModalWidget())->reject();
            show_names(window_, &models_->sources);
            return wait_for([] {
                return QApplication::activeModalWidget() && QApplication::activeModalWidget()->objectName() == QLatin1String("names") &&
                       QApplication::activeModalWidget()->findChild<QListWidget*>()->count() > 0;
            });
        case 26: {
            static_cast<QDialog*>(QApplication::activeModalWidget())->reject();
            // The horse's harness in another color, and a little sharper.
            window_->go_to(PageId::bench);
            const auto horse = models_->bench.pieces()[1].id;
            models_->bench.touch({horse}, {"sharpen=0.6", "tint=#2f5fa8,mask:#9c2f38~0.22"}, false);
            auto* touch = new TouchWindow(window_, &models_->bench, {horse});
            touch->open();
            return wait_for([touch] { return !touch->after()->image().isNull(); });
        }
        case 27:
            shot(QStringLiteral("15-touch-up"));
            static_cast<QDialog*>(QApplication::activeModalWidget())->reject();
            models_->bench.touch({models_->bench.pieces()[1].id}, {}, false);
            window_->go_to(PageId::catalog);
            for (const auto item : textures_called("gate"))
                if (const int row = window_->page<CatalogPage>()->model()->row_of(item); row >= 0)
                    window_->page<CatalogPage>()->contact_sheet()->setCurrentIndex(window_->page<CatalogPage>()->model()->index(row));
            window_->page<CatalogPage>()->search()->setText(QStringLiteral("carousel"));
            return wait_for(always);
        case 28: {
            // The stand-in game records what it draws.
            const auto frame = to_text(models_->store.project().game / "frames" / "evening");
            if (QProcess::execute(QCoreApplication::applicationDirPath() + QStringLiteral("/fair-stall"),
                                  {to_text(models_->store.project().game), QStringLiteral("--frame"), frame}) != 0)
                return done_(1);
            auto* shown = new FrameWindow(window_, &models_->frame, &models_->try_on);
            shown->setModal(true);
            shown->show();
            models_->frame.open(frame.toStdString());
            return wait_for([this] { return models_->frame.record() != nullptr; });
        }
        case 29: {
            auto* view = window_->findChild<FrameWindow*>()->view();
            const QPointF at = view->place_of({420, 480});
            QMouseEvent press(QEvent::MouseButtonPress, at, view->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton, Qt::NoModifier);
            QCoreApplication::sendEvent(view, &press);
            return wait_for([this] {
                const auto& textures = models_->frame.record()->things[models_->frame.thing()].textures;
                return std::all_of(textures.begin(), textures.end(), [this](std::size_t t) { return models_->frame.found(t).looked; });
            });
        }
        case 30:
            shot(QStringLiteral("11-by-frame"));
            window_->findChild<FrameWindow*>()->reject();
            return wait_for(always);
        case 31: {
            window_->page<CatalogPage>()->search()->clear();
            // As captured from the screen: a part of the horse, smaller, in another light.
            for (const auto item : textures_called("horse_a_tint")) picture_ = models_->catalog.pictures().of(item);
            return wait_for(always);
        }
        case 32: {
            auto part = picture_.copy(picture_.width() / 5, picture_.height() / 8, picture_.width() * 3 / 5, picture_.height() * 3 / 5)
                            .convertToFormat(QImage::Format_RGB888)
                            .mirrored(true, false)
                            .scaled(90, 90);
            window_->page<CatalogPage>()->find_by(part, CatalogPage::tr("the pasted picture"));
            return wait_for([this] { return window_->page<CatalogPage>()->model()->rowCount() > 0; });
        }
        case 33: {
            shot(QStringLiteral("17-by-picture"));
            window_->page<CatalogPage>()->leave_hits();
            return wait_for([this] { return models_->bench.pieces()[1].state == PieceState::fits; });
        }
        case 34:
            // Two parcels of the same horse, as two people would make them.
            make_parcel("Golden star", QStringLiteral("E. Wick"));
            return wait_for([this] { return QFile::exists(parcel_file("Golden star")); });
        case 35: {
            const auto id = models_->bench.pieces()[1].id;
            // By somebody who does not have the golden one.
            const auto file = to_text(models_->store.project().work() / models_->bench.pieces()[1].file);
            if (!QFile::remove(file) || !QFile::copy(folder_ + QStringLiteral("/../horse.png"), file) ||
                !paint_star(file, 0.46, QColor(0x30, 0x70, 0xB0)))
                return done_(1);
            return wait_for([this, id, edit = models_->bench.piece(id)->edit()] { return models_->bench.piece(id)->edit() != edit; });
        }
        case 36:
            make_parcel("Blue star", QStringLiteral("M. Tallow"));
            return wait_for([this] { return QFile::exists(parcel_file("Blue star")); });
        case 37:
            models_->parcels.bring(parcel_file("Golden star").toStdString());
            return wait_for([this] { return models_->parcels.waits(); });
        case 38: models_->parcels.carry_out(); return wait_for([this] { return !models_->parcels.stack().empty(); });
        case 39: {
            auto* parcels = new ParcelsWindow(window_, &models_->parcels);
            parcels->setModal(true);
            parcels->show();
            parcels->bring(parcel_file("Blue star").toStdString());
            return wait_for([this, parcels] {
                const auto views = parcels->findChildren<ImageView*>();
                return models_->parcels.waits() &&
                       std::all_of(views.begin(), views.end(), [](const ImageView* v) { return !v->image().isNull(); });
            });
        }
        case 40:
            shot(QStringLiteral("14-parcels"));
            static_cast<QDialog*>(QApplication::activeModalWidget())->reject();
            models_->card.keep();
            return wait_for(always);
        case 41: {
            const auto pieces = models_->bench.pieces().size();
            models_->catalog.take(textures_called("horse_a_bump"), ExportAs::png);
            return wait_for([this, pieces] { return models_->bench.pieces().size() > pieces; });
        }
        case 42: {
            // A star that leans to the right and up, pressed into the horse's normal map.
            const auto& bump = models_->bench.pieces().back();
            if (!paint_star(to_text(models_->store.project().work() / bump.file), 0.36, QColor(0xB0, 0x90, 0xE0))) return done_(1);
            return wait_for([this] { return models_->bench.pieces().back().state == PieceState::fits; });
        }
        case 43:
            window_->page<FittingPage>()->show_piece(models_->bench.pieces().back().id);
            window_->go_to(PageId::fitting);
            return wait_for(always);
        case 44: {
            shot(QStringLiteral("20-normal-map"));
            models_->bench.put_away(models_->bench.pieces().back().id);
            // A second game, so that there is something to choose from.
            const auto crate = models_->store.project().game / "rides.crate";
            main_->open({(folder_ + QStringLiteral("/../Painted horses")).toStdString(), {}, {crate}, {}});
            return wait_for([this] { return main_->models()->sources.ready() && main_->models()->catalog.unseen() == 0; });
        }
        case 45: main_->models()->card.keep(); return wait_for(always);
        case 46:
            main_->show_start();
            return wait_for([this] {
                const auto& games = main_->start_page()->games();
                return games.size() == 2 && !games[0].picture.isNull() && !games[1].picture.isNull();
            });
        case 47: shot(QStringLiteral("12-start")); return wait_for(always);
        default: return done_(0);
    }
}

}  // namespace skivet::app
