#include "app/models/shipped_model.h"

#include "app/models/pictures.h"
#include "container/texture_files.h"

namespace skivet::app {

namespace {

constexpr unsigned picture_side = 512;

}  // namespace

ShippedModel::ShippedModel(SourcesModel& sources, const CatalogModel& catalog, QObject* parent)
    : QObject(parent), sources_(sources), catalog_(catalog), store_(sources.store()), jobs_(store_.jobs()), messages_(store_.messages()) {}

void ShippedModel::look_when_known() {
    if (!store_.has_baseline() || !sources_.ready() || !catalog_.snapshot()->whole || catalog_.unseen() > 0) return;
    // Roles and states that changed are nothing new here.
    if (looked_at_.lock() != catalog_.snapshot() || deliveries_ != store_.history().size()) look();
}

void ShippedModel::look() {
    if (store_.has_baseline() && !catalog_.snapshot()->whole) {
        // All that is not listed yet would be gone.
        connect(&catalog_, &CatalogModel::catalog_changed, this, &ShippedModel::look,
                Qt::ConnectionType(Qt::UniqueConnection | Qt::SingleShotConnection));
        return;
    }
    looked_at_ = catalog_.snapshot();
    deliveries_ = store_.history().size();
    jobs_.run(
        this, tr("Comparing with what was shipped"),
        [project = store_.shared(), baseline = store_.has_baseline() ? store_.baseline() : nullptr, vault = store_.vault(),
         snapshot = catalog_.snapshot(), history = store_.history(), unseen = catalog_.unseen()] {
            auto out = std::make_shared<Seen>();
            static_cast<SeenVersions&>(*out) = look_at_versions(*project, baseline.get(), vault, *snapshot, history);
            out->unseen = unseen;
            return out;
        },
        [this, request = ++requests_](std::shared_ptr<Seen> seen) {
            if (request != requests_) return;
            if (seen_ && seen_->now && seen->now && seen_->versions[*seen_->now] == seen->versions[*seen->now] &&
                seen->changes.size() > seen_->changes.size())
                messages_.tell(tr("%1 of the game's textures were changed by something else. Sources says which.")
                                   .arg(seen->changes.size() - seen_->changes.size()));
            seen_ = std::move(seen);
            emit changed();
        });
}

void ShippedModel::take_over(Result<std::shared_ptr<Baseline>> baseline) {
    if (!baseline) return messages_.complain(baseline.error());
    store_.set_baseline(std::move(*baseline));
    sources_.reload();  // and beside it the full hashes
    look();
}

void ShippedModel::record(const QString& name) {
    if (store_.needs_project()) return;
    if (!catalog_.snapshot()->whole)
        return messages_.tell(tr("The game was not looked through to its end yet, so there is nothing whole to record."));
    struct Recorded {
        std::vector<ShippedVersion> before;
        std::string file;
        Result<std::shared_ptr<Baseline>> baseline = nullptr;
    };
    jobs_.run(
        this, tr("Recording what was shipped"),
        [project = store_.shared(), snapshot = catalog_.snapshot(), name = name.toStdString()] {
            auto out = std::make_shared<Recorded>();
            out->before = shipped_versions(*project);
            out->file = baseline_for(*project, name);
            out->baseline = record_shipped(*project, out->file, *snapshot);
            return out;
        },
        [this, name](const std::shared_ptr<Recorded>& done) {
            if (done->baseline) {
                store_.change([&](Project& p) { note_recorded(p, done->before, done->file, name.toStdString(), now()); });
                messages_.say(tr("The installation as it is now counts as shipped."));
            }
            take_over(std::move(done->baseline));
        });
}

void ShippedModel::compare_with(std::size_t version) {
    if (!seen_ || version >= seen_->versions.size() || store_.needs_project()) return;
    bool there = false;
    store_.change([&](Project& p) { there = skivet::compare_with(p, seen_->versions, seen_->versions[version].baseline); });
    if (!there) return;
    jobs_.run(
        this, {}, [file = store_.project().baseline()] { return Baseline::open(file); },
        [this](Result<std::shared_ptr<Baseline>> baseline) { take_over(std::move(baseline)); });
}

void ShippedModel::forget(std::size_t version) {
    if (!seen_ || version >= seen_->versions.size() || store_.needs_project()) return;
    const auto file = seen_->versions[version].baseline;
    bool gone = false;
    store_.change([&](Project& p) { gone = forget_version(p, seen_->versions, file); });
    if (!gone) return messages_.tell(tr("It is the version that is compared with. Compare with another one first."));
    jobs_.quietly(Jobs::By::writer, [project = store_.shared(), file] { remove_baseline(*project, file); });  // behind the saved project
    look();
}

void ShippedModel::pictures(QObject* asker, std::size_t change, std::function<void(QImage, QImage)> then) {
    if (!seen_ || change >= seen_->changes.size()) return;
    jobs_.run(
        asker, {},
        [context = store_.context(), cache = store_.cache(), one = seen_->changes[change]] {
            std::pair<QImage, QImage> out;
            if (cache && !one.before.empty())
                if (const auto kept = cache->find(one.before)) out.first = to_qimage(*kept);
            if (!one.now.empty())
                if (const auto texture = open_texture_at(*context, {one.source, one.inner}))
                    if (const auto image = skivet::thumbnail(*texture, picture_side)) out.second = to_qimage(*image);
            return out;
        },
        [then = std::move(then)](std::pair<QImage, QImage> made) { then(std::move(made.first), std::move(made.second)); });
}

}  // namespace skivet::app
