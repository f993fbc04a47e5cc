#include "app/models/parcel_model.h"

#include "app/models/pictures.h"
#include "codec/paint_form.h"

namespace skivet::app {

struct ParcelModel::Prepared {
    std::shared_ptr<const StackPlan> plan;
    std::shared_ptr<const ReadMod> mod;
    std::vector<TextureMatch> matches;
    std::optional<Error> error;
    bool waits = false;
};

ParcelModel::ParcelModel(ProjectStore& store, QObject* parent)
    : QObject(parent), store_(store), jobs_(store.jobs()), messages_(store.messages()) {
    // An undo may have taken a parcel out.
    connect(&store_, &ProjectStore::history_changed, this, [this] {
        if (plan_ && !waits_) look();
    });
}

void ParcelModel::show(Prepared prepared) {
    // What was brought stays to be seen, also when it cannot go in.
    mod_ = std::move(prepared.mod);
    matches_ = std::move(prepared.matches);
    if (prepared.error) {
        waits_ = false;
        emit refused(QString::fromStdString(prepared.error->message()));
        return;
    }
    plan_ = std::move(prepared.plan);
    waits_ = prepared.waits;
    emit changed();
}

void ParcelModel::prepare(const QString& what, const std::string& title, bool waits, Want want) {
    jobs_.run(
        this, what,
        [context = store_.context(), project = store_.shared(), vault = store_.vault(), title, waits, want = std::move(want)] {
            Prepared out;
            out.waits = waits;
            auto wanted = want(*context, *project);
            if (!wanted) {
                out.error = std::move(wanted).error();
                return out;
            }
            auto plan = plan_stack(*context, *project, vault, std::move(*wanted), title);
            if (!plan) out.error = std::move(plan).error();
            else out.plan = std::make_shared<StackPlan>(std::move(*plan));
            return out;
        },
        [this, request = ++requests_](Prepared prepared) {
            if (request == requests_) show(std::move(prepared));
        });
}

void ParcelModel::look() {
    prepare(tr("Looking at the parcels"), {}, false,
            [](const ReadContext&, const Project& p) { return Result<ParcelStack>(p.stack_state.stack); });
}

void ParcelModel::bring(const std::filesystem::path& path) {
    auto progress = jobs_.shown_progress(tr("Reading %1").arg(QString::fromStdString(path.filename().string())));
    jobs_.run(
        this, {},
        [context = store_.context(), project = store_.shared(), vault = store_.vault(), path, progress] {
            Prepared out;
            out.waits = true;
            const auto work = [&]() -> Status {
                SKIVET_TRY(auto mod, read_mod(*context, *project, path, progress->cancel));
                out.mod = std::make_shared<ReadMod>(std::move(mod));
                SKIVET_TRY(out.matches, match_parcel(*context, *project, vault, out.mod->parcel, *progress));
                SKIVET_TRY(auto wanted, stack_with(*project, *out.mod, out.matches, now()));
                SKIVET_TRY(auto plan, plan_stack(*context, *project, vault, std::move(wanted),
                                                 title_of_installing(out.mod->parcel.about.title), progress->cancel));
                out.plan = std::make_shared<StackPlan>(std::move(plan));
                return {};
            };
            if (auto done = work(); !done) out.error = std::move(done).error();
            return out;
        },
        [this, request = ++requests_](Prepared prepared) {
            if (request == requests_) show(std::move(prepared));
        });
}

void ParcelModel::take_out(const std::string& id) {
    const auto layer = stack().find(id);
    if (!layer || id.empty()) return;
    prepare(tr("Planning"), title_of_taking_out(stack().layers[*layer].title), true,
            [id](const ReadContext& context, const Project& project) { return stack_without(context, project, id); });
}

void ParcelModel::move(const std::string& id, std::size_t place) {
    prepare(tr("Planning"), tr("parcels in another order").toStdString(), true,
            [id, place](const ReadContext&, const Project& project) { return stack_moved(project, id, place); });
}

void ParcelModel::prefer(const Address& address, const std::string& id) {
    // In the change that waits, where there is one.
    auto wanted = waits_ && plan_ ? plan_->wanted : stack().with_own();
    const auto title = waits_ && plan_ ? plan_->title
                                       : tr("%1 as another has it")
                                             .arg(QString::fromStdString(std::filesystem::path(address.inner.back()).filename().string()))
                                             .toStdString();
    std::erase_if(wanted.choices, [&](const StackChoice& c) { return c.address == address; });
    wanted.choices.push_back({address, id});
    const auto mod = mod_;
    const auto matches = matches_;
    jobs_.run(
        this, tr("Planning"),
        [context = store_.context(), project = store_.shared(), vault = store_.vault(), wanted, title, mod, matches] {
            Prepared out{nullptr, mod, matches, std::nullopt, true};
            auto plan = plan_stack(*context, *project, vault, wanted, title);
            if (!plan) out.error = std::move(plan).error();
            else out.plan = std::make_shared<StackPlan>(std::move(*plan));
            return out;
        },
        [this, request = ++requests_](Prepared prepared) {
            if (request == requests_) show(std::move(prepared));
        });
}

void ParcelModel::carry_out() {
    if (!waits_ || !plan_ || plan_->error()) return;
    waits_ = false;
    store_.change([&](Project& p) { note_pending(p, *plan_, store_.history()); });
    jobs_.run(
        Jobs::By::writer, this, tr("Writing"),
        [context = store_.context(), plan = plan_, vault = store_.vault()] { return deliver_stack(*context, *plan, vault, now()); },
        [this, plan = plan_](Delivered done) {
            store_.change([&](Project& p) { note_stack(p, *plan, done); });
            if (done.error) {
                messages_.complain(*done.error);
                emit refused(QString::fromStdString(done.error->message()));
            } else {
                messages_.say(QString::fromStdString(plan->title) + QStringLiteral("."));
            }
            store_.set_history(std::move(done.history));
            store_.tell_pieces_changed();
            store_.tell_game_changed();
            look();
        });
}

void ParcelModel::read(QObject* asker, const StackLayer& layer, std::function<void(Result<Parcel>)> then) {
    jobs_.run(
        asker, {},
        [project = store_.shared(), layer, limits = store_.context()->limits] { return installed_parcel(*project, layer, limits); },
        [then = std::move(then)](Result<Parcel> parcel) { then(std::move(parcel)); });
}

void ParcelModel::sides(QObject* asker, const Address& address, std::function<void(Result<std::vector<Side>>)> then) {
    jobs_.run(
        Jobs::By::pictures, asker, tr("Reading pictures"),
        [context = store_.context(), project = store_.shared(), vault = store_.vault(), plan = plan_,
         address]() -> Result<std::vector<Side>> {
            std::vector<Side> out;
            if (!plan) return out;
            SKIVET_TRY(const auto sides, stack_sides(*context, *project, vault, plan->wanted, address));
            for (const auto& side : sides) {
                SKIVET_TRY(const auto texture, TextureFile::open(context->textures, side.texture, address.inner.back(), context->limits));
                SKIVET_TRY(auto level, texture.decode(0));
                out.push_back({side.layer, to_qimage(paint_form(texture.layout.desc.format, std::move(level)))});
            }
            return out;
        },
        [then = std::move(then)](Result<std::vector<Side>> made) { then(std::move(made)); });
}

void ParcelModel::previews(QObject* asker, std::size_t texture, std::function<void(QImage before, QImage after)> then) {
    jobs_.run(
        Jobs::By::pictures, asker, tr("Reading pictures"),
        [mod = mod_, texture] {
            std::pair<QImage, QImage> out;
            if (!mod || texture >= mod->parcel.textures.size()) return out;
            const auto& one = mod->parcel.textures[texture];
            const auto shown = [](const std::optional<ParcelPicture>& picture) {
                if (!picture) return QImage();
                const auto image = read_picture(*picture);
                return image ? to_qimage(*image) : QImage();
            };
            out = {shown(one.before), shown(one.after)};
            return out;
        },
        [then = std::move(then)](std::pair<QImage, QImage> made) { then(std::move(made.first), std::move(made.second)); });
}

void ParcelModel::make(QObject* asker, const MakeWish& wish, std::function<void(Result<MadeParcel>)> then) {
    jobs_.run(
        asker, tr("Putting the parcel together"),
        [context = store_.context(), project = store_.shared(), wish, cancel = jobs_.ending()] {
            return make_parcel(*context, *project, wish, cancel);
        },
        [then = std::move(then)](Result<MadeParcel> made) { then(std::move(made)); });
}

void ParcelModel::write(std::shared_ptr<const MadeParcel> made, const std::filesystem::path& file) {
    jobs_.run(
        Jobs::By::writer, this, tr("Writing the parcel"), [made, file] { return write_parcel_file(made->parcel, file); },
        [this, made, file](const Status& done) {
            if (!done) return messages_.complain(done.error());
            std::error_code none;
            const auto size = std::filesystem::file_size(file, none);
            messages_.say(tr("%1: %2 for textures of %3")
                              .arg(QString::fromStdString(file.filename().string()), QString::fromStdString(human_bytes(size)),
                                   QString::fromStdString(human_bytes(made->originals))));
            emit written(QString::fromStdString(file.string()));
        });
}

}  // namespace skivet::app
