#pragma once
// What an export wrote and from where: "exported.jsonl" in its folder, one JSON object a line, the last one of a file counts. By it an edit
// finds its way back whatever the files are called, an untouched file is known as one, and a later export never writes over what it did not
// make.
//   {"file": "rides/horse.png", "source": "/games/fair/midway.zip", "inner": ["rides/horse.dds"], "whole": true, "sha256": "…"}
// A text that is no UTF-8 stands as {"hex": "…"}.
#include <map>
#include <memory>
#include <mutex>

#include "base/shard.h"
#include "container/address.h"

namespace skivet {

struct ExportedFile {
    std::filesystem::path file;  ///< relative to the folder
    Address address;             ///< of the texture; the source absolute
    bool whole = true;           ///< the file an edit comes back by; false for parts beside it: alpha, further levels, layers, faces
    std::string sha256;          ///< of the file as it was written
};

class ExportManifest {
public:
    static constexpr std::string_view file_name = "exported.jsonl";
    /// Of a part: "exported.2-of-8.jsonl", so that machines can write into one folder.
    [[nodiscard]] static std::string name_for(const Shard& shard);
    /// Whether a file in the folder is a manifest.
    [[nodiscard]] static bool is_manifest(const std::filesystem::path& relative);

    /// Opens or begins the manifest of a folder (which exists) for writing. Error `busy` when another export writes there, or the same
    /// part.
    [[nodiscard]] static Result<std::unique_ptr<ExportManifest>> open(const std::filesystem::path& folder, const Shard& shard = {});
    /// What the manifests of a folder say; nothing without one. Error `damaged` for a line that makes no sense; one that was cut short at
    /// the end is left out.
    [[nodiscard]] static Result<std::map<std::filesystem::path, ExportedFile>> read(const std::filesystem::path& folder);
    ~ExportManifest();
    ExportManifest(const ExportManifest&) = delete;
    ExportManifest& operator=(const ExportManifest&) = delete;

    /// Whether the file in the folder is one that an export wrote, and unchanged since. Safe from several threads, as everything here.
    [[nodiscard]] bool is_ours(const std::filesystem::path& relative) const;
    [[nodiscard]] Status add(ExportedFile file);

private:
    ExportManifest(std::filesystem::path folder, std::filesystem::path file, int descriptor)
        : folder_(std::move(folder)), file_(std::move(file)), descriptor_(descriptor) {}
    std::filesystem::path folder_, file_;
    int descriptor_;
    mutable std::mutex mutex_;
    std::map<std::filesystem::path, ExportedFile> files_;
};

}  // namespace skivet
