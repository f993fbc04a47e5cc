#include "workflow/pieces.h"

#include <fmt/format.h>
#include <functional>
#include <map>
#include <set>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/cube.h"
#include "bench/derived_map.h"
#include "bench/follow.h"
#include "bench/touching.h"
#include "codec/paint_form.h"
#include "container/texture_files.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

std::string hash_of(ByteSpan data) { return to_hex(sha256(data)); }

}  // namespace

namespace {

/// What taking one piece after the other wants to know, so that thousands cost no more than each by itself.
struct Taking {
    Taking(const ReadContext& c, const Project& p) : context(c), project(p), reader(c) {
        for (const auto& piece : p.pieces) note(piece);
    }
    void note(const Piece& piece) {
        files.insert(piece.file);
        for (const auto& one : piece.more) files.insert(one.file);
        addresses.insert(piece.address.text());
    }
    [[nodiscard]] bool has(const Address& address) const { return addresses.contains(address.text()); }

    const ReadContext& context;
    const Project& project;
    AddressReader reader;
    std::set<fs::path> files;         ///< of pieces, relative to the work folder
    std::set<std::string> addresses;  ///< of pieces
};

constexpr std::string_view alpha_part = "alpha";

/// A file of a piece: what its name has more than the piece's, and its content. The first one is the piece's own.
struct Written {
    std::string part, more;
    Bytes content;
};
Result<std::vector<Written>> export_piece(const TextureFile& texture, const TakeAs& as) {
    std::vector<Written> out;
    const auto& d = texture.layout.desc;
    if (as.parts) {
        for (const auto& at : parts_of(d)) {
            SKIVET_TRY(auto bytes, export_picture(texture, as.as, {.layer = at.layer, .face = at.face}));
            out.push_back({at.name, "." + at.name, std::move(bytes)});
        }
    } else if (as.alpha == AlphaWay::kept) {
        SKIVET_TRY(auto bytes, export_as(texture, as.as));
        out.push_back({{}, {}, std::move(bytes)});
    } else {
        SKIVET_TRY(auto two, export_alpha_apart(texture, as.as, {.whole = has_cross(d)}));
        out.push_back({{}, {}, std::move(two.picture)});
        if (as.alpha == AlphaWay::apart) out.push_back({std::string(alpha_part), "." + std::string(alpha_part), std::move(two.alpha)});
    }
    return out;
}

/// `picture` decided, and what is not possible for the texture left out.
TakeAs possible(TakeAs wish, TextureDesc desc) {
    wish.parts = wish.parts && has_parts(desc);
    if (wish.parts) desc.layers = 1;  // each file has one
    if (wish.as == ExportAs::picture) wish.as = propose_export(desc).as;
    wish.parts = wish.parts && wish.as != ExportAs::dds && wish.as != ExportAs::ktx2 && wish.as != ExportAs::raw;
    if (wish.parts || !can_split_alpha(wish.as, desc)) wish.alpha = AlphaWay::kept;
    return wish;
}

bool has_file(const Piece& piece, const fs::path& file) {
    return piece.file == file || std::any_of(piece.more.begin(), piece.more.end(), [&](const PieceFile& one) { return one.file == file; });
}

/// `again`: a piece whose files may be written over, or null; otherwise another name is found where there is a file of other content.
/// `like`: the entry the bytes are of, for a variant; the same address otherwise.
Result<Piece> take_to(Taking& taking, const Address& address, const Address& like, const TakeAs& wish, std::int64_t now,
                      const Piece* again) {
    const auto& context = taking.context;
    const auto& project = taking.project;
    SKIVET_TRY(auto bytes, read_texture_bytes(context, taking.reader, like));
    Piece piece;
    piece.address = address;
    if (like != address) piece.like = like.inner.back();
    piece.original_hash = hash_of(bytes);
    SKIVET_CHECK(write_file(project.original_of(piece), bytes));
    auto texture = TextureFile::open(context.textures, std::move(bytes), address.inner.back(), context.limits);
    if (!texture) return fail(std::move(texture).error().within(address.inner.back()));
    if (texture->layout.damage) return fail(texture->layout.damage->within(address.inner.back()));
    const auto& desc = texture->layout.desc;
    piece.as = possible(wish, desc);
    auto exported = export_piece(*texture, piece.as);
    if (!exported) return fail(std::move(exported).error().within(address.inner.back()));
    fs::path relative = safe_relative_path(address.source.stem().string());
    for (const auto& step : address.inner) relative /= safe_relative_path(step);
    // The whole old name stays in the new one, so that x.dds and x.pnl side by side do not meet in one file.
    const auto ending = piece.as.as == ExportAs::raw ? relative.extension().string() : std::string(extension_of(piece.as.as));
    if (piece.as.as == ExportAs::raw) relative.replace_extension();
    const auto named = [&](int n, const std::string& part) {
        return relative.parent_path() / (relative.filename().string() + (n > 1 ? fmt::format("_{}", n) : "") + part + ending);
    };
    // A file in the work folder is somebody's work, also when its piece was put away long ago.
    const auto is_taken = [&](const fs::path& file, const Bytes& content) {
        if (taking.files.contains(file)) return true;
        std::error_code code;
        if ((again && has_file(*again, file)) || !fs::exists(project.work() / file, code)) return false;
        const auto there = read_file(project.work() / file);
        return !there || *there != content;
    };
    int n = 1;
    const auto any_taken = [&] {
        return std::any_of(exported->begin(), exported->end(),
                           [&](const Written& one) { return is_taken(named(n, one.more), one.content); });
    };
    while (any_taken()) ++n;
    for (const auto& one : *exported) {
        const auto file = named(n, one.more);
        const auto hash = hash_of(one.content);
        SKIVET_CHECK(write_file(project.work() / file, one.content));
        if (&one == &exported->front()) piece.file = file, piece.exported_hash = piece.seen_hash = hash;
        else piece.more.push_back({one.part, file, hash, hash});
    }
    piece.state = state_by_edit(piece);
    piece.changed_at = now;
    return piece;
}

/// Where the texture of a piece comes from when it is taken.
Address taken_from(const Piece& piece) {
    auto out = piece.address;
    if (!piece.like.empty()) out.inner.back() = piece.like;
    return out;
}

Result<Piece> take_follower(Taking& taking, const Piece& leader, const Follower& follower, std::int64_t now) {
    const auto& [address, way] = follower;
    const auto& context = taking.context;
    SKIVET_TRY(auto bytes, read_texture_bytes(context, taking.reader, address));
    auto piece = leader;
    piece.address = address;
    piece.like.clear();
    piece.leader_hash = leader.follows() ? leader.leader_hash : leader.original_hash;
    piece.way = leader.way;
    piece.way.insert(piece.way.end(), way.begin(), way.end());
    piece.original_hash = hash_of(bytes);
    piece.delivered_hash.clear();
    piece.delivered_texture.clear();
    piece.options = {};
    piece.changed_at = now;
    if (piece.state == PieceState::delivered || piece.state == PieceState::gone_stale) piece.state = state_by_edit(piece);
    if (waits(piece.state)) piece.state = PieceState::changed;  // whether it fits is another question for another texture
    SKIVET_CHECK(write_file(taking.project.original_of(piece), bytes));
    const auto texture = TextureFile::open(context.textures, std::move(bytes), address.inner.back(), context.limits);
    if (!texture) return fail(texture.error().within(address.inner.back()));
    if (texture->layout.damage) return fail(texture->layout.damage->within(address.inner.back()));
    return piece;
}

}  // namespace

