#include "workflow/parcels.h"

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/texture_files.h"
#include "workflow/rebase.h"
#include "workflow/sources.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

bool is_edited(const Piece& piece) { return waits(piece.state) || piece.state == PieceState::delivered; }

/// The sources as they were before the project's deliveries. `past` keeps what the context reads.
struct GameBefore {
    Past past;
    ReadContext context;
};
Result<std::unique_ptr<GameBefore>> game_before(const ReadContext& context, const Project& project, const Vault& vault) {
    auto out = std::make_unique<GameBefore>();
    SKIVET_TRY(out->past, vault.past(project.sources, context.limits.inflated_bytes));
    out->context = context;
    out->context.past = out->past.as_files();
    return out;
}

/// A texture before and after, as a parcel is to say it: of the game's own texture, also where the piece was taken with parcels installed.
struct PieceChange {
    TextureFile original, edited;
};
Result<std::optional<PieceChange>> change_of(const ReadContext& context, AddressReader& before, const Project& project,
                                             const Piece& piece) {
    const auto fitted = fit_now(context, project, piece);
    if (!fitted.fit) return fail(fitted.fit.error());
    if (fitted.fit->blocked()) return fail(ErrorCode::unfit, fitted.obstacle(), "Mend it first");
    SKIVET_TRY(auto original, original_texture(context, project, piece));
    const auto name = piece.address.inner.back();
    SKIVET_TRY(auto edited, TextureFile::open(context.textures, fitted.fit->file, name, context.limits));
    if (original.file == edited.file) return std::nullopt;
    auto address = piece.address;
    if (!piece.like.empty()) address.inner.back() = piece.like;
    const auto game = read_texture_bytes(context, before, address);
    if (game && *game != original.file)
        if (const auto change = difference(original, edited))
            if (auto base = TextureFile::open(context.textures, *game, name, context.limits);
                base && base->layout.desc == original.layout.desc)
                if (const auto moved = rebased(*base, *change); moved && *moved) {
                    SKIVET_TRY(auto file, put_units(*base, **moved));
                    SKIVET_TRY(edited, TextureFile::open(context.textures, std::move(file), name, context.limits));
                    original = std::move(*base);
                }
    return PieceChange{std::move(original), std::move(edited)};
}

}  // namespace

