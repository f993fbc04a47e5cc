#include "catalog/roles.h"

#include <fmt/format.h>
#include <xxhash.h>
#include <algorithm>
#include <cmath>
#include <mutex>
#include <set>
#include <unordered_map>

#include "base/chunks.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

using Place = RoleHabit::Place;

bool is_mark(char c) { return c == '_' || c == '-' || c == '.' || c == ' '; }
// Of ASCII, whatever the locale.
bool is_upper(char c) { return c >= 'A' && c <= 'Z'; }
bool is_lower(char c) { return c >= 'a' && c <= 'z'; }
bool is_letter(char c) { return is_upper(c) || is_lower(c); }
bool is_digit(char c) { return c >= '0' && c <= '9'; }

bool is_number(std::string_view text) { return !text.empty() && std::all_of(text.begin(), text.end(), is_digit); }

/// A name cut where a mark or a capital behind a small letter stands. `begin` and `end` are places in the name, marks left out.
struct Token {
    std::size_t begin = 0, end = 0;
};
std::vector<Token> tokens_of(std::string_view stem) {
    std::vector<Token> out;
    std::size_t begin = 0;
    const auto close = [&](std::size_t end) {
        if (end > begin) out.push_back({begin, end});
    };
    for (std::size_t i = 0; i < stem.size(); ++i) {
        if (is_mark(stem[i])) {
            close(i);
            begin = i + 1;
        } else if (i > begin && is_upper(stem[i]) && is_lower(stem[i - 1]) && i + 1 < stem.size()) {
            close(i);
            begin = i;
        } else if (i > begin && is_digit(stem[i]) && is_letter(stem[i - 1])) {
            close(i);  // norm2: a number behind a word
            begin = i;
        }
    }
    close(stem.size());
    return out;
}

/// A word of one or two tokens, and the name without it.
struct Cut {
    std::string base, word;
    Place place = Place::suffix;
};
std::string without(std::string_view stem, std::size_t begin, std::size_t end) {
    std::string out(stem.substr(0, begin));
    while (!out.empty() && is_mark(out.back())) out.pop_back();
    auto rest = stem.substr(end);
    if (out.empty())
        while (!rest.empty() && is_mark(rest.front())) rest.remove_prefix(1);
    return out + std::string(rest);
}
/// All cuts, in the order in which they are tried.
std::vector<Cut> cuts_of(std::string_view stem) {
    std::vector<Cut> out;
    const auto tokens = tokens_of(stem);
    if (tokens.size() < 2) return out;
    auto last = tokens.size();  // numbers behind the last word are not looked at
    while (last > 1 && is_number(stem.substr(tokens[last - 1].begin, tokens[last - 1].end - tokens[last - 1].begin))) --last;
    const auto add = [&](std::size_t first, std::size_t count, Place place) {
        const auto begin = tokens[first].begin, end = tokens[first + count - 1].end;
        auto base = without(stem, begin, end);
        if (!base.empty() && !is_number(base)) out.push_back({std::move(base), lower(stem.substr(begin, end - begin)), place});
    };
    if (last >= 2) {
        if (last >= 3) add(last - 2, 2, Place::suffix);
        // A letter with a number behind it is a number: asphalt_e2.
        const auto& letter = tokens[last - 1];
        if (letter.end - letter.begin > 1 || letter.end == stem.size() || is_mark(stem[letter.end])) add(last - 1, 1, Place::suffix);
    }
    if (last >= 3) add(0, 2, Place::prefix);
    if (last >= 2) add(0, 1, Place::prefix);
    for (std::size_t i = last; i-- > 2;) add(i - 1, 1, Place::word);
    return out;
}

/// The file name without folders and extensions: "bark_norm" of "bark/bark_norm.png.dds". A part that names a role is none
/// ("bark.norm.dds").
std::string_view stem_of(std::string_view path, const Habits* habits = nullptr) {
    const auto slash = path.rfind('/');
    auto name = slash == std::string_view::npos ? path : path.substr(slash + 1);
    for (int n = 0;; ++n) {
        const auto dot = name.rfind('.');
        if (dot == std::string_view::npos || dot == 0) return name;
        const auto tail = name.substr(dot + 1);
        const bool letters = !tail.empty() && tail.size() <= 8 &&
                             std::all_of(tail.begin(), tail.end(), [](char c) { return is_letter(c) || is_digit(c); }) &&
                             is_letter(tail[0]);
        if (n > 0 && (!letters || (habits && habits->find(Place::suffix, tail)))) return name;
        name = name.substr(0, dot);
    }
}