Result<Piece> take_piece(const ReadContext& context, const Project& project, const Address& address, const TakeAs& as, std::int64_t now) {
    Taking taking(context, project);
    return take_to(taking, address, address, as, now, nullptr);
}

Result<Piece> take_variant(const ReadContext& context, const Project& project, const Address& like, const std::string& path,
                           const TakeAs& as, std::int64_t now) {
    auto own = like;
    own.inner.back() = path;
    if (project.piece_of(own)) return fail(ErrorCode::usage, fmt::format("\"{}\" is on the bench already", path), "Choose another name");
    // Whatever stands in its way is said now, not when it is painted.
    SKIVET_TRY(const auto bytes, read_address(context, like));
    SKIVET_TRY(const auto joined, read_texture_bytes(context, like));
    if (joined != bytes)
        return fail(ErrorCode::unsupported, "the texture is spread over several files, and a variant of it would be, too",
                    "Edit the texture itself");
    SKIVET_TRY(const auto source, open_source(context, like.source));
    std::vector<AddressedChange> changes;
    changes.push_back({AddressedChange::What::add, own.inner, bytes, like.inner.back()});
    if (const auto plan = plan_changes(context, *source, std::move(changes)); !plan) return fail(plan.error());
    Taking taking(context, project);
    return take_to(taking, own, like, as, now, nullptr);
}

