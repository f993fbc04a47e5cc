#pragma once
// Errors are values: what was being done, to which entry, at which byte, and what the user can do.
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <tl/expected.hpp>
#include <vector>

namespace skivet {

enum class ErrorCode {
    usage,        ///< the call itself makes no sense (exit code 2)
    damaged,      ///< the input contradicts itself or ends early (exit code 3)
    unsupported,  ///< sound as far as we can tell, but of a kind we do not handle (exit code 3)
    missing,      ///< a part or an entry is not there (exit code 3)
    limit,        ///< the input claims more than the read limits allow (exit code 3)
    key,          ///< a key is missing or wrong (exit code 3)
    stale,        ///< a file changed since it was looked at (exit code 3)
    unfit,        ///< the game could not read the result (exit code 3)
    no_space,     ///< exit code 4
    permission,   ///< exit code 4
    io,           ///< exit code 4
    busy,         ///< another program holds the lock (exit code 4)
    canceled,     ///< exit code 130
};

/// An error with its path from the outermost thing to the innermost, e.g. {"crate", "entry 14", "mip chain"}.
struct Error {
    ErrorCode code = ErrorCode::damaged;
    std::string what;                 ///< "needs 5,592 bytes, has 4,096"
    std::vector<std::string> where;   ///< outermost first
    std::optional<std::uint64_t> at;  ///< byte position in the innermost file or entry
    std::string advice;               ///< what the user can do; may be empty

    /// "crate ▸ entry 14 ▸ mip chain: needs 5,592 bytes, has 4,096 (at byte 0x40). Advice."
    [[nodiscard]] std::string message() const;
    /// Puts `outer` in front of the path.
    [[nodiscard]] Error within(std::string outer) &&;
    [[nodiscard]] Error within(std::string outer) const&;
};

template <class T>
using Result = tl::expected<T, Error>;
using Status = Result<void>;

[[nodiscard]] tl::unexpected<Error> fail(ErrorCode code, std::string what, std::string advice = {});
[[nodiscard]] tl::unexpected<Error> fail_at(ErrorCode code, std::uint64_t at, std::string what, std::string advice = {});
[[nodiscard]] inline tl::unexpected<Error> fail(Error error) { return tl::unexpected<Error>(std::move(error)); }
/// From errno: picks no_space, permission or io.
[[nodiscard]] tl::unexpected<Error> fail_errno(int error_number, std::string doing);

/// The exit code skivet-cli gives for this error: 2 wrong use, 3 input refused, 4 the system failed, 130 canceled.
[[nodiscard]] int exit_code(ErrorCode code);

/// 5592 -> "5,592".
[[nodiscard]] std::string grouped(std::uint64_t number);
/// 1398256 -> "1.3 MB" (binary steps, one decimal below 10).
[[nodiscard]] std::string human_bytes(std::uint64_t bytes);
/// "0x1a40".
[[nodiscard]] std::string hex(std::uint64_t number);

}  // namespace skivet

// Leaves the function with the error, or names the value.
#define SKIVET_CONCAT_(a, b) a##b
#define SKIVET_CONCAT(a, b) SKIVET_CONCAT_(a, b)
#define SKIVET_TRY(declaration, expression) SKIVET_TRY_(SKIVET_CONCAT(skivet_try_, __LINE__), declaration, expression)
#define SKIVET_TRY_(name, declaration, expression)             \
    auto&& name = (expression);                                \
    if (!name) return ::skivet::fail(std::move(name).error()); \
    declaration = std::move(*name)
#define SKIVET_CHECK(expression)                                                                                        \
    do {                                                                                                                \
        if (auto skivet_status = (expression); !skivet_status) return ::skivet::fail(std::move(skivet_status).error()); \
    } while (false)
