#include "bench/bulk_export.h"

#include <fmt/format.h>
#include <set>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/cube.h"
#include "texture/png.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// What the two old systems that take part in this trade cannot hold in a name.
std::string portable(std::string name) {
    for (auto& c : name)
        if (std::string_view("<>:\"|?*\\").find(c) != std::string_view::npos || static_cast<unsigned char>(c) < 32) c = '_';
    return name;
}

/// A file, or its parts where it is larger than one may be. Parts of an earlier, longer one go away.
Status write_in_parts(const fs::path& path, ByteSpan bytes, std::uint64_t part_bytes) {
    if (part_bytes == 0 || bytes.size() <= part_bytes) return write_file(path, bytes);
    auto number = static_cast<std::size_t>((bytes.size() + part_bytes - 1) / part_bytes);
    // The first part comes last: where it is, all are, and a run that was cut short does not take a torso for the whole.
    for (auto part = number; part-- > 0;) {
        const auto at = part * part_bytes, size = std::min<std::uint64_t>(part_bytes, bytes.size() - at);
        SKIVET_CHECK(write_file(path.string() + fmt::format(".{:03}", part), bytes.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(size))));
    }
    std::error_code code;
    while (fs::remove(path.string() + fmt::format(".{:03}", number++), code)) {}
    fs::remove(path, code);
    return {};
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

}  // namespace