std::string_view folder_of(std::string_view path) {
    const auto slash = path.rfind('/');
    return slash == std::string_view::npos ? std::string_view() : path.substr(0, slash + 1);
}

// What pixels say of a role. A normal map that is plainly one is nothing else.
bool never(const PictureFacts&, const TextureDesc&) { return false; }
/// Vectors of length one in a picture that is shown flat: somebody keeps a map in the wrong place.
bool no_picture(const PictureFacts& f, const TextureDesc&) { return f.normals == NormalsIn::rgb; }
bool normals_in_color(const PictureFacts& f, const TextureDesc&) { return f.contrast > 1 && f.normals == NormalsIn::rgb; }
bool normals_in_many_channels(const PictureFacts& f, const TextureDesc& d) {
    return info(d.format).channels >= 3 && normals_in_color(f, d);
}
bool no_normals(const PictureFacts& f, const TextureDesc&) { return f.normals == NormalsIn::none; }
bool far_from_normals(const PictureFacts& f, const TextureDesc&) {
    return f.normals == NormalsIn::none && (f.gray > 0.9f || f.mean[2] + 20 < f.mean[0]);
}
bool like_normals(const PictureFacts& f, const TextureDesc&) {
    return f.normals != NormalsIn::none || (f.mean[2] > 150 && f.mean[2] > f.mean[0]);
}
bool plain(const PictureFacts& f, const TextureDesc& d) { return f.gray > 0.8f || info(d.format).channels < 3; }
bool mostly_dark(const PictureFacts& f, const TextureDesc&) { return f.dark > 0.4f; }
bool nearly_gray(const PictureFacts& f, const TextureDesc&) { return f.saturation < 0.3f && f.normals == NormalsIn::none; }
bool in_two_tones(const PictureFacts& f, const TextureDesc& d) { return plain(f, d) || f.two_tone > 0.8f || f.pure > 0.9f; }

constexpr RoleRow rows[] = {
    {Role::base_color, "base_color", "base color", '1',
     "d c bc col color colour diff diffuse dif albedo alb base basecolor base_color tint paint?", normals_in_color, no_normals, no_normals},
    {Role::normal, "normal", "normal", '2', "n nm nrm nor norm normal normals normalmap bump bmp", far_from_normals, like_normals,
     like_normals},
    {Role::roughness_gloss, "roughness_gloss", "roughness, gloss", '3', "r g rough? roughness rgh gloss glossiness gls smooth? smoothness",
     normals_in_many_channels, plain, plain},
    {Role::specular, "specular", "specular", '4', "s spec specular spc shine?", normals_in_color, nearly_gray, nearly_gray},
    {Role::metalness, "metalness", "metalness", '5', "m met? metal? metallic? metalness mtl", normals_in_many_channels, no_normals, plain},
    {Role::occlusion, "occlusion", "occlusion", '6', "o ao occ occlusion ambient? cavity?", normals_in_many_channels, plain, plain},
    {Role::emission, "emission", "emission", '7', "e em emit emission emissive glow illum selfillum lum luma", normals_in_color,
     mostly_dark, mostly_dark},
    {Role::height, "height", "height", '8', "h height heightmap disp displacement parallax", normals_in_many_channels, plain, plain},
    {Role::mask, "mask", "mask", '9', "mask msk masks id? team? tintmask pattern?", normals_in_color, no_normals, in_two_tones},
    {Role::interface, "interface", "interface", 'I',
     "ui gui hud icon icons cursor cursors button buttons menu? font fonts glyph glyphs logo? crosshair preview thumbnail screenshot",
     no_picture, no_normals, no_normals},
    {Role::sky, "sky", "sky", 'Y', "sky skybox skydome skies", normals_in_color, no_normals, no_normals},
    {Role::lightmap, "lightmap", "lightmap", 'M', "lightmap lightmaps lmap", normals_in_color, no_normals, no_normals},
    {Role::unsure, "unsure", "unsure", '0', "", never, no_normals, no_normals},
};
static_assert(
    [] {
        for (const auto& a : rows)
            for (const auto& b : rows)
                if (&a != &b && (a.role == b.role || a.key == b.key || a.token == b.token)) return false;
        return true;
    }(),
    "each role, token and key once");

std::string percent(float share) { return fmt::format("{:.0f} %", 100 * share); }

}  // namespace

