// apply: a folder of edited files back into the source they came from.
#include <fmt/format.h>
#include <map>
#include <ostream>
#include <set>
#include <unordered_map>
#include <variant>

#include "base/file_write.h"
#include "bench/export_manifest.h"
#include "cli/writing.h"
#include "container/texture_files.h"

namespace skivet::cli {

namespace fs = std::filesystem;

namespace {

/// Which entry a file of a folder belongs to: by the manifest of the export that wrote it, else by its path. `nothing` is to be done for
/// files that an export wrote and nobody changed, and for the export's own.
class Matcher {
public:
    Matcher(const Context& c, const Container& source, const fs::path& into, std::map<fs::path, ExportedFile> manifest)
        : c_(c), source_(source), manifest_(std::move(manifest)) {
        std::error_code code;
        into_ = fs::weakly_canonical(fs::absolute(into, code), code);
        std::set<fs::path> sources;
        for (const auto& [file, one] : manifest_)
            if (!one.address.inner.empty()) sources.insert(one.address.source);
        only_source_ = sources.size() == 1;
        for (std::size_t i = 0; i < source.entries().size(); ++i) by_stem_[stem_of(source.entries()[i].path)].push_back(i);
    }

    struct Nothing {};  ///< as it was exported
    struct Own {};      ///< the export's list and its log
    using Match = std::variant<Nothing, Own, std::vector<std::string>>;
    Result<Match> match(const fs::path& relative, const Bytes& content) const {
        if (const auto found = manifest_.find(relative.lexically_normal()); found != manifest_.end()) {
            const auto& one = found->second;
            if (one.address.source.empty()) return Own{};
            if (to_hex(sha256(content)) == one.sha256) return Nothing{};
            // A game that was moved, or a copy of it, is meant when only one source was exported.
            const bool there = !one.address.inner.empty() && source_.find(one.address.inner.front());
            if ((one.address.source != into_ && !only_source_) || !there)
                return fail(ErrorCode::missing, "was exported from " + one.address.source.string(), "Apply the folder to that one as well");
            if (!one.whole)
                return fail(ErrorCode::unsupported,
                            "is a part of a texture that was exported apart, or of one that is not whole; an edit of it cannot be put back",
                            "Export the whole texture as DDS or KTX2");
            return one.address.inner;
        }
        if (ExportManifest::is_manifest(relative)) return Own{};
        if (const auto exact = source_.find(relative.generic_string())) return std::vector{source_.entries()[*exact].path};
        const auto same = by_stem_.find(stem_of(relative.generic_string()));
        std::vector<std::string> textures;
        if (same != by_stem_.end())
            for (const auto i : same->second) {
                const auto& path = source_.entries()[i].path;
                const auto head = source_.read_head(i, 1024);
                if (head && c_.context.textures.recognize(*head, path, source_.entries()[i].size)) textures.push_back(path);
            }
        if (textures.size() == 1) return textures;
        if (textures.empty())
            return fail(ErrorCode::missing, same == by_stem_.end() ? "no entry has this path"
                                                                   : "no entry has this path, and no texture has it with another ending");
        std::string list;
        for (const auto& path : textures) list += (list.empty() ? "" : ", ") + path;
        return fail(ErrorCode::usage, "could be any of " + list, "Give it the whole name of the one that is meant, or use replace");
    }

private:
    static std::string stem_of(const std::string& path) { return fs::path(path).replace_extension().generic_string(); }

    const Context& c_;
    const Container& source_;
    std::map<fs::path, ExportedFile> manifest_;
    fs::path into_;
    bool only_source_ = false;
    std::unordered_map<std::string, std::vector<std::size_t>> by_stem_;
};

}  // namespace

int apply_folder(Context& c, const ApplyOptions& options) {
    const auto source = open_source(c.context, options.into);
    if (!source) return c.failed(source.error());
    auto manifest = ExportManifest::read(options.folder);
    if (!manifest) return c.failed(manifest.error());
    const Matcher matcher(c, **source, options.into, std::move(*manifest));
    std::vector<AddressedBytes> items;
    std::size_t skipped = 0, untouched = 0;
    std::map<std::vector<std::string>, std::string> taken;  // two files for one entry would be a guess
    std::vector<fs::path> files;
    std::error_code code;
    for (const auto& file : fs::recursive_directory_iterator(options.folder, code))
        if (file.is_regular_file()) files.push_back(file.path());
    if (code) return c.failed(fail_errno(code.value(), "cannot read the folder " + options.folder.string()).value());
    std::sort(files.begin(), files.end());
    const auto skip = [&](const fs::path& relative, const Error& error) {
        c.err << "skivet-cli: " << error.within(relative.generic_string()).message() << '\n';
        ++skipped;
    };
    for (const auto& file : files) {
        if (c.cancel.canceled()) return c.failed(c.cancel.check().error());
        const auto relative = file.lexically_relative(options.folder);
        auto with = read_file(file, c.context.limits.inflated_bytes);
        if (!with) return c.failed(with.error());
        const auto match = matcher.match(relative, *with);
        if (!match) {
            skip(relative, match.error());
            continue;
        }
        if (std::holds_alternative<Matcher::Own>(*match)) continue;
        if (std::holds_alternative<Matcher::Nothing>(*match)) {
            ++untouched;
            continue;
        }
        const auto& inner = std::get<std::vector<std::string>>(*match);
        if (const auto [other, fresh] = taken.try_emplace(inner, relative.generic_string()); !fresh) {
            skip(relative, {ErrorCode::usage, "is for the same entry as " + other->second, {}, {}, "Keep one of them"});
            continue;
        }
        const auto current = read_joined(c, **source, inner);
        if (!current && current.error().code != ErrorCode::damaged) return c.failed(current.error());
        auto content = content_for(c, current, inner.back(), std::move(*with), file.string(), false);
        if (!content) return c.failed(content.error().within(relative.generic_string()));
        if (current && *current == *content) {
            ++untouched;
            continue;
        }
        items.push_back({inner, std::move(*content)});
    }
    if (untouched > 0)
        c.err << fmt::format("skivet-cli: {} as the game has {}\n", untouched == 1 ? "1 file is" : grouped(untouched) + " files are",
                             untouched == 1 ? "it" : "them");
    const int done = put_pieces(c, **source, options.into, std::move(items), {options.beside, options.patch, options.dry_run});
    return done ? done : skipped ? 1 : 0;
}

}  // namespace skivet::cli
