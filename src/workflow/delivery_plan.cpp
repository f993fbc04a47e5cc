#include "workflow/delivery_plan.h"

#include <tuple>

#include "base/phrase.h"
#include "container/texture_files.h"
#include "workflow/parcel_stack.h"
#include "workflow/places.h"
#include "workflow/ways.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

DeliveryGroup& group_of(std::vector<DeliveryGroup>& groups, const fs::path& source) {
    const auto found = std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return g.source == source; });
    if (found != groups.end()) return *found;
    groups.push_back({source});
    return groups.back();
}

std::string title_of(const DeliveryPlan& plan, const std::vector<std::size_t>& groups) {
    std::size_t pieces = 0, changes = 0;
    for (const auto g : groups) pieces += plan.groups[g].pieces.size(), changes += plan.groups[g].changes.size();
    const auto& first = plan.groups[groups.front()];
    if (pieces == 0 && changes == 1) {
        const auto& [address, path] = first.changes.front();
        const auto name = fs::path(address.inner.back()).filename().string(), archive = first.source.filename().string();
        return path.empty() ? phrase("{} taken out of {}", name, archive)
                            : phrase("{} becomes {} in {}", name, fs::path(path).filename().string(), archive);
    }
    if (pieces == 0) return phrase("{} entries renamed or taken out", changes);
    const auto what = pieces == 1 ? first.pieces.front().name : phrase("{} pieces", pieces);
    const auto archives =
        static_cast<std::size_t>(std::count_if(groups.begin(), groups.end(), [&](auto g) { return plan.groups[g].lists.empty(); }));
    const auto where = archives == 1 ? first.source.filename().string() : phrase("{} archives", archives);
    return phrase("{} into {}", what, where);
}

}  // namespace

std::size_t DeliveryPlan::piece_count() const {
    std::size_t sum = 0;
    for (const auto& group : groups) sum += group.writes() ? group.pieces.size() : 0;
    return sum;
}

std::size_t DeliveryPlan::change_count() const {
    std::size_t sum = 0;
    for (const auto& group : groups) sum += group.writes() ? group.changes.size() : 0;
    return sum;
}

DeliveryPlan plan_delivery(const ReadContext& context, const Project& project) { return plan_delivery(context, project, {}); }

DeliveryPlan plan_delivery(const ReadContext& context, const Project& project, std::span<const PieceId> some) {
    DeliveryPlan out;
    out.project = project.folder;
    out.where = place_in_words(project);
    for (const auto& piece : project.pieces) {
        // What is in the game may not be on the device yet, and the other way round.
        const auto& there = project.destination == Destination::device ? piece.on_device : piece.delivered_hash;
        const bool elsewhere = piece.state == PieceState::delivered && there != piece.edit();
        if (!(waits(piece.state) || elsewhere) || (!some.empty() && std::find(some.begin(), some.end(), piece.id) == some.end())) continue;
        auto fitted = fit_now(context, project, piece);
        if (!fitted.deliverable()) {
            out.left_out.push_back({piece.id, piece.name(), fitted.obstacle(), fitted.edit});
            continue;
        }
        auto& group = group_of(out.groups, piece.address.source);
        group.pieces.push_back({piece.id, piece.name(), piece.address.inner, piece.like, fitted.edit, fitted.fit->new_blocks(),
                                fitted.fit->kept_blocks(), piece.original_hash, to_hex(sha256(fitted.fit->file)),
                                fitted.fit->needs_mend() ? PieceState::needs_mend : PieceState::fits});
        group.contents.push_back({piece.address.inner, std::move(fitted.fit->file)});
    }
    // Asked for some pieces, nothing else is written.
    if (some.empty()) {
        if (project.destination != Destination::into_archives) out.waiting = project.changes;
        else
            for (const auto& change : project.changes) group_of(out.groups, change.address.source).changes.push_back(change);
    }
    switch (project.destination) {
        case Destination::into_archives: plan_into_archives(context, project, out.groups); break;
        case Destination::beside_the_game: plan_loose(context, project, out.groups); break;
        case Destination::patch_archives: plan_patches(context, project, out.groups); break;
        case Destination::device: plan_device(context, project, out.groups); break;
    }
    return out;
}

