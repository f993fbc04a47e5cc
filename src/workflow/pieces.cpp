#include "workflow/pieces.h"

#include <fmt/format.h>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/follow.h"
#include "bench/touching.h"
#include "container/texture_files.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

std::string hash_of(ByteSpan data) { return to_hex(sha256(data)); }

}  // namespace

namespace {

/// `over`: a file that may be written over; empty: another name is found where there is one of other content.
Result<Piece> take_to(const ReadContext& context, const Project& project, const Address& address, ExportAs as, std::int64_t now,
                      const fs::path& over) {
    SKIVET_TRY(auto bytes, read_texture_bytes(context, address));
    Piece piece;
    piece.address = address;
    piece.original_hash = hash_of(bytes);
    SKIVET_CHECK(write_file(project.original_of(piece), bytes));
    auto texture = TextureFile::open(context.textures, std::move(bytes), address.inner.back(), context.limits);
    if (!texture) return fail(std::move(texture).error().within(address.inner.back()));
    if (texture->layout.damage) return fail(texture->layout.damage->within(address.inner.back()));
    as = decided(as, texture->layout.desc.format);
    piece.as = as;
    auto exported = export_as(*texture, as);
    if (!exported) return fail(std::move(exported).error().within(address.inner.back()));
    fs::path relative = safe_relative_path(address.source.stem().string());
    for (const auto& step : address.inner) relative /= safe_relative_path(step);
    // The whole old name stays in the new one, so that x.dds and x.pnl side by side do not meet in one file.
    relative += extension_of(as);
    piece.file = relative;
    // A file in the work folder is somebody's work, also when its piece was put away long ago.
    const auto is_taken = [&](const fs::path& file) {
        if (std::any_of(project.pieces.begin(), project.pieces.end(), [&](const Piece& p) { return p.file == file; })) return true;
        std::error_code code;
        if (file == over || !fs::exists(project.work() / file, code)) return false;
        const auto there = read_file(project.work() / file);
        return !there || *there != *exported;
    };
    for (int n = 2; is_taken(piece.file); ++n)
        piece.file = relative.parent_path() / fmt::format("{}_{}{}", relative.stem().string(), n, extension_of(as));
    SKIVET_CHECK(write_file(project.work() / piece.file, *exported));
    piece.exported_hash = piece.seen_hash = hash_of(*exported);
    piece.state = PieceState::out;
    piece.changed_at = now;
    return piece;
}

}  // namespace

Result<Piece> take_piece(const ReadContext& context, const Project& project, const Address& address, ExportAs as, std::int64_t now) {
    return take_to(context, project, address, as, now, {});
}

Result<Piece> take_follower(const ReadContext& context, const Project& project, const Piece& leader, const Address& address,
                            std::int64_t now) {
    SKIVET_TRY(auto bytes, read_texture_bytes(context, address));
    auto piece = leader;
    piece.address = address;
    piece.leader_hash = leader.follows() ? leader.leader_hash : leader.original_hash;
    piece.original_hash = hash_of(bytes);
    piece.delivered_hash.clear();
    piece.delivered_texture.clear();
    piece.options = {};
    piece.changed_at = now;
    if (piece.state == PieceState::delivered || piece.state == PieceState::gone_stale) piece.state = state_by_edit(piece);
    SKIVET_CHECK(write_file(project.original_of(piece), bytes));
    const auto texture = TextureFile::open(context.textures, std::move(bytes), address.inner.back(), context.limits);
    if (!texture) return fail(texture.error().within(address.inner.back()));
    if (texture->layout.damage) return fail(texture->layout.damage->within(address.inner.back()));
    return piece;
}

Piece refresh_piece(const Project& project, Piece piece, std::int64_t now) {
    const auto bytes = read_file(project.work() / piece.file);
    if (!bytes) return piece;
    const auto hash = hash_of(*bytes);
    if (hash == piece.seen_hash) return piece;
    piece.seen_hash = hash;
    piece.changed_at = now;
    piece.state = state_by_edit(piece);
    return piece;
}

PieceState state_by_edit(const Piece& piece) {
    if (!piece.delivered_hash.empty()) return piece.edit() == piece.delivered_hash ? PieceState::delivered : PieceState::changed;
    return piece.seen_hash == piece.exported_hash && piece.touches.empty() ? PieceState::out : PieceState::changed;
}

Status set_touches(Project& project, PieceId id, std::vector<std::string> touches, std::int64_t now) {
    const auto* asked = project.piece(id);
    if (!asked) return fail(ErrorCode::usage, fmt::format("the project has no piece {}", id));
    for (auto& text : touches) {
        SKIVET_TRY(const auto touch, parse_touch_up(text));
        text = text_of(touch);
    }
    const auto file = asked->file;
    for (auto& piece : project.pieces) {
        if (piece.file != file || piece.touches == touches) continue;
        piece.touches = touches;
        piece.changed_at = now;
        if (piece.state != PieceState::gone_stale) piece.state = state_by_edit(piece);
    }
    return {};
}

