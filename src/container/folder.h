#pragma once
#include "container/container.h"
#include "container/past_files.h"

namespace skivet {

/// A folder on disk; every regular file below it is an entry. Links are not followed out of it. Files that were cut into parts
/// (name.00 name.01, name.001, name.part1, name.z01 with name.zip) are one entry with the whole name.
class FolderContainer final : public Container {
public:
    /// What lies at or below a path of `apart` is left out: a source of its own is not listed twice.
    [[nodiscard]] static Result<std::unique_ptr<Container>> open(const std::filesystem::path& folder, const ReadLimits& limits,
                                                                 std::span<const std::filesystem::path> apart = {},
                                                                 std::shared_ptr<const PastFiles> past = {});

    /// One file on disk that is no archive, as the only entry.
    [[nodiscard]] static Result<std::unique_ptr<Container>> open_file(const std::filesystem::path& file,
                                                                      std::shared_ptr<const PastFiles> past = {});

    [[nodiscard]] std::string kind() const override { return kind_; }
    [[nodiscard]] Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override;
    [[nodiscard]] Result<FileView> view_of_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] std::string fixed_entries() const override { return is_one_file_ ? "it is one file; nothing can be put beside it" : ""; }
    [[nodiscard]] Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override;

protected:
    /// A file with another name is a new one with the same content, and the old one taken away.
    [[nodiscard]] Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const override;

private:
    [[nodiscard]] Result<FileView> open_entry(std::size_t entry) const;

    std::filesystem::path folder_;
    std::shared_ptr<const PastFiles> past_;  ///< null: everything as it lies on the disk
    std::string kind_ = "folder";
    bool is_one_file_ = false;
    std::unordered_map<std::string, std::vector<std::string>> parts_;  ///< paths of a cut file's parts, by the whole one's path
};

}  // namespace skivet
