#include "catalog/query.h"

#include <fmt/format.h>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <algorithm>
#include <cctype>
#include <cstring>
#include <unordered_map>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

bool is_digit(char c) { return c >= '0' && c <= '9'; }

/// The longest stretch of a term that must stand in the text as it is.
std::string_view fixed_part(const SearchTerm& term) {
    if (term.kind != SearchTerm::Kind::pattern) return term.text;
    std::string_view best;
    for (std::size_t at = 0; at < term.text.size();) {
        const auto end = std::min(term.text.find_first_of("*?", at), term.text.size());
        if (end - at > best.size()) best = std::string_view(term.text).substr(at, end - at);
        at = end + 1;
    }
    return best;
}

/// Looks for a needle by its rarest byte: a jump to the next one is the fastest loop there is, and rare bytes make few jumps in vain.
class Finder {
public:
    Finder(std::string_view needle, const std::array<std::uint32_t, 256>& often) : needle_(needle) {
        for (std::size_t i = 1; i < needle.size(); ++i)
            if (often[static_cast<unsigned char>(needle[i])] < often[static_cast<unsigned char>(needle[rare_])]) rare_ = i;
    }
    /// The first place in [at, stop), or null.
    [[nodiscard]] const char* next(const char* at, const char* stop) const {
        if (static_cast<std::size_t>(stop - at) < needle_.size()) return nullptr;
        const char* last = stop - needle_.size() + rare_ + 1;  // the rare byte stands before this
        for (const char* p = at + rare_; p < last; ++p) {
            p = static_cast<const char*>(std::memchr(p, needle_[rare_], static_cast<std::size_t>(last - p)));
            if (!p) return nullptr;
            const char* start = p - rare_;  // a call to compare a handful of bytes would cost more than they do
            std::size_t i = 0;
            while (i < needle_.size() && start[i] == needle_[i]) ++i;
            if (i == needle_.size()) return start;
        }
        return nullptr;
    }

private:
    std::string_view needle_;
    std::size_t rare_ = 0;
};

/// A number whose digits, without leading zeros, are those asked for.
bool contains_number(std::string_view text, std::string_view digits) {
    for (std::size_t at = text.find(digits); at != std::string_view::npos; at = text.find(digits, at + 1)) {
        auto start = at;
        while (start > 0 && text[start - 1] == '0') --start;
        const bool begins = start == 0 || !is_digit(text[start - 1]);
        const bool ends = at + digits.size() == text.size() || !is_digit(text[at + digits.size()]);
        if (begins && ends) return true;
    }
    return false;
}

}  // namespace

std::vector<SearchTerm> parse_search(std::string_view search) {
    std::vector<SearchTerm> out;
    for (std::size_t at = 0; at < search.size();) {
        if (search[at] == ' ' || search[at] == '\t') {
            ++at;
            continue;
        }
        SearchTerm term;
        if (search[at] == '-' && at + 1 < search.size() && search[at + 1] != ' ') term.exclude = true, ++at;
        if (search[at] == '"') {
            const auto end = std::min(search.find('"', at + 1), search.size());
            term.text = lower(search.substr(at + 1, end - at - 1));
            at = std::min(end + 1, search.size());
        } else {
            const auto end = std::min(search.find_first_of(" \t", at), search.size());
            term.text = lower(search.substr(at, end - at));
            at = end;
            if (term.text.find_first_of("*?") != std::string::npos)
                term.kind = SearchTerm::Kind::pattern, term.text = '*' + term.text + '*';
            else if (term.text.size() > 1 && term.text.front() == '0' && std::all_of(term.text.begin(), term.text.end(), is_digit)) {
                // With zeros in front it is a number as a whole; without, it may still be typed on.
                term.kind = SearchTerm::Kind::number;
                term.text.erase(0, std::min(term.text.find_first_not_of('0'), term.text.size() - 1));
            }
        }
        if (!term.text.empty()) out.push_back(std::move(term));
    }
    return out;
}

bool matches(std::string_view text, const SearchTerm& term) {
    const bool found = term.kind == SearchTerm::Kind::text      ? text.find(term.text) != std::string_view::npos
                       : term.kind == SearchTerm::Kind::pattern ? glob_match(term.text, text)
                                                                : contains_number(text, term.text);
    return found != term.exclude;
}

bool matches(std::string_view text, std::span<const SearchTerm> terms) {
    return std::all_of(terms.begin(), terms.end(), [&](const SearchTerm& t) { return matches(text, t); });
}

std::string search_text(const CatalogItem& item) {
    std::string haystack;
    for (const auto& step : item.inner) haystack += step + ' ';
    if (item.is_texture())
        haystack += fmt::format("{} {}×{} {}x{} {}", info(item.desc.format).name, item.desc.width, item.desc.height, item.desc.width,
                                item.desc.height, item.file_kind.text());
    std::replace(haystack.begin(), haystack.end(), '\n', ' ');
    return lower(haystack);
}

