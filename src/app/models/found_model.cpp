#include "app/models/found_model.h"

#include "app/models/pictures.h"
#include "container/texture_files.h"

namespace skivet::app {

FoundModel::FoundModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()) {
    connect(&store_, &ProjectStore::opened, this, [this] {
        if (looking_) looking_->cancel.cancel();
        looking_ = nullptr;
        installation_ = nullptr;
        ticks_.clear();
        pictures_.clear();
        fresh_ = 0;
        emit changed();
        look_for_news();
    });
}

void FoundModel::look_through(const std::filesystem::path& game) {
    if (store_.needs_project()) return;
    if (looking_) looking_->cancel.cancel();
    looking_ = jobs_.shown_progress(tr("Going through the game's folder"));
    installation_ = nullptr;
    ticks_.clear();
    emit changed();
    jobs_.run(
        Jobs::By::workers, this, tr("Going through the game's folder"),
        [this, self = QPointer<QObject>(this), context = store_.context(), game, progress = looking_] {
            return find_in_game(*context, game, *progress, [&](const Installation& so_far) {
                jobs_.tell(self, [this, progress = std::weak_ptr(progress), part = std::make_shared<const Installation>(so_far)] {
                    if (looking_ && progress.lock() == looking_) take_over(part);
                });
            });
        },
        [this, progress = std::weak_ptr(looking_)](Result<Installation> found) {
            if (!looking_ || progress.lock() != looking_) return;
            looking_ = nullptr;
            if (found) return take_over(std::make_shared<const Installation>(std::move(*found)));
            if (found.error().code != ErrorCode::canceled) messages_.complain(found.error());
            emit changed();
        });
}

void FoundModel::look_for_news() {
    const auto& project = store_.project();
    if (project.game.empty() || project.seen_places.empty()) return;
    auto progress = std::make_shared<Progress>();
    jobs_.end_with(progress->cancel);
    jobs_.run(
        Jobs::By::looker, this, {}, [context = store_.context(), project, progress] { return count_fresh(*context, project, *progress); },
        [this, of = project.folder](const Result<std::size_t>& fresh) {
            if (!fresh || store_.project().folder != of) return;
            fresh_ = *fresh;
            if (fresh_ > 0) emit changed();
        });
}

void FoundModel::take_over(std::shared_ptr<const Installation> installation) {
    installation_ = std::move(installation);
    emit changed();
}

Standing FoundModel::standing(std::size_t found) const { return standing_of(store_.project(), installation_->survey.found[found]); }

std::vector<bool> FoundModel::ticked() const {
    auto out = ticks(store_.project(), *installation_);
    for (std::size_t i = 0; i < out.size(); ++i)
        if (const auto own = ticks_.find(installation_->survey.found[i].path); own != ticks_.end()) out[i] = own->second;
    return out;
}

void FoundModel::tick(std::size_t found, bool on) {
    ticks_[installation_->survey.found[found].path] = on;
    emit changed();
}

std::vector<std::size_t> FoundModel::order() const {
    return installation_ ? in_order(store_.project(), *installation_, ticked()) : std::vector<std::size_t>();
}

std::vector<std::size_t> FoundModel::proposal() const {
    return in_order(store_.project(), *installation_, ticks(store_.project(), *installation_));
}

void FoundModel::take() {
    if (!installation_ || store_.needs_project()) return;
    const auto chosen = order();
    store_.change(tr("Sources of the game's folder"), [&](Project& p) {
        if (p.game.empty()) p.game = installation_->survey.root;
        take_sources(p, *installation_, chosen);
    });
    fresh_ = 0;
    emit taken();
    emit changed();
}

QImage FoundModel::picture(std::size_t found, std::size_t sample) {
    const auto& samples = installation_->survey.found[found].samples;
    if (sample >= samples.size()) return {};
    const auto key = samples[sample].text();
    if (const auto known = pictures_.find(key); known != pictures_.end()) return known->second;
    pictures_[key] = {};
    jobs_.run(
        Jobs::By::pictures, this, {},
        [context = store_.context(), address = samples[sample]]() -> QImage {
            const auto texture = open_texture_at(*context, address);
            if (!texture) return {};
            const auto small = thumbnail(*texture, thumbnail_side);
            return small ? to_qimage(*small) : QImage();
        },
        [this, key](const QImage& picture) {
            if (picture.isNull()) return;
            pictures_[key] = picture;
            emit picture_came();
        });
    return {};
}

}  // namespace skivet::app
