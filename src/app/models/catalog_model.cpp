#include "app/models/catalog_model.h"

#include "app/models/pictures.h"
#include "base/file_write.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "bench/fitting.h"
#include "pixel/alpha_use.h"
#include "workflow/kin.h"

#include <set>

namespace skivet::app {

namespace fs = std::filesystem;

CatalogModel::CatalogModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()), pictures_(store) {
    connect(&store_, &ProjectStore::pieces_changed, this, &CatalogModel::states_changed);
    connect(&store_, &ProjectStore::stepped, this, [this](const StepEffect& effect) {
        if (effect.words) analyze_again();
    });
}

std::optional<PieceState> CatalogModel::state_of(std::size_t item) const {
    if (store_.project().pieces.empty()) return std::nullopt;
    const auto* piece = store_.piece_of(address_at(item));
    return piece ? std::optional(piece->state) : std::nullopt;
}

Address CatalogModel::address_at(std::size_t item) const {
    const auto& entry = snapshot()->catalog.items[item];
    return address_of(snapshot()->sources[entry.source], entry);
}

void CatalogModel::replace(std::shared_ptr<const AnalyzedCatalog> catalog) {
    auto old = pictures_.set_snapshot(catalog->snapshot);
    jobs_.let_go({std::move(old), std::exchange(catalog_, std::move(catalog)), std::exchange(search_, nullptr)});
}

void CatalogModel::show(std::shared_ptr<const AnalyzedCatalog> catalog) {
    replace(std::move(catalog));
    emit catalog_changed();
    if (catalog_->snapshot->whole && catalog_->unseen > 0) measure_pictures();
}

bool CatalogModel::out_of_date(const AnalyzedCatalog& catalog) const {
    const auto now_wanted = wishes_of(store_.project());
    return catalog.wishes.textures != now_wanted.textures || catalog.wishes.habits != now_wanted.habits;
}

void CatalogModel::measure_pictures() {
    if (const auto halted = jobs_.id_of(looking_)) jobs_.cancel(*halted);
    // Halted, it ends: what was seen is in the index, and the next one goes on from there. A thread that waited would keep others waiting.
    looking_ = jobs_.shown_progress(tr("Looking at pictures"), [this](bool halt) {
        if (halt) looking_->cancel.cancel();
        else if (catalog_->snapshot->whole && catalog_->unseen > 0) measure_pictures();
    });
    struct Seen {
        std::shared_ptr<const AnalyzedCatalog> catalog;
        std::optional<Error> problem;
    };
    // Corrections made meanwhile stand above what was begun before them.
    const auto take_over = [this](const std::shared_ptr<const AnalyzedCatalog>& catalog) {
        replace(catalog);
        if (out_of_date(*catalog)) analyze_again();
        else emit analysis_changed();
    };
    jobs_.run(
        Jobs::By::looker, this, tr("Looking at pictures"),
        [this, self = QPointer<QObject>(this), context = store_.context(), analysis = store_.analysis_context(), before = catalog_,
         index = store_.index(), cache = store_.cache(), progress = looking_, take_over] {
            Seen out;
            const auto so_far = [&](const std::shared_ptr<const AnalyzedCatalog>& catalog) {
                jobs_.tell(self, [this, catalog, before, take_over] {
                    if (snapshot() == before->snapshot) take_over(catalog);
                });
            };
            out.catalog = measure_unseen(*context, analysis(), *before, *index, cache.get(), *progress, so_far, out.problem);
            return out;
        },
        [this, take_over, before = catalog_->snapshot, progress = std::weak_ptr(looking_)](Seen seen) {
            if (const auto mine = progress.lock(); mine == looking_ && !mine->cancel.canceled()) looking_ = nullptr;
            if (seen.problem) messages_.complain(*seen.problem);
            if (snapshot() == before) take_over(seen.catalog);
        });
}

void CatalogModel::analyze_again() {
    jobs_.run(
        this, tr("Sorting"),
        [before = catalog_, analysis = store_.analysis_context()] { return skivet::analyze_again(*before, analysis()); },
        [this](std::shared_ptr<const AnalyzedCatalog> catalog) {
            if (catalog->snapshot != snapshot()) return;
            replace(std::move(catalog));
            emit analysis_changed();
        });
}

void CatalogModel::set_role(const std::vector<std::size_t>& items, Role role) {
    store_.change(tr("A role"), [&](Project& p) {
        for (const auto item : items) {
            if (item >= snapshot()->catalog.items.size()) continue;
            const auto key = path_key(snapshot()->catalog.items[item].inner);
            std::erase_if(p.roles, [&](const RoleChoice& r) { return r.path == key; });
            if (role != Role::unsure) p.roles.push_back({key, std::string(token_of(role))});
        }
    });
    analyze_again();
}

