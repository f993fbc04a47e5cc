#include "catalog/game_survey.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <tbb/parallel_for.h>
#include <unistd.h>
#include <xxhash.h>
#include <map>
#include <set>

#include "base/phrase.h"
#include "base/text.h"
#include "catalog/catalog.h"
#include "catalog/place_words.h"
#include "container/parts.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr std::size_t head_bytes = 4096;             // one page: every texture kind and nearly every archive shows in it
constexpr std::uint64_t large = 1u << 20;            // smaller files that nobody described are settings, sounds, scripts
constexpr std::uintmax_t longest_list = 256u << 10;  // bytes of a text that may name archives: a line each of thousands
constexpr std::size_t most_texts = 64;
constexpr unsigned most_deep = 64;
constexpr std::string_view for_people = "for people to read, not for the game";
constexpr std::size_t alike_files = 4;   // nobody has described: so many of one ending are things, not archives
constexpr unsigned heads_an_ending = 8;  // read of entries whose names say nothing
constexpr std::size_t few = 3;           // loose pictures: fewer are a window's icon and a title picture

bool begins_with(ByteSpan head, std::string_view mark, std::size_t at = 0) {
    return head.size() >= at + mark.size() && std::memcmp(head.data() + at, mark.data(), mark.size()) == 0;
}

/// Programs, sounds, films, fonts and documents by their marks: what is large and holds no texture.
bool is_something_else(ByteSpan head) {
    using namespace std::string_view_literals;
    for (const auto mark : {"\x7F"
                            "ELF"sv,
                            "MZ"sv, "OggS"sv, "fLaC"sv, "ID3"sv, "%PDF"sv, "\0\1\0\0"sv, "OTTO"sv, "\x1A\x45\xDF\xA3"sv, "MThd"sv,
                            "\xFF\xFB"sv, "#!"sv, "SQLite format 3"sv, "\xCA\xFE\xBA\xBE"sv})
        if (begins_with(head, mark)) return true;
    return begins_with(head, "ftyp", 4) || (begins_with(head, "RIFF") && (begins_with(head, "WAVE", 8) || begins_with(head, "AVI ", 8)));
}

bool is_text(ByteSpan head) {
    const auto bad = std::count_if(head.begin(), head.end(), [](std::byte b) {
        const auto c = static_cast<unsigned>(b);
        return c < 32 && c != '\t' && c != '\n' && c != '\r';
    });
    return !head.empty() && bad == 0;
}

struct Seen {
    fs::path path;
    std::size_t folder = 0;
    std::uint64_t size = 0;
    std::int64_t written = 0;
    enum class What { other, texture, archive, text, unknown } what = What::other;
    std::string kind, reason;
    bool whole_texture = false;  ///< a file made for textures, not a picture
    std::vector<fs::path> with;
};

struct Folder {
    fs::path path;
    std::size_t parent = 0;
    std::string name;
    unsigned depth = 0;
    std::vector<std::string> names;  ///< of its files
};

class Surveyor {
public:
    Surveyor(const ReadContext& context, const fs::path& root, Progress& progress) : context_(context), progress_(progress) {
        out_.root = root;
    }

    Result<GameSurvey> run() {
        SKIVET_CHECK(walk());
        join_parts();
        progress_.total = seen_.size();
        tbb::parallel_for(std::size_t{0}, seen_.size(), [&](std::size_t i) {
            if (!progress_.cancel.canceled()) look_at(seen_[i]);
            ++progress_.done;
        });
        SKIVET_CHECK(progress_.cancel.check());
        find_archives();
        find_loose();
        find_texts();
        std::sort(out_.found.begin(), out_.found.end(), [](const auto& a, const auto& b) { return a.path < b.path; });
        return std::move(out_);
    }

private:
    Status walk() {
        std::error_code code;
        if (!fs::is_directory(out_.root, code))
            return fail(ErrorCode::missing, phrase("{} is no folder", out_.root.string()), "Choose the folder the game is installed in");
        folders_.push_back({out_.root, 0, {}, 0, {}});
        for (std::size_t f = 0; f < folders_.size(); ++f) {
            SKIVET_CHECK(progress_.cancel.check());
            const auto folder = folders_[f].path;  // a copy: the list grows
            fs::directory_iterator items(folder, code);
            if (code && f == 0) return fail_errno(code.value(), phrase("cannot read the folder {}", folder.string()));
            if (code) {
                ++out_.unreadable;
                continue;
            }
            for (const fs::directory_iterator end; items != end; items.increment(code)) {
                if (code) break;
                std::error_code ignored;
                auto name = items->path().filename().string();
                if (items->is_symlink(ignored)) ++out_.linked;
                else if (name.starts_with('.')) ++out_.hidden;
                else if (items->is_directory(ignored)) {
                    if (folders_[f].depth < most_deep) folders_.push_back({items->path(), f, name, folders_[f].depth + 1, {}});
                    else out_.whole = false;
                } else if (items->is_regular_file(ignored)) {
                    if (seen_.size() >= context_.limits.entries) {
                        out_.whole = false;
                        break;
                    }
                    Seen seen;
                    seen.path = items->path();
                    seen.folder = f;
                    seen_.push_back(std::move(seen));
                    folders_[f].names.push_back(std::move(name));
                }
            }
        }
        out_.files = seen_.size();
        out_.folders = folders_.size();
        return {};
    }

