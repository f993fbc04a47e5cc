#include "catalog/names.h"

#include <set>
#include <unordered_set>

#include "base/phrase.h"
#include "container/nested_room.h"

namespace skivet {
namespace {

constexpr std::uint64_t most_bytes = 16u << 20;
constexpr std::size_t shortest = 4, longest = 260;  // of a path: shorter ones hit by chance, 260 is the longest many systems allow
constexpr std::size_t most_folders = 4096;          // every text is hashed behind each of them

struct Unnamed {
    std::size_t source;
    std::vector<std::string> inner;
    std::shared_ptr<const Container> container;
    std::vector<std::string> folders;  ///< with their slash; the empty one first
};

bool is_path_sign(std::byte b) {
    const auto c = static_cast<unsigned char>(b);
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '.' || c == '/' || c == '\\' ||
           c == '-';
}

/// Calls with every stretch that could be a path or a file's name.
template <class Found>
void each_name(ByteSpan data, const Found& found) {
    for (std::size_t at = 0; at < data.size();) {
        if (!is_path_sign(data[at])) {
            ++at;
            continue;
        }
        auto end = at;
        while (end < data.size() && is_path_sign(data[end])) ++end;
        if (end - at >= shortest && end - at <= longest) found(std::string_view(reinterpret_cast<const char*>(data.data()) + at, end - at));
        at = end;
    }
}

class Search {
public:
    Search(const ReadContext& context, std::span<const Source> sources, Progress& progress) : context_(context), progress_(progress) {
        for (std::size_t s = 0; s < sources.size(); ++s)
            if (sources[s].container) {
                room_.emplace(*sources[s].container, context_.limits);
                note(sources[s].container, s, {}, 0);
            }
    }

    Result<std::vector<NameCandidate>> run(std::span<const Source> sources) {
        if (unnamed_.empty()) return std::vector<NameCandidate>{};
        for (const auto& source : sources)
            if (source.container) {
                room_.emplace(*source.container, context_.limits);
                SKIVET_CHECK(look_through(*source.container, 0));
            }
        return std::move(out_);
    }

private:
    const ReadContext& context_;
    Progress& progress_;
    std::optional<NestedRoom> room_;  ///< of the source that is looked through
    std::vector<Unnamed> unnamed_;
    std::unordered_set<std::string> tried_;
    std::set<std::pair<std::size_t, std::size_t>> named_;  ///< container and entry
    std::vector<NameCandidate> out_;

    /// The archives inside an entry, when it is one.
    std::shared_ptr<const Container> inside(const Container& container, std::size_t entry, unsigned depth) {
        const auto& e = container.entries()[entry];
        if (depth + 1 >= context_.limits.depth || e.size == 0) return nullptr;
        const auto head = container.read_head(entry, 1024);
        if (!head || context_.textures.recognize(*head, e.path, e.size) || candidates(context_, *head, e.size, e.path).empty())
            return nullptr;
        if (!room_->has_room_for(e)) return nullptr;
        auto view = container.view(entry, context_.limits);
        if (!view) return nullptr;
        auto opened = open_container(context_, std::move(*view));
        if (!opened) return nullptr;
        room_->opened(**opened);
        return std::move(*opened);
    }

    void note(const std::shared_ptr<const Container>& container, std::size_t source, const std::vector<std::string>& inner,
              unsigned depth) {
        if (container->unnamed() > 0) {
            Unnamed u{source, inner, container, {""}};
            std::set<std::string> folders;
            for (const auto& e : container->entries())
                if (const auto slash = e.path.find_last_of('/');
                    slash != std::string::npos && e.path.front() != '#' && folders.size() < most_folders)
                    folders.insert(e.path.substr(0, slash + 1));
            u.folders.insert(u.folders.end(), folders.begin(), folders.end());
            unnamed_.push_back(std::move(u));
        }
        for (std::size_t i = 0; i < container->entries().size() && !progress_.cancel.canceled(); ++i)
            if (const auto nested = inside(*container, i, depth)) {
                auto below = inner;
                below.push_back(container->entries()[i].path);
                note(nested, source, below, depth + 1);
            }
    }

    Status look_through(const Container& container, unsigned depth) {
        progress_.total += container.entries().size();
        const auto in_names = phrase("the names of {}", said(container.kind()));
        for (std::size_t i = 0; i < container.entries().size(); ++i, ++progress_.done) {
            SKIVET_CHECK(progress_.cancel.check());
            const auto& e = container.entries()[i];
            try_name(e.path, in_names);
            if (const auto nested = inside(container, i, depth)) {
                SKIVET_CHECK(look_through(*nested, depth + 1));
                continue;
            }
            if (e.size == 0 || e.size > most_bytes) continue;
            const auto head = container.read_head(i, 1024);
            if (!head || context_.textures.recognize(*head, e.path, e.size)) continue;
            const auto data = container.read(i, context_.limits);
            if (data) each_name(*data, [&](std::string_view name) { try_name(name, e.path); });
        }
        return {};
    }

    void try_name(std::string_view text, const std::string& where) {
        if (text.size() < shortest || text.front() == '#') return;
        std::string name(text);
        std::replace(name.begin(), name.end(), '\\', '/');
        while (!name.empty() && (name.back() == '.' || name.back() == '/')) name.pop_back();
        if (!tried_.insert(name).second) return;
        for (std::size_t u = 0; u < unnamed_.size(); ++u)
            for (const auto& folder : unnamed_[u].folders) {
                const auto path = folder + name;
                const auto entry = unnamed_[u].container->unnamed_by(path);
                if (!entry || !named_.insert({u, *entry}).second) continue;
                out_.push_back({unnamed_[u].source, unnamed_[u].inner, unnamed_[u].container->entries()[*entry].path, path, where});
            }
    }
};

}  // namespace

Result<std::vector<NameCandidate>> find_names(const ReadContext& context, std::span<const Source> sources, Progress& progress) {
    return Search(context, sources, progress).run(sources);
}

}  // namespace skivet
