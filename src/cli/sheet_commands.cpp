// sheet check, draft and try.
#include <fmt/format.h>
#include <algorithm>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/file_write.h"
#include "base/hash.h"
#include "cli/commands.h"
#include "cli/json_line.h"
#include "container/address.h"
#include "container/draft_sheet.h"
#include "container/sheet_try.h"

namespace skivet::cli {
namespace {

using nlohmann::json;

void print_trial(Context& c, const Trial& trial, const std::string& name, bool fields) {
    if (c.json) {
        for (const auto& f : trial.fields)
            if (fields)
                c.out << dump({{"where", f.where},
                               {"field", f.name},
                               {"means", f.means},
                               {"at", f.at},
                               {"size", f.size},
                               {"value", f.value},
                               {"bytes", f.bytes}})
                      << '\n';
        for (const auto& s : trial.unknown) c.out << dump({{"unexplained_at", s.at}, {"size", s.size}}) << '\n';
        return;
    }
    c.out << fmt::format("{}: {}\n", name, trial.recognized_by.empty() ? "not recognized" : "recognized by " + trial.recognized_by);
    if (!fields) return;
    std::string where;
    for (const auto& f : trial.fields) {
        if (f.where != where) c.out << f.where << '\n';
        where = f.where;
        c.out << fmt::format("  {:>10}  {:<48} {:<14} {}{}\n", hex(f.at), f.bytes + (f.size > 16 ? " …" : ""), f.name, f.value,
                             f.means.empty() ? "" : "  — " + f.means);
    }
    constexpr std::size_t most = 40;
    for (std::size_t i = 0; i < std::min(trial.unknown.size(), most); ++i)
        c.out << fmt::format("  {:>10}  {} bytes the sheet does not explain\n", hex(trial.unknown[i].at), grouped(trial.unknown[i].size));
    if (trial.unknown.size() > most) c.out << fmt::format("              … and {} more places\n", grouped(trial.unknown.size() - most));
}

/// Where the bytes of an archive went.
void print_totals(Context& c, const Trial& trial, std::size_t proved, const std::optional<Error>& wrong, const std::string& file) {
    std::uint64_t tables = 0, content = 0;
    for (const auto& s : trial.segments) {
        tables += s.what == Segment::What::table ? s.size : 0;
        content += s.what == Segment::What::entry ? s.size : 0;
    }
    if (c.json) {
        auto j = json{{"entries", trial.entries}, {"readable", trial.readable}, {"unexplained", trial.unexplained},
                      {"padding", trial.padding}, {"tables", tables},           {"content", content},
                      {"proved", proved}};
        if (!file.empty()) j["file"] = file;
        if (wrong) j["wrong"] = wrong->message();
        c.out << dump(j) << '\n';
        return;
    }
    if (!trial.segments.empty())
        c.out << fmt::format("{} bytes of tables, {} of entries, {} of padding in {}\n", grouped(tables), grouped(content),
                             grouped(trial.padding), count_of(trial.paddings, "place"));
    c.out << fmt::format("{}, {} readable; {} bytes are not explained\n", count_of(trial.entries, "entry", "entries"), trial.readable,
                         grouped(trial.unexplained));
}

/// The files a sheet is tried on: one, or all below a folder.
std::vector<std::filesystem::path> examples(const std::filesystem::path& path) {
    std::error_code code;
    if (!std::filesystem::is_directory(path, code)) return {path};
    std::vector<std::filesystem::path> out;
    for (auto at = std::filesystem::recursive_directory_iterator(path, std::filesystem::directory_options::skip_permission_denied, code);
         at != std::filesystem::recursive_directory_iterator() && out.size() < 100'000; at.increment(code))
        if (at->is_regular_file(code)) out.push_back(at->path());
    std::sort(out.begin(), out.end());
    return out;
}

/// A file, or an entry of an archive as one.
Result<FileView> opened(Context& c, const std::string& text) {
    SKIVET_TRY(const auto address, parse_address(text));
    if (address.inner.empty()) return FileView::open(address.source);
    SKIVET_TRY(auto bytes, read_address(c.context, address));
    return FileView::of(std::move(bytes), std::filesystem::path(address.inner.back()).filename());
}

}  // namespace

int sheet_check(Context& c, const std::string& file) {
    const auto bytes = read_file(file, 1u << 20);
    if (!bytes) return c.failed(bytes.error());
    const auto sheet = parse_sheet(as_text(*bytes), std::filesystem::path(file).filename().string());
    if (!sheet) return c.failed(sheet.error());
    constexpr std::string_view kinds[] = {"container", "texture", "wrapper"};
    if (c.json) {
        c.out << dump({{"name", sheet->name},
                       {"kind", std::string(kinds[static_cast<std::size_t>(sheet->kind)])},
                       {"header_fields", sheet->header.fields.size()},
                       {"record_fields", sheet->record.fields.size()}})
              << '\n';
        return 0;
    }
    c.out << fmt::format("{}: a {} sheet with {} header fields and {} record fields\n", sheet->name,
                         kinds[static_cast<std::size_t>(sheet->kind)], sheet->header.fields.size(), sheet->record.fields.size());
    return 0;
}

int sheet_draft(Context& c, const std::string& archive, const std::string& out) {
    const auto view = FileView::open(archive);
    if (!view) return c.failed(view.error());
    Progress progress;
    progress.cancel = c.cancel;
    if (!out.empty() && std::filesystem::exists(out)) {
        const auto old = std::filesystem::is_regular_file(out) ? read_file(out, 1u << 20)
                                                               : Result<Bytes>(fail(ErrorCode::usage, out + " is no regular file"));
        if (!old || (!old->empty() && !parse_sheet(as_text(*old), out)))
            return c.failed(
                Error{ErrorCode::usage, out + " is there already and is no sheet", {}, {}, "Choose another name, or remove it first"});
    }
    const auto draft = draft_sheet(c.context, *view, progress);
    if (!draft) return c.failed(draft.error());
    if (!draft->unsound.empty()) {
        c.err << fmt::format("skivet-cli: no sheet is written: {}\n", draft->unsound);
        return 1;
    }
    c.err << fmt::format("skivet-cli: {}\nskivet-cli: {}, {} of {} that were looked at can be read; {} bytes are not explained\n",
                         draft->found, count_of(draft->entries, "entry", "entries"), grouped(draft->readable), grouped(draft->looked_at),
                         grouped(draft->unexplained));
    for (const auto& key : draft->keys) c.err << fmt::format("skivet-cli: a key was found: --key \"{}={}\"\n", key.name, to_hex(key.bytes));
    if (c.json) {
        auto j = json{{"found", draft->found},         {"entries", draft->entries},         {"readable", draft->readable},
                      {"looked_at", draft->looked_at}, {"unexplained", draft->unexplained}, {"keys", json::array()}};
        for (const auto& key : draft->keys) j["keys"].push_back({{"name", key.name}, {"hex", to_hex(key.bytes)}});
        if (out.empty()) j.update({{"sheet", draft->toml}, {"wrapper", draft->wrapper}});
        else j["file"] = out;
        c.out << dump(j) << '\n';
        if (out.empty()) return 0;
    }
    if (out.empty()) {
        c.out << draft->toml;
        if (!draft->wrapper.empty()) c.err << "skivet-cli: all of the file is hidden; with --out the sheet for that is written, too\n";
        return 0;
    }
    const auto second = std::filesystem::path(out).replace_extension(".wrapper.toml");
    if (!draft->wrapper.empty() && std::filesystem::exists(second))
        return c.failed(Error{ErrorCode::usage, second.string() + " is there already", {}, {}, "Choose another name, or remove it first"});
    if (auto written = write_file(out, as_bytes(draft->toml), {.make_folders = false}); !written) return c.failed(written.error());
    if (draft->wrapper.empty()) return 0;
    if (auto written = write_file(second, as_bytes(draft->wrapper), {.make_folders = false}); !written) return c.failed(written.error());
    c.err << fmt::format("skivet-cli: all of the file is hidden; the sheet for that is {}\n", second.string());
    return 0;
}

int sheet_try(Context& c, const SheetTryOptions& options) {
    const auto source = read_file(options.file, 1u << 20);
    if (!source) return c.failed(source.error());
    auto parsed = parse_sheet(as_text(*source), std::filesystem::path(options.file).filename().string());
    if (!parsed) return c.failed(parsed.error());
    parsed->folder = std::filesystem::path(options.file).parent_path().string();
    const auto name = parsed->name;
    const auto sheet = std::make_shared<const Sheet>(std::move(*parsed));
    std::error_code code;
    const bool many = std::filesystem::is_directory(options.archive, code);
    const auto files = examples(options.archive);
    if (files.empty())
        return c.failed(Error{ErrorCode::missing, options.archive + " has no files", {}, {}, "Give a file, or a folder with examples"});
    int worst = 0;
    std::size_t sound = 0, skipped = 0;
    for (const auto& file : files) {
        if (auto stop = c.cancel.check(); !stop) return c.failed(stop.error());
        auto view = opened(c, many ? file.string() : options.archive);
        if (!view) return c.failed(view.error());
        const auto shown = many ? file.lexically_relative(options.archive).string() : name;
        if (many) {
            const auto bytes = view->bytes();
            if (!bytes || !recognize(*sheet, *bytes, bytes->size(), file.string())) {
                ++skipped;
                continue;
            }
        }
        const auto trial = try_sheet(c.context, sheet, *view, options.records);
        if (!trial) return c.failed(trial.error());
        print_trial(c, *trial, shown, !many);
        std::optional<Error> wrong = trial->first_wrong;
        std::optional<Proof> proof;
        if (options.prove && !wrong) {
            auto context = c.context;  // only this sheet, whatever else would recognize the file
            if (auto added = add_sheet(context, options.file); !added) return c.failed(added.error());
            auto path = file;
            const TemporaryFolder scratch;
            if (view->in_memory()) {
                const auto bytes = view->bytes();
                path = scratch.path / view->path().filename();
                if (scratch.path.empty() || !bytes || !write_file(path, *bytes))
                    return c.failed(Error{ErrorCode::io, "cannot write into the temporary folder", {}, {}, {}});
            }
            context.choices.insert(context.choices.begin(), {path.filename().string(), name});
            Progress progress;
            progress.cancel = c.cancel;
            auto done = prove_writing(context, path, progress);
            if (done) proof = std::move(*done);
            else wrong = done.error().within("writing");
        }
        print_totals(c, *trial, proof ? proof->changed : 0, wrong, many ? shown : std::string());
        if (proof && !c.json) c.out << fmt::format("proved: {}\n", text_of(*proof));
        if (wrong) worst = std::max(worst, c.failed(many ? wrong->within(shown) : *wrong));
        else ++sound;
    }
    if (many && !c.json) c.out << fmt::format("{} of {} files hold; {} are not recognized\n", sound, files.size() - skipped, skipped);
    return worst;
}

}  // namespace skivet::cli
