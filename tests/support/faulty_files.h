#pragma once
// File operations that fail, tear or lose power.
#include <map>

#include "delivery/files.h"
#include "support/temp_folder.h"

namespace skivet::test {

enum class Loss { keep_all, drop_unsynced };

/// Counts operations; from the n-th on everything fails. `lose_power` then undoes what was not made durable.
class FaultyFiles final : public PosixFiles {
public:
    explicit FaultyFiles(int fail_at, bool only_once = false) : fail_at_(fail_at), only_once_(only_once) {}
    int operations = 0;

    Result<Bytes> read(const std::filesystem::path& file, std::uint64_t at, std::uint64_t size) override {
        if (auto ok = step(); !ok) return fail(ok.error());
        return PosixFiles::read(file, at, size);
    }
    Status write(const std::filesystem::path& file, std::uint64_t at, ByteSpan data) override {
        const auto ok = step();
        if (!ok && (torn_ || crashed_before_)) return fail(ok.error());
        remember(file);
        if (!ok) {  // about half of it arrives: disks write whole sectors, the system whole pages
            torn_ = true;
            const auto end = std::max(at, (at + data.size() / 2) / 512 * 512);
            (void)PosixFiles::write(file, at, data.first(static_cast<std::size_t>(end - at)));
            return fail(ok.error());
        }
        return PosixFiles::write(file, at, data);
    }
    Status resize(const std::filesystem::path& file, std::uint64_t size) override {
        if (auto ok = step(); !ok) return ok;
        remember(file);
        return PosixFiles::resize(file, size);
    }
    Status create(const std::filesystem::path& file, ByteSpan data) override {
        if (auto ok = step(); !ok) {
            (void)PosixFiles::create(file, data.first(data.size() / 2));
            return ok;
        }
        return PosixFiles::create(file, data);
    }
    Status create_like(const std::filesystem::path& file, const std::filesystem::path& like) override {
        if (auto ok = step(); !ok) return ok;
        return PosixFiles::create_like(file, like);
    }
    Status copy(const std::filesystem::path& from, std::uint64_t from_at, const std::filesystem::path& to, std::uint64_t to_at,
                std::uint64_t size) override {
        const auto ok = step();
        if (!ok && crashed_before_) return ok;
        remember(to);
        if (!ok) {
            (void)PosixFiles::copy(from, from_at, to, to_at, size / 2);
            return ok;
        }
        return PosixFiles::copy(from, from_at, to, to_at, size);
    }
    Status make_folder(const std::filesystem::path& folder) override {
        if (auto ok = step(); !ok) return ok;
        return PosixFiles::make_folder(folder);
    }
    Status remove_folder(const std::filesystem::path& folder) override {
        if (auto ok = step(); !ok) return ok;
        return PosixFiles::remove_folder(folder);
    }
    Status sync(const std::filesystem::path& file) override {
        if (auto ok = step(); !ok) return ok;
        durable_.erase(file);
        return {};
    }
    Status sync_folder(const std::filesystem::path& folder) override {
        if (auto ok = step(); !ok) return ok;
        std::erase_if(renames_, [&](const Renamed& r) { return r.to.parent_path() == folder; });
        return {};
    }
    Status rename(const std::filesystem::path& from, const std::filesystem::path& to) override {
        if (auto ok = step(); !ok) return ok;
        Renamed renamed{from, to, {}};
        if (std::filesystem::is_regular_file(to)) renamed.covered = get_file(to);
        renames_.push_back(std::move(renamed));
        return PosixFiles::rename(from, to);
    }
    Status remove(const std::filesystem::path& file) override {
        if (auto ok = step(); !ok) return ok;
        return PosixFiles::remove(file);
    }

    /// What the disk holds after the power went.
    void lose_power(Loss loss) {
        if (loss != Loss::drop_unsynced) return;
        for (const auto& [file, content] : durable_)
            if (std::filesystem::exists(file)) put_file(file, content);
        for (auto it = renames_.rbegin(); it != renames_.rend(); ++it) {
            if (!std::filesystem::exists(it->to)) continue;
            std::filesystem::rename(it->to, it->from);
            if (it->covered) put_file(it->to, *it->covered);
        }
    }

private:
    int fail_at_;
    bool only_once_;
    bool torn_ = false, crashed_before_ = false;
    std::map<std::filesystem::path, Bytes> durable_;
    struct Renamed {
        std::filesystem::path from, to;
        std::optional<Bytes> covered;  ///< what `to` held before
    };
    std::vector<Renamed> renames_;

    Status step() {
        const int n = operations++;
        if (only_once_ ? n == fail_at_ : n >= fail_at_) {
            crashed_before_ = n > fail_at_;
            return fail(only_once_ ? ErrorCode::no_space : ErrorCode::io, "injected at operation " + std::to_string(n));
        }
        return {};
    }
    void remember(const std::filesystem::path& file) {
        if (!durable_.count(file)) durable_[file] = get_file(file);
    }
};

}  // namespace skivet::test
