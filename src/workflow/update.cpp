#include "workflow/update.h"

#include <fmt/format.h>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "bench/follow.h"
#include "codec/paint_form.h"
#include "container/texture_files.h"
#include "delivery/beside.h"
#include "workflow/rebase.h"
#include "workflow/saves.h"
#include "workflow/sources.h"

namespace skivet {

namespace fs = std::filesystem;

std::string_view name_of(UpdateHow how) {
    switch (how) {
        case UpdateHow::same: return "ours is gone";
        case UpdateHow::moved: return "moved";
        case UpdateHow::elsewhere: return "changed elsewhere";
        case UpdateHow::other_format: return "compressed anew";
        case UpdateHow::same_place: return "changed in the same place";
        default: return "not in the game any more";
    }
}

bool goes_in(UpdateHow how) { return how != UpdateHow::same_place && how != UpdateHow::gone; }
bool is_sure(UpdateHow how) { return how == UpdateHow::same || how == UpdateHow::moved; }

namespace {

constexpr double noise = 20;  // RMS of a cell of 4×4 texels, of 255: less is compression, not paint

/// Level 0 as a person sees it; nothing for what has several pictures, or true values that 8 bits do not hold.
std::optional<Image> picture_of(const TextureFile& texture) {
    const auto& d = texture.layout.desc;
    if (d.layers * d.faces != 1 || d.depth != 1 || info(d.format).is_float()) return std::nullopt;
    auto image = texture.decode(0);
    if (!image) return std::nullopt;
    return paint_form(d.format, std::move(*image));
}

/// Both brought to the smaller one's size; false where that is no whole number of texels.
bool to_one_size(Image& a, Image& b) {
    auto& large = a.width > b.width ? a : b;
    const auto& small = a.width > b.width ? b : a;
    if (small.width == 0 || small.height == 0 || large.width % small.width != 0 || large.height % small.height != 0 ||
        large.width / small.width != large.height / small.height)
        return false;
    if (large.width != small.width) large = reduce(large, large.width / small.width).means;
    return true;
}

/// For each cell of 4×4 texels: whether the pictures (of one size) differ by more than `most`, RMS of 255.
std::vector<bool> cells_that_differ(const Image& a, const Image& b, double most) {
    const auto across = (a.width + 3) / 4, down = (a.height + 3) / 4;
    std::vector<double> sum(std::size_t{across} * down), count(sum.size());
    for (std::uint32_t y = 0; y < a.height; ++y)
        for (std::uint32_t x = 0; x < a.width; ++x) {
            const auto cell = std::size_t{y / 4} * across + x / 4;
            for (std::size_t c = 0; c < 4; ++c) {
                const double d = int(a.at(x, y)[c]) - int(b.at(x, y)[c]);
                sum[cell] += d * d;
            }
            count[cell] += 4;
        }
    std::vector<bool> out(sum.size());
    for (std::size_t i = 0; i < sum.size(); ++i) out[i] = std::sqrt(sum[i] / std::max(1.0, count[i])) > most;
    return out;
}

/// The edit brought to another texture that shows the same picture, at least where it was painted. Nothing where it does not.
std::optional<Bytes> brought_to(const TextureFile& was, const TextureFile& ours, const TextureFile& game) {
    auto before = picture_of(was), after = picture_of(ours), now = picture_of(game);
    if (!before || !after || !now || before->width != after->width || before->height != after->height) return std::nullopt;
    auto same_size = *before, theirs = *now;
    auto mine_before = *before, mine_after = *after;
    if (!to_one_size(same_size, theirs)) return std::nullopt;
    if (same_size.width != before->width) {
        const auto step = before->width / same_size.width;
        mine_before = reduce(mine_before, step).means;
        mine_after = reduce(mine_after, step).means;
    }
    const auto by_them = cells_that_differ(same_size, theirs, noise), by_me = cells_that_differ(mine_before, mine_after, 0);
    for (std::size_t i = 0; i < by_them.size(); ++i)
        if (by_them[i] && by_me[i]) return std::nullopt;
    // Nearly everything is other: that is another picture, wherever it was painted.
    if (std::count(by_them.begin(), by_them.end(), true) * 2 > static_cast<std::ptrdiff_t>(by_them.size())) return std::nullopt;
    auto edit = follow_edit(*before, *after, game);
    if (!edit) return std::nullopt;
    auto fitted = fit(game, std::move(*edit), {});
    if (!fitted || fitted->blocked()) return std::nullopt;
    return std::move(fitted->file);
}

class Looker {
public:
    Looker(const ReadContext& context, const Project& project, Progress& progress)
        : context_(context), project_(project), progress_(progress), reader_(context) {}

