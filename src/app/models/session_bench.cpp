// The bench and delivery side of the session.
#include <fmt/format.h>
#include <QDateTime>
#include <QDesktopServices>
#include <QDir>
#include <QUrl>

#include "app/models/session.h"
#include "base/file_write.h"
#include "codec/paint_form.h"
#include "container/texture_files.h"
#include "delivery/routes.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

std::int64_t now() { return QDateTime::currentSecsSinceEpoch(); }
QString text(const fs::path& path) { return QString::fromStdString(path.string()); }

/// One archive, or the override folder, for pieces that leave the game's archives alone.
void plan_beside(const Kinds& kinds, const Project& project, DeliveryPlan& plan) {
    const auto game = project.game.empty() ? project.folder : project.game;
    std::vector<DeliveryGroup> out;
    std::vector<AddressedBytes> loose;
    for (auto& group : plan.groups) {
        const auto work = [&]() -> Result<WritePlan> {
            SKIVET_TRY(const auto source, open_source(kinds, group.source));
            SKIVET_TRY(auto files, spread_replacements(kinds, *source, group.contents));
            if (project.route == DeliveryRoute::patch_archives) {
                // A patch that is there already may be another mod's.
                const auto name = [&](int n) {
                    return game / fmt::format("zz_{}_patch{}{}", group.source.stem().string(), n > 1 ? "_" + std::to_string(n) : "",
                                              group.source.extension().string());
                };
                auto file = name(1);
                std::error_code code;
                for (int n = 2; fs::exists(file, code); ++n) file = name(n);
                auto made = plan_patch_archive(kinds, *source, file, files);
                group.source = file;
                return made;
            }
            std::move(files.begin(), files.end(), std::back_inserter(loose));
            return WritePlan{};
        };
        group.beside = true;
        auto planned = work();
        if (planned) group.plan = std::move(*planned);
        else group.error = std::move(planned).error();
        if (project.route == DeliveryRoute::patch_archives || group.error) {
            out.push_back(std::move(group));
            continue;
        }
        if (out.empty() || out.back().error) out.push_back({game / "override", {}, {}, {}, 0, std::nullopt, {}, true});
        auto& all = out.back();
        all.pieces.insert(all.pieces.end(), group.pieces.begin(), group.pieces.end());
        std::move(group.contents.begin(), group.contents.end(), std::back_inserter(all.contents));
    }
    if (project.route == DeliveryRoute::beside_the_game && !out.empty() && !loose.empty()) {
        auto& all = out.back();
        auto planned = plan_override(all.source, loose);
        if (planned) all.plan = std::move(*planned);
        else all.error = std::move(planned).error();
    }
    plan.groups = std::move(out);
}

}  // namespace

void Session::take(const std::vector<std::size_t>& items, ExportAs as) {
    std::vector<Address> addresses;
    for (const auto item : items) {
        if (item >= stock_->catalog.items.size() || !stock_->catalog.items[item].is_texture()) continue;
        const auto& entry = stock_->catalog.items[item];
        auto address = address_of(stock_->sources[entry.source], entry);
        const auto& pieces = project_.pieces;
        if (std::any_of(pieces.begin(), pieces.end(), [&](const Piece& p) { return p.address == address; }))
            emit notice(tr("%1 is on the bench already.").arg(QString::fromStdString(entry.name())));
        else addresses.push_back(std::move(address));
    }
    if (addresses.empty()) return;
    struct Taken {
        std::vector<Piece> pieces;
        std::vector<Error> errors;
    };
    run(
        tr("Writing out"),
        [kinds = kinds_, project = project_, addresses, as]() mutable {
            Taken out;
            for (const auto& address : addresses) {
                auto piece = take_piece(*kinds, project, address, as, now());
                if (!piece) {
                    out.errors.push_back(std::move(piece).error());
                    continue;
                }
                project.pieces.push_back(*piece);
                out.pieces.push_back(std::move(*piece));
            }
            return out;
        },
        [this](Taken taken) {
            for (const auto& error : taken.errors) complain(error);
            for (auto& piece : taken.pieces) {
                // Pressed twice before the first was written: one piece is enough.
                const auto same = [&](const Piece& p) { return p.address == piece.address; };
                if (std::any_of(project_.pieces.begin(), project_.pieces.end(), same)) continue;
                say(tr("On the bench: %1").arg(text(piece.file)));
                project_.pieces.push_back(std::move(piece));
            }
            save();
            watch_pieces();
            emit pieces_changed();
        });
}