Result<Piece> take_follower(const ReadContext& context, const Project& project, const Piece& leader, const Follower& follower,
                            std::int64_t now) {
    Taking taking(context, project);
    return take_follower(taking, leader, follower, now);
}

Piece refresh_piece(const Project& project, Piece piece, std::int64_t now) {
    bool saved = false;
    const auto look = [&](const fs::path& file, std::string& seen) {
        const auto bytes = read_file(project.work() / file);
        if (!bytes) return;
        auto hash = hash_of(*bytes);
        saved = std::exchange(seen, hash) != hash || saved;
    };
    look(piece.file, piece.seen_hash);
    for (auto& one : piece.more) look(one.file, one.seen_hash);
    if (!saved) return piece;
    piece.changed_at = now;
    piece.state = state_by_edit(piece);
    return piece;
}

PieceState state_by_edit(const Piece& piece) {
    if (!piece.delivered_hash.empty()) return piece.edit() == piece.delivered_hash ? PieceState::delivered : PieceState::changed;
    if (!piece.like.empty()) return PieceState::changed;  // also as it is it is new to the game
    return !piece.is_saved() && piece.touches.empty() && piece.options.format == Format::unknown ? PieceState::out : PieceState::changed;
}

Status set_touches(Project& project, std::map<PieceId, std::vector<std::string>> touches, std::int64_t now) {
    // By file, in one pass: there may be thousands.
    std::map<fs::path, std::vector<std::string>> by_file;
    std::size_t found = 0;
    for (const auto& piece : project.pieces) {
        const auto asked = touches.find(piece.id);
        if (asked == touches.end()) continue;
        ++found;
        for (auto& text : asked->second) {
            SKIVET_TRY(const auto touch, parse_touch_up(text));
            text = text_of(touch);
        }
        by_file[piece.file] = std::move(asked->second);
    }
    if (found < touches.size()) return fail(ErrorCode::usage, "the project has no such piece");
    for (auto& piece : project.pieces) {
        const auto wanted = by_file.find(piece.file);
        if (wanted == by_file.end() || piece.touches == wanted->second) continue;
        piece.touches = wanted->second;
        piece.changed_at = now;
        if (piece.state != PieceState::gone_stale) piece.state = state_by_edit(piece);
    }
    return {};
}

Result<Piece> check_source(const ReadContext& context, Piece piece) {
    AddressReader reader(context);
    return check_source(context, reader, std::move(piece));
}

Result<Piece> check_source(const ReadContext& context, AddressReader& reader, Piece piece) {
    const auto bytes = read_texture_bytes(context, reader, piece.address);
    if (!bytes && !piece.like.empty() && bytes.error().code == ErrorCode::missing) {
        // Not there yet, or taken out again by whoever.
        piece.delivered_hash.clear();
        piece.delivered_texture.clear();
        if (piece.state == PieceState::delivered) piece.state = state_by_edit(piece);
        return piece;
    }
    if (!bytes) return fail(bytes.error());
    const auto hash = hash_of(*bytes);
    if (hash != piece.original_hash && (piece.delivered_texture.empty() || hash != piece.delivered_texture))
        piece.state = PieceState::gone_stale;
    return piece;
}

