#pragma once
// What is done with the pieces of a project. Everything here reads or writes files and may take long; the project itself is not changed
// but returned, so that a window can do it beside itself.
#include <functional>

#include "workflow/project.h"

namespace skivet {

/// Takes an entry to the bench: keeps its original bytes and writes it out. The file name follows the entry's path and never leaves
/// the work folder. Where alpha comes apart it lies beside, as x.dds.alpha.png.
[[nodiscard]] Result<Piece> take_piece(const ReadContext& context, const Project& project, const Address& address, const TakeAs& as,
                                       std::int64_t now);

/// Takes a variant of an entry to the bench: the same texture under a path of its own, which comes into the archive with the delivery.
/// Errors: `usage` for a path that cannot be one or is taken, `unsupported` where nothing can be added, and why.
[[nodiscard]] Result<Piece> take_variant(const ReadContext& context, const Project& project, const Address& like, const std::string& path,
                                         const TakeAs& as, std::int64_t now);

/// Another entry that goes by a piece's edit: a copy of its picture, or a map that is made of it.
struct Follower {
    Address address;
    std::vector<std::string> way = {};  ///< see Piece::way
};
/// Takes another entry along: it has no file of its own but follows the leader's edit (follow.h).
[[nodiscard]] Result<Piece> take_follower(const ReadContext& context, const Project& project, const Piece& leader, const Follower& follower,
                                          std::int64_t now);

/// Looks at the piece's file and returns the piece with its state brought up to date: changed when the file was saved with other
/// content, out when it is as exported. A file that is gone leaves the state as it is.
[[nodiscard]] Piece refresh_piece(const Project& project, Piece piece, std::int64_t now);
/// The state that follows from the piece's file and touch-ups and from what was delivered: out, changed or delivered.
[[nodiscard]] PieceState state_by_edit(const Piece& piece);
/// Gives pieces other touch-ups, and those that share their files. Error `usage` for a text that is none, and for a piece that is not
/// there; then nothing is changed.
[[nodiscard]] Status set_touches(Project& project, std::map<PieceId, std::vector<std::string>> touches, std::int64_t now);
/// The format that the piece's texture gets; unknown: its own. A delivered piece is a changed one then.
void set_format(Piece& piece, Format format, std::int64_t now);
/// What the piece's file holds, with the piece's touch-ups made. Pictures they name lie in the work folder.
[[nodiscard]] Result<EditedFile> edited_piece(const ReadContext& context, const Project& project, const Piece& piece,
                                              const CancelToken& cancel = {});
/// Whether the game's entry is still what was taken or what we delivered; sets gone_stale otherwise.
[[nodiscard]] Result<Piece> check_source(const ReadContext& context, Piece piece);
/// The same for one after the other.
[[nodiscard]] Result<Piece> check_source(const ReadContext& context, AddressReader& reader, Piece piece);
/// Whether a texture file of this SHA-256 is neither what was taken nor what was put in. None is no other one.
[[nodiscard]] bool is_stale(const Piece& piece, const std::string& now);
/// What the game has now in pieces' places. Each entry is read once, when it is first asked for, whoever asks.
class TexturesNow {
public:
    /// The context must outlive it.
    explicit TexturesNow(const ReadContext& context) : context_(context), reader_(context) {}
    /// SHA-256 of the texture file; empty where there is none to be read.
    [[nodiscard]] const std::string& of(const Piece& piece);

private:
    const ReadContext& context_;
    AddressReader reader_;
    std::map<PieceId, std::string> seen_;
};

[[nodiscard]] Result<TextureFile> original_texture(const ReadContext& context, const Project& project, const Piece& piece);
/// The piece's original, and what fits of it want to know, for several fits of one piece.
struct PieceOriginal {
    TextureFile texture;
    KnownOriginal known;
};
[[nodiscard]] Result<PieceOriginal> piece_original(const ReadContext& context, const Project& project, const Piece& piece);
[[nodiscard]] Result<Fit> fit_piece(const ReadContext& context, const Project& project, const Piece& piece);
/// Told as soon as the edit is read: a fit may take much longer.
using EditRead = std::function<void(const EditedFile&)>;
[[nodiscard]] Result<Fit> fit_piece(const ReadContext& context, const Project& project, const Piece& piece, const PieceOriginal& original,
                                    const EditRead& edit_read = {});

/// Several at once: what could be taken, and why the others could not.
struct Taken {
    std::vector<Piece> pieces;
    std::vector<Error> errors;
};
/// Those that are on the bench already are left out.
[[nodiscard]] Taken take_pieces(const ReadContext& context, const Project& project, std::span<const Address> addresses, const TakeAs& as,
                                std::int64_t now);
/// A texture and what follows its edit.
struct TakeWith {
    Address address;
    std::vector<Address> followers = {};
};
/// The same with followers. A leader that is on the bench already is used.
[[nodiscard]] Taken take_pieces(const ReadContext& context, const Project& project, std::span<const TakeWith> wanted, const TakeAs& as,
                                std::int64_t now);
/// What follows a piece that is on the bench; what is there already is left out.
[[nodiscard]] Taken take_followers(const ReadContext& context, const Project& project, const Piece& leader,
                                   std::span<const Follower> followers, std::int64_t now);
/// Keeps what was taken in the project, with ids; returns those that were not there yet.
std::vector<PieceId> keep_taken(Project& project, std::vector<Piece> taken);
/// Takes the texture of a piece anew, as it is in the game now; the piece keeps its id and place, and a file of the same name is written
/// over: whoever asks for it has been asked.
[[nodiscard]] Result<Piece> take_again(const ReadContext& context, const Project& project, const Piece& piece, std::int64_t now);

/// A piece's fit, or why there is none.
struct PieceFit {
    PieceId piece = 0;
    std::string edit;  ///< that it was made from
    FitWish wish;      ///< that it was made by
    Result<Fit> fit = Fit{};

    [[nodiscard]] bool deliverable() const { return fit && !fit->blocked(); }
    /// Why it cannot be delivered, in a few words; empty when it can.
    [[nodiscard]] std::string obstacle() const;
};
[[nodiscard]] PieceFit fit_now(const ReadContext& context, const Project& project, const Piece& piece);
[[nodiscard]] PieceFit fit_now(const ReadContext& context, const Project& project, const Piece& piece, const PieceOriginal& original,
                               const EditRead& edit_read = {});
/// Whether the piece is edited and waits to be fitted or delivered.
[[nodiscard]] bool waits(PieceState state);
/// Brings the piece's state up to date with a fit of it; false when nothing changed, or the fit is of an older file.
bool note_fit(Project& project, const PieceFit& fit);

/// Takes over what `refresh_piece` saw: true when the file was saved anew. A mend belongs to the file it was pressed for, so they are
/// forgotten then; but for another size that touch-ups make.
bool note_refreshed(Project& project, const Piece& seen);

}  // namespace skivet
