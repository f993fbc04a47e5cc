// Commands that change which entries there are: add, rename, remove.
#include <fmt/format.h>

#include "base/file_write.h"
#include "base/text.h"
#include "cli/terminal.h"
#include "cli/writing.h"
#include "container/texture_files.h"

namespace skivet::cli {

namespace fs = std::filesystem;

namespace {

/// An address of an entry, not of a file.
Result<Address> entry_address(const std::string& text) {
    SKIVET_TRY(auto address, parse_address(text));
    if (address.inner.empty())
        return fail(ErrorCode::usage, fmt::format("\"{}\" names no entry", text), "Write archive.zip::path/inside.dds");
    return address;
}

Address beside(Address address, const std::string& path) {
    address.inner.back() = path;
    return address;
}

/// Plans changes of one source, shows or delivers them, and looks whether they are there afterwards.
int change_entries(Context& c, const fs::path& path, std::vector<AddressedChange> changes, const std::string& title, bool dry_run) {
    const auto source = open_source(c.context, path);
    if (!source) return c.failed(source.error());
    const auto wanted = changes;
    const auto plan = plan_changes(c.context, **source, std::move(changes));
    if (!plan) return c.failed(plan.error().within(path.filename().string()));
    if (dry_run) {
        print_plan(c, *plan, true);
        return 0;
    }
    std::vector<std::string> entries;
    for (const auto& change : wanted) entries.push_back(change.inner.back());
    return deliver(c, *plan, {title, path, entries}, [&]() -> Status {
        SKIVET_TRY(const auto again, open_source(c.context, path));
        return check_changes(c.context, *again, wanted);
    });
}

/// The entry whose method and attributes a file gets that is like none: one with its ending, best in its folder.
std::string usual_for(const Context& c, const Address& address) {
    auto around = address;
    around.inner.pop_back();
    Result<std::shared_ptr<const Container>> container = fail(ErrorCode::missing, "");
    if (around.inner.empty()) {
        container = open_source(c.context, around.source);
    } else if (auto bytes = read_address(c.context, around)) {
        container = open_container(c.context, FileView::of(std::move(*bytes), around.inner.back()));
    }
    if (!container) return {};
    const fs::path path(address.inner.back());
    std::string found;
    for (const auto& entry : (*container)->entries()) {
        const fs::path other(entry.path);
        if (lower(other.extension().string()) != lower(path.extension().string()) || entry.encrypted) continue;
        if (other.parent_path() == path.parent_path()) return entry.path;
        if (found.empty()) found = entry.path;
    }
    return found;
}

}  // namespace

int add_entry(Context& c, const AddOptions& options) {
    const auto address = entry_address(options.address);
    if (!address) return c.failed(address.error());
    const auto& path = address->inner.back();
    AddressedChange change{AddressedChange::What::add, address->inner, {}, options.like};
    Result<Bytes> like = fail(ErrorCode::missing, "");
    if (!options.like.empty()) {
        like = read_texture_bytes(c.context, beside(*address, options.like));
        if (!like) return c.failed(like.error());
        const auto alone = read_address(c.context, beside(*address, options.like));
        if (alone && *alone != *like)
            return c.failed(Error{ErrorCode::unsupported,
                                  options.like + " is spread over several files, and a variant of it would be, too",
                                  {},
                                  {},
                                  "Add each of the files with --with"});
    } else {
        change.other = usual_for(c, *address);
    }
    if (options.with.empty()) {
        change.bytes = *like;
    } else {
        auto with = read_input(c, options.with);
        if (!with) return c.failed(with.error());
        const auto mends = parse_mends(options.mends);
        if (!mends) return c.failed(mends.error());
        auto content = options.like.empty()
                           ? std::move(with)
                           : content_for(c, like, path, std::move(*with), options.with.string(), options.as_is, {*mends, Format::unknown});
        if (!content) return c.failed(content.error().within(options.with.filename().string()));
        change.bytes = std::move(*content);
    }
    std::vector<AddressedChange> changes;
    changes.push_back(std::move(change));
    return change_entries(c, address->source, std::move(changes),
                          fmt::format("{} added to {}", fs::path(path).filename().string(), address->source.filename().string()),
                          options.dry_run);
}

int rename_entry(Context& c, const RenameOptions& options) {
    const auto address = entry_address(options.address);
    if (!address) return c.failed(address.error());
    std::vector<AddressedChange> changes;
    changes.push_back({AddressedChange::What::rename, address->inner, {}, options.path});
    return change_entries(c, address->source, std::move(changes),
                          fmt::format("{} becomes {} in {}", fs::path(address->inner.back()).filename().string(),
                                      fs::path(options.path).filename().string(), address->source.filename().string()),
                          options.dry_run);
}

int remove_entries(Context& c, const RemoveOptions& options) {
    std::vector<AddressedChange> changes;
    fs::path source;
    for (const auto& text : options.addresses) {
        const auto address = entry_address(text);
        if (!address) return c.failed(address.error());
        if (!source.empty() && address->source != source)
            return c.failed(
                Error{ErrorCode::usage, "the entries lie in several sources", {}, {}, "Take out those of one source at a time"});
        source = address->source;
        changes.push_back({AddressedChange::What::remove, address->inner});
    }
    const auto what =
        changes.size() == 1 ? fs::path(changes.front().inner.back()).filename().string() : fmt::format("{} entries", changes.size());
    return change_entries(c, source, std::move(changes), fmt::format("{} taken out of {}", what, source.filename().string()),
                          options.dry_run);
}

}  // namespace skivet::cli
