#include "catalog/analysis.h"

#include <algorithm>
#include <bit>
#include <unordered_map>

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

/// The folder of an item with everything before it that tells it from another archive's: names mean the same only side by side.
std::string set_key(const CatalogItem& item, const NameParts& parts) {
    std::string out;
    for (std::size_t i = 0; i + 1 < item.inner.size(); ++i) out += lower(item.inner[i]) + "::";
    return out + parts.set;
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
    std::unordered_map<std::string, std::vector<std::uint32_t>> groups;
    out.counted.assign(count, false);
    // Where both …_a and …_b exist, a letter behind that base is a number and no role; where three of …_n, …_e, …_s, …_w do, a direction.
    std::unordered_map<std::string, unsigned> letters, elsewhere;
    for (const auto& item : catalog.items) {
        if (!item.is_texture()) continue;
        const auto whole = whole_name(item.path(), habits).set;
        if (whole.size() < 3 || (whole[whole.size() - 2] != '_' && whole[whole.size() - 2] != '-')) continue;
        constexpr std::string_view told = "abnesw";
        if (const auto bit = told.find(whole.back()); bit != std::string_view::npos)
            letters[whole.substr(0, whole.size() - 2)] |= 1u << bit;
    }
    for (std::size_t i = 0; i < count; ++i) {
        const auto& item = catalog.items[i];
        if (!item.is_texture()) continue;
        parts[i] = split_name(item.path(), habits);
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
    std::unordered_map<std::string, unsigned> alike;
    const auto by_letter = [&](std::size_t i) {
        return parts[i].habit && parts[i].habit->place == RoleHabit::Place::suffix && parts[i].habit->word.size() == 1 &&
               !parts[i].habit->told;
    };
    for (std::size_t i = 0; i < count; ++i)
        if (catalog.items[i].is_texture()) ++alike[parts[i].set];
    std::size_t lettered = 0;
    for (std::size_t i = 0; i < count; ++i) lettered += by_letter(i) && alike[parts[i].set] > 1;
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
        if (item.effective) groups[set_key(item, parts[i])].push_back(static_cast<std::uint32_t>(i));
    }
    out.names_say_roles = with_role >= 20 && with_role * 10 >= textures;
    // In the order of their first members, so that the same catalog always gives the same numbers.
    for (std::size_t i = 0; i < count; ++i) {
        if (!catalog.items[i].is_texture() || !catalog.items[i].effective) continue;
        auto& members = groups[set_key(catalog.items[i], parts[i])];
        // The same name with two extensions is no set.
        const bool has_part = std::any_of(members.begin(), members.end(), [&](auto m) { return parts[m].habit.has_value(); });
        if (members.size() < 2 || members.front() != i || !has_part) continue;
        for (const auto m : members) out.set_of[m] = static_cast<std::uint32_t>(out.sets.size());
        out.sets.push_back(members);
    }
    for (std::size_t i = 0; i < count; ++i) {
        const auto& item = catalog.items[i];
        if (!item.is_texture()) continue;
        const auto key = path_key(item.inner);
        const auto wish = wishes.textures.find(key);
        out.roles[i] = wish != wishes.textures.end() ? wish->second
                                                     : guess_role(parts[i],
                                                                  out.set_of[i] != CatalogAnalysis::no_set ? Bare::in_set
                                                                  : out.names_say_roles                    ? Bare::common
                                                                                                           : Bare::alone,
                                                                  out.facts[i].get(), item.desc)
                                                           .role;
        const auto used = users.find(key);
        out.shared[i] = (used != users.end() && used->second.size() > 1) || in_shared_folder(item.path());
    }
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
