#pragma once
#include <string>
#include <string_view>

namespace skivet {

/// `*` any run (also of `/`), `?` one byte, everything else itself; ASCII letters match in either case.
[[nodiscard]] bool glob_match(std::string_view pattern, std::string_view text);
/// ASCII lower case.
[[nodiscard]] std::string lower(std::string_view text);
/// True for well-formed UTF-8 (RFC 3629).
[[nodiscard]] bool is_utf8(std::string_view text);
/// IBM code page 437 to UTF-8, the encoding ZIP names have without the UTF-8 flag (APPNOTE 6.3.10, appendix D).
[[nodiscard]] std::string cp437_to_utf8(std::string_view text);
/// Turns an entry's path into one that stays below its target folder: no root, no drive, no `..`, no control characters.
/// Returns an empty string when nothing usable is left.
[[nodiscard]] std::string safe_relative_path(std::string_view path);

}  // namespace skivet
