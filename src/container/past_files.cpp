#include "container/past_files.h"

#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

fs::path real_path(const fs::path& path) {
    std::error_code code;
    auto real = fs::weakly_canonical(path, code);
    return code ? path : real;
}

}  // namespace

Result<FileView> PastFiles::open(const fs::path& file) const {
    if (were.empty() && not_there.empty()) return FileView::open(file);
    const auto real = real_path(file);
    if (const auto found = were.find(real); found != were.end()) return found->second;
    if (not_there.contains(real)) return fail(ErrorCode::missing, phrase("{} was not there", file.string()));
    return FileView::open(file);
}

Result<FileView> open_file(const PastFiles* past, const fs::path& file) { return past ? past->open(file) : FileView::open(file); }

Result<FileView> join_files(const PastFiles* past, const std::vector<fs::path>& parts, std::uint64_t limit) {
    const auto is_past = [&](const fs::path& part) { return past && past->were.contains(real_path(part)); };
    if (parts.size() < 2 || std::none_of(parts.begin(), parts.end(), is_past))
        return parts.size() == 1 ? open_file(past, parts.front()) : FileView::join(parts, limit);
    Bytes all;
    std::vector<FilePart> files;
    for (const auto& part : parts) {
        SKIVET_TRY(const auto view, open_file(past, part));
        SKIVET_TRY(const auto bytes, view.bytes());
        if (bytes.size() > limit - std::min<std::uint64_t>(limit, all.size()))
            return fail(ErrorCode::limit, phrase("{}: its parts are too large for memory", part.string()), "Join them into one file first");
        all.insert(all.end(), bytes.begin(), bytes.end());
        files.push_back({part, view.stamp()});
    }
    return FileView::of(std::move(all), std::move(files));
}

}  // namespace skivet
