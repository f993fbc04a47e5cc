#include "catalog/load_order.h"

#include <cctype>
#include <map>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "catalog/list_file.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::uintmax_t longest_list = 256u << 10;
constexpr double list_lines = 0.5;            // of a list's lines name archives; manifests and credits name other things as well
constexpr std::int64_t a_day = 24 * 60 * 60;  // files of one release are written within it

bool digit(char c) { return c >= '0' && c <= '9'; }

struct List {
    fs::path file;
    std::vector<std::size_t> named;  ///< in the order of the first mention
    double share = 0;                ///< of its lines name one
};

/// What a text says of the order; nothing when it names fewer than two of them or mostly something else.
std::optional<List> read_list(const fs::path& file, const std::multimap<std::string, std::size_t>& by_name) {
    const auto bytes = read_file(file, longest_list);
    if (!bytes) return std::nullopt;
    const auto text = read_list_text(as_text(*bytes), by_name);
    List out{file, {}, 0};
    for (const auto& line : text.lines)
        for (const auto& name : line.names)
            if (std::find(out.named.begin(), out.named.end(), name.what) == out.named.end()) out.named.push_back(name.what);
    const auto naming = static_cast<double>(text.lines.size()), lines = static_cast<double>(text.said);
    if (out.named.size() < 2 || naming < list_lines * lines) return std::nullopt;
    out.share = naming / lines;
    return out;
}

bool share_paths(const Found& a, const Found& b) {
    for (auto i = a.path_hashes.begin(), j = b.path_hashes.begin(); i != a.path_hashes.end() && j != b.path_hashes.end();) {
        if (*i == *j) return true;
        *i < *j ? ++i : ++j;
    }
    return false;
}

/// A name with its numbers taken out: what two of a numbered series share.
std::string without_numbers(const fs::path& path) {
    auto name = lower(path.filename().string());
    std::erase_if(name, digit);
    return (path.parent_path() / name).string();
}

}  // namespace

bool natural_less(std::string_view a, std::string_view b) {
    std::size_t i = 0, j = 0;
    const auto number = [](std::string_view text, std::size_t& at) {
        while (at < text.size() && text[at] == '0') ++at;
        const auto begin = at;
        while (at < text.size() && digit(text[at])) ++at;
        return text.substr(begin, at - begin);
    };
    while (i < a.size() && j < b.size()) {
        if (digit(a[i]) && digit(b[j])) {
            const auto m = number(a, i), n = number(b, j);
            if (m.size() != n.size()) return m.size() < n.size();
            if (m != n) return m < n;
            continue;
        }
        const auto x = std::tolower(static_cast<unsigned char>(a[i])), y = std::tolower(static_cast<unsigned char>(b[j]));
        if (x != y) return x < y;
        ++i, ++j;
    }
    if (a.size() - i != b.size() - j) return a.size() - i < b.size() - j;
    return a < b;  // equal but for case or leading zeros
}

LoadOrder propose_order(const GameSurvey& survey) {
    LoadOrder out;
    std::multimap<std::string, std::size_t> by_name;
    std::vector<std::size_t> wanted;
    for (std::size_t i = 0; i < survey.found.size(); ++i) {
        const auto& found = survey.found[i];
        if (!found.wanted) continue;
        wanted.push_back(i);
        const auto name = lower(found.path.filename().string());
        by_name.emplace(name, i);
        // A file that is cut into parts goes by its whole name in a list.
        if (found.kind == "parts") by_name.emplace(name.substr(0, name.rfind('.')), i);
    }
    std::optional<List> list;
    for (const auto& file : survey.texts)
        if (auto read = read_list(file, by_name);
            read && (!list || std::pair(read->share, read->named.size()) > std::pair(list->share, list->named.size())))
            list = std::move(read);
    if (list) out.list = list->file;

    const auto listed = [&](std::size_t i) {
        if (!list) return std::size_t{0};
        return static_cast<std::size_t>(std::find(list->named.begin(), list->named.end(), i) - list->named.begin());
    };
    // What the list does not name comes by its group: before everything listed when nothing says that it changes something, else after.
    const auto rank = [&](std::size_t i) {
        const auto& found = survey.found[i];
        const bool in_list = list && listed(i) < list->named.size();
        const int group = static_cast<int>(found.group);
        const int side = in_list ? 1 : list && found.group == SourceGroup::base && found.what != Found::What::loose ? 0 : list ? 2 : 1;
        return std::tuple(side, in_list ? 0 : group, in_list ? listed(i) : std::size_t{0}, found.what == Found::What::loose);
    };
    std::sort(wanted.begin(), wanted.end(), [&](std::size_t a, std::size_t b) {
        if (const auto x = rank(a), y = rank(b); x != y) return x < y;
        return natural_less(survey.found[a].path.string(), survey.found[b].path.string());
    });

    // Of two that share paths and no number, the newer one is the later; one pass for each, because "shares with" has no order of its own.
    for (std::size_t pass = 0; pass < wanted.size(); ++pass)
        for (std::size_t i = 0; i + 1 < wanted.size(); ++i) {
            const auto &one = survey.found[wanted[i]], &other = survey.found[wanted[i + 1]];
            if (rank(wanted[i]) == rank(wanted[i + 1]) && one.written - other.written > a_day &&
                without_numbers(one.path) != without_numbers(other.path) && share_paths(one, other))
                std::swap(wanted[i], wanted[i + 1]);
        }

    for (const auto i : wanted) {
        const auto& found = survey.found[i];
        OrderedSource source{i, {}, true};
        if (list && listed(i) < list->named.size())
            source.reason = phrase("number {} in {}", listed(i) + 1, list->file.filename().string());
        else if (list) source.reason = phrase("{} does not name it", list->file.filename().string()), source.sure = false;
        else if (!found.group_reason.empty()) source.reason = phrase("{}, by {}", name_of(found.group), found.group_reason);
        else if (found.what == Found::What::loose && wanted.size() > 1)
            source.reason = "loose files, which usually win over archives", source.sure = false;
        else source.reason = "by its name";
        out.sources.push_back(std::move(source));
    }
    // Sources that share no path come in any order: nothing is unsure about them.
    for (std::size_t a = 0; a < out.sources.size(); ++a)
        for (auto b = a + 1; b < out.sources.size(); ++b) {
            auto &first = out.sources[a], &second = out.sources[b];
            const auto &one = survey.found[first.found], &other = survey.found[second.found];
            const bool both_listed = list && listed(first.found) < list->named.size() && listed(second.found) < list->named.size();
            if (both_listed || rank(first.found) != rank(second.found) || !share_paths(one, other)) continue;
            if (without_numbers(one.path) == without_numbers(other.path)) {
                second.reason = phrase("its number, after {}", one.path.filename().string());
                continue;
            }
            first.sure = second.sure = false;
            const auto days = (other.written - one.written) / a_day;
            second.reason = days > 0
                                ? phrase("shares paths with {} and is {} days newer", one.path.filename().string(),
                                         grouped(static_cast<std::uint64_t>(days)))
                                : phrase("shares paths with {}, and only its name says that it comes later", one.path.filename().string());
        }
    return out;
}

}  // namespace skivet