Result<TextureFile> original_texture(const ReadContext& context, const Project& project, const Piece& piece) {
    auto bytes = read_file(project.original_of(piece));
    if (!bytes) return fail(std::move(bytes).error().within("originals"));
    return TextureFile::open(context.textures, std::move(*bytes), piece.address.inner.back(), context.limits);
}

namespace {

Result<TextureFile> leading_original(const ReadContext& context, const Project& project, const Piece& piece) {
    auto bytes = read_file(project.folder / "originals" / (piece.follows() ? piece.leader_hash : piece.original_hash));
    if (!bytes) return fail(std::move(bytes).error().within("originals"));
    return TextureFile::open(context.textures, std::move(*bytes), piece.address.inner.back(), context.limits);
}

/// The faces or layers of the piece's files as one picture; the first is read already.
Status put_parts_together(const ReadContext& context, const Project& project, const Piece& piece, EditedFile& edited) {
    SKIVET_TRY(const auto texture, leading_original(context, project, piece));
    const auto& d = texture.layout.desc;
    const auto parts = parts_of(d);
    const auto width = edited.image.width, height = edited.image.height;
    EditedFile whole;
    whole.color = edited.color;
    whole.image = room_for_parts<Image>(d, width, height);
    if (edited.wide) whole.wide = room_for_parts<ImageF>(d, width, height);
    if (edited.values) whole.values = room_for_parts<ImageF>(d, width, height);
    const auto put = [&](const TexturePart& at, const EditedFile& part) {
        put_part(whole.image, at, part.image);
        // Of several kinds of file the least of what they have counts.
        if (whole.wide && part.wide) put_part(*whole.wide, at, *part.wide);
        else whole.wide.reset();
        if (whole.values && part.values) put_part(*whole.values, at, *part.values);
        else whole.values.reset();
    };
    put(parts.front(), edited);
    for (const auto& at : parts) {
        const auto one = std::find_if(piece.more.begin(), piece.more.end(), [&](const PieceFile& file) { return file.part == at.name; });
        if (one == piece.more.end()) continue;
        auto bytes = read_file(project.work() / one->file);
        if (!bytes) return fail(std::move(bytes).error().within(piece.name()));
        auto part = read_edited(std::move(*bytes), context.limits, one->file.string());
        if (!part) return fail(std::move(part).error().within(one->file.filename().string()));
        if (part->image.width != width || part->image.height != height)
            return fail(ErrorCode::unfit,
                        fmt::format("{} is {}×{}, {} {}×{}", one->file.filename().string(), part->image.width, part->image.height,
                                    piece.file.filename().string(), width, height),
                        "Save all of them in the same size");
        put(at, *part);
    }
    edited = std::move(whole);
    return {};
}

/// Alpha that did not come with the picture: of its own file, or the original's.
Status put_alpha_of(const ReadContext& context, const Project& project, const Piece& piece, EditedFile& edited) {
    SKIVET_TRY(const auto texture, leading_original(context, project, piece));
    for (const auto& one : piece.more) {
        if (one.part != alpha_part) continue;
        auto file = read_file(project.work() / one.file);
        if (!file) return fail(std::move(file).error().within(piece.name()));
        auto gray = read_edited(std::move(*file), context.limits, one.file.string());
        if (!gray) return fail(std::move(gray).error().within(one.file.filename().string()));
        if (auto put = put_alpha(edited, texture, &*gray); !put) return fail(std::move(put).error().within(one.file.filename().string()));
        return {};
    }
    return put_alpha(edited, texture, nullptr);
}

}  // namespace

void set_format(Piece& piece, Format format, std::int64_t now) {
    if (std::exchange(piece.options.format, format) == format) return;
    piece.changed_at = now;
    if (piece.state != PieceState::gone_stale) piece.state = state_by_edit(piece);
}

