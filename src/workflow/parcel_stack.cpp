#include "workflow/parcel_stack.h"

#include "base/file_write.h"
#include "base/phrase.h"
#include "container/texture_files.h"
#include "delivery/beside.h"
#include "workflow/rebase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

using What = AddressedChange::What;
using Parcels = std::map<std::string, Parcel>;  // by the hash of their file

Result<Parcels> load_parcels(const Project& project, const ParcelStack& stack, const ReadLimits& limits) {
    Parcels out;
    for (const auto& layer : stack.layers) {
        if (layer.is_own() || out.contains(layer.parcel)) continue;
        SKIVET_TRY(auto parcel, installed_parcel(project, layer, limits));
        out.emplace(layer.parcel, std::move(parcel));
    }
    return out;
}

/// Who gives a texture: a layer of the stack with its texture, or with one's own.
struct Giver {
    std::size_t layer = 0;
    const ParcelTexture* parcel = nullptr;
    const OwnTexture* own = nullptr;
    [[nodiscard]] const std::string& like() const { return parcel ? parcel->like : own->like; }
};
using Givers = std::map<std::vector<std::string>, std::vector<Giver>>;  // by the path inside the source

Givers givers_of(const ParcelStack& wanted, const Parcels& parcels, const fs::path& source, const OwnLayer& own) {
    Givers out;
    for (std::size_t i = 0; i < wanted.layers.size(); ++i) {
        const auto& layer = wanted.layers[i];
        if (layer.is_own()) {
            for (const auto& texture : own.textures) out[texture.address.inner].push_back({i, nullptr, &texture});
            continue;
        }
        const auto& parcel = parcels.at(layer.parcel);
        for (const auto& match : layer.matches)
            if (match.address.source == source && match.texture < parcel.textures.size())
                out[match.address.inner].push_back({i, &parcel.textures[match.texture], nullptr});
    }
    return out;
}

/// The texture that changes are made on: the original, or, for one that is new, that of which it is a variant.
struct Base {
    TextureFile texture;
    bool is_new = false;
};
Result<Base> base_of(const ReadContext& past, AddressReader& reader, const Address& address, const std::vector<Giver>& givers) {
    auto bytes = read_texture_bytes(past, reader, address);
    bool is_new = false;
    if (!bytes && bytes.error().code == ErrorCode::missing)
        for (const auto& giver : givers)
            if (!giver.like().empty()) {
                auto like = address;
                like.inner.back() = giver.like();
                bytes = read_texture_bytes(past, reader, like);
                is_new = true;
                break;
            }
    if (!bytes) return fail(std::move(bytes).error());
    SKIVET_TRY(auto texture, TextureFile::open(past.textures, std::move(*bytes), address.inner.back(), past.limits));
    return Base{std::move(texture), is_new};
}

/// What a parcel's texture does to this one; nothing where it does not fit.
Result<std::optional<TextureLayer>> layer_of(const ReadContext& context, const TextureFile& base, const ParcelTexture& texture) {
    if (!texture.whole.empty()) return as_layer(base, texture.whole, texture.inner.back(), context.textures, context.limits);
    if (!(texture.desc == base.layout.desc)) return std::nullopt;
    SKIVET_TRY(auto change, rebased(base, texture.change));
    if (!change) return std::nullopt;
    return TextureLayer{std::move(*change), {}};
}

/// One's own texture as a layer above this: the change of what it was painted on, wherever that has the same form.
Result<TextureLayer> own_layer_of(const ReadContext& context, const Project& project, const TextureFile& base, const OwnTexture& own) {
    if (own.original_hash == to_hex(sha256(base.file)))
        return as_layer(base, own.texture, own.address.inner.back(), context.textures, context.limits);
    auto bytes = read_file(project.folder / "originals" / own.original_hash);
    if (!bytes) return fail(std::move(bytes).error().within("originals"));
    const auto original = TextureFile::open(context.textures, std::move(*bytes), own.address.inner.back(), context.limits);
    if (original && original->layout.desc == base.layout.desc && original->kind->name() == base.kind->name())
        if (auto layer = as_layer(*original, own.texture, own.address.inner.back(), context.textures, context.limits); layer.whole.empty())
            return layer;
    return TextureLayer{{}, own.texture};
}

