#include "workflow/pieces.h"

#include <functional>
#include <map>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
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
    if (!piece.on_device.empty() && piece.on_device == piece.edit()) return PieceState::delivered;
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
    // A variant is not there yet, or beside the game.
    if (!bytes && !piece.like.empty() && bytes.error().code == ErrorCode::missing) return piece;
    if (!bytes) return fail(bytes.error());
    if (is_stale(piece, hash_of(*bytes))) piece.state = PieceState::gone_stale;
    return piece;
}

bool is_stale(const Piece& piece, const std::string& now) {
    return !now.empty() && now != piece.original_hash && now != piece.in_game && now != piece.delivered_texture;
}

const std::string& TexturesNow::of(const Piece& piece) {
    const auto [place, is_new] = seen_.try_emplace(piece.id);
    if (is_new)
        if (const auto bytes = read_texture_bytes(context_, reader_, piece.address)) place->second = hash_of(*bytes);
    return place->second;
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
                        phrase("{} is {}×{}, {} {}×{}", one->file.filename().string(), part->image.width, part->image.height,
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
