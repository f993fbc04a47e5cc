#include "container/kinds.h"

#include <fmt/format.h>

#include "base/file_write.h"
#include "container/folder.h"
#include "container/sheet_container.h"
#include "container/zip.h"
#include "sheet/texture_sheet.h"

namespace skivet {

Status add_sheet(Kinds& kinds, const std::filesystem::path& file) {
    SKIVET_TRY(const auto source, read_file(file, 1u << 20));
    SKIVET_TRY(auto sheet, parse_sheet(as_text(source), file.filename().string()));
    if (sheet.kind == SheetKind::texture) kinds.textures.add(std::make_shared<SheetTextureKind>(std::move(sheet)));
    else kinds.container_sheets.push_back(std::make_shared<const Sheet>(std::move(sheet)));
    return {};
}

std::vector<Error> add_sheets_in(Kinds& kinds, const std::filesystem::path& folder) {
    std::vector<std::filesystem::path> files;
    std::error_code code;
    for (const auto& item : std::filesystem::directory_iterator(folder, code))
        if (item.path().extension() == ".toml") files.push_back(item.path());
    std::sort(files.begin(), files.end());
    std::vector<Error> errors;
    for (const auto& file : files)
        if (auto added = add_sheet(kinds, file); !added) errors.push_back(std::move(added).error());
    return errors;
}

Result<std::shared_ptr<const Container>> open_container(const Kinds& kinds, FileView file) {
    SKIVET_TRY(const auto data, file.bytes());
    const auto path = file.path().string();
    std::shared_ptr<const Sheet> best;
    for (const auto& sheet : kinds.container_sheets)
        if (recognize(*sheet, data, data.size(), path) && (!best || sheet->recognize.size() > best->recognize.size())) best = sheet;
    if (best) {
        auto opened = SheetContainer::open(std::move(file), best, kinds.limits);
        if (!opened) return fail(std::move(opened).error().within(fmt::format("{} (sheet \"{}\")", std::filesystem::path(path).filename().string(), best->name)));
        return std::shared_ptr<const Container>(std::move(*opened));
    }
    // A local header at the start means a ZIP even when its end is damaged: then the message should be about that.
    const bool starts_like_zip = data.size() >= 4 && load_le<std::uint32_t>(data.data()) == 0x04034b50;
    if (!starts_like_zip && !ZipContainer::recognize(data))
        return fail(Error{ErrorCode::unsupported, "no archive we know", {std::filesystem::path(path).filename().string()}, std::nullopt,
                          "ZIP and what a container sheet describes can be opened; add a sheet for other layouts"});
    auto opened = ZipContainer::open(std::move(file), kinds.limits);
    if (!opened) return fail(std::move(opened).error().within(std::filesystem::path(path).filename().string()));
    return std::shared_ptr<const Container>(std::move(*opened));
}

Result<std::shared_ptr<const Container>> open_source(const Kinds& kinds, const std::filesystem::path& path) {
    std::error_code code;
    if (std::filesystem::is_directory(path, code)) {
        SKIVET_TRY(auto folder, FolderContainer::open(path, kinds.limits));
        return std::shared_ptr<const Container>(std::move(folder));
    }
    SKIVET_TRY(auto view, FileView::open(path));
    return open_container(kinds, std::move(view));
}

}  // namespace skivet
