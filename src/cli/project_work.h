#pragma once
// What the commands about projects share.
#include <nlohmann/json_fwd.hpp>

#include "cli/project_commands.h"
#include "workflow/catalog_snapshot.h"
#include "workflow/opening.h"

namespace skivet::cli::project_work {

void print(Context& c, const nlohmann::json& line);
void print_piece(Context& c, const Piece& piece, const Project& project);

void print_journal(Context& c, const Journal& journal);
/// The pieces that are named, by id, name or address; all of them when none is.
[[nodiscard]] Result<std::vector<PieceId>> pieces_named(const Project& project, const std::vector<std::string>& names);

[[nodiscard]] Error no_project(const std::filesystem::path& folder);
/// The project's context with what this call says besides: --key, --kind and --paths.
[[nodiscard]] ReadContext with_own(const Context& c, ReadContext context);

/// A project that is ours while this lives.
struct Open {
    OpenedProject opened;
    ReadContext context;
    [[nodiscard]] Project& project() { return opened.project; }
};

/// The game's textures with what their pictures show, which takes long the first time.
[[nodiscard]] Result<std::shared_ptr<const AnalyzedCatalog>> seen_catalog(Context& c, Open& open);

[[nodiscard]] Result<Open> open(Context& c, const std::filesystem::path& folder, OpenWish wish = {});

}  // namespace skivet::cli::project_work