std::span<const RoleRow> all_roles() { return rows; }

const RoleRow& info(Role role) {
    for (const auto& row : rows)
        if (row.role == role) return row;
    return rows[std::size(rows) - 1];
}

bool is_material(Role role) { return role != Role::interface && role != Role::sky && role != Role::lightmap && role != Role::unsure; }

std::string_view name_of(Role role) { return info(role).name; }
std::string_view token_of(Role role) { return info(role).token; }

std::optional<Role> role_named(std::string_view token) {
    for (const auto& row : rows)
        if (row.token == token) return row.role;
    return std::nullopt;
}

std::string_view name_of(Place place) {
    return place == Place::suffix ? "suffix" : place == Place::prefix ? "prefix" : place == Place::word ? "word" : "folder";
}

std::optional<Place> place_named(std::string_view name) {
    for (const auto place : {Place::suffix, Place::prefix, Place::word, Place::folder})
        if (name_of(place) == name) return place;
    return std::nullopt;
}

std::span<const RoleHabit> common_habits() {
    static const auto habits = [] {
        std::vector<RoleHabit> out;
        for (const auto& row : rows)
            for (auto rest = row.habits; !rest.empty();) {
                auto word = rest.substr(0, rest.find(' '));
                rest.remove_prefix(std::min(rest.size(), word.size() + 1));
                const bool doubtful = word.ends_with('?');
                if (doubtful) word.remove_suffix(1);
                const auto add = [&](Place place) { out.push_back({place, std::string(word), row.role, doubtful}); };
                // The shorter a word, the surer its place must be.
                add(Place::suffix);
                if (word.size() > 1 || word == "n") add(Place::prefix);
                if (word.size() > 2) add(Place::word);
                if ((word.size() > 3 && !doubtful) || word == "ao" || (!is_material(row.role) && word.size() > 1)) add(Place::folder);
            }
        return out;
    }();
    return habits;
}

Habits::Habits(std::span<const RoleHabit> own) {
    for (const auto& habit : common_habits()) habits_.insert_or_assign({habit.place, habit.word}, habit);
    for (auto habit : own) {
        habit.told = true;
        habits_.insert_or_assign({habit.place, habit.word}, habit);
    }
}

const RoleHabit* Habits::find(Place place, std::string_view word) const {
    const auto found = habits_.find(std::pair(place, lower(word)));
    return found == habits_.end() ? nullptr : &found->second;
}

NameParts split_name(std::string_view path, const Habits& habits) {
    const auto folder = folder_of(path), stem = stem_of(path, &habits);
    for (const auto& cut : cuts_of(stem))
        if (const auto* habit = habits.find(cut.place, cut.word)) return {lower(folder) + lower(cut.base), cut.base, *habit};
    // The innermost folder that names a role.
    for (auto end = folder.size(); end > 0;) {
        const auto slash = folder.substr(0, end - 1).rfind('/');
        const auto start = slash == std::string_view::npos ? 0 : slash + 1;
        if (const auto* habit = habits.find(Place::folder, folder.substr(start, end - 1 - start)))
            return {lower(folder.substr(0, start)) + "*" + lower(folder.substr(end - 1)) + lower(stem), std::string(stem), *habit};
        end = start;
    }
    return {lower(folder) + lower(stem), std::string(stem), std::nullopt};
}

std::vector<std::string> folder_sets(std::string_view path, const Habits& habits) {
    const auto folder = lower(folder_of(path)), stem = lower(stem_of(path, &habits));
    std::vector<std::string> out;
    for (auto end = folder.size(); end > 0;) {
        const auto slash = end > 1 ? folder.rfind('/', end - 2) : std::string::npos;
        const auto start = slash == std::string::npos ? 0 : slash + 1;
        out.push_back(folder.substr(0, start) + "*" + folder.substr(end - 1) + stem);
        end = start;
    }
    return out;
}

NameParts whole_name(std::string_view path, const Habits& habits) {
    const auto stem = stem_of(path, &habits);
    return {lower(folder_of(path)) + lower(stem), std::string(stem), std::nullopt};
}