    /// Of an archive cut into parts the first stands for all.
    void join_parts() {
        std::set<fs::path> joined;
        std::map<fs::path, std::vector<fs::path>> with;
        for (const auto& folder : folders_) {
            const auto could_be = [](const std::string& name) { return part_name(name).has_value(); };
            if (std::none_of(folder.names.begin(), folder.names.end(), could_be)) continue;
            for (const auto& [whole, group] : group_parts(folder.names)) {
                if (!group.missing.empty() || group.parts.empty()) continue;
                for (const auto& part : group.parts) joined.insert(folder.path / part);
                auto& others = with[folder.path / group.parts.front()];
                for (auto p = group.parts.begin() + 1; p != group.parts.end(); ++p) others.push_back(folder.path / *p);
            }
        }
        if (joined.empty()) return;
        std::erase_if(seen_, [&](Seen& seen) {
            if (!joined.contains(seen.path)) return false;
            const auto first = with.find(seen.path);
            if (first == with.end()) return true;
            seen.with = first->second;
            return false;
        });
    }

    void look_at(Seen& seen) const {
        const int file = ::open(seen.path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK);
        if (file < 0) return;
        std::array<std::byte, head_bytes> buffer;
        struct stat info {};
        const bool known = ::fstat(file, &info) == 0;
        const auto got = known ? ::pread(file, buffer.data(), buffer.size(), 0) : -1;
        ::close(file);
        if (got < 0) return;
        seen.size = static_cast<std::uint64_t>(info.st_size);
        seen.written = info.st_mtim.tv_sec;
        const auto head = ByteSpan(buffer).first(static_cast<std::size_t>(got));
        const auto path = seen.path.string();
        if (!seen.with.empty()) {  // what it is shows only when the parts are joined
            seen.what = Seen::What::archive, seen.kind = "parts", seen.reason = phrase("being cut into {} parts", 1 + seen.with.size());
            std::error_code ignored;
            for (const auto& part : seen.with) seen.size += fs::file_size(part, ignored);
            return;
        }
        if (const auto kind = context_.textures.recognize(head, path, seen.size); kind && !begins_with_texture(*kind, seen)) {
            seen.what = Seen::What::texture, seen.kind = kind->name(), seen.whole_texture = !kind->traits().picture;
            return;
        }
        if (is_text(head)) {
            seen.what = Seen::What::text;
            return;
        }
        if (is_archive(seen, head)) return;
        if (is_something_else(head)) return;
        seen.what = Seen::What::unknown;
        if (seen.size < large) return;
        // What a kind asks of the end of a file, or further inside, is mapped, so that only those pages are read.
        if (const auto view = FileView::open(seen.path))
            if (const auto whole = view->bytes(); whole && is_archive(seen, *whole)) return;
    }

    /// Whether a file of a strange name only begins with a texture: then it is the data of an archive.
    bool begins_with_texture(const TextureKind& kind, const Seen& seen) const {
        if (context_.textures.by_extension(seen.path.string())) return false;
        const auto view = FileView::open(seen.path);
        const auto data = view ? view->bytes() : Result<ByteSpan>(ByteSpan());
        const auto stated = data ? kind.stated_size(*data, context_.limits) : std::nullopt;
        return stated && *stated < seen.size;
    }

