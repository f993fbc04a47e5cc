#include "container/address.h"

#include <map>
#include <set>

#include "base/file_write.h"
#include "base/phrase.h"
#include "container/texture_files.h"

namespace skivet {
namespace {

// Between two colons of a name, and behind one that ends it, stands a backslash more than the name has; so "::" is always a step.
bool follows_colon(std::string_view text, std::size_t end) {
    while (end > 0 && text[end - 1] == '\\') --end;
    return end > 0 && text[end - 1] == ':';
}
std::string escaped(std::string_view step) {
    std::string out;
    for (std::size_t i = 0; i < step.size(); ++i) {
        if (step[i] == ':' && follows_colon(step, i)) out += '\\';
        out += step[i];
    }
    if (follows_colon(step, step.size())) out += '\\';
    return out;
}
std::string unescaped(std::string_view part) {
    std::string out;
    for (std::size_t i = 0; i < part.size(); ++i)
        if (part[i] != '\\' || !(i + 1 == part.size() || part[i + 1] == ':') || !follows_colon(part, i)) out += part[i];
    return out;
}

Result<std::size_t> entry_of(const Container& container, const std::string& path) {
    if (const auto found = container.find(path)) return *found;
    return fail(ErrorCode::missing, phrase("there is no entry \"{}\"", path), "skivet-cli list shows what is inside");
}

/// The archive that an entry is; `depth` archives are around it.
Result<std::shared_ptr<const Container>> open_inside(const ReadContext& context, const Container& container, const std::string& step,
                                                     std::size_t depth) {
    if (depth >= context.limits.depth) return fail(ErrorCode::limit, phrase("archives more than {} deep", context.limits.depth));
    SKIVET_TRY(const auto entry, entry_of(container, step));
    SKIVET_TRY(auto view, container.view(entry, context.limits));
    return open_container(context, std::move(view));
}

Result<Bytes> read_inner(const ReadContext& context, const Container& container, std::span<const std::string> inner, std::size_t depth) {
    if (inner.size() == 1) {
        SKIVET_TRY(const auto entry, entry_of(container, inner.front()));
        return container.read(entry, context.limits);
    }
    SKIVET_TRY(const auto nested, open_inside(context, container, inner.front(), depth));
    auto found = read_inner(context, *nested, inner.subspan(1), depth + 1);
    if (!found) return fail(std::move(found).error().within(inner.front()));
    return found;
}

/// Takes one change to an entry of this very container in.
Status note_change(const Container& container, AddressedChange& change, Changes& here) {
    const auto& path = change.inner.front();
    if (change.what == AddressedChange::What::add) {
        NewEntry fresh{path, std::move(change.bytes), std::nullopt};
        if (!change.other.empty()) {
            SKIVET_TRY(fresh.like, entry_of(container, change.other));
        }
        here.added.push_back(std::move(fresh));
        return {};
    }
    SKIVET_TRY(const auto entry, entry_of(container, path));
    switch (change.what) {
        case AddressedChange::What::replace: here.replaced.push_back({entry, std::move(change.bytes)}); break;
        case AddressedChange::What::rename: here.renamed.push_back({entry, std::move(change.other)}); break;
        default: here.removed.push_back(entry);
    }
    return {};
}

Result<WritePlan> plan_inner(const ReadContext& context, const Container& container, std::vector<AddressedChange> items, unsigned depth) {
    if (depth > context.limits.depth) return fail(ErrorCode::limit, phrase("archives more than {} deep", context.limits.depth));
    Changes here;
    WritePlan elsewhere;  // archives that lie in a folder are changed where they are
    // Everything that goes into one inner archive is planned together.
    std::stable_sort(items.begin(), items.end(), [](const auto& a, const auto& b) { return a.inner.front() < b.inner.front(); });
    for (std::size_t i = 0; i < items.size();) {
        const auto front = items[i].inner.front();
        std::size_t end = i + 1;
        while (end < items.size() && items[end].inner.front() == front) ++end;
        const bool whole = std::any_of(items.begin() + static_cast<std::ptrdiff_t>(i), items.begin() + static_cast<std::ptrdiff_t>(end),
                                       [](const auto& item) { return item.inner.size() == 1; });
        if (whole) {
            for (; i < end; ++i) {
                if (items[i].inner.size() > 1) return fail(ErrorCode::usage, phrase("\"{}\" is changed as a whole and inside", front));
                SKIVET_CHECK(note_change(container, items[i], here));
            }
            continue;
        }
        SKIVET_TRY(const auto entry, entry_of(container, front));
        SKIVET_TRY(const auto view, container.view(entry, context.limits));
        SKIVET_TRY(const auto nested, open_container(context, view));
        std::vector<AddressedChange> below;
        for (; i < end; ++i) {
            items[i].inner.erase(items[i].inner.begin());
            below.push_back(std::move(items[i]));
        }
        auto plan = plan_inner(context, *nested, std::move(below), depth + 1);
        if (!plan) return fail(std::move(plan).error().within(container.entries()[entry].path));
        if (!plan->empty() && !view.parts().empty()) {
            elsewhere.add(std::move(*plan));
        } else if (!plan->empty()) {
            SKIVET_TRY(const auto current, view.bytes());
            SKIVET_TRY(auto after, planned_bytes(plan->files.front(), current));
            here.replaced.push_back({entry, std::move(after)});
        }
    }
    SKIVET_TRY(auto out, container.plan_changes(here, context.limits));
    out.add(std::move(elsewhere));
    return out;
}

}  // namespace

std::string Address::text() const {
    auto text = escaped(source.string());
    for (const auto& step : inner) text += "::" + escaped(step);
    return text;
}

Result<Address> parse_address(std::string_view text) {
    Address out;
    // A file that really has such a name needs no escape.
    std::error_code code;
    if (text.find("::") != std::string_view::npos && text.size() < 4096 && std::filesystem::exists(std::filesystem::path(text), code)) {
        out.source = text;
        return out;
    }
    std::vector<std::string> parts;
    for (std::size_t at = 0;;) {
        const auto next = text.find("::", at);
        parts.emplace_back(text.substr(at, next == std::string_view::npos ? next : next - at));
        if (parts.back().empty()) return fail(ErrorCode::usage, phrase("\"{}\" is no address", text), "Write archive.zip::path/inside.dds");
        if (next == std::string_view::npos) break;
        at = next + 2;
    }
    for (auto& part : parts) part = unescaped(part);
    out.source = parts.front();
    out.inner.assign(parts.begin() + 1, parts.end());
    return out;
}

Result<Bytes> read_address(const ReadContext& context, const Address& address) { return AddressReader(context).read(address); }

Result<Bytes> AddressReader::read(const Address& address) {
    if (address.inner.empty()) return read_file(address.source, context_.limits.inflated_bytes);
    if (open_.empty() || source_ != address.source) {
        open_.clear();
        steps_.clear();
        SKIVET_TRY(auto opened, open_source(context_, address.source));
        open_.push_back(std::move(opened));
        source_ = address.source;
    }
    auto bytes = read_inside(address.inner);
    if (!bytes) return fail(std::move(bytes).error().within(address.source.filename().string()));
    return bytes;
}

Result<Bytes> AddressReader::read_inside(std::span<const std::string> inner) {
    const auto archives = inner.first(inner.size() - 1);
    const auto known = std::size_t(std::mismatch(steps_.begin(), steps_.end(), archives.begin(), archives.end()).first - steps_.begin());
    steps_.resize(known);
    open_.resize(known + 1);
    const auto within = [this](Error error) {
        for (auto step = steps_.rbegin(); step != steps_.rend(); ++step) error = std::move(error).within(*step);
        return fail(std::move(error));
    };
    for (const auto& step : archives.subspan(known)) {
        auto nested = open_inside(context_, *open_.back(), step, open_.size());
        if (!nested) return within(std::move(nested).error());
        open_.push_back(std::move(*nested));
        steps_.push_back(step);
    }
    const auto& container = *open_.back();
    const auto entry = entry_of(container, inner.back());
    if (!entry) return within(entry.error());
    auto bytes = container.read(*entry, context_.limits);
    if (!bytes) return within(std::move(bytes).error());
    return bytes;
}

Result<Bytes> read_entry(const ReadContext& context, const Container& container, const std::vector<std::string>& inner) {
    return read_inner(context, container, inner, 1);
}

Result<WritePlan> plan_replacements(const ReadContext& context, const Container& source, std::vector<AddressedBytes> replacements) {
    std::vector<AddressedChange> changes;
    for (auto& one : replacements) changes.push_back({AddressedChange::What::replace, std::move(one.inner), std::move(one.bytes)});
    return plan_changes(context, source, std::move(changes));
}

Result<WritePlan> plan_changes(const ReadContext& context, const Container& source, std::vector<AddressedChange> changes) {
    std::vector<AddressedBytes> replaced;
    std::vector<AddressedChange> all;
    for (auto& change : changes)
        if (change.what == AddressedChange::What::replace) replaced.push_back({std::move(change.inner), std::move(change.bytes)});
        else all.push_back(std::move(change));
    SKIVET_TRY(auto files, spread_replacements(context, source, std::move(replaced)));
    std::set<std::vector<std::string>> seen;
    for (auto& one : files) {
        if (!seen.insert(one.inner).second) return fail(ErrorCode::usage, phrase("\"{}\" is replaced twice", one.inner.back()));
        all.push_back({AddressedChange::What::replace, std::move(one.inner), std::move(one.bytes)});
    }
    return plan_inner(context, source, std::move(all), 1);
}

Status check_changes(const ReadContext& context, const Container& after, std::span<const AddressedChange> changes) {
    using What = AddressedChange::What;
    // What has a new name, or another entry has its name, may be there under the old one.
    std::set<std::vector<std::string>> coming;
    std::map<std::vector<std::string>, std::vector<std::string>> now_called;
    const auto renamed = [](const AddressedChange& change) {
        auto out = change.inner;
        out.back() = change.other;
        return out;
    };
    for (const auto& change : changes)
        if (change.what == What::add) coming.insert(change.inner);
        else if (change.what == What::rename) coming.insert(now_called[change.inner] = renamed(change));
    const auto there = [&](const std::vector<std::string>& inner) { return read_entry(context, after, inner); };
    const auto wrong = [](std::string what) { return fail(ErrorCode::io, std::move(what)); };
    for (const auto& change : changes) {
        const auto& name = change.inner.back();
        if (change.what == What::replace || change.what == What::add) {
            const auto name_now = now_called.find(change.inner);
            const bool moved = change.what == What::replace && name_now != now_called.end();
            SKIVET_TRY(const auto back, there(moved ? name_now->second : change.inner));
            if (change.bytes != back) return wrong(phrase("{} does not read back as it was written", name));
            change.bytes.rest();
            continue;
        }
        if (change.what == What::rename) {
            if (const auto back = there(renamed(change)); !back && back.error().code != ErrorCode::key) return fail(back.error());
        }
        if (!coming.contains(change.inner))
            if (const auto back = there(change.inner); back || back.error().code != ErrorCode::missing)
                return wrong(phrase("{} is still there", name));
    }
    return {};
}

Result<WritePlan> plan_replacement(const ReadContext& context, const Address& address, Bytes bytes) {
    if (!address.inner.empty()) {
        SKIVET_TRY(const auto source, open_source(context, address.source));
        std::vector<AddressedBytes> items;
        items.push_back({address.inner, std::move(bytes)});
        auto plan = plan_replacements(context, *source, std::move(items));
        if (!plan) return fail(std::move(plan).error().within(address.source.filename().string()));
        return plan;
    }
    auto parts = split_spread(context.textures, bytes, address.source.string(), siblings_of(context, address), context.limits);
    if (!parts) return fail(std::move(parts).error().within(address.source.filename().string()));
    if (parts->size() == 1) {
        SKIVET_TRY(const auto view, FileView::open(address.source));
        return plan_whole_file(view, std::move(parts->front().bytes));
    }
    WritePlan out;
    for (auto& part : *parts) {
        SKIVET_TRY(const auto view, FileView::open(part.name.empty() ? address.source : address.source.parent_path() / part.name));
        SKIVET_TRY(auto plan, plan_whole_file(view, std::move(part.bytes)));
        out.add(std::move(plan));
    }
    return out;
}

}  // namespace skivet
