#include "base/file_lock.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>
#include <cerrno>
#include <thread>

#include "base/phrase.h"

namespace skivet {

Result<FileLock> FileLock::take(const std::filesystem::path& file, bool create) {
    const int descriptor = create ? ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644) : ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
    if (descriptor < 0) return fail_errno(errno, phrase("cannot open {}", file.string()));
    FileLock lock(descriptor);
    if (::flock(descriptor, LOCK_EX | LOCK_NB) != 0) {
        if (errno == EWOULDBLOCK)
            return fail(ErrorCode::busy, phrase("{} is in use by another program", file.filename().string()),
                        "Close that program and try again");
        return fail_errno(errno, phrase("cannot lock {}", file.string()));
    }
    return lock;
}

Result<FileLock> FileLock::take_within(const std::filesystem::path& file, std::chrono::milliseconds patience) {
    const auto end = std::chrono::steady_clock::now() + patience;
    for (;;) {
        auto lock = take(file, true);
        if (lock || lock.error().code != ErrorCode::busy || std::chrono::steady_clock::now() >= end) return lock;
        std::this_thread::sleep_for(std::chrono::milliseconds(10));
    }
}

FileLock::~FileLock() {
    if (descriptor_ >= 0) ::close(descriptor_);
}

void FileLock::note(const std::string& text) const {
    // Only a help for whoever is kept out; nothing rests on it.
    if (::ftruncate(descriptor_, 0) == 0) (void)!::pwrite(descriptor_, text.data(), text.size(), 0);
}

}  // namespace skivet