bool note_planned(Project& project, const DeliveryPlan& plan) {
    bool any = false;
    const auto note = [&](PieceId id, const std::string& edit, PieceState state) {
        auto* piece = project.piece(id);
        if (!piece || piece->edit() != edit || !waits(piece->state)) return;
        any = std::exchange(piece->state, state) != state || any;
    };
    for (const auto& group : plan.groups)
        for (const auto& piece : group.pieces) note(piece.id, piece.edit, piece.state);
    for (const auto& piece : plan.left_out) note(piece.id, piece.edit, PieceState::needs_mend);
    return any;
}

Delivered deliver(const ReadContext& context, const DeliveryPlan& plan, Vault vault, std::int64_t now) {
    Delivered out;
    std::vector<Share> shares;
    std::vector<std::size_t> groups;
    for (std::size_t g = 0; g < plan.groups.size(); ++g) {
        const auto& group = plan.groups[g];
        if (!group.writes()) continue;
        groups.push_back(g);
        shares.push_back({group.source, group.lists, group.plan, group.device});
        for (const auto& piece : group.pieces) shares.back().entries.push_back(piece.inner.back());
        if (group.pieces.empty())
            for (const auto& content : group.contents) shares.back().entries.push_back(content.inner.back());
        if (group.pieces.empty() && group.changes.empty() && group.contents.empty() && group.lists.empty())
            shares.back().entries.push_back("everything");
        for (const auto& change : group.changes) shares.back().entries.push_back(change.address.inner.back());
    }
    if (groups.empty()) {
        out.error = Error{ErrorCode::usage, "there is nothing to deliver", {}, {}, {}};
        return out;
    }
    for (const auto g : groups) {
        const auto& group = plan.groups[g];
        for (std::size_t k = 0; !group.beside && k < group.pieces.size(); ++k) {
            const auto& piece = group.pieces[k];
            if (auto kept = keep_delivered(context, plan.project, piece.original_hash, {group.source, piece.inner},
                                           group.stacked ? group.fitted[k] : group.contents[k].bytes);
                !kept) {
                out.error = std::move(kept).error().within(piece.name);
                return out;
            }
        }
    }
    auto done = vault.deliver(std::move(shares), plan.title.empty() ? title_of(plan, groups) : plan.title, now, [&]() -> Status {
        AddressReader reader(context);
        for (const auto g : groups)
            for (const auto& content : plan.groups[g].contents) {
                if (plan.groups[g].beside) break;  // read back and compared by the vault
                SKIVET_TRY(const auto back, read_texture_bytes(context, reader, {plan.groups[g].source, content.inner}));
                if (back != content.bytes)
                    return fail(ErrorCode::io, phrase("{} does not read back as it was written", content.inner.back()));
            }
        for (const auto g : groups) {
            if (plan.groups[g].changes.empty()) continue;
            SKIVET_TRY(const auto after, open_source(context, plan.groups[g].source));
            DeliveryGroup only_changes{plan.groups[g].source};
            only_changes.changes = plan.groups[g].changes;
            SKIVET_TRY(const auto changes, changes_of(context, *after, only_changes));
            SKIVET_CHECK(check_changes(context, *after, changes));
        }
        return {};
    });
    if (done) out.groups = std::move(groups), out.id = done->id;
    else out.error = std::move(done).error();
    if (auto history = vault.history()) out.history = std::move(*history);
    return out;
}