Result<EditedFile> edited_piece(const ReadContext& context, const Project& project, const Piece& piece, const CancelToken& cancel) {
    auto bytes = read_file(project.work() / piece.file);
    if (!bytes) return fail(std::move(bytes).error().within(piece.name()));
    auto edited = read_edited(std::move(*bytes), context.limits, piece.file.string());
    if (!edited) return fail(std::move(edited).error().within(piece.file.filename().string()));
    if (piece.as.parts) SKIVET_CHECK(put_parts_together(context, project, piece, *edited));
    if (piece.as.alpha != AlphaWay::kept) SKIVET_CHECK(put_alpha_of(context, project, piece, *edited));
    std::vector<TouchUp> touches;
    for (const auto& text : piece.touches) {
        SKIVET_TRY(auto one, parse_touch_up(text));
        touches.push_back(std::move(one));
    }
    if (auto done = touch(*edited, touches, touch_pictures_in(project.work(), context.limits), cancel); !done)
        return fail(std::move(done).error().within(piece.name()));
    return edited;
}

Result<PieceOriginal> piece_original(const ReadContext& context, const Project& project, const Piece& piece) {
    SKIVET_TRY(auto texture, original_texture(context, project, piece));
    SKIVET_TRY(auto known, know_original(texture));
    return PieceOriginal{std::move(texture), std::move(known)};
}

Result<Fit> fit_piece(const ReadContext& context, const Project& project, const Piece& piece) {
    SKIVET_TRY(const auto original, piece_original(context, project, piece));
    return fit_piece(context, project, piece, original);
}

Result<Fit> fit_piece(const ReadContext& context, const Project& project, const Piece& piece, const PieceOriginal& of,
                      const EditRead& edit_read) {
    const auto& original = of.texture;
    auto edited = edited_piece(context, project, piece);
    if (!edited) return tl::unexpected(edited.error());
    if (edit_read) edit_read(*edited);
    if (!piece.follows()) return fit(original, std::move(*edited), piece.options, &of.known);
    auto leader_bytes = read_file(project.folder / "originals" / piece.leader_hash);
    if (!leader_bytes) return fail(std::move(leader_bytes).error().within("originals"));
    SKIVET_TRY(const auto leader,
               TextureFile::open(context.textures, std::move(*leader_bytes), piece.file.stem().string(), context.limits));
    // What was mended in the leader is mended for what follows it.
    const auto lead = std::find_if(project.pieces.begin(), project.pieces.end(), [&](const Piece& p) {
        return !p.follows() && p.original_hash == piece.leader_hash && p.file == piece.file;
    });
    FitOptions leading;
    if (lead != project.pieces.end()) leading.mends = lead->options.mends;
    SKIVET_TRY(const auto mended, mended_edit(leader, std::move(*edited), leading));
    SKIVET_TRY(const auto way, parse_way(piece.way));
    auto before = *mended.before, after = *mended.after;
    SKIVET_CHECK(touch(before, way, {}));
    SKIVET_CHECK(touch(after, way, {}));
    SKIVET_TRY(auto own, follow_edit(before, after, original));
    return fit(original, std::move(own), piece.options, &of.known);
}

namespace {

/// One more, or why not; what is on the bench is left out.
void take_one(Taking& taking, Taken& out, const Address& address, const std::function<Result<Piece>()>& take) {
    if (taking.has(address)) return;
    auto piece = take();
    if (!piece) return out.errors.push_back(std::move(piece).error());
    taking.note(*piece);  // so that the next file gets another name
    out.pieces.push_back(std::move(*piece));
}

}  // namespace

Taken take_pieces(const ReadContext& context, const Project& project, std::span<const Address> addresses, const TakeAs& as,
                  std::int64_t now) {
    std::vector<TakeWith> wanted;
    for (const auto& address : addresses) wanted.push_back({address});
    return take_pieces(context, project, wanted, as, now);
}

Taken take_pieces(const ReadContext& context, const Project& project, std::span<const TakeWith> wanted, const TakeAs& as,
                  std::int64_t now) {
    Taken out;
    Taking taking(context, project);
    for (const auto& one : wanted) {
        take_one(taking, out, one.address, [&] { return take_to(taking, one.address, one.address, as, now, nullptr); });
        if (one.followers.empty()) continue;
        const auto taken = std::find_if(out.pieces.begin(), out.pieces.end(), [&](const Piece& p) { return p.address == one.address; });
        const auto* there = taken != out.pieces.end() ? &*taken : project.piece_of(one.address);
        if (!there) continue;  // it could not be taken
        const auto leader = *there;
        for (const auto& follower : one.followers)
            take_one(taking, out, follower, [&] { return take_follower(taking, leader, {follower}, now); });
    }
    return out;
}