ExportPlan plan_export(std::span<const ExportItem> items, const ExportWish& wish) {
    ExportPlan out;
    std::set<std::string> taken;
    for (const auto& item : items) {
        fs::path relative = portable(safe_relative_path(item.inner));
        if (wish.shape == FolderShape::flat) relative = relative.filename();
        if (wish.shape == FolderShape::per_set) relative = (item.set.empty() ? relative.parent_path() : fs::path(portable(safe_relative_path(item.set)))) / relative.filename();
        const auto as = decided(wish.as, item.desc.format);
        const auto ending = as == ExportAs::raw ? relative.extension().string() : std::string(extension_of(as));
        // Two entries that differ only in their ending, or only in their folder when flat, must not meet in one file.
        auto name = relative;
        name.replace_extension(ending);
        for (int n = 2; !taken.insert(lower(name.string())).second; ++n) name = fs::path(relative).replace_filename(fmt::format("{}_{}{}", relative.stem().string(), n, ending));
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

Result<std::uint64_t> export_files(const TextureFile& texture, const ExportWish& wish, const fs::path& target, const ReadLimits& limits, const CancelToken& cancel) {
    const auto& d = texture.layout.desc;
    const auto as = decided(wish.as, d.format);
    auto place = target;
    if (as != ExportAs::raw) place.replace_extension(extension_of(as));   // a float texture's picture is an OpenEXR file
    std::uint64_t written = 0;
    const auto put = [&](const fs::path& path, ByteSpan bytes) -> Status {
        written += bytes.size();
        return write_in_parts(path, bytes, wish.part_bytes);
    };
    if (!is_picture(as)) {
        SKIVET_TRY(const auto bytes, export_as(texture, as));
        SKIVET_CHECK(put(place, bytes));
        return written;
    }
    std::vector<std::uint32_t> mips;
    if (wish.mip == "all")
        for (std::uint32_t m = 0; m < d.mips; ++m) mips.push_back(m);
    else mips.push_back(static_cast<std::uint32_t>(std::strtoul(wish.mip.c_str(), nullptr, 10)));
    std::vector<std::pair<Shown, std::string>> files;   // what, and what its name has more than the target's
    for (const auto mip : mips) {
        const auto level = mips.size() > 1 ? fmt::format(".mip{}", mip) : std::string();
        const bool all = wish.layers == "all";
        const auto layers = all ? d.layers : 1, slices = all ? mip_side(d.depth, mip) : 1;
        for (std::uint32_t layer = 0; layer < layers; ++layer)
            for (std::uint32_t slice = 0; slice < slices; ++slice) {
                auto name = layers > 1 ? fmt::format(".layer{}", layer) : d.depth > 1 && all ? fmt::format(".slice{}", slice) : std::string();
                if (has_cross(d) && wish.faces == "cross") files.push_back({{mip, 0, 0, 0, true}, level});
                else if (d.faces == 6 && wish.faces != "first")
                    for (std::uint32_t face = 0; face < 6; ++face) files.push_back({{mip, layer, face, 0, false}, fmt::format("{}.{}{}", name, face_names[face], level)});
                else files.push_back({{mip, layer, 0, slice, false}, name + level});
            }
    }
    for (const auto& [what, more] : files) {
        SKIVET_CHECK(cancel.check());
        auto path = place;
        if (!more.empty()) path.replace_filename(place.stem().string() + more + place.extension().string());
        if (wish.alpha == "keep" || as == ExportAs::exr) {
            SKIVET_TRY(const auto bytes, export_picture(texture, as, what));
            SKIVET_CHECK(put(path, bytes));
            continue;
        }
        SKIVET_TRY(const auto png, export_png(texture, what));
        SKIVET_TRY(auto image, read_png(png, limits));
        Image alpha(image.width, image.height);
        for (std::size_t i = 0; i < image.texels.size(); ++i) {
            const auto a = image.texels[i][3];
            alpha.texels[i] = {a, a, a, 255};
            image.texels[i][3] = 255;
        }
        if (wish.alpha == "split") {   // before the picture itself, by which a later run knows that all is there
            SKIVET_TRY(const auto gray, picture_file(alpha, as, false));
            auto beside = path;
            beside.replace_filename(path.stem().string() + ".alpha" + path.extension().string());
            SKIVET_CHECK(put(beside, gray));
        }
        SKIVET_TRY(const auto bytes, picture_file(image, as, d.color == ColorSpace::srgb));
        SKIVET_CHECK(put(path, bytes));
    }
    return written;
}

Result<ExportReport> run_export(std::span<const ExportItem> items, const ExportWish& wish, const fs::path& to, const ReadLimits& limits, ExportProgress& progress, int jobs, bool force) {
    const auto plan = plan_export(items, wish);
    std::error_code code;
    fs::create_directories(to, code);
    if (code) {
        auto error = fail_errno(code.value(), "cannot make the folder " + to.string()).value();
        if (exit_code(error.code) != 4) error.code = ErrorCode::io;   // whatever it is that is missing there, nothing is wrong with the textures
        return fail(std::move(error));
    }
    ExportReport report;
    std::vector<std::size_t> todo;
    std::uint64_t needed = plan.bytes;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto target = to / plan.names[i];
        if (wish.resume && (fs::exists(target, code) || fs::exists(target.string() + ".000", code))) {
            ++report.skipped;
            needed -= std::min(needed, expected_bytes(items[i], wish));
        } else todo.push_back(i);
    }
    const auto space = fs::space(to, code);
    if (!code && !force && needed > space.available)
        return fail(Error{ErrorCode::no_space, fmt::format("about {} are needed, {} are free", human_bytes(needed), human_bytes(space.available)), {to.string()}, {}, "Choose another folder, or export less"});
    progress.total += todo.size();
    std::mutex mutex;
    std::optional<Error> full;
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
                    const auto work = [&]() -> Result<std::uint64_t> {
                        if (wish.as == ExportAs::raw) {
                            SKIVET_TRY(const auto bytes, item.raw());
                            SKIVET_CHECK(write_in_parts(target, bytes, wish.part_bytes));
                            return bytes.size();
                        }
                        SKIVET_TRY(const auto texture, item.load());
                        return export_files(texture, wish, target, limits, progress.cancel);
                    };
                    auto done = work();
                    if (!done && done.error().code == ErrorCode::canceled) return;
                    const std::lock_guard lock(mutex);
                    ++progress.done;
                    if (done) {
                        ++report.written;
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
    if (!report.failed.empty() && !full) {
        std::string text;
        for (const auto& failure : report.failed) text += failure.error.message() + '\n';
        report.log = to / "export log.txt";
        if (auto logged = write_file(report.log, as_bytes(text)); !logged) report.log.clear();
    }
    if (full) return fail(std::move(*full));
    SKIVET_CHECK(progress.cancel.check());
    return report;
}

}  // namespace skivet
