#pragma once
// The fits of the project's pieces, and what the fitting page shows of them.
#include <list>
#include <map>
#include <QObject>

#include "app/models/fit_pictures.h"
#include "app/models/project_store.h"
#include "workflow/kin.h"

namespace skivet::app {

class FitModel : public QObject {
    Q_OBJECT
public:
    explicit FitModel(ProjectStore& store, QObject* parent = nullptr);

    /// The newest fit, or null and later `ready`. The last few are kept, as many as 256 MB hold.
    [[nodiscard]] std::shared_ptr<const FittedPiece> fit(PieceId id);
    /// Its pictures; null while they are made, then `ready` follows. What was shown last is kept.
    [[nodiscard]] std::shared_ptr<const FitSides> sides(PieceId id, const FitLook& look);
    [[nodiscard]] std::shared_ptr<const FitMips> mips(PieceId id);
    /// What was found about the piece as it is now; null while nobody has looked.
    [[nodiscard]] const std::vector<Finding>* findings(PieceId id) const;
    /// A fit that somebody waits for is being made.
    [[nodiscard]] bool is_fitting(PieceId id) const { return fitting_.contains(id); }

    /// What the textures of the pieces measure that get another size, as far as they were fitted.
    [[nodiscard]] PieceSides sides() const;

    /// Mends of these pieces; those that are not due stay without effect.
    void mend(const std::vector<PieceId>& ids, const MendSet& mends);
    /// The format that these pieces get; unknown: their own.
    void set_format(const std::vector<PieceId>& ids, Format format);
    /// Every mend that was found to be due, in all of these pieces.
    void mend_all(const std::vector<PieceId>& ids);
    /// Whether mend_all would do something to the piece.
    [[nodiscard]] bool has_due_mends(PieceId id) const { return !due_mends(id).empty(); }
    /// All pieces whose list offers the mend.
    [[nodiscard]] std::vector<PieceId> with_mend(Mend mend) const;
    /// What was made of the piece as it was.
    void forget(PieceId id);
    /// Fits what is changed and was not looked at, one after the other, behind everything else.
    void fit_waiting();

signals:
    /// A fit or some of its pictures.
    void ready(PieceId id);
    /// What was painted, as soon as it is read: whole where what the game will get takes longer to make (null elsewhere), and small.
    void read(PieceId id, const QString& edit, QImage yours, QImage little);

private:
    struct Kept {
        std::shared_ptr<const FittedPiece> fitted;
        std::shared_ptr<const FitSides> sides;
        std::shared_ptr<const FitMips> mips;
        std::optional<FitLook> making;  ///< the look that sides are made for
        bool making_mips = false;
    };
    /// What a fit was made from, for telling whether it is still the newest.
    struct Noted {
        std::string edit;
        FitWish wish;
        std::vector<Finding> findings;
        std::pair<std::uint32_t, std::uint32_t> sides = {};  ///< of what the game gets, where they are not the original's
    };
    using Original = std::pair<std::string, std::shared_ptr<const PieceOriginal>>;  ///< by its hash

    void note(std::span<const PieceFit> fits);
    /// With other mends than before, and those that follow them.
    void fit_again(const std::vector<PieceId>& ids);
    [[nodiscard]] MendSet due_mends(PieceId id) const;
    [[nodiscard]] bool is_noted(const Piece& piece) const;
    void touch(PieceId id);
    /// Makes the reduced pictures of the sides that are shown.
    void reduce(PieceId id);
    [[nodiscard]] std::shared_ptr<const PieceOriginal> original_of(const Piece& piece) const;

    ProjectStore& store_;
    Jobs& jobs_;
    std::map<PieceId, Kept> kept_;
    std::list<PieceId> order_;                  ///< of kept_, the newest first
    std::map<PieceId, std::uint64_t> fitting_;  ///< the newest request; answers to older ones are dropped
    std::uint64_t requests_ = 0;
    std::map<PieceId, Noted> noted_;
    std::list<Original> originals_;                                                 ///< of the last pieces looked at, the newest first
    std::pair<std::shared_ptr<const TextureFile>, std::vector<QImage>> game_mips_;  ///< of the last one
    bool waiting_runs_ = false;
};

}  // namespace skivet::app
