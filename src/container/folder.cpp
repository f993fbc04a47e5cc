#include "container/folder.h"

#include <fmt/format.h>

namespace skivet {

namespace fs = std::filesystem;

Result<std::unique_ptr<Container>> FolderContainer::open(const fs::path& folder, const ReadLimits& limits) {
    auto out = std::make_unique<FolderContainer>();
    out->folder_ = folder;
    std::error_code code;
    fs::recursive_directory_iterator walk(folder, fs::directory_options::skip_permission_denied, code);
    if (code) return fail_errno(code.value(), "cannot read the folder " + folder.string());
    for (const fs::recursive_directory_iterator end; walk != end; walk.increment(code)) {
        if (code) return fail_errno(code.value(), "cannot read the folder " + folder.string());
        std::error_code ignored;
        if (walk->is_symlink(ignored) || !walk->is_regular_file(ignored)) continue;
        if (out->entries_.size() >= limits.entries)
            return fail(ErrorCode::limit, fmt::format("{} holds more than {} files", folder.string(), grouped(limits.entries)));
        Entry entry;
        entry.path = walk->path().lexically_relative(folder).generic_string();
        entry.size = entry.stored = walk->file_size(ignored);
        entry.method = "stored";
        out->entries_.push_back(std::move(entry));
    }
    std::sort(out->entries_.begin(), out->entries_.end(), [](const auto& a, const auto& b) { return a.path < b.path; });
    out->recognized_by_ = "being a folder";
    return out;
}

Result<Bytes> FolderContainer::read(std::size_t entry, const ReadLimits& limits) const {
    auto view = FileView::open(folder_ / entries_[entry].path);
    if (!view) return fail(in_entry(*this, entry, std::move(view).error()));
    if (view->size() > limits.inflated_bytes)
        return fail(in_entry(*this, entry, Error{ErrorCode::limit, human_bytes(view->size()) + " are more than the limit", {}, {}, {}}));
    SKIVET_TRY(const auto data, view->bytes());
    return Bytes(data.begin(), data.end());
}

Result<Bytes> FolderContainer::read_head(std::size_t entry, std::size_t count) const {
    auto view = FileView::open(folder_ / entries_[entry].path);
    if (!view) return fail(in_entry(*this, entry, std::move(view).error()));
    SKIVET_TRY(const auto data, view->bytes());
    const auto head = data.first(std::min(count, data.size()));
    return Bytes(head.begin(), head.end());
}

Result<WritePlan> FolderContainer::plan(std::span<const Replacement> replacements, const ReadLimits&) const {
    WritePlan out;
    for (const auto& replacement : replacements) {
        if (replacement.entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
        auto view = FileView::open(folder_ / entries_[replacement.entry].path);
        if (!view) return fail(in_entry(*this, replacement.entry, std::move(view).error()));
        SKIVET_TRY(const auto current, view->bytes());
        FilePlan plan;
        plan.file = view->path();
        plan.expected = view->stamp();
        plan.new_size = replacement.bytes.size();
        plan.way = plan.new_size == view->size() ? Way::in_place : Way::rebuild;
        plan.ranges.push_back({0, replacement.bytes});
        minimize(plan, current);
        if (!plan.empty()) out.files.push_back(std::move(plan));
    }
    return out;
}

}  // namespace skivet
