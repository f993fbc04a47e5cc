#include "bench/bulk_export.h"

#include <fmt/format.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>
#include <mutex>
#include <set>

#include "base/budget.h"
#include "base/file_write.h"
#include "base/hash.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "base/text.h"
#include "bench/cube.h"
#include "bench/export_manifest.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// What the two old systems that take part in this trade cannot hold in a name.
std::string portable(std::string name) {
    for (auto& c : name)
        if (std::string_view("<>:\"|?*\\").find(c) != std::string_view::npos || static_cast<unsigned char>(c) < 32) c = '_';
    return name;
}

bool is_picture(ExportAs as) { return as != ExportAs::dds && as != ExportAs::ktx2 && as != ExportAs::raw; }

std::uint64_t expected_bytes(const ExportItem& item, const ExportWish& wish) {
    if (!is_picture(wish.as)) return item.size;
    const auto& d = item.desc;
    const auto as = decided(wish.as, d.format);
    const std::uint64_t texel = as == ExportAs::exr ? 8 : as == ExportAs::png16 ? 8 : 4;
    std::uint64_t texels = std::uint64_t{d.width} * d.height;
    if (wish.layers == "all") texels *= std::uint64_t{d.depth} * d.layers;
    if (wish.faces != "first") texels *= d.faces;
    if (wish.mip == "all") texels += texels / 3;
    return as == ExportAs::tga ? texels * texel : texels * texel / 2;
}

/// About the memory it takes at once: the file, and of a picture its texels, what they are packed from and what they are packed to.
std::uint64_t bytes_to_export(const ExportItem& item, const ExportWish& wish) {
    if (!is_picture(wish.as)) return 2 * item.size;
    const std::uint64_t texel = info(item.desc.format).is_float() ? 24 : 12;
    return item.size + std::uint64_t{item.desc.width} * item.desc.height * texel;
}

}  // namespace

ExportPlan plan_export(std::span<const ExportItem> items, const ExportWish& wish) {
    ExportPlan out;
    std::set<std::string> taken = {std::string(ExportManifest::file_name), "export log.txt"};  // what the export itself writes
    for (const auto& item : items) {
        fs::path relative = portable(safe_relative_path(item.inner));
        if (wish.shape == FolderShape::flat) relative = relative.filename();
        if (wish.shape == FolderShape::per_set)
            relative = (item.set.empty() ? relative.parent_path() : fs::path(portable(safe_relative_path(item.set)))) / relative.filename();
        const auto as = decided(wish.as, item.desc.format);
        const auto ending = as == ExportAs::raw ? relative.extension().string() : std::string(extension_of(as));
        // Two entries that differ only in their ending, or only in their folder when flat, must not meet in one file.
        auto name = relative;
        name.replace_extension(ending);
        for (int n = 2; !taken.insert(lower(name.string())).second; ++n)
            name = fs::path(relative).replace_filename(fmt::format("{}_{}{}", relative.stem().string(), n, ending));
        out.names.push_back(std::move(name));
        out.bytes += expected_bytes(item, wish);
    }
    return out;
}

void Gate::pause() {
    const std::lock_guard lock(mutex_);
    paused_ = true;
}
void Gate::go_on() {
    {
        const std::lock_guard lock(mutex_);
        paused_ = false;
    }
    changed_.notify_all();
}
bool Gate::paused() const {
    const std::lock_guard lock(mutex_);
    return paused_;
}
void Gate::pass(const CancelToken& cancel) {
    std::unique_lock lock(mutex_);
    while (paused_ && !cancel.canceled()) changed_.wait_for(lock, std::chrono::milliseconds(50));
}

Status export_files(const TextureFile& texture, const ExportWish& wish, const fs::path& target, const CancelToken& cancel,
                    const PutFile& put) {
    const auto& d = texture.layout.desc;
    const auto as = decided(wish.as, d.format);
    auto place = target;
    if (as != ExportAs::raw) place.replace_extension(extension_of(as));  // a float texture's picture is an OpenEXR file
    if (!is_picture(as)) {
        SKIVET_TRY(const auto bytes, export_as(texture, as));
        return put(place, bytes, true);
    }
    std::vector<std::uint32_t> mips;
    if (wish.mip == "all")
        for (std::uint32_t m = 0; m < d.mips; ++m) mips.push_back(m);
    else mips.push_back(static_cast<std::uint32_t>(std::strtoul(wish.mip.c_str(), nullptr, 10)));
    std::vector<std::pair<Shown, std::string>> files;  // what, and what its name has more than the target's
    for (const auto mip : mips) {
        const auto level = mips.size() > 1 ? fmt::format(".mip{}", mip) : std::string();
        const bool all = wish.layers == "all";
        const auto layers = all ? d.layers : 1, slices = all ? mip_side(d.depth, mip) : 1;
        for (std::uint32_t layer = 0; layer < layers; ++layer)
            for (std::uint32_t slice = 0; slice < slices; ++slice) {
                auto name = layers > 1           ? fmt::format(".layer{}", layer)
                            : d.depth > 1 && all ? fmt::format(".slice{}", slice)
                                                 : std::string();
                if (has_cross(d) && wish.faces == "cross") files.push_back({{mip, 0, 0, 0, true}, level});
                else if (d.faces == 6 && wish.faces != "first")
                    for (std::uint32_t face = 0; face < 6; ++face)
                        files.push_back({{mip, layer, face, 0, false}, fmt::format("{}.{}{}", name, face_names[face], level)});
                else files.push_back({{mip, layer, 0, slice, false}, name + level});
            }
    }
    for (const auto& [what, more] : files) {
        SKIVET_CHECK(cancel.check());
        const bool whole = more.empty() && what.mip == 0;
        auto path = place;
        if (!more.empty()) path.replace_filename(place.stem().string() + more + place.extension().string());
        if (wish.alpha == AlphaWay::kept || !can_split_alpha(as, d)) {
            SKIVET_TRY(const auto bytes, export_picture(texture, as, what));
            SKIVET_CHECK(put(path, bytes, whole));
            continue;
        }
        SKIVET_TRY(const auto two, export_alpha_apart(texture, as, what));
        if (wish.alpha == AlphaWay::apart) {  // before the picture itself, by which a later run knows that all is there
            auto beside = path;
            beside.replace_filename(path.stem().string() + ".alpha" + path.extension().string());
            SKIVET_CHECK(put(beside, two.alpha, false));
        }
        SKIVET_CHECK(put(path, two.picture, whole));
    }
    return {};
}