std::string_view name_of(Facet facet) {
    constexpr std::string_view names[] = {"Role", "Where", "Format", "Size", "Source", "Alpha", "Mips", "Color", "State"};
    return names[static_cast<std::size_t>(facet)];
}

std::string_view name_of(Trait trait) {
    constexpr std::string_view names[] = {"same picture elsewhere", "shadowed", "parts missing", "damaged", "shared by many", "in a set"};
    return names[static_cast<std::size_t>(trait)];
}

std::string size_class(std::uint32_t width, std::uint32_t height) {
    std::uint32_t side = 64;
    while (side < std::max(width, height)) side *= 2;
    return fmt::format("to {}", side);  // kept with searches, so it is the same in every language
}

QueryTable QueryTable::build(const Catalog& catalog, std::span<const Source> sources, const CatalogAnalysis& analysis,
                             std::span<const std::string> states) {
    QueryTable out;
    std::array<std::unordered_map<std::string, std::uint16_t>, facet_count> known;
    const auto put = [&](Facet facet, const std::string& value) {
        const auto f = static_cast<std::size_t>(facet);
        auto& column = out.columns_[f];
        // Folders can be many; what goes beyond 16 bits shares the last value.
        const auto [at, added] =
            known[f].try_emplace(value, static_cast<std::uint16_t>(std::min<std::size_t>(column.values.size(), 0xFFFF)));
        if (added && column.values.size() <= 0xFFFF) column.values.push_back(value);
        column.of.push_back(at->second);
    };
    for (std::size_t i = 0; i < catalog.items.size(); ++i) {
        const auto& item = catalog.items[i];
        if (!item.is_texture()) continue;
        out.item_.push_back(static_cast<std::uint32_t>(i));
        out.text_ += search_text(item);
        out.text_ += '\n';
        out.ends_.push_back(out.text_.size());
        const auto* facts = i < analysis.facts.size() ? analysis.facts[i].get() : nullptr;
        const auto& path = item.path();
        const auto slash = path.find('/');
        put(Facet::role, std::string(name_of(i < analysis.roles.size() ? analysis.roles[i] : Role::unsure)));
        put(Facet::folder, slash == std::string::npos ? "(no folder)" : path.substr(0, slash + 1));
        put(Facet::format, item.desc.format == Format::unknown ? "not known" : std::string(info(item.desc.format).name));
        put(Facet::size, size_class(item.desc.width, item.desc.height));
        put(Facet::source, item.source < sources.size() ? sources[item.source].path.filename().string() : "");
        put(Facet::alpha, !info(item.desc.format).has_alpha ? "none stored"
                          : facts                           ? std::string(name_of(facts->alpha))
                                                            : "not looked at yet");
        put(Facet::mips, item.desc.mips == 1                                                                    ? "one level"
                         : item.desc.mips >= full_mip_count(item.desc.width, item.desc.height, item.desc.depth) ? "down to 1×1"
                                                                                                                : "some levels");
        put(Facet::color, item.desc.color == ColorSpace::unknown ? "not stated" : std::string(name_of(item.desc.color)));
        put(Facet::state, i < states.size() && !states[i].empty() ? states[i] : "in the game");
        unsigned traits = 0;
        const auto set = [&](Trait trait, bool on) { traits |= on ? 1u << static_cast<unsigned>(trait) : 0u; };
        set(Trait::twins, i < analysis.twins.size() && analysis.twins[i] > 0);
        set(Trait::shadowed, !item.effective);
        set(Trait::parts_missing, item.error && item.error->code == ErrorCode::missing);
        set(Trait::damaged, item.error && item.error->code != ErrorCode::missing);
        set(Trait::shared, i < analysis.shared.size() && analysis.shared[i]);
        set(Trait::in_set, i < analysis.set_of.size() && analysis.set_of[i] != CatalogAnalysis::no_set);
        out.traits_.push_back(static_cast<std::uint8_t>(traits));
    }
    out.count_bytes();
    return out;
}

QueryTable QueryTable::of_texts(std::span<const std::string> texts) {
    QueryTable out;
    for (std::size_t i = 0; i < texts.size(); ++i) {
        out.item_.push_back(static_cast<std::uint32_t>(i));
        out.text_ += lower(texts[i]);
        out.text_ += '\n';
        out.ends_.push_back(out.text_.size());
        for (std::size_t f = 0; f < facet_count; ++f) out.columns_[f].of.push_back(static_cast<std::uint16_t>((i >> f) % 16));
        out.traits_.push_back(0);
    }
    for (auto& column : out.columns_)
        for (int v = 0; v < 16; ++v) column.values.push_back(std::to_string(v));
    out.count_bytes();
    return out;
}

