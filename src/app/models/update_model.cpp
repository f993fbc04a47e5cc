#include "app/models/update_model.h"

#include "app/models/pictures.h"
#include "codec/paint_form.h"

namespace skivet::app {
namespace {

/// Of the sources, and of what lies in those that are folders.
std::map<std::filesystem::path, FileStamp> stamps_of(const std::vector<std::filesystem::path>& sources) {
    std::map<std::filesystem::path, FileStamp> out;
    std::error_code code;
    const auto note = [&](const std::filesystem::path& file) {
        if (const auto stamp = stamp_of(file)) out[file] = *stamp;
    };
    for (const auto& source : sources) {
        if (!std::filesystem::is_directory(source, code)) {
            note(source);
            continue;
        }
        constexpr std::size_t most = 200'000;
        std::size_t count = 0;
        for (std::filesystem::recursive_directory_iterator item(source, std::filesystem::directory_options::skip_permission_denied, code),
             end;
             !code && item != end && count < most; item.increment(code), ++count)
            if (item->is_regular_file(code)) note(item->path());
    }
    return out;
}

}  // namespace

UpdateModel::UpdateModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()) {
    connect(&store_, &ProjectStore::opened, this, [this] { look(); });
    // What we write ourselves is no change by others.
    connect(&store_, &ProjectStore::history_changed, this, [this] {
        jobs_.run(
            Jobs::By::looker, this, {}, [sources = store_.project().sources] { return stamps_of(sources); },
            [this](Stamps now) {
                stamps_ = std::move(now);
                if (update_) look();
            });
    });
}

void UpdateModel::look_if_changed() {
    // What we write ourselves is half there while it is written.
    if (!store_.is_open() || writing_ || jobs_.busy()) return;
    jobs_.run(
        Jobs::By::looker, this, {}, [sources = store_.project().sources] { return stamps_of(sources); },
        [this](Stamps now) {
            const bool first = stamps_.empty(), other = now != stamps_;
            stamps_ = std::move(now);
            if (!first && other) {
                store_.tell_game_changed();
                look();
            }
        });
}

void UpdateModel::look() {
    if (!store_.is_open() || writing_) return;
    const auto project = store_.shared();
    if (project->pieces.empty() && project->stack_state.stack.empty()) return;
    struct Seen {
        Stamps stamps;
        std::vector<PieceId> stale;
        Result<GameUpdate> update = GameUpdate{};
    };
    jobs_.run(
        Jobs::By::looker, this, tr("Looking whether the game changed"),
        [context = store_.context(), project, vault = store_.vault(), ending = jobs_.ending()] {
            Progress progress;
            progress.cancel = ending;
            Seen out{stamps_of(project->sources), {}, {}};
            // Both ask for every piece's entry, and to read them is most of the work.
            TexturesNow now(*context);
            out.stale = skivet::gone_stale(project->pieces, now, ending);
            out.update = look_for_update(*context, *project, vault, now, progress);
            return std::make_shared<Seen>(std::move(out));
        },
        [this, project, request = ++requests_](const std::shared_ptr<Seen>& seen) {
            store_.note_stale(seen->stale, *project);
            if (request != requests_ || writing_) return;
            stamps_ = std::move(seen->stamps);
            if (!seen->update) {
                if (seen->update.error().code != ErrorCode::canceled) messages_.complain(seen->update.error());
                return;
            }
            const bool before = update_ != nullptr;
            // What was only painted, and never was in the game, is told by its piece.
            auto& found = *seen->update;
            update_ = found.empty() ? nullptr : std::make_shared<const GameUpdate>(std::move(found));
            if (update_ && !before)
                messages_.tell(tr("The game's files were changed by something else. Delivery shows what became of your work."));
            emit changed();
        });
}

void UpdateModel::let_over(PieceId piece) {
    if (!update_ || writing_) return;
    jobs_.run(
        this, tr("Fitting"),
        [context = store_.context(), project = store_.shared(), update = update_, piece] {
            auto out = std::make_shared<GameUpdate>(*update);
            Result<Bytes> made = Bytes{};
            for (auto& one : out->pieces)
                if (one.id == piece) {
                    made = over_the_new(*context, *project, one);
                    if (made) one.becomes = *made;
                }
            return std::pair(out, made ? std::optional<Error>() : made.error());
        },
        [this, before = update_](const std::pair<std::shared_ptr<GameUpdate>, std::optional<Error>>& made) {
            if (made.second) return messages_.complain(*made.second);
            if (update_ != before) return;
            update_ = made.first;
            emit changed();
        });
}

void UpdateModel::put_in_again(std::vector<PieceId> chosen) {
    if (!update_ || writing_) return;
    writing_ = true;
    struct Done {
        std::optional<Error> error;
        UpdatePlan plan;
        Updated updated;
    };
    jobs_.run(
        Jobs::By::writer, this, tr("Putting it in again"),
        [context = store_.context(), project = store_.shared(), vault = store_.vault(), update = update_, chosen = std::move(chosen)] {
            auto out = std::make_shared<Done>();
            auto plan = plan_update(*context, *project, *update, chosen);
            if (!plan) {
                out->error = std::move(plan).error();
                return out;
            }
            out->plan = std::move(*plan);
            out->updated = skivet::put_in_again(*context, *project, out->plan, vault, now());
            out->error = out->updated.delivered.error;
            return out;
        },
        [this](const std::shared_ptr<Done>& done) {
            writing_ = false;
            if (done->error) messages_.complain(*done->error);
            for (const auto& error : done->updated.errors) messages_.complain(error);
            store_.change([&](Project& p) { note_updated(p, done->plan, done->updated); });
            if (!done->error)
                messages_.tell(done->plan.chosen.size() == 1 ? tr("1 piece is in the game again.")
                                                             : tr("%1 pieces are in the game again.").arg(done->plan.chosen.size()));
            store_.set_history(std::move(done->updated.delivered.history));
            store_.tell_pieces_changed();
            store_.tell_game_changed();
            look();
        });
}

void UpdateModel::pictures(QObject* asker, PieceId piece, std::function<void(Pictures)> then) {
    jobs_.run(
        Jobs::By::pictures, asker, tr("Reading pictures"),
        [context = store_.context(), project = store_.shared(), update = update_, piece] {
            Pictures out;
            if (!update) return out;
            for (const auto& one : update->pieces) {
                if (one.id != piece) continue;
                const auto shown = [&](const Bytes& file) {
                    if (file.empty()) return QImage();
                    const auto texture = TextureFile::open(context->textures, file, one.address.inner.back(), context->limits);
                    auto level = texture ? texture->decode(0) : fail(texture.error());
                    return level ? to_qimage(paint_form(texture->layout.desc.format, std::move(*level))) : QImage();
                };
                const auto textures = textures_of(*context, *project, one);
                out = {shown(textures.was), shown(textures.ours), shown(textures.game), shown(one.becomes)};
            }
            return out;
        },
        [then = std::move(then)](Pictures made) { then(std::move(made)); });
}

}  // namespace skivet::app
