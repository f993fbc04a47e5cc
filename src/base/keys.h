#pragma once
// The key ring: named secrets, kept apart from sheets and from the project's own file. Values are never logged and never exported.
#include <filesystem>

#include "base/bytes.h"

namespace skivet {

struct Key {
    std::string name;
    Bytes bytes;
};

class KeyRing {
public:
    /// A key of the same name is replaced.
    void add(Key key);
    void remove(std::string_view name);
    [[nodiscard]] const Key* find(std::string_view name) const;
    [[nodiscard]] const std::vector<Key>& all() const { return keys_; }
    [[nodiscard]] bool empty() const { return keys_.empty(); }

private:
    std::vector<Key> keys_;
};

/// "NAME=0011aabb…" (hexadecimal digits, spaces allowed), "NAME=text:open sesame" or "NAME=@FILE". A file that holds nothing but
/// hexadecimal digits and white space is read as those digits, any other as its bytes. The message of an error never holds the value.
[[nodiscard]] Result<Key> parse_key(std::string_view text);

/// Bytes of pairs of hexadecimal digits, spaces between them allowed; nothing when it is anything else.
[[nodiscard]] std::optional<Bytes> bytes_of_hex(std::string_view digits);

/// The ring's own file, one key a line; made with mode 0600 whatever the umask is. A missing file is an empty ring.
[[nodiscard]] Result<KeyRing> load_keys(const std::filesystem::path& file);
[[nodiscard]] Status save_keys(const KeyRing& keys, const std::filesystem::path& file);

}  // namespace skivet
