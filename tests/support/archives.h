#pragma once
// Archives of two entries, "a" and "b", of many kinds: by the tools of the system, and of the stand-in game as its sheets in assets/sheets
// describe them.
#include "support/pictures.h"

namespace skivet::test {

/// `name`, and 700 bytes as "zz".
[[nodiscard]] Bytes tar_of(const std::string& name, const Bytes& content);
/// By bsdtar: "7zip", "newc" and whatever else it writes.
[[nodiscard]] Bytes archive_of(const std::string& format, const Bytes& a, const Bytes& b);
[[nodiscard]] Bytes roll_of(const Bytes& a, const Bytes& b);
/// A packed file of one entry.
[[nodiscard]] Bytes bale_of(const Bytes& content);
/// An index and two data files, by their names.
[[nodiscard]] std::map<std::string, Bytes> index_of(const Bytes& a, const Bytes& b);
/// Its entries are called #11111111 and #22222222.
[[nodiscard]] Bytes hamper_of(const Bytes& a, const Bytes& b);
/// Encrypted with the key the sheet has.
[[nodiscard]] Bytes strongbox_of(const Bytes& a, const Bytes& b);

}  // namespace skivet::test
