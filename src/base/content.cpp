#include "base/content.h"

#include <fcntl.h>
#include <sys/mman.h>
#include <unistd.h>
#include <algorithm>
#include <cerrno>
#include <mutex>
#include <utility>

#include "base/file_write.h"
#include "base/own_folders.h"

namespace skivet {

/// A file without a name and the map of it. Bytes are written behind one another; it goes when the last of them does.
struct Content::Room {
    static constexpr std::size_t usual_size = 64u << 20;  // of address space; the file is as long as what was written

    ~Room() {
        if (map != MAP_FAILED) ::munmap(map, size);
        if (descriptor >= 0) ::close(descriptor);
    }
    Room() = default;
    void close() {
        ::close(std::exchange(descriptor, -1));  // the map stays
    }
    Room(const Room&) = delete;
    Room& operator=(const Room&) = delete;

    int descriptor = -1;
    void* map = MAP_FAILED;
    std::size_t size = 0;
    std::size_t used = 0;  ///< guarded by the mutex of `hold`

    [[nodiscard]] static std::shared_ptr<Room> make(std::size_t size) {
        auto out = std::make_shared<Room>();
        const auto folder = user_cache_folder();
        std::error_code code;
        make_folders(folder, code);
        out->descriptor = ::open(folder.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC | O_EXCL, 0600);
        if (out->descriptor < 0) return nullptr;
        out->size = size;
        out->map = ::mmap(nullptr, size, PROT_READ, MAP_SHARED, out->descriptor, 0);
        return out->map == MAP_FAILED ? nullptr : out;
    }
    /// False where the disk does not take them. What is written has its room on the disk, so that reading the map is never a fault.
    [[nodiscard]] bool write(std::size_t at, ByteSpan bytes) const {
        while (!bytes.empty()) {
            const auto wrote = ::pwrite(descriptor, bytes.data(), bytes.size(), static_cast<off_t>(at));
            if (wrote < 0 && errno == EINTR) continue;
            if (wrote <= 0) return false;
            at += static_cast<std::size_t>(wrote);
            bytes = bytes.subspan(static_cast<std::size_t>(wrote));
        }
        return true;
    }
};

bool Content::same(ByteSpan a, ByteSpan b) { return std::equal(a.begin(), a.end(), b.begin(), b.end()); }

Content::Content(Bytes bytes) {
    hold(bytes);
    if (room_ || bytes.empty()) return;
    const auto owner = std::make_shared<const Bytes>(std::move(bytes));
    bytes_ = *owner;
    owner_ = owner;
}

Content::Content(ByteSpan bytes) {
    hold(bytes);
    if (!room_) *this = Content(Bytes(bytes.begin(), bytes.end()));
}

void Content::hold(ByteSpan bytes) {
    if (bytes.size() < kept_in_memory) return;
    static std::mutex mutex;
    static std::weak_ptr<Room> latest;
    std::shared_ptr<Room> room;
    std::size_t at = 0;
    // What is large has a room to itself, and no descriptor once it is written: a process may have a thousand of those.
    const bool alone = bytes.size() >= Room::usual_size / 4;
    if (alone) {
        room = Room::make(bytes.size());
        if (!room || !room->write(0, bytes)) return;
        room->close();
    } else {
        {
            const std::lock_guard lock(mutex);
            room = latest.lock();
            if (!room || room->size - room->used < bytes.size()) {
                room = Room::make(Room::usual_size);
                if (!room) return;
                latest = room;
            }
            at = room->used;
            room->used += bytes.size();
        }
        if (!room->write(at, bytes)) return;
    }
    bytes_ = {static_cast<const std::byte*>(room->map) + at, bytes.size()};
    room_ = room;
}

Content Content::part(std::size_t from, std::size_t count) const {
    auto out = *this;
    out.bytes_ = bytes_.subspan(from, count);
    return out;
}

void Content::rest() const {
    if (!room_ || bytes_.empty()) return;
    const auto page = static_cast<std::size_t>(::sysconf(_SC_PAGESIZE));
    auto* map = static_cast<std::byte*>(room_->map);
    const auto begin = static_cast<std::size_t>(bytes_.data() - map);
    const auto from = begin / page * page, to = (begin + bytes_.size() + page - 1) / page * page;
    ::madvise(map + from, to - from, MADV_DONTNEED);  // a page that others look at comes back at once
}

}  // namespace skivet
