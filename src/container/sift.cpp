// Every position is looked at, because unknown archives align nothing. A table of all pairs of bytes with which anything begins lets
// through about one position in four thousand of random data; what passes is asked of the readers of textures and streams themselves, and
// what they accept is stepped over as a whole.
#include "container/sift.h"

#include <algorithm>
#include <array>
#include <iterator>
#include <mutex>

#include "base/cipher.h"
#include "base/phrase.h"
#include "container/bare_file.h"
#include "container/sift_streams.h"
#include "sift/cells.h"

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
        SKIVET_TRY(auto out, with_marks(data, depth));
        if (options_.without_marks) {
            SKIVET_TRY(auto more, in_gaps(data, out, 96, depth, &Sifter::without_marks));
            join(out, std::move(more));
        }
        if (options_.bare) {
            SKIVET_TRY(auto more, in_gaps(data, out, 2048, depth, &Sifter::bare));
            join(out, std::move(more));
        }
        return out;
    }

private:
    using Hits = std::vector<SiftHit>;
    static constexpr std::size_t most_notes = 20;

    static void join(Hits& hits, Hits more) {
        hits.insert(hits.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
        std::sort(hits.begin(), hits.end(), [](const SiftHit& a, const SiftHit& b) { return a.at < b.at; });
    }

    /// What `find` finds in [from, to) of the data, between the hits.
    Result<Hits> in_gaps(ByteSpan data, const Hits& hits, std::uint64_t least, unsigned depth,
                         Result<Hits> (Sifter::*find)(ByteSpan, std::uint64_t, std::uint64_t, unsigned)) {
        Hits out;
        std::uint64_t from = 0;
        for (std::size_t i = 0; i <= hits.size(); ++i) {
            const auto to = i < hits.size() ? hits[i].at : data.size();
            if (to >= from + least && out.size() + hits.size() < limits_.entries) {
                SKIVET_TRY(auto more, (this->*find)(data, from, to, depth));
                out.insert(out.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
            }
            // Textures without a header count by themselves, because there it takes longest.
            if (depth == 0)
                progress_.done += (find == &Sifter::bare && to >= from + least ? 0 : to - from) + (i < hits.size() ? hits[i].size : 0);
            if (i < hits.size()) from = hits[i].at + hits[i].size;
        }
        return out;
    }

    /// Streams and pictures without a magic number, and textures whose header a short key hides.
    Result<Hits> without_marks(ByteSpan data, std::uint64_t from, std::uint64_t to, unsigned depth) {
        Hits out;
        const auto part = data.first(static_cast<std::size_t>(to));
        const auto stop = to - 32;
        // What only looks like something is looked at again from the next byte on. A file that is made of such beginnings must not take
        // for ever: beyond so much that came to nothing the rest is left.
        std::uint64_t wasted = 0;
        const auto most_wasted = 8 * (to - from) + options_.vain_bytes;
        auto at = from;
        while (at <= stop && wasted < most_wasted) {
            SKIVET_CHECK(progress_.cancel.check());
            // A million positions at a time, so that it can be canceled.
            const auto end = std::min(stop + 1, at + step_bytes);
            at = next_without_mark(part, at, end, beginnings);
            if (at == end) continue;
            auto hit = hidden_at(part, at, wasted);
            if (!hit) hit = tga_at(part, at, wasted);
            if (!hit && depth < options_.depth && unpacked_ <= options_.all_bytes)
                if (const auto stream = bare_stream_at(part, static_cast<std::size_t>(at), options_.stream_bytes, wasted))
                    hit = opened(part, at, *stream, depth);
            if (!hit) {
                ++at;
                continue;
            }
            at += hit->size;
            out.push_back(std::move(*hit));
        }
        if (at <= stop && options_.left_out && options_.left_out->size() < most_notes)
            options_.left_out->push_back(
                phrase("{}{:#x} to {:#x}: too much begins like a stream or a hidden header and is none; the rest there was looked at only "
                       "for textures",
                       depth > 0 ? said("inside a stream, ") : "", at, to));
        return out;
    }

    std::optional<SiftHit> opened(ByteSpan data, std::uint64_t at, const BareStream& stream, unsigned depth) {
        const auto packed = data.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(stream.size));
        const auto content = unpack(stream.packing, packed, stream.unpacked, limits_);
        if (!content) return std::nullopt;
        unpacked_ += content->size();
        SiftHit hit;
        hit.at = at;
        hit.size = stream.size;
        hit.kind = name_of(stream.packing);
        hit.packing = stream.packing;
        hit.unpacked = stream.unpacked;
        hit.confidence = stream.confidence;
        if (auto inside = look(*content, depth + 1)) hit.inside = std::move(*inside);
        return hit;
    }

    static constexpr std::array<std::byte, 8> eight(const char (&text)[9]) {
        std::array<std::byte, 8> out{};
        for (std::size_t i = 0; i < 8; ++i) out[i] = static_cast<std::byte>(text[i]);
        return out;
    }
    /// DDS with the size of its header, PNG, KTX, KTX2: beginnings long enough to show a key.
    static inline const std::array<std::array<std::byte, 8>, 4> beginnings = {eight("DDS \x7C\0\0\0"), eight("\x89PNG\r\n\x1A\n"),
                                                                              eight("\xABKTX 11\xBB"), eight("\xABKTX 20\xBB")};

    std::optional<SiftHit> hidden_at(ByteSpan data, std::uint64_t at, std::uint64_t& wasted) const {
        const auto rest = data.subspan(static_cast<std::size_t>(at));
        auto key = hiding_key(rest, beginnings);
        if (key.empty()) return std::nullopt;
        // The header first: most keys are chance.
        const auto head = xor_with(key, rest.first(std::min(rest.size(), head_bytes)));
        const auto kind = context_.textures.recognize(head, "");
        if (!kind || !kind->layout(head, rest.size(), limits_)) return std::nullopt;
        // More and more of it, until it is whole: an archive may have thousands of them.
        for (std::size_t size = 16u << 10;; size *= 4) {
            const auto plain = xor_with(key, rest.first(std::min(rest.size(), size)));
            if (auto hit = texture_at(plain)) {
                hit->at = at;
                hit->key = std::move(key);
                return hit;
            }
            wasted += plain.size();
            if (size >= rest.size() || size >= 64u << 20) return std::nullopt;
        }
    }

    /// Bytes of a TGA file whose header is that of one: up to the last texel, and a footer of version 2.0 right behind. 0 when it ends
    /// early.
    static std::uint64_t tga_bytes(ByteSpan rest) {
        const auto byte = [&](std::size_t i) { return static_cast<unsigned>(rest[i]); };
        const std::uint64_t texel = byte(16) / 8, texels = std::uint64_t{byte(12) | byte(13) << 8} * (byte(14) | byte(15) << 8);
        std::uint64_t end = 18 + byte(0) + (byte(1) ? std::uint64_t{byte(5) | byte(6) << 8} * (byte(7) / 8) : 0);
        if (byte(2) < 9) {
            end += texels * texel;
        } else {
            for (std::uint64_t done = 0; done < texels;) {
                if (end >= rest.size()) return 0;
                const auto packet = byte(static_cast<std::size_t>(end)), count = (packet & 127) + 1;
                end += 1 + (packet & 128 ? texel : texel * count);
                done += count;
                if (done > texels) return 0;
            }
        }
        if (end > rest.size()) return 0;
        constexpr std::string_view mark = "TRUEVISION-XFILE.";
        constexpr std::size_t footer = 26;
        if (rest.size() - end >= footer && as_text(rest.subspan(static_cast<std::size_t>(end) + 8, mark.size())) == mark) end += footer;
        return end;
    }

    /// A TGA file (Truevision TGA File Format Specification, version 2.0): its header makes sense and its rows fit under each other.
    std::optional<SiftHit> tga_at(ByteSpan data, std::uint64_t at, std::uint64_t& wasted) const {
        const auto* p = data.data() + at;
        const auto byte = [&](std::size_t i) { return static_cast<unsigned>(p[i]); };
        const auto type = byte(2), base = type & 7, depth = byte(16);
        if (byte(1) > 1 || type > 11 || (type & 4) != 0 || base == 0 || (base == 1) != (byte(1) == 1)) return std::nullopt;
        if (base == 1 ? depth != 8 : base == 2 ? depth != 16 && depth != 24 && depth != 32 : depth != 8) return std::nullopt;
        if (byte(1) == 0 && (byte(3) | byte(4) | byte(5) | byte(6) | byte(7)) != 0) return std::nullopt;
        if (byte(1) == 1 && (byte(7) % 8 != 0 || byte(7) < 16 || byte(7) > 32 || byte(6) > 1)) return std::nullopt;
        const auto width = byte(12) | byte(13) << 8, height = byte(14) | byte(15) << 8;
        if (width < 8 || height < 8 || width > 8192 || height > 8192 || (byte(17) & 0xC0) != 0) return std::nullopt;
        const auto kind = context_.textures.by_extension("x.tga");
        if (!kind) return std::nullopt;
        const auto rest = data.subspan(static_cast<std::size_t>(at));
        const auto size = tga_bytes(rest);
        wasted += std::min<std::uint64_t>(rest.size(), std::uint64_t{width} * height * 4);
        if (size == 0) return std::nullopt;
        const auto file = rest.first(static_cast<std::size_t>(size));
        const auto layout = kind->layout(file, size, limits_);
        if (!layout || layout->damage || layout->surfaces.empty()) return std::nullopt;
        const auto image = kind->decode(file, *layout, layout->surfaces[0]);
        if (!image) return std::nullopt;
        // The rows of a picture are alike; numbers that look like a header have none.
        const auto* texels = reinterpret_cast<const std::uint8_t*>(image->texels.data());
        const std::size_t row = std::size_t{width} * 4, count = row * (height - 1), aside = row / 8 * 3;
        const auto under = apart(texels, texels + row, count),
                   far = apart(texels, texels + row - aside, count) + apart(texels, texels + aside, count);
        if (far < count / 8 || under * 2 > far * 3 / 4) return std::nullopt;
        SiftHit hit;
        hit.at = at;
        hit.size = size;
        wasted -= std::min<std::uint64_t>(rest.size(), std::uint64_t{width} * height * 4);  // not in vain
        hit.kind = kind->name();
        hit.extension = "tga";
        hit.desc = layout->desc;
        hit.confidence = 0.85;
        return hit;
    }

    /// Textures without any header.
    Result<Hits> bare(ByteSpan data, std::uint64_t from, std::uint64_t to, unsigned depth) {
        // From a multiple of a page, because places that textures usually begin at count.
        const auto begin = from / 4096 * 4096;
        auto more = to - from;  // what counts of the page before is left out
        const auto looked_at = [&](std::uint64_t bytes) {
            if (depth > 0) return;
            progress_.done += std::min(bytes, more);
            more -= std::min(bytes, more);
        };
        const auto part = data.subspan(static_cast<std::size_t>(begin), static_cast<std::size_t>(to - begin));
        SKIVET_TRY(const auto found, find_bare_textures(part, progress_.cancel, looked_at));
        Hits out;
        for (auto texture : found) {
            texture.at += begin;
            texture.palette_at += begin;
            if (texture.at < from) continue;
            SiftHit hit;
            hit.at = texture.at;
            hit.size = texture.size;
            hit.kind = "headerless";
            hit.extension = bare_ending(texture) + 1;
            hit.desc = texture.desc;
            hit.confidence = std::min(0.96, texture.confidence);
            hit.bare = texture;
            out.push_back(std::move(hit));
        }
        return out;
    }

    /// What says itself what it is.
    Result<Hits> with_marks(ByteSpan data, unsigned depth) {
        Hits out;
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
    progress.total += data.size() * (1u + (options.without_marks ? 1u : 0u) + (options.bare ? 1u : 0u));
    return Sifter(context, progress, options).look(data, 0);
}

namespace {

/// What was found in the last few files of this run: it takes long, and the same file is opened again and again.
class Memory {
public:
    [[nodiscard]] static std::shared_ptr<const std::vector<SiftHit>> find(const FileView& file, std::size_t kinds) {
        const std::lock_guard lock(mutex());
        for (const auto& item : items())
            if (item.path == file.path() && item.stamp == file.stamp() && item.kinds == kinds) return item.hits;
        return nullptr;
    }
    static void keep(const FileView& file, std::size_t kinds, const std::vector<SiftHit>& hits) {
        if (file.in_memory() || file.path().empty() || hits.size() > 100'000) return;
        const std::lock_guard lock(mutex());
        auto& all = items();
        all.erase(std::remove_if(all.begin(), all.end(), [&](const Item& item) { return item.path == file.path(); }), all.end());
        if (all.size() >= 8) all.erase(all.begin());
        all.push_back({file.path(), file.stamp(), kinds, std::make_shared<const std::vector<SiftHit>>(hits)});
    }

private:
    struct Item {
        std::filesystem::path path;
        FileStamp stamp;
        std::size_t kinds;  ///< of textures that were known: a new sheet finds more
        std::shared_ptr<const std::vector<SiftHit>> hits;
    };
    static std::mutex& mutex() {
        static std::mutex m;
        return m;
    }
    static std::vector<Item>& items() {
        static std::vector<Item> all;
        return all;
    }
};

}  // namespace

void remember_sifted(const ReadContext& context, const FileView& file, const std::vector<SiftHit>& hits) {
    Memory::keep(file, context.textures.all().size(), hits);
}

Result<std::shared_ptr<const Container>> open_sifted(const ReadContext& context, FileView file, Progress& progress) {
    if (const auto known = Memory::find(file, context.textures.all().size())) return sifted_container(std::move(file), *known);
    SKIVET_TRY(const auto data, file.bytes());
    SKIVET_TRY(auto hits, sift(context, data, progress));
    remember_sifted(context, file, hits);
    return sifted_container(std::move(file), std::move(hits));
}

std::shared_ptr<const ContainerKind> sifted_kind() { return std::make_shared<SiftedKind>(); }

}  // namespace skivet
