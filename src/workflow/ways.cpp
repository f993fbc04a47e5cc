#include "workflow/ways.h"

#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "catalog/list_file.h"
#include "container/texture_files.h"
#include "delivery/beside.h"
#include "workflow/parcel_stack.h"
#include "workflow/places.h"

namespace skivet {

namespace fs = std::filesystem;

Result<std::vector<AddressedChange>> changes_of(const ReadContext& context, const Container& source, const DeliveryGroup& group) {
    using What = AddressedChange::What;
    std::vector<AddressedChange> out;
    for (std::size_t k = 0; k < group.contents.size(); ++k) {
        const auto& [inner, bytes] = group.contents[k];
        bool is_new = false;
        // A variant that is in the game already is a texture like others.
        if (!group.pieces[k].like.empty()) {
            const auto there = read_entry(context, source, inner);
            if (!there && there.error().code != ErrorCode::missing) return fail(there.error());
            is_new = !there;
        }
        out.push_back({is_new ? What::add : What::replace, inner, bytes, is_new ? group.pieces[k].like : std::string()});
    }
    for (const auto& [address, path] : group.changes) out.push_back({path.empty() ? What::remove : What::rename, address.inner, {}, path});
    return out;
}

namespace {

/// Parcels change the archive, too: what it becomes is made of the original and all layers.
Result<WritePlan> plan_stacked(const ReadContext& context, const Project& project, DeliveryGroup& group) {
    PosixFiles files;
    const Vault vault(project.vault(), files);
    std::vector<Address> coming;
    for (const auto& piece : group.pieces) coming.push_back({group.source, piece.inner});
    SKIVET_TRY(auto own, own_layer(context, project, group.source, coming));
    for (auto& content : group.contents) group.fitted.push_back(std::move(content.bytes));
    group.contents.clear();
    for (std::size_t k = 0; k < group.pieces.size(); ++k) {
        const auto& piece = group.pieces[k];
        add_texture(own, {{group.source, piece.inner}, piece.like, piece.original_hash, piece.texture_hash, group.fitted[k].copy()});
    }
    add_changes(own, group.changes);
    const auto& stack = project.stack_state.stack;
    SKIVET_TRY(auto planned, plan_source(context, project, vault, stack, group.source, own));
    group.stacked = true;
    group.contents = std::move(planned.contents);
    const auto wanted = stack.with_own();
    for (const auto& texture : planned.textures)
        for (const auto layer : texture.left_out) {
            const auto name = fs::path(texture.address.inner.back()).filename().string();
            const auto& one = wanted.layers[layer];
            group.notes.push_back(one.is_own() ? phrase("{} stays as a parcel has it: what you painted meets it there", name)
                                               : phrase("{}: \"{}\" changes the same place and gives way", name, one.title));
        }
    return std::move(planned.plan);
}

/// The textures of a group as the files they are spread over.
Result<std::vector<AddressedBytes>> files_of(const ReadContext& context, const DeliveryGroup& group) {
    SKIVET_TRY(const auto source, open_source(context, group.source));
    return spread_replacements(context, *source, group.contents);
}

}  // namespace

void plan_into_archives(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups) {
    const auto stacked = project.stack_state.stack.sources();
    for (auto& group : groups) {
        if (const auto stamp = stamp_of(group.source)) group.archive_size = stamp->size;
        const auto work = [&]() -> Result<WritePlan> {
            if (std::find(stacked.begin(), stacked.end(), group.source) != stacked.end()) return plan_stacked(context, project, group);
            SKIVET_TRY(const auto source, open_source(context, group.source));
            SKIVET_TRY(auto changes, changes_of(context, *source, group));
            return plan_changes(context, *source, std::move(changes));
        };
        auto planned = work();
        if (planned) {
            group.plan = std::move(*planned);
            for (auto& note : broken_links(group.plan)) group.notes.push_back(std::move(note));
        } else {
            group.error = std::move(planned).error();
        }
    }
}

namespace {

constexpr std::uint64_t longest_list = 4u << 20;  // bytes

/// The game's list with the new archives in it, as a group of its own.
Result<DeliveryGroup> plan_listed(const Project& project, const fs::path& list, const std::vector<fs::path>& archives) {
    DeliveryGroup out{list};
    out.beside = true;
    std::set<fs::path> there(project.sources.begin(), project.sources.end());
    // Archives of its kind that lie there are in the list as well, though they are no sources: earlier patches above all.
    std::error_code code;
    for (const auto& archive : archives) {
        out.lists.push_back(archive.filename().string());
        for (const auto& item : fs::directory_iterator(archive.parent_path(), fs::directory_options::skip_permission_denied, code))
            if (item.path().extension() == archive.extension()) there.insert(item.path());
    }
    std::vector<std::string> known;
    for (const auto& file : there) known.push_back(file.filename().string());
    SKIVET_TRY(const auto before, read_file(list, longest_list));
    auto text = as_text(before);
    for (const auto& archive : archives) {
        std::vector<std::string> beside;
        for (const auto& file : there)
            if (file.parent_path() == archive.parent_path()) beside.push_back(file.filename().string());
        const auto name = archive.filename().string();
        auto listed = with_listed(text, known, std::span(&name, 1), beside);
        if (!listed) return fail(std::move(listed).error().within(list.filename().string()));
        text = std::move(*listed);
        known.push_back(name);
    }
    SKIVET_TRY(const auto view, FileView::open(list));
    out.archive_size = view.size();
    SKIVET_TRY(out.plan, plan_whole_file(view, Bytes(as_bytes(text).begin(), as_bytes(text).end())));
    return out;
}

/// Loose files by their paths in a folder, of groups that can be read; the others go into `failed`.
std::vector<AddressedBytes> laid_out_files(const ReadContext& context, const Project& project, const std::string& layout,
                                           std::vector<DeliveryGroup>& groups, DeliveryGroup& all, std::vector<DeliveryGroup>& failed) {
    std::vector<AddressedBytes> out;
    for (auto& group : groups) {
        auto files = files_of(context, group);
        if (!files) {
            group.beside = true;
            group.error = std::move(files).error();
            failed.push_back(std::move(group));
            continue;
        }
        for (auto& file : *files)
            out.push_back({{laid_out(layout, layout_words(project, group.source, file.inner.back()))}, std::move(file.bytes)});
        std::move(group.pieces.begin(), group.pieces.end(), std::back_inserter(all.pieces));
        std::move(group.contents.begin(), group.contents.end(), std::back_inserter(all.contents));
    }
    return out;
}

}  // namespace

void plan_patches(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups) {
    std::vector<fs::path> made;
    for (auto& group : groups) {
        group.beside = true;
        const auto work = [&]() -> Result<WritePlan> {
            SKIVET_TRY(const auto source, open_source(context, group.source));
            SKIVET_TRY(const auto changes, changes_of(context, *source, group));
            for (const auto& change : changes)
                if (change.what == AddressedChange::What::add)
                    return fail(ErrorCode::unsupported,
                                phrase("{} is new to the game, and a patch archive holds only what replaces entries", change.inner.back()),
                                "Deliver it into the archive, or beside the game");
            SKIVET_TRY(const auto files, spread_replacements(context, *source, group.contents));
            const auto file = patch_archive(project, group.source, made);
            SKIVET_TRY(auto plan, plan_patch_archive(context, *source, file, files));
            group.source = file;
            made.push_back(file);
            return plan;
        };
        auto planned = work();
        if (planned) group.plan = std::move(*planned);
        else group.error = std::move(planned).error();
    }
    const auto list = patch_list(project);
    if (list.empty() || made.empty()) return;
    auto listed = plan_listed(project, list, made);
    if (listed) return void(groups.push_back(std::move(*listed)));
    // What the list does not name the game would not load.
    for (auto& group : groups)
        if (!group.error) group.error = listed.error();
}

void plan_loose(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups) {
    DeliveryGroup all{override_folder(project)};
    all.beside = true;
    std::vector<DeliveryGroup> out;
    const auto& set = project.places.override_layout;
    const auto loose = laid_out_files(context, project, set.empty() ? proposed_layout(project) : set, groups, all, out);
    if (!loose.empty()) {
        auto planned = plan_override(all.source, loose);
        if (planned) all.plan = std::move(*planned);
        else all.error = std::move(planned).error();
        out.push_back(std::move(all));
    }
    groups = std::move(out);
}

namespace {

/// Files of the game as they become, for a device that takes them whole. One for all sources, so that no two get one place.
class WholeFiles {
public:
    WholeFiles(const ReadContext& context, const Project& project)
        : context_(context), project_(project), device_(project.places.device), cut_(device_cut(device_)) {}