Result<Piece> check_source(const ReadContext& context, Piece piece) {
    SKIVET_TRY(const auto bytes, read_texture_bytes(context, piece.address));
    const auto hash = hash_of(bytes);
    if (hash != piece.original_hash && (piece.delivered_texture.empty() || hash != piece.delivered_texture))
        piece.state = PieceState::gone_stale;
    return piece;
}

Result<TextureFile> original_texture(const ReadContext& context, const Project& project, const Piece& piece) {
    auto bytes = read_file(project.original_of(piece));
    if (!bytes) return fail(std::move(bytes).error().within("originals"));
    return TextureFile::open(context.textures, std::move(*bytes), piece.address.inner.back(), context.limits);
}

Result<EditedFile> edited_piece(const ReadContext& context, const Project& project, const Piece& piece, const CancelToken& cancel) {
    auto bytes = read_file(project.work() / piece.file);
    if (!bytes) return fail(std::move(bytes).error().within(piece.name()));
    auto edited = read_edited(std::move(*bytes), context.limits, piece.file.string());
    if (!edited) return fail(std::move(edited).error().within(piece.file.filename().string()));
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

Result<Fit> fit_piece(const ReadContext& context, const Project& project, const Piece& piece, const PieceOriginal& of) {
    const auto& original = of.texture;
    auto edited = edited_piece(context, project, piece);
    if (!edited) return tl::unexpected(edited.error());
    if (!piece.follows()) return fit(original, std::move(*edited), piece.options, &of.known);
    auto leader_bytes = read_file(project.folder / "originals" / piece.leader_hash);
    if (!leader_bytes) return fail(std::move(leader_bytes).error().within("originals"));
    SKIVET_TRY(const auto leader,
               TextureFile::open(context.textures, std::move(*leader_bytes), piece.file.stem().string(), context.limits));
    SKIVET_TRY(auto own, follow_edit(leader, *edited, original));
    return fit(original, std::move(own), piece.options, &of.known);
}

Taken take_pieces(const ReadContext& context, Project project, std::span<const Address> addresses, ExportAs as, std::int64_t now) {
    Taken out;
    for (const auto& address : addresses) {
        if (project.piece_of(address)) continue;
        auto piece = take_piece(context, project, address, as, now);
        if (!piece) {
            out.errors.push_back(std::move(piece).error());
            continue;
        }
        project.pieces.push_back(*piece);  // so that the next file gets another name
        out.pieces.push_back(std::move(*piece));
    }
    return out;
}

Taken take_with_followers(const ReadContext& context, Project project, const Address& address, std::span<const Address> others,
                          std::int64_t now) {
    auto out = take_pieces(context, project, std::span(&address, 1), ExportAs::picture, now);
    if (!out.errors.empty()) return out;
    if (!out.pieces.empty()) project.pieces.push_back(out.pieces.front());
    const auto leader = *project.piece_of(address);
    for (const auto& other : others) {
        if (project.piece_of(other)) continue;
        auto piece = take_follower(context, project, leader, other, now);
        if (piece) out.pieces.push_back(std::move(*piece));
        else out.errors.push_back(std::move(piece).error());
    }
    return out;
}

std::vector<PieceId> keep_taken(Project& project, std::vector<Piece> taken) {
    std::vector<PieceId> out;
    for (auto& piece : taken)
        // Asked for twice before the first was written: one piece is enough.
        if (const auto* kept = project.add(std::move(piece))) out.push_back(kept->id);
    return out;
}

Result<Piece> take_again(const ReadContext& context, const Project& project, const Piece& piece, std::int64_t now) {
    auto others = project;
    others.put_away(piece.id);
    SKIVET_TRY(auto taken, take_to(context, others, piece.address, piece.as, now, piece.file));
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
    return {piece.id, piece.edit(), piece.options.mends, fit_piece(context, project, piece)};
}

PieceFit fit_now(const ReadContext& context, const Project& project, const Piece& piece, const PieceOriginal& original) {
    return {piece.id, piece.edit(), piece.options.mends, fit_piece(context, project, piece, original)};
}

bool waits(PieceState state) { return state == PieceState::changed || state == PieceState::fits || state == PieceState::needs_mend; }

bool note_fit(Project& project, const PieceFit& fit) {
    auto* piece = project.piece(fit.piece);
    if (!piece || piece->edit() != fit.edit || piece->options.mends != fit.mends || !waits(piece->state)) return false;
    const auto state = !fit.fit || fit.fit->needs_mend() ? PieceState::needs_mend : PieceState::fits;
    return std::exchange(piece->state, state) != state;
}

bool note_refreshed(Project& project, const Piece& seen) {
    auto* piece = project.piece(seen.id);
    // Everything else of the piece, its file too, may have become another while this one was looked at.
    if (!piece || piece->file != seen.file || piece->seen_hash == seen.seen_hash) return false;
    piece->seen_hash = seen.seen_hash;
    piece->changed_at = seen.changed_at;
    if (piece->state != PieceState::gone_stale) piece->state = state_by_edit(*piece);
    piece->options = {};
    return true;
}

}  // namespace skivet
