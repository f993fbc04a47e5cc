#include "base/file_view.h"

#include <fcntl.h>
#include <sys/mman.h>
#include <sys/stat.h>
#include <unistd.h>
#include <atomic>
#include <cerrno>
#include <csignal>
#include <mutex>

#include "base/phrase.h"

namespace skivet {
namespace {

FileStamp to_stamp(const struct stat& info) {
    return {static_cast<std::uint64_t>(info.st_size), static_cast<std::int64_t>(info.st_mtim.tv_sec) * 1'000'000'000 + info.st_mtim.tv_nsec,
            info.st_ino};
}

/// Where a map lies, for the handler of faults; read without a lock, because a fault can come anywhere.
struct Guarded {
    std::atomic<std::uintptr_t> begin{0}, end{0};  ///< begin 0: nothing
    std::atomic<std::atomic<bool>*> broken{nullptr};
};
struct GuardedBlock {
    std::array<Guarded, 256> places;
    std::atomic<GuardedBlock*> next{nullptr};  ///< blocks are never given back
};
GuardedBlock first_block;
std::mutex places_mutex;
std::atomic<std::uint64_t> break_count{0};
struct sigaction earlier {};

/// The fault of a page that is not in its file any more. Only calls that are allowed in a handler; mmap is a plain system call.
void on_bus_error(int signal, siginfo_t* info, void* where) {
    const int error = errno;
    const auto at = reinterpret_cast<std::uintptr_t>(info->si_addr);
    for (auto* block = &first_block; block; block = block->next.load(std::memory_order_acquire))
        for (auto& place : block->places) {
            const auto begin = place.begin.load(std::memory_order_acquire), end = place.end.load(std::memory_order_relaxed);
            auto* broken = place.broken.load(std::memory_order_relaxed);
            if (begin == 0 || at < begin || at >= end || !broken) continue;
            constexpr std::uintptr_t page = 4096;  // at least; a larger one begins at a multiple of its own size
            const auto real_page = std::max(page, static_cast<std::uintptr_t>(::sysconf(_SC_PAGESIZE)));
            const auto from = at / real_page * real_page;
            if (::mmap(reinterpret_cast<void*>(from), end - from, PROT_READ | PROT_WRITE,
                       MAP_PRIVATE | MAP_ANONYMOUS | MAP_FIXED | MAP_NORESERVE, -1, 0) == MAP_FAILED)
                break;
            broken->store(true, std::memory_order_release);
            break_count.fetch_add(1, std::memory_order_acq_rel);
            errno = error;
            return;
        }
    // Not ours: as it was before.
    errno = error;
    if ((earlier.sa_flags & SA_SIGINFO) && earlier.sa_sigaction) return earlier.sa_sigaction(signal, info, where);
    if (!(earlier.sa_flags & SA_SIGINFO) && earlier.sa_handler != SIG_DFL && earlier.sa_handler != SIG_IGN)
        return earlier.sa_handler(signal);
    ::signal(signal, SIG_DFL);  // the instruction faults again and ends the process
}

void guard(const void* data, std::size_t size, std::atomic<bool>& broken) {
    const std::lock_guard lock(places_mutex);
    // Who reports crashes may have come since, and is asked about every other fault.
    struct sigaction current {};
    ::sigaction(SIGBUS, nullptr, &current);
    if (!(current.sa_flags & SA_SIGINFO) || current.sa_sigaction != on_bus_error) {
        earlier = current;
        struct sigaction action {};
        action.sa_sigaction = on_bus_error;
        action.sa_flags = SA_SIGINFO | SA_ONSTACK | SA_NODEFER;
        ::sigaction(SIGBUS, &action, nullptr);
    }
    auto* block = &first_block;
    while (true) {
        for (auto& place : block->places)
            if (place.begin.load(std::memory_order_relaxed) == 0) {
                place.broken.store(&broken, std::memory_order_relaxed);
                place.end.store(reinterpret_cast<std::uintptr_t>(data) + size, std::memory_order_relaxed);
                place.begin.store(reinterpret_cast<std::uintptr_t>(data), std::memory_order_release);
                return;
            }
        if (!block->next.load(std::memory_order_relaxed)) block->next.store(new GuardedBlock, std::memory_order_release);
        block = block->next.load(std::memory_order_relaxed);
    }
}
void unguard(const void* data) {
    const std::lock_guard lock(places_mutex);
    for (auto* block = &first_block; block; block = block->next.load(std::memory_order_relaxed))
        for (auto& place : block->places)
            if (place.begin.load(std::memory_order_relaxed) == reinterpret_cast<std::uintptr_t>(data)) {
                place.begin.store(0, std::memory_order_release);
                return;
            }
}

}  // namespace

struct FileView::Map {
    std::filesystem::path path;
    FileStamp stamp;
    Bytes owned;  ///< in memory only
    std::vector<FilePart> parts;
    std::vector<int> descriptors;  ///< one for each part
    const std::byte* data = nullptr;
    std::size_t size = 0;
    void* mapped = nullptr;
    std::size_t mapped_size = 0;
    mutable std::atomic<std::uint64_t> read{0};
    std::atomic<bool> broken{false};    ///< a page was not there any more
    std::shared_ptr<const Map> inside;  ///< of a part of another view: that view's map