void Session::take_with_copies(std::size_t item, const Relations& relations) {
    if (item >= stock_->catalog.items.size()) return;
    const auto address_at = [&](std::size_t i) {
        return address_of(stock_->sources[stock_->catalog.items[i].source], stock_->catalog.items[i]);
    };
    std::vector<Address> others;
    for (const auto& alike : relations.alike)
        if (alike.likeness != Likeness::variant && stock_->catalog.items[alike.index].effective) others.push_back(address_at(alike.index));
    if (others.empty()) {
        emit notice(tr("No other texture shows the same picture; it goes to the bench alone."));
        return take({item}, ExportAs::picture);
    }
    struct Taken {
        std::vector<Piece> pieces;
        std::vector<Error> errors;
    };
    run(
        tr("Writing out"),
        [kinds = kinds_, project = project_, address = address_at(item), others]() mutable {
            Taken out;
            const auto same = [](const Address& a) { return [&a](const Piece& p) { return p.address == a; }; };
            auto leader = std::find_if(project.pieces.begin(), project.pieces.end(), same(address));
            if (leader == project.pieces.end()) {
                auto piece = take_piece(*kinds, project, address, ExportAs::picture, now());
                if (!piece) {
                    out.errors.push_back(std::move(piece).error());
                    return out;
                }
                out.pieces.push_back(*piece);
                project.pieces.push_back(std::move(*piece));
                leader = std::prev(project.pieces.end());
            }
            const auto lead = *leader;
            for (const auto& other : others) {
                if (std::any_of(project.pieces.begin(), project.pieces.end(), same(other))) continue;
                auto piece = take_follower(*kinds, project, lead, other, now());
                if (piece) out.pieces.push_back(std::move(*piece));
                else out.errors.push_back(std::move(piece).error());
            }
            return out;
        },
        [this](Taken taken) {
            for (const auto& error : taken.errors) complain(error);
            for (auto& piece : taken.pieces) {
                if (std::any_of(project_.pieces.begin(), project_.pieces.end(), [&](const Piece& p) { return p.address == piece.address; }))
                    continue;
                say(piece.follows()
                        ? tr("On the bench: %1, following %2").arg(QString::fromStdString(piece.address.text()), text(piece.file))
                        : tr("On the bench: %1").arg(text(piece.file)));
                project_.pieces.push_back(std::move(piece));
            }
            save();
            watch_pieces();
            emit pieces_changed();
        });
}

void Session::export_items(const std::vector<std::size_t>& items, const ExportWish& wish, const fs::path& to, bool force,
                           std::function<void(const Result<ExportReport>&)> done) {
    if (exporting_) return emit notice(tr("An export is running already."));
    exporting_ = std::make_shared<ExportProgress>();
    run(
        tr("Exporting"),
        [kinds = kinds_, stock = stock_, knowledge = knowledge_, items, wish, to, force, progress = exporting_] {
            const auto sources = std::shared_ptr<const std::vector<Source>>(stock, &stock->sources);
            std::vector<ExportItem> list;
            for (const auto i : items) {
                if (i >= stock->catalog.items.size() || !stock->catalog.items[i].is_texture()) continue;
                list.push_back(export_item(*kinds, sources, stock->catalog.items[i],
                                           wish.shape == FolderShape::per_set && knowledge->stock == stock
                                               ? set_folder(stock->catalog, knowledge->analysis, i)
                                               : std::string()));
            }
            return run_export(list, wish, to, kinds->limits, *progress, 0, force);
        },
        [this, to, done = std::move(done)](Result<ExportReport> report) {
            exporting_ = nullptr;
            if (report) {
                say(tr("Exported to %1: %2 written, %3 there already, %4 failed")
                        .arg(text(to))
                        .arg(report->written)
                        .arg(report->skipped)
                        .arg(report->failed.size()));
                for (const auto& failure : report->failed) say(QString::fromStdString(failure.error.message()));
            } else say(QString::fromStdString(report.error().message()));
            done(report);
        });
}

