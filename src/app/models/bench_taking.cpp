// What comes to the bench.
#include "app/models/bench_model.h"

namespace skivet::app {

void BenchModel::keep(Taken taken) {
    for (const auto& error : taken.errors) messages_.complain(error);
    std::vector<PieceId> ids;
    store_.change(tr("Take to the bench"), [&](Project& p) { ids = keep_taken(p, std::move(taken.pieces)); });
    // They are the last of the list. Of thousands nobody reads a line each.
    constexpr std::size_t lines = 100;
    const auto begin = pieces().size() - ids.size();
    for (std::size_t i = begin; i < std::min(pieces().size(), begin + lines); ++i)
        messages_.say(pieces()[i].follows()
                          ? tr("On the bench: %1, following %2")
                                .arg(QString::fromStdString(pieces()[i].address.text()), QString::fromStdString(pieces()[i].file.string()))
                          : tr("On the bench: %1").arg(QString::fromStdString(pieces()[i].file.string())));
    if (ids.size() > lines) messages_.say(tr("… and %L1 more on the bench").arg(ids.size() - lines));
    watch();
    store_.tell_pieces_changed();
}

void BenchModel::take(const std::vector<Address>& addresses, const TakeAs& as) {
    std::vector<TakeWith> wanted;
    wanted.reserve(addresses.size());
    for (const auto& address : addresses) wanted.push_back({address});
    take_with(std::move(wanted), as);
}

void BenchModel::take_with(std::vector<TakeWith> wanted, const TakeAs& as) {
    const auto on_bench = [&](const Address& address) { return store_.piece_of(address) != nullptr; };
    std::vector<const Piece*> there;
    std::erase_if(wanted, [&](const TakeWith& one) {
        if (!on_bench(one.address) || !std::all_of(one.followers.begin(), one.followers.end(), on_bench)) return false;
        there.push_back(store_.piece_of(one.address));
        return true;
    });
    if (there.size() == 1) messages_.tell(tr("%1 is on the bench already.").arg(QString::fromStdString(there.front()->name())));
    if (there.size() > 1) messages_.tell(tr("%L1 of them are on the bench already.").arg(there.size()));
    if (wanted.empty()) return;
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.shared(), wanted = std::move(wanted), as] {
            return take_pieces(*context, *project, wanted, as, now());
        },
        [this](Taken made) { keep(std::move(made)); });
}

void BenchModel::take_variant(const Address& like, const std::string& path) {
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.shared(), like, path] {
            return skivet::take_variant(*context, *project, like, path, {}, now());
        },
        [this](Result<Piece> piece) {
            if (!piece) return messages_.complain(piece.error());
            Taken taken;
            taken.pieces.push_back(std::move(*piece));
            keep(std::move(taken));
        });
}

void BenchModel::take_kin(PieceId id, std::vector<Kin> kin) {
    const auto* leader = piece(id);
    if (!leader) return;
    jobs_.run(
        this, tr("Writing out"),
        [context = store_.context(), project = store_.shared(), leader = *leader, kin = std::move(kin)] {
            return skivet::take_kin(*context, *project, leader, kin, now());
        },
        [this](Taken made) { keep(std::move(made)); });
}

void BenchModel::scale_set(const std::vector<Address>& others, double factor) {
    struct Scaled {
        std::vector<Piece> there;  ///< pieces that are other than before
        Taken taken;
    };
    jobs_.run(
        this, tr("Scaling"),
        [context = store_.context(), before = store_.shared(), others, factor] {
            Scaled out;
            auto after = skivet::scale_set(*context, *before, others, factor, now(), out.taken.errors);
            for (auto& piece : after.pieces) {
                const auto* old = before->piece(piece.id);
                if (!old) out.taken.pieces.push_back(std::move(piece));
                else if (piece.touches != old->touches || piece.options.wish() != old->options.wish())
                    out.there.push_back(std::move(piece));
            }
            return out;
        },
        [this](Scaled scaled) {
            // Only what belongs to these pieces; the rest may have gone on meanwhile.
            store_.change(tr("Another size"), [&](Project& p) {
                for (const auto& theirs : scaled.there) {
                    auto* mine = p.piece(theirs.id);
                    if (!mine) continue;
                    mine->touches = theirs.touches;
                    mine->options = theirs.options;
                    mine->changed_at = theirs.changed_at;
                    if (mine->state != PieceState::gone_stale) mine->state = state_by_edit(*mine);
                }
            });
            for (const auto& piece : scaled.there) forget(piece.id);
            keep(std::move(scaled.taken));
        });
}

}  // namespace skivet::app