void CatalogModel::set_habit(const RoleHabit& habit) {
    const auto place = std::string(name_of(habit.place));
    store_.change(tr("A naming habit"), [&](Project& p) {
        std::erase_if(p.habits, [&](const HabitChoice& h) { return h.place == place && h.word == habit.word; });
        p.habits.push_back({place, habit.word, std::string(token_of(habit.role))});
    });
    analyze_again();
}

void CatalogModel::forget_habit(const RoleHabit& habit) {
    const auto place = std::string(name_of(habit.place));
    store_.change(tr("Forget a naming habit"), [&](Project& p) {
        std::erase_if(p.habits, [&](const HabitChoice& h) { return h.place == place && h.word == habit.word; });
    });
    analyze_again();
}

void CatalogModel::keep_search(const std::string& name, const CatalogQuery& query) {
    KeptSearch kept{name, query.search, {}, {}};
    for (std::size_t f = 0; f < facet_count; ++f)
        for (const auto& value : query.chosen[f]) kept.chosen.emplace_back(name_of(static_cast<Facet>(f)), value);
    for (std::size_t t = 0; t < trait_count; ++t)
        if (query.traits[t]) kept.traits.emplace_back(name_of(static_cast<Trait>(t)));
    store_.change(tr("Keep a search"), [&](Project& p) {
        std::erase_if(p.searches, [&](const KeptSearch& s) { return s.name == name; });
        p.searches.push_back(std::move(kept));
    });
}

void CatalogModel::forget_search(const std::string& name) {
    store_.change(tr("Forget a search"),
                  [&](Project& p) { std::erase_if(p.searches, [&](const KeptSearch& s) { return s.name == name; }); });
}

void CatalogModel::relate(std::size_t item, std::function<void(const Relations&)> done) {
    jobs_.run(
        this, tr("Comparing pictures"), [catalog = catalog_, item] { return relations_of(*catalog, item); },
        [done = std::move(done)](const Relations& relations) { done(relations); });
}

void CatalogModel::find_picture(const QImage& picture, std::function<void(Result<std::vector<PictureHit>>)> done) {
    struct Found {
        std::shared_ptr<const PictureSearch> search;
        std::shared_ptr<const AnalyzedCatalog> of;
        Result<std::vector<PictureHit>> hits;
    };
    jobs_.run(
        this, tr("Looking for the picture"),
        [catalog = catalog_, search = search_, picture] {
            Found out{search, catalog, std::vector<PictureHit>()};
            if (picture.isNull()) {
                out.hits = fail(ErrorCode::unsupported, "there is no picture in it");
                return out;
            }
            if (!out.search) out.search = std::make_shared<PictureSearch>(PictureSearch::build(catalog->analysis.facts));
            out.hits = out.search->find(from_qimage(picture), 60);
            return out;
        },
        [this, done = std::move(done)](Found found) {
            if (found.of == catalog_) search_ = found.search;
            done(std::move(found.hits));
        });
}

void CatalogModel::find_picture(const fs::path& file, std::function<void(Result<std::vector<PictureHit>>, QImage)> done) {
    jobs_.run(
        this, tr("Reading pictures"),
        [file, context = store_.context()]() -> Result<QImage> {
            SKIVET_TRY(auto bytes, read_file(file, 512u << 20));
            SKIVET_TRY(const auto edited, read_edited(std::move(bytes), context->limits, file.string()));
            return to_qimage(edited.image);
        },
        [this, done = std::move(done), file](Result<QImage> picture) {
            if (!picture) return done(fail(picture.error().within(file.filename().string())), {});
            find_picture(*picture, [done, picture = *picture](Result<std::vector<PictureHit>> hits) { done(std::move(hits), picture); });
        });
}

void CatalogModel::open_texture(std::size_t item, std::function<void(std::shared_ptr<const OpenTexture>)> done) {
    jobs_.run(
        this, tr("Opening a texture"),
        [context = store_.context(), snapshot = snapshot(), item] {
            auto out = std::make_shared<OpenTexture>();
            if (item >= snapshot->catalog.items.size()) return out;
            const auto& entry = snapshot->catalog.items[item];
            auto texture = skivet::open_texture(*context, snapshot->sources[entry.source], entry);
            if (texture) out->texture = std::move(*texture);
            else out->error = std::move(texture).error();
            return out;
        },
        [done = std::move(done)](std::shared_ptr<OpenTexture> opened) { done(std::move(opened)); });
}