void Session::put_away(std::size_t piece) {
    if (piece >= project_.pieces.size()) return;
    say(tr("Put away: %1. Its file stays in the project's work folder.").arg(text(project_.pieces[piece].file)));
    project_.pieces.erase(project_.pieces.begin() + static_cast<std::ptrdiff_t>(piece));
    fits_.clear();
    fitting_.clear();
    piece_pictures_.clear();
    piece_pictures_pending_.clear();
    ++piece_generation_;
    save();
    watch_pieces();
    emit pieces_changed();
}

void Session::take_again(std::size_t piece) {
    if (piece >= project_.pieces.size()) return;
    const auto old = project_.pieces[piece];
    put_away(piece);
    run(
        tr("Writing out"), [kinds = kinds_, project = project_, old] { return take_piece(*kinds, project, old.address, old.as, now()); },
        [this](Result<Piece> taken) {
            if (!taken) return complain(taken.error());
            project_.pieces.push_back(std::move(*taken));
            save();
            watch_pieces();
            emit pieces_changed();
        });
}

void Session::open_to_edit(std::size_t piece) {
    if (piece >= project_.pieces.size()) return;
    const auto file = text(project_.work() / project_.pieces[piece].file);
    if (project_.editor.empty()) {
        if (!QDesktopServices::openUrl(QUrl::fromLocalFile(file)))
            emit notice(tr("The desktop has no program for this file. Name one in the settings, or open %1 yourself.").arg(file));
        return;
    }
    QStringList arguments;
    for (std::size_t i = 1; i < project_.editor.size(); ++i) arguments << QString::fromStdString(project_.editor[i]);
    arguments << file;
    const auto program = QString::fromStdString(project_.editor[0]);
    if (!QProcess::startDetached(program, arguments)) emit notice(tr("%1 could not be started. Look at the settings.").arg(program));
    else say(tr("Opened %1 with %2").arg(file, program));
}

void Session::watch_pieces() {
    // Folders too: a program that writes a new file and renames it over the old one ends the watch on the file.
    QStringList paths;
    for (const auto& piece : project_.pieces) {
        const auto file = project_.work() / piece.file;
        paths << text(file) << text(file.parent_path());
    }
    paths.removeDuplicates();
    if (const auto old = watcher_.files() + watcher_.directories(); !old.isEmpty()) watcher_.removePaths(old);
    if (!paths.isEmpty()) watcher_.addPaths(paths);
}

void Session::look_at_pieces() {
    if (project_.pieces.empty()) return;
    run(
        tr("Looking at saved files"),
        [project = project_] {
            std::vector<Piece> pieces;
            for (const auto& piece : project.pieces) pieces.push_back(look_at_piece(project, piece, now()));
            return pieces;
        },
        [this, generation = piece_generation_](std::vector<Piece> pieces) {
            if (generation != piece_generation_) return settle_.start();
            bool any = false;
            for (std::size_t i = 0; i < pieces.size() && i < project_.pieces.size(); ++i) {
                if (pieces[i].seen_hash == project_.pieces[i].seen_hash) continue;
                any = true;
                project_.pieces[i] = pieces[i];
                project_.pieces[i].options = {};  // a mend belongs to the file it was pressed for
                forget_pictures(i);
                say(tr("Saved: %1").arg(text(pieces[i].file)));
            }
            watch_pieces();
            if (!any) return;
            save();
            emit pieces_changed();
        });
}

