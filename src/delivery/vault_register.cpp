#include "delivery/vault_register.h"

#include <algorithm>

#include "base/file_write.h"
#include "base/hash.h"
#include "base/keys.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "delivery/files.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

// One path a line, in hexadecimal, because a path may hold any byte but zero.
std::vector<fs::path> read(const fs::path& file) {
    std::vector<fs::path> out;
    std::error_code code;
    if (!fs::is_regular_file(file, code)) return out;
    const auto bytes = read_file(file, 16u << 20);
    if (!bytes) return out;
    const auto text = as_text(*bytes);
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find('\n', at), text.size());
        if (const auto path = bytes_of_hex(text.substr(at, end - at)); path && !path->empty()) out.emplace_back(as_text(*path));
        at = end + 1;
    }
    return out;
}

}  // namespace

fs::path VaultRegister::usual_place() { return user_data_folder() / "vaults"; }

Status VaultRegister::add(const fs::path& vault) const {
    std::error_code code;
    const auto path = fs::weakly_canonical(fs::absolute(vault, code), code);
    if (code) return fail_errno(code.value(), phrase("cannot find the vault {}", vault.string()));
    auto known = read(file_);
    if (std::find(known.begin(), known.end(), path) != known.end()) return {};
    make_folders(file_.parent_path(), code);
    // Two programs may add at once; the one that comes second sees what the first has added.
    SKIVET_TRY(const auto lock, FileLock::take_within(file_.string() + ".lock", std::chrono::seconds(1)));
    known = read(file_);
    if (std::find(known.begin(), known.end(), path) == known.end()) known.push_back(path);
    std::string text;
    for (const auto& one : known) text += to_hex(as_bytes(one.string())) + '\n';
    return write_file(file_, as_bytes(text));
}

std::vector<fs::path> VaultRegister::all() const {
    std::vector<fs::path> out;
    std::error_code code;
    for (auto& path : read(file_))
        if (fs::is_directory(path, code)) out.push_back(std::move(path));
    return out;
}

}  // namespace skivet