    Result<WritePlan> plan(const DeliveryGroup& group) {
        SKIVET_TRY(auto out, plan_files(group));
        SKIVET_CHECK(check_sizes(out, cut_));
        return out;
    }

private:
    Result<WritePlan> plan_files(const DeliveryGroup& group) {
        WritePlan out;
        std::error_code code;
        if (!fs::is_directory(group.source, code)) return archive(group.source, group.source, group);
        // What lies in a folder are files of their own, and archives.
        std::vector<AddressedBytes> loose;
        std::map<fs::path, DeliveryGroup> inside;
        for (std::size_t k = 0; k < group.contents.size(); ++k) {
            const auto& [inner, bytes] = group.contents[k];
            if (inner.size() == 1) {
                loose.push_back({inner, bytes});
                continue;
            }
            auto& one = inside[group.source / inner.front()];
            one.pieces.push_back(group.pieces[k]);
            one.contents.push_back({{inner.begin() + 1, inner.end()}, bytes});
        }
        SKIVET_TRY(const auto source, open_source(context_, group.source));
        SKIVET_TRY(const auto files, spread_replacements(context_, *source, loose));
        for (const auto& file : files) {
            SKIVET_TRY(auto one, whole(group.source, group.source / file.inner.front(), file.bytes));
            out.add(std::move(one));
        }
        for (const auto& [file, one] : inside) {
            SKIVET_TRY(auto planned, archive(group.source, file, one));
            out.add(std::move(planned));
        }
        return out;
    }