void Session::forget_pictures(std::size_t piece) {
    fits_.erase(piece);
    fitting_.remove(piece);
    piece_pictures_.erase({piece, true});
    piece_pictures_.erase({piece, false});
    piece_pictures_pending_.remove(piece);
}

QImage Session::piece_picture(std::size_t piece, bool edited) {
    if (piece >= project_.pieces.size()) return {};
    if (const auto found = piece_pictures_.find({piece, edited}); found != piece_pictures_.end()) return found->second;
    if (piece_pictures_pending_.contains(piece)) return {};
    piece_pictures_pending_.insert(piece);
    using Pair = std::pair<QImage, QImage>;
    run(
        tr("Reading pictures"),
        [kinds = kinds_, project = project_, p = project_.pieces[piece]] {
            Pair out;
            if (const auto original = original_texture(*kinds, project, p))
                if (const auto image = skivet::thumbnail(*original, 320)) out.first = to_qimage(*image);
            if (auto bytes = read_file(project.work() / p.file))
                if (const auto now_there = read_edited(std::move(*bytes), kinds->limits)) {
                    out.second = to_qimage(now_there->image).scaled(320, 320, Qt::KeepAspectRatio, Qt::SmoothTransformation);
                }
            return out;
        },
        [this, piece, hash = project_.pieces[piece].seen_hash, generation = piece_generation_](Pair images) {
            if (generation != piece_generation_ || piece >= project_.pieces.size() || project_.pieces[piece].seen_hash != hash) return;
            piece_pictures_pending_.remove(piece);
            piece_pictures_[{piece, false}] = images.first;
            piece_pictures_[{piece, true}] = images.second;
            emit piece_picture_ready(piece);
        });
    return {};
}

std::shared_ptr<const FittedPiece> Session::fit(std::size_t piece) {
    if (piece >= project_.pieces.size()) return nullptr;
    if (const auto found = fits_.find(piece); found != fits_.end()) return found->second;
    if (fitting_.contains(piece)) return nullptr;
    fitting_.insert(piece);
    const auto request = ++fit_request_[piece];
    run(
        tr("Fitting"),
        [kinds = kinds_, project = project_, p = project_.pieces[piece]] {
            auto out = std::make_shared<FittedPiece>();
            out->edited_hash = p.seen_hash;
            auto fitted = fit_piece(*kinds, project, p);
            if (!fitted) {
                out->error = std::move(fitted).error();
                return out;
            }
            out->fit = std::move(*fitted);
            if (const auto original = original_texture(*kinds, project, p)) out->pictures = pictures_of(*original, out->fit);
            return out;
        },
        [this, piece, request, generation = piece_generation_](std::shared_ptr<FittedPiece> fitted) {
            if (generation != piece_generation_ || piece >= project_.pieces.size() || request != fit_request_[piece]) return;
            fitting_.remove(piece);
            auto& p = project_.pieces[piece];
            if (fitted->edited_hash != p.seen_hash) {  // saved again meanwhile
                emit pieces_changed();
                return;
            }
            fits_[piece] = fitted;
            if (p.state == PieceState::changed || p.state == PieceState::fits || p.state == PieceState::needs_mend) {
                const auto state = fitted->error || fitted->fit.needs_mend() ? PieceState::needs_mend : PieceState::fits;
                if (state != p.state) {
                    p.state = state;
                    save();
                    emit pieces_changed();
                }
            }
            emit fit_ready(piece);
        });
    return nullptr;
}

void Session::mend(std::size_t piece, Mend mend) {
    if (piece >= project_.pieces.size()) return;
    project_.pieces[piece].options.mends.add(mend);
    fits_.erase(piece);
    fitting_.remove(piece);
    save();
    (void)fit(piece);
}

