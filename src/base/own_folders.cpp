#include "base/own_folders.h"

#include <signal.h>
#include <sys/stat.h>
#include <unistd.h>
#include <cerrno>
#include <charconv>

#include "base/file_write.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// The one of the user's folders for us that `path` is or lies in; empty: none.
fs::path own_place_of(const fs::path& path) {
    for (const auto& place : {user_data_folder(), user_cache_folder(), user_state_folder(), user_config_folder()}) {
        const auto text = path.lexically_normal().string(), front = place.lexically_normal().string();
        if (text == front || text.starts_with(front + '/')) return place;
    }
    return {};
}

bool is_ours(const fs::path& path, struct stat& info) { return ::lstat(path.c_str(), &info) == 0 && info.st_uid == ::geteuid(); }

}  // namespace

void make_folders(const fs::path& folder, std::error_code& code) {
    code.clear();
    const auto place = own_place_of(folder);
    if (place.empty()) return void(fs::create_directories(folder, code));
    struct stat info {};
    if (is_ours(place, info) && S_ISDIR(info.st_mode) && (info.st_mode & 077) != 0) (void)::chmod(place.c_str(), info.st_mode & 0700);
    fs::path made;
    for (const auto& step : folder) {
        made /= step;
        if (fs::is_directory(made, code)) continue;
        if (::mkdir(made.c_str(), 0700) != 0 && errno != EEXIST) {
            code = {errno, std::generic_category()};
            return;
        }
    }
    code.clear();
}

fs::path folder_for_dragging() { return user_cache_folder() / "dragged"; }

namespace {

/// Each entry of a folder, as far as they can be read: nothing is thrown, for this may run where nobody would catch it.
template <class Use>
void each_in(const fs::path& folder, const Use& use) {
    std::error_code code;
    for (fs::directory_iterator one(folder, fs::directory_options::skip_permission_denied, code), end; !code && one != end;
         one.increment(code))
        use(one->path());
}

}  // namespace

void sweep_leftovers() {
    std::error_code ignored;
    const auto old = fs::file_time_type::clock::now() - kept_for_dragging;
    each_in(folder_for_dragging(), [&](const fs::path& path) {
        std::error_code code;
        if (const auto time = fs::last_write_time(path, code); !code && time < old) fs::remove_all(path, code);
    });
    each_in(fs::temp_directory_path(ignored), [&](const fs::path& path) {
        struct stat info {};
        const auto name = path.filename().string();
        if (!name.starts_with(temporary_name) || !is_ours(path, info) || !S_ISDIR(info.st_mode)) return;
        pid_t process = 0;
        if (std::from_chars(name.data() + temporary_name.size(), name.data() + name.size(), process).ec != std::errc() || process <= 0)
            return;
        std::error_code code;
        if (::kill(process, 0) != 0 && errno == ESRCH) fs::remove_all(path, code);
    });
}

}  // namespace skivet
