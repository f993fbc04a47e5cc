// extract: the bytes of any entry as a file, unpacked or as they lie in the archive.
#include <fmt/format.h>
#include <ostream>

#include "base/file_write.h"
#include "cli/commands.h"
#include "container/address.h"

namespace skivet::cli {
namespace {

/// An entry as it lies in its archive.
Result<Bytes> stored_bytes(const ReadContext& context, Address address) {
    const auto entry = address.inner.back();
    address.inner.pop_back();
    std::shared_ptr<const Container> archive;
    if (address.inner.empty()) {
        SKIVET_TRY(archive, open_source(context, address.source));
    } else {
        SKIVET_TRY(auto bytes, read_address(context, address));
        SKIVET_TRY(archive, open_container(context, FileView::of(std::move(bytes), address.inner.back())));
    }
    const auto found = archive->find(entry);
    if (!found)
        return fail(
            Error{ErrorCode::missing, fmt::format("there is no {}", entry), {address.text()}, {}, "skivet-cli list shows what there is"});
    return archive->read_stored(*found, context.limits);
}

}  // namespace

int extract(Context& c, const ExtractOptions& options) {
    const auto address = parse_address(options.address);
    if (!address) return c.failed(address.error());
    if (options.stored && address->inner.empty())
        return c.failed(Error{ErrorCode::usage, "--stored goes with an entry of an archive", {}, {}, "Name one: ARCHIVE::ENTRY"});
    const auto bytes = options.stored ? stored_bytes(c.context, *address) : read_address(c.context, *address);
    if (!bytes) return c.failed(bytes.error());
    if (options.out == "-") {
        c.out.write(reinterpret_cast<const char*>(bytes->data()), static_cast<std::streamsize>(bytes->size()));
        return 0;
    }
    auto path = std::filesystem::path(options.out);
    // An entry's name may say anything; only its last part becomes a file's name.
    if (path.empty())
        path = std::filesystem::path(address->inner.empty() ? address->source : std::filesystem::path(address->inner.back())).filename();
    if (path.empty() || path == "." || path == "..")
        return c.failed(Error{ErrorCode::usage, "the entry's name is no file name", {}, {}, "Name a file with --out"});
    std::error_code code;
    if (std::filesystem::exists(path, code))
        return c.failed(Error{ErrorCode::usage, path.string() + " is there already", {}, {}, "Name another file with --out"});
    if (auto written = write_file(path, *bytes, {.make_folders = false}); !written) return c.failed(written.error());
    c.err << fmt::format("skivet-cli: {}: {} bytes\n", path.string(), grouped(bytes->size()));
    return 0;
}

}  // namespace skivet::cli
