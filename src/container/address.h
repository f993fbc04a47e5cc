#pragma once
// Addresses of entries: archive.ext::inner/path.ext, "::" again for an archive inside. A name that has "::" in it or ends in ":" gets a
// backslash between the two colons, behind the last one (a name with "a:\\:b" in it two, and so on): archive.zip::odd:\:name.dds.
#include "container/kinds.h"

namespace skivet {

struct Address {
    std::filesystem::path source;
    std::vector<std::string> inner;  ///< empty: the file itself
    [[nodiscard]] std::string text() const;
    bool operator==(const Address&) const = default;
};

/// A text that as a whole is the path of an existing file is that file's address.
[[nodiscard]] Result<Address> parse_address(std::string_view text);

/// The bytes an address names; a bare file is read from disk.
[[nodiscard]] Result<Bytes> read_address(const ReadContext& context, const Address& address);

/// Reads many addresses: the containers on the way to the last one stay open, so that whoever reads in the order of a listing opens each
/// once. What is written in the meantime is not seen in those.
class AddressReader {
public:
    /// The context must outlive it.
    explicit AddressReader(const ReadContext& context) : context_(context) {}
    [[nodiscard]] Result<Bytes> read(const Address& address);

private:
    Result<Bytes> read_inside(std::span<const std::string> inner);

    const ReadContext& context_;
    std::filesystem::path source_;
    std::vector<std::string> steps_;                      ///< from the source to the innermost open archive
    std::vector<std::shared_ptr<const Container>> open_;  ///< the source, and one a step
};

/// The bytes of an entry at any depth below an open container. `inner` has at least one step.
[[nodiscard]] Result<Bytes> read_entry(const ReadContext& context, const Container& container, const std::vector<std::string>& inner);

struct AddressedBytes {
    std::vector<std::string> inner;  ///< path inside the source, one step for every archive
    Content bytes;
};

/// A change to what a source holds, at any depth.
struct AddressedChange {
    enum class What : std::uint8_t { replace, add, rename, remove } what = What::replace;
    std::vector<std::string> inner;  ///< path inside the source, one step for every archive; with `add` that of the entry that comes
    Content bytes = {};              ///< replace, add
    std::string other = {};          ///< add: path of the entry in the same archive that it is like, or empty; rename: the new path in it
};
/// The plan for changes of every sort. Errors: those of Container::plan_changes, `missing` for an entry that is not there.
[[nodiscard]] Result<WritePlan> plan_changes(const ReadContext& context, const Container& source, std::vector<AddressedChange> changes);
/// The same without writing anything: whether the source holds what these changes say. Error `io` says what is not so.
[[nodiscard]] Status check_changes(const ReadContext& context, const Container& after, std::span<const AddressedChange> changes);

/// The plan for replacing entries of one source at any depth: the inner plan's result is the outer container's replacement. A texture that
/// is spread over several files is given joined (texture_files.h).
[[nodiscard]] Result<WritePlan> plan_replacements(const ReadContext& context, const Container& source,
                                                  std::vector<AddressedBytes> replacements);
/// The same for a source by path; a bare file (inner empty) is replaced as a whole.
[[nodiscard]] Result<WritePlan> plan_replacement(const ReadContext& context, const Address& address, Bytes bytes);

}  // namespace skivet