RoleGuess guess_by_picture(const PictureFacts& f, const TextureDesc& desc) {
    const auto& format = info(desc.format);
    if (f.normals != NormalsIn::none) {
        // Two channels that are the same are a gray map kept in two, not normals; the detector wants them spread, so nothing more to ask.
        auto why = said(f.normals == NormalsIn::rgb         ? "its vectors have length one and point to the front"
                        : f.normals == NormalsIn::red_green ? "its two channels are a normal's x and y"
                                                            : "alpha and green are a normal's x and y");
        if (f.green_axis() != GreenAxis::unsure) why += ", " + said(name_of(f.green_axis()));
        return {Role::normal, f.normals == NormalsIn::rgb ? 0.97f : 0.9f, why};
    }
    if (format.is_float() && desc.faces == 6) return {Role::base_color, 0.5f, said("a cubemap")};
    const bool gray = f.gray >= 0.97f || format.channels == 1;
    const bool opaque = f.alpha == AlphaUse::none;
    if (f.dark >= 0.7f && f.spots > 0.0005f && f.spots < 0.25f) {
        if (gray && f.two_tone > 0.93f && f.spots > 0.1f) return {Role::mask, 0.7f, phrase("two tones on {}", percent(f.two_tone))};
        return {Role::emission, gray ? 0.6f : 0.75f, phrase("{} black with a few bright places", percent(f.dark))};
    }
    if (gray) {
        const float mean = f.mean[0];
        if (mean >= 195 && f.bright >= 0.55f && f.contrast > 4 && f.two_tone < 0.96f)
            return {Role::occlusion, 0.8f, phrase("{} white with dark creases", percent(f.bright))};
        if (f.two_tone >= 0.88f) return {Role::mask, 0.85f, phrase("two tones on {}", percent(f.two_tone))};
        if (format.channels == 1 || f.contrast < 45)
            return {Role::roughness_gloss, format.channels == 1 ? 0.8f : 0.65f, said("gray and even")};
        return {Role::unsure, 0.3f, said("gray, with much contrast")};
    }
    if (f.pure >= 0.93f && f.saturation > 0.3f && desc.color != ColorSpace::srgb)
        return {Role::mask, 0.7f, said("its channels are nearly all on or off")};
    if (opaque && f.saturation < 0.05f && f.contrast > 2) return {Role::specular, 0.5f, said("nearly gray with a tint")};
    return {Role::base_color, 0.75f, said("colors and shapes")};
}

namespace {

/// Without a name that says something.
RoleGuess guess_bare(Bare bare, const PictureFacts& facts, const TextureDesc& desc) {
    auto seen = guess_by_picture(facts, desc);
    if (bare == Bare::in_set && seen.role != Role::normal && (seen.role != Role::mask || seen.confidence < 0.8f))
        return {Role::base_color, 0.85f, said("the one of its set without a role in its name")};
    if (bare == Bare::in_set) return seen;
    const auto& format = info(desc.format);
    // Normals in alpha and green are a habit of compressed formats; a picture file has them by chance.
    if (seen.role == Role::normal && (facts.normals == NormalsIn::rgb || format.channels == 2 || format.block_width > 1)) return seen;
    if (format.channels >= 3 && bare == Bare::common)
        return {Role::base_color, 0.75f, said("most names here say their role, this one does not")};
    if (seen.role == Role::base_color) return seen;
    // Gray walls, night skies and fences look like maps; what is certain is only that nothing says which.
    if (format.channels < 3) return {Role::unsure, 0.3f, seen.why + said(", and no name says more")};
    if (seen.role == Role::mask || seen.role == Role::emission) return {Role::unsure, 0.4f, seen.why + said(", and no name says more")};
    return {Role::base_color, 0.5f, phrase("a picture by itself: {}", seen.why)};
}

}  // namespace

