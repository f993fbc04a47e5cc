// New content is written into a file that has no name yet (O_TMPFILE): whatever ends the process, nothing stays behind, and no name beside
// the target can be somebody else's file or link. Where the file system has no such files, a name is made that nobody can guess.
#include "base/file_write.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <pwd.h>
#include <sys/random.h>
#include <sys/stat.h>
#include <unistd.h>
#include <cerrno>
#include <cstdlib>

#include "base/file_view.h"
#include "base/own_folders.h"
#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// A file that is being written; what is left of it goes when it is not finished.
class Fresh {
public:
    explicit Fresh(fs::path folder) : folder_(std::move(folder)) {}
    Fresh(const Fresh&) = delete;
    Fresh& operator=(const Fresh&) = delete;
    ~Fresh() {
        if (descriptor_ >= 0) ::close(descriptor_);
        if (!name_.empty()) ::unlink(name_.c_str());
    }
    /// False with errno.
    bool open() {
        if (::access("/proc/self/fd", X_OK) != 0) return open_named();  // without it a file cannot be given its name later
        descriptor_ = ::open(folder_.c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, 0666);
        return descriptor_ >= 0 || ((errno == EOPNOTSUPP || errno == EISDIR || errno == EINVAL) && open_named());
    }
    bool open_named() {
        name_ = folder_ / (".skivet-" + unguessable());
        descriptor_ = ::open(name_.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0666);
        if (descriptor_ < 0) name_.clear();
        return descriptor_ >= 0;
    }
    [[nodiscard]] int descriptor() const { return descriptor_; }
    /// Gives it its name; false with errno (EEXIST when something is there and `replace` is not set).
    bool finish(const fs::path& to, bool replace) {
        if (name_.empty()) {
            const auto self = fmt::format("/proc/self/fd/{}", descriptor_);
            // At once where nothing is there yet, which is the usual case.
            if (::linkat(AT_FDCWD, self.c_str(), AT_FDCWD, to.c_str(), AT_SYMLINK_FOLLOW) == 0) return true;
            if (!replace || errno != EEXIST) return false;
            const auto name = folder_ / (".skivet-" + unguessable());
            if (::linkat(AT_FDCWD, self.c_str(), AT_FDCWD, name.c_str(), AT_SYMLINK_FOLLOW) != 0) return false;
            name_ = name;
        } else if (!replace) {
            return ::link(name_.c_str(), to.c_str()) == 0;
        }
        if (::rename(name_.c_str(), to.c_str()) != 0) return false;
        name_.clear();
        return true;
    }

private:
    fs::path folder_, name_;
    int descriptor_ = -1;
};

}  // namespace

std::string unguessable() {
    std::array<unsigned char, 16> bytes{};
    for (std::size_t got = 0; got < bytes.size();)
        if (const auto count = ::getrandom(bytes.data() + got, bytes.size() - got, 0); count > 0) got += static_cast<std::size_t>(count);
        else if (errno != EINTR) break;
    std::string out;
    for (const auto b : bytes) out += "abcdefghijklmnopqrstuvwxyz012345"[b % 32];
    return out;
}

Status write_file(const fs::path& path, ByteSpan data, WriteHow how) {
    const auto failed = [&] { return fail_errno(errno, phrase("cannot write {}", path.string())); };
    auto target = path;
    struct stat info {};
    const bool link = ::lstat(path.c_str(), &info) == 0 && S_ISLNK(info.st_mode);
    const bool exists = ::stat(path.c_str(), &info) == 0;
    std::error_code code;
    if (link && !exists)
        return fail(ErrorCode::usage, phrase("{} is a link that leads nowhere", path.string()), "Remove the link or choose another name");
    if (exists && !S_ISREG(info.st_mode))
        return fail(ErrorCode::usage, phrase("{} is there already and is no regular file", path.string()), "Choose another name");
    if (exists && !how.replace) return fail(ErrorCode::usage, phrase("{} is there already", path.string()), "Choose another name");
    if (link) target = fs::canonical(path, code);
    if (code) return fail_errno(code.value(), phrase("cannot write {}", path.string()));
    const auto folder = target.has_parent_path() ? target.parent_path() : fs::path(".");
    if (how.make_folders) make_folders(folder, code);
    if (code) return fail_errno(code.value(), phrase("cannot make the folder {}", folder.string()));
    // Also a folder that is not writable may hold a file we may write; but then nothing could be exchanged in one step, so that is an
    // error.
    Fresh fresh(folder);
    if (!fresh.open()) return failed();
    // Before there is anything in it.
    if (how.secret && ::fchmod(fresh.descriptor(), 0600) != 0) return failed();
    while (!data.empty()) {
        const auto wrote = ::write(fresh.descriptor(), data.data(), std::min<std::size_t>(data.size(), 1u << 30));
        if (wrote < 0 && errno == EINTR) continue;
        if (wrote < 0) return failed();
        data = data.subspan(static_cast<std::size_t>(wrote));
    }
    if (exists && !how.secret && ::fchmod(fresh.descriptor(), info.st_mode & 07777) != 0) return failed();
    if (how.sync && ::fsync(fresh.descriptor()) != 0) return failed();
    if (fresh.finish(target, how.replace)) return {};
    if (errno == EEXIST && !how.replace) return fail(ErrorCode::usage, phrase("{} is there already", path.string()), "Choose another name");
    return failed();
}

