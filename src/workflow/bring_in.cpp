#include "workflow/bring_in.h"

#include <fmt/format.h>
#include <algorithm>
#include <map>

#include "base/file_write.h"
#include "base/phrase.h"
#include "base/text.h"
#include "workflow/saves.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::size_t most_files = 20'000;

/// "a/b/Horse.DDS" as {"a", "b"} and "horse.dds".
struct Parts {
    std::vector<std::string> folders;
    std::string name;
};
Parts parts_of(const std::string& path) {
    Parts out;
    for (const auto& step : fs::path(lower(path)).lexically_normal())
        if (const auto text = step.generic_string(); !text.empty() && text != "/" && text != ".") out.folders.push_back(text);
    if (!out.folders.empty()) {
        out.name = out.folders.back();
        out.folders.pop_back();
    }
    return out;
}

std::string without_ending(const std::string& name) {
    const auto dot = name.rfind('.');
    return dot == std::string::npos || dot == 0 ? name : name.substr(0, dot);
}

std::size_t shared_folders(const Parts& a, const Parts& b) {
    std::size_t n = 0;
    while (n < a.folders.size() && n < b.folders.size() && a.folders[a.folders.size() - 1 - n] == b.folders[b.folders.size() - 1 - n]) ++n;
    return n;
}

class Matcher {
public:
    Matcher(const AnalyzedCatalog& catalog, const ReadLimits& limits) : catalog_(catalog), limits_(limits) {
        const auto& items = catalog.snapshot->catalog.items;
        parts_.resize(items.size());
        for (std::size_t i = 0; i < items.size(); ++i) {
            if (!items[i].is_texture() || !items[i].effective) continue;
            parts_[i] = parts_of(items[i].path());
            by_name_[parts_[i].name].push_back(i);
            if (const auto stem = without_ending(parts_[i].name); stem != parts_[i].name) by_name_[stem].push_back(i);
            const auto name = split_name(items[i].path(), catalog.analysis.habits);
            by_base_[lower(name.base)].push_back(i);
        }
    }

    /// Nothing where it fits nothing.
    Result<std::optional<BroughtMatch>> match(const fs::path& folder, const fs::path& file, const CancelToken& cancel) {
        BroughtMatch out;
        out.file = file;
        const auto mine = parts_of(file.generic_string());
        // x.dds.png is an export of x.dds; x.png may be of x.anything.
        for (auto name = mine.name; out.others.empty();) {
            if (const auto found = by_name_.find(name); found != by_name_.end()) take_nearest(out, mine, found->second);
            const auto shorter = without_ending(name);
            if (shorter == name) break;
            name = shorter;
        }
        if (out.others.empty()) {
            const auto name = split_name(file.generic_string(), catalog_.analysis.habits);
            if (const auto found = by_base_.find(lower(name.base)); found != by_base_.end()) {
                auto fitting = found->second;
                // A normal map is no base color, whatever both are called.
                if (name.habit)
                    std::erase_if(fitting, [&](std::size_t item) {
                        const auto theirs = split_name(catalog_.snapshot->catalog.items[item].path(), catalog_.analysis.habits).habit;
                        return theirs ? theirs->role != name.habit->role : catalog_.analysis.roles[item] != name.habit->role;
                    });
                if (!fitting.empty()) {
                    take_nearest(out, mine, fitting);
                    out.by = MatchedBy::bare_name;
                    out.doubt = "the names are alike only without their endings";
                }
            }
        }
        auto bytes = read_file(folder / file, limits_.inflated_bytes);
        if (!bytes) return fail(std::move(bytes).error().within(file.string()));
        // Its size stands in its header; only what has to be looked at is decoded.
        std::uint32_t width = 0, height = 0;
        std::optional<Result<TextureFile>> texture;
        if (!out.others.empty()) texture = TextureFile::open(kinds_, *bytes, file.string(), limits_);
        if (texture && *texture) {
            width = (*texture)->layout.desc.width, height = (*texture)->layout.desc.height;
        } else {
            auto edited = read_edited(std::move(*bytes), limits_, file.string());
            if (!edited) return fail(std::move(edited).error().within(file.string()));
            width = edited->image.width, height = edited->image.height;
            if (out.others.empty()) SKIVET_CHECK(take_by_picture(out, edited->image, cancel));
            if (out.others.empty()) return std::optional<BroughtMatch>();
        }
        out.item = out.others.front();
        out.others.erase(out.others.begin());
        if (!out.others.empty() && out.doubt.empty())
            out.doubt = out.others.size() == 1 ? said("another one fits as well") : phrase("{} others fit as well", out.others.size());
        const auto& d = catalog_.snapshot->catalog.items[out.item].desc;
        if (std::uint64_t{d.width} * height != std::uint64_t{d.height} * width && out.doubt.empty())
            out.doubt = phrase("its sides are {}×{}, the texture's {}×{}", width, height, d.width, d.height);
        return std::optional(std::move(out));
    }

private:
    const AnalyzedCatalog& catalog_;
    const ReadLimits& limits_;
    std::vector<Parts> parts_;
    std::map<std::string, std::vector<std::size_t>> by_name_, by_base_;
    std::optional<PictureSearch> pictures_;
    const TextureKinds kinds_ = TextureKinds::standard();