struct ComposedTexture {
    Bytes file;
    bool is_new = false;
    bool is_original = false;  ///< nothing changes it
    StackTexture note;
};

Result<ComposedTexture> compose_texture(const ReadContext& past, const Project& project, AddressReader& reader, const ParcelStack& wanted,
                                        const Address& address, const std::vector<Giver>& givers) {
    ComposedTexture out;
    out.note.address = address;
    for (const auto& giver : givers) out.note.layers.push_back(giver.layer);
    auto base = base_of(past, reader, address, givers);
    if (!base) {
        const auto code = base.error().code;
        if (code != ErrorCode::missing && code != ErrorCode::unsupported && code != ErrorCode::damaged)
            return fail(std::move(base).error());
        out.note.unfit = out.note.layers;
        out.is_original = true;
        return out;
    }
    std::vector<TextureLayer> layers;
    std::vector<std::size_t> numbers;  // of each in wanted
    for (const auto& giver : givers) {
        if (giver.parcel) {
            SKIVET_TRY(auto layer, layer_of(past, base->texture, *giver.parcel));
            if (!layer) {
                out.note.unfit.push_back(giver.layer);
                continue;
            }
            layers.push_back(std::move(*layer));
            numbers.push_back(giver.layer);
            continue;
        }
        // What was painted on the parcels below it stands for them, too.
        if (!layers.empty() && giver.own->original_hash != to_hex(sha256(base->texture.file))) {
            SKIVET_TRY(auto below, compose(base->texture, layers));
            if (to_hex(sha256(below.file)) == giver.own->original_hash) {
                for (const auto i : below.left_out) out.note.left_out.push_back(numbers[i]);
                layers = {as_layer(base->texture, giver.own->texture, address.inner.back(), past.textures, past.limits)};
                numbers = {giver.layer};
                continue;
            }
        }
        SKIVET_TRY(auto layer, own_layer_of(past, project, base->texture, *giver.own));
        layers.push_back(std::move(layer));
        numbers.push_back(giver.layer);
    }
    std::optional<std::size_t> preferred;
    for (const auto& choice : wanted.choices)
        if (choice.address == address)
            for (std::size_t i = 0; i < numbers.size(); ++i)
                if (wanted.layers[numbers[i]].id == choice.id && wanted.layers[numbers[i]].is_own() == choice.id.empty()) preferred = i;
    auto composed = compose(base->texture, layers, preferred);
    if (!composed) return fail(std::move(composed).error().within(address.inner.back()));
    for (const auto i : composed->left_out) out.note.left_out.push_back(numbers[i]);
    std::sort(out.note.left_out.begin(), out.note.left_out.end());
    out.note.mended_levels = composed->mended_levels;
    out.is_new = base->is_new;
    out.is_original = layers.empty() || (!base->is_new && composed->file == base->texture.file);
    out.file = std::move(composed->file);
    return out;
}

/// Every delivery into the source that stands must be known: what nobody remembers would be lost.
Status check_known(const Project& project, const std::vector<Journal>& history, const fs::path& source) {
    std::error_code code;
    const auto real = fs::weakly_canonical(source, code);
    for (const auto& journal : history)
        for (const auto& part : journal.parts) {
            if (part.source != real || part.entries.empty()) continue;
            const auto& state = project.stack_state;
            const bool known =
                std::any_of(state.delivered.begin(), state.delivered.end(), [&](const auto& d) { return d.delivery == journal.id; }) ||
                std::any_of(state.steps.begin(), state.steps.end(), [&](const auto& s) { return s.delivery == journal.id; });
            if (!known)
                return fail(ErrorCode::unsupported, phrase("\"{}\" was delivered before this project kept what it delivers", journal.title),
                            "Undo it, install the parcel and deliver it again");
        }
    return {};
}

}  // namespace

