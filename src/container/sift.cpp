// Every position is looked at, because unknown archives align nothing. A table of all pairs of bytes with which anything begins lets
// through about one position in four thousand of random data; what passes is asked of the readers of textures and streams themselves, and
// what they accept is stepped over as a whole.
#include "container/sift.h"

#include <fmt/format.h>

#include "base/text.h"

namespace skivet {
namespace {

// With which streams begin: gzip, Zstandard, LZ4, xz, bzip2. Those of textures are traits of their kinds.
constexpr std::string_view stream_marks[] = {"\x1F\x8B\x08", "\x28\xB5\x2F\xFD", "\x04\x22\x4D\x18", "\xFD\x37zX", "BZh"};
constexpr std::size_t head_bytes = 1024, step_bytes = 1u << 20;

/// Positions whose two bytes begin something.
class Beginnings {
public:
    explicit Beginnings(const ReadContext& context) {
        for (const auto mark : stream_marks) set(mark[0], mark[1]);
        for (const char second : {'\x01', '\x5E', '\x9C', '\xDA'}) set('\x78', second);  // RFC 1950: a window of 32 KB, the four levels
        set('\x5D', '\0');                                                               // .lzma
        for (const auto& kind : context.textures.all())
            for (const auto& mark : kind->traits().marks)
                if (mark.size() >= 2) set(mark[0], mark[1]);
    }
    /// The first position of [at, stop] where something may begin, or stop + 1. Eight bytes behind stop must be there.
    [[nodiscard]] std::size_t next(const std::byte* data, std::size_t at, std::size_t stop) const {
        // Eight positions share one branch, which is nearly never taken.
        for (; at + 8 <= stop; at += 8) {
            const auto low = load_le<std::uint64_t>(data + at), last = low >> 56 | static_cast<std::uint64_t>(data[at + 8]) << 8;
            const auto any =
                bit(low) | bit(low >> 8) | bit(low >> 16) | bit(low >> 24) | bit(low >> 32) | bit(low >> 40) | bit(low >> 48) | bit(last);
            if (any & 1) break;
        }
        while (at <= stop && !(bit(load_le<std::uint16_t>(data + at)) & 1)) ++at;
        return at;
    }

private:
    std::array<std::uint64_t, 1024> pairs_{};  ///< a bit for every pair of bytes
    [[nodiscard]] std::uint64_t bit(std::uint64_t pair) const { return pairs_[pair >> 6 & 1023] >> (pair & 63); }
    void set(char a, char b) {
        const auto pair = static_cast<std::uint8_t>(a) | static_cast<unsigned>(static_cast<std::uint8_t>(b)) << 8;
        pairs_[pair >> 6] |= 1ull << (pair & 63);
    }
};

class Sifter {
public:
    Sifter(const ReadContext& context, Progress& progress, const SiftOptions& options)
        : context_(context), progress_(progress), limits_(context.limits), options_(options), beginnings_(context) {}

    Result<std::vector<SiftHit>> look(ByteSpan data, unsigned depth) {
        std::vector<SiftHit> out;
        std::size_t at = 0;
        while (at + 16 <= data.size()) {
            const auto stop = std::min(data.size() - 16, at + step_bytes);
            const auto start = at;
            at = beginnings_.next(data.data(), at, stop);
            if (depth == 0) progress_.done += std::min(at, stop) - start;
            if (at > stop) {
                SKIVET_CHECK(progress_.cancel.check());
                continue;
            }
            auto hit = something_at(data, at, depth);
            if (!hit) {
                ++at;
                continue;
            }
            SKIVET_CHECK(progress_.cancel.check());
            if (depth == 0) progress_.done += hit->size;
            at += static_cast<std::size_t>(hit->size);
            out.push_back(std::move(*hit));
            if (out.size() >= limits_.entries) break;
        }
        return out;
    }

private:
    const ReadContext& context_;
    Progress& progress_;
    const ReadLimits& limits_;
    const SiftOptions& options_;
    Beginnings beginnings_;
    std::uint64_t unpacked_ = 0;