RoleGuess guess_role(const NameParts& name, Bare bare, const PictureFacts* facts, const TextureDesc& desc) {
    const auto unnamed = [&] {
        if (facts) return guess_bare(bare, *facts, desc);
        return bare == Bare::in_set ? RoleGuess{Role::base_color, 0.6f, said("the one of its set without a role in its name")}
                                    : RoleGuess{Role::unsure, 0, said("not looked at yet")};
    };
    if (!name.habit) return unnamed();
    const auto& h = *name.habit;
    const bool clear = h.place == Place::suffix && h.word.size() > 2;
    const auto named = h.place == Place::suffix   ? phrase("named …{}", h.word)
                       : h.place == Place::prefix ? phrase("named {}…", h.word)
                       : h.place == Place::word   ? phrase("named …{}…", h.word)
                                                  : phrase("in a folder {}", h.word);
    // A letter alone, or a word that names things, says something only beside a counterpart.
    const bool speaks = h.told || bare == Bare::in_set || (h.word.size() > 1 && !h.doubtful);
    if (!facts) return speaks ? RoleGuess{h.role, clear ? 0.8f : 0.5f, named} : unnamed();
    const auto seen = guess_by_picture(*facts, desc);
    const bool folder = h.place == Place::folder && h.word.size() > 1;
    // "normal" is also how a button looks when nobody presses it.
    const bool state = h.role == Role::normal && h.word == "normal" && bare != Bare::in_set && !h.told;
    const bool allowed = (clear || folder) && !state ? !info(h.role).ruled_out(*facts, desc)
                         : h.place == Place::suffix  ? info(h.role).allowed(*facts, desc)
                                                     : info(h.role).borne_out(*facts, desc);
    if (allowed && (speaks || (h.role == Role::normal && seen.role == Role::normal)))
        return {h.role, seen.role == h.role ? 0.98f : clear ? 0.85f : 0.7f, seen.role == h.role ? named + "; " + seen.why : named};
    // A gray picture named like a normal map is a height field; a letter is too little to say so.
    if (h.role == Role::normal && h.word.size() > 1 && facts->gray > 0.9f)
        return {Role::height, 0.7f, named + said(", but gray: heights, not normals")};
    auto out = unnamed();
    out.confidence *= 0.9f;
    out.why = phrase("{}, but {}", named, seen.role == out.role ? seen.why : out.why);
    return out;
}

namespace {

/// What names share: who has which base, with a part or bare. A base is a name and the place its part is taken from; there are several a
/// name, so they are known by hash (XXH3, 64 bits) alone.
class NameBases {
public:
    /// Calls `use` with each part of a path's name that may be a habit and the hash of its base, and `bare` with those it has without a
    /// part.
    template <class Use, class Bare>
    static void of(std::string_view path, const Habits& habits, const Use& use, const Bare& bare) {
        const auto folder = lower(folder_of(path));
        const auto stem = stem_of(path, &habits);
        std::string text;
        const auto hash = [&](char place, std::string_view outer, std::string_view base) {
            text.assign(1, place);
            text += outer;
            for (const char c : base) text += is_upper(c) ? static_cast<char>(c + 32) : c;
            return XXH3_64bits(text.data(), text.size());
        };
        for (const char place : {'s', 'p', 'w'}) bare(hash(place, folder, stem));
        for (const auto& cut : cuts_of(stem))
            if (is_word(cut.word)) use(cut.place, cut.word, hash(letter_of(cut.place), folder, cut.base));
        if (folder.size() <= 1) return;
        const auto slash = folder.rfind('/', folder.size() - 2);
        const auto start = slash == std::string::npos ? 0 : slash + 1;
        const auto word = folder.substr(start, folder.size() - 1 - start);
        if (is_word(word)) use(Place::folder, word, hash('f', folder.substr(0, start) + "*/", stem));
    }

private:
    static char letter_of(Place place) { return place == Place::suffix ? 's' : place == Place::prefix ? 'p' : 'w'; }
    static bool is_word(std::string_view word) {
        return !word.empty() && word.size() <= 16 &&
               std::none_of(word.begin(), word.end(), [](char c) { return is_digit(c) || is_mark(c); });
    }
};

}  // namespace