namespace {

void note_own(Project& project, const DeliveryGroup& group, const std::string& id) {
    using Entry = DeliveredEntry;
    auto& delivered = project.stack_state.delivered;
    for (const auto& piece : group.pieces) {
        std::erase_if(delivered, [&](const Entry& d) {
            return d.delivery.empty() && d.address.source == group.source && d.address.inner == piece.inner;
        });
        delivered.push_back(
            {Entry::What::texture, id, {group.source, piece.inner}, piece.like, piece.original_hash, piece.texture_hash, {}});
    }
    for (const auto& [address, path] : group.changes)
        delivered.push_back({path.empty() ? Entry::What::removed : Entry::What::renamed, id, address, {}, {}, {}, path});
}

}  // namespace

void note_in_game(Project& project, std::span<const DeliveryGroup> groups) {
    for (auto& piece : project.pieces)
        for (const auto& group : groups)
            if (group.source == piece.address.source) {
                piece.in_game.clear();
                for (const auto& content : group.contents)
                    if (content.inner == piece.address.inner) piece.in_game = to_hex(sha256(content.bytes));
            }
}

void note_delivered(Project& project, const DeliveryPlan& plan, const Delivered& delivered) {
    for (const auto g : delivered.groups) {
        const auto& group = plan.groups[g];
        if (!group.beside) note_own(project, group, delivered.id);
        if (group.stacked) note_in_game(project, {&group, 1});
        project.drop(group.changes);
    }
    for (const auto g : delivered.groups)
        for (const auto& group = plan.groups[g]; const auto& planned : group.pieces) {
            auto* piece = project.piece(planned.id);
            if (!piece) continue;
            if (group.device) piece->on_device = planned.edit, piece->device_delivery = delivered.id;
            else piece->delivered_hash = planned.edit, piece->delivered_texture = planned.texture_hash;
            piece->state = piece->edit() == planned.edit ? PieceState::delivered : PieceState::changed;
        }
}

std::vector<std::pair<PieceId, std::string>> in_game_now(const ReadContext& context, const Project& project) {
    std::vector<std::pair<PieceId, std::string>> out;
    auto stacked = project.stack_state.stack.sources();
    for (const auto& step : project.stack_state.steps)
        for (auto& source : step.before.sources()) stacked.push_back(std::move(source));
    AddressReader reader(context);
    for (const auto& piece : project.pieces) {
        if (std::find(stacked.begin(), stacked.end(), piece.address.source) == stacked.end()) continue;
        const auto bytes = read_texture_bytes(context, reader, piece.address);
        const auto hash = bytes ? to_hex(sha256(*bytes)) : std::string();
        out.emplace_back(piece.id, hash == piece.original_hash || hash == piece.delivered_texture ? std::string() : hash);
    }
    return out;
}

Undone undo_delivery(const ReadContext& context, const Project& project, Vault vault, const std::string& id) {
    Undone out;
    const auto& steps = project.stack_state.steps;
    const auto step = std::find_if(steps.begin(), steps.end(), [&](const StackStep& s) { return s.delivery == id; });
    if (step != steps.end() && std::next(step) != steps.end()) {
        if (auto history = vault.history()) out.history = std::move(*history);
        out.status = fail(ErrorCode::usage, "the parcels were changed again since",
                          "Undo the newer change first, or take the parcel out of the stack");
        return out;
    }
    out.status = vault.undo(id);
    if (auto history = vault.history()) out.history = std::move(*history);
    if (!out.status) return out;
    const auto is_step = [&](const Journal& j) {
        return std::any_of(steps.begin(), steps.end(), [&](const StackStep& s) { return s.delivery == j.id; });
    };
    // By a delivery that was not undone, into an archive or beside the game.
    const auto still_there = [&](const Piece& piece) {
        const auto holds = [&](const JournalPart& part) {
            return !part.device && std::find(part.entries.begin(), part.entries.end(), piece.address.inner.back()) != part.entries.end();
        };
        return std::any_of(out.history.begin(), out.history.end(),
                           [&](const Journal& j) { return !is_step(j) && std::any_of(j.parts.begin(), j.parts.end(), holds); });
    };
    out.in_game = in_game_now(context, project);
    for (const auto& piece : project.pieces)
        if (piece.state == PieceState::delivered && !piece.delivered_hash.empty() && !still_there(piece))
            if (const auto bytes = read_texture_bytes(context, piece.address);
                bytes ? to_hex(sha256(*bytes)) == piece.original_hash || !out.in_game.empty()
                      : !piece.like.empty() && bytes.error().code == ErrorCode::missing)
                out.changed_again.push_back(piece.id);
    return out;
}