namespace {

/// Writes the files of an export, and nothing that is not its own.
class Writer {
public:
    Writer(const fs::path& to, const ExportWish& wish, ExportManifest& manifest, std::span<const ExportItem> items)
        : to_(to), wish_(wish), manifest_(manifest) {
        for (const auto& item : items) sources_.insert(item.address.source);
    }

    /// A file, or its parts where it is larger than one may be. Parts of an earlier, longer one go away.
    Status put(const Address& address, const fs::path& path, ByteSpan bytes, bool whole) const {
        if (wish_.part_bytes == 0 || bytes.size() <= wish_.part_bytes) return put_one(address, path, bytes, whole);
        auto number = static_cast<std::size_t>((bytes.size() + wish_.part_bytes - 1) / wish_.part_bytes);
        // The first part comes last: where it is, all are, and a run that was cut short does not take a torso for the whole.
        for (auto part = number; part-- > 0;) {
            const auto at = part * wish_.part_bytes, size = std::min<std::uint64_t>(wish_.part_bytes, bytes.size() - at);
            SKIVET_CHECK(put_one(address, path.string() + fmt::format(".{:03}", part),
                                 bytes.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(size)), false));
        }
        const auto drop = [&](const fs::path& old) {
            std::error_code code;
            return manifest_.is_ours(old.lexically_relative(to_)) && fs::remove(old, code);
        };
        while (drop(path.string() + fmt::format(".{:03}", number++))) {
        }
        (void)drop(path);
        return {};
    }

private:
    const fs::path& to_;
    const ExportWish& wish_;
    ExportManifest& manifest_;
    std::set<fs::path> sources_;

    mutable std::mutex mutex_;
    mutable std::set<fs::path> inside_;  ///< folders that were looked at

    /// path_inside, which goes through all links on the way, once for each folder and for what is a link itself.
    Result<fs::path> place_of(const fs::path& relative) const {
        const auto folder = relative.parent_path();
        {
            const std::lock_guard lock(mutex_);
            std::error_code code;
            if (inside_.contains(folder) && !fs::is_symlink(to_ / relative, code)) return to_ / relative;
        }
        SKIVET_TRY(auto place, path_inside(to_, relative));
        const std::lock_guard lock(mutex_);
        inside_.insert(folder);
        return place;
    }

    Status put_one(const Address& address, const fs::path& path, ByteSpan bytes, bool whole) const {
        const auto relative = path.lexically_relative(to_);
        SKIVET_TRY(const auto place, place_of(relative));
        std::error_code code;
        if (fs::exists(fs::symlink_status(place, code))) {
            for (const auto& source : sources_)
                if (fs::equivalent(source, place, code))
                    return fail(ErrorCode::usage, phrase("{} is a source; an export never writes one", place.string()),
                                "Choose another folder");
            if (!wish_.overwrite && !manifest_.is_ours(relative))
                return fail(ErrorCode::usage,
                            phrase("{} is there already, and no export made it, or it was changed since", relative.string()),
                            "Move it away, export elsewhere, or say that it may go (--force)");
        }
        SKIVET_CHECK(write_file(place, bytes));
        return manifest_.add({relative, address, whole, to_hex(sha256(bytes))});
    }
};

}  // namespace

