#include "container/kinds.h"

#include <xxhash.h>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/cpio.h"
#include "container/folder.h"
#include "container/libarchive_container.h"
#include "container/parts.h"
#include "container/sheet_container.h"
#include "container/sift.h"
#include "container/tar.h"
#include "container/wrapped.h"
#include "container/zip.h"
#include "sheet/texture_sheet.h"

namespace skivet {
namespace {

/// The error that names the file once.
Error named(Error error, const std::string& path) {
    auto name = std::filesystem::path(path).filename().string();
    if (!error.where.empty() && error.where.front() == name) return error;
    return std::move(error).within(std::move(name));
}

}  // namespace

std::vector<std::shared_ptr<const ContainerKind>> standard_containers() {
    return {zip_kind(), tar_kind(), wrapped_kind(), libarchive_kind("7z"), cpio_kind(), libarchive_kind("ISO 9660"), sifted_kind()};
}

Status add_sheet(ReadContext& context, const std::filesystem::path& file) {
    SKIVET_TRY(const auto source, read_file(file, 1u << 20));
    SKIVET_TRY(auto sheet, parse_sheet(as_text(source), file.filename().string()));
    context.sheets_hash = XXH3_64bits_withSeed(source.data(), source.size(), context.sheets_hash + 1);
    sheet.folder = file.parent_path().string();
    if (sheet.kind == SheetKind::wrapper) context.containers.push_back(sheet_wrapper_kind(std::make_shared<const Sheet>(std::move(sheet))));
    else if (sheet.kind == SheetKind::texture) context.textures.add(std::make_shared<SheetTextureKind>(std::move(sheet)));
    else context.containers.push_back(sheet_kind(std::make_shared<const Sheet>(std::move(sheet))));
    return {};
}

std::vector<Error> add_sheets_in(ReadContext& context, const std::filesystem::path& folder) {
    std::vector<std::filesystem::path> files;
    std::error_code code;
    for (const auto& item : std::filesystem::directory_iterator(folder, code))
        if (item.path().extension() == ".toml") files.push_back(item.path());
    std::sort(files.begin(), files.end());
    std::vector<Error> errors;
    for (const auto& file : files)
        if (auto added = add_sheet(context, file); !added) errors.push_back(std::move(added).error());
    return errors;
}

std::vector<Candidate> candidates(const ReadContext& context, ByteSpan head, std::uint64_t file_size, std::string_view path) {
    std::vector<Candidate> out;
    const auto slash = path.find_last_of('/');
    const auto name = slash == std::string_view::npos ? path : path.substr(slash + 1);
    for (const auto& choice : context.choices) {
        if (choice.pattern != path && !glob_match(choice.pattern, name)) continue;
        for (const auto& kind : context.containers)
            if (kind->name() == choice.kind) return {{kind, {ranks::sheet * 10, phrase("your choice for \"{}\"", choice.pattern)}}};
    }
    for (const auto& kind : context.containers)
        if (auto recognized = kind->recognize(head, file_size, path)) out.push_back({kind, std::move(*recognized)});
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.recognized.rank > b.recognized.rank; });
    return out;
}

namespace {

Result<std::shared_ptr<const Container>> open_likeliest(const ReadContext& context, const FileView& file) {
    SKIVET_TRY(const auto data, file.bytes());
    const auto path = file.path().string();
    const auto possible = candidates(context, data, data.size(), path);
    if (possible.empty())
        return fail(Error{ErrorCode::unsupported,
                          "no archive we know",
                          {std::filesystem::path(path).filename().string()},
                          std::nullopt,
                          "A sheet can describe its layout; sifting finds textures in it without one"});
    std::optional<Error> first;
    for (const auto& candidate : possible) {
        auto opened = candidate.kind->open(context, file);
        if (opened) return opened;
        // A file that wants a key is what it seems to be; so is one the user chose.
        if (!first) first = std::move(opened).error();
        if (first->code == ErrorCode::key || first->code == ErrorCode::stale) break;
    }
    return fail(named(std::move(*first), path));
}

}  // namespace

Result<std::shared_ptr<const Container>> open_container(const ReadContext& context, FileView file) {
    return unless_broken([&] { return open_likeliest(context, file); });
}

Result<std::shared_ptr<const Container>> open_source(const ReadContext& context, const std::filesystem::path& path,
                                                     std::span<const std::filesystem::path> apart) {
    std::error_code code;
    if (std::filesystem::is_directory(path, code)) {
        SKIVET_TRY(auto folder, FolderContainer::open(path, context.limits, apart, context.past));
        return std::shared_ptr<const Container>(std::move(folder));
    }
    SKIVET_TRY(const auto parts, parts_of(path));
    if (parts.size() == 1) {
        SKIVET_TRY(auto view, open_file(context.past.get(), parts.front()));
        SKIVET_TRY(const auto data, view.bytes());
        if (candidates(context, data, data.size(), path.string()).empty() &&
            context.textures.recognize(data.first(std::min<std::size_t>(data.size(), 1024)), path.string(), data.size())) {
            SKIVET_TRY(auto single, FolderContainer::open_file(parts.front(), context.past));
            return std::shared_ptr<const Container>(std::move(single));
        }
        return open_container(context, std::move(view));
    }
    SKIVET_TRY(auto view, join_files(context.past.get(), parts, context.limits.inflated_bytes));
    return open_container(context, std::move(view));
}

}  // namespace skivet
