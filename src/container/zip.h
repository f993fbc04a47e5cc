#pragma once
#include <atomic>

#include "base/pack.h"
#include "container/kinds.h"

namespace skivet {

/// ZIP after PKWARE APPNOTE 6.3.10: stored, deflate, bzip2, LZMA, Zstandard and XZ, ZIP64, data descriptors, UTF-8 and CP437 names,
/// traditional and AES encryption, data before the archive, a comment behind it, archives split over several files. Only the central
/// directory is read on opening; entries are read at random from the map. An archive whose directory is damaged is listed from its
/// local headers and can then only be read.
class ZipContainer final : public Container {
public:
    [[nodiscard]] static Result<std::unique_ptr<Container>> open(FileView file, const ReadLimits& limits,
                                                                 std::shared_ptr<const KeyRing> keys = {});
    /// True when an end-of-central-directory record is where one may be.
    [[nodiscard]] static bool recognize(ByteSpan file);

    [[nodiscard]] std::string kind() const override { return "ZIP"; }
    [[nodiscard]] std::string read_only() const override { return read_only_; }
    [[nodiscard]] Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> stored_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override;
    [[nodiscard]] Result<FileView> view_of_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override;
    [[nodiscard]] std::string fixed_entries() const override { return read_only_; }
    [[nodiscard]] Result<WritePlan> plan_compact(const ReadLimits& limits) const override;
    [[nodiscard]] std::uint64_t dead_bytes() const override;
    [[nodiscard]] Result<Bytes> patch_archive(std::span<const Replacement> entries, const ReadLimits& limits) const override;
    [[nodiscard]] std::vector<Segment> segments() const override;

protected:
    [[nodiscard]] Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const override;

private:
    struct Record {
        std::uint64_t directory_at = 0;  ///< its record in the central directory
        std::uint32_t directory_size = 0;
        std::uint64_t local_at = 0;  ///< its local header
        std::uint32_t crc = 0;
        std::uint16_t method = 0;  ///< behind the encryption
        std::uint16_t flags = 0;
        std::uint16_t time = 0;        ///< MS-DOS time; its high byte checks a traditional password
        std::uint8_t aes = 0;          ///< 0: none; 1, 2, 3: keys of 128, 192, 256 bits
        std::uint8_t aes_version = 0;  ///< 2: the CRC is not stated
        bool repeats = false;          ///< lies over bytes of others, which together claim too much
    };
    struct Local {
        std::uint64_t data_at = 0;
        std::uint32_t header_size = 0;
    };
    struct Tail {
        std::uint64_t base = 0;  ///< bytes before the archive that its offsets do not count
        std::uint64_t directory_at = 0;
        std::uint64_t directory_size = 0;
        std::uint64_t end64_at = 0;  ///< 0: none
        std::uint64_t end_at = 0;
        std::uint64_t count = 0;
        bool split = false;  ///< offsets count from the beginning of their part
    };
    /// A folder's own record: no entry of ours, but it has a place in the file and in the directory.
    struct FolderRecord {
        Record record;
        std::uint64_t stored = 0;
    };
    class Planner;
    /// What a stretch between entries is.
    struct Gap {
        std::uint64_t at = 0, end = 0;
        std::uint64_t dead = 0;  ///< bytes of entries no directory names any more
        bool foreign = false;    ///< holds something else than those and padding, which stays whole
    };
    [[nodiscard]] Gap gap_of(ByteSpan file, std::uint64_t at, std::uint64_t end, std::uint64_t align) const;
    /// What the data of stored entries is aligned to, as far as the archive shows it.
    [[nodiscard]] std::uint64_t alignment(ByteSpan file) const;

    [[nodiscard]] static Result<Tail> find_tail(ByteSpan file, const std::vector<FilePart>& parts);
    [[nodiscard]] Status read_directory(ByteSpan file, const ReadLimits& limits);
    /// Entries that lie over each other are a problem; where they claim too much together, only the first of them is read.
    void note_overlaps(std::uint64_t file_size, const ReadLimits& limits);
    [[nodiscard]] Status rescue(ByteSpan file, const ReadLimits& limits, const Error& why);
    [[nodiscard]] Result<Local> local_header(ByteSpan file, std::size_t entry) const { return local_header(file, records_[entry]); }
    [[nodiscard]] Result<Local> local_header(ByteSpan file, const Record& record) const;
    [[nodiscard]] Result<ByteSpan> stored_bytes(ByteSpan file, std::size_t entry) const;
    [[nodiscard]] std::uint64_t descriptor_size(ByteSpan file, std::size_t entry, const Local& local) const;
    [[nodiscard]] Result<Bytes> unpack_entry(ByteSpan packed, std::size_t entry, const ReadLimits& limits) const;
    /// Tries the keys of the ring; `use` gets the bytes behind the encryption and says whether they are right; `key` the one that was.
    [[nodiscard]] Result<Bytes> decrypted(ByteSpan data, std::size_t entry, const std::function<Result<Bytes>(ByteSpan)>& use,
                                          std::size_t* key = nullptr) const;
    [[nodiscard]] Result<Bytes> encrypted(ByteSpan packed, std::size_t entry, std::uint32_t crc) const;

    FileView file_;
    Tail tail_;
    std::vector<Record> records_;
    std::vector<FolderRecord> folders_;
    std::shared_ptr<const KeyRing> keys_;
    mutable std::atomic<std::size_t> last_key_{0};  ///< the key that opened an entry last is tried first
    std::string read_only_;
};

[[nodiscard]] std::shared_ptr<const ContainerKind> zip_kind();

}  // namespace skivet