    Map() = default;
    Map(const Map&) = delete;
    Map& operator=(const Map&) = delete;
    ~Map() {
        if (mapped) {
            unguard(mapped);
            ::munmap(mapped, mapped_size);
        }
        for (const int d : descriptors) ::close(d);
    }

    /// Opens a file and notes it as the next part.
    Status add_part(const std::filesystem::path& file) {
        const int descriptor = ::open(file.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
        if (descriptor < 0) return fail_errno(errno, phrase("cannot open {}", file.string()));
        descriptors.push_back(descriptor);
        struct stat info {};
        if (::fstat(descriptor, &info) != 0) return fail_errno(errno, phrase("cannot look at {}", file.string()));
        if (!S_ISREG(info.st_mode)) return fail(ErrorCode::unsupported, phrase("{} is not a regular file", file.string()));
        parts.push_back({file, to_stamp(info)});
        return {};
    }
    /// Reserves addresses for the whole and maps every part at its place.
    Status map_parts() {
        if (size == 0) return {};
        mapped = ::mmap(nullptr, size, PROT_NONE, MAP_PRIVATE | MAP_ANONYMOUS | MAP_NORESERVE, -1, 0);
        if (mapped == MAP_FAILED) {
            mapped = nullptr;
            return fail_errno(errno, phrase("cannot map {}", path.string()));
        }
        mapped_size = size;
        guard(mapped, mapped_size, broken);
        std::size_t at = 0;
        for (std::size_t p = 0; p < parts.size(); ++p) {
            const auto length = static_cast<std::size_t>(parts[p].stamp.size);
            if (length > 0 &&
                ::mmap(static_cast<std::byte*>(mapped) + at, length, PROT_READ, MAP_SHARED | MAP_FIXED, descriptors[p], 0) == MAP_FAILED)
                return fail_errno(errno, phrase("cannot map {}", parts[p].path.string()));
            at += length;
        }
        data = static_cast<const std::byte*>(mapped);
        return {};
    }
    /// For parts that do not end at a page.
    Status read_parts() {
        owned.resize(size);
        std::size_t at = 0;
        for (std::size_t p = 0; p < parts.size(); ++p)
            for (std::size_t done = 0; done < parts[p].stamp.size;) {
                const auto got = ::pread(descriptors[p], owned.data() + at, static_cast<std::size_t>(parts[p].stamp.size) - done,
                                         static_cast<off_t>(done));
                if (got < 0 && errno == EINTR) continue;
                if (got <= 0) return fail_errno(got < 0 ? errno : EIO, phrase("cannot read {}", parts[p].path.string()));
                done += static_cast<std::size_t>(got);
                at += static_cast<std::size_t>(got);
            }
        data = owned.data();
        return {};
    }
};

Result<FileStamp> stamp_of(const std::filesystem::path& path) {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) return fail_errno(errno, phrase("cannot look at {}", path.string()));
    return to_stamp(info);
}

Result<FileView> FileView::open(const std::filesystem::path& path) {
    auto map = std::make_shared<Map>();
    map->path = path;
    SKIVET_CHECK(map->add_part(path));
    map->stamp = map->parts[0].stamp;
    map->size = static_cast<std::size_t>(map->stamp.size);
    SKIVET_CHECK(map->map_parts());
    FileView view;
    view.map_ = std::move(map);
    return view;
}

Result<FileView> FileView::join(const std::vector<std::filesystem::path>& files, std::uint64_t limit) {
    if (files.empty()) return fail(ErrorCode::usage, "no parts to join");
    if (files.size() == 1) return open(files.front());
    auto map = std::make_shared<Map>();
    map->path = files.front();
    const auto page = static_cast<std::uint64_t>(::sysconf(_SC_PAGESIZE));
    bool whole_pages = true;
    for (std::size_t i = 0; i < files.size(); ++i) {
        SKIVET_CHECK(map->add_part(files[i]));
        const auto& stamp = map->parts.back().stamp;
        map->stamp.size += stamp.size;
        map->stamp.modified_ns = std::max(map->stamp.modified_ns, stamp.modified_ns);
        map->stamp.inode ^= stamp.inode * (i + 1);
        whole_pages = whole_pages && (i + 1 == files.size() || stamp.size % page == 0);
    }
    map->size = static_cast<std::size_t>(map->stamp.size);
    if (!whole_pages && map->size > limit)
        return fail(ErrorCode::limit,
                    phrase("{}: its parts of {} do not end at whole pages and are too large for memory", files.front().filename().string(),
                           human_bytes(map->size)),
                    "Join them into one file first");
    SKIVET_CHECK(whole_pages ? map->map_parts() : map->read_parts());
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

FileView FileView::of(Bytes bytes, std::vector<FilePart> parts) {
    auto map = std::make_shared<Map>();
    map->path = parts.front().path;
    map->owned = std::move(bytes);
    map->data = map->owned.data();
    map->size = map->owned.size();
    map->stamp = parts.front().stamp;
    map->stamp.size = map->size;
    map->parts = std::move(parts);
    FileView view;
    view.map_ = std::move(map);
    return view;
}

FileView FileView::over(ByteSpan bytes, std::filesystem::path name) {
    auto map = std::make_shared<Map>();
    map->path = std::move(name);
    map->data = bytes.data();
    map->size = bytes.size();
    map->stamp.size = map->size;
    FileView view;
    view.map_ = std::move(map);
    return view;
}

const std::filesystem::path& FileView::path() const { return map_->path; }
std::uint64_t FileView::size() const { return map_->size; }
const FileStamp& FileView::stamp() const { return map_->stamp; }
bool FileView::in_memory() const { return map_->parts.empty(); }
const std::vector<FilePart>& FileView::parts() const { return map_->parts; }

Result<FileView> FileView::part(std::uint64_t offset, std::uint64_t size, std::filesystem::path name) const {
    SKIVET_TRY(const auto inner, bytes(offset, size));
    auto map = std::make_shared<Map>();
    map->path = std::move(name);
    map->data = inner.data();
    map->size = inner.size();
    map->stamp.size = map->size;
    map->inside = map_;
    FileView view;
    view.map_ = std::move(map);
    return view;
}

Result<FileView> FileView::with(std::span<const Overlay> over, std::uint64_t new_size) const {
    SKIVET_TRY(const auto current, bytes());
    for (const auto& o : over)
        if (o.at > new_size || o.bytes.size() > new_size - o.at)
            return fail_at(ErrorCode::damaged, o.at, "bytes behind the end of the file");
    auto map = std::make_shared<Map>();
    map->path = map_->path;
    map->stamp = map_->stamp;
    map->stamp.size = new_size;
    map->size = static_cast<std::size_t>(new_size);
    map->inside = map_;
    map->parts = map_->parts;
    if (map->parts.size() == 1) map->parts[0].stamp.size = new_size;
    if (new_size > 0) {
        // Zero pages for the whole, the file's own pages copy-on-write over them, then the other bytes.
        map->mapped = ::mmap(nullptr, map->size, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS | MAP_NORESERVE, -1, 0);
        if (map->mapped == MAP_FAILED) {
            map->mapped = nullptr;
            return fail_errno(errno, phrase("cannot map {}", map_->path.string()));
        }
        map->mapped_size = map->size;
        guard(map->mapped, map->mapped_size, map->broken);
        auto* data = static_cast<std::byte*>(map->mapped);
        const auto common = static_cast<std::size_t>(std::min<std::uint64_t>(new_size, current.size()));
        const bool one_file = map_->descriptors.size() == 1 && map_->mapped;
        if (common > 0 && (!one_file || ::mmap(data, common, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_FIXED | MAP_NORESERVE,
                                               map_->descriptors[0], 0) == MAP_FAILED))
            std::memcpy(data, current.data(), common);
        for (const auto& o : over)
            if (!o.bytes.empty()) std::memcpy(data + o.at, o.bytes.data(), o.bytes.size());
        map->data = data;
    }
    FileView view;
    view.map_ = std::move(map);
    return view;
}

std::uint64_t FileView::breaks() { return break_count.load(std::memory_order_acquire); }

Result<ByteSpan> FileView::bytes() const {
    for (const auto* map = map_.get(); map; map = map->inside.get()) {
        for (std::size_t p = 0; p < map->descriptors.size() && map->mapped; ++p) {
            struct stat info {};
            if (::fstat(map->descriptors[p], &info) != 0)
                return fail_errno(errno, phrase("cannot look at {}", map->parts[p].path.string()));
            if (static_cast<std::uint64_t>(info.st_size) < map->parts[p].stamp.size)
                return fail(ErrorCode::stale, phrase("{} became shorter while it was open", map->parts[p].path.filename().string()),
                            "Open it again");
        }
        // As large as before: it was cut off and grew again, or the disk could not give the page.
        if (map->broken.load(std::memory_order_acquire))
            return fail(ErrorCode::stale,
                        phrase("{} could not be read: it changed while it was open, or the disk failed", map->path.filename().string()),
                        "Open it again");
    }
    return ByteSpan(map_->data, map_->size);
}

Status FileView::intact() const {
    SKIVET_CHECK(bytes());
    return {};
}

void FileView::note_read(std::uint64_t bytes) const {
    constexpr std::uint64_t most = 32u << 20;
    const auto* map = map_.get();
    while (map->inside) map = map->inside.get();  // never a view with other bytes laid over it: those have the file's own inside
    if (!map->mapped || map->read.fetch_add(bytes, std::memory_order_relaxed) + bytes < most) return;
    map->read.store(0, std::memory_order_relaxed);
    // Pages of a file that are only read come back from the file; nothing is lost.
    (void)::madvise(map->mapped, map->mapped_size, MADV_DONTNEED);
}

Result<ByteSpan> FileView::bytes(std::uint64_t offset, std::uint64_t size) const {
    SKIVET_TRY(const auto all, bytes());
    return slice(all, offset, size);
}

}  // namespace skivet
