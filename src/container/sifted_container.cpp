// What sifting has found, as a container.
#include <fmt/format.h>

#include <unordered_map>

#include "base/cipher.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/bare_file.h"
#include "container/sift.h"

namespace skivet {
namespace {

std::string extension_of(const SiftHit& hit) {
    if (!hit.extension.empty()) return hit.extension;
    auto out = lower(hit.kind);
    std::replace(out.begin(), out.end(), ' ', '-');
    return out;
}

class SiftedContainer final : public Container {
public:
    SiftedContainer(FileView file, std::vector<SiftHit> hits) : file_(std::move(file)), hits_(std::move(hits)) {
        std::vector<const SiftHit*> around;
        add(hits_, around, {});
        recognized_by_ = "being sifted";
    }
    std::string kind() const override { return "sifting"; }

    Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits&) const override {
        auto out = bytes_of(entry);
        if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
        return out;
    }
    Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override {
        const auto& item = items_[entry];
        if (item.around.empty() && !item.hit->bare && item.hit->key.empty()) {
            SKIVET_TRY(const auto bytes, file_.bytes(item.hit->at, std::min<std::uint64_t>(count, item.hit->size)));
            return Bytes(bytes.begin(), bytes.end());
        }
        SKIVET_TRY(auto out, read(entry, ReadLimits{}));
        out.resize(std::min(count, out.size()));
        return out;
    }
    Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override {
        SKIVET_TRY(const auto file, file_.bytes());
        std::unordered_map<const SiftHit*, const Content*> fresh;
        for (const auto& r : replacements) {
            if (r.entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
            const auto size = entries_[r.entry].size;
            if (r.bytes.size() != size)
                return fail(
                    in_entry(*this, r.entry,
                             Error{ErrorCode::unsupported,
                                   phrase("has {} bytes, the new content {}", grouped(size), grouped(r.bytes.size())),
                                   {},
                                   items_[r.entry].hit->at,
                                   "What sifting finds can only be replaced by something of the same size: keep format, size and mips"}));
            fresh[items_[r.entry].hit] = &r.bytes;
        }
        FilePlan plan;
        plan.new_size = file.size();
        plan.way = Way::in_place;
        for (const auto& hit : hits_) {
            const auto old = file.subspan(static_cast<std::size_t>(hit.at), static_cast<std::size_t>(hit.size));
            SKIVET_TRY(auto now, renewed(hit, file, old, fresh, limits));
            if (now) plan.ranges.push_back({hit.at, std::move(*now), 0});
        }
        return finish_plan(file_, std::move(plan));
    }
    std::vector<Segment> segments() const override {
        std::vector<Segment> used;
        for (std::size_t i = 0; i < items_.size(); ++i)
            if (items_[i].around.empty()) used.push_back({Segment::What::entry, items_[i].hit->at, items_[i].hit->size, i});
            else used.push_back({Segment::What::entry, items_[i].around.front()->at, items_[i].around.front()->size, i});
        return with_gaps(std::move(used), file_.size());
    }

private:
    struct Item {
        const SiftHit* hit;
        std::vector<const SiftHit*> around;  ///< streams, outermost first
    };
    FileView file_;
    std::vector<SiftHit> hits_;
    std::vector<Item> items_;

    void add(const std::vector<SiftHit>& hits, std::vector<const SiftHit*>& around, const std::string& folder) {
        for (const auto& hit : hits) {
            const auto name = fmt::format("{}0x{:08x}.{}", folder, hit.at, extension_of(hit));
            if (hit.packing && !hit.inside.empty()) {
                around.push_back(&hit);
                add(hit.inside, around, name + '/');
                around.pop_back();
                continue;
            }
            Entry e;
            e.path = hit.packing ? name + "/content" : name;
            e.size = hit.packing ? hit.unpacked : hit.bare ? bare_file_size(*hit.bare) : hit.size;
            e.stored = hit.size;
            e.at = around.empty() ? hit.at : around.front()->at;
            e.method = hit.packing ? name_of(*hit.packing) : around.empty() ? "stored" : name_of(*around.back()->packing);
            entries_.push_back(std::move(e));
            items_.push_back({&hit, around});
        }
    }

    Result<Bytes> bytes_of(std::size_t entry) const {
        const auto& item = items_[entry];
        SKIVET_TRY(const auto file, file_.bytes());
        Bytes holder;
        ByteSpan data = file;
        for (const auto* stream : item.around) {
            SKIVET_TRY(const auto packed, slice(data, stream->at, stream->size));
            SKIVET_TRY(holder, unpacked_stream(*stream, packed));
            data = holder;
        }
        if (item.hit->bare) return bare_file(*item.hit->bare, data);
        SKIVET_TRY(const auto bytes, slice(data, item.hit->at, item.hit->size));
        if (!item.hit->key.empty()) return xor_with(item.hit->key, bytes);
        if (!item.hit->packing) return Bytes(bytes.begin(), bytes.end());
        SKIVET_TRY(auto unpacked, unpacked_stream(*item.hit, bytes));
        return unpacked;
    }

    /// A stream's content; an LZ4 block's size is known from the hit.
    static Result<Bytes> unpacked_stream(const SiftHit& hit, ByteSpan packed) {
        if (needs_size(*hit.packing)) return unpack(*hit.packing, packed, hit.unpacked, ReadLimits{});
        SKIVET_TRY(auto out, unpack_stream(*hit.packing, packed, hit.unpacked));
        return std::move(out.bytes);
    }

    static bool touches(const SiftHit& hit, const std::unordered_map<const SiftHit*, const Content*>& fresh) {
        return fresh.count(&hit) > 0 ||
               std::any_of(hit.inside.begin(), hit.inside.end(), [&](const auto& inner) { return touches(inner, fresh); });
    }

    /// The bytes of a hit with what is replaced in it; nothing when nothing is.
    /// `around`: what the hit lies in, `old`: its part of it.
    Result<std::optional<Bytes>> renewed(const SiftHit& hit, ByteSpan around, ByteSpan old,
                                         const std::unordered_map<const SiftHit*, const Content*>& fresh, const ReadLimits& limits) const {
        const auto found = fresh.find(&hit);
        if (!hit.packing) {
            if (found == fresh.end()) return std::optional<Bytes>();
            if (!hit.key.empty()) return std::optional<Bytes>(xor_with(hit.key, *found->second));
            if (!hit.bare) return std::optional<Bytes>(found->second->copy());
            SKIVET_TRY(auto levels, bare_levels(*hit.bare, around, *found->second, limits));
            return std::optional<Bytes>(std::move(levels));
        }
        if (!touches(hit, fresh)) return std::optional<Bytes>();  // a stream nobody touches is not unpacked
        SKIVET_TRY(const auto before, unpacked_stream(hit, old));
        auto content = found != fresh.end() ? found->second->copy() : before;
        for (const auto& inner : hit.inside) {
            SKIVET_TRY(const auto part, slice(before, inner.at, inner.size));
            SKIVET_TRY(const auto now, renewed(inner, before, part, fresh, limits));
            if (now) std::copy(now->begin(), now->end(), content.begin() + static_cast<std::ptrdiff_t>(inner.at));
        }
        if (before == content) return std::optional<Bytes>();
        // The packer's usual effort first, then its highest: the stream has to fit into the old one's place.
        std::uint64_t least = ~0ull;
        for (const int level : {0, 9, 12, 19}) {
            SKIVET_TRY(auto packed, pack(*hit.packing, content, level, old));
            least = std::min<std::uint64_t>(least, packed.size());
            // An LZ4 block ends where its size says: only one of just that size fits.
            if (packed.size() > hit.size || (needs_size(*hit.packing) && packed.size() != hit.size)) continue;
            packed.resize(static_cast<std::size_t>(hit.size));  // readers stop at the stream's own end
            return std::optional<Bytes>(std::move(packed));
        }
        if (needs_size(*hit.packing))
            return fail_at(ErrorCode::unsupported, hit.at,
                           phrase("the {} block takes {} bytes now and has to take just {}: its size stands before it", hit.kind,
                                  grouped(least), grouped(hit.size)),
                           "A sheet that describes the archive can write the size as well");
        return fail_at(ErrorCode::unsupported, hit.at,
                       phrase("the {} stream takes {} bytes now, its place has {}", hit.kind, grouped(least), grouped(hit.size)),
                       "Content that packs as well as the old one fits; fewer new details, for example");
    }
};

}  // namespace

std::shared_ptr<const Container> sifted_container(FileView file, std::vector<SiftHit> hits) {
    return std::make_shared<SiftedContainer>(std::move(file), std::move(hits));
}

}  // namespace skivet