Result<ExportReport> run_export(std::span<const ExportItem> items, const ExportWish& wish, const fs::path& to, ExportProgress& progress,
                                int jobs, bool force) {
    const auto plan = plan_export(items, wish);
    std::error_code code;
    make_folders(to, code);
    if (code) {
        auto error = fail_errno(code.value(), phrase("cannot make the folder {}", to.string())).value();
        if (exit_code(error.code) != 4)
            error.code = ErrorCode::io;  // whatever it is that is missing there, nothing is wrong with the textures
        return fail(std::move(error));
    }
    for (const auto& item : items)
        if (!item.address.source.empty() && fs::is_directory(item.address.source, code) && lies_in(to, item.address.source))
            return fail(
                ErrorCode::usage,
                phrase("{} lies in {}, which is a source; an export never writes into one", to.string(), item.address.source.string()),
                "Choose a folder outside the game's");
    SKIVET_TRY(const auto manifest, ExportManifest::open(to, wish.shard));
    const Writer writer(to, wish, *manifest, items);
    ExportReport report;
    std::vector<std::size_t> todo;
    std::uint64_t needed = 0;
    std::vector<std::uint64_t> sizes;
    for (const auto& item : items) sizes.push_back(item.size);
    for (const auto i : part_of(sizes, wish.shard)) {
        needed += expected_bytes(items[i], wish);
        const auto target = to / plan.names[i];
        if (wish.resume && (fs::exists(target, code) || fs::exists(target.string() + ".000", code))) {
            ++report.skipped;
            needed -= std::min(needed, expected_bytes(items[i], wish));
        } else todo.push_back(i);
    }
    const auto space = fs::space(to, code);
    if (!code && !force && needed > space.available)
        return fail(Error{ErrorCode::no_space,
                          phrase("about {} are needed, {} are free", human_bytes(needed), human_bytes(space.available)),
                          {to.string()},
                          {},
                          "Choose another folder, or export less"});
    progress.total += todo.size();
    std::mutex mutex;
    std::optional<Error> full;
    Budget memory(2 * ReadLimits{}.decoded_bytes);
    tbb::task_arena arena(jobs > 0 ? jobs : tbb::task_arena::automatic);
    arena.execute([&] {
        tbb::parallel_for(
            tbb::blocked_range<std::size_t>(0, todo.size(), 1),
            [&](const auto& range) {
                for (auto n = range.begin(); n != range.end(); ++n) {
                    progress.gate.pass(progress.cancel);
                    if (progress.cancel.canceled()) return;
                    {
                        const std::lock_guard lock(mutex);
                        if (full) return;
                    }
                    const auto& item = items[todo[n]];
                    const auto target = to / plan.names[todo[n]];
                    std::optional<Error> damage;
                    const auto work = [&]() -> Result<std::uint64_t> {
                        std::uint64_t written = 0;
                        const auto put = [&](const fs::path& path, ByteSpan bytes, bool whole) {
                            written += bytes.size();
                            return writer.put(item.address, path, bytes, whole && !damage);
                        };
                        // Whether it is whole shows only when it is opened, also where its bytes go out as they are.
                        const auto texture = item.load();
                        if (texture) damage = texture->layout.damage;
                        if (wish.as == ExportAs::raw) {
                            if (!texture) damage = texture.error();
                            SKIVET_TRY(const auto bytes, item.raw());
                            SKIVET_CHECK(put(target, bytes, true));
                            return written;
                        }
                        if (!texture) return fail(texture.error());
                        SKIVET_CHECK(export_files(*texture, wish, target, progress.cancel, put));
                        return written;
                    };
                    // What decoding and packing share out must not make this thread begin another texture, which would wait for the memory
                    // that this one holds.
                    auto done = tbb::this_task_arena::isolate([&] {
                        const Budget::Share share(memory, bytes_to_export(item, wish));
                        return work();
                    });
                    if (!done && done.error().code == ErrorCode::canceled) return;
                    const std::lock_guard lock(mutex);
                    ++progress.done;
                    if (done) {
                        ++report.written;
                        if (damage) report.damaged.push_back({item.inner, damage->where.empty() ? damage->within(item.inner) : *damage});
                        report.bytes += *done;
                        progress.bytes += *done;
                        continue;
                    }
                    auto error = std::move(done).error();
                    if (error.code == ErrorCode::no_space && !full) full = error;
                    if (error.where.empty()) error = std::move(error).within(item.inner);
                    report.failed.push_back({item.inner, std::move(error)});
                }
            },
            tbb::simple_partitioner());
    });
    std::sort(report.failed.begin(), report.failed.end(), [](const auto& a, const auto& b) { return a.inner < b.inner; });
    std::sort(report.damaged.begin(), report.damaged.end(), [](const auto& a, const auto& b) { return a.inner < b.inner; });
    if ((!report.failed.empty() || !report.damaged.empty()) && !full) {
        std::string text;
        for (const auto* list : {&report.failed, &report.damaged})
            for (const auto& failure : *list) text += failure.error.message() + '\n';
        for (int n = 1; n < 100; ++n) {
            const fs::path name = n == 1 ? fs::path("export log.txt") : fs::path(fmt::format("export log {}.txt", n));
            if (fs::exists(fs::symlink_status(to / name, code)) && !manifest->is_ours(name)) continue;  // somebody's own
            if (write_file(to / name, as_bytes(text)) && manifest->add({name, {}, false, to_hex(sha256(as_bytes(text)))}))
                report.log = to / name;
            break;
        }
    }
    if (full) return fail(std::move(*full));
    SKIVET_CHECK(progress.cancel.check());
    return report;
}

}  // namespace skivet