    std::optional<SiftHit> something_at(ByteSpan data, std::size_t at, unsigned depth) {
        const auto rest = data.subspan(at);
        if (auto texture = texture_at(rest)) {
            texture->at = at;
            return texture;
        }
        auto stream = stream_at(rest, depth);
        if (stream) stream->at = at;
        return stream;
    }

    std::optional<SiftHit> texture_at(ByteSpan rest) const {
        const auto head = rest.first(std::min(rest.size(), head_bytes));
        const auto kind = context_.textures.recognize(head, "");
        if (!kind) return std::nullopt;
        // Of a texture in several files the largest levels lie elsewhere: what follows its own bytes here is something else.
        if (const auto spread = kind->spread(head, "", limits_); !spread || !spread->siblings.empty()) return std::nullopt;
        const auto size = kind->stated_size(rest, limits_);
        if (!size) return std::nullopt;
        const auto layout = kind->layout(rest.first(static_cast<std::size_t>(*size)), *size, limits_);
        if (!layout || layout->damage || layout->surfaces.empty()) return std::nullopt;
        const auto traits = kind->traits();
        const auto& d = layout->desc;
        SiftHit hit;
        hit.kind = kind->name();
        if (!traits.extensions.empty()) hit.extension = traits.extensions.front();
        hit.size = *size;
        hit.desc = d;
        // The shorter the mark, the more the sizes must say: a whole chain of levels is no chance.
        hit.confidence =
            !traits.picture && d.mips > 1 && d.mips == full_mip_count(d.width, d.height) ? traits.certainty + 0.08 : traits.certainty;
        return hit;
    }

    std::optional<SiftHit> stream_at(ByteSpan rest, unsigned depth) {
        if (depth >= options_.depth || unpacked_ > options_.all_bytes) return std::nullopt;
        const auto packing = packing_at(rest);
        if (!packing) return std::nullopt;
        auto stream = unpack_stream(*packing, rest, options_.stream_bytes);
        if (!stream || stream->bytes.size() < options_.least_stream) return std::nullopt;
        unpacked_ += stream->bytes.size();
        SiftHit hit;
        hit.kind = name_of(*packing);
        hit.packing = packing;
        hit.size = stream->packed_size;
        hit.unpacked = stream->bytes.size();
        // zlib, gzip, xz and bzip2 always carry a checksum; LZMA has none, and a short run of bytes may look like it.
        const bool checked =
            *packing == Packing::zlib || *packing == Packing::gzip || *packing == Packing::xz || *packing == Packing::bzip2;
        hit.confidence = checked ? 1.0 : *packing == Packing::lzma_alone ? 0.6 : 0.95;
        if (auto inside = look(stream->bytes, depth + 1)) hit.inside = std::move(*inside);
        return hit;
    }
};

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