    bool is_archive(Seen& seen, ByteSpan head) const {
        const auto possible = candidates(context_, head, seen.size, seen.path.string());
        if (possible.empty() || possible.front().recognized.rank < ranks::weak) return false;
        seen.what = Seen::What::archive;
        seen.kind = possible.front().kind->name();
        seen.reason = possible.front().recognized.reason;
        return true;
    }

    /// The outermost folder below the root whose name says what is in it, up to three deep; 0: none.
    std::size_t speaking_folder(std::size_t folder) const {
        std::size_t out = 0;
        for (auto f = folder; f != 0; f = folders_[f].parent)
            if (folders_[f].depth <= 3 && word_of_folder(folders_[f].name) != PlaceWord::none) out = f;
        return out;
    }

    void place(Found& found, std::size_t folder, PlaceWord own) const {
        const auto speaking = speaking_folder(folder);
        auto word = speaking ? word_of_folder(folders_[speaking].name) : PlaceWord::none;
        found.group_reason = word == PlaceWord::none ? "" : phrase("the folder \"{}\"", folders_[speaking].name);
        // A copy in the folder of mods is a copy.
        if (own != PlaceWord::none && (word == PlaceWord::none || own == PlaceWord::backup || own == PlaceWord::installer))
            word = own, found.group_reason = "its name";
        found.group = group_of(word);
        if (found.group == SourceGroup::base) found.group_reason.clear();
        if (word == PlaceWord::backup) found.what = Found::What::backup;
        if (word == PlaceWord::installer) found.what = Found::What::installer;
        if (word == PlaceWord::documents) found.what = Found::What::documents;
    }

    void find_archives() {
        for (auto& seen : seen_) {
            if (seen.what != Seen::What::archive && seen.what != Seen::What::unknown) continue;
            Found found;
            found.what = seen.what == Seen::What::archive ? Found::What::archive : Found::What::undescribed;
            found.path = seen.path;
            found.with = seen.with;
            found.kind = seen.kind;
            found.reason = seen.reason;
            found.bytes = seen.size;
            found.written = seen.written;
            place(found, seen.folder, word_of_file(seen.path.filename().string()));
            const auto ending = lower(seen.path.extension().string());
            if (found.what == Found::What::archive && (ending == ".exe" || ending == ".msi" || ending == ".deb" || ending == ".rpm"))
                found.what = Found::What::installer;
            switch (found.what) {
                case Found::What::backup: found.why = "a copy that somebody keeps"; break;
                case Found::What::installer: found.why = "what set the game up"; break;
                case Found::What::documents: found.why = for_people; break;
                case Found::What::undescribed: found.why = "nothing describes it yet"; break;
                default: found.wanted = true, found.why = phrase("recognized by {}", found.reason);
            }
            out_.found.push_back(std::move(found));
        }
        std::sort(out_.found.begin(), out_.found.end(), [](const auto& a, const auto& b) { return a.path < b.path; });
        join_companions();
        std::erase_if(out_.found, [](const Found& f) { return f.what == Found::What::undescribed && f.bytes < large; });
        join_alike();
    }

    /// Archives are few and large. Many files of one ending that nobody described (models, levels) are one line, at the folder that has
    /// them.
    void join_alike() {
        std::map<std::string, std::vector<std::size_t>> alike;
        for (std::size_t i = 0; i < out_.found.size(); ++i)
            if (out_.found[i].what == Found::What::undescribed && out_.found[i].with.empty())
                alike[lower(out_.found[i].path.extension().string())].push_back(i);
        std::vector<bool> gone(out_.found.size());
        for (const auto& [ending, group] : alike) {
            if (group.size() < alike_files) continue;
            auto& first = out_.found[group.front()];
            for (std::size_t i = 1; i < group.size(); ++i) {
                first.with.push_back(out_.found[group[i]].path);
                first.bytes += out_.found[group[i]].bytes;
                gone[group[i]] = true;
            }
            first.why = ending.empty() ? phrase("{} files without an ending, which nothing describes yet", grouped(group.size()))
                                       : phrase("{} files named *{}, which nothing describes yet", grouped(group.size()), ending);
        }
        std::size_t at = 0;
        std::erase_if(out_.found, [&](const Found&) { return gone[at++]; });
    }