bool CatalogModel::may_take(std::vector<std::size_t>& textures) {
    const auto is_foreign = [&](std::size_t item) { return item < catalog_->foreign.size() && catalog_->foreign[item]; };
    const auto foreign = std::count_if(textures.begin(), textures.end(), is_foreign);
    if (foreign == 0) return !textures.empty();
    const auto first = to_text_of(*std::find_if(textures.begin(), textures.end(), is_foreign));
    const auto which = foreign == 1
                           ? tr("%1 is not as shipped: something else changed it.").arg(first)
                           : tr("%L1 of them are not as shipped, %2 among them: something else changed them.").arg(foreign).arg(first);
    if (!store_.project().only_as_shipped) {
        messages_.tell(which);
        return true;
    }
    std::erase_if(textures, is_foreign);
    messages_.tell(which + ' ' + tr("They stay: the project takes only what is as shipped."));
    return !textures.empty();
}

QString CatalogModel::to_text_of(std::size_t item) const { return QString::fromStdString(path_of(item)); }

void CatalogModel::take(const std::vector<std::size_t>& items, const TakeAs& as, bool copies) {
    std::vector<std::size_t> textures;
    for (const auto item : items)
        if (item < snapshot()->catalog.items.size() && snapshot()->catalog.items[item].is_texture()) textures.push_back(item);
    if (!may_take(textures)) return;
    if (!copies) {
        std::vector<TakeWith> wanted;
        wanted.reserve(textures.size());
        for (const auto item : textures) wanted.push_back({address_at(item)});
        return emit this->wanted(wanted, as);
    }
    jobs_.run(
        this, tr("Looking for copies"), [catalog = catalog_, textures = std::move(textures)] { return with_copies(*catalog, textures); },
        [this, as](const std::vector<TakeWith>& wanted) { emit this->wanted(wanted, as); });
}

std::string CatalogModel::path_of(std::size_t item) const {
    return item < snapshot()->catalog.items.size() ? address_at(item).inner.back() : std::string();
}

void CatalogModel::take_variant(std::size_t item, const std::string& path) {
    if (item < snapshot()->catalog.items.size()) emit variant_wanted(address_at(item), path);
}

void CatalogModel::rename(std::size_t item, const std::string& path) {
    if (item < snapshot()->catalog.items.size()) emit changes_wanted({{address_at(item), path}});
}

void CatalogModel::take_out(const std::vector<std::size_t>& items) {
    std::vector<EntryChange> changes;
    for (const auto item : items)
        if (item < snapshot()->catalog.items.size()) changes.push_back({address_at(item), {}});
    if (!changes.empty()) emit changes_wanted(changes);
}

void CatalogModel::take_with_copies(std::size_t item, const Relations& relations) {
    if (item >= snapshot()->catalog.items.size()) return;
    TakeWith wanted{address_at(item)};
    for (const auto& alike : relations.alike)
        if (alike.likeness != Likeness::variant && snapshot()->catalog.items[alike.index].effective)
            wanted.followers.push_back(address_at(alike.index));
    if (wanted.followers.empty()) messages_.tell(tr("No other texture shows the same picture; it goes to the bench alone."));
    emit this->wanted({wanted}, {});
}

std::vector<std::size_t> CatalogModel::with_sets(const std::vector<std::size_t>& items) const {
    std::vector<std::size_t> out;
    std::set<std::size_t> there;
    const auto add = [&](std::size_t item) {
        if (there.insert(item).second) out.push_back(item);
    };
    const auto& analysis = catalog_->analysis;
    for (const auto item : items) {
        if (item >= analysis.set_of.size()) continue;
        add(item);
        if (const auto set = analysis.set_of[item]; set != CatalogAnalysis::no_set)
            for (const auto member : analysis.sets[set]) add(member);
    }
    return out;
}

