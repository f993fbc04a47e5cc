#include "base/file_view.h"

#include <cerrno>
#include <fcntl.h>
#include <sys/mman.h>
#include <sys/stat.h>
#include <unistd.h>

namespace skivet {
namespace {

FileStamp to_stamp(const struct stat& info) {
    return {static_cast<std::uint64_t>(info.st_size),
            static_cast<std::int64_t>(info.st_mtim.tv_sec) * 1'000'000'000 + info.st_mtim.tv_nsec, info.st_ino};
}

}  // namespace

struct FileView::Map {
    std::filesystem::path path;
    FileStamp stamp;
    Bytes owned;                  ///< in_memory only
    int descriptor = -1;
    const std::byte* data = nullptr;
    std::size_t size = 0;

    Map() = default;
    Map(const Map&) = delete;
    Map& operator=(const Map&) = delete;
    ~Map() {
        if (descriptor >= 0) {
            if (data) ::munmap(const_cast<std::byte*>(data), size);
            ::close(descriptor);
        }
    }
};

Result<FileStamp> stamp_of(const std::filesystem::path& path) {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) return fail_errno(errno, "cannot look at " + path.string());
    return to_stamp(info);
}

Result<FileView> FileView::open(const std::filesystem::path& path) {
    auto map = std::make_shared<Map>();
    map->path = path;
    map->descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    if (map->descriptor < 0) return fail_errno(errno, "cannot open " + path.string());
    struct stat info {};
    if (::fstat(map->descriptor, &info) != 0) return fail_errno(errno, "cannot look at " + path.string());
    if (!S_ISREG(info.st_mode)) return fail(ErrorCode::unsupported, path.string() + " is not a regular file");
    map->stamp = to_stamp(info);
    map->size = static_cast<std::size_t>(info.st_size);
    if (map->size > 0) {
        void* where = ::mmap(nullptr, map->size, PROT_READ, MAP_SHARED, map->descriptor, 0);
        if (where == MAP_FAILED) return fail_errno(errno, "cannot map " + path.string());
        map->data = static_cast<const std::byte*>(where);
    }
    FileView view;
    view.map_ = std::move(map);
    return view;
}

FileView FileView::of(Bytes bytes, std::filesystem::path name) {
    auto map = std::make_shared<Map>();
    map->path = std::move(name);
    map->owned = std::move(bytes);
    map->data = map->owned.data();
    map->size = map->owned.size();
    map->stamp.size = map->size;
    FileView view;
    view.map_ = std::move(map);
    return view;
}

const std::filesystem::path& FileView::path() const { return map_->path; }
std::uint64_t FileView::size() const { return map_->size; }
const FileStamp& FileView::stamp() const { return map_->stamp; }
bool FileView::in_memory() const { return map_->descriptor < 0; }

Result<ByteSpan> FileView::bytes() const {
    if (map_->descriptor >= 0) {
        struct stat info {};
        if (::fstat(map_->descriptor, &info) != 0) return fail_errno(errno, "cannot look at " + map_->path.string());
        if (static_cast<std::size_t>(info.st_size) < map_->size)
            return fail(ErrorCode::stale, map_->path.filename().string() + " became shorter while it was open", "Open it again");
    }
    return ByteSpan(map_->data, map_->size);
}

Result<ByteSpan> FileView::bytes(std::uint64_t offset, std::uint64_t size) const {
    SKIVET_TRY(const auto all, bytes());
    return slice(all, offset, size);
}

}  // namespace skivet