bool settle_history(Project& project, std::span<const Journal> history) {
    auto& state = project.stack_state;
    const auto stands = [&](const std::string& id) {
        return std::any_of(history.begin(), history.end(), [&](const Journal& j) { return j.id == id; });
    };
    bool any = std::erase_if(state.delivered, [&](const DeliveredEntry& d) { return !d.delivery.empty() && !stands(d.delivery); }) > 0;
    for (auto& piece : project.pieces)
        if (!piece.device_delivery.empty() && !stands(piece.device_delivery)) {
            piece.on_device.clear();
            piece.device_delivery.clear();
            if (piece.state == PieceState::delivered) piece.state = state_by_edit(piece);
            any = true;
        }
    const auto gone = std::find_if(state.steps.begin(), state.steps.end(), [&](const StackStep& s) { return !stands(s.delivery); });
    if (gone != state.steps.end()) {
        state.stack = gone->before;
        state.steps.erase(gone, state.steps.end());
        any = true;
    }
    return any;
}

void note_undone(Project& project, const Undone& undone) {
    if (undone.status) settle_history(project, undone.history);
    for (const auto& [id, hash] : undone.in_game)
        if (auto* piece = project.piece(id)) piece->in_game = hash;
    for (const auto id : undone.changed_again)
        if (auto* piece = project.piece(id); piece && piece->state == PieceState::delivered) {
            piece->delivered_hash.clear();
            piece->delivered_texture.clear();
            piece->state = piece->on_device == piece->edit() ? PieceState::delivered : PieceState::changed;
        }
}

Result<CompactPlan> plan_compacting(const ReadContext& context, const fs::path& source, std::shared_ptr<const Container> container,
                                    const CancelToken& cancel) {
    SKIVET_TRY(auto plan, container->plan_compact(context.limits));
    auto title = phrase("{} given back in {}", human_bytes(container->dead_bytes()), source.filename().string());
    auto check = [&context, source, container, cancel]() -> Status {
        SKIVET_TRY(const auto again, open_source(context, source));
        return same_contents(*container, *again, context.limits, cancel);
    };
    return CompactPlan{std::move(plan), {std::move(title), source, {}}, std::move(check)};
}

std::vector<PieceId> gone_stale(const ReadContext& context, std::span<const Piece> pieces, const CancelToken& cancel) {
    TexturesNow now(context);
    return gone_stale(pieces, now, cancel);
}

std::vector<PieceId> gone_stale(std::span<const Piece> pieces, TexturesNow& now, const CancelToken& cancel) {
    std::vector<PieceId> out;
    for (const auto& piece : pieces) {
        if (cancel.canceled()) break;
        if (piece.state == PieceState::gone_stale || is_stale(piece, now.of(piece))) out.push_back(piece.id);
    }
    return out;
}

bool note_stale(Project& project, std::span<const PieceId> stale, const Project& looked_at) {
    bool any = false;
    for (const auto id : stale) {
        auto* piece = project.piece(id);
        const auto* then = looked_at.piece(id);
        if (!piece || !then || piece->state == PieceState::gone_stale) continue;
        const auto is_in_game = [](const Piece& p) { return std::tie(p.original_hash, p.in_game, p.delivered_texture); };
        if (is_in_game(*piece) != is_in_game(*then)) continue;
        piece->state = PieceState::gone_stale;
        any = true;
    }
    return any;
}

}  // namespace skivet
