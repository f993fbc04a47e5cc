#include "catalog/list_file.h"

#include <fmt/format.h>
#include <algorithm>
#include <optional>
#include <set>

#include "base/text.h"

namespace skivet {
namespace {

struct Word {
    std::size_t at = 0, size = 0;
};

/// The words of a line: between spaces, quotes, commas, equal signs and the brackets of markup.
std::vector<Word> words_of(std::string_view line) {
    std::vector<Word> out;
    constexpr std::string_view between = " \t\"',;=<>()[]{}|\r";
    for (std::size_t at = 0; at < line.size();) {
        const auto begin = line.find_first_not_of(between, at);
        if (begin == std::string_view::npos) break;
        const auto end = std::min(line.find_first_of(between, begin), line.size());
        out.push_back({begin, end - begin});
        at = end;
    }
    return out;
}

std::string_view trimmed_end(std::string_view text) {
    const auto last = text.find_last_not_of(" \t\r");
    return text.substr(0, last == std::string_view::npos ? 0 : last + 1);
}

bool is_digit(char c) { return c >= '0' && c <= '9'; }

std::string ending_of(const std::string& name) {
    const auto point = name.rfind('.');
    return point == std::string::npos ? std::string() : lower(std::string_view(name).substr(point));
}

/// A list or an object of JSON (RFC 8259), rather than the head of a section.
bool is_json(std::string_view text) {
    const auto skip = [&](std::size_t at) { return std::min(text.find_first_not_of(" \t\r\n", at), text.size()); };
    const auto first = skip(0);
    if (first == text.size()) return false;
    if (text[first] == '{') return true;
    const auto next = skip(first + 1);
    return text[first] == '[' && next < text.size() && std::string_view("\"{[").find(text[next]) != std::string_view::npos;
}

/// A number in a line, outside the names.
struct Number {
    std::size_t at = 0, size = 0;  ///< in the line
    std::uint64_t value = 0;
};
std::vector<Number> numbers_of(std::string_view text, const ListedLine& line) {
    std::vector<Number> out;
    const auto in_a_name = [&](std::size_t at) {
        return std::any_of(line.names.begin(), line.names.end(), [&](const auto& n) { return at >= n.at && at < n.at + n.size; });
    };
    for (std::size_t i = 0; i < line.size;) {
        if (!is_digit(text[line.at + i]) || in_a_name(line.at + i)) {
            ++i;
            continue;
        }
        Number number{i, 0, 0};
        for (; i < line.size && is_digit(text[line.at + i]) && !in_a_name(line.at + i); ++i, ++number.size)
            number.value = number.value * 10 + static_cast<std::uint64_t>(text[line.at + i] - '0');
        if (number.size <= 9) out.push_back(number);
    }
    return out;
}

/// The number by which the lines count, and its step: the first that grows by the same from line to line.
struct Counting {
    std::size_t which = 0;
    std::uint64_t last = 0, step = 0;
};
std::optional<Counting> counting_of(std::string_view text, const std::vector<ListedLine>& lines) {
    if (lines.size() < 2) return std::nullopt;
    std::vector<std::vector<Number>> all;
    for (const auto& line : lines) all.push_back(numbers_of(text, line));
    for (std::size_t which = 0; which < all.front().size(); ++which) {
        if (std::any_of(all.begin(), all.end(), [&](const auto& n) { return n.size() <= which; })) break;
        const auto step = all[1][which].value - all[0][which].value;
        bool even = all[1][which].value > all[0][which].value;
        for (std::size_t i = 1; even && i < all.size(); ++i) even = all[i][which].value == all[i - 1][which].value + step;
        if (even) return Counting{which, all.back()[which].value, step};
    }
    return std::nullopt;
}

/// The text of a line with other names and another number.
std::string line_like(std::string_view text, const ListedLine& line, std::size_t what, const std::string& name,
                      const std::optional<std::pair<Number, std::uint64_t>>& number) {
    struct Change {
        std::size_t at, size;
        std::string by;
    };
    std::vector<Change> changes;
    for (const auto& n : line.names)
        if (n.what == what) changes.push_back({n.at - line.at, n.size, name});
    if (number) changes.push_back({number->first.at, number->first.size, fmt::format("{:0{}}", number->second, number->first.size)});
    std::sort(changes.begin(), changes.end(), [](const auto& a, const auto& b) { return a.at > b.at; });
    auto out = std::string(trimmed_end(text.substr(line.at, line.size)));
    for (const auto& change : changes) out.replace(change.at, change.size, change.by);
    return out;
}

}  // namespace

ListText read_list_text(std::string_view text, const std::multimap<std::string, std::size_t>& by_name) {
    ListText out;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find('\n', at), text.size());
        const auto line = text.substr(at, end - at);
        ListedLine listed{at, line.size(), {}};
        const auto begin = at;
        at = end + 1;
        auto words = words_of(line);
        // A comment's first word is a mark, or begins with one.
        if (words.empty()) continue;
        const auto first = line.substr(words.front().at, words.front().size);
        if (first.front() == '#' || first.starts_with("//")) continue;
        ++out.said;
        // A name with spaces in it is the whole line.
        if (const auto whole = trimmed_end(line); words.size() > 1) words.push_back({0, whole.size()});
        for (const auto& word : words) {
            const auto said = line.substr(word.at, word.size);
            const auto slash = said.find_last_of("/\\");
            const auto skip = slash == std::string_view::npos ? 0 : slash + 1;
            const auto [from, to] = by_name.equal_range(lower(said.substr(skip)));
            const auto place = begin + word.at + skip;
            if (std::any_of(listed.names.begin(), listed.names.end(), [&](const auto& n) { return n.at == place; })) continue;
            for (auto f = from; f != to; ++f) listed.names.push_back({f->second, place, word.size - skip});
        }
        if (!listed.names.empty()) out.lines.push_back(std::move(listed));
    }
    return out;
}

