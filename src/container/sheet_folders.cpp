#include "container/sheet_folders.h"

#include "base/file_write.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

#ifdef SKIVET_SOURCE_SHEETS
constexpr const char* source_sheets = SKIVET_SOURCE_SHEETS;
#else
constexpr const char* source_sheets = "";
#endif

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
    for (const auto& folder : {here / ".." / "share" / "skivet" / "sheets", fs::path(source_sheets)})
        if (fs::is_directory(folder, code)) {
            out.push_back(folder);
            break;
        }
    const auto own = user_config_folder() / "sheets";
    if (fs::is_directory(own, code)) out.push_back(own);
    return out;
}

fs::path program_beside(const char* name) {
    std::error_code code;
    for (const auto& folder : {program_folder(), (program_folder() / ".." / "libexec" / "skivet").lexically_normal()})
        if (fs::exists(folder / name, code)) return folder / name;
    return {};
}

}  // namespace skivet
