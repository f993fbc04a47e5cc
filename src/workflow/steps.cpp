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

/// Takes over a value that the step changes.
template <class Value>
void take(Value& mine, const Value& from, const Value& to) {
    if (!(from == to)) mine = to;
}

template <class Value>
bool in(const std::vector<Value>& list, const Value& one) {
    return std::find(list.begin(), list.end(), one) != list.end();
}

}  // namespace

StepEffect difference_of(const Project& from, const Project& to) {
    StepEffect out;
    out.sources = from.sources != to.sources || from.game != to.game || !same_off(from, to);
    out.reading = from.choices != to.choices || from.known_paths != to.known_paths || !same_packers(from.packers, to.packers);
    out.words =
        from.roles != to.roles || from.habits != to.habits || from.searches != to.searches || from.source_settings != to.source_settings;
    out.places = !(from.places == to.places) || from.destination != to.destination || !(from.play == to.play) || from.editor != to.editor ||
                 from.editors != to.editors || from.only_as_shipped != to.only_as_shipped || from.name != to.name;
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
    take(project.name, from.name, to.name);
    take(project.game, from.game, to.game);
    take(project.sources, from.sources, to.sources);
    take(project.source_settings, from.source_settings, to.source_settings);
    take(project.seen_places, from.seen_places, to.seen_places);
    take(project.load_list, from.load_list, to.load_list);
    take(project.choices, from.choices, to.choices);
    take(project.known_paths, from.known_paths, to.known_paths);
    if (!same_packers(from.packers, to.packers)) project.packers = to.packers;
    take(project.roles, from.roles, to.roles);
    take(project.habits, from.habits, to.habits);
    take(project.searches, from.searches, to.searches);
    take(project.places, from.places, to.places);
    take(project.destination, from.destination, to.destination);
    take(project.play, from.play, to.play);
    take(project.editor, from.editor, to.editor);
    take(project.editors, from.editors, to.editors);
    take(project.only_as_shipped, from.only_as_shipped, to.only_as_shipped);
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
            const auto at = std::size_t(wanted - to.pieces.data());
            project.pieces.insert(project.pieces.begin() + std::ptrdiff_t(std::min(at, project.pieces.size())), *wanted);
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
