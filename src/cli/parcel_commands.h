#pragma once
// Mods as files: skivet-cli parcel make|show|check|install|remove|list|order|prefer.
#include <functional>

#include "cli/commands.h"

namespace CLI {
class App;
}

namespace skivet::cli {

struct ParcelOptions {
    std::filesystem::path project;
    std::string file;  ///< a parcel, or a folder or archive of another form
    std::filesystem::path out;
    std::string id, title, author, version, license, notes, game;
    std::vector<std::string> needs, not_with;  ///< ID or ID@VERSION
    std::vector<std::string> pieces, own;      ///< ids, names or addresses; "all" in `own`
    std::size_t pictures = 6;
    std::size_t place = 0;
    std::string address;
    bool dry_run = false;
};

int parcel_make(Context& context, const ParcelOptions& options);
int parcel_show(Context& context, const ParcelOptions& options);
int parcel_check(Context& context, const ParcelOptions& options);
int parcel_install(Context& context, const ParcelOptions& options);
int parcel_remove(Context& context, const ParcelOptions& options);
int parcel_list(Context& context, const ParcelOptions& options);
int parcel_order(Context& context, const ParcelOptions& options);
int parcel_prefer(Context& context, const ParcelOptions& options);

/// As add_project_commands.
void add_parcel_commands(CLI::App& app, ParcelOptions& options, const std::function<void(CLI::App*)>& common,
                         const std::function<void(int (*)(Context&, const ParcelOptions&), bool writes)>& chosen);

}  // namespace skivet::cli
