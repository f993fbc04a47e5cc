// The catalog side of the session: filling the stock, looking at pictures, roles, twins, small pictures.
//
// A reload goes in steps that each replace what is shown as a whole: what the index remembers, then what is found while the archives are
// looked through (each stock is the beginning of the next), then the whole. After that one thread looks at the pictures nobody has seen
// yet, and the knowledge is made anew at growing distances while it does.
#include "app/models/session_catalog.h"

#include <malloc.h>
#include <chrono>
#include <QBuffer>
#include <QDateTime>

#include "base/file_write.h"
#include "base/text.h"
#include "catalog/usage.h"

namespace skivet::app {

namespace fs = std::filesystem;

SourceFacts facts_of(const Kinds& kinds, const Source& source) {
    SourceFacts out;
    std::error_code code;
    for (const auto& choice : kinds.choices)
        if (choice.pattern == source.path.string() || glob_match(choice.pattern, source.path.filename().string())) {
            out.chosen = choice.kind;
            break;
        }
    if (fs::is_regular_file(source.path, code))
        if (const auto view = FileView::open(source.path))
            if (const auto data = view->bytes()) {
                auto recognized = kinds;
                recognized.choices.clear();
                for (const auto& candidate : candidates(recognized, *data, data->size(), source.path.string()))
                    out.candidates.emplace_back(candidate.kind->name(), candidate.recognized.reason);
            }
    out.wants_key = source.error && source.error->code == ErrorCode::key;
    if (!source.container) return out;
    out.read_only = source.container->read_only();
    out.dead_bytes = source.container->dead_bytes();
    out.unnamed = source.container->unnamed();
    const auto& entries = source.container->entries();
    for (std::size_t i = 0; i < entries.size(); ++i) {
        if (!entries[i].encrypted) continue;
        const auto head = source.container->read_head(i, 16);
        out.wants_key = !head && head.error().code == ErrorCode::key;
        break;
    }
    return out;
}

RoleWishes wishes_of(const Project& project) {
    RoleWishes out;
    for (const auto& h : project.habits)
        if (const auto place = place_named(h.place); place && role_named(h.role))
            out.habits.push_back({*place, h.word, *role_named(h.role)});
    for (const auto& r : project.roles)
        if (const auto role = role_named(r.role)) out.textures[r.path] = *role;
    return out;
}

std::set<std::string> changed_by_us(const std::vector<Journal>& history) {
    std::set<std::string> out;
    for (const auto& journal : history)
        for (const auto& part : journal.parts)
            for (const auto& entry : part.entries) out.insert(lower(entry));
    return out;
}

std::vector<std::string> states_of_items(const Project& project, const Stock& stock, const Baseline* baseline,
                                         const std::set<std::string>& ours) {
    std::map<std::pair<fs::path, std::string>, std::string> states;
    for (const auto& piece : project.pieces) states[{piece.address.source, path_key(piece.address.inner)}] = name_of(piece.state);
    const auto shipped = baseline ? baseline->compare(stock.catalog, stock.sources) : std::vector<Shipped>();
    if (states.empty() && !baseline) return {};
    std::vector<std::string> out(stock.catalog.items.size());
    for (std::size_t i = 0; i < out.size(); ++i) {
        const auto& item = stock.catalog.items[i];
        if (!item.is_texture()) continue;
        if (const auto found = states.find({stock.sources[item.source].path, path_key(item.inner)}); found != states.end())
            out[i] = found->second;
        else if (i < shipped.size() && shipped[i] == Shipped::changed)
            out[i] = ours.contains(lower(item.path())) ? "changed by us" : "changed by someone else";
        else if (i < shipped.size()) out[i] = name_of(shipped[i]);
    }
    return out;
}

namespace {

std::shared_ptr<Knowledge> know(std::shared_ptr<const Stock> stock, std::vector<FactsPtr> facts, RoleWishes wishes,
                                const std::vector<std::string>& states, std::size_t unseen,
                                const std::map<std::string, std::vector<std::string>>& users = {}) {
    auto out = std::make_shared<Knowledge>();
    out->analysis = analyze_catalog(stock->catalog, std::move(facts), wishes, users);
    out->table = QueryTable::build(stock->catalog, stock->sources, out->analysis, states);
    out->wishes = std::move(wishes);
    out->stock = std::move(stock);
    out->unseen = unseen;
    return out;
}

void count_textures(Stock& stock) {
    stock.texture_counts.assign(stock.sources.size(), 0);
    for (const auto& item : stock.catalog.items) stock.texture_counts[item.source] += item.is_texture();
}

void add_facts(const Kinds& kinds, const Project& project, Stock& stock) {
    count_textures(stock);
    for (const auto& source : stock.sources) {
        stock.segments.push_back(source.container ? source.container->segments() : std::vector<Segment>());
        stock.facts.push_back(project.setting(source.path).off ? SourceFacts{} : facts_of(kinds, source));
    }
}

/// Placeholder values for a stock whose sources are not open yet.
void add_plain_facts(Stock& stock) {
    count_textures(stock);
    stock.segments.assign(stock.sources.size(), {});
    stock.facts.assign(stock.sources.size(), {});
}

std::map<fs::path, Shipped> what_became(const Baseline* baseline, const Project& project) {
    std::map<fs::path, Shipped> out;
    for (const auto& path : project.sources)
        if (baseline) out[path] = baseline->compare(path);
    return out;
}

std::vector<Source> open_those_on(const Kinds& kinds, const Project& project) {
    std::vector<Source> out;
    for (const auto& path : project.sources) {
        if (project.setting(path).off) out.push_back({path, nullptr, std::nullopt});
        else out.push_back(std::move(open_sources(kinds, std::span(&path, 1)).front()));
    }
    return out;
}

}  // namespace

void remember_stock(const Kinds& kinds, const Project& project, const IndexStore& index, std::shared_ptr<Stock>& stock,
                    std::shared_ptr<Knowledge>& knowledge) {
    std::vector<fs::path> on;
    for (const auto& path : project.sources)
        if (!project.setting(path).off) on.push_back(path);
    auto remembered = remember(kinds, on, index);
    if (remembered.catalog.items.empty()) return;
    stock = std::make_shared<Stock>();
    // Numbers of sources count those that are off, too.
    std::vector<std::size_t> place;
    for (std::size_t i = 0; i < project.sources.size(); ++i) {
        stock->sources.push_back({project.sources[i], nullptr, std::nullopt});
        if (!project.setting(project.sources[i]).off) place.push_back(i);
    }
    for (auto& item : remembered.catalog.items) item.source = place[item.source];
    stock->catalog = std::move(remembered.catalog);
    add_plain_facts(*stock);
    auto known = known_facts(stock->catalog, index);
    knowledge = know(stock, std::move(known.facts), wishes_of(project), states_of_items(project, *stock, nullptr, {}), known.todo.size());
}

RoleWishes Session::wishes() const { return wishes_of(project_); }

void Session::let_go(std::vector<std::shared_ptr<const void>> old) {
    // A hundred thousand entries take longer to free than the window's thread has.
    pool_.start([old = std::move(old)]() mutable {
        old.clear();
        ::malloc_trim(0);
    });
}

void Session::show_stock(std::shared_ptr<Stock> stock, std::shared_ptr<Knowledge> knowledge) {
    let_go({std::exchange(stock_, std::move(stock)), std::exchange(knowledge_, std::move(knowledge)), std::exchange(search_, nullptr)});
    emit sources_changed();
    emit catalog_changed();
}

void Session::reload() {
    cancel();
    progress_ = std::make_shared<Progress>();
    progress_timer_.start();
    const auto generation = ++generation_;
    thumbnails_.clear();
    thumbnails_pending_.clear();
    thumbnails_wanted_.clear();
    struct Loaded {
        std::shared_ptr<Stock> stock;
        std::shared_ptr<Knowledge> knowledge;
        std::map<fs::path, Shipped> became;
        bool canceled = false;
    };
    run(
        tr("Looking through the archives"),
        [this, kinds = kinds_, project = project_, progress = progress_, index = index_, generation,
         baseline = has_baseline_ ? baseline_ : nullptr, ours = changed_by_us(history_)] {
            Loaded out;
            out.stock = std::make_shared<Stock>();
            out.stock->sources = open_those_on(*kinds, project);
            auto last = std::chrono::steady_clock::now() - std::chrono::seconds(1);
            const auto so_far = [&](const Catalog& catalog) {
                // Not more often than somebody can look.
                if (std::chrono::steady_clock::now() - last < std::chrono::milliseconds(120)) return;
                auto partial = std::make_shared<Stock>();
                partial->sources = out.stock->sources;
                partial->catalog = catalog;
                add_plain_facts(*partial);
                auto knowledge = know(partial, {}, wishes_of(project), std::vector<std::string>(), 0);
                QMetaObject::invokeMethod(
                    this,
                    [this, partial, knowledge, generation] {
                        // What is shown already may be more: what was remembered stays until the whole is there.
                        if (generation == generation_ && partial->catalog.items.size() > stock_->catalog.items.size())
                            show_stock(partial, knowledge);
                    },
                    Qt::QueuedConnection);
                last = std::chrono::steady_clock::now();
            };
            auto catalog = build_indexed_catalog(*kinds, out.stock->sources, *index, *progress, so_far);
            out.canceled = !catalog;
            if (!catalog) return out;
            out.stock->catalog = std::move(*catalog);
            out.stock->whole = true;
            add_facts(*kinds, project, *out.stock);
            out.became = what_became(baseline.get(), project);
            auto known = known_facts(out.stock->catalog, *index);
            const auto users = users_of_textures(*kinds, out.stock->sources, out.stock->catalog, project.folder / "records", *progress);
            out.knowledge =
                know(out.stock, std::move(known.facts), wishes_of(project), states_of_items(project, *out.stock, baseline.get(), ours),
                     known.todo.size(), users ? *users : std::map<std::string, std::vector<std::string>>());
            return out;
        },
        [this, generation](Loaded loaded) {
            if (generation != generation_) return;
            progress_timer_.stop();
            progress_ = nullptr;
            ready_ = true;
            if (loaded.canceled)
                return say(
                    tr("Stopped looking through the archives. They are looked through again when the project is opened or its sources "
                       "change."));
            for (const auto& problem : loaded.stock->catalog.problems) say(QString::fromStdString(problem.message()));
            for (const auto& source : loaded.stock->sources)
                if (source.error) say(QString::fromStdString(source.error->message()));
            const bool unseen = loaded.knowledge->unseen > 0;
            became_ = std::move(loaded.became);
            show_stock(std::move(loaded.stock), std::move(loaded.knowledge));
            if (unseen) look_at_pictures();
            if (has_baseline_) complete_baseline();
        });
}

void Session::look_at_pictures() {
    looking_ = std::make_shared<Progress>();
    progress_timer_.start();
    ++running_;
    emit activity(tr("Looking at pictures"), 0, 0);
    looker_.start([this, kinds = kinds_, before = knowledge_, stock = stock_, index = index_, cache = cache_, looking = looking_,
                   generation = generation_, own = wishes(), project = project_, baseline = has_baseline_ ? baseline_ : nullptr,
                   ours = changed_by_us(history_)] {
        auto known = known_facts(stock->catalog, *index);
        auto unseen = known.todo.size();
        std::vector<ContentKey> contents(stock->catalog.items.size());
        std::mutex mutex;
        auto last = std::chrono::steady_clock::now();
        auto pause = std::chrono::milliseconds(500);
        const auto& users = before->analysis.users;
        const auto show = [&] {
            auto knowledge = know(stock, known.facts, own, states_of_items(project, *stock, baseline.get(), ours), unseen, users);
            QMetaObject::invokeMethod(
                this,
                [this, knowledge, generation] {
                    if (generation != generation_ || stock_ != knowledge->stock) return;
                    // Corrections made meanwhile stand above what was begun before them.
                    let_go({std::exchange(knowledge_, knowledge), std::exchange(search_, nullptr)});
                    if (knowledge->wishes.textures != wishes().textures || knowledge->wishes.habits != wishes().habits) know_again();
                    else emit knowledge_changed();
                },
                Qt::QueuedConnection);
        };
        const auto status = skivet::look_at_pictures(*kinds, stock->sources, stock->catalog, known.todo, *index, cache.get(), *looking,
                                                     [&](std::vector<LookedAt> seen) {
                                                         const std::lock_guard lock(mutex);
                                                         for (auto& s : seen) {
                                                             known.facts[s.item] = std::move(s.facts);
                                                             contents[s.item] = s.content;
                                                         }
                                                         unseen -= std::min(unseen, seen.size());
                                                         // Each is made at twice the distance of the one before, so that making them costs
                                                         // little of the whole.
                                                         if (std::chrono::steady_clock::now() - last < pause || looking->cancel.canceled())
                                                             return;
                                                         show();
                                                         last = std::chrono::steady_clock::now();
                                                         pause = std::min(pause * 2, std::chrono::milliseconds(8000));
                                                     });
        if (!looking->cancel.canceled()) {
            unseen = 0;
            (void)index->prune();  // what cannot be cleared away today can be tomorrow
        }
        // The contents that are known now belong to the stock: the baseline and the picture cache go by them.
        auto filled = std::make_shared<Stock>(*stock);
        for (std::size_t i = 0; i < contents.size(); ++i)
            if (!contents[i].empty()) filled->catalog.items[i].content = contents[i];
        if (baseline) (void)baseline->add_contents(filled->catalog, filled->sources);
        auto knowledge = know(filled, known.facts, own, states_of_items(project, *filled, baseline.get(), ours), unseen, users);
        QMetaObject::invokeMethod(
            this,
            [this, filled, knowledge, stock, generation] {
                if (generation != generation_ || stock_ != stock) return;
                let_go({std::exchange(stock_, filled), std::exchange(knowledge_, knowledge), std::exchange(search_, nullptr)});
                if (knowledge->wishes.textures != wishes().textures || knowledge->wishes.habits != wishes().habits) know_again();
                else emit knowledge_changed();
            },
            Qt::QueuedConnection);
        QMetaObject::invokeMethod(
            this,
            [this, looking, status] {
                --running_;
                if (looking_ == looking) {
                    looking_ = nullptr;
                    if (!progress_) progress_timer_.stop();
                }
                if (!status && status.error().code != ErrorCode::canceled) complain(status.error());
                if (running_ == 0) emit activity({}, 0, 0);
            },
            Qt::QueuedConnection);
    });
}

void Session::know_again() {
    run(
        tr("Sorting"),
        [stock = stock_, before = knowledge_, own = wishes(), project = project_, baseline = has_baseline_ ? baseline_ : nullptr,
         ours = changed_by_us(history_)] {
            return know(stock, before->analysis.facts, own, states_of_items(project, *stock, baseline.get(), ours), before->unseen,
                        before->analysis.users);
        },
        [this](std::shared_ptr<Knowledge> knowledge) {
            if (knowledge->stock != stock_) return;
            let_go({std::exchange(knowledge_, std::move(knowledge))});
            emit knowledge_changed();
        });
}

void Session::record_baseline() {
    if (!baseline_) return emit notice(tr("The project's baseline cannot be opened; the log says why."));
    run(
        tr("Recording what was shipped"),
        [baseline = baseline_, stock = stock_, sources = project_.sources] {
            return baseline->record(sources, stock->catalog, stock->sources);
        },
        [this](Status status) {
            if (!status) return complain(status.error());
            has_baseline_ = true;
            say(tr("The installation as it is now counts as shipped."));
            reload();  // and beside it the full hashes
        });
}

void Session::complete_baseline() {
    // Beside everything else, behind looking at pictures.
    looker_.start([this, baseline = baseline_, cancel = cancel_, project = project_] {
        Progress progress;
        progress.cancel = cancel;
        auto decided = baseline->complete(progress);
        auto became = decided && *decided ? what_became(baseline.get(), project) : std::map<fs::path, Shipped>();
        QMetaObject::invokeMethod(
            this,
            [this, decided, became] {
                if (!decided && decided.error().code != ErrorCode::canceled) complain(decided.error());
                if (became.empty()) return;
                became_ = became;
                emit sources_changed();
            },
            Qt::QueuedConnection);
    });
}

void Session::set_role(const std::vector<std::size_t>& items, Role role) {
    for (const auto item : items) {
        if (item >= stock_->catalog.items.size()) continue;
        const auto key = path_key(stock_->catalog.items[item].inner);
        std::erase_if(project_.roles, [&](const RoleChoice& r) { return r.path == key; });
        if (role != Role::unsure) project_.roles.push_back({key, std::string(token_of(role))});
    }
    save();
    know_again();
}

void Session::set_habit(const RoleHabit& habit) {
    const auto place = std::string(name_of(habit.place));
    std::erase_if(project_.habits, [&](const HabitChoice& h) { return h.place == place && h.word == habit.word; });
    project_.habits.push_back({place, habit.word, std::string(token_of(habit.role))});
    save();
    know_again();
}

void Session::forget_habit(const RoleHabit& habit) {
    const auto place = std::string(name_of(habit.place));
    std::erase_if(project_.habits, [&](const HabitChoice& h) { return h.place == place && h.word == habit.word; });
    save();
    know_again();
}

void Session::keep_search(const std::string& name, const CatalogQuery& query) {
    std::erase_if(project_.searches, [&](const KeptSearch& s) { return s.name == name; });
    KeptSearch kept{name, query.search, {}, {}};
    for (std::size_t f = 0; f < facet_count; ++f)
        for (const auto& value : query.chosen[f]) kept.chosen.emplace_back(name_of(static_cast<Facet>(f)), value);
    for (std::size_t t = 0; t < trait_count; ++t)
        if (query.traits[t]) kept.traits.emplace_back(name_of(static_cast<Trait>(t)));
    project_.searches.push_back(std::move(kept));
    save();
}

void Session::forget_search(const std::string& name) {
    std::erase_if(project_.searches, [&](const KeptSearch& s) { return s.name == name; });
    save();
}

void Session::relate(std::size_t item, std::function<void(const Relations&)> done) {
    run(
        tr("Comparing pictures"),
        [stock = stock_, knowledge = knowledge_, item] {
            Relations out;
            const auto& items = stock->catalog.items;
            if (item >= items.size() || knowledge->stock != stock) return out;
            const auto& analysis = knowledge->analysis;
            if (const auto set = analysis.set_of[item]; set != CatalogAnalysis::no_set)
                out.set.assign(analysis.sets[set].begin(), analysis.sets[set].end());
            const auto key = path_key(items[item].inner);
            for (std::size_t i = items.size(); i-- > 0;)
                if (i != item && items[i].source != items[item].source && items[i].path().size() == items[item].path().size() &&
                    path_key(items[i].inner) == key)
                    out.copies.push_back(i);
            out.alike = alike_to(comparables(stock->catalog, analysis.facts, false), item);
            std::erase_if(out.alike, [&](const AlikeTexture& a) {
                return std::find(out.copies.begin(), out.copies.end(), a.index) != out.copies.end();
            });
            if (out.alike.size() > 200) out.alike.resize(200);
            if (const auto users = analysis.users.find(key); users != analysis.users.end()) out.users = users->second;
            out.role = analysis.why(stock->catalog, item, knowledge->wishes);
            if (analysis.facts[item]) out.facts = *analysis.facts[item], out.seen = true;
            return out;
        },
        [done = std::move(done)](const Relations& relations) { done(relations); });
}

namespace {

Image from_qimage(const QImage& picture) {
    const auto rgba = picture.convertToFormat(QImage::Format_RGBA8888);
    Image out(std::uint32_t(rgba.width()), std::uint32_t(rgba.height()));
    for (int y = 0; y < rgba.height(); ++y)
        std::memcpy(out.texels.data() + std::size_t(y) * out.width, rgba.constScanLine(y), std::size_t(out.width) * 4);
    return out;
}

}  // namespace

void Session::find_picture(const QImage& picture, std::function<void(Result<std::vector<PictureHit>>)> done) {
    struct Found {
        std::shared_ptr<const PictureSearch> search;
        std::shared_ptr<const Knowledge> of;
        Result<std::vector<PictureHit>> hits;
    };
    run(
        tr("Looking for the picture"),
        [knowledge = knowledge_, search = search_, picture] {
            Found out{search, knowledge, std::vector<PictureHit>()};
            if (picture.isNull()) {
                out.hits = fail(ErrorCode::unsupported, "there is no picture in it");
                return out;
            }
            if (!out.search) out.search = std::make_shared<PictureSearch>(PictureSearch::build(knowledge->analysis.facts));
            out.hits = out.search->find(from_qimage(picture), 60);
            return out;
        },
        [this, done = std::move(done)](Found found) {
            if (found.of == knowledge_) search_ = found.search;
            done(std::move(found.hits));
        });
}

void Session::find_picture(const fs::path& file, std::function<void(Result<std::vector<PictureHit>>, QImage)> done) {
    run(
        tr("Reading pictures"),
        [file, kinds = kinds_]() -> Result<QImage> {
            SKIVET_TRY(auto bytes, read_file(file, 512u << 20));
            SKIVET_TRY(const auto edited, read_edited(std::move(bytes), kinds->limits, file.string()));
            return to_qimage(edited.image);
        },
        [this, done = std::move(done), file](Result<QImage> picture) {
            if (!picture) return done(fail(picture.error().within(file.filename().string())), {});
            find_picture(*picture, [done, picture = *picture](Result<std::vector<PictureHit>> hits) { done(std::move(hits), picture); });
        });
}

QString Session::thumbnail_key(std::size_t item) const {
    const auto& entry = stock_->catalog.items[item];
    return QString::fromStdString(stock_->sources[entry.source].path.string() + "::" + path_key(entry.inner));
}

QImage Session::thumbnail(std::size_t item) {
    if (item >= stock_->catalog.items.size()) return {};
    const auto key = thumbnail_key(item);
    if (const auto* image = thumbnails_.object(key)) return *image;
    if (thumbnails_pending_.contains(key)) return {};
    thumbnails_pending_.insert(key);
    thumbnails_wanted_.push_back(item);
    // Somebody who scrolls through thousands wants those where he stops.
    while (thumbnails_wanted_.size() > 300) {
        thumbnails_pending_.remove(thumbnail_key(thumbnails_wanted_.front()));
        thumbnails_wanted_.pop_front();
    }
    load_thumbnails();
    return {};
}

void Session::load_thumbnails() {
    while (thumbnails_running_ < 2 && !thumbnails_wanted_.isEmpty()) {
        const auto item = thumbnails_wanted_.takeLast();
        if (item >= stock_->catalog.items.size()) continue;
        ++thumbnails_running_;
        ++running_;
        pictures_.start([this, kinds = kinds_, stock = stock_, cache = cache_, item, key = thumbnail_key(item), generation = generation_] {
            const auto& entry = stock->catalog.items[item];
            QImage image;
            bool later = false;
            if (cache && !entry.content.empty())
                if (const auto kept = cache->find(entry.content)) image = to_qimage(*kept);
            if (image.isNull() && !stock->sources[entry.source].container) later = true;  // not open yet
            else if (image.isNull()) {
                if (const auto texture = skivet::open_texture(*kinds, stock->sources[entry.source], entry))
                    if (const auto small = skivet::thumbnail(*texture, thumbnail_side)) {
                        image = to_qimage(*small);
                        const auto content = content_key(texture->file);
                        if (cache && !entry.content.empty())
                            (void)cache->put(std::vector{KeptPicture{content, *small, {}, Format::unknown}});  // otherwise the index will
                    }
            }
            QMetaObject::invokeMethod(
                this,
                [this, image, later, item, key, generation, stock]() mutable {
                    --thumbnails_running_;
                    --running_;
                    if (running_ == 0) emit activity({}, 0, 0);
                    if (generation == generation_) {
                        thumbnails_pending_.remove(key);
                        if (image.isNull() && !later) {  // cannot be shown: a plain field, and the reason is in the facts
                            image = QImage(64, 64, QImage::Format_RGBA8888);
                            image.fill(QColor(0x60, 0x60, 0x60));
                        }
                        if (!image.isNull()) {
                            thumbnails_.insert(key, new QImage(image), std::max<qsizetype>(1, image.sizeInBytes() / 1024));
                            if (stock == stock_ || item < stock_->catalog.items.size()) emit thumbnail_ready(item);
                        }
                    }
                    load_thumbnails();
                },
                Qt::QueuedConnection);
        });
    }
}

}  // namespace skivet::app