Taken take_followers(const ReadContext& context, const Project& project, const Piece& leader, std::span<const Follower> followers,
                     std::int64_t now) {
    Taken out;
    Taking taking(context, project);
    for (const auto& follower : followers)
        take_one(taking, out, follower.address, [&] { return take_follower(taking, leader, follower, now); });
    return out;
}

std::vector<PieceId> keep_taken(Project& project, std::vector<Piece> taken) {
    std::set<std::string> there;
    for (const auto& piece : project.pieces) there.insert(piece.address.text());
    std::vector<PieceId> out;
    for (auto& piece : taken) {
        // Asked for twice before the first was written: one piece is enough.
        if (!there.insert(piece.address.text()).second) continue;
        piece.id = project.next_piece++;
        out.push_back(piece.id);
        project.pieces.push_back(std::move(piece));
    }
    return out;
}

Result<Piece> take_again(const ReadContext& context, const Project& project, const Piece& piece, std::int64_t now) {
    auto others = project;
    others.put_away(piece.id);
    Taking taking(context, others);
    SKIVET_TRY(auto taken, take_to(taking, piece.address, taken_from(piece), piece.as, now, &piece));
    taken.id = piece.id;
    taken.touches = piece.touches;  // they are made on whatever the game has now
    taken.state = state_by_edit(taken);
    return taken;
}

std::string PieceFit::obstacle() const {
    if (!fit) return fit.error().message();
    for (const auto& finding : fit->findings)
        if (finding.grade == Grade::blocks) return finding.headline;
    return {};
}

PieceFit fit_now(const ReadContext& context, const Project& project, const Piece& piece) {
    return {piece.id, piece.edit(), piece.options.wish(), fit_piece(context, project, piece)};
}

PieceFit fit_now(const ReadContext& context, const Project& project, const Piece& piece, const PieceOriginal& original,
                 const EditRead& edit_read) {
    return {piece.id, piece.edit(), piece.options.wish(), fit_piece(context, project, piece, original, edit_read)};
}

bool waits(PieceState state) { return state == PieceState::changed || state == PieceState::fits || state == PieceState::needs_mend; }

bool note_fit(Project& project, const PieceFit& fit) {
    auto* piece = project.piece(fit.piece);
    if (!piece || piece->edit() != fit.edit || piece->options.wish() != fit.wish || !waits(piece->state)) return false;
    const auto state = !fit.fit || fit.fit->needs_mend() ? PieceState::needs_mend : PieceState::fits;
    return std::exchange(piece->state, state) != state;
}

namespace {
bool has_other_size(const Piece& piece) {
    return std::any_of(piece.touches.begin(), piece.touches.end(), [](const std::string& text) {
        const auto touch = parse_touch_up(text);
        return touch && touch->row->resizes;
    });
}
}  // namespace

bool note_refreshed(Project& project, const Piece& seen) {
    auto* piece = project.piece(seen.id);
    // Everything else of the piece, its files too, may have become another while this one was looked at.
    if (!piece || piece->file != seen.file || piece->more.size() != seen.more.size()) return false;
    for (std::size_t i = 0; i < seen.more.size(); ++i)
        if (piece->more[i].file != seen.more[i].file) return false;
    if (piece->seen_hash == seen.seen_hash && piece->more == seen.more) return false;
    piece->seen_hash = seen.seen_hash;
    piece->more = seen.more;
    piece->changed_at = seen.changed_at;
    if (piece->state != PieceState::gone_stale) piece->state = state_by_edit(*piece);
    // A touch-up goes on making another size of whatever is saved.
    const bool sized = piece->options.mends.has(Mend::keep_size) && has_other_size(*piece);
    piece->options.mends = {};
    if (sized) piece->options.mends.add(Mend::keep_size);
    return true;
}

}  // namespace skivet