Result<Bytes> read_file(const fs::path& path, std::uint64_t limit) {
    SKIVET_TRY(const auto view, FileView::open(path));
    if (view.size() > limit)
        return fail(ErrorCode::limit,
                    phrase("{} is {}, more than the limit of {}", path.string(), human_bytes(view.size()), human_bytes(limit)));
    SKIVET_TRY(const auto data, view.bytes());
    Bytes out(data.begin(), data.end());
    SKIVET_CHECK(view.intact());
    return out;
}

bool lies_in(const fs::path& path, const fs::path& folder) {
    std::error_code code;
    const auto inner = fs::weakly_canonical(fs::absolute(path, code), code).lexically_normal();
    auto outer = fs::weakly_canonical(fs::absolute(folder, code), code).lexically_normal();
    if (!outer.has_filename()) outer = outer.parent_path();  // "folder/"
    const auto [o, i] = std::mismatch(outer.begin(), outer.end(), inner.begin(), inner.end());
    return o == outer.end();
}

Result<fs::path> path_inside(const fs::path& folder, const fs::path& relative) {
    auto out = folder / relative;
    if (lies_in(out, folder)) return out;
    return fail(ErrorCode::usage, phrase("{} leads out of {} through a link", relative.string(), folder.string()),
                "Remove the link or choose another folder");
}

namespace {

fs::path user_folder(const char* variable, const char* below_home) {
    // The specification: a path that is not absolute is to be ignored.
    if (const char* set = std::getenv(variable); set && *set == '/') return fs::path(set) / "skivet";
    if (const char* home = std::getenv("HOME"); home && *home) return fs::path(home) / below_home / "skivet";
    std::array<char, 4096> room{};
    passwd entry{}, *found = nullptr;
    if (::getpwuid_r(::getuid(), &entry, room.data(), room.size(), &found) == 0 && found && found->pw_dir && *found->pw_dir == '/')
        return fs::path(found->pw_dir) / below_home / "skivet";
    // Somebody without a home. What stands under a name that anybody can guess may be anybody's: only a folder that is ours alone will do.
    static const auto place = [] {
        std::error_code code;
        const auto fixed = fs::temp_directory_path(code) / ("skivet-" + std::to_string(::getuid()));
        struct stat info {};
        const bool made = ::mkdir(fixed.c_str(), 0700) == 0;
        if (made || (::lstat(fixed.c_str(), &info) == 0 && S_ISDIR(info.st_mode) && info.st_uid == ::getuid() && (info.st_mode & 077) == 0))
            return fixed;
        auto pattern = fixed.string() + "-XXXXXX";
        return ::mkdtemp(pattern.data()) ? fs::path(pattern) : fixed / "none";
    }();
    return place / fs::path(below_home).filename();
}

}  // namespace

fs::path user_data_folder() { return user_folder("XDG_DATA_HOME", ".local/share"); }
fs::path user_config_folder() { return user_folder("XDG_CONFIG_HOME", ".config"); }
fs::path user_cache_folder() { return user_folder("XDG_CACHE_HOME", ".cache"); }
fs::path user_state_folder() { return user_folder("XDG_STATE_HOME", ".local/state"); }

TemporaryFolder::TemporaryFolder() {
    sweep_leftovers();
    std::error_code code;
    const auto name = std::string(temporary_name) + std::to_string(::getpid()) + "-XXXXXX";
    auto pattern = (std::filesystem::temp_directory_path(code) / name).string();
    if (const char* made = code ? nullptr : ::mkdtemp(pattern.data())) path = made;
}

TemporaryFolder::~TemporaryFolder() {
    std::error_code code;
    if (!path.empty()) std::filesystem::remove_all(path, code);
}

}  // namespace skivet