Result<Parcel> installed_parcel(const Project& project, const StackLayer& layer, const ReadLimits& limits) {
    auto view = FileView::open(project.parcels() / layer.parcel);
    if (!view) return fail(std::move(view).error().within("\"" + layer.title + "\""));
    auto parcel = read_parcel(*view, limits);
    if (!parcel) return fail(std::move(parcel).error().within("\"" + layer.title + "\""));
    return parcel;
}

namespace {

Result<SourcePlan> plan_source(const ReadContext& context, const Project& project, const Vault& vault, const ParcelStack& wanted,
                               const Parcels& parcels, const fs::path& source, const OwnLayer& own, const CancelToken& cancel) {
    SKIVET_TRY(const auto history, vault.history());
    SKIVET_CHECK(check_known(project, history, source));
    SKIVET_TRY(const auto past, vault.past({&source, 1}, context.limits.inflated_bytes));
    ReadContext then = context;
    then.past = past.as_files();
    SKIVET_TRY(const auto opened, open_source(then, source));
    AddressReader reader(then);
    SourcePlan out;
    std::map<std::vector<std::string>, std::string> renamed;
    std::set<std::vector<std::string>> gone;
    for (const auto& change : own.changes) {
        out.changes.push_back({change.path.empty() ? What::remove : What::rename, change.address.inner, {}, change.path});
        if (change.path.empty()) gone.insert(change.address.inner);
        else renamed[change.address.inner] = change.path;
    }
    for (const auto& [inner, givers] : givers_of(wanted, parcels, source, own)) {
        SKIVET_CHECK(cancel.check());
        if (gone.contains(inner)) continue;
        SKIVET_TRY(auto one, compose_texture(then, project, reader, wanted, {source, inner}, givers));
        if (givers.size() > 1 || !one.note.unfit.empty()) out.textures.push_back(one.note);
        if (one.is_original) continue;
        auto name = inner;
        if (const auto to = renamed.find(inner); to != renamed.end()) name.back() = to->second;
        out.contents.push_back({std::move(name), one.file});
        std::string like;
        if (one.is_new)
            for (const auto& giver : givers)
                if (like.empty()) like = giver.like();
        out.changes.push_back({one.is_new ? What::add : What::replace, inner, std::move(one.file), std::move(like)});
    }
    WritePlan on_past;
    if (!out.changes.empty()) {
        SKIVET_TRY(on_past, plan_changes(then, *opened, out.changes));
    }
    SKIVET_TRY(out.plan, past.from_now(on_past));
    return out;
}

}  // namespace

Result<SourcePlan> plan_source(const ReadContext& context, const Project& project, const Vault& vault, const ParcelStack& wanted,
                               const fs::path& source, const OwnLayer& own, const CancelToken& cancel) {
    SKIVET_TRY(const auto parcels, load_parcels(project, wanted, context.limits));
    return plan_source(context, project, vault, wanted.with_own(), parcels, source, own, cancel);
}

void drop_unused_parcels(const Project& project) {
    std::set<std::string> used;
    const auto note = [&](const ParcelStack& stack) {
        for (const auto& layer : stack.layers) used.insert(layer.parcel);
    };
    const auto& state = project.stack_state;
    note(state.stack);
    for (const auto& step : state.steps) note(step.before);
    if (state.pending) note(state.pending->before);
    std::error_code code;
    std::vector<fs::path> unused;
    for (const auto& item : fs::directory_iterator(project.parcels(), code))
        // Ours are called by their hashes; what else somebody put there stays.
        if (const auto name = item.path().filename().string();
            name.size() == 64 && name.find_first_not_of("0123456789abcdef") == std::string::npos && !used.contains(name))
            unused.push_back(item.path());
    for (const auto& file : unused) fs::remove(file, code);
}

bool StackPlan::writes() const {
    return !error() && std::any_of(groups.begin(), groups.end(), [](const DeliveryGroup& g) { return g.writes(); });
}

const Error* StackPlan::error() const {
    for (const auto& group : groups)
        if (group.error) return &*group.error;
    return nullptr;
}