void Session::make_plan() {
    run(
        tr("Planning"),
        [kinds = kinds_, project = project_] {
            auto plan = std::make_shared<DeliveryPlan>();
            for (std::size_t i = 0; i < project.pieces.size(); ++i) {
                const auto& piece = project.pieces[i];
                if (piece.state != PieceState::changed && piece.state != PieceState::fits && piece.state != PieceState::needs_mend)
                    continue;
                auto fitted = fit_piece(*kinds, project, piece);
                if (!fitted || fitted->blocked()) {
                    plan->left_out.push_back(i);
                    continue;
                }
                auto group =
                    std::find_if(plan->groups.begin(), plan->groups.end(), [&](const auto& g) { return g.source == piece.address.source; });
                if (group == plan->groups.end()) {
                    plan->groups.push_back({piece.address.source, {}, {}, {}, 0, std::nullopt});
                    group = plan->groups.end() - 1;
                }
                group->pieces.push_back(i);
                group->contents.push_back({piece.address.inner, std::move(fitted->file)});
            }
            if (project.route != DeliveryRoute::into_archives) {
                plan_beside(*kinds, project, *plan);
                return plan;
            }
            for (auto& group : plan->groups) {
                if (const auto stamp = stamp_of(group.source)) group.archive_size = stamp->size;
                auto source = open_source(*kinds, group.source);
                if (!source) {
                    group.error = std::move(source).error();
                    continue;
                }
                auto ranges = plan_replacements(*kinds, **source, group.contents);
                if (ranges) group.plan = std::move(*ranges), group.notes = broken_links(group.plan);
                else group.error = std::move(ranges).error();
            }
            return plan;
        },
        [this](std::shared_ptr<DeliveryPlan> plan) {
            plan_ = std::move(plan);
            emit plan_ready();
        });
}

void Session::deliver() {
    if (!plan_ || plan_->piece_count() == 0) return;
    struct Done {
        std::vector<std::size_t> groups;
        std::vector<Error> errors;
        std::vector<Journal> history;
    };
    run(
        tr("Delivering"),
        [kinds = kinds_, plan = plan_, project = project_, vault = vault()]() mutable {
            // All archives change or none does.
            Done out;
            std::vector<Share> shares;
            std::vector<std::size_t> pieces;
            for (std::size_t g = 0; g < plan->groups.size(); ++g) {
                const auto& group = plan->groups[g];
                if (group.error || group.plan.empty()) continue;
                out.groups.push_back(g);
                shares.push_back({group.source, {}, group.plan});
                for (const auto piece : group.pieces) shares.back().entries.push_back(project.pieces[piece].address.inner.back());
                pieces.insert(pieces.end(), group.pieces.begin(), group.pieces.end());
            }
            const auto what = pieces.size() == 1 ? project.pieces[pieces[0]].name() : std::to_string(pieces.size()) + " pieces";
            const auto where = shares.size() == 1 ? shares[0].source.filename().string() : std::to_string(shares.size()) + " archives";
            auto done = vault.deliver(std::move(shares), what + " into " + where, now(), [&]() -> Status {
                for (const auto g : out.groups)
                    for (const auto& content : plan->groups[g].contents) {
                        if (plan->groups[g].beside) break;  // read back and compared by the vault
                        SKIVET_TRY(const auto back, read_texture_bytes(*kinds, {plan->groups[g].source, content.inner}));
                        if (back != content.bytes)
                            return fail(ErrorCode::io, content.inner.back() + " does not read back as it was written");
                    }
                return {};
            });
            if (!done) {
                out.errors.push_back(std::move(done).error());
                out.groups.clear();
            }
            if (auto history = vault.history()) out.history = std::move(*history);
            return out;
        },
        [this, plan = plan_](Done done) {
            for (const auto& error : done.errors) {
                complain(error);
                if (error.code == ErrorCode::stale)
                    emit changed_by_others(QString::fromStdString(error.where.empty() ? error.what : error.where.front()));
            }
            for (const auto g : done.groups) {
                const auto& group = plan->groups[g];
                for (std::size_t k = 0; k < group.pieces.size(); ++k) {
                    auto& piece = project_.pieces[group.pieces[k]];
                    piece.state = PieceState::delivered;
                    piece.delivered_hash = piece.seen_hash;
                    piece.delivered_texture = to_hex(sha256(group.contents[k].bytes));
                }
                say(tr("Delivered into %1: %2 bytes written, read back and the same")
                        .arg(text(group.source.filename()))
                        .arg(group.plan.bytes_written()));
            }
            history_ = std::move(done.history);
            plan_ = nullptr;
            save();
            emit history_changed();
            emit pieces_changed();
            emit delivered();
            make_plan();
            reload();
        });
}