std::vector<HabitProposal> propose_habits(std::span<const NamedPicture> pictures, const Habits& habits) {
    // Most words are of a few names; only those that many share are gone into.
    using Words = std::map<Place, std::unordered_map<std::string, std::size_t>>;
    const auto no_bare = [](std::uint64_t) {};
    Words often;
    std::mutex mutex;
    in_chunks(pictures.size(), [&](std::size_t begin, std::size_t end) {
        Words some;
        for (auto i = begin; i < end; ++i)
            NameBases::of(
                pictures[i].path, habits, [&](Place place, const std::string& word, std::uint64_t) { ++some[place][word]; }, no_bare);
        const std::lock_guard lock(mutex);
        for (const auto& [place, words] : some)
            for (const auto& [word, count] : words) often[place][word] += count;
    });
    std::map<std::pair<Place, std::string>, std::vector<std::pair<std::uint64_t, std::size_t>>> uses;
    for (const auto& [place, words] : often)
        for (const auto& [word, count] : words)  // a role recurs all over a game
            if (count >= 3 && count * 50 >= pictures.size() && !habits.find(place, word)) uses[{place, word}].reserve(count);
    if (uses.empty()) return {};
    struct Use {
        decltype(uses)::mapped_type* of;
        std::uint64_t base;
        std::size_t picture;
    };
    std::vector<std::uint64_t> bases;
    for (const auto& some : from_chunks(pictures.size(), [&](std::size_t begin, std::size_t end) {
             std::vector<Use> out;
             for (auto i = begin; i < end; ++i)
                 NameBases::of(
                     pictures[i].path, habits,
                     [&](Place place, const std::string& word, std::uint64_t base) {
                         if (const auto found = uses.find({place, word}); found != uses.end()) out.push_back({&found->second, base, i});
                     },
                     no_bare);
             return out;
         }))
        for (const auto& use : some) {
            use.of->emplace_back(use.base, use.picture);
            bases.push_back(use.base);
        }
    std::sort(bases.begin(), bases.end());
    bases.erase(std::unique(bases.begin(), bases.end()), bases.end());
    using Member = std::pair<std::uint64_t, std::size_t>;  // base and picture
    std::vector<Member> members;
    for (const auto& some : from_chunks(pictures.size(), [&](std::size_t begin, std::size_t end) {
             std::vector<Member> out;
             for (auto i = begin; i < end; ++i) {
                 const auto has = [&](std::uint64_t base) {
                     if (std::binary_search(bases.begin(), bases.end(), base)) out.emplace_back(base, i);
                 };
                 NameBases::of(
                     pictures[i].path, habits, [&](Place, const std::string&, std::uint64_t base) { has(base); }, has);
             }
             return out;
         }))
        members.insert(members.end(), some.begin(), some.end());
    std::sort(members.begin(), members.end());
    const auto members_of = [&](std::uint64_t base) {
        const auto [first, last] = std::equal_range(members.begin(), members.end(), std::pair(base, std::size_t{0}),
                                                    [](const auto& a, const auto& b) { return a.first < b.first; });
        return std::span(first, last);
    };
    std::vector<HabitProposal> out;
    for (const auto& [key, names] : uses) {
        HabitProposal proposal;
        proposal.habit.place = key.first;
        proposal.habit.word = key.second;
        proposal.names = names.size();
        std::map<Role, std::size_t> roles;
        std::size_t seen = 0, other = 0, grayer = 0, compared = 0;
        for (const auto& named : names) {
            const auto base = named.first;
            const auto i = named.second;
            if (proposal.examples.size() < 3) proposal.examples.emplace_back(pictures[i].path);
            const auto group = members_of(base);
            const auto counterpart = std::find_if(group.begin(), group.end(), [&](const auto& one) { return one.second != i; });
            proposal.shared += counterpart != group.end();
            if (!pictures[i].facts || !pictures[i].desc) continue;
            ++seen;
            const auto& mine = *pictures[i].facts;
            const auto role = guess_by_picture(mine, *pictures[i].desc).role;
            ++roles[role];
            // Another role than all of its counterparts, or the grayer brother of one of them.
            bool some = false, same_role = false, is_grayer = false;
            for (const auto& [of_base, g] : group) {
                if (g == i || !pictures[g].facts || !pictures[g].desc) continue;
                some = true;
                const auto& theirs = *pictures[g].facts;
                same_role = same_role || guess_by_picture(theirs, *pictures[g].desc).role == role;
                is_grayer = is_grayer || (mine.saturation < 0.5f * theirs.saturation && most_agreement(mine, theirs) > 0.4f &&
                                          pattern_agreement(mine.pattern(), theirs.pattern()) > 0.4f);
            }
            compared += some;
            other += some && !same_role;
            grayer += is_grayer;
        }
        if (proposal.shared < 3 || proposal.shared * 2 < proposal.names) continue;
        if (seen > 0) {
            // Names alone are enough while nothing was looked at; pictures must bear them out.
            if (compared < 3 || (other * 10 < compared * 6 && grayer * 10 < compared * 6)) continue;
            for (const auto& [role, count] : roles)
                if (const auto share = static_cast<float>(count) / static_cast<float>(seen); share > proposal.agreement)
                    proposal.agreement = share, proposal.habit.role = role;
            if (grayer * 10 >= compared * 6 && proposal.habit.role != Role::normal && proposal.habit.role != Role::mask)
                proposal.habit.role = Role::specular, proposal.agreement = static_cast<float>(grayer) / static_cast<float>(compared);
            if (proposal.agreement < 0.6f) continue;
        }
        out.push_back(std::move(proposal));
    }
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.shared > b.shared; });
    if (out.size() > 20) out.resize(20);
    return out;
}

}  // namespace skivet
