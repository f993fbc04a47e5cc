#pragma once
// What of the game goes with a piece: textures that show the same picture, maps of its set that are made of it, and maps of its set whose
// size no longer goes with its own.
#include "bench/derived_map.h"
#include "workflow/catalog_snapshot.h"
#include "workflow/pieces.h"

namespace skivet {

struct Kin {
    Address address;
    Likeness likeness = Likeness::none;  ///< of the same picture: same, smaller or larger than the piece's
    std::vector<std::string> way;        ///< of a map that is made of it: how (derived_map.h)
};

/// All of them effective, and none on the bench.
struct Kindred {
    std::vector<Kin> copies;   ///< they show the same picture
    std::vector<Kin> derived;  ///< they are made of it
    /// Of the set, where the piece becomes larger or smaller by a factor that others do not: those others, on the bench or not.
    std::vector<Address> other_size;
    double factor = 1;  ///< of the piece's width
};

/// What the textures of pieces measure that get another size; others keep the original's sides.
using PieceSides = std::map<PieceId, std::pair<std::uint32_t, std::uint32_t>>;

/// A variant has none: it is there to differ. By what the piece's original showed, so that a delivered piece still has its kin. Reads the
/// textures of its set, 16 at most. Errors: `canceled`, and those of the piece's original; what else cannot be read is left out.
[[nodiscard]] Result<Kindred> kin_of(const ReadContext& context, const AnalyzedCatalog& catalog, const Project& project, const Piece& piece,
                                     const PieceSides& sides, const CancelToken& cancel = {});

/// Of each of these pieces the copies that stay as they are when it is delivered; pieces without any are left out. Errors: `canceled`.
struct LeftCopies {
    PieceId piece = 0;
    std::vector<Kin> copies;
};
[[nodiscard]] Result<std::vector<LeftCopies>> copies_left(const ReadContext& context, const AnalyzedCatalog& catalog,
                                                          const Project& project, std::span<const PieceId> pieces,
                                                          const CancelToken& cancel = {});

/// Each texture with what shows the same picture and the game loads; what is in the list itself goes for itself.
[[nodiscard]] std::vector<TakeWith> with_copies(const AnalyzedCatalog& catalog, std::span<const std::size_t> items);

/// A finding that is not about the piece alone, and what can be done about it.
struct KinFinding {
    enum class Offer : std::uint8_t {
        take_copies,   ///< they follow the piece's edit
        take_derived,  ///< they follow by their way
        scale_set,     ///< the rest of the set becomes larger by the same factor
    };
    Finding finding;
    Offer offer = Offer::take_copies;
    std::vector<Kin> kin;
};
/// What a person is told, and the word on the button.
[[nodiscard]] std::vector<KinFinding> findings_of(const Kindred& kindred);
[[nodiscard]] std::string_view words_of(KinFinding::Offer offer);

/// Takes kin along: copies and derived maps follow the piece.
[[nodiscard]] Taken take_kin(const ReadContext& context, const Project& project, const Piece& piece, std::span<const Kin> kin,
                             std::int64_t now);
/// Takes what of the set is not on the bench yet, and makes all of them larger (or smaller) by touch-ups. Returns the project with them.
/// Errors of single textures go to `errors`.
[[nodiscard]] Project scale_set(const ReadContext& context, Project project, std::span<const Address> others, double factor,
                                std::int64_t now, std::vector<Error>& errors);

}  // namespace skivet