    /// Those that share the most folders with the file.
    void take_nearest(BroughtMatch& out, const Parts& mine, const std::vector<std::size_t>& items) {
        std::size_t most = 0;
        for (const auto item : items) {
            const auto shared = shared_folders(mine, parts_[item]);
            if (shared > most) most = shared, out.others.clear();
            if (shared == most) out.others.push_back(item);
        }
        if (out.others.empty()) return;
        const auto& all = parts_[out.others.front()].folders;
        out.by = most == all.size() && most > 0 ? MatchedBy::path : MatchedBy::name;
    }

    Status take_by_picture(BroughtMatch& out, const Image& picture, const CancelToken& cancel) {
        if (!pictures_) {
            auto facts = catalog_.analysis.facts;
            const auto& items = catalog_.snapshot->catalog.items;
            for (std::size_t i = 0; i < facts.size(); ++i)
                if (!items[i].effective) facts[i] = nullptr;
            pictures_ = PictureSearch::build(std::move(facts));
        }
        SKIVET_TRY(const auto hits, pictures_->find(picture, 4, cancel));
        constexpr float alike = 0.7f, whole = 0.9f;  // above chance (alike.h), and not a part of an atlas
        for (const auto& hit : hits)
            if (hit.score >= alike && hit.width * hit.height >= whole && hit.quarter_turns == 0 && !hit.mirrored)
                out.others.push_back(hit.picture);
        out.by = MatchedBy::picture;
        out.doubt = "it only looks alike";
        return {};
    }
};

}  // namespace

std::string_view name_of(MatchedBy by) {
    constexpr std::string_view names[] = {"path", "name", "bare name", "picture"};
    return names[static_cast<std::size_t>(by)];
}

Result<BroughtFolder> match_folder(const AnalyzedCatalog& catalog, const Project& project, const fs::path& folder, const ReadLimits& limits,
                                   Progress& progress) {
    std::vector<fs::path> files;
    std::error_code code;
    for (auto it = fs::recursive_directory_iterator(folder, fs::directory_options::skip_permission_denied, code);
         !code && it != fs::recursive_directory_iterator(); it.increment(code)) {
        SKIVET_CHECK(progress.cancel.check());
        if (it->is_symlink(code) || !it->is_regular_file(code) || !is_named_like_an_edit(it->path())) continue;
        files.push_back(it->path().lexically_relative(folder));
        if (files.size() > most_files)
            return fail(ErrorCode::limit, phrase("{} holds more than {} pictures", folder.string(), grouped(most_files)),
                        "Bring in its folders one by one");
    }
    if (code) return fail_errno(code.value(), phrase("cannot read the folder {}", folder.string()));
    std::sort(files.begin(), files.end());
    progress.total = files.size();
    BroughtFolder out;
    Matcher matcher(catalog, limits);
    std::map<std::size_t, std::vector<std::size_t>> asked;  // by item: matches
    for (const auto& file : files) {
        SKIVET_CHECK(progress.cancel.check());
        auto match = matcher.match(folder, file, progress.cancel);
        if (!match && match.error().code == ErrorCode::canceled) return fail(std::move(match).error());
        if (!match) out.errors.push_back(std::move(match).error());
        else if (!*match) out.unmatched.push_back(file);
        else {
            asked[(*match)->item].push_back(out.matches.size());
            out.matches.push_back(std::move(**match));
        }
        ++progress.done;
    }
    for (const auto& [item, matches] : asked)
        for (const auto i : matches)
            if (matches.size() > 1 && out.matches[i].doubt.empty())
                out.matches[i].doubt = phrase("{} files are for this texture", matches.size());
    const PiecesByAddress on_bench(project);
    for (auto& match : out.matches) {
        const auto& item = catalog.snapshot->catalog.items[match.item];
        const auto id = on_bench.find(address_of(catalog.snapshot->sources[item.source], item));
        const auto* piece = id ? project.piece(*id) : nullptr;
        if (match.doubt.empty() && piece && piece->is_saved()) match.doubt = "an edit of it is on the bench, and would become a version";
    }
    std::stable_partition(out.matches.begin(), out.matches.end(), [](const BroughtMatch& m) { return !m.doubt.empty(); });
    return out;
}

Result<PieceId> bring_in(const ReadContext& context, Project& project, const Address& address, const fs::path& file, std::int64_t now) {
    auto bytes = read_file(file);
    if (!bytes) return fail(std::move(bytes).error().within(file.filename().string()));
    const auto* piece = project.piece_of(address);
    if (!piece) {
        SKIVET_TRY(auto taken, take_piece(context, project, address, {}, now));
        piece = project.add(std::move(taken));
    }
    const auto id = piece->id;
    SKIVET_TRY(const auto kept, keep_versions(project, *piece, now));
    add_versions(project, kept);
    // Under the piece's name with the file's own ending, so that programs know what it is.
    const auto ending = lower(file.extension().string());
    auto to = piece->file;
    if (lower(to.extension().string()) != ending) {
        to.replace_extension(ending);
        const auto stem = to.stem().string();
        std::error_code code;
        for (int n = 2; fs::exists(project.work() / to, code); ++n) to.replace_filename(fmt::format("{}_{}{}", stem, n, ending));
    }
    SKIVET_CHECK(write_file(project.work() / to, *bytes));
    SKIVET_CHECK(use_file(project, id, to, now));
    return id;
}

}  // namespace skivet