    /// `hash` of what the game has now. Nothing where all is as it should be.
    Result<std::optional<UpdatedPiece>> look(const Piece& piece, const std::string& hash) {
        const bool delivered = std::any_of(project_.stack_state.delivered.begin(), project_.stack_state.delivered.end(),
                                           [&](const DeliveredEntry& d) { return d.address == piece.address; });
        // A disk that is not there is no update.
        std::error_code code;
        if (!fs::exists(piece.address.source, code)) return std::nullopt;
        auto base_address = piece.address;
        if (!hash.empty() && (hash == piece.delivered_texture || hash == piece.in_game)) return std::nullopt;
        if (!hash.empty() && hash == piece.original_hash && !delivered) return std::nullopt;
        if (!piece.like.empty()) {
            // A variant comes anew from what it is like.
            if (!delivered) return std::nullopt;
            base_address.inner.back() = piece.like;
        }
        auto fitted = fit_now(context_, project_, piece);
        if (!fitted.deliverable()) return std::nullopt;  // its own finding says what is wrong with it
        SKIVET_TRY(auto was, original_texture(context_, project_, piece));
        UpdatedPiece out;
        out.id = piece.id;
        out.name = piece.name();
        out.address = piece.address;
        out.delivered = delivered;
        SKIVET_TRY(const auto ours, open(std::move(fitted.fit->file), piece.address));
        auto game = read_texture_bytes(context_, reader_, base_address);
        const auto change = difference(was, ours);
        if (game) {
            auto there = open(*game, base_address);
            if (there && piece.like.empty() && change && !change->empty())
                if (const auto made = is_made(*there, *change); made && *made) return std::nullopt;
            if (there) decide(out, was, ours, *there, change);
        }
        if (out.how == UpdateHow::gone && piece.like.empty()) SKIVET_CHECK(look_elsewhere(out, was, ours, change));
        if (out.how == UpdateHow::gone && game) out.how = UpdateHow::same_place;
        if (out.game_hash.empty() && game) out.game_hash = to_hex(sha256(*game));
        return out;
    }

private:
    Result<TextureFile> open(Bytes bytes, const Address& address) const {
        return TextureFile::open(context_.textures, std::move(bytes), address.inner.back(), context_.limits);
    }

    void decide(UpdatedPiece& out, const TextureFile& was, const TextureFile& ours, const TextureFile& game,
                const Result<TextureChange>& change) const {
        const auto take = [&](UpdateHow how, Bytes becomes) {
            out.how = how;
            out.game_hash = to_hex(sha256(game.file));
            out.becomes = std::move(becomes);
        };
        if (game.file == was.file) return take(UpdateHow::same, ours.file);
        if (change && game.layout.desc == was.layout.desc) {
            const auto moved = rebased(game, *change);
            if (moved && *moved)
                if (auto file = put_units(game, **moved)) {
                    const auto a = pixel_hash(game), b = pixel_hash(was);
                    return take(a && b && *a == *b ? UpdateHow::same : UpdateHow::elsewhere, std::move(*file));
                }
        }
        if (auto file = brought_to(was, ours, game)) {
            const bool other = !(game.layout.desc == was.layout.desc);
            take(other ? UpdateHow::other_format : UpdateHow::elsewhere, std::move(*file));
        }
    }

