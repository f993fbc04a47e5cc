#include "base/file_write.h"

#include <cerrno>
#include <fcntl.h>
#include <unistd.h>

#include "base/file_view.h"

namespace skivet {

Status write_file(const std::filesystem::path& path, ByteSpan data) {
    std::error_code code;
    if (path.has_parent_path()) std::filesystem::create_directories(path.parent_path(), code);
    if (code) return fail_errno(code.value(), "cannot make the folder " + path.parent_path().string());
    auto temporary = path;
    temporary += ".part";
    const int descriptor = ::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (descriptor < 0) return fail_errno(errno, "cannot write " + path.string());
    while (!data.empty()) {
        const auto wrote = ::write(descriptor, data.data(), data.size());
        if (wrote < 0 && errno == EINTR) continue;
        if (wrote < 0) {
            const int error_number = errno;
            ::close(descriptor);
            ::unlink(temporary.c_str());
            return fail_errno(error_number, "cannot write " + path.string());
        }
        data = data.subspan(static_cast<std::size_t>(wrote));
    }
    if (::close(descriptor) != 0) {
        const int error_number = errno;
        ::unlink(temporary.c_str());
        return fail_errno(error_number, "cannot write " + path.string());
    }
    if (::rename(temporary.c_str(), path.c_str()) != 0) {
        const int error_number = errno;
        ::unlink(temporary.c_str());
        return fail_errno(error_number, "cannot write " + path.string());
    }
    return {};
}

Result<Bytes> read_file(const std::filesystem::path& path, std::uint64_t limit) {
    SKIVET_TRY(const auto view, FileView::open(path));
    if (view.size() > limit)
        return fail(ErrorCode::limit, path.string() + " is " + human_bytes(view.size()) + ", more than the limit of " + human_bytes(limit));
    SKIVET_TRY(const auto data, view.bytes());
    return Bytes(data.begin(), data.end());
}

}  // namespace skivet
