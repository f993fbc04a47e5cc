#pragma once
// The trip in a project, the same one the window opens: skivet-cli project new|status|set|add|take|fit|mend|plan|deliver|undo|history.
#include <functional>

#include "cli/commands.h"

namespace CLI {
class App;
}

namespace skivet::cli {

struct ProjectOptions {
    std::filesystem::path folder, game;
    std::vector<std::string> sources;  ///< or addresses, for take
    std::vector<std::string> pieces;   ///< ids, names or addresses; empty: all that it is about
    std::string as = "picture", alpha = "keep";
    bool sets = false, copies = false;  ///< what is taken along
    std::string variant;                ///< path of its own for a variant that is taken; empty: none
    bool parts = false;                 ///< faces and layers as files of their own
    std::string mends, format;
    std::string to;  ///< where deliveries go: archives, beside, patch or device; empty: as the project says
    std::optional<std::string> override_folder, override_layout, patch_name, list_file;
    std::optional<std::string> device, device_layout, device_files, device_part;
    std::optional<std::uint64_t> device_largest;
    std::optional<std::vector<std::string>> play_environment;
    std::optional<std::string> play, play_folder, play_log;
    std::vector<std::string> unpackers, packers, forget_packers;
    std::string id;  ///< of a delivery
    bool all = false;
    std::vector<std::string> touches;
    bool clear = false;              ///< forget the touch-ups there are
    std::filesystem::path pictures;  ///< a folder that is brought in
    std::vector<std::string> over;   ///< after an update: pieces that go over what the game changed in the same place
    std::string put;                 ///< after an update: sure, all; empty: none, they are only listed
    std::optional<std::string> record_as, compare_with, forget_version;  ///< names of versions that were recorded as shipped
    bool list_changes = false;
    Shard shard;        ///< of the pieces
    std::string bring;  ///< of its matches: sure, all; empty: none, they are only listed
};

int project_new(Context& context, const ProjectOptions& options);
int project_status(Context& context, const ProjectOptions& options);
int project_set(Context& context, const ProjectOptions& options);
int project_add(Context& context, const ProjectOptions& options);
int project_take(Context& context, const ProjectOptions& options);
int project_bring(Context& context, const ProjectOptions& options);
int project_fit(Context& context, const ProjectOptions& options);
int project_touch(Context& context, const ProjectOptions& options);
int project_mend(Context& context, const ProjectOptions& options);
int project_plan(Context& context, const ProjectOptions& options);
int project_deliver(Context& context, const ProjectOptions& options);
int project_undo(Context& context, const ProjectOptions& options);
int project_update(Context& context, const ProjectOptions& options);
/// Starts the game and waits for its end; its exit code is this command's.
int project_play(Context& context, const ProjectOptions& options);
int project_shipped(Context& context, const ProjectOptions& options);
int project_history(Context& context, const ProjectOptions& options);

/// Adds them to the command line. `common` adds the options every command has; `chosen` is told what to run, and whether it writes game
/// files. `options` must outlive the parsing and the run.
void add_project_commands(CLI::App& app, ProjectOptions& options, const std::function<void(CLI::App*)>& common,
                          const std::function<void(int (*)(Context&, const ProjectOptions&), bool writes)>& chosen);

}  // namespace skivet::cli