    /// The same pixels under another path; then the same file name in another place.
    Status look_elsewhere(UpdatedPiece& out, const TextureFile& was, const TextureFile& ours, const Result<TextureChange>& change) {
        if (!catalog_) {
            sources_ = open_those_on(context_, project_);
            Progress progress;
            progress.cancel = progress_.cancel;
            SKIVET_TRY(catalog_, build_catalog(context_, sources_, progress));
        }
        SKIVET_TRY(const auto wanted, pixel_hash(was));
        const auto name = lower(fs::path(out.address.inner.back()).filename().string());
        for (const bool by_pixels : {true, false})
            for (const auto& item : catalog_->items) {
                if (!item.is_texture() || !item.effective) continue;
                const bool candidate = by_pixels ? item.desc == was.layout.desc : lower(fs::path(item.path()).filename().string()) == name;
                if (!candidate) continue;
                SKIVET_CHECK(progress_.cancel.check());
                const auto address = address_of(sources_[item.source], item);
                if (address == out.address) continue;
                // A twin that has a piece of its own is not this one.
                if (project_.piece_of(address)) continue;
                auto bytes = read_texture_bytes(context_, reader_, address);
                if (!bytes) continue;
                const auto there = open(std::move(*bytes), address);
                if (!there) continue;
                if (by_pixels) {
                    const auto pixels = pixel_hash(*there);
                    if (!pixels || *pixels != wanted) continue;
                }
                decide(out, was, ours, *there, change);
                if (!goes_in(out.how)) continue;
                if (out.how == UpdateHow::same) out.how = UpdateHow::moved;
                out.address = address;
                return {};
            }
        return {};
    }

