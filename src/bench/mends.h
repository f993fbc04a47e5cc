#pragma once
// The one-press repairs of the fit list. A mend is a row of one table (mends.cpp): what it is called, when it is offered, what it does. The
// fit, the window, the project file and the command line read the table, so a new row is all that a new mend takes.
#include <bitset>
#include <cstdint>
#include <initializer_list>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace skivet {

struct Finding;
struct FitState;

enum class Mend : std::uint8_t { resize, keep_size, undo_save, normalize, restore_alpha, drop_alpha, premultiply };
inline constexpr std::size_t mend_count = 7;

/// The mends that are wanted.
class MendSet {
public:
    MendSet() = default;
    MendSet(std::initializer_list<Mend> mends) {
        for (const auto m : mends) add(m);
    }
    void add(Mend mend) { bits_.set(static_cast<std::size_t>(mend)); }
    [[nodiscard]] bool has(Mend mend) const { return bits_.test(static_cast<std::size_t>(mend)); }
    [[nodiscard]] bool empty() const { return bits_.none(); }
    /// With those that were pressed: of two that exclude each other the last one counts.
    void press(const MendSet& pressed) {
        if (pressed.has(Mend::resize)) bits_.reset(static_cast<std::size_t>(Mend::keep_size));
        if (pressed.has(Mend::keep_size)) bits_.reset(static_cast<std::size_t>(Mend::resize));
        bits_ |= pressed.bits_;
    }
    bool operator==(const MendSet&) const = default;

private:
    std::bitset<mend_count> bits_;
};

/// Where in the line of a fit a mend acts (see fitting.cpp).
enum class MendStep : std::uint8_t {
    size,     ///< on the picture as it was read; it is not the game's size yet
    painted,  ///< on the picture in the game's size
    stored,   ///< on what of it the format can hold
};

struct MendRow {
    Mend mend;
    MendStep step;
    std::string_view id;     ///< in the project file and on the command line
    std::string_view group;  ///< what it is about: names all its mends on the command line ("alpha")
    std::string_view words;  ///< what the button says
    std::string_view does;   ///< what it does, for the command line's help
    /// The finding it is offered with; nothing when there is no reason to. The finding's `mend` is filled in.
    std::optional<Finding> (*offer)(const FitState&);
    /// Changes every form of the picture that is there.
    void (*apply)(FitState&);

    /// Every part is needed.
    consteval MendRow(Mend which, MendStep when, std::string_view name, std::string_view about, std::string_view button,
                      std::string_view what, std::optional<Finding> (*offered)(const FitState&), void (*made)(FitState&))
        : mend(which), step(when), id(name), group(about), words(button), does(what), offer(offered), apply(made) {
        if (id.empty() || group.empty() || words.empty() || does.empty() || !offer || !apply) throw "a mend needs all of its parts";
    }
};

/// All of them, in the order of Mend, which is the order they are made in.
[[nodiscard]] std::span<const MendRow> all_mends();
[[nodiscard]] const MendRow& info(Mend mend);
[[nodiscard]] std::optional<Mend> mend_named(std::string_view id);
/// "resize,alpha": ids, groups, or "all". Error `usage` says what there is.
[[nodiscard]] Result<MendSet> parse_mends(std::string_view list);
/// What parse_mends reads, for help texts: "resize, restore_alpha, …; size, alpha, … for all about it; or all".
[[nodiscard]] std::string mend_words();
/// Their ids.
[[nodiscard]] std::vector<std::string> ids_of(const MendSet& mends);

}  // namespace skivet