Result<MadeParcel> make_parcel(const ReadContext& context, const Project& project, const MakeWish& wish, const CancelToken& cancel) {
    SKIVET_CHECK(check_about(wish.about));
    MadeParcel out;
    out.parcel.about = wish.about;
    PosixFiles files;
    SKIVET_TRY(const auto before, game_before(context, project, Vault(project.vault(), files)));
    AddressReader reader(before->context);
    const auto has = [](const std::vector<PieceId>& list, PieceId id) { return std::find(list.begin(), list.end(), id) != list.end(); };
    std::vector<std::pair<std::size_t, PieceId>> by_change;  // bytes that are new, and of which piece
    std::vector<PieceId> in;
    for (const auto& piece : project.pieces) {
        SKIVET_CHECK(cancel.check());
        if (!is_edited(piece) || (!wish.pieces.empty() && !has(wish.pieces, piece.id))) continue;
        const auto leave = [&](Error why, bool own) { out.left_out.push_back({piece.id, piece.name(), std::move(why), own}); };
        auto change = change_of(context, reader, project, piece);
        if (!change) {
            leave(std::move(change).error(), false);
            continue;
        }
        if (!*change) continue;
        auto texture = parcel_texture((*change)->original, (*change)->edited, has(wish.own, piece.id));
        if (!texture) {
            const bool own = texture.error().code == ErrorCode::unsupported;
            leave(std::move(texture).error(), own);
            continue;
        }
        texture->source = piece.address.source.filename().string();
        texture->group = project.setting(piece.address.source).group;
        texture->inner = piece.address.inner;
        texture->like = piece.like;
        out.originals += (*change)->original.file.size();
        by_change.emplace_back(texture->change.units.size() + texture->whole.size(), piece.id);
        in.push_back(piece.id);
        out.parcel.textures.push_back(std::move(*texture));
    }
    // Pictures of those that change most; a few are enough to see what a mod is about.
    std::stable_sort(by_change.begin(), by_change.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    for (std::size_t i = 0; i < by_change.size() && i < wish.pictures; ++i) {
        SKIVET_CHECK(cancel.check());
        const auto* piece = project.piece(by_change[i].second);
        const auto change = change_of(context, reader, project, *piece);
        if (!change || !*change) continue;
        const auto texture = static_cast<std::size_t>(std::find(in.begin(), in.end(), piece->id) - in.begin());
        const PictureOf one{texture, &(*change)->original, &(*change)->edited};
        add_pictures(out.parcel, {&one, 1});
    }
    return out;
}

Status write_parcel_file(const Parcel& parcel, const fs::path& file) {
    SKIVET_TRY(const auto bytes, write_parcel(parcel));
    return write_file(file, bytes, {.sync = true});
}

namespace {

/// Entries of the game by the last step of their path, in lower case; those that are loaded.
class PathIndex {
public:
    explicit PathIndex(const Catalog& catalog) : catalog_(&catalog) {
        for (std::size_t i = 0; i < catalog.items.size(); ++i)
            if (catalog.items[i].effective && catalog.items[i].is_texture()) by_name_[name_of(catalog.items[i].path())].push_back(i);
    }
    /// The entry whose path ends in this one, or that this one ends in; the one with the most folders in common. Nothing when several fit.
    [[nodiscard]] std::optional<std::size_t> find(const std::string& path) const {
        const auto named = by_name_.find(name_of(path));
        if (named == by_name_.end()) return std::nullopt;
        const auto wanted = steps_of(path);
        std::optional<std::size_t> best;
        std::size_t most = 0;
        bool tie = false;
        for (const auto i : named->second) {
            const auto there = steps_of(catalog_->items[i].path());
            const auto common = static_cast<std::size_t>(std::mismatch(wanted.rbegin(), wanted.rend(), there.rbegin(), there.rend()).first -
                                                         wanted.rbegin());
            if (common < std::min(wanted.size(), there.size())) continue;
            tie = common == most && best;
            if (common > most || !best) best = i, most = common;
        }
        return tie ? std::nullopt : best;
    }

private:
    static std::string name_of(const std::string& path) { return lower(path.substr(path.rfind('/') + 1)); }
    static std::vector<std::string> steps_of(const std::string& path) {
        std::vector<std::string> out;
        for (const auto& step : fs::path(lower(path))) out.push_back(step.string());
        return out;
    }
    const Catalog* catalog_;
    std::unordered_map<std::string, std::vector<std::size_t>> by_name_;
};

Result<Catalog> catalog_of(const ReadContext& context, std::span<const Source> sources, const CancelToken& cancel) {
    Progress progress;
    progress.cancel = cancel;
    return build_catalog(context, sources, progress);
}

Result<ReadMod> read_foreign(const ReadContext& context, const Project& project, const fs::path& path, const CancelToken& cancel) {
    ReadMod out;
    PosixFiles files;
    SKIVET_TRY(const auto before, game_before(context, project, Vault(project.vault(), files)));
    const auto sources = open_those_on(before->context, project);
    SKIVET_TRY(const auto game, catalog_of(before->context, sources, cancel));
    const PathIndex index(game);
    auto opened = open_source(context, path);
    if (!opened) return fail(std::move(opened).error());
    const std::vector<Source> mod{{path, *opened, std::nullopt, {}}};
    SKIVET_TRY(const auto theirs, catalog_of(context, mod, cancel));
    auto& parcel = out.parcel;
    parcel.foreign = true;
    const auto name = fs::is_directory(path) ? path.filename().string() : path.stem().string();
    parcel.about.title = name.empty() ? "A mod" : name.substr(0, 256);
    parcel.about.id = parcel_id(parcel.about.title);
    AddressReader game_reader(before->context), mod_reader(context);
    std::set<std::size_t> taken;
    for (const auto& item : theirs.items) {
        SKIVET_CHECK(cancel.check());
        if (!item.is_texture()) continue;
        const auto found = index.find(item.path());
        if (!found || !taken.insert(*found).second) {
            out.strangers.push_back(item.path());
            continue;
        }
        const auto& mine = game.items[*found];
        const auto address = address_of(sources[mine.source], mine);
        auto bytes = read_texture_bytes(context, mod_reader, address_of(mod[0], item));
        auto texture = bytes ? TextureFile::open(context.textures, std::move(*bytes), item.path(), context.limits) : fail(bytes.error());
        if (!texture || texture->layout.damage) {
            out.strangers.push_back(item.path() + ": " + said(texture ? texture->layout.damage->what : texture.error().what));
            continue;
        }
        if (const auto there = read_texture_bytes(before->context, game_reader, address); there && *there == texture->file) continue;
        ParcelTexture one;
        one.source = address.source.filename().string();
        one.inner = address.inner;
        one.kind = texture->kind->name();
        one.desc = texture->layout.desc;
        one.becomes_file = to_hex(sha256(texture->file));
        one.whole = std::move(texture->file);
        parcel.textures.push_back(std::move(one));
    }
    if (parcel.textures.empty())
        return fail(ErrorCode::missing, phrase("{} holds no texture that this game has under the same path", path.filename().string()),
                    "Its folders must mirror the game's; or bring its pictures in by what they show");
    return out;
}

}  // namespace

Result<ReadMod> read_mod(const ReadContext& context, const Project& project, const fs::path& path, const CancelToken& cancel) {
    std::error_code code;
    ReadMod out;
    if (fs::is_regular_file(path, code)) {
        SKIVET_TRY(const auto view, FileView::open(path));
        SKIVET_TRY(const auto bytes, view.bytes());
        if (is_parcel(bytes.first(std::min<std::size_t>(bytes.size(), 64)))) {
            if (bytes.size() > context.limits.inflated_bytes)
                return fail(Error{ErrorCode::limit,
                                  phrase("{} are more than a parcel has", human_bytes(bytes.size())),
                                  {path.filename().string()},
                                  {},
                                  {}});
            auto parcel = read_parcel(view, context.limits);
            if (!parcel) return fail(std::move(parcel).error().within(path.filename().string()));
            out.parcel = std::move(*parcel);
            out.file.assign(bytes.begin(), bytes.end());
            return out;
        }
    }
    auto foreign = read_foreign(context, project, path, cancel);
    if (!foreign) return fail(std::move(foreign).error());
    out = std::move(*foreign);
    SKIVET_TRY(out.file, write_parcel(out.parcel));
    return out;
}

std::string_view name_of(MatchHow how) {
    switch (how) {
        case MatchHow::fits: return "fits";
        case MatchHow::same_pixels: return "same picture";
        case MatchHow::other_version: return "other version";
        case MatchHow::whole: return "whole";
        case MatchHow::does_not_fit: return "does not fit";
        case MatchHow::is_there: return "name is taken";
        default: return "not found";
    }
}

bool goes_in(MatchHow how) {
    return how == MatchHow::fits || how == MatchHow::same_pixels || how == MatchHow::other_version || how == MatchHow::whole;
}

namespace {

class Matcher {
public:
    Matcher(const ReadContext& context, const Project& project, CancelToken cancel)
        : context_(context), sources_(open_those_on(context, project)), reader_(context), cancel_(std::move(cancel)) {}

    Result<TextureMatch> match(const ParcelTexture& texture) {
        TextureMatch best;
        for (const auto s : in_order(texture)) {
            const auto& source = sources_[s];
            if (!source.container || (texture.inner.size() == 1 && texture.like.empty() && !source.container->find(texture.inner[0])))
                continue;
            SKIVET_CHECK(cancel_.check());
            SKIVET_TRY(const auto here, at(texture, {source.path, texture.inner}));
            if (rank(here.how) > rank(best.how)) best = here;
            if (best.how == MatchHow::fits) break;
        }
        const bool look = !goes_in(best.how) && best.how != MatchHow::is_there && !texture.was_pixels.empty() && texture.like.empty();
        if (look) {
            SKIVET_TRY(const auto seen, by_picture(texture));
            if (seen) return *seen;
        }
        return best;
    }

private:
    static int rank(MatchHow how) {
        switch (how) {
            case MatchHow::fits: return 6;
            case MatchHow::same_pixels: return 5;
            case MatchHow::other_version: return 4;
            case MatchHow::whole: return 3;
            case MatchHow::does_not_fit: return 2;
            case MatchHow::is_there: return 1;
            default: return 0;
        }
    }
    /// Sources of the parcel's name first; within both the later ones first, since the game loads those.
    std::vector<std::size_t> in_order(const ParcelTexture& texture) const {
        std::vector<std::size_t> out;
        const auto wanted = lower(texture.source);
        for (const bool named : {true, false})
            for (auto s = sources_.size(); s-- > 0;)
                if ((lower(sources_[s].path.filename().string()) == wanted) == named) out.push_back(s);
        return out;
    }
    Result<TextureMatch> at(const ParcelTexture& texture, const Address& address) {
        TextureMatch out;
        auto bytes = read_texture_bytes(context_, reader_, address);
        if (!bytes && bytes.error().code == ErrorCode::canceled) return fail(bytes.error());
        if (!texture.like.empty()) {
            if (bytes) return TextureMatch{MatchHow::is_there, address, "the game has an entry of this name"};
            auto like = address;
            like.inner.back() = texture.like;
            bytes = read_texture_bytes(context_, reader_, like);
        }
        if (!bytes) return out;
        out.address = address;
        auto opened = TextureFile::open(context_.textures, std::move(*bytes), address.inner.back(), context_.limits);
        if (!opened) {
            out.how = MatchHow::does_not_fit;
            out.note = opened.error().what;
            return out;
        }
        if (!texture.whole.empty()) {
            out.how = MatchHow::whole;
            if (!(opened->layout.desc == texture.desc))
                out.note = phrase("{} {} in the game", size_text(opened->layout.desc), info(opened->layout.desc.format).name);
            return out;
        }
        if (!(opened->layout.desc == texture.desc)) {
            out.how = MatchHow::does_not_fit;
            out.note = phrase("{} {} with {} mips here, {} {} with {} there", size_text(opened->layout.desc),
                              info(opened->layout.desc.format).name, opened->layout.desc.mips, size_text(texture.desc),
                              info(texture.desc.format).name, texture.desc.mips);
            return out;
        }
        SKIVET_TRY(const auto wrong, misfits(*opened, texture.change));
        SKIVET_TRY(const auto pixels, pixel_hash(*opened));
        if (wrong.empty() && to_hex(sha256(opened->file)) == texture.was_file) {
            out.how = MatchHow::fits;
        } else if (wrong.empty() && to_hex(pixels) == texture.was_pixels) {
            out.how = MatchHow::same_pixels;
        } else if (const auto moved = rebased(*opened, texture.change); moved && *moved) {
            out.how = MatchHow::other_version;
            out.note = "the game's texture changed elsewhere";
        } else {
            out.how = MatchHow::does_not_fit;
            out.note = phrase("{} of {} changed places hold something else here", wrong.size(), texture.change.runs.size());
        }
        return out;
    }
    Result<std::optional<TextureMatch>> by_picture(const ParcelTexture& texture) {
        if (!catalog_) {
            SKIVET_TRY(catalog_, catalog_of(context_, sources_, cancel_));
        }
        for (std::size_t i = 0; i < catalog_->items.size(); ++i) {
            const auto& item = catalog_->items[i];
            if (!item.is_texture() || !item.effective || !(item.desc == texture.desc)) continue;
            SKIVET_CHECK(cancel_.check());
            const auto address = address_of(sources_[item.source], item);
            auto known = pixels_.find(i);
            if (known == pixels_.end()) {
                std::string hash;
                if (auto bytes = read_texture_bytes(context_, reader_, address))
                    if (const auto opened = TextureFile::open(context_.textures, std::move(*bytes), item.path(), context_.limits))
                        if (const auto pixels = pixel_hash(*opened)) hash = to_hex(*pixels);
                known = pixels_.emplace(i, std::move(hash)).first;
            }
            if (known->second != texture.was_pixels) continue;
            SKIVET_TRY(auto here, at(texture, address));
            if (!goes_in(here.how)) continue;
            if (here.how == MatchHow::fits) here.how = MatchHow::same_pixels;
            if (here.note.empty()) here.note = phrase("here it is {}", item.path());
            return here;
        }
        return std::nullopt;
    }

    const ReadContext& context_;
    std::vector<Source> sources_;
    AddressReader reader_;
    CancelToken cancel_;
    std::optional<Catalog> catalog_;
    std::unordered_map<std::size_t, std::string> pixels_;  // SHA-256 of items that were looked at
};

}  // namespace

Result<std::vector<TextureMatch>> match_parcel(const ReadContext& context, const Project& project, const Vault& vault, const Parcel& parcel,
                                               Progress& progress) {
    SKIVET_TRY(const auto before, game_before(context, project, vault));
    Matcher matcher(before->context, project, progress.cancel);
    std::vector<TextureMatch> out;
    progress.total = parcel.textures.size();
    std::set<std::pair<fs::path, std::vector<std::string>>> taken;
    for (const auto& texture : parcel.textures) {
        SKIVET_CHECK(progress.cancel.check());
        SKIVET_TRY(auto one, matcher.match(texture));
        if (goes_in(one.how) && !taken.emplace(one.address.source, one.address.inner).second) {
            one.how = MatchHow::does_not_fit;
            one.note = "another texture of the parcel goes there";
        }
        out.push_back(std::move(one));
        ++progress.done;
    }
    return out;
}

Result<ParcelStack> stack_with(const Project& project, const ReadMod& mod, std::span<const TextureMatch> matches, std::int64_t now) {
    const auto& about = mod.parcel.about;
    StackLayer layer{to_hex(sha256(mod.file)), about.id, about.title, about.version, about.author, now, {}};
    for (std::size_t i = 0; i < matches.size(); ++i)
        if (goes_in(matches[i].how)) layer.matches.push_back({static_cast<std::uint32_t>(i), matches[i].address});
    if (layer.matches.empty())
        return fail(ErrorCode::unfit, phrase("nothing of \"{}\" fits this game", about.title), "See what each texture is said to lack");
    auto out = project.stack_state.stack.with_own();
    const auto named = [&](const ParcelName& name) {
        const auto found = out.find(name.id);
        return found && (name.version.empty() || out.layers[*found].version == name.version);
    };
    for (const auto& name : about.needs)
        if (!named(name))
            return fail(
                ErrorCode::usage,
                phrase("\"{}\" needs {}{}, which is not installed", about.title, name.id, name.version.empty() ? "" : " " + name.version),
                "Install that one first");
    for (const auto& name : about.not_with)
        if (named(name))
            return fail(ErrorCode::usage, phrase("\"{}\" does not go with {}, which is installed", about.title, name.id),
                        "Take that one out first");
    for (const auto& there : out.layers) {
        if (there.is_own() || there.id == about.id) continue;
        const auto parcel = installed_parcel(project, there, ReadLimits{});
        if (!parcel) continue;
        for (const auto& name : parcel->about.not_with)
            if (name.id == about.id && (name.version.empty() || name.version == about.version))
                return fail(ErrorCode::usage, phrase("\"{}\", which is installed, does not go with \"{}\"", there.title, about.title),
                            "Take that one out first");
    }
    SKIVET_CHECK(write_file(project.parcels() / layer.parcel, mod.file, {.sync = true}));
    if (const auto other = out.find(about.id)) out.layers[*other] = std::move(layer);
    else out.layers.insert(out.layers.begin() + static_cast<std::ptrdiff_t>(*out.find({})), std::move(layer));
    return out;
}

std::string title_of_installing(const std::string& parcel) { return phrase("{} installed", parcel); }
std::string title_of_taking_out(const std::string& parcel) { return phrase("{} taken out", parcel); }

Result<ParcelStack> stack_without(const ReadContext& context, const Project& project, const std::string& id) {
    auto out = project.stack_state.stack;
    const auto found = id.empty() ? std::nullopt : out.find(id);
    if (!found) return fail(ErrorCode::missing, phrase("no parcel \"{}\" is installed", id));
    for (const auto& layer : out.layers) {
        if (layer.is_own() || layer.id == id) continue;
        const auto parcel = installed_parcel(project, layer, context.limits);
        if (!parcel) continue;
        for (const auto& name : parcel->about.needs)
            if (name.id == id) return fail(ErrorCode::usage, phrase("\"{}\" needs it", layer.title), "Take that one out first");
    }
    out.layers.erase(out.layers.begin() + static_cast<std::ptrdiff_t>(*found));
    std::erase_if(out.choices, [&](const StackChoice& c) { return c.id == id; });
    return out;
}

Result<ParcelStack> stack_moved(const Project& project, const std::string& id, std::size_t place) {
    auto out = project.stack_state.stack.with_own();
    const auto found = out.find(id);
    if (!found) return fail(ErrorCode::missing, phrase("no parcel \"{}\" is installed", id));
    auto layer = std::move(out.layers[*found]);
    out.layers.erase(out.layers.begin() + static_cast<std::ptrdiff_t>(*found));
    out.layers.insert(out.layers.begin() + static_cast<std::ptrdiff_t>(std::min(place, out.layers.size())), std::move(layer));
    return out;
}

ParcelStack stack_preferring(const Project& project, const Address& address, const std::string& id) {
    auto out = project.stack_state.stack.with_own();
    std::erase_if(out.choices, [&](const StackChoice& c) { return c.address == address; });
    out.choices.push_back({address, id});
    return out;
}

}  // namespace skivet