    const ReadContext& context_;
    const Project& project_;
    Progress& progress_;
    AddressReader reader_;
    std::vector<Source> sources_;
    std::optional<Catalog> catalog_;
};

void add_once(std::vector<fs::path>& list, const fs::path& source) {
    if (std::find(list.begin(), list.end(), source) == list.end()) list.push_back(source);
}

/// A vault in which nothing lies: the game's files count as they are now.
Vault no_vault(Files& files) { return Vault(fs::path(), files); }

}  // namespace

Result<GameUpdate> look_for_update(const ReadContext& context, const Project& project, const Vault& vault, Progress& progress) {
    TexturesNow now(context);
    return look_for_update(context, project, vault, now, progress);
}

Result<GameUpdate> look_for_update(const ReadContext& context, const Project& project, const Vault& vault, TexturesNow& now,
                                   Progress& progress) {
    GameUpdate out;
    Looker looker(context, project, progress);
    progress.total = project.pieces.size();
    for (const auto& piece : project.pieces) {
        SKIVET_CHECK(progress.cancel.check());
        ++progress.done;
        if (!waits(piece.state) && piece.state != PieceState::delivered && piece.state != PieceState::gone_stale) continue;
        if (!piece.is_saved() && piece.touches.empty() && piece.like.empty() && !piece.follows()) continue;  // taken, and nothing more
        SKIVET_TRY(auto one, looker.look(piece, now.of(piece)));
        if (!one) continue;
        add_once(out.sources, piece.address.source);
        if (goes_in(one->how)) add_once(out.sources, one->address.source);
        out.pieces.push_back(std::move(*one));
    }
    // Parcels whose archives something else changed.
    PosixFiles files;
    for (const auto& layer : project.stack_state.stack.layers) {
        if (layer.is_own()) continue;
        bool changed = false;
        for (const auto& match : layer.matches) {
            if (changed) break;
            SKIVET_TRY(changed, vault.changed_by_others(match.address.source));
        }
        if (!changed) continue;
        SKIVET_TRY(const auto parcel, installed_parcel(project, layer, context.limits));
        SKIVET_TRY(const auto matches, match_parcel(context, project, no_vault(files), parcel, progress));
        UpdatedParcel one{layer.id, layer.title, {}, {}};
        for (std::size_t i = 0; i < matches.size(); ++i) {
            if (goes_in(matches[i].how)) {
                one.matches.push_back({static_cast<std::uint32_t>(i), matches[i].address});
                add_once(out.sources, matches[i].address.source);
            } else {
                one.left_out.push_back(fmt::format("{}: {}", parcel.textures[i].inner.back(),
                                                   matches[i].note.empty() ? std::string(name_of(matches[i].how)) : matches[i].note));
            }
        }
        out.parcels.push_back(std::move(one));
    }
    return out;
}

namespace {

/// What the game has of a piece now; of a variant, of what it is like.
Result<Bytes> game_texture(const ReadContext& context, const Project& project, const UpdatedPiece& piece) {
    auto address = piece.address;
    if (const auto* there = project.piece(piece.id); there && !there->like.empty()) address.inner.back() = there->like;
    SKIVET_TRY(auto bytes, read_texture_bytes(context, address));
    if (to_hex(sha256(bytes)) != piece.game_hash)
        return fail(ErrorCode::stale, phrase("{} changed again since it was looked at", address.inner.back()), "Look again");
    return bytes;
}

}  // namespace

UpdatedTextures textures_of(const ReadContext& context, const Project& project, const UpdatedPiece& piece) {
    UpdatedTextures out;
    const auto* there = project.piece(piece.id);
    if (!there) return out;
    if (auto was = read_file(project.original_of(*there))) out.was = std::move(*was);
    auto fitted = fit_now(context, project, *there);
    if (fitted.deliverable()) out.ours = std::move(fitted.fit->file);
    if (!piece.game_hash.empty())
        if (auto game = game_texture(context, project, piece)) out.game = std::move(*game);
    return out;
}

Result<Bytes> over_the_new(const ReadContext& context, const Project& project, const UpdatedPiece& piece) {
    const auto textures = textures_of(context, project, piece);
    const auto open = [&](const Bytes& file) {
        return TextureFile::open(context.textures, file, piece.address.inner.back(), context.limits);
    };
    SKIVET_TRY(const auto ours, open(textures.ours));
    SKIVET_TRY(const auto game, open(textures.game));
    if (ours.layout.desc == game.layout.desc && ours.kind->name() == game.kind->name()) return textures.ours;
    auto picture = picture_of(ours);
    if (!picture)
        return fail(ErrorCode::unfit, phrase("{} is not one picture of 8 bits, and the game has it in another form now", piece.name),
                    "Take the new one to the bench and paint on it");
    EditedFile edited;
    edited.image = std::move(*picture);
    SKIVET_TRY(auto fitted, fit(game, std::move(edited), {}));
    for (const auto& finding : fitted.findings)
        if (finding.grade == Grade::blocks)
            return fail(ErrorCode::unfit, said(finding.headline) + ": " + said(finding.detail),
                        "Take the new one to the bench and paint on it");
    return std::move(fitted.file);
}

Result<UpdatePlan> plan_update(const ReadContext& context, const Project& project, GameUpdate update, std::vector<PieceId> chosen) {
    UpdatePlan out;
    out.update = std::move(update);
    out.chosen = std::move(chosen);
    out.wanted = project.stack_state.stack;
    for (auto& layer : out.wanted.layers)
        for (const auto& parcel : out.update.parcels)
            if (!layer.is_own() && layer.id == parcel.id) layer.matches = parcel.matches;
    out.delivery.project = project.folder;
    out.delivery.title = "put in again after an update";
    PosixFiles files;
    const auto is_chosen = [&](PieceId id) { return std::find(out.chosen.begin(), out.chosen.end(), id) != out.chosen.end(); };
    // What the game has now is the original of what is chosen.
    for (const auto& piece : out.update.pieces) {
        if (piece.becomes.empty() || !is_chosen(piece.id)) continue;
        SKIVET_TRY(const auto game, game_texture(context, project, piece));
        SKIVET_CHECK(write_file(project.folder / "originals" / piece.game_hash, game));
    }
    for (const auto& source : out.update.sources) {
        DeliveryGroup group{source};
        if (const auto stamp = stamp_of(source)) group.archive_size = stamp->size;
        group.stacked = true;
        OwnLayer own;
        for (const auto& piece : out.update.pieces) {
            if (piece.address.source != source || piece.becomes.empty() || !piece.delivered || !is_chosen(piece.id)) continue;
            const auto* there = project.piece(piece.id);
            const auto& original = piece.game_hash;
            const auto texture = to_hex(sha256(piece.becomes));
            PlannedPiece planned;
            planned.id = piece.id;
            planned.name = piece.name;
            planned.inner = piece.address.inner;
            planned.like = there ? there->like : std::string();
            planned.edit = there ? there->edit() : std::string();
            planned.original_hash = original;
            planned.texture_hash = texture;
            own.textures.push_back({piece.address, planned.like, original, texture, piece.becomes});
            group.fitted.push_back(piece.becomes);
            group.pieces.push_back(std::move(planned));
        }
        auto planned = plan_source(context, project, no_vault(files), out.wanted, source, own);
        if (planned) {
            group.plan = std::move(planned->plan);
            group.contents = std::move(planned->contents);
            group.notes = broken_links(group.plan);
        } else {
            group.error = std::move(planned).error();
        }
        if (!group.pieces.empty() || !group.contents.empty() || group.error) out.delivery.groups.push_back(std::move(group));
    }
    return out;
}

namespace {

/// The piece's own file as the texture it becomes shows it.
Status rewrite_file(const ReadContext& context, const Project& project, Piece& piece, const UpdatedPiece& updated) {
    SKIVET_TRY(const auto becomes, TextureFile::open(context.textures, updated.becomes, updated.address.inner.back(), context.limits));
    SKIVET_TRY(auto original, read_file(project.folder / "originals" / updated.game_hash));
    SKIVET_TRY(const auto game, TextureFile::open(context.textures, std::move(original), updated.address.inner.back(), context.limits));
    SKIVET_TRY(const auto bytes, export_as(becomes, piece.as.as));
    SKIVET_TRY(const auto plain, export_as(game, piece.as.as));
    SKIVET_CHECK(write_file(project.work() / piece.file, bytes));
    piece.seen_hash = to_hex(sha256(bytes));
    piece.exported_hash = to_hex(sha256(plain));
    // They are in the picture now.
    piece.touches.clear();
    piece.options.mends = {};
    return {};
}

}  // namespace

Updated put_in_again(const ReadContext& context, const Project& project, const UpdatePlan& plan, Vault vault, std::int64_t now) {
    Updated out;
    const auto stop = [&](Error error) {
        out.delivered.error = std::move(error);
        return out;
    };
    for (const auto& group : plan.delivery.groups)
        if (group.error) return stop(*group.error);
    for (const auto& source : plan.update.sources) {
        auto gone = vault.let_go(source);
        if (!gone) return stop(std::move(gone).error());
        out.let_go.insert(out.let_go.end(), gone->begin(), gone->end());
    }
    const bool writes = std::any_of(plan.delivery.groups.begin(), plan.delivery.groups.end(), [](const auto& g) { return g.writes(); });
    if (writes) out.delivered = deliver(context, plan.delivery, vault, now);
    else if (auto history = vault.history()) out.delivered.history = std::move(*history);
    if (out.delivered.error) return out;
    for (const auto& updated : plan.update.pieces) {
        const auto* there = project.piece(updated.id);
        if (!there || std::find(plan.chosen.begin(), plan.chosen.end(), updated.id) == plan.chosen.end() || updated.becomes.empty())
            continue;
        auto piece = *there;
        piece.address = updated.address;
        // A picture that the game's new texture is another of would take its changes back.
        const bool other_picture = updated.how == UpdateHow::elsewhere || updated.how == UpdateHow::other_format;
        if (other_picture && !piece.follows() && piece.like.empty()) {
            if (auto kept = keep_versions(project, piece, now)) out.versions.insert(out.versions.end(), kept->begin(), kept->end());
            if (auto done = rewrite_file(context, project, piece, updated); !done) {
                out.errors.push_back(std::move(done).error().within(piece.name()));
                continue;
            }
        }
        piece.original_hash = updated.game_hash;
        piece.in_game.clear();
        piece.delivered_texture = updated.delivered ? to_hex(sha256(updated.becomes)) : std::string();
        piece.delivered_hash = updated.delivered ? piece.edit() : std::string();
        piece.state = updated.delivered ? PieceState::delivered : PieceState::changed;
        out.pieces.push_back(std::move(piece));
    }
    return out;
}

void note_updated(Project& project, const UpdatePlan& plan, const Updated& updated) {
    auto& state = project.stack_state;
    // What was delivered before is gone, and nobody can go back to it.
    const auto is_gone = [&](const std::string& id) {
        return std::find(updated.let_go.begin(), updated.let_go.end(), id) != updated.let_go.end();
    };
    const auto is_about = [&](const DeliveredEntry& d) {
        return std::find(plan.update.sources.begin(), plan.update.sources.end(), d.address.source) != plan.update.sources.end();
    };
    std::vector<DeliveredEntry> waiting;
    for (const auto& piece : plan.update.pieces) {
        const bool was_put = !updated.delivered.error && std::find(plan.chosen.begin(), plan.chosen.end(), piece.id) != plan.chosen.end();
        const auto* there = project.piece(piece.id);
        if (there && piece.delivered && !was_put)
            waiting.push_back(
                {DeliveredEntry::What::texture, {}, there->address, there->like, there->original_hash, there->delivered_texture, {}});
    }
    std::erase_if(state.delivered, [&](const DeliveredEntry& d) { return (d.delivery.empty() || is_gone(d.delivery)) && is_about(d); });
    state.delivered.insert(state.delivered.end(), waiting.begin(), waiting.end());
    const auto& history = updated.delivered.history;
    std::erase_if(state.steps, [&](const StackStep& s) {
        // One that went into other archives, too, stands there.
        return is_gone(s.delivery) && std::none_of(history.begin(), history.end(), [&](const Journal& j) { return j.id == s.delivery; });
    });
    if (updated.delivered.error) return;
    for (const auto& piece : updated.pieces)
        if (auto* there = project.piece(piece.id)) *there = piece;
    project.versions.insert(project.versions.end(), updated.versions.begin(), updated.versions.end());
    if (!state.stack.empty() || !plan.wanted.empty()) {
        // There is no way back to the stack of the old version, so nothing is remembered of it.
        state.stack = plan.wanted;
    }
    for (const auto g : updated.delivered.groups) {
        const auto& group = plan.delivery.groups[g];
        for (const auto& piece : group.pieces)
            state.delivered.push_back({DeliveredEntry::What::texture,
                                       updated.delivered.id,
                                       {group.source, piece.inner},
                                       piece.like,
                                       piece.original_hash,
                                       piece.texture_hash,
                                       {}});
        note_in_game(project, {&group, 1});
    }
    // A delivery that only put parcels in is known as a step, so that later ones find it.
    if (!updated.delivered.id.empty() && !state.stack.empty()) state.steps.push_back({updated.delivered.id, {}});
    for (const auto& one : plan.update.pieces) {
        auto* piece = project.piece(one.id);
        const bool was_put = std::any_of(updated.pieces.begin(), updated.pieces.end(), [&](const Piece& p) { return p.id == one.id; });
        if (piece && !goes_in(one.how) && !was_put) piece->state = PieceState::gone_stale;
    }
}

}  // namespace skivet
