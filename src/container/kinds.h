#pragma once
#include "container/container.h"
#include "sheet/sheet.h"
#include "texture/texture.h"

namespace skivet {

/// Everything the program can recognize. Handed to whoever opens something; nothing global.
struct Kinds {
    TextureKinds textures = TextureKinds::standard();
    std::vector<std::shared_ptr<const Sheet>> container_sheets;
    ReadLimits limits;
};

/// Reads a sheet and adds what it describes. Errors carry the file and the line.
[[nodiscard]] Status add_sheet(Kinds& kinds, const std::filesystem::path& file);
/// All *.toml in a folder, in the order of their names; a missing folder adds nothing. Damaged sheets are reported in the result and
/// do not keep the others out.
[[nodiscard]] std::vector<Error> add_sheets_in(Kinds& kinds, const std::filesystem::path& folder);

/// A container by its content: the sheet with the most conditions that fits, then ZIP.
[[nodiscard]] Result<std::shared_ptr<const Container>> open_container(const Kinds& kinds, FileView file);
/// A folder or an archive.
[[nodiscard]] Result<std::shared_ptr<const Container>> open_source(const Kinds& kinds, const std::filesystem::path& path);

}  // namespace skivet
