#pragma once
// From the bench into the game and back: what would be written and where, writing it, undoing it, giving space back. A plan is a value that
// can be shown; what the pieces' states are afterwards is said here, for both faces.
#include "catalog/catalog.h"
#include "delivery/vault.h"
#include "workflow/pieces.h"

namespace skivet {

/// A piece in a plan, as it was when it was planned.
struct PlannedPiece {
    PieceId id = 0;
    std::string name;
    std::vector<std::string> inner;  ///< steps from the source to the entry
    std::string like;                ///< Piece::like
    std::string edit;                ///< Piece::edit
    std::uint64_t new_blocks = 0;    ///< of all levels
    std::uint64_t kept_blocks = 0;
    std::string original_hash = {};       ///< Piece::original_hash
    std::string texture_hash = {};        ///< SHA-256 of what its fit made
    PieceState state = PieceState::fits;  ///< as the fit has it: fits, or needs_mend where something is probably not meant
};

/// What one delivery into one source, or into one place beside the game's own, would write.
struct DeliveryGroup {
    std::filesystem::path source;
    WritePlan plan = {};
    std::vector<PlannedPiece> pieces = {};
    std::vector<AddressedBytes> contents = {};  ///< textures as they become: one per piece; with parcels' changes those of all layers
    std::vector<Content> fitted = {};           ///< with parcels' changes: what the pieces' fits made, one per piece
    std::vector<EntryChange> changes = {};      ///< entries that get other names or go
    std::uint64_t archive_size = 0;             ///< bytes
    std::optional<Error> error = {};            ///< why it cannot be planned
    std::vector<std::string> notes = {};        ///< what else the plan does, for the person
    bool stacked = false;                       ///< parcels change the source, too; the plan is made from the originals
    bool beside = false;                        ///< `source` is a folder or archive beside the game's own
    bool device = false;                        ///< `source` is the folder of a card or device
    std::vector<std::string> lists = {};        ///< archives that are added to `source`, a list of the game's

    [[nodiscard]] bool writes() const { return !error && !plan.empty(); }
};

/// A changed piece that needs a mend, or a look, first.
struct LeftOutPiece {
    PieceId id = 0;
    std::string name, why;
    std::string edit;
};

struct DeliveryPlan {
    std::vector<DeliveryGroup> groups;
    std::vector<LeftOutPiece> left_out;
    std::string where = {};                          ///< the place beside the archives, in words; empty: into the archives
    std::string title = {};                          ///< of the delivery; empty: by what is in it
    std::filesystem::path project = {};              ///< the project's folder, which keeps what is delivered
    std::vector<EntryChange> waiting;                ///< changes that only a delivery into the archives can make
    [[nodiscard]] std::size_t piece_count() const;   ///< that would be written
    [[nodiscard]] std::size_t change_count() const;  ///< entries that would get other names or go
};

/// Fits every piece that waits and plans by the project's destination: into the archives; as loose files in the folder `override` of the
/// game (of the project, where no game is known); or as one new archive a source, zz_NAME_patch beside the game, with a number where one of
/// that name is there already, for it may be another mod's, and in the game's list; or onto a device, with what was delivered elsewhere and
/// is not there yet. Errors of a group stand in it.
[[nodiscard]] DeliveryPlan plan_delivery(const ReadContext& context, const Project& project);
/// The same for some of the pieces; all when none is named.
[[nodiscard]] DeliveryPlan plan_delivery(const ReadContext& context, const Project& project, std::span<const PieceId> some);

/// The states the plan's fits have found; false when nothing changed.
bool note_planned(Project& project, const DeliveryPlan& plan);

/// What became of a plan.
struct Delivered {
    std::optional<Error> error;       ///< then nothing was written, or all of it was rolled back
    std::vector<std::size_t> groups;  ///< those that are in the game now
    std::string id;                   ///< of the delivery in the history
    std::vector<Journal> history;
};
/// Writes all groups that have no error, or none; then every entry is read through the container and compared.
[[nodiscard]] Delivered deliver(const ReadContext& context, const DeliveryPlan& plan, Vault vault, std::int64_t now);
/// The states after it. A piece that was saved again meanwhile is a changed piece.
void note_delivered(Project& project, const DeliveryPlan& plan, const Delivered& delivered);

/// What the game has of pieces in sources that parcels change, too, by the contents of these groups.
void note_in_game(Project& project, std::span<const DeliveryGroup> groups);

/// Piece::in_game of all pieces in such sources, by what lies there now, whoever put it there.
[[nodiscard]] std::vector<std::pair<PieceId, std::string>> in_game_now(const ReadContext& context, const Project& project);

struct Undone {
    Status status;
    std::vector<Journal> history;
    std::vector<PieceId> changed_again;                    ///< delivered before, and now no longer in the game
    std::vector<std::pair<PieceId, std::string>> in_game;  ///< Piece::in_game as it is now
};
[[nodiscard]] Undone undo_delivery(const ReadContext& context, const Project& project, Vault vault, const std::string& id);
void note_undone(Project& project, const Undone& undone);
/// Forgets what was remembered of deliveries that do not stand any more, parcels among them. True when anything changed.
bool settle_history(Project& project, std::span<const Journal> history);

/// Giving back what nothing in an archive uses any more, as a plan; an empty one when there is nothing. `check` reads every entry again and
/// compares: a delivery stands only when it holds.
struct CompactPlan {
    WritePlan plan;
    DeliveryNote note;
    std::function<Status()> check;
};
/// `context` must outlive it.
[[nodiscard]] Result<CompactPlan> plan_compacting(const ReadContext& context, const std::filesystem::path& source,
                                                  std::shared_ptr<const Container> container, const CancelToken& cancel = {});

/// Pieces whose entry is no longer what was taken or delivered. Canceled, it ends with what it has seen.
[[nodiscard]] std::vector<PieceId> gone_stale(const ReadContext& context, std::span<const Piece> pieces, const CancelToken& cancel = {});
[[nodiscard]] std::vector<PieceId> gone_stale(std::span<const Piece> pieces, TexturesNow& now, const CancelToken& cancel = {});
/// Takes that over, but for pieces that were taken again or delivered since: then the game was `looked_at` with what is no more. False when
/// nothing changed.
bool note_stale(Project& project, std::span<const PieceId> stale, const Project& looked_at);

}  // namespace skivet
