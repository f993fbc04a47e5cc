#include "cli/project_work.h"
#include "cli/json_line.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <ostream>

#include "cli/writing.h"

namespace skivet::cli::project_work {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

json to_json(const Piece& piece, const Project& project) {
    json files = json::array();
    for (const auto& one : piece.more) files.push_back({{"part", one.part}, {"file", (project.work() / one.file).string()}});
    return {{"piece", piece.id},
            {"name", piece.name()},
            {"address", piece.address.text()},
            {"state", std::string(name_of(piece.state))},
            {"as", std::string(name_of(piece.as.as))},
            {"alpha", std::string(name_of(piece.as.alpha))},
            {"more", files},
            {"file", (project.work() / piece.file).string()},
            {"follows", piece.follows()},
            {"mends", ids_of(piece.options.mends)},
            {"format", piece.options.format == Format::unknown ? json() : json(std::string(info(piece.options.format).name))},
            {"touches", piece.touches}};
}

}  // namespace

void print(Context& c, const json& line) { c.out << dump(line) << '\n'; }

void print_piece(Context& c, const Piece& piece, const Project& project) {
    if (c.json) return print(c, to_json(piece, project));
    c.out << fmt::format("{:>4}  {:<14} {}\n      {}\n", piece.id, name_of(piece.state), piece.address.text(),
                         (project.work() / piece.file).string());
    for (const auto& one : piece.more) c.out << "      " << (project.work() / one.file).string() << '\n';
}

Error no_project(const fs::path& folder) {
    return {ErrorCode::usage, folder.string() + " is no project", {}, {}, "Make one with: skivet-cli project new DIR"};
}

ReadContext with_own(const Context& c, ReadContext context) {
    auto ring = std::make_shared<KeyRing>(*context.keys);
    for (const auto& key : c.context.keys->all()) ring->add(key);
    context.keys = std::move(ring);
    context.choices.insert(context.choices.begin(), c.context.choices.begin(), c.context.choices.end());
    context.known_paths.insert(context.known_paths.end(), c.context.known_paths.begin(), c.context.known_paths.end());
    return context;
}

Result<std::vector<PieceId>> pieces_named(const Project& project, const std::vector<std::string>& names) {
    std::vector<PieceId> out;
    if (names.empty())
        for (const auto& piece : project.pieces) out.push_back(piece.id);
    for (const auto& name : names) {
        std::vector<PieceId> found;
        for (const auto& piece : project.pieces)
            if (std::to_string(piece.id) == name || piece.name() == name || piece.address.text() == name) found.push_back(piece.id);
        if (found.empty())
            return fail(ErrorCode::usage, "the project has no piece " + name, "skivet-cli project status lists them with their numbers");
        if (found.size() > 1)
            return fail(ErrorCode::usage, fmt::format("{} pieces are called {}", found.size(), name), "Name them by number or address");
        out.push_back(found.front());
    }
    return out;
}

void print_journal(Context& c, const Journal& journal) {
    if (!c.json)
        return void(c.out << fmt::format("{}  {} ({} bytes written, {} kept)\n", journal.id, journal.title,
                                         grouped(journal.bytes_written()), grouped(journal.bytes_kept())));
    json sources = json::array();
    for (const auto& part : journal.parts) sources.push_back({{"source", part.source.string()}, {"entries", part.entries}});
    print(c, {{"delivery", journal.id},
              {"title", journal.title},
              {"time", journal.time},
              {"bytes_written", journal.bytes_written()},
              {"bytes_kept", journal.bytes_kept()},
              {"sources", sources}});
}

Result<Open> open(Context& c, const fs::path& folder, OpenWish wish) {
    std::error_code code;
    if (!fs::exists(folder / "project.json", code)) return fail(no_project(folder));
    wish.folder = fs::absolute(folder).lexically_normal();
    wish.cancel = c.cancel;
    PosixFiles files;
    const Writing writing(c);  // what a crash left is put right
    if (!writing.may()) return fail(c.cancel.check().error());
    Open out;
    SKIVET_TRY(out.opened, open_for_work(c.context, wish, files, now()));
    for (const auto& journal : out.opened.recovered.rolled_back)
        c.err << fmt::format("skivet-cli: \"{}\" was cut short; the old bytes are back\n", journal.title);
    for (const auto* list : {&out.opened.recovered.set_aside, &out.opened.recovered.waiting, &out.opened.problems})
        for (const auto& error : *list) c.err << "skivet-cli: " << error.message() << '\n';
    out.context = with_own(c, *out.opened.context);  // what of its sheets is not sound was said above
    return out;
}

Result<std::shared_ptr<const AnalyzedCatalog>> seen_catalog(Context& c, Open& open) {
    const AnalysisContext analysis{open.project(), open.opened.baseline, open.opened.history};
    Progress progress;
    progress.cancel = c.cancel;
    SKIVET_TRY(const auto catalog, read_sources(open.context, analysis, *open.opened.index, progress));
    std::optional<Error> problem;
    auto seen = measure_unseen(open.context, analysis, *catalog, *open.opened.index, nullptr, progress, {}, problem);
    if (problem) c.err << "skivet-cli: " << problem->message() << '\n';
    SKIVET_CHECK(c.cancel.check());
    return seen;
}

}  // namespace skivet::cli::project_work