void CatalogModel::look_at_alpha(QObject* asker, std::size_t item, std::uint32_t side, std::function<void(Result<AlphaLook>)> done) {
    if (item >= snapshot()->catalog.items.size()) return;
    jobs_.run(
        Jobs::By::pictures, asker, tr("Reading pictures"),
        [snapshot = snapshot(), item, side, context = store_.context()]() -> Result<AlphaLook> {
            const auto& entry = snapshot->catalog.items[item];
            SKIVET_TRY(const auto texture, skivet::open_texture(*context, snapshot->sources[entry.source], entry));
            SKIVET_TRY(auto small, small_picture(texture, side));
            auto& image = small.image;
            AlphaLook out{texture.layout.desc, {}, {}, {}};
            if (info(out.desc.format).has_alpha) {
                // What a small level shows of a cut-out is blurred.
                SKIVET_TRY(const auto level, texture.decode(0));
                out.words = QString::fromStdString(describe(alpha_facts(level)));
                Image gray(image.width, image.height);
                const std::size_t channel = small.normals && small.normals->x == 3 ? 0 : 3;  // with Z it is seen in red
                for (std::size_t i = 0; i < image.texels.size(); ++i) {
                    const auto a = image.texels[i][channel];
                    image.texels[i][3] = 255;
                    gray.texels[i] = {a, a, a, 255};
                }
                out.alpha = to_qimage(gray);
            }
            out.color = to_qimage(image);
            return out;
        },
        [done = std::move(done)](Result<AlphaLook> made) { done(std::move(made)); });
}

void CatalogModel::export_items(const std::vector<std::size_t>& items, const ExportWish& wish, const fs::path& to, bool force,
                                std::function<void(const Result<ExportReport>&)> done) {
    if (exporting_) return messages_.tell(tr("An export is running already."));
    exporting_ = std::make_shared<ExportProgress>();
    jobs_.end_with(exporting_->cancel);
    jobs_.show_work(tr("Exporting"), exporting_, [progress = std::weak_ptr(exporting_)](bool halt) {
        if (const auto now = progress.lock()) halt ? now->gate.pause() : now->gate.go_on();
    });
    jobs_.run(
        this, tr("Exporting"),
        [context = store_.context(), catalog = catalog_, items, wish, to, force, progress = exporting_] {
            const auto& snapshot = *catalog->snapshot;
            const auto sources = std::shared_ptr<const std::vector<Source>>(catalog, &snapshot.sources);
            std::vector<ExportItem> list;
            for (const auto i : items) {
                if (i >= snapshot.catalog.items.size() || !snapshot.catalog.items[i].is_texture()) continue;
                const bool in_sets = wish.shape == FolderShape::per_set;
                list.push_back(export_item(*context, sources, snapshot.catalog.items[i],
                                           in_sets ? set_folder(snapshot.catalog, catalog->analysis, i) : std::string()));
            }
            return run_export(list, wish, to, *progress, 0, force);
        },
        [this, to, done = std::move(done)](const Result<ExportReport>& report) {
            exporting_ = nullptr;
            if (report) {
                messages_.say(tr("Exported to %1: %L2 written, %L3 there already, %L4 failed")
                                  .arg(QString::fromStdString(to.string()))
                                  .arg(report->written)
                                  .arg(report->skipped)
                                  .arg(report->failed.size()));
                for (const auto& failure : report->failed) messages_.say(QString::fromStdString(failure.error.message()));
            } else {
                messages_.say(QString::fromStdString(report.error().message()));
            }
            done(report);
        });
}

void CatalogModel::write_aside(const std::vector<std::size_t>& items, ExportAs as,
                               std::function<void(Result<std::vector<fs::path>>)> done) {
    auto progress = std::make_shared<ExportProgress>();
    jobs_.show_work(tr("Writing files to drag"), progress);
    jobs_.end_with(progress->cancel);
    jobs_.run(
        this, tr("Writing files to drag"),
        [context = store_.context(), catalog = catalog_, items, as, progress]() -> Result<std::vector<fs::path>> {
            const auto& snapshot = *catalog->snapshot;
            const auto sources = std::shared_ptr<const std::vector<Source>>(catalog, &snapshot.sources);
            std::vector<ExportItem> list;
            for (const auto i : items)
                if (list.size() < most_aside && i < snapshot.catalog.items.size() && snapshot.catalog.items[i].is_texture())
                    list.push_back(export_item(*context, sources, snapshot.catalog.items[i], {}));
            sweep_leftovers();
            std::error_code code;
            const auto folder = folder_for_dragging() / unguessable();
            ExportWish wish;
            wish.as = as;
            wish.shape = FolderShape::flat;
            SKIVET_TRY(const auto report, run_export(list, wish, folder, *progress));
            if (report.written == 0 && !report.failed.empty()) return fail(report.failed.front().error);
            std::vector<fs::path> out;
            for (const auto& name : plan_export(list, wish).names)
                if (fs::exists(folder / name, code)) out.push_back(folder / name);
            if (out.empty()) return fail(ErrorCode::missing, said("nothing that is chosen is a texture"));
            return out;
        },
        [done = std::move(done)](Result<std::vector<fs::path>> files) { done(std::move(files)); });
}

}  // namespace skivet::app
