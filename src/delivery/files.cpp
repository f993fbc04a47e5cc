#include "delivery/files.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>
#include <cerrno>

#include "base/phrase.h"

namespace skivet {
namespace {

/// A descriptor that closes itself.
class Descriptor {
public:
    explicit Descriptor(int value) : value_(value) {}
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    ~Descriptor() {
        if (value_ >= 0) ::close(value_);
    }
    [[nodiscard]] int get() const { return value_; }
    [[nodiscard]] bool bad() const { return value_ < 0; }

private:
    int value_;
};

Status write_all(int descriptor, std::uint64_t at, ByteSpan data, const std::filesystem::path& file) {
    while (!data.empty()) {
        const auto wrote = ::pwrite(descriptor, data.data(), data.size(), static_cast<off_t>(at));
        if (wrote < 0 && errno == EINTR) continue;
        if (wrote < 0) return fail_errno(errno, phrase("cannot write {}", file.string()));
        if (wrote == 0) return fail(ErrorCode::io, phrase("cannot write {}: nothing is taken any more", file.string()));
        at += static_cast<std::uint64_t>(wrote);
        data = data.subspan(static_cast<std::size_t>(wrote));
    }
    return {};
}

Status sync_path(const std::filesystem::path& path, int flags) {
    const Descriptor descriptor(::open(path.c_str(), flags | O_CLOEXEC));
    if (descriptor.bad()) return fail_errno(errno, phrase("cannot open {}", path.string()));
    if (::fsync(descriptor.get()) != 0) return fail_errno(errno, phrase("cannot sync {}", path.string()));
    return {};
}

}  // namespace

Result<Bytes> PosixFiles::read(const std::filesystem::path& file, std::uint64_t at, std::uint64_t size) {
    const Descriptor descriptor(::open(file.c_str(), O_RDONLY | O_CLOEXEC));
    if (descriptor.bad()) return fail_errno(errno, phrase("cannot open {}", file.string()));
    Bytes out(static_cast<std::size_t>(size));
    std::size_t done = 0;
    while (done < out.size()) {
        const auto got = ::pread(descriptor.get(), out.data() + done, out.size() - done, static_cast<off_t>(at + done));
        if (got < 0 && errno == EINTR) continue;
        if (got < 0) return fail_errno(errno, phrase("cannot read {}", file.string()));
        if (got == 0) return fail_at(ErrorCode::stale, at + done, phrase("{} ends early", file.string()));
        done += static_cast<std::size_t>(got);
    }
    return out;
}

Result<std::uint64_t> PosixFiles::size(const std::filesystem::path& file) {
    struct stat info {};
    if (::stat(file.c_str(), &info) != 0) return fail_errno(errno, phrase("cannot look at {}", file.string()));
    return static_cast<std::uint64_t>(info.st_size);
}

Status PosixFiles::write(const std::filesystem::path& file, std::uint64_t at, ByteSpan data) {
    const Descriptor descriptor(::open(file.c_str(), O_WRONLY | O_CLOEXEC));
    if (descriptor.bad()) return fail_errno(errno, phrase("cannot open {} for writing", file.string()));
    return write_all(descriptor.get(), at, data, file);
}

Status PosixFiles::resize(const std::filesystem::path& file, std::uint64_t size) {
    if (::truncate(file.c_str(), static_cast<off_t>(size)) != 0)
        return fail_errno(errno, phrase("cannot change the size of {}", file.string()));
    return {};
}

Status PosixFiles::create(const std::filesystem::path& file, ByteSpan data) {
    const Descriptor descriptor(::open(file.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0644));
    if (descriptor.bad()) return fail_errno(errno, phrase("cannot create {}", file.string()));
    return write_all(descriptor.get(), 0, data, file);
}

Status PosixFiles::create_like(const std::filesystem::path& file, const std::filesystem::path& like) {
    struct stat info {};
    if (::stat(like.c_str(), &info) != 0) return fail_errno(errno, phrase("cannot look at {}", like.string()));
    const Descriptor descriptor(::open(file.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0600));
    if (descriptor.bad()) return fail_errno(errno, phrase("cannot create {}", file.string()));
    if (::fchown(descriptor.get(), info.st_uid, info.st_gid) != 0 && errno != EPERM)
        return fail_errno(errno, phrase("cannot create {}", file.string()));
    if (::fchmod(descriptor.get(), info.st_mode & 07777) != 0) return fail_errno(errno, phrase("cannot create {}", file.string()));
    return {};
}

Status PosixFiles::sync(const std::filesystem::path& file) { return sync_path(file, O_RDONLY); }
Status PosixFiles::sync_folder(const std::filesystem::path& folder) { return sync_path(folder, O_RDONLY | O_DIRECTORY); }

Status PosixFiles::rename(const std::filesystem::path& from, const std::filesystem::path& to) {
    if (::rename(from.c_str(), to.c_str()) != 0) return fail_errno(errno, phrase("cannot rename {}", from.string()));
    return {};
}

Status PosixFiles::remove(const std::filesystem::path& file) {
    if (::unlink(file.c_str()) != 0) return fail_errno(errno, phrase("cannot remove {}", file.string()));
    return {};
}

Status PosixFiles::set_mode(const std::filesystem::path& file, std::uint32_t mode) {
    if (::chmod(file.c_str(), static_cast<mode_t>(mode)) != 0)
        return fail_errno(errno, phrase("cannot set the permissions of {}", file.string()));
    return {};
}

Status PosixFiles::copy(const std::filesystem::path& from, std::uint64_t from_at, const std::filesystem::path& to, std::uint64_t to_at,
                        std::uint64_t size) {
    const Descriptor source(::open(from.c_str(), O_RDONLY | O_CLOEXEC)), target(::open(to.c_str(), O_WRONLY | O_CLOEXEC));
    if (source.bad()) return fail_errno(errno, phrase("cannot open {}", from.string()));
    if (target.bad()) return fail_errno(errno, phrase("cannot open {} for writing", to.string()));
    while (size > 0) {
        auto in = static_cast<off_t>(from_at), out = static_cast<off_t>(to_at);
        auto got =
            ::copy_file_range(source.get(), &in, target.get(), &out, static_cast<std::size_t>(std::min<std::uint64_t>(size, 1u << 30)), 0);
        if (got < 0 && errno == EINTR) continue;
        if (got < 0 &&
            (errno == EXDEV || errno == ENOSYS || errno == EOPNOTSUPP || errno == EINVAL)) {  // other file systems, older kernels
            SKIVET_TRY(const auto bytes, read(from, from_at, std::min<std::uint64_t>(size, 4u << 20)));
            SKIVET_CHECK(write_all(target.get(), to_at, bytes, to));
            got = static_cast<ssize_t>(bytes.size());
        }
        if (got < 0) return fail_errno(errno, phrase("cannot write {}", to.string()));
        if (got == 0) return fail_at(ErrorCode::stale, from_at, phrase("{} ends early", from.string()));
        from_at += static_cast<std::uint64_t>(got);
        to_at += static_cast<std::uint64_t>(got);
        size -= static_cast<std::uint64_t>(got);
    }
    return {};
}

Status PosixFiles::make_folder(const std::filesystem::path& folder) {
    if (::mkdir(folder.c_str(), 0755) != 0 && errno != EEXIST)
        return fail_errno(errno, phrase("cannot make the folder {}", folder.string()));
    return {};
}

Status PosixFiles::remove_folder(const std::filesystem::path& folder) {
    if (::rmdir(folder.c_str()) != 0) return fail_errno(errno, phrase("cannot remove the folder {}", folder.string()));
    return {};
}

}  // namespace skivet
