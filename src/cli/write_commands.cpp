// Commands that write: export, encode, replace, apply, restore.
#include <ctime>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/file_write.h"
#include "base/text.h"
#include "bench/bulk_export.h"
#include "catalog/export_items.h"
#include "bench/fitting.h"
#include "cli/commands.h"
#include "container/texture_files.h"
#include "delivery/routes.h"
#include "delivery/vault.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"

namespace skivet::cli {
namespace {

namespace fs = std::filesystem;
using nlohmann::json;

std::int64_t now() { return static_cast<std::int64_t>(std::time(nullptr)); }

void print_plan(Context& c, const WritePlan& plan, bool dry_run) {
    const auto way = plan.way();
    if (c.json) {
        json ranges = json::array();
        for (const auto& file : plan.files)
            for (const auto& range : written_ranges(file)) ranges.push_back({{"file", file.file.string()}, {"at", range.first}, {"size", range.second}});
        c.out << json{{"dry_run", dry_run}, {"way", std::string(name_of(way))}, {"bytes_written", plan.bytes_written()}, {"ranges", ranges}}.dump(
                     -1, ' ', false, json::error_handler_t::replace)
              << '\n';
        return;
    }
    if (plan.empty()) {
        c.out << "nothing to write: the content is the same\n";
        return;
    }
    for (const auto& file : plan.files) {
        const auto ranges = written_ranges(file);
        c.out << fmt::format("{}: {}, {} bytes in {} ranges", file.file.string(), name_of(file.way), grouped(file.bytes_written()), ranges.size());
        if (file.new_size != file.expected.size) c.out << fmt::format(", size {} -> {}", grouped(file.expected.size), grouped(file.new_size));
        c.out << '\n';
        if (dry_run)
            for (const auto& [at, size] : ranges) c.out << fmt::format("  {:>12}  {} bytes\n", hex(at), grouped(size));
    }
}

/// What goes into the entry: a file of the same kind as it is, a picture through fitting.
Result<Bytes> content_for(Context& c, const Bytes& current, std::string_view name, Bytes with, std::string_view given_name, bool as_is) {
    const auto kind = c.kinds.textures.recognize(current, name);
    if (!kind || as_is) return with;
    auto original = TextureFile::open(c.kinds.textures, current, name, c.kinds.limits);
    if (!original || original->layout.damage) return with;  // a damaged texture can be replaced by whatever is given
    const auto their_kind = c.kinds.textures.recognize(with, "");
    if (their_kind && their_kind->name() == kind->name() && original->layout.direct) {  // a picture file keeps its own type, depth and tables
        SKIVET_TRY(const auto theirs, TextureFile::open(c.kinds.textures, with, "", c.kinds.limits));
        auto a = theirs.layout.desc, b = original->layout.desc;
        a.color = b.color = ColorSpace::unknown;
        if (a == b) return with;
    }
    SKIVET_TRY(const auto edited, read_edited(std::move(with), c.kinds.limits, given_name));
    SKIVET_TRY(auto fitted, fit(*original, edited, {}));
    for (const auto& finding : fitted.findings) {
        if (finding.grade == Grade::blocks) return fail(ErrorCode::unfit, finding.headline, finding.detail + " Use --as-is to put the file in untouched");
        if (finding.grade != Grade::fits) c.err << "skivet-cli: " << finding.headline << ": " << finding.detail << '\n';
    }
    return std::move(fitted.file);
}

int deliver(Context& c, const WritePlan& plan, const DeliveryNote& note, const std::function<Status()>& check) {
    print_plan(c, plan, false);
    if (plan.empty()) return 0;
    PosixFiles files;
    Vault vault(c.vault, files);
    if (auto recovered = vault.recover(); !recovered) return c.failed(recovered.error());
    if (const auto done = vault.deliver(plan, note, now(), check); !done) return c.failed(done.error());
    return 0;
}

Result<WritePlan> plan_elsewhere(Context& c, const fs::path& source, const fs::path& beside, const fs::path& patch, std::span<const AddressedBytes> pieces) {
    SKIVET_TRY(const auto opened, open_source(c.kinds, source));
    SKIVET_TRY(const auto files, spread_replacements(c.kinds, *opened, {pieces.begin(), pieces.end()}));
    if (!beside.empty()) return plan_override(beside, files);
    return plan_patch_archive(c.kinds, *opened, patch, files);
}

/// One entry as it was before all deliveries. The delivery that put it there is undone when it holds nothing else and nothing stands on
/// it, because then the archive gets its very bytes back; otherwise the old content is delivered.
Status restore_entry(Context& c, Vault& vault, const fs::path& source, const std::string& text) {
    auto address = text.find("::") == std::string::npos ? Address{source, {text}} : *parse_address(text);
    if (address.inner.empty()) return fail(ErrorCode::usage, fmt::format("\"{}\" names no entry", text));
    SKIVET_TRY(const auto history, vault.history());
    const auto& entry = address.inner.back();
    const auto holds = [&](const JournalPart& part) { return part.source == source && std::find(part.entries.begin(), part.entries.end(), entry) != part.entries.end(); };
    const auto journal = std::find_if(history.rbegin(), history.rend(), [&](const Journal& j) { return std::any_of(j.parts.begin(), j.parts.end(), holds); });
    if (journal == history.rend()) return fail(Error{ErrorCode::missing, fmt::format("no delivery of \"{}\" is in the vault", entry), {source.string()}, {}, {}});
    const bool alone = std::none_of(history.rbegin(), journal, [&](const Journal& later) { return later.touches(source); }) &&
                       std::all_of(journal->parts.begin(), journal->parts.end(), [&](const JournalPart& part) { return part.source != source || part.entries == std::vector{entry} || part.entries == address.inner; }) &&
                       std::none_of(std::next(journal), history.rend(), [&](const Journal& j) { return std::any_of(j.parts.begin(), j.parts.end(), holds); });
    if (alone) return vault.undo(journal->id, source);
    SKIVET_TRY(const auto plan, plan_restore_entry(vault, c.kinds, source, address.inner));
    if (plan.empty()) return {};
    SKIVET_TRY(const auto done, vault.deliver(plan, {entry + " as it was", source, address.inner}, now()));
    (void)done;
    return {};
}

}  // namespace

int export_entries(Context& c, const ExportOptions& options) {
    const auto as = export_named(options.as);
    if (!as) return c.failed(Error{ErrorCode::usage, fmt::format("cannot export as \"{}\"", options.as), {}, {}, "picture, png, png16, dds, ktx2, tga, tiff, exr and raw can be written"});
    ExportWish wish;
    wish.as = *as;
    wish.shape = options.flat ? FolderShape::flat : options.sets ? FolderShape::per_set : FolderShape::kept;
    wish.mip = options.mip;
    wish.faces = options.faces;
    wish.layers = options.layers;
    wish.alpha = options.alpha;
    wish.resume = options.resume;
    wish.part_bytes = options.fat32 ? fat32_part : options.part_bytes;
    std::vector<ExportItem> items;
    std::size_t failures = 0;
    // The sources stay open until the last item is written.
    std::vector<std::shared_ptr<const std::vector<Source>>> open;
    for (const auto& text : options.sources) {
        const auto address = parse_address(text);
        if (!address) return c.failed(address.error());
        std::error_code code;
        const bool whole = address->inner.empty() && (fs::is_directory(address->source, code) || open_source(c.kinds, address->source));
        if (!whole) {
            const auto name = address->inner.empty() ? address->source.filename().string() : address->inner.back();
            auto texture = open_texture_at(c.kinds, *address);
            if (!texture) {
                const int exit = c.failed(texture.error().within(name));
                if (options.sources.size() == 1) return exit;
                ++failures;
                continue;
            }
            const auto shared = std::make_shared<const TextureFile>(std::move(*texture));
            items.push_back({name, {}, shared->layout.desc, shared->file.size(), [shared]() -> Result<TextureFile> { return *shared; }, [&c, address = *address] { return read_address(c.kinds, address); }});
            continue;
        }
        const std::vector<fs::path> paths = {address->source};
        const auto sources = std::make_shared<const std::vector<Source>>(open_sources(c.kinds, paths));
        open.push_back(sources);
        if (sources->front().error) return c.failed(*sources->front().error);
        Progress progress;
        progress.cancel = c.cancel;
        const auto catalog = build_catalog(c.kinds, *sources, progress);
        if (!catalog) return c.failed(catalog.error());
        const auto insight = options.sets ? make_insight(*catalog, {}, {}) : Insight{};
        for (std::size_t i = 0; i < catalog->items.size(); ++i) {
            const auto& item = catalog->items[i];
            if (!item.is_texture()) continue;
            const auto fits = [&](const std::string& pattern) { return glob_match(pattern, item.path()); };
            if (!options.match.empty() && std::none_of(options.match.begin(), options.match.end(), fits)) continue;
            items.push_back(export_item(c.kinds, sources, item, options.sets ? set_folder(*catalog, insight, i) : std::string()));
        }
    }
    ExportProgress progress;
    progress.cancel = c.cancel;
    const auto report = run_export(items, wish, options.to, c.kinds.limits, progress, options.jobs);
    if (!report) return c.failed(report.error());
    for (const auto& failure : report->failed) c.failed(failure.error);
    failures += report->failed.size();
    c.err << fmt::format("{} written, {} failed", report->written, failures) << (report->skipped ? fmt::format(", {} there already", report->skipped) : "") << '\n';
    return failures ? 1 : 0;
}

int encode_image(Context& c, const EncodeCommand& options) {
    auto bytes = read_file(options.image, c.kinds.limits.inflated_bytes);
    if (!bytes) return c.failed(bytes.error());
    auto edited = read_edited(std::move(*bytes), c.kinds.limits, options.image.string());
    if (!edited) return c.failed(edited.error().within(options.image.string()));
    if (!options.like.empty()) {
        const auto address = parse_address(options.like);
        if (!address) return c.failed(address.error());
        const auto original = open_texture_at(c.kinds, *address);
        if (!original) return c.failed(original.error().within(options.like));
        FitOptions how;
        how.encode.effort = effort_named(options.effort).value_or(Effort::normal);
        const auto fitted = fit(*original, *edited, how);
        if (!fitted) return c.failed(fitted.error());
        for (const auto& finding : fitted->findings) {
            if (finding.grade == Grade::blocks) return c.failed(Error{ErrorCode::unfit, finding.headline, {options.image.string()}, {}, finding.detail});
            if (finding.grade != Grade::fits) c.err << "skivet-cli: " << finding.headline << ": " << finding.detail << '\n';
        }
        if (auto written = write_file(options.out, fitted->file); !written) return c.failed(written.error());
        c.out << fmt::format("{}: {} blocks kept, {} new\n", options.out.string(), grouped(fitted->kept_blocks()), grouped(fitted->new_blocks()));
        return 0;
    }
    const auto format = format_named(options.format);
    if (!format) return c.failed(Error{ErrorCode::usage, fmt::format("the format \"{}\" is not known", options.format), {}, {}, {}});
    TextureDesc d;
    d.format = *format;
    d.width = edited->image.width;
    d.height = edited->image.height;
    const auto full = full_mip_count(d.width, d.height);
    d.mips = options.mips == "full" ? full : options.mips == "none" ? 1 : static_cast<std::uint32_t>(std::strtoul(options.mips.c_str(), nullptr, 10));
    if (d.mips == 0 || d.mips > full) return c.failed(Error{ErrorCode::usage, fmt::format("--mips {}: 1 to {} levels are possible", options.mips, full), {}, {}, {}});
    if (options.color == "srgb") d.color = ColorSpace::srgb;
    if (options.color == "linear") d.color = ColorSpace::linear;
    const auto payload = encode_levels(edited->image, d, {MipFilter::kaiser, d.color == ColorSpace::srgb}, {effort_named(options.effort).value_or(Effort::normal)});
    if (!payload) return c.failed(payload.error());
    const auto ending = options.out.extension();
    const auto file = ending == ".ktx2" ? write_ktx2(d, *payload) : ending == ".ktx" ? write_ktx(d, *payload) : write_dds(d, *payload);
    if (!file) return c.failed(file.error());
    if (auto written = write_file(options.out, *file); !written) return c.failed(written.error());
    return 0;
}

int replace(Context& c, const ReplaceOptions& options) {
    const auto address = parse_address(options.address);
    if (!address) return c.failed(address.error());
    auto with = read_file(options.with, c.kinds.limits.inflated_bytes);
    if (!with) return c.failed(with.error());
    // A damaged entry cannot be read, but it can be replaced.
    const auto current = read_texture_bytes(c.kinds, *address);
    if (!current && current.error().code != ErrorCode::damaged) return c.failed(current.error());
    auto content = content_for(c, current ? *current : Bytes{}, address->text(), std::move(*with), options.with.string(), options.as_is);
    if (!content) return c.failed(content.error().within(options.with.filename().string()));
    const auto name = address->inner.empty() ? address->source.filename().string() : address->inner.back();
    std::vector<AddressedBytes> pieces;
    pieces.push_back({address->inner.empty() ? std::vector<std::string>{name} : address->inner, *content});
    const bool elsewhere = !options.beside.empty() || !options.patch.empty();
    const auto plan = elsewhere ? plan_elsewhere(c, address->source, options.beside, options.patch, pieces) : plan_replacement(c.kinds, *address, *content);
    if (!plan) return c.failed(plan.error());
    if (options.dry_run) {
        print_plan(c, *plan, true);
        return 0;
    }
    const auto target = !options.beside.empty() ? options.beside : !options.patch.empty() ? options.patch : address->source;
    const DeliveryNote note{fmt::format("{} into {}", fs::path(name).stem().string(), target.filename().string()), target, address->inner};
    return deliver(c, *plan, note, [&]() -> Status {
        if (elsewhere) return {};
        SKIVET_TRY(const auto back, read_texture_bytes(c.kinds, *address));
        if (back != *content) return fail(ErrorCode::io, "the entry does not read back as it was written");
        return {};
    });
}

int apply_folder(Context& c, const ApplyOptions& options) {
    const auto source = open_source(c.kinds, options.into);
    if (!source) return c.failed(source.error());
    std::vector<AddressedBytes> items;
    std::vector<std::string> entries;
    int skipped = 0;
    std::error_code code;
    for (const auto& file : fs::recursive_directory_iterator(options.folder, code)) {
        if (!file.is_regular_file()) continue;
        const auto relative = file.path().lexically_relative(options.folder);
        auto entry = (*source)->find(relative.generic_string());
        for (std::size_t i = 0; !entry && i < (*source)->entries().size(); ++i)
            if (fs::path((*source)->entries()[i].path).replace_extension() == fs::path(relative).replace_extension()) entry = i;
        if (!entry) {
            c.err << "skivet-cli: " << relative.generic_string() << ": no entry has this path\n";
            ++skipped;
            continue;
        }
        const auto& path = (*source)->entries()[*entry].path;
        auto with = read_file(file.path(), c.kinds.limits.inflated_bytes);
        if (!with) return c.failed(with.error());
        auto current = (*source)->read(*entry, c.kinds.limits);
        if (current) current = join_spread(c.kinds.textures, std::move(*current), path, siblings_of(c.kinds, **source, {path}), c.kinds.limits);
        auto content = content_for(c, current ? *current : Bytes{}, path, std::move(*with), file.path().string(), false);
        if (!content) return c.failed(content.error().within(path));
        items.push_back({{path}, std::move(*content)});
        entries.push_back(path);
    }
    if (code) return c.failed(fail_errno(code.value(), "cannot read the folder " + options.folder.string()).value());
    const auto wanted = items;
    const bool elsewhere = !options.beside.empty() || !options.patch.empty();
    const auto plan = elsewhere ? plan_elsewhere(c, options.into, options.beside, options.patch, items) : plan_replacements(c.kinds, **source, std::move(items));
    if (!plan) return c.failed(plan.error());
    if (options.dry_run) {
        print_plan(c, *plan, true);
        return skipped ? 1 : 0;
    }
    const auto target = !options.beside.empty() ? options.beside : !options.patch.empty() ? options.patch : options.into;
    const DeliveryNote note{fmt::format("{} pieces into {}", entries.size(), target.filename().string()), target, entries};
    const int done = deliver(c, *plan, note, [&]() -> Status {
        if (elsewhere) return {};
        SKIVET_TRY(const auto again, open_source(c.kinds, options.into));
        for (const auto& item : wanted) {
            SKIVET_TRY(const auto own, again->read(*again->find(item.inner.front()), c.kinds.limits));
            SKIVET_TRY(const auto back, join_spread(c.kinds.textures, own, item.inner.front(), siblings_of(c.kinds, *again, item.inner), c.kinds.limits));
            if (back != item.bytes) return fail(ErrorCode::io, item.inner.front() + " does not read back as it was written");
        }
        return {};
    });
    return done ? done : skipped ? 1 : 0;
}

int compact(Context& c, const std::string& path, bool dry_run) {
    const auto source = open_source(c.kinds, path);
    if (!source) return c.failed(source.error());
    const auto plan = (*source)->plan_compact(c.kinds.limits);
    if (!plan) return c.failed(plan.error());
    if (dry_run || plan->empty()) {
        print_plan(c, *plan, true);
        return 0;
    }
    // Every entry is read again from the compact archive before the old one is let go.
    const auto before = (*source)->entries();
    return deliver(c, *plan, {fmt::format("{} given back in {}", human_bytes((*source)->dead_bytes()), fs::path(path).filename().string()), path, {}}, [&]() -> Status {
        SKIVET_TRY(const auto again, open_source(c.kinds, path));
        if (again->entries().size() != before.size()) return fail(ErrorCode::io, "the compact archive has another number of entries");
        for (std::size_t i = 0; i < before.size(); ++i) {
            const auto data = again->read(i, c.kinds.limits);
            if (!data && data.error().code != ErrorCode::key) return fail(data.error());
        }
        return {};
    });
}

int restore(Context& c, const std::string& source, const std::vector<std::string>& addresses) {
    PosixFiles files;
    Vault vault(c.vault, files);
    if (auto recovered = vault.recover(); !recovered) return c.failed(recovered.error());
    if (addresses.empty()) {
        const auto count = source.empty() ? vault.restore_all() : vault.restore(source);
        if (!count) return c.failed(count.error());
        c.out << fmt::format("{} deliveries undone\n", *count);
        return 0;
    }
    std::error_code code;
    const auto wanted = fs::weakly_canonical(source, code);
    int failures = 0;
    for (const auto& text : addresses) {
        if (auto restored = restore_entry(c, vault, wanted, text); !restored) {
            c.failed(restored.error());
            ++failures;
        }
    }
    return failures == 0 ? 0 : static_cast<std::size_t>(failures) < addresses.size() ? 1 : 3;
}

}  // namespace skivet::cli