void Session::set_route(DeliveryRoute route) {
    if (project_.route == route) return;
    project_.route = route;
    save();
    make_plan();
}

void Session::look_again() {
    run(
        tr("Looking whether the game changed"),
        [kinds = kinds_, pieces = project_.pieces]() mutable {
            for (auto& piece : pieces)
                if (auto checked = check_source(*kinds, piece)) piece = std::move(*checked);
            return pieces;
        },
        [this, generation = piece_generation_](std::vector<Piece> pieces) {
            if (generation == piece_generation_ && pieces.size() == project_.pieces.size())
                for (std::size_t i = 0; i < pieces.size(); ++i)
                    if (pieces[i].state == PieceState::gone_stale) project_.pieces[i].state = PieceState::gone_stale;
            save();
            emit pieces_changed();
            make_plan();
            reload();
        });
}

void Session::refresh_history() {
    emit history_changed();
    emit pieces_changed();
    make_plan();
    reload();
}

void Session::undo(const QString& id) {
    struct Done {
        Status status;
        std::vector<Journal> history;
        std::vector<Piece> pieces;
    };
    run(
        tr("Putting back"),
        [kinds = kinds_, project = project_, vault = vault(), id = id.toStdString()]() mutable {
            Done out;
            out.status = vault.undo(id);
            if (auto history = vault.history()) out.history = std::move(*history);
            const auto still_there = [&](const Piece& piece) {  // by a delivery that was not undone, into an archive or beside the game
                const auto holds = [&](const JournalPart& part) {
                    return std::find(part.entries.begin(), part.entries.end(), piece.address.inner.back()) != part.entries.end();
                };
                return std::any_of(out.history.begin(), out.history.end(),
                                   [&](const Journal& j) { return std::any_of(j.parts.begin(), j.parts.end(), holds); });
            };
            for (auto piece : project.pieces) {
                // What was delivered and is no longer in the game is a changed piece again.
                if (piece.state == PieceState::delivered && !still_there(piece))
                    if (const auto bytes = read_texture_bytes(*kinds, piece.address);
                        bytes && to_hex(sha256(*bytes)) == piece.original_hash) {
                        piece.state = PieceState::changed;
                        piece.delivered_hash.clear();
                        piece.delivered_texture.clear();
                    }
                out.pieces.push_back(std::move(piece));
            }
            return out;
        },
        [this, generation = piece_generation_](Done done) {
            if (!done.status) complain(done.status.error());
            else say(tr("The old bytes are back."));
            history_ = std::move(done.history);
            if (generation == piece_generation_ && done.pieces.size() == project_.pieces.size())
                for (std::size_t i = 0; i < done.pieces.size(); ++i)
                    if (project_.pieces[i].state == PieceState::delivered) project_.pieces[i] = done.pieces[i];
            save();
            refresh_history();
        });
}

void Session::undo_all() {
    if (history_.empty()) return;
    // One after the other, newest first; each undo reports its own result.
    auto* chain = new QObject(this);
    connect(this, &Session::history_changed, chain, [this, chain, before = history_.size()]() mutable {
        if (history_.empty() || history_.size() >= before) return chain->deleteLater();
        before = history_.size();
        undo(QString::fromStdString(history_.back().id));
    });
    undo(QString::fromStdString(history_.back().id));
}

}  // namespace skivet::app