    Result<Bytes> read(std::size_t entry, const ReadLimits&) const override {
        auto out = bytes_of(entry);
        if (!out) return fail(in_entry(*this, entry, std::move(out).error()));
        return out;
    }
    Result<Bytes> read_head(std::size_t entry, std::size_t count) const override {
        const auto& item = items_[entry];
        if (item.around.empty()) {
            SKIVET_TRY(const auto bytes, file_.bytes(item.hit->at, std::min<std::uint64_t>(count, item.hit->size)));
            return Bytes(bytes.begin(), bytes.end());
        }
        SKIVET_TRY(auto out, read(entry, ReadLimits{}));
        out.resize(std::min(count, out.size()));
        return out;
    }
    Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits&) const override {
        SKIVET_TRY(const auto file, file_.bytes());
        std::unordered_map<const SiftHit*, const Bytes*> fresh;
        for (const auto& r : replacements) {
            if (r.entry >= entries_.size()) return fail(ErrorCode::usage, "there is no such entry");
            const auto size = items_[r.entry].hit->packing ? items_[r.entry].hit->unpacked : items_[r.entry].hit->size;
            if (r.bytes.size() != size)
                return fail(
                    in_entry(*this, r.entry,
                             Error{ErrorCode::unsupported,
                                   fmt::format("has {} bytes, the new content {}", grouped(size), grouped(r.bytes.size())),
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
            SKIVET_TRY(auto now, renewed(hit, old, fresh));
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
            e.size = hit.packing ? hit.unpacked : hit.size;
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
            SKIVET_TRY(auto unpacked, unpack_stream(*stream->packing, packed, stream->unpacked));
            holder = std::move(unpacked.bytes);
            data = holder;
        }
        SKIVET_TRY(const auto bytes, slice(data, item.hit->at, item.hit->size));
        if (!item.hit->packing) return Bytes(bytes.begin(), bytes.end());
        SKIVET_TRY(auto unpacked, unpack_stream(*item.hit->packing, bytes, item.hit->unpacked));
        return std::move(unpacked.bytes);
    }

    static bool touches(const SiftHit& hit, const std::unordered_map<const SiftHit*, const Bytes*>& fresh) {
        return fresh.count(&hit) > 0 ||
               std::any_of(hit.inside.begin(), hit.inside.end(), [&](const auto& inner) { return touches(inner, fresh); });
    }

    /// The bytes of a hit with what is replaced in it; nothing when nothing is.
    Result<std::optional<Bytes>> renewed(const SiftHit& hit, ByteSpan old,
                                         const std::unordered_map<const SiftHit*, const Bytes*>& fresh) const {
        const auto found = fresh.find(&hit);
        if (!hit.packing) return found == fresh.end() ? std::optional<Bytes>() : std::optional<Bytes>(*found->second);
        if (!touches(hit, fresh)) return std::optional<Bytes>();  // a stream nobody touches is not unpacked
        SKIVET_TRY(const auto before, unpack_stream(*hit.packing, old, hit.unpacked));
        auto content = found != fresh.end() ? *found->second : before.bytes;
        for (const auto& inner : hit.inside) {
            SKIVET_TRY(const auto part, slice(before.bytes, inner.at, inner.size));
            SKIVET_TRY(const auto now, renewed(inner, part, fresh));
            if (now) std::copy(now->begin(), now->end(), content.begin() + static_cast<std::ptrdiff_t>(inner.at));
        }
        if (before.bytes == content) return std::optional<Bytes>();
        // The packer's usual effort first, then its highest: the stream has to fit into the old one's place.
        std::uint64_t least = ~0ull;
        for (const int level : {0, 9, 12, 19}) {
            SKIVET_TRY(auto packed, pack(*hit.packing, content, level, old));
            least = std::min<std::uint64_t>(least, packed.size());
            if (packed.size() > hit.size) continue;
            packed.resize(static_cast<std::size_t>(hit.size));  // readers stop at the stream's own end
            return std::optional<Bytes>(std::move(packed));
        }
        return fail_at(ErrorCode::unsupported, hit.at,
                       fmt::format("the {} stream takes {} bytes now, its place has {}", hit.kind, grouped(least), grouped(hit.size)),
                       "Content that packs as well as the old one fits; fewer new details, for example");
    }
};

class SiftedKind final : public ContainerKind {
public:
    std::string name() const override { return "sifting"; }
    std::optional<Recognized> recognize(ByteSpan, std::uint64_t, std::string_view) const override { return std::nullopt; }
    Result<std::shared_ptr<const Container>> open(const ReadContext& context, FileView file) const override {
        Progress progress;
        return open_sifted(context, std::move(file), progress);
    }
};

}  // namespace

Result<std::vector<SiftHit>> sift(const ReadContext& context, ByteSpan data, Progress& progress, const SiftOptions& options) {
    progress.total += data.size();
    return Sifter(context, progress, options).look(data, 0);
}

Result<std::shared_ptr<const Container>> open_sifted(const ReadContext& context, FileView file, Progress& progress) {
    SKIVET_TRY(const auto data, file.bytes());
    SKIVET_TRY(auto hits, sift(context, data, progress));
    return sifted_container(std::move(file), std::move(hits));
}

std::shared_ptr<const Container> sifted_container(FileView file, std::vector<SiftHit> hits) {
    return std::make_shared<SiftedContainer>(std::move(file), std::move(hits));
}

std::shared_ptr<const ContainerKind> sifted_kind() { return std::make_shared<SiftedKind>(); }

}  // namespace skivet
