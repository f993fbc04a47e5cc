#include "workflow/steps.h"

#include <algorithm>

#include "workflow/pieces.h"

namespace skivet {

namespace {

bool same_edit(const Piece& a, const Piece& b) { return a.touches == b.touches && a.options.wish() == b.options.wish(); }

bool same_packers(const PackerPrograms& a, const PackerPrograms& b) { return a.all() == b.all(); }

bool same_off(const Project& a, const Project& b) {
    const auto off = [](const Project& p) {
        std::vector<std::filesystem::path> out;
        for (const auto& [source, setting] : p.source_settings)
            if (setting.off) out.push_back(source);
        return out;
    };
    return off(a) == off(b);
}

/// Everything a person decides that is one value of the project, and what it counts as; null: it goes along with others.
template <class Visit>
void each_decision(Visit visit) {
    constexpr bool StepEffect::*along = nullptr;
    visit(&Project::name, &StepEffect::places);
    visit(&Project::game, &StepEffect::sources);
    visit(&Project::sources, &StepEffect::sources);
    visit(&Project::source_settings, &StepEffect::words);
    visit(&Project::seen_places, along);
    visit(&Project::load_list, along);
    visit(&Project::choices, &StepEffect::reading);
    visit(&Project::known_paths, &StepEffect::reading);
    visit(&Project::roles, &StepEffect::words);
    visit(&Project::habits, &StepEffect::words);
    visit(&Project::searches, &StepEffect::words);
    visit(&Project::places, &StepEffect::places);
    visit(&Project::destination, &StepEffect::places);
    visit(&Project::play, &StepEffect::places);
    visit(&Project::editor, &StepEffect::places);
    visit(&Project::editors, &StepEffect::places);
    visit(&Project::only_as_shipped, &StepEffect::places);
}

template <class Value>
bool in(const std::vector<Value>& list, const Value& one) {
    return std::find(list.begin(), list.end(), one) != list.end();
}

}  // namespace

StepEffect difference_of(const Project& from, const Project& to) {
    StepEffect out;
    each_decision([&](auto member, bool StepEffect::*effect) {
        if (effect && !(from.*member == to.*member)) out.*effect = true;
    });
    out.sources = out.sources || !same_off(from, to);
    out.reading = out.reading || !same_packers(from.packers, to.packers);
    out.changes = from.changes != to.changes;
    for (const auto& piece : from.pieces) {
        const auto* there = to.piece(piece.id);
        if (!there || !same_edit(piece, *there)) out.pieces.push_back(piece.id);
    }
    for (const auto& piece : to.pieces)
        if (!from.piece(piece.id)) out.pieces.push_back(piece.id);
    return out;
}

StepEffect make_step(Project& project, const Project& from, const Project& to) {
    auto out = difference_of(from, to);
    each_decision([&](auto member, bool StepEffect::*) {
        if (!(from.*member == to.*member)) project.*member = to.*member;
    });
    if (!same_packers(from.packers, to.packers)) project.packers = to.packers;
    // Some may have gone with a delivery meanwhile.
    std::erase_if(project.changes, [&](const EntryChange& c) { return in(from.changes, c) && !in(to.changes, c); });
    for (const auto& change : to.changes)
        if (!in(from.changes, change) && !in(project.changes, change)) project.changes.push_back(change);
    std::vector<PieceId> done;
    for (const auto id : out.pieces) {
        const auto* wanted = to.piece(id);
        auto* mine = project.piece(id);
        if (!wanted) {
            if (!mine || !mine->delivered_hash.empty() || !mine->on_device.empty()) continue;
            project.put_away(id);
        } else if (!mine) {
            if (project.piece_of(wanted->address)) continue;
            project.pieces.insert(
                std::upper_bound(project.pieces.begin(), project.pieces.end(), id, [](PieceId its, const Piece& p) { return its < p.id; }),
                *wanted);
            project.next_piece = std::max(project.next_piece, id + 1);
        } else {
            mine->touches = wanted->touches;
            mine->options = wanted->options;
            if (mine->state != PieceState::gone_stale) mine->state = state_by_edit(*mine);
        }
        done.push_back(id);
    }
    out.pieces = std::move(done);
    return out;
}

}  // namespace skivet
