#pragma once
// Searching a catalog as one types, and narrowing it down by facets with live counts.
#include <array>

#include "catalog/analysis.h"

namespace skivet {

/// Words in any order, all of which must occur in a texture's path, format or size; letters match in either case.
///   "carousel horse"   two words           "\"front curtain\""  an exact phrase
///   -far               must not occur      horse*bump, ??_a     any letters, one letter
///   0017, 17           a number, with or without zeros in front
struct SearchTerm {
    enum class Kind : std::uint8_t { text, pattern, number } kind = Kind::text;
    std::string text;  ///< lower case; of a number its digits without leading zeros; of a pattern with a * before and behind it
    bool exclude = false;
    bool operator==(const SearchTerm&) const = default;
};
[[nodiscard]] std::vector<SearchTerm> parse_search(std::string_view search);
/// `text` in lower case.
[[nodiscard]] bool matches(std::string_view text, const SearchTerm& term);
[[nodiscard]] bool matches(std::string_view text, std::span<const SearchTerm> terms);

/// What a search looks in: the item's path, format and size, in lower case.
[[nodiscard]] std::string search_text(const CatalogItem& item);

enum class Facet : std::uint8_t { role, folder, format, size, source, alpha, mips, color, state };
inline constexpr std::size_t facet_count = 9;
/// Facts that a texture has or has not.
enum class Trait : std::uint8_t { twins, shadowed, parts_missing, damaged, shared, in_set };
inline constexpr std::size_t trait_count = 6;
[[nodiscard]] std::string_view name_of(Facet facet);
[[nodiscard]] std::string_view name_of(Trait trait);

/// "up to 64", "to 128", … by the longer side.
[[nodiscard]] std::string size_class(std::uint32_t width, std::uint32_t height);

struct CatalogQuery {
    std::string search;
    std::array<std::vector<std::string>, facet_count> chosen;  ///< values that pass; an empty list passes everything
    std::array<bool, trait_count> traits{};  ///< those that must hold. Shadowed textures pass only when `shadowed` is asked for.
    bool operator==(const CatalogQuery&) const = default;
    [[nodiscard]] bool empty() const { return *this == CatalogQuery{}; }
};

struct CatalogAnswer {
    std::vector<std::uint32_t> items;  ///< in catalog order
    /// Of each facet the values in use, in their natural order, and how many textures each would leave with all other facets as they are.
    std::array<std::vector<std::pair<std::string, std::uint32_t>>, facet_count> counts;
    std::array<std::uint32_t, trait_count> traits{};
    std::uint32_t all = 0;  ///< effective textures
};

/// A catalog's textures made ready for queries: 30 ms for a million of them.
class QueryTable {
public:
    /// `states` gives a word for an item's state (on the bench, delivered …); may be empty.
    [[nodiscard]] static QueryTable build(const Catalog& catalog, std::span<const Source> sources, const CatalogAnalysis& analysis,
                                          std::span<const std::string> states = {});
    /// From bare texts, for measuring.
    [[nodiscard]] static QueryTable of_texts(std::span<const std::string> texts);
    /// Error `canceled` only.
    [[nodiscard]] Result<CatalogAnswer> ask(const CatalogQuery& query, const CancelToken& cancel = {}) const;
    [[nodiscard]] std::size_t size() const { return item_.size(); }

private:
    std::string text_;                        ///< all search texts, a line feed behind each
    std::vector<std::size_t> ends_;           ///< where each ends, behind its line feed
    std::array<std::uint32_t, 256> often_{};  ///< how often each byte occurs
    void count_bytes();
    std::vector<std::uint32_t> item_;  ///< the catalog's item of each row
    struct Column {
        std::vector<std::uint16_t> of;  ///< a row: index into values
        std::vector<std::string> values;
    };
    std::array<Column, facet_count> columns_;
    std::vector<std::uint8_t> traits_;  ///< a row: bits
};

/// Cards of the contact sheet: textures of a set that pass stand together, at the place of the first.
struct Card {
    std::uint32_t first = 0;            ///< the texture, or the first of the members of a set that pass: the base color
    std::vector<std::uint32_t> others;  ///< the other members; most cards have none, and then no memory of their own
    [[nodiscard]] std::size_t size() const { return 1 + others.size(); }
    [[nodiscard]] std::vector<std::uint32_t> items() const {
        std::vector<std::uint32_t> out = {first};
        out.insert(out.end(), others.begin(), others.end());
        return out;
    }
};
[[nodiscard]] std::vector<Card> make_cards(const CatalogAnswer& answer, const CatalogAnalysis& analysis);

}  // namespace skivet
