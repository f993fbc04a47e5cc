// Commands that write: export, encode, replace, compact. See apply_command.cpp and restore_command.cpp for the others.
#include <fmt/format.h>
#include <tbb/task_arena.h>
#include <map>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/bulk_export.h"
#include "catalog/export_items.h"
#include "cli/json_line.h"
#include "cli/terminal.h"
#include "cli/writing.h"
#include "container/texture_files.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"

namespace skivet::cli {

namespace fs = std::filesystem;

namespace {

/// Where a result may go: over nothing, or over a regular file that is no input and of which `is_ours` says that it is one like the result.
Status check_out(const fs::path& out, std::span<const fs::path> inputs, const std::function<bool(const Bytes&)>& is_ours,
                 const std::string& what) {
    std::error_code code;
    if (!fs::exists(out, code)) return {};
    if (!fs::is_regular_file(out, code)) return fail(ErrorCode::usage, out.string() + " is no regular file", "Choose another name");
    for (const auto& input : inputs)
        if (fs::equivalent(out, input, code)) return fail(ErrorCode::usage, out.string() + " is what is read", "Choose another name");
    SKIVET_TRY(const auto old, read_file(out));
    if (old.empty() || is_ours(old)) return {};
    return fail(ErrorCode::usage, fmt::format("{} is there already and is no {}", out.string(), what),
                "Choose another name, or remove it first");
}

void put_json(Context& c, const nlohmann::json& j) { c.out << dump(j) << '\n'; }

/// A name with the ending of another kind of texture would deceive whoever opens it.
Status check_ending(const Context& c, const fs::path& out, const fs::path& like, const TextureKind& kind) {
    if (out == "-" || lower(out.extension().string()) == lower(like.extension().string())) return {};
    const auto other = c.context.textures.by_extension(out.string());
    if (!other || other->name() == kind.name()) return {};
    return fail(Error{ErrorCode::usage,
                      fmt::format("it becomes {} as --like is, and *{} is {}", kind.name(), out.extension().string(), other->name()),
                      {out.string()},
                      {},
                      "Give it the ending of the texture it is like"});
}

/// What was made; where the texture itself goes to the output, nothing.
void tell_encoded(Context& c, const fs::path& out, const TextureDesc& d, std::size_t bytes,
                  std::optional<std::pair<std::uint64_t, std::uint64_t>> blocks) {
    if (out == "-") return;
    if (c.json) {
        nlohmann::json j = {{"file", out.string()}, {"format", std::string(info(d.format).name)},
                            {"width", d.width},     {"height", d.height},
                            {"mips", d.mips},       {"bytes", bytes}};
        if (blocks) j.update({{"kept_blocks", blocks->first}, {"new_blocks", blocks->second}});
        put_json(c, j);
    } else if (blocks && !c.quiet) {
        c.out << fmt::format("{}: {} kept, {} new\n", out.string(), count_of(blocks->first, "block"), grouped(blocks->second));
    }
}

}  // namespace

int export_entries(Context& c, const ExportOptions& options) {
    const auto as = export_named(options.as);
    if (!as)
        return c.failed(Error{ErrorCode::usage,
                              fmt::format("cannot export as \"{}\"", options.as),
                              {},
                              {},
                              "picture, png, png16, dds, ktx2, tga, tiff, exr and raw can be written"});
    ExportWish wish;
    wish.as = *as;
    wish.shape = options.flat ? FolderShape::flat : options.sets ? FolderShape::per_set : FolderShape::kept;
    wish.mip = options.mip;
    wish.faces = options.faces;
    wish.layers = options.layers;
    wish.alpha = alpha_way_named(options.alpha).value_or(AlphaWay::kept);
    wish.resume = options.resume;
    wish.overwrite = options.force;
    wish.shard = options.shard;
    wish.part_bytes = options.fat32 ? fat32_part : options.part_bytes;
    std::vector<ExportItem> items;
    std::size_t failures = 0, problems = 0;
    // The sources stay open until the last item is written.
    std::vector<std::shared_ptr<const std::vector<Source>>> open;
    for (const auto& text : options.sources) {
        const auto address = parse_address(text);
        if (!address) return c.failed(address.error());
        std::error_code code;
        const bool whole = address->inner.empty() && (fs::is_directory(address->source, code) || open_source(c.context, address->source));
        if (!whole) {
            const auto name = address->inner.empty() ? address->source.filename().string() : address->inner.back();
            auto texture = open_texture_at(c.context, *address);
            if (!texture) {
                const int exit = c.failed(texture.error().within(name));
                if (options.sources.size() == 1) return exit;
                ++failures;
                continue;
            }
            const auto shared = std::make_shared<const TextureFile>(std::move(*texture));
            items.push_back({name,
                             {},
                             shared->layout.desc,
                             shared->file.size(),
                             [shared]() -> Result<TextureFile> { return *shared; },
                             [&c, address = *address] { return read_address(c.context, address); },
                             {fs::weakly_canonical(address->source, code), address->inner}});
            continue;
        }
        const std::vector<fs::path> paths = {address->source};
        const auto sources = std::make_shared<const std::vector<Source>>(open_sources(c.context, paths));
        open.push_back(sources);
        if (sources->front().error) return c.failed(*sources->front().error);
        Progress progress;
        progress.cancel = c.cancel;
        const auto shown = std::make_unique<Shown>(c, progress, "Reading archives");
        const auto catalog = build_catalog(c.context, *sources, progress);
        if (!catalog) return c.failed(catalog.error());
        for (const auto& problem : sources->front().container->problems())
            ++problems, c.failed(problem.within(address->source.filename().string()));
        const auto analysis = options.sets ? analyze_catalog(*catalog, {}, {}) : CatalogAnalysis{};
        for (std::size_t i = 0; i < catalog->items.size(); ++i) {
            const auto& item = catalog->items[i];
            if (!item.is_texture()) continue;
            const auto fits = [&](const std::string& pattern) { return glob_match(pattern, item.path()); };
            if (!options.match.empty() && std::none_of(options.match.begin(), options.match.end(), fits)) continue;
            items.push_back(export_item(c.context, sources, item, options.sets ? set_folder(*catalog, analysis, i) : std::string()));
        }
    }
    if (items.empty() && failures == 0) {
        c.failed(Error{ErrorCode::missing,
                       options.match.empty() ? "there is no texture to export" : "no texture fits --match, so nothing was written",
                       {},
                       {},
                       "skivet-cli list --textures shows what there is"});
        return 1;
    }
    ExportProgress progress;
    progress.cancel = c.cancel;
    auto shown = std::make_unique<Shown>(c, progress, "Writing");
    const auto report = run_export(items, wish, options.to, progress, options.jobs);
    shown.reset();
    if (!report) return c.failed(report.error());
    if (c.json) {
        for (const auto* list : {&report->failed, &report->damaged})
            for (const auto& one : *list)
                put_json(c,
                         {{"path", one.inner}, {"what", list == &report->failed ? "failed" : "damaged"}, {"error", one.error.message()}});
        put_json(c, {{"what", "done"},
                     {"written", report->written},
                     {"skipped", report->skipped},
                     {"failed", failures + report->failed.size()},
                     {"damaged", report->damaged.size()},
                     {"bytes", report->bytes}});
    }
    for (const auto& failure : report->failed) c.failed(failure.error);
    for (const auto& damaged : report->damaged) c.err << "skivet-cli: written as far as it is there: " << damaged.error.message() << '\n';
    failures += report->failed.size();
    problems += report->damaged.size();
    c.say(fmt::format("{} written, {} failed", report->written, failures) +
          (report->skipped ? fmt::format(", {} there already", report->skipped) : ""));
    return failures + problems > 0 ? 1 : 0;
}

namespace {

int encode_on_some_cores(Context& c, const EncodeCommand& options) {
    auto bytes = read_input(c, options.image);
    if (!bytes) return c.failed(bytes.error());
    auto edited = read_edited(std::move(*bytes), c.context.limits, options.image.string());
    if (!edited) return c.failed(edited.error().within(options.image.string()));
    if (!options.like.empty()) {
        const auto address = parse_address(options.like);
        if (!address) return c.failed(address.error());
        const auto original = open_texture_at(c.context, *address);
        if (!original) return c.failed(original.error().within(options.like));
        FitOptions how;
        const auto mends = parse_mends(options.mends);
        if (!mends) return c.failed(mends.error());
        how.mends = *mends;
        if (options.resize_texture) how.mends.press({Mend::keep_size});
        how.encode.effort = effort_named(options.effort).value_or(Effort::normal);
        const auto fitted = fit(*original, std::move(*edited), how);
        if (!fitted) return c.failed(fitted.error());
        for (const auto& finding : fitted->findings) {
            if (finding.grade == Grade::blocks)
                return c.failed(Error{ErrorCode::unfit, finding.headline, {options.image.string()}, {}, finding.detail});
            if (finding.grade != Grade::fits) c.err << "skivet-cli: " << finding.headline << ": " << finding.detail << '\n';
        }
        if (auto fine =
                check_ending(c, options.out, address->inner.empty() ? address->source : fs::path(address->inner.back()), *original->kind);
            !fine)
            return c.failed(fine.error());
        if (auto written = write_output(c, options.out, fitted->file); !written) return c.failed(written.error());
        tell_encoded(c, options.out, fitted->layout.desc, fitted->file.size(), std::pair(fitted->kept_blocks(), fitted->new_blocks()));
        return 0;
    }
    const auto format = format_named(options.format);
    if (!format) return c.failed(Error{ErrorCode::usage, fmt::format("the format \"{}\" is not known", options.format), {}, {}, {}});
    TextureDesc d;
    d.format = *format;
    d.width = edited->image.width;
    d.height = edited->image.height;
    const auto full = full_mip_count(d.width, d.height);
    d.mips = options.mips == "full"   ? full
             : options.mips == "none" ? 1
                                      : static_cast<std::uint32_t>(std::strtoul(options.mips.c_str(), nullptr, 10));
    if (d.mips == 0 || d.mips > full)
        return c.failed(Error{ErrorCode::usage, fmt::format("--mips {}: 1 to {} levels are possible", options.mips, full), {}, {}, {}});
    if (options.color == "srgb") d.color = ColorSpace::srgb;
    if (options.color == "linear") d.color = ColorSpace::linear;
    const auto payload = encode_levels(edited->image, d, {MipFilter::kaiser, d.color == ColorSpace::srgb},
                                       {effort_named(options.effort).value_or(Effort::normal)});
    if (!payload) return c.failed(payload.error());
    const auto ending = options.out.extension();
    if (options.out != "-" && !ending.empty() && ending != ".dds" && ending != ".ktx" && ending != ".ktx2")
        return c.failed(Error{ErrorCode::usage,
                              fmt::format("a texture is not written as *{}", ending.string()),
                              {options.out.string()},
                              {},
                              "Name it .dds, .ktx or .ktx2"});
    const auto file = ending == ".ktx2" ? write_ktx2(d, *payload) : ending == ".ktx" ? write_ktx(d, *payload) : write_dds(d, *payload);
    if (!file) return c.failed(file.error());
    if (auto written = write_output(c, options.out, *file); !written) return c.failed(written.error());
    tell_encoded(c, options.out, d, file->size(), std::nullopt);
    return 0;
}

}  // namespace

namespace {

/// Every picture of a folder, at its place in another one. What cannot be encoded is said, and the others follow.
int encode_folder(Context& c, const EncodeCommand& options) {
    if (!options.like.empty())
        return c.failed(Error{ErrorCode::usage, "--like is for one image, not for a folder", {}, {}, "Say the format with --format"});
    std::vector<fs::path> pictures;
    std::error_code code;
    for (auto walk = fs::recursive_directory_iterator(options.image, code); !code && walk != fs::recursive_directory_iterator();
         walk.increment(code)) {
        const auto kind = walk->is_regular_file(code) ? c.context.textures.by_extension(walk->path().string()) : nullptr;
        if (kind && kind->traits().picture && !lies_in(walk->path(), options.out)) pictures.push_back(walk->path());
    }
    if (code) return c.failed(fail_errno(code.value(), "cannot read " + options.image.string()).value());
    std::sort(pictures.begin(), pictures.end());
    if (pictures.empty()) {
        c.failed(Error{ErrorCode::missing, "there is no picture in " + options.image.string(), {}, {}, ""});
        return 1;
    }
    // Two pictures that differ only in their ending would become one texture.
    std::map<fs::path, fs::path> names;
    std::vector<std::uint64_t> sizes;
    std::vector<fs::path> outs;
    for (const auto& picture : pictures) {
        auto name = picture.lexically_relative(options.image);
        name.replace_extension(options.as);
        if (const auto [other, fresh] = names.try_emplace(name, picture); !fresh)
            return c.failed(
                Error{ErrorCode::usage,
                      fmt::format("{} and {} would be one texture, {}", other->second.string(), picture.string(), name.string()),
                      {},
                      {},
                      "Give one of them another name"});
        outs.push_back(options.out / name);
        sizes.push_back(fs::file_size(picture, code));
    }
    Progress progress;
    progress.cancel = c.cancel;
    const auto mine = part_of(sizes, options.shard);
    progress.total = mine.size();
    const Shown shown(c, progress, "Encoding");
    std::size_t made = 0, there = 0, failed = 0;
    for (const auto i : mine) {
        if (c.cancel.canceled()) return c.failed(c.cancel.check().error());
        if (options.resume && fs::exists(outs[i], code)) {
            ++there, ++progress.done;
            continue;
        }
        auto one = options;
        one.image = pictures[i];
        one.out = outs[i];
        one.shard = {};
        fs::create_directories(one.out.parent_path(), code);
        if (encode_image(c, one) == 0) ++made;
        else ++failed;
        ++progress.done;
    }
    c.say(fmt::format("{} made, {} failed", made, failed) + (there ? fmt::format(", {} there already", there) : ""));
    return failed > 0 ? 1 : 0;
}

}  // namespace

int encode_image(Context& c, const EncodeCommand& options) {
    if (std::error_code code; fs::is_directory(options.image, code)) return encode_folder(c, options);
    if (!options.shard.is_all()) return c.failed(Error{ErrorCode::usage, "--shard is for a folder of images", {}, {}, ""});
    std::vector<fs::path> inputs = {options.image};
    if (const auto like = options.like.empty() ? Result<Address>(Address{}) : parse_address(options.like); like && !like->source.empty())
        inputs.push_back(like->source);
    const auto is_texture = [&](const Bytes& old) {
        return c.context.textures.recognize(old, options.out.string(), old.size()) != nullptr;
    };
    if (options.out != "-")
        if (auto may = check_out(options.out, inputs, is_texture, "texture"); !may) return c.failed(may.error());
    int code = 0;
    tbb::task_arena arena(options.jobs > 0 ? options.jobs : tbb::task_arena::automatic);
    arena.execute([&] { code = encode_on_some_cores(c, options); });
    return code;
}

int replace(Context& c, const ReplaceOptions& options) {
    const auto address = parse_address(options.address);
    if (!address) return c.failed(address.error());
    auto with = read_input(c, options.with);
    if (!with) return c.failed(with.error());
    // A damaged entry cannot be read, but with --as-is it can be replaced.
    const auto current = read_texture_bytes(c.context, *address);
    if (!current && current.error().code != ErrorCode::damaged) return c.failed(current.error());
    const auto path = address->inner.empty() ? address->source.string() : address->inner.back();
    auto mends = parse_mends(options.mends);
    if (!mends) return c.failed(mends.error());
    if (options.resize_texture) mends->press({Mend::keep_size});
    const auto format = options.format.empty() ? std::optional(Format::unknown) : format_named(options.format);
    if (!format) return c.failed(Error{ErrorCode::usage, "there is no format " + options.format, {}, {}, "BC1, BC3, BC7, RGBA8 …"});
    auto content = content_for(c, current, path, std::move(*with), options.with.string(), options.as_is, {*mends, *format});
    if (!content) return c.failed(content.error().within(options.with.filename().string()));
    const auto name = address->inner.empty() ? address->source.filename().string() : address->inner.back();
    std::vector<AddressedBytes> pieces;
    pieces.push_back({address->inner.empty() ? std::vector<std::string>{name} : address->inner, *content});
    const bool elsewhere = !options.beside.empty() || !options.patch.empty();
    const auto plan = elsewhere ? plan_elsewhere(c, address->source, options.beside, options.patch, pieces)
                                : plan_replacement(c.context, *address, *content);
    if (!plan) return c.failed(plan.error());
    if (options.dry_run) {
        print_plan(c, *plan, true);
        return 0;
    }
    const auto target = !options.beside.empty() ? options.beside : !options.patch.empty() ? options.patch : address->source;
    const DeliveryNote note{fmt::format("{} into {}", fs::path(name).stem().string(), target.filename().string()), target, address->inner};
    return deliver(c, *plan, note, [&]() -> Status {
        if (elsewhere) return {};
        SKIVET_TRY(const auto back, read_texture_bytes(c.context, *address));
        if (back != *content) return fail(ErrorCode::io, "the entry does not read back as it was written");
        return {};
    });
}

int compact(Context& c, const std::string& path, bool dry_run) {
    const auto source = open_source(c.context, path);
    if (!source) return c.failed(source.error());
    const auto plan = (*source)->plan_compact(c.context.limits);
    if (!plan) return c.failed(plan.error());
    if (dry_run || plan->empty()) {
        print_plan(c, *plan, true);
        return 0;
    }
    // Every entry is read again from the compact archive before the old one is let go.
    return deliver(c, *plan,
                   {fmt::format("{} given back in {}", human_bytes((*source)->dead_bytes()), fs::path(path).filename().string()), path, {}},
                   [&]() -> Status {
                       SKIVET_TRY(const auto again, open_source(c.context, path));
                       return same_contents(**source, *again, c.context.limits, c.cancel);
                   });
}

}  // namespace skivet::cli
