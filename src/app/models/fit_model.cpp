#include "app/models/fit_model.h"

#include <chrono>
#include <set>

#include "app/theme/theme.h"

namespace skivet::app {
namespace {

constexpr std::size_t kept_bytes = 256u << 20;
constexpr std::size_t strip_levels = 8;
constexpr int strip_side = 64;

std::size_t bytes_of(const std::shared_ptr<const FittedPiece>& fitted) {
    if (!fitted || !fitted->made.fit) return 0;
    const auto& fit = *fitted->made.fit;
    return (fit.original->texels.size() + fit.edited->texels.size() + fit.result->texels.size()) * sizeof(Texel) + fit.file.size();
}

}  // namespace

FitModel::FitModel(ProjectStore& store, QObject* parent) : QObject(parent), store_(store), jobs_(store.jobs()) {
    // Later, so that whoever shows a piece has asked for its fit by then, and it is made once.
    connect(&store_, &ProjectStore::pieces_changed, this, &FitModel::fit_waiting, Qt::QueuedConnection);
    connect(&store_, &ProjectStore::opened, this, [this] {
        kept_.clear();
        order_.clear();
        fitting_.clear();
        noted_.clear();
        originals_.clear();
        game_mips_ = {};
        fit_waiting();
    });
}

void FitModel::forget(PieceId id) {
    kept_.erase(id);
    order_.remove(id);
    fitting_.erase(id);
    noted_.erase(id);
}

void FitModel::touch(PieceId id) {
    order_.remove(id);
    order_.push_front(id);
    std::size_t sum = 0;
    for (auto it = order_.begin(); it != order_.end();) {
        sum += bytes_of(kept_[*it].fitted);
        if (sum > kept_bytes && it != order_.begin()) {
            kept_.erase(*it);
            it = order_.erase(it);
        } else {
            ++it;
        }
    }
    // The pictures of one piece are on the screen.
    for (auto& [other, kept] : kept_)
        if (other != id) kept.sides.reset();
}

std::shared_ptr<const PieceOriginal> FitModel::original_of(const Piece& piece) const {
    for (const auto& [hash, original] : originals_)
        if (hash == piece.original_hash) return original;
    return nullptr;
}

std::shared_ptr<const FittedPiece> FitModel::fit(PieceId id) {
    const auto* piece = store_.project().piece(id);
    if (!piece) return nullptr;
    if (const auto found = kept_.find(id); found != kept_.end()) {
        if (order_.front() != id) touch(id);
        return found->second.fitted;
    }
    if (fitting_.contains(id)) return nullptr;
    const auto request = fitting_[id] = ++requests_;
    struct Made {
        std::shared_ptr<FittedPiece> fitted;
        Original original;
    };
    jobs_.run(
        this, tr("Fitting"),
        [this, id, request, context = store_.context(), project = store_.shared(), p = *piece, known = original_of(*piece),
         accent = colors().accent] {
            Made out{std::make_shared<FittedPiece>(), {p.original_hash, known}};
            if (!known) {
                auto original = piece_original(*context, *project, p);
                if (!original) {
                    out.fitted->made = {p.id, p.edit(), p.options.wish(), tl::unexpected(original.error())};
                    return out;
                }
                out.original.second = std::make_shared<const PieceOriginal>(std::move(*original));
            }
            const auto& original = out.original.second;
            out.fitted->made = fit_now(*context, *project, p, *original, [&](const EditedFile& edited) {
                // Small ones are fitted before anybody has seen this.
                constexpr std::size_t many_texels = 1u << 21;
                constexpr int little_side = 320;
                const bool many = edited.image.texels.size() >= many_texels;
                const auto& normals = original->known.mips.normals;
                jobs_.tell(this,
                           [this, id, request, edit = QString::fromStdString(p.edit()),
                            yours = many ? whole(edited.image, normals) : QImage(), little = small(edited.image, little_side, normals)] {
                               const auto newest = fitting_.find(id);
                               if (newest != fitting_.end() && newest->second == request) emit read(id, edit, yours, little);
                           });
            });
            out.fitted->original = std::shared_ptr<const TextureFile>(original, &original->texture);
            draw_blocks(*out.fitted, accent);
            return out;
        },
        [this, id, request](Made made) {
            const auto newest = fitting_.find(id);
            if (newest == fitting_.end() || newest->second != request) return;
            fitting_.erase(newest);
            const auto* now_there = store_.project().piece(id);
            if (!now_there) return;
            if (made.fitted->made.edit != now_there->edit()) return store_.tell_pieces_changed();  // saved again meanwhile
            // One more than is looked at, so that going to and fro is quick.
            constexpr std::size_t most_originals = 2;
            if (made.original.second) {
                originals_.remove_if([&](const Original& o) { return o.first == made.original.first; });
                originals_.push_front(std::move(made.original));
                if (originals_.size() > most_originals) originals_.pop_back();
            }
            kept_[id] = {made.fitted, nullptr, nullptr, std::nullopt, false};
            touch(id);
            note(std::span(&made.fitted->made, 1));
            emit ready(id);
        });
    return nullptr;
}

void FitModel::note(std::span<const PieceFit> fits) {
    for (const auto& fit : fits) {
        std::vector<Finding> findings;
        if (fit.fit) findings = fit.fit->findings;
        else findings.push_back({Grade::blocks, tr("The file cannot be read").toStdString(), fit.fit.error().message()});
        noted_[fit.piece] = {fit.edit, fit.wish, std::move(findings)};
        if (fit.fit && fit.fit->resized) noted_[fit.piece].sides = {fit.fit->layout.desc.width, fit.fit->layout.desc.height};
    }
    const bool changed = store_.change_if([&](Project& p) {
        bool any = false;
        for (const auto& fit : fits) any = note_fit(p, fit) || any;
        return any;
    });
    if (changed) store_.tell_pieces_changed();
}

bool FitModel::is_noted(const Piece& piece) const {
    const auto found = noted_.find(piece.id);
    return found != noted_.end() && found->second.edit == piece.edit() && found->second.wish == piece.options.wish();
}

const std::vector<Finding>* FitModel::findings(PieceId id) const {
    const auto* piece = store_.project().piece(id);
    return piece && is_noted(*piece) ? &noted_.at(id).findings : nullptr;
}

PieceSides FitModel::sides() const {
    PieceSides out;
    for (const auto& piece : store_.project().pieces)
        if (const auto found = noted_.find(piece.id); found != noted_.end() && found->second.sides.first > 0 && is_noted(piece))
            out[piece.id] = found->second.sides;
    return out;
}

void FitModel::fit_waiting() {
    if (waiting_runs_) return;
    // As many at once as make a quarter of a second: telling of each by itself would take longer than fitting small ones.
    constexpr std::size_t most = 64;
    static constexpr auto enough = std::chrono::milliseconds(250);
    std::vector<Piece> next;
    for (const auto& p : store_.project().pieces) {
        if (next.size() == most) break;
        if ((p.state == PieceState::changed || p.state == PieceState::needs_mend) && !is_noted(p) && !fitting_.contains(p.id))
            next.push_back(p);
    }
    if (next.empty()) return;
    waiting_runs_ = true;
    jobs_.run(
        Jobs::By::looker, this, tr("Looking at what was saved"),
        [context = store_.context(), project = store_.shared(), next = std::move(next), ending = jobs_.ending()] {
            std::vector<PieceFit> out;
            const auto begin = std::chrono::steady_clock::now();
            for (const auto& piece : next) {
                out.push_back(fit_now(*context, *project, piece));
                // Only what was found is wanted; the pictures go at once.
                if (auto& fit = out.back().fit) fit->original = fit->edited = fit->result = {}, fit->file = {};
                if (ending.canceled() || std::chrono::steady_clock::now() - begin > enough) break;
            }
            return out;
        },
        [this](std::vector<PieceFit> made) {
            waiting_runs_ = false;
            std::erase_if(made, [this](const PieceFit& fit) {
                const auto* piece = store_.project().piece(fit.piece);
                return !piece || piece->edit() != fit.edit || piece->options.wish() != fit.wish;
            });
            note(made);  // says that pieces changed, and comes back here, if one did
            if (!waiting_runs_) fit_waiting();
        });
}

std::shared_ptr<const FitSides> FitModel::sides(PieceId id, const FitLook& look) {
    const auto found = kept_.find(id);
    if (found == kept_.end()) return nullptr;
    auto& kept = found->second;
    if (kept.sides && kept.sides->look == look) return kept.sides;
    if (kept.making == look) return nullptr;
    kept.making = look;
    jobs_.run(
        this, {}, [fitted = kept.fitted, look] { return std::make_shared<const FitSides>(sides_of(fitted, look)); },
        [this, id, of = kept.fitted](std::shared_ptr<const FitSides> made) {
            const auto there = kept_.find(id);
            if (there == kept_.end() || there->second.fitted != of || there->second.making != made->look) return;
            there->second.making.reset();
            there->second.sides = std::move(made);
            emit ready(id);
            reduce(id);
        });
    return nullptr;
}

void FitModel::reduce(PieceId id) {
    const auto sides = kept_.at(id).sides;
    if (!sides || !sides->are_large) return;
    jobs_.run(
        this, {}, [sides] { return std::make_shared<const FitSides>(with_reduced(*sides)); },
        [this, id, sides](std::shared_ptr<const FitSides> made) {
            const auto there = kept_.find(id);
            if (there == kept_.end() || there->second.sides != sides) return;
            there->second.sides = std::move(made);
            emit ready(id);
        });
}

std::shared_ptr<const FitMips> FitModel::mips(PieceId id) {
    const auto found = kept_.find(id);
    if (found == kept_.end()) return nullptr;
    auto& kept = found->second;
    if (kept.mips || kept.making_mips) return kept.mips;
    kept.making_mips = true;
    // What an edit does not change is decoded once.
    const auto game = kept.fitted->original == game_mips_.first ? game_mips_.second : std::vector<QImage>();
    jobs_.run(
        this, {},
        [fitted = kept.fitted, game] { return std::make_shared<const FitMips>(mips_of(*fitted, strip_levels, strip_side, game)); },
        [this, id, of = kept.fitted](std::shared_ptr<const FitMips> made) {
            game_mips_ = {of->original, made->game};
            const auto there = kept_.find(id);
            if (there == kept_.end() || there->second.fitted != of) return;
            there->second.mips = std::move(made);
            emit ready(id);
        });
    return nullptr;
}

void FitModel::mend(const std::vector<PieceId>& ids, const MendSet& mends) {
    store_.change(tr("Mend"), [&](Project& p) {
        for (const auto id : ids)
            if (auto* piece = p.piece(id)) piece->options.mends.press(mends);
    });
    fit_again(ids);
}

void FitModel::fit_again(const std::vector<PieceId>& ids) {
    std::set<std::filesystem::path> files;
    for (const auto id : ids) {
        forget(id);
        if (const auto* piece = store_.project().piece(id)) files.insert(piece->file);
    }
    // What follows them gets what they get.
    std::vector<PieceId> followers;
    store_.change([&](Project& p) {
        for (auto& piece : p.pieces)
            if (piece.follows() && files.contains(piece.file)) {
                if (piece.state == PieceState::fits) piece.state = PieceState::changed;
                followers.push_back(piece.id);
            }
    });
    for (const auto id : followers) forget(id);
    store_.tell_pieces_changed();
}

void FitModel::set_format(const std::vector<PieceId>& ids, Format format) {
    store_.change(tr("Another format"), [&](Project& p) {
        for (const auto id : ids)
            if (auto* piece = p.piece(id)) skivet::set_format(*piece, format, now());
    });
    for (const auto id : ids) forget(id);
    store_.tell_pieces_changed();
}

MendSet FitModel::due_mends(PieceId id) const {
    MendSet out;
    if (const auto* found = findings(id))
        for (const auto& finding : *found)
            if (finding.mend && finding.grade >= Grade::mend) out.add(*finding.mend);
    return out;
}

void FitModel::mend_all(const std::vector<PieceId>& ids) {
    std::vector<PieceId> changed;
    store_.change(tr("Mend all"), [&](Project& p) {
        for (const auto id : ids) {
            const auto due = due_mends(id);
            if (due.empty()) continue;
            p.piece(id)->options.mends.press(due);
            changed.push_back(id);
        }
    });
    if (!changed.empty()) fit_again(changed);
}

std::vector<PieceId> FitModel::with_mend(Mend mend) const {
    std::vector<PieceId> out;
    for (const auto& piece : store_.project().pieces) {
        const auto found = noted_.find(piece.id);
        if (found == noted_.end() || !is_noted(piece)) continue;
        const auto& findings = found->second.findings;
        if (std::any_of(findings.begin(), findings.end(), [&](const Finding& f) { return f.mend == mend; })) out.push_back(piece.id);
    }
    return out;
}

}  // namespace skivet::app
