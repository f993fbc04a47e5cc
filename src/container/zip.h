#pragma once
#include "container/container.h"

namespace skivet {

/// ZIP after PKWARE APPNOTE 6.3.10: stored and deflate, ZIP64, data descriptors, UTF-8 and CP437 names, data before the archive, a
/// comment behind it. Only the central directory is read on opening; entries are read at random from the map.
class ZipContainer final : public Container {
public:
    [[nodiscard]] static Result<std::unique_ptr<Container>> open(FileView file, const ReadLimits& limits);
    /// True when an end-of-central-directory record is where one may be.
    [[nodiscard]] static bool recognize(ByteSpan file);

    [[nodiscard]] std::string kind() const override { return "ZIP"; }
    [[nodiscard]] Result<Bytes> read(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> read_head(std::size_t entry, std::size_t count) const override;
    [[nodiscard]] Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override;
    [[nodiscard]] std::vector<Segment> segments() const override;

private:
    struct Record {
        std::uint64_t directory_at = 0;    ///< its record in the central directory
        std::uint32_t directory_size = 0;
        std::uint64_t local_at = 0;        ///< its local header
        std::uint32_t crc = 0;
        std::uint16_t method = 0;
        std::uint16_t flags = 0;
    };
    struct Local {
        std::uint64_t data_at = 0;
        std::uint32_t header_size = 0;
    };
    struct Tail {
        std::uint64_t base = 0;            ///< bytes before the archive that its offsets do not count
        std::uint64_t directory_at = 0;
        std::uint64_t directory_size = 0;
        std::uint64_t end64_at = 0;        ///< 0: none
        std::uint64_t end_at = 0;
        std::uint64_t count = 0;
    };
    class Planner;

    [[nodiscard]] static Result<Tail> find_tail(ByteSpan file);
    [[nodiscard]] Status read_directory(ByteSpan file, const ReadLimits& limits);
    [[nodiscard]] Result<Local> local_header(ByteSpan file, std::size_t entry) const;
    [[nodiscard]] Result<ByteSpan> packed(ByteSpan file, std::size_t entry) const;

    FileView file_;
    Tail tail_;
    std::vector<Record> records_;
};

}  // namespace skivet