Result<std::string> with_listed(std::string_view text, std::span<const std::string> known, std::span<const std::string> more,
                                std::span<const std::string> beside) {
    const std::set<std::string> in_its_folder(beside.begin(), beside.end());
    std::multimap<std::string, std::size_t> by_name, new_names;
    for (std::size_t i = 0; i < known.size(); ++i) by_name.emplace(lower(known[i]), i);
    for (std::size_t i = 0; i < more.size(); ++i) new_names.emplace(lower(more[i]), i);
    const auto list = read_list_text(text, by_name);
    if (list.lines.empty())
        return fail(ErrorCode::unfit, "the list names none of the game's archives", "Name the list by which the game loads them, or none");
    std::set<std::size_t> listed;
    for (const auto& line : read_list_text(text, new_names).lines)
        for (const auto& name : line.names) listed.insert(name.what);

    std::string out(text);
    const auto& last = list.lines.back();
    if (list.lines.size() == 1 && last.names.size() > 1) {
        // All in one line: what stands between the last two stands between the new ones, too.
        const auto &before = last.names[last.names.size() - 2], &end = last.names.back();
        auto between = std::string(text.substr(before.at + before.size, end.at - before.at - before.size));
        std::string added;
        for (std::size_t i = 0; i < more.size(); ++i)
            if (!listed.contains(i)) added += between + more[i];
        return out.insert(end.at + end.size, added);
    }
    const auto counting = counting_of(text, list.lines);
    const auto line_text = [&](const ListedLine& line) { return trimmed_end(text.substr(line.at, line.size)); };
    const bool commas =
        is_json(text) || std::any_of(list.lines.begin(), list.lines.end(), [&](const auto& l) { return line_text(l).ends_with(','); });
    const bool last_has_comma = line_text(last).ends_with(',');
    std::string added;
    std::uint64_t count = 0;
    for (std::size_t i = 0; i < more.size(); ++i) {
        if (listed.contains(i)) continue;
        // Like the last line that names a file of this kind; a folder in the list may be written otherwise.
        const ListedLine* like = &last;
        std::size_t what = last.names.back().what;
        const auto same_kind = [&](const auto& n) { return ending_of(known[n.what]) == ending_of(more[i]); };
        const auto same_place = [&](const auto& n) { return same_kind(n) && (beside.empty() || in_its_folder.contains(known[n.what])); };
        const auto find_like = [&](const auto& fits) {
            for (auto line = list.lines.rbegin(); line != list.lines.rend(); ++line)
                if (const auto same = std::find_if(line->names.begin(), line->names.end(), fits); same != line->names.end()) {
                    like = &*line, what = same->what;
                    return true;
                }
            return false;
        };
        if (!find_like(same_place)) (void)find_like(same_kind);
        std::optional<std::pair<Number, std::uint64_t>> number;
        if (counting) number = {numbers_of(text, *like)[counting->which], counting->last + counting->step * ++count};
        auto line = line_like(text, *like, what, more[i], number);
        if (commas && !last_has_comma && line.ends_with(',')) line.pop_back();
        if (commas && last_has_comma && !line.ends_with(',')) line += ',';
        const bool crlf = like->at + like->size <= text.size() && like->size > 0 && text[like->at + like->size - 1] == '\r';
        added += (commas && !last_has_comma ? "," : "") + std::string(crlf ? "\r\n" : "\n") + line;
    }
    return out.insert(last.at + line_text(last).size(), added);
}

}  // namespace skivet
