#pragma once
// What a texture is for, told from its name and its pixels, and which textures belong together.
#include <map>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "catalog/picture_facts.h"

namespace skivet {

enum class Role : std::uint8_t {
    unsure,
    base_color,
    normal,
    roughness_gloss,
    specular,
    metalness,
    occlusion,
    emission,
    height,
    mask,
    interface,  ///< icons, cursors, buttons, fonts, previews: what is drawn flat on the screen
    sky,
    lightmap
};
/// A role is a row of one table (roles.cpp): lists, facets, keys, habits and the project file read it.
struct RoleRow {
    using Test = bool (*)(const PictureFacts&, const TextureDesc&);
    Role role;
    std::string_view token;   ///< "base_color", as files and the command line have it
    std::string_view name;    ///< "base color"
    char key;                 ///< with Alt it says that a texture has this role
    std::string_view habits;  ///< words in names that stand for it, with spaces between; "?" behind one that may name the thing as well,
                              ///< wherever it stands ("metal"). Common practice, no source
    Test ruled_out;           ///< pixels for which no name is believed
    Test allowed;             ///< what pixels must be for one or two letters to be believed
    Test borne_out;           ///< what they must be for a prefix or a word in the middle, since it may as well name the thing

    /// Every part is needed, though a role without usual words may have none.
    consteval RoleRow(Role which, std::string_view in_files, std::string_view words, char pressed, std::string_view in_names, Test never,
                      Test letters, Test middle)
        : role(which), token(in_files), name(words), key(pressed), habits(in_names), ruled_out(never), allowed(letters), borne_out(middle) {
        if (token.empty() || name.empty() || key == 0 || !never || !letters || !middle) throw "a role needs all of its parts";
    }
};
/// In the order in which they are shown, `unsure` last.
[[nodiscard]] std::span<const RoleRow> all_roles();
[[nodiscard]] const RoleRow& info(Role role);
/// What is laid on things. The words of other roles say nothing about how a game names its materials.
[[nodiscard]] bool is_material(Role role);
[[nodiscard]] std::string_view name_of(Role role);
[[nodiscard]] std::string_view token_of(Role role);
[[nodiscard]] std::optional<Role> role_named(std::string_view token);

/// One way names say what a texture is for.
struct RoleHabit {
    enum class Place : std::uint8_t {
        suffix,  ///< horse_bump
        prefix,  ///< bump_horse
        word,    ///< horse_bump_far
        folder,  ///< bump/horse
    };
    Place place = Place::suffix;
    std::string word;  ///< lower case, without the mark that sets it off
    Role role = Role::unsure;
    bool doubtful = false;  ///< the word names things, too
    bool told = false;      ///< the user said so
    bool operator==(const RoleHabit& other) const { return place == other.place && word == other.word && role == other.role; }
};
[[nodiscard]] std::string_view name_of(RoleHabit::Place place);
[[nodiscard]] std::optional<RoleHabit::Place> place_named(std::string_view name);
/// Words many games use. Common practice, no source.
[[nodiscard]] std::span<const RoleHabit> common_habits();

/// Habits ready for looking up; later ones win over earlier, so that a project's own stand above the common ones.
class Habits {
public:
    Habits() : Habits(std::span<const RoleHabit>()) {}
    explicit Habits(std::span<const RoleHabit> own);
    [[nodiscard]] const RoleHabit* find(RoleHabit::Place place, std::string_view word) const;

private:
    std::map<std::pair<RoleHabit::Place, std::string>, RoleHabit, std::less<>> habits_;
};

/// A path cut into what names the thing and what names the role.
struct NameParts {
    std::string set;                 ///< the same for all members of a set: lower case, folders included, the role part replaced by "*"
    std::string base;                ///< file name without role part and extension, as written
    std::optional<RoleHabit> habit;  ///< what matched
};
/// A role part is set off by _ - . or a space, or (two letters and more) by a capital letter behind a small one. Suffixes are tried before
/// prefixes, words in between and folders, longer ones before shorter. Numbers behind it belong to the base: bark_norm_02 goes with
/// bark_02. More than one extension (bark_norm.png.dds) is no part of a name.
[[nodiscard]] NameParts split_name(std::string_view path, const Habits& habits);

/// `set` as it would be if each of the path's folders in turn were its role part: what a texture of another folder beside it has in common.
[[nodiscard]] std::vector<std::string> folder_sets(std::string_view path, const Habits& habits);

struct RoleGuess {
    Role role = Role::unsure;
    float confidence = 0;  ///< 0…1
    std::string why;       ///< "named …_bump; 97 % of its vectors have length one"
};
/// By the pixels alone. Thresholds are ours, what they look for is common practice: vectors of length one (normal); gray and even
/// (roughness, gloss); white with dark creases (occlusion); mostly black with bright spots (emission); two tones, or pure channels (mask);
/// nearly gray with a tint (specular); everything else is base color.
[[nodiscard]] RoleGuess guess_by_picture(const PictureFacts& facts, const TextureDesc& desc);
/// The same path taken without a role part: for letters that only count (stone_a, stone_b, …, stone_e).
[[nodiscard]] NameParts whole_name(std::string_view path, const Habits& habits);

/// What other names say about one without a role part.
enum class Bare : std::uint8_t {
    alone,   ///< nothing
    common,  ///< at least a tenth of the game's names have one: those without are mostly base colors
    in_set,  ///< textures with the same base have one: this is their base color
};
/// By name and pixels. A long suffix is believed unless the pixels rule it out; a letter or two, and words elsewhere in the name, only
/// where the pixels allow it; one letter, and a word that may name the thing, only beside a counterpart (`in_set`) or when the user said
/// so. A name that is not believed is none. Without one, pixels are a guess among the members of a set only: alone, a texture is a normal
/// map when its vectors (or its format, which has two channels) leave no doubt, else base color, or unsure. `facts` may be null.
[[nodiscard]] RoleGuess guess_role(const NameParts& name, Bare bare, const PictureFacts* facts, const TextureDesc& desc);

/// A habit nobody told us, found by looking at which parts of names recur, and whose textures are something else than their counterparts
/// (the same name without the part, or with another): another role by their pixels, or the same pattern nearly without color.
struct HabitProposal {
    RoleHabit habit;                    ///< its role by the pixels of those that have it; unsure where they differ
    std::size_t names = 0;              ///< names with it
    std::size_t shared = 0;             ///< of them, those whose base occurs with another ending, or bare
    float agreement = 0;                ///< share of those names whose pixels say `habit.role`
    std::vector<std::string> examples;  ///< at most three paths
};
struct NamedPicture {
    std::string_view path;
    const PictureFacts* facts = nullptr;
    const TextureDesc* desc = nullptr;
};
/// Parts of names that at least three names and a fiftieth of all share, at least half of them with a counterpart; without those that
/// `habits` knows, without numbers. The most frequent first, at most 20.
[[nodiscard]] std::vector<HabitProposal> propose_habits(std::span<const NamedPicture> pictures, const Habits& habits);

}  // namespace skivet
