// Textures come to the bench: their bytes are kept, and they are written out as files.
#include <fmt/format.h>
#include <functional>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "bench/cube.h"
#include "container/texture_files.h"
#include "workflow/pieces.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

std::string hash_of(ByteSpan data) { return to_hex(sha256(data)); }

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
    piece.in_game.clear();
    piece.on_device.clear();
    piece.device_delivery.clear();
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
    if (project.piece_of(own)) return fail(ErrorCode::usage, phrase("\"{}\" is on the bench already", path), "Choose another name");
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

}  // namespace skivet
