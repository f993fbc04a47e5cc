#pragma once
// Files made to harm or to burden: small ones that claim much, and plain ones with very many entries. Each is made anew by code, from
// nothing.
#include <functional>
#include <map>

#include "base/bytes.h"

namespace skivet::test {

/// What is made, by name; files, or a folder's files, by their paths in it.
using HostileFiles = std::map<std::string, Bytes>;

struct Hostile {
    std::string name;  ///< of the file that is opened, with its ending
    std::string what;  ///< in words, for the table in benchmarks/README.md
    std::function<HostileFiles()> make;
};
/// Small files that claim much.
[[nodiscard]] const std::vector<Hostile>& bombs();
[[nodiscard]] const Hostile& bomb(const std::string& name);

/// `count` entries called `name` or, with a %, by their number; each a BC1 texture of 4×4 texels with all levels (152 bytes), of its own
/// color.
[[nodiscard]] Bytes zip_of_small_textures(std::size_t count, const std::string& name);
/// A DDS file of one color, without its levels below.
[[nodiscard]] Bytes small_texture(std::uint32_t number);
/// Texts nested so many times: JSON arrays, `[[[…`.
[[nodiscard]] std::string nested_json(std::size_t depth);

}  // namespace skivet::test