    /// An index and the data it speaks of: files of one folder and one name before the last point, or that name and a number, of which
    /// one is an archive. Of several that nobody described the smallest, which is the index, stands for all.
    void join_companions() {
        const auto stem_of = [](const fs::path& path) {
            auto stem = lower(path.stem().string());
            while (!stem.empty() && (std::isdigit(static_cast<unsigned char>(stem.back())) || stem.back() == '_' || stem.back() == '-'))
                stem.pop_back();
            return path.parent_path() / stem;
        };
        std::map<fs::path, std::vector<std::size_t>> alike;
        for (std::size_t i = 0; i < out_.found.size(); ++i) alike[stem_of(out_.found[i].path)].push_back(i);
        std::vector<bool> gone(out_.found.size());
        for (const auto& [stem, group] : alike) {
            std::vector<std::size_t> heads, tails;
            for (const auto i : group) (out_.found[i].what == Found::What::archive ? heads : tails).push_back(i);
            std::erase_if(tails, [&](auto i) { return out_.found[i].what != Found::What::undescribed; });
            if (tails.empty() || heads.size() > 1) continue;
            if (heads.empty()) {
                // Without an archive among them only different endings speak for an index.
                std::set<std::string> endings;
                for (const auto i : tails) endings.insert(lower(out_.found[i].path.extension().string()));
                if (endings.size() < 2) continue;
                heads.push_back(*std::min_element(tails.begin(), tails.end(),
                                                  [&](auto a, auto b) { return out_.found[a].bytes < out_.found[b].bytes; }));
                std::erase(tails, heads.front());
            }
            auto& head = out_.found[heads.front()];
            for (const auto i : tails) {
                head.with.push_back(out_.found[i].path);
                head.bytes += out_.found[i].bytes;
                gone[i] = true;
            }
        }
        std::size_t at = 0;
        std::erase_if(out_.found, [&](const Found&) { return gone[at++]; });
    }

    /// The folder that stands for a loose file: below a folder of mods each mod, else the folder whose name speaks, else (0) the game's
    /// own.
    std::size_t unit_of(std::size_t folder) const {
        const auto speaking = speaking_folder(folder);
        if (speaking == 0 || word_of_folder(folders_[speaking].name) != PlaceWord::mods) return speaking;
        auto f = folder, below = folder;
        while (f != speaking) below = f, f = folders_[f].parent;
        return below;
    }

    void find_loose() {
        std::map<std::size_t, std::vector<const Seen*>> units;
        for (const auto& seen : seen_)
            if (seen.what == Seen::What::texture) units[unit_of(seen.folder)].push_back(&seen);
        // A folder in which the game looks first is one even while it is empty.
        for (std::size_t f = 1; f < folders_.size(); ++f)
            if (folders_[f].depth == 1 && word_of_folder(folders_[f].name) == PlaceWord::over) units[f];
        for (const auto& [unit, files] : units) {
            Found found;
            found.what = Found::What::loose;
            found.kind = "folder";
            found.textures = files.size();
            bool made_for_textures = false;
            auto common = files.empty() ? unit : files.front()->folder;
            for (const auto* seen : files) {
                found.bytes += seen->size;
                found.written = std::max(found.written, seen->written);
                made_for_textures = made_for_textures || seen->whole_texture;
                common = meeting(common, seen->folder);
            }
            // A folder with a name of its own stands for itself, because its paths are as the game's are; of the game's own files the
            // innermost folder that has them all.
            found.path = folders_[unit ? unit : common].path;
            for (std::size_t i = 0; i < 4 && i < files.size(); ++i) {
                const auto& path = files[i * files.size() / std::min<std::size_t>(4, files.size())]->path;
                found.samples.push_back({found.path, {path.lexically_relative(found.path).generic_string()}});
            }
            place(found, unit ? unit : common, PlaceWord::none);
            found.opened = true;
            found.reason = found.textures == 1 ? said("one texture or picture in it")
                                               : phrase("{} textures and pictures in it", grouped(found.textures));
            found.wanted =
                found.what == Found::What::loose && (made_for_textures || files.size() >= few || found.group == SourceGroup::over);
            found.why = files.empty()                          ? "empty, and the game looks there first"
                        : found.what == Found::What::backup    ? "a copy that somebody keeps"
                        : found.what == Found::What::installer ? "what set the game up"
                        : found.what == Found::What::documents ? std::string(for_people)
                        : found.wanted                         ? found.reason
                                       : std::string(files.size() == 1 ? "only one picture here" : "only two pictures here");
            out_.found.push_back(std::move(found));
        }
    }