Result<StackPlan> plan_stack(const ReadContext& context, const Project& project, const Vault& vault, ParcelStack wanted, std::string title,
                             const CancelToken& cancel) {
    StackPlan out;
    out.wanted = wanted.with_own();
    out.title = std::move(title);
    SKIVET_TRY(const auto parcels, load_parcels(project, out.wanted, context.limits));
    auto sources = project.stack_state.stack.sources();
    for (const auto& source : out.wanted.sources())
        if (std::find(sources.begin(), sources.end(), source) == sources.end()) sources.push_back(source);
    for (const auto& source : sources) {
        SKIVET_CHECK(cancel.check());
        DeliveryGroup group{source};
        if (const auto stamp = stamp_of(source)) group.archive_size = stamp->size;
        const auto work = [&]() -> Status {
            SKIVET_TRY(const auto own, own_layer(context, project, source));
            SKIVET_TRY(auto planned, plan_source(context, project, vault, out.wanted, parcels, source, own, cancel));
            group.plan = std::move(planned.plan);
            group.contents = std::move(planned.contents);
            group.notes = broken_links(group.plan);
            std::move(planned.textures.begin(), planned.textures.end(), std::back_inserter(out.textures));
            return {};
        };
        if (auto done = work(); !done) {
            if (done.error().code == ErrorCode::canceled) return fail(done.error());
            group.error = done.error();
        }
        out.groups.push_back(std::move(group));
    }
    return out;
}

Result<std::vector<StackSide>> stack_sides(const ReadContext& context, const Project& project, const Vault& vault, const ParcelStack& stack,
                                           const Address& address) {
    const auto wanted = stack.with_own();
    SKIVET_TRY(const auto parcels, load_parcels(project, wanted, context.limits));
    SKIVET_TRY(const auto own, own_layer(context, project, address.source));
    SKIVET_TRY(const auto past, vault.past({&address.source, 1}, context.limits.inflated_bytes));
    ReadContext then = context;
    then.past = past.as_files();
    AddressReader reader(then);
    const auto all = givers_of(wanted, parcels, address.source, own);
    std::vector<StackSide> out;
    const auto found = all.find(address.inner);
    if (found == all.end()) return out;
    if (auto base = base_of(then, reader, address, found->second)) out.push_back({std::nullopt, std::move(base->texture.file)});
    for (const auto& giver : found->second) {
        SKIVET_TRY(auto alone, compose_texture(then, project, reader, wanted, address, {giver}));
        if (alone.note.unfit.empty() && !alone.file.empty()) out.push_back({giver.layer, std::move(alone.file)});
    }
    return out;
}

void note_pending(Project& project, const StackPlan& plan, std::span<const Journal> history) {
    project.stack_state.pending = StackStep{history.empty() ? std::string() : history.back().id, plan.wanted};
}

Delivered deliver_stack(const ReadContext& context, const StackPlan& plan, Vault vault, std::int64_t now) {
    if (const auto* error = plan.error()) {
        Delivered out;
        out.error = *error;
        return out;
    }
    if (!plan.writes()) {
        Delivered out;
        if (auto history = vault.history()) out.history = std::move(*history);
        return out;
    }
    DeliveryPlan delivery;
    delivery.groups = plan.groups;
    delivery.title = plan.title;
    return deliver(context, delivery, std::move(vault), now);
}

void note_stack(Project& project, const StackPlan& plan, const Delivered& delivered) {
    auto& state = project.stack_state;
    state.pending.reset();
    if (delivered.error) return;
    if (!delivered.id.empty()) state.steps.push_back({delivered.id, state.stack});
    state.stack = plan.wanted;
    if (state.stack.empty()) state.stack = {};
    note_in_game(project, plan.groups);
}

bool settle_pending(Project& project, std::span<const Journal> history) {
    auto& state = project.stack_state;
    bool any = false;
    if (state.pending) {
        // Deliveries are numbered upwards: a newer one than the newest from before is the one that was being made.
        if (!history.empty() && history.back().id > state.pending->delivery) {
            state.steps.push_back({history.back().id, state.stack});
            state.stack = state.pending->before;
        }
        state.pending.reset();
        any = true;
    }
    return settle_history(project, history) || any;
}

}  // namespace skivet
