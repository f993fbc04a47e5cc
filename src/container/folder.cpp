#include "container/folder.h"

#include <map>

#include "base/file_write.h"
#include "base/phrase.h"
#include "container/parts.h"

namespace skivet {

namespace fs = std::filesystem;

Result<std::unique_ptr<Container>> FolderContainer::open(const fs::path& folder, const ReadLimits& limits, std::span<const fs::path> apart,
                                                         std::shared_ptr<const PastFiles> past) {
    auto out = std::make_unique<FolderContainer>();
    out->folder_ = folder;
    out->past_ = std::move(past);
    std::error_code code;
    fs::recursive_directory_iterator walk(folder, fs::directory_options::skip_permission_denied, code);
    if (code) return fail_errno(code.value(), phrase("cannot read the folder {}", folder.string()));
    std::map<std::string, std::vector<std::string>> names;  // that could be parts, by folder
    std::unordered_map<std::string, std::uint64_t> sizes;
    const auto real = out->past_ ? fs::weakly_canonical(folder, code) : folder;
    const auto take = [&](Entry entry) {
        const auto name = fs::path(entry.path).filename().string();
        if (part_name(name) || name.ends_with(".zip"))
            names[fs::path(entry.path).parent_path().generic_string()].push_back(name), sizes[entry.path] = entry.size;
        out->entries_.push_back(std::move(entry));
    };
    // False for what was not there; the size is the one it had.
    const auto at_that_time = [&](Entry& entry, const fs::path& below) {
        if (!out->past_) return true;
        const auto file = below / entry.path;
        if (const auto was = out->past_->were.find(file); was != out->past_->were.end()) entry.size = entry.stored = was->second.size();
        return !out->past_->not_there.contains(file);
    };
    for (const fs::recursive_directory_iterator end; walk != end; walk.increment(code)) {
        if (code) return fail_errno(code.value(), phrase("cannot read the folder {}", folder.string()));
        std::error_code ignored;
        if (std::find(apart.begin(), apart.end(), walk->path()) != apart.end()) {
            if (walk->is_directory(ignored)) walk.disable_recursion_pending();
            continue;
        }
        if (walk->is_symlink(ignored) || !walk->is_regular_file(ignored)) continue;
        if (out->entries_.size() >= limits.entries)
            return fail(ErrorCode::limit, phrase("{} holds more than {} files", folder.string(), grouped(limits.entries)));
        Entry entry;
        entry.path = walk->path().lexically_relative(folder).generic_string();
        entry.size = entry.stored = walk->file_size(ignored);
        entry.method = "stored";
        // A file has no checksum; when it was written is the nearest thing.
        const auto written = static_cast<std::uint64_t>(walk->last_write_time(ignored).time_since_epoch().count());
        entry.check = static_cast<std::uint32_t>(written ^ written >> 32) | 1u;
        if (at_that_time(entry, real)) take(std::move(entry));
    }
    // What is gone from the disk since.
    if (out->past_)
        for (const auto& [file, view] : out->past_->were) {
            const auto inside = file.lexically_relative(real);
            if (inside.empty() || *inside.begin() == ".." || fs::exists(fs::symlink_status(file, code))) continue;
            Entry entry;
            entry.path = inside.generic_string();
            entry.size = entry.stored = view.size();
            entry.method = "stored";
            take(std::move(entry));
        }
    for (const auto& [below, here] : names) {
        const auto inside = [&, at = below](const std::string& name) { return at.empty() ? name : at + '/' + name; };
        for (const auto& [whole, group] : group_parts(here)) {
            if (!group.missing.empty()) {
                out->problems_.push_back(Error{ErrorCode::missing,
                                               phrase("the part {} is not there", group.missing),
                                               {inside(whole)},
                                               {},
                                               "All parts must lie in one folder"});
                continue;
            }
            Entry entry;
            entry.path = inside(whole);
            entry.method = "stored";
            auto& parts = out->parts_[entry.path];
            for (const auto& name : group.parts) {
                parts.push_back(inside(name));
                entry.size += sizes[parts.back()];
            }
            entry.stored = entry.size;
            std::erase_if(out->entries_, [&](const Entry& e) { return std::find(parts.begin(), parts.end(), e.path) != parts.end(); });
            out->entries_.push_back(std::move(entry));
        }
    }
    std::sort(out->entries_.begin(), out->entries_.end(), [](const auto& a, const auto& b) { return a.path < b.path; });
    out->recognized_by_ = "being a folder";
    return out;
}

Result<std::unique_ptr<Container>> FolderContainer::open_file(const fs::path& file, std::shared_ptr<const PastFiles> past) {
    SKIVET_TRY(const auto view, skivet::open_file(past.get(), file));
    auto out = std::make_unique<FolderContainer>();
    out->past_ = std::move(past);
    out->folder_ = file.parent_path();
    out->kind_ = "single file";
    out->is_one_file_ = true;
    out->recognized_by_ = "being one texture";
    Entry entry;
    entry.path = file.filename().string();
    entry.size = entry.stored = view.size();
    entry.method = "stored";
    out->entries_.push_back(std::move(entry));
    return out;
}

Result<FileView> FolderContainer::open_entry(std::size_t entry) const {
    const auto& path = entries_[entry].path;
    const auto found = parts_.find(path);
    if (found == parts_.end()) return skivet::open_file(past_.get(), folder_ / path);
    std::vector<fs::path> files;
    for (const auto& part : found->second) files.push_back(folder_ / part);
    return join_files(past_.get(), files, ReadLimits{}.inflated_bytes);
}

Result<FileView> FolderContainer::view_of_entry(std::size_t entry, const ReadLimits&) const {
    auto opened = open_entry(entry);
    if (!opened) return fail(in_entry(*this, entry, std::move(opened).error()));
    return opened;
}

Result<Bytes> FolderContainer::unpack_entry(std::size_t entry, const ReadLimits& limits) const {
    SKIVET_TRY(const auto opened, view(entry, limits));
    if (opened.size() > limits.inflated_bytes)
        return fail(
            in_entry(*this, entry, Error{ErrorCode::limit, phrase("{} are more than the limit", human_bytes(opened.size())), {}, {}, {}}));
    SKIVET_TRY(const auto data, opened.bytes());
    return Bytes(data.begin(), data.end());
}

Result<Bytes> FolderContainer::head_of_entry(std::size_t entry, std::size_t count) const {
    // Only the first part of a cut file is opened for its head.
    const auto& path = entries_[entry].path;
    const auto found = parts_.find(path);
    auto opened = skivet::open_file(past_.get(), folder_ / (found == parts_.end() ? path : found->second.front()));
    if (!opened) return fail(in_entry(*this, entry, std::move(opened).error()));
    SKIVET_TRY(const auto data, opened->bytes());
    const auto head = data.first(std::min(count, data.size()));
    return Bytes(head.begin(), head.end());
}

Result<WritePlan> FolderContainer::plan(std::span<const Replacement> replacements, const ReadLimits& limits) const {
    WritePlan out;
    for (const auto& replacement : replacements) {
        if (replacement.entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
        SKIVET_TRY(const auto opened, view(replacement.entry, limits));
        auto one = plan_whole_file(opened, replacement.bytes);
        if (!one) return fail(in_entry(*this, replacement.entry, std::move(one).error()));
        out.add(std::move(*one));
    }
    return out;
}

Result<WritePlan> FolderContainer::plan_entries(const Changes& changes, const ReadLimits& limits) const {
    WritePlan out;
    std::map<std::size_t, std::string> names;
    for (const auto& name : changes.renamed) names[name.entry] = name.path;
    const auto create = [&](const std::string& path, Content content) -> Status {
        SKIVET_TRY(const auto file, path_inside(folder_, path));
        std::error_code code;
        // What is no entry: a folder, a link, another source, a part of a cut file.
        const bool came_since = past_ && past_->not_there.contains(fs::weakly_canonical(file, code));
        if (!came_since && fs::exists(fs::symlink_status(file, code)))
            return fail(ErrorCode::usage, phrase("there is something at \"{}\" already", path), "Choose another name");
        out.add(plan_new_file(file, std::move(content)));
        return {};
    };
    const auto take_away = [&](std::size_t entry) -> Status {
        SKIVET_TRY(const auto opened, view(entry, limits));
        auto plan = plan_no_file(opened);
        if (!plan) return fail(in_entry(*this, entry, std::move(plan).error()));
        out.add(std::move(*plan));
        return {};
    };
    std::vector<Replacement> in_place;
    for (const auto& r : changes.replaced) {
        const auto name = names.find(r.entry);
        if (name == names.end()) {
            in_place.push_back(r);
            continue;
        }
        SKIVET_CHECK(create(name->second, r.bytes));
        SKIVET_CHECK(take_away(r.entry));
        names.erase(name);
    }
    SKIVET_TRY(auto replaced, plan(in_place, limits));
    out.add(std::move(replaced));
    for (const auto& [entry, path] : names) {
        SKIVET_TRY(auto content, read(entry, limits));
        SKIVET_CHECK(create(path, std::move(content)));
        SKIVET_CHECK(take_away(entry));
    }
    for (const auto entry : changes.removed) SKIVET_CHECK(take_away(entry));
    for (const auto& entry : changes.added) SKIVET_CHECK(create(entry.path, entry.bytes));
    return out;
}

}  // namespace skivet
