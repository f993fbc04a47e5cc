#include "catalog/analysis.h"

#include <xxhash.h>
#include <algorithm>
#include <bit>
#include <unordered_map>

#include "base/chunks.h"
#include "base/text.h"

namespace skivet {

std::string path_key(const std::vector<std::string>& inner) {
    std::string out;
    for (const auto& step : inner) {
        if (!out.empty()) out += "::";
        out += lower(step);
    }
    return out;
}

bool in_shared_folder(std::string_view path) {
    const auto text = lower(path);
    for (std::size_t at = 0;;) {
        const auto slash = text.find('/', at);
        if (slash == std::string::npos) return false;
        const auto folder = std::string_view(text).substr(at, slash - at);
        for (const auto* word : {"shared", "common", "generic", "global"})
            if (folder == word) return true;
        at = slash + 1;
    }
}

namespace {

/// What tells a set from others: its name, and everything before the item's folder that tells it from another archive's, since names mean
/// the same only side by side. A hash of them (XXH3, 64 bits): a million names would take more room than all that is known of them.
std::uint64_t set_key(const CatalogItem& item, std::string_view set) {
    std::string outer;
    for (std::size_t i = 0; i + 1 < item.inner.size(); ++i) outer += lower(item.inner[i]) + "::";
    return XXH3_64bits_withSeed(set.data(), set.size(), outer.empty() ? 0 : XXH3_64bits(outer.data(), outer.size()));
}

/// Whether a letter that may stand for a role or count ("_a") ends the name.
bool may_count(std::string_view path) {
    const auto slash = path.rfind('/');
    const auto name = path.substr(slash == std::string_view::npos ? 0 : slash + 1);
    constexpr std::string_view told = "abneswABNESW";
    for (std::size_t i = 1; i < name.size(); ++i)
        if ((name[i - 1] == '_' || name[i - 1] == '-') && told.find(name[i]) != std::string_view::npos &&
            (i + 1 == name.size() || name[i + 1] == '.'))
            return true;
    return false;
}

}  // namespace

RoleGuess CatalogAnalysis::why(const Catalog& catalog, std::size_t item, const RoleWishes& wishes) const {
    if (item >= catalog.items.size()) return {};
    const auto& it = catalog.items[item];
    if (const auto wish = wishes.textures.find(path_key(it.inner)); wish != wishes.textures.end()) return {wish->second, 1, "you said so"};
    const auto parts = item < counted.size() && counted[item] ? whole_name(it.path(), habits) : split_name(it.path(), habits);
    const auto bare = item < set_of.size() && set_of[item] != no_set ? Bare::in_set : names_say_roles ? Bare::common : Bare::alone;
    return guess_role(parts, bare, item < facts.size() ? facts[item].get() : nullptr, it.desc);
}

CatalogAnalysis analyze_catalog(const Catalog& catalog, std::vector<FactsPtr> facts, const RoleWishes& wishes,
                                const std::map<std::string, std::vector<std::string>>& users) {
    CatalogAnalysis out;
    const auto count = catalog.items.size();
    out.facts = std::move(facts);
    out.facts.resize(count);
    out.roles.assign(count, Role::unsure);
    out.set_of.assign(count, CatalogAnalysis::no_set);
    out.shared.assign(count, false);
    out.users = users;
    out.habits = Habits(wishes.habits);
    const auto& habits = out.habits;
    std::vector<NameParts> parts(count);
    std::size_t textures = 0, with_role = 0;
    out.counted.assign(count, false);
    // Where both …_a and …_b exist, a letter behind that base is a number and no role; where three of …_n, …_e, …_s, …_w do, a direction.
    std::unordered_map<std::string, unsigned> letters, elsewhere;
    for (const auto& item : catalog.items) {
        if (!item.is_texture() || !may_count(item.path())) continue;
        const auto whole = whole_name(item.path(), habits).set;
        if (whole.size() < 3 || (whole[whole.size() - 2] != '_' && whole[whole.size() - 2] != '-')) continue;
        constexpr std::string_view told = "abnesw";
        if (const auto bit = told.find(whole.back()); bit != std::string_view::npos)
            letters[whole.substr(0, whole.size() - 2)] |= 1u << bit;
    }
    in_chunks(count, [&](std::size_t begin, std::size_t end) {
        for (auto i = begin; i < end; ++i)
            if (catalog.items[i].is_texture()) parts[i] = split_name(catalog.items[i].path(), habits);
    });
    for (std::size_t i = 0; i < count; ++i) {
        const auto& item = catalog.items[i];
        if (!item.is_texture()) continue;
        if (parts[i].habit && parts[i].habit->place == RoleHabit::Place::suffix && parts[i].habit->word.size() == 1) {
            const auto whole = whole_name(item.path(), habits);
            if (const auto found = letters.find(whole.set.substr(0, whole.set.size() - 2));
                found != letters.end() && ((found->second & 3u) == 3 || std::popcount(found->second & ~3u) >= 3))
                parts[i] = whole, out.counted[i] = true;
        }
        if (parts[i].habit && parts[i].habit->place == RoleHabit::Place::folder) elsewhere.try_emplace(parts[i].set, 0u);
        ++textures;
        with_role += parts[i].habit && parts[i].habit->place != RoleHabit::Place::folder && is_material(parts[i].habit->role);
    }
    // One letter is a habit only where a game has it: three of its textures with one and a counterpart.
    const auto by_letter = [&](std::size_t i) {
        return parts[i].habit && parts[i].habit->place == RoleHabit::Place::suffix && parts[i].habit->word.size() == 1 &&
               !parts[i].habit->told;
    };
    std::unordered_map<std::string_view, unsigned> alike;
    for (std::size_t i = 0; i < count; ++i)
        if (by_letter(i)) alike.try_emplace(parts[i].set);
    for (std::size_t i = 0; i < count && !alike.empty(); ++i)
        if (catalog.items[i].is_texture())
            if (const auto found = alike.find(parts[i].set); found != alike.end()) ++found->second;
    std::size_t lettered = 0;
    for (std::size_t i = 0; i < count; ++i) lettered += by_letter(i) && alike[parts[i].set] > 1;
    alike.clear();  // it looks at names that change now
    for (std::size_t i = 0; i < count && lettered < 3; ++i)
        if (by_letter(i)) parts[i] = whole_name(catalog.items[i].path(), habits), out.counted[i] = true;
    // A folder beside which others have files of the same names is a thing of that name ("maps/sky/c.jpg", "maps/hills/c.jpg"), no role.
    const auto in_role_folder = [&](std::size_t i) { return parts[i].habit && parts[i].habit->place == RoleHabit::Place::folder; };
    for (std::size_t i = 0; i < count && !elsewhere.empty(); ++i)
        if (catalog.items[i].is_texture() && !in_role_folder(i))
            for (const auto& set : folder_sets(catalog.items[i].path(), habits))
                if (const auto found = elsewhere.find(set); found != elsewhere.end()) ++found->second;
    for (std::size_t i = 0; i < count; ++i) {
        const auto& item = catalog.items[i];
        if (!item.is_texture()) continue;
        if (in_role_folder(i) && !parts[i].habit->told && elsewhere[parts[i].set] >= 2)
            parts[i] = whole_name(item.path(), habits), out.counted[i] = true;
    }
    out.names_say_roles = with_role >= 20 && with_role * 10 >= textures;
    std::vector<std::pair<std::uint64_t, std::uint32_t>> keyed;
    for (std::size_t i = 0; i < count; ++i)
        if (catalog.items[i].is_texture() && catalog.items[i].effective)
            keyed.emplace_back(set_key(catalog.items[i], parts[i].set), static_cast<std::uint32_t>(i));
    std::sort(keyed.begin(), keyed.end());
    for (std::size_t from = 0, to = 0; from < keyed.size(); from = to) {
        bool has_part = false;  // the same name with two extensions is no set
        for (to = from; to < keyed.size() && keyed[to].first == keyed[from].first; ++to)
            has_part = has_part || parts[keyed[to].second].habit.has_value();
        if (to - from < 2 || !has_part) continue;
        auto& members = out.sets.emplace_back();
        for (auto k = from; k < to; ++k) members.push_back(keyed[k].second);
    }
    keyed = {};
    // In the order of their first members, so that the same catalog always gives the same numbers.
    std::sort(out.sets.begin(), out.sets.end(), [](const auto& a, const auto& b) { return a.front() < b.front(); });
    for (std::size_t set = 0; set < out.sets.size(); ++set)
        for (const auto m : out.sets[set]) out.set_of[m] = static_cast<std::uint32_t>(set);
    in_chunks(count, [&](std::size_t begin, std::size_t end) {
        for (auto i = begin; i < end; ++i) {
            const auto& item = catalog.items[i];
            if (!item.is_texture()) continue;
            const auto key = wishes.textures.empty() && users.empty() ? std::string() : path_key(item.inner);
            const auto bare = out.set_of[i] != CatalogAnalysis::no_set ? Bare::in_set : out.names_say_roles ? Bare::common : Bare::alone;
            const auto wish = wishes.textures.find(key);
            out.roles[i] = wish != wishes.textures.end() ? wish->second : guess_role(parts[i], bare, out.facts[i].get(), item.desc).role;
            const auto used = users.find(key);
            out.shared[i] = (used != users.end() && used->second.size() > 1) || in_shared_folder(item.path());
        }
    });
    parts = {};
    const auto order = [](Role role) { return &info(role) - all_roles().data(); };
    for (auto& members : out.sets)
        std::stable_sort(members.begin(), members.end(), [&](auto a, auto b) { return order(out.roles[a]) < order(out.roles[b]); });
    out.twins = count_twins(comparables(catalog, out.facts, true));
    std::vector<NamedPicture> named;
    for (std::size_t i = 0; i < count; ++i)
        if (catalog.items[i].is_texture() && catalog.items[i].effective)
            named.push_back({catalog.items[i].path(), out.facts[i].get(), &catalog.items[i].desc});
    out.proposals = propose_habits(named, habits);
    return out;
}

std::vector<Comparable> comparables(const Catalog& catalog, std::span<const FactsPtr> facts, bool effective_only) {
    std::vector<Comparable> out(catalog.items.size());
    for (std::size_t i = 0; i < out.size() && i < facts.size(); ++i)
        if (!effective_only || catalog.items[i].effective) out[i] = {facts[i], catalog.items[i].desc.width, catalog.items[i].desc.height};
    return out;
}

}  // namespace skivet
