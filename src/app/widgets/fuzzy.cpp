#include "app/widgets/fuzzy.h"

#include <algorithm>
#include <vector>

namespace skivet::app {
namespace {

constexpr int letter = 4, side_by_side = 10, begins_word = 12, begins_text = 6;
constexpr int never = -1'000'000;

}  // namespace

std::optional<int> fuzzy_score(const QString& text, const QString& typed) {
    QString wanted;
    for (const auto c : typed)
        if (!c.isSpace()) wanted += c.toCaseFolded();
    if (wanted.isEmpty()) return 0;
    const auto here = text.toCaseFolded();
    const auto n = std::size_t(here.size());
    // best[j]: of the letters so far, the last of them at j. One pass a letter; a text is a few dozen letters long.
    std::vector<int> best(n, never), next(n);
    for (qsizetype i = 0; i < wanted.size(); ++i) {
        int before = never;  // the best of those that end at least one letter before the neighbor
        for (std::size_t j = 0; j < n; ++j) {
            next[j] = never;
            const auto neighbor = j > 0 ? best[j - 1] : never;
            if (here[qsizetype(j)] == wanted[i]) {
                const bool word = j == 0 || !here[qsizetype(j) - 1].isLetterOrNumber();
                const int worth = letter + (word ? begins_word : 0) + (j == 0 ? begins_text : 0);
                if (i == 0) next[j] = worth;
                else
                    next[j] = std::max(neighbor > never ? neighbor + worth + side_by_side : never, before > never ? before + worth : never);
            }
            before = std::max(before, neighbor);
        }
        best.swap(next);
    }
    const int most = best.empty() ? never : *std::max_element(best.begin(), best.end());
    if (most <= never) return std::nullopt;
    return most - int(n) / 8;
}

}  // namespace skivet::app
