#include "catalog/leftovers.h"

#include <algorithm>
#include <array>
#include <map>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::size_t most_files = 200'000;
constexpr std::uintmax_t most_list = 1u << 20;

// Endings of copies that tools and people make before they change a file.
constexpr std::array<std::string_view, 7> copy_endings{".bak", ".backup", ".old", ".orig", ".original", ".org", "~"};

// Libraries of the system that a program looks for in its own folder first, and that are put there to stand between the two.
constexpr std::array<std::string_view, 14> system_libraries{"d3d8.dll",  "d3d9.dll",    "d3d10.dll",     "d3d11.dll",   "d3d12.dll",
                                                            "dxgi.dll",  "ddraw.dll",   "opengl32.dll",  "dinput8.dll", "dsound.dll",
                                                            "winmm.dll", "version.dll", "xinput1_3.dll", "winhttp.dll"};

template <std::size_t N>
bool is_one_of(const std::array<std::string_view, N>& list, std::string_view text) {
    return std::find(list.begin(), list.end(), text) != list.end();
}

}  // namespace

Result<std::vector<Leftover>> find_leftovers(const GameSurvey& survey, const LoadOrder& order, const CancelToken& cancel) {
    std::vector<Leftover> out;
    if (!order.list.empty()) {
        std::string listed;
        if (const auto text = read_file(order.list, most_list)) listed = lower(as_text(*text));
        for (const auto& found : survey.found) {
            if (found.what != Found::What::archive || listed.empty()) continue;
            // An archive inside a folder that the list names goes with it.
            const auto inside = found.path.lexically_relative(order.list.parent_path());
            bool named = false;
            for (const auto& step : inside) named = named || listed.find(lower(step.string())) != std::string::npos;
            if (!named)
                out.push_back({Leftover::What::unlisted, found.path,
                               phrase("{} does not name it, so the game may not load it", order.list.filename().string())});
        }
    }
    std::map<fs::path, std::vector<std::string>> files;
    std::set<fs::path> with_program;
    std::error_code code;
    std::size_t count = 0;
    for (fs::recursive_directory_iterator item(survey.root, fs::directory_options::skip_permission_denied, code), end;
         !code && item != end && count < most_files; item.increment(code), ++count) {
        SKIVET_CHECK(cancel.check());
        std::error_code ignored;
        if (item->is_symlink(ignored) || !item->is_regular_file(ignored)) continue;
        const auto& path = item->path();
        files[path.parent_path()].push_back(path.filename().string());
        if (lower(path.extension().string()) == ".exe") with_program.insert(path.parent_path());
    }
    for (auto& [folder, names] : files) {
        SKIVET_CHECK(cancel.check());
        std::sort(names.begin(), names.end());
        for (const auto& name : names) {
            const auto low = lower(name);
            if (with_program.contains(folder) && is_one_of(system_libraries, low))
                out.push_back({Leftover::What::wrapper, folder / name,
                               "it has a system library's name and lies beside the program, so the game loads it in that one's place"});
            for (const auto ending : copy_endings) {
                if (!low.ends_with(ending)) continue;
                const auto of = name.substr(0, name.size() - ending.size());
                if (std::binary_search(names.begin(), names.end(), of))
                    out.push_back({Leftover::What::copy, folder / name, phrase("a copy of {} that somebody made before changing it", of)});
                break;
            }
        }
    }
    std::sort(out.begin(), out.end(), [](const Leftover& a, const Leftover& b) { return a.path < b.path; });
    return out;
}

}  // namespace skivet