    /// The innermost folder that holds both.
    std::size_t meeting(std::size_t a, std::size_t b) const {
        while (a != b) (folders_[a].depth >= folders_[b].depth ? a : b) = folders_[folders_[a].depth >= folders_[b].depth ? a : b].parent;
        return a;
    }

    void find_texts() {
        std::set<fs::path> near;
        for (const auto& found : out_.found)
            if (found.what == Found::What::archive)
                for (auto folder = found.path.parent_path();; folder = folder.parent_path()) {
                    near.insert(folder);
                    if (folder == out_.root || folder == folder.root_path()) break;
                }
        for (const auto& seen : seen_)
            if (seen.what == Seen::What::text && seen.size <= longest_list && out_.texts.size() < most_texts &&
                near.contains(seen.path.parent_path()))
                out_.texts.push_back(seen.path);
        std::sort(out_.texts.begin(), out_.texts.end());
    }

    const ReadContext& context_;
    Progress& progress_;
    GameSurvey out_;
    std::vector<Folder> folders_;
    std::vector<Seen> seen_;
};

}  // namespace

Result<GameSurvey> survey_game(const ReadContext& context, const fs::path& root, Progress& progress) {
    return Surveyor(context, root, progress).run();
}

void look_inside(const ReadContext& context, Found& found) {
    if (found.opened || found.kind.empty()) return;
    found.opened = true;
    const auto opened = open_source(context, found.path);
    if (!opened) {
        found.error = opened.error();
        // It is one all the same when only a key is missing.
        if (opened.error().code != ErrorCode::key) found.wanted = false;
        found.why = opened.error().message();
        return;
    }
    const auto& entries = (*opened)->entries();
    found.entries = entries.size();
    bool nested = false;
    const bool unnamed = (*opened)->unnamed() > 0;
    // A name that says nothing goes by what the first few of its ending are.
    std::map<std::string, std::pair<EntryKind, unsigned>> by_ending;
    const auto kind_of = [&](std::size_t i) {
        const auto& path = entries[i].path;
        const auto named = kind_by_name(context.textures, path);
        if (named != EntryKind::other) return named;
        auto& [kind, asked] = by_ending.try_emplace(lower(fs::path(path).extension().string()), EntryKind::other, 0u).first->second;
        if (kind == EntryKind::other && asked < heads_an_ending) {
            ++asked;
            if (const auto head = (*opened)->read_head(i, head_bytes))
                kind = context.textures.recognize(*head, path, entries[i].size)     ? EntryKind::texture
                       : !candidates(context, *head, entries[i].size, path).empty() ? EntryKind::container
                                                                                    : EntryKind::other;
        }
        return kind;
    };
    std::vector<std::size_t> textures;
    for (std::size_t i = 0; i < entries.size(); ++i) {
        const auto kind = kind_of(i);
        nested = nested || kind == EntryKind::container;
        if (kind != EntryKind::texture && kind != EntryKind::image) continue;
        textures.push_back(i);
        const auto path = lower(entries[i].path);
        found.path_hashes.push_back(XXH3_64bits(path.data(), path.size()));
    }
    std::sort(found.path_hashes.begin(), found.path_hashes.end());
    found.textures = textures.size();
    for (std::size_t i = 0; i < 4 && i < textures.size(); ++i)
        found.samples.push_back({found.path, {entries[textures[i * textures.size() / std::min<std::size_t>(4, textures.size())]].path}});
    if (found.what != Found::What::archive) return;
    found.wanted = !textures.empty() || nested || unnamed;
    found.why = textures.size() == 1  ? "one texture in it"
                : !textures.empty()   ? phrase("{} textures in it", grouped(textures.size()))
                : nested              ? "archives in it"
                : unnamed             ? "names known only by hashes"
                : entries.empty()     ? "it is empty"
                : entries.size() == 1 ? std::string("its only entry is no texture")
                                      : phrase("no texture among its {} entries", grouped(entries.size()));
}

}  // namespace skivet