void QueryTable::count_bytes() {
    for (const char c : text_) ++often_[static_cast<unsigned char>(c)];
}

Result<CatalogAnswer> QueryTable::ask(const CatalogQuery& query, const CancelToken& cancel) const {
    const auto terms = parse_search(query.search);
    // What must stand there as it is, at its longest, is looked for in many texts at once; everything else only where that is.
    const SearchTerm* first = nullptr;
    std::string_view needle;
    for (const auto& t : terms)
        if (const auto fixed = fixed_part(t); !t.exclude && fixed.size() > needle.size()) first = &t, needle = fixed;
    const Finder finder(needle, often_);
    const bool only_first = first && terms.size() == 1 && first->kind == SearchTerm::Kind::text;
    constexpr auto shadowed_bit = static_cast<std::uint8_t>(1u << static_cast<unsigned>(Trait::shadowed));
    std::uint8_t wanted = 0;
    for (std::size_t t = 0; t < trait_count; ++t) wanted = static_cast<std::uint8_t>(wanted | (query.traits[t] ? 1u << t : 0u));
    std::array<std::vector<std::uint8_t>, facet_count> pass;  // a value: does it
    for (std::size_t f = 0; f < facet_count; ++f) {
        if (query.chosen[f].empty()) continue;
        pass[f].resize(columns_[f].values.size());
        for (std::size_t v = 0; v < pass[f].size(); ++v)
            pass[f][v] = std::find(query.chosen[f].begin(), query.chosen[f].end(), columns_[f].values[v]) != query.chosen[f].end();
    }
    const bool nothing_chosen = wanted == 0 && std::all_of(pass.begin(), pass.end(), [](const auto& p) { return p.empty(); });
    constexpr std::size_t chunk = 16384;  // items a task: well below a millisecond, so that a search can be given up for the next letter
    struct Part {
        std::vector<std::uint32_t> items;
        std::array<std::vector<std::uint32_t>, facet_count> counts;
        std::array<std::uint32_t, trait_count> traits{};
        std::uint32_t all = 0;
    };
    std::vector<Part> parts((size() + chunk - 1) / chunk);
    tbb::parallel_for(std::size_t{0}, parts.size(), [&](std::size_t p) {
        if (cancel.canceled()) return;
        auto& part = parts[p];
        for (std::size_t f = 0; f < facet_count; ++f) part.counts[f].resize(columns_[f].values.size());
        const auto begin = p * chunk, end = std::min(size(), begin + chunk);
        const auto start_of = [&](std::size_t row) { return row == 0 ? std::size_t{0} : ends_[row - 1]; };
        // Rows are gathered first and counted column by column, which reads each column once from its beginning to its end.
        std::vector<std::uint32_t> passed(end - begin);
        std::size_t all_passed = 0;
        std::array<std::vector<std::uint32_t>, facet_count> passed_but;  // rows that only this facet keeps out
        const auto consider = [&](std::size_t row) {
            if (nothing_chosen && !(traits_[row] & shadowed_bit)) {
                passed[all_passed++] = static_cast<std::uint32_t>(row);
                return;
            }
            std::size_t failed = facet_count, fails = 0;
            for (std::size_t f = 0; f < facet_count && fails < 2; ++f)
                if (!pass[f].empty() && !pass[f][columns_[f].of[row]]) ++fails, failed = f;
            const auto traits = traits_[row];
            const bool is_shadowed = traits & shadowed_bit;
            const auto lacking = static_cast<std::uint8_t>(wanted & ~traits);
            // A shadowed texture is hidden unless asked for: that is the trait's own failure, so its count stays alive.
            const bool hidden = is_shadowed && !(wanted & shadowed_bit);
            if (fails == 0 && lacking == 0 && !hidden) passed[all_passed++] = static_cast<std::uint32_t>(row);
            else if (fails == 1 && lacking == 0 && !hidden) passed_but[failed].push_back(static_cast<std::uint32_t>(row));
            else if (fails == 0 && lacking == 0) ++part.traits[static_cast<std::size_t>(Trait::shadowed)];
        };
        const auto count = [&] {
            passed.resize(all_passed);
            part.items.reserve(passed.size());
            for (const auto row : passed) part.items.push_back(item_[row]);
            for (std::size_t f = 0; f < facet_count; ++f) {
                const auto* of = columns_[f].of.data();
                auto* counts = part.counts[f].data();
                for (const auto row : passed) ++counts[of[row]];
                for (const auto row : passed_but[f]) ++counts[of[row]];
            }
            std::array<std::uint32_t, 256> together{};
            for (const auto row : passed) ++together[traits_[row]];
            for (std::size_t bits = 0; bits < together.size(); ++bits)
                for (std::size_t t = 0; t < trait_count; ++t)
                    if (bits >> t & 1) part.traits[t] += together[bits];
        };
        for (auto row = begin; row < end; ++row) part.all += !(traits_[row] & shadowed_bit);
        const auto others = [&](std::size_t row) {
            const auto text = std::string_view(text_).substr(start_of(row), ends_[row] - start_of(row) - 1);
            return only_first || std::all_of(terms.begin(), terms.end(), [&](const SearchTerm& t) {
                       return (&t == first && t.kind == SearchTerm::Kind::text) || matches(text, t);
                   });
        };
        if (!first) {
            for (auto row = begin; row < end; ++row)
                if (terms.empty() || others(row)) consider(row);
            return count();
        }
        const char* at = text_.data() + start_of(begin);
        const char* const stop = text_.data() + ends_[end - 1];
        for (auto row = begin; at < stop;) {
            at = finder.next(at, stop);
            if (!at) break;
            const auto offset = static_cast<std::size_t>(at - text_.data());
            while (row + 8 < end && ends_[row + 8] <= offset) row += 8;
            while (ends_[row] <= offset) ++row;
            if (others(row)) consider(row);
            at = text_.data() + ends_[row];
        }
        count();
    });
    SKIVET_CHECK(cancel.check());
    CatalogAnswer out;
    std::size_t total = 0;
    for (const auto& part : parts) total += part.items.size();
    out.items.reserve(total);
    std::array<std::vector<std::uint32_t>, facet_count> counts;
    for (std::size_t f = 0; f < facet_count; ++f) counts[f].resize(columns_[f].values.size());
    for (const auto& part : parts) {
        out.items.insert(out.items.end(), part.items.begin(), part.items.end());
        out.all += part.all;
        for (std::size_t t = 0; t < trait_count; ++t) out.traits[t] += part.traits[t];
        for (std::size_t f = 0; f < facet_count; ++f)
            for (std::size_t v = 0; v < counts[f].size(); ++v) counts[f][v] += part.counts[f][v];
    }
    const auto number_in = [](const std::string& text) {
        std::uint64_t n = 0;
        for (const char c : text)
            if (is_digit(c) && n < 1'000'000'000) n = n * 10 + static_cast<std::uint64_t>(c - '0');
        return n;
    };
    for (std::size_t f = 0; f < facet_count; ++f) {
        auto& list = out.counts[f];
        for (std::size_t v = 0; v < counts[f].size(); ++v) {
            const bool chosen = std::find(query.chosen[f].begin(), query.chosen[f].end(), columns_[f].values[v]) != query.chosen[f].end();
            if (counts[f][v] > 0 || chosen) list.emplace_back(columns_[f].values[v], counts[f][v]);
        }
        if (static_cast<Facet>(f) == Facet::role) {
            const auto order = [](const std::string& name) {
                return std::find_if(all_roles().begin(), all_roles().end(), [&](const RoleRow& r) { return r.name == name; }) -
                       all_roles().begin();
            };
            std::sort(list.begin(), list.end(), [&](const auto& a, const auto& b) { return order(a.first) < order(b.first); });
        } else if (static_cast<Facet>(f) == Facet::size) {
            std::sort(list.begin(), list.end(), [&](const auto& a, const auto& b) { return number_in(a.first) < number_in(b.first); });
        } else if (static_cast<Facet>(f) != Facet::source) {  // sources stay in load order
            std::sort(list.begin(), list.end());
        }
    }
    return out;
}

std::vector<Card> make_cards(const CatalogAnswer& answer, const CatalogAnalysis& analysis) {
    std::vector<Card> out;
    out.reserve(answer.items.size());
    std::unordered_map<std::uint32_t, std::size_t> card_of;
    const auto set_of = [&](std::uint32_t item) { return item < analysis.set_of.size() ? analysis.set_of[item] : CatalogAnalysis::no_set; };
    for (const auto item : answer.items) {
        const auto set = set_of(item);
        if (set == CatalogAnalysis::no_set) {
            out.push_back({item, {}});
            continue;
        }
        const auto [at, added] = card_of.try_emplace(set, out.size());
        if (added) out.push_back({item, {}});
        else out[at->second].others.push_back(item);
    }
    for (auto& card : out) {
        if (card.others.empty()) continue;
        // In the set's own order.
        const auto here = card.items();
        std::vector<std::uint32_t> sorted;
        for (const auto item : analysis.sets[set_of(card.first)])
            if (std::find(here.begin(), here.end(), item) != here.end()) sorted.push_back(item);
        card.first = sorted.front();
        card.others.assign(sorted.begin() + 1, sorted.end());
    }
    return out;
}

}  // namespace skivet
