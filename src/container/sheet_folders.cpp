#include "container/sheet_folders.h"

#include <cstdlib>

namespace skivet {

namespace fs = std::filesystem;

namespace {

fs::path program_folder() {
    std::error_code code;
    return fs::read_symlink("/proc/self/exe", code).parent_path();
}

}  // namespace

std::vector<fs::path> sheet_folders() {
    std::vector<fs::path> out;
    std::error_code code;
    const auto here = program_folder();
    // <prefix>/bin and <prefix>/share/skivet when installed; build/NAME/bin in the source tree otherwise.
    for (const auto& folder : {here / ".." / "share" / "skivet" / "sheets", fs::path(SKIVET_SOURCE_SHEETS)})
        if (fs::is_directory(folder, code)) {
            out.push_back(folder);
            break;
        }
    const char* config = std::getenv("XDG_CONFIG_HOME");
    const char* home = std::getenv("HOME");
    const auto own = config && *config ? fs::path(config) : fs::path(home ? home : "/") / ".config";
    if (fs::is_directory(own / "skivet" / "sheets", code)) out.push_back(own / "skivet" / "sheets");
    return out;
}

fs::path program_beside(const char* name) {
    std::error_code code;
    const auto path = program_folder() / name;
    return fs::exists(path, code) ? path : fs::path();
}

}  // namespace skivet