    /// Where a file of the game goes.
    Result<fs::path> place_of(const fs::path& source, const fs::path& file) {
        const auto below = file.lexically_relative(project_.game);
        const bool in_the_game = !project_.game.empty() && !below.empty() && *below.begin() != "..";
        const auto path =
            laid_out(device_.layout, layout_words(project_, source, (in_the_game ? below : file.filename()).generic_string()));
        SKIVET_CHECK(check_fat_path(path));
        if (const auto [other, fresh] = taken_.emplace(lower(path), file); !fresh && other->second != file)
            return fail(ErrorCode::usage,
                        phrase("{} and {} would be one file on the device, {}", file.string(), other->second.string(), path),
                        "Let the layout of the device's files have {path} or {archive} in it");
        return path_inside(device_.folder, path);
    }

    Result<WritePlan> whole(const fs::path& source, const fs::path& file, const Content& bytes) {
        SKIVET_TRY(const auto to, place_of(source, file));
        std::error_code code;
        if (fs::exists(to, code)) {
            SKIVET_TRY(const auto view, FileView::open(to));
            return plan_whole_file(view, bytes);
        }
        return plan_new_file(to, bytes);
    }

    Result<WritePlan> archive(const fs::path& source, const fs::path& file, const DeliveryGroup& group) {
        SKIVET_TRY(const auto parts, parts_of(file));
        SKIVET_TRY(const auto to, place_of(source, parts.front()));
        if (const auto there = there_on_device(to, cut_)) {
            SKIVET_TRY(const auto copy, open_source(context_, *there));
            SKIVET_TRY(auto changes, changes_of(context_, *copy, group));
            return plan_changes(context_, *copy, std::move(changes));
        }
        SKIVET_TRY(const auto opened, open_source(context_, file));
        SKIVET_TRY(auto changes, changes_of(context_, *opened, group));
        SKIVET_TRY(const auto becomes, plan_changes(context_, *opened, std::move(changes)));
        // Everything the archive lies in: its parts, and the files beside it that it needs.
        auto all = parts;
        for (auto& other : opened->other_files()) all.push_back(std::move(other));
        WritePlan out;
        for (const auto& one : all) {
            SKIVET_TRY(const auto place, place_of(source, one));
            if (there_on_device(place, cut_)) continue;
            const auto change = std::find_if(becomes.files.begin(), becomes.files.end(), [&](const auto& f) { return f.file == one; });
            SKIVET_TRY(auto copied, plan_copy(one, change == becomes.files.end() ? FilePlan{} : *change, place, cut_));
            out.add(std::move(copied));
        }
        return out;
    }

    const ReadContext& context_;
    const Project& project_;
    const DeviceSettings& device_;
    const DeviceCut cut_;
    std::map<std::string, fs::path> taken_;  ///< places on the device, in lower case: its names have no case
};

}  // namespace

void plan_device(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups) {
    if (groups.empty()) return;
    const auto& device = project.places.device;
    DeliveryGroup all{device.folder};
    all.beside = all.device = true;
    std::vector<DeliveryGroup> out;
    std::error_code code;
    const auto work = [&]() -> Status {
        if (device.folder.empty()) return fail(ErrorCode::usage, "no card or device is known", "Say in the settings where it is");
        if (!fs::is_directory(device.folder, code))
            return fail(ErrorCode::missing, phrase("{} is not there", device.folder.string()),
                        "Put in the card, or connect the device, and look again");
        if (device.loose) {
            const auto loose = laid_out_files(context, project, device.layout, groups, all, out);
            for (const auto& file : loose) SKIVET_CHECK(check_fat_path(file.inner.front()));
            SKIVET_TRY(all.plan, plan_override(device.folder, loose));
            return check_sizes(all.plan, device_cut(device));
        }
        WholeFiles files(context, project);
        for (auto& group : groups) {
            auto planned = files.plan(group);
            if (!planned) {
                group.beside = true;
                group.error = std::move(planned).error();
                out.push_back(std::move(group));
                continue;
            }
            all.plan.add(std::move(*planned));
            std::move(group.pieces.begin(), group.pieces.end(), std::back_inserter(all.pieces));
            std::move(group.contents.begin(), group.contents.end(), std::back_inserter(all.contents));
        }
        return {};
    };
    if (auto done = work(); !done) {
        all.error = std::move(done).error();
        for (auto& group : groups) std::move(group.pieces.begin(), group.pieces.end(), std::back_inserter(all.pieces));
    }
    if (!all.pieces.empty() || all.error) out.push_back(std::move(all));
    groups = std::move(out);
}

}  // namespace skivet
