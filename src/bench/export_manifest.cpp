#include "bench/export_manifest.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>
#include <algorithm>
#include <cerrno>
#include <nlohmann/json.hpp>

#include "base/file_write.h"
#include "base/hash.h"
#include "base/keys.h"
#include "base/phrase.h"
#include "base/text.h"

namespace skivet {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

json text_of(const std::string& bytes) {
    json out = bytes;
    try {
        (void)out.dump();
    } catch (const json::exception&) {
        out = {{"hex", to_hex(as_bytes(bytes))}};
    }
    return out;
}
std::string bytes_from(const json& value) {
    if (value.is_string()) return value.get<std::string>();
    return as_text(bytes_of_hex(value.at("hex").get<std::string>()).value_or(Bytes{}));
}

Result<std::map<fs::path, ExportedFile>> parse(const Bytes& bytes, const fs::path& file) {
    std::map<fs::path, ExportedFile> out;
    const auto text = as_text(bytes);
    int line = 0;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = text.find('\n', at);
        if (end == std::string::npos) break;  // cut short while it was written
        ++line;
        try {
            const auto j = json::parse(text.substr(at, end - at));
            ExportedFile one;
            one.file = safe_relative_path(bytes_from(j.at("file")));
            one.address.source = bytes_from(j.at("source"));
            for (const auto& step : j.at("inner")) one.address.inner.push_back(bytes_from(step));
            one.whole = j.at("whole").get<bool>();
            one.sha256 = j.at("sha256").get<std::string>();
            if (one.file.empty()) throw std::runtime_error("no file");
            out[one.file] = std::move(one);
        } catch (const std::exception& error) {
            return fail(Error{ErrorCode::damaged,
                              phrase("line {} makes no sense: {}", line, error.what()),
                              {file.string()},
                              {},
                              "Remove the line, or the file; without it files are matched by their paths"});
        }
        at = end + 1;
    }
    return out;
}

}  // namespace

std::string ExportManifest::name_for(const Shard& shard) {
    return shard.is_all() ? std::string(file_name) : fmt::format("exported.{}-of-{}.jsonl", shard.number, shard.of);
}

bool ExportManifest::is_manifest(const fs::path& relative) {
    const auto name = relative.generic_string();
    if (name == file_name) return true;
    constexpr std::string_view lead = "exported.", between = "-of-", end = ".jsonl";
    const auto cut = name.find(between);
    if (!name.starts_with(lead) || !name.ends_with(end) || cut == std::string::npos) return false;
    const auto numbers = name.substr(lead.size(), name.size() - lead.size() - end.size());
    return parse_shard(numbers.substr(0, cut - lead.size()) + "/" + numbers.substr(cut - lead.size() + between.size())).has_value();
}

Result<std::map<fs::path, ExportedFile>> ExportManifest::read(const fs::path& folder) {
    std::vector<fs::path> names;
    std::error_code code;
    for (const auto& one : fs::directory_iterator(folder, code))
        if (is_manifest(one.path().filename())) names.push_back(one.path());
    std::sort(names.begin(), names.end());
    std::map<fs::path, ExportedFile> out;
    for (const auto& file : names) {
        SKIVET_TRY(const auto bytes, read_file(file, 1u << 30));
        SKIVET_TRY(auto files, parse(bytes, file));
        for (auto& [name, one] : files) out.insert_or_assign(name, std::move(one));
    }
    return out;
}

Result<std::unique_ptr<ExportManifest>> ExportManifest::open(const fs::path& folder, const Shard& shard) {
    const auto file = folder / name_for(shard);
    const int descriptor = ::open(file.c_str(), O_RDWR | O_CREAT | O_APPEND | O_NOFOLLOW | O_CLOEXEC | O_NONBLOCK, 0644);
    if (descriptor < 0) return fail_errno(errno, phrase("cannot write {}", file.string()));
    std::unique_ptr<ExportManifest> out(new ExportManifest(folder, file, descriptor));
    std::error_code code;
    if (!fs::is_regular_file(fs::symlink_status(file, code)))
        return fail(ErrorCode::usage, phrase("{} is no regular file", file.string()), "Choose another folder");
    if (::flock(descriptor, LOCK_EX | LOCK_NB) != 0)
        return fail(ErrorCode::busy, phrase("another export is writing into {}", folder.string()),
                    "Wait until it is done, or choose another folder");
    SKIVET_TRY(out->files_, read(folder));
    // A line that was cut short must not run into the next one.
    const auto size = ::lseek(descriptor, 0, SEEK_END);
    char last = '\n';
    if (size > 0 && ::pread(descriptor, &last, 1, size - 1) == 1 && last != '\n') {
        SKIVET_TRY(const auto bytes, read_file(file, 1u << 30));
        const auto end = as_text(bytes).rfind('\n');
        if (::ftruncate(descriptor, end == std::string::npos ? 0 : static_cast<off_t>(end + 1)) != 0)
            return fail_errno(errno, phrase("cannot write {}", file.string()));
    }
    return out;
}

ExportManifest::~ExportManifest() { ::close(descriptor_); }

bool ExportManifest::is_ours(const fs::path& relative) const {
    std::string sha;
    {
        const std::lock_guard lock(mutex_);
        const auto found = files_.find(relative.lexically_normal());
        if (found == files_.end()) return false;
        sha = found->second.sha256;
    }
    const auto bytes = read_file(folder_ / relative);
    return bytes && to_hex(sha256(*bytes)) == sha;
}

Status ExportManifest::add(ExportedFile file) {
    auto inner = json::array();
    for (const auto& step : file.address.inner) inner.push_back(text_of(step));
    const json j = {{"file", text_of(file.file.generic_string())},
                    {"source", text_of(file.address.source.string())},
                    {"inner", inner},
                    {"whole", file.whole},
                    {"sha256", file.sha256}};
    const auto line = j.dump() + '\n';
    const std::lock_guard lock(mutex_);
    for (std::string_view left = line; !left.empty();) {
        const auto wrote = ::write(descriptor_, left.data(), left.size());
        if (wrote < 0 && errno == EINTR) continue;
        if (wrote < 0) return fail_errno(errno, phrase("cannot write {}", file_.string()));
        left.remove_prefix(static_cast<std::size_t>(wrote));
    }
    const auto key = file.file.lexically_normal();
    files_[key] = std::move(file);
    return {};
}

}  // namespace skivet
