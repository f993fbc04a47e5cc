#pragma once
// Packers nobody may ship: programs of the modder's own, which a sheet calls by name. They run in a sandbox (bubblewrap) without network
// and without the user's files, with limits on time, memory and output.
#include <chrono>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "base/bytes.h"

namespace skivet {

/// Each command is a program and its arguments; of the program's folder only it and libraries (.so) beside it can be seen. It reads what
/// comes in on its standard input and writes the result to its standard output.
/// "{size}" in an argument stands for the unpacked size in bytes, "{packed}" for the packed one; of a packing command only "{size}" is
/// known.
struct PackerProgram {
    std::string name;
    std::vector<std::string> unpack;
    std::vector<std::string> pack;  ///< empty: its entries can only be read
    bool operator==(const PackerProgram&) const = default;
};

class PackerPrograms {
public:
    /// One of the same name is replaced.
    void add(PackerProgram program);
    void remove(std::string_view name);
    [[nodiscard]] const PackerProgram* find(std::string_view name) const;
    [[nodiscard]] const std::vector<PackerProgram>& all() const { return programs_; }

private:
    std::vector<PackerProgram> programs_;
};

/// What a program may use.
struct ProgramLimits {
    std::chrono::milliseconds time{20'000};  ///< of the clock
    std::uint64_t memory = 1ull << 30;       ///< bytes of each of its processes
    std::uint64_t output = 2ull << 30;       ///< bytes
    unsigned processes = 32;                 ///< where the system counts them: not for root
};

/// Words of a command line: separated by blanks; quotes, single or double, keep blanks inside. No other sign means anything. Error `usage`
/// for a quote without its end and for no words.
[[nodiscard]] Result<std::vector<std::string>> command_words(std::string_view text);
/// The inverse.
[[nodiscard]] std::string command_text(const std::vector<std::string>& words);

/// Runs the program's command for packing or unpacking. `size`: bytes unpacked, as far as they are known; with it the result of unpacking
/// has so many. Errors: `missing` without a command, a program or bubblewrap; `limit` for what is beyond the limits; `damaged` when the
/// program fails, with the first line it says.
[[nodiscard]] Result<Bytes> run_unpacker(const PackerProgram& program, ByteSpan packed, std::optional<std::uint64_t> size,
                                         const ProgramLimits& limits = {});
[[nodiscard]] Result<Bytes> run_packer(const PackerProgram& program, ByteSpan content, const ProgramLimits& limits = {});

}  // namespace skivet
