#include "workflow/kin.h"

#include <fmt/format.h>
#include <cmath>
#include <set>

#include "base/phrase.h"
#include "base/text.h"
#include "container/texture_files.h"

namespace skivet {
namespace {

constexpr std::size_t most_members = 16;

/// A catalog beside a bench.
class Surroundings {
public:
    Surroundings(const AnalyzedCatalog& catalog, const Project& project)
        : project_(project),
          snapshot_(*catalog.snapshot),
          all_(comparables(snapshot_.catalog, catalog.analysis.facts, true)),
          on_bench_(project) {
        const auto& items = snapshot_.catalog.items;
        for (std::size_t i = 0; i < items.size(); ++i)
            if (const auto id = on_bench_.find(address(i))) items_[*id] = i;
    }
    [[nodiscard]] const CatalogItem& item(std::size_t i) const { return snapshot_.catalog.items[i]; }
    [[nodiscard]] Address address(std::size_t i) const { return address_of(snapshot_.sources[item(i).source], item(i)); }
    /// The game loads it, and it is not on the bench.
    [[nodiscard]] bool is_free(std::size_t i) const { return item(i).effective && !on_bench_.find(address(i)); }
    [[nodiscard]] std::optional<std::size_t> item_of(const Piece& piece) const {
        const auto found = items_.find(piece.id);
        return found == items_.end() ? std::nullopt : std::optional(found->second);
    }
    [[nodiscard]] const Piece* piece_of(const Address& address) const {
        const auto id = on_bench_.find(address);
        return id ? project_.piece(*id) : nullptr;
    }
    /// A delivered piece shows its edit in the catalog; its kin is that of what the game had.
    void show_original(std::size_t i, const TextureFile& original) {
        const auto& d = original.layout.desc;
        if (const auto measured = measure_picture(original))
            all_[i] = {std::make_shared<const PictureFacts>(measured->facts), d.width, d.height};
    }
    /// Textures that show the same picture as one.
    [[nodiscard]] std::vector<AlikeTexture> copies_of(std::size_t i) const {
        auto out = alike_to(all_, i);
        std::erase_if(out, [](const AlikeTexture& one) { return one.likeness == Likeness::variant; });
        return out;
    }

private:
    const Project& project_;
    const CatalogSnapshot& snapshot_;
    std::vector<Comparable> all_;
    PiecesByAddress on_bench_;
    std::map<PieceId, std::size_t> items_;
};

std::string places(std::span<const Kin> kin) {
    std::string out;
    constexpr std::size_t most = 3;
    for (std::size_t i = 0; i < std::min(most, kin.size()); ++i) out += (i ? ", " : "") + kin[i].address.inner.back();
    if (kin.size() > most) out += phrase(" and {} more", kin.size() - most);
    return out;
}

}  // namespace

Result<Kindred> kin_of(const ReadContext& context, const AnalyzedCatalog& catalog, const Project& project, const Piece& piece,
                       const PieceSides& sides, const CancelToken& cancel) {
    Kindred out;
    if (!piece.like.empty()) return out;  // a variant is there to differ from what it is like
    Surroundings around(catalog, project);
    const auto item = around.item_of(piece);
    if (!item) return out;
    SKIVET_TRY(const auto original, original_texture(context, project, piece));
    around.show_original(*item, original);
    SKIVET_CHECK(cancel.check());
    std::set<std::size_t> copies;
    for (const auto& alike : around.copies_of(*item)) {
        copies.insert(alike.index);
        if (around.is_free(alike.index)) out.copies.push_back({around.address(alike.index), alike.likeness, {}});
    }

    const auto set = catalog.analysis.set_of[*item];
    if (set == CatalogAnalysis::no_set) return out;
    AddressReader reader(context);
    std::size_t looked_at = 0;
    const auto mine = sides.find(piece.id);
    if (mine != sides.end()) out.factor = double(mine->second.first) / original.layout.desc.width;
    for (const auto other : catalog.analysis.sets[set]) {
        if (other == *item || copies.contains(other)) continue;
        const auto there = around.address(other);
        // A level or two of difference is how the game has it; what counts is whether all change alike.
        double factor = 1;
        if (const auto* its = around.piece_of(there))
            if (const auto size = sides.find(its->id); size != sides.end() && around.item(other).desc.width > 0)
                factor = double(size->second.first) / around.item(other).desc.width;
        if (std::abs(out.factor - factor) > 0.01 && out.factor != 1) out.other_size.push_back(there);
        if (!around.is_free(other) || ++looked_at > most_members) continue;
        SKIVET_CHECK(cancel.check());
        auto bytes = read_texture_bytes(context, reader, there);
        if (!bytes) continue;
        const auto map = TextureFile::open(context.textures, std::move(*bytes), there.inner.back(), context.limits);
        if (!map || map->layout.damage) continue;
        auto rule = find_derivation(original, *map, cancel);
        if (!rule && rule.error().code == ErrorCode::canceled) return fail(std::move(rule).error());
        if (rule && *rule) out.derived.push_back({there, Likeness::none, std::move((*rule)->way)});
    }
    return out;
}

Result<std::vector<LeftCopies>> copies_left(const ReadContext& context, const AnalyzedCatalog& catalog, const Project& project,
                                            std::span<const PieceId> pieces, const CancelToken& cancel) {
    std::vector<LeftCopies> out;
    Surroundings around(catalog, project);
    for (const auto id : pieces) {
        SKIVET_CHECK(cancel.check());
        const auto* piece = project.piece(id);
        const auto item = piece ? around.item_of(*piece) : std::nullopt;
        if (!item || !piece->like.empty()) continue;
        if (!piece->delivered_hash.empty()) {
            const auto original = original_texture(context, project, *piece);
            if (!original) continue;
            around.show_original(*item, *original);
        } else if (catalog.analysis.twins[*item] == 0) {
            continue;  // looking through all of the game for each of thousands would take long
        }
        LeftCopies left{id, {}};
        for (const auto& alike : around.copies_of(*item))
            if (around.is_free(alike.index)) left.copies.push_back({around.address(alike.index), alike.likeness, {}});
        if (!left.copies.empty()) out.push_back(std::move(left));
    }
    return out;
}

std::vector<TakeWith> with_copies(const AnalyzedCatalog& catalog, std::span<const std::size_t> items) {
    const auto& snapshot = *catalog.snapshot;
    const auto address = [&](std::size_t i) {
        return address_of(snapshot.sources[snapshot.catalog.items[i].source], snapshot.catalog.items[i]);
    };
    const auto all = comparables(snapshot.catalog, catalog.analysis.facts, true);
    const std::set<std::size_t> asked(items.begin(), items.end());
    std::vector<TakeWith> out;
    for (const auto item : items) {
        out.push_back({address(item)});
        if (catalog.analysis.twins[item] == 0) continue;
        for (const auto& alike : alike_to(all, item))
            if (alike.likeness != Likeness::variant && !asked.contains(alike.index)) out.back().followers.push_back(address(alike.index));
    }
    return out;
}

std::vector<KinFinding> findings_of(const Kindred& kindred) {
    std::vector<KinFinding> out;
    if (const auto n = kindred.copies.size(); n > 0) {
        const auto smaller = static_cast<std::size_t>(
            std::count_if(kindred.copies.begin(), kindred.copies.end(), [](const Kin& k) { return k.likeness == Likeness::smaller; }));
        const auto* what = smaller == n ? (n > 1 ? "Reduced copies stay unchanged" : "The reduced copy stays unchanged")
                                        : (n > 1 ? "The copies stay unchanged" : "A twin stays unchanged");
        out.push_back({{Grade::note, said(what),
                        phrase("The same picture is also in {}; the game goes on showing the old one there.", places(kindred.copies))},
                       KinFinding::Offer::take_copies,
                       kindred.copies});
    }
    for (const auto& one : kindred.derived)
        out.push_back(
            {{Grade::note, said("A map made of it stays unchanged"),
              phrase("{} shows {}; it can be made of your picture the same way.", places(std::span(&one, 1)), describe_way(one.way))},
             KinFinding::Offer::take_derived,
             {one}});
    if (!kindred.other_size.empty()) {
        std::vector<Kin> others;
        for (const auto& address : kindred.other_size) others.push_back({address, Likeness::none, {}});
        out.push_back(
            {{Grade::note, said(kindred.factor > 1 ? "The maps of its set stay smaller" : "The maps of its set stay larger"),
              others.size() == 1 ? phrase("This one is {:.3g} times as wide as before; {} is not.", kindred.factor, places(others))
                                 : phrase("This one is {:.3g} times as wide as before; {} are not.", kindred.factor, places(others))},
             KinFinding::Offer::scale_set,
             std::move(others)});
    }
    return out;
}

std::string_view words_of(KinFinding::Offer offer) {
    switch (offer) {
        case KinFinding::Offer::take_copies: return "Let them follow";
        case KinFinding::Offer::take_derived: return "Let it follow";
        case KinFinding::Offer::scale_set: return "Scale them too";
    }
    return {};
}

Taken take_kin(const ReadContext& context, const Project& project, const Piece& piece, std::span<const Kin> kin, std::int64_t now) {
    std::vector<Follower> followers;
    for (const auto& one : kin) followers.push_back({one.address, one.way});
    return take_followers(context, project, piece, followers, now);
}

Project scale_set(const ReadContext& context, Project project, std::span<const Address> others, double factor, std::int64_t now,
                  std::vector<Error>& errors) {
    auto taken = take_pieces(context, project, others, {}, now);
    std::move(taken.errors.begin(), taken.errors.end(), std::back_inserter(errors));
    keep_taken(project, std::move(taken.pieces));
    std::map<PieceId, std::vector<std::string>> touches;
    for (const auto& address : others) {
        const auto* piece = project.piece_of(address);
        if (!piece) continue;
        const auto original = original_texture(context, project, *piece);
        if (!original) {
            errors.push_back(original.error());
            continue;
        }
        if (!original->kind->can_resize(original->layout)) {
            errors.push_back(
                Error{ErrorCode::unfit, phrase("{} cannot have another size: its file does not say its own", piece->name()), {}, {}, {}});
            continue;
        }
        const auto& d = original->layout.desc;
        const auto scaled = [&](std::uint32_t side) { return std::max(1l, std::lround(side * factor)); };
        auto list = piece->touches;
        list.push_back(fmt::format("resize={},{}{}", scaled(d.width), scaled(d.height), is_encoded_color(d) ? "" : ",values:data"));
        touches[piece->id] = std::move(list);
    }
    std::vector<PieceId> scaled;
    scaled.reserve(touches.size());
    for (const auto& [id, list] : touches) scaled.push_back(id);
    if (auto set = set_touches(project, std::move(touches), now); !set) errors.push_back(set.error());
    else
        for (const auto id : scaled) project.piece(id)->options.mends.press({Mend::keep_size});
    return project;
}

}  // namespace skivet
